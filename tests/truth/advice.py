"""How many spot checks until the spacing is settled: with advice, and walking the roof at equal steps."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.stations.structure.evidence import KnownFacts, ReadingFact, ScanFact
from fahrtwind.core.stations.structure.members import EvidenceKey, fit_members
from fahrtwind.core.stations.structure.next_check import next_check_for
from fahrtwind.core.tables.readings import RELIABILITY

SPOT_MM = 160.0
MOST_CHECKS = 120
KIND = "magnet"


def checks_until_settled(seed: int, *, advised: bool) -> tuple[int, bool]:
    """Number of spot checks of 160 mm until settled with a pitch within 1 % at 95 %, and whether that pitch
    is right.
    """
    rng = np.random.default_rng(seed)
    pitch, count = float(np.clip(610 * np.exp(rng.normal(0, 0.3)), 330, 1250)), int(rng.integers(8, 19))
    first = rng.uniform(40, 0.6 * pitch)
    members = first + pitch * np.arange(count) + rng.normal(0, 4, count)
    span = float(members[-1] + rng.uniform(40, 0.6 * pitch))
    readings: list[ReadingFact] = []
    scans: list[ScanFact] = []
    done, walked = 0, 0.0
    while done < MOST_CHECKS:
        key = EvidenceKey(tuple(readings), tuple(scans), KnownFacts(), span, 45.0)
        fit = fit_members(key)
        if fit.status == "settled" and 1.96 * (fit.pitch_sigma_mm or 1e9) < 0.01 * (fit.pitch_mm or 1.0):
            return done, abs((fit.pitch_mm or 0.0) / pitch - 1) < 0.01
        if advised:
            advice = next_check_for(key, frozenset(), (KIND,))
            if advice.enough or advice.start_mm is None or advice.end_mm is None:
                return done, abs((fit.pitch_mm or 0.0) / pitch - 1) < 0.01
            start, end = advice.start_mm, advice.end_mm
        else:
            start, end = walked, walked + SPOT_MM
            walked = walked + SPOT_MM if walked < span else SPOT_MM / 2
        for x in members[(members >= start) & (members <= end)]:
            if rng.random() > RELIABILITY[KIND].miss_share:
                readings.append(
                    ReadingFact(
                        f"r{len(readings)}", float(x + rng.normal(0, RELIABILITY[KIND].sigma_mm)), KIND
                    )
                )
        scans.append(ScanFact(f"s{len(scans)}", start, min(end, span), KIND))
        done += max(1, int(np.ceil((end - start) / SPOT_MM)))
    return done, False
