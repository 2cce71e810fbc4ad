"""What a choice costs in material, as far as it is priced."""

from __future__ import annotations

from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.records import dataclass


@dataclass(frozen=True, slots=True)
class Spending:
    """``material``: of all lines that have a price; ``unpriced``: so many have none."""

    material: float
    unpriced: int
    currency: str


def spending_of(seen: Visit) -> Spending | None:
    """None where nothing is bought, or where not one line has a price."""
    cost, lines = seen.get("cost"), seen["purchase"]
    if cost is None or not lines or cost.unpriced == len(lines):
        return None
    return Spending(cost.material, cost.unpriced, cost.currency)


def dearer_by(before: Visit, after: Visit) -> float | None:
    """How much more material costs than before; None where lines without a price came or went, for then
    nobody knows.
    """
    one, other = spending_of(before), spending_of(after)
    if one is None or other is None or one.unpriced != other.unpriced:
        return None
    return other.material - one.material
