"""What needs more than one job: what is due over all vehicles, each at a glance, who is elsewhere."""

from __future__ import annotations

from datetime import date

from fastapi import APIRouter, Request
from pydantic import BaseModel

from fahrtwind.api.admission import phone_of
from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.api.records import TheRecords
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.glance import Glance, glance
from fahrtwind.core.stations.days.elsewhere import Elsewhere, elsewhere
from fahrtwind.core.stations.log.due import Due, due_of
from fahrtwind.core.stations.log.entries import steps_done

router = APIRouter(prefix="/api", tags=["care"], responses=ERROR_RESPONSES)


class JobDue(BaseModel):
    """What is due of a job, the most pressing first."""

    id: str
    name: str
    due: tuple[Due, ...]


@router.get("/jobs/{job_id}/due")
def read_due(job_id: str, store: Store) -> tuple[Due, ...]:
    return due_of(store.get(job_id).job.care, date.today())


@router.get("/jobs/{job_id}/glance")
def read_glance(job_id: str, store: Store, records: TheRecords) -> Glance:
    """The job for the list of all: its roof, how it stands, what stops it, what is to be done next."""
    job = store.get(job_id).job
    done = steps_done(tuple(e.entry for e in records.log(job_id)))
    return glance(evaluate(job), done, drives=job.care.drives_since is not None)


@router.get("/jobs/{job_id}/elsewhere")
def read_elsewhere(job_id: str, store: Store) -> tuple[Elsewhere, ...]:
    """On which days people of this job are at other jobs of the shop, by the plans that those keep."""
    others = []
    for summary in (s for s in store.summaries() if s.id != job_id):
        try:
            job = store.get(summary.id).job
        except FahrtwindError:
            continue
        others.append((job.name, job.days))
    return elsewhere(store.get(job_id).job.days, others)


@router.get("/due")
def read_all_due(request: Request, store: Store) -> tuple[JobDue, ...]:
    """Over all vehicles that drive; jobs that cannot be read are left out, the list of jobs tells of them."""
    found = []
    phone = phone_of(request)
    for summary in store.summaries():
        if phone is not None and summary.id != phone.job_id:
            continue
        try:
            job = store.get(summary.id).job
        except FahrtwindError:
            continue
        if due := due_of(job.care, date.today()):
            found.append(JobDue(id=summary.id, name=job.name, due=due))
    return tuple(found)
