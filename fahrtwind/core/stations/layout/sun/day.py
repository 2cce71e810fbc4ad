"""Where the shadows lie through one day, for a picture on the roof: half-hour by half-hour at one heading."""

from __future__ import annotations

from collections.abc import Sequence
from math import cos, radians, sin, tan

from shapely import unary_union
from shapely.geometry import MultiPoint, Polygon
from shapely.geometry.base import BaseGeometry

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import panel_rect, roof_rect
from fahrtwind.core.stations.layout.raised import Body, raised_panel
from fahrtwind.core.stations.layout.sun.harvest import stand_of
from fahrtwind.core.stations.layout.sun.shadows import Caster, casters_of, plane_of, raised_on
from fahrtwind.core.stations.layout.sun.sky import MONTHS, site_of, sun_of_day
from fahrtwind.core.stations.survey.outline import Vertex, ring

ROOF = Caster("", (), 0.0)
"""The roof between the panels, as a plane; its crown is left out."""


@dataclass(frozen=True, slots=True)
class Shadow:
    """What lies in shadow of one panel, or of the roof between them where ``panel`` is empty. A ring inside a
    ring is a gap.
    """

    panel: str
    rings: tuple[tuple[Vertex, ...], ...]
    share: float


@dataclass(frozen=True, slots=True)
class ShadeMoment:
    """The sun by the mean sun's clock; ``bearing_deg`` is from ahead over starboard."""

    hour: float
    bearing_deg: float
    elevation_deg: float
    shadows: tuple[Shadow, ...]


def day_of(roof: SunnyRoof, month: int, heading_deg: float | None = None) -> tuple[ShadeMoment, ...]:
    """Shadows on the 15th of a month, 1 to 12, while the sun is up; without a heading of its own at the
    job's.

    Raises InputError where place, climate or heading is missing, or where there is no such month.
    """
    if not 1 <= month <= MONTHS:
        raise InputError(
            f"There is no month {month}.", remedy="Say 1 for January to 12 for December.", field="month"
        )
    stand = stand_of(roof, heading_deg)
    if len(stand.headings_deg) > 1:
        raise InputError(
            "A shadow needs a heading.",
            remedy="Say where the front points: 0° is north, 90° east.",
            field="heading_deg",
        )
    bodies = raised_on(roof, tilted=stand.tilted)
    casters = casters_of(roof, lids_open=stand.lids_open, bodies=bodies)
    lit = [_lit(p, bodies.get(p.id)) for p in roof.panels]
    moments = []
    for hour, azimuth, elevation in sun_of_day(site_of(roof), month):
        bearing = (azimuth - stand.headings_deg[0]) % 360
        on_panels = [
            (plane.of, area, _shade(area, plane, casters, bearing, elevation)) for plane, area in lit
        ]
        between = _between(roof, [area for _, area in lit], casters, bearing, elevation)
        shadows = [_told(panel, shade, area) for panel, area, shade in (*on_panels, *between)]
        moments.append(ShadeMoment(hour, bearing, elevation, tuple(s for s in shadows if s.rings)))
    return tuple(moments)


def _lit(panel: PlacedPanel, body: Body | None) -> tuple[Caster, Polygon]:
    """The plane of a panel's glass, and what it covers as seen from above."""
    raised = raised_panel(panel, body) if body else None
    return plane_of(panel, raised), (raised.rect if raised else panel_rect(panel)).polygon()


def _between(
    roof: SunnyRoof, panels: list[Polygon], casters: list[Caster], bearing_deg: float, elevation_deg: float
) -> list[tuple[str, Polygon, BaseGeometry]]:
    plate = roof_rect(roof.vehicle)
    if plate is None:
        return []
    things = [Polygon(c.corners) for c in casters if not c.hangs]
    return [
        (
            "",
            plate.polygon(),
            _shade(plate.polygon(), ROOF, casters, bearing_deg, elevation_deg)
            - unary_union([*panels, *things]),
        )
    ]


def _shade(
    area: Polygon, plane: Caster, casters: Sequence[Caster], bearing_deg: float, elevation_deg: float
) -> BaseGeometry:
    """The part of an area in a plane that things other than itself shade; all of it where the sun stands
    behind the plane.
    """
    away = cos(radians(bearing_deg)), -sin(radians(bearing_deg))  # ahead is -x, starboard +y
    fall = tan(radians(elevation_deg)) + plane.along * away[0] + plane.across * away[1]
    if fall <= 0:
        return area
    cast = [hull for c in casters if c.of != plane.of and (hull := _shadow(c, plane, away, fall)) is not None]
    return unary_union(cast).intersection(area)


def _shadow(caster: Caster, plane: Caster, away: tuple[float, float], fall: float) -> Polygon | None:
    """Hull of what stands over the plane and of its top carried along the light down to it; None where
    nothing does.
    """
    standing = _over(caster, plane)
    moved = [(x + away[0] * up / fall, y + away[1] * up / fall) for x, y, up in standing]
    hull = MultiPoint([*((x, y) for x, y, _ in standing), *moved]).convex_hull if standing else None
    return hull if isinstance(hull, Polygon) else None


def _over(caster: Caster, plane: Caster) -> list[tuple[float, float, float]]:
    """Corners of the part of a thing whose top lies over a plane, each with its height over it; none where no
    part does.
    """
    corners = [(x, y, caster.height(x, y) - plane.height(x, y)) for x, y in caster.corners]
    found = []
    for (x0, y0, up0), (x1, y1, up1) in zip(corners, (*corners[1:], corners[0]), strict=True):
        if up0 > 0:
            found.append((x0, y0, up0))
        if (up0 > 0) != (up1 > 0):
            share = up0 / (up0 - up1)
            found.append((x0 + share * (x1 - x0), y0 + share * (y1 - y0), 0.0))
    return found


def _told(panel: str, shade: BaseGeometry, area: Polygon) -> Shadow:
    parts = [g for g in getattr(shade, "geoms", [shade]) if isinstance(g, Polygon) and not g.is_empty]
    rings = (r for part in parts for r in (ring(part), *(ring(Polygon(hole)) for hole in part.interiors)))
    return Shadow(panel, tuple(rings), shade.area / area.area)
