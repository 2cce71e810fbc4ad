"""Slow work: it runs beside the requests, tells how far it is, and stops when asked to."""

from __future__ import annotations

import logging
import secrets
import threading
import time
from collections import OrderedDict
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import field
from typing import TYPE_CHECKING, Annotated, Any, Literal

from fastapi import APIRouter, Depends, Query, Request, Response
from pydantic import BaseModel, Field

from fahrtwind.api.errors import ERROR_RESPONSES, ErrorBody
from fahrtwind.api.jobs import Store
from fahrtwind.core.choose.as_built import Reality
from fahrtwind.core.choose.days import Help, HowSure
from fahrtwind.core.choose.make_hold import MadeToHold
from fahrtwind.core.choose.propose import Proposals
from fahrtwind.core.choose.remedies import Remedy
from fahrtwind.core.choose.schools import SchoolLine
from fahrtwind.core.choose.together import MOST_TOGETHER, ShopPlan
from fahrtwind.core.engine.beside import Hands, Stopped, one_by_one
from fahrtwind.core.errors import FahrtwindError, NotFound, TooLarge
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass
from fahrtwind.core.slow import WORKS, SlowWork, WorkName
from fahrtwind.core.stations.days.plan import DayPlan
from fahrtwind.core.stations.layout.sun.findings import YieldFinding
from fahrtwind.core.stations.seal.water import WaterFinding
from fahrtwind.core.stations.wire.proposals import GroupingFinding

if TYPE_CHECKING:
    from fahrtwind.api.helpers import Helpers

log = logging.getLogger("fahrtwind")
AT_ONCE = 2
"""Works that run at the same time; more of them would only slow one another and everything else."""
REMEMBERED = 16
MOST_WAITING = 40
PATIENCE_S = 0.3
"""A start waits so long for the end: what is quick after all is told in one answer."""
LOOKED_AT_S = 5.0
"""A window that follows a work asks several times a second; what nobody has asked about for so long gives way
to one that waits.
"""
GIVEN_UP_S = 20.0
"""What nobody has asked about for so long stops even where nothing waits: its window was closed."""
State = Literal["waiting", "running", "done", "stopped", "failed"]

router = APIRouter(prefix="/api/jobs/{job_id}/slow/{work}", tags=["slow work"], responses=ERROR_RESPONSES)


class Beside(BaseModel, frozen=True):
    """Another job that a work looks at, as it was at a revision."""

    job: str
    revision: int


@dataclass(slots=True)
class Running:
    """One work: what it has told last, and whether it goes on. ``started`` is None while it waits for its
    turn.
    """

    id: str
    job: str
    work: WorkName
    revision: int
    others: tuple[Beside, ...] = ()
    started: float | None = None
    share: float = 0.0
    doing: str = ""
    found: Any = None
    problem: FahrtwindError | None = None
    took: float | None = None
    asked: float = field(default_factory=time.monotonic)
    cancel: threading.Event = field(default_factory=threading.Event)
    ended: threading.Event = field(default_factory=threading.Event)

    @property
    def state(self) -> State:
        if not self.ended.is_set():
            return "waiting" if self.started is None else "running"
        return "failed" if self.problem else "stopped" if self.cancel.is_set() else "done"

    @property
    def seconds(self) -> float:
        if self.took is not None or self.started is None:
            return self.took or 0.0
        return time.monotonic() - self.started

    def goes_on(self) -> bool:
        return not self.ended.is_set() and not self.cancel.is_set()

    def unwanted(self) -> bool:
        """Whether to stop: it was asked to, or nobody looks any more."""
        if time.monotonic() - self.asked > GIVEN_UP_S:
            self.cancel.set()
        return self.cancel.is_set()


