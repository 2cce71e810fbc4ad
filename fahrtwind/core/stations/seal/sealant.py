"""Which sealant, and how much of it."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof import bead_volume
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.stations.hold.schools import school_of
from fahrtwind.core.stations.layout.holders import Holder

BEAD_MM = 6.0
WASTE = 1.25
CARTRIDGE_ML = 290.0
SOURCE = "Bead 6 mm, a quarter more for waste: common practice, no source"


@dataclass(frozen=True, slots=True)
class SealPlan:
    """What goes under and round the feet, and how much."""

    under: str
    round: str
    bead_length_mm: float
    bead_volume_ml: float
    cartridges: int
    butyl_area_cm2: float
    source: str


def sealants(plan: RoofPlan) -> tuple[str, str]:
    """Layer under the foot and bead round it. A membrane needs sealants made for it."""
    if plan.vehicle.skin == "membrane":
        return "butyl tape made for the membrane", "self-levelling lap sealant made for the membrane"
    return "butyl tape", "gun-grade polyurethane or hybrid sealant"


def cartridges_for(volume_ml: float) -> int:
    """Whole cartridges that hold a volume in ml.

    >>> cartridges_for(290.0), cartridges_for(290.5), cartridges_for(0.0)
    (1, 2, 0)
    """
    return ceil(volume_ml / CARTRIDGE_ML)


def seal_plan(plan: RoofPlan, holders: tuple[Holder, ...]) -> SealPlan:
    """Sealant and butyl for all feet, holes, pads and scars of the plan."""
    under, around = sealants(plan)
    length, butyl = 0.0, 0.0
    for holder in holders:
        own = school_of(holder.hold).sealing(holder.hold)
        length += len(holder.feet) * own.bead_mm
        butyl += len(holder.feet) * own.butyl_cm2
    with scope("seal"):
        volume = bead_volume(
            given(BEAD_MM, "default", SOURCE),
            given(length * WASTE, "computed", "round every foot, with a quarter for waste"),
        )
    return SealPlan(under, around, length, float(volume), cartridges_for(float(volume)), butyl, SOURCE)
