"""Whether a plan holds: every rule of it looked at afresh, on the weather and the work as they are now."""

from __future__ import annotations

from datetime import datetime

import numpy as np

from fahrtwind.core.job.days import PlannedStart, called
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.elsewhere import settled
from fahrtwind.core.stations.days.hands import Persons
from fahrtwind.core.stations.days.plan import Reason
from fahrtwind.core.stations.days.problem import Problem
from fahrtwind.core.stations.days.why_not import fewest


@dataclass(frozen=True, slots=True)
class KeptPlan:
    """``breaks``: what of it no longer goes; ``missing``: open steps it does not know; ``gone``: steps that
    are no longer to be done.
    """

    finish: datetime | None
    breaks: tuple[Reason, ...]
    missing: tuple[str, ...]
    gone: tuple[str, ...]


def kept_plan(problem: Problem, kept: tuple[PlannedStart, ...]) -> KeptPlan:
    """What a kept plan is worth now."""
    grid = problem.calendar.grid
    at = {p.step: grid.slot_at(p.starts) for p in kept}
    known = {a.id for a in problem.network.activities}
    open_ids = {a.id for a in problem.activities}
    starts = {i: at[a.id] for i, a in enumerate(problem.activities) if a.id in at}
    zone = grid.moment(0).tzinfo
    return KeptPlan(
        max((p.ends.astimezone(zone) for p in kept), default=None),
        breaches(problem, starts),
        tuple(a for a in (b.id for b in problem.activities) if a in open_ids - set(at)),
        tuple(step for step in at if step not in known),
    )


def kept_starts(problem: Problem) -> tuple[int, ...] | None:
    """Of the open steps in the kept plan; None where it has not all of them or no longer holds."""
    at = {p.step: problem.calendar.grid.slot_at(p.starts) for p in problem.calendar.days.kept}
    if not problem.activities or any(a.id not in at for a in problem.activities):
        return None
    starts = tuple(at[a.id] for a in problem.activities)
    return None if breaches(problem, dict(enumerate(starts))) else starts


def kept_persons(problem: Problem, starts: tuple[int, ...]) -> Persons | None:
    """Who was to do what when the plan was kept; None where that is not settled or no longer goes: somebody
    has left the crew, is not there, or is told at two things at once.
    """
    days, present = problem.calendar.days, problem.calendar.present
    if not settled(days):
        return None
    names = [called(person.name) for person in days.crew]
    own = {p.step: tuple(map(called, p.persons)) for p in days.kept}
    free = [own.copy() for own in present]
    who = []
    for activity, start in zip(problem.activities, starts, strict=True):
        span = slice(start, start + activity.slots)
        there = [p for p, name in enumerate(names) if name in own.get(activity.id, ())]
        if len(there) != activity.hands or not all(free[p][span].all() for p in there):
            return None
        for p in there:
            free[p][span] = False
        who.append(tuple(there))
    return tuple(who)


def breaches(problem: Problem, starts: dict[int, int]) -> tuple[Reason, ...]:
    """Every rule that these starts break: conditions, links, hands."""
    return (*_conditions(problem, starts), *_links(problem, starts), *_hands(problem, starts))


def _conditions(problem: Problem, starts: dict[int, int]) -> list[Reason]:
    found = []
    for i, start in starts.items():
        if not 0 <= start < problem.calendar.grid.slots:
            words = "it lies outside the days that are planned"
            found.append(Reason("past the plan", problem.activities[i].id, words))
        elif start not in problem.starts[i]:
            reasons = fewest(problem, i, np.array([start]))[1]
            found += reasons or (Reason("the order", problem.activities[i].id, "what is done comes first"),)
    return found


def _links(problem: Problem, starts: dict[int, int]) -> list[Reason]:
    found = []
    slots = problem.calendar.grid.slots
    for bound in problem.bounds:
        if bound.before not in starts or bound.after not in starts:
            continue
        before, after = problem.activities[bound.before], problem.activities[bound.after]
        end = min(max(starts[bound.before] + before.slots, 0), slots)
        if starts[bound.after] < bound.ready[end]:
            wait = f", {bound.link.wait.words}" if bound.link.wait else ""
            found.append(
                Reason("the order", after.id, f"too soon after “{before.title}”: {bound.link.why}{wait}")
            )
        elif bound.latest is not None and starts[bound.after] > bound.latest[end]:
            found.append(Reason("the order", after.id, f"too late after “{before.title}”: {bound.link.why}"))
    return found


def _hands(problem: Problem, starts: dict[int, int]) -> list[Reason]:
    there = np.sum(problem.calendar.present, axis=0)
    taken = np.zeros_like(there)
    found = []
    for i, start in starts.items():
        activity = problem.activities[i]
        span = slice(max(start, 0), max(start + activity.slots, 0))
        taken[span] += activity.hands
        if np.any(taken[span] > there[span]):
            found.append(Reason("too few hands", activity.id, "its hands are at something else then"))
    return found
