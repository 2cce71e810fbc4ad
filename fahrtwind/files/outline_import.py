"""A roof's outline from a drawing (DXF, SVG) or from rows of points (CSV). Shows what was understood before it is taken.

Drawings: x aft, DXF y to port (its y points up), SVG y to starboard, units as the file says, millimetres where it does not.
The largest closed shape is taken for the roof; it is moved so that its front edge is at the datum and its middle on the centre.
"""

from __future__ import annotations

import csv
import io
import math
import re
from dataclasses import dataclass
from typing import Any, Literal

from shapely.geometry import Polygon

from fahrtwind.core.errors import InputError, OutOfRange, TooLarge, UnreadableFile, WrongHeader
from fahrtwind.core.quantities import Length, UnitSystem

Format = Literal["dxf", "svg", "csv"]
LARGEST_TEXT = 2_000_000
MOST_POINTS = 200
SIMPLER_MM = 2.0
ARC_STEP_DEG = 10.0
CLOSED_WITHIN_MM = 1.0
MM_PER_PX = 25.4 / 96
XY = tuple[float, float]


@dataclass(frozen=True, slots=True)
class OutlinePoint:
    x_mm: float
    y_mm: float


@dataclass(frozen=True, slots=True)
class UnderstoodOutline:
    """The outline as it would be taken: size, how it was moved onto the datum, and what was left out on the way."""

    format: Format
    points: tuple[OutlinePoint, ...]
    length_mm: float
    width_mm: float
    moved_x_mm: float
    moved_y_mm: float
    notes: tuple[str, ...]


def read_outline(text: str, units: UnitSystem) -> UnderstoodOutline:
    """Understand a drawing or rows of points. Raises UnreadableFile, WrongHeader, TooLarge or InputError with a remedy."""
    if len(text) > LARGEST_TEXT:
        raise TooLarge(
            "This is too much text for an outline.", remedy="Save only the roof's edge, at most 2 MB.", field="outline"
        )
    kind = _format(text)
    notes: list[str] = []
    shapes = [_csv(text, units)] if kind == "csv" else _dxf(text, notes) if kind == "dxf" else _svg(text, notes)
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
            f"The outline has {len(points)} points.", remedy=f"Simplify it to {MOST_POINTS} or fewer.", field="outline"
        )
    x0, y0, x1, y1 = simple.bounds
    if not (500 <= x1 - x0 <= 20_000 and 300 <= y1 - y0 <= 4_000):
        raise OutOfRange(
            f"That would be a roof of {(x1 - x0) / 1000:.2f} by {(y1 - y0) / 1000:.2f} m.",
            remedy="Check the drawing's unit and that x runs along the vehicle.", field="outline",
        )  # fmt: skip
    middle = (y0 + y1) / 2
    moved = tuple(OutlinePoint(round(x - x0, 1), round(y - middle, 1)) for x, y in points)
    return UnderstoodOutline(kind, moved, round(x1 - x0, 1), round(y1 - y0, 1), round(-x0, 1), round(-middle, 1), tuple(notes))


def _csv(text: str, units: UnitSystem) -> list[XY]:
    sample = text[:500]
    separator = "\t" if "\t" in sample else ";" if ";" in sample else ","
    rows = [
        [cell.strip() for cell in row]
        for row in csv.reader(io.StringIO(text), delimiter=separator)
        if any(c.strip() for c in row)
    ]
    if rows and not any(ch.isdigit() for ch in "".join(rows[0])):
        header = [cell.lower() for cell in rows[0]]
        if header[:2] != ["x", "y"]:
            raise WrongHeader(
                f"The header says “{', '.join(rows[0])[:60]}”; columns x and y are needed.",
                remedy="Name the columns x and y, or leave the header out.", field="header",
            )  # fmt: skip
        rows = rows[1:]
    if len(rows) > 10 * MOST_POINTS:
        raise TooLarge(f"{len(rows)} rows of points.", remedy=f"Keep at most {MOST_POINTS} points.", field="outline")
    points = []
    for number, row in enumerate(rows, start=1):
        if len(row) < 2:
            raise InputError(f"Row {number} has no second number.", remedy="Give x and y in every row.", field="outline")
        points.append((Length.parse(row[0], units, f"row {number} x").mm, Length.parse(row[1], units, f"row {number} y").mm))
    return points


