"""Quality of the member finder beside an oracle on roofs with known truth, and what the advice saves. Seeded,
no timing.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np

from bench.figures import line
from fahrtwind.core.stations.structure.members import fit_members
from tests.truth.advice import checks_until_settled
from tests.truth.roofs import Roof, oracle, synthetic_roof
from tests.truth.wide_roofs import wide_roof

ROOFS, WIDE, ADVISED = 400, 200, 20


@dataclass
class Tally:
    """What was told about many roofs, beside the truth and beside an oracle that knows which reading belongs
    to which member.
    """

    pitch: list[tuple[bool, bool]] = field(default_factory=list)
    members: list[tuple[int, int, int]] = field(default_factory=list)
    bands: list[bool] = field(default_factory=list)
    intervals: list[tuple[str, bool]] = field(default_factory=list)
    stated: list[tuple[float, bool]] = field(default_factory=list)
    settled: list[bool] = field(default_factory=list)

    def add(self, roof: Roof) -> None:
        fit, limit = fit_members(roof.key), oracle(roof)
        told = [s.pitch_mm for s in fit.sections]
        right = len(told) == len(roof.pitches) and all(
            abs(a / b - 1) < 0.01 for a, b in zip(told, roof.pitches, strict=True)
        )
        if fit.status == "settled":
            self.settled.append(right)
        for m in fit.members:  # every band told counts, also those of roofs whose spacing was taken wrongly
            nearest = float(roof.members[np.abs(roof.members - m.x_mm).argmin()])
            self.bands.append(m.band_low_mm <= nearest <= m.band_high_mm)
            self.stated.append((m.confidence, abs(nearest - m.x_mm) < 15))
        for s in fit.sections:
            near = min(abs(s.pitch_mm - p) for p in roof.pitches)
            self.intervals.append((fit.status, near < 1.96 * s.pitch_sigma_mm))
        if roof.kind == "every second missed":
            return
        self.pitch.append((right, limit.pitch))
        x = np.array([m.x_mm for m in fit.members]) if fit.members else np.array([-1e6])
        near = int((np.abs(roof.members[:, None] - x[None, :]).min(axis=1) < 15).sum())
        self.members.append((near, int(limit.members.sum()), len(roof.members)))

    def told(self, roofs: str, behind: float) -> None:
        """``behind``: points the finder may stay behind the oracle."""
        pitch, limit = 100 * np.mean(self.pitch, axis=0)
        near, best, there = np.sum(self.members, axis=0)
        line(f"{roofs}: pitch within 1 %, the oracle", limit, "%")
        line(f"{roofs}: pitch within 1 %", pitch, "%", least=round(limit - behind, 1))
        line(f"{roofs}: members within 15 mm, the oracle", 100 * best / there, "%")
        line(
            f"{roofs}: members within 15 mm",
            100 * near / there,
            "%",
            least=round(100 * best / there - behind, 1),
        )
        line(f"{roofs}: settled", len(self.settled), "roofs")
        line(f"{roofs}: settled and wrong", 100 - 100 * np.mean(self.settled), "%", 2)
        line(f"{roofs}: 95 % bands that hold the member", 100 * np.mean(self.bands), "%", 98, least=92)
        of_settled = [held for status, held in self.intervals if status == "settled"]
        words = "95 % intervals that hold the pitch"
        line(f"{roofs}: {words}, settled", 100 * np.mean(of_settled), "%", 98, least=92)
        line(f"{roofs}: {words}, all told", 100 * np.mean([held for _, held in self.intervals]), "%")
        said = np.array(self.stated, dtype=float)
        for low, high in ((0.5, 0.7), (0.7, 0.85), (0.85, 0.95), (0.95, 0.99), (0.99, 1.01)):
            inside = said[(said[:, 0] >= low) & (said[:, 0] < high)]
            promise = {"most": 95.0, "least": 85.0} if low == 0.85 else {}
            words = f"{roofs}: members said {low:.0%} to {min(high, 1):.0%} sure, true"
            line(words, 100 * inside[:, 1].mean(), "%", **promise)


def quality() -> None:
    _tell("own roofs", synthetic_roof, ROOFS, 2.0)
    _tell("wide roofs", wide_roof, WIDE, 10.0)


def _tell(words: str, draw: Callable[[int], Roof], count: int, behind: float) -> None:
    print(f"\nMember finder on {count} {words} with known truth")
    tally = Tally()
    for seed in range(count):
        tally.add(draw(seed))
    tally.told(words, behind)


def advice() -> None:
    print(f"\nSpot checks of 160 mm until the spacing is settled within 1 %, {ADVISED} roofs")
    for words, advised in (("following the advice", True), ("walking at equal steps", False)):
        found = [checks_until_settled(seed, advised=advised) for seed in range(ADVISED)]
        line(f"spot checks {words}, median", float(np.median([n for n, _ in found])), "checks")
        line(
            f"spot checks {words}, right",
            100 * float(np.mean([r for _, r in found])),
            "%",
            least=90 if advised else None,
        )
