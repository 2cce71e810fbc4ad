"""The work as activities for the calendar: how long, how many hands, in which weather, what before what."""

from __future__ import annotations

from collections import Counter, defaultdict
from itertools import pairwise
from math import ceil
from typing import Literal

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.days import Days, OwnOrder
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.days.grid import SLOT_MIN
from fahrtwind.core.stations.days.steps import WorkStep
from fahrtwind.core.stations.days.work_facts import Wait, WorkFacts
from fahrtwind.core.tables.work import ORDERS, RATES, TOGETHER, Order, Place, Rate, StepKind

BATCH_MIN, TOGETHER_MIN = 240, 180
"""What is longer is done in batches: half a day at one thing, less where paint has to dry in between."""
ROOF_WIND_M_S = 10.0
"""Nobody works on a roof in more than a fresh breeze: common practice."""
DEW_MARGIN_K = 3.0
"""Surfaces that something has to stick to are so much warmer than the dew point (ISO 8502-4, coatings)."""
DRY_BEFORE_H = 2.0
"""After rain until a roof is dry enough to bond: common practice."""
PAINT_C = (10.0, 35.0)
SEALANT_HOTTEST_C = 40.0
"""Of the skin: paint and sealants skin over too soon beyond: common practice, the maker's sheet decides."""


@dataclass(frozen=True, slots=True)
class Needs:
    """In which weather something can be done. Temperatures are the skin's, °C; ``wind_m_s`` at most;
    ``dry_after``: until it rains again.
    """

    outdoors: bool
    coldest_c: float | None = None
    hottest_c: float | None = None
    bonds: bool = False
    wind_m_s: float | None = None
    dry_after: Wait | None = None


@dataclass(frozen=True, slots=True)
class Activity:
    """Something that is done in one go. ``step``: its number in the order of work; ``how_long``: how its
    minutes come about; ``pieces``: how many of its kind's units it is.
    """

    id: str
    kind: StepKind
    title: str
    step: int
    minutes: int
    how_long: str
    hands: int
    place: Place
    needs: Needs
    pieces: int = 1

    @property
    def slots(self) -> int:
        return ceil(self.minutes / SLOT_MIN)


@dataclass(frozen=True, slots=True)
class Precedence:
    """``before`` ends before ``after`` begins; ``most_h``: and no longer before."""

    before: str
    after: str
    why: str
    wait: Wait | None = None
    most_h: float | None = None
    day: Literal["any", "same", "later"] = "any"


@dataclass(frozen=True, slots=True)
class Network:
    """All activities in an order that keeps their links."""

    activities: tuple[Activity, ...]
    links: tuple[Precedence, ...]


def network_of(
    steps: tuple[WorkStep, ...], facts: WorkFacts, days: Days, survey_left: bool = False
) -> Network:
    """``survey_left``: a reading is wanted before anything is drilled. Raises InputError naming the circle
    where typed orders run in one.
    """
    if not steps:
        return Network((), ())
    survey = WorkStep(0, "Check the members where told", "", "", 0.0, "none", "survey", 1)
    drive = WorkStep(steps[-1].number + 1, "Drive", "", "", 0.0, "none", "drive", 1)
    steps = (*([survey] if survey_left else []), *steps, drive)
    waits = {step.kind: step.wait_h for step in steps}
    batches = _batches(steps, days)
    activities: list[Activity] = []
    for step in steps:
        activities += _activities(step, facts, days, batches[step.kind])
    named = _named(activities)
    links = _links(named, facts, days, waits)
    return Network(_in_order(named, links), links)


def _minutes(step: WorkStep, rate: Rate, days: Days) -> float:
    each = next((own.minutes for own in days.rates if own.kind == step.kind), rate.each_min)
    return rate.fixed_min + each * step.count


def _batches(steps: tuple[WorkStep, ...], days: Days) -> dict[StepKind, int]:
    """How many times a kind of work is begun: what is done foot by foot stays together."""
    long: dict[StepKind, float] = defaultdict(float)
    for step in steps:
        long[step.kind] = max(long[step.kind], _minutes(step, RATES[step.kind], days))
    batches = {kind: max(1, ceil(minutes / BATCH_MIN)) for kind, minutes in long.items()}
    for group in TOGETHER:
        there = [kind for kind in group if kind in long]
        for kind in there:
            batches[kind] = max(1, ceil(sum(long[k] for k in there) / TOGETHER_MIN))
    return batches