def _dxf(text: str, notes: list[str]) -> list[list[XY]]:
    import ezdxf.filemanagement  # loaded late: it takes over a second and only drawings need it
    from ezdxf import path as paths
    from ezdxf.enums import InsertUnits
    from ezdxf.lldxf.const import DXFError
    from ezdxf.units import conversion_factor

    try:
        document = ezdxf.filemanagement.read(io.StringIO(text))
    except (DXFError, OSError, ValueError, KeyError, IndexError) as error:
        raise UnreadableFile("The DXF file is damaged.", remedy="Save it again as DXF, R2010 or R12.", field="outline") from error
    factor = conversion_factor(InsertUnits(document.units), InsertUnits.Millimeters) if document.units else 1.0
    if not document.units:
        notes.append("The file names no unit: taken as millimetres.")
    shapes: list[list[XY]] = []
    loose: list[list[XY]] = []
    for entity in document.modelspace().query("LWPOLYLINE POLYLINE LINE ARC CIRCLE ELLIPSE SPLINE"):
        flat = [(v.x * factor, -v.y * factor) for v in paths.make_path(entity).flattening(0.5 / factor)]
        (shapes if _meets(flat) else loose).append(flat)
    return shapes + _chained(loose)


def _meets(line: list[XY]) -> bool:
    return len(line) > 2 and math.dist(line[0], line[-1]) < CLOSED_WITHIN_MM


def _chained(pieces: list[list[XY]]) -> list[list[XY]]:
    """Join loose lines and arcs end to end; keep the chains that close."""
    closed, pieces = [], [p for p in pieces if len(p) > 1][:2000]
    while pieces:
        chain = pieces.pop()
        grown = True
        while grown and not _meets(chain):
            grown = False
            for i, piece in enumerate(pieces):
                for candidate in (piece, piece[::-1]):
                    if math.dist(chain[-1], candidate[0]) < CLOSED_WITHIN_MM:
                        chain, grown = chain + candidate[1:], True
                        break
                if grown:
                    pieces.pop(i)
                    break
        if _meets(chain):
            closed.append(chain)
    return closed


def _svg(text: str, notes: list[str]) -> list[list[XY]]:
    from svgelements import SVG, Path, Shape

    if "<!entity" in text.lower():
        raise UnreadableFile("The SVG file defines entities.", remedy="Save it as a plain SVG.", field="outline")
    try:
        drawing: Any = SVG.parse(io.StringIO(text), reify=True, ppi=96)
        shapes = [Path(e) for e in drawing.elements() if isinstance(e, Shape)]
    except Exception as error:  # the parser raises whatever it stumbles over
        raise UnreadableFile("The SVG file cannot be read.", remedy="Save it as a plain SVG.", field="outline") from error
    factor = MM_PER_PX
    if not re.search(r"<svg[^>]*\swidth\s*=\s*[\"'][\d.]+\s*(mm|cm|in|pt)", text, re.I):
        factor = 1.0
        notes.append("The file names no real size: one unit is taken as a millimetre.")
    found = []
    for shape in shapes:
        for sub in shape.as_subpaths():
            path = Path(sub)
            count = max(16, min(400, len(path) * 24))
            if any(type(segment).__name__ in ("CubicBezier", "QuadraticBezier", "Arc") for segment in path):
                points = [path.point(i / count) for i in range(count)]
            else:
                points = [segment.end for segment in path if segment.end is not None]
            found.append([(float(p.x) * factor, float(p.y) * factor) for p in points])
    return found
