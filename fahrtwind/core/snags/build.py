"""Snags of making and drilling: lengths, edges, ceilings."""

import math
from collections.abc import Iterator

from fahrtwind.core.build.drill_map import bolt_length_needed_mm, reach_below_roof_mm
from fahrtwind.core.hold.chain import skin_mm
from fahrtwind.core.hold.fastening import ROW_DIAMETERS, base_width_mm, bonded_pad_mm, hole_pitch_mm, row_mm
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import FoamTape, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.layout.feet import fastener_diameter_mm, foot_base
from fahrtwind.core.quantities import say_at_least, say_length
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule
from fahrtwind.core.survey.access import open_from_inside
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.feet import EDGE_DISTANCE_DIAMETERS

PRACTICE = "common practice, no source"
TOUCHING_MM = 1.0


@rule("through-the-ceiling", "stop", "roof-day", "Fastener goes deeper than skin and member", "geometry")
def through_the_ceiling(job: Job, findings: Findings) -> Iterator[Found]:
    if job.members.depth is None:
        return
    room = skin_mm(job.vehicle) + job.members.depth.mm
    for panel in job.panels:
        if panel.hold.school == "screws" and panel.feet and reach_below_roof_mm(panel.hold) > room:
            reach = reach_below_roof_mm(panel.hold)
            yield Found(
                f"panels.{panel.id}.hold.length", panel.name,
                f"Its screws end {say_length(reach, job.units)} below the roof; skin and member are {say_length(room, job.units)} deep. The ceiling is next.",
                "Take shorter screws and set the depth stop.", "reach", reach, room, "mm",
            )  # fmt: skip


@rule(
    "screw-too-short",
    "stop",
    "hold",
    "Screw too short to reach the member",
    "AISI S100 J4: full thread through the sheet; 3 mm beyond: common practice",
)
def screw_too_short(job: Job, findings: Findings) -> Iterator[Found]:
    wall = job.members.wall.mm if job.members.wall and job.members.kind != "wood_truss" else 0.0
    need = skin_mm(job.vehicle) + wall + 3.0
    for panel in job.panels:
        if panel.hold.school == "screws" and panel.feet and reach_below_roof_mm(panel.hold) < need:
            reach = reach_below_roof_mm(panel.hold)
            yield Found(
                f"panels.{panel.id}.hold.length", panel.name,
                f"Its screws reach {say_length(max(reach, 0.0), job.units)} below the roof, {say_length(need, job.units)} is needed.",
                "Take longer screws.", "reach", reach, need, "mm",
            )  # fmt: skip


@rule("bolt-too-short", "stop", "hold", "Bolt too short", "one full turn of thread beyond the nut: common practice")
def bolt_too_short(job: Job, findings: Findings) -> Iterator[Found]:
    on_member = {f.panel for f in findings.feet if f.landing == "member"}
    for panel in job.panels:
        if panel.hold.school == "bolts" and panel.feet:
            need = bolt_length_needed_mm(job, panel.hold, panel.id in on_member)
            if panel.hold.length.mm < need:
                yield Found(
                    f"panels.{panel.id}.hold.length", panel.name,
                    f"{say_length(panel.hold.length.mm, job.units)} bolts; foot, roof, washer and nut need {say_length(need, job.units)}.",
                    "Take longer bolts.", "length", panel.hold.length.mm, need, "mm",
                )  # fmt: skip


def _drilled(job: Job) -> Iterator[tuple[PlacedPanel, Screws | ThroughBolts]]:
    for panel in job.panels:
        if panel.feet and not isinstance(panel.hold, FoamTape):
            yield panel, panel.hold


def _sides(panel: PlacedPanel) -> set[bool]:
    """Whether the panel has feet on its sides (row of holes along the lever), on its ends (row along the bracket), or both."""
    return {f.side in ("port", "starboard") for f in panel.feet}


