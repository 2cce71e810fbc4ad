"""Snags of the structure: how sure the members are where they will be drilled."""

from collections.abc import Iterator

from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import say_length
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule

FIT = "Fit of an equal spacing to the readings"
NEAR_READING_MM = 60.0
WIDE_BAND_MM = 25.0


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
