"""Snags of making and drilling: lengths, edges, ceilings."""

import math
from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import FoamTape, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.quantities import UnitSystem, say_at_least, say_length
from fahrtwind.core.stations.build.drill_map import Mark, bolt_length_needed_mm, reach_below_roof_mm
from fahrtwind.core.stations.hold.chain import skin_mm
from fahrtwind.core.stations.hold.fastening import (
    ROW_DIAMETERS,
    base_width_mm,
    bonded_pad_mm,
    hole_pitch_mm,
    row_mm,
)
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace, fastener_diameter_mm, foot_base
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.survey.access import open_from_inside
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.feet import EDGE_DISTANCE_DIAMETERS

PRACTICE = "common practice, no source"
TOUCHING_MM = 1.0


@rule("through-the-ceiling", "stop", "roof-day", "Fastener goes deeper than skin and member", "geometry")
def through_the_ceiling(
    ribs: Members, vehicle: Vehicle, panels: tuple[PlacedPanel, ...], units: UnitSystem
) -> Iterator[Found]:
    if ribs.depth is None:
        return
    room = skin_mm(vehicle) + ribs.depth.mm
    for panel in panels:
        if panel.hold.school == "screws" and panel.feet and (reach_below_roof_mm(panel.hold) > room):
            reach = reach_below_roof_mm(panel.hold)
            yield Found(
                place=f"panels.{panel.id}.hold.length",
                where=panel.name,
                why=f"Its screws end {say_length(reach, units)} below the roof; skin and member are "
                f"{say_length(room, units)} deep. The ceiling is next.",
                remedy="Take shorter screws and set the depth stop.",
                quantity="reach",
                value=reach,
                limit=room,
                unit="mm",
            )


@rule(
    "screw-too-short",
    "stop",
    "hold",
    "Screw too short to reach the member",
    "AISI S100 J4: full thread through the sheet; 3 mm beyond: common practice",
)
def screw_too_short(
    ribs: Members, vehicle: Vehicle, panels: tuple[PlacedPanel, ...], units: UnitSystem
) -> Iterator[Found]:
    wall = ribs.wall.mm if ribs.wall and ribs.kind != "wood_truss" else 0.0
    need = skin_mm(vehicle) + wall + 3.0
    for panel in panels:
        if panel.hold.school == "screws" and panel.feet and (reach_below_roof_mm(panel.hold) < need):
            reach = reach_below_roof_mm(panel.hold)
            yield Found(
                place=f"panels.{panel.id}.hold.length",
                where=panel.name,
                why=f"Its screws reach {say_length(max(reach, 0.0), units)} below the roof, "
                f"{say_length(need, units)} is needed.",
                remedy="Take longer screws.",
                quantity="reach",
                value=reach,
                limit=need,
                unit="mm",
            )


@rule(
    "bolt-too-short",
    "stop",
    "hold",
    "Bolt too short",
    "one full turn of thread beyond the nut: common practice",
)
def bolt_too_short(
    feet: tuple[FootPlace, ...],
    panels: tuple[PlacedPanel, ...],
    vehicle: Vehicle,
    ribs: Members,
    units: UnitSystem,
) -> Iterator[Found]:
    on_member = {f.panel for f in feet if f.landing == "member"}
    for panel in panels:
        if panel.hold.school == "bolts" and panel.feet:
            need = bolt_length_needed_mm(vehicle, ribs, panel.hold, panel.id in on_member)
            if panel.hold.length.mm < need:
                yield Found(
                    place=f"panels.{panel.id}.hold.length",
                    where=panel.name,
                    why=f"{say_length(panel.hold.length.mm, units)} bolts; foot, roof, washer and "
                    f"nut need {say_length(need, units)}.",
                    remedy="Take longer bolts.",
                    quantity="length",
                    value=panel.hold.length.mm,
                    limit=need,
                    unit="mm",
                )


def _drilled(panels: tuple[PlacedPanel, ...]) -> Iterator[tuple[PlacedPanel, Screws | ThroughBolts]]:
    for panel in panels:
        if panel.feet and (not isinstance(panel.hold, FoamTape)):
            yield (panel, panel.hold)


def _sides(panel: PlacedPanel) -> set[bool]:
    """Whether the panel has feet on its sides (row of holes along the lever), on its ends (row along the
    bracket), or both.
    """
    return {f.side in ("port", "starboard") for f in panel.feet}


