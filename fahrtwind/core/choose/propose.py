"""Proposals: the best layouts for several goals, clearly different from one another, and how good they
provably are.
"""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from functools import partial

from fahrtwind.core.choose.figures import LayoutFigures, figures_of, with_panels
from fahrtwind.core.choose.goals import Offered, Plan, offered_by, plans_for
from fahrtwind.core.choose.laid import held, panels_of, raised, what_holds
from fahrtwind.core.choose.one_more import OneMore, one_more
from fahrtwind.core.edits import Edit, SetValue
from fahrtwind.core.engine.beside import Hands, Stopped, beside
from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.proposals.best import (
    Best,
    Goal,
    best_layout,
    bound_of,
    overlap_share,
    task_of,
)
from fahrtwind.core.stations.layout.proposals.packing import Search, greedy
from fahrtwind.core.stations.layout.proposals.placements import Placements
from fahrtwind.core.tables import balance

WANTED = 5
AIM_SECONDS, OTHER_SECONDS = 9.5, 3.0
"""For the layout that is wanted most: ten seconds with the solver's last word counted in; and for each of the
others.
"""
DRAFT_STEP_MM = 20
CLEARLY_OTHER = 0.25
NOT_LOOKED_AT = "What would hold it was not worked out in this time."


@dataclass(frozen=True, slots=True)
class Proposal:
    """A layout for one goal. ``draft``: laid at once, better ones may come; ``best``: no layout is better at
    that goal.

    ``share`` is its watts of the most possible. ``made``: what was changed about its feet and fasteners so
    that it holds, ``edits`` what of that is not its panels'; ``why_not``: the reason where nothing holds it.
    """

    id: str
    title: str
    words: str
    panels: tuple[PlacedPanel, ...]
    edits: tuple[Edit, ...]
    rects: tuple[Rect, ...]
    figures: LayoutFigures
    draft: bool
    best: bool
    share: float | None
    made: tuple[str, ...] = ()
    why_not: str = ""


@dataclass(frozen=True, slots=True)
class Proposals:
    """``most_watts`` is proved: no layout gives more; None while that is not known. ``note`` says what was
    reckoned with and what left out.

    ``progress`` is the share of the goals that are answered, and ``doing`` the one in work.
    """

    proposals: tuple[Proposal, ...]
    most_watts: float | None
    one_more: tuple[OneMore, ...]
    doing: str
    progress: float
    note: str
    weights: str


Tell = Callable[[Proposals], None]


def propose(job: Job, search: Search, tell: Tell = lambda _: None) -> Proposals:
    """Search until every goal is answered, the time is over or it is cancelled. ``tell`` hears of every step.

    Raises InputError naming the field where the roof has no size or nothing is on offer.
    """
    offered = offered_by(job)
    plans = sorted(plans_for(offered), key=lambda plan: (plan.aim != job.wish.aim, plan.aim != "watts"))
    state = _State(offered, [plan.title for plan in plans], search, tell)
    for plan in sorted(
        plans, key=lambda plan: not plan.goal.steady
    ):  # what needs no light map is there at once
        if search.over():
            break
        draft = task_of(plan.kinds, plan.goal, offered.limits, DRAFT_STEP_MM)
        state.take(plan, draft.placements.chosen(greedy(draft)))
    for number, plan in enumerate(plans):
        if search.over():
            break
        state.doing(f"{plan.title.lower()} …")
        seconds = AIM_SECONDS if number == 0 or plan.aim == "watts" else OTHER_SECONDS
        found = best_layout(
            plan.kinds,
            plan.goal,
            offered.limits,
            _within(search, seconds),
            seconds,
            partial(state.take, plan),
        )
        found = state.or_draft(plan, found)
        if plan.aim == "balance":
            found = _or_mirrored(offered, plan, found, search)
        state.settle(plan, found)
        if number == 0:
            state.keep_what_holds(plan)
        if plan.aim == "watts" and state.most is None and not search.over():
            state.doing("proving how much fits …")
            state.settle_most(
                bound_of(
                    offered.kinds, Goal(offered.watts, True), offered.limits, _within(search, AIM_SECONDS)
                )
            )
    _others(offered, state, search)
    return state.finish()


def _within(search: Search, seconds: float) -> Search:
    end = search.seconds_left() - seconds
    return Search(lambda: search.seconds_left() - max(end, 0.0), search.cancelled)


