"""What to mark on the roof before a panel is set: offsets of its corners from the datum, and diagonals to
compare.
"""

from __future__ import annotations

from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import panel_rect


@dataclass(frozen=True, slots=True)
class DryFit:
    """Marks for one panel, mm: x of its front and rear edge, offsets of its sides from the centre line, and
    its diagonal.

    Offsets are positive to starboard. Both diagonals of the four marks must read ``diagonal_mm``; where they
    differ the marks are out of square.
    """

    panel: str
    front_x_mm: float
    rear_x_mm: float
    port_y_mm: float
    starboard_y_mm: float
    diagonal_mm: float


def dry_fit(plan: RoofPlan) -> tuple[DryFit, ...]:
    """The marks of every panel, front to rear."""
    rects = sorted(
        ((p.id, panel_rect(p)) for p in plan.panels), key=lambda item: (item[1].x_mm, item[1].y_mm)
    )
    return tuple(
        DryFit(panel, r.x_mm, r.x_end_mm, r.y_mm, r.y_end_mm, (r.length_mm**2 + r.width_mm**2) ** 0.5)
        for panel, r in rects
    )
