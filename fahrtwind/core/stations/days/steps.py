"""The order of work. Orderings are common practice: most rework comes from a step done too late."""

from __future__ import annotations

from dataclasses import dataclass

from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import say_run, say_temperature
from fahrtwind.core.stations.build.drill_map import Mark
from fahrtwind.core.stations.build.materials import drills_metal
from fahrtwind.core.stations.seal.sealant import SealPlan
from fahrtwind.core.tables.feet import TAPE_BEST_DEG_C


@dataclass(frozen=True, slots=True)
class WorkStep:
    """One step; ``wait_h`` is how long to wait after it before the next one."""

    number: int
    title: str
    detail: str
    check: str
    wait_h: float


def work_steps(plan: RoofPlan, marks: tuple[Mark, ...], seal: SealPlan) -> tuple[WorkStep, ...]:
    schools = {p.hold.school for p in plan.panels if p.feet}
    holes = [m for m in marks if m.kind == "hole"]
    pads = [m for m in marks if m.kind == "pad"]
    steps: list[tuple[str, str, str, float]] = [
        (
            "Measure the delivered panels",
            "Length, width and frame height of each one; type them in before cutting or drilling.",
            "Plan re-checked with the measured sizes.",
            0,
        ),
        (
            "Make the roof safe to reach",
            "Ladder on firm ground, second person below; the roof may not bear you. Panels covered: "
            "they are live in light.",
            "Wind low enough to carry a panel.",
            0,
        ),
        *_old_work(plan),
        (
            "Clean and dry the roof round every foot",
            "Wash, rinse, dry. Damp under a foot stays for years.",
            "Cloth stays clean and dry.",
            0,
        ),
        (
            "Mark the feet from the datum",
            f"{len(marks)} marks with their numbers; measure each from the datum, not from its neighbour.",
            "Diagonals of each panel's feet agree.",
            0,
        ),
        (
            "Dry-fit",
            "Set panels or full-size templates on the marks. Try every lid and hatch.",
            "Lids open fully; cable ends reach.",
            0,
        ),
    ]
    if holes:
        steps += _drilling(plan, len(holes), seal)
    if pads:
        steps += _sticking(plan, len(pads))
    if schools:
        steps += [
            (
                "Seal round every foot",
                f"{seal.round}, {say_run(seal.bead_length_mm, plan.units)} of bead. Do it before a "
                f"panel covers the feet.",
                "Unbroken bead, no gap at the corners.",
                24,
            ),
            (
                "Join cables that a panel will cover",
                "Covered panels only; never let live ends touch.",
                "Tug-test every crimp.",
                0,
            ),
            (
                "Lift the panels on and set the frame bolts loose",
                "Two people lift, a third guides. A panel in wind is a sail.",
                "All bolts started by hand.",
                0,
            ),
            (
                "Square up, then tighten in order",
                "Front, rear, middle; torque as the bolt's maker says.",
                "No foot rocks; paint mark on each nut.",
                0,
            ),
            (
                "Write down what was done",
                "Positions, torque, temperature, batch of tape and sealant.",
                "Re-check the bolts after the first 100 km.",
                0,
            ),
        ]
    return tuple(WorkStep(i, *step) for i, step in enumerate(steps, start=1))


def _old_work(plan: RoofPlan) -> list[tuple[str, str, str, float]]:
    scars = sum(s.count for s in plan.survey.scars)
    if not scars:
        return []
    return [
        (
            "Take old work off and close every scar",
            f"{scars} on the seal list, front to rear. Before any panel covers them.",
            "Each one ticked; water runs off it.",
            24,
        )
    ]


def _drilling(plan: RoofPlan, holes: int, seal: SealPlan) -> list[tuple[str, str, str, float]]:
    look = (
        "Look inside first: wires, gas and water lines, ceiling."
        if plan.vehicle.inside != "gutted"
        else "Second person inside watches the bit."
    )
    metal = drills_metal(plan)
    return [
        (
            "Drill one pilot hole and look",
            f"{look} Depth stop on the bit, goggles on.",
            "Solid in the member where the plan says so. If not: stop and enter the reading.",
            0,
        ),
        (
            "Drill the rest",
            f"{holes} holes by their numbers: pilot, then final size.",
            "Count the holes against the map.",
            0,
        ),
        (
            "Deburr, remove every chip, paint the edges" if metal else "Clean the holes",
            "Chips rust into the paint overnight." if metal else "Vacuum the dust.",
            "Bare metal covered and dry." if metal else "Hole edges firm and dry.",
            4 if metal else 0,
        ),
        (
            f"Lay {seal.under} under the feet and set the fasteners",
            "Some into each hole too. Tighten until it squeezes out all round.",
            "Squeeze-out on all four sides.",
            0,
        ),
    ]


def _sticking(plan: RoofPlan, pads: int) -> list[tuple[str, str, str, float]]:
    dwell = max((p.hold.dwell_h for p in plan.panels if p.hold.school == "tape"), default=72.0)
    low, high = TAPE_BEST_DEG_C
    return [
        (
            "Abrade, wipe, prime under the pads",
            "In that order, as the tape's maker says. Gloves and air: solvents.",
            "Water spreads on the surface instead of beading.",
            0,
        ),
        (
            "Stick and press the pads",
            f"{pads} feet, roof at {say_temperature(low, plan.units)} to "
            f"{say_temperature(high, plan.units)}. Press each with body weight.",
            "Full flat contact, no light under an edge.",
            dwell,
        ),
    ]
