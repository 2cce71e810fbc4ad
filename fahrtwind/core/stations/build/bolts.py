"""Bolts of the carriers: every joint as a stack, the bolt from the shelf that goes through, how tight."""

from __future__ import annotations

from collections import Counter
from typing import Literal

from fahrtwind.core.formulas.bolts import bolt_length, proof_preload, thread_stress_area, tightening_torque
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sections import wall_pull
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.sections import ChannelSection, EqualAngle, OwnSection, Section
from fahrtwind.core.job.workshop import Bolting
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.piece import Hole, Piece, closed
from fahrtwind.core.stations.build.small_pieces import PLATE_THICK_MM
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.tables.alloys import ALLOYS, AlloyName
from fahrtwind.core.tables.fasteners import (
    BOLT_PROOF_N_MM2,
    BOLT_STEEL_SOURCE,
    BOLTS,
    LENGTHS_MM,
    NUT_FACTOR_SOURCE,
    NUT_FACTORS,
    PRELOAD_SCATTER,
    PRELOAD_SHARE,
    PRELOAD_SOURCE,
    Bolt,
)

IN_THREADS = "corners in threads of the rails"
WALL_FACTOR = 1.65
"""On a wall that a bolt presses in, as on every wall in bending."""


@dataclass(frozen=True, slots=True)
class Tightening:
    """How tight: the torque, the preload it is for with what it may come out as, and what sets it."""

    torque_n_m: float
    preload_n: float
    least_n: float
    most_n: float
    set_by: Literal["bolt", "wall"]


@dataclass(frozen=True, slots=True)
class BoltLine:
    """Alike joints of a carrier: the stack of parts in them, the bolt it needs at least, and the next that is
    sold; None where no length that is sold goes through. ``hollow_mm``: what the bolt crosses inside closed
    tubes; ``room_mm``: from its middle to the next wall, None where nothing is beside the nut.
    """

    carrier: str
    joint: str
    size: str
    count: int
    grip_mm: float
    needed_mm: float
    length_mm: float | None
    hollow_mm: float
    room_mm: float | None
    socket_mm: float
    tight: Tightening
    engaged_mm: float | None = None
    """Thread in the metal, where no nut is."""


@dataclass(frozen=True, slots=True)
class _Stack:
    """What is between head and nut of a joint; ``wall``: the thinnest wall of a tube with its metal."""

    joint: str
    grip_mm: float
    hollow_mm: float
    room_mm: float | None
    wall: tuple[float, AlloyName] | None
    engaged_mm: float | None = None


def bolts_of(carrier: Carrier, pieces: tuple[Piece, ...], bolting: Bolting) -> tuple[BoltLine, ...]:
    """Of the feet under rails or crossbars, of the corners, of bars bolted through. Clamps bring their own
    bolts, and a slotted profile takes hammer heads by its maker.
    """
    counts: Counter[_Stack] = Counter()
    for rail in (p for p in pieces if p.kind == "rail"):
        for hole in rail.holes:
            counts.update(_on_rail(carrier, hole, bolting.pad.mm))
    if isinstance(carrier, Rack):
        for bar in (p for p in pieces if p.kind == "bar"):
            for hole in bar.holes:
                if hole.what.startswith("corner"):
                    angles = 2 if closed(carrier.bar_section) else 1
                    plate = angles * carrier.angle_wall.mm
                    counts[
                        _stack("corners on the bars", carrier.bar_section, carrier.bar_alloy, hole, plate)
                    ] += 1
        for crossbar in (p for p in pieces if p.kind == "crossbar"):
            counts.update(_on_crossbar(carrier, hole, bolting.pad.mm) for hole in crossbar.holes)
    return tuple(_line(carrier, stack, n, bolting) for stack, n in counts.items())


def _on_crossbar(rack: Rack, hole: Hole, pad_mm: float) -> _Stack:
    section, alloy = rack.on_feet
    if hole.what.startswith("foot"):
        plates = rack.hold.bracket.thickness.mm + pad_mm
        return _stack("feet under the crossbars", section, alloy, hole, plates)
    return _stack("rails on the crossbars", section, alloy, hole, rack.angle_wall.mm)


