"""The calendar: plans beside a judge of their own and beside enumeration, times by hand, why not."""

from __future__ import annotations

import itertools
import json
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from fahrtwind.core.choose.days import (
    ask_why_not,
    helps,
    how_sure,
    kept_as_plan,
    plan_days,
    problem_for,
    reasons_for_none,
)
from fahrtwind.core.edits import apply_edits
from fahrtwind.core.engine.beside import Hands
from fahrtwind.core.errors import InputError, NotFound
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.days import Days, Finished, Person
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.stations.days.activities import Activity, Needs, Network, Precedence
from fahrtwind.core.stations.days.conditions import Calendar, ready_after
from fahrtwind.core.stations.days.from_record import Noted, done_by_record
from fahrtwind.core.stations.days.grid import grid_of
from fahrtwind.core.stations.days.hands import persons_of
from fahrtwind.core.stations.days.kept import breaches
from fahrtwind.core.stations.days.plan import told as tell
from fahrtwind.core.stations.days.planner import greedy, solve
from fahrtwind.core.stations.days.problem import Problem, problem_of
from fahrtwind.core.stations.days.weather import Sunlit, WeatherTold, _weather, weathers_of
from fahrtwind.core.stations.days.work_facts import Wait
from fahrtwind.core.tables.work import RATES
from fahrtwind.core.working import working
from fahrtwind.demo import FOLDER
from tests.conftest import changed
from tests.truth.plans import calendar_of, faults_of, random_problem

FIELD = Path(__file__).parent.parent / "field_jobs"
SOON = "2026-05-04T09:00"
MILD = {"low": "10", "high": "20"}
NOBODY = Hands(lambda: 60.0, lambda: False, lambda share, doing: None)


def field_job(name: str) -> Job:
    return load_job(json.loads((FIELD / f"{name}.json").read_text(encoding="utf-8")))


def demo_job(name: str) -> Job:
    return load_job(json.loads((FOLDER / f"{name}.json").read_text(encoding="utf-8")))


def told(first: str = "2026-05-04", days: int = 8, **more: Any) -> Days:
    """Dry, 10 to 20 °C, two people from eight to five."""
    spell = {"id": "s", "starts": first, "ends": "2026-06-30", "low": "10", "high": "20"}
    return Days.model_validate(
        {
            "first": first,
            "horizon": days,
            "zone": "Europe/Berlin",
            "crew": [{"id": "a", "name": "Ada"}, {"id": "b", "name": "Ben"}],
            "weather": "told",
            "spells": [spell],
            **more,
        }
    )


def bench(name: str, minutes: int = 60, hands: int = 1) -> Activity:
    return Activity(name, "cut", name, 1, minutes, "", hands, "bench", Needs(False))


def roof(name: str, minutes: int = 60, **needs: Any) -> Activity:
    return Activity(name, "seal", name, 1, minutes, "", 1, "roof", Needs(True, wind_m_s=10.0, **needs))


def problem(days: Days, activities: list[Activity], *links: Precedence) -> Problem:
    return problem_of(Network(tuple(activities), links), calendar_of(days))


# plans


@pytest.mark.parametrize("block", range(5))
def test_no_plan_breaks_a_rule_by_a_judge_that_walks_through_it(block: int) -> None:
    """Every fifth with hands of one calendar; clocks change within it."""
    judged = 0
    for seed in range(30 * block, 30 * block + 30):
        drawn = random_problem(seed, steps=8, persons=2, days=8, alike=seed % 5 == 0)
        found = solve(drawn, 3, goals=2)
        if found.state == "found":
            judged += 1
            assert faults_of(drawn, found.starts) == [], seed
            assert breaches(drawn, dict(enumerate(found.starts))) == (), seed
            who = persons_of(drawn, found.starts)
            assert [len(w) for w in who] == [a.hands for a in drawn.activities], seed
            assert not _at_two_things(drawn, found.starts, who), seed
    assert judged >= 10


def _at_two_things(drawn: Problem, starts: tuple[int, ...], who: tuple[tuple[int, ...], ...]) -> bool:
    """Or at work when not there."""
    for person, present in enumerate(drawn.calendar.present):
        busy = np.zeros(len(present), dtype=int)
        for start, activity, hands in zip(starts, drawn.activities, who, strict=True):
            if person in hands:
                busy[start : start + activity.slots] += 1
        if np.any(busy > 1) or np.any((busy > 0) & ~present):
            return True
    return False


