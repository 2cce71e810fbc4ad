"""What needs more than one job: what is due over all vehicles, who is elsewhere."""

from __future__ import annotations

from datetime import date

from fastapi import APIRouter, Request
from pydantic import BaseModel

from fahrtwind.api.admission import phone_of
from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.core.stations.days.elsewhere import Elsewhere, Shared, elsewhere, shared
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


@router.get("/jobs/{job_id}/elsewhere")
def read_elsewhere(job_id: str, store: Store) -> tuple[Elsewhere, ...]:
    """On which days people of this job are at other jobs of the shop, by the plans that those keep."""
    others = [(line.name, days) for line, days in store.part_of_all("days") if line.id != job_id]
    return elsewhere(store.get(job_id).job.days, others)


class Neighbour(BaseModel):
    """Another job of the shop that shares people with one."""

    id: str
    name: str
    first: date | None
    shared: Shared


@router.get("/jobs/{job_id}/neighbours")
def read_neighbours(job_id: str, store: Store) -> tuple[Neighbour, ...]:
    """Other jobs that want the same people, those of the same days first."""
    own = store.get(job_id).job.days
    others = [
        (line, days, shared(own, days)) for line, days in store.part_of_all("days") if line.id != job_id
    ]
    found = [
        Neighbour(id=line.id, name=line.name, first=days.first, shared=both)
        for line, days, both in others
        if both.people
    ]
    return tuple(sorted(found, key=lambda n: (not n.shared.overlaps, n.first or date.max, n.name)))


@router.get("/due")
def read_all_due(request: Request, store: Store) -> tuple[JobDue, ...]:
    """Over all vehicles that drive; jobs that cannot be read are left out, the list of jobs tells of them."""
    phone, today = phone_of(request), date.today()
    cares = [
        (line, care) for line, care in store.part_of_all("care") if phone is None or line.id == phone.job_id
    ]
    due = [JobDue(id=line.id, name=line.name, due=due_of(care, today)) for line, care in cares]
    return tuple(own for own in due if own.due)
