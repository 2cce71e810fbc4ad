"""The plan: earliest finish, then fewest days on the roof, then least standing about; proved or bounded.

One goal after the other, each kept while the next is looked for, by a constraint solver. Hands are counted
where all work the same hours; else everybody has a calendar of their own in the model.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from time import monotonic
from typing import TYPE_CHECKING, Literal

import numpy as np

from fahrtwind.core.stations.days.conditions import whole
from fahrtwind.core.stations.days.grid import IntArray
from fahrtwind.core.stations.days.problem import Bound, Problem

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

Told = Callable[["Solution"], None]
Shown = Callable[[tuple[int, ...]], None]
WORKERS = 1
"""One: the same job gives the same plan, and the other core answers meanwhile; two are hardly faster."""
GOALS = ("finish", "roof days", "standing about")
SHARES = (0.75, 0.2, 0.05)
"""Of the time there is, for each goal."""
FROM_ABOVE = 0.25
"""Of a goal's time, until the bound is raised instead."""


@dataclass(frozen=True, slots=True)
class Solution:
    """``starts``: a half hour for each open activity; ``ends``: the last end. ``bounds``: no plan is better
    than this in each goal that was looked for; ``proved``: of each whether that is reached.
    """

    state: Literal["found", "impossible", "not found"]
    starts: tuple[int, ...]
    ends: int
    roof_days: int
    proved: tuple[bool, ...]
    bounds: tuple[int, ...]
    seconds: float


@dataclass(slots=True)
class _Model:
    model: cp_model.CpModel
    starts: list[cp_model.IntVar]
    ends: list[cp_model.LinearExpr]
    finish: cp_model.IntVar
    on_day: dict[tuple[int, int], cp_model.IntVar]
    used: dict[int, cp_model.IntVar]
    goals: dict[str, cp_model.LinearExprT]


def solve(
    problem: Problem,
    seconds: float,
    goals: int = 3,
    stopped: Callable[[], bool] = lambda: False,
    told: Told | None = None,
) -> Solution:
    """The best plan within so many seconds. Nothing to do is a plan too."""
    began = monotonic()
    if not problem.activities:
        return Solution("found", (), 0, 0, (True,) * goals, (0,) * goals, 0.0)
    if any(first is None for first in problem.earliest):
        return Solution("impossible", (), 0, 0, (), (), monotonic() - began)
    run = _Run(problem, _build(problem), seconds, began, greedy(problem) or ())
    if run.best and told:
        told(run.solution())
    for goal, share in zip(GOALS[:goals], SHARES, strict=False):
        if not run.reach(goal, share, stopped, told):
            return Solution(run.state, (), 0, 0, (), (), monotonic() - began)
        if told:
            told(run.solution())
        if stopped():
            break
    return run.solution()


@dataclass(slots=True)
class _Run:
    """One goal after the other: the best starts so far, what is proved, no plan being better than which."""

    problem: Problem
    built: _Model
    seconds: float
    began: float
    best: tuple[int, ...]
    state: Literal["found", "impossible", "not found"] = "found"
    proved: list[bool] = field(default_factory=list)
    bounds: list[int] = field(default_factory=list)

    def reach(self, goal: str, share: float, stopped: Callable[[], bool], told: Told | None) -> bool:
        """Whether there is a plan after it."""

        def show(starts: tuple[int, ...]) -> None:
            if told:
                spent = monotonic() - self.began
                told(solution_of(self.problem, starts, tuple(self.proved), tuple(self.bounds), spent))

        spent = monotonic() - self.began
        left = max(0.2, min(self.seconds * share, self.seconds - spent))
        reached = _reach(self.built, goal, self.best, left, stopped, show)
        self.best = reached.starts or self.best
        if reached.state == "impossible" or not self.best:
            self.state = "impossible" if reached.state == "impossible" else "not found"
            return False
        self.proved.append(reached.state == "proved")
        self.bounds.append(reached.bound)
        if reached.value is not None:
            self.built.model.add(self.built.goals[goal] <= reached.value)
        return True

    def solution(self) -> Solution:
        spent = monotonic() - self.began
        return solution_of(self.problem, self.best, tuple(self.proved), tuple(self.bounds), spent)


