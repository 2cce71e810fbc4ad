"""Which layouts are worth fitting: spacings suggested by pairs of readings, odd ends, changes of spacing,
halves.

Everything is deterministic and bounded, so that 300 readings take no longer than the eye notices.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.structure.evidence import Evidence
from fahrtwind.core.stations.structure.layouts import (
    End,
    Layout,
    every_second_missed,
    kept,
    odd_end,
    single,
    thinned,
    two_sections,
)
from fahrtwind.core.stations.structure.posterior import Fitted, fit, member_scores, quick_score
from fahrtwind.core.tables.readings import (
    EVERY_SECOND_SHARE,
    ODD_END_SHARE,
    PITCH_RANGE_MM,
    THINNED_SHARE,
    TWO_SECTIONS_SHARE,
)

FloatArray = npt.NDArray[np.float64]
POOL_MM = 12.0
"""Readings closer than this suggest the same spacings, so one of them is enough to start from."""
NEIGHBOURS = 7
SINGLES, WITH_ENDS, LOCAL = 26, 6, 6
HOPELESS = 18.0
JOINT_MM = 45.0
PAIRS_KEPT, THINNED_KEPT, JOINED_WITH_ENDS, FINER_OF = 14, 10, 4, 3
CUTS = (0.2, 0.35, 0.5, 0.65, 0.8)
LEAST_BAYS = 3
"""Fewer equal bays than that are odd bays, not a section."""
USUAL_JOINTS = 10
"""Members at which the spacing may change: the prior of two sections is shared among them."""
CHUNK = 1500
ROUGH_READINGS = 60
ONE_SPACING_SHARE = (1 - ODD_END_SHARE) ** 2 - TWO_SECTIONS_SHARE - THINNED_SHARE
ODD_END_ODDS = ODD_END_SHARE / (1 - ODD_END_SHARE)


def candidates(evidence: Evidence) -> list[Fitted]:
    """Fitted hypotheses of every story, unsorted."""
    fits = _singles(evidence) + _drawn(evidence)
    best = sorted(fits, key=lambda f: -f.log_weight)[:WITH_ENDS]
    joined = _two_sections(evidence, best) + _thinned(evidence, best + _finer(evidence, best[:FINER_OF]))
    for base in [*best, *sorted(joined, key=lambda f: -f.log_weight)[:JOINED_WITH_ENDS]]:
        fits += _odd_ends(evidence, base)
    for base in best:
        if base.layout.theta[1] / 2 >= PITCH_RANGE_MM[0]:
            fits += _fitted(
                evidence, [every_second_missed(base.layout, EVERY_SECOND_SHARE * ONE_SPACING_SHARE)]
            )
    return fits + joined


def _finer(evidence: Evidence, bases: list[Fitted]) -> list[Fitted]:
    """Halves and thirds of the likeliest spacings: where most of a roof is coarse, its fine stretch hardly
    shows by itself.
    """
    layouts = [
        single(float(b.layout.theta[0]), float(b.layout.theta[1]) / times, evidence.span, ONE_SPACING_SHARE)
        for b in bases
        for times in (2, 3)
        if not b.layout.bays and float(b.layout.theta[1]) / times >= PITCH_RANGE_MM[0]
    ]
    return [f for layout in layouts if (f := fit(evidence, layout)) is not None]


def _drawn(evidence: Evidence) -> list[Fitted]:
    """What a drawing says, where it tells both the spacing and the first member, or the last."""
    facts = evidence.facts
    if facts.pitch_mm is None or (facts.front_bay_mm is None and facts.rear_bay_mm is None):
        return []
    first = (
        facts.front_bay_mm if facts.front_bay_mm is not None else evidence.span - (facts.rear_bay_mm or 0.0)
    )
    layout = single(first, facts.pitch_mm, evidence.span, ONE_SPACING_SHARE)
    on = layout.positions > (facts.front_bay_mm or 0.0) - POOL_MM
    on &= layout.positions < evidence.span - (facts.rear_bay_mm or 0.0) + POOL_MM
    return _fitted(evidence, [kept(layout, on)] if on.sum() >= 2 else [])


def _fitted(evidence: Evidence, layouts: list[Layout], keep: int = 12) -> list[Fitted]:
    """Fit the most promising layouts; those far behind before the fit do not come up in it."""
    scored = sorted(((quick_score(evidence, layout), i) for i, layout in enumerate(layouts)), reverse=True)[
        :keep
    ]
    found = (fit(evidence, layouts[i]) for score, i in scored if score > scored[0][0] - HOPELESS)
    return [f for f in found if f is not None]


def _singles(evidence: Evidence) -> list[Fitted]:
    seeds = _spacings(evidence, evidence.x, SINGLES)
    known = evidence.facts.pitch_mm
    if known is not None and len(evidence.x):
        seeds += [(float(x), known) for x in _pooled(evidence.x)[:SINGLES]]
    return _fitted(
        evidence, [single(first, pitch, evidence.span, ONE_SPACING_SHARE) for first, pitch in seeds], SINGLES
    )


def _pooled(x: FloatArray) -> FloatArray:
    """One position for each bunch of readings."""
    if not len(x):
        return x
    starts = np.flatnonzero(np.diff(x, prepend=-1e9) > POOL_MM)
    return np.add.reduceat(x, starts) / np.diff(np.append(starts, len(x)))


def _spacings(evidence: Evidence, x: FloatArray, keep: int) -> list[tuple[float, float]]:
    """(first, pitch) pairs that put two readings on members, the best ``keep`` of different ones by
    likelihood.
    """
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
    scores = np.concatenate(
        [
            _lattice_scores(evidence, x, first[i : i + CHUNK], pitch[i : i + CHUNK])
            for i in range(0, len(first), CHUNK)
        ]
    )
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


def _reading_scores(
    evidence: Evidence, which: npt.NDArray[np.int64] | slice, first: FloatArray, pitch: FloatArray
) -> FloatArray:
    """Log likelihood of each reading under each lattice, shape (c, n): true with an even choice of member, or
    false.
    """
    x, rate = evidence.x[which], evidence.rate[which]
    spread = evidence.spread[which]
    off = x - first[:, None]
    off -= pitch[:, None] * np.round(off / pitch[:, None])
    share = len(x) / np.maximum((x[-1] - x[0]) / pitch[:, None] + 1, 2.0)
    true = share * np.exp(-0.5 * (off / spread) ** 2) / (spread * np.sqrt(2 * np.pi))
    score: FloatArray = np.log(true + rate)
    return score


def _wrap(offset: float, pitch: float) -> float:
    return offset - pitch * round(offset / pitch)


def _odd_ends(evidence: Evidence, base: Fitted) -> list[Fitted]:
    """An odd bay in front of or behind the regular members: where a reading suggests one, and unread; then at
    both ends.
    """
    fronts = _fitted(evidence, _odd_at(evidence, base, "front"), 6)
    rears = _fitted(evidence, _odd_at(evidence, base, "rear"), 6)
    both = [
        layout
        for front in sorted(fronts, key=lambda f: -f.log_weight)[:2]
        for layout in _odd_at(evidence, front, "rear")
    ]
    return fronts + rears + _fitted(evidence, both, 4)


def _odd_at(evidence: Evidence, base: Fitted, end: End) -> list[Layout]:
    layout, positions = base.layout, base.layout.positions
    read = sorted({int(j) for j, share in zip(base.belongs, base.true_share, strict=True) if share > 0.5})
    if len(read) < 2 or any(e == end for e, _ in layout.bays):
        return []
    front, last = end == "front", len(positions) - 1
    pitch = layout.pitch_mm(1 if front else len(layout.pitches))
    edge = positions[read[0]] - 0.2 * pitch if front else positions[read[-1]] + 0.2 * pitch
    layouts = []
    for x in _pooled(evidence.x[evidence.x < edge] if front else evidence.x[evidence.x > edge]):
        for i in _next(positions, x, pitch, ahead=front):
            layouts.append(odd_end(layout, end, i, abs(float(positions[i] - x)), ODD_END_ODDS))
    told = evidence.facts.front_bay_mm if front else evidence.facts.rear_bay_mm
    keep = 1 if front else last - 1
    if told is not None:
        there = told if front else evidence.span - told
        for i in _next(positions, there, pitch, ahead=front):
            layouts.append(odd_end(layout, end, i, abs(float(positions[i] - there)), ODD_END_ODDS))
    elif (front and read[0] >= 1) or (not front and read[-1] <= last - 1):
        layouts.append(odd_end(layout, end, keep, pitch, ODD_END_ODDS))
    return layouts


def _next(positions: FloatArray, x: float, pitch: float, *, ahead: bool) -> list[int]:
    """Members that an odd bay from ``x`` could end at."""
    gap = positions - x if ahead else x - positions
    return [
        int(i)
        for i in np.flatnonzero(
            (gap > 0.3 * pitch) & (gap < 1.8 * pitch) & (np.abs(gap - pitch) > 0.04 * pitch)
        )
    ]


def _thinned(evidence: Evidence, bases: list[Fitted]) -> list[Fitted]:
    """Towards one end only every second or third member of a spacing: what the others would have cost as
    missed decides where.
    """
    options: list[tuple[float, int, int, End, int]] = []
    for number, base in enumerate(bases):
        scores, pitch = member_scores(evidence, base.layout), float(base.layout.theta[1])
        if base.layout.bays or len(base.layout.pitches) > 1:
            continue
        n = len(scores)
        for times in (2, 3):
            if pitch * times > PITCH_RANGE_MM[1]:
                continue
            for joint in range(n):
                for end, rest in (("front", joint), ("rear", n - 1 - joint)):
                    if rest >= LEAST_BAYS - 1 + times and n - 1 - rest >= LEAST_BAYS:
                        side = scores[:joint] if end == "front" else scores[joint + 1 :]
                        stands = (
                            np.arange(len(side), 0, -1) if end == "front" else np.arange(1, len(side) + 1)
                        )
                        gained = -float(side[stands % times != 0].sum())
                        options.append((base.log_weight + gained, number, joint, end, times))  # type: ignore[arg-type]
    best = sorted(options, reverse=True)[: 2 * THINNED_KEPT]
    share = THINNED_SHARE / (4 * USUAL_JOINTS)  # at either end, by two or by three
    return _fitted(
        evidence,
        [thinned(bases[b].layout, joint, end, times, share) for _, b, joint, end, times in best],
        THINNED_KEPT,
    )


def _two_sections(evidence: Evidence, best: list[Fitted]) -> list[Fitted]:
    """Spacings of the front and of the rear part, joined at a member both have."""
    if len(evidence.x) < 5:
        return []
    likely = {(float(f.layout.theta[0]), float(f.layout.theta[1])) for f in best if not f.layout.bays}
    fronts, rears = set(likely), set(likely)
    for cut in np.unique(np.quantile(evidence.x, CUTS)):
        fronts |= set(_spacings(evidence, evidence.x[evidence.x <= cut], LOCAL))
        rears |= set(_spacings(evidence, evidence.x[evidence.x >= cut], LOCAL))
    rear_halves = _stacked([_half(evidence, first, pitch) for first, pitch in sorted(rears)])
    rough: list[tuple[float, float, float, int, float]] = []
    for first, pitch in sorted(fronts):
        rough += _rough_joints(evidence, _half(evidence, first, pitch), rear_halves)
    best_rough = sorted(rough, reverse=True)[: 2 * PAIRS_KEPT]
    share = TWO_SECTIONS_SHARE / USUAL_JOINTS
    layouts = [two_sections(first, p, j, q, evidence.span, share) for _, first, p, j, q in best_rough]
    return _fitted(evidence, layouts, PAIRS_KEPT)


@dataclass(frozen=True, slots=True, eq=False)
class _Half:
    """A spacing over the whole roof, with the score of its members summed from the front: shape (m + 1,)."""

    first: float
    pitch: float
    until: FloatArray


def _half(evidence: Evidence, first: float, pitch: float) -> _Half:
    layout = single(first, pitch, evidence.span, 1.0)
    return _Half(float(layout.theta[0]), pitch, np.append(0.0, np.cumsum(member_scores(evidence, layout))))


@dataclass(frozen=True, slots=True, eq=False)
class _Halves:
    """Several spacings over the whole roof: first and pitch (h,), scores summed from the front (h, m + 1),
    the last repeated.
    """

    first: FloatArray
    pitch: FloatArray
    until: FloatArray


def _stacked(halves: list[_Half]) -> _Halves:
    longest = max((len(h.until) for h in halves), default=1)
    until = np.array([np.pad(h.until, (0, longest - len(h.until)), mode="edge") for h in halves]).reshape(
        len(halves), longest
    )
    return _Halves(np.array([h.first for h in halves]), np.array([h.pitch for h in halves]), until)


def _rough_joints(
    evidence: Evidence, front: _Half, rears: _Halves
) -> list[tuple[float, float, float, int, float]]:
    """With each rear spacing the two best members at which both meet, with bays enough on either side.

    A list of (score, first, front pitch, joint, rear pitch).
    """
    room = (evidence.span - front.first - LEAST_BAYS * rears.pitch) / front.pitch
    joints = np.arange(LEAST_BAYS, int(room.max(initial=0.0)) + 1)
    at = front.first + joints * front.pitch
    step = np.round((at - rears.first[:, None]) / rears.pitch[:, None])
    meet = np.abs(at - rears.first[:, None] - rears.pitch[:, None] * step) < JOINT_MM
    meet &= (joints <= room[:, None]) & (np.abs(rears.pitch - front.pitch) > 0.03 * front.pitch)[:, None]
    if not meet.any():
        return []
    until, last = rears.until, rears.until.shape[1] - 1
    behind = until[:, -1:] - np.take_along_axis(
        until, np.minimum(np.maximum(step.astype(int) + 1, 0), last), axis=1
    )
    score = np.where(meet, front.until[np.minimum(joints + 1, len(front.until) - 1)] + behind, -np.inf)
    best = np.argsort(-score, axis=1)[:, :2]
    return [
        (float(score[r, i]), front.first, front.pitch, int(joints[i]), float(rears.pitch[r]))
        for r in np.flatnonzero(meet.any(axis=1))
        for i in best[r]
        if meet[r, i]
    ]
