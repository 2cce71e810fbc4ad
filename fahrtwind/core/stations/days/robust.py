"""The plan that holds in most of the ways the weather may go, and among those the one that ends first."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from fahrtwind.core.stations.days.kept import breaches
from fahrtwind.core.stations.days.model import add_hands, keep_bound
from fahrtwind.core.stations.days.problem import Problem
from fahrtwind.core.stations.days.pursuit import search

if TYPE_CHECKING:
    from ortools.sat.python import cp_model


def most_often(
    first: Problem,
    members: tuple[Problem, ...],
    hint: tuple[int, ...],
    seconds: float,
    stopped: Callable[[], bool],
) -> tuple[tuple[int, ...], int, bool]:
    """Starts, in how many members they hold, and whether none hold in more. ``hint`` counts where nothing
    better is found. Persons and the order hold in every member; what the weather decides in those that are
    counted.
    """
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    grid = first.calendar.grid
    starts = []
    for i, activity in enumerate(first.activities):
        any_member = sorted({int(s) for m in members for s in m.starts[i]})
        if not any_member:
            return hint, _holding(members, hint), False
        starts.append(model.new_int_var_from_domain(cp_model.Domain.from_values(any_member), activity.id))
    holds = _holds_in(model, members, starts)
    add_hands(model, [first], [starts])
    finish = model.new_int_var(0, grid.slots, "finish")
    for start, activity in zip(starts, first.activities, strict=True):
        model.add(finish >= start + activity.slots)
    for var, value in zip(starts, hint, strict=True):
        model.add_hint(var, value)
    model.maximize(sum(holds) * (grid.slots + 1) - finish)

    solver, status = search(model, seconds, stopped)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return hint, _holding(members, hint), False
    best = tuple(int(solver.value(v)) for v in starts)
    if _holding(members, best) < _holding(members, hint):
        best = hint
    return best, _holding(members, best), status == cp_model.OPTIMAL


def _holds_in(
    model: cp_model.CpModel, members: tuple[Problem, ...], starts: list[cp_model.IntVar]
) -> list[cp_model.IntVar]:
    """For each member a switch that, where it is on, makes the starts hold in it."""
    from ortools.sat.python import cp_model

    holds = [model.new_bool_var(f"holds {m}") for m in range(len(members))]
    for member, good in zip(members, holds, strict=True):
        for i, own in enumerate(member.starts):
            domain = cp_model.Domain.from_values([int(s) for s in own])
            model.add_linear_expression_in_domain(starts[i], domain).only_enforce_if(good)
        for bound in member.bounds:
            keep_bound(model, member, bound, starts, good)
    return holds


def _holding(members: tuple[Problem, ...], starts: tuple[int, ...]) -> int:
    return sum(not breaches(m, dict(enumerate(starts))) for m in members)
