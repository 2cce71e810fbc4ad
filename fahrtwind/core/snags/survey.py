"""Snags of the survey: what the roof itself does not allow."""

from collections.abc import Iterator

from fahrtwind.core.job.document import Job
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule

PRACTICE = "common practice, no source"


@rule("roof-load-limit", "stop", "survey", "Roof load limit exceeded", "Vehicle papers; ISO 3833 terms")
def roof_load_limit(job: Job, findings: Findings) -> Iterator[Found]:
    limit = job.vehicle.roof_load_limit
    if limit is not None and findings.roof_mass_kg > limit.kg:
        yield Found(
            "vehicle.roof_load_limit", "the roof", f"The plan weighs {findings.roof_mass_kg:.0f} kg, the roof bears {limit.kg:.0f} kg while driving.",
            "Take a panel off or choose lighter ones.", "added mass", findings.roof_mass_kg, limit.kg, "kg",
        )  # fmt: skip


@rule("roof-load-unknown", "caution", "survey", "Roof load limit not known", "Vehicle papers")
def roof_load_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    if job.vehicle.roof_load_limit is None and job.panels:
        yield Found(
            "vehicle.roof_load_limit", "the roof", f"The plan adds {findings.roof_mass_kg:.0f} kg and nothing says what the roof bears.",
            "Look the driving roof load up in the vehicle's papers and type it in.",
        )  # fmt: skip


@rule("ceiling-unknown", "caution", "survey", "What is under the skin is not known", PRACTICE)
def inside_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    drilled = any(p.hold.school != "tape" for p in job.panels)
    if drilled and job.vehicle.inside in ("unknown", "finished", "partial"):
        yield Found(
            "vehicle.inside", "inside, below the holes", "Wires, gas and water lines run between skin and ceiling; a bit finds them.",
            "Open the ceiling or trace the lines before drilling, use the depth stops of the drill map.",
        )  # fmt: skip


@rule("bolts-need-access", "stop", "survey", "No access for nuts", PRACTICE)
def bolts_need_access(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        if panel.hold.school == "bolts" and job.vehicle.inside == "finished":
            yield Found(
                f"panels.{panel.id}.hold", panel.name, "The inside is finished: washers and nuts cannot be set from below.",
                "Use screws into members, or open the ceiling at every bolt.",
            )  # fmt: skip
