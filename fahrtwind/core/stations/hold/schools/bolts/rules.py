"""Snags of bolts: their length, and whether their nuts can be reached."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.hold.schools.bolts import bolt_length_needed_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.survey.access import open_from_inside

PRACTICE = "common practice, no source"


def _panels(panels: tuple[PlacedPanel, ...]) -> dict[str, PlacedPanel]:
    return {p.id: p for p in panels}


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


@rule("foot-off-member", "caution", "hold", "Foot off the member", "common practice: feet go into structure")
def foot_off_member(
    feet: tuple[FootPlace, ...], units: UnitSystem, panels: tuple[PlacedPanel, ...]
) -> Iterator[Found]:
    named = _panels(panels)
    for f in feet:
        panel = named[f.panel]
        if panel.hold.school == "bolts" and f.landing in ("skin", "perhaps") and (f.off_mm is not None):
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{panel.name}, foot {f.foot}",
                why=f"{say_length(abs(f.off_mm), units)} off member {f.member}: it holds in the "
                f"skin only, which flexes and drums.",
                remedy="Move the panel or the foot along, or bridge two members with a rail.",
                quantity="off",
                value=f.off_mm,
                limit=0.0,
                unit="mm",
            )
