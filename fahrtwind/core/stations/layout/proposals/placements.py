"""The placements worth trying: every panel pushed against something, from the front or from the rear.

Any layout can be pushed together without losing a panel: what lies before a threshold is pushed to the front
(port) until it touches an edge, a block or a panel that was pushed before it, the rest to the rear
(starboard). So only sums of panel sizes, counted from edges and blocks, occur as positions (normal patterns:
Herz 1972, Christofides and Whitlock 1977; from both ends: Côté and Iori, "The meet-in-the-middle principle
for cutting and packing problems", 2018). On long roofs there are too many sums; there positions are snapped
to a raster, and what is found is no longer proved by this set alone.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from math import ceil, floor

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.room import Room

IntArray = npt.NDArray[np.int64]
FloatArray = npt.NDArray[np.float64]
BoolArray = npt.NDArray[np.bool_]
THRESHOLDS = (0.35, 0.5, 0.65)


@dataclass(frozen=True, slots=True)
class Kind:
    """A model lying one way. ``length_mm`` along the roof, ``width_mm`` across, rounded up; ``model`` counts
    the offers.

    ``number`` stays the same when only some kinds are used.
    """

    number: int
    model: int
    turned: bool
    length_mm: int
    width_mm: int
    room: Room


@dataclass(frozen=True, slots=True, eq=False)
class Placements:
    """Placements as columns: which kind, front edge, port edge, mm. Sizes without the gap.

    ``step_mm`` is 1 where the set is complete: a layout of most panels is among them.
    """

    kind: IntArray
    x: IntArray
    y: IntArray
    length: IntArray
    width: IntArray
    gap_mm: int
    side_gap_mm: int
    step_mm: int

    def __len__(self) -> int:
        return len(self.kind)

    def chosen(self, keep: BoolArray | IntArray) -> Placements:
        """The placements at these indices (or where the mask (n,) is true), in their order."""
        return Placements(
            self.kind[keep],
            self.x[keep],
            self.y[keep],
            self.length[keep],
            self.width[keep],
            self.gap_mm,
            self.side_gap_mm,
            self.step_mm,
        )

    def joined(self, other: Placements) -> Placements:
        """These placements with others behind them."""

        def both(name: str) -> IntArray:
            return np.concatenate([getattr(self, name), getattr(other, name)])

        sizes = both("length"), both("width")
        return Placements(
            both("kind"), both("x"), both("y"), *sizes, self.gap_mm, self.side_gap_mm, self.step_mm
        )

    def clash(self, one: int) -> BoolArray:
        """Which placements cannot be together with this one (itself too)."""
        gap, side = self.gap_mm, self.side_gap_mm
        found: BoolArray = (
            (self.x < self.x[one] + self.length[one] + gap)
            & (self.x + self.length + gap > self.x[one])
            & (self.y < self.y[one] + self.width[one] + side)
            & (self.y + self.width + side > self.y[one])
        )
        return found


def placements_of(kinds: Sequence[Kind], step_mm: int = 1, *, symmetric: bool = False) -> Placements:
    """All placements of the kinds in their rooms.

    ``step_mm`` over 1 snaps positions along the roof to a raster; ``symmetric`` adds every placement's mirror
    image and the middle of the roof.
    """
    nothing = np.empty(0, dtype=np.int64)
    gap, side = (
        ceil(max((getattr(k.room, name) for k in kinds), default=0)) for name in ("gap_mm", "side_gap_mm")
    )
    found = Placements(nothing, nothing, nothing, nothing, nothing, gap, side, step_mm)
    if kinds:
        along, across = _axis(kinds, 0, step_mm, symmetric), _axis(kinds, 1, 1, symmetric)
        for i, kind in enumerate(kinds):
            found = found.joined(_of_kind(kind, along[i], across[i], found))
    return found


def _of_kind(kind: Kind, xs: IntArray, ys: IntArray, like: Placements) -> Placements:
    x, y = (a.ravel() for a in np.meshgrid(xs, ys, indexing="ij"))
    fits = fits_room(kind.room, x, y, kind.length_mm, kind.width_mm)
    x, y = x[fits], y[fits]

    def same(value: int) -> IntArray:
        return np.full(len(x), value, dtype=np.int64)

    sizes = same(kind.length_mm), same(kind.width_mm)
    return Placements(same(kind.number), x, y, *sizes, like.gap_mm, like.side_gap_mm, like.step_mm)


def fits_room(
    room: Room, x: IntArray, y: IntArray, length: int | IntArray, width: int | IntArray
) -> BoolArray:
    """Whether frames at those places stay within the bounds, clear of the blocks, and do not lie across a
    fence. Places and sizes in mm, one entry a frame.
    """
    bounds = room.bounds
    x1, y1 = x + length, y + width
    fits: BoolArray = (
        (x >= bounds.x_mm) & (x1 <= bounds.x_end_mm) & (y >= bounds.y_mm) & (y1 <= bounds.y_end_mm)
    )
    for rect in (b.rect for b in room.blocks):
        fits &= ~((x < rect.x_end_mm) & (x1 > rect.x_mm) & (y < rect.y_end_mm) & (y1 > rect.y_mm))
    for rect in room.fences:
        apart = (x >= rect.x_end_mm) | (x1 <= rect.x_mm) | (y >= rect.y_end_mm) | (y1 <= rect.y_mm)
        within = (x >= rect.x_mm) & (x1 <= rect.x_end_mm) & (y >= rect.y_mm) & (y1 <= rect.y_end_mm)
        fits &= apart | within
    return fits


def _axis(kinds: Sequence[Kind], axis: int, step: int, symmetric: bool) -> list[IntArray]:
    """For every kind its positions along one axis."""
    low, high, before, behind = _stops(kinds, axis)
    gap = ceil(kinds[0].room.side_gap_mm if axis else kinds[0].room.gap_mm)
    sizes = sorted({s for k in kinds if (s := k.width_mm if axis else k.length_mm) <= high - low})
    found = [
        (_pushed_to_front(before, sizes, gap, at, step), _pushed_to_rear(behind, sizes, gap, at, step), at)
        for at in (round(low + (high - low) * share) for share in THRESHOLDS)
    ]
    best = min(found, key=lambda way: len(way[0]) + len(way[1]))
    fronts, rears, at = best
    positions = []
    for kind in kinds:
        size = kind.width_mm if axis else kind.length_mm
        own = fronts | {e - size for e in rears if e - size >= at}
        if axis and symmetric:
            own |= {-p - size for p in own} | {round(-size / 2)}
        positions.append(np.array(sorted(p for p in own if low <= p and p + size <= high), dtype=np.int64))
    return positions


def _stops(kinds: Sequence[Kind], axis: int) -> tuple[int, int, set[int], set[int]]:
    """First and last mm, and the places things can be pushed against from behind and from before."""
    rooms = [k.room for k in kinds]
    spans = [
        (r.bounds.y_mm, r.bounds.y_end_mm) if axis else (r.bounds.x_mm, r.bounds.x_end_mm) for r in rooms
    ]
    low, high = ceil(min(s[0] for s in spans)), floor(max(s[1] for s in spans))
    edges = {
        (b.y_mm, b.y_end_mm) if axis else (b.x_mm, b.x_end_mm)
        for room in rooms
        for b in (*(block.rect for block in room.blocks), *room.fences)
    }
    inner = {(f.y_mm, f.y_end_mm) if axis else (f.x_mm, f.x_end_mm) for room in rooms for f in room.fences}
    before = {low, *(ceil(end) for _, end in edges), *(ceil(start) for start, _ in inner)}
    behind = {high, *(floor(start) for start, _ in edges), *(floor(end) for _, end in inner)}
    return low, high, {s for s in before if low <= s < high}, {s for s in behind if low < s <= high}


def _pushed_to_front(stops: Iterable[int], sizes: Sequence[int], gap: int, at: int, step: int) -> set[int]:
    found = {s for s in stops if s < at}
    fresh = set(found)
    while fresh:
        fresh = {_up(p + s + gap, step) for p in fresh for s in sizes if p + s + gap < at} - found
        found |= fresh
    return found


def _pushed_to_rear(stops: Iterable[int], sizes: Sequence[int], gap: int, at: int, step: int) -> set[int]:
    """Rear edges, from which a panel's own size is still to be taken."""
    found = set(stops)
    fresh = set(found)
    while fresh:
        fresh = {_down(e - s - gap, step) for e in fresh for s in sizes if e - s >= at} - found
        found |= fresh
    return found


