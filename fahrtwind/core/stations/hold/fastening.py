"""Where the fasteners of a foot stand in its base, and how much of a pad the base presses: what exists
counts, nothing else does.
"""

from __future__ import annotations

from math import ceil

from fahrtwind.core.job.panel import FoamTape, Screws, ThroughBolts
from fahrtwind.core.tables.fasteners import BOLTS, SCREWS

ROW_DIAMETERS = 3.0
"""Holes of a foot stand in a row, three diameters apart (AISI S100 J4.1), and far enough for their
washers.
"""
BETWEEN_WASHERS_MM = 1.0


def hole_pitch_mm(hold: Screws | ThroughBolts) -> float:
    """Distance of neighbouring holes of a foot, to the next whole millimetre."""
    if hold.school == "screws":
        return float(ceil(ROW_DIAMETERS * SCREWS[hold.screw].diameter_mm))
    beside_washers = hold.washer.mm + BETWEEN_WASHERS_MM if hold.count > 1 else 0.0
    return float(ceil(max(ROW_DIAMETERS * BOLTS[hold.bolt].clearance_mm, beside_washers)))


def row_mm(hold: Screws | ThroughBolts) -> float:
    """From the middle of the first hole to that of the last."""
    return (hold.count - 1) * hole_pitch_mm(hold)


def base_width_mm(hold: Screws | ThroughBolts | FoamTape) -> float:
    """Width of the bracket's base, from its upright to the edge of the toe."""
    return hold.bracket.lever.mm + hold.bracket.toe.mm


def bonded_pad_mm(hold: FoamTape) -> tuple[float, float]:
    """Length and width of the pad that the base presses onto the roof: what hangs out of the base bonds to
    nothing that carries.
    """
    return min(hold.pad_length.mm, hold.bracket.length.mm), min(hold.pad_width.mm, base_width_mm(hold))
