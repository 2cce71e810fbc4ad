"""Bolts through the roof with large washers and lock nuts below."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Attachment, ThroughBolts
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.hold.links import SEAL_LAYER_MM, skin_mm
from fahrtwind.core.stations.hold.schools import drilled
from fahrtwind.core.stations.hold.schools.bolts.chain import chain
from fahrtwind.core.stations.hold.schools.school import Mark, Needed, School
from fahrtwind.core.stations.hold.schools.usual import inch_bracket
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS

PILOT_MM = 3.0
WASHER_MM, NUT_DIAMETERS, THREADS_BEYOND = 2.0, 1.0, 1.0


def usual(units: UnitSystem) -> Attachment:
    if units == "metric":
        return ThroughBolts()
    bracket = inch_bracket("1 in", "1 1/4 in", "2 3/8 in")
    inch = {"bolt": "1/4-20", "length": "1 1/4 in", "washer": "1 in", "bracket": bracket}
    return ThroughBolts.model_validate(inch)


def marks(first: int, plan: RoofPlan, holder: Holder, place: FootPlace, sealant: str) -> list[Mark]:
    if not isinstance(holder.hold, ThroughBolts):
        return []
    bolt = holder.hold.bolt
    drills = (PILOT_MM, BOLTS[bolt].clearance_mm)
    return drilled.holes(first, plan, holder, place, drills=drills, what=f"{bolt} bolt", sealant=sealant)


def needs(hold: ThroughBolts, feet: int, units: UnitSystem) -> Iterator[Needed]:
    name, many = BOLTS[hold.bolt].name, hold.count * feet
    yield Needed(f"stainless bolt {name} × {say_size(hold.length.mm, units)} with lock nut", many)
    yield Needed(f"large washer {say_size(hold.washer.mm, units)} for {name}", many, note="below the skin")


def bolt_length_needed_mm(vehicle: Vehicle, ribs: Members, hold: ThroughBolts, into_member: bool) -> float:
    """Foot, sealant, skin, member wall or wood, washer, nut and one full turn of thread (common practice)."""
    through = 0.0
    if into_member:
        part = ribs.depth if ribs.kind == "wood_truss" else ribs.wall
        through = part.mm if part else 0.0
    bolt = BOLTS[hold.bolt]
    nut = NUT_DIAMETERS * bolt.diameter_mm + THREADS_BEYOND * bolt.pitch_mm
    return hold.bracket.thickness.mm + SEAL_LAYER_MM + skin_mm(vehicle) + through + WASHER_MM + nut


SCHOOL = School("bolts", True, usual, chain, marks, needs, drilled.drilling)
