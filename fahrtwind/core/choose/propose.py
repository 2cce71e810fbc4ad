"""Proposals: the best layouts for several goals, clearly different from one another, and how good they provably are."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from math import ceil

import numpy as np

from fahrtwind.core.choose.figures import LayoutFigures, figures_of, with_panels
from fahrtwind.core.choose.one_more import OneMore, one_more
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.catalogue import CATALOGUE
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PanelModel, PlacedPanel, Screws
from fahrtwind.core.layout.clear_height import LEAST_AIR_MM
from fahrtwind.core.layout.footprint import Rect, panel_rect
from fahrtwind.core.layout.placing import find_model, panel_at, usual_feet
from fahrtwind.core.layout.proposals.best import Best, Goal, Limits, best_layout, overlap_share, task_of
from fahrtwind.core.layout.proposals.light import as_worth, light_map, light_shares
from fahrtwind.core.layout.proposals.packing import Search, greedy
from fahrtwind.core.layout.proposals.placements import FloatArray, IntArray, Kind, Placements, fits_room
from fahrtwind.core.layout.room import Block, Room, room_of
from fahrtwind.core.layout.sun.harvest import stand_of
from fahrtwind.core.quantities import Length
from fahrtwind.core.tables import balance
from fahrtwind.core.tables.feet import FOOT_MASS_KG

MOST_PANELS = 24
WANTED = 5
AIM_SECONDS, OTHER_SECONDS = 10.0, 3.0
LANE_MM = 400.0
DRAFT_STEP_MM = 20
CLEARLY_OTHER = 0.25
SCALE = 100.0
STAND_OFF_STEP_MM, HIGHEST_STAND_OFF_MM = 5.0, 120.0


@dataclass(frozen=True, slots=True)
class Proposal:
    """A layout for one goal. ``best`` says whether no layout is better at that goal; ``share`` is its watts of the most possible."""

    id: str
    title: str
    words: str
    panels: tuple[PlacedPanel, ...]
    rects: tuple[Rect, ...]
    figures: LayoutFigures
    best: bool
    share: float | None


@dataclass(frozen=True, slots=True)
class Proposals:
    """``most_watts`` is proved: no layout gives more; None while that is not known. ``note`` says what was left out and why."""

    proposals: tuple[Proposal, ...]
    most_watts: float | None
    one_more: tuple[OneMore, ...]
    doing: str
    note: str
    weights: str


Tell = Callable[[Proposals], None]


@dataclass(frozen=True, eq=False)
class _Offered:
    """The job's offers, worked out: models with their rooms as kinds, limits, and what else the goals read."""

    job: Job
    models: tuple[PanelModel, ...]
    kinds: tuple[Kind, ...]
    limits: Limits

    @cached_property
    def members(self) -> FloatArray:
        found = evaluate(with_panels(self.job, ())).findings.members.members
        return np.array([m.x_mm for m in found])

    @cached_property
    def field(self) -> tuple[FloatArray, FloatArray, FloatArray] | None:
        """The light on the roof, where place and climate are known."""
        try:
            top = _stand_off(self.job).mm + max(m.frame_height.mm for m in self.models)
            return light_map(self.job, stand_of(self.job), self.kinds[0].room.bounds, top)
        except InputError:
            return None

    def watts(self, placements: Placements) -> IntArray:
        return np.array([round(m.power.w) for m in self.models], dtype=np.int64)[self.model(placements)]

    def model(self, placements: Placements) -> IntArray:
        return np.array([k.model for k in self.kinds], dtype=np.int64)[placements.kind]

    def light(self, placements: Placements) -> FloatArray:
        if self.field is None:
            return np.ones(len(placements))
        return light_shares(placements, list(self.kinds), [max(m.bypass_diodes or 1, 1) for m in self.models], self.field)


@dataclass(frozen=True, slots=True, eq=False)
class _Plan:
    """One search: what it is called, the kinds it may use and its goal."""

    title: str
    words: str
    kinds: tuple[Kind, ...]
    goal: Goal
    aim: str