def test_a_small_plan_is_as_good_as_the_best_of_all() -> None:
    """Every combination of allowed starts is tried and judged by the walk."""
    compared = 0
    for seed in range(400, 416):
        drawn = random_problem(seed, steps=3, persons=2, days=3, alike=True, tight=0.4)
        if any(len(s) > 30 for s in drawn.starts):
            drawn = replace(drawn, starts=tuple(s[:30] for s in drawn.starts))
        all_starts = itertools.product(*(map(int, s) for s in drawn.starts))
        in_order = sorted((_goals(drawn, starts), starts) for starts in all_starts)
        allowed = (goals for goals, starts in in_order if not breaches(drawn, dict(enumerate(starts))))
        best = next(allowed, None)
        found = solve(drawn, 5, goals=2)
        if best is None:
            assert found.state == "impossible", seed
        else:
            compared += 1
            assert (found.ends, found.roof_days) == best and all(found.proved), seed
    assert compared >= 4


def _goals(drawn: Problem, starts: tuple[int, ...]) -> tuple[int, int]:
    """The last end and the days on the roof."""
    days, placed = drawn.calendar.grid.day, list(zip(starts, drawn.activities, strict=True))
    roof_days = {int(days[s]) for s, a in placed if a.place == "roof"}
    return max(s + a.slots for s, a in placed), len(roof_days)


def test_another_helper_never_finishes_later_and_more_rain_never_earlier() -> None:
    compared = 0
    for seed in range(200, 230):
        drawn = random_problem(seed, steps=7, persons=2, days=8, alike=True)
        found = solve(drawn, 3, goals=1)
        if found.state != "found" or not all(found.proved):
            continue
        compared += 1
        more = replace(drawn.calendar, present=(*drawn.calendar.present, drawn.calendar.present[0]))
        assert solve(problem_of(drawn.network, more), 3, goals=1).ends <= found.ends, seed
        w = drawn.calendar.weather
        dice = np.random.default_rng(seed)
        wetter = replace(w, rain_mm=np.maximum(w.rain_mm, (dice.random(len(w.rain_mm)) < 0.05) * 1.0))
        rainy = solve(problem_of(drawn.network, replace(drawn.calendar, weather=wetter)), 3, goals=1)
        assert rainy.state == "impossible" or rainy.ends >= found.ends, seed
    assert compared >= 10


def test_planning_each_step_as_early_as_it_goes_gets_stuck() -> None:
    """The first is early, what has to follow the same day finds no time: the planner waits with the first."""
    spells = [
        {
            "id": "w",
            "starts": "2026-05-04",
            "ends": "2026-05-04",
            "until": "10:00",
            "low": "10",
            "high": "20",
        },
        {"id": "r", "starts": "2026-05-05", "ends": "2026-05-05", "low": "9", "high": "14", "sky": "rain"},
        {"id": "d", "starts": "2026-05-06", "ends": "2026-05-20", "low": "10", "high": "20"},
    ]
    drill, close = roof("drill"), roof("close", 180)
    drawn = problem(told(spells=spells), [drill, close], Precedence("drill", "close", "open", day="same"))
    assert greedy(drawn) is None
    found = solve(drawn, 3)
    assert drawn.calendar.grid.moment(found.starts[0]).isoformat() == "2026-05-06T08:00:00+02:00"


def test_people_with_hours_of_their_own_take_what_they_can_stay_for() -> None:
    crew = [
        {"id": "a", "name": "Ada", "starts": "08:00", "ends": "12:00"},
        {"id": "b", "name": "Ben", "starts": "11:00", "ends": "17:00"},
    ]
    drawn = problem(told(crew=crew), [bench("long", 240), bench("both", 60, hands=2)])
    found = solve(drawn, 3)
    at = [drawn.calendar.grid.moment(s) for s in found.starts]
    assert at[1].hour == 11, "both are there from eleven to twelve only"
    assert persons_of(drawn, found.starts)[1] == (0, 1) and all(found.proved)


def test_waits_count_real_hours_over_the_change_of_clocks() -> None:
    """29 March 2026: the night is an hour short, so a day of wait ends an hour later by the clock."""
    grid = grid_of(date(2026, 3, 28), 3, "Europe/Berlin")
    assert [grid.first_slot(k + 1) - grid.first_slot(k) for k in range(3)] == [48, 46, 48]
    calendar = calendar_of(told("2026-03-28", days=3))
    ready = ready_after(Wait("hours", 24, 0, ""), calendar)
    noon = 24
    assert calendar.grid.moment(int(ready[noon])).isoformat() == "2026-03-29T13:00:00+02:00"


