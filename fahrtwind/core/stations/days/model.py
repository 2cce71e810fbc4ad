"""The plan as a model for a constraint solver: the half hours of one vehicle's work, or of several that share
people.

Hands are counted; where not all work the same hours on every vehicle, everybody has a calendar of their own
in the model as well.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np

from fahrtwind.core.job.days import Person, called
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.conditions import whole
from fahrtwind.core.stations.days.grid import SLOT_MIN, BoolArray, IntArray
from fahrtwind.core.stations.days.problem import Bound, Problem

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

GOALS = ("finish", "roof days", "standing about")
TICK_MIN = 15
"""Times of several vehicles are compared in quarters of an hour: zones lie as close as that."""
TICKS = SLOT_MIN // TICK_MIN
Who = tuple[str, int]
"""A person of the shop: the name as it is typed in any case, and which of those of one crew who bear it."""


@dataclass(slots=True)
class Model:
    """``starts``: of each problem, of each of its open activities; ``finishes``: of each problem;
    ``goals``: by their names.
    """

    model: cp_model.CpModel
    starts: list[list[cp_model.IntVar]]
    finishes: list[cp_model.IntVar]
    goals: dict[str, cp_model.LinearExprT]

    @property
    def flat(self) -> list[cp_model.IntVar]:
        return [start for own in self.starts for start in own]


def model_of(problems: Sequence[Problem]) -> Model:
    """The model of problems that share people by their names; its first goal is the sum of their finishes."""
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    built = Model(model, [], [], {})
    for problem in problems:
        starts, ends = [], []
        for place, activity in enumerate(problem.activities):
            least = problem.earliest[place] or 0
            own = problem.starts[place]
            domain = cp_model.Domain.from_values([int(s) for s in own[own >= least]])
            starts.append(model.new_int_var_from_domain(domain, f"start {activity.id}"))
            ends.append(starts[-1] + activity.slots)
        finish = model.new_int_var(0, problem.calendar.grid.slots, "finish")
        model.add_max_equality(finish, list(ends))
        for bound in problem.bounds:
            keep_bound(model, problem, bound, starts)
        built.starts.append(starts)
        built.finishes.append(finish)
    add_hands(model, problems, built.starts)
    _add_goals(built, problems)
    return built


def keep_bound(
    model: cp_model.CpModel,
    problem: Problem,
    bound: Bound,
    starts: list[cp_model.IntVar],
    only_if: cp_model.IntVar | None = None,
) -> None:
    """What a link demands; only where ``only_if`` is true, where it is given."""
    before, after = starts[bound.before], starts[bound.after]
    slots = problem.activities[bound.before].slots
    for table, least in ((bound.ready, True), (bound.latest, False)):
        if table is None:
            continue
        lag = _constant_lag(table, problem.starts[bound.before] + slots)
        limit: cp_model.LinearExprT
        if lag is not None:
            limit = before + slots + lag
        else:
            limit = model.new_int_var(0, int(table.max()), "")
            model.add_element(before, [int(v) for v in table[slots:]], limit)
        kept = model.add(after >= limit) if least else model.add(after <= limit)
        if only_if is not None:
            kept.only_enforce_if(only_if)


def _constant_lag(table: IntArray, ends: IntArray) -> int | None:
    lags = table[ends] - ends
    return int(lags[0]) if len(lags) and np.all(lags == lags[0]) else None


def crew_of(crew: Sequence[Person]) -> tuple[Who, ...]:
    """Who they are in the shop: of one name, the first of a crew is the first of another."""
    names = [called(person.name) for person in crew]
    return tuple((name, names[:i].count(name)) for i, name in enumerate(names))


def begins(problem: Problem, first: Problem) -> int:
    """Where the grid of a problem begins, in ticks from the beginning of the first one's."""
    return round((problem.calendar.grid.start - first.calendar.grid.start).total_seconds() / 60 / TICK_MIN)


def add_hands(
    model: cp_model.CpModel, problems: Sequence[Problem], starts: Sequence[Sequence[cp_model.IntVar]]
) -> None:
    """Nobody at two things at once, on whichever vehicle."""
    crews = [crew_of(problem.calendar.days.crew) for problem in problems]
    if len({frozenset(crew) for crew in crews}) == 1 and all(_like_hours(p) for p in problems):
        _count_hands(model, problems, starts, len(crews[0]), ())
        return
    of = len({who for crew in crews for who in crew})
    _count_hands(model, problems, starts, of, _missing(problems, crews, of))
    _add_persons(model, problems, starts, crews)


def _count_hands(
    model: cp_model.CpModel,
    problems: Sequence[Problem],
    starts: Sequence[Sequence[cp_model.IntVar]],
    of: int,
    missing: Iterable[tuple[int, int, int]],
) -> None:
    """Never more hands than people are there: enough where all work the same hours, and where they do not it
    proves in seconds what choosing persons alone leaves open.
    """
    intervals, hands = [], []
    for problem, own in zip(problems, starts, strict=True):
        at = begins(problem, problems[0])
        for start, activity in zip(own, problem.activities, strict=True):
            if activity.hands:
                span = model.new_fixed_size_interval_var(TICKS * start + at, TICKS * activity.slots, "")
                intervals.append(span)
                hands.append(activity.hands)
    for first, last, away in missing:
        intervals.append(model.new_fixed_size_interval_var(first, last - first, ""))
        hands.append(away)
    model.add_cumulative(intervals, hands, of)


