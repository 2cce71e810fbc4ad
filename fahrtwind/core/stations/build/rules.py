"""Snags of making and drilling: lengths, edges, ceilings."""

import math
from collections.abc import Iterator

import numpy as np

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.panel import Drilled, OuterFoot
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.hold.schools.drilled import ROW_DIAMETERS
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace, foot_base
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.layout.shape import Shape

PRACTICE = "common practice, no source"
TOUCHING_MM = 1.0


def _drilled(holders: tuple[Holder, ...]) -> Iterator[tuple[Holder, Drilled]]:
    for holder in holders:
        if holder.feet and isinstance(holder.hold, Drilled):
            yield (holder, holder.hold)


@rule(
    "feet-crowd",
    "stop",
    "roof-day",
    "Two holes nearer than three diameters",
    "AISI S100 J4.1: spacing at least 3 diameters",
)
def feet_crowd(marks: tuple[Mark, ...], holders: tuple[Holder, ...]) -> Iterator[Found]:
    need = {h.id: ROW_DIAMETERS * hold.fastener_mm for h, hold in _drilled(holders)}
    holes = sorted((m for m in marks if m.kind == "hole" and m.panel in need), key=lambda m: m.x_mm)
    widest = max(need.values(), default=0.0)
    paths = {(h.id, f.foot): h.place(f) for h in holders for f in h.feet}
    for i, a in enumerate(holes):
        for b in holes[i + 1 :]:
            if b.x_mm - a.x_mm > widest:
                break
            apart = math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm)
            if (a.panel, a.foot) != (b.panel, b.foot) and apart < max(need[a.panel], need[b.panel]):
                yield Found(
                    place=paths[a.panel, a.foot],
                    where=f"holes {a.number} and {b.number}",
                    why="They run into one another.",
                    remedy="Move one foot along its frame.",
                )


@rule("brackets-meet", "stop", "hold", "Brackets lie on one another", "geometry: their bases on the roof")
def brackets_meet(
    holders: tuple[Holder, ...], feet: tuple[FootPlace, ...], units: UnitSystem
) -> Iterator[Found]:
    named = {h.id: h for h in holders}
    bases = sorted(((foot_base(named[f.panel].hold, f), f) for f in feet), key=lambda pair: pair[0].x_mm)
    for i, (base, foot) in enumerate(bases):
        for other, one in bases[i + 1 :]:
            if other.x_mm >= base.x_end_mm - TOUCHING_MM:
                break
            common = base.clipped(other)
            if common is not None and min(common.length_mm, common.width_mm) > TOUCHING_MM:
                yield Found(
                    place=named[foot.panel].place(foot),
                    where=f"{named[foot.panel].name} {foot.foot} and {named[one.panel].name} {one.foot}",
                    why=f"They share {say_length(common.width_mm, units)} across and "
                    f"{say_length(common.length_mm, units)} along.",
                    remedy="Set the panels further apart, or one of the feet along its frame.",
                )


def within(feet: list[FootPlace], blocks: list[Rect]) -> list[bool]:
    """Whether each foot stands inside any of the blocks; on an edge it does not."""
    at = np.array([(f.x_mm, f.y_mm) for f in feet]).reshape(-1, 1, 2)
    low = np.array([(b.x_mm, b.y_mm) for b in blocks]).reshape(-1, 2)
    high = np.array([(b.x_end_mm, b.y_end_mm) for b in blocks]).reshape(-1, 2)
    inside = np.all((low < at) & (at < high), axis=2)
    return [bool(any_of) for any_of in np.any(inside, axis=1)]


@rule("foot-on-obstacle", "stop", "hold", "Foot stands off the roof or on an obstacle", "geometry")
def foot_on_obstacle(
    holders: tuple[Holder, ...], obstacle_shapes: tuple[Shape, ...], roof: Rect | None
) -> Iterator[Found]:
    standing = [(h, f) for h in holders if not isinstance(h.hold, OuterFoot) for f in h.feet]
    blocked = within([f for _, f in standing], [s.rect for s in obstacle_shapes])
    for (holder, f), inside in zip(standing, blocked, strict=True):
        off = roof is not None and (
            not (roof.x_mm <= f.x_mm <= roof.x_end_mm and roof.y_mm <= f.y_mm <= roof.y_end_mm)
        )
        if inside or off:
            yield Found(
                place=holder.place(f),
                where=f"{holder.name}, foot {f.foot}",
                why="There is nothing to fasten to." if off else "An obstacle is in the way.",
                remedy="Move the panel or the foot.",
            )
