"""Open lids: how far they lean, how high they stand, and what they sweep through."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof_shape import lid_lean, lid_tip_height
from fahrtwind.core.job.document import Obstacle
from fahrtwind.core.records import dataclass


@dataclass(frozen=True, slots=True)
class LidSwing:
    """A lid: hinge side, length from the hinge, opening angle, how far it then leans beyond the hinge and how
    high it stands.
    """

    obstacle: str
    hinge: str
    length_mm: float
    angle_deg: float
    lean_mm: float
    tip_height_mm: float
    hinge_height_mm: float


def lid_length_mm(obstacle: Obstacle) -> float:
    """From hinge to free edge: as measured, else the obstacle's own size square to the hinge."""
    if obstacle.lid_length is not None:
        return obstacle.lid_length.mm
    along = obstacle.length.mm
    return (
        along if obstacle.lid_hinge in ("front", "rear") or obstacle.shape == "circle" else obstacle.width.mm
    )


def lid_swing(obstacle: Obstacle) -> LidSwing | None:
    """The swept lid; None where there is no lid or its angle is not known and no lean was measured."""
    if obstacle.lid_hinge == "none" or (obstacle.lid_angle is None and obstacle.lid_reach.mm <= 0):
        return None
    length, height = lid_length_mm(obstacle), obstacle.height.mm
    if obstacle.lid_angle is None:
        return LidSwing(obstacle.id, obstacle.lid_hinge, length, 0.0, obstacle.lid_reach.mm, height, height)
    with scope("lid", obstacle.id):
        angle = given(obstacle.lid_angle.deg, "measured", "opening angle")
        reach = given(length, "measured", "lid from hinge to edge")
        lean = float(lid_lean(reach, angle))
        tip = float(lid_tip_height(given(height, "measured", "height of the obstacle"), reach, angle))
    return LidSwing(
        obstacle.id, obstacle.lid_hinge, length, float(angle), obstacle.lid_reach.mm or lean, tip, height
    )
