"""What each half hour allows: one condition for each thing that may stand against an activity.

A condition is asked for every half hour an activity lasts, or (``of_start``) once for a start. Where nothing
is known about the weather, nothing that needs weather is allowed, unless it was said that weather is ignored.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, time
from functools import lru_cache
from math import ceil
from typing import Literal

import numpy as np

from fahrtwind.core.job.days import Days
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_speed, say_temperature
from fahrtwind.core.stations.days.activities import DEW_MARGIN_K, DRY_BEFORE_H, Activity, Needs
from fahrtwind.core.stations.days.grid import SLOT_MIN, BoolArray, FloatArray, Grid, IntArray
from fahrtwind.core.stations.days.weather import COOL_VAPOUR_HPA, Weather
from fahrtwind.core.stations.days.work_facts import Wait

TAIL_DAYS = 21
"""After the days on which work is planned: what cures goes on curing."""
A_DAY = 24 * 60 // SLOT_MIN
ConditionName = Literal[
    "nobody works",
    "too few hands",
    "past the plan",
    "before it is delivered",
    "pinned elsewhere",
    "dark",
    "rain",
    "wet from rain",
    "wind",
    "too cold",
    "too hot",
    "dew",
    "rain while it cures",
    "weather not known",
]


@dataclass(frozen=True, slots=True, eq=False)
class Condition:
    """``ok``: in which half hours; ``tell`` says of one where it is not what stands against it."""

    name: ConditionName
    ok: BoolArray
    of_start: bool
    tell: Callable[[int], str]


@dataclass(frozen=True, slots=True, eq=False)
class Calendar:
    """Everything that decides about half hours: who is there in which of them, the weather, releases by kind
    of work (first day on which it can start).
    """

    grid: Grid
    days: Days
    weather: Weather
    present: tuple[BoolArray, ...]
    released: dict[str, tuple[date, str]]
    units: UnitSystem

    @property
    def ignored(self) -> bool:
        return self.days.weather == "ignored" and self.days.shelter == "none"


def conditions_of(activity: Activity, calendar: Calendar) -> list[Condition]:
    """Everything that may stand against it, people first."""
    found = [*_people(activity, calendar), *_settled(activity, calendar)]
    if activity.needs.outdoors and not calendar.ignored:
        found += _weather(activity.needs, activity.slots, calendar)
    return found


def allowed_starts(conditions: list[Condition], slots: int) -> BoolArray:
    """In which half hours an activity of so many can begin."""
    starts = np.ones_like(conditions[0].ok)
    for condition in conditions:
        starts &= condition.ok if condition.of_start else whole(condition.ok, slots)
    return starts


def whole(ok: BoolArray, slots: int) -> BoolArray:
    """Whether all half hours from each on are good, for an activity of so many."""
    if slots <= 1:
        return ok.copy()
    bad = np.zeros(len(ok) + 1, dtype=np.int64)
    np.cumsum(~ok, out=bad[1:])
    good = np.zeros_like(ok)
    starts = max(len(ok) + 1 - slots, 0)
    good[:starts] = bad[slots:] == bad[:starts]
    return good


def _people(activity: Activity, calendar: Calendar) -> list[Condition]:
    """Each of those needed stays from start to end, so days are not run over."""
    grid = calendar.grid
    if activity.hands == 0:
        return [Condition("nobody works", np.ones(grid.slots, dtype=bool), False, lambda s: "")]
    there, stay = _at_work(calendar, 1), _at_work(calendar, activity.slots)

    def few(slot: int) -> str:
        return f"{activity.hands} hands wanted, {int(there[slot])} at work{_taken(slot, calendar)}"

    def none(slot: int) -> str:
        return f"nobody is at work{_taken(slot, calendar)}"

    def long(slot: int) -> str:
        return f"{activity.minutes} min do not fit into what is left of the day"

    return [
        Condition("nobody works", there > 0, False, none),
        Condition("too few hands", (there >= activity.hands) | (there == 0), False, few),
        Condition("too few hands", (stay >= activity.hands) | (there < activity.hands), True, long),
    ]


@lru_cache(maxsize=256)
def _at_work(calendar: Calendar, slots: int) -> IntArray:
    """How many are at work for so many half hours from each on."""
    found: IntArray = np.sum([whole(p, slots) for p in calendar.present], axis=0)
    return found


def _taken(slot: int, calendar: Calendar) -> str:
    """Who is at which other vehicle."""
    grid = calendar.grid
    told = [
        f"; {person.name} is at {span.job}"
        for person in calendar.days.crew
        for span in person.taken
        if grid.slot_at(span.starts) <= slot < grid.slot_after(span.ends)
    ]
    return "".join(dict.fromkeys(told))


def _settled(activity: Activity, calendar: Calendar) -> list[Condition]:
    grid, days = calendar.grid, calendar.days
    found = []
    if activity.hands:
        inside = grid.day < days.horizon
        found.append(
            Condition("past the plan", inside, False, lambda s: "after the last day that is planned")
        )
    release = calendar.released.get(activity.kind)
    if release is not None:
        day, name = release
        ok = grid.day >= (day - grid.first).days
        words = f"{name} comes on {day:%A %-d %B}"
        found.append(Condition("before it is delivered", ok, True, lambda s: words))
    for pin in (p for p in days.pins if p.step == activity.id):
        ok = grid.day == (pin.day - grid.first).days
        if pin.at is not None:
            ok = ok & (grid.minute == _slot_minute(pin.at))
        words = f"pinned to {pin.day:%A %-d %B}" + (f", {pin.at:%H:%M}" if pin.at else "")
        found.append(Condition("pinned elsewhere", ok, True, lambda s, words=words: words))  # type: ignore[misc]
    return found


def _slot_minute(at: time) -> int:
    return (at.hour * 60 + at.minute) // SLOT_MIN * SLOT_MIN


@lru_cache(maxsize=256)  # many activities need the same
def _weather(needs: Needs, slots: int, calendar: Calendar) -> tuple[Condition, ...]:
    weather, units = calendar.weather, calendar.units
    known = weather.known
    found = [
        Condition("weather not known", known, False, lambda s: "no forecast says anything about it"),
        Condition("dark", weather.light, False, lambda s: "it is dark"),
        Condition(
            "rain", ~known | ~weather.wet, False, lambda s: f"rain, {weather.rain_mm[s]:.1f} mm an hour"
        ),
    ]
    if needs.wind_m_s is not None:
        most, felt = needs.wind_m_s, weather.felt_m_s

        def blows(slot: int) -> str:
            wind = say_speed(float(felt[slot]), units)
            gusty = " in gusts" if felt[slot] > weather.wind_m_s[slot] else ""
            return f"wind {wind}{gusty}, at most {say_speed(most, units)}"

        found.append(Condition("wind", ~(felt > most), False, blows))
    if needs.bonds:
        found += _bonding(needs, calendar)
    if needs.dry_after is not None:
        found.append(_dry_after(slots, calendar, needs.dry_after))
    return tuple(found)


def _bonding(needs: Needs, calendar: Calendar) -> list[Condition]:
    weather, units = calendar.weather, calendar.units
    skin, dew = weather.surface_c, weather.dew_c
    low = -100.0 if needs.coldest_c is None else needs.coldest_c
    high = 200.0 if needs.hottest_c is None else needs.hottest_c

    def told(slot: int) -> str:
        return f"skin {say_temperature(float(skin[slot]), units)}"

    def cold(slot: int) -> str:
        return f"{told(slot)}, from {say_temperature(low, units)}"

    def hot(slot: int) -> str:
        return f"{told(slot)}, up to {say_temperature(high, units)}"

    def dewy(slot: int) -> str:
        return f"{told(slot)}, dew at {say_temperature(float(dew[slot]), units)}"

    wet = np.convolve(weather.wet, np.ones(int(DRY_BEFORE_H * 60 // SLOT_MIN) + 1))[: len(weather.wet)] > 0
    return [
        Condition("too cold", ~(skin < low), False, cold),
        Condition("too hot", ~(skin > high), False, hot),
        Condition("dew", ~(skin < dew + DEW_MARGIN_K), False, dewy),
        Condition("wet from rain", ~wet | weather.wet, False, lambda s: "not dry yet after the rain"),
    ]


def _dry_after(slots: int, calendar: Calendar, wait: Wait) -> Condition:
    """No rain, and weather known, until it has its skin."""
    grid, weather = calendar.grid, calendar.weather
    ready = ready_after(wait, calendar)
    bad = np.concatenate([[0], np.cumsum(weather.wet | ~weather.known)])
    ends = np.minimum(np.arange(grid.slots) + slots, grid.slots)
    until = np.minimum(ready[ends], grid.slots)
    ok = (bad[until] == bad[ends]) & (ready[ends] <= grid.slots)

    def told(slot: int) -> str:
        wets = np.flatnonzero((weather.wet | ~weather.known)[ends[slot] : until[slot]])
        if not len(wets):
            return "it gets no skin within the forecast"
        first = ends[slot] + int(wets[0])
        what = "rain" if weather.known[first] else "the forecast ends"
        return f"{what} at {grid.moment(first):%A %H:%M}, {wait.words}"

    return Condition("rain while it cures", ok, True, told)


def ready_after(wait: Wait, calendar: Calendar) -> IntArray:
    """For every half hour in which something may end, the first in which what waits for it may begin; beyond
    the grid where it is not ready within it. Never falls.
    """
    grid = calendar.grid
    ends = np.arange(grid.slots + 1)
    if wait.kind == "hours":
        ready: IntArray = ends + ceil(wait.amount * 60 / SLOT_MIN - 1e-9)
        return ready
    if wait.kind == "working days":
        return _working_days(int(wait.amount), calendar)
    progress = np.concatenate([[0.0], np.cumsum(_speed(wait, calendar) * SLOT_MIN / 60)])
    reached = np.searchsorted(progress, progress + wait.amount - 1e-9)
    return np.where(reached > grid.slots, grid.slots + 10 * A_DAY, reached)


def _speed(wait: Wait, calendar: Calendar) -> FloatArray:
    """How much of a wait an hour brings. What nobody forecast is counted as the last day that was, at the
    most as a cool day; ``ignored``: as a cool day.
    """
    weather, grid = calendar.weather, calendar.grid
    if not weather.known.any():
        return np.full(grid.slots, COOL_VAPOUR_HPA if wait.kind == "cure" else 1.0)
    warm = weather.surface_c if wait.kind == "dwell" else weather.air_c
    rate = np.where(warm >= wait.coldest_c, weather.vapour_hpa if wait.kind == "cure" else 1.0, 0.0)
    rate = np.where(weather.known, rate, np.nan)
    last = int(np.flatnonzero(weather.known)[-1])
    mean = float(np.nanmean(rate[max(0, last - A_DAY + 1) : last + 1]))
    return np.where(
        np.isnan(rate), min(mean, COOL_VAPOUR_HPA) if wait.kind == "cure" else min(mean, 1.0), rate
    )


def _working_days(wanted: int, calendar: Calendar) -> IntArray:
    """The first half hour of the day after so many whole working days (Monday to Friday: the coater's)."""
    grid = calendar.grid
    firsts = np.array([grid.first_slot(k) for k in range(grid.days + 1)])
    busy = np.array([grid.date_of(k).weekday() < 5 for k in range(grid.days)])
    count = np.concatenate([[0], np.cumsum(busy)])
    ready = np.full(grid.slots + 1, grid.slots + 10 * A_DAY)
    for end in range(grid.slots + 1):
        day = int(grid.day[min(end, grid.slots - 1)])
        after = int(np.searchsorted(count, count[day + 1] + wanted))
        if after < grid.days:
            ready[end] = firsts[after]
    return ready
