"""Which layouts are worth fitting: spacings suggested by pairs of readings, odd ends, changes of spacing, halves.

Everything is deterministic and bounded, so that 300 readings take no longer than the eye notices.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.structure.evidence import Evidence
from fahrtwind.core.structure.layouts import Layout, every_second_missed, odd_front, odd_rear, single, two_sections
from fahrtwind.core.structure.posterior import Fitted, fit, quick_score
from fahrtwind.core.tables.readings import (
    BUILD_SCATTER_MM,
    EVERY_SECOND_SHARE,
    ODD_END_SHARE,
    PITCH_RANGE_MM,
    TWO_SECTIONS_SHARE,
)

FloatArray = npt.NDArray[np.float64]
POOL_MM = 12.0
"""Readings closer than this suggest the same spacings, so one of them is enough to start from."""
NEIGHBOURS = 7
SINGLES, WITH_ENDS, LOCAL = 26, 6, 6
HOPELESS = 18.0
JOINT_MM = 45.0
PAIRS_KEPT = 14
CUTS = (0.2, 0.35, 0.5, 0.65, 0.8)
LEAST_BAYS = 3
"""Fewer equal bays than that are odd bays, not a section."""
USUAL_JOINTS = 10
"""Members at which the spacing may change: the prior of two sections is shared among them."""
CHUNK = 1500
ROUGH_READINGS = 60
ONE_SPACING_SHARE = 1 - 2 * ODD_END_SHARE - TWO_SECTIONS_SHARE


def candidates(evidence: Evidence) -> list[Fitted]:
    """Fitted hypotheses of every story, unsorted."""
    fits = _singles(evidence)
    best = sorted(fits, key=lambda f: -f.log_weight)[:WITH_ENDS]
    for base in best:
        fits += _odd_ends(evidence, base)
        half = base.layout.theta[1] / 2
        if half >= PITCH_RANGE_MM[0]:
            fits += _fitted(evidence, [every_second_missed(base.layout, EVERY_SECOND_SHARE * ONE_SPACING_SHARE)])
    return fits + _two_sections(evidence)


def _fitted(evidence: Evidence, layouts: list[Layout], keep: int = 12) -> list[Fitted]:
    """Fit the most promising layouts; those far behind before the fit do not come up in it."""
    scored = sorted(((quick_score(evidence, layout), i) for i, layout in enumerate(layouts)), reverse=True)[:keep]
    found = (fit(evidence, layouts[i]) for score, i in scored if score > scored[0][0] - HOPELESS)
    return [f for f in found if f is not None]


def _singles(evidence: Evidence) -> list[Fitted]:
    seeds = _spacings(evidence, evidence.x, SINGLES)
    known = evidence.facts.pitch_mm
    if known is not None and len(evidence.x):
        seeds += [(float(x), known) for x in _pooled(evidence.x)[:SINGLES]]
    return _fitted(evidence, [single(first, pitch, evidence.span, ONE_SPACING_SHARE) for first, pitch in seeds], SINGLES)


def _pooled(x: FloatArray) -> FloatArray:
    """One position for each bunch of readings."""
    if not len(x):
        return x
    starts = np.flatnonzero(np.diff(x, prepend=-1e9) > POOL_MM)
    return np.add.reduceat(x, starts) / np.diff(np.append(starts, len(x)))


def _spacings(evidence: Evidence, x: FloatArray, keep: int) -> list[tuple[float, float]]:
    """(first, pitch) pairs that put two readings on members, the best ``keep`` of different ones by likelihood."""
    pooled = _pooled(x)
    low, high = PITCH_RANGE_MM
    seeds = set()
    for i in range(len(pooled)):
        for j in range(i + 1, min(i + 1 + NEIGHBOURS, len(pooled))):
            gap = float(pooled[j] - pooled[i])
            for k in range(max(1, int(np.ceil(gap / high))), int(gap / low) + 1):
                seeds.add((round(float(pooled[i]), 1), round(gap / k, 1)))
    if not seeds:
        return []
    first, pitch = np.array(sorted(seeds)).T
    scores = np.concatenate([
        _lattice_scores(evidence, x, first[i : i + CHUNK], pitch[i : i + CHUNK]) for i in range(0, len(first), CHUNK)
    ])  # fmt: skip
    kept: list[tuple[float, float]] = []
    for i in np.argsort(-scores):
        a, p = float(first[i]), float(pitch[i])
        if all(abs(p - q) > 0.004 * p or abs(_wrap(a - b, p)) > 20 for b, q in kept):
            kept.append((a, p))
        if len(kept) == keep:
            break
    return kept


def _lattice_scores(evidence: Evidence, x: FloatArray, first: FloatArray, pitch: FloatArray) -> FloatArray:
    """Rough log likelihood of many lattices at once, shape (c,)."""
    inside = np.flatnonzero((evidence.x >= x[0]) & (evidence.x <= x[-1]))
    inside = inside[:: max(1, len(inside) // ROUGH_READINGS)]  # enough to rank candidates; the fit uses all
    total: FloatArray = _reading_scores(evidence, inside, first, pitch).sum(axis=1)
    return total


def _reading_scores(evidence: Evidence, which: npt.NDArray[np.int64] | slice, first: FloatArray, pitch: FloatArray) -> FloatArray:
    """Log likelihood of each reading under each lattice, shape (c, n): true with an even choice of member, or false."""
    x, rate = evidence.x[which], evidence.rate[which]
    spread = np.hypot(evidence.sigma[which], BUILD_SCATTER_MM)
    off = x - first[:, None]
    off -= pitch[:, None] * np.round(off / pitch[:, None])
    share = len(x) / np.maximum((x[-1] - x[0]) / pitch[:, None] + 1, 2.0)
    true = share * np.exp(-0.5 * (off / spread) ** 2) / (spread * np.sqrt(2 * np.pi))
    score: FloatArray = np.log(true + rate)
    return score


def _wrap(offset: float, pitch: float) -> float:
    return offset - pitch * round(offset / pitch)


def _odd_ends(evidence: Evidence, base: Fitted) -> list[Fitted]:
    """An odd bay in front of or behind the regular members: where a reading suggests one, and unread."""
    layout, positions, pitch = base.layout, base.layout.positions, float(base.layout.theta[1])
    read = sorted({int(j) for j, share in zip(base.belongs, base.true_share, strict=True) if share > 0.5})
    if len(read) < 2:
        return []
    layouts = []
    for x in _pooled(evidence.x[evidence.x < positions[read[0]] - 0.2 * pitch]):
        layouts += [odd_front(layout, i, float(positions[i] - x), ODD_END_SHARE) for i in _next(positions, x, pitch, ahead=True)]
    for x in _pooled(evidence.x[evidence.x > positions[read[-1]] + 0.2 * pitch]):
        layouts += [odd_rear(layout, i, float(x - positions[i]), ODD_END_SHARE) for i in _next(positions, x, pitch, ahead=False)]
    if evidence.facts.front_bay_mm is not None:
        layouts.append(odd_front(layout, min(read[0], 1), evidence.facts.front_bay_mm, 5 * ODD_END_SHARE))
    elif read[0] >= 1:
        layouts.append(odd_front(layout, 1, pitch, ODD_END_SHARE))
    if evidence.facts.rear_bay_mm is not None:
        layouts.append(odd_rear(layout, max(read[-1], len(positions) - 2), evidence.facts.rear_bay_mm, 5 * ODD_END_SHARE))
    elif read[-1] <= len(positions) - 2:
        layouts.append(odd_rear(layout, len(positions) - 2, pitch, ODD_END_SHARE))
    return _fitted(evidence, layouts)


def _next(positions: FloatArray, x: float, pitch: float, *, ahead: bool) -> list[int]:
    """Members that an odd bay from ``x`` could end at."""
    gap = positions - x if ahead else x - positions
    return [int(i) for i in np.flatnonzero((gap > 0.3 * pitch) & (gap < 1.8 * pitch) & (np.abs(gap - pitch) > 0.04 * pitch))]


def _two_sections(evidence: Evidence) -> list[Fitted]:
    """Spacings of the front and of the rear part, joined at a member both have."""
    if len(evidence.x) < 5:
        return []
    fronts, rears = set[tuple[float, float]](), set[tuple[float, float]]()
    for cut in np.unique(np.quantile(evidence.x, CUTS)):
        fronts |= set(_spacings(evidence, evidence.x[evidence.x <= cut], LOCAL))
        rears |= set(_spacings(evidence, evidence.x[evidence.x >= cut], LOCAL))
    if not fronts or not rears:
        return []
    everywhere = slice(None)
    front, rear = np.array(sorted(fronts)), np.array(sorted(rears))
    before = np.cumsum(_reading_scores(evidence, everywhere, front[:, 0], front[:, 1]), axis=1)
    behind = np.cumsum(_reading_scores(evidence, everywhere, rear[:, 0], rear[:, 1])[:, ::-1], axis=1)[:, ::-1]
    rough: list[tuple[float, float, float, int, float]] = []
    for (a, p), left in zip(front, before, strict=True):
        first = float(a - p * np.floor((a + 15.0) / p))
        for (b, q), right in zip(rear, behind, strict=True):
            if abs(q - p) > 0.03 * p:
                rough += _rough_joints(evidence, (first, float(p), left), (float(b), float(q), right))
    best = sorted(rough, reverse=True)[: 2 * PAIRS_KEPT]
    layouts = [two_sections(first, p, j, q, evidence.span, TWO_SECTIONS_SHARE / USUAL_JOINTS) for _, first, p, j, q in best]
    return _fitted(evidence, layouts, PAIRS_KEPT)


def _rough_joints(
    evidence: Evidence, front: tuple[float, float, FloatArray], rear: tuple[float, float, FloatArray]
) -> list[tuple[float, float, float, int, float]]:
    """The two best members at which both spacings meet, with bays enough on either side: (score, first, p, joint, q)."""
    first, pitch, left = front
    other, second, right = rear
    joints = np.arange(LEAST_BAYS, int((evidence.span - first - LEAST_BAYS * second) / pitch) + 1)
    if not len(joints):
        return []
    at = first + joints * pitch
    off = at - other
    joints = joints[np.abs(off - second * np.round(off / second)) < JOINT_MM]
    cut = np.searchsorted(evidence.x, first + (joints + 0.5) * pitch)
    score = np.append(0.0, left)[cut] + np.append(right, 0.0)[cut]
    return [(float(score[i]), first, pitch, int(joints[i]), second) for i in np.argsort(-score)[:2]]