def propose(job: Job, search: Search, tell: Tell = lambda _: None) -> Proposals:
    """Search until every goal is answered, the time is over or it is cancelled. ``tell`` hears of every step.

    Raises InputError naming the field where the roof has no size or nothing is on offer.
    """
    offered = _offered(job)
    state = _State(offered, tell)
    draft = task_of(offered.kinds, Goal(offered.watts, True), offered.limits, DRAFT_STEP_MM)
    state.take(
        _Plan("First draft", "Laid as long as it fits.", offered.kinds, Goal(offered.watts, True), "draft"),
        draft.placements.chosen(greedy(draft)),
    )
    plans = sorted(_plans(offered), key=lambda plan: plan.aim != job.wish.aim)
    for number, plan in enumerate(plans):
        if search.over():
            break
        state.doing(f"{plan.title.lower()} …")
        seconds = AIM_SECONDS if number == 0 or plan.aim == "watts" else OTHER_SECONDS
        found = best_layout(plan.kinds, plan.goal, offered.limits, _within(search, seconds), seconds, partial(state.take, plan))
        state.settle(plan, found)
    _others(offered, state, search)
    return state.finish()


def _within(search: Search, seconds: float) -> Search:
    end = search.seconds_left() - seconds
    return Search(lambda: search.seconds_left() - max(end, 0.0), search.cancelled)


def _others(offered: _Offered, state: _State, search: Search) -> None:
    """While fewer than wanted are clearly different: the most watts that share little with any of them."""
    plan = _Plan(
        "Another way", "The most watts of a layout unlike those before it.", offered.kinds, Goal(offered.watts, True), "other"
    )
    while len(state.found) < WANTED and state.found and not search.over():
        state.doing("another way …")
        goal = replace(plan.goal, unlike=tuple(p for _, p, _ in state.found.values()))
        found = best_layout(plan.kinds, goal, offered.limits, _within(search, OTHER_SECONDS), OTHER_SECONDS, lambda _: None)
        if not len(found.layout) or not state.settle(plan, replace(found, bound=None)):
            break


def _offered(job: Job) -> _Offered:
    if not job.wish.offers:
        raise InputError(
            "No panel model is on offer.", remedy="Add at least one model and how many of it there are.", field="wish.offers"
        )
    models = tuple(find_model(job, offer.model) for offer in job.wish.offers)
    keep = frozenset(p.id for p in job.panels if p.locked)
    kinds = list[Kind]()
    for number, model in enumerate(models):
        room = room_of(job, _stand_off(job).mm + model.frame_height.mm, keep)
        if room is None:
            raise InputError("The roof has no size yet.", remedy="Measure its length and width.", field="vehicle.roof_length")
        long, wide = ceil(model.length.mm), ceil(model.width.mm)
        kinds.append(Kind(len(kinds), number, False, long, wide, room))
        if long != wide:
            kinds.append(Kind(len(kinds), number, True, wide, long, room))
    return _Offered(job, models, tuple(kinds), _limits(job, models, len(keep)))


def _stand_off(job: Job) -> Length:
    return job.panels[-1].stand_off if job.panels else Length(mm=40)


def _limits(job: Job, models: tuple[PanelModel, ...], locked: int) -> Limits:
    most = [
        min(MOST_PANELS if o.at_most is None else o.at_most, MOST_PANELS if m.stock is None else m.stock)
        for o, m in zip(job.wish.offers, models, strict=True)
    ]
    limit = job.vehicle.roof_load_limit
    there = sum(p.model.mass.kg + len(p.feet) * FOOT_MASS_KG for p in job.panels if p.locked)
    left = 1e6 if limit is None else limit.kg - there
    mass = [round((m.mass.kg + usual_feet(m) * FOOT_MASS_KG) * 1000) for m in models]
    return Limits(most, MOST_PANELS - locked, mass, max(round(left * 1000), 0))


def _plans(offered: _Offered) -> Iterator[_Plan]:
    kinds, watts = offered.kinds, offered.watts
    steady = Goal(watts, True)
    yield _Plan("Most watts", "As many watts as the roof takes.", kinds, steady, "watts")
    yield _Plan(
        "Balanced",
        "Watts against holes, feet that miss members, and price.",
        kinds,
        Goal(lambda p: _balanced(offered, p), False),
        "balance",
    )
    if offered.field is not None:
        energy = Goal(lambda p: as_worth(watts(p) * offered.light(p), SCALE), False)
        yield _Plan("Most energy", "Out of the shadows of what stands on the roof.", kinds, energy, "energy")
    yield _Plan("Mirrored", "The same on both sides of the centre line.", kinds, replace(steady, symmetric=True), "mirrored")
    few = Goal(lambda p: np.maximum(watts(p) - round(balance.PANEL_W), 0), True)
    yield _Plan(
        "Few panels",
        f"A panel has to bring {balance.PANEL_W:.0f} W more than nothing: fewer holes and cables.",
        kinds,
        few,
        "few",
    )
    for number, model in _strongest(offered):
        own = tuple(k for k in kinds if k.model == number)
        yield _Plan(f"All {model.name}", "One model only: simple strings, one kind of foot.", own, steady, "alike")
    lane = _with_lane(kinds)
    yield _Plan("Way along the middle", f"{LANE_MM:.0f} mm along the centre line stay free to kneel on.", lane, steady, "lane")
    for turned, title in ((False, "Lengthwise"), (True, "Crosswise")):
        own = tuple(k for k in kinds if k.turned == turned)
        if own:
            yield _Plan(f"{title} only", "All panels lie the same way.", own, steady, title)


