"""The roof's edge as a polygon, and the part of it that is flat enough to stand feet on."""

from __future__ import annotations

from functools import lru_cache
from math import acos, atan2, cos, pi, sin, tan

from shapely.geometry import Polygon, box
from shapely.validation import explain_validity

from fahrtwind.core.job.keyed import Keyed, keyed
from fahrtwind.core.job.roof import CornerOffset, Outline
from fahrtwind.core.job.views import OnRoof
from fahrtwind.core.records import dataclass

ARC_STEPS = 8
XY = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Vertex:
    """A corner of a ring on the roof plan, mm."""

    x_mm: float
    y_mm: float


def is_plain(outline: Outline) -> bool:
    """Whether the roof is just its rectangle: then everything else may take the short way."""
    shape = outline.model_copy(
        update={"side_fall": _NONE.side_fall, "front_fall": _NONE.front_fall, "rear_fall": _NONE.rear_fall}
    )
    return shape == _NONE.model_copy(update={"taper_run": shape.taper_run})


_NONE = Outline()


def outline_polygon(notes: OnRoof) -> Polygon | None:
    """The roof's edge in mm; None while the roof has no size. Points, where given, overrule the rectangle."""
    length, width = notes.vehicle.roof_length, notes.vehicle.roof_width
    if length is None or width is None:
        return None
    return _polygon(keyed(notes.survey.outline), length.mm, width.mm)


@lru_cache(maxsize=64)
def _polygon(outline: Keyed[Outline], length: float, width: float) -> Polygon:
    part = outline.part
    if len(part.points) >= 3:
        return Polygon([(p.x.mm, p.y.mm) for p in part.points])
    half = width / 2
    run = min(part.taper_run.mm, length / 2)
    corners = [
        (_moved((0.0, -half + part.front_narrower.mm), part.front_port), part.front_radius.mm),
        *([((run, -half), 0.0)] if part.front_narrower.mm else []),
        *([((length - run, -half), 0.0)] if part.rear_narrower.mm else []),
        (_moved((length, -half + part.rear_narrower.mm), part.rear_port), part.rear_radius.mm),
        (_moved((length, half - part.rear_narrower.mm), part.rear_starboard), part.rear_radius.mm),
        *([((length - run, half), 0.0)] if part.rear_narrower.mm else []),
        *([((run, half), 0.0)] if part.front_narrower.mm else []),
        (_moved((0.0, half - part.front_narrower.mm), part.front_starboard), part.front_radius.mm),
    ]
    points = [corner for corner, _ in corners]
    edge: list[XY] = []
    for i, (corner, radius) in enumerate(corners):
        edge += fillet(points[i - 1], corner, points[(i + 1) % len(points)], radius)
    return Polygon(edge)


def _moved(corner: XY, offset: CornerOffset) -> XY:
    return corner[0] + offset.along.mm, corner[1] + offset.across.mm


def fillet(before: XY, corner: XY, after: XY, radius: float) -> list[XY]:
    """Points of the arc that rounds a corner; the corner itself where the radius is 0 or does not fit. All
    in mm.
    """
    if radius <= 0:
        return [corner]
    to_before, to_after = (
        atan2(before[1] - corner[1], before[0] - corner[0]),
        atan2(after[1] - corner[1], after[0] - corner[0]),
    )
    between = acos(max(-1.0, min(1.0, cos(to_before - to_after))))
    if between < 1e-3 or between > pi - 1e-3:
        return [corner]
    sides = [((p[0] - corner[0]) ** 2 + (p[1] - corner[1]) ** 2) ** 0.5 for p in (before, after)]
    reach = min(radius / tan(between / 2), 0.5 * min(sides))
    radius = reach * tan(between / 2)
    bisector = atan2(sin(to_before) + sin(to_after), cos(to_before) + cos(to_after))
    centre = (
        corner[0] + radius / sin(between / 2) * cos(bisector),
        corner[1] + radius / sin(between / 2) * sin(bisector),
    )
    start = (corner[0] + reach * cos(to_before), corner[1] + reach * sin(to_before))
    first = atan2(start[1] - centre[1], start[0] - centre[0])
    end = (corner[0] + reach * cos(to_after), corner[1] + reach * sin(to_after))
    turn = (atan2(end[1] - centre[1], end[0] - centre[0]) - first + pi) % (2 * pi) - pi
    return [
        (
            centre[0] + radius * cos(first + turn * i / ARC_STEPS),
            centre[1] + radius * sin(first + turn * i / ARC_STEPS),
        )
        for i in range(ARC_STEPS + 1)
    ]


def sound_outline(notes: OnRoof) -> Polygon | None:
    """The outline where it can be a roof; None where it is missing or broken."""
    return None if outline_trouble(notes) else outline_polygon(notes)


def flat_polygon(notes: OnRoof) -> Polygon | None:
    """Where the roof does not fall away yet: the outline less the measured falls at its sides and ends."""
    whole = sound_outline(notes)
    if whole is None:
        return None
    outline = notes.survey.outline
    x0, y0, x1, y1 = whole.bounds
    inner = whole.buffer(-outline.side_fall.mm, join_style="mitre") if outline.side_fall.mm else whole
    kept = inner.intersection(box(x0 + outline.front_fall.mm, y0, x1 - outline.rear_fall.mm, y1))
    return kept if isinstance(kept, Polygon) and not kept.is_empty else None


def outline_trouble(notes: OnRoof) -> str:
    """Why the outline cannot be a roof, in words; empty where it can."""
    whole = outline_polygon(notes)
    if whole is None:
        return ""
    if not whole.is_valid:
        return f"The edge crosses itself ({explain_validity(whole)})."
    return "The outline has no area." if whole.area < 1e4 else ""


def ring(polygon: Polygon | None) -> tuple[Vertex, ...]:
    """The points of a polygon's edge, the first not repeated, rounded to a tenth of a millimetre."""
    if polygon is None or polygon.is_empty:
        return ()
    return tuple(Vertex(round(x, 1), round(y, 1)) for x, y in list(polygon.exterior.coords)[:-1])


def polygon_of(edge: tuple[Vertex, ...]) -> Polygon:
    return Polygon([(v.x_mm, v.y_mm) for v in edge])
