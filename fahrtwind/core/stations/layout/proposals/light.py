"""How much of the year's light reaches each spot of the roof: what energy a placement is worth before it is
worked out in full.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import replace
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.proposals.placements import IntArray, Kind, Placements
from fahrtwind.core.stations.layout.sun.harvest import Stand
from fahrtwind.core.stations.layout.sun.shadows import BEARING_DEG, BEARINGS, casters_of, horizons
from fahrtwind.core.stations.layout.sun.sky import site_of, year_of

FloatArray = npt.NDArray[np.float64]
GRID_MM = 150.0
HEADINGS_AT_MOST = 8


def light_map(
    roof: SunnyRoof, stand: Stand, bounds: Rect, top_mm: float
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Positions along and across, and the share of the open sky's yearly light at each (rows along, columns
    across).
    """
    site = site_of(roof)
    sky = year_of(site)
    xs = np.arange(bounds.x_mm, bounds.x_end_mm + GRID_MM, GRID_MM)
    ys = np.arange(bounds.y_mm, bounds.y_end_mm + GRID_MM, GRID_MM)
    x, y = (a.ravel() for a in np.meshgrid(xs, ys, indexing="ij"))
    bare = replace(roof, panels=())
    horizon = horizons(
        np.stack([x, y, np.full_like(x, top_mm)], axis=1),
        casters_of(bare, lids_open=stand.lids_open, bodies={}),
    )
    diffuse = np.cos(np.arctan(horizon)) ** 2
    sunshine = np.array(site.sunshine)[sky.month]
    level = np.sin(np.radians(sky.elevation_deg))
    beam = sky.beam * level * sunshine * sky.hours
    even = float(((sky.diffuse * sunshine + sky.clouded * (1 - sunshine)) * sky.hours).sum())
    reached = np.zeros(len(x))
    headings = stand.headings_deg[:: max(len(stand.headings_deg) // HEADINGS_AT_MOST, 1)]
    for heading in headings:
        bearing = ((sky.azimuth_deg - heading) % 360 // BEARING_DEG).astype(np.int64) % BEARINGS
        clear = np.tan(np.radians(sky.elevation_deg))[None, :] >= horizon[:, bearing]
        reached += (clear * beam[None, :]).sum(axis=1) / len(headings)
    share = (reached + diffuse.mean(axis=1) * even) / (beam.sum() + even)
    return xs, ys, share.reshape(len(xs), len(ys))


def light_shares(
    placements: Placements,
    kinds: list[Kind],
    groups: list[int],
    field: tuple[FloatArray, FloatArray, FloatArray],
) -> FloatArray:
    """Share of the open sky's energy each placement gives: each cell group counts as its darkest spot.
    ``field``: along and across in mm, and shares of light (along, across).
    """
    xs, ys, share = field
    p = placements
    of_kind = np.array([groups[kind.model] for kind in kinds], dtype=np.int64)[p.kind]
    windows = np.stack(
        [
            np.searchsorted(xs, p.x),
            np.searchsorted(xs, p.x + p.length),
            np.searchsorted(ys, p.y),
            np.searchsorted(ys, p.y + p.width),
            of_kind,
            p.length >= p.width,
        ],
        axis=1,
    )
    # placements a few millimetres apart look at the same spots
    different, which = np.unique(windows, axis=0, return_inverse=True)
    found = np.array(
        [_seen(share[x0:x1, y0:y1], int(n), bool(along)) for x0, x1, y0, y1, n, along in different]
    )
    return found[which.ravel()] if len(p) else np.ones(0)


def _seen(part: FloatArray, groups: int, lengthwise: bool) -> float:
    if not part.size:
        return 1.0
    strips = np.array_split(part, groups, axis=1 if lengthwise else 0)
    return float(np.mean([s.min() for s in strips if s.size]))


def as_worth(values: FloatArray, scale: float) -> IntArray:
    """Worth as whole numbers, as the solver wants it. ``values`` of any one unit; ``scale``: whole numbers
    to one of them.
    """
    return np.maximum(np.round(values * scale), 0).astype(np.int64)