def _strongest(offered: _Offered) -> list[tuple[int, PanelModel]]:
    """The two models with the most watts by area, where there is more than one."""
    if len(offered.models) < 2:
        return []
    return sorted(enumerate(offered.models), key=lambda item: -item[1].power.w)[:2]


def _with_lane(kinds: tuple[Kind, ...]) -> tuple[Kind, ...]:
    def with_it(room: Room) -> Room:
        lane = Rect(room.bounds.x_mm, -LANE_MM / 2, room.bounds.length_mm, LANE_MM)
        return replace(room, blocks=(*room.blocks, Block("free area", "lane", "way along the middle", lane, 0.0)))

    return tuple(replace(k, room=with_it(k.room)) for k in kinds)


def _balanced(offered: _Offered, placements: Placements) -> IntArray:
    hold = offered.job.panels[-1].hold if offered.job.panels else Screws()
    per_foot = 0 if hold.school == "tape" else hold.count
    model = offered.model(placements)
    feet = np.array([usual_feet(m) for m in offered.models])[model]
    price = np.array([m.price or 0.0 for m in offered.models])[model]
    loose = np.maximum(feet - 2 * _members_under(offered, placements, hold.bracket.length.mm / 2), 0)
    value = offered.watts(placements) * offered.light(placements)
    value = value - balance.HOLE_W * feet * per_foot - balance.LOOSE_FOOT_W * loose - balance.PRICE_W * price
    return as_worth(value, SCALE)


def _members_under(offered: _Offered, placements: Placements, end: float) -> FloatArray:
    """How many members each placement's sides reach."""
    if not len(offered.members):
        return np.full(len(placements), MOST_PANELS, dtype=np.float64)  # not known: nothing is held against any place
    low = np.searchsorted(offered.members, placements.x + end)
    high = np.searchsorted(offered.members, placements.x + placements.length - end, side="right")
    return (high - low).astype(np.float64)


class _State:
    """What was found so far, by title: the plan, the placements, the proposal; told on at every step."""

    def __init__(self, offered: _Offered, tell: Tell) -> None:
        self.offered = offered
        self.found: dict[str, tuple[_Plan, Placements, Proposal]] = {}
        self.most: float | None = None
        self._tell = tell
        self._doing = ""
        self._passing: Proposal | None = None
        self._dropped: list[str] = []

    def doing(self, words: str) -> None:
        self._doing = words
        self._tell(self.told())

    def take(self, plan: _Plan, placements: Placements) -> None:
        """A layout on the way: shown until the goal is settled."""
        self._passing = self._proposal(plan, _panels(self.offered, placements), best=False, year=False)
        self._tell(self.told())

    def settle(self, plan: _Plan, found: Best) -> bool:
        """Keep the answer to a goal unless it hardly differs from one that is kept."""
        self._passing = None
        if plan.aim == "watts" and found.bound is not None:
            self.most = float(found.bound) + sum(p.model.power.w for p in self.offered.job.panels if p.locked)
        if not len(found.layout):
            self._dropped.append(plan.title)
            return False
        twin = next((title for title, (_, p, _) in self.found.items() if difference(p, found.layout) < CLEARLY_OTHER), None)
        if twin is not None:
            self._dropped.append(f"{plan.title} (as {twin})")
            return False
        panels = _raised(self.offered.job, _panels(self.offered, found.layout))
        self.found[plan.title] = (plan, found.layout, self._proposal(plan, panels, best=found.worth == found.bound, year=True))
        return True

    def _proposal(self, plan: _Plan, panels: tuple[PlacedPanel, ...], *, best: bool, year: bool) -> Proposal:
        figures = figures_of(with_panels(self.offered.job, panels), year=year)
        number = next((i for i, title in enumerate(self.found) if title == plan.title), len(self.found))
        return Proposal(
            f"a{number + 1}", plan.title, plan.words, panels, tuple(panel_rect(p) for p in panels), figures, best,
            None if not self.most else figures.watts / self.most,
        )  # fmt: skip

    def told(self) -> Proposals:
        kept = [p for _, _, p in self.found.values()]
        shown = [
            replace(p, share=p.figures.watts / self.most if self.most else None)
            for p in (*kept, *([self._passing] if self._passing else []))
        ]
        return Proposals(tuple(shown), self.most, (), self._doing, self._note(), balance.WORDS)

    def finish(self) -> Proposals:
        self._doing, self._passing = "", None
        told = self.told()
        if not self.found:
            return told
        most = max(self.found.values(), key=lambda item: item[2].figures.watts)[2]
        job = with_panels(self.offered.job, most.panels)
        others = [*job.own_models, *CATALOGUE]
        room = self.offered.kinds[0].room
        return replace(told, one_more=one_more(job, list(self.offered.models), others, room))

    def _note(self) -> str:
        if not self._dropped:
            return ""
        return f"Not shown because it hardly differs or nothing fits: {', '.join(self._dropped)}."


