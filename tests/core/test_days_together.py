"""Several vehicles planned as one: beside all combinations, by the judge that walks, in whole jobs."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta
from typing import Any

import numpy as np
import pytest

from fahrtwind.core.choose.days import ask_why_not, plan_days, problem_for
from fahrtwind.core.choose.together import ShopPlan, plan_together
from fahrtwind.core.edits import SetValue, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.days.elsewhere import elsewhere
from fahrtwind.core.stations.days.kept import breaches
from fahrtwind.core.stations.days.model import begins, crew_of
from fahrtwind.core.stations.days.plan import DayPlan
from fahrtwind.core.stations.days.planner import solve
from fahrtwind.core.stations.days.problem import Problem, problem_of
from fahrtwind.core.stations.days.together import Together, solve_together
from tests.conftest import changed
from tests.truth.plans import calendar_of, faults_of, random_problem

Busy = dict[tuple[str, int], list[tuple[datetime, datetime]]]
SOON = {"first": "2026-05-04", "zone": "Europe/Berlin", "weather": "ignored", "horizon": 20}


def busy_of(problems: Sequence[Problem], found: Together) -> Busy:
    """When each person of the shop is at something, by the clock."""
    busy: Busy = {}
    for problem, starts, persons in zip(problems, found.starts, found.persons, strict=True):
        crew, moment = crew_of(problem.calendar.days.crew), problem.calendar.grid.moment
        for start, activity, who in zip(starts, problem.activities, persons, strict=True):
            assert len(who) == activity.hands
            for p in who:
                assert problem.calendar.present[p][start : start + activity.slots].all()
                busy.setdefault(crew[p], []).append((moment(start), moment(start + activity.slots)))
    return busy


def clashes(problems: Sequence[Problem], found: Together) -> int:
    return sum(
        later[0] < earlier[1]
        for spans in busy_of(problems, found).values()
        for earlier, later in itertools.pairwise(sorted(spans))
    )


def test_vehicles_planned_together_keep_every_rule_and_nobody_is_at_two() -> None:
    """Two and three vehicles with crews that share names, of like hours and of their own; each plan is walked
    through by the judge. No sum of finishes is worse than one after the other.
    """
    judged = 0
    for seed in range(40):
        drawn = [
            random_problem(10 * seed + k, steps=6, persons=2, days=8, alike=seed % 4 == 0)
            for k in range(2 + seed % 2)
        ]
        found = solve_together(drawn, 4)
        if found.state != "found":
            continue
        judged += 1
        for problem, starts, least in zip(drawn, found.starts, found.alone, strict=True):
            assert faults_of(problem, starts) == [] and breaches(problem, dict(enumerate(starts))) == ()
            ends = max(s + a.slots for s, a in zip(starts, problem.activities, strict=True))
            assert least is None or ends >= least
        assert clashes(drawn, found) == 0, seed
    assert judged >= 10


def test_a_small_plan_of_two_is_as_good_as_the_best_of_all() -> None:
    """One person for two vehicles of three steps: every combination is tried."""
    compared = shared = 0
    for seed in range(22):
        drawn = []
        for k in range(2):
            own = random_problem(500 + 2 * seed + k, steps=3, persons=1, days=3, alike=True, tight=0.3)
            drawn.append(replace(own, starts=tuple(s[:12] for s in own.starts)))
        each = [
            [
                starts
                for starts in itertools.product(*(map(int, s) for s in problem.starts))
                if not breaches(problem, dict(enumerate(starts)))
            ]
            for problem in drawn
        ]
        ends = [[(_ends(p, s), _spans(p, s)) for s in own] for p, own in zip(drawn, each, strict=True)]
        best = min((a + b for (a, x), (b, y) in itertools.product(*ends) if not x & y), default=None)
        found = solve_together(drawn, 4)
        if best is None:
            assert found.state == "impossible", seed
            continue
        compared += 1
        told = sum(_ends(p, s) for p, s in zip(drawn, found.starts, strict=True))
        assert told == best == found.bounds[0] and found.proved[0], seed
        shared += told > sum(end or 0 for end in found.alone)
    assert compared >= 8 and shared >= 3


def _ends(problem: Problem, starts: tuple[int, ...]) -> int:
    return max(s + a.slots for s, a in zip(starts, problem.activities, strict=True))


def _spans(problem: Problem, starts: tuple[int, ...]) -> frozenset[int]:
    """The half hours in which the one person works."""
    pairs = zip(starts, problem.activities, strict=True)
    return frozenset(slot for s, a in pairs for slot in range(s, s + a.slots) if a.hands)


def test_zones_a_quarter_of_an_hour_apart_are_compared_by_the_clock() -> None:
    """Nepal is 3:45 before Berlin's summer time, 4:45 before its winter; one person for both."""
    judged = 0
    for seed in range(12):
        here = random_problem(seed, steps=4, persons=1, days=8, alike=True, tight=0.0)
        days = here.calendar.days.model_copy(update={"zone": "Asia/Kathmandu"})
        there = problem_of(here.network, calendar_of(days))
        assert begins(there, here) == -4 * 4.75
        found = solve_together([here, there], 4)
        if found.state == "found":
            judged += 1
            assert clashes([here, there], found) == 0, seed
    assert judged >= 4