@rule("holes-beyond-base", "stop", "hold", "Holes beyond the bracket's base", "geometry: a hole outside the base holds nothing")
def holes_beyond_base(job: Job, findings: Findings) -> Iterator[Found]:
    for panel, hold in _drilled(job):
        reach = row_mm(hold) / 2 + (fastener_diameter_mm(hold) or 0.0) / 2
        bracket = hold.bracket
        room = min(bracket.toe.mm, bracket.lever.mm) if True in _sides(panel) else bracket.length.mm / 2
        if False in _sides(panel):
            room = min(room, bracket.length.mm / 2)
        if hold.count > 1 and reach > room:
            washers = hold.school == "bolts" and hole_pitch_mm(hold) > 3.2 * BOLTS[hold.bolt].clearance_mm
            because = f", {say_length(hole_pitch_mm(hold), job.units)} apart for their washers," if washers else ""
            yield Found(
                f"panels.{panel.id}.hold.bracket.toe", panel.name,
                f"{hold.count} holes in a row{because} reach {say_length(reach, job.units)} from its middle; the base ends after {say_length(room, job.units)}.",
                "Choose a bracket with a longer lever and toe, smaller washers, or fewer fasteners.", "reach of the row", reach, room, "mm",
            )  # fmt: skip


@rule(
    "bracket-too-small", "caution", "hold", "Bracket base too small for its holes", "AISI S100 J4.2: edge distance 1.5 diameters"
)
def bracket_too_small(job: Job, findings: Findings) -> Iterator[Found]:
    for panel, hold in _drilled(job):
        row = row_mm(hold) / 2 + EDGE_DISTANCE_DIAMETERS * (fastener_diameter_mm(hold) or 0.0)
        if row > hold.bracket.toe.mm and True in _sides(panel):
            yield Found(
                f"panels.{panel.id}.hold.bracket.toe", panel.name,
                f"{hold.count} holes in a row need a toe of {say_at_least(row, job.units)}; the bracket has {say_length(hold.bracket.toe.mm, job.units)}.",
                "Choose a bracket with a longer toe, or fewer fasteners.", "toe", hold.bracket.toe.mm, row, "mm",
            )  # fmt: skip


@rule("pad-beyond-base", "stop", "hold", "Pad larger than the base that presses it", "geometry: only what is pressed bonds")
def pad_beyond_base(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        hold = panel.hold
        if not isinstance(hold, FoamTape) or not panel.feet:
            continue
        length, width = bonded_pad_mm(hold)
        if hold.pad_length.mm - length > TOUCHING_MM or hold.pad_width.mm - width > TOUCHING_MM:
            yield Found(
                f"panels.{panel.id}.hold.pad_width", panel.name,
                f"The pad is {say_length(hold.pad_length.mm, job.units)} × {say_length(hold.pad_width.mm, job.units)}, "
                f"the bracket's base {say_length(hold.bracket.length.mm, job.units)} × {say_length(base_width_mm(hold), job.units)}.",
                "Take a bracket as large as the pad, or a smaller pad.", "pad area", hold.pad_length.mm * hold.pad_width.mm, length * width, "mm²",
            )  # fmt: skip


@rule("nut-in-closed-rib", "stop", "hold", "Nut inside a closed rib", "geometry: no hand and no spanner reaches it")
def nut_in_closed_rib(job: Job, findings: Findings) -> Iterator[Found]:
    if job.members.kind not in ("steel_hat", "aluminium_box"):
        return
    panels = {p.id: p for p in job.panels}
    for f in findings.feet:
        if panels[f.panel].hold.school == "bolts" and f.landing in ("member", "perhaps"):
            yield Found(
                f"panels.{f.panel}.feet.{f.foot}", f"{panels[f.panel].name}, foot {f.foot}",
                f"Member {f.member} is closed: the nut would be inside it.",
                "Use screws into the member, or move the foot beside it and bolt through the skin.",
            )  # fmt: skip


@rule("bolts-need-access", "stop", "hold", "No access for nuts", PRACTICE)
def bolts_need_access(job: Job, findings: Findings) -> Iterator[Found]:
    yield from _nuts(job, findings, False, "The inside is finished here: washer and nut cannot be set from below.",
                     "Use screws into members, or open the ceiling at every bolt.")  # fmt: skip


@rule("nut-access-unknown", "caution", "hold", "Not known whether nuts can be reached", PRACTICE)
def nut_access_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    yield from _nuts(job, findings, None, "Nobody has looked whether the inside is open here.",
                     "Look from inside and say so in Survey: gutted, finished, or which stretches are open.")  # fmt: skip


def _nuts(job: Job, findings: Findings, opened: bool | None, why: str, remedy: str) -> Iterator[Found]:
    panels = {p.id: p for p in job.panels}
    for f in findings.feet:
        if panels[f.panel].hold.school == "bolts" and open_from_inside(job, f.x_mm) is opened:
            yield Found(f"panels.{f.panel}.feet.{f.foot}", f"{panels[f.panel].name}, foot {f.foot}", why, remedy)


@rule("feet-crowd", "stop", "roof-day", "Two holes nearer than three diameters", "AISI S100 J4.1: spacing at least 3 diameters")
def feet_crowd(job: Job, findings: Findings) -> Iterator[Found]:
    holes = sorted((m for m in findings.marks if m.kind == "hole"), key=lambda m: m.x_mm)
    need = {p.id: ROW_DIAMETERS * (fastener_diameter_mm(hold) or 0.0) for p, hold in _drilled(job)}
    widest = max(need.values(), default=0.0)
    for i, a in enumerate(holes):
        for b in holes[i + 1 :]:
            if b.x_mm - a.x_mm > widest:
                break
            apart = math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm)
            if (a.panel, a.foot) != (b.panel, b.foot) and apart < max(need[a.panel], need[b.panel]):
                yield Found(
                    f"panels.{a.panel}.feet.{a.foot}", f"holes {a.number} and {b.number}",
                    "They run into one another.", "Move one foot along its frame.",
                )  # fmt: skip


