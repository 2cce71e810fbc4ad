"""Shapes from drawings people send: DXF and SVG. Everything is counted and measured before any of it is
flattened.

A drawing of a few kilobytes can stand for millions of points (nested references) or for lines across the
solar system; limits on count, depth, size and time are held here, so that no drawing keeps the program busy.
"""

from __future__ import annotations

import io
import math
import re
import time
from collections.abc import Iterator
from typing import Any, Literal
from xml.etree import ElementTree

from fahrtwind.core.errors import InputError, TooLarge, UnreadableFile

XY = tuple[float, float]
DrawingUnit = Literal["mm", "cm", "m", "in", "ft"]
UNIT_MM: dict[str, float] = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8}
MOST_SHAPES = 5_000
MOST_NUMBERS = 100_000
MOST_POINTS = 200_000
DEEPEST = 24
LARGEST_MM = 200_000.0
SECONDS = 5.0
CLOSED_WITHIN_MM = 1.0
FLAT_WITHIN_MM = 0.5
MOST_LOOSE = 2_000
MM_PER_PX = 25.4 / 96


class UnitUnknown(InputError):
    """A drawing that does not say what one unit of it is."""

    code = "unit_unknown"

    def __init__(self) -> None:
        super().__init__(
            "The drawing does not say its unit.",
            remedy="Choose what one unit of the drawing is.",
            field="unit",
        )


def too_much(what: str) -> TooLarge:
    return TooLarge(
        f"The drawing {what}.", remedy="Save only the roof's edge, as one closed line.", field="outline"
    )


class Budget:
    """What one drawing may use: time and points. Raises TooLarge beyond."""

    def __init__(self) -> None:
        self._until = time.monotonic() + SECONDS
        self._points = 0

    def spend(self, points: int) -> None:
        self._points += points
        if self._points > MOST_POINTS:
            raise too_much(f"has more than {MOST_POINTS} points")
        if time.monotonic() > self._until:
            raise too_much("takes too long to read")


def within_reason(points: list[XY]) -> list[XY]:
    """The points unchanged. Raises TooLarge where one is not a place on any vehicle."""
    if not all(math.isfinite(c) and abs(c) <= LARGEST_MM for p in points for c in p):
        raise too_much(f"reaches further than {LARGEST_MM / 1000:.0f} m; check its unit")
    return points


def dxf_shapes(text: str, unit: DrawingUnit | None) -> list[list[XY]]:
    """Closed lines of a DXF's model space, mm, y to starboard. Raises UnitUnknown where neither file nor
    person says the unit.
    """
    import ezdxf.filemanagement  # loaded late: it takes over a second and only drawings need it
    from ezdxf import path as paths
    from ezdxf.lldxf.const import DXFError

    try:
        document = ezdxf.filemanagement.read(io.StringIO(text))
        entities = document.modelspace().query("LWPOLYLINE POLYLINE LINE ARC CIRCLE ELLIPSE SPLINE")
    except (DXFError, OSError, ValueError, LookupError, TypeError, AttributeError, RecursionError) as error:
        raise UnreadableFile(
            "The DXF file is damaged.", remedy="Save it again as DXF, R2010 or R12.", field="outline"
        ) from error
    if len(entities) > MOST_SHAPES:
        raise too_much(f"has more than {MOST_SHAPES} lines")
    factor, budget = _dxf_factor(document, unit), Budget()
    shapes: list[list[XY]] = []
    loose: list[list[XY]] = []
    for entity in entities:
        try:
            path = paths.make_path(entity)
            corners = [(float(v.x) * factor, -float(v.y) * factor) for v in path.control_vertices()]
        except (DXFError, ValueError, ArithmeticError, TypeError, LookupError):
            continue  # one line that cannot be drawn is no outline; the others still may be
        budget.spend(len(corners))
        within_reason(corners)
        flat = (
            [(v.x * factor, -v.y * factor) for v in path.flattening(FLAT_WITHIN_MM / factor)]
            if len(path)
            else corners
        )
        budget.spend(len(flat))
        (shapes if _meets(flat) else loose).append(flat)
    return shapes + _chained(loose, budget)


def _dxf_factor(document: Any, unit: DrawingUnit | None) -> float:
    """Millimetres in one unit of the drawing: what the person says, else what the file says."""
    from ezdxf.enums import InsertUnits
    from ezdxf.units import conversion_factor

    if unit is not None:
        return UNIT_MM[unit]
    try:
        told = InsertUnits(int(document.units))
        factor = float(conversion_factor(told, InsertUnits.Millimeters)) if told else 0.0
    except (ValueError, TypeError, LookupError, ArithmeticError):
        factor = 0.0
    if not (math.isfinite(factor) and 1e-3 <= factor <= 1e4):
        raise UnitUnknown
    return factor


