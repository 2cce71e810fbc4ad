"""Base plates of posts, bolted through the deck to plates below."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.job.panel import BasePlate, Holding
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.hold.links import skin_mm
from fahrtwind.core.stations.hold.schools import drilled
from fahrtwind.core.stations.hold.schools.base_plate.chain import chain, edge_mm
from fahrtwind.core.stations.hold.schools.drilled import BREAK_THROUGH_MM
from fahrtwind.core.stations.hold.schools.school import Mark, Needed, School, Task
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS

PILOT_MM = 3.0


def usual(units: UnitSystem) -> Holding:
    if units == "metric":
        return BasePlate()
    inch = {"plate": "5 in", "thickness": "5/16 in", "bolt": "5/16-18", "length": "2 in", "backing": "5 in"}
    return BasePlate.model_validate(inch | {"backing_thickness": "1/4 in"})


def places(hold: BasePlate) -> list[tuple[float, float]]:
    """Bolts of a plate about its middle, mm aft and to starboard: rows at two sides."""
    out, rows = hold.plate.mm / 2 - edge_mm(hold), hold.count // 2
    along = [-out + 2 * out * i / (rows - 1) for i in range(rows)]
    return [(x, y) for y in (-out, out) for x in along]


def marks(first: int, plan: RoofPlan, holder: Holder, place: FootPlace, sealant: str) -> list[Mark]:
    hold = holder.hold
    if not isinstance(hold, BasePlate):
        return []
    name = BOLTS[hold.bolt].name
    return [
        Mark(
            number=first + i,
            kind="hole",
            panel=place.panel,
            foot=place.foot,
            x_mm=place.x_mm + x,
            y_mm=place.y_mm + y,
            into="deck",
            pilot_mm=PILOT_MM,
            final_mm=BOLTS[hold.bolt].clearance_mm,
            depth_stop_mm=skin_mm(plan.vehicle) + BREAK_THROUGH_MM,
            fastener=f"{name} × {say_size(hold.length.mm, plan.units)} bolt",
            sealant=sealant,
            pad_length_mm=None,
            pad_width_mm=None,
        )
        for i, (x, y) in enumerate(places(hold))
    ]


def needs(hold: BasePlate, feet: int, units: UnitSystem) -> Iterator[Needed]:
    name, size, below = (
        BOLTS[hold.bolt].name,
        say_size(hold.plate.mm, units),
        say_size(hold.backing.mm, units),
    )
    thick, under = say_size(hold.thickness.mm, units), say_size(hold.backing_thickness.mm, units)
    yield Needed(f"{hold.metal} base plate {size} × {size} × {thick}", feet, note="with its post")
    yield Needed(f"backing plate {below} × {below} × {under}", feet, note="below the deck, edges round")
    yield Needed(
        f"stainless bolt {name} × {say_size(hold.length.mm, units)} with lock nut", hold.count * feet
    )
    if hold.core == "insert":
        yield Needed("solid insert or filled plug, as thick as the core", hold.count * feet)


def bolting(plan: RoofPlan, count: int, under: str) -> list[Task]:
    """From standing the frame up loosely to tightening it again once the sealant has cured."""
    return [
        Task(
            "stand",
            "Stand the frame up loosely and mark its feet",
            "All joints loose, a line or halyard holds it. Mark the holes through the base plates.",
            "Diagonals agree; every plate lies flat.",
            count=max(1, count),
        ),
        *drilled.drilling(plan, count, under),
        Task(
            "snug",
            "Backing plates on, all nuts snug, then the joints from the top down",
            "Hold the bolt above, turn the nut below, so that the sealant is not sheared.",
            "Squeeze-out all round each plate.",
            24,
            count=max(1, count),
        ),
        Task(
            "retighten",
            "Tighten again when the sealant has cured",
            "It has lost some of its squeeze.",
            "Every nut by the torque of the bolt's maker, with a paint mark.",
            marks="holes",
            count=max(1, count),
        ),
    ]


SCHOOL = School("base_plate", True, usual, chain, marks, needs, bolting)
