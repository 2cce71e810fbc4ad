"""What the chains of a panel read of the panel and of the members under it."""

from __future__ import annotations

from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.stations.hold.links import MOUNTING_POINTS, RATED_PA, Above, Bay
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.structure.members import Member


def above_of(panel: PlacedPanel) -> Above:
    """What each foot of a panel carries. A sheet that is silent gives the least a tested panel bears."""
    model = panel.model
    return Above(
        height_mm=panel.stand_off.mm,
        area_m2=panel_rect(panel).area_m2,
        rated_pa=model.uplift.pa if model.uplift else RATED_PA,
        rated_known=model.uplift is not None,
        points=model.mounting_points or MOUNTING_POINTS,
        points_known=model.mounting_points is not None,
    )


def bay_at(members: tuple[Member, ...], x_mm: float) -> Bay | None:
    """The bay around a place along the roof, mm, to the whole millimetre; None outside of all members."""
    before = max((m.x_mm for m in members if m.x_mm <= x_mm), default=None)
    behind = min((m.x_mm for m in members if m.x_mm > x_mm), default=None)
    if before is None or behind is None:
        return None
    return Bay(round(behind - before), round(x_mm - before))
