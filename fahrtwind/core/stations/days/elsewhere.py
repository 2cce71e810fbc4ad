"""People that another vehicle of the shop has already: a kept plan of another job has somebody of the same
name.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date, datetime, time, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

from fahrtwind.core.job.days import Days, Person, PlannedStart, Taken, called
from fahrtwind.core.records import dataclass

Span = tuple[datetime, datetime]


@dataclass(frozen=True, slots=True)
class Elsewhere:
    """Somebody of this crew is at another job at these times, and this job does not say so, or still says
    other ones; ``person``: the id here. ``sure``: the other plan says who does which step; where it does not,
    who may be there counts as there all day.
    """

    person: str
    name: str
    job: str
    sure: bool
    taken: tuple[Taken, ...]


def elsewhere(own: Days, others: Iterable[tuple[str, Days]]) -> tuple[Elsewhere, ...]:
    """``others``: names of all other jobs with their days. Told are times from the first planned day on in
    which the person would work here; nothing taken where a job has let somebody go.
    """
    theirs: dict[str, list[Days]] = {taken.job: [] for person in own.crew for taken in person.taken}
    for name, days in others:
        theirs.setdefault(name, []).append(days)
    told = []
    for name, plans in theirs.items():
        for person in own.crew:
            spans = joined(
                span
                for days in plans
                for step in days.kept
                for span in _spans(step, days, person.name)
                if _counts(own, person, span)
            )
            taken = tuple(Taken(job=name, starts=a, ends=b) for a, b in spans)
            said = joined(
                (t.starts, t.ends)
                for t in person.taken
                if t.job == name and _counts(own, person, (t.starts, t.ends))
            )
            if spans != said:
                sure = all(settled(days) for days in plans)
                told.append(Elsewhere(person.id, person.name, name, sure, taken))
    return tuple(told)


@dataclass(frozen=True, slots=True)
class Shared:
    """What a job has in common with another: ``people`` by the names here; ``answered``: whether all is told
    that a plan needs; ``overlaps``: whether some of the days are planned in both.
    """

    people: tuple[str, ...]
    answered: bool
    overlaps: bool


def shared(own: Days, other: Days) -> Shared:
    """Whether it makes sense to plan them together."""
    theirs = {called(person.name) for person in other.crew}
    people = tuple(person.name for person in own.crew if called(person.name) in theirs)
    answered = bool(other.first and other.zone and other.crew and other.weather)
    overlaps = False
    if own.first and other.first:
        early, late = sorted((own, other), key=lambda days: days.first or date.max)
        overlaps = early.first + timedelta(days=early.horizon) > late.first  # type: ignore[operator]
    return Shared(people, answered, overlaps)


def settled(days: Days) -> bool:
    """Whether the kept plan says who does what."""
    return any(step.persons for step in days.kept)


def _spans(step: PlannedStart, days: Days, name: str) -> Iterator[Span]:
    """When a step has somebody of this name."""
    if settled(days):
        if called(name) in map(called, step.persons):
            yield step.starts, step.ends
    elif any(called(p.name) == called(name) for p in days.crew):
        zone = ZoneInfo(days.zone) if days.zone else step.starts.tzinfo
        first, last = step.starts.astimezone(zone).date(), step.ends.astimezone(zone).date()
        for n in range((last - first).days + 1):
            day = first + timedelta(days=n)
            yield (
                datetime.combine(day, time(0), zone),
                datetime.combine(day + timedelta(days=1), time(0), zone),
            )


def _counts(own: Days, person: Person, span: Span) -> bool:
    """Whether the person would be at work here on one of its days."""
    zone = ZoneInfo(own.zone) if own.zone else span[0].tzinfo
    first = span[0].astimezone(zone).date()
    last = (span[1] - timedelta(seconds=1)).astimezone(zone).date()
    days = (first + timedelta(days=n) for n in range((last - first).days + 1))
    return any(
        (own.first is None or day >= own.first)
        and day.weekday() in person.weekdays
        and day not in person.away
        for day in days
    )


def joined(spans: Iterable[Span]) -> list[Span]:
    """In order, those that meet as one."""
    ordered = sorted(spans)
    if not ordered:
        return []
    found = [ordered[0]]
    for _, (start, end) in pairwise(ordered):
        if start <= found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], end))
        else:
            found.append((start, end))
    return found
