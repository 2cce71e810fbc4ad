"""Random planning problems, and a judge of plans that shares nothing with the planner: it walks half hour by
half hour and counts.
"""

from __future__ import annotations

import random
from datetime import date, time

import numpy as np

from fahrtwind.core.job.days import Days, Person, Spell
from fahrtwind.core.stations.days.activities import Activity, Needs, Network, Precedence
from fahrtwind.core.stations.days.conditions import TAIL_DAYS, Calendar
from fahrtwind.core.stations.days.grid import grid_of
from fahrtwind.core.stations.days.problem import Problem, problem_of
from fahrtwind.core.stations.days.weather import Sunlit, WeatherTold, weathers_of
from fahrtwind.core.stations.days.work_facts import Wait

FIRST = date(2026, 3, 25)
"""Clocks change on the fifth day."""


def random_problem(
    seed: int, steps: int, persons: int, days: int, *, alike: bool = False, tight: float = 0.15
) -> Problem:
    """Steps on bench and roof with links of every kind; weather that changes from day to day. ``tight``: the
    share of links that may not wait.
    """
    dice = random.Random(seed)
    crew = tuple(_person(i, dice, alike) for i in range(persons))
    told = Days(
        first=FIRST,
        horizon=days,
        zone="Europe/Berlin",
        crew=crew,
        weather="told",
        spells=tuple(_spell(k, dice) for k in range(days + 2)),
    )
    activities = tuple(_activity(i, dice, persons) for i in range(steps))
    links = tuple(link for i in range(1, steps) for link in _links(i, activities, dice, tight))
    return problem_of(Network(activities, links), calendar_of(told))


def calendar_of(days: Days) -> Calendar:
    assert days.first and days.zone
    grid = grid_of(days.first, days.horizon + TAIL_DAYS, days.zone)
    told = WeatherTold(days.weather, days.spells, days.forecast, days.shelter, 18.0, days.colour)
    weather = weathers_of(told, grid, Sunlit(52.0, 13.0))[0]
    return Calendar(grid, days, weather, tuple(grid.attended(p) for p in days.crew), {}, "metric")


def _person(number: int, dice: random.Random, alike: bool) -> Person:
    if alike:
        return Person(id=f"c{number}", name=f"P{number}", weekdays=(0, 1, 2, 3, 4, 5))
    days = tuple(sorted(dice.sample(range(7), dice.randint(4, 7))))
    return Person(
        id=f"c{number}",
        name=f"P{number}",
        weekdays=days,
        starts=time(dice.choice([7, 8, 9])),
        ends=time(dice.choice([15, 17, 19])),
    )


def _spell(day: int, dice: random.Random) -> Spell:
    when = date.fromordinal(FIRST.toordinal() + day)
    low = dice.uniform(5, 12)
    return Spell(
        id=f"s{day}",
        starts=when,
        ends=when,
        until=None,
        sky=dice.choice(["dry", "dry", "dry", "dry", "rain"]),
        low=f"{low:.1f}",
        high=f"{low + dice.uniform(4, 14):.1f}",
    )


def _activity(number: int, dice: random.Random, persons: int) -> Activity:
    roof = dice.random() < 0.6
    bonds = roof and dice.random() < 0.3
    needs = Needs(roof, 12.0 if bonds else None, 40.0 if bonds else None, bonds, 9.0 if roof else None)
    return Activity(
        f"a{number}",
        "seal" if roof else "cut",
        f"Step {number}",
        number,
        dice.choice([15, 30, 30, 60, 60, 90, 120]),
        "",
        dice.randint(1, min(2, persons)),
        "roof" if roof else "bench",
        needs,
    )


def _links(
    number: int, activities: tuple[Activity, ...], dice: random.Random, tight: float
) -> list[Precedence]:
    found = []
    for before in dice.sample(range(number), min(number, dice.choice([1, 1, 2]))):
        pair = (activities[before].id, activities[number].id, "random")
        draw = dice.random()
        if draw < tight:
            links = [(None, None, "same"), (Wait("hours", 0.5, 0, ""), 3.0, "any"), (None, 2.0, "any")]
            wait, most, day = dice.choice(links)
            found.append(Precedence(*pair, wait, most, day))  # type: ignore[arg-type]
        elif draw < tight + 0.12:
            waits = [
                Wait("cure", dice.uniform(20, 90), 5.0, ""),
                Wait("dwell", dice.uniform(3, 10), 8.0, ""),
                Wait("working days", dice.randint(1, 2), 0, ""),
                Wait("hours", dice.uniform(1, 30), 0, ""),
            ]
            found.append(Precedence(*pair, dice.choice(waits), None, "any"))
        elif draw < tight + 0.17:
            found.append(Precedence(*pair, None, None, "later"))
        else:
            found.append(Precedence(*pair))
    return found


