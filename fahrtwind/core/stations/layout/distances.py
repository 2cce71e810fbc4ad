"""Distances people would measure with a tape, and what overlaps what."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache
from typing import Literal

import shapely
from shapely.geometry import LineString, Point, Polygon

from fahrtwind.core.formulas.roof_shape import lid_height_beyond
from fahrtwind.core.job.document import Obstacle
from fahrtwind.core.job.keyed import Keyed, keyed
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Outline
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.stations.layout.footprint import (
    Rect,
    lid_rect,
    obstacle_polygon,
    obstacle_rect,
    panel_rect,
    roof_rect,
)
from fahrtwind.core.stations.survey.lids import lid_swing
from fahrtwind.core.stations.survey.outline import is_plain, sound_outline

TOUCHING_M2 = 1e-4
UPRIGHT_DEG, LID_MARGIN_MM = 91.0, 15.0
"""A lid is let pass over a panel with this much air left: common practice, no source."""


@dataclass(frozen=True, slots=True)
class Distance:
    """The shortest way from a panel to something, with its end points on the plan. Negative: over the
    edge.
    """

    panel: str
    to: str
    kind: Literal["edge", "obstacle", "panel"]
    mm: float
    from_x_mm: float
    from_y_mm: float
    to_x_mm: float
    to_y_mm: float


@dataclass(frozen=True, slots=True)
class Overlap:
    panel: str
    other: str
    kind: Literal["panel", "obstacle", "lid"]
    depth_mm: float


def distances(plan: RoofPlan) -> tuple[Distance, ...]:
    """For every panel: to the four roof edges and to the nearest obstacle and panel."""
    rects = {p.id: panel_rect(p) for p in plan.panels}
    polygons = {i: r.polygon() for i, r in rects.items()}
    obstacles = {o.id: obstacle_polygon(o) for o in plan.obstacles if o.stays}
    roof, found = roof_rect(plan.vehicle), list[Distance]()
    shaped = None if is_plain(plan.survey.outline) else sound_outline(plan)
    edge = keyed(plan.survey.outline)
    for panel, rect in rects.items():
        if roof is not None:
            found += (
                _to_edges(panel, rect, roof)
                if shaped is None
                else _to_shaped_edges(panel, rect, _Edge(roof, edge, shaped))
            )
        found += _to_nearest(panel, polygons[panel], obstacles, "obstacle")
        found += _to_nearest(
            panel, polygons[panel], {i: p for i, p in polygons.items() if i != panel}, "panel"
        )
    return tuple(found)


def _to_edges(panel: str, rect: Rect, roof: Rect) -> list[Distance]:
    x, y = rect.centre
    return [
        Distance(panel, "front", "edge", rect.x_mm - roof.x_mm, rect.x_mm, y, roof.x_mm, y),
        Distance(panel, "rear", "edge", roof.x_end_mm - rect.x_end_mm, rect.x_end_mm, y, roof.x_end_mm, y),
        Distance(panel, "port", "edge", rect.y_mm - roof.y_mm, x, rect.y_mm, x, roof.y_mm),
        Distance(
            panel, "starboard", "edge", roof.y_end_mm - rect.y_end_mm, x, rect.y_end_mm, x, roof.y_end_mm
        ),
    ]


@dataclass(frozen=True, slots=True)
class _Edge:
    """The roof's edge, compared by what it was built from: comparing polygons would cost more than
    measuring.
    """

    roof: Rect
    outline: Keyed[Outline]
    polygon: Polygon = field(compare=False)


@lru_cache(maxsize=512)
def _to_shaped_edges(panel: str, rect: Rect, edge: _Edge) -> list[Distance]:
    """Straight ahead, astern and to both sides, each where the roof's edge comes nearest along the panel's
    own edge.
    """
    roof = edge.polygon
    x, y = rect.centre
    across = [rect.y_mm + 1.0, y, rect.y_end_mm - 1.0]
    along = [rect.x_mm + 1.0, x, rect.x_end_mm - 1.0]
    rows = _that_meet(roof, across, along_x=True)
    columns = _that_meet(roof, along, along_x=False)
    front, front_y = max((row[0], at) for row, at in rows)
    rear, rear_y = min((row[1], at) for row, at in rows)
    port, port_x = max((column[0], at) for column, at in columns)
    starboard, starboard_x = min((column[1], at) for column, at in columns)
    return [
        Distance(panel, "front", "edge", rect.x_mm - front, rect.x_mm, front_y, front, front_y),
        Distance(panel, "rear", "edge", rear - rect.x_end_mm, rect.x_end_mm, rear_y, rear, rear_y),
        Distance(panel, "port", "edge", rect.y_mm - port, port_x, rect.y_mm, port_x, port),
        Distance(
            panel,
            "starboard",
            "edge",
            starboard - rect.y_end_mm,
            starboard_x,
            rect.y_end_mm,
            starboard_x,
            starboard,
        ),
    ]


def _that_meet(
    roof: Polygon, places: list[float], *, along_x: bool
) -> list[tuple[tuple[float, float], float]]:
    """The roof's extent on each line that meets it; beside the roof there is no front or rear to measure
    to.
    """
    found = [(roof_extent(roof, at, along_x=along_x), at) for at in places]
    return [(extent, at) for extent, at in found if extent[1] > extent[0]] or found


def roof_extent(roof: Polygon, at_mm: float, *, along_x: bool) -> tuple[float, float]:
    """First and last point of the roof on a line along it (at y) or across it (at x); a line that misses it
    counts as nothing.
    """
    x0, y0, x1, y1 = roof.bounds
    line = LineString([(x0 - 1, at_mm), (x1 + 1, at_mm)] if along_x else [(at_mm, y0 - 1), (at_mm, y1 + 1)])
    cut = roof.intersection(line)
    if cut.is_empty:
        middle = (x0 + x1) / 2 if along_x else (y0 + y1) / 2
        return middle, middle
    low_x, low_y, high_x, high_y = cut.bounds
    return (low_x, high_x) if along_x else (low_y, high_y)


def _to_nearest(
    panel: str, polygon: Polygon, others: dict[str, Polygon], kind: Literal["obstacle", "panel"]
) -> list[Distance]:
    if not others:
        return []
    names = list(others)
    gaps = shapely.distance(polygon, list(others.values()))
    best = int(gaps.argmin())
    line = shapely.shortest_line(polygon, others[names[best]])
    (x0, y0), (x1, y1) = line.coords
    return [Distance(panel, names[best], kind, float(gaps[best]), x0, y0, x1, y1)]


def overlaps(plan: RoofPlan) -> tuple[Overlap, ...]:
    """Panels that lie on one another, on an obstacle that stays or its clearance, or under a lid that could
    not open.
    """
    rects = [(p, panel_rect(p)) for p in plan.panels]
    found: list[Overlap] = []
    for index, (panel, rect) in enumerate(rects):
        for other, other_rect in rects[index + 1 :]:
            found += _overlap(panel.id, rect, other.id, other_rect, "panel")
        for obstacle in plan.obstacles:
            found += _on_obstacle(panel, rect, obstacle) if obstacle.stays else []
    return tuple(found)


def _on_obstacle(panel: PlacedPanel, rect: Rect, obstacle: Obstacle) -> list[Overlap]:
    found = []
    if obstacle.shape == "rectangle":
        found += _overlap(
            panel.id, rect, obstacle.id, obstacle_rect(obstacle).grown(obstacle.clearance.mm), "obstacle"
        )
    else:
        common = obstacle_polygon(obstacle).buffer(obstacle.clearance.mm).intersection(rect.polygon())
        if common.area * 1e-6 >= TOUCHING_M2:
            x0, y0, x1, y1 = common.bounds
            found.append(Overlap(panel.id, obstacle.id, "obstacle", min(x1 - x0, y1 - y0)))
    lid = lid_rect(obstacle)
    if lid is None or _passes_under(panel, rect, obstacle, lid):
        return found
    return found + _overlap(panel.id, rect, obstacle.id, lid, "lid")


def _passes_under(panel: PlacedPanel, rect: Rect, obstacle: Obstacle, lid: Rect) -> bool:
    """Whether the open lid stands clear above a panel: told only where its angle was measured, else the plan
    decides.
    """
    swing = lid_swing(obstacle)
    common = rect.clipped(lid)
    if swing is None or common is None or swing.angle_deg <= UPRIGHT_DEG:
        return False
    beyond = {
        "front": lid.x_end_mm - common.x_end_mm,
        "rear": common.x_mm - lid.x_mm,
        "left": lid.y_end_mm - common.y_end_mm,
        "right": common.y_mm - lid.y_mm,
    }[swing.hinge]
    lowest = float(lid_height_beyond(swing.hinge_height_mm, beyond, swing.angle_deg))
    return panel.stand_off.mm + panel.model.frame_height.mm + LID_MARGIN_MM <= lowest


def _overlap(
    panel: str, rect: Rect, other: str, other_rect: Rect, kind: Literal["panel", "obstacle", "lid"]
) -> list[Overlap]:
    common = rect.clipped(other_rect)
    if common is None or common.area_m2 < TOUCHING_M2:
        return []
    return [Overlap(panel, other, kind, min(common.length_mm, common.width_mm))]


def outside_mm(rect: Rect, area: Polygon) -> float:
    """How far a panel reaches out of an area: 0 inside, else the largest distance of one of its corners from
    the area.
    """
    if area.covers(rect.polygon()):
        return 0.0
    corners = [
        (rect.x_mm, rect.y_mm),
        (rect.x_end_mm, rect.y_mm),
        (rect.x_end_mm, rect.y_end_mm),
        (rect.x_mm, rect.y_end_mm),
    ]
    return max(float(area.distance(Point(corner))) for corner in corners)