def solution_of(
    problem: Problem,
    starts: tuple[int, ...],
    proved: tuple[bool, ...] = (),
    bounds: tuple[int, ...] = (),
    seconds: float = 0.0,
) -> Solution:
    """The plan with these starts."""
    ends = max(s + a.slots for s, a in zip(starts, problem.activities, strict=True))
    days = problem.calendar.grid.day
    roof = {int(days[s]) for s, a in zip(starts, problem.activities, strict=True) if a.place == "roof"}
    return Solution("found", starts, ends, len(roof), proved, bounds, seconds)


def greedy(problem: Problem) -> tuple[int, ...] | None:
    """Each as early as it goes, in their order: often stuck, for what it has put early has then waited too
    long. None where it is.
    """
    capacity = np.sum(problem.calendar.present, axis=0).astype(np.int64)
    taken = np.zeros_like(capacity)
    into: dict[int, list[Bound]] = {}
    for bound in problem.bounds:
        into.setdefault(bound.after, []).append(bound)
    placed: list[int] = []
    for place, activity in enumerate(problem.activities):
        least, most = 0, problem.calendar.grid.slots
        for bound in into.get(place, []):
            end = placed[bound.before] + problem.activities[bound.before].slots
            least = max(least, int(bound.ready[end]))
            most = most if bound.latest is None else min(most, int(bound.latest[end]))
        for start in problem.starts[place]:
            span = slice(start, start + activity.slots)
            if least <= start <= most and np.all(taken[span] + activity.hands <= capacity[span]):
                taken[span] += activity.hands
                placed.append(int(start))
                break
        else:
            return None
    return tuple(placed)


def _build(problem: Problem) -> _Model:
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    grid = problem.calendar.grid
    starts, ends = [], []
    for place, activity in enumerate(problem.activities):
        least = problem.earliest[place] or 0
        own = problem.starts[place]
        domain = cp_model.Domain.from_values([int(s) for s in own[own >= least]])
        starts.append(model.new_int_var_from_domain(domain, f"start {activity.id}"))
        ends.append(starts[-1] + activity.slots)
    finish = model.new_int_var(0, grid.slots, "finish")
    model.add_max_equality(finish, list(ends))
    built = _Model(model, starts, ends, finish, {}, {}, {})
    for bound in problem.bounds:
        keep_bound(model, problem, bound, starts)
    add_hands(model, problem, starts)
    _add_roof_days(built, problem)
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


def add_hands(model: cp_model.CpModel, problem: Problem, starts: list[cp_model.IntVar]) -> None:
    """Like hours: hands are only counted. Else each activity takes persons who stay from its start to its
    end.
    """
    present = problem.calendar.present
    busy = [i for i, a in enumerate(problem.activities) if a.hands]
    if all(np.array_equal(present[0], p) for p in present[1:]):
        intervals = [
            model.new_fixed_size_interval_var(starts[i], problem.activities[i].slots, "") for i in busy
        ]
        model.add_cumulative(intervals, [problem.activities[i].hands for i in busy], len(present))
        return
    from ortools.sat.python import cp_model

    takes = {(i, p): model.new_bool_var("") for i in busy for p in range(len(present))}
    for i in busy:
        model.add(sum(takes[i, p] for p in range(len(present))) == problem.activities[i].hands)
    for p, own in enumerate(present):
        intervals = []
        for i in busy:
            start, slots = starts[i], problem.activities[i].slots
            there = problem.starts[i][whole(own, slots)[problem.starts[i]]]
            domain = cp_model.Domain.from_values([int(s) for s in there])
            model.add_linear_expression_in_domain(start, domain).only_enforce_if(takes[i, p])
            intervals.append(model.new_optional_fixed_size_interval_var(start, slots, takes[i, p], ""))
        model.add_no_overlap(intervals)


