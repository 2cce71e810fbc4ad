"""Drawings as primitives in roof millimetres, recorded once and replayed to SVG and DXF.

Layers carry the line language: measured solid, inferred dashed, planned thin.
"""

from __future__ import annotations

from dataclasses import field
from datetime import date
from typing import Literal, get_args

from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.results import Findings
from fahrtwind.core.saying import say_length, sixteenths
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.survey.outline import Vertex

Layer = Literal[
    "ROOF",
    "MEMBERS",
    "OBSTACLES",
    "LIDS",
    "PANELS",
    "HOLES",
    "PADS",
    "POINTS",
    "SCARS",
    "KEEP_OUT",
    "LINES",
    "NUMBERS",
    "DATUM",
    "RULER",
    "DIMENSIONS",
    "TITLE",
]
LAYERS: tuple[Layer, ...] = get_args(Layer)
Anchor = Literal["start", "middle", "end"]


@dataclass(frozen=True, slots=True)
class Line:
    layer: Layer
    x1: float
    y1: float
    x2: float
    y2: float


@dataclass(frozen=True, slots=True)
class Box:
    layer: Layer
    rect: Rect


@dataclass(frozen=True, slots=True)
class Ring:
    """A closed line through points."""

    layer: Layer
    points: tuple[Vertex, ...]


@dataclass(frozen=True, slots=True)
class Circle:
    layer: Layer
    x: float
    y: float
    diameter: float


@dataclass(frozen=True, slots=True)
class Text:
    layer: Layer
    x: float
    y: float
    height: float
    text: str
    anchor: Anchor = "start"
    upright: bool = False
    """Whether it is turned to be read from the right."""


@dataclass(frozen=True, slots=True)
class Stamp:
    """When a sheet was written, from which revision of the job, and where that is found; None where it comes
    from a file.
    """

    date: date
    revision: int | None = None
    address: str | None = None

    def words(self) -> str:
        return f"{self.date.isoformat()}{'' if self.revision is None else f', revision {self.revision}'}"


Primitive = Line | Box | Ring | Circle | Text


@dataclass(slots=True)
class Drawing:
    """Primitives in roof coordinates with the extent of the sheet, all mm at true scale."""

    extent: Rect
    stroke_mm: float
    items: list[Primitive] = field(default_factory=list)

    def add(self, *items: Primitive) -> None:
        self.items.extend(items)


SMALLEST_TEXT_MM = 2.9
"""Of a printed sheet: a little over 8 pt."""
CAUTION = (
    "Planning aid. Makers' instructions, local rules and licensed practice come first. Look "
    "under the skin before drilling."
)


def drill_drawing(job: Job, findings: Findings, scale: float = 1.0, stamp: Stamp | None = None) -> Drawing:
    """The plan with every hole. ``scale`` is the denominator of the printed scale: text and crosses grow with
    it.

    With a ``stamp`` the drawing stands alone: it carries its own title and cautions.
    """
    roof = findings.roof or Rect(0, -500, 1000, 1000)
    text = max(SMALLEST_TEXT_MM * scale, 12.0)
    titled = text * 6 if stamp is not None else 0.0
    extent = roof.grown(text * 6, text * 8)
    drawing = Drawing(
        Rect(extent.x_mm, extent.y_mm - titled, extent.length_mm, extent.width_mm + titled),
        stroke_mm=max(0.18 * scale, 0.5),
    )
    drawing.add(
        Ring("ROOF", findings.survey.outline) if len(findings.survey.outline) >= 3 else Box("ROOF", roof)
    )
    _survey(drawing, job, findings, text)
    for member in findings.members.members:
        drawing.add(Line("MEMBERS", member.x_mm, roof.y_mm, member.x_mm, roof.y_end_mm))
        drawing.add(Text("NUMBERS", member.x_mm, roof.y_mm - text * 0.5, text, f"m{member.number}", "middle"))
    names = {p.id: p.name for p in job.panels} | {o.id: o.name for o in job.obstacles}
    for shape in findings.shapes:
        layer: Layer = "PANELS" if shape.kind == "panel" else "OBSTACLES"
        drawing.add(Ring(layer, shape.ring) if shape.ring else Box(layer, shape.rect))
        if shape.lid is not None:
            drawing.add(Box("LIDS", shape.lid))
        x, y = shape.rect.centre
        drawing.add(Text("NUMBERS", x, y, text * 1.15, names[shape.id], "middle"))
    _marks(drawing, findings, text, cross=max(1.6 * scale, 8.0))
    _datum(drawing, roof, text)
    _ruler(drawing, roof, text, job.units)
    _sides(drawing, roof, text)
    _dimensions(drawing, findings, roof, text, job.units)
    if stamp is not None:
        _title(drawing, job, stamp, text)
    return drawing


def _sides(drawing: Drawing, roof: Rect, text: float) -> None:
    """Which way round the sheet is: nothing on a roof is more easily mirrored."""
    (x, y), large = roof.centre, text * 1.3
    drawing.add(
        Text("NUMBERS", roof.x_mm - text * 4.4, y, large, "FRONT", "middle", upright=True),
        Text("NUMBERS", x, roof.y_mm - text * 2.2, large, "PORT", "middle"),
        Text("NUMBERS", x, roof.y_end_mm + text * 7.4, large, "STARBOARD", "middle"),
    )


