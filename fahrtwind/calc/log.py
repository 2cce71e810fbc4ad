"""Calculations of the log: what is due."""

from __future__ import annotations

from datetime import date

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import calculation
from fahrtwind.core.evaluate import visit
from fahrtwind.core.job.load import load_job
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.log.due import Due, due_of
from fahrtwind.core.stations.log.inspection import LookPlace
from fahrtwind.core.stations.log.judged import LookVerdict


class DueInput(JobInput):
    today: date


@dataclass(frozen=True, slots=True)
class DueAnswer:
    """What is to be looked at by when, what was found means for the road, and where to look."""

    due: tuple[Due, ...]
    judged: tuple[LookVerdict, ...]
    to_look_at: tuple[LookPlace, ...]


@calculation("log.due")
def log_due(given: DueInput) -> DueAnswer:
    """What has to be looked at and by when; what each finding means for the road."""
    job = load_job(given.job)
    seen = visit(job)
    return DueAnswer(due_of(job.care, given.today), seen.get("judged", ()), seen.get("to_look_at", ()))
