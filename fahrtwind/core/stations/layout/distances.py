"""Distances people would measure with a tape, and what overlaps what."""

from __future__ import annotations

from math import inf
from typing import Literal

import numpy as np
import shapely
from shapely.geometry import LineString, Point, Polygon

from fahrtwind.core.formulas.roof_shape import lid_height_beyond
from fahrtwind.core.job.document import Obstacle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import OnRoof, RoofPlan
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import (
    Rect,
    lid_rect,
    obstacle_polygon,
    obstacle_rect,
    panel_rect,
    roof_rect,
)
from fahrtwind.core.stations.survey.lids import LidSwing, lid_swing
from fahrtwind.core.stations.survey.outline import is_plain, sound_outline

TOUCHING_M2 = 1e-4
UPRIGHT_DEG, LID_MARGIN_MM = 91.0, 15.0
"""A lid is let pass over a panel with this much air left: common practice, no source."""
LEAST_ABOVE_MM = 20.0
"""Air between an obstacle and a panel that is carried over it, where it needs no more (judgement)."""


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
    roof, edge = roof_rect(plan.vehicle), shaped_edge(plan)
    obstacles = standing(plan.obstacles)
    own = tuple(own_distances(p, roof, edge, obstacles) for p in plan.panels)
    return with_neighbours(plan.panels, own)


Standing = tuple[tuple[str, Polygon], ...]


def standing(obstacles: tuple[Obstacle, ...]) -> Standing:
    """What stays on the roof, by id and outline."""
    return tuple((o.id, obstacle_polygon(o)) for o in obstacles if o.stays)


def shaped_edge(notes: OnRoof) -> Polygon | None:
    """The roof's edge where it is no plain rectangle."""
    return None if is_plain(notes.survey.outline) else sound_outline(notes)


def own_distances(
    panel: PlacedPanel, roof: Rect | None, edge: Polygon | None, obstacles: Standing
) -> tuple[Distance, ...]:
    """From one panel to the roof's edges and to the nearest obstacle."""
    rect = panel_rect(panel)
    found: list[Distance] = []
    if roof is not None:
        found += _to_edges(panel.id, rect, roof) if edge is None else _to_shaped_edges(panel.id, rect, edge)
    return (*found, *_to_nearest(panel.id, rect.polygon(), dict(obstacles)))


def with_neighbours(
    panels: tuple[PlacedPanel, ...], own: tuple[tuple[Distance, ...], ...]
) -> tuple[Distance, ...]:
    """Each panel's own distances and that to the panel nearest to it."""
    if len(panels) < 2:
        return tuple(d for distances_of in own for d in distances_of)
    polygons = np.array([panel_rect(p).polygon() for p in panels])
    gaps = shapely.distance(polygons[:, None], polygons)
    np.fill_diagonal(gaps, inf)
    nearest = gaps.argmin(axis=1)
    straight = shapely.shortest_line(polygons, polygons[nearest])
    lines = shapely.get_coordinates(straight).reshape(-1, 4).tolist()
    found: list[Distance] = []
    for i, (panel, distances_of) in enumerate(zip(panels, own, strict=True)):
        gap = float(gaps[i, nearest[i]])
        found += [*distances_of, Distance(panel.id, panels[nearest[i]].id, "panel", gap, *lines[i])]
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


