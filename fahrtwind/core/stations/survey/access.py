"""Which parts of the roof can be reached, from where, and what must not be drilled into."""

from __future__ import annotations

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon, box
from shapely.ops import unary_union

from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.roof import Access, KeepOut, Survey
from fahrtwind.core.job.views import OnRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.survey.outline import Vertex, ring, sound_outline


@dataclass(frozen=True, slots=True)
class Reach:
    """What can be worked on: ``areas`` are rings of the reachable roof; ``share`` of the whole."""

    areas: tuple[tuple[Vertex, ...], ...]
    share: float
    from_where: str


@dataclass(frozen=True, slots=True)
class Strip:
    """A keep-out: the ring that no hole may enter."""

    id: str
    kind: str
    name: str
    area: tuple[Vertex, ...]


def reach(notes: OnRoof) -> Reach | None:
    """The part of the roof within arm's length of a ladder, or all of it where one can stand; None without an
    outline.
    """
    roof = sound_outline(notes)
    if roof is None:
        return None
    area = reach_area(notes, roof)
    parts = area.geoms if isinstance(area, MultiPolygon) else [area]
    rings = tuple(ring(p) for p in parts if isinstance(p, Polygon) and not p.is_empty)
    return Reach(rings, area.area / roof.area, from_where(notes.survey.access))


def reach_area(notes: OnRoof, roof: Polygon) -> Polygon | MultiPolygon:
    """What an arm reaches from the roof's edge or from the ladder's places; all of a roof that bears a
    person.
    """
    access = notes.survey.access
    if access.walkable == "yes":
        return roof
    x0, y0, x1, y1 = roof.bounds
    arm = access.reach.mm
    strips = [
        strip
        for allowed, strip in (
            (access.ladder_port, box(x0, y0, x1, y0 + arm)),
            (access.ladder_starboard, box(x0, y1 - arm, x1, y1)),
            (access.ladder_front, box(x0, y0, x0 + arm, y1)),
            (access.ladder_rear, box(x1 - arm, y0, x1, y1)),
        )
        if allowed
    ]
    area = unary_union(strips).intersection(roof)
    return area if isinstance(area, Polygon | MultiPolygon) else Polygon()


def from_where(access: Access) -> str:
    """In words, from where the roof is worked on."""
    if access.walkable == "yes":
        return "the whole roof: it bears a person"
    sides = ("port", "starboard", "front", "rear")
    names = [side for side in sides if getattr(access, f"ladder_{side}")]
    return f"from the ladder at {', '.join(names)}" if names else "no ladder stands anywhere"


def keep_out_strips(notes: OnRoof) -> tuple[Strip, ...]:
    return tuple(Strip(k.id, k.kind, k.name, ring(_strip(k))) for k in notes.survey.keep_outs)


def _strip(line: KeepOut) -> Polygon:
    return LineString([(line.from_x.mm, line.from_y.mm), (line.to_x.mm, line.to_y.mm + 1e-6)]).buffer(
        max(line.clear.mm, 1.0)
    )


def distances_to_line(line: KeepOut, x_mm: list[float], y_mm: list[float]) -> list[float]:
    """Distance of each place from a line under the skin, mm."""
    path = LineString([(line.from_x.mm, line.from_y.mm), (line.to_x.mm, line.to_y.mm + 1e-6)])
    found: list[float] = shapely.distance(path, shapely.points(x_mm, y_mm)).tolist()
    return found


def open_from_inside(vehicle: Vehicle, survey: Survey, x_mm: float) -> bool | None:
    """Whether nuts and washers can be set from below at ``x_mm``; None where nobody has looked."""
    inside, bays = vehicle.inside, survey.access.open_bays
    if inside == "gutted":
        return True
    if inside == "unknown" or (inside == "partial" and not bays):
        return None
    return any(min(b.start.mm, b.end.mm) <= x_mm <= max(b.start.mm, b.end.mm) for b in bays)
