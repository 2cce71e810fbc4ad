"""The roof of a job as terrain: its crown, its steps, how the vehicle stands, and all that stands on it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import shapely

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Obstacle
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.stations.layout.feet import FootPlace, foot_base
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.stations.seal.water import (
    Dam,
    Terrain,
    WaterFinding,
    filled,
    grid_of,
    pools_of,
    streams_of,
    terrain_of,
    with_dams,
)
from fahrtwind.core.stations.survey.crown import CrownSurface

BASE_HIGH_MM, OBSTACLE_MM = 5.0, 60.0
"""A foot with what is under it; an obstacle whose height nobody typed."""
LIES_ON_MM = 5.0
"""A rail so low over the roof dams like one that lies on it."""


def roof_terrain(
    edge: shapely.Polygon, crown: CrownSurface | None, survey: Survey, seal: Seal, step_mm: float
) -> Terrain:
    """The bare roof. What is higher or lower than the roof round it is part of the ground."""
    heights = None
    if crown is not None:
        x, y = grid_of(edge, step_mm)
        # beyond the measured roof the polynomial runs away: the rim counts like its nearest spot
        inner_x = np.clip(x, 0.0, crown.length_mm)
        inner_y = np.clip(y, -crown.half_mm, crown.half_mm)
        heights = crown.grid(inner_x, inner_y)
    bare = terrain_of(edge, heights, (seal.lean.deg, seal.nose.deg), step_mm)
    steps = tuple(
        Dam(s.id, s.name, _ring(Rect(s.x.mm, s.y.mm - s.width.mm / 2, s.length.mm, s.width.mm)), s.step.mm)
        for s in survey.sections
        if s.step.mm
    )
    return with_dams(bare, steps)[0]


def _ring(rect: Rect) -> tuple[tuple[float, float], ...]:
    return (
        (rect.x_mm, rect.y_mm),
        (rect.x_end_mm, rect.y_mm),
        (rect.x_end_mm, rect.y_end_mm),
        (rect.x_mm, rect.y_end_mm),
    )


def dams_of(
    holders: tuple[Holder, ...],
    feet: tuple[FootPlace, ...],
    obstacles: tuple[Obstacle, ...],
    obstacle_shapes: tuple[Shape, ...],
    carriers: tuple[Carrier, ...],
) -> tuple[Dam, ...]:
    """Feet, obstacles, and rails that lie on the roof."""
    return (*_feet(holders, feet), *_obstacles(obstacles, obstacle_shapes), *_rails(carriers))


def _feet(holders: tuple[Holder, ...], feet: tuple[FootPlace, ...]) -> Iterator[Dam]:
    named = {h.id: h for h in holders}
    for foot in feet:
        holder = named.get(foot.panel)
        if holder is not None and foot.landing != "bar":
            base = foot_base(holder.hold, foot)
            yield Dam(foot.foot, f"{holder.name}, foot {foot.foot}", _ring(base), BASE_HIGH_MM)


def _obstacles(obstacles: tuple[Obstacle, ...], shapes: tuple[Shape, ...]) -> Iterator[Dam]:
    by_id = {o.id: o for o in obstacles}
    for shape in shapes:
        obstacle = by_id.get(shape.id)
        if obstacle is None:
            continue
        high = obstacle.height.mm if obstacle.height is not None else OBSTACLE_MM
        ring = tuple((v.x_mm, v.y_mm) for v in shape.ring) if shape.ring else _ring(shape.rect)
        yield Dam(obstacle.id, obstacle.name, ring, high)


def _rails(carriers: tuple[Carrier, ...]) -> Iterator[Dam]:
    for carrier in carriers:
        if carrier.height.mm > LIES_ON_MM:
            continue
        half = carrier.section.width.mm / 2
        for rail in carrier.rails:
            ring = _ring(
                Rect(carrier.start.mm, rail.y.mm - half, carrier.end.mm - carrier.start.mm, 2 * half)
            )
            yield Dam(rail.id, f"{carrier.name}, rail {rail.id}", ring, carrier.section.height.mm)


def water_on(
    bare: Terrain, dams: tuple[Dam, ...], places: tuple[SealPlace, ...], seal: Seal, shape_known: bool
) -> WaterFinding:
    """Pools and streams with all that stands on the roof."""
    terrain, which = with_dams(bare, dams)
    level, onward = filled(terrain)
    spots = tuple(
        (p.id, spot.x_mm, spot.y_mm)
        for p in places
        if p.kind not in ("open tube", "cable clip")
        for spot in p.spots or (p,)
    )
    pools = pools_of(terrain, level, which, dams, spots)
    return WaterFinding(
        terrain.step_mm,
        shape_known,
        seal.lean.deg,
        seal.nose.deg,
        round(sum(p.litres for p in pools), 3),
        pools,
        streams_of(terrain, level, onward),
    )
