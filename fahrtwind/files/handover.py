"""The handover sheet: what is on the roof, how fast it may drive and why, what to look at and when."""

from __future__ import annotations

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.saying import say_length, say_mass, say_speed
from fahrtwind.core.stations.log.due import due_of
from fahrtwind.core.stations.log.judged import lost_foot_m_s
from fahrtwind.files.drawing import CAUTION, Stamp, drill_drawing
from fahrtwind.files.record_sheet import built_rows
from fahrtwind.files.svg import to_svg
from fahrtwind.files.workshop_sheets import PAPERS, compile_sheet

LIMITS = (
    "This paper tells what was planned and what was written down. It is no type approval, no inspection and "
    "no warranty; nobody has loaded this roof to its limit. Local rules, the makers' instructions and "
    "licensed practice come first."
)
REFUSED, UNKNOWN = "refused: a stop stands", "not known: something is still asked for"
ISOLATE = "Cover the panels or open the isolator before anything is unplugged: they are live in every light."


def write_handover(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """A page for whoever drives, a second for the insurer and the next owner."""
    return compile_sheet(
        "handover.typ",
        {
            "title": f"Handover: {job.name}",
            "stamp": stamp.words(),
            "paper": PAPERS[job.units],
            "verdict": evaluation.spoken.word.capitalize(),
            "why": list(evaluation.spoken.because),
            "drawing": to_svg(drill_drawing(job, evaluation.findings, stamp=stamp)),
            "roof": _roof(job, evaluation),
            "speeds": _speeds(job, evaluation),
            "wiring": _wiring(job, evaluation),
            "stow": _stow(job),
            "due": [[d.what, f"{d.by:%-d %B %Y}", d.why] for d in due_of(job.care, stamp.date)],
            "looks": [[f"{x.day:%-d %B %Y}", x.found, x.where, x.note] for x in job.care.looks],
            "built": built_rows(evaluation.findings.as_built),
            "decisions": [[d.name, d.reason] for d in job.decisions],
            "snags": [
                [s.severity, s.title, s.where, s.dismissed or s.remedy]
                for s in evaluation.snags
                if s.severity != "note"
            ],
            "limits": LIMITS,
            "caution": CAUTION,
        },
    )


def _roof(job: Job, evaluation: Evaluation) -> list[list[str]]:
    units, panels = job.units, job.panels
    rows = [[p.name, p.model.name, _watts(p.model.power.w), say_mass(p.model.mass.kg, units)] for p in panels]
    mass = say_mass(evaluation.findings.roof_mass_kg, units)
    rows.append(["all that stands on the roof", "", _watts(sum(p.model.power.w for p in panels)), mass])
    if job.vehicle.height is not None:
        rows.append(["height of the vehicle before", "", "", say_length(job.vehicle.height.mm, units)])
    return rows


def _watts(power_w: float) -> str:
    return f"{power_w:.0f} W"


def _speeds(job: Job, evaluation: Evaluation) -> list[list[str]]:
    """Nothing with a stop is told as a speed that may be driven."""
    plan = evaluation.findings.plan
    if plan is None:
        return [["how fast it may drive", "not known: what is asked for was not answered"]]
    word = evaluation.spoken.word
    held_back = REFUSED if word == "refused" else None if word in ("holds", "thin") else UNKNOWN
    safe = min(plan.safe_m_s, plan.required_m_s)
    told = {
        "highest allowed": safe,
        "with one foot lost": lost_foot_m_s(plan),
        "gusts while parked": plan.parked_safe_m_s,
    }
    rows = [[words, held_back or say_speed(speed, job.units)] for words, speed in told.items()]
    return [*rows, ["first to let go", f"{plan.worst_panel} {plan.worst_foot}"]]


def _wiring(job: Job, evaluation: Evaluation) -> list[list[str]]:
    return [
        [
            c.name,
            next((a.words for a in evaluation.findings.arrays if a.controller == c.id), "not plugged"),
            f"{c.fuse.a:g} A in each string" if c.fuse else "no fuse in the strings",
            "joined on the roof" if c.joined == "roof" else "joined inside",
        ]
        for c in job.wiring.controllers
    ]


def _stow(job: Job) -> list[str]:
    raised = [f"{', '.join(r.panels)}: lower and lock before driving" for r in job.raisings]
    return [*raised, ISOLATE, "Tell whoever drives how high the vehicle is now."]
