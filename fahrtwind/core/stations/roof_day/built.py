"""What was built beside what was planned: how far off, and whether it still goes together."""

from __future__ import annotations

from math import hypot
from typing import Literal

from fahrtwind.core.job.built import BuiltFoot, Pilot
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS

SEEN_MM = 1.0
"""Nearer than this a tape does not tell the difference (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class BuiltFinding:
    """A foot that was recorded. ``planned_…``, ``x_mm``, ``y_mm``: of its middle; ``off_…``: aft and to
    starboard; ``takes_mm``: what the hole takes up; ``lever_longer``: it stands further out than that, so
    that its chain is weaker than worked out; ``stuck``: a pad, no hole; ``words``: how far off, in words.
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
    lever_longer: bool
    stuck: bool
    pilot: Pilot | None
    state: Literal["as planned", "taken up", "mended", "off"]
    words: str


def built_findings(
    built: tuple[BuiltFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> tuple[BuiltFinding, ...]:
    """Of all records whose foot is there to be drilled or stuck; of others the plan says nothing."""
    places = {(f.panel, f.foot): (f, h) for h in holders for f in h.feet}
    there = ((record, places.get((record.holder, record.foot))) for record in built)
    return tuple(_finding(record, *found, units) for record, found in there if found)


def _finding(record: BuiltFoot, place: FootPlace, holder: Holder, units: UnitSystem) -> BuiltFinding:
    takes = play_mm(holder)
    off = hypot(record.off_x_mm, record.off_y_mm)
    out = off_the_frame_mm(record, place)
    state: Literal["as planned", "taken up", "mended", "off"] = "off"
    if off < SEEN_MM:
        state = "as planned"
    elif off <= takes:
        state = "taken up"
    elif record.solved and out <= takes:  # further out the lever is longer than the chain knows
        state = "mended"
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
        lever_longer=out > takes,
        stuck=holder.hold.pad_mm is not None,
        pilot=record.pilot,
        state=state,
        words=_off_words(record, units),
    )


def off_the_frame_mm(record: BuiltFoot, place: FootPlace) -> float:
    """How much further from what it holds a foot stands than planned, mm: so much longer is its lever."""
    x, y = record.off_x_mm, record.off_y_mm
    return {"port": -y, "starboard": y, "front": -x, "rear": x}[place.side]


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
