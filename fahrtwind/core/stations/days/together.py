"""Several vehicles of the shop planned as one: people are shared, everything else is each vehicle's own."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import Literal

import numpy as np

from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.days.hands import Persons, persons_of, persons_of_all
from fahrtwind.core.stations.days.kept import kept_persons, kept_starts
from fahrtwind.core.stations.days.model import TICKS, Who, begins, crew_of, model_of
from fahrtwind.core.stations.days.planner import solution_of, solve
from fahrtwind.core.stations.days.problem import Problem, problem_of
from fahrtwind.core.stations.days.pursuit import Standing, pursue

ALONE_SHARE, TURNS_SHARE = 0.15, 0.15
"""Of the time there is: for the plan of each vehicle by itself, for a first plan of one after the other."""


SHOWN_EVERY_S = 0.7


@dataclass(frozen=True, slots=True)
class Together:
    """``starts``: of each problem; ``persons``: who does what of it; ``alone``: where it would end if it had
    everybody to itself, None where that is not proved. ``blocked``: the problem that finds no plan by itself.
    ``bounds`` and ``proved`` of the sums over all: of the slots in which they end, of the days on their
    roofs, of the standing about.
    """

    state: Literal["found", "impossible", "not found"]
    starts: tuple[tuple[int, ...], ...] = ()
    persons: tuple[Persons, ...] = ()
    alone: tuple[int | None, ...] = ()
    blocked: int | None = None
    proved: tuple[bool, ...] = ()
    bounds: tuple[int, ...] = ()


def solve_together(
    problems: Sequence[Problem],
    seconds: float,
    stopped: Callable[[], bool] = lambda: False,
    told: Callable[[Together], None] = lambda together: None,
) -> Together:
    """The earliest finishes in sum, then the fewest days on the roofs, then the least standing about; each
    problem has something to do. Kept plans that still hold beside one another are the answer unless others
    end earlier in sum or take fewer days on the roofs.
    """
    alone: list[int | None] = []
    least = []
    for place, problem in enumerate(problems):
        own = solve(problem, seconds * ALONE_SHARE / len(problems), goals=1, stopped=stopped)
        if own.state == "impossible":
            return Together("impossible", blocked=place)
        least.append(own.bounds[0] if own.bounds else 0)
        alone.append(own.ends if own.proved == (True,) else None)
    built = model_of(problems)
    for finish, bound in zip(built.finishes, least, strict=True):
        built.model.add(finish >= bound)
    agreed = _agreed(problems)
    if agreed is not None:
        first = tuple(start for own in agreed[0] for start in own)
    else:
        first = _one_after_the_other(problems, least, seconds * TURNS_SHARE, stopped)

    def best_of(standing: Standing) -> Together:
        found = _of(problems, alone, standing)
        if agreed and found.state == "found" and _sums(problems, agreed[0]) <= _sums(problems, found.starts):
            return replace(found, starts=agreed[0], persons=agreed[1])
        return found

    shown = -SHOWN_EVERY_S

    def show(standing: Standing) -> None:
        """Who does what of it has to be found first: not of every plan that lives for a moment."""
        nonlocal shown
        if standing.seconds - shown >= SHOWN_EVERY_S and (found := best_of(standing)).state == "found":
            shown = standing.seconds
            told(found)

    left = seconds * (1 - ALONE_SHARE - TURNS_SHARE)
    return best_of(pursue(built, first, left, 3, stopped, show))


Agreed = tuple[tuple[tuple[int, ...], ...], tuple[Persons, ...]]
Busy = dict[Who, list[tuple[int, int]]]


def _agreed(problems: Sequence[Problem]) -> Agreed | None:
    """Starts and persons of the kept plans; None where one does not hold or they want somebody at once."""
    busy: Busy = {}
    starts, persons = [], []
    for problem in problems:
        own = kept_starts(problem)
        who = None if own is None else kept_persons(problem, own)
        if own is None or who is None:
            return None
        _add_busy(busy, problem, begins(problem, problems[0]), own, who)
        starts.append(own)
        persons.append(who)
    for spans in busy.values():
        if any(later[0] < earlier[1] for earlier, later in pairwise(sorted(spans))):
            return None
    return tuple(starts), tuple(persons)


def _add_busy(busy: Busy, problem: Problem, at: int, starts: tuple[int, ...], persons: Persons) -> None:
    """``at``: where the problem's grid begins, in ticks."""
    crew = crew_of(problem.calendar.days.crew)
    for activity, start, own in zip(problem.activities, starts, persons, strict=True):
        for p in own:
            first = TICKS * start + at
            busy.setdefault(crew[p], []).append((first, first + TICKS * activity.slots))


def _sums(problems: Sequence[Problem], starts: Sequence[tuple[int, ...]]) -> tuple[int, int]:
    """Of the ends, and of the days on the roofs."""
    plans = [solution_of(problem, own) for problem, own in zip(problems, starts, strict=True)]
    return sum(plan.ends for plan in plans), sum(plan.roof_days for plan in plans)


def _of(problems: Sequence[Problem], alone: Sequence[int | None], standing: Standing) -> Together:
    if standing.state != "found":
        return Together(standing.state, alone=tuple(alone))
    starts, rest = [], standing.starts
    for problem in problems:
        starts.append(rest[: len(problem.activities)])
        rest = rest[len(problem.activities) :]
    persons = persons_of_all(problems, starts)
    if persons is None:
        return Together("not found", alone=tuple(alone))
    return Together("found", tuple(starts), persons, tuple(alone), None, standing.proved, standing.bounds)


def _one_after_the_other(
    problems: Sequence[Problem], least: Sequence[int], seconds: float, stopped: Callable[[], bool]
) -> tuple[int, ...]:
    """A first plan: the vehicle that would end first gets the people it wants, the next those that are left.
    Empty where one finds nobody then.
    """
    busy: Busy = {}
    found: dict[int, tuple[int, ...]] = {}
    ends = [begins(p, problems[0]) + TICKS * end for p, end in zip(problems, least, strict=True)]
    for place in sorted(range(len(problems)), key=lambda k: ends[k]):
        problem = problems[place]
        at = begins(problem, problems[0])
        left = _without_busy(problem, busy, at)
        own = solve(left, seconds / len(problems), goals=1, stopped=stopped)
        if own.state != "found":
            return ()
        found[place] = own.starts
        _add_busy(busy, problem, at, own.starts, persons_of(left, own.starts))
    return tuple(start for place in range(len(problems)) for start in found[place])


def _without_busy(problem: Problem, busy: Busy, at: int) -> Problem:
    """The problem with those hours of its people that are left."""
    present = []
    for who, own in zip(crew_of(problem.calendar.days.crew), problem.calendar.present, strict=True):
        left = own.copy()
        for begin, end in busy.get(who, []):
            left[max((begin - at) // TICKS, 0) : max(-((at - end) // TICKS), 0)] = False
        present.append(left)
    if all(np.array_equal(a, b) for a, b in zip(present, problem.calendar.present, strict=True)):
        return problem
    return problem_of(problem.network, replace(problem.calendar, present=tuple(present)))