def _dimensions(drawing: Drawing, findings: Findings, roof: Rect, text: float, units: UnitSystem) -> None:
    """Distances from the datum of every row of marks, along and across, as far as figures have room beside
    one another.
    """
    bottom, rear = roof.y_end_mm + text * 3.4, roof.x_end_mm + text * 0.6
    for x in _apart(sorted({round(m.x_mm, 1) for m in findings.marks}), text * 1.1):
        drawing.add(Line("DIMENSIONS", x, roof.y_end_mm, x, bottom - text * 0.3))
        drawing.add(
            Text("DIMENSIONS", x + text * 0.35, bottom, text, say_length(x, units), "end", upright=True)
        )
    for y in _apart(sorted({round(m.y_mm, 1) for m in findings.marks}), text * 1.1):
        drawing.add(Line("DIMENSIONS", roof.x_end_mm, y, rear, y))
        side = "" if abs(y) < 1 else " S" if y > 0 else " P"
        drawing.add(
            Text("DIMENSIONS", rear + text * 0.3, y + text * 0.35, text, f"{say_length(abs(y), units)}{side}")
        )


def _apart(values: list[float], least: float) -> list[float]:
    """The values that keep ``least`` from one another, from the first on."""
    kept: list[float] = []
    for value in values:
        if not kept or value - kept[-1] >= least:
            kept.append(value)
    return kept


def _title(drawing: Drawing, job: Job, stamp: Stamp, text: float) -> None:
    left, top = drawing.extent.x_mm + text, drawing.extent.y_mm + text * 2
    drawing.add(
        Text("TITLE", left, top, text * 1.4, f"Drill map: {job.name}"),
        Text(
            "TITLE",
            left,
            top + text * 1.6,
            text,
            f"{stamp.words()}. True scale, from the datum 0: front edge on the centre line.",
        ),
        Text("TITLE", left, top + text * 2.9, text, CAUTION),
    )


def _survey(drawing: Drawing, job: Job, findings: Findings, text: float) -> None:
    """Factory points, scars, lines under the skin, mounting lines."""
    for row in findings.survey.rows:
        drawing.add(*(Circle("POINTS", p.x_mm, p.y_mm, 10.0 if p.usable else 4.0) for p in row.points))
    for entry in findings.survey.seal_entries:
        x, y, arm = entry.x_mm, entry.y_mm, text * 0.4
        drawing.add(
            Line("SCARS", x - arm, y - arm, x + arm, y + arm),
            Line("SCARS", x - arm, y + arm, x + arm, y - arm),
        )
    for strip in findings.survey.keep_outs:
        drawing.add(Ring("KEEP_OUT", strip.area))
    for line in findings.lines.sides:
        y = -line.offset_mm if line.side == "port" else line.offset_mm
        drawing.add(
            Line("LINES", findings.lines.chalk_front_x_mm or 0.0, y, findings.lines.chalk_rear_x_mm or 0.0, y)
        )


def _marks(drawing: Drawing, findings: Findings, text: float, cross: float) -> None:
    for mark in findings.marks:
        x, y = mark.x_mm, mark.y_mm
        if mark.kind == "hole":
            drawing.add(Circle("HOLES", x, y, mark.final_mm or mark.pilot_mm or 3.0))
            drawing.add(Line("HOLES", x - cross, y, x + cross, y), Line("HOLES", x, y - cross, x, y + cross))
        else:
            length, width = mark.pad_length_mm or 0.0, mark.pad_width_mm or 0.0
            drawing.add(Box("PADS", Rect(x - length / 2, y - width / 2, length, width)))
    for (x, y), numbers in _grouped(findings).items():
        drawing.add(Text("NUMBERS", x + cross * 1.2, y - cross * 0.4, text, numbers))


def _grouped(findings: Findings) -> dict[tuple[float, float], str]:
    """One label a foot: its numbers stand so close that single ones would cover each other."""
    groups: dict[tuple[str, str], list[tuple[int, float, float]]] = {}
    for mark in findings.marks:
        groups.setdefault((mark.panel, mark.foot), []).append((mark.number, mark.x_mm, mark.y_mm))
    labels = {}
    for marks in groups.values():
        numbers = sorted(n for n, _, _ in marks)
        runs = numbers == list(range(numbers[0], numbers[-1] + 1)) and len(numbers) > 1
        x, y = marks[0][1], sum(m[2] for m in marks) / len(marks)
        labels[(x, y)] = f"{numbers[0]}–{numbers[-1]}" if runs else ", ".join(map(str, numbers))
    return labels


def _datum(drawing: Drawing, roof: Rect, text: float) -> None:
    drawing.add(Line("DATUM", -text * 2, 0, roof.x_end_mm, 0), Circle("DATUM", 0, 0, text))
    drawing.add(Text("NUMBERS", -text * 2, -text * 0.8, text, "0", "end"))


def _ruler(drawing: Drawing, roof: Rect, text: float, units: str) -> None:
    step = 500.0 if units == "metric" else 304.8
    count = int(roof.length_mm // step)
    for i in range(count + 1):
        x, y = i * step, roof.y_end_mm + text
        drawing.add(Line("RULER", x, y, x, y + text * 0.6))
        label = f"{x / 1000:g} m" if units == "metric" else sixteenths(x)
        drawing.add(Text("RULER", x, y + text * 1.8, text, label, "middle"))
    drawing.add(Line("RULER", 0, roof.y_end_mm + text, count * step, roof.y_end_mm + text))
