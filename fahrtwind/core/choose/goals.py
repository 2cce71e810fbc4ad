"""What a job offers and what its layouts can be best at: the goals proposals are searched for."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from functools import cached_property
from math import ceil

import numpy as np

from fahrtwind.core.choose.figures import with_panels
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import Attachment, PanelModel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.quantities import Length
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.layout.feet import landing_of
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.placing import find_model, first_hold, usual_feet
from fahrtwind.core.stations.layout.proposals.best import Goal, Limits
from fahrtwind.core.stations.layout.proposals.light import as_worth, light_map, light_shares
from fahrtwind.core.stations.layout.proposals.placements import FloatArray, IntArray, Kind, Placements
from fahrtwind.core.stations.layout.room import Block, Room, room_of
from fahrtwind.core.stations.layout.sun.harvest import stand_of
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.tables import balance
from fahrtwind.core.tables.feet import FOOT_MASS_KG

MOST_PANELS = 24
LANE_MM = 400.0
SCALE = 100.0


@dataclass(frozen=True, eq=False)
class Offered:
    """The job's offers, worked out: models with their rooms as kinds, limits, and what else the goals
    read.
    """

    job: Job
    models: tuple[PanelModel, ...]
    kinds: tuple[Kind, ...]
    limits: Limits

    @cached_property
    def members(self) -> FloatArray:
        """Places of the members along the roof, mm."""
        return np.array([m.x_mm for m in self._members])

    @cached_property
    def sure_members(self) -> FloatArray:
        """Members known so well that a foot set over one is in it. Along the roof, mm."""
        hold = usual_hold(self.job)
        return np.array(
            [m.x_mm for m in self._members if landing_of(self.job.members, hold, m.x_mm, m) == "member"]
        )

    @cached_property
    def _members(self) -> tuple[Member, ...]:
        return evaluate(with_panels(self.job, ())).findings.members.members

    @cached_property
    def field(self) -> tuple[FloatArray, FloatArray, FloatArray] | None:
        """The light on the roof, where place and climate are known. Along and across the roof in mm, and
        what reaches there as a share of the open sky's light.
        """
        try:
            top = stand_off_of(self.job).mm + max(m.frame_height.mm for m in self.models)
            return light_map(
                SunnyRoof.of(self.job), stand_of(SunnyRoof.of(self.job)), self.kinds[0].room.bounds, top
            )
        except InputError:
            return None

    def watts(self, placements: Placements) -> IntArray:
        return np.array([round(m.power.w) for m in self.models], dtype=np.int64)[self.model(placements)]

    def model(self, placements: Placements) -> IntArray:
        return np.array([k.model for k in self.kinds], dtype=np.int64)[placements.kind]

    def light(self, placements: Placements) -> FloatArray:
        """Share of the open sky's energy for each placement; one everywhere where no place is known."""
        if self.field is None:
            return np.ones(len(placements))
        return light_shares(
            placements, list(self.kinds), [max(m.bypass_diodes or 1, 1) for m in self.models], self.field
        )


@dataclass(frozen=True, slots=True, eq=False)
class Plan:
    """One search: what it is called, the kinds it may use and its goal."""

    title: str
    words: str
    kinds: tuple[Kind, ...]
    goal: Goal
    aim: str


def offered_by(job: Job) -> Offered:
    """What the wish offers, with the room for it. Raises InputError naming the field where nothing is on
    offer.
    """
    if not job.wish.offers:
        raise InputError(
            "No panel model is on offer.",
            remedy="Add at least one model and how many of it there are.",
            field="wish.offers",
        )
    models = tuple(find_model(job, offer.model) for offer in job.wish.offers)
    keep, bracket = frozenset(p.id for p in job.panels if p.locked), usual_hold(job).bracket
    kinds = list[Kind]()
    for number, model in enumerate(models):
        room = room_of(
            job, stand_off_of(job).mm + model.frame_height.mm, keep, bracket.lever.mm + bracket.toe.mm
        )
        if room is None:
            raise InputError(
                "The roof has no size yet.",
                remedy="Measure its length and width.",
                field="vehicle.roof_length",
            )
        long, wide = ceil(model.length.mm), ceil(model.width.mm)
        kinds.append(Kind(len(kinds), number, False, long, wide, room))
        if long != wide:
            kinds.append(Kind(len(kinds), number, True, wide, long, room))
    return Offered(job, models, tuple(kinds), _limits(job, models, len(keep)))


