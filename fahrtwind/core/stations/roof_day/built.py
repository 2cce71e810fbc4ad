"""What was built beside what was planned: how far off, and whether it still goes together."""

from __future__ import annotations

from dataclasses import dataclass
from math import hypot
from typing import Literal

from fahrtwind.core.job.built import BuiltFoot, Pilot
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.build.fit import FootFit
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS

SEEN_MM = 1.0
"""Nearer than this a tape does not tell the difference (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class BuiltFinding:
    """A foot that was recorded. ``planned_…``, ``x_mm``, ``y_mm``: of its middle; ``off_…``: aft and to
    starboard; ``takes_mm``: what the hole or slot takes up; ``words``: how far off, in words.
    """

    id: str
    holder: str
    foot: str
    where: str
    planned_x_mm: float
    planned_y_mm: float
    x_mm: float
    y_mm: float
    off_x_mm: float
    off_y_mm: float
    takes_mm: float
    pilot: Pilot | None
    state: Literal["as planned", "taken up", "mended", "off"]
    words: str


def built_findings(
    built: tuple[BuiltFoot, ...], holders: tuple[Holder, ...], fits: tuple[FootFit, ...], units: UnitSystem
) -> tuple[BuiltFinding, ...]:
    """Of all records whose foot there is; a foot that the plan no longer has says nothing."""
    places = {(f.panel, f.foot): (f, h) for h in holders for f in h.feet}
    slots = {(f.carrier, f.foot): max(f.slot_along_mm, f.slot_across_mm) / 2 for f in fits}
    found = []
    for record in built:
        key = (record.holder, record.foot)
        if key in places:
            place, holder = places[key]
            found.append(_finding(record, place, holder, slots.get(key, 0.0), units))
    return tuple(found)


def _finding(
    record: BuiltFoot, place: FootPlace, holder: Holder, slot_mm: float, units: UnitSystem
) -> BuiltFinding:
    takes = max(slot_mm, play_mm(holder))
    off = hypot(record.off_x_mm, record.off_y_mm)
    state: Literal["as planned", "taken up", "mended", "off"]
    if off < SEEN_MM:
        state = "as planned"
    elif off <= takes:
        state = "taken up"
    else:
        state = "mended" if record.solved else "off"
    return BuiltFinding(
        id=record.id,
        holder=record.holder,
        foot=record.foot,
        where=f"{holder.name} {record.foot}",
        planned_x_mm=record.foot_x.mm,
        planned_y_mm=record.foot_y.mm,
        x_mm=place.x_mm,
        y_mm=place.y_mm,
        off_x_mm=record.off_x_mm,
        off_y_mm=record.off_y_mm,
        takes_mm=takes,
        pilot=record.pilot,
        state=state,
        words=_off_words(record, units),
    )


def play_mm(holder: Holder) -> float:
    """How far the frame's bolt lets a bracket stand off: clearance in the bracket's hole and in the
    frame's, mm.
    """
    bolt = BOLTS[holder.hold.bracket.frame_bolt]
    return bolt.clearance_mm - bolt.diameter_mm


def _off_words(record: BuiltFoot, units: UnitSystem) -> str:
    told = [
        f"{say_length(abs(off), units)} {ahead if off > 0 else back}"
        for off, ahead, back in (
            (record.off_x_mm, "aft", "forward"),
            (record.off_y_mm, "to starboard", "to port"),
        )
        if abs(off) >= SEEN_MM
    ]
    return " and ".join(told) or "as planned"
