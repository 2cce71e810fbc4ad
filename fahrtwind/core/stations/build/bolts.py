"""Bolts of the carriers: every joint as a stack, and the length from the shelf that goes through it."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from fahrtwind.core.formulas.bolts import bolt_length
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.sections import ChannelSection, EqualAngle, OwnSection, Section
from fahrtwind.core.stations.build.pieces import Hole, Piece, closed
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.tables.fasteners import BOLTS

LENGTHS_MM = (16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80, 90, 100, 110, 120, 130, 140, 150)
"""ISO 4014 and 4017, lengths that are sold, from memory."""
WASHER_MM, LOCK_NUT_MM = 1.6, 9.5
"""Of M8: ISO 7089 and ISO 7040 (nylon insert, highest), from memory."""


@dataclass(frozen=True, slots=True)
class BoltLine:
    """Alike joints of a carrier: the stack of parts in them, the bolt it needs at least, and the next that is
    sold; None where no length that is sold goes through.
    """

    carrier: str
    joint: str
    size: str
    count: int
    grip_mm: float
    needed_mm: float
    length_mm: float | None


def bolts_of(carrier: Carrier, pieces: tuple[Piece, ...]) -> tuple[BoltLine, ...]:
    """Of the feet under rails, of the corners, of bars bolted through. Clamps bring their own bolts, and a
    slotted profile takes hammer heads by its maker.
    """
    rails = [p for p in pieces if p.marked == "front"]
    counts: Counter[tuple[str, float]] = Counter()
    for rail in rails:
        for hole in rail.holes:
            _count(counts, carrier, hole, carrier.section)
    if isinstance(carrier, Rack):
        for bar in (p for p in pieces if p.marked == "port"):
            for hole in bar.holes:
                if hole.what.startswith("corner"):
                    angles = 2 if closed(carrier.bar_section) else 1
                    grip = _through(carrier.bar_section, hole) + angles * carrier.angle_wall.mm
                    counts[("corners on the bars", grip)] += 1
    return tuple(_line(carrier, joint, grip, n) for (joint, grip), n in counts.items())


def _count(counts: Counter[tuple[str, float]], carrier: Carrier, hole: Hole, section: Section) -> None:
    own = _through(section, hole)
    if hole.what.startswith("foot"):
        counts[("feet under the rails", own + carrier.hold.bracket.thickness.mm)] += 1
    elif isinstance(carrier, Rack) and hole.what.startswith("corner"):
        counts[("corners on the rails", own + carrier.angle_wall.mm)] += 1
    elif isinstance(carrier, Rack) and hole.what.startswith("bar"):
        counts[("bars through the rails", own + _through(carrier.bar_section, hole))] += 1


def _through(section: Section, hole: Hole) -> float:
    """What a bolt passes of a section, mm."""
    if isinstance(section, OwnSection):
        return 0.0
    if isinstance(section, ChannelSection | EqualAngle):
        return section.wall.mm
    return section.height.mm if hole.face in ("upper", "lower") else section.width.mm


def _line(carrier: Carrier, joint: str, grip_mm: float, count: int) -> BoltLine:
    with scope("bolts", carrier.id), scope(joint):
        needed = float(
            bolt_length(
                given(grip_mm, "chosen", "parts between head and nut"),
                given(2 * WASHER_MM, "table", "two washers, ISO 7089"),
                given(LOCK_NUT_MM, "table", "lock nut, ISO 7040"),
                given(BOLTS[JOINT_BOLT].pitch_mm, "table", "thread pitch"),
            )
        )
    length = next((float(x) for x in LENGTHS_MM if x >= needed), None)
    return BoltLine(carrier.id, joint, JOINT_BOLT, count, grip_mm, needed, length)
