"""Why a step cannot be done on a day: the fewest reasons, from its own conditions, else from the order."""

from __future__ import annotations

from datetime import date, datetime

import numpy as np

from fahrtwind.core.errors import InputError, NotFound
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.conditions import Condition, whole
from fahrtwind.core.stations.days.grid import IntArray
from fahrtwind.core.stations.days.plan import Reason
from fahrtwind.core.stations.days.problem import Bound, Problem


@dataclass(frozen=True, slots=True)
class WhyNot:
    """``possible``: as far as order and conditions go; ``at``: the start nearest to being possible, or the
    first possible one; ``reasons``: the fewest that stand against it.
    """

    step: str
    day: date
    possible: bool
    at: datetime | None
    reasons: tuple[Reason, ...]


def why_not(problem: Problem, step: str, day: date) -> WhyNot:
    """Raises NotFound for a step that is not in the plan, InputError for a day outside the grid."""
    place = next((i for i, a in enumerate(problem.activities) if a.id == step), None)
    if place is None:
        if step in problem.done:
            words = "it is done"
            return WhyNot(step, day, False, None, (Reason("done", step, words),))
        raise NotFound(f"There is no step {step}.", remedy="Take one of the plan's steps.", field="step")
    grid = problem.calendar.grid
    k = (day - grid.first).days
    if not 0 <= k < grid.days:
        raise InputError(
            f"{day:%-d %B %Y} is not among the days that are planned.",
            remedy=f"Take a day from {grid.first:%-d %B} on, or plan further ahead.",
            field="day",
        )
    slots = np.flatnonzero(grid.day == k)
    own = problem.starts[place]
    possible = own[np.isin(own, slots)]
    if not len(possible):
        at, reasons = fewest(problem, place, slots)
        return WhyNot(step, day, False, grid.moment(at), reasons)
    least, bound = _after_others(problem, place)
    later = possible[possible >= least]
    if len(later):
        return WhyNot(step, day, True, grid.moment(int(later[0])), ())
    return WhyNot(step, day, False, grid.moment(int(possible[-1])), (_order(problem, bound),))


def fewest(problem: Problem, place: int, among: IntArray) -> tuple[int, tuple[Reason, ...]]:
    """Of these starts the one with the fewest conditions against it, the one in working hours first; and
    these.
    """
    activity, conditions = problem.activities[place], problem.conditions[place]
    fails = np.array([~_holds(c, activity.slots)[among] for c in conditions])
    count = fails.sum(axis=0)
    names = [c.name for c in conditions]
    at_work = names.index("nobody works") if "nobody works" in names else 0
    best = int(np.lexsort((np.arange(len(among)), fails[at_work], count))[0])
    start = int(among[best])
    reasons = []
    for c, failed in zip(conditions, fails[:, best], strict=True):
        if failed:
            reasons.append(Reason(c.name, activity.id, c.tell(_first_bad(c, start, activity.slots))))
    return start, tuple(dict.fromkeys(reasons))


def _holds(condition: Condition, slots: int) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
    return condition.ok if condition.of_start else whole(condition.ok, slots)


def _first_bad(condition: Condition, start: int, slots: int) -> int:
    """Where it does not hold, for its words."""
    if condition.of_start:
        return start
    bad = np.flatnonzero(~condition.ok[start : start + max(1, slots)])
    return start + int(bad[0]) if len(bad) else min(start, len(condition.ok) - 1)


def _after_others(problem: Problem, place: int) -> tuple[int, Bound | None]:
    """The earliest by its links, and the link that decides it."""
    least, decides = 0, None
    for bound in (b for b in problem.bounds if b.after == place):
        first = problem.earliest[bound.before]
        ready = problem.calendar.grid.slots + 1
        if first is not None:
            ready = int(bound.ready[first + problem.activities[bound.before].slots])
        if ready > least:
            least, decides = ready, bound
    return least, decides


def _order(problem: Problem, bound: Bound | None) -> Reason:
    if bound is None:
        return Reason("the order", "", "something before it takes until then")
    grid, before = problem.calendar.grid, problem.activities[bound.before]
    first = problem.earliest[bound.before]
    wait = f"; {bound.link.wait.words}" if bound.link.wait else ""
    if first is None:
        return Reason("the order", before.id, f"“{before.title}” before it finds no time at all{wait}")
    end = first + before.slots
    ready = int(bound.ready[end])
    when = (
        f"{grid.moment(ready):%A %-d %B, %H:%M}" if ready <= grid.slots else "after the days that are planned"
    )
    return Reason(
        "the order",
        before.id,
        f"“{before.title}” ends at the earliest {grid.moment(end):%A %H:%M}{wait}: ready {when} "
        f"({bound.link.why})",
    )


def why_none(problem: Problem) -> tuple[Reason, ...]:
    """Why the whole finds no plan: what stands against the first step that finds no start."""
    grid = problem.calendar.grid
    for place, first in enumerate(problem.earliest):
        if first is not None:
            continue
        least, bound = _after_others(problem, place)
        own = problem.starts[place]
        if bound is not None and len(own) and least > int(own[-1]):
            return (_order(problem, bound),)
        inside = np.flatnonzero((grid.day < problem.calendar.days.horizon) & (np.arange(grid.slots) >= least))
        among = inside if len(inside) else np.arange(grid.slots)
        return fewest(problem, place, among)[1]
    return ()