def faults_of(problem: Problem, starts: tuple[int, ...]) -> list[str]:
    """Everything that is wrong with a plan, walked through half hour by half hour."""
    calendar, grid, weather = problem.calendar, problem.calendar.grid, problem.calendar.weather
    at = {a.id: (s, s + a.slots) for a, s in zip(problem.activities, starts, strict=True)}
    faults = []
    for activity, start in zip(problem.activities, starts, strict=True):
        for slot in range(start, start + activity.slots):
            if grid.day[slot] != grid.day[start] or grid.day[slot] >= calendar.days.horizon:
                faults.append(f"{activity.id} runs over a day")
            if activity.needs.outdoors:
                faults += _weather_faults(activity, slot, problem)
    for slot in range(grid.slots):
        busy = [a for a in problem.activities if at[a.id][0] <= slot < at[a.id][1]]
        there = sum(_at_work(p, problem, slot) for p in calendar.days.crew)
        if sum(a.hands for a in busy) > there:
            faults.append(f"too few hands at {grid.moment(slot)}")
    for link in problem.network.links:
        faults += _link_faults(link, at[link.before][1], at[link.after][0], problem)
    assert weather.known[0]
    return faults


def _at_work(person: Person, problem: Problem, slot: int) -> bool:
    moment = problem.calendar.grid.moment(slot)
    return (
        moment.weekday() in person.weekdays
        and person.starts <= moment.time()
        and moment.hour * 60 + moment.minute + 30 <= person.ends.hour * 60 + person.ends.minute
    )


def _weather_faults(activity: Activity, slot: int, problem: Problem) -> list[str]:
    w, needs = problem.calendar.weather, activity.needs
    wrong = [
        (not w.known[slot], "unknown"),
        (not w.light[slot], "dark"),
        (w.rain_mm[slot] >= 0.1, "rain"),
        (needs.wind_m_s is not None and w.wind_m_s[slot] > needs.wind_m_s, "wind"),
    ]
    if needs.bonds and needs.coldest_c is not None and needs.hottest_c is not None:
        skin = w.surface_c[slot]
        wrong += [
            (skin < needs.coldest_c, "cold"),
            (skin > needs.hottest_c, "hot"),
            (skin < w.dew_c[slot] + 3, "dew"),
            (bool(np.any(w.rain_mm[max(0, slot - 4) : slot + 1] >= 0.1)), "wet"),
        ]
    return [f"{activity.id}: {words} at {slot}" for bad, words in wrong if bad]


def _link_faults(link: Precedence, end: int, start: int, problem: Problem) -> list[str]:
    grid, w = problem.calendar.grid, problem.calendar.weather
    faults = []
    if start < end:
        faults.append(f"{link.after} before {link.before}")
    wait = link.wait
    if wait and wait.kind == "hours" and (start - end) / 2 < wait.amount - 1e-6:
        faults.append(f"{link.after} too soon by hours")
    if wait and wait.kind in ("cure", "dwell"):
        known = [k for k in range(end, start) if w.known[k]]
        warm = w.air_c if wait.kind == "cure" else w.surface_c
        rate = w.vapour_hpa if wait.kind == "cure" else np.ones(grid.slots)
        share = [0.5 * rate[k] for k in known if warm[k] >= wait.coldest_c]
        if len(known) == start - end and sum(share) < wait.amount - 1e-6:
            faults.append(f"{link.after} has not cured")
    if wait and wait.kind == "working days":
        first, last = grid.date_of(int(grid.day[end - 1])), grid.date_of(int(grid.day[start]))
        if np.busday_count(first.isoformat(), last.isoformat()) < wait.amount:
            faults.append(f"{link.after} is not back")
    if link.most_h is not None and (start - end) / 2 > link.most_h:
        faults.append(f"{link.after} too late")
    same = grid.day[end - 1] == grid.day[start]
    if (link.day == "same" and not same) or (link.day == "later" and same):
        faults.append(f"{link.after} on the wrong day")
    return faults
