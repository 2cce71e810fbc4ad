"""Searches for proposals: they run beside the requests, tell how far they are, and stop when asked to."""

from __future__ import annotations

import logging
import secrets
import threading
import time
from collections import OrderedDict
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Request
from pydantic import BaseModel

from fahrtwind.api.errors import ERROR_RESPONSES, ErrorBody
from fahrtwind.api.jobs import Store
from fahrtwind.core.choose.propose import Proposals, propose
from fahrtwind.core.errors import FahrtwindError, NotFound, TooLarge
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.proposals.packing import Search

log = logging.getLogger("fahrtwind")
SECONDS = 60.0
AT_ONCE = 2
"""Searches that run at the same time; more of them would only slow one another and everything else."""
REMEMBERED = 16
MOST_WAITING = 40
State = Literal["waiting", "running", "done", "stopped", "failed"]

router = APIRouter(prefix="/api/jobs/{job_id}/proposals", tags=["proposals"], responses=ERROR_RESPONSES)


@dataclass(slots=True)
class Running:
    """One search: what it has told last, and whether it goes on. ``started`` is None while it waits for its
    turn.
    """

    job: str
    revision: int
    started: float | None = None
    told: Proposals | None = None
    problem: FahrtwindError | None = None
    ended: float | None = None
    cancel: threading.Event = field(default_factory=threading.Event)

    @property
    def state(self) -> State:
        if self.ended is None:
            return "waiting" if self.started is None else "running"
        return "failed" if self.problem else "stopped" if self.cancel.is_set() else "done"

    @property
    def seconds(self) -> float:
        return 0.0 if self.started is None else (self.ended or time.monotonic()) - self.started


class Searches:
    """The searches of this server: one at a time for each job, a few at once, the others wait; the last
    finished are remembered.
    """

    def __init__(self) -> None:
        self._known: OrderedDict[str, Running] = OrderedDict()
        self._lock = threading.Lock()
        self._workers = ThreadPoolExecutor(AT_ONCE, thread_name_prefix="search")

    def start(self, job_id: str, revision: int, job: Job) -> str:
        """Begin a search, or line up for it; one that still runs for the same job is stopped."""
        search_id = secrets.token_hex(6)
        running = Running(job_id, revision)
        with self._lock:
            if sum(r.ended is None for r in self._known.values()) >= MOST_WAITING:
                raise TooLarge(
                    "Too many searches are waiting.", remedy="Wait until some have ended.", field="job"
                )
            for other in self._known.values():
                if other.job == job_id:
                    other.cancel.set()
            self._known[search_id] = running
            self._forget_old()
        self._workers.submit(_work, running, job)
        return search_id

    def _forget_old(self) -> None:
        ended = [name for name, r in self._known.items() if r.ended is not None]
        for name in ended[: max(0, len(ended) - REMEMBERED)]:
            del self._known[name]

    def get(self, job_id: str, search_id: str) -> Running:
        """A search of this job. Raises NotFound where the job has none of that name."""
        running = self._known.get(search_id)
        if running is None or running.job != job_id:
            raise NotFound("There is no such search.", remedy="Start it again.", field="search_id")
        return running

    def close(self) -> None:
        """Stop everything: the server ends."""
        for running in self._known.values():
            running.cancel.set()
        self._workers.shutdown(wait=False, cancel_futures=True)


def _work(running: Running, job: Job) -> None:
    started = time.monotonic()
    running.started = started

    def tell(told: Proposals) -> None:
        running.told = told

    try:
        if not running.cancel.is_set():
            running.told = propose(
                job, Search(lambda: started + SECONDS - time.monotonic(), running.cancel.is_set), tell
            )
    except FahrtwindError as problem:
        running.problem = problem
    except Exception as error:
        log.error("a search failed", exc_info=error)
        running.problem = FahrtwindError(
            "The search broke off.", remedy="Start it again; if it fails again, report it."
        )
    finally:
        running.ended = time.monotonic()


class SearchStarted(BaseModel):
    id: str


class SearchAnswer(BaseModel):
    """How far a search is. ``revision`` is the job's when it began; ``proposals`` grow until ``state`` is no
    longer running.
    """

    state: State
    revision: int
    seconds: float
    most_seconds: float
    proposals: Proposals | None
    problem: ErrorBody | None


def searches(request: Request) -> Searches:
    found: Searches = request.app.state.searches
    return found


Found = Annotated[Searches, Depends(searches)]


@router.post("", status_code=201)
def start_search(job_id: str, store: Store, found: Found) -> SearchStarted:
    """Begin to look for layouts from the job's offers."""
    stored = store.get(job_id)
    return SearchStarted(id=found.start(job_id, stored.revision, stored.job))


@router.get("/{search_id}")
def read_search(job_id: str, search_id: str, found: Found) -> SearchAnswer:
    running = found.get(job_id, search_id)
    problem = running.problem
    return SearchAnswer(
        state=running.state,
        revision=running.revision,
        seconds=running.seconds,
        most_seconds=SECONDS,
        proposals=running.told,
        problem=None
        if problem is None
        else ErrorBody(
            code=problem.code, field=problem.field, message=problem.problem, remedy=problem.remedy
        ),
    )


@router.delete("/{search_id}", status_code=204)
def stop_search(job_id: str, search_id: str, found: Found) -> None:
    """Stop looking; what was found stays."""
    found.get(job_id, search_id).cancel.set()
