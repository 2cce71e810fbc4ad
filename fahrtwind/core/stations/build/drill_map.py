"""The drill map: every hole and every tape pad with number, place, drill sizes and depth stop."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import FoamTape, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem, say_size
from fahrtwind.core.stations.hold.chain import SEAL_LAYER_MM, skin_mm
from fahrtwind.core.stations.hold.fastening import hole_pitch_mm
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.tables.fasteners import BOLTS, SCREWS

BREAK_THROUGH_MM = 3.0
BOLT_PILOT_MM = 3.0
NUT_DIAMETERS, THREADS_BEYOND = 1.0, 1.0


@dataclass(frozen=True, slots=True)
class Mark:
    """A hole to drill or the centre of a pad to stick, numbered from the front, port side first."""

    number: int
    kind: Literal["hole", "pad"]
    panel: str
    foot: str
    x_mm: float
    y_mm: float
    into: str
    pilot_mm: float | None
    final_mm: float | None
    depth_stop_mm: float | None
    fastener: str
    sealant: str
    pad_length_mm: float | None
    pad_width_mm: float | None


def drill_map(plan: RoofPlan, feet: tuple[FootPlace, ...], sealant: str) -> tuple[Mark, ...]:
    panels = {p.id: p for p in plan.panels}
    marks: list[Mark] = []
    for place in sorted(feet, key=lambda f: (round(f.x_mm), f.y_mm)):
        panel, first = panels[place.panel], len(marks) + 1
        marks += (
            [_pad(first, panel.hold, place, plan.units)]
            if panel.hold.school == "tape"
            else _holes(first, plan, panel, place, sealant)
        )
    return tuple(marks)


def _pad(number: int, hold: FoamTape, place: FootPlace, units: UnitSystem) -> Mark:
    along, across = (
        (hold.pad_length.mm, hold.pad_width.mm) if place.on_side else (hold.pad_width.mm, hold.pad_length.mm)
    )
    return Mark(
        number,
        "pad",
        place.panel,
        place.foot,
        place.x_mm,
        place.y_mm,
        "sound skin",
        None,
        None,
        None,
        f"foam tape {say_size(hold.thickness.mm, units)}, {say_size(hold.pad_length.mm, units)} × "
        f"{say_size(hold.pad_width.mm, units)}",
        "bead round the edge" if hold.sealed_edge else "none chosen",
        along,
        across,
    )


def _holes(first: int, plan: RoofPlan, panel: PlacedPanel, place: FootPlace, sealant: str) -> list[Mark]:
    hold = panel.hold
    assert not isinstance(hold, FoamTape)
    pitch = hole_pitch_mm(hold)
    pilot, final = _drills(plan, hold, place)
    into = f"member {place.member}" if place.landing == "member" else "skin only"
    stop = _depth_stop(plan, hold, place)
    what = (
        f"{hold.screw if hold.school == 'screws' else hold.bolt} × {say_size(hold.length.mm, plan.units)} "
        f"{'screw' if hold.school == 'screws' else 'bolt'}"
    )
    return [
        Mark(
            first + i,
            "hole",
            place.panel,
            place.foot,
            place.x_mm,
            place.y_mm + (i - (hold.count - 1) / 2) * pitch,
            into,
            pilot,
            final,
            stop,
            what,
            sealant,
            None,
            None,
        )
        for i in range(hold.count)
    ]


def _drills(plan: RoofPlan, hold: Screws | ThroughBolts, place: FootPlace) -> tuple[float, float | None]:
    if hold.school == "bolts":
        return BOLT_PILOT_MM, BOLTS[hold.bolt].clearance_mm
    in_wood = (
        plan.members.kind == "wood_truss" if place.landing == "member" else plan.vehicle.skin == "membrane"
    )
    screw = SCREWS[hold.screw]
    return (screw.pilot_wood_mm if in_wood else screw.pilot_metal_mm), None


def _depth_stop(plan: RoofPlan, hold: Screws | ThroughBolts, place: FootPlace) -> float:
    """How far the bit may go in from the outer face of the roof."""
    skin = skin_mm(plan.vehicle)
    if place.landing != "member":
        return skin + BREAK_THROUGH_MM
    if plan.members.kind == "wood_truss":
        depth = plan.members.depth.mm if plan.members.depth else 0.0
        reach = hold.length.mm - hold.bracket.thickness.mm - SEAL_LAYER_MM
        return min(reach, skin + depth) if hold.school == "screws" else skin + depth + BREAK_THROUGH_MM
    return skin + (plan.members.wall.mm if plan.members.wall else 0.0) + BREAK_THROUGH_MM


def reach_below_roof_mm(hold: Screws | ThroughBolts) -> float:
    """How deep the fastener ends below the outer face of the roof."""
    return hold.length.mm - hold.bracket.thickness.mm - SEAL_LAYER_MM


def bolt_length_needed_mm(vehicle: Vehicle, ribs: Members, hold: ThroughBolts, into_member: bool) -> float:
    """Foot, sealant, skin, member wall or wood, washer, nut and one full turn of thread (common practice)."""
    through = 0.0
    if into_member:
        part = ribs.depth if ribs.kind == "wood_truss" else ribs.wall
        through = part.mm if part else 0.0
    bolt = BOLTS[hold.bolt]
    washer, nut = 2.0, NUT_DIAMETERS * bolt.diameter_mm + THREADS_BEYOND * bolt.pitch_mm
    return hold.bracket.thickness.mm + SEAL_LAYER_MM + skin_mm(vehicle) + through + washer + nut
