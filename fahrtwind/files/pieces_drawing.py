"""Every piece face by face at true scale, with its holes and their measures from the marked end."""

from __future__ import annotations

from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_place
from fahrtwind.core.stations.build.piece import Face, Hole, Piece
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.files.drawing import Box, Circle, Drawing, Line, Stamp, Text

FACES: tuple[Face, ...] = ("upper", "lower", "front", "rear", "port", "starboard")
TEXT_MM, GAP_MM, BELOW_MM, BESIDE_MM, CROSS_MM, CHECK_MM = 12.0, 30.0, 60.0, 130.0, 8.0, 100.0


def pieces_drawing(pieces: tuple[Piece, ...], units: UnitSystem, stamp: Stamp | None = None) -> Drawing:
    """One below the other, marked end at x = 0; a bar of 100 mm to check the scale by comes first."""
    longest = max((p.length_mm for p in pieces), default=1000.0)
    drawing = Drawing(Rect(-GAP_MM, -GAP_MM, longest + GAP_MM + BESIDE_MM, 0.0), stroke_mm=0.5)
    drawing.add(
        Line("RULER", 0.0, 0.0, CHECK_MM, 0.0),
        Text(
            "RULER", CHECK_MM + TEXT_MM, TEXT_MM / 3, TEXT_MM, "100 mm: measure it before you trust the sheet"
        ),
    )
    y = 2 * GAP_MM
    if stamp is not None:
        drawing.add(Text("TITLE", 0.0, y, TEXT_MM, f"Pieces, {stamp.words()}"))
        y += GAP_MM
    for piece in pieces:
        y = _piece(drawing, piece, y, units)
    drawing.extent = Rect(-GAP_MM, -GAP_MM, longest + GAP_MM + BESIDE_MM, y + GAP_MM)
    return drawing


def _piece(drawing: Drawing, piece: Piece, y: float, units: UnitSystem) -> float:
    """The piece from ``y`` mm down; where the next may begin."""
    long = say_place(piece.length_mm, units)
    words = f"{piece.id}: {piece.says}, {long}, mark at the {piece.marked} end"
    drawing.add(Text("NUMBERS", 0.0, y, TEXT_MM * 1.2, words))
    y += GAP_MM / 2
    for face in [f for f in FACES if any(h.face == f for h in piece.holes)] or ["upper"]:
        breadth = piece.wide_mm if face in ("upper", "lower") else piece.high_mm
        drawing.add(Box("LINES", Rect(0.0, y, piece.length_mm, breadth)))
        drawing.add(Line("DATUM", -GAP_MM / 2, y, -GAP_MM / 2, y + breadth))
        middle = y + breadth / 2
        for hole in (h for h in piece.holes if h.face == face):
            draw_hole(drawing, hole, middle, CROSS_MM)
            drawing.add(
                Text(
                    "DIMENSIONS",
                    hole.at_mm,
                    y + breadth + BELOW_MM,
                    TEXT_MM,
                    say_place(hole.at_mm, units),
                    upright=True,
                )
            )
        drawing.add(Text("NUMBERS", piece.length_mm + TEXT_MM, middle + TEXT_MM / 3, TEXT_MM, f"{face} face"))
        y += breadth + BELOW_MM
    return y + GAP_MM


def draw_hole(drawing: Drawing, hole: Hole, middle: float, cross: float) -> None:
    """A hole or slot of a face whose middle line lies at ``middle``, with its cross, mm."""
    x, y, d = hole.at_mm, middle + hole.off_mm, hole.diameter_mm
    if hole.slot_mm > d:
        half = (hole.slot_mm - d) / 2
        dx, dy = (0.0, half) if hole.slot_across else (half, 0.0)
        drawing.add(Circle("HOLES", x - dx, y - dy, d), Circle("HOLES", x + dx, y + dy, d))
        for side in (-d / 2, d / 2):  # the straight sides between its two ends
            sx, sy = (side, 0.0) if hole.slot_across else (0.0, side)
            drawing.add(Line("HOLES", x - dx + sx, y - dy + sy, x + dx + sx, y + dy + sy))
    else:
        drawing.add(Circle("HOLES", x, y, d))
    drawing.add(Line("HOLES", x - cross, y, x + cross, y), Line("HOLES", x, y - cross, x, y + cross))