def _to_shaped_edges(panel: str, rect: Rect, roof: Polygon) -> list[Distance]:
    """Straight ahead, astern and to both sides, each where the roof's edge comes nearest along the panel's
    own edge.
    """
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
    counts as nothing. In mm.
    """
    x0, y0, x1, y1 = roof.bounds
    line = LineString([(x0 - 1, at_mm), (x1 + 1, at_mm)] if along_x else [(at_mm, y0 - 1), (at_mm, y1 + 1)])
    cut = roof.intersection(line)
    if cut.is_empty:
        middle = (x0 + x1) / 2 if along_x else (y0 + y1) / 2
        return middle, middle
    low_x, low_y, high_x, high_y = cut.bounds
    return (low_x, high_x) if along_x else (low_y, high_y)


def _to_nearest(panel: str, polygon: Polygon, others: dict[str, Polygon]) -> list[Distance]:
    """To the obstacle nearest to it."""
    if not others:
        return []
    names = list(others)
    gaps = shapely.distance(polygon, list(others.values()))
    best = int(gaps.argmin())
    line = shapely.shortest_line(polygon, others[names[best]])
    (x0, y0), (x1, y1) = line.coords
    return [Distance(panel, names[best], "obstacle", float(gaps[best]), x0, y0, x1, y1)]


@dataclass(frozen=True, slots=True)
class Hindrance:
    """What an obstacle keeps free: itself with its clearance, and what its open lid covers."""

    id: str
    rect: Rect
    outline: Polygon | None
    """Its true outline with the clearance, where it is no rectangle."""
    lid: Rect | None
    swing: LidSwing | None
    free_mm: float
    """A panel on a carrier whose underside stands so high passes above it; nothing does that opens."""


def hindrances(obstacles: tuple[Obstacle, ...]) -> tuple[Hindrance, ...]:
    return tuple(_hindrance(o) for o in obstacles if o.stays)


def _hindrance(obstacle: Obstacle) -> Hindrance:
    clearance = obstacle.clearance.mm
    plain = obstacle.shape == "rectangle"
    outline = None if plain else obstacle_polygon(obstacle).buffer(clearance)
    lid, swing = lid_rect(obstacle), lid_swing(obstacle)
    opens = obstacle.kind == "hatch" or obstacle.lid_hinge != "none"
    free = inf if opens else obstacle.height.mm + max(clearance, LEAST_ABOVE_MM)
    return Hindrance(obstacle.id, obstacle_rect(obstacle).grown(clearance), outline, lid, swing, free)


def overlaps(plan: RoofPlan) -> tuple[Overlap, ...]:
    """Panels that lie on one another, on an obstacle that stays or its clearance, or under a lid that could
    not open.
    """
    in_the_way = hindrances(plan.obstacles)
    return with_panels(plan.panels, tuple(on_hindrances(p, in_the_way) for p in plan.panels))


def with_panels(panels: tuple[PlacedPanel, ...], own: tuple[tuple[Overlap, ...], ...]) -> tuple[Overlap, ...]:
    """Each panel's overlaps with the panels behind it in the list, and its own with obstacles."""
    rects = [(p.id, panel_rect(p)) for p in panels]
    found: list[Overlap] = []
    for index, (panel, rect) in enumerate(rects):
        for other, other_rect in rects[index + 1 :]:
            found += _overlap(panel, rect, other, other_rect, "panel")
        found += own[index]
    return tuple(found)


def bridges(panel: PlacedPanel, one: Hindrance) -> bool:
    """Whether a panel is carried over an obstacle."""
    return panel.carrier is not None and panel.stand_off.mm >= one.free_mm


def on_hindrances(panel: PlacedPanel, in_the_way: tuple[Hindrance, ...]) -> tuple[Overlap, ...]:
    """What one panel lies on of obstacles, their clearance and their lids."""
    rect = panel_rect(panel)
    found: list[Overlap] = []
    for one in in_the_way:
        if bridges(panel, one):
            pass
        elif one.outline is None:
            found += _overlap(panel.id, rect, one.id, one.rect, "obstacle")
        else:
            common = one.outline.intersection(rect.polygon())
            if common.area * 1e-6 >= TOUCHING_M2:
                x0, y0, x1, y1 = common.bounds
                found.append(Overlap(panel.id, one.id, "obstacle", min(x1 - x0, y1 - y0)))
        if one.lid is not None and not _passes_under(panel, rect, one.lid, one.swing):
            found += _overlap(panel.id, rect, one.id, one.lid, "lid")
    return tuple(found)


def _passes_under(panel: PlacedPanel, rect: Rect, lid: Rect, swing: LidSwing | None) -> bool:
    """Whether the open lid stands clear above a panel: told only where its angle was measured, else the plan
    decides.
    """
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
