"""How a seal is proved: water from low to high, readings inside, and when to look again."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.seal.choice import SealChoice
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.stations.survey.crown import CrownSurface

MINUTES = 5.0
"""A soft jet on each place, somebody inside with a lamp: common practice, no source."""
BAND_MM = 5.0
WET_PERCENT = 20.0
"""Wood over this rots (common practice); other linings are compared with a dry spot."""


@dataclass(frozen=True, slots=True)
class HoseStep:
    """Places that get water together, all higher ones still dry: what drips then is one of these."""

    number: int
    places: tuple[str, ...]
    minutes: float


@dataclass(frozen=True, slots=True)
class Proof:
    """``every_years``: the shorter of what the families on this roof are good for between looks."""

    steps: tuple[HoseStep, ...]
    minutes: float
    every_years: float
    wet: tuple[str, ...]


def proof_of(
    places: tuple[SealPlace, ...], crown: CrownSurface | None, choice: SealChoice, seal: Seal
) -> Proof:
    """From the lowest places up. Without a crown from the roof's sides to its middle, as roofs are highest
    there.
    """
    outside = [p for p in places if p.kind not in ("open tube", "cable clip")]
    x, y = np.array([p.x_mm for p in outside]), np.array([p.y_mm for p in outside])
    levels = crown.heights(x, y) if crown is not None else -np.abs(y) / 20
    height = {p.id: float(level) for p, level in zip(outside, levels, strict=True)}
    groups: list[list[SealPlace]] = []
    for place in sorted(outside, key=lambda p: (height[p.id], p.x_mm, p.y_mm)):
        if groups and height[place.id] - height[groups[-1][0].id] <= BAND_MM:
            groups[-1].append(place)
        else:
            groups.append([place])
    steps = tuple(
        HoseStep(i, tuple(p.name for p in group), MINUTES) for i, group in enumerate(groups, start=1)
    )
    wet = tuple(m.place for m in seal.moisture if m.percent > WET_PERCENT)
    every = min(choice.under.years, choice.round.years)
    return Proof(steps, MINUTES * len(steps), every, wet)
