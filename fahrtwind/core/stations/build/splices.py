"""Where a rail that is longer than any bar is spliced: a fifth of a bay from a foot, where it bends least."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.job.carrier import Carrier, Rail
from fahrtwind.core.stations.hold.carriers.rack import rests_at
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.layout.feet import FootPlace

OF_A_BAY = 0.2
"""From a foot, where a continuous rail's moment passes through nothing: common practice, no source."""


def splices_of(
    carrier: Carrier,
    rail: Rail,
    feet: tuple[FootPlace, ...],
    verdict: CarrierVerdict | None,
    longest_mm: float,
    number: int,
) -> tuple[float, ...]:
    """Places of splices along the roof, mm, so that no piece is longer than a bar; none where none is needed
    or none is sound: never in an end bay, in another bay than in the rail beside it (``number`` counts them).
    """
    start, end = carrier.start.mm, carrier.end.mm
    places = _places(rests_at(carrier, rail, feet))
    found: list[float] = []
    while end - start > longest_mm:
        sound = [p for p in places if start < p[1] <= start + longest_mm]
        last = [p for p in sound if end - p[1] <= longest_mm]
        ways = last or sound[-2:]
        if not ways:
            return ()
        other = [p for p in ways if p[0] % 2 == number % 2] or ways
        at = min(other, key=lambda p: bending_at(verdict, rail, p[1]) or 0.0)[1]
        found.append(at)
        start = at
    return tuple(found)


def _places(feet: list[float]) -> list[tuple[int, float]]:
    """Sound places with the bay they lie in: inner bays only."""
    told = []
    for bay in range(1, len(feet) - 2):
        length = feet[bay + 1] - feet[bay]
        told += [(bay, feet[bay] + OF_A_BAY * length), (bay, feet[bay + 1] - OF_A_BAY * length)]
    return told


def bending_at(verdict: CarrierVerdict | None, rail: Rail, at_mm: float) -> float | None:
    """Bending of the rail there in its worst case, N·mm; None where it is not known."""
    told = next((r for r in verdict.rails if r.rail == rail.id), None) if verdict else None
    if told is None or not told.places_mm:
        return None
    return abs(float(np.interp(at_mm, told.places_mm, told.moments_n_mm)))
