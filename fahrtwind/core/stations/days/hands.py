"""Who does what of a plan whose times are found."""

from __future__ import annotations

from fahrtwind.core.stations.days.problem import Problem
from fahrtwind.core.stations.days.pursuit import search


def persons_of(problem: Problem, starts: tuple[int, ...]) -> tuple[tuple[int, ...], ...]:
    """Who does what, by places in the crew: whoever is free longest, of those who stay to the end; where that
    leaves a hand short, any choice that leaves none short.
    """
    chosen = _by_turns(problem, starts)
    short = any(len(c) < a.hands for c, a in zip(chosen, problem.activities, strict=True))
    return (_any_choice(problem, starts) or chosen) if short else chosen


def _by_turns(problem: Problem, starts: tuple[int, ...]) -> tuple[tuple[int, ...], ...]:
    present = problem.calendar.present
    free = [0] * len(present)
    chosen: dict[int, tuple[int, ...]] = {}
    for i in sorted(range(len(starts)), key=lambda i: (starts[i], -problem.activities[i].hands)):
        start, activity = starts[i], problem.activities[i]
        able = [p for p in _able(problem, i, start) if free[p] <= start]
        able.sort(key=lambda p: (int(present[p][start:].argmin()), p))
        chosen[i] = tuple(sorted(able[: activity.hands]))
        for p in chosen[i]:
            free[p] = start + activity.slots
    return tuple(chosen[i] for i in range(len(starts)))


def _able(problem: Problem, place: int, start: int) -> list[int]:
    """Who stays from the start to the end."""
    span = slice(start, start + problem.activities[place].slots)
    return [p for p, own in enumerate(problem.calendar.present) if bool(own[span].all())]


def _any_choice(problem: Problem, starts: tuple[int, ...]) -> tuple[tuple[int, ...], ...] | None:
    """Nobody at two things at once, no hand short; None where there is no such choice."""
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    takes = {(i, p): model.new_bool_var("") for i, s in enumerate(starts) for p in _able(problem, i, s)}
    for i, activity in enumerate(problem.activities):
        model.add(sum(x for (j, _), x in takes.items() if j == i) == activity.hands)
    for p in range(len(problem.calendar.present)):
        own = [(i, x) for (i, q), x in takes.items() if q == p]
        slots = problem.activities
        model.add_no_overlap(
            [model.new_optional_fixed_size_interval_var(starts[i], slots[i].slots, x, "") for i, x in own]
        )
    solver, status = search(model, 1.0, lambda: False)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return tuple(
        tuple(p for (j, p), x in takes.items() if j == i and solver.value(x)) for i in range(len(starts))
    )