def _or_mirrored(offered: Offered, plan: Plan, found: Best, search: Search) -> Best:
    """The mirrored layout of a balanced one, where its bonus makes it the better of the two."""
    goal = replace(plan.goal, symmetric=True)
    twin = best_layout(
        plan.kinds, goal, offered.limits, _within(search, OTHER_SECONDS), OTHER_SECONDS, lambda _: None
    )
    better = twin.worth * (1 + balance.MIRROR_BONUS) > found.worth
    return replace(twin, bound=None) if better else found


def _others(offered: Offered, state: _State, search: Search) -> None:
    """While fewer than wanted are clearly different: the most watts that share little with any of them."""
    words, number = "The most watts of a layout unlike those before it.", 0
    while len(state.found) < WANTED and state.found and not search.over():
        number += 1
        state.doing("another way …")
        goal = Goal(offered.watts, True, unlike=tuple(p for _, p, _ in state.found.values()))
        plan = Plan(f"Another way {number}", words, offered.kinds, goal, "other")
        found = best_layout(
            plan.kinds, goal, offered.limits, _within(search, OTHER_SECONDS), OTHER_SECONDS, lambda _: None
        )
        if not len(found.layout) or not state.settle(plan, replace(found, bound=None)):
            break


class _State:
    """What was found so far, by title: the plan, the placements, the proposal; told on at every step."""

    def __init__(self, offered: Offered, titles: list[str], search: Search, tell: Tell) -> None:
        self.offered = offered
        self.holding: Proposal | None = None
        self._hands = Hands(search.seconds_left, search.over, lambda share, doing: None)
        self.found: dict[str, tuple[Plan, Placements, Proposal]] = {}
        self.most: float | None = None
        self._titles = titles
        self._tell = tell
        self._doing = ""
        self._drafts: dict[str, tuple[Plan, Placements, Proposal]] = {}
        self._dropped: list[str] = []
        self._goals, self._answered = len(titles), 0

    def doing(self, words: str) -> None:
        self._doing = words
        self._tell(self.told())

    def take(self, plan: Plan, placements: Placements) -> None:
        """A layout on the way: shown until the goal is settled, or a better one comes."""
        if _worth(plan, placements) > self._draft_worth(plan):
            panels = raised(self.offered.job, panels_of(self.offered, placements))
            self._drafts[plan.title] = (
                plan,
                placements,
                self._proposal(plan, panels, best=False, draft=True),
            )
            self._tell(self.told())

    def _draft_worth(self, plan: Plan) -> int:
        return _worth(plan, self._drafts[plan.title][1]) if plan.title in self._drafts else 0

    def or_draft(self, plan: Plan, found: Best) -> Best:
        """The draft of a goal in the rare case that a search in a hurry found less."""
        worth = self._draft_worth(plan)
        return (
            replace(found, layout=self._drafts[plan.title][1], worth=worth) if worth > found.worth else found
        )

    def settle_most(self, bound: int | None) -> None:
        """What no layout exceeds, the locked panels counted in."""
        if bound is not None:
            self.most = float(bound) + sum(p.model.power.w for p in self.offered.job.panels if p.locked)

    def settle(self, plan: Plan, found: Best) -> bool:
        """Keep the answer to a goal unless it hardly differs from one that is kept."""
        self._drafts.pop(plan.title, None)
        self._answered += 1
        if plan.aim == "watts":
            self.settle_most(found.bound)
        if not len(found.layout):
            self._dropped.append(plan.title)
            return False
        twin = next(
            (title for title, (_, p, _) in self.found.items() if difference(p, found.layout) < CLEARLY_OTHER),
            None,
        )
        if twin is not None:
            self._dropped.append(f"{plan.title} (as {twin})")
            return False
        panels = raised(self.offered.job, panels_of(self.offered, found.layout))
        self.found[plan.title] = (
            plan,
            found.layout,
            self._proposal(plan, panels, best=found.worth == found.bound and plan.aim != "energy"),
        )
        return True

    def _proposal(
        self, plan: Plan, panels: tuple[PlacedPanel, ...], *, best: bool, draft: bool = False
    ) -> Proposal:
        found = None
        if not draft:
            with suppress(Stopped), beside(self._hands):
                found = held(self.offered.job, panels)
        if found is None or found.why:
            job, why = with_panels(self.offered.job, panels), found.why if found else NOT_LOOKED_AT
            told = self._told_of(plan.title, plan.words, job, year=not draft)
            return replace(told, draft=draft, best=best, why_not=why)
        told = self._told_of(plan.title, plan.words, found.job, year=True)
        return replace(told, best=best, made=found.words)

    def _told_of(self, title: str, words: str, job: Job, *, year: bool) -> Proposal:
        faired = job.assumptions.front_edge != self.offered.job.assumptions.front_edge
        fairing = SetValue(path="assumptions.front_edge", value=job.assumptions.front_edge)
        return Proposal(
            id=self._name(title),
            title=title,
            words=words,
            panels=job.panels,
            edits=(fairing,) if faired else (),
            rects=tuple(panel_rect(p) for p in job.panels),
            figures=figures_of(job, year=year),
            draft=False,
            best=False,
            share=None,
        )

    def keep_what_holds(self, plan: Plan) -> None:
        """Of the layout for a goal that nothing holds as a whole: the panels that can be held."""
        if plan.title not in self.found or not self.found[plan.title][2].figures.stops:
            return
        proposal = self.found[plan.title][2]
        self.doing("what of it holds …")
        with suppress(Stopped), beside(self._hands):
            found, left_out = what_holds(self.offered.job, proposal.panels)
            if found.job.panels and left_out and not found.why:
                words = (
                    f"{plan.title} without the {len(left_out)} panels that nothing tried would hold there."
                )
                told = self._told_of("What holds", words, found.job, year=True)
                self.holding = replace(told, made=found.words)

    def _name(self, title: str) -> str:
        if title not in self._titles:
            self._titles.append(title)
        return f"a{self._titles.index(title) + 1}"

    def told(self) -> Proposals:
        """Everything kept, and the drafts that clearly differ from it and from one another: those without a
        stop first, in the order of the goals."""
        shown = dict(self.found)
        for title, draft in self._drafts.items():
            if all(difference(placements, draft[1]) >= CLEARLY_OTHER for _, placements, _ in shown.values()):
                shown[title] = draft
        kept = [shown[title][2] for title in self._titles if title in shown]
        kept = [self.holding, *kept] if self.holding else kept
        proposals = tuple(
            replace(p, share=p.figures.watts / self.most if self.most else None)
            for p in sorted(kept, key=lambda p: p.figures.stops > 0)
        )
        progress = min(self._answered / self._goals, 1.0)
        return Proposals(proposals, self.most, (), self._doing, progress, self._note(), balance.WORDS)

    def finish(self) -> Proposals:
        """The last word: energy settled, what stops one more panel looked into."""
        self._doing = ""
        self._settle_energy()
        told = self.told()
        if not self.found:
            return told
        most = max(self.found.values(), key=lambda item: item[2].figures.watts)[2]
        job = with_panels(self.offered.job, most.panels)
        others = [*job.own_models, *catalogue()]
        room = max(
            self.offered.kinds, key=lambda k: self.offered.models[k.model].frame_height.mm
        ).room  # lids stop the tallest most
        return replace(told, one_more=one_more(job, list(self.offered.models), others, room))

    def _settle_energy(self) -> None:
        """The search for energy reckons with an estimate; where the full year tells otherwise, the other
        layout has the title.
        """
        searched = next((title for title, (plan, *_) in self.found.items() if plan.aim == "energy"), None)
        if searched is None:
            return
        most = max(self.found, key=lambda title: self.found[title][2].figures.year_wh or 0.0)
        if most != searched:
            del self.found[searched]
            self._dropped.append(f"{searched} (it is {most})")

    def _note(self) -> str:
        room, units = self.offered.kinds[0].room, self.offered.job.units
        said = []
        if room.side_gap_mm > room.gap_mm:
            said.append(
                f"Side by side, panels keep {say_length(room.side_gap_mm, units)}: their brackets "
                f"stand between them."
            )
        if self._dropped:
            said.append(f"Not shown because it hardly differs or nothing fits: {', '.join(self._dropped)}.")
        return " ".join(said)


def _worth(plan: Plan, placements: Placements) -> int:
    return int(plan.goal.worth(placements).sum())


def difference(one: Placements, other: Placements) -> float:
    """Share of panels of the larger layout that have no counterpart of the same kind in about the same place
    in the other.
    """
    larger, smaller = (one, other) if len(one) >= len(other) else (other, one)
    if not len(larger):
        return 0.0
    alike = 0
    for i in range(len(smaller)):
        same = (overlap_share(larger, smaller, i) > 0.7) & (larger.kind == smaller.kind[i])
        alike += bool(same.any())
    return 1 - alike / len(larger)
