"""What is known about the members before any fit: readings, scans and facts as arrays."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass
from fahrtwind.core.tables.readings import BUILD_SCATTER_MM, RELIABILITY, ReadingKind

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
DEFAULT_FACE_MM = 40.0
HULL_MARGIN_MM = 25.0
BUNCH_MM = 60.0
AGAIN_RANGE = (0.3, 0.95)
ONE_THING = 2.5
"""Readings of one kind closer than this many times their common noise are one thing read again: a wire is not
four members.
"""
FALSE_AGAIN = 0.08
"""Chance that what one method takes for a member deceives another one at the same place."""
A_WALK = 4
"""Fewer readings than that beside a declared search are spot checks, not a walk that could have missed
something between them.
"""
BESIDE_SCAN = 3.0
"""A reading up to so many deviations outside a search of its kind belongs to it: nobody ends a search to the
millimetre.
"""
LEAST_FACT_MM = 0.5


@dataclass(frozen=True, slots=True)
class ReadingFact:
    """A reading as the finder sees it: position and, where given, its own standard deviation, mm."""

    id: str
    x_mm: float
    kind: ReadingKind
    sigma_mm: float | None = None


@dataclass(frozen=True, slots=True)
class ScanFact:
    """A stretch that was searched from end to end by one method, mm."""

    id: str
    start_mm: float
    end_mm: float
    kind: ReadingKind


@dataclass(frozen=True, slots=True)
class KnownFacts:
    """What a drawing or another source says, mm; None where nothing is known."""

    pitch_mm: float | None = None
    pitch_within_mm: float = 10.0
    front_bay_mm: float | None = None
    rear_bay_mm: float | None = None


@dataclass(frozen=True, slots=True)
class KindTrust:
    """Noise in mm, share of false readings and of missed members for one kind, where the defaults were
    overruled.
    """

    kind: ReadingKind
    sigma_mm: float
    false_share: float
    miss_share: float


@dataclass(frozen=True, slots=True)
class Evidence:
    """Things read as arrays of shape (n,), sorted by position; through-holes (t,); scans as tuples; the
    walked stretches.

    A thing is one reading, or several of one kind and channel within their noise, pooled: ``ids`` has the
    readings of each. ``spread`` is how far a true one stands off a perfect spacing, its noise with the build
    scatter, one standard deviation in mm. ``rate`` is the density of false things per mm, raised where
    another method has already pointed. ``first`` marks the first thing of each bunch. ``again`` is the chance
    that a noticed member gets another reading, by how much the readings bunch. ``channel`` says how each was
    come by: 0 on a walk, 1 … s in that scan, s + 1 at a spot that was tested alone. ``walks`` are the
    stretches over which members had the chance of being noticed without a declared scan.
    """

    ids: tuple[tuple[str, ...], ...]
    kinds: tuple[ReadingKind, ...]
    x: FloatArray
    sigma: FloatArray
    spread: FloatArray
    rate: FloatArray
    first: npt.NDArray[np.bool_]
    channel: IntArray
    again: float
    through: FloatArray
    through_ids: tuple[str, ...]
    scans: tuple[ScanFact, ...]
    walks: tuple[tuple[float, float], ...]
    span: float
    half_face: float
    facts: KnownFacts
    trust: dict[ReadingKind, KindTrust]

    @property
    def channels(self) -> int:
        return len(self.scans) + 2


@dataclass(frozen=True, slots=True)
class _Thing:
    ids: tuple[str, ...]
    kind: ReadingKind
    channel: int
    x: float
    sigma: float


def gather(
    readings: tuple[ReadingFact, ...],
    scans: tuple[ScanFact, ...],
    facts: KnownFacts,
    span_mm: float,
    face_mm: float | None,
    overruled: tuple[KindTrust, ...] = (),
) -> Evidence:
    """Sort the evidence into arrays. ``span_mm`` is the roof's length, ``face_mm`` the width of a member's
    face.
    """
    through = [r for r in readings if r.kind == "pilot_through"]
    trust = {
        kind: KindTrust(kind, r.sigma_mm, r.false_share, r.miss_share) for kind, r in RELIABILITY.items()
    }
    trust |= {t.kind: t for t in overruled}
    things = _things([r for r in readings if r.kind != "pilot_through"], scans, trust)
    sigma = np.array([t.sigma for t in things], dtype=float)
    first, rate = _false_rates(things, trust, span_mm)
    return Evidence(
        ids=tuple(t.ids for t in things),
        kinds=tuple(t.kind for t in things),
        x=np.array([t.x for t in things], dtype=float),
        sigma=sigma,
        spread=np.hypot(sigma, BUILD_SCATTER_MM),
        rate=rate,
        first=first,
        channel=np.array([t.channel for t in things], dtype=np.int64),
        again=float(np.clip(1 - len(_bunches(things)) / max(len(things), 1), *AGAIN_RANGE)),
        through=np.array([r.x_mm for r in through], dtype=float),
        through_ids=tuple(r.id for r in through),
        scans=scans,
        walks=_walks([t.x for t in things if t.channel == 0], scans),
        span=span_mm,
        half_face=(face_mm or DEFAULT_FACE_MM) / 2,
        facts=facts,
        trust=trust,
    )


def _things(
    hits: list[ReadingFact], scans: tuple[ScanFact, ...], trust: dict[ReadingKind, KindTrust]
) -> list[_Thing]:
    """Pool what one method found again at the same place."""
    groups: dict[tuple[ReadingKind, int], list[tuple[ReadingFact, float]]] = {}
    for r in sorted(hits, key=lambda r: (r.x_mm, r.id)):
        sigma = r.sigma_mm or trust[r.kind].sigma_mm
        groups.setdefault((r.kind, _channel(r, sigma, scans)), []).append((r, sigma))
    things: list[_Thing] = []
    for (kind, channel), members in groups.items():
        bunch: list[tuple[ReadingFact, float]] = []
        for r, sigma in members:
            if bunch and r.x_mm - bunch[0][0].x_mm > ONE_THING * float(np.hypot(sigma, bunch[0][1])):
                things.append(_pooled(kind, channel, bunch))
                bunch = []
            bunch.append((r, sigma))
        things.append(_pooled(kind, channel, bunch))
    return sorted(things, key=lambda t: (t.x, t.ids))


def _channel(reading: ReadingFact, sigma: float, scans: tuple[ScanFact, ...]) -> int:
    if reading.kind == "pilot_solid":
        return len(scans) + 1
    beside = BESIDE_SCAN * sigma
    return next(
        (
            i
            for i, s in enumerate(scans, 1)
            if s.kind == reading.kind and s.start_mm - beside <= reading.x_mm <= s.end_mm + beside
        ),
        0,
    )


def _pooled(kind: ReadingKind, channel: int, bunch: list[tuple[ReadingFact, float]]) -> _Thing:
    weight = np.array([1 / s**2 for _, s in bunch])
    x = float(weight @ np.array([r.x_mm for r, _ in bunch]) / weight.sum())
    return _Thing(tuple(r.id for r, _ in bunch), kind, channel, x, float(weight.sum() ** -0.5))


def _false_rates(
    things: list[_Thing], trust: dict[ReadingKind, KindTrust], span: float
) -> tuple[npt.NDArray[np.bool_], FloatArray]:
    """Which thing is the first of its bunch, the best trusted one, and the density at which each would come
    about falsely.
    """
    count = max(len(things), 4)
    first, rate = (
        np.zeros(len(things), dtype=bool),
        np.array([trust[t.kind].false_share * count / span for t in things], dtype=float),
    )
    for bunch in _bunches(things):
        middle = float(np.mean([things[i].x for i in bunch]))
        lead = min(bunch, key=lambda i: (rate[i], abs(things[i].x - middle)))
        first[lead] = True
        for i in bunch:
            if i != lead:
                spread = float(np.hypot(things[i].sigma, things[lead].sigma))
                off = (things[i].x - things[lead].x) / spread
                rate[i] += (
                    FALSE_AGAIN * float(np.exp(-0.5 * off * off)) / (spread * float(np.sqrt(2 * np.pi)))
                )
    return first, rate


def _bunches(things: list[_Thing]) -> list[list[int]]:
    """Indices of things that follow one another closely."""
    bunches: list[list[int]] = []
    for i, thing in enumerate(things):
        if bunches and thing.x - things[bunches[-1][-1]].x <= BUNCH_MM:
            bunches[-1].append(i)
        else:
            bunches.append([i])
    return bunches


def _walks(loose: list[float], scans: tuple[ScanFact, ...]) -> tuple[tuple[float, float], ...]:
    """One stretch from the first to the last loose reading; a few of them inside a search by another method
    are spots of their own.
    """
    inside = [x for x in loose if any(s.start_mm <= x <= s.end_mm for s in scans)]
    spots = inside if len(inside) < A_WALK else []
    walked = [x for x in loose if x not in spots]
    stretches = [(x - HULL_MARGIN_MM, x + HULL_MARGIN_MM) for x in spots]
    if walked:
        stretches.append((min(walked) - HULL_MARGIN_MM, max(walked) + HULL_MARGIN_MM))
    return tuple(stretches)
