"""What is due: of one job, and over all vehicles."""

from __future__ import annotations

from datetime import date

from fastapi import APIRouter, Request
from pydantic import BaseModel

from fahrtwind.api.admission import phone_of
from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.stations.log.due import Due, due_of

router = APIRouter(prefix="/api", tags=["care"], responses=ERROR_RESPONSES)


class JobDue(BaseModel):
    """What is due of a job, the most pressing first."""

    id: str
    name: str
    due: tuple[Due, ...]


@router.get("/jobs/{job_id}/due")
def read_due(job_id: str, store: Store) -> tuple[Due, ...]:
    return due_of(store.get(job_id).job.care, date.today())


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
