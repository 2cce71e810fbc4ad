"""How far to trust each kind of reading. Common practice, no source; a reading may carry its own uncertainty."""

from dataclasses import dataclass
from typing import Literal

ReadingKind = Literal["seen", "rivet_row", "magnet", "stud_finder", "knock", "pilot_solid", "pilot_through"]


@dataclass(frozen=True, slots=True)
class Reliability:
    """One standard deviation in mm, and the share of such readings that are plainly false."""

    sigma_mm: float
    false_share: float
    words: str


RELIABILITY: dict[ReadingKind, Reliability] = {
    "seen": Reliability(4, 0.01, "seen from inside"),
    "rivet_row": Reliability(5, 0.05, "rivet row"),
    "magnet": Reliability(8, 0.10, "magnet"),
    "stud_finder": Reliability(12, 0.15, "stud finder"),
    "knock": Reliability(20, 0.25, "knock"),
    "pilot_solid": Reliability(8, 0.02, "pilot hole solid"),
    "pilot_through": Reliability(3, 0.02, "pilot hole through"),
}
BUILD_SCATTER_MM = 5.0
"""How far members stand off a perfect spacing, one standard deviation."""
