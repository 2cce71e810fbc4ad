"""Feet where they really are: everything behind them is worked out from there."""

from __future__ import annotations

from fahrtwind.core.job.built import BuiltFoot
from fahrtwind.core.job.document import Members
from fahrtwind.core.job.panel import Holding
from fahrtwind.core.records import replace
from fahrtwind.core.stations.layout.feet import FootPlace, Landing, landing_of
from fahrtwind.core.stations.structure.members import Member

IN_THE_ROOF: tuple[Landing, ...] = ("member", "perhaps", "skin", "unknown")
"""Where it is the place along the roof that decides what a fastener meets."""


def as_built(
    places: tuple[FootPlace, ...],
    built: tuple[BuiltFoot, ...],
    hold: Holding,
    ribs: Members,
    members: tuple[Member, ...],
) -> tuple[FootPlace, ...]:
    """The planned feet of one holder, those that were recorded where they were recorded."""
    found = {(b.holder, b.foot): b for b in built}
    own = [(place, found.get((place.panel, place.foot))) for place in places]
    if not any(b for _, b in own):
        return places
    return tuple(place if b is None else _moved(place, b, hold, ribs, members) for place, b in own)


def _moved(
    place: FootPlace, built: BuiltFoot, hold: Holding, ribs: Members, members: tuple[Member, ...]
) -> FootPlace:
    if place.landing in ("point", "bar"):
        return place  # nothing is drilled or stuck there: a point is measured under Survey, a bar is a piece
    x, y = built.foot_x.mm + built.off_x_mm, built.foot_y.mm + built.off_y_mm
    along = place.along_mm + (x - place.x_mm if place.on_side else y - place.y_mm)
    nearest = min(members, key=lambda m: abs(m.x_mm - x), default=None)
    landing = place.landing
    if landing in IN_THE_ROOF:
        landing = "skin" if built.pilot == "through" else landing_of(ribs, hold, x, nearest)
    return replace(
        place,
        x_mm=x,
        y_mm=y,
        along_mm=along,
        member=nearest.number if nearest else None,
        off_mm=x - nearest.x_mm if nearest else None,
        landing=landing,
        planned_x_mm=built.foot_x.mm,
        planned_y_mm=built.foot_y.mm,
    )