def _add_roof_days(built: _Model, problem: Problem) -> None:
    """Which days somebody is on the roof, and from when to when."""
    from ortools.sat.python import cp_model

    model, day_of = built.model, problem.calendar.grid.day
    firsts: dict[int, cp_model.IntVar] = {}
    lasts: dict[int, cp_model.IntVar] = {}
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
            model.add_linear_expression_in_domain(built.starts[i], domain).only_enforce_if(here)
            if k not in built.used:
                built.used[k] = model.new_bool_var(f"roof on day {k}")
                bounds = (problem.calendar.grid.first_slot(k), problem.calendar.grid.first_slot(k + 1))
                firsts[k], lasts[k] = model.new_int_var(*bounds, ""), model.new_int_var(*bounds, "")
                model.add(lasts[k] >= firsts[k])
            model.add_implication(here, built.used[k])
            model.add(firsts[k] <= built.starts[i]).only_enforce_if(here)
            model.add(lasts[k] >= built.ends[i]).only_enforce_if(here)
        model.add_exactly_one(on_days)
    spans = sum(lasts[k] - firsts[k] for k in firsts)
    built.goals["finish"] = built.finish
    built.goals["roof days"] = sum(built.used.values())
    built.goals["standing about"] = spans * len(built.starts) * 4 + sum(built.starts)


@dataclass(frozen=True, slots=True)
class _Reached:
    """How far a search for one goal came: ``value`` of the starts it found, None where it found none; nothing
    is better than ``bound``.
    """

    state: Literal["proved", "bound", "impossible"]
    starts: tuple[int, ...] = ()
    bound: int = 0
    value: int | None = None


def _reach(
    built: _Model,
    goal: str,
    hint: tuple[int, ...],
    seconds: float,
    stopped: Callable[[], bool],
    show: Shown | None,
) -> _Reached:
    """From above first, for a good plan soon; what that leaves open, from below, for the proof."""
    first = _search_goal(built, goal, hint, seconds * FROM_ABOVE, stopped, show)
    if first.state != "bound" or stopped():
        return first
    then = _search_goal(
        built, goal, first.starts or hint, seconds * (1 - FROM_ABOVE), stopped, show, below=True
    )
    if then.state != "bound":
        return then
    known = [r for r in (first, then) if r.value is not None]
    if not known:
        return first
    best = min(known, key=lambda r: r.value or 0)
    bound = max(r.bound for r in known)
    return _Reached("proved" if bound == best.value else "bound", best.starts, bound, best.value)


def _search_goal(
    built: _Model,
    goal: str,
    hint: tuple[int, ...],
    seconds: float,
    stopped: Callable[[], bool],
    show: Shown | None,
    *,
    below: bool = False,
) -> _Reached:
    from ortools.sat.python import cp_model

    model = built.model
    model.clear_hints()  # type: ignore[no-untyped-call]
    for var, value in zip(built.starts, hint, strict=False):
        model.add_hint(var, value)
    model.minimize(built.goals[goal])
    solver, status = search(model, seconds, stopped, built.starts, show, below=below)
    if status == cp_model.INFEASIBLE:
        return _Reached("impossible")
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return _Reached("bound")
    starts = tuple(int(solver.value(v)) for v in built.starts)
    state: Literal["proved", "bound"] = "proved" if status == cp_model.OPTIMAL else "bound"
    return _Reached(state, starts, round(solver.best_objective_bound), round(solver.objective_value))


def search(
    model: cp_model.CpModel,
    seconds: float,
    stopped: Callable[[], bool],
    starts: list[cp_model.IntVar] | None = None,
    show: Callable[[tuple[int, ...]], None] | None = None,
    *,
    below: bool = False,
) -> tuple[cp_model.CpSolver, object]:
    """The solver after its search of at most so many seconds, and its status; better ``starts`` are shown
    when they are found. ``below``: it raises the bound until there is a plan, instead of bettering plans.
    """
    from ortools.sat.python import cp_model

    class Listener(cp_model.CpSolverSolutionCallback):
        def on_solution_callback(self) -> None:
            if starts is not None and show is not None:
                show(tuple(int(self.value(s)) for s in starts))
            if stopped():
                self.stop_search()

    solver = cp_model.CpSolver()
    solver.parameters.num_workers = WORKERS
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.random_seed = 7
    solver.parameters.cp_model_probing_level = 0  # it takes seconds and finds hardly anything in tables
    solver.parameters.use_objective_lb_search = below
    return solver, solver.solve(model, Listener())