def test_cure_counts_only_above_its_temperature_and_by_the_moisture_there_is() -> None:
    """By hand: at a steady 20 °C and 70 % an hour brings 0.7 · 23.4 hPa; below 15 °C nothing."""
    steady = {"id": "s", "starts": "2026-05-04", "ends": "2026-05-20", "low": "20", "high": "20"}
    calendar = calendar_of(told(spells=[steady]))
    vapour = 0.7 * 6.112 * np.exp(17.62 * 20 / (243.12 + 20))
    hours = 10.0
    ready = ready_after(Wait("cure", hours * vapour, 15, ""), calendar)
    assert int(ready[10]) == 10 + 20
    cold = calendar_of(told(spells=[{**steady, "low": "14", "high": "14"}]))
    assert int(ready_after(Wait("cure", 1.0, 15, ""), cold)[0]) > cold.grid.slots


def test_working_days_are_from_monday_to_friday() -> None:
    """Brought on Friday 8 May, three working days: Monday to Wednesday, there on Thursday 14 May."""
    calendar = calendar_of(told(days=14))
    friday = calendar.grid.first_slot(4) + 20
    ready = int(ready_after(Wait("working days", 3, 0, ""), calendar)[friday])
    assert calendar.grid.moment(ready).isoformat() == "2026-05-14T00:00:00+02:00"


# weather


def test_the_skin_of_a_roof_by_hand() -> None:
    """Noon in June, 20 °C, 40 % cloud, 4 m/s, dark: light by Haurwitz, then cloud, then the balance, each
    written out.
    """
    days = told("2026-06-21", spells=[{"id": "s", "starts": "2026-06-21", "ends": "2026-06-21",
                                       "low": "20", "high": "20"}], colour="dark")  # fmt: skip
    grid = grid_of(date(2026, 6, 21), 1, "UTC")
    told_weather = WeatherTold("told", days.spells, None, "none", 18.0, "dark")
    weather = weathers_of(told_weather, grid, Sunlit(50.0, 0.0))[0]
    noon = 24
    zenith = np.radians(50.0 - 23.44)
    clear = 1098 * np.cos(zenith) * np.exp(-0.059 / np.cos(zenith))
    sun = clear * (1 - 0.75 * 0.4**3.4)
    loss = 4 + 4 * 4 + 0.9 * 4 * 5.67e-8 * 293.15**3
    skin = 20 + (0.88 * sun - 0.9 * 63 * 0.6) / loss
    assert weather.sun_w_m2[noon] == pytest.approx(sun, rel=0.01)
    assert weather.surface_c[noon] == pytest.approx(skin, abs=0.4)
    night = weather.surface_c[0]
    assert night == pytest.approx(20 - 0.9 * 63 * 0.6 / loss, abs=0.05) and not weather.light[0]


def test_the_working_of_a_days_skin_ends_at_the_skin_that_is_planned_with() -> None:
    job = demo_job("imkerwagen")
    steps = working(job, "skin/2026-09-24").steps
    assert [s.title for s in steps][-1] == "temperature of a roof's skin"
    hours = evaluate(job).findings.hours
    assert hours is not None
    day = [c for c, w in zip(hours.skin_c[72:96], hours.works[72:96], strict=True) if w and c is not None]
    assert steps[-1].result >= max(day) - 0.06, "half hours may be warmer than full ones"
    assert steps[-1].result == pytest.approx(max(day), abs=1.5)
    with pytest.raises(NotFound):
        working(changed(job, days__shelter="roofed"), "skin/2026-09-24")


def test_what_nobody_forecast_allows_nothing_outdoors() -> None:
    short = {
        "id": "s",
        "starts": "2026-05-04",
        "ends": "2026-05-04",
        "until": "12:00",
        "low": "10",
        "high": "20",
    }
    drawn = problem(told(spells=[short]), [roof("one", 120), roof("two", 180)])
    grid = drawn.calendar.grid
    assert max(grid.moment(int(s)).hour for s in drawn.starts[0]) == 10
    bench_only = problem(told(spells=[short]), [bench("one")])
    assert len(bench_only.starts[0]) > 50


def test_cure_after_the_forecast_is_said_to_be_a_guess() -> None:
    job = demo_job("imkerwagen")
    assert plan_days(job).guessed_from is None
    bench_then_wait = problem(
        told(days=4, spells=[{"id": "s", "starts": "2026-05-04", "ends": "2026-05-04", **MILD}]),
        [bench("seal it"), Activity("drive", "drive", "Drive", 2, 0, "", 0, "inside", Needs(False))],
        Precedence("seal it", "drive", "cures", Wait("hours", 48, 0, "")),
    )
    found = tell(bench_then_wait, solve(bench_then_wait, 3))
    assert found.guessed_from is not None and found.guessed_from.isoformat() == "2026-05-05T00:00:00+02:00"


