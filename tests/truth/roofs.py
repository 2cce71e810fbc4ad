"""Roofs with known truth, seeded: members, a survey of them with misses and false readings, and the limit of
an oracle.

The oracle is told which reading belongs to which member, and what kind of roof it is; what it does not find
is not in the readings. Invented data: shares and noise as in the finder's documented defaults.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.stations.structure.evidence import KnownFacts, ReadingFact, ScanFact
from fahrtwind.core.stations.structure.members import EvidenceKey
from fahrtwind.core.tables.readings import RELIABILITY, ReadingKind

FloatArray = npt.NDArray[np.float64]
Kind = Literal["one spacing", "odd front bay", "odd rear bay", "two sections", "every second missed"]
SHARES: dict[Kind, float] = {
    "one spacing": 0.75,
    "odd front bay": 0.08,
    "odd rear bay": 0.08,
    "two sections": 0.06,
    "every second missed": 0.03,
}
METHODS: tuple[ReadingKind, ...] = ("seen", "rivet_row", "magnet", "stud_finder", "knock")


@dataclass(frozen=True)
class Roof:
    """``belongs`` is the member of each reading, −1 for a false one; ``pitches`` one or two."""

    kind: Kind
    key: EvidenceKey
    members: FloatArray
    pitches: tuple[float, ...]
    belongs: tuple[int, ...]
    counts: FloatArray


def synthetic_roof(seed: int, kind: Kind | None = None, *, with_scans: bool = True) -> Roof:
    """A roof of 8 to 18 members, 20 to 50 % of them missed, up to 20 % of the readings false."""
    rng = np.random.default_rng(seed)
    kind = kind or rng.choice(list(SHARES), p=list(SHARES.values()))
    bays, counts, pitches = _bays(rng, kind)
    first = rng.uniform(40, 0.6 * bays[0])
    ideal = first + np.concatenate([[0.0], np.cumsum(bays)])
    span = float(ideal[-1] + rng.uniform(40, 0.6 * bays[-1]))
    members = ideal + rng.normal(0, rng.uniform(3, 10) / 1.5, len(ideal))
    readings, belongs, scans = _survey(rng, kind, members, span, with_scans)
    order = rng.permutation(len(readings))
    facts = tuple(ReadingFact(f"r{i}", *readings[j]) for i, j in enumerate(order))
    key = EvidenceKey(facts, scans, KnownFacts(), span, 45.0)
    return Roof(kind, key, members, pitches, tuple(belongs[j] for j in order), counts)


def _bays(rng: np.random.Generator, kind: Kind) -> tuple[FloatArray, FloatArray, tuple[float, ...]]:
    """Bay lengths, the oracle's design (members × parameters) and the pitches."""
    n = int(rng.integers(11 if kind == "two sections" else 8, 19))
    pitch = float(np.clip(610 * np.exp(rng.normal(0, 0.3)), 330, 1250))
    bays = np.full(n - 1, pitch)
    counts = np.stack([np.ones(n), np.arange(n)], axis=1)
    if kind in ("odd front bay", "odd rear bay"):
        odd = pitch * (rng.uniform(0.4, 0.85) if rng.random() < 0.6 else rng.uniform(1.15, 1.6))
        at = 0 if kind == "odd front bay" else n - 2
        bays[at] = odd
        extra = (np.arange(n) > at).astype(float)
        counts = np.stack([np.ones(n), np.arange(n) - extra, extra], axis=1)
    if kind == "two sections":
        joint = int(rng.integers(4, n - 5))
        second = pitch * (rng.uniform(0.6, 0.9) if rng.random() < 0.5 else rng.uniform(1.12, 1.6))
        bays[joint:] = second
        counts = np.stack(
            [np.ones(n), np.minimum(np.arange(n), joint), np.maximum(np.arange(n) - joint, 0)], axis=1
        )
        return bays, counts, (pitch, second)
    return bays, counts, (pitch,)