def _activities(step: WorkStep, facts: WorkFacts, days: Days, batches: int) -> list[Activity]:
    rate = RATES[step.kind]
    own = next((o.minutes for o in days.rates if o.kind == step.kind), None)
    each = rate.each_min if own is None else own
    minutes = ceil(_minutes(step, rate, days) / batches)
    told = f"{rate.fixed_min:g} min + {step.count} × {each:g} min a {rate.unit}"
    told += " (the shop's own rate)" if own is not None else ""
    if batches > 1:
        told += f", in {batches} goes"
    hands = facts.hands(step.kind, rate.hands)
    needs = _needs(step.kind, rate, facts)
    pieces = ceil(step.count / batches)
    one = Activity(
        step.kind, step.kind, step.title, step.number, minutes, told, hands, rate.place, needs, pieces
    )
    if batches == 1:
        return [one]
    return [replace(one, title=f"{step.title}, {i} of {batches}") for i in range(1, batches + 1)]


def _named(activities: list[Activity]) -> list[Activity]:
    """Ids: the kind, with a number from the second on."""
    seen: Counter[str] = Counter()
    named = []
    for one in activities:
        seen[one.kind] += 1
        named.append(replace(one, id=one.kind if seen[one.kind] == 1 else f"{one.kind} {seen[one.kind]}"))
    return named


def _needs(kind: StepKind, rate: Rate, facts: WorkFacts) -> Needs:
    if rate.place != "roof":
        return Needs(False)
    wind = min(ROOF_WIND_M_S, facts.lift_wind_m_s) if rate.carried else ROOF_WIND_M_S
    if rate.bonds == "none":
        return Needs(True, wind_m_s=wind)
    if rate.bonds == "tape":
        low, high = facts.tape_c
        return Needs(True, low, high, True, wind)
    if rate.bonds == "paint":
        return Needs(True, *PAINT_C, True, wind)
    return Needs(True, facts.sealant_coldest_c, SEALANT_HOTTEST_C, True, wind, facts.skin(kind))


def _links(
    named: list[Activity], facts: WorkFacts, days: Days, waits: dict[StepKind, float]
) -> tuple[Precedence, ...]:
    own = defaultdict(list)
    for one in named:
        own[one.kind].append(one)
    links: list[Precedence] = []
    for order in (*ORDERS, *map(_typed, days.orders)):
        wait = facts.wait(order, waits.get(order.before, 0.0))
        links += _between(own[order.before], own[order.after], order, wait)
    for before in ("lay", "stick", "seal", "scars"):
        why = "sealant cures and tape dwells before the road pulls at it"
        wait = facts.before_driving(before, waits.get(before, 0.0))
        links += [Precedence(one.id, d.id, why, wait) for one in own[before] for d in own["drive"]]
    for group in own.values():
        links += [Precedence(a.id, b.id, "one after the other") for a, b in pairwise(group)]
    return tuple(links)


def _typed(order: OwnOrder) -> Order:
    return Order(order.before, order.after, order.why or "this job's own order", order.hours)


def _between(
    before: list[Activity], after: list[Activity], order: Order, wait: Wait | None
) -> list[Precedence]:
    """Every one before every one; batches that belong together each before its own."""
    together = any(order.before in g and order.after in g for g in TOGETHER) and len(before) == len(after)
    pairs = zip(before, after, strict=True) if together else ((a, b) for a in before for b in after)
    first_only = order.before == "pilot" and order.day == "same"
    found = [
        Precedence(a.id, b.id, order.why, wait, order.most_h, order.day) for a, b in pairs if a.id != b.id
    ]
    return found[:1] if first_only else found


def _in_order(named: list[Activity], links: tuple[Precedence, ...]) -> tuple[Activity, ...]:
    """Each after all that come before it, else as the order of work has them."""
    waiting = {one.id: {link.before for link in links if link.after == one.id} for one in named}
    done: list[Activity] = []
    left = list(named)
    while left:
        ready = next((one for one in left if not waiting[one.id] - {d.id for d in done}), None)
        if ready is None:
            raise InputError(
                f"The order runs in a circle: {' → '.join(_circle(left[0].id, waiting, done))}.",
                remedy="Remove one of the orders you typed.",
                field="days.orders",
            )
        left.remove(ready)
        done.append(ready)
    return tuple(done)


def _circle(start: str, waiting: dict[str, set[str]], done: list[Activity]) -> list[str]:
    """Back from an activity that is never ready until one comes again."""
    over = {d.id for d in done}
    path = [start]
    while True:
        before = min(waiting[path[0]] - over)
        if before in path:
            return [before, *path[: path.index(before) + 1]]
        path.insert(0, before)