@rule(
    "holes-beyond-base",
    "stop",
    "hold",
    "Holes beyond the bracket's base",
    "geometry: a hole outside the base holds nothing",
)
def holes_beyond_base(units: UnitSystem, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, hold in _drilled(panels):
        reach = row_mm(hold) / 2 + (fastener_diameter_mm(hold) or 0.0) / 2
        bracket = hold.bracket
        room = min(bracket.toe.mm, bracket.lever.mm) if True in _sides(panel) else bracket.length.mm / 2
        if False in _sides(panel):
            room = min(room, bracket.length.mm / 2)
        if hold.count > 1 and reach > room:
            washers = hold.school == "bolts" and hole_pitch_mm(hold) > 3.2 * BOLTS[hold.bolt].clearance_mm
            because = (
                f", {say_length(hole_pitch_mm(hold), units)} apart for their washers," if washers else ""
            )
            yield Found(
                place=f"panels.{panel.id}.hold.bracket.toe",
                where=panel.name,
                why=f"{hold.count} holes in a row{because} reach {say_length(reach, units)} from "
                f"its middle; the base ends after {say_length(room, units)}.",
                remedy="Choose a bracket with a longer lever and toe, smaller washers, or fewer fasteners.",
                quantity="reach of the row",
                value=reach,
                limit=room,
                unit="mm",
            )


@rule(
    "bracket-too-small",
    "caution",
    "hold",
    "Bracket base too small for its holes",
    "AISI S100 J4.2: edge distance 1.5 diameters",
)
def bracket_too_small(units: UnitSystem, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, hold in _drilled(panels):
        row = row_mm(hold) / 2 + EDGE_DISTANCE_DIAMETERS * (fastener_diameter_mm(hold) or 0.0)
        if row > hold.bracket.toe.mm and True in _sides(panel):
            yield Found(
                place=f"panels.{panel.id}.hold.bracket.toe",
                where=panel.name,
                why=f"{hold.count} holes in a row need a toe of {say_at_least(row, units)}; the "
                f"bracket has {say_length(hold.bracket.toe.mm, units)}.",
                remedy="Choose a bracket with a longer toe, or fewer fasteners.",
                quantity="toe",
                value=hold.bracket.toe.mm,
                limit=row,
                unit="mm",
            )


@rule(
    "pad-beyond-base",
    "stop",
    "hold",
    "Pad larger than the base that presses it",
    "geometry: only what is pressed bonds",
)
def pad_beyond_base(panels: tuple[PlacedPanel, ...], units: UnitSystem) -> Iterator[Found]:
    for panel in panels:
        hold = panel.hold
        if not isinstance(hold, FoamTape) or not panel.feet:
            continue
        length, width = bonded_pad_mm(hold)
        if hold.pad_length.mm - length > TOUCHING_MM or hold.pad_width.mm - width > TOUCHING_MM:
            yield Found(
                place=f"panels.{panel.id}.hold.pad_width",
                where=panel.name,
                why=f"The pad is {say_length(hold.pad_length.mm, units)} × "
                f"{say_length(hold.pad_width.mm, units)}, the bracket's base "
                f"{say_length(hold.bracket.length.mm, units)} × {say_length(base_width_mm(hold), units)}.",
                remedy="Take a bracket as large as the pad, or a smaller pad.",
                quantity="pad area",
                value=hold.pad_length.mm * hold.pad_width.mm,
                limit=length * width,
                unit="mm²",
            )


@rule(
    "nut-in-closed-rib",
    "stop",
    "hold",
    "Nut inside a closed rib",
    "geometry: no hand and no spanner reaches it",
)
def nut_in_closed_rib(
    ribs: Members, panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...]
) -> Iterator[Found]:
    if ribs.kind not in ("steel_hat", "aluminium_box"):
        return
    named = {p.id: p for p in panels}
    for f in feet:
        if named[f.panel].hold.school == "bolts" and f.landing in ("member", "perhaps"):
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{named[f.panel].name}, foot {f.foot}",
                why=f"Member {f.member} is closed: the nut would be inside it.",
                remedy="Use screws into the member, or move the foot beside it and bolt through the skin.",
            )


