"""Where the leads of panels come out, and how far apart those of a pair are."""

from __future__ import annotations

from itertools import combinations
from math import hypot

from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import panel_rect


@dataclass(frozen=True, slots=True)
class CablePair:
    """Two panels whose leads have to meet: the way between the middles of their cable ends, mm."""

    pair: str
    first: str
    second: str
    apart_mm: float


def cable_end(panel: PlacedPanel) -> tuple[float, float] | None:
    """The middle of the edge at which a panel's leads come out; None where that is not told. In mm from the
    front edge and the centre line.
    """
    rect = panel_rect(panel)
    x, y = rect.centre
    match panel.cable_end:
        case "front":
            return rect.x_mm, y
        case "rear":
            return rect.x_end_mm, y
        case "port":
            return x, rect.y_mm
        case "starboard":
            return x, rect.y_end_mm
        case _:
            return None


def cable_pairs(plan: RoofPlan) -> tuple[CablePair, ...]:
    """Every two panels of one pair, where both tell their cable end."""
    found = []
    for one, other in combinations([p for p in plan.panels if p.pair], 2):
        a, b = cable_end(one), cable_end(other)
        if one.pair == other.pair and a is not None and b is not None:
            found.append(CablePair(str(one.pair), one.id, other.id, hypot(a[0] - b[0], a[1] - b[1])))
    return tuple(found)