def _survey(
    rng: np.random.Generator, kind: Kind, members: FloatArray, span: float, with_scans: bool
) -> tuple[list[tuple[float, ReadingKind]], list[int], tuple[ScanFact, ...]]:
    """Walk the roof once or twice with a method each time; half of the walks are declared as scans."""
    readings: list[tuple[float, ReadingKind]] = []
    belongs: list[int] = []
    scans: list[ScanFact] = []
    missed = rng.uniform(0.2, 0.5)
    noticeable = rng.random(len(members)) > missed
    if kind == "every second missed":
        noticeable &= np.arange(len(members)) % 2 == int(rng.integers(2))
    while noticeable.sum() < 4 and kind != "every second missed":
        noticeable[rng.integers(len(members))] = True
    methods = (
        METHODS[1:] if kind == "every second missed" else METHODS
    )  # who sees from inside misses none between
    for j in np.flatnonzero(noticeable):
        for _ in range(1 + rng.binomial(2, 0.35)):
            method = methods[rng.integers(len(methods))]
            readings.append((float(members[j] + rng.normal(0, RELIABILITY[method].sigma_mm)), method))
            belongs.append(int(j))
    for _ in range(rng.binomial(len(readings) + 1, rng.uniform(0, 0.2))):
        method = METHODS[1 + rng.integers(len(METHODS) - 1)]
        readings.append((float(rng.uniform(0, span)), method))
        belongs.append(-1)
    if with_scans and rng.random() < 0.5 and kind != "every second missed":
        readings, belongs, scans = _rescan(rng, members, span, readings, belongs)
    return readings, belongs, tuple(scans)


def _rescan(
    rng: np.random.Generator,
    members: FloatArray,
    span: float,
    readings: list[tuple[float, ReadingKind]],
    belongs: list[int],
) -> tuple[list[tuple[float, ReadingKind]], list[int], list[ScanFact]]:
    """One stretch searched again by one method from end to end: members found or missed at the method's own
    rate.
    """
    method = METHODS[1 + rng.integers(len(METHODS) - 1)]
    start = float(rng.uniform(0, 0.5 * span))
    end = start + float(rng.uniform(0.2, 0.5) * span)
    keep = [i for i, (x, k) in enumerate(readings) if not (k == method and start <= x <= end)]
    readings, belongs = [readings[i] for i in keep], [belongs[i] for i in keep]
    for j, x in enumerate(members):
        if start <= x <= end and rng.random() > RELIABILITY[method].miss_share:
            readings.append((float(x + rng.normal(0, RELIABILITY[method].sigma_mm)), method))
            belongs.append(j)
    return readings, belongs, [ScanFact("s1", start, end, method)]


@dataclass(frozen=True)
class Outcome:
    """One roof: is each pitch within 1 %, is each member within 15 mm."""

    pitch: bool
    members: FloatArray


def oracle(roof: Roof) -> Outcome:
    """Generalised least squares with the true assignment: the most that the readings contain."""
    x = np.array([r.x_mm for r in roof.key.readings])
    sigma = np.array([RELIABILITY[r.kind].sigma_mm for r in roof.key.readings])
    belongs = np.array(roof.belongs)
    true = belongs >= 0
    n = len(roof.members)
    precision = np.bincount(belongs[true], 1 / sigma[true] ** 2, minlength=n)
    moment = np.bincount(belongs[true], x[true] / sigma[true] ** 2, minlength=n)
    read = precision > 0
    weight = 1 / (1 / precision[read] + 5.0**2)
    rows = roof.counts[read]
    theta = np.linalg.lstsq(
        rows * np.sqrt(weight)[:, None], moment[read] / precision[read] * np.sqrt(weight), rcond=None
    )[0]
    lattice = roof.counts @ theta
    gain = np.where(read, 25.0 / (25.0 + 1 / np.maximum(precision, 1e-12)), 0)
    own = np.where(read, moment / np.maximum(precision, 1e-12), lattice)
    found = lattice + gain * (own - lattice)
    columns = (1,) if len(roof.pitches) == 1 else (1, 2)
    pitch = all(abs(theta[c] / p - 1) < 0.01 for c, p in zip(columns, roof.pitches, strict=True))
    return Outcome(pitch, np.abs(found - roof.members) < 15.0)
