"""Snags of bolts: their length, and whether their nuts can be reached."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.hold.schools.bolts import bolt_length_needed_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder, fastened
from fahrtwind.core.stations.survey.access import open_from_inside

PRACTICE = "common practice, no source"


@rule(
    "bolt-too-short",
    "stop",
    "hold",
    "Bolt too short",
    "one full turn of thread beyond the nut: common practice",
)
def bolt_too_short(
    feet: tuple[FootPlace, ...],
    holders: tuple[Holder, ...],
    vehicle: Vehicle,
    ribs: Members,
    units: UnitSystem,
) -> Iterator[Found]:
    on_member = {f.panel for f in feet if f.landing == "member"}
    for holder in holders:
        if holder.hold.school == "bolts" and holder.feet:
            need = bolt_length_needed_mm(vehicle, ribs, holder.hold, holder.id in on_member)
            if holder.hold.length.mm < need:
                yield Found(
                    place=f"{holder.hold_path}.length",
                    where=holder.name,
                    why=f"{say_length(holder.hold.length.mm, units)} bolts; foot, roof, washer and "
                    f"nut need {say_length(need, units)}.",
                    remedy="Take longer bolts.",
                    quantity="length",
                    value=holder.hold.length.mm,
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
def nut_in_closed_rib(ribs: Members, holders: tuple[Holder, ...]) -> Iterator[Found]:
    if ribs.kind not in ("steel_hat", "aluminium_box"):
        return
    named = {h.id: h for h in holders}
    for f in fastened(holders):
        if named[f.panel].hold.school == "bolts" and f.landing in ("member", "perhaps"):
            yield Found(
                place=named[f.panel].place(f),
                where=f"{named[f.panel].name}, foot {f.foot}",
                why=f"Member {f.member} is closed: the nut would be inside it.",
                remedy="Use screws into the member, or move the foot beside it and bolt through the skin.",
            )


@rule("bolts-need-access", "stop", "hold", "No access for nuts", PRACTICE)
def bolts_need_access(holders: tuple[Holder, ...], vehicle: Vehicle, survey_notes: Survey) -> Iterator[Found]:
    yield from _nuts(
        holders,
        vehicle,
        survey_notes,
        False,
        "The inside is finished here: washer and nut cannot be set from below.",
        "Use screws into members, or open the ceiling at every bolt.",
    )


@rule("nut-access-unknown", "caution", "hold", "Not known whether nuts can be reached", PRACTICE)
def nut_access_unknown(
    holders: tuple[Holder, ...], vehicle: Vehicle, survey_notes: Survey
) -> Iterator[Found]:
    yield from _nuts(
        holders,
        vehicle,
        survey_notes,
        None,
        "Nobody has looked whether the inside is open here.",
        "Look from inside and say so in Survey: gutted, finished, or which stretches are open.",
    )


def _nuts(
    holders: tuple[Holder, ...],
    vehicle: Vehicle,
    survey_notes: Survey,
    opened: bool | None,
    why: str,
    remedy: str,
) -> Iterator[Found]:
    named = {h.id: h for h in holders}
    for f in fastened(holders):
        if (
            named[f.panel].hold.school == "bolts"
            and open_from_inside(vehicle, survey_notes, f.x_mm) is opened
        ):
            yield Found(
                place=named[f.panel].place(f),
                where=f"{named[f.panel].name}, foot {f.foot}",
                why=why,
                remedy=remedy,
            )


@rule("foot-off-member", "caution", "hold", "Foot off the member", "common practice: feet go into structure")
def foot_off_member(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    named = {h.id: h for h in holders}
    for f in fastened(holders):
        holder = named[f.panel]
        if holder.hold.school == "bolts" and f.landing in ("skin", "perhaps") and (f.off_mm is not None):
            yield Found(
                place=named[f.panel].place(f),
                where=f"{holder.name}, foot {f.foot}",
                why=f"Member {f.member} is not known closely enough: it may hold in the skin only, which "
                "flexes and drums."
                if f.landing == "perhaps"
                else f"{say_length(abs(f.off_mm), units)} off member {f.member}: it holds in the skin only, "
                "which flexes and drums.",
                remedy="Move the panel or the foot along, or bridge two members with a rail.",
                quantity="off",
                value=f.off_mm,
                limit=0.0,
                unit="mm",
            )