def _meets(line: list[XY]) -> bool:
    return len(line) > 2 and math.dist(line[0], line[-1]) < CLOSED_WITHIN_MM


def _chained(pieces: list[list[XY]], budget: Budget) -> list[list[XY]]:
    """Join loose lines and arcs end to end; keep the chains that close."""
    closed, pieces = [], [p for p in pieces if len(p) > 1][:MOST_LOOSE]
    while pieces:
        chain = pieces.pop()
        while not _meets(chain):
            budget.spend(0)
            grown = _next_piece(chain, pieces)
            if grown is None:
                break
            chain = grown
        if _meets(chain):
            closed.append(chain)
    return closed


def _next_piece(chain: list[XY], pieces: list[list[XY]]) -> list[XY] | None:
    for i, piece in enumerate(pieces):
        for candidate in (piece, piece[::-1]):
            if math.dist(chain[-1], candidate[0]) < CLOSED_WITHIN_MM:
                pieces.pop(i)
                return chain + candidate[1:]
    return None


def svg_shapes(text: str, unit: DrawingUnit | None) -> list[list[XY]]:
    """Lines of an SVG's shapes, mm, y to starboard. Raises UnitUnknown where neither file nor person says the
    unit.
    """
    from svgelements import SVG, Path, Shape

    _refuse_bombs(text)
    real = re.search(r"<svg[^>]*\swidth\s*=\s*[\"'][\d.]+\s*(mm|cm|in|pt)", text, re.I)
    if unit is None and not real:
        raise UnitUnknown
    factor, budget = MM_PER_PX if unit is None else UNIT_MM[unit], Budget()
    try:
        drawing: Any = SVG.parse(io.StringIO(text), reify=True, ppi=96)
        shapes = [Path(e) for e in drawing.elements() if isinstance(e, Shape)]
    except Exception as error:  # the parser raises whatever it stumbles over
        raise UnreadableFile(
            "The SVG file cannot be read.", remedy="Save it as a plain SVG.", field="outline"
        ) from error
    found = []
    for shape in shapes:
        for sub in shape.as_subpaths():
            flat = [(float(p.x) * factor, float(p.y) * factor) for p in _svg_points(Path(sub))]
            budget.spend(len(flat))
            found.append(within_reason(flat))
    return found


def _svg_points(path: Any) -> Iterator[Any]:
    count = max(16, min(400, len(path) * 24))
    if any(type(segment).__name__ in ("CubicBezier", "QuadraticBezier", "Arc") for segment in path):
        yield from (path.point(i / count) for i in range(count))
    else:
        yield from (segment.end for segment in path if segment.end is not None)


def _refuse_bombs(text: str) -> None:
    """Count what the drawing stands for, references followed, before anything is built from it."""
    if re.search(r"<!(entity|doctype[^>]*\[)", text, re.I):
        raise UnreadableFile(
            "The SVG file defines entities.", remedy="Save it as a plain SVG.", field="outline"
        )
    try:
        root = ElementTree.fromstring(text)
    except (ElementTree.ParseError, ValueError, RecursionError) as error:
        raise UnreadableFile(
            "The SVG file cannot be read.", remedy="Save it as a plain SVG.", field="outline"
        ) from error
    named = {e.get("id"): e for e in root.iter() if e.get("id")}
    known: dict[int, tuple[int, int]] = {}

    def weight(element: ElementTree.Element, depth: int) -> tuple[int, int]:
        """Shapes and numbers that an element stands for."""
        if depth > DEEPEST:
            raise too_much("is nested too deeply, or refers to itself")
        if id(element) not in known:
            parts = [weight(child, depth + 1) for child in element]
            if _tag(element) == "use" and (target := named.get(_reference(element))) is not None:
                parts.append(weight(target, depth + 1))
            numbers = sum(len(re.findall(r"\d+", element.get(name, ""))) for name in ("d", "points"))
            known[id(element)] = (1 + sum(p[0] for p in parts), numbers + sum(p[1] for p in parts))
        shapes, numbers = known[id(element)]
        if shapes > MOST_SHAPES or numbers > MOST_NUMBERS:
            raise too_much("stands for more shapes than a roof has")
        return shapes, numbers

    weight(root, 0)


def _tag(element: ElementTree.Element) -> str:
    return str(element.tag).rpartition("}")[2].lower()


def _reference(element: ElementTree.Element) -> str:
    target = element.get("href") or element.get("{http://www.w3.org/1999/xlink}href") or ""
    return target.removeprefix("#")
