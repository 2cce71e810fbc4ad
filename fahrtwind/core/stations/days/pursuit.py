"""Goal after goal, each kept while the next is looked for, by a constraint solver: proved or bounded."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import field
from time import monotonic
from typing import TYPE_CHECKING, Literal

from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.days.model import GOALS, Model

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

Shown = Callable[[tuple[int, ...]], None]
WORKERS = 1
"""One: the same job gives the same plan, and the other core answers meanwhile; two are hardly faster."""
SHARES = (0.75, 0.2, 0.05)
"""Of the time there is, for each goal."""
FROM_ABOVE = 0.25
"""Of a goal's time, until the bound is raised instead."""


@dataclass(frozen=True, slots=True)
class Standing:
    """How far a pursuit is: the best starts so far (of all problems, one after the other), and of each goal
    that was looked for whether it is proved and what none is better than.
    """

    state: Literal["found", "impossible", "not found"]
    starts: tuple[int, ...]
    proved: tuple[bool, ...] = ()
    bounds: tuple[int, ...] = ()
    seconds: float = 0.0


def pursue(
    built: Model,
    hint: tuple[int, ...],
    seconds: float,
    goals: int,
    stopped: Callable[[], bool],
    told: Callable[[Standing], None],
) -> Standing:
    """The best within so many seconds; ``hint``: starts that are allowed, empty where none are known."""
    run = _Run(built, seconds, monotonic(), hint)
    if hint:
        told(run.standing())
    for goal, share in zip(GOALS[:goals], SHARES, strict=False):
        if not run.reach(goal, share, stopped, told):
            return Standing(run.state, (), (), (), monotonic() - run.began)
        told(run.standing())
        if stopped():
            break
    return run.standing()


@dataclass(slots=True)
class _Run:
    built: Model
    seconds: float
    began: float
    best: tuple[int, ...]
    state: Literal["found", "impossible", "not found"] = "found"
    proved: list[bool] = field(default_factory=list)
    bounds: list[int] = field(default_factory=list)

    def reach(
        self, goal: str, share: float, stopped: Callable[[], bool], told: Callable[[Standing], None]
    ) -> bool:
        """Whether there is a plan after it."""

        def show(starts: tuple[int, ...]) -> None:
            told(replace(self.standing(), starts=starts))

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

    def standing(self) -> Standing:
        spent = monotonic() - self.began
        return Standing("found", self.best, tuple(self.proved), tuple(self.bounds), spent)


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
    built: Model,
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
    built: Model,
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
    for var, value in zip(built.flat, hint, strict=False):
        model.add_hint(var, value)
    model.minimize(built.goals[goal])
    solver, status = search(model, seconds, stopped, built.flat, show, below=below)
    if status == cp_model.INFEASIBLE:
        return _Reached("impossible")
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return _Reached("bound")
    starts = tuple(int(solver.value(v)) for v in built.flat)
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
    solver.parameters.use_timetable_edge_finding_in_cumulative = True  # proofs in a tenth of the time
    solver.parameters.use_objective_lb_search = below
    return solver, solver.solve(model, Listener())
