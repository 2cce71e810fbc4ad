"""Sun and shadow the plain way, one moment after the other: shadows as polygons, an independent twin of the
fast way.
"""

from __future__ import annotations

from math import cos, radians, sin, tan

import numpy as np
import shapely
from shapely.affinity import translate
from shapely.geometry import MultiPoint, Point, Polygon

from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.footprint import obstacle_polygon
from fahrtwind.core.stations.layout.sun.shadows import Caster, cells_of
from fahrtwind.core.stations.layout.sun.sky import Sky

STRIDE_MM = 4.0


def marched(point: np.ndarray, casters: list[Caster], bearing_deg: float, elevation_deg: float) -> bool:  # type: ignore[type-arg]
    """Walk from a point towards the sun in small strides and look whether the ray is ever inside a solid."""
    dx, dy = -cos(radians(bearing_deg)), sin(radians(bearing_deg))
    reach = np.arange(STRIDE_MM, 3000, STRIDE_MM)
    x, y, z = point[0] + dx * reach, point[1] + dy * reach, point[2] + tan(radians(elevation_deg)) * reach
    for caster in casters:
        polygon = Polygon(caster.corners)
        low = z < caster.z0 + caster.along * x + caster.across * y
        if any(polygon.contains(Point(a, b)) for a, b in zip(x[low], y[low], strict=True)):
            return True
    return False


def shadow_of(footprint: Polygon, height_mm: float, bearing_deg: float, elevation_deg: float) -> Polygon:
    """The shadow of a convex thing: hull of its footprint and the footprint moved by height / tan(elevation)
    away from the sun.
    """
    reach = height_mm / tan(radians(elevation_deg))
    away = cos(radians(bearing_deg)) * reach, -sin(radians(bearing_deg)) * reach  # ahead is -x, starboard +y
    moved = translate(footprint, *away)
    return MultiPoint([*footprint.exterior.coords, *moved.exterior.coords]).convex_hull


def beam_lost(job: Job, sky: Sky, headings: list[float], weights: np.ndarray) -> list[float]:  # type: ignore[type-arg]
    """For every flat panel the share of its direct light that obstacles take, moment by moment and heading by
    heading.
    """
    lost = []
    for panel in job.panels:
        cells = cells_of(panel, None)
        top, all_light, taken = cells.points[0, 2], 0.0, 0.0
        spots = shapely.points(cells.points[:, :2])
        for i in range(len(sky.hours)):
            light = sky.beam[i] * sin(radians(sky.elevation_deg[i])) * weights[i]
            for heading in headings:
                hidden = np.zeros(len(spots), dtype=bool)
                for obstacle in job.obstacles:
                    over = obstacle.height.mm - top
                    if over > 0:
                        shadow = shadow_of(
                            obstacle_polygon(obstacle).convex_hull,
                            over,
                            sky.azimuth_deg[i] - heading,
                            sky.elevation_deg[i],
                        )
                        hidden |= shapely.contains(shadow, spots)
                all_light += light
                taken += light * hidden.mean()
        lost.append(taken / all_light)
    return lost
