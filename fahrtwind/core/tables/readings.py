"""How far to trust each kind of reading, and what is usual under roofs. Common practice, no source; all can
be overruled.
"""

from typing import Literal

from fahrtwind.core.records import dataclass

ReadingKind = Literal["seen", "rivet_row", "magnet", "stud_finder", "knock", "pilot_solid", "pilot_through"]
ScanKind = Literal["seen", "rivet_row", "magnet", "stud_finder", "knock"]


@dataclass(frozen=True, slots=True)
class Reliability:
    """One standard deviation in mm, share of such readings that are plainly false, share of members such a
    search misses.

    ``harm`` is what one more reading of this kind costs: a knock nothing, a pilot hole a leak to seal for
    good.
    """

    sigma_mm: float
    false_share: float
    miss_share: float
    harm: float
    words: str


RELIABILITY: dict[ReadingKind, Reliability] = {
    "seen": Reliability(4, 0.01, 0.03, 0.02, "seen from inside"),
    "rivet_row": Reliability(5, 0.05, 0.10, 0.02, "rivet row"),
    "magnet": Reliability(8, 0.10, 0.20, 0.03, "magnet"),
    "stud_finder": Reliability(12, 0.15, 0.25, 0.04, "stud finder"),
    "knock": Reliability(20, 0.25, 0.35, 0.03, "knock"),
    "pilot_solid": Reliability(8, 0.02, 0.02, 0.5, "pilot hole solid"),
    "pilot_through": Reliability(3, 0.02, 0.02, 0.5, "pilot hole through"),
}
RELIABILITY_SOURCE = "common practice, no source"

BUILD_SCATTER_MM = 5.0
"""How far members stand off a perfect spacing, one standard deviation, where the readings themselves do not
tell.
"""
USUAL_PITCH_MM, USUAL_SPREAD = 610.0, 0.45
"""Median spacing and the spread of its logarithm: buses 25–26 in, trailers 16, 24, 32 or 48 in."""
PITCH_RANGE_MM = (250.0, 1400.0)
ODD_END_SHARE = 0.08
"""How often the bay at one end differs from the others."""
TWO_SECTIONS_SHARE = 0.06
THINNED_SHARE = 0.08
"""How often only every second or third member of the spacing stands in a stretch at one end."""
EVERY_SECOND_SHARE = 0.04
"""How often a whole search finds only every second member, for example because only those carry screws."""
NO_SPACING_SHARE = 0.01
WRONG_FACT_SHARE = 0.05
"""How often a pitch from a drawing or from memory belongs to another vehicle."""
