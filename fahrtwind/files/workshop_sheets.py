"""Sheets of the workshop as PDF: pieces with their dimensions, drilling templates at true scale, labels."""

from __future__ import annotations

import io
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import segno
import typst

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_at_least, say_length, say_place, say_size
from fahrtwind.core.stations.build.piece import Face, Hole, Piece
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.files.drawing import Box, Drawing, Line, Stamp, Text
from fahrtwind.files.pieces_drawing import FACES, draw_hole
from fahrtwind.files.svg import to_svg

HERE = Path(__file__).parent
FONTS = HERE / "fonts"
PAPERS: dict[UnitSystem, str] = {"metric": "a4", "imperial": "us-letter"}
SHEET_MM = 250.0
"""Room for a piece across a sheet, whichever the paper."""
SCALES = (1, 2, 5, 10, 15, 20, 25, 30, 40, 50)
TEXT_MM, CROSS_MM = 2.9, 4.0
WINDOW_MM, OVERLAP_MM, CHECK_MM = 220.0, 20.0, 100.0
"""A page of a template shows so much of a piece, and so much of it again on the next."""
TALL_MM = 160.0


@dataclass(frozen=True, slots=True)
class PieceForm:
    """Pieces that are made the same way: one sheet serves them all."""

    piece: Piece
    ids: tuple[str, ...]


def forms_of(pieces: tuple[Piece, ...]) -> list[PieceForm]:
    """What a hole is for tells pieces apart to whoever puts them together, not to whoever makes them."""
    forms: dict[Any, list[Piece]] = {}
    for p in pieces:
        holes = tuple(
            (h.at_mm, h.off_mm, h.face, h.diameter_mm, h.through, h.slot_mm, h.slot_across) for h in p.holes
        )
        ends = (p.cut_marked_deg, p.cut_far_deg)
        forms.setdefault((p.kind, p.material, p.length_mm, holes, p.bends, ends), []).append(p)
    return [PieceForm(alike[0], tuple(p.id for p in alike)) for alike in forms.values()]


