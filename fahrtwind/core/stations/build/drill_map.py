"""The drill map: every hole and every tape pad with number, place, drill sizes and depth stop."""

from __future__ import annotations

from collections.abc import Mapping

from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.stations.hold.schools import school_of
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder


def drill_map(plan: RoofPlan, holders: tuple[Holder, ...], sealants: Mapping[str, str]) -> tuple[Mark, ...]:
    """The marks of all feet, numbered from the front, port side first; ``sealants`` by school. Numbers stay
    what they are where a foot was built beside its plan: they are on the roof already.
    """
    marks: list[Mark] = []
    places = [(place, holder) for holder in holders for place in holder.feet]
    for place, holder in sorted(places, key=lambda p: _in_turn(p[0])):
        sealant = sealants.get(holder.hold.school, "")
        marks += school_of(holder.hold).marks(len(marks) + 1, plan, holder, place, sealant)
    return tuple(marks)


def _in_turn(place: FootPlace) -> tuple[int, float]:
    x_mm = place.x_mm if place.planned_x_mm is None else place.planned_x_mm
    return round(x_mm), place.y_mm if place.planned_y_mm is None else place.planned_y_mm
