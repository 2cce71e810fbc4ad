"""Jobs at a glance for the list of all: one is worked out at a time, and only while somebody waits for it."""

from __future__ import annotations

import asyncio
from collections import OrderedDict
from threading import Lock

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.api.records import TheRecords
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.glance import Glance, glance
from fahrtwind.core.stations.log.entries import steps_done
from fahrtwind.store.jobs import JobStore
from fahrtwind.store.records import Records

router = APIRouter(prefix="/api", tags=["care"], responses=ERROR_RESPONSES)

REMEMBERED = 1000
LOOKS_AGAIN_S = 0.02
NOBODY_WAITS = 499
"""Nobody reads the answer: whoever asked has gone."""


class Glances:
    """What jobs looked like at a glance, by revision and what the log calls done.

    A list of a hundred jobs asks for a hundred: worked out beside one another they would keep a job that is
    being opened waiting for all of them.
    """

    def __init__(self) -> None:
        self._known: OrderedDict[tuple[str, int, frozenset[str]], Glance] = OrderedDict()
        self._turn = Lock()

    async def of(self, job_id: str, store: JobStore, records: Records, request: Request) -> Glance | None:
        """None where whoever asked has gone before its turn came. Raises NotFound without such a job."""
        while not self._turn.acquire(blocking=False):
            await asyncio.sleep(LOOKS_AGAIN_S)
            if await request.is_disconnected():
                return None
        try:
            return await run_in_threadpool(self._look, job_id, store, records)
        finally:
            self._turn.release()

    def _look(self, job_id: str, store: JobStore, records: Records) -> Glance:
        stored = store.get(job_id)
        done = steps_done(tuple(e.entry for e in records.log(job_id)))
        key = (job_id, stored.revision, done)
        if key not in self._known:
            drives = stored.job.care.drives_since is not None
            self._known[key] = glance(evaluate(stored.job), done, drives=drives)
            while len(self._known) > REMEMBERED:
                self._known.popitem(last=False)
        return self._known[key]


@router.get("/jobs/{job_id}/glance", response_model=Glance)
async def read_glance(job_id: str, store: Store, records: TheRecords, request: Request) -> Glance | Response:
    """The job for the list of all: its roof, how it stands, what stops it, what is to be done next."""
    glances: Glances = request.app.state.glances
    return await glances.of(job_id, store, records, request) or Response(status_code=NOBODY_WAITS)