class SlowWorks:
    """The slow works of this server: one of a kind at a time for each job, a few at once, the others wait;
    the last finished are remembered.
    """

    helpers: Helpers | None = None
    """Who takes parts of a work; without any it does one part after the other."""

    def __init__(self) -> None:
        self._known: OrderedDict[str, Running] = OrderedDict()
        self._lock = threading.Lock()
        self._workers = ThreadPoolExecutor(AT_ONCE, thread_name_prefix="slow")

    def start(
        self, job_id: str, work: WorkName, revision: int, jobs: Sequence[Job], others: tuple[Beside, ...] = ()
    ) -> Running:
        """Begin, or line up for it. What still runs on the same revisions serves this one too; what runs on
        older ones is stopped.
        """
        running = Running(secrets.token_hex(6), job_id, work, revision, others)
        with self._lock:
            own = [r for r in self._known.values() if (r.job, r.work) == (job_id, work) and r.goes_on()]
            for other in own:
                if (other.revision, other.others) == (revision, others):
                    other.asked = time.monotonic()
                    return other
            if sum(not r.ended.is_set() for r in self._known.values()) >= MOST_WAITING:
                raise TooLarge(
                    "Too much work is waiting.", remedy="Wait until some of it has ended.", field="job"
                )
            for other in own:
                other.cancel.set()
            self._known[running.id] = running
            self._forget_old()
        self._workers.submit(_do, running, jobs, self.helpers)
        self._make_room()
        return running

    def _make_room(self) -> None:
        """Where a work waits, stop those that nobody looks at any more: their windows were closed."""
        with self._lock:
            known = list(self._known.values())
        if any(r.state == "waiting" for r in known):
            for other in known:
                if other.goes_on() and time.monotonic() - other.asked > LOOKED_AT_S:
                    other.cancel.set()

    def _forget_old(self) -> None:
        ended = [name for name, r in self._known.items() if r.ended.is_set()]
        for name in ended[: max(0, len(ended) - REMEMBERED)]:
            del self._known[name]

    def get(self, job_id: str, work: WorkName, run_id: str) -> Running:
        """A work of this job. Raises NotFound where the job has none of that name."""
        running = self._known.get(run_id)
        if running is None or (running.job, running.work) != (job_id, work):
            raise NotFound("There is no such work.", remedy="Start it again.", field="run_id")
        running.asked = time.monotonic()
        self._make_room()
        return running

    def close(self) -> None:
        """Stop everything: the server ends."""
        for running in self._known.values():
            running.cancel.set()
        self._workers.shutdown(wait=False, cancel_futures=True)
        if self.helpers is not None:
            self.helpers.close()


def _do(running: Running, jobs: Sequence[Job], helpers: Helpers | None) -> None:
    running.started = started = time.monotonic()
    slow: SlowWork = WORKS[running.work]

    def tell(share: float, doing: str) -> None:
        running.share, running.doing = share, doing

    def show(found: Any) -> None:
        running.found = found

    try:
        if not running.unwanted():
            apart = one_by_one if helpers is None else helpers.apart(running.unwanted)
            hands = Hands(
                lambda: started + slow.most_seconds - time.monotonic(), running.unwanted, tell, apart
            )
            running.found = slow.do(jobs, hands, show)
    except Stopped:
        pass
    except FahrtwindError as problem:
        running.problem = problem
    except Exception as error:
        log.error("slow work failed", exc_info=error)
        running.problem = FahrtwindError(
            "The work broke off.", remedy="Start it again; if it fails again, report it."
        )
    finally:
        running.took = time.monotonic() - started
        running.ended.set()


class SlowState(BaseModel):
    """How far a work is. ``revision`` is the job's when it began, ``others`` those of the jobs it looks at
    beside; ``result`` may grow until ``state`` is no longer running.
    """

    id: str
    state: State
    revision: int
    others: tuple[Beside, ...]
    share: float
    doing: str
    seconds: float
    most_seconds: float
    problem: ErrorBody | None


class ProposalsAnswer(SlowState):
    work: Literal["proposals"] = "proposals"
    result: Proposals | None


class YearAnswer(SlowState):
    work: Literal["year"] = "year"
    result: YieldFinding | None


class RemediesAnswer(SlowState):
    work: Literal["remedies"] = "remedies"
    result: tuple[Remedy, ...] | None


