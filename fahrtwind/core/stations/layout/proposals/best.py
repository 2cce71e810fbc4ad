"""The best layout for one goal: proved at once on most roofs, in two halves on long ones.

Where all placements are too many, positions along the roof are snapped to a raster (what is found is a
layout), then a few metres at a time are packed again with all placements (it may get better), then the sizes
are rounded so that every layout stays possible (what is found there is a bound). Where both halves agree the
layout is the best there is; where they do not, what is left of the time goes into all placements after all.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import ceil, floor

import numpy as np

from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.proposals.packing import Search, Task, greedy, pack, relax, spots
from fahrtwind.core.stations.layout.proposals.placements import (
    FloatArray,
    IntArray,
    Kind,
    Placements,
    placements_of,
    relaxed,
    without_twins,
)
from fahrtwind.core.stations.layout.room import Block

WHOLE, LARGEST, A_SECOND = 4500, 16_000, 3000
"""How many placements are solved at once, how many at most once a good layout is known, and for how many of
them a second is due.
"""
ROUNDED, SLOWER = (5000, 9500), 1.5
"""How many placements are left when sizes are rounded for a bound: coarsely first, so that there is one, then
finer. The time a bound takes grows about so: with their number to this power."""
STEPS = (5, 10, 20, 40, 80, 120)
STRETCH_MM = 5200.0
STRETCH_SECONDS, FIRST_SHARE, STRETCH_SHARE, BOUND_SHARE = 1.2, 0.4, 0.2, 0.7


@dataclass(frozen=True, slots=True)
class Limits:
    """How many of each offer, how many in all, mass of one with its feet, and what the roof still bears."""

    at_most: Sequence[int]
    in_all: int
    mass_g: Sequence[int]
    mass_left_g: int


@dataclass(frozen=True, slots=True)
class Goal:
    """What a layout is to be best at. ``worth`` of each placement; ``steady``: it is the same wherever a
    panel lies.
    """

    worth: Callable[[Placements], IntArray]
    steady: bool
    symmetric: bool = False
    unlike: tuple[Placements, ...] = ()


@dataclass(frozen=True, slots=True, eq=False)
class Best:
    """The layout, what it is worth, and what no layout exceeds; ``bound`` is None where nothing was
    proved.
    """

    layout: Placements
    worth: int
    bound: int | None


Tell = Callable[[Placements], None]


def best_layout(
    kinds: Sequence[Kind], goal: Goal, limits: Limits, search: Search, seconds: float, tell: Tell
) -> Best:
    """The most worth the kinds give within ``seconds``."""
    task = task_of(kinds, goal, limits)
    whole = len(task.placements) <= WHOLE
    if goal.symmetric or goal.unlike or whole:
        task = task if whole else _snapped(kinds, goal, limits, WHOLE)
        found = _run(task, search, seconds, tell)
        # a mirrored layout may lean on the mirror image of a block, and not all such places are among the
        # placements
        return replace(found, bound=None) if goal.symmetric or task.placements.step_mm > 1 else found
    return _in_rounds(kinds, goal, limits, search, tell)


def _in_rounds(kinds: Sequence[Kind], goal: Goal, limits: Limits, search: Search, tell: Tell) -> Best:
    """First a snapped layout, then some metres at a time, then a rounded bound, and what is left of the time
    for everything.
    """
    found = _run(_snapped(kinds, goal, limits, WHOLE), search, search.seconds_left() * FIRST_SHARE, tell)
    found = _by_stretches(kinds, goal, limits, search, replace(found, bound=None), tell)
    bound = bound_of(kinds, goal, limits, search, BOUND_SHARE, found.worth) if goal.steady else None
    found = replace(found, bound=bound)
    if search.over() or found.worth == bound:
        return found
    everything = task_of(kinds, goal, limits)
    if len(everything.placements) <= min(LARGEST, A_SECOND * search.seconds_left()):
        last = _run(everything, search, search.seconds_left(), tell, found.worth)
        better = last if last.worth > found.worth else found
        return replace(better, bound=_tighter(bound, last.bound and max(last.bound, better.worth)))
    found = replace(_by_stretches(kinds, goal, limits, search, found, tell, share=1.0), bound=bound)
    if search.over() or found.worth == bound or not goal.steady:
        return found
    finest = _rounded(kinds, goal, limits, ROUNDED[-1])
    return replace(
        found, bound=_tighter(bound, pack(finest, search, search.seconds_left(), greedy(finest)).bound)
    )


def _tighter(one: int | None, other: int | None) -> int | None:
    return min((bound for bound in (one, other) if bound is not None), default=None)


def task_of(kinds: Sequence[Kind], goal: Goal, limits: Limits, step_mm: int = 1) -> Task:
    """What is chosen among for a goal: placements every ``step_mm``, their worth, and what must go
    together.
    """
    placements = placements_of(kinds, step_mm, symmetric=goal.symmetric)
    models = np.zeros(max((k.number for k in kinds), default=0) + 1, dtype=np.int64)
    models[[k.number for k in kinds]] = [k.model for k in kinds]
    task = Task(
        placements,
        goal.worth(placements),
        models[placements.kind],
        limits.at_most,
        limits.in_all,
        limits.mass_g,
        limits.mass_left_g,
    )
    task = task.kept(np.flatnonzero(task.worth > 0))  # what is worth nothing would only be thrown in
    if goal.symmetric:
        return _in_pairs(task)
    task = task.kept(without_twins(task.placements, task.worth, task.model, spots(task.placements)))
    return replace(task, unlike=tuple(_likeness(task.placements, other) for other in goal.unlike))


def _snapped(kinds: Sequence[Kind], goal: Goal, limits: Limits, size: int) -> Task:
    return _first_small(lambda step: task_of(kinds, goal, limits, step), size)


def _first_small(make: Callable[[int], Task], size: int) -> Task:
    """The finest raster on which the problem is no larger than ``size``, or the coarsest."""
    task = make(STEPS[0])
    for step in STEPS[1:]:
        if len(task.placements) <= size:
            break
        task = make(step)
    return task


def _run(task: Task, search: Search, seconds: float, tell: Tell, known: int = 0) -> Best:
    first = greedy(task)
    tell(task.placements.chosen(first))
    packed = pack(task, search, seconds, first, lambda chosen: tell(task.placements.chosen(chosen)), known)
    return Best(task.placements.chosen(packed.chosen), packed.worth, packed.bound)


def bound_of(
    kinds: Sequence[Kind], goal: Goal, limits: Limits, search: Search, share: float = 1.0, known: int = 0
) -> int | None:
    """What no layout exceeds at a steady goal, within a share of the time that is left; None where that is
    too short.

    It gets finer while the time lasts, until it meets the worth of a layout that is ``known``.
    """
    until, best, size, took = search.seconds_left() * (1 - share), None, 0, 0.0
    for most in ROUNDED:
        task = _rounded(kinds, goal, limits, most)
        left = search.seconds_left() - until
        enough = left > took * (len(task.placements) / size) ** SLOWER if size else left > 0
        if search.over() or not enough or best == known or len(task.placements) == size:
            break
        size = len(task.placements)
        solved = relax(task, left)
        took = left - (search.seconds_left() - until)
        best = _tighter(best, None if solved is None else solved.whole(0.0))
    return best


def _rounded(kinds: Sequence[Kind], goal: Goal, limits: Limits, most: int) -> Task:
    """Sizes rounded down so far that no more placements than these are left: every layout stays possible."""
    return _first_small(lambda step: task_of(relaxed(kinds, step), goal, limits), most)


def _by_stretches(
    kinds: Sequence[Kind],
    goal: Goal,
    limits: Limits,
    search: Search,
    found: Best,
    tell: Tell,
    share: float = STRETCH_SHARE,
) -> Best:
    """Pack a few metres anew while the rest stays, from front to rear and again half a stretch further."""
    bounds = kinds[0].room.bounds
    until = search.seconds_left() * (1 - share)
    for start in np.arange(bounds.x_mm, bounds.x_end_mm, STRETCH_MM / 2):
        if search.over() or search.seconds_left() < until:
            break
        found = _stretch(kinds, goal, limits, search, found, tell, float(start))
    return found


def _stretch(
    kinds: Sequence[Kind], goal: Goal, limits: Limits, search: Search, found: Best, tell: Tell, start: float
) -> Best:
    layout = pushed_apart(kinds, found.layout, start + STRETCH_MM / 2)
    inside = (layout.x >= start) & (layout.x + layout.length <= start + STRETCH_MM)
    rest = layout.chosen(~inside)
    gap, side = layout.gap_mm, layout.side_gap_mm
    blocks = tuple(
        Block("panel", "", "", Rect(float(x), float(y), float(a), float(b)).grown(gap, side), gap)
        for x, y, a, b in zip(rest.x, rest.y, rest.length, rest.width, strict=True)
    )
    own = [_within(kind, start, blocks) for kind in kinds]
    models = [_kind(kinds, rest, i).model for i in range(len(rest))]
    left = replace(
        limits,
        at_most=[m - models.count(i) for i, m in enumerate(limits.at_most)],
        in_all=limits.in_all - len(models),
        mass_left_g=limits.mass_left_g - sum(limits.mass_g[m] for m in models),
    )
    task = task_of(own, goal, left)
    if not len(task.placements) or len(task.placements) > WHOLE:
        return found
    part = _run(task, search, STRETCH_SECONDS, lambda _: None)
    whole = rest.joined(part.layout)
    worth = int(goal.worth(whole).sum())
    if worth <= found.worth:
        return found
    tell(whole)
    return Best(whole, worth, None)


def pushed_apart(kinds: Sequence[Kind], layout: Placements, at_mm: float) -> Placements:
    """The same panels in the same lanes, those before ``at_mm`` pushed forward and the others aft: all slack
    in one place.
    """
    x = layout.x.copy()
    ahead = layout.x + layout.length / 2 < at_mm
    for one in [i for i in np.argsort(layout.x) if ahead[i]]:
        x[one] = _slid(kinds, layout, x, int(one), forward=True)
    for one in [i for i in np.argsort(-(layout.x + layout.length)) if not ahead[i]]:
        x[one] = _slid(kinds, layout, x, int(one), forward=False)
    return replace(layout, x=x)


def _kind(kinds: Sequence[Kind], layout: Placements, one: int) -> Kind:
    return next(k for k in kinds if k.number == layout.kind[one])


def _slid(kinds: Sequence[Kind], layout: Placements, x: IntArray, one: int, *, forward: bool) -> int:
    """How far a panel can slide before it meets an edge, a block or another panel in its lane."""
    room, gap = _kind(kinds, layout, one).room, layout.gap_mm
    y0, y1, length = layout.y[one], layout.y[one] + layout.width[one], layout.length[one]
    here = int(x[one])
    side = layout.side_gap_mm
    lane = (layout.y < y1 + side) & (layout.y + layout.width + side > y0)
    rects = [r for r in (*(b.rect for b in room.blocks), *room.fences) if r.y_mm < y1 and r.y_end_mm > y0]
    if forward:
        stops = [
            room.bounds.x_mm,
            *(r.x_end_mm for r in rects if r.x_end_mm <= here),
            *(r.x_mm for r in room.fences if r.x_mm <= here),
        ]
        stops += (
            x[lane & (x + layout.length <= here)] + layout.length[lane & (x + layout.length <= here)] + gap
        ).tolist()
        return min(ceil(max(stops)), here)
    ends = [
        room.bounds.x_end_mm,
        *(r.x_mm for r in rects if r.x_mm >= here + length),
        *(r.x_end_mm for r in room.fences if r.x_end_mm >= here + length),
    ]
    ends += (x[lane & (x >= here + length)] - gap).tolist()
    return max(floor(min(ends)) - int(length), here)


def _within(kind: Kind, start: float, blocks: tuple[Block, ...]) -> Kind:
    room = kind.room
    low, high = max(room.bounds.x_mm, start), min(room.bounds.x_end_mm, start + STRETCH_MM)
    near = tuple(b for b in (*room.blocks, *blocks) if b.rect.x_mm < high and b.rect.x_end_mm > low)
    bounds = Rect(low, room.bounds.y_mm, max(high - low, 0.0), room.bounds.width_mm)
    return replace(kind, room=replace(room, bounds=bounds, blocks=near))


def _in_pairs(task: Task) -> Task:
    """Only placements that are their own mirror image or have one; each with its image."""
    p = task.placements
    at = {
        (k, x, y): i
        for i, (k, x, y) in enumerate(zip(p.kind.tolist(), p.x.tolist(), p.y.tolist(), strict=True))
    }
    mirrored = zip(p.kind.tolist(), p.x.tolist(), (-p.y - p.width).tolist(), strict=True)
    image = np.array([at.get(place, -1) for place in mirrored], dtype=np.int64)
    own, apart = (
        image == np.arange(len(p)),
        (2 * p.y >= p.side_gap_mm) | (2 * (p.y + p.width) <= -p.side_gap_mm),
    )
    keep = np.flatnonzero((image >= 0) & (own | apart))
    new = np.full(len(p), -1, dtype=np.int64)
    new[keep] = np.arange(len(keep))
    pairs = np.array([(new[i], new[image[i]]) for i in keep if image[i] != i], dtype=np.int64).reshape(-1, 2)
    return replace(task.kept(keep), pairs=pairs)


ALIKE, SAME_SHARE = 0.6, 0.7


def _likeness(placements: Placements, other: Placements) -> tuple[IntArray, int]:
    """The placements that repeat a panel of another layout, and how many of them may be taken."""
    same = np.zeros(len(placements), dtype=np.bool_)
    for i in range(len(other)):
        same |= overlap_share(placements, other, i) >= SAME_SHARE
    return np.flatnonzero(same), int(ALIKE * len(other))


def overlap_share(placements: Placements, other: Placements, one: int) -> FloatArray:
    """Share of common area of one panel of another layout with each placement, by the area of both."""
    along = np.minimum(placements.x + placements.length, other.x[one] + other.length[one]) - np.maximum(
        placements.x, other.x[one]
    )
    across = np.minimum(placements.y + placements.width, other.y[one] + other.width[one]) - np.maximum(
        placements.y, other.y[one]
    )
    common = np.maximum(along, 0) * np.maximum(across, 0)
    share: FloatArray = common / (
        placements.length * placements.width + other.length[one] * other.width[one] - common
    )
    return share
