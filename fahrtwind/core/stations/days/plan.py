"""The plan as it is told: who does what when, what cures until when, how good it is at least."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

import numpy as np

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.grid import SLOT_MIN
from fahrtwind.core.stations.days.hands import Persons, persons_of
from fahrtwind.core.stations.days.model import GOALS
from fahrtwind.core.stations.days.planner import Solution
from fahrtwind.core.stations.days.problem import Problem
from fahrtwind.core.tables.work import Place, StepKind


@dataclass(frozen=True, slots=True)
class PlannedStep:
    """An activity with its time by the clock of the place; ``rests``: until when what it did cures or dwells,
    None where nothing does; ``pinned``, ``done``: by whom plans.
    """

    id: str
    kind: StepKind
    title: str
    place: Place
    persons: tuple[str, ...]
    starts: datetime
    ends: datetime
    rests: datetime | None
    rests_words: str
    pinned: bool
    done: bool


@dataclass(frozen=True, slots=True)
class Reason:
    """What stands against a plan or a step, in a word and in words; ``step``: which."""

    name: str
    step: str
    words: str


@dataclass(frozen=True, slots=True)
class DayPlan:
    """``steps`` by their start. ``finish``: when it may drive; ``hands_off``: when the last work ends.
    ``bound_finish``: no plan finishes earlier; ``proved``: which goals are. ``waiting_h``: between first and
    last work of the days on the roof, less the work. ``reasons``: why there is none. ``guessed_from``: what
    cures after that is reckoned as on a cool day, None where the weather is told to the end or left out.
    """

    state: Literal["found", "impossible", "not found", "nothing to do"]
    steps: tuple[PlannedStep, ...]
    finish: datetime | None
    hands_off: datetime | None
    bound_finish: datetime | None
    roof_days: int
    bound_roof_days: int | None
    waiting_h: float
    proved: tuple[str, ...]
    weather_known: bool
    guessed_from: datetime | None
    reasons: tuple[Reason, ...]


def told(
    problem: Problem, solution: Solution, reasons: tuple[Reason, ...] = (), persons: Persons | None = None
) -> DayPlan:
    """The plan of a solution, with what is done already; ``persons``: who does what, None where it is to be
    chosen.
    """
    grid = problem.calendar.grid
    known = not problem.calendar.ignored
    if solution.state != "found":
        none = (None, None, None, 0, None, 0.0, (), known, None, reasons)
        return DayPlan(solution.state, (), *none)
    who = persons_of(problem, solution.starts) if persons is None else persons
    steps = [*_done(problem), *_open(problem, solution.starts, who)]
    if not steps:
        return DayPlan("nothing to do", (), None, None, None, 0, None, 0.0, (), known, None, ())
    steps.sort(key=lambda s: (s.starts, s.ends))
    work = [s for s in steps if s.kind != "drive"]
    bounds = dict(zip(GOALS, solution.bounds, strict=False))
    return DayPlan(
        "found",
        tuple(steps),
        max(s.ends for s in steps),
        max((s.ends for s in work), default=None),
        grid.moment(bounds["finish"]) if "finish" in bounds else None,
        solution.roof_days,
        bounds.get("roof days"),
        _waiting(problem, solution.starts),
        tuple(goal for goal, proved in zip(GOALS, solution.proved, strict=False) if proved),
        known,
        _guessed_from(problem, solution.ends),
        (),
    )


def _guessed_from(problem: Problem, ends: int) -> datetime | None:
    known = np.flatnonzero(problem.calendar.weather.known)
    if not len(known) or int(known[-1]) + 1 >= ends:
        return None
    return problem.calendar.grid.moment(int(known[-1]) + 1)


def _open(problem: Problem, starts: tuple[int, ...], who: Persons) -> list[PlannedStep]:
    grid, crew = problem.calendar.grid, problem.calendar.days.crew
    pinned = {p.step for p in problem.calendar.days.pins}
    found = []
    for i, persons in enumerate(who):
        activity, end = problem.activities[i], starts[i] + problem.activities[i].slots
        rests = [b for b in problem.bounds if b.before == i and b.link.wait is not None]
        last = max(rests, key=lambda b: int(b.ready[end]), default=None)
        until = None if last is None else grid.moment(min(int(last.ready[end]), grid.slots))
        words = "" if last is None or last.link.wait is None else last.link.wait.words
        names = tuple(crew[p].name for p in persons)
        found.append(
            PlannedStep(
                activity.id,
                activity.kind,
                activity.title,
                activity.place,
                names,
                grid.moment(starts[i]),
                grid.moment(end),
                until,
                words,
                activity.id in pinned,
                False,
            )
        )
    return found


def _done(problem: Problem) -> list[PlannedStep]:
    own = {d.step: d for d in problem.calendar.days.done}
    zone = problem.calendar.grid.moment(0).tzinfo
    return [
        PlannedStep(
            a.id,
            a.kind,
            a.title,
            a.place,
            (),
            own[a.id].started.astimezone(zone),
            own[a.id].ended.astimezone(zone),
            None,
            "",
            False,
            True,
        )
        for a in problem.network.activities
        if a.id in problem.done
    ]


def _waiting(problem: Problem, starts: tuple[int, ...]) -> float:
    """Hours on roof days in which nobody is on the roof."""
    day_of = problem.calendar.grid.day
    busy: dict[int, set[int]] = {}
    for start, activity in zip(starts, problem.activities, strict=True):
        if activity.place == "roof":
            busy.setdefault(int(day_of[start]), set()).update(range(start, start + activity.slots))
    return sum(max(b) + 1 - min(b) - len(b) for b in busy.values()) * SLOT_MIN / 60