@rule("bolts-need-access", "stop", "hold", "No access for nuts", PRACTICE)
def bolts_need_access(
    panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...], vehicle: Vehicle, survey_notes: Survey
) -> Iterator[Found]:
    yield from _nuts(
        panels,
        feet,
        vehicle,
        survey_notes,
        False,
        "The inside is finished here: washer and nut cannot be set from below.",
        "Use screws into members, or open the ceiling at every bolt.",
    )


@rule("nut-access-unknown", "caution", "hold", "Not known whether nuts can be reached", PRACTICE)
def nut_access_unknown(
    panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...], vehicle: Vehicle, survey_notes: Survey
) -> Iterator[Found]:
    yield from _nuts(
        panels,
        feet,
        vehicle,
        survey_notes,
        None,
        "Nobody has looked whether the inside is open here.",
        "Look from inside and say so in Survey: gutted, finished, or which stretches are open.",
    )


def _nuts(
    panels: tuple[PlacedPanel, ...],
    feet: tuple[FootPlace, ...],
    vehicle: Vehicle,
    survey_notes: Survey,
    opened: bool | None,
    why: str,
    remedy: str,
) -> Iterator[Found]:
    named = {p.id: p for p in panels}
    for f in feet:
        if (
            named[f.panel].hold.school == "bolts"
            and open_from_inside(vehicle, survey_notes, f.x_mm) is opened
        ):
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{named[f.panel].name}, foot {f.foot}",
                why=why,
                remedy=remedy,
            )


@rule(
    "feet-crowd",
    "stop",
    "roof-day",
    "Two holes nearer than three diameters",
    "AISI S100 J4.1: spacing at least 3 diameters",
)
def feet_crowd(marks: tuple[Mark, ...], panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    holes = sorted((m for m in marks if m.kind == "hole"), key=lambda m: m.x_mm)
    need = {p.id: ROW_DIAMETERS * (fastener_diameter_mm(hold) or 0.0) for p, hold in _drilled(panels)}
    widest = max(need.values(), default=0.0)
    for i, a in enumerate(holes):
        for b in holes[i + 1 :]:
            if b.x_mm - a.x_mm > widest:
                break
            apart = math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm)
            if (a.panel, a.foot) != (b.panel, b.foot) and apart < max(need[a.panel], need[b.panel]):
                yield Found(
                    place=f"panels.{a.panel}.feet.{a.foot}",
                    where=f"holes {a.number} and {b.number}",
                    why="They run into one another.",
                    remedy="Move one foot along its frame.",
                )


@rule("brackets-meet", "stop", "hold", "Brackets lie on one another", "geometry: their bases on the roof")
def brackets_meet(
    panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...], units: UnitSystem
) -> Iterator[Found]:
    named = {p.id: p for p in panels}
    bases = sorted(((foot_base(named[f.panel], f), f) for f in feet), key=lambda pair: pair[0].x_mm)
    for i, (base, foot) in enumerate(bases):
        for other, one in bases[i + 1 :]:
            if other.x_mm >= base.x_end_mm - TOUCHING_MM:
                break
            common = base.clipped(other)
            if common is not None and min(common.length_mm, common.width_mm) > TOUCHING_MM:
                yield Found(
                    place=f"panels.{foot.panel}.feet.{foot.foot}",
                    where=f"{named[foot.panel].name} {foot.foot} and {named[one.panel].name} {one.foot}",
                    why=f"They share {say_length(common.width_mm, units)} across and "
                    f"{say_length(common.length_mm, units)} along.",
                    remedy="Set the panels further apart, or one of the feet along its frame.",
                )


@rule("foot-on-obstacle", "stop", "hold", "Foot stands off the roof or on an obstacle", "geometry")
def foot_on_obstacle(
    panels: tuple[PlacedPanel, ...], shapes: tuple[Shape, ...], feet: tuple[FootPlace, ...], roof: Rect | None
) -> Iterator[Found]:
    names = {p.id: p.name for p in panels}
    blocks = [s.rect for s in shapes if s.kind == "obstacle"]
    for f in feet:
        inside = any(r.x_mm < f.x_mm < r.x_end_mm and r.y_mm < f.y_mm < r.y_end_mm for r in blocks)
        off = roof is not None and (
            not (roof.x_mm <= f.x_mm <= roof.x_end_mm and roof.y_mm <= f.y_mm <= roof.y_end_mm)
        )
        if inside or off:
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{names[f.panel]}, foot {f.foot}",
                why="There is nothing to fasten to." if off else "An obstacle is in the way.",
                remedy="Move the panel or the foot.",
            )
