"""Choosing placements: a set packing problem, one constraint for every spot of the roof, solved by a
constraint solver.

Two frames overlap only if the front port corner of their common part lies in both, and that corner takes its
x from one and its y from the other; so it is enough to allow at most one panel over each of those spots
(position-indexed formulation, Beasley 1985). The linear relaxation comes first: it is nearly tight, and a
placement whose reduced cost exceeds the gap between it and the best layout known is in no better layout
(reduced cost fixing). The solver gets the few that are left, and what it proves is a bound on every layout
where the placements are complete.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

import numpy as np

from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.layout.proposals.placements import FloatArray, IntArray, Placements

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

WORKERS = 2
FIRST_TRY = 700
LEAST_SECONDS = 0.05
CROWDED, SIMPLEX_SHARE, NONZEROS_A_SECOND = 0.6, 0.35, 45_000
"""Rows for every placement from which simplex is tried first, for which share of the time, and what interior
points do in a second; measured on the roofs of the bench."""
WORK_SHARE = 0.92
"""Of the time given: building and ending a search take the rest."""
MANY, LATE_SHARE = 3000, 0.15
SLACK = 1e-6


@dataclass(frozen=True, slots=True, eq=False)
class Task:
    """Placements with what each is worth, and the limits: how many of each model and in all, and what the
    roof bears.

    ``pairs``: these two only together. ``unlike``: of each of these sets at most so many, to get another
    layout.
    """

    placements: Placements
    worth: IntArray
    model: IntArray
    at_most: Sequence[int]
    at_most_in_all: int
    mass_g: Sequence[int]
    mass_left_g: int
    pairs: IntArray | None = None
    unlike: Sequence[tuple[IntArray, int]] = ()

    def kept(self, keep: IntArray) -> Task:
        """The task with placements of these indices only; it must have no pairs or sets yet."""
        return replace(
            self, placements=self.placements.chosen(keep), worth=self.worth[keep], model=self.model[keep]
        )


@dataclass(frozen=True, slots=True, eq=False)
class Packed:
    """The placements chosen, what they are worth together, and what no layout of these placements can exceed.

    ``bound`` is None where the time was too short for one.
    """

    chosen: IntArray
    worth: int
    bound: int | None
    proved: bool


class Search:
    """What a search asks while it runs: how long is left, in seconds, and whether to stop."""

    def __init__(
        self, seconds_left: Callable[[], float], cancelled: Callable[[], bool] = lambda: False
    ) -> None:
        self.seconds_left = seconds_left
        self.cancelled = cancelled

    def over(self) -> bool:
        return self.cancelled() or self.seconds_left() <= 0.05


def greedy(task: Task) -> IntArray:
    """A layout at once: the best of a few orders in which panels are laid as long as they fit."""
    p, worth = task.placements, task.worth
    per_area = worth / (p.length * p.width)
    orders = (
        np.lexsort((p.y, p.x, -worth)),
        np.lexsort((p.y, p.x, -per_area)),
        np.lexsort((p.y, -worth, p.x)),
        np.lexsort((p.y, -per_area, p.x)),
        np.lexsort((p.y, -(p.x + p.length), -worth)),
        np.lexsort((p.x, p.y, -worth)),
    )
    found = [_laid(task, order) for order in orders] if len(p) else [np.empty(0, dtype=np.int64)]
    return max(found, key=lambda chosen: int(worth[chosen].sum()))


def _laid(task: Task, order: IntArray) -> IntArray:
    alive = task.worth > 0
    left, in_all, mass = list(task.at_most), task.at_most_in_all, task.mass_left_g
    unlike = [(set(members.tolist()), most) for members, most in task.unlike]
    partner = {int(a): int(b) for a, b in task.pairs} if task.pairs is not None else {}
    chosen: list[int] = []
    for one in order.tolist():
        if not alive[one]:
            continue
        both = [one, partner[one]] if one in partner else [one]
        model = int(task.model[one])
        fits = left[model] >= len(both) and in_all >= len(both) and mass >= len(both) * task.mass_g[model]
        if (
            not fits
            or not all(alive[i] for i in both)
            or (len(both) == 2 and task.placements.clash(one)[both[1]])
        ):
            continue
        if any(len(members & {*chosen, *both}) > most for members, most in unlike):
            continue
        for i in both:
            chosen.append(i)
            alive &= ~task.placements.clash(i)
        left[model], in_all, mass = (
            left[model] - len(both),
            in_all - len(both),
            mass - len(both) * task.mass_g[model],
        )
    return np.array(sorted(chosen), dtype=np.int64)


def spots(placements: Placements) -> tuple[IntArray, IntArray]:
    """The x and y that have to be watched: starts after which something ends before the next start."""
    p = placements
    return _watched(p.x, p.x + p.length + p.gap_mm), _watched(p.y, p.y + p.width + p.side_gap_mm)


def _watched(starts: IntArray, ends: IntArray) -> IntArray:
    first, last = np.unique(starts), np.unique(ends)
    ended = np.searchsorted(last, first, side="right")
    return first[np.append(ended[1:] > ended[:-1], True)] if len(first) else first


def pack(
    task: Task,
    search: Search,
    seconds: float,
    hint: IntArray,
    tell: Callable[[IntArray], None] = lambda _: None,
    known: int = 0,
) -> Packed:
    """The most worth that fits, starting from ``hint``; ``tell`` hears of every better layout.

    ``known`` is the worth of a layout found elsewhere: only better ones are looked for. ``hint``: the
    placements that are laid, as indices.
    """
    if not len(task.placements):
        return Packed(hint, 0, 0, True)
    seconds = min(seconds, search.seconds_left()) * WORK_SHARE
    until = search.seconds_left() - seconds
    relaxed = relax(task, seconds)
    if relaxed is None:
        return Packed(hint, int(task.worth[hint].sum()), None, False)
    bound, reduced = relaxed.whole(0.0), relaxed.reduced
    best, worth, limit = hint, int(task.worth[hint].sum()), bound
    reach = float(np.sort(reduced)[min(FIRST_TRY, len(reduced)) - 1])
    while max(worth, known) < limit and not search.over() and search.seconds_left() - until > LEAST_SECONDS:
        reach = min(reach, bound - max(worth, known))
        keep = np.union1d(np.flatnonzero(reduced <= reach + SLACK), best)
        if len(keep) > MANY and search.seconds_left() - until < seconds * LATE_SHARE:
            break  # what is left of the time would go into building so large a problem
        found = _solve_kept(task, keep, best, search, until, tell)
        best, worth = found.chosen, found.worth
        limit = min(limit, max(found.bound or bound, relaxed.whole(reach), worth))
        if not found.proved or reach >= bound - max(worth, known):
            break
        reach = bound - max(worth, known)
    return Packed(best, worth, limit, worth >= limit)


@dataclass(frozen=True, slots=True, eq=False)
class Relaxed:
    """The linear relaxation: its value, what each placement falls short of paying for its spots, and the step
    worth comes in.
    """

    value: float
    reduced: FloatArray
    step: int

    def whole(self, short: float) -> int:
        """What no layout exceeds that has a placement falling short by more than ``short``. In the unit of
        the worth.
        """
        return int((self.value - short + SLACK * max(1.0, self.value)) // self.step) * self.step


def relax(task: Task, seconds: float) -> Relaxed | None:
    """A bound by the linear relaxation, with reduced costs; None where the time is too short.

    On crowded roofs, which have many rows to watch, the simplex method is several times as fast as interior
    points; on long bare ones it is the other way about. What simplex cannot do in a share of the time is left
    to interior points, but only what they can do in time: they cannot be stopped.
    """
    matrix, sides, count = _equations(task)
    cost = np.concatenate([-task.worth.astype(np.float64), np.zeros(count - len(task.placements))])
    upper = np.ones(count)
    upper[count - len(sides[1]) :] = sides[1]
    program = (cost, upper, matrix, sides[0])
    crowded = matrix.shape[0] > CROWDED * len(task.placements)
    in_time = matrix.nnz < NONZEROS_A_SECOND * seconds * (1 - SIMPLEX_SHARE * crowded)
    simplex = 0.0 if in_time and not crowded else seconds * (SIMPLEX_SHARE if in_time else 1.0)
    solved = _by_simplex(*program, simplex) if simplex else None
    if solved is None and in_time:
        solved = _by_interior_points(*program, seconds - simplex)
    if solved is None:
        return None
    value, prices = solved
    step = int(np.gcd.reduce(task.worth)) or 1
    reduced = cost - matrix.T @ prices
    return Relaxed(value, np.maximum(reduced[: len(task.placements)], 0.0), step)


def _by_simplex(
    cost: FloatArray, upper: FloatArray, matrix: Any, right: FloatArray, seconds: float
) -> tuple[float, FloatArray] | None:
    """The most worth and the price of every row."""
    from ortools.linear_solver.python import model_builder_helper as linear

    model, solver = linear.ModelBuilderHelper(), linear.ModelSolverHelper("glop")
    fill: Any = model.fill_model_from_sparse_data  # its stubs know no shapes
    fill(np.zeros(len(cost)), upper, cost, right, right, matrix)
    solver.set_time_limit_in_seconds(max(seconds, LEAST_SECONDS))
    solver.solve(model)
    if solver.status() != linear.SolveStatus.OPTIMAL:
        return None
    return -float(solver.objective_value()), np.asarray(solver.dual_values())


def _by_interior_points(
    cost: FloatArray, upper: FloatArray, matrix: Any, right: FloatArray, seconds: float
) -> tuple[float, FloatArray] | None:
    """The most worth and the price of every row."""
    from scipy import optimize

    linprog: Any = optimize.linprog  # its stubs know no sparse matrices
    bounds = np.stack([np.zeros(len(cost)), upper], axis=1)
    solved = linprog(
        cost,
        A_eq=matrix,
        b_eq=right,
        bounds=bounds,
        method="highs-ipm",
        options={"time_limit": max(seconds, LEAST_SECONDS)},
    )
    if solved.x is None or solved.status != 0:
        return None
    return -float(solved.fun), solved.eqlin.marginals


def _equations(task: Task) -> tuple[Any, tuple[FloatArray, FloatArray], int]:
    """Along every watched row the roof is taken at a start and given back at an end; then the limits, each
    with its slack.
    """
    from scipy.sparse import coo_matrix

    p = task.placements
    xs, ys = spots(p)
    start, end = np.searchsorted(xs, p.x), np.searchsorted(xs, p.x + p.length + p.gap_mm)
    first, last = np.searchsorted(ys, p.y), np.searchsorted(ys, p.y + p.width + p.side_gap_mm)
    rows, columns, values = list[IntArray](), list[IntArray](), list[FloatArray]()
    row, column = 0, len(p)
    for lane in range(len(ys)):
        inside = np.flatnonzero((first <= lane) & (last > lane))
        points = np.unique(np.concatenate([start[inside], end[inside]]))
        n = len(points)
        rows += [
            row + np.searchsorted(points, start[inside]),
            row + np.searchsorted(points, end[inside]),
            row + np.arange(n),
            row + 1 + np.arange(n - 1),
        ]
        columns += [inside, inside, column + np.arange(n), column + np.arange(n - 1)]
        values += [np.ones(len(inside)), -np.ones(len(inside)), -np.ones(n), np.ones(n - 1)]
        row, column = row + n, column + n
    limits = _limits(task)
    for members, weights, _ in limits:
        rows += [np.full(len(members) + 1, row)]
        columns += [np.append(members, column)]
        values += [np.append(weights, 1.0)]
        row, column = row + 1, column + 1
    flat = (np.concatenate(values), (np.concatenate(rows), np.concatenate(columns)))
    most = np.array([float(m) for *_, m in limits])
    right = np.zeros(row)
    right[row - len(limits) :] = most
    return (
        coo_matrix(flat, shape=(row, column)).tocsr(),
        (right, np.where(np.isin(range(len(limits)), _exact(task, limits)), 0.0, np.inf)),
        column,
    )


def _limits(task: Task) -> list[tuple[IntArray, FloatArray, float]]:
    """The limits as sums: which placements, with what weight, at most how much. Pairs are limits of nothing
    at all.
    """
    everything = np.arange(len(task.placements))
    mass = np.array(task.mass_g, dtype=np.float64)[task.model]
    found = [
        (own := np.flatnonzero(task.model == m), np.ones(len(own)), float(most))
        for m, most in enumerate(task.at_most)
    ]
    found += [
        (everything, np.ones(len(everything)), float(task.at_most_in_all)),
        (everything, mass, float(task.mass_left_g)),
    ]
    found += [(members, np.ones(len(members)), float(most)) for members, most in task.unlike]
    found += [(pair, np.array([1.0, -1.0]), 0.0) for pair in (task.pairs if task.pairs is not None else ())]
    return found


def _exact(task: Task, limits: list[tuple[IntArray, FloatArray, float]]) -> list[int]:
    """Which limits leave no slack: the pairs, which come last."""
    pairs = len(task.pairs) if task.pairs is not None else 0
    return list(range(len(limits) - pairs, len(limits)))


def _solve_kept(
    task: Task, keep: IntArray, best: IntArray, search: Search, until: float, tell: Callable[[IntArray], None]
) -> Packed:
    """The same task with some of its placements; what is found is told by the numbers of the whole one."""
    at = np.full(len(task.placements), -1, dtype=np.int64)
    at[keep] = np.arange(len(keep))
    pairs = None if task.pairs is None else at[task.pairs]
    small = replace(
        task,
        placements=task.placements.chosen(keep),
        worth=task.worth[keep],
        model=task.model[keep],
        unlike=[(at[m][at[m] >= 0], most) for m, most in task.unlike],
        pairs=None if pairs is None else pairs[(pairs >= 0).all(axis=1)],
    )
    if pairs is not None:  # half of a pair cannot be taken
        halves = pairs[(pairs >= 0).any(axis=1) & (pairs < 0).any(axis=1)]
        small = replace(small, worth=_without(small.worth, halves[halves >= 0]))
    found = _solve(small, search, until, at[best], lambda chosen: tell(keep[chosen]))
    return Packed(keep[found.chosen], found.worth, found.bound, found.proved)


def _without(worth: IntArray, gone: IntArray) -> IntArray:
    left = worth.copy()
    left[gone] = -1
    return left


def _model(task: Task, hint: IntArray) -> tuple[cp_model.CpModel, list[cp_model.IntVar]]:
    from ortools.sat.python import cp_model

    p = task.placements
    model = cp_model.CpModel()
    chosen = [model.new_bool_var("") for _ in range(len(p))]
    xs, ys = spots(p)
    rows = [(p.y <= y) & (p.y + p.width + p.side_gap_mm > y) for y in ys]
    seen: set[bytes] = set()
    for x in xs:
        over = np.flatnonzero((p.x <= x) & (p.x + p.length + p.gap_mm > x))
        for row in rows:
            here = over[row[over]]
            key = here.tobytes()
            if len(here) > 1 and key not in seen:
                seen.add(key)
                model.add_at_most_one([chosen[i] for i in here])
    _add_limits(task, model, chosen)
    in_hint = set(hint.tolist())
    for i, variable in enumerate(chosen):
        model.add_hint(variable, i in in_hint)
    model.maximize(sum(int(w) * v for w, v in zip(task.worth, chosen, strict=True)))
    return model, chosen


def _add_limits(task: Task, model: cp_model.CpModel, chosen: list[cp_model.IntVar]) -> None:
    for members, weights, most in _limits(task)[: len(task.at_most) + 2 + len(task.unlike)]:
        if len(members):
            model.add(sum(int(w) * chosen[i] for i, w in zip(members, weights, strict=True)) <= int(most))
    for one, other in task.pairs if task.pairs is not None else ():
        model.add(chosen[one] == chosen[other])


def _solve(
    task: Task, search: Search, until: float, hint: IntArray, tell: Callable[[IntArray], None]
) -> Packed:
    from ortools.sat.python import cp_model

    model, chosen = _model(task, hint)

    class Listener(cp_model.CpSolverSolutionCallback):
        def on_solution_callback(self) -> None:
            tell(np.array([i for i, v in enumerate(chosen) if self.boolean_value(v)], dtype=np.int64))

    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = max(search.seconds_left() - until, LEAST_SECONDS)
    solver.parameters.num_workers = WORKERS
    solver.parameters.random_seed = 1
    # the relaxation is tight: nearly all the time would go into simplifying what needs no simplifying
    solver.parameters.max_presolve_iterations = 1
    solver.parameters.cp_model_probing_level = 0
    solver.parameters.symmetry_level = 0
    solver.best_bound_callback = lambda _: solver.stop_search() if search.cancelled() else None
    status = solver.solve(model, Listener())
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Packed(hint, int(task.worth[hint].sum()), None, False)
    found = np.array([i for i, v in enumerate(chosen) if solver.boolean_value(v)], dtype=np.int64)
    bound = int(solver.best_objective_bound + 1e-6)
    return Packed(found, int(task.worth[found].sum()), bound, status == cp_model.OPTIMAL)
