"""The calendar's part of the job: who works when, the weather, what is settled, what is done."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal
from zoneinfo import ZoneInfo

from pydantic import AfterValidator, Field, field_validator, model_validator
from pydantic_core import PydanticCustomError

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.dates import Day, Moment
from fahrtwind.core.job.part import Identifier, Name, Note, Part, Word
from fahrtwind.core.quantities import Speed, Temperature
from fahrtwind.core.tables.work import StepKind

MOST_MEMBERS, MOST_HOURS = 20, 16 * 24


def _refused(problem: str, remedy: str) -> PydanticCustomError:
    return PydanticCustomError("bad_input", "{problem}", {"problem": problem, "remedy": remedy})


def _known_zone(name: str) -> str:
    try:
        ZoneInfo(name)
    except (KeyError, ValueError, OSError) as error:
        raise _refused(
            f"There is no time zone {name}.", "Give it as region and town, such as Europe/Berlin."
        ) from error
    return name


Zone = Annotated[str, Field(min_length=1, max_length=40), AfterValidator(_known_zone)]
Weekdays = Annotated[tuple[Annotated[int, Field(ge=0, le=6)], ...], Field(max_length=7)]


def called(name: str) -> str:
    """The name as names are compared: people write them this way and that."""
    return name.strip().casefold()


class Taken(Part):
    """Time in which somebody works on another vehicle of the shop; ``job``: its name."""

    job: Name
    starts: Moment
    ends: Moment

    @model_validator(mode="after")
    def _ends_after_it_starts(self) -> Taken:
        if self.ends <= self.starts:
            raise _refused(f"The time at {self.job} ends before it starts.", "Correct one of the two times.")
        return self


class Person(Part):
    """Somebody who works, on these days of the week (Monday is 0) between these hours; not on ``away``, nor
    while ``taken`` by another vehicle.
    """

    id: Identifier
    name: Name
    weekdays: Weekdays = (0, 1, 2, 3, 4)
    starts: dt.time = dt.time(8)
    ends: dt.time = dt.time(17)
    away: Annotated[tuple[Day, ...], Field(max_length=60)] = ()
    taken: Annotated[tuple[Taken, ...], Field(max_length=240)] = ()

    @model_validator(mode="after")
    def _ends_after_it_starts(self) -> Person:
        if self.starts >= self.ends:
            raise _refused(f"{self.name}: the day ends before it starts.", "Type the later hour as the end.")
        return self


class Delivery(Part):
    """Something that comes on a day; before it the work that needs it does not start."""

    id: Identifier
    name: Name
    day: Day
    before: StepKind


class Pin(Part):
    """A step that is held on a day, at an hour where one is told."""

    id: Identifier
    step: Name
    day: Day
    at: dt.time | None = None


class Finished(Part):
    """A step that is done, as it really was."""

    id: Identifier
    step: Name
    started: Moment
    ended: Moment

    @model_validator(mode="after")
    def _ended_after_it_started(self) -> Finished:
        if self.ended < self.started:
            raise _refused(f"{self.step} ended before it started.", "Correct one of the two times.")
        return self


class OwnOrder(Part):
    """An order that this job has: ``before`` is done ``hours`` before ``after`` begins."""

    id: Identifier
    before: StepKind
    after: StepKind
    hours: Annotated[float, Field(ge=0, le=24 * 30)] = 0.0
    why: Note = ""


class OwnRate(Part):
    """Minutes that the shop takes for one piece of a kind of work."""

    id: Identifier
    kind: StepKind
    minutes: Annotated[float, Field(ge=0, le=24 * 60)]


class Spell(Part):
    """Weather as somebody told it: from the start of a day to an hour of another."""

    id: Identifier
    starts: Day
    ends: Day
    until: dt.time | None = None
    sky: Literal["dry", "rain"] = "dry"
    low: q.WorkTemperature
    high: q.WorkTemperature
    wind: q.Gust = Speed(m_s=4)
    humidity: Annotated[float, Field(ge=5, le=100)] = 70.0

    @model_validator(mode="after")
    def _in_order(self) -> Spell:
        if self.ends < self.starts:
            raise _refused("The spell ends before it starts.", "Type the later day as the end.")
        if self.high.deg_c < self.low.deg_c:
            raise _refused("The day is colder than the night.", "Type the higher temperature as the high.")
        return self


Hourly = Annotated[tuple[float | None, ...], Field(max_length=MOST_HOURS)]


class ForecastMember(Part):
    """One way the weather may go, hour by hour from the forecast's start; None where it says nothing."""

    air_c: Hourly
    humidity_percent: Hourly
    wind_m_s: Hourly
    gust_m_s: Hourly
    rain_mm: Hourly
    cloud_percent: Hourly

    @model_validator(mode="after")
    def _as_long(self) -> ForecastMember:
        columns = {name: getattr(self, name) for name in COLUMNS}
        if len({len(c) for c in columns.values()}) > 1:
            raise _refused("The forecast's columns differ in length.", "Give every hour all of its values.")
        for name, values in columns.items():
            low, high = COLUMNS[name]
            for hour, value in enumerate(values):
                if value is not None and not low <= value <= high:
                    raise _refused(
                        f"{name} of hour {hour} is {value:g}.", f"It lies between {low:g} and {high:g}."
                    )
        return self


