"""Several jobs of the shop planned as one: what each waits for the others, who is where."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import datetime
from typing import Literal

from fahrtwind.core.choose.days import problem_for, reasons_for_none
from fahrtwind.core.errors import InputError
from fahrtwind.core.job.days import Taken, called
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.elsewhere import joined
from fahrtwind.core.stations.days.model import GOALS
from fahrtwind.core.stations.days.plan import DayPlan, Reason, told
from fahrtwind.core.stations.days.planner import Solution, solution_of
from fahrtwind.core.stations.days.problem import Problem
from fahrtwind.core.stations.days.together import Together, solve_together

MOST_TOGETHER, TOGETHER_S = 6, 30.0


@dataclass(frozen=True, slots=True)
class Occupied:
    """When somebody of a vehicle's crew is at the others; ``person``: the id in that crew."""

    person: str
    taken: tuple[Taken, ...]


@dataclass(frozen=True, slots=True)
class VehiclePlan:
    """``alone``: when it would be done if it had everybody to itself, None where that is not proved;
    ``waits_h``: so much later than that; ``occupied``: when its people are at the others.
    """

    name: str
    plan: DayPlan
    alone: datetime | None
    waits_h: float | None
    occupied: tuple[Occupied, ...]


@dataclass(frozen=True, slots=True)
class ShopPlan:
    """``vehicles`` in the order of the jobs. ``proved``: which sums over all cannot be less; ``spare_h``: by
    how much the sum of the finishes may be better still. ``blocked``: the vehicle that finds no plan by
    itself, with the reasons.
    """

    state: Literal["found", "impossible", "not found"]
    vehicles: tuple[VehiclePlan, ...]
    proved: tuple[str, ...]
    spare_h: float | None
    roof_days: int
    blocked: str
    reasons: tuple[Reason, ...]


def plan_together(
    jobs: Sequence[Job],
    seconds: float,
    stopped: Callable[[], bool] = lambda: False,
    show: Callable[[ShopPlan], None] = lambda plan: None,
) -> ShopPlan:
    """The best plan of all of them: earliest finishes in sum, fewest days on the roofs, least standing about.
    What their kept plans took from one another does not count: they are planned anew.

    Raises InputError where there are too many or one cannot be planned yet.
    """
    if not 2 <= len(jobs) <= MOST_TOGETHER:
        raise InputError(
            f"{len(jobs)} vehicles cannot be planned together.",
            remedy=f"Choose 2 to {MOST_TOGETHER}.",
            field="jobs",
        )
    problems = [_problem(job, {other.name for other in jobs if other is not job}) for job in jobs]
    working = [k for k, problem in enumerate(problems) if problem.activities]
    if not working:
        return _shop_plan(jobs, problems, [], Together("found"))

    def tell(found: Together) -> None:
        show(_shop_plan(jobs, problems, working, found))

    found = solve_together([problems[k] for k in working], seconds, stopped, tell)
    return _shop_plan(jobs, problems, working, found)


def _problem(job: Job, others: set[str]) -> Problem:
    """Without what the others have taken of its people."""
    crew = tuple(
        person.model_copy(update={"taken": tuple(t for t in person.taken if t.job not in others)})
        for person in job.days.crew
    )
    free = job.model_copy(update={"days": job.days.model_copy(update={"crew": crew})})
    try:
        return problem_for(free)
    except InputError as problem:
        raise InputError(
            f"{job.name}: {problem.problem}", remedy=problem.remedy, field=problem.field
        ) from problem


def _shop_plan(
    jobs: Sequence[Job], problems: Sequence[Problem], working: Sequence[int], found: Together
) -> ShopPlan:
    if found.state != "found":
        if found.blocked is None:
            words = "each finds a plan by itself; together their people do not suffice in the days there are"
            reasons = (Reason("too few hands", "", words),) if found.state == "impossible" else ()
            return ShopPlan(found.state, (), (), None, 0, "", reasons)
        blocked = working[found.blocked]
        return ShopPlan(
            "impossible", (), (), None, 0, jobs[blocked].name, reasons_for_none(problems[blocked])
        )
    own = dict(zip(working, range(len(working)), strict=True))
    plans = [
        _plan_of(problem, found, own[k])
        if k in own
        else told(problem, Solution("found", (), 0, 0, (), (), 0))
        for k, problem in enumerate(problems)
    ]
    vehicles = []
    for k, (job, plan) in enumerate(zip(jobs, plans, strict=True)):
        least = found.alone[own[k]] if k in own else None
        alone = None if least is None else problems[k].calendar.grid.moment(least)
        waits = None if alone is None or plan.finish is None else (plan.finish - alone).total_seconds() / 3600
        others = [(o.name, p) for j, (o, p) in enumerate(zip(jobs, plans, strict=True)) if j != k]
        vehicles.append(VehiclePlan(job.name, plan, alone, waits, _occupied(job, others)))
    proved = tuple(goal for goal, sure in zip(GOALS, found.proved, strict=False) if sure)
    return ShopPlan(
        "found",
        tuple(vehicles),
        proved,
        _spare_h(problems, working, found),
        sum(plan.roof_days for plan in plans),
        "",
        (),
    )


def _plan_of(problem: Problem, found: Together, place: int) -> DayPlan:
    alone = found.alone[place]
    solution = solution_of(problem, found.starts[place], (), () if alone is None else (alone,))
    return told(problem, solution, (), found.persons[place])


def _spare_h(problems: Sequence[Problem], working: Sequence[int], found: Together) -> float | None:
    if not found.bounds:
        return None
    ends = sum(solution_of(problems[k], starts).ends for k, starts in zip(working, found.starts, strict=True))
    return (ends - found.bounds[0]) / 2


def _occupied(job: Job, others: Sequence[tuple[str, DayPlan]]) -> tuple[Occupied, ...]:
    found = []
    for person in job.days.crew:
        taken = []
        for name, plan in others:
            steps = (s for s in plan.steps if called(person.name) in map(called, s.persons))
            taken += [Taken(job=name, starts=a, ends=b) for a, b in joined((s.starts, s.ends) for s in steps)]
        found.append(Occupied(person.id, tuple(taken)))
    return tuple(found)