def shop(sound: Job, *crews: list[dict[str, Any]]) -> list[Job]:
    return [
        changed(sound, name=f"Wagen {k + 1}", days__crew=crew, **{f"days__{n}": v for n, v in SOON.items()})
        for k, crew in enumerate(crews)
    ]


ADA, BO = {"id": "a", "name": "Ada"}, {"id": "b", "name": "Bo"}


def test_two_vehicles_of_one_shop_share_its_people(sound: Job) -> None:
    """Alone each would drive on the same evening; together at least one waits, and the sum is proved."""
    jobs = shop(sound, [ADA, BO], [{"id": "x", "name": " ada "}, {"id": "y", "name": "Bo"}], [ADA, BO])
    told = plan_together(jobs, 60)  # it ends with the proof, which takes seconds unless the machine is busy
    assert told.state == "found" and "finish" in told.proved and told.spare_h == 0
    alone = [plan_days(job, 10).finish for job in jobs]
    assert [v.alone for v in told.vehicles] == alone
    assert all(v.waits_h is not None and v.waits_h >= 0 for v in told.vehicles)
    assert sum(v.waits_h or 0 for v in told.vehicles) > 0
    assert clashes_of(told) == 0
    assert told.roof_days == sum(v.plan.roof_days for v in told.vehicles)


def clashes_of(told: ShopPlan) -> int:
    """How often somebody of a name is wanted at once."""
    spans: dict[str, list[tuple[datetime, datetime]]] = {}
    for step in (step for vehicle in told.vehicles for step in vehicle.plan.steps):
        for who in step.persons:
            spans.setdefault(who.strip().casefold(), []).append((step.starts, step.ends))
    return sum(b[0] < a[1] for own in spans.values() for a, b in itertools.pairwise(sorted(own)))


def _steps(plan: DayPlan) -> list[dict[str, Any]]:
    return [
        {"step": s.id, "starts": s.starts.isoformat(), "ends": s.ends.isoformat(), "persons": list(s.persons)}
        for s in plan.steps
    ]


def kept(job: Job, told: ShopPlan, place: int) -> Job:
    """As the window keeps it: the plan with its people, and when those are at the others."""
    vehicle = told.vehicles[place]
    edits = [SetValue(path="days.kept", value=_steps(vehicle.plan))] + [
        SetValue(path=f"days.crew.{o.person}.taken", value=[t.model_dump(mode="json") for t in o.taken])
        for o in vehicle.occupied
    ]
    return apply_edits(job, edits)


def test_kept_plans_of_a_shop_hold_and_take_nobody_twice(sound: Job) -> None:
    """What each keeps says when its people are at the other: then nothing is left to tell, each plan holds,
    each planned anew alone goes round the other, and both planned anew together are free again.
    """
    jobs = shop(sound, [ADA, BO], [{"id": "x", "name": "Ada"}, {"id": "y", "name": "Bo"}])
    told = plan_together(jobs, 60)  # it ends with the proof, which takes seconds unless the machine is busy
    both = [kept(job, told, k) for k, job in enumerate(jobs)]
    for own, other in ((both[0], both[1]), (both[1], both[0])):
        assert elsewhere(own.days, [(other.name, other.days)]) == ()
        problem = problem_for(own)
        starts = {p.step: problem.calendar.grid.slot_at(p.starts) for p in own.days.kept}
        assert breaches(problem, {i: starts[a.id] for i, a in enumerate(problem.activities)}) == ()
    again = [plan_days(job, 10) for job in both]
    for plan, vehicle in zip(again, told.vehicles, strict=True):
        assert plan.finish is not None and vehicle.alone is not None and plan.finish >= vehicle.alone
    anew = plan_together(both, 20)
    assert [v.plan for v in anew.vehicles] == [v.plan for v in told.vehicles], "what is agreed on stays"
    clash = kept(jobs[0], told, 0), changed(jobs[1], days__kept=_steps(told.vehicles[0].plan))
    assert clashes_of(plan_together(clash, 20)) == 0