def test_what_took_a_night_or_no_time_tells_nothing_of_how_long_work_takes(sound: Job) -> None:
    """Up to 14 hours is a day's work; more has a night in it, under a minute was only ticked."""
    seen = visit(sound)
    steps, network, days = seen["steps"], seen["network"], sound.days
    there = {d.step for d in days.done}
    open_steps = {a.step for a in network.activities if a.id not in there}
    title = next(s.title for s in steps if s.number in open_steps)
    begun = datetime(2027, 3, 1, 6, tzinfo=UTC)
    for took, told in (
        (timedelta(hours=14), True),
        (timedelta(hours=14, seconds=1), False),
        (timedelta(minutes=1), True),
        (timedelta(seconds=59), False),
    ):
        noted = (Noted(title, begun), Noted(title, begun + took, True))
        found = done_by_record(network, steps, noted, days)
        assert bool(found) == told, took
        if told:
            assert (found[0].started, found[-1].ended) == (begun, begun + took)
    # none but the last word counts, and what the plan has as done is not offered again
    taken_back = (*noted, Noted(title, begun + timedelta(hours=3), False))
    assert done_by_record(network, steps, taken_back, days) == ()


def test_a_storm_cools_no_more_than_its_law_is_good_for() -> None:
    """The law of heat given off to wind ends at 40 m/s: 60 cool a skin in the sun as 40 do, to the digit."""

    def skin(wind: float) -> float:
        hour = {
            "air_c": 20.0,
            "cloud_percent": 0.0,
            "humidity_percent": 50.0,
            "rain_mm": 0.0,
            "wind_m_s": wind,
        }
        hour["gust_m_s"] = wind
        columns = {name: np.array([value]) for name, value in hour.items()}
        return float(_weather(columns, np.array([True]), np.array([800.0]), "dark").surface_c[0])

    assert skin(60.0) == skin(40.0) and skin(39.0) > skin(40.0) > 20.0


def test_a_heated_shelter_is_dry_still_and_warm_and_ignored_weather_is_no_weather() -> None:
    rain = {"id": "s", "starts": "2026-05-04", "ends": "2026-05-20", "low": "2", "high": "6", "sky": "rain"}
    needs = {"coldest_c": 15.0, "hottest_c": 38.0, "bonds": True}
    assert len(problem(told(spells=[rain]), [roof("stick", **needs)]).starts[0]) == 0
    for more in ({"shelter": "heated", "shelter_warm": "18"}, {"weather": "ignored"}):
        assert len(problem(told(spells=[rain], **more), [roof("stick", **needs)]).starts[0]) > 50, more
    dry_only = problem(told(spells=[rain], shelter="roofed"), [roof("stick", **needs)])
    assert len(dry_only.starts[0]) == 0, "a roof over it keeps rain off, not cold"


# jobs


def test_times_of_the_work_by_hand() -> None:
    """Rates of the table on the van's numbers: feet, holes and panels counted from the plan."""
    found = evaluate(demo_job("imkerwagen")).findings
    work = {a.kind: a for a in found.work.activities}  # type: ignore[union-attr]
    feet = len(found.feet)
    pads = len({m.number for m in found.marks if m.kind == "pad"})
    assert work["measure"].minutes == 5 + 5 * 2 and work["lift"].minutes == 15 + 10 * 2
    assert work["clean"].minutes == 20 + 4 * feet and work["stick"].minutes == 10 + 4 * pads
    assert work["stick"].needs.coldest_c == 15 and work["lift"].hands == max(
        2, max(u.persons for u in found.lifts)
    )
    own = changed(demo_job("imkerwagen"), days__rates=[{"id": "r", "kind": "stick", "minutes": 11}])
    again = evaluate(own).findings.work
    sticks = [a.minutes for a in again.activities if a.kind == "stick"]  # type: ignore[union-attr]
    assert sum(sticks) == pytest.approx(10 + 11 * pads, abs=len(sticks))


