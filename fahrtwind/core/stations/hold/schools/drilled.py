"""What screws and bolts have in common: a row of holes in the bracket's base, and the work of drilling."""

from __future__ import annotations

from math import ceil

from fahrtwind.core.formulas.brackets import even_share, prying, row_share
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.job.panel import Drilled, ThroughBolts
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.hold.links import SEAL_LAYER_MM, chosen, skin_mm
from fahrtwind.core.stations.hold.schools.school import Mark, Task
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.feet import EDGE_DISTANCE_DIAMETERS

ROW_DIAMETERS = 3.0
"""Holes of a foot stand in a row, three diameters apart (AISI S100 J4.1), and far enough for their
washers.
"""
BETWEEN_WASHERS_MM = 1.0
BREAK_THROUGH_MM = 3.0


def hole_pitch_mm(hold: Drilled) -> float:
    """Distance of neighbouring holes of a foot, to the next whole millimetre."""
    if not isinstance(hold, ThroughBolts):
        return float(ceil(ROW_DIAMETERS * hold.fastener_mm))
    beside_washers = hold.washer.mm + BETWEEN_WASHERS_MM if hold.count > 1 else 0.0
    return float(ceil(max(ROW_DIAMETERS * BOLTS[hold.bolt].clearance_mm, beside_washers)))


def row_mm(hold: Drilled) -> float:
    """From the middle of the first hole to that of the last."""
    return (hold.count - 1) * hole_pitch_mm(hold)


def leg_wanted_mm(hold: Drilled) -> float:
    """From the middle of the row to the end of a base that leaves the last hole its distance to the edge."""
    return float(ceil(row_mm(hold) / 2 + EDGE_DISTANCE_DIAMETERS * hold.fastener_mm))


def worst_share(hold: Drilled, on_side: bool) -> float:
    """Of the pull on the foot, what its worst fastener takes."""
    with scope("prying"):
        lever = chosen(hold.bracket.lever.mm, "bracket lever")
        toe = chosen(hold.bracket.toe.mm, "bracket toe")
        count = chosen(float(hold.count), "fasteners in the foot")
        if on_side:
            pitch = given(hole_pitch_mm(hold), "computed", "distance of the holes")
            return float(row_share(lever, toe, count, pitch))
        return float(even_share(prying(lever, toe), count))


def reach_below_roof_mm(hold: Drilled) -> float:
    """How deep the fastener ends below the outer face of the roof."""
    return hold.length.mm - hold.bracket.thickness.mm - SEAL_LAYER_MM


def depth_stop_mm(plan: RoofPlan, hold: Drilled, place: FootPlace) -> float:
    """How far the bit may go in from the outer face of the roof: through the skin, and the member's wall
    where there is one.

    In a truss a screw's hole ends where the screw does, a bolt's goes through.
    """
    skin = skin_mm(plan.vehicle)
    if place.landing != "member":
        return skin + BREAK_THROUGH_MM
    if plan.members.kind == "wood_truss":
        depth = plan.members.depth.mm if plan.members.depth else 0.0
        through = skin + depth
        if isinstance(hold, ThroughBolts):
            return through + BREAK_THROUGH_MM
        return min(reach_below_roof_mm(hold), through)
    return skin + (plan.members.wall.mm if plan.members.wall else 0.0) + BREAK_THROUGH_MM


def holes(
    first: int,
    plan: RoofPlan,
    holder: Holder,
    place: FootPlace,
    *,
    drills: tuple[float, float | None],
    what: str,
    sealant: str,
) -> list[Mark]:
    """The marks of one foot. ``drills``: pilot and final size, mm; ``what``: the fastener in words without
    its length.
    """
    hold = holder.hold
    if not isinstance(hold, Drilled):
        return []
    name, kind = what.split(" ", 1)
    row = [(i - (hold.count - 1) / 2) * hole_pitch_mm(hold) for i in range(hold.count)]
    return [
        Mark(
            number=first + i,
            kind="hole",
            panel=place.panel,
            foot=place.foot,
            x_mm=place.x_mm,
            y_mm=place.y_mm + off,
            into=f"member {place.member}" if place.landing == "member" else "skin only",
            pilot_mm=drills[0],
            final_mm=drills[1],
            depth_stop_mm=depth_stop_mm(plan, hold, place),
            fastener=f"{name} × {say_size(hold.length.mm, plan.units)} {kind}",
            sealant=sealant,
            pad_length_mm=None,
            pad_width_mm=None,
        )
        for i, off in enumerate(row)
    ]


def drills_metal(plan: RoofPlan) -> bool:
    """Whether any hole goes through metal: only then there are chips, burrs and oil."""
    return plan.vehicle.skin in ("steel", "aluminium") or plan.members.kind in ("steel_hat", "aluminium_box")


def drilling(plan: RoofPlan, count: int, under: str) -> list[Task]:
    """From the first pilot hole to the tightened fastener."""
    look = (
        "Look inside first: wires, gas and water lines, ceiling."
        if plan.vehicle.inside != "gutted"
        else "Second person inside watches the bit."
    )
    metal = drills_metal(plan)
    return [
        Task(
            "pilot",
            "Drill one pilot hole and look",
            f"{look} Depth stop on the bit, goggles on.",
            "Solid in the member where the plan says so. If not: stop and enter the reading.",
            marks="holes",
        ),
        Task(
            "drill",
            "Drill the rest",
            f"{count} holes by their numbers: pilot, then final size.",
            "Count the holes against the map.",
            marks="holes",
            count=max(1, count),
        ),
        Task(
            "deburr",
            "Deburr, remove every chip, paint the edges" if metal else "Clean the holes",
            "Chips rust into the paint overnight." if metal else "Vacuum the dust.",
            "Bare metal covered and dry." if metal else "Hole edges firm and dry.",
            4 if metal else 0,
            count=max(1, count),
        ),
        Task(
            "lay",
            f"Lay {under} under the feet and set the fasteners",
            "Some into each hole too. Tighten until it squeezes out all round.",
            "Squeeze-out on all four sides.",
            marks="holes",
            count=max(1, count),
        ),
    ]
