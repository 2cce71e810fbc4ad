"""All hypotheses about the members with their weights, and what they say together about any place on the
roof.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.normal import normal_between, normal_cdf
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.structure.candidates import candidates
from fahrtwind.core.stations.structure.evidence import Evidence
from fahrtwind.core.stations.structure.placing import place
from fahrtwind.core.stations.structure.posterior import Fitted, log_null
from fahrtwind.core.tables.readings import NO_SPACING_SHARE

FloatArray = npt.NDArray[np.float64]


CLOSE_MM = 15.0
"""A member counts as where it is drawn if it stands within this distance: about the room a foot has on a
rib's face.
"""
SAME_PLACE_MM = 30.0
NEGLIGIBLE, NEGLIGIBLE_SHARE = 12.0, 0.002
BAND_TAIL, HALVINGS = 0.025, 22


@dataclass(frozen=True, slots=True, eq=False)
class Belief:
    """All hypotheses with their weights (sum 1 with ``nothing``, the weight of there being no spacing), best
    first.
    """

    evidence: Evidence
    fits: tuple[Fitted, ...]
    weights: FloatArray
    nothing: float


def drawn(evidence: Evidence) -> bool:
    """Whether a drawing alone tells where members stand."""
    facts = evidence.facts
    return facts.pitch_mm is not None and (facts.front_bay_mm is not None or facts.rear_bay_mm is not None)


def believe(evidence: Evidence) -> Belief | None:
    """Weigh all hypotheses against one another and against there being no spacing at all."""
    fits = sorted(candidates(evidence), key=lambda f: -f.log_weight)
    fits = _distinct([f for f in fits if f.log_weight > fits[0].log_weight - NEGLIGIBLE])
    if not fits:
        return None
    logs = np.array([f.log_weight for f in fits] + [log_null(evidence, NO_SPACING_SHARE)])
    weights = np.exp(logs - np.logaddexp.reduce(logs))
    return Belief(evidence, tuple(fits), weights[:-1], float(weights[-1]))


def _distinct(fits: list[Fitted]) -> list[Fitted]:
    """One hypothesis of each set of positions: candidates that ran into the same place count once."""
    kept: list[Fitted] = []
    for fit in fits:
        here = fit.layout.positions
        twin = any(
            k.layout.silent.any() == fit.layout.silent.any()
            and len(k.layout.positions) == len(here)
            and float(np.abs(k.layout.positions - here).max()) < 6.0
            for k in kept
        )
        if not twin:
            kept.append(fit)
    return kept


def members_read(lead: Fitted) -> list[int]:
    """Indices of the members that at least one reading belongs to."""
    return sorted({int(j) for j, s in zip(lead.belongs, lead.true_share, strict=True) if s > 0.5})


def stories(belief: Belief) -> list[list[int]]:
    """Hypotheses that put most members in the same places belong to one story; heaviest story first."""
    groups: list[list[int]] = []
    for i, fit in enumerate(belief.fits):
        home = next((g for g in groups if _same_story(belief.fits[g[0]], fit)), None)
        if home is None:
            groups.append([i])
        else:
            home.append(i)
    return sorted(groups, key=lambda g: -float(belief.weights[g].sum()))


def _same_story(one: Fitted, other: Fitted) -> bool:
    """The same picture wherever the roof was read: what lies beyond the readings is told by each member's own
    confidence.
    """
    a, b = one.layout.positions, other.layout.positions
    read = members_read(one)
    if min(len(a), len(b)) < 2 or one.layout.silent.any() != other.layout.silent.any():
        return False
    low, high = (a[read[0]], a[read[-1]]) if read else (a[0], a[-1])
    here, there = (
        a[(a >= low - 1) & (a <= high + 1)],
        b[(b > low - SAME_PLACE_MM) & (b < high + SAME_PLACE_MM)],
    )
    if len(here) != len(there) or not len(here):
        return False
    return bool(np.abs(here - there).max() < SAME_PLACE_MM)


def over_all(belief: Belief, x_mm: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Over all hypotheses: the chance that a member stands within ``CLOSE_MM`` of each x, and the 95 % band
    of the member nearest to it.

    Three arrays of shape like ``x_mm``. In mm, as is each x.
    """
    heavy = [i for i in np.argsort(-belief.weights) if belief.weights[i] >= NEGLIGIBLE_SHARE]
    weights, means, sigmas = [], [], []
    for i in heavy:
        placing = place(belief.evidence, belief.fits[i])
        nearest = np.abs(x_mm[:, None] - placing.x_mm[None, :]).argmin(axis=1)
        weights.append(belief.weights[i])
        means.append(placing.x_mm[nearest])
        sigmas.append(placing.sigma_mm[nearest])
    w, m, s = np.array(weights)[:, None], np.array(means), np.array(sigmas)
    sure: FloatArray = (w * normal_between((x_mm - CLOSE_MM - m) / s, (x_mm + CLOSE_MM - m) / s)).sum(axis=0)
    share = w / w.sum()
    return sure, _quantile(share, m, s, BAND_TAIL), _quantile(share, m, s, 1 - BAND_TAIL)


def _quantile(share: FloatArray, mean: FloatArray, sigma: FloatArray, tail: float) -> FloatArray:
    """Quantile of mixtures of normal distributions, hypotheses × members, by halving."""
    low, high = (mean - 6 * sigma).min(axis=0), (mean + 6 * sigma).max(axis=0)
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        below = (share * normal_cdf((middle - mean) / sigma)).sum(axis=0) < tail
        low, high = np.where(below, middle, low), np.where(below, high, middle)
    result: FloatArray = (low + high) / 2
    return result


def confidence(belief: Belief, x_mm: FloatArray) -> FloatArray:
    """Chance that a member stands within ``CLOSE_MM`` of each x, over all hypotheses; shape like ``x_mm``.
    In mm, as is each x; returned 0 to 1.
    """
    return over_all(belief, x_mm)[0]