def test_every_plan_of_the_demo_and_the_field_keeps_its_rules() -> None:
    """Where there is a plan at all it is proved, and the judge of kept plans finds nothing wrong in it."""
    for path in [*sorted(FOLDER.glob("*.json")), *sorted(FIELD.glob("*.json"))]:
        job = load_job(json.loads(path.read_text(encoding="utf-8")))
        if not job.panels:
            continue
        plan = plan_days(job)
        assert plan.state == "found" and {"finish", "roof days"} <= set(plan.proved), path.name
        kept = [{"step": s.id, "starts": s.starts, "ends": s.ends} for s in plan.steps]
        state = evaluate(changed(job, days__kept=kept)).findings.kept
        assert state is not None and not state.breaks and not state.missing and not state.gone, path.name


def test_the_coater_is_on_the_calendar_before_the_roof_day() -> None:
    """Druckerei: twelve working days at the coater's."""
    plan = plan_days(field_job("druckerei"))
    at = {s.kind: s for s in plan.steps}
    away = np.busday_count(at["coat"].ends.date(), at["set"].starts.date())
    assert away > 12 and at["coat"].rests_words == "12 working days at the coater's"
    assert at["measure"].starts.date() >= date(2026, 5, 11), "panels come on the eleventh"
    offered = {h.words: h for h in helps(field_job("druckerei"), NOBODY, lambda found: None)}
    assert (offered["paint it here instead of the coater"].days_saved or 0) > 10


def test_why_not_today_and_what_a_heated_shelter_would_change() -> None:
    """Imkerwagen in a cold October: the tape never dwells long enough outdoors."""
    heated = field_job("imkerwagen_laminat")
    outdoors = changed(heated, days__shelter="none")
    none = plan_days(outdoors)
    assert none.state == "impossible" and "dwell" in none.reasons[0].words
    today = ask_why_not(outdoors, "prime", date(2026, 10, 5))
    assert not today.possible and today.reasons
    rain = ask_why_not(outdoors, "clean", date(2026, 10, 6))
    assert {r.name for r in rain.reasons} == {"rain"} and "mm an hour" in rain.reasons[0].words
    offered = {h.words: h for h in helps(outdoors, NOBODY, lambda found: None)}
    assert offered["a heated shelter"].days_saved is None, "there is no plan without it"
    assert plan_days(heated).state == "found"


def test_another_way_to_hold_is_offered_where_it_saves_days_and_brings_no_stop(one_panel: Job) -> None:
    """A tape whose maker wants twelve days before anything hangs on it; screws want none."""
    crew = [{"id": "a", "name": "Ada"}, {"id": "b", "name": "Bo"}]
    days = {"crew": crew, "first": "2026-05-04", "zone": "Europe/Berlin", "weather": "ignored", "horizon": 28}
    taped = changed(
        one_panel,
        panels__p3__hold={"school": "tape", "pad_length": "200 mm", "dwell_h": 300},
        vehicle__surface="sound",
        days=days,
    )
    offered = {h.words: h for h in helps(taped, NOBODY, lambda found: None)}
    screwed = offered["screws into members instead"]
    assert (screwed.days_saved or 0) >= 2
    after = apply_edits(taped, list(screwed.edits))
    assert {p.hold.school for p in after.panels} == {"screws"}
    stops = {(s.id, s.place) for s in evaluate(after).snags if s.severity == "stop"}
    assert stops <= {(s.id, s.place) for s in evaluate(taped).snags if s.severity == "stop"}
    no_ribs = changed(taped, members__kind=None)
    assert "screws into members instead" not in {h.words for h in helps(no_ribs, NOBODY, lambda found: None)}


def test_wind_and_hands_of_a_heavy_unit() -> None:
    """Feldlabor: the unit of four panels; more wind than its limit is told as such."""
    job = changed(field_job("feldlabor_winter"), workshop__lifting__as_one=True)
    lift = next(a for a in problem_for(job).activities if a.kind == "lift")
    assert lift.hands == max(u.persons for u in evaluate(job).findings.lifts) > 2
    windy = changed(job, **{f"days__spells__{s.id}__wind": "30 km/h" for s in job.days.spells})
    why = ask_why_not(windy, "lift", date(2026, 9, 10))
    assert "wind" in {r.name for r in why.reasons} and not why.possible
    few = changed(job, days__crew=[p.model_dump(mode="json") for p in job.days.crew[:3]])
    none = plan_days(few)
    assert none.state == "impossible" and none.reasons[0].name == "too few hands"


