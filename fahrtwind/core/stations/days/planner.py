"""The plan: earliest finish, then fewest days on the roof, then least standing about; proved or bounded."""

from __future__ import annotations

from collections.abc import Callable
from time import monotonic
from typing import Literal

import numpy as np

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.model import model_of
from fahrtwind.core.stations.days.problem import Bound, Problem
from fahrtwind.core.stations.days.pursuit import Standing, pursue

Told = Callable[["Solution"], None]


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


def solve(
    problem: Problem,
    seconds: float,
    goals: int = 3,
    stopped: Callable[[], bool] = lambda: False,
    told: Told = lambda solution: None,
    known: tuple[int, ...] | None = None,
) -> Solution:
    """The best plan within so many seconds, looked for from a ``known`` one where there is one. Nothing to do
    is a plan too.
    """
    began = monotonic()
    if not problem.activities:
        return Solution("found", (), 0, 0, (True,) * goals, (0,) * goals, 0.0)
    if any(first is None for first in problem.earliest):
        return Solution("impossible", (), 0, 0, (), (), monotonic() - began)

    def show(standing: Standing) -> None:
        told(_of(problem, standing))

    found = pursue(model_of([problem]), known or greedy(problem) or (), seconds, goals, stopped, show)
    return _of(problem, found)


def _of(problem: Problem, standing: Standing) -> Solution:
    if standing.state != "found":
        return Solution(standing.state, (), 0, 0, (), (), standing.seconds)
    return solution_of(problem, standing.starts, standing.proved, standing.bounds, standing.seconds)


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
