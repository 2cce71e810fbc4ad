"""The calendar's grid: half hours of real time, each with its day and hour by the clock of the place."""

from __future__ import annotations

from datetime import UTC, date, datetime, time, timedelta
from functools import lru_cache
from zoneinfo import ZoneInfo

import numpy as np
import numpy.typing as npt

from fahrtwind.core.job.days import Person
from fahrtwind.core.records import dataclass

SLOT_MIN = 30
SLOT = timedelta(minutes=SLOT_MIN)
IntArray = npt.NDArray[np.int64]
BoolArray = npt.NDArray[np.bool_]
FloatArray = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True, eq=False)
class Grid:
    """Half hours from midnight of ``first`` over ``days`` days. ``day`` counts from 0, ``minute`` from
    midnight by the clock: days on which clocks change are longer or shorter.
    """

    first: date
    days: int
    zone: str
    start: datetime
    day: IntArray
    minute: IntArray

    @property
    def slots(self) -> int:
        return len(self.day)

    def moment(self, slot: int) -> datetime:
        """When a slot begins, by the clock of the place."""
        return (self.start + slot * SLOT).astimezone(ZoneInfo(self.zone))

    def date_of(self, day: int) -> date:
        return self.first + timedelta(days=day)

    def slot_at(self, moment: datetime) -> int:
        """The slot that holds a moment; before the grid negative, after it beyond the last."""
        return int((moment.astimezone(UTC) - self.start) // SLOT)

    def slot_after(self, moment: datetime) -> int:
        """The first slot that begins at a moment or after it."""
        return -int((self.start - moment.astimezone(UTC)) // SLOT)

    def first_slot(self, day: int) -> int:
        """Where a day begins; the number of slots for days after the grid."""
        return int(np.searchsorted(self.day, day))

    def attended(self, person: Person) -> BoolArray:
        """In which slots somebody is at work here, from start to end."""
        begins = person.starts.hour * 60 + person.starts.minute
        ends = person.ends.hour * 60 + person.ends.minute
        there = np.array(
            [
                (when := self.date_of(k)).weekday() in person.weekdays and when not in person.away
                for k in range(self.days)
            ]
        )
        inside: BoolArray = (self.minute >= begins) & (self.minute + SLOT_MIN <= ends) & there[self.day]
        for span in person.taken:
            inside[max(self.slot_at(span.starts), 0) : max(self.slot_after(span.ends), 0)] = False
        return inside


@lru_cache(maxsize=32)
def grid_of(first: date, days: int, zone: str) -> Grid:
    """The grid of a place; ``days`` at least one."""
    place = ZoneInfo(zone)
    start = datetime.combine(first, time(0), place).astimezone(UTC)
    end = datetime.combine(first + timedelta(days=days), time(0), place).astimezone(UTC)
    moments = [start + i * SLOT for i in range((end - start) // SLOT)]
    local = [m.astimezone(place) for m in moments]
    day = np.array([(m.date() - first).days for m in local], dtype=np.int64)
    minute = np.array([m.hour * 60 + m.minute for m in local], dtype=np.int64)
    return Grid(first, days, zone, start, day, minute)