def test_a_spell_ends_with_the_half_hour_before_its_hour() -> None:
    """Of the last day nothing is told from noon on; by the clock, a low at five and a high at three."""
    spell = {"id": "s", "starts": "2026-05-04", "ends": "2026-05-05", "until": "12:00", **MILD}
    calendar = calendar_of(told(days=3, spells=[spell]))
    grid, weather = calendar.grid, calendar.weather
    hours = zip(grid.day[weather.known].tolist(), grid.minute[weather.known].tolist(), strict=True)
    known = list(hours)
    assert known[0] == (0, 0) and known[-1] == (1, 11 * 60 + 30) and len(known) == 48 + 24
    air = {key: float(weather.air_c[i]) for i, key in enumerate(known)}
    assert [air[0, minute] for minute in (300, 600, 900)] == pytest.approx([10, 15, 20])


def test_where_hands_are_short_one_more_is_told_whatever_hours_the_others_work() -> None:
    """Three things of seven hours on one day: two people do two of them, three would do all."""
    for ends in ("17:00", "16:30"):
        crew = [{"id": "a", "name": "Ada"}, {"id": "b", "name": "Ben", "ends": ends}]
        short = problem(told(days=1, crew=crew), [bench(name, 420) for name in ("one", "two", "three")])
        assert solve(short, 3).state == "impossible"
        (reason,) = reasons_for_none(short)
        assert reason.words == "with 3 people there would be a plan"


def test_squeeze_out_is_trimmed_after_two_days() -> None:
    """Libelle: butyl, wait two days, trim, cap."""
    job = changed(field_job("libelle"), seal__edge="trim")
    plan = plan_days(job)
    laid = max(s.ends for s in plan.steps if s.kind == "lay")
    trimmed = min(s.starts for s in plan.steps if s.kind == "trim")
    assert trimmed - laid >= timedelta(hours=48)


def test_a_step_that_is_held_stays_and_the_rest_goes_round_it() -> None:
    job = field_job("toepferei")
    free = plan_days(job)
    lift = next(s for s in free.steps if s.kind == "lift")
    later = (lift.starts + timedelta(days=2)).date()
    pinned = changed(job, days__pins=[{"id": "p", "step": "lift", "day": str(later), "at": "10:00"}])
    plan = plan_days(pinned)
    held = next(s for s in plan.steps if s.kind == "lift")
    assert held.pinned and held.starts.date() == later and held.starts.hour == 10
    assert plan.finish > free.finish  # type: ignore[operator]
    sunday = changed(job, days__pins=[{"id": "p", "step": "lift", "day": "2026-06-14"}])
    none = plan_days(sunday)
    assert none.state == "impossible" and "Sunday" in none.reasons[0].words


def test_what_is_done_stays_done_and_only_the_rest_is_planned() -> None:
    job = field_job("toepferei")
    first = plan_days(job).steps[0]
    done = {"id": "d", "step": first.id, "started": first.starts, "ended": first.starts + timedelta(hours=5)}
    plan = plan_days(changed(job, days__done=[done]))
    kept = next(s for s in plan.steps if s.id == first.id)
    assert kept.done and kept.ends - kept.starts == timedelta(hours=5)
    on_time = {**done, "ended": first.ends}
    again = plan_days(changed(job, days__done=[on_time]))
    assert again.finish == plan_days(job).finish, "done as planned, the rest begins as planned"
    after = [p.after for p in problem_for(job).network.links if p.before == first.id]
    assert all(s.starts >= kept.ends for s in plan.steps if s.id in after)


def test_a_kept_plan_decides_the_last_day_to_order() -> None:
    """Its first day is Monday 4 May: three working days before is Wednesday 29 April."""
    job = demo_job("lichtspiel")
    serves = evaluate(job).findings.purchase[0].serves
    bought = {"id": "b", "name": "Thing", "serves": serves, "lead_days": 3, "price": 1}
    found = evaluate(changed(job, workshop__items=[bought], workshop__costing__start="2026-12-01"))
    assert next(p.order_by for p in found.findings.purchase if p.serves == serves) == date(2026, 4, 29)


def test_rates_are_learnt_from_what_was_done() -> None:
    """Two panels took 65 minutes to lift: 15 once, so 25 a panel; planned again with it, it takes as long."""
    job = demo_job("imkerwagen")
    done = {"id": "d", "step": "lift", "started": "2026-09-21T08:00+02:00", "ended": "2026-09-21T09:05+02:00"}
    learned = evaluate(changed(job, days__done=[done])).findings.learned
    assert [(r.kind, r.minutes, r.pieces, r.table_min) for r in learned] == [("lift", 25.0, 2, 10.0)]
    again = evaluate(changed(job, days__rates=[{"id": "r", "kind": "lift", "minutes": 25}])).findings.work
    assert next(a.minutes for a in again.activities if a.kind == "lift") == 65  # type: ignore[union-attr]


