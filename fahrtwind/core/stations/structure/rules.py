"""Snags of the structure: how sure the members are where they will be drilled."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length, say_share
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.structure.bays import Spot
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.stations.structure.mounting_lines import LinesFinding

FIT = "Fit of an equal spacing to the readings"
NEAR_READING_MM = 60.0
WIDE_BAND_MM = 25.0
SURE_ENOUGH = 0.9
FACT_WITHIN = 0.02
LEAN_DEG = 3.0
MID_BAY = (0.25, 0.75)


def _drilled(holders: tuple[Holder, ...]) -> set[str]:
    return {h.id for h in holders if h.hold.school not in ("tape", "base_plate", "outer_foot")}


@rule(
    "member-not-read",
    "caution",
    "structure",
    "No reading near a member to be drilled",
    "common practice: confirm before drilling",
)
def member_not_read(
    feet: tuple[FootPlace, ...], members: MemberFit, units: UnitSystem, holders: tuple[Holder, ...]
) -> Iterator[Found]:
    drilled = _drilled(holders)
    used = {f.member for f in feet if f.panel in drilled and f.landing in ("member", "perhaps")}
    for member in members.members:
        if member.number in used and member.status == "inferred":
            yield Found(
                place=f"structure.member.{member.number}",
                where=f"member {member.number} at {say_length(member.x_mm, units)}",
                why="Feet are drilled here, but no reading was taken at this member: it is inferred "
                "from its neighbours.",
                remedy="Read it with a magnet or a small pilot hole before drilling.",
                quantity="uncertainty",
                value=1.96 * member.sigma_mm,
                limit=None,
                unit="mm",
            )


@rule("spacing-in-doubt", "caution", "structure", "Two spacings explain the readings", FIT)
def spacing_in_doubt(members: MemberFit) -> Iterator[Found]:
    fit = members
    if fit.status == "in doubt" and fit.alternatives:
        yield Found(
            place="readings",
            where="the readings",
            why=fit.reason,
            remedy=fit.remedy,
            quantity="pitch",
            value=fit.pitch_mm,
            limit=fit.alternatives[0].pitch_mm,
            unit="mm",
        )


@rule(
    "member-unsure",
    "caution",
    "structure",
    "A member that is to be drilled may not be there",
    "posterior over all hypotheses, within 15 mm",
)
def member_unsure(
    feet: tuple[FootPlace, ...], members: MemberFit, units: UnitSystem, holders: tuple[Holder, ...]
) -> Iterator[Found]:
    drilled = _drilled(holders)
    used = {f.member for f in feet if f.panel in drilled and f.landing in ("member", "perhaps")}
    for member in members.members:
        if member.number in used and member.confidence < SURE_ENOUGH:
            yield Found(
                place=f"structure.member.{member.number}",
                where=f"member {member.number} at {say_length(member.x_mm, units)}",
                why=f"It is there with {say_share(member.confidence)} only, counting every spacing "
                f"that the readings allow.",
                remedy="Check at the flag first.",
                quantity="confidence",
                value=member.confidence,
                limit=SURE_ENOUGH,
                unit="",
            )


@rule("fact-contradicts", "caution", "structure", "The known spacing and the readings disagree", FIT)
def fact_contradicts(ribs: Members, members: MemberFit, units: UnitSystem) -> Iterator[Found]:
    known, fit = (ribs.known_pitch, members)
    if (
        known is not None
        and fit.pitch_mm is not None
        and all(abs(s.pitch_mm / known.mm - 1) > FACT_WITHIN for s in fit.sections)
    ):
        yield Found(
            place="members.known_pitch",
            where="the members",
            why=f"{say_length(known.mm, units)} was entered, the readings say "
            f"{say_length(fit.pitch_mm, units)}.",
            remedy="People misremember spacings: trust readings you have seen, and check at the flag.",
            quantity="pitch",
            value=fit.pitch_mm,
            limit=known.mm,
            unit="mm",
        )


@rule(
    "lines-lean",
    "caution",
    "structure",
    "Feet lean on the mounting line",
    "geometry; 3° is about what a slotted foot takes: common practice",
)
def lines_lean(lines: LinesFinding, units: UnitSystem) -> Iterator[Found]:
    for line in lines.sides:
        leaning = [
            m for m in line.marks if m.lean_deg is not None and abs(m.lean_deg) > LEAN_DEG and (not m.stray)
        ]
        if leaning:
            worst = max(leaning, key=lambda m: abs(m.lean_deg or 0.0))
            yield Found(
                place="mounting",
                where=f"{line.side} line at {say_length(worst.x_mm, units)}",
                why=f"A foot leans {abs(worst.lean_deg or 0.0):.1f}° there.",
                remedy=f"Put a bar of {say_length(worst.wedge_mm or 0.0, units)} under its "
                f"{worst.under} edge, or bend the foot.",
                quantity="lean",
                value=worst.lean_deg,
                limit=LEAN_DEG,
                unit="°",
            )


@rule(
    "foot-mid-bay",
    "caution",
    "structure",
    "Foot where the skin drums",
    "Timoshenko plate strip; limits by judgement",
)
def foot_mid_bay(
    bays: tuple[Spot, ...],
    members: MemberFit,
    holders: tuple[Holder, ...],
    feet: tuple[FootPlace, ...],
    units: UnitSystem,
) -> Iterator[Found]:
    by_number = {b.member_before: b for b in bays}
    named = {h.id: h for h in holders}
    for f in feet:
        if f.landing != "skin" or not members.members:
            continue
        before = max((m for m in members.members if m.x_mm <= f.x_mm), key=lambda m: m.x_mm, default=None)
        bay = by_number.get(before.number) if before else None
        share = (
            None
            if before is None or bay is None
            else (f.x_mm - before.x_mm) / max(2 * (bay.x_mm - before.x_mm), 1.0)
        )
        if (
            bay is not None
            and bay.drumming == "strong"
            and (share is not None)
            and (MID_BAY[0] < share < MID_BAY[1])
        ):
            yield Found(
                place=named[f.panel].place(f),
                where=f"{named[f.panel].name}, foot {f.foot}",
                why=f"It stands mid-bay on skin that gives "
                f"{say_length(1000 / (bay.stiffness_n_mm or 1), units)} under 1 kN (225 lbf) and "
                f"hums from {bay.frequency_hz:.0f} Hz.",
                remedy="Stay within a quarter of the bay from a member, or bridge two members with a bar.",
                quantity="stiffness",
                value=bay.stiffness_n_mm,
                limit=20.0,
                unit="N/mm",
            )


@rule("reading-rejected", "note", "structure", "Reading left out of the fit", FIT)
def reading_rejected(members: MemberFit, units: UnitSystem) -> Iterator[Found]:
    for rejected in members.rejected:
        yield Found(
            place=f"readings.{rejected.reading}",
            where=f"reading at {say_length(rejected.x_mm, units)}",
            why=rejected.reason,
            remedy="Read this spot again; strike the reading out if it was a seam or a wire.",
            quantity="off",
            value=rejected.off_mm,
            limit=None,
            unit="mm",
        )


@rule("pilot-contradicts", "stop", "structure", "A pilot hole went through where a member should be", FIT)
def pilot_contradicts(members: MemberFit) -> Iterator[Found]:
    for reading in members.contradictions:
        yield Found(
            place=f"readings.{reading}",
            where=f"reading {reading}",
            why="The bit found skin only, the spacing says member: one of them is wrong.",
            remedy="Do not drill further. Read the members on both sides again.",
        )


@rule("members-unknown", "stop", "structure", "Members not known", FIT)
def members_unknown(members: MemberFit, screwed: bool) -> Iterator[Found]:
    if members.status == "not known" and screwed:
        yield Found(place="readings", where="the roof", why=members.reason, remedy=members.remedy)


@rule("band-too-wide", "caution", "structure", "Member position too uncertain to drill", FIT)
def band_too_wide(
    feet: tuple[FootPlace, ...], members: MemberFit, units: UnitSystem, holders: tuple[Holder, ...]
) -> Iterator[Found]:
    drilled = _drilled(holders)
    used = {f.member for f in feet if f.panel in drilled}
    for member in members.members:
        if member.number in used and 1.96 * member.sigma_mm > WIDE_BAND_MM:
            yield Found(
                place=f"structure.member.{member.number}",
                where=f"member {member.number}",
                why=f"It may stand {say_length(1.96 * member.sigma_mm, units)} to either side of "
                f"where it is drawn.",
                remedy="Take more readings, best at this member.",
                quantity="95 % band",
                value=1.96 * member.sigma_mm,
                limit=WIDE_BAND_MM,
                unit="mm",
            )