def difference(one: Placements, other: Placements) -> float:
    """Share of panels of the larger layout that have no counterpart of the same kind in about the same place in the other."""
    larger, smaller = (one, other) if len(one) >= len(other) else (other, one)
    if not len(larger):
        return 0.0
    alike = 0
    for i in range(len(smaller)):
        same = (overlap_share(larger, smaller, i) > 0.7) & (larger.kind == smaller.kind[i])
        alike += bool(same.any())
    return 1 - alike / len(larger)


def _panels(offered: _Offered, placements: Placements) -> tuple[PlacedPanel, ...]:
    """The placements as panels with feet, front to rear; one that has its stretch to itself comes to lie in the middle."""
    job = offered.job
    locked = tuple(p for p in job.panels if p.locked)
    panels = list(locked)
    hold = job.panels[-1].hold if job.panels else Screws()
    for i in sorted(range(len(placements)), key=lambda i: (int(placements.x[i]), int(placements.y[i]))):
        kind = offered.kinds[placements.kind[i]]
        port = _centred(kind, placements, i, locked)
        number = 1 + max((int(p.id[1:]) for p in panels if p.id[1:].isdigit()), default=0)
        panels.append(
            panel_at(
                offered.models[kind.model],
                number,
                float(placements.x[i]),
                port,
                turned=kind.turned,
                hold=hold,
                stand_off=_stand_off(job),
            )
        )
    return tuple(panels)


def _raised(job: Job, panels: tuple[PlacedPanel, ...]) -> tuple[PlacedPanel, ...]:
    """Panels that would come too near to the crown stand off further, in steps of 5 mm, as far as feet usually reach."""
    heights = {h.panel: h.least_mm for h in evaluate(with_panels(job, panels)).findings.clear_heights}
    found = []
    for panel in panels:
        wanted = LEAST_AIR_MM - heights.get(panel.id, LEAST_AIR_MM)
        if wanted > 0 and not panel.locked:
            higher = min(ceil((panel.stand_off.mm + wanted) / STAND_OFF_STEP_MM) * STAND_OFF_STEP_MM, HIGHEST_STAND_OFF_MM)
            panel = panel.model_copy(update={"stand_off": Length(mm=max(higher, panel.stand_off.mm))})
        found.append(panel)
    return tuple(found)


def _centred(kind: Kind, placements: Placements, one: int, locked: tuple[PlacedPanel, ...]) -> float:
    gap, middle = placements.gap_mm, round(-kind.width_mm / 2)
    beside = (placements.x < placements.x[one] + kind.length_mm + gap) & (
        placements.x + placements.length + gap > placements.x[one]
    )
    alone = beside.sum() == 1 and not any(
        r.x_mm < placements.x[one] + kind.length_mm + gap and r.x_end_mm + gap > placements.x[one]
        for r in map(panel_rect, locked)
    )
    at = (placements.x[one : one + 1], np.array([middle], dtype=np.int64))
    if alone and fits_room(kind.room, *at, kind.length_mm, kind.width_mm)[0]:
        return float(middle)
    return float(placements.y[one])