def test_a_kept_plan_breaks_when_the_weather_turns_and_leaves_as_it_is() -> None:
    job = demo_job("lichtspiel")
    assert evaluate(job).findings.kept.breaks == ()  # type: ignore[union-attr]
    plan = kept_as_plan(job)
    told_again = {(s.id, s.starts) for s in plan.steps}
    assert told_again == {(k.step, k.starts) for k in job.days.kept}
    day = next(s.starts for s in plan.steps if s.kind == "lift").date()
    rain = {"id": "w9", "starts": str(day), "ends": str(day), "sky": "rain", "low": "8", "high": "12"}
    wet = changed(job, days__spells=[*[s.model_dump(mode="json") for s in job.days.spells], rain])
    broken = evaluate(wet).findings.kept.breaks  # type: ignore[union-attr]
    assert "lift" in {r.step for r in broken} and {r.name for r in broken} >= {"rain"}


def test_how_sure_counts_the_courses_in_which_it_holds() -> None:
    """One course of three rains on the day of the work; the plan of the dry days holds in all."""

    def course(wet_day: int | None) -> dict[str, list[float]]:
        rain = [1.0 if wet_day is not None and h // 24 == wet_day else 0.0 for h in range(24 * 14)]
        warm = [18.0] * len(rain)
        zero = {
            "wind_m_s": [2.0] * len(rain),
            "gust_m_s": [3.0] * len(rain),
            "cloud_percent": [30.0] * len(rain),
        }
        return {"air_c": warm, "humidity_percent": [60.0] * len(rain), "rain_mm": rain, **zero}

    forecast = {
        "source": "test",
        "issued": "2026-06-07T12:00Z",
        "start": "2026-06-07T22:00Z",
        "members": [course(None), course(1), course(None)],
    }
    job = changed(field_job("toepferei"), days__weather="forecast", days__forecast=forecast)
    found = how_sure(job, NOBODY)
    assert (found.members, found.holds) == (3, 2) and found.weak[0].breaks == 1
    assert found.safest_holds == 3 and found.safest_proved
    assert found.safest.finish > plan_days(job).finish  # type: ignore[union-attr, operator]


@pytest.mark.parametrize("year", ["0001", "9999"])
def test_years_that_cannot_be_meant_are_refused(sound: Job, year: str) -> None:
    moment = f"{year}-06-01T08:00+02:00"
    for change in (
        {"days__first": f"{year}-06-01"},
        {"days__kept": [{"step": "lift", "starts": moment, "ends": moment}]},
        {"days__done": [{"id": "d", "step": "lift", "started": moment, "ended": moment}]},
        {"care__drives_since": f"{year}-06-01"},
    ):
        with pytest.raises(InputError, match="cannot be meant"):
            changed(sound, **change)


def test_gusts_over_the_usual_count_against_the_limit_of_wind() -> None:
    """The limit is for wind whose gusts are half as much again: 4 m/s with gusts of 18 is as bad as 12."""
    calm = problem(told(), [roof("lift")])
    weather = calm.calendar.weather
    gusty = replace(weather, gust_m_s=np.full_like(weather.gust_m_s, 18.0))
    blown = problem_of(calm.network, replace(calm.calendar, weather=gusty))
    assert len(calm.starts[0]) > 50 and len(blown.starts[0]) == 0


def test_a_circle_is_named_and_nothing_is_lost(sound: Job) -> None:
    order = {"id": "o", "before": "lift", "after": "seal"}
    found = evaluate(changed(sound, days__orders=[order]))
    silent = next(s for s in found.findings.silent if s.station == "days")
    assert "circle" in silent.why and "lift" in silent.why and "seal" in silent.why
    assert found.findings.steps and found.findings.verdicts
    with pytest.raises(InputError, match="circle"):
        plan_days(changed(sound, days__orders=[order]))


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"days__first": None}, "days.first"),
        ({"days__crew": []}, "days.crew"),
        ({"days__weather": None}, "days.weather"),
        ({"days__zone": None}, "days.zone"),
        ({"days__spells": []}, "days.spells"),
        ({"days__weather": "forecast"}, "days.forecast"),
    ],
)
def test_what_is_missing_is_asked_for(sound: Job, change: dict[str, Any], field: str) -> None:
    job = changed(sound, **change)
    assert field in {q.path for q in evaluate(job).findings.questions}
    with pytest.raises(InputError) as caught:
        plan_days(job)
    assert caught.value.field == field


