"""A roof's outline from a drawing (DXF, SVG) or from rows of points (CSV). Shows what was understood before
it is taken.

Drawings: x aft, DXF y to port (its y points up), SVG y to starboard, units as the file says; where it does
not, the person is asked. The largest closed shape is taken for the roof; it is moved so that its front edge
is at the datum and its middle on the centre.
"""

from __future__ import annotations

import re
from typing import Literal

from shapely.geometry import Polygon

from fahrtwind.core.errors import InputError, OutOfRange, TooLarge, UnreadableFile, WrongHeader
from fahrtwind.core.quantities import Length, UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.files.drawing_import import XY, DrawingUnit, dxf_shapes, svg_shapes, within_reason
from fahrtwind.files.table import read_rows

Format = Literal["dxf", "svg", "csv"]
LARGEST_TEXT = 2_000_000
MOST_POINTS = 200
SIMPLER_MM = 2.0


@dataclass(frozen=True, slots=True)
class OutlinePoint:
    x_mm: float
    y_mm: float


@dataclass(frozen=True, slots=True)
class UnderstoodOutline:
    """The outline as it would be taken: size, how it was moved onto the datum, and what was left out on the
    way.
    """

    format: Format
    points: tuple[OutlinePoint, ...]
    length_mm: float
    width_mm: float
    moved_x_mm: float
    moved_y_mm: float
    notes: tuple[str, ...]


def read_outline(text: str, units: UnitSystem, unit: DrawingUnit | None = None) -> UnderstoodOutline:
    """Understand a drawing or rows of points.

    ``unit`` is what one unit of a drawing is, where the file does not say or says it wrongly. Raises
    UnitUnknown where it is needed, UnreadableFile, WrongHeader, TooLarge or InputError, each with a remedy.
    """
    if len(text) > LARGEST_TEXT:
        raise TooLarge(
            "This is too much text for an outline.",
            remedy="Save only the roof's edge, at most 2 MB.",
            field="outline",
        )
    kind = _format(text)
    notes: list[str] = []
    shapes = _shapes(kind, text, units, unit)
    closed = [p for p in (Polygon(s) for s in shapes if len(s) >= 3) if p.is_valid and p.area > 1e4]
    if not closed:
        raise UnreadableFile(
            "No closed shape that could be a roof was found.",
            remedy="Draw the roof's edge as one closed line, in millimetres.",
            field="outline",
        )
    largest = max(closed, key=lambda p: p.area)
    if len(closed) > 1:
        notes.append(f"{len(closed)} closed shapes; the largest is taken.")
    return _placed(kind, largest, notes)


def _shapes(kind: Format, text: str, units: UnitSystem, unit: DrawingUnit | None) -> list[list[XY]]:
    if kind == "csv":
        return [within_reason(_csv(text, units))]
    return dxf_shapes(text, unit) if kind == "dxf" else svg_shapes(text, unit)


def _format(text: str) -> Format:
    head = text.lstrip()[:2000].lower()
    if "<svg" in head:
        return "svg"
    return "dxf" if re.match(r"(999\s|0\s*\r?\n\s*section)", head) else "csv"


def _placed(kind: Format, shape: Polygon, notes: list[str]) -> UnderstoodOutline:
    simple = shape.simplify(SIMPLER_MM)
    points = list(simple.exterior.coords)[:-1]
    if len(points) > MOST_POINTS:
        raise TooLarge(
            f"The outline has {len(points)} points.",
            remedy=f"Simplify it to {MOST_POINTS} or fewer.",
            field="outline",
        )
    x0, y0, x1, y1 = simple.bounds
    if not (500 <= x1 - x0 <= 20_000 and 300 <= y1 - y0 <= 4_000):
        raise OutOfRange(
            f"That would be a roof of {(x1 - x0) / 1000:.2f} by {(y1 - y0) / 1000:.2f} m.",
            remedy="Check the drawing's unit and that x runs along the vehicle.",
            field="outline",
        )
    middle = (y0 + y1) / 2
    moved = tuple(OutlinePoint(round(x - x0, 1), round(y - middle, 1)) for x, y in points)
    return UnderstoodOutline(
        kind, moved, round(x1 - x0, 1), round(y1 - y0, 1), round(-x0, 1), round(-middle, 1), tuple(notes)
    )


def _csv(text: str, units: UnitSystem) -> list[XY]:
    rows = read_rows(text, "outline", most=10 * MOST_POINTS, quotes=False)
    if rows and not any(ch.isdigit() for ch in "".join(rows[0].cells)):
        if [cell.lower() for cell in rows[0].cells[:2]] != ["x", "y"]:
            raise WrongHeader(
                f"The header says “{', '.join(rows[0].cells)[:60]}”; columns x and y are needed.",
                remedy="Name the columns x and y, or leave the header out.",
                field="header",
            )
        rows = rows[1:]
    points = []
    for row in rows:
        if len(row.cells) < 2 or any(row.cells[2:]):
            raise InputError(
                f"Line {row.line} has {len(row.cells)} cells.",
                remedy="Give x and y in every line; with decimal commas, separate them by a semicolon.",
                field="outline",
            )
        points.append(
            tuple(Length.parse(row.cells[i], units, f"line {row.line} {'xy'[i]}").mm for i in (0, 1))
        )
    return points  # type: ignore[return-value]
