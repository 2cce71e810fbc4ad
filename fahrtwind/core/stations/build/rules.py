"""Snags of making and drilling: lengths, edges, ceilings."""

import math
from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.panel import FoamTape, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.hold.schools.drilled import ROW_DIAMETERS
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace, foot_base
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.shape import Shape

PRACTICE = "common practice, no source"
TOUCHING_MM = 1.0


def _drilled(panels: tuple[PlacedPanel, ...]) -> Iterator[tuple[PlacedPanel, Screws | ThroughBolts]]:
    for panel in panels:
        if panel.feet and (not isinstance(panel.hold, FoamTape)):
            yield (panel, panel.hold)


@rule(
    "feet-crowd",
    "stop",
    "roof-day",
    "Two holes nearer than three diameters",
    "AISI S100 J4.1: spacing at least 3 diameters",
)
def feet_crowd(marks: tuple[Mark, ...], panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    holes = sorted((m for m in marks if m.kind == "hole"), key=lambda m: m.x_mm)
    need = {p.id: ROW_DIAMETERS * hold.fastener_mm for p, hold in _drilled(panels)}
    widest = max(need.values(), default=0.0)
    for i, a in enumerate(holes):
        for b in holes[i + 1 :]:
            if b.x_mm - a.x_mm > widest:
                break
            apart = math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm)
            if (a.panel, a.foot) != (b.panel, b.foot) and apart < max(need[a.panel], need[b.panel]):
                yield Found(
                    place=f"panels.{a.panel}.feet.{a.foot}",
                    where=f"holes {a.number} and {b.number}",
                    why="They run into one another.",
                    remedy="Move one foot along its frame.",
                )


@rule("brackets-meet", "stop", "hold", "Brackets lie on one another", "geometry: their bases on the roof")
def brackets_meet(
    panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...], units: UnitSystem
) -> Iterator[Found]:
    named = {p.id: p for p in panels}
    bases = sorted(((foot_base(named[f.panel], f), f) for f in feet), key=lambda pair: pair[0].x_mm)
    for i, (base, foot) in enumerate(bases):
        for other, one in bases[i + 1 :]:
            if other.x_mm >= base.x_end_mm - TOUCHING_MM:
                break
            common = base.clipped(other)
            if common is not None and min(common.length_mm, common.width_mm) > TOUCHING_MM:
                yield Found(
                    place=f"panels.{foot.panel}.feet.{foot.foot}",
                    where=f"{named[foot.panel].name} {foot.foot} and {named[one.panel].name} {one.foot}",
                    why=f"They share {say_length(common.width_mm, units)} across and "
                    f"{say_length(common.length_mm, units)} along.",
                    remedy="Set the panels further apart, or one of the feet along its frame.",
                )


@rule(
    "foot-on-obstacle",
    "stop",
    "hold",
    "Foot stands off the roof or on an obstacle",
    "geometry",
    each="panels",
)
def foot_on_obstacle(
    panel: PlacedPanel, own_feet: tuple[FootPlace, ...], obstacle_shapes: tuple[Shape, ...], roof: Rect | None
) -> Iterator[Found]:
    blocks = [s.rect for s in obstacle_shapes]
    for f in own_feet:
        inside = any(r.x_mm < f.x_mm < r.x_end_mm and r.y_mm < f.y_mm < r.y_end_mm for r in blocks)
        off = roof is not None and (
            not (roof.x_mm <= f.x_mm <= roof.x_end_mm and roof.y_mm <= f.y_mm <= roof.y_end_mm)
        )
        if inside or off:
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{panel.name}, foot {f.foot}",
                why="There is nothing to fasten to." if off else "An obstacle is in the way.",
                remedy="Move the panel or the foot.",
            )