def _on_rail(carrier: Carrier, hole: Hole, pad_mm: float) -> list[_Stack]:
    """``pad_mm``: foam or rubber between foot and rail."""
    section, alloy = carrier.section, carrier.alloy
    if hole.what.startswith("foot"):
        plates = carrier.hold.bracket.thickness.mm + pad_mm
        return [_stack("feet under the rails", section, alloy, hole, plates)]
    if hole.thread and isinstance(carrier, Rack) and not isinstance(section, OwnSection):
        engaged = section.wall.mm
        return [_Stack(IN_THREADS, carrier.angle_wall.mm + engaged, 0.0, None, None, engaged)]
    if isinstance(carrier, Rack) and hole.what.startswith("crossing"):
        plates = (2 if closed(section) else 1) * carrier.angle_wall.mm
        return [_stack("angles on the rails", section, alloy, hole, plates)]
    if isinstance(carrier, Rack) and hole.what.startswith("corner"):
        return [_stack("corners on the rails", section, alloy, hole, carrier.angle_wall.mm)]
    if isinstance(carrier, Rack) and hole.what.startswith("bar"):
        own = _stack("bars through the rails", section, alloy, hole, 0.0)
        bar = _stack("", carrier.bar_section, carrier.bar_alloy, hole, 0.0)
        walls = [s.wall for s in (own, bar) if s.wall]
        hollow = own.hollow_mm + bar.hollow_mm
        grip = own.grip_mm + bar.grip_mm
        return [_Stack(own.joint, grip, hollow, own.room_mm, min(walls) if walls else None)]
    if hole.what == "splice":
        if closed(section):
            return [_stack("splices", section, alloy, hole, 2 * PLATE_THICK_MM)]
        return 2 * [_stack("splices", section, alloy, hole, PLATE_THICK_MM)]
    return []


def _stack(joint: str, section: Section, alloy: AlloyName, hole: Hole, plates_mm: float) -> _Stack:
    """A section and so many millimetres of flat parts beside it."""
    if isinstance(section, OwnSection):
        return _Stack(joint, plates_mm, 0.0, None, None)
    wall = section.wall.mm
    if isinstance(section, ChannelSection | EqualAngle):
        upright = hole.face not in ("upper", "lower")
        breadth = section.height.mm if upright else section.width.mm
        return _Stack(joint, wall + plates_mm, 0.0, breadth / 2 - wall, None)
    across = section.height.mm if hole.face in ("upper", "lower") else section.width.mm
    return _Stack(joint, across + plates_mm, across - 2 * wall, None, (wall, alloy))


def _line(carrier: Carrier, stack: _Stack, count: int, bolting: Bolting) -> BoltLine:
    bolt = BOLTS[JOINT_BOLT]
    with scope("bolts", carrier.id), scope(stack.joint):
        needed = length_needed(bolt, stack.grip_mm)
        if stack.engaged_mm is not None:
            needed = stack.grip_mm + bolt.washer_thick_mm
        wall = None if bolting.spacers else stack.wall
        tight = tightening(bolt, bolting, wall)
    return BoltLine(
        carrier.id,
        stack.joint,
        JOINT_BOLT,
        count,
        stack.grip_mm,
        needed,
        next((float(x) for x in LENGTHS_MM if x >= needed), None),
        stack.hollow_mm,
        stack.room_mm,
        bolt.socket_mm,
        tight,
        stack.engaged_mm,
    )


def length_needed(bolt: Bolt, grip_mm: float) -> float:
    """The shortest bolt, mm, through so many millimetres, with two washers, a lock nut and two threads."""
    return float(
        bolt_length(
            given(grip_mm, "chosen", "parts between head and nut"),
            given(2 * bolt.washer_thick_mm, "table", "two washers, ISO 7089"),
            given(bolt.lock_nut_mm, "table", "lock nut, ISO 7040"),
            given(bolt.pitch_mm, "table", "thread pitch"),
        )
    )


def tightening(bolt: Bolt, bolting: Bolting, wall: tuple[float, AlloyName] | None) -> Tightening:
    """How tight a stainless bolt goes. ``wall``: of a hollow tube that it squeezes, mm, with its metal: there
    the wall gives way long before the bolt does.
    """
    area = thread_stress_area(
        given(bolt.diameter_mm, "table", "bolt"),
        given(bolt.pitch_mm, "table", "thread pitch"),
        given(bolt.thread_form, "table", "form of the thread"),
    )
    preload = float(
        proof_preload(
            given(PRELOAD_SHARE, "table", PRELOAD_SOURCE),
            given(BOLT_PROOF_N_MM2, "table", BOLT_STEEL_SOURCE),
            area,
        )
    )
    set_by: Literal["bolt", "wall"] = "bolt"
    if wall is not None:
        thick, alloy = wall
        metal = ALLOYS[alloy]
        bears = wall_pull(given(metal.yield_n_mm2, "table", metal.source), given(thick, "chosen", "wall"))
        squeezed = float(bears) / WALL_FACTOR / (1 + PRELOAD_SCATTER)
        if squeezed < preload:
            preload, set_by = squeezed, "wall"
    torque = tightening_torque(
        given(NUT_FACTORS[bolting.lubrication], "table", NUT_FACTOR_SOURCE),
        given(bolt.diameter_mm, "table", "bolt"),
        given(preload, "computed", "preload"),
    )
    band = PRELOAD_SCATTER * preload
    return Tightening(float(torque), preload, preload - band, preload + band, set_by)
