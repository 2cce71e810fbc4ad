"""Set from outside alone: rivet nuts, expanding bolts, blind rivets, well nuts."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.job.panel import Attachment, OneSided
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.hold.schools import drilled
from fahrtwind.core.stations.hold.schools.one_sided.chain import chain
from fahrtwind.core.stations.hold.schools.school import Mark, Needed, School
from fahrtwind.core.stations.hold.schools.usual import inch_bracket
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS

PILOT_MM = 3.0
NAMES = {
    "rivet_nut": "rivet nut",
    "blind_rivet": "blind rivet",
    "well_nut": "well nut",
    "expanding": "expanding bolt",
}


def usual(units: UnitSystem) -> Attachment:
    if units == "metric":
        return OneSided()
    inch = {"bolt": "1/4-20", "length": "3/4 in", "bracket": inch_bracket("3/4 in", "7/8 in", "2 3/8 in")}
    return OneSided.model_validate(inch)


def marks(first: int, plan: RoofPlan, holder: Holder, place: FootPlace, sealant: str) -> list[Mark]:
    hold = holder.hold
    if not isinstance(hold, OneSided):
        return []
    what = NAMES[hold.insert] if hold.insert == "blind_rivet" else f"{hold.bolt} {NAMES[hold.insert]}"
    drills = (PILOT_MM, hold.fastener_mm)
    return drilled.holes(first, plan, holder, place, drills=drills, what=what, sealant=sealant)


def needs(hold: OneSided, feet: int, units: UnitSystem) -> Iterator[Needed]:
    many = hold.count * feet
    if hold.insert == "blind_rivet":
        yield Needed(
            f"blind rivet {say_size(hold.rivet.mm, units)} × {say_size(hold.length.mm, units)}", many
        )
    elif hold.insert == "expanding":
        name = BOLTS[hold.bolt].name
        yield Needed(
            f"expanding bolt {name} with sleeve", many, note="grip range of its sheet holds all it clamps"
        )
    else:
        name = BOLTS[hold.bolt].name
        yield Needed(
            f"{NAMES[hold.insert]} {name}", many, note="grip range of its sheet holds skin and paint"
        )
        yield Needed(f"stainless bolt {name} × {say_size(hold.length.mm, units)}", many)


SCHOOL = School("one_sided", True, usual, chain, marks, needs, drilled.drilling)