def write_piece_sheets(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """A sheet for each kind of piece: all dimensions from the marked end, hole by hole, bend by bend."""
    sheets = [_piece_sheet(form, job) for form in forms_of(evaluation.findings.pieces)]
    return compile_sheet(
        "pieces.typ",
        {
            "title": f"Pieces: {job.name}",
            "stamp": stamp.words(),
            "paper": PAPERS[job.units],
            "pieces": sheets,
        },
    )


def _piece_sheet(form: PieceForm, job: Job) -> dict[str, Any]:
    p, units, coat = form.piece, job.units, job.workshop.coat
    scale = next((s for s in SCALES if p.length_mm / s <= SHEET_MM), SCALES[-1])
    drawing = _faces(p, float(scale))
    ends = "cut square"
    if p.cut_marked_deg or p.cut_far_deg:
        ends = f"ends {p.cut_marked_deg:g}° and {p.cut_far_deg:g}° off square"
    return {
        "title": f"{len(form.ids)} × {p.kind}" if len(form.ids) > 1 else p.name,
        "ids": ", ".join(form.ids),
        "words": f"{p.says}, {say_place(p.length_mm, units)}, {ends}. Mark the {p.marked} end."
        + (f" Finish: {coat.kind}, {coat.when}." if coat.kind != "none" else ""),
        "scale": f"1 : {scale}",
        "drawing": to_svg(drawing, scale),
        "width_mm": drawing.extent.length_mm / scale,
        "holes": [
            [
                str(i),
                say_place(h.at_mm, units),
                h.face,
                say_place(h.off_mm, units) if h.off_mm else "–",
                say_size(h.pilot_mm, units) if h.pilot_mm else "–",
                _drill(h, units),
                h.what if len(form.ids) == 1 else "",
            ]
            for i, h in enumerate(p.holes, start=1)
        ],
        "bends": [
            [
                say_place(b.at_mm, units),
                "up" if b.up else "down",
                say_size(b.inside_mm, units),
                f"{b.angle_deg:g}°",
                f"{b.tool_deg:.1f}°",
            ]
            for b in p.bends
        ],
    }


def _drill(hole: Hole, units: UnitSystem) -> str:
    told = say_size(hole.diameter_mm, units) + (", through" if hole.through else "")
    if hole.thread:
        return f"{told}, {hole.thread}"
    if not hole.slot_mm:
        return told
    way = "across" if hole.slot_across else "along"
    return f"{told}, slot {say_at_least(hole.slot_mm, units)} {way}"


def _drilled_faces(piece: Piece) -> list[Face]:
    return [f for f in FACES if any(h.face == f for h in piece.holes)] or ["upper"]


def _breadth(piece: Piece, face: Face) -> float:
    return piece.wide_mm if face in ("upper", "lower") else piece.high_mm


def _faces(piece: Piece, scale: float) -> Drawing:
    """Face below face, the marked end at x = 0; text and crosses of ``TEXT_MM`` on paper."""
    text, gap = TEXT_MM * scale, 3 * TEXT_MM * scale
    drawing = Drawing(Rect(0, 0, 1, 1), stroke_mm=0.25 * scale)
    y = 0.0
    for face in _drilled_faces(piece):
        breadth = _breadth(piece, face)
        drawing.add(Text("NUMBERS", 0.0, y + text, text, f"{face} face"))
        y += gap / 2 + text
        drawing.add(Box("PANELS", Rect(0.0, y, piece.length_mm, breadth)))
        drawing.add(Line("DATUM", -text, y, -text, y + breadth))
        for bend in piece.bends:
            drawing.add(Line("MEMBERS", bend.at_mm, y - text, bend.at_mm, y + breadth + text))
        for number, hole in enumerate(piece.holes, start=1):
            if hole.face == face:
                draw_hole(drawing, hole, y + breadth / 2, CROSS_MM * scale)
                drawing.add(
                    Text("DIMENSIONS", hole.at_mm, y + breadth + 1.4 * text, text, f"{number}", "middle")
                )
        y += breadth + gap
    drawing.extent = Rect(-3 * text, -text, piece.length_mm + 6 * text, y + 2 * text)
    return drawing


def write_templates(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """Holes at true scale, page by page: each page says where its left line lies from the marked end, and
    carries a bar of 100 mm to check by. Stretches without a hole or a bend are left out.
    """
    pages = [
        page
        for form in forms_of(evaluation.findings.pieces)
        if form.piece.holes
        for page in _template_pages(form, job.units)
    ]
    return compile_sheet(
        "templates.typ",
        {
            "title": f"Drilling templates 1 : 1: {job.name}",
            "stamp": stamp.words(),
            "paper": PAPERS[job.units],
            "pages": pages,
        },
    )


def _template_pages(form: PieceForm, units: UnitSystem) -> Iterator[dict[str, Any]]:
    piece = form.piece
    step = WINDOW_MM - OVERLAP_MM
    places = [h.at_mm for h in piece.holes] + [b.at_mm for b in piece.bends]
    start = 0.0
    while start < piece.length_mm:
        if any(start <= at <= start + WINDOW_MM for at in places):
            for faces in _stacked(piece, start):
                drawing = _window(piece, faces, start, units)
                yield {
                    "words": f"{', '.join(form.ids[:8])}{' …' if len(form.ids) > 8 else ''}: "
                    f"{', '.join(faces)} face{'s' if len(faces) > 1 else ''}, from "
                    f"{say_length(start, units)} to "
                    f"{say_length(min(start + WINDOW_MM, piece.length_mm), units)} of the {piece.marked} end",
                    "drawing": to_svg(drawing),
                    "width_mm": drawing.extent.length_mm,
                }
        start += step


def _stacked(piece: Piece, start: float) -> Iterator[list[Face]]:
    """Faces that go on one page together: those with a hole there, one to bend on where there is none."""
    here = [h.face for h in piece.holes if start <= h.at_mm <= start + WINDOW_MM]
    drilled = [f for f in _drilled_faces(piece) if f in here] or _drilled_faces(piece)[:1]
    page: list[Face] = []
    used = 0.0
    for face in drilled:
        needed = _breadth(piece, face) + 6 * TEXT_MM
        if page and used + needed > TALL_MM:
            yield page
            page, used = [], 0.0
        page.append(face)
        used += needed
    yield page


def _window(piece: Piece, faces: list[Face], start: float, units: UnitSystem) -> Drawing:
    """What a page shows, x from the marked end: exactly a window wide, so that the page is at true scale."""
    end = min(start + WINDOW_MM, piece.length_mm)
    drawing = Drawing(Rect(0, 0, 1, 1), stroke_mm=0.2)
    drawing.add(
        Line("RULER", start, 0.0, start + CHECK_MM, 0.0),
        Text("RULER", start + CHECK_MM + 2, TEXT_MM / 3, TEXT_MM, "100 mm: measure it first"),
    )
    for tick in (0.0, CHECK_MM):
        drawing.add(Line("RULER", start + tick, -2.0, start + tick, 2.0))
    y = 4 * TEXT_MM
    for face in faces:
        breadth = _breadth(piece, face)
        drawing.add(Text("NUMBERS", start, y, TEXT_MM, f"{face} face"))
        y += TEXT_MM
        drawing.add(Line("PANELS", start, y, end, y), Line("PANELS", start, y + breadth, end, y + breadth))
        for at in (start, end):
            drawing.add(Line("DATUM", at, y - 2, at, y + breadth + 2))
        for at in (start + OVERLAP_MM, end - OVERLAP_MM):
            drawing.add(Line("LIDS", at, y - 2, at, y + breadth + 2))
        for bend in piece.bends:
            if start <= bend.at_mm <= end:
                drawing.add(Line("MEMBERS", bend.at_mm, y, bend.at_mm, y + breadth))
        for number, hole in enumerate(piece.holes, start=1):
            if hole.face == face and start <= hole.at_mm <= end:
                draw_hole(drawing, hole, y + breadth / 2, 7.0)
                told = f"{number}: {say_place(hole.at_mm, units)}"
                drawing.add(
                    Text("DIMENSIONS", hole.at_mm, y + breadth + 1.5 * TEXT_MM, TEXT_MM, told, "middle")
                )
        y += breadth + 4 * TEXT_MM
    margin = 12.0
    drawing.extent = Rect(start - margin, -4.0, WINDOW_MM + 2 * margin, y + 4.0)
    return drawing


def write_labels(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """A label for each piece: its number, what it is, which end is marked, and a code that opens it."""
    labels = []
    for p in evaluation.findings.pieces:
        code, svg = segno.make(_address(stamp, p.id), error="m", micro=False), io.BytesIO()
        code.save(svg, kind="svg", scale=4, border=2, dark="#23282b", light="#ffffff")
        labels.append(
            {
                "id": p.id,
                "name": p.name,
                "long": f"{say_place(p.length_mm, job.units)}, mark: {p.marked} end",
                "code": svg.getvalue().decode(),
            }
        )
    return compile_sheet(
        "labels.typ", {"title": f"Labels: {job.name}", "paper": PAPERS[job.units], "labels": labels}
    )


def _address(stamp: Stamp, piece: str) -> str:
    """Where the piece is found in the application; without one, its number."""
    if stamp.address is None:
        return f"piece {piece}"
    return f"{stamp.address}/build?part=pieces&at=pieces.{piece}"


def compile_sheet(name: str, data: dict[str, Any]) -> bytes:
    """A sheet by its form and what goes into it, as PDF bytes."""
    sheet = json.dumps(data, ensure_ascii=False)
    pdf = typst.compile(
        HERE / name, font_paths=[FONTS], ignore_system_fonts=True, sys_inputs={"sheet": sheet}
    )
    return bytes(pdf)