def test_a_vehicle_that_cannot_be_planned_is_named(sound: Job) -> None:
    jobs = shop(sound, [ADA, BO], [ADA, BO])
    unsaid = changed(jobs[1], days__weather=None)
    with pytest.raises(InputError, match="Wagen 2") as refused:
        plan_together([jobs[0], unsaid], 5)
    assert refused.value.field == "days.weather"
    with pytest.raises(InputError, match="1 vehicles"):
        plan_together(jobs[:1], 5)
    short = changed(jobs[1], days__horizon=1)
    told = plan_together([jobs[0], short], 10)
    assert told.state == "impossible" and told.blocked == "Wagen 2" and told.reasons


def test_one_that_is_done_waits_for_nobody(sound: Job) -> None:
    jobs = shop(sound, [ADA, BO], [ADA, BO])
    network = problem_for(jobs[1]).network
    done = [
        {"id": f"d{i}", "step": a.id, "started": "2026-05-01T08:00+02:00", "ended": "2026-05-01T09:00+02:00"}
        for i, a in enumerate(network.activities)
    ]
    finished = changed(jobs[1], days__done=done)
    told = plan_together([jobs[0], finished], 10)
    assert told.vehicles[1].alone is None and told.vehicles[0].waits_h == 0
    assert plan_together([finished, finished], 5).state == "found"


def test_people_of_another_vehicle_are_taken_when_its_plan_has_them(sound: Job) -> None:
    """4 May 2026 is a Monday. Another job keeps a plan from Monday evening to Wednesday noon with Ada; where
    it does not say who does what, she may be there all of those days.
    """
    kept = [{"step": "lift", "starts": "2026-05-04T16:00+02:00", "ends": "2026-05-06T12:00+02:00"}]
    other = changed(sound, days__crew=[{"id": "x", "name": " ada"}], days__kept=kept, days__zone=SOON["zone"])
    own = changed(sound, days__crew=[ADA, BO], days__first="2026-05-05", days__zone=SOON["zone"])
    (told,) = elsewhere(own.days, [("Speiche", other.days)])
    days = [(t.starts.date(), t.ends.date()) for t in told.taken]
    assert (told.person, told.job, told.sure) == ("a", "Speiche", False)
    assert days == [(date(2026, 5, 5), date(2026, 5, 7))]
    said = [t.model_dump(mode="json") for t in told.taken]
    knows = apply_edits(own, [SetValue(path="days.crew.a.taken", value=said)])
    assert elsewhere(knows.days, [("Speiche", other.days)]) == ()
    free = elsewhere(knows.days, [("Speiche", changed(other, days__kept=[]).days)])
    assert [(t.person, t.taken) for t in free] == [("a", ())], "the other plan was let go: she is free"
    assert [t.taken for t in elsewhere(knows.days, [])] == [()], "the other job is gone"
    named = [{**kept[0], "persons": ["ADA"]}]
    (exact,) = elsewhere(own.days, [("Speiche", changed(other, days__kept=named).days)])
    assert exact.sure and [(t.starts, t.ends) for t in exact.taken] == [
        (other.days.kept[0].starts, other.days.kept[0].ends)
    ]
    weekend = changed(own, days__crew=[{**ADA, "weekdays": [5, 6]}])
    assert elsewhere(weekend.days, [("S", other.days)]) == ()
    away = changed(own, days__crew=[{**ADA, "away": ["2026-05-05", "2026-05-06"]}])
    assert elsewhere(away.days, [("S", other.days)]) == ()