def _missing(
    problems: Sequence[Problem], crews: Sequence[tuple[Who, ...]], of: int
) -> Iterator[tuple[int, int, int]]:
    """From which tick to which how many are at work on no vehicle."""
    spans = [
        (begins(p, problems[0]), begins(p, problems[0]) + TICKS * p.calendar.grid.slots) for p in problems
    ]
    low, high = min(first for first, _ in spans), max(last for _, last in spans)
    there: dict[Who, BoolArray] = {}
    for problem, crew, (first, last) in zip(problems, crews, spans, strict=True):
        for who, present in zip(crew, problem.calendar.present, strict=True):
            own = there.setdefault(who, np.zeros(high - low, dtype=bool))
            own[first - low : last - low] |= np.repeat(present, TICKS)
    missing = of - np.sum(list(there.values()), axis=0)
    edges = [0, *(np.flatnonzero(np.diff(missing)) + 1), high - low]
    for begin, end in pairwise(edges):
        if missing[begin]:
            yield int(begin) + low, int(end) + low, int(missing[begin])


def _like_hours(problem: Problem) -> bool:
    present = problem.calendar.present
    return all(np.array_equal(present[0], p) for p in present[1:])


def _add_persons(
    model: cp_model.CpModel,
    problems: Sequence[Problem],
    starts: Sequence[Sequence[cp_model.IntVar]],
    crews: Sequence[tuple[Who, ...]],
) -> None:
    """Each activity takes persons who stay from its start to its end."""
    from ortools.sat.python import cp_model

    busy: dict[Who, list[cp_model.IntervalVar]] = {}
    for problem, own, crew in zip(problems, starts, crews, strict=True):
        at = begins(problem, problems[0])
        for i, (start, activity) in enumerate(zip(own, problem.activities, strict=True)):
            if not activity.hands:
                continue
            takes = [model.new_bool_var("") for _ in crew]
            model.add(sum(takes) == activity.hands)
            for take, who, present in zip(takes, crew, problem.calendar.present, strict=True):
                there = problem.starts[i][whole(present, activity.slots)[problem.starts[i]]]
                domain = cp_model.Domain.from_values([int(s) for s in there])
                model.add_linear_expression_in_domain(start, domain).only_enforce_if(take)
                busy.setdefault(who, []).append(
                    model.new_optional_fixed_size_interval_var(
                        TICKS * start + at, TICKS * activity.slots, take, ""
                    )
                )
    for intervals in busy.values():
        model.add_no_overlap(intervals)


def _add_goals(built: Model, problems: Sequence[Problem]) -> None:
    used: list[cp_model.IntVar] = []
    spans: list[cp_model.LinearExpr] = []
    for problem, starts in zip(problems, built.starts, strict=True):
        _add_roof_days(built.model, problem, starts, used, spans)
    built.goals["finish"] = sum(built.finishes)
    built.goals["roof days"] = sum(used)
    built.goals["standing about"] = sum(spans) * len(built.flat) * 4 + sum(built.flat)


def _add_roof_days(
    model: cp_model.CpModel,
    problem: Problem,
    starts: list[cp_model.IntVar],
    used: list[cp_model.IntVar],
    spans: list[cp_model.LinearExpr],
) -> None:
    """Which days somebody is on the roof, and from when to when."""
    from ortools.sat.python import cp_model

    day_of = problem.calendar.grid.day
    days: dict[int, tuple[cp_model.IntVar, cp_model.IntVar, cp_model.IntVar]] = {}
    for i, activity in enumerate(problem.activities):
        if activity.place != "roof":
            continue
        least = problem.earliest[i] or 0
        own = problem.starts[i][problem.starts[i] >= least]
        on_days = []
        for day in np.unique(day_of[own]):
            k = int(day)
            here = model.new_bool_var("")
            on_days.append(here)
            domain = cp_model.Domain.from_values([int(s) for s in own[day_of[own] == day]])
            model.add_linear_expression_in_domain(starts[i], domain).only_enforce_if(here)
            if k not in days:
                bounds = (problem.calendar.grid.first_slot(k), problem.calendar.grid.first_slot(k + 1))
                first, last = model.new_int_var(*bounds, ""), model.new_int_var(*bounds, "")
                days[k] = (model.new_bool_var(f"roof on day {k}"), first, last)
                model.add(last >= first)
            someone, first, last = days[k]
            model.add_implication(here, someone)
            model.add(first <= starts[i]).only_enforce_if(here)
            model.add(last >= starts[i] + activity.slots).only_enforce_if(here)
        model.add_exactly_one(on_days)
    used += [someone for someone, _, _ in days.values()]
    spans += [last - first for _, first, last in days.values()]