@pytest.mark.parametrize(
    ("value", "words"),
    [
        ({"zone": "Atlantis/Center"}, "no time zone"),
        ({"crew": [{"id": "a", "name": "A", "starts": "17:00", "ends": "08:00"}]}, "ends before it starts"),
        (
            {
                "done": [
                    {"id": "d", "step": "lift", "started": "2026-05-04T08:00", "ended": "2026-05-04T09:00"}
                ]
            },
            "zone",
        ),
        (
            {"spells": [{"id": "s", "starts": "2026-05-05", "ends": "2026-05-04", "low": "1", "high": "2"}]},
            "before",
        ),
    ],
)
def test_bad_calendars_are_refused_in_words(sound: Job, value: dict[str, Any], words: str) -> None:
    with pytest.raises(InputError, match=words) as caught:
        changed(sound, days={**sound.days.model_dump(mode="json"), **value})
    assert caught.value.remedy


def test_a_forecast_of_other_days_is_said(sound: Job) -> None:
    for start, words in (
        ("2020-01-01T00:00Z", "before the first day"),
        ("2030-01-01T00:00Z", "after the last"),
    ):
        member = {
            "air_c": [10.0] * 24,
            "humidity_percent": [70.0] * 24,
            "wind_m_s": [3.0] * 24,
            "gust_m_s": [4.0] * 24,
            "rain_mm": [0.0] * 24,
            "cloud_percent": [50.0] * 24,
        }
        forecast = {"source": "x", "issued": start, "start": start, "members": [member]}
        found = evaluate(changed(sound, days__weather="forecast", days__forecast=forecast))
        assert any(words in s.why and s.place == "days.forecast" for s in found.findings.silent)


def test_types_of_the_tests_are_the_documents(sound: Job) -> None:
    """Persons and finished steps of a document come back as they went in."""
    person = Person(id="x", name="X", away=(date(2026, 5, 5),))
    moment = datetime.fromisoformat("2026-05-04T08:00+02:00")
    done = Finished(id="d", step="lift", started=moment, ended=moment)
    days = Days(crew=(person,), done=(done,))
    assert Days.model_validate_json(days.model_dump_json()) == days
    calendar = calendar_of(told(crew=[person.model_dump(mode="json")]))
    assert isinstance(calendar, Calendar) and not calendar.present[0][calendar.grid.first_slot(1) + 20]


def test_what_was_ticked_on_the_roof_tells_when_it_was_done_and_teaches_the_rates(sound: Job) -> None:
    """Cleaning: first noted 8:00, done 9:00. Marking: nothing noted, so it began when cleaning ended; done
    10:24. A step over night and one that was undone teach nothing.
    """
    day = datetime(2026, 5, 4, tzinfo=UTC)
    steps = {s.kind: s for s in evaluate(sound).findings.steps}

    def at(hours: float) -> datetime:
        return day + timedelta(hours=hours)

    noted = (
        Noted(steps["reach"].title, at(7), True),
        Noted(steps["clean"].title, at(8)),
        Noted(steps["clean"].title, at(8.5)),
        Noted(steps["clean"].title, at(9), True),
        Noted(steps["mark"].title, at(10.4), True),
        Noted(steps["dry fit"].title, at(10.5), True),
        Noted(steps["dry fit"].title, at(10.6), False),
        Noted(steps["pilot"].title, at(34), True),
    )
    seen = visit(sound)
    told = done_by_record(seen.get("network"), seen.get("steps", ()), noted, sound.days)
    spans = {d.step: (d.started, d.ended) for d in told}
    assert spans["clean"] == (at(8), at(9))
    marks = [spans[name] for name in spans if name.startswith("mark")]
    assert min(s for s, _ in marks) == at(9) and max(e for _, e in marks) == at(10.4)
    assert not [name for name in spans if name.startswith(("dry", "pilot", "reach"))]
    done = [
        {"id": f"d{i}", "step": d.step, "started": d.started, "ended": d.ended} for i, d in enumerate(told)
    ]
    rates = {r.kind: r for r in evaluate(changed(sound, days__done=done)).findings.learned}
    count = steps["mark"].count
    fixed = RATES["mark"].fixed_min * len(marks)
    assert rates["mark"].minutes == pytest.approx((84 - fixed) / count, abs=0.06)
    taken = changed(sound, days__done=done).days
    assert done_by_record(seen.get("network"), seen.get("steps", ()), noted, taken) == ()
