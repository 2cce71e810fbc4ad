"""Distances people would measure with a tape, and what overlaps what."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import shapely
from shapely.geometry import Polygon

from fahrtwind.core.job.document import Job
from fahrtwind.core.layout.footprint import Rect, lid_rect, obstacle_rect, panel_rect, roof_rect

TOUCHING_M2 = 1e-4


@dataclass(frozen=True, slots=True)
class Distance:
    """The shortest way from a panel to something, with its end points on the plan. Negative: over the edge."""

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


def distances(job: Job) -> tuple[Distance, ...]:
    """For every panel: to the four roof edges and to the nearest obstacle and panel."""
    rects = {p.id: panel_rect(p) for p in job.panels}
    polygons = {i: r.polygon() for i, r in rects.items()}
    obstacles = {o.id: obstacle_rect(o).polygon() for o in job.obstacles}
    roof, found = roof_rect(job.vehicle), []
    for panel, rect in rects.items():
        if roof is not None:
            found += _to_edges(panel, rect, roof)
        found += _to_nearest(panel, polygons[panel], obstacles, "obstacle")
        found += _to_nearest(panel, polygons[panel], {i: p for i, p in polygons.items() if i != panel}, "panel")
    return tuple(found)


def _to_edges(panel: str, rect: Rect, roof: Rect) -> list[Distance]:
    x, y = rect.centre
    return [
        Distance(panel, "front", "edge", rect.x_mm - roof.x_mm, rect.x_mm, y, roof.x_mm, y),
        Distance(panel, "rear", "edge", roof.x_end_mm - rect.x_end_mm, rect.x_end_mm, y, roof.x_end_mm, y),
        Distance(panel, "port", "edge", rect.y_mm - roof.y_mm, x, rect.y_mm, x, roof.y_mm),
        Distance(panel, "starboard", "edge", roof.y_end_mm - rect.y_end_mm, x, rect.y_end_mm, x, roof.y_end_mm),
    ]


def _to_nearest(panel: str, polygon: Polygon, others: dict[str, Polygon], kind: Literal["obstacle", "panel"]) -> list[Distance]:
    if not others:
        return []
    names = list(others)
    gaps = shapely.distance(polygon, list(others.values()))
    best = int(gaps.argmin())
    line = shapely.shortest_line(polygon, others[names[best]])
    (x0, y0), (x1, y1) = line.coords
    return [Distance(panel, names[best], kind, float(gaps[best]), x0, y0, x1, y1)]


def overlaps(job: Job) -> tuple[Overlap, ...]:
    """Panels that lie on one another, on an obstacle or its clearance, or under a lid that could not open."""
    rects = [(p.id, panel_rect(p)) for p in job.panels]
    blocks: list[tuple[str, Rect, Literal["obstacle", "lid"]]] = []
    for o in job.obstacles:
        blocks.append((o.id, obstacle_rect(o).grown(o.clearance.mm), "obstacle"))
        if (lid := lid_rect(o)) is not None:
            blocks.append((o.id, lid, "lid"))
    found: list[Overlap] = []
    for index, (panel, rect) in enumerate(rects):
        for other, other_rect in rects[index + 1 :]:
            found += _overlap(panel, rect, other, other_rect, "panel")
        for other, kept_clear, kind in blocks:
            found += _overlap(panel, rect, other, kept_clear, kind)
    return tuple(found)


def _overlap(panel: str, rect: Rect, other: str, other_rect: Rect, kind: Literal["panel", "obstacle", "lid"]) -> list[Overlap]:
    common = rect.clipped(other_rect)
    if common is None or common.area_m2 < TOUCHING_M2:
        return []
    return [Overlap(panel, other, kind, min(common.length_mm, common.width_mm))]
