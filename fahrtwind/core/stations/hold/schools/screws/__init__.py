"""Screws through the bracket's base into what is below."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.job.panel import Attachment, Screws
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.hold.schools import drilled
from fahrtwind.core.stations.hold.schools.school import Mark, Needed, School
from fahrtwind.core.stations.hold.schools.screws.chain import chain
from fahrtwind.core.stations.hold.schools.usual import inch_bracket
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import SCREWS


def usual(units: UnitSystem) -> Attachment:
    if units == "metric":
        return Screws()
    return Screws.model_validate({"length": "1 in", "bracket": inch_bracket("3/4 in", "7/8 in", "2 3/8 in")})


def marks(first: int, plan: RoofPlan, holder: Holder, place: FootPlace, sealant: str) -> list[Mark]:
    if not isinstance(holder.hold, Screws):
        return []
    in_member, truss = place.landing == "member", plan.members.kind == "wood_truss"
    screw = SCREWS[holder.hold.screw]
    in_wood = truss if in_member else plan.vehicle.skin == "membrane"
    pilot = screw.pilot_wood_mm if in_wood else screw.pilot_metal_mm
    what = f"{holder.hold.screw} screw"
    return drilled.holes(first, plan, holder, place, drills=(pilot, None), what=what, sealant=sealant)


def needs(hold: Screws, feet: int, units: UnitSystem) -> Iterator[Needed]:
    yield Needed(f"stainless screw {hold.screw} × {say_size(hold.length.mm, units)}", hold.count * feet)


SCHOOL = School("screws", True, usual, chain, marks, needs, drilled.drilling)
