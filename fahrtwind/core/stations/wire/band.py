"""From the least to the most."""

from __future__ import annotations

from fahrtwind.core.records import dataclass


@dataclass(frozen=True, slots=True)
class Band:
    """In the unit of the field that holds it."""

    low: float
    high: float
