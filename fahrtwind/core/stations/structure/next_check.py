"""Check here next: the one spot and kind of test whose answer settles most about the members that will be
used.

For every candidate spot the two outcomes, something there or nothing, are played through all hypotheses. What
counts is the uncertainty left about the members to be used, in bits (Lindley, On a measure of the information
provided by an experiment, 1956), less the harm of the test: a knock costs nothing, a pilot hole leaves a
leak.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.normal import normal_between
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length, say_share
from fahrtwind.core.stations.structure.belief import CLOSE_MM, Belief, stories
from fahrtwind.core.stations.structure.members import EvidenceKey, MemberFit, belief_of, fit_members
from fahrtwind.core.stations.structure.placing import place
from fahrtwind.core.tables.readings import RELIABILITY, ReadingKind

FloatArray = npt.NDArray[np.float64]
SEARCHED_MM = 80.0
"""A spot check by eye, magnet, finder or knuckle covers this far to either side."""
ENOUGH, LEAST_GAIN_BITS = 0.95, 0.02
HARM_BITS = 1.0
ENOUGH_WORDS = "Enough is known: every member to be used is sure. Begin with one pilot hole and look."
WEIGHT_FROM = 0.004
MOST_SPOTS = 120
FALSE_HIT = 0.03
MEMBERS_COUNT_AS = 4
FIRST_FROM_MM, FIRST_STRETCH_MM = 500.0, 480.0
NEAREST_NEIGHBOUR_MM, NEXT_STRETCH_MM = 250.0, 320.0


@dataclass(frozen=True, slots=True)
class Outcome:
    """What an answer would mean: its chance, the leading story after it, and the weakest member's confidence
    then.
    """

    answer: Literal["hit", "nothing"]
    chance: float
    means: str
    weakest: float


@dataclass(frozen=True, slots=True)
class NextCheck:
    """Where to check next and how, from ``start`` to ``end`` around ``x``; ``enough`` says that drilling may
    begin.

    ``gain_bits`` is the expected information about the members to be used, before the harm of the test is
    taken off.
    """

    enough: bool
    words: str
    x_mm: float | None
    start_mm: float | None
    end_mm: float | None
    kind: ReadingKind | None
    gain_bits: float
    outcomes: tuple[Outcome, ...]


def cheap_kinds(vehicle: Vehicle, ribs: Members) -> tuple[ReadingKind, ...]:
    """Tests that leave nothing behind and work on this roof."""
    kinds: list[ReadingKind] = ["seen"] if vehicle.inside == "gutted" else []
    by_member: dict[str, tuple[ReadingKind, ...]] = {
        "steel_hat": ("magnet",),
        "wood_truss": ("stud_finder",),
        "aluminium_box": ("knock",),
    }
    return (*kinds, *by_member.get(ribs.kind or "", ("magnet", "knock")))


@lru_cache(maxsize=128)
def next_check_for(
    key: EvidenceKey, used: frozenset[int], kinds: tuple[ReadingKind, ...], units: UnitSystem = "metric"
) -> NextCheck:
    """Where to check next. ``used``: numbers of the members that feet will be fastened to (all where empty);
    ``kinds``: tests that leave nothing behind."""
    belief, fit = belief_of(key), fit_members(key)
    found = belief is not None and belief.evidence.x.size  # a hole into nothing finds no member
    if belief is None or len(key.readings) < 2 or not found:
        return _first(key, kinds[0], units)
    targets = (
        np.array([m.x_mm for m in fit.members if not used or m.number in used])
        if fit.members
        else belief.fits[0].layout.positions
    )
    if fit.members and fit.status == "settled" and _weakest(fit, used) >= ENOUGH:
        return NextCheck(
            True,
            "Enough is known: every member to be used is sure. Begin with one pilot hole and look.",
            None,
            None,
            None,
            None,
            0.0,
            (),
        )
    best = _best(belief, targets, kinds)
    if best is None:
        return _far(key, belief, kinds[0], units)
    x, kind, gain = best
    half = _covers(belief, kind)
    outcomes = _outcomes(belief, targets, x, kind, units)
    how = f"{RELIABILITY[kind].words}: {say_length(x - half, units)} to {say_length(x + half, units)}"
    words = (
        f"Check by {how}."
        if kind != "pilot_solid"
        else f"One small pilot hole at {say_length(x, units)}: nothing gentler settles it."
    )
    return NextCheck(False, words, x, x - half, x + half, kind, gain, outcomes)


def _weakest(fit: MemberFit, used: frozenset[int]) -> float:
    return min((m.confidence for m in fit.members if not used or m.number in used), default=0.0)


def _first(key: EvidenceKey, kind: ReadingKind, units: UnitSystem) -> NextCheck:
    """Too little to weigh hypotheses: search on from where the searching stopped, until two members are
    found.
    """
    hits = [r.x_mm for r in key.readings if r.kind != "pilot_through"]
    if not hits:
        start, length = _past_scans(key, min(FIRST_FROM_MM, key.span_mm / 4)), FIRST_STRETCH_MM
        words = "No member is found yet. Search this stretch for a first member:"
    else:
        start, length = _past_scans(key, hits[0] + NEAREST_NEIGHBOUR_MM), NEXT_STRETCH_MM
        words = "One member alone tells no spacing. Search for its neighbour:"
    if start > key.span_mm - 50:
        start = _past_scans(key, 0.0) if _past_scans(key, 0.0) < key.span_mm - 50 else 0.0
    end = min(start + length, key.span_mm)
    return NextCheck(
        False,
        f"{words} {say_length(start, units)} to {say_length(end, units)}.",
        (start + end) / 2,
        start,
        end,
        kind,
        0.0,
        (),
    )


def _past_scans(key: EvidenceKey, start: float) -> float:
    """The first position from ``start`` on that no scan has covered."""
    for scan in sorted(key.scans, key=lambda s: s.start_mm):
        if scan.start_mm - 1 <= start < scan.end_mm:
            start = scan.end_mm
    return start


def _far(key: EvidenceKey, belief: Belief, kind: ReadingKind, units: UnitSystem) -> NextCheck:
    """No single spot settles anything: read the member furthest from all readings."""
    positions = belief.fits[0].layout.positions
    away = np.abs(positions[:, None] - belief.evidence.x[None, :]).min(axis=1)
    x = float(positions[int(away.argmax())])
    words = f"Read the member at {say_length(x, units)}: it is furthest from all readings."
    return NextCheck(
        False, words, x, max(x - SEARCHED_MM, 0.0), min(x + SEARCHED_MM, key.span_mm), kind, 0.0, ()
    )


def _covers(belief: Belief, kind: ReadingKind) -> float:
    return belief.evidence.half_face if kind == "pilot_solid" else SEARCHED_MM


@dataclass(frozen=True, slots=True, eq=False)
class _Played:
    """Hypotheses heavy enough to matter: weights (h,), the story each belongs to, its members' positions and
    deviations.
    """

    weights: FloatArray
    mean: tuple[FloatArray, ...]
    sigma: tuple[FloatArray, ...]
    indices: tuple[int, ...]
    story: npt.NDArray[np.int64]


def _play(belief: Belief) -> _Played:
    heavy = tuple(int(i) for i in np.flatnonzero(belief.weights > WEIGHT_FROM))
    told = [place(belief.evidence, belief.fits[i]) for i in heavy]
    weights = belief.weights[list(heavy)]
    home = {i: number for number, group in enumerate(stories(belief)) for i in group}
    story = np.array([home[i] for i in heavy], dtype=np.int64)
    return _Played(
        weights / max(weights.sum(), 1e-9),
        tuple(p.x_mm for p in told),
        tuple(p.sigma_mm for p in told),
        heavy,
        story,
    )


def _best(
    belief: Belief, targets: FloatArray, kinds: tuple[ReadingKind, ...]
) -> tuple[float, ReadingKind, float] | None:
    played = _play(belief)
    if not len(played.weights):
        return None
    spots = _spots(belief, played)
    sure = _sure(played, targets)
    now = _doubt(played, played.weights, sure)
    options = []
    for kind in (*kinds, "pilot_solid"):
        gains = [now - _left(played, targets, sure, x, kind, belief) for x in spots]
        best = int(np.argmax(gains))
        options.append(
            (gains[best] - HARM_BITS * RELIABILITY[kind].harm, float(spots[best]), kind, float(gains[best]))
        )
    worth, x, kind, gain = max(options, key=lambda o: o[0])
    return (x, kind, gain) if gain >= LEAST_GAIN_BITS and worth > 0 else None


def _spots(belief: Belief, played: _Played) -> FloatArray:
    """Positions worth a look: where some hypothesis has a member, and the middles between the leading
    ones.
    """
    lead = played.mean[0]
    every = np.concatenate([*played.mean, (lead[1:] + lead[:-1]) / 2])
    every = np.unique((every[(every > 0) & (every < belief.evidence.span)] / 20).round()) * 20
    if len(every) > MOST_SPOTS:
        every = every[np.linspace(0, len(every) - 1, MOST_SPOTS).astype(int)]
    return every if len(every) else np.array([belief.evidence.span / 2])


def _sure(played: _Played, targets: FloatArray) -> FloatArray:
    """Chance of a member within ``CLOSE_MM`` of each target under each hypothesis, shape (h, targets)."""
    rows = []
    for mean, sigma in zip(played.mean, played.sigma, strict=True):
        nearest = np.abs(targets[:, None] - mean[None, :]).argmin(axis=1)
        m, s = mean[nearest], sigma[nearest]
        rows.append(normal_between((targets - CLOSE_MM - m) / s, (targets + CLOSE_MM - m) / s))
    return np.array(rows)


def _hit_chance(played: _Played, x: float, kind: ReadingKind, belief: Belief) -> FloatArray:
    """Chance of a hit at a spot under each hypothesis, shape (h,): a member in reach and noticed, or a false
    one.
    """
    miss, half = belief.evidence.trust[kind].miss_share, _covers(belief, kind)
    inside = []
    for mean, sigma in zip(played.mean, played.sigma, strict=True):
        j = int(np.abs(mean - x).argmin())
        inside.append(normal_between((x - half - mean[j]) / sigma[j], (x + half - mean[j]) / sigma[j]))
    there = np.array(inside) * (1 - miss)
    result: FloatArray = there + (1 - there) * FALSE_HIT
    return result


def _left(
    played: _Played, targets: FloatArray, sure: FloatArray, x: float, kind: ReadingKind, belief: Belief
) -> float:
    """Uncertainty left about the targets after a check, averaged over its outcomes, in bits."""
    hit = _hit_chance(played, x, kind, belief)
    chance = float(played.weights @ hit)
    told = _sharpened(played, targets, sure, x, belief.evidence.trust[kind].sigma_mm)
    after_hit = _doubt(played, played.weights * hit / max(chance, 1e-9), told)
    after_nothing = _doubt(played, played.weights * (1 - hit) / max(1 - chance, 1e-9), sure)
    return chance * after_hit + (1 - chance) * after_nothing


def _sharpened(played: _Played, targets: FloatArray, sure: FloatArray, x: float, noise: float) -> FloatArray:
    """A hit also measures the member it belongs to: its target gets surer under each hypothesis."""
    own = np.abs(targets - x) < SEARCHED_MM
    if not own.any():
        return sure
    told = sure.copy()
    for h, (mean, sigma) in enumerate(zip(played.mean, played.sigma, strict=True)):
        nearest = np.abs(targets[own][:, None] - mean[None, :]).argmin(axis=1)
        s = 1 / np.sqrt(1 / sigma[nearest] ** 2 + 1 / noise**2)
        near = np.abs(mean[nearest] - targets[own]) < SEARCHED_MM
        sure = normal_between(-CLOSE_MM / s, CLOSE_MM / s)
        told[h, own] = np.where(near, np.maximum(told[h, own], sure), told[h, own])
    return told


def _doubt(played: _Played, weights: FloatArray, sure: FloatArray) -> float:
    """Bits of doubt: which spacing it is, and whether each target is where it is drawn (all of them at most
    like four).
    """
    chance = np.clip(weights @ sure, 1e-9, 1 - 1e-9)
    members = -(chance * np.log2(chance) + (1 - chance) * np.log2(1 - chance))
    shares = np.clip(np.bincount(played.story, weights), 1e-12, 1.0)
    return float(members.mean() * min(len(members), MEMBERS_COUNT_AS) - (shares * np.log2(shares)).sum())


def _outcomes(
    belief: Belief, targets: FloatArray, x: float, kind: ReadingKind, units: UnitSystem
) -> tuple[Outcome, ...]:
    played = _play(belief)
    hit = _hit_chance(played, x, kind, belief)
    sure, told = (
        _sure(played, targets),
        _sharpened(played, targets, _sure(played, targets), x, belief.evidence.trust[kind].sigma_mm),
    )
    chance = float(played.weights @ hit)
    cases: tuple[tuple[Literal["hit", "nothing"], float, FloatArray, FloatArray], ...] = (
        ("hit", chance, hit, told),
        ("nothing", 1 - chance, 1 - hit, sure),
    )
    outcomes = []
    for answer, share, likely, then in cases:
        after = played.weights * likely / max(share, 1e-9)
        outcomes.append(
            Outcome(answer, share, _means(belief, played, after, units), float((after @ then).min()))
        )
    return tuple(outcomes)


def _means(belief: Belief, played: _Played, after: FloatArray, units: UnitSystem) -> str:
    """The leading story after an answer, in words."""
    shares = {i: float(w) for i, w in zip(played.indices, after, strict=True)}
    best = max(stories(belief), key=lambda g: sum(shares.get(i, 0.0) for i in g))
    layout = belief.fits[best[0]].layout
    total = sum(shares.get(i, 0.0) for i in best)
    kind = "" if layout.story == "one spacing" else f", {layout.story}"
    return f"every {say_length(layout.pitch_mm(1), units)}{kind}: {say_share(total)}"
