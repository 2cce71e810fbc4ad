"""The planning problem in numbers: allowed starts of every open activity, and what each link demands."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache, cached_property, partial

import numpy as np

from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.days.activities import Activity, Network, Precedence
from fahrtwind.core.stations.days.conditions import (
    A_DAY,
    Calendar,
    Condition,
    allowed_starts,
    conditions_of,
    ready_after,
)
from fahrtwind.core.stations.days.grid import SLOT_MIN, IntArray
from fahrtwind.core.stations.days.work_facts import Wait


@dataclass(frozen=True, slots=True, eq=False)
class Bound:
    """A link between open activities by their places in the problem. ``ready``: for each end of the one, the
    earliest start of the other; ``latest``: its latest, None where it may wait.
    """

    before: int
    after: int
    ready: IntArray
    latest: IntArray | None
    link: Precedence


@dataclass(frozen=True, eq=False)
class Problem:
    """``starts``: where each open activity can begin, by the half hours alone; ``done``: first and last half
    hour of those that are finished.
    """

    calendar: Calendar
    network: Network
    activities: tuple[Activity, ...]
    conditions: tuple[tuple[Condition, ...], ...]
    starts: tuple[IntArray, ...]
    bounds: tuple[Bound, ...]
    done: dict[str, tuple[int, int]]

    @cached_property
    def earliest(self) -> tuple[int | None, ...]:
        """The earliest start of each if there were hands enough and no wait were too long: a lower bound,
        found forward through the links. None where there is none in the days that are planned.
        """
        found: list[int | None] = []
        into: dict[int, list[Bound]] = {}
        for bound in self.bounds:
            into.setdefault(bound.after, []).append(bound)
        for place in range(len(self.activities)):
            least = 0
            for bound in into.get(place, []):
                first = found[bound.before]
                if first is None:
                    least = self.calendar.grid.slots + 1
                    break
                least = max(least, int(bound.ready[first + self.activities[bound.before].slots]))
            own = self.starts[place]
            at = int(np.searchsorted(own, least))
            found.append(int(own[at]) if at < len(own) else None)
        return tuple(found)


def problem_of(network: Network, calendar: Calendar) -> Problem:
    """The problem of a network on a calendar; what is done is settled."""
    grid = calendar.grid
    done = {
        d.step: (grid.slot_at(d.started), grid.slot_after(d.ended))
        for d in calendar.days.done
        if any(a.id == d.step for a in network.activities)
    }
    activities = tuple(a for a in network.activities if a.id not in done)
    places = {a.id: i for i, a in enumerate(activities)}
    conditions = tuple(tuple(conditions_of(a, calendar)) for a in activities)
    starts = [
        np.flatnonzero(allowed_starts(list(c), a.slots)) for a, c in zip(activities, conditions, strict=True)
    ]
    bounds = []
    table = cache(partial(_table, calendar))  # most links ask for the same few
    for link in network.links:
        if link.after in done:
            continue  # it has been done: whatever the order says now comes too late
        ready, latest = table(link.wait, link.most_h, link.day)
        if link.before in done:
            after = places[link.after]
            starts[after] = _after_done(starts[after], done[link.before][1], link, calendar, ready, latest)
        else:
            bounds.append(Bound(places[link.before], places[link.after], ready, latest, link))
    return Problem(calendar, network, activities, conditions, tuple(starts), tuple(bounds), done)


def _table(
    calendar: Calendar, wait: Wait | None, most_h: float | None, day: str
) -> tuple[IntArray, IntArray | None]:
    """What a link demands: for each end of the one the earliest and the latest start of the other."""
    grid = calendar.grid
    ends = np.arange(grid.slots + 1)
    ready = ends if wait is None else ready_after(wait, calendar)
    latest = None if most_h is None else ends + int(most_h * 60 // SLOT_MIN)
    if day == "any":
        return ready, latest
    morrow = np.searchsorted(grid.day, grid.day[np.maximum(ends - 1, 0)] + 1)
    if day == "later":
        return np.maximum(ready, morrow), latest
    return ready, morrow - 1 if latest is None else np.minimum(latest, morrow - 1)


def _after_done(
    starts: IntArray, end: int, link: Precedence, calendar: Calendar, ready: IntArray, latest: IntArray | None
) -> IntArray:
    """What is left of the starts behind a finished one. Before the grid nobody knows the weather: hours of
    curing count as on its first day's midnight.
    """
    inside = min(max(end, 0), calendar.grid.slots)
    least = int(ready[inside])
    if end < 0 and link.wait is not None and link.wait.kind == "hours":
        least = end + int(ready[inside] - inside)
    elif end < 0 and (link.wait is None or link.wait.kind == "working days"):
        least = max(0, int(ready[0]) + end // A_DAY * A_DAY) if link.wait else 0
    kept = starts[starts >= least]
    if latest is not None:
        most = int(latest[inside]) if end >= 0 else end
        kept = kept[kept <= most]
    return kept


def without(problem: Problem, names: Sequence[str]) -> Problem:
    """The problem as if these conditions did not count."""
    conditions = tuple(tuple(c for c in own if c.name not in names) for own in problem.conditions)
    starts = tuple(
        np.flatnonzero(allowed_starts(list(own), a.slots)) if own else np.arange(problem.calendar.grid.slots)
        for own, a in zip(conditions, problem.activities, strict=True)
    )
    return replace(problem, conditions=conditions, starts=starts)