def usual_hold(job: Job) -> Attachment:
    """How most of the job's panels are held: new ones are held like them."""
    holds = Counter(p.hold for p in job.panels)
    return holds.most_common(1)[0][0] if holds else first_hold(job)


def stand_off_of(job: Job) -> Length:
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


def plans_for(offered: Offered) -> Iterator[Plan]:
    """The goals worth a proposal for this offer, the ones that need most explaining last."""
    kinds, watts = offered.kinds, offered.watts
    steady = Goal(watts, True)
    yield Plan("Most watts", "As many watts as the roof takes.", kinds, steady, "watts")
    yield Plan(
        "Balanced",
        "Watts against holes, feet that miss members, and price.",
        kinds,
        Goal(lambda p: _balanced(offered, p), False),
        "balance",
    )
    if offered.field is not None:
        energy = Goal(lambda p: as_worth(watts(p) * offered.light(p), SCALE), False)
        yield Plan("Most energy", "Out of the shadows of what stands on the roof.", kinds, energy, "energy")
    yield Plan(
        "Mirrored",
        "The same on both sides of the centre line.",
        kinds,
        replace(steady, symmetric=True),
        "mirrored",
    )
    few = Goal(lambda p: np.maximum(watts(p) - round(balance.PANEL_W), 0), True)
    yield Plan(
        "Few panels",
        f"A panel has to bring {balance.PANEL_W:.0f} W more than nothing: fewer holes and cables.",
        kinds,
        few,
        "few",
    )
    for number, model in _strongest(offered):
        own = tuple(k for k in kinds if k.model == number)
        yield Plan(
            f"All {model.name}", "One model only: simple strings, one kind of foot.", own, steady, "alike"
        )
    lane = _with_lane(kinds)
    yield Plan(
        "Way along the middle",
        f"{say_length(LANE_MM, offered.job.units)} along the centre line stay free to kneel on.",
        lane,
        steady,
        "lane",
    )
    for turned, title in ((False, "Lengthwise"), (True, "Crosswise")):
        own = tuple(k for k in kinds if k.turned == turned)
        if own:
            yield Plan(f"{title} only", "All panels lie the same way.", own, steady, title)


def _strongest(offered: Offered) -> list[tuple[int, PanelModel]]:
    """The two models with the most watts by area, where there is more than one."""
    if len(offered.models) < 2:
        return []
    return sorted(enumerate(offered.models), key=lambda item: -item[1].power.w)[:2]


def _with_lane(kinds: tuple[Kind, ...]) -> tuple[Kind, ...]:
    def with_it(room: Room) -> Room:
        lane = Rect(room.bounds.x_mm, -LANE_MM / 2, room.bounds.length_mm, LANE_MM)
        return replace(
            room, blocks=(*room.blocks, Block("free area", "lane", "way along the middle", lane, 0.0))
        )

    return tuple(replace(k, room=with_it(k.room)) for k in kinds)


def _balanced(offered: Offered, placements: Placements) -> IntArray:
    hold = usual_hold(offered.job)
    per_foot = 0 if hold.school == "tape" else hold.count
    model = offered.model(placements)
    feet = fitted_feet(offered, placements)
    price = np.array([m.price or 0.0 for m in offered.models])[model]
    loose = (
        np.maximum(feet - 2 * _reached(offered, placements, offered.members), 0)
        if len(offered.members)
        else 0
    )
    value = offered.watts(placements) * offered.light(placements)
    value = value - balance.HOLE_W * feet * per_foot - balance.LOOSE_FOOT_W * loose - balance.PRICE_W * price
    return as_worth(value, SCALE)


def fitted_feet(offered: Offered, placements: Placements) -> IntArray:
    """A pair of feet for every member a panel reaches, the usual number at most: one more would only be a
    hole in bare skin.

    The usual number stays where fewer than two members are known for sure, and for tape, which makes no holes
    and holds by its area.
    """
    usual = np.array([usual_feet(m) for m in offered.models], dtype=np.int64)[offered.model(placements)]
    if usual_hold(offered.job).school == "tape":
        return usual
    pairs = _reached(offered, placements, offered.sure_members)
    return np.where(pairs < 2, usual, np.minimum(2 * pairs, usual))


def _reached(offered: Offered, placements: Placements, members: FloatArray) -> IntArray:
    """How many members each placement's sides reach with a bracket."""
    end = usual_hold(offered.job).bracket.length.mm / 2
    low = np.searchsorted(members, placements.x + end)
    high = np.searchsorted(members, placements.x + placements.length - end, side="right")
    return (high - low).astype(np.int64)
