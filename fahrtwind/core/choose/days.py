"""The days of a job: its plan, what would help most, how sure it is, why a step is not done on a day."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from datetime import date, datetime, time
from functools import partial

import numpy as np

from fahrtwind.core.edits import AddEntry, Edit, SetValue, apply_edits
from fahrtwind.core.engine.beside import Hands, Stopped
from fahrtwind.core.errors import FahrtwindError, InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.days import Days, Person
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.days.conditions import Calendar
from fahrtwind.core.stations.days.kept import breaches, kept_persons, kept_starts
from fahrtwind.core.stations.days.plan import DayPlan, Reason, told
from fahrtwind.core.stations.days.planner import Solution, solution_of, solve
from fahrtwind.core.stations.days.problem import Problem, problem_of, without
from fahrtwind.core.stations.days.robust import most_often
from fahrtwind.core.stations.days.why_not import WhyNot, why_none, why_not
from fahrtwind.core.tables.sealants import FAMILIES

PLAN_S, HELP_S, CHECK_S = 20.0, 3.0, 2.0
"""Most seconds for a plan, for each way to help, for each condition that is looked at."""
RELAXED = ("rain", "rain while it cures", "wet from rain", "wind", "too cold", "too hot", "dew", "dark")
"""Conditions that a plan may fail on, alone or two together."""


def problem_for(job: Job) -> Problem:
    """Raises InputError naming what is still to be told."""
    findings = evaluate(job).findings
    for silence in (s for s in findings.silent if s.station == "days"):
        raise InputError(silence.why, remedy=silence.remedy, field=silence.place)
    for question in findings.questions:
        if question.station == "days":
            raise InputError(
                question.ask, remedy="Type it under Days; without it there is no plan.", field=question.path
            )
    found: Problem = visit(job).demand("day_problem")
    return found


def plan_days(
    job: Job,
    seconds: float = PLAN_S,
    stopped: Callable[[], bool] = lambda: False,
    show: Callable[[DayPlan], None] = lambda plan: None,
) -> DayPlan:
    """The best plan: earliest finish, fewest days on the roof, least standing about. A kept plan that still
    holds is the one that is told, unless another ends earlier or takes fewer days on the roof.
    """
    problem = problem_for(job)
    kept = kept_starts(problem)

    def better_of(solution: Solution) -> DayPlan:
        if kept is not None:
            as_kept = solution_of(problem, kept, solution.proved[:2], solution.bounds[:2])
            if (as_kept.ends, as_kept.roof_days) <= (solution.ends, solution.roof_days):
                return told(problem, as_kept, persons=kept_persons(problem, kept))
        return told(problem, solution)

    solution = solve(problem, seconds, stopped=stopped, told=lambda s: show(better_of(s)), known=kept)
    if solution.state != "found":
        reasons = reasons_for_none(problem) if solution.state == "impossible" else ()
        return told(problem, solution, reasons)
    return better_of(solution)


def kept_as_plan(job: Job) -> DayPlan:
    """The kept plan with its people and cure. Raises InputError where none is kept, or of other work."""
    if not job.days.kept:
        raise InputError("No plan is kept.", remedy="Plan under Days and keep the plan.", field="days.kept")
    problem = problem_for(job)
    at = {p.step: problem.calendar.grid.slot_at(p.starts) for p in job.days.kept}
    if any(not 0 <= at.get(a.id, -1) < problem.calendar.grid.slots for a in problem.activities):
        raise InputError(
            "The kept plan is not of this work.",
            remedy="Plan again under Days and keep the new plan.",
            field="days.kept",
        )
    starts = tuple(at[a.id] for a in problem.activities)
    return told(problem, solution_of(problem, starts), persons=kept_persons(problem, starts))


def reasons_for_none(problem: Problem) -> tuple[Reason, ...]:
    """The smallest set of reasons for which there is no plan: of one step where one finds no start, else the
    first condition, hands or limit without which there would be one.
    """
    if (found := why_none(problem)) != ():
        return found
    calendar = problem.calendar
    anybody = np.any(calendar.present, axis=0)
    crew = (*calendar.days.crew, Person(id="more", name="one more"))
    days = calendar.days.model_copy(update={"crew": crew})
    helped = replace(calendar, days=days, present=(*calendar.present, anybody))
    if solve(problem_of(problem.network, helped), CHECK_S, goals=1).state == "found":
        words = f"with {len(calendar.present) + 1} people there would be a plan"
        return (Reason("too few hands", "", words),)
    for names, words in _relaxations(problem):
        if solve(without(problem, names), CHECK_S, goals=1).state == "found":
            return (Reason(" and ".join(names), "", words),)
    return (Reason("all together", "", "the days that are planned do not hold the work: plan further ahead"),)


def _relaxations(problem: Problem) -> Iterator[tuple[tuple[str, ...], str]]:
    there = {c.name for own in problem.conditions for c in own}
    if problem.calendar.days.pins:
        yield ("pinned elsewhere",), "what is pinned leaves no plan: take a pin away"
    single = [name for name in (*RELAXED, "before it is delivered") if name in there]
    for name in single:
        yield (name,), f"without “{name}” there would be a plan"
    yield ("past the plan",), "with more days there would be a plan: plan further ahead"
    for i, a in enumerate(single):
        for b in single[i + 1 :]:
            yield (a, b), f"without “{a}” and “{b}” there would be a plan"


def ask_why_not(job: Job, step: str, day: date) -> WhyNot:
    return why_not(problem_for(job), step, day)


@dataclass(frozen=True, slots=True)
class Help:
    """A change and what it brings: ``finish`` None where there is no plan with it either, ``days_saved``
    against the plan as it is, None where there is none; ``edits`` make it.
    """

    words: str
    edits: tuple[Edit, ...]
    finish: datetime | None
    roof_days: int
    days_saved: float | None
    proved: bool


def helps(job: Job, hands: Hands, show: Callable[[tuple[Help, ...]], None]) -> tuple[Help, ...]:
    """Each change planned anew, what saves most first; only those that change something. Raises Stopped."""
    hands.tell(0.0, "as it is")
    base = _quick(job, ())
    found: list[Help] = []
    ways = list(_ways(job))
    order = {words: number for number, (words, _) in enumerate(ways)}
    for done, (number, then) in enumerate(hands.apart(partial(_quick, job), [edits for _, edits in ways])):
        if hands.cancelled():
            raise Stopped
        words, edits = ways[number]
        hands.tell((done + 1) / len(ways), words)
        if then is None:
            continue
        saved = None if base is None else (base.finish - then.finish).total_seconds() / 86_400
        if base is not None and saved is not None and saved < 1 / 48 and then.roof_days >= base.roof_days:
            continue
        found.append(Help(words, edits, then.finish, then.roof_days, saved, then.proved))
        found.sort(key=lambda h: (h.finish or datetime.max, h.roof_days, order[h.words]))
        show(tuple(found))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class _Quick:
    """What a plan comes to that was searched for only a moment."""

    finish: datetime
    roof_days: int
    proved: bool


def _quick(job: Job, edits: tuple[Edit, ...]) -> _Quick | None:
    """The plan with some changes; None where there is none."""
    problem = problem_for(apply_edits(job, list(edits)))
    solution = solve(problem, HELP_S, goals=2)
    if solution.state != "found":
        return None
    finish = problem.calendar.grid.moment(solution.ends)
    return _Quick(finish, solution.roof_days, all(solution.proved))


Change = tuple[str, tuple[Edit, ...]]
"""In words, and the edits that make it."""


def _set(words: str, path: str, value: object) -> Change:
    return words, (SetValue(path=path, value=value),)


def _ways(job: Job) -> Iterator[Change]:
    days = job.days
    if len(days.crew) < 6 and days.crew:
        like = days.crew[0]
        new = Person(
            id=f"help-{len(days.crew) + 1}",
            name="A helper",
            weekdays=like.weekdays,
            starts=like.starts,
            ends=like.ends,
        )
        yield "one person more", (AddEntry(path="days.crew", value=_json(new)),)
    if days.shelter == "none":
        yield _set("a roof over it", "days.shelter", "roofed")
    if days.shelter != "heated":
        warm = {"deg_c": max(18.0, days.shelter_warm.deg_c)}
        edits = (
            SetValue(path="days.shelter_warm", value=warm),
            SetValue(path="days.shelter", value="heated"),
        )
        yield "a heated shelter", edits
    yield from _longer_days(days)
    yield from _workshop(job)
    yield from _sealants(job)
    yield from _attachments(job)


def _longer_days(days: Days) -> Iterator[Change]:
    early, late = time(6), time(20)
    if any(p.starts > early or p.ends < late for p in days.crew):
        crew = [_json(p.model_copy(update={"starts": early, "ends": late})) for p in days.crew]
        yield _set("work from six to eight in the evening", "days.crew", crew)
    if any(5 not in p.weekdays for p in days.crew):
        week = [_json(p.model_copy(update={"weekdays": tuple(sorted({*p.weekdays, 5}))})) for p in days.crew]
        yield _set("work on Saturdays", "days.crew", week)


def _json(person: Person) -> dict[str, object]:
    return person.model_dump(mode="json")


def _workshop(job: Job) -> Iterator[Change]:
    """What is not given away, and squeeze-out that is left alone."""
    coat = job.workshop.coat
    if coat.kind in ("powder", "anodised"):
        painted = coat.model_copy(update={"kind": "paint", "days": None})
        yield _set("paint it here instead of the coater", "workshop.coat", painted.model_dump(mode="json"))
    if job.seal.edge == "trim":
        yield _set("leave what squeezes out", "seal.edge", "leave")


def _sealants(job: Job) -> Iterator[Change]:
    """Others that stick to this roof."""
    choice = visit(job).get("seal_choice")
    if choice is None:
        return
    for name in FAMILIES:
        if name == choice.round.name or FAMILIES[name].cures not in ("by moisture", "by drying"):
            continue
        change = _set(f"{FAMILIES[name].words} round the feet", "seal.round_with", name)
        bonded = visit(apply_edits(job, list(change[1]))).get("seal_choice")
        if bonded is not None and bonded.round_bond.bond == "good" and not bonded.clash:
            yield change


OTHERWISE_HELD = {"screws": "screws into members", "bolts": "through-bolts", "tape": "foam tape"}


def _attachments(job: Job) -> Iterator[Change]:
    """All panels on feet of their own held in another way, with the usual parts, where that brings no stop
    and no question that does not stand now.
    """
    on_feet = [p for p in job.panels if p.carrier is None and p.feet]
    now = _against(job)
    for school, words in OTHERWISE_HELD.items():
        others = [p for p in on_feet if p.hold.school != school]
        edits = tuple(SetValue(path=f"panels.{p.id}.hold", value={"school": school}) for p in others)
        if not edits:
            continue
        try:
            brings = _against(apply_edits(job, list(edits))) - now
        except FahrtwindError:
            continue
        if not brings:
            yield f"{words} instead", edits


def _against(job: Job) -> set[tuple[str, str]]:
    """Stops, and what is not known: neither may come of a change that is offered."""
    told = evaluate(job)
    asked = {("asked", question.path) for question in told.findings.questions}
    return asked | {(s.id, s.place) for s in told.snags if s.severity == "stop"}


@dataclass(frozen=True, slots=True)
class WeakStep:
    step: str
    title: str
    breaks: int
    words: str


@dataclass(frozen=True, slots=True)
class HowSure:
    """Over ``members`` ways the weather may go: in how many the plan holds, what breaks it most often; the
    plan that holds in most of them, and whether no plan holds in more.
    """

    members: int
    holds: int
    weak: tuple[WeakStep, ...]
    safest: DayPlan | None
    safest_holds: int
    safest_proved: bool


def how_sure(job: Job, hands: Hands) -> HowSure:
    """Of the kept plan where there is one, else of the fastest. Raises Stopped where it was told to stop."""
    problem = problem_for(job)
    calendars: tuple[Calendar, ...] = visit(job).demand("calendars")
    kept = {p.step: problem.calendar.grid.slot_at(p.starts) for p in job.days.kept}
    if kept and all(a.id in kept for a in problem.activities):
        starts = tuple(kept[a.id] for a in problem.activities)
    else:
        hands.tell(0.1, "the fastest plan")
        starts = solve(problem, PLAN_S / 2, goals=2, stopped=hands.cancelled).starts
    problems = []
    for i, calendar in enumerate(calendars):
        if hands.cancelled():
            raise Stopped
        hands.tell(0.3 + 0.3 * i / len(calendars), f"way {i + 1} of {len(calendars)}")
        problems.append(problem_of(problem.network, calendar))
    if not starts:
        return HowSure(len(calendars), 0, (), None, 0, False)
    broken = [breaches(p, dict(enumerate(starts))) for p in problems]
    hands.tell(0.6, "the plan that holds most often")
    best, holds, proved = most_often(problem, tuple(problems), starts, PLAN_S, hands.cancelled)
    safest = told(problem, solution_of(problem, best))
    return HowSure(len(problems), sum(not b for b in broken), _weak(problem, broken), safest, holds, proved)


def _weak(problem: Problem, broken: list[tuple[Reason, ...]]) -> tuple[WeakStep, ...]:
    """The steps that break it, the one that does so most often first."""
    count: dict[str, int] = {}
    words: dict[str, str] = {}
    for reasons in broken:
        for step in {r.step for r in reasons}:
            count[step] = count.get(step, 0) + 1
        for reason in reasons:
            words.setdefault(reason.step, reason.words)
    titles = {a.id: a.title for a in problem.activities}
    ranked = sorted(count, key=lambda s: (-count[s], s))
    return tuple(WeakStep(s, titles.get(s, s), count[s], words[s]) for s in ranked[:5])
