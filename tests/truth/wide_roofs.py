"""Roofs wider than the finder's own assumptions: double and treble stretches, clustered false hits,
whole-roof searches, pilot holes.

Sections may change to a multiple of the spacing as well as to any other; members scatter up to 10 mm (one
standard deviation); a wire or a seam is hit again and again by one method; a whole roof is searched from end
to end; some members are confirmed by a pilot hole or a knock afterwards. Seeded, invented.
"""

from __future__ import annotations

from typing import get_args

import numpy as np

from fahrtwind.core.stations.structure.evidence import KnownFacts, ReadingFact, ScanFact
from fahrtwind.core.stations.structure.members import EvidenceKey
from fahrtwind.core.tables.readings import RELIABILITY, ReadingKind
from tests.truth.roofs import FloatArray, Kind, Roof

SHARES: dict[Kind, float] = {
    "one spacing": 0.5,
    "odd front bay": 0.1,
    "odd rear bay": 0.1,
    "two sections": 0.3,
}
METHODS: tuple[ReadingKind, ...] = ("rivet_row", "magnet", "stud_finder", "knock")
USUAL = (406.4, 488.0, 610.0, 640.0, 813.0, 1219.0)


def wide_roof(seed: int, kind: Kind | None = None, *, searched: bool | None = None) -> Roof:
    """A roof of 7 to 20 members with a survey. ``searched``: whether the whole roof was searched by one
    method (about half are).
    """
    rng = np.random.default_rng(10_000 + seed)
    kind = kind or rng.choice(get_args(Kind)[:4], p=[SHARES[k] for k in get_args(Kind)[:4]])
    bays, counts, pitches = _bays(rng, kind)
    first = rng.uniform(40, 0.9 * bays[0])
    ideal = first + np.concatenate([[0.0], np.cumsum(bays)])
    span = float(ideal[-1] + rng.uniform(40, 0.9 * bays[-1]))
    members = ideal + rng.normal(0, rng.uniform(2, 10), len(ideal))
    searched = rng.random() < 0.5 if searched is None else searched
    survey = _Survey(rng, members, span)
    if searched:
        survey.search(METHODS[rng.integers(4)], 0.0, span)
        if rng.random() < 0.4:
            survey.walk(float(rng.uniform(0.5, 0.8)))
    else:
        survey.walk(float(rng.uniform(0.2, 0.5)))
    if rng.random() < 0.6:
        survey.confirm(int(rng.integers(1, 4)))
    survey.wires(int(rng.integers(0, 3)))
    return survey.roof(kind, pitches, counts)


def _bays(rng: np.random.Generator, kind: Kind) -> tuple[FloatArray, FloatArray, tuple[float, ...]]:
    n = int(rng.integers(11, 21) if kind == "two sections" else rng.integers(7, 19))
    pitch = float(rng.choice(USUAL)) if rng.random() < 0.6 else float(rng.uniform(330, 1300))
    steps = np.arange(n, dtype=float)
    if kind == "one spacing":
        return np.full(n - 1, pitch), np.stack([np.ones(n), steps], axis=1), (pitch,)
    if kind == "two sections":
        joint = int(rng.integers(4, n - 4))
        ratio = (
            float(rng.choice([2.0, 3.0, 0.5, 1 / 3]))
            if rng.random() < 0.5
            else float(rng.choice([rng.uniform(0.6, 0.88), rng.uniform(1.14, 1.7)]))
        )
        if pitch * ratio > 1350 or pitch * ratio < 260:
            pitch, ratio = 640.0, 2.0 if ratio > 1 else 0.5
        bays = np.where(np.arange(n - 1) < joint, pitch, pitch * ratio)
        counts = np.stack([np.ones(n), np.minimum(steps, joint), np.maximum(steps - joint, 0)], axis=1)
        return bays, counts, (pitch, pitch * ratio)
    odd = pitch * float(rng.choice([rng.uniform(0.4, 0.85), rng.uniform(1.15, 1.6)]))
    at = 0 if kind == "odd front bay" else n - 2
    bays = np.full(n - 1, pitch)
    bays[at] = odd
    extra = (np.arange(n) > at).astype(float)
    return bays, np.stack([np.ones(n), steps - extra, extra], axis=1), (pitch,)


class _Survey:
    """Readings as they come in, with the member each belongs to."""

    def __init__(self, rng: np.random.Generator, members: FloatArray, span: float) -> None:
        self.rng, self.members, self.span = rng, members, span
        self.found: list[tuple[float, ReadingKind, int]] = []
        self.scans: list[ScanFact] = []

    def _hit(self, member: int, method: ReadingKind) -> None:
        x = float(self.members[member] + self.rng.normal(0, RELIABILITY[method].sigma_mm))
        self.found.append((min(max(x, 0.0), self.span), method, member))

    def search(self, method: ReadingKind, start: float, end: float) -> None:
        self.scans.append(ScanFact(f"s{len(self.scans)}", start, end, method))
        for j in range(len(self.members)):
            if self.rng.random() > RELIABILITY[method].miss_share:
                self._hit(j, method)
        for _ in range(self.rng.binomial(len(self.members), RELIABILITY[method].false_share)):
            self.found.append((float(self.rng.uniform(start, end)), method, -1))

    def walk(self, missed: float) -> None:
        for j in range(len(self.members)):
            if self.rng.random() > missed:
                for _ in range(1 + self.rng.binomial(2, 0.35)):
                    self._hit(j, METHODS[self.rng.integers(4)])
        for _ in range(self.rng.binomial(len(self.members), self.rng.uniform(0, 0.15))):
            self.found.append((float(self.rng.uniform(0, self.span)), METHODS[self.rng.integers(4)], -1))

    def confirm(self, times: int) -> None:
        """Pilot holes or knocks where members are: what a person does before drilling for good."""
        for j in self.rng.choice(len(self.members), times, replace=False):
            if self.rng.random() < 0.6:
                x = float(self.members[j] + self.rng.uniform(-12, 12))
                self.found.append((x, "pilot_solid", int(j)))
            else:
                self._hit(int(j), "knock")

    def wires(self, count: int) -> None:
        """A wire or a seam that one method finds two to four times."""
        for _ in range(count):
            method, at = METHODS[self.rng.integers(4)], float(self.rng.uniform(0.05, 0.95) * self.span)
            for _ in range(int(self.rng.integers(2, 5))):
                self.found.append((at + float(self.rng.normal(0, RELIABILITY[method].sigma_mm)), method, -1))

    def roof(self, kind: Kind, pitches: tuple[float, ...], counts: FloatArray) -> Roof:
        order = self.rng.permutation(len(self.found))
        facts = tuple(ReadingFact(f"r{i}", self.found[j][0], self.found[j][1]) for i, j in enumerate(order))
        key = EvidenceKey(facts, tuple(self.scans), KnownFacts(), self.span, 45.0)
        return Roof(kind, key, self.members, pitches, tuple(self.found[j][2] for j in order), counts)
