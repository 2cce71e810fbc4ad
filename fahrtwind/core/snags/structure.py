"""Snags of the structure: how sure the members are where they will be drilled."""

from collections.abc import Iterator

from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import say_length, say_share
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule

FIT = "Fit of an equal spacing to the readings"
NEAR_READING_MM = 60.0
WIDE_BAND_MM = 25.0
SURE_ENOUGH = 0.9
FACT_WITHIN = 0.02
LEAN_DEG = 3.0
MID_BAY = (0.25, 0.75)


def _drilled(job: Job) -> set[str]:
    return {p.id for p in job.panels if p.hold.school != "tape"}


@rule(
    "member-not-read",
    "caution",
    "structure",
    "No reading near a member to be drilled",
    "common practice: confirm before drilling",
)
def member_not_read(job: Job, findings: Findings) -> Iterator[Found]:
    drilled = _drilled(job)
    used = {f.member for f in findings.feet if f.panel in drilled and f.landing in ("member", "perhaps")}
    for member in findings.members.members:
        if member.number in used and member.status == "inferred":
            yield Found(
                f"structure.member.{member.number}", f"member {member.number} at {say_length(member.x_mm, job.units)}",
                "Feet are drilled here, but no reading was taken at this member: it is inferred from its neighbours.",
                "Read it with a magnet or a small pilot hole before drilling.", "uncertainty", 1.96 * member.sigma_mm, None, "mm",
            )  # fmt: skip


@rule("spacing-in-doubt", "caution", "structure", "Two spacings explain the readings", FIT)
def spacing_in_doubt(job: Job, findings: Findings) -> Iterator[Found]:
    fit = findings.members
    if fit.status == "in doubt" and fit.alternatives:
        yield Found("readings", "the readings", fit.reason, fit.remedy, "pitch", fit.pitch_mm, fit.alternatives[0].pitch_mm, "mm")


@rule(
    "member-unsure",
    "caution",
    "structure",
    "A member that is to be drilled may not be there",
    "posterior over all hypotheses, within 15 mm",
)
def member_unsure(job: Job, findings: Findings) -> Iterator[Found]:
    drilled = _drilled(job)
    used = {f.member for f in findings.feet if f.panel in drilled and f.landing in ("member", "perhaps")}
    for member in findings.members.members:
        if member.number in used and member.confidence < SURE_ENOUGH:
            yield Found(
                f"structure.member.{member.number}", f"member {member.number} at {say_length(member.x_mm, job.units)}",
                f"It is there with {say_share(member.confidence)} only, counting every spacing that the readings allow.",
                "Check at the flag first.", "confidence", member.confidence, SURE_ENOUGH, "",
            )  # fmt: skip


@rule("fact-contradicts", "caution", "structure", "The known spacing and the readings disagree", FIT)
def fact_contradicts(job: Job, findings: Findings) -> Iterator[Found]:
    known, fit = job.members.known_pitch, findings.members
    if known is not None and fit.pitch_mm is not None and all(abs(s.pitch_mm / known.mm - 1) > FACT_WITHIN for s in fit.sections):
        yield Found(
            "members.known_pitch", "the members", f"{say_length(known.mm, job.units)} was entered, the readings say {say_length(fit.pitch_mm, job.units)}.",
            "People misremember spacings: trust readings you have seen, and check at the flag.", "pitch", fit.pitch_mm, known.mm, "mm",
        )  # fmt: skip


@rule(
    "lines-lean",
    "caution",
    "structure",
    "Feet lean on the mounting line",
    "geometry; 3° is about what a slotted foot takes: common practice",
)
def lines_lean(job: Job, findings: Findings) -> Iterator[Found]:
    for line in findings.lines.sides:
        leaning = [m for m in line.marks if m.lean_deg is not None and abs(m.lean_deg) > LEAN_DEG and not m.stray]
        if leaning:
            worst = max(leaning, key=lambda m: abs(m.lean_deg or 0.0))
            yield Found(
                "mounting", f"{line.side} line at {say_length(worst.x_mm, job.units)}",
                f"A foot leans {abs(worst.lean_deg or 0.0):.1f}° there.",
                f"Put a bar of {say_length(worst.wedge_mm or 0.0, job.units)} under its {worst.under} edge, or bend the foot.", "lean", worst.lean_deg, LEAN_DEG, "°",
            )  # fmt: skip


@rule("foot-mid-bay", "caution", "structure", "Foot where the skin drums", "Timoshenko plate strip; limits by judgement")
def foot_mid_bay(job: Job, findings: Findings) -> Iterator[Found]:
    by_number = {b.member_before: b for b in findings.bays}
    members = findings.members.members
    names = {p.id: p.name for p in job.panels}
    for f in findings.feet:
        if f.landing != "skin" or not members:
            continue
        before = max((m for m in members if m.x_mm <= f.x_mm), key=lambda m: m.x_mm, default=None)
        bay = by_number.get(before.number) if before else None
        share = None if before is None or bay is None else (f.x_mm - before.x_mm) / max(2 * (bay.x_mm - before.x_mm), 1.0)
        if bay is not None and bay.drumming == "strong" and share is not None and MID_BAY[0] < share < MID_BAY[1]:
            yield Found(
                f"panels.{f.panel}.feet.{f.foot}", f"{names[f.panel]}, foot {f.foot}",
                f"It stands mid-bay on skin that gives {say_length(1000 / (bay.stiffness_n_mm or 1), job.units)} under 1 kN (225 lbf) and hums from {bay.frequency_hz:.0f} Hz.",
                "Stay within a quarter of the bay from a member, or bridge two members with a bar.", "stiffness", bay.stiffness_n_mm, 20.0, "N/mm",
            )  # fmt: skip


@rule("reading-rejected", "note", "structure", "Reading left out of the fit", FIT)
def reading_rejected(job: Job, findings: Findings) -> Iterator[Found]:
    for rejected in findings.members.rejected:
        yield Found(
            f"readings.{rejected.reading}", f"reading at {say_length(rejected.x_mm, job.units)}", rejected.reason,
            "Read this spot again; strike the reading out if it was a seam or a wire.", "off", rejected.off_mm, None, "mm",
        )  # fmt: skip


@rule("pilot-contradicts", "stop", "structure", "A pilot hole went through where a member should be", FIT)
def pilot_contradicts(job: Job, findings: Findings) -> Iterator[Found]:
    for reading in findings.members.contradictions:
        yield Found(
            f"readings.{reading}", f"reading {reading}", "The bit found skin only, the spacing says member: one of them is wrong.",
            "Do not drill further. Read the members on both sides again.",
        )  # fmt: skip


@rule("members-unknown", "stop", "structure", "Members not known", FIT)
def members_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    if findings.members.status == "not known" and any(p.hold.school == "screws" for p in job.panels):
        yield Found("readings", "the roof", findings.members.reason, findings.members.remedy)


@rule("band-too-wide", "caution", "structure", "Member position too uncertain to drill", FIT)
def band_too_wide(job: Job, findings: Findings) -> Iterator[Found]:
    drilled = _drilled(job)
    used = {f.member for f in findings.feet if f.panel in drilled}
    for member in findings.members.members:
        if member.number in used and 1.96 * member.sigma_mm > WIDE_BAND_MM:
            yield Found(
                f"structure.member.{member.number}", f"member {member.number}",
                f"It may stand {say_length(1.96 * member.sigma_mm, job.units)} to either side of where it is drawn.",
                "Take more readings, best at this member.", "95 % band", 1.96 * member.sigma_mm, WIDE_BAND_MM, "mm",
            )  # fmt: skip