class HoldAnswer(SlowState):
    work: Literal["hold"] = "hold"
    result: MadeToHold | None


class SchoolsAnswer(SlowState):
    work: Literal["schools"] = "schools"
    result: tuple[SchoolLine, ...] | None


class WaterAnswer(SlowState):
    work: Literal["water"] = "water"
    result: WaterFinding | None


class GroupingsAnswer(SlowState):
    work: Literal["groupings"] = "groupings"
    result: GroupingFinding | None


class DaysAnswer(SlowState):
    work: Literal["days"] = "days"
    result: DayPlan | None


class HelpsAnswer(SlowState):
    work: Literal["helps"] = "helps"
    result: tuple[Help, ...] | None


class RealityAnswer(SlowState):
    work: Literal["reality"] = "reality"
    result: Reality | None


class TogetherAnswer(SlowState):
    work: Literal["together"] = "together"
    result: ShopPlan | None


class SureAnswer(SlowState):
    work: Literal["sure"] = "sure"
    result: HowSure | None


SlowAnswer = (
    ProposalsAnswer
    | YearAnswer
    | RemediesAnswer
    | HoldAnswer
    | SchoolsAnswer
    | WaterAnswer
    | GroupingsAnswer
    | DaysAnswer
    | HelpsAnswer
    | SureAnswer
    | RealityAnswer
    | TogetherAnswer
)
ANSWERS: dict[WorkName, type[SlowState]] = {
    "proposals": ProposalsAnswer,
    "year": YearAnswer,
    "remedies": RemediesAnswer,
    "hold": HoldAnswer,
    "schools": SchoolsAnswer,
    "water": WaterAnswer,
    "groupings": GroupingsAnswer,
    "days": DaysAnswer,
    "helps": HelpsAnswer,
    "sure": SureAnswer,
    "reality": RealityAnswer,
    "together": TogetherAnswer,
}


def slow_works(request: Request) -> SlowWorks:
    found: SlowWorks = request.app.state.slow_works
    return found


Works = Annotated[SlowWorks, Depends(slow_works)]
Others = Annotated[tuple[str, ...], Field(max_length=MOST_TOGETHER - 1)]


def _told(running: Running, status: int = 200) -> Response:
    problem = running.problem
    state = running.state
    answer = ANSWERS[running.work].model_construct(
        id=running.id,
        state=state,
        revision=running.revision,
        others=running.others,
        share=running.share,
        doing=running.doing,
        seconds=running.seconds,
        most_seconds=WORKS[running.work].most_seconds,
        result=running.found,
        problem=None
        if problem is None
        else ErrorBody(
            code=problem.code, field=problem.field, message=problem.problem, remedy=problem.remedy
        ),
    )
    return Response(answer.model_dump_json(), media_type="application/json", status_code=status)


@router.post("", status_code=201, response_model=SlowAnswer)
def start_work(
    job_id: str, work: WorkName, store: Store, works: Works, others: Annotated[Others, Query()] = ()
) -> Response:
    """Begin a work on the job as it is now, and on others where it looks at several. It stops when nobody has
    asked how far it is for 20 seconds.
    """
    stored = store.get(job_id)
    with_it = [store.get(other) for other in dict.fromkeys(others) if other != job_id]
    told = tuple(Beside(job=other.id, revision=other.revision) for other in with_it)
    running = works.start(job_id, work, stored.revision, [s.job for s in (stored, *with_it)], told)
    running.ended.wait(PATIENCE_S)
    return _told(running, 201)


@router.get("/{run_id}", response_model=SlowAnswer)
def read_work(job_id: str, work: WorkName, run_id: str, works: Works) -> Response:
    return _told(works.get(job_id, work, run_id))


@router.delete("/{run_id}", status_code=204)
def stop_work(job_id: str, work: WorkName, run_id: str, works: Works) -> None:
    """Stop; what was found stays."""
    works.get(job_id, work, run_id).cancel.set()
