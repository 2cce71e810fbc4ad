"""People that another vehicle of the shop has already: days on which a kept plan of another job works and has
somebody of the same name in its crew.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from zoneinfo import ZoneInfo

from fahrtwind.core.job.days import Days, Person


@dataclass(frozen=True, slots=True)
class Elsewhere:
    """Somebody of this crew may be at another job on these days; ``person``: the id here. A kept plan does
    not say who of a crew does which step: who may be there counts as there.
    """

    person: str
    name: str
    job: str
    days: tuple[date, ...]


def elsewhere(own: Days, others: Iterable[tuple[str, Days]]) -> tuple[Elsewhere, ...]:
    """``others``: names of the other jobs with their days. Told are days from the first planned one on that
    the person works on and is not away already, day by day in the other job's own time zone.
    """
    told = []
    for name, days in others:
        at_work = tuple(sorted(set(_days_of(days))))
        theirs = {p.name.strip().casefold() for p in days.crew}
        for person in own.crew:
            if person.name.strip().casefold() in theirs:
                taken = tuple(day for day in at_work if _free(own, person, day))
                if taken:
                    told.append(Elsewhere(person.id, person.name, name, taken))
    return tuple(told)


def _days_of(days: Days) -> Iterator[date]:
    zone = ZoneInfo(days.zone) if days.zone else None
    for step in days.kept:
        begun = step.starts.astimezone(zone) if zone else step.starts
        ended = step.ends.astimezone(zone) if zone else step.ends
        for n in range((ended.date() - begun.date()).days + 1):
            yield begun.date() + timedelta(days=n)


def _free(own: Days, person: Person, day: date) -> bool:
    return (
        (own.first is None or day >= own.first)
        and day.weekday() in person.weekdays
        and day not in person.away
    )
