"""The search of what makes one panel hold: changes alone and together, each worked out before it is told."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from itertools import combinations
from math import inf
from typing import Literal

from fahrtwind.core.choose.foresight import BOLD, NEAR_BY, Reach, foreseen, reach_of
from fahrtwind.core.choose.hold_changes import (
    FEWEST_FEET,
    MOST_FASTENERS,
    MOST_FEET,
    OF_THE_WIND,
    Change,
    so_many_a_foot,
    spread_to,
)
from fahrtwind.core.choose.look import Look, more_stops, stops_of, subject
from fahrtwind.core.choose.spending import dearer_by
from fahrtwind.core.edits import Edit, SetValue, apply_edits
from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.evaluate import visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import Drilled, PlacedPanel
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.verdict import PanelVerdict

MOST_REFUSALS = 2
"""A change that brought new stops so often, alone and in company, is tried in no other company."""
SLOWEST_KMH, KMH_STEP = 30, 5
HOLE_H, FOOT_H, PAD_H, RAIL_H, FAIRING_H = 0.15, 0.2, 0.3, 0.5, 1.5
"""Person-hours for a hole drilled and sealed, a foot set, a pad prepared and pressed, a rail laid, a fairing
made: common practice, no source.
"""
HOLDING = (
    "let-go-too-low",
    "safe-speed-too-low",
    "parked-lets-go",
    "parked-not-safe",
    "panel-over-its-rating",
)


@dataclass(frozen=True, slots=True)
class Effort:
    """How far a search goes: so many changes ``together``, so many such ways ``tried``, so many judged with
    their snags, as far as a guess may be short by ``bold``; ``fewest``: it proves the fewest holes; ``near``:
    new stops of water, cables and days do not count.
    """

    together: int
    tried: int
    judged: int
    bold: float = NEAR_BY
    fewest: bool = True
    near: bool = False


THOROUGH, OF_A_FRAME = Effort(3, 60, 24), Effort(3, 12, 5, BOLD)
QUICK = Effort(2, 10, 4, fewest=False)


@dataclass(frozen=True, slots=True)
class HoldOffer:
    """A change that makes a panel hold: what it does, its speeds then, and what it takes. ``holes``: more
    than before, negative where fewer; ``hours``: person-hours of the new hold; ``dearer``: in material, None
    where prices are missing. ``fewest``: every number of feet and fasteners with fewer holes was worked out
    and does not hold.
    """

    words: str
    edits: tuple[Edit, ...]
    safe_m_s: float
    let_go_m_s: float
    lost_let_go_m_s: float
    parked_safe_m_s: float
    holes: int
    feet: int
    height_mm: float
    hours: float
    dearer: float | None
    fewest: bool = False


def fails(snags: tuple[Snag, ...], panel: PlacedPanel) -> bool:
    """Whether a panel, or what it lies on, has a stop of the hold that says it does not hold."""
    mine = {f"panels.{panel.id}", f"carriers.{panel.carrier}"}
    return any(
        s.severity == "stop"
        and s.station == "hold"
        and subject(s.place) in mine
        and (s.id in HOLDING or s.id.startswith("carrier"))
        for s in snags
    )


class Search:
    """The changes of one panel, what each reaches alone, and how far any of them got."""

    def __init__(
        self, before: Look, panel: PlacedPanel, changes: list[Change], most: int, near: bool
    ) -> None:
        self.job, self.before, self.panel, self.changes, self.most = before.job, before, panel, changes, most
        self.near = near
        self.now = reach_of(self.job, panel, visit(self.job))
        self.reached: dict[str, Reach | None] = {}
        self.nearest = self.now
        self.refused: tuple[str, tuple[str, ...]] | None = None
        self.refusals: Counter[str] = Counter()
        self.judged = 0

    @property
    def driven_m_s(self) -> float:
        return self.job.vehicle.top_speed.m_s if self.job.vehicle.top_speed else 0.0

    def hopeless(self) -> bool:
        """Whether the strongest change of every kind, all made at once to what the panel lies on, is far from
        enough, or the panel's own clamps are still short: then no few of them are tried.
        """
        if self.panel.carrier is None:
            return False
        strongest, nearest = tuple({c.kind: c for c in self.changes}.values()), self.nearest
        _, reach = self._reach(strongest)
        hopeless = reach is not None and (
            not self._enough(reach, self.driven_m_s, BOLD) or reach.own_m_s * NEAR_BY < self.driven_m_s
        )
        if not hopeless:  # nobody is offered all at once: it tells nothing about what comes near
            self.nearest = nearest
        return hopeless

    def found(self, effort: Effort) -> list[HoldOffer]:
        """The fewest holes, each change alone, and only where none of those is enough, more at once."""
        found = [*(self.fewest() if effort.fewest else []), *self.alone()]
        for together in range(2, effort.together + 1):
            if not found:
                found += self.together(together, effort)
        return found

    def alone(self) -> list[HoldOffer]:
        """Each change for itself, until there are enough; what they reach lets hope for what they do
        together. What is no change of the wind waits where it cannot be enough.
        """
        if not self._by_itself_short():
            return self._each(self.changes)
        of_the_wind = [c for c in self.changes if c.kind in OF_THE_WIND]
        return self._each(of_the_wind) or self._each([c for c in self.changes if c not in of_the_wind])

    def _by_itself_short(self) -> bool:
        """Whether the panel is not made for it, on however many and strong feet."""
        return self.now is not None and self.now.own_m_s < self.driven_m_s

    def _each(self, changes: list[Change]) -> list[HoldOffer]:
        found: list[HoldOffer] = []
        for change in changes:
            if len(found) >= self.most:
                break
            go_on()
            then, reach = self._reach((change,))
            self.reached[change.words] = reach
            if then is not None:
                found += self._offered((change,), then, reach)
        return found

    def together(self, count: int, effort: Effort) -> list[HoldOffer]:
        """So many changes at once, as far as they let hope for; each kind once."""
        found: list[HoldOffer] = []
        self.judged = 0
        ways = [w for w in combinations(self.changes, count) if len({c.kind for c in w}) == count]
        ranked = [(self._short(way, effort.bold), sum(c.burden for c in way), way) for way in ways]
        # what is foreseen to be enough before what is only hoped for; of those the gentlest first
        hoped = sorted((r for r in ranked if r[0] <= effort.bold), key=lambda r: r[:2])
        for _, _, way in hoped[: effort.tried]:
            if len(found) >= self.most or self.judged >= effort.judged:
                break
            if any(self.refusals[c.words] >= MOST_REFUSALS for c in way):
                continue
            go_on()
            then, reach = self._reach(way)
            if then is not None:
                found += self._offered(way, then, reach)
        return found

    def fewest(self) -> list[HoldOffer]:
        """The fewest holes with the fastener that is chosen: all numbers of feet and fasteners, from the
        fewest holes on, until one holds.
        """
        hold = self.panel.hold
        if self.panel.carrier is not None or self.panel.span is not None or not isinstance(hold, Drilled):
            return []
        if self._by_itself_short():
            return []
        last: dict[int, Reach] = {}
        enough: set[int] = set()
        for feet, count in _numbers():
            if feet in enough:  # one more in each foot changed nothing: what gives way is not what they hold
                continue
            go_on()
            fastened = so_many_a_foot(f"panels.{self.panel.id}.hold", hold, count, self.job.units)
            edits = (spread_to(self.panel, feet), *fastened.edits)
            way = (Change("numbers", f"{feet} feet, {fastened.words}", edits, 0.0),)
            then, reach = self._reach(way)
            if reach is not None:
                if feet in last and reach.does_as_much_as(last[feet]):
                    enough.add(feet)
                last[feet] = reach
            offers = [] if then is None else self._offered(way, then, reach)
            if offers:
                return [replace(offers[0], fewest=True)]
        return []

    def slower(self) -> list[HoldOffer]:
        """The highest speed at which it holds as it is."""
        unit = 1 / 3.6 if self.job.units == "metric" else 0.44704
        whole = int((self.now.safe_m_s if self.now else 0.0) / unit / KMH_STEP) * KMH_STEP
        if whole < SLOWEST_KMH or whole * unit >= self.driven_m_s:
            return []
        shown = f"{whole} {'km/h' if self.job.units == 'metric' else 'mph'}"
        edit = SetValue(path="vehicle.top_speed", value=shown)
        way = (Change("speed", f"drive {shown} at most", (edit,), 30.0),)
        then, reach = self._reach(way)
        return [] if then is None else self._offered(way, then, reach)

    def _short(self, way: tuple[Change, ...], most: float) -> float:
        """How many times more the way would have to reach than what its changes let foresee."""
        alone = [self.reached.get(c.words) for c in way]
        known = [r for r in alone if r is not None]
        if self.now is None:
            return 1.0
        if len(known) < len(alone):
            return inf
        guess = foreseen(self.now, known)
        return next((bold for bold in (1.0, most) if self._enough(guess, self.driven_m_s, bold)), inf)

    def _enough(self, reach: Reach, driven_m_s: float, bold: float = 1.0) -> bool:
        lost = reach.lost_m_s * bold >= driven_m_s or not self.job.wish.one_lost
        return reach.safe_m_s * bold >= driven_m_s and reach.parked * bold >= 1.0 and lost

    def _reach(self, way: tuple[Change, ...]) -> tuple[Look | None, Reach | None]:
        """A look at the job with the changes, and how far the panel goes then; None where they do not go
        together.
        """
        try:
            after = apply_edits(self.job, [e for change in way for e in change.edits])
        except FahrtwindError:
            return None, None
        then = Look(after)
        reach = reach_of(after, _of(after, self.panel), then.seen)
        if reach is not None and (self.nearest is None or reach.safe_m_s > self.nearest.safe_m_s):
            self.nearest = reach
        return then, reach

    def _offered(self, way: tuple[Change, ...], then: Look, reach: Reach | None) -> list[HoldOffer]:
        """The offer, where all is held and no new stop comes."""
        after = then.job
        driven = after.vehicle.top_speed.m_s if after.vehicle.top_speed else 0.0
        if reach is None or not self._enough(reach, driven):
            return []
        self.judged += 1
        changed = _of(after, self.panel)
        if self._refused(way, then, "placed"):
            return []
        if fails(then.near, changed) or self._refused(way, then, "near"):
            return []
        if self.near:
            return [_offer(way, self.before, then, changed, priced=False)]
        if self._refused(way, then, "everywhere"):
            return []
        return [_offer(way, self.before, then, changed)]

    def _refused(
        self, way: tuple[Change, ...], then: Look, seen: Literal["placed", "near", "everywhere"]
    ) -> bool:
        """Whether a stop came; the first such way is remembered with its stops. ``seen``: as far as that."""
        before, after = getattr(self.before, seen), getattr(then, seen)
        new = more_stops(stops_of(before, self.before.feet), stops_of(after, then.feet))
        if new:
            self.refusals.update(c.words for c in way)
        if new and self.refused is None:
            titles = {s.title for s in after if s.severity == "stop" and s.id in {snag for snag, _ in new}}
            self.refused = (", ".join(c.words for c in way), tuple(sorted(titles)))
        return bool(new)


def _numbers() -> Iterator[tuple[int, int]]:
    """Numbers of feet and of fasteners in each, by holes; of those with as many, the fewest feet."""
    every = [(n, c) for n in range(FEWEST_FEET, MOST_FEET + 1, 2) for c in range(1, MOST_FASTENERS + 1)]
    yield from sorted(every, key=lambda way: (way[0] * way[1], way[0]))


def _of(job: Job, panel: PlacedPanel) -> PlacedPanel:
    return next(p for p in job.panels if p.id == panel.id)


def _offer(
    way: tuple[Change, ...], before: Look, then: Look, panel: PlacedPanel, *, priced: bool = True
) -> HoldOffer:
    """``priced``: also how much dearer it is, which takes all that is bought."""
    seen = then.seen
    verdict = next(v for v in seen["verdicts"] if v.panel == panel.id)
    under = next((c for c in seen["carrier_verdicts"] if c.carrier == panel.carrier), None)
    parts: list[PanelVerdict | CarrierVerdict] = [verdict] if under is None else [verdict, under]
    holder = panel.carrier or panel.id
    feet = [f for f in seen["feet"] if f.panel == holder]
    marks = [m for m in seen["marks"] if m.panel == holder]
    holes = sum(m.kind == "hole" for m in marks)
    return HoldOffer(
        words=", ".join(c.words for c in way),
        edits=tuple(e for change in way for e in change.edits),
        safe_m_s=min(p.safe_m_s for p in parts),
        let_go_m_s=min(p.let_go_m_s for p in parts),
        lost_let_go_m_s=min(p.lost_let_go_m_s for p in parts),
        parked_safe_m_s=min(p.parked.safe_m_s for p in parts),
        holes=_holes(seen) - _holes(before.seen),
        feet=len(feet),
        height_mm=panel.stand_off.mm + panel.model.frame_height.mm,
        hours=holes * HOLE_H
        + len(feet) * FOOT_H
        + sum(m.kind == "pad" for m in marks) * PAD_H
        + (len(under.rails) * RAIL_H if under else 0.0)
        + any(c.kind == "fairing" for c in way) * FAIRING_H,
        dearer=dearer_by(before.seen, seen) if priced else None,
    )


def _holes(seen: Visit) -> int:
    return sum(m.kind == "hole" for m in seen["marks"])