def _up(value: int, step: int) -> int:
    return -(-value // step) * step


def _down(value: int, step: int) -> int:
    return value // step * step


def relaxed(kinds: Sequence[Kind], step_mm: int) -> list[Kind]:
    """The kinds with sizes and blocks along the roof rounded so that every layout stays possible, on a
    raster.

    If one panel starts where another ends or later, the same holds after rounding down both starts and the
    size between them; so the best of these layouts is a bound on the best of the true ones.
    """

    def shorter(kind: Kind) -> int:
        gap = ceil(kind.room.gap_mm)
        return _down(kind.length_mm + gap, step_mm) - gap

    return [replace(k, length_mm=shorter(k), room=_relaxed_room(k.room, step_mm)) for k in kinds]


def _relaxed_room(room: Room, step: int) -> Room:
    gap = ceil(room.gap_mm)

    def wider(rect: Rect, *, free: bool) -> Rect:
        start = rect.x_mm if free else rect.x_mm + gap
        end = rect.x_end_mm + gap if free else rect.x_end_mm
        low, high = (
            floor(start / step) * step - (0 if free else gap),
            floor(end / step) * step - (gap if free else 0),
        )
        return Rect(low, rect.y_mm, max(high - low, 0), rect.width_mm)

    blocks = tuple(replace(b, rect=wider(b.rect, free=False)) for b in room.blocks)
    return Room(wider(room.bounds, free=True), blocks, (), room.gap_mm, room.side_gap_mm)


def without_twins(
    placements: Placements, worth: IntArray, model: IntArray, watched: tuple[IntArray, IntArray]
) -> IntArray:
    """Of placements of one model over the same watched spots only the most worth is needed. Returns the
    indices (n,) of those that are kept.
    """
    p, gap, side, (xs, ys) = placements, placements.gap_mm, placements.side_gap_mm, watched
    keys = np.stack(
        [
            model,
            np.searchsorted(xs, p.x),
            np.searchsorted(xs, p.x + p.length + gap),
            np.searchsorted(ys, p.y),
            np.searchsorted(ys, p.y + p.width + side),
        ]
    )
    order = np.lexsort((np.arange(len(p)), -worth))
    _, first = np.unique(keys[:, order], axis=1, return_index=True)
    return np.sort(order[first])