@rule("brackets-meet", "stop", "hold", "Brackets lie on one another", "geometry: their bases on the roof")
def brackets_meet(job: Job, findings: Findings) -> Iterator[Found]:
    panels = {p.id: p for p in job.panels}
    bases = sorted(((foot_base(panels[f.panel], f), f) for f in findings.feet), key=lambda pair: pair[0].x_mm)
    for i, (base, foot) in enumerate(bases):
        for other, one in bases[i + 1 :]:
            if other.x_mm >= base.x_end_mm - TOUCHING_MM:
                break
            common = base.clipped(other)
            if common is not None and min(common.length_mm, common.width_mm) > TOUCHING_MM:
                yield Found(
                    f"panels.{foot.panel}.feet.{foot.foot}",
                    f"{panels[foot.panel].name} {foot.foot} and {panels[one.panel].name} {one.foot}",
                    f"They share {say_length(common.width_mm, job.units)} across and {say_length(common.length_mm, job.units)} along.",
                    "Set the panels further apart, or one of the feet along its frame.",
                )  # fmt: skip


@rule("foot-on-obstacle", "stop", "hold", "Foot stands off the roof or on an obstacle", "geometry")
def foot_on_obstacle(job: Job, findings: Findings) -> Iterator[Found]:
    names = {p.id: p.name for p in job.panels}
    blocks = [s.rect for s in findings.shapes if s.kind == "obstacle"]
    for f in findings.feet:
        inside = any(r.x_mm < f.x_mm < r.x_end_mm and r.y_mm < f.y_mm < r.y_end_mm for r in blocks)
        roof = findings.roof
        off = roof is not None and not (roof.x_mm <= f.x_mm <= roof.x_end_mm and roof.y_mm <= f.y_mm <= roof.y_end_mm)
        if inside or off:
            yield Found(
                f"panels.{f.panel}.feet.{f.foot}", f"{names[f.panel]}, foot {f.foot}",
                "There is nothing to fasten to." if off else "An obstacle is in the way.", "Move the panel or the foot.",
            )  # fmt: skip