COLUMNS = {
    "air_c": (-60.0, 60.0),
    "humidity_percent": (1.0, 100.0),
    "wind_m_s": (0.0, 80.0),
    "gust_m_s": (0.0, 120.0),
    "rain_mm": (0.0, 300.0),
    "cloud_percent": (0.0, 100.0),
}
"""What an hour of a forecast has, and between which bounds."""


class Forecast(Part):
    """Hourly weather from ``start``; the first member is the one that is planned by."""

    source: Word
    issued: Moment
    start: Moment
    members: Annotated[tuple[ForecastMember, ...], Field(min_length=1, max_length=MOST_MEMBERS)]

    @field_validator("start")
    @classmethod
    def _on_the_hour(cls, start: dt.datetime) -> dt.datetime:
        if (start.minute, start.second, start.microsecond) != (0, 0, 0):
            raise _refused("The forecast does not start on the hour.", "Give values for full hours.")
        return start


class PlannedStart(Part):
    """When a step of a kept plan begins and ends; ``persons``: who does it, by name, where it is settled."""

    step: Name
    starts: Moment
    ends: Moment
    persons: Annotated[tuple[Name, ...], Field(max_length=6)] = ()


class Days(Part):
    """``first``: the first day somebody can work; ``zone``: of the place; ``shelter``: a roof over the roof,
    heated to ``shelter_warm``; ``colour``: of the roof. ``kept``: the plan that was agreed on.
    """

    first: Day | None = None
    horizon: Annotated[int, Field(ge=1, le=60)] = 14
    zone: Zone | None = None
    crew: Annotated[tuple[Person, ...], Field(max_length=6)] = ()
    deliveries: Annotated[tuple[Delivery, ...], Field(max_length=20)] = ()
    pins: Annotated[tuple[Pin, ...], Field(max_length=80)] = ()
    done: Annotated[tuple[Finished, ...], Field(max_length=120)] = ()
    orders: Annotated[tuple[OwnOrder, ...], Field(max_length=20)] = ()
    rates: Annotated[tuple[OwnRate, ...], Field(max_length=60)] = ()
    weather: Literal["forecast", "told", "ignored"] | None = None
    spells: Annotated[tuple[Spell, ...], Field(max_length=20)] = ()
    forecast: Forecast | None = None
    shelter: Literal["none", "roofed", "heated"] = "none"
    shelter_warm: q.WorkTemperature = Temperature(deg_c=18)
    colour: Literal["white", "light", "dark"] = "white"
    kept: Annotated[tuple[PlannedStart, ...], Field(max_length=120)] = ()
