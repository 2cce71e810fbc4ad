"""Searches for proposals: they run beside the requests, tell how far they are, and stop when asked to."""

from __future__ import annotations

import secrets
import threading
import time
from collections import OrderedDict
from dataclasses import dataclass, field
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Request
from pydantic import BaseModel

from fahrtwind.api.errors import ERROR_RESPONSES, ErrorBody
from fahrtwind.api.jobs import Store
from fahrtwind.core.choose.propose import Proposals, propose
from fahrtwind.core.errors import FahrtwindError, NotFound
from fahrtwind.core.job.document import Job
from fahrtwind.core.layout.proposals.packing import Search

SECONDS = 60.0
REMEMBERED = 8

router = APIRouter(prefix="/api", tags=["proposals"], responses=ERROR_RESPONSES)


@dataclass(slots=True)
class Running:
    """One search: what it has told last, and whether it goes on."""

    job: str
    revision: int
    started: float
    told: Proposals | None = None
    problem: FahrtwindError | None = None
    ended: float | None = None
    cancel: threading.Event = field(default_factory=threading.Event)


class Searches:
    """The searches of this server: one at a time for each job, the last few remembered."""

    def __init__(self) -> None:
        self._running: OrderedDict[str, Running] = OrderedDict()
        self._lock = threading.Lock()

    def start(self, job_id: str, revision: int, job: Job) -> str:
        """Begin a search; one that still runs for the same job is stopped."""
        search_id = secrets.token_hex(6)
        running = Running(job_id, revision, time.monotonic())
        with self._lock:
            for other in self._running.values():
                if other.job == job_id:
                    other.cancel.set()
            self._running[search_id] = running
            while len(self._running) > REMEMBERED:
                self._running.popitem(last=False)[1].cancel.set()
        threading.Thread(target=_work, args=(running, job), daemon=True).start()
        return search_id

    def get(self, search_id: str) -> Running:
        running = self._running.get(search_id)
        if running is None:
            raise NotFound("There is no such search.", remedy="Start it again.", field="search_id")
        return running


def _work(running: Running, job: Job) -> None:
    def tell(told: Proposals) -> None:
        running.told = told

    try:
        running.told = propose(job, Search(lambda: running.started + SECONDS - time.monotonic(), running.cancel.is_set), tell)
    except FahrtwindError as problem:
        running.problem = problem
    finally:
        running.ended = time.monotonic()


class SearchStarted(BaseModel):
    id: str


class SearchAnswer(BaseModel):
    """How far a search is. ``revision`` is the job's when it began; ``proposals`` grow until ``state`` is no longer running."""

    state: Literal["running", "done", "stopped", "failed"]
    revision: int
    seconds: float
    most_seconds: float
    proposals: Proposals | None
    problem: ErrorBody | None


def searches(request: Request) -> Searches:
    found: Searches = request.app.state.searches
    return found


Found = Annotated[Searches, Depends(searches)]


@router.post("/jobs/{job_id}/proposals", status_code=201)
def start_search(job_id: str, store: Store, found: Found) -> SearchStarted:
    """Begin to look for layouts from the job's offers."""
    stored = store.get(job_id)
    return SearchStarted(id=found.start(job_id, stored.revision, stored.job))


@router.get("/searches/{search_id}")
def read_search(search_id: str, found: Found) -> SearchAnswer:
    running = found.get(search_id)
    state: Literal["running", "done", "stopped", "failed"] = "running"
    if running.ended is not None:
        state = "failed" if running.problem else "stopped" if running.cancel.is_set() else "done"
    problem = running.problem
    return SearchAnswer(
        state=state, revision=running.revision, seconds=(running.ended or time.monotonic()) - running.started, most_seconds=SECONDS,
        proposals=running.told,
        problem=None if problem is None else ErrorBody(code=problem.code, field=problem.field, message=problem.problem, remedy=problem.remedy),
    )  # fmt: skip


@router.delete("/searches/{search_id}", status_code=204)
def stop_search(search_id: str, found: Found) -> None:
    """Stop looking; what was found stays."""
    found.get(search_id).cancel.set()
