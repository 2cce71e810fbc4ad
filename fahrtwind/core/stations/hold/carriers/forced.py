"""What a straight rail does to its feet on a roof that curves under it, if its bolts pull it down."""

from __future__ import annotations

from itertools import combinations, pairwise

import numpy as np

from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.alike import first_largest
from fahrtwind.core.stations.hold.carriers.rack import IN_PLANE_N_MM
from fahrtwind.core.stations.hold.carriers.sections import bar_strength
from fahrtwind.core.stations.hold.frame.model import Bar, FloatArray, Frame, Stiff, Support
from fahrtwind.core.stations.hold.frame.solve import solve
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.survey.crown import CrownSurface

LEAST_FEET = 3
"""A straight line goes through two."""
SHIM_MM = 2.0
"""What slots and foam take up unseen: judgement."""
EVEN_MM = 1e-6
FIRM = 1e9
"""The rail alone is looked at: what does not bend it is held."""


@dataclass(frozen=True, slots=True)
class Forced:
    """A rail or crossbar over its feet: the shims that make them straight, front to rear or port to
    starboard, mm, and the pull that stays on the worst foot if the rail is drawn down without them, N and as
    a share of its weakest link's design pull.
    """

    line: str
    shims_mm: tuple[float, ...]
    foot: str
    pull_n: float
    share: float


def forced_of(
    carrier: Carrier, feet: tuple[FootPlace, ...], chains: tuple[Chain, ...], crown: CrownSurface
) -> tuple[Forced, ...]:
    """Of every rail, or crossbar, on three feet or more; none on posts, which are cut to length. Raises
    InputError naming the field where an own section has no values.
    """
    if isinstance(carrier.hold, BasePlate | OuterFoot):
        return ()
    found = []
    for line in dict.fromkeys(f.line for f in feet):
        own = [(f, c) for f, c in zip(feet, chains, strict=True) if f.line == line]
        if len(own) >= LEAST_FEET:
            found.append(_forced(carrier, line, own, crown))
    return tuple(found)


def _forced(carrier: Carrier, line: str, own: list[tuple[FootPlace, Chain]], crown: CrownSurface) -> Forced:
    x, y = np.array([f.x_mm for f, _ in own]), np.array([f.y_mm for f, _ in own])
    across = isinstance(carrier, Rack) and carrier.crossbars is not None
    at = y if across else x
    order = np.argsort(at)
    heights = crown.heights(x, y)
    shims = _shims(at, heights)
    section, alloy = carrier.on_feet
    field = f"carriers.{carrier.id}.{'crossbars.' if across else ''}section"
    up = bar_strength(section, alloy, field).stiff.up_n_mm2
    stiff = Stiff(FIRM, up, up, FIRM)
    held = (IN_PLANE_N_MM, IN_PLANE_N_MM)
    nodes = np.stack([at, np.zeros(len(at)), np.zeros(len(at))], axis=1)
    supports = tuple(
        Support(i, tuple(nodes[i].tolist()), (*held, chain.stiffest_n_mm), foot.foot, (FIRM, 0.0, FIRM))
        for i, (foot, chain) in enumerate(own)
    )
    bars = tuple(Bar(int(a), int(b), stiff, line) for a, b in pairwise(order))
    settled = np.zeros((len(at), 6))
    settled[:, 2] = -shims
    pulls = solve(Frame(nodes, bars, (), supports), np.zeros((1, len(at), 6)), settled).on_support[0, 0, :, 2]
    worst = int(first_largest(pulls))
    foot, chain = own[worst]
    bears = min(link.pull_design_n for link in chain.links)
    pull = float(pulls[worst])
    return Forced(line, tuple(shims[order].tolist()), foot.foot, pull, pull / bears)


def _shims(at: FloatArray, heights: FloatArray) -> FloatArray:
    """The least that makes feet at some places straight, mm: up to the line over two of them that none
    overtops.
    """
    lines = (
        heights[i] + (heights[j] - heights[i]) / (at[j] - at[i]) * (at - at[i])
        for i, j in combinations(range(len(at)), 2)
        if at[i] != at[j]
    )
    least = min((line - heights for line in lines if (line > heights - EVEN_MM).all()), key=np.sum)
    shims: FloatArray = np.maximum(least, 0.0)
    return shims
