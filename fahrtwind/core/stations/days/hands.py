"""Who does what of a plan whose times are found."""

from __future__ import annotations

from collections.abc import Sequence

from fahrtwind.core.stations.days.model import TICKS, Who, begins, crew_of
from fahrtwind.core.stations.days.problem import Problem
from fahrtwind.core.stations.days.pursuit import search

Persons = tuple[tuple[int, ...], ...]
"""For each open activity who does it, by places in the crew."""


def persons_of(problem: Problem, starts: tuple[int, ...]) -> Persons:
    """Who does what, by places in the crew: whoever is free longest, of those who stay to the end; where that
    leaves a hand short, any choice that leaves none short.
    """
    chosen = _by_turns(problem, starts)
    short = any(len(c) < a.hands for c, a in zip(chosen, problem.activities, strict=True))
    return (persons_of_all([problem], [starts]) or (chosen,))[0] if short else chosen


def _by_turns(problem: Problem, starts: tuple[int, ...]) -> Persons:
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


def persons_of_all(
    problems: Sequence[Problem], starts: Sequence[tuple[int, ...]]
) -> tuple[Persons, ...] | None:
    """Nobody at two things at once, on whichever vehicle, no hand short; of all such choices one in which
    people go from vehicle to vehicle as little as can be. None where there is no such choice.
    """
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    takes: dict[tuple[int, int, int], cp_model.IntVar] = {}
    busy: dict[Who, list[cp_model.IntervalVar]] = {}
    visits: dict[tuple[Who, int, int], list[cp_model.IntVar]] = {}
    for v, (problem, own) in enumerate(zip(problems, starts, strict=True)):
        crew, at = crew_of(problem.calendar.days.crew), begins(problem, problems[0])
        for i, (start, activity) in enumerate(zip(own, problem.activities, strict=True)):
            for p in _able(problem, i, start):
                take = takes[v, i, p] = model.new_bool_var("")
                span = (TICKS * start + at, TICKS * activity.slots)
                busy.setdefault(crew[p], []).append(
                    model.new_optional_fixed_size_interval_var(*span, take, "")
                )
                day = problem.calendar.grid.date_of(int(problem.calendar.grid.day[start])).toordinal()
                visits.setdefault((crew[p], day, v), []).append(take)
            able = [x for (w, j, _), x in takes.items() if (w, j) == (v, i)]
            model.add(sum(able) == activity.hands)
    for intervals in busy.values():
        model.add_no_overlap(intervals)
    there = [model.new_bool_var("") for _ in visits]
    for visit, takes_there in zip(there, visits.values(), strict=True):
        model.add_max_equality(visit, takes_there)
    model.minimize(sum(there))
    solver, status = search(model, 2.0, lambda: False)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    chosen = [[tuple[int, ...]()] * len(own) for own in starts]
    for (v, i, p), take in takes.items():
        if solver.value(take):
            chosen[v][i] = (*chosen[v][i], p)
    return tuple(tuple(own) for own in chosen)
