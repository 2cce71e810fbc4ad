"""The kept plan on paper: a row for each step, day by day, with its hands and what to wait for."""

from __future__ import annotations

from itertools import groupby

from fahrtwind.core.choose.days import kept_as_plan
from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.days.plan import PlannedStep
from fahrtwind.files.drawing import CAUTION, Stamp
from fahrtwind.files.workshop_sheets import PAPERS, compile_sheet


def write_week_sheet(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """Raises InputError where no plan is kept."""
    plan = kept_as_plan(job)
    days = [
        {"day": f"{day:%A %-d %B}", "rows": [_row(step) for step in steps]}
        for day, steps in groupby((s for s in plan.steps if s.kind != "drive"), lambda s: s.starts.date())
    ]
    broken = evaluation.findings.kept.breaks if evaluation.findings.kept else ()
    return compile_sheet(
        "week-sheet.typ",
        {
            "title": f"Week sheet: {job.name}",
            "stamp": stamp.words(),
            "paper": PAPERS[job.units],
            "days": days,
            "drive": f"Do not drive before {plan.finish:%A %-d %B, %H:%M}." if plan.finish else "",
            "broken": [f"This plan no longer goes: {broken[0].words}"] if broken else [],
            "caution": CAUTION,
        },
    )


def _row(step: PlannedStep) -> list[str]:
    rests = f"until {step.rests:%a %-d %b %H:%M}" if step.rests else ""
    who = "done" if step.done else ", ".join(step.persons)
    return [f"{step.starts:%H:%M} – {step.ends:%H:%M}", step.title, step.place, who, rests, "☐"]
