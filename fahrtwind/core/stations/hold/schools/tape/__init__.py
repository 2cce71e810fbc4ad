"""Foam tape or beads of elastic adhesive under the bracket's base: no holes, a sound surface, patience."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.job.panel import Attachment, FoamTape
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_size, say_temperature
from fahrtwind.core.stations.hold.schools.school import Mark, Needed, School, Task
from fahrtwind.core.stations.hold.schools.tape.chain import chain
from fahrtwind.core.stations.hold.schools.usual import inch_bracket
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.feet import TAPE_BEST_DEG_C

USUAL_DWELL_H = 72.0
ADHESIVE_WASTE, CARTRIDGE_ML = 1.3, 290.0
PRESSED = {
    "foam tape": "Press each pad with body weight.",
    "adhesive": "Beads upright with gaps for air; press to the spacers within ten minutes, then leave it.",
}


def usual(units: UnitSystem) -> Attachment:
    if units == "metric":
        return FoamTape()
    bracket = inch_bracket("3/8 in", "1 5/8 in", "4 in")
    inch = {"pad_length": "4 in", "pad_width": "2 in", "thickness": "1/16 in", "bracket": bracket}
    return FoamTape.model_validate(inch)


def marks(first: int, plan: RoofPlan, holder: Holder, place: FootPlace, sealant: str) -> list[Mark]:
    hold = holder.hold
    if not isinstance(hold, FoamTape):
        return []
    sides = (hold.pad_length.mm, hold.pad_width.mm)
    along, across = sides if place.on_side else sides[::-1]
    thick, long, wide = (
        say_size(part.mm, plan.units) for part in (hold.thickness, hold.pad_length, hold.pad_width)
    )
    glued = hold.bond == "adhesive"
    mark = Mark(
        number=first,
        kind="pad",
        panel=place.panel,
        foot=place.foot,
        x_mm=place.x_mm,
        y_mm=place.y_mm,
        into="sound skin",
        pilot_mm=None,
        final_mm=None,
        depth_stop_mm=None,
        fastener=_beads(hold, plan.units) if glued else f"foam tape {thick}, {long} × {wide}",
        sealant="bead round the edge" if hold.sealed_edge else "none chosen",
        pad_length_mm=along,
        pad_width_mm=across,
    )
    return [mark]


def _beads(hold: FoamTape, units: UnitSystem) -> str:
    bead, high, long = (say_size(part.mm, units) for part in (hold.bead, hold.thickness, hold.pad_length))
    return f"{hold.beads} beads of adhesive {bead} wide, {high} high, {long} long"


def needs(hold: FoamTape, feet: int, units: UnitSystem) -> Iterator[Needed]:
    if hold.bond == "adhesive":
        ml = feet * hold.beads * hold.bead.mm * hold.thickness.mm * hold.pad_length.mm / 1000 * ADHESIVE_WASTE
        note = f"{ml:.0f} ml with waste; elastic, for metal and paint"
        yield Needed("elastic adhesive", round(ml / CARTRIDGE_ML, 2), "cartridge 290 ml", note)
        yield Needed(
            "spacers to set the height of the beads", 3 * feet, "pc", say_size(hold.thickness.mm, units)
        )
        yield Needed("surface wipe and primer", 1, "set", "as the adhesive's maker says")
        return
    item = f"foam tape {say_size(hold.thickness.mm, units)} × {say_size(hold.pad_width.mm, units)}"
    yield Needed(item, round(feet * hold.pad_length.mm) / 1000, "m", "pads in one piece, no overlaps")
    yield Needed("surface wipe and tape primer", 1, "set", "as the tape's maker says")


def sticking(plan: RoofPlan, count: int, under: str) -> list[Task]:
    """From the abraded paint to the driven roof; waits are hours of dwell."""
    held = [*(p.hold for p in plan.panels), *(c.hold for c in plan.carriers)]
    bonds = [hold.bond for hold in held if isinstance(hold, FoamTape)] or ["foam tape"]
    dwell = max((hold.dwell_h for hold in held if hold.school == "tape"), default=USUAL_DWELL_H)
    low, high = (say_temperature(bound, plan.units) for bound in TAPE_BEST_DEG_C)
    return [
        Task(
            "prime",
            "Abrade, wipe, prime under the pads",
            f"In that order, as the maker of the {' and of the '.join(sorted(set(bonds)))} says. Gloves and "
            "air: solvents.",
            "Water spreads on the surface instead of beading.",
            marks="pads",
            count=max(1, count),
        ),
        Task(
            "stick",
            "Stick and press the pads",
            f"{count} feet, roof at {low} to {high}. {' '.join(PRESSED[b] for b in sorted(set(bonds)))}",
            "Full flat contact, no light under an edge.",
            dwell,
            marks="pads",
            count=max(1, count),
        ),
    ]


SCHOOL = School("tape", False, usual, chain, marks, needs, sticking)