def test_hours_at_another_vehicle_are_no_hours_here(sound: Job) -> None:
    """From 9:10 to 11:20 Ada is away: of the half hours those from 9:00 to 11:30 are not hers. All of a day
    there is why nothing is done here.
    """
    span = {"job": "Speiche", "starts": "2026-05-05T09:10+02:00", "ends": "2026-05-05T11:20+02:00"}
    (job,) = shop(sound, [{**ADA, "taken": [span]}])
    problem = problem_for(job)
    grid, (present,) = problem.calendar.grid, problem.calendar.present
    there = [grid.moment(int(s)).strftime("%H:%M") for s in np.flatnonzero(present & (grid.day == 1))]
    assert there[:4] == ["08:00", "08:30", "11:30", "12:00"] and there[-1] == "16:30"
    all_day = {**span, "starts": "2026-05-06T00:00+02:00", "ends": "2026-05-07T00:00+02:00"}
    (gone,) = shop(sound, [{**ADA, "taken": [all_day]}])
    (reason,) = ask_why_not(gone, problem.activities[0].id, date(2026, 5, 6)).reasons
    assert reason.words == "nobody is at work; Ada is at Speiche"
    with pytest.raises(InputError, match="ends before it starts"):
        shop(sound, [{**ADA, "taken": [{**span, "ends": span["starts"]}]}])


def test_alone_is_the_same_as_together_with_nobody_shared() -> None:
    for seed in (0, 1, 4):
        drawn = random_problem(seed, steps=6, persons=2, days=8)
        strangers = drawn.calendar.days.model_copy(
            update={
                "crew": tuple(
                    p.model_copy(update={"name": f"else {p.name}"}) for p in drawn.calendar.days.crew
                )
            }
        )
        other = replace(drawn, calendar=replace(drawn.calendar, days=strangers))
        own = solve(drawn, 5)
        if own.state != "found":
            continue
        found = solve_together([drawn, other], 10)
        assert [max(s + a.slots for s, a in zip(x, drawn.activities, strict=True)) for x in found.starts] == [
            own.ends,
            own.ends,
        ]


def test_a_kept_plan_stays_the_plan_until_another_is_better(sound: Job) -> None:
    """It is told as it was kept, with its people; kept a week later it gives way."""
    (job,) = shop(sound, [ADA, BO])
    best = plan_days(job, 10)
    problem = problem_for(job)
    by_turns = {s.id: s for s in best.steps}
    first = next(a for a in problem.activities if a.hands == 1 and a.place == "bench")
    other = next(n for n in ("Ada", "Bo") if n not in by_turns[first.id].persons)
    steps = [
        {
            "step": s.id,
            "starts": s.starts.isoformat(),
            "ends": s.ends.isoformat(),
            "persons": [other] if s.id == first.id else list(s.persons),
        }
        for s in best.steps
    ]
    agreed = apply_edits(job, [SetValue(path="days.kept", value=steps)])
    told = plan_days(agreed, 10)
    assert [(s.id, s.starts) for s in told.steps] == [(s.id, s.starts) for s in best.steps]
    assert "finish" in told.proved and told.finish == best.finish
    assert {s.id: s.persons for s in told.steps}[first.id] == (other,)
    everybody = [{**s, "persons": ["Ada"] if s["persons"] else []} for s in steps]
    at_once = plan_days(apply_edits(job, [SetValue(path="days.kept", value=everybody)]), 10)
    assert {name for s in at_once.steps for name in s.persons} == {"Ada", "Bo"}, "she cannot do two things"
    day = timedelta(days=7)
    late = [{**s, "starts": _later(s["starts"], day), "ends": _later(s["ends"], day)} for s in steps]
    slow = apply_edits(job, [SetValue(path="days.kept", value=late)])
    assert plan_days(slow, 10).finish == best.finish


def _later(moment: str, by: timedelta) -> str:
    return (datetime.fromisoformat(moment) + by).isoformat()


def test_hands_enough_in_sum_are_not_enough_where_one_is_wanted_twice() -> None:
    """Two vehicles have only P0, a third somebody else: two hands in all, but P0 is one person."""
    judged = 0
    for seed in range(8):
        one, two, three = (
            random_problem(60 + seed, steps=3, persons=1, days=8, alike=True) for _ in range(3)
        )
        stranger = three.calendar.days.crew[0].model_copy(update={"name": "Somebody"})
        days = three.calendar.days.model_copy(update={"crew": (stranger,)})
        other = replace(three, calendar=replace(three.calendar, days=days))
        found = solve_together([one, two, other], 6)
        if found.state == "impossible":
            continue
        judged += 1
        assert found.state == "found" and clashes([one, two, other], found) == 0, seed
    assert judged >= 3
