"""What is too slow for an answer: each work runs beside the requests, on a job as it was at one revision.

A new one is a line in ``WORKS``.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any, Literal

from fahrtwind.core.choose.as_built import Reality, reality
from fahrtwind.core.choose.days import PLAN_S, Help, HowSure, helps, how_sure, plan_days
from fahrtwind.core.choose.make_hold import MadeToHold, make_hold
from fahrtwind.core.choose.propose import Proposals, propose
from fahrtwind.core.choose.remedies import Remedy, remedies
from fahrtwind.core.choose.schools import SchoolLine, side_by_side
from fahrtwind.core.choose.together import TOGETHER_S, ShopPlan, plan_together
from fahrtwind.core.engine.beside import Hands, beside
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.plan import DayPlan
from fahrtwind.core.stations.layout.proposals.packing import Search
from fahrtwind.core.stations.layout.sun.findings import YieldFinding
from fahrtwind.core.stations.seal.water import WaterFinding
from fahrtwind.core.stations.wire.proposals import GroupingFinding

WorkName = Literal[
    "proposals",
    "year",
    "remedies",
    "hold",
    "schools",
    "water",
    "groupings",
    "days",
    "helps",
    "sure",
    "reality",
    "together",
]
Show = Callable[[Any], None]


@dataclass(frozen=True, slots=True)
class SlowWork:
    """``work`` is given the job, its hands, and whom to show what it has found so far; ``among`` instead
    several jobs, the one that is looked at first. Either raises Stopped or returns what it has when it is
    told to stop.
    """

    most_seconds: float
    work: Callable[[Job, Hands, Show], Any] | None = None
    among: Callable[[Sequence[Job], Hands, Show], Any] | None = None

    def do(self, jobs: Sequence[Job], hands: Hands, show: Show) -> Any:
        """Raises InputError where others are given to what looks at one job."""
        if self.among is not None:
            return self.among(jobs, hands, show)
        if len(jobs) > 1 or self.work is None:
            raise InputError("This work looks at one job.", remedy="Leave the others out.", field="others")
        return self.work(jobs[0], hands, show)


def _proposals(job: Job, hands: Hands, show: Show) -> Proposals:
    def told(found: Proposals) -> None:
        hands.tell(found.progress, found.doing)
        show(found)

    return propose(job, Search(hands.seconds_left, hands.cancelled), told)


def _year(job: Job, hands: Hands, show: Show) -> YieldFinding:
    with beside(hands):
        found: YieldFinding = visit(job).demand("year")
    return found


def _remedies(job: Job, hands: Hands, show: Show) -> tuple[Remedy, ...]:
    with beside(hands):
        return remedies(job)


def _hold(job: Job, hands: Hands, show: Show) -> MadeToHold:
    with beside(hands):
        return make_hold(job, show)


def _schools(job: Job, hands: Hands, show: Show) -> tuple[SchoolLine, ...]:
    with beside(hands):
        return side_by_side(job, show)


def _water(job: Job, hands: Hands, show: Show) -> WaterFinding:
    with beside(hands):
        found: WaterFinding = visit(job).demand("water")
    return found


def _groupings(job: Job, hands: Hands, show: Show) -> GroupingFinding:
    with beside(hands):
        seen = visit(job)
        seen.demand("moments")  # so that a missing place is told in its own words
        show(seen.demand("even_groupings"))
        found: GroupingFinding = seen.demand("groupings")
    return found


def _days(job: Job, hands: Hands, show: Show) -> DayPlan:
    hands.tell(0.0, "a first plan")
    return plan_days(job, hands.seconds_left(), hands.cancelled, show)


def _helps(job: Job, hands: Hands, show: Show) -> tuple[Help, ...]:
    return helps(job, hands, show)


def _sure(job: Job, hands: Hands, show: Show) -> HowSure:
    return how_sure(job, hands)


def _together(jobs: Sequence[Job], hands: Hands, show: Show) -> ShopPlan:
    hands.tell(0.0, "each by itself")
    return plan_together(jobs, hands.seconds_left(), hands.cancelled, show)


def _reality(job: Job, hands: Hands, show: Show) -> Reality:
    with beside(hands):
        return reality(job)


WORKS: dict[WorkName, SlowWork] = {
    "proposals": SlowWork(90.0, _proposals),
    "year": SlowWork(60.0, _year),
    "remedies": SlowWork(60.0, _remedies),
    "hold": SlowWork(60.0, _hold),
    "schools": SlowWork(120.0, _schools),
    "water": SlowWork(60.0, _water),
    "groupings": SlowWork(90.0, _groupings),
    "days": SlowWork(PLAN_S, _days),
    "helps": SlowWork(90.0, _helps),
    "sure": SlowWork(90.0, _sure),
    "reality": SlowWork(60.0, _reality),
    "together": SlowWork(TOGETHER_S, among=_together),
}
