"""The box: what has to be in it before anybody climbs."""

from __future__ import annotations

import re
from collections.abc import Iterator
from math import ceil, floor
from typing import Literal
from zlib import crc32

from fahrtwind.core.job.panel import BoltName
from fahrtwind.core.job.workshop import Bolting, Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import INCH_POUND
from fahrtwind.core.stations.build.bolts import BoltLine, tightening
from fahrtwind.core.stations.build.materials import Material
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.tables.fasteners import BOLTS

HEX_KEYS_MM = {"M5": 3, "M6": 4, "M8": 5, "M10": 6, "1/4-20": 3.97, "5/16-18": 4.76, "3/8-16": 5.56}
"""Of button and countersunk heads (ISO 7380, ISO 10642, ASME B18.3), from memory."""
Shelf = Literal["drilling", "tightening", "measuring", "setting", "protection", "fasteners", "by the roll"]
WRENCH = "torque wrench"


@dataclass(frozen=True, slots=True)
class KitLine:
    """``id`` stays the same as long as the thing does, so that what is ticked off stays ticked."""

    id: str
    shelf: Shelf
    item: str
    count: float
    unit: str
    packed: bool


def kit_of(
    materials: tuple[Material, ...],
    marks: tuple[Mark, ...],
    bolts: tuple[BoltLine, ...],
    pieces: tuple[Piece, ...],
    workshop: Workshop,
    units: UnitSystem,
    frame_bolts: tuple[BoltName, ...],
) -> tuple[KitLine, ...]:
    """Tools by what is drilled, tightened and set; fasteners counted with their spares; what comes by the
    roll or cartridge. ``frame_bolts``: that go through frames.
    """
    packed = {p.id for p in workshop.packed}
    lines = [
        *_drilling(marks, pieces, frame_bolts),
        *_tightening(materials, bolts, workshop.bolting, frame_bolts, units),
        *_measuring(pieces),
        *_setting(materials, marks),
        *_protection(marks, pieces),
        *_fasteners(materials),
        *_by_the_roll(materials),
    ]
    told: dict[str, KitLine] = {}
    called = {m.item: m.key for m in materials}
    for shelf, item, count, unit in lines:
        key = WRENCH if item.startswith(WRENCH) else called.get(item, item)
        name = f"k{crc32(f'{shelf} {key}'.encode()):08x}"
        told[name] = KitLine(name, shelf, item, count, unit, name in packed)
    return tuple(told.values())


Line = tuple[Shelf, str, float, str]


def bit(mm: float) -> str:
    """A drill bit as it is called in the box."""
    return f"drill bit {mm:g} mm"


def _drilling(
    marks: tuple[Mark, ...], pieces: tuple[Piece, ...], frame_bolts: tuple[BoltName, ...]
) -> Iterator[Line]:
    sizes = {d for m in marks for d in (m.pilot_mm, m.final_mm) if d}
    sizes |= {d for p in pieces for h in p.holes for d in (h.pilot_mm, h.diameter_mm) if d}
    # also for brackets and frames that have to be drilled anew up there
    sizes |= {BOLTS[b].clearance_mm for b in frame_bolts}
    for size in sorted(sizes):
        yield "drilling", bit(size), 2, "pc"
    if sizes:
        yield from (
            ("drilling", item, 1, "pc") for item in ("drill, charged", "spare battery", "centre punch")
        )
        yield "drilling", "countersink or deburring tool", 1, "pc"
        yield "drilling", "cutting oil", 1, "tin"
    for thread in sorted({h.thread for p in pieces for h in p.holes if h.thread}):
        yield "drilling", f"tap and holder, {thread.split()[0]}", 2, "pc"
    if any(m.depth_stop_mm for m in marks):
        yield "drilling", "depth stop for each bit", 1, "set"
    if any(h.slot_mm for p in pieces for h in p.holes):
        yield "drilling", "round file", 1, "pc"
    if pieces:
        yield "drilling", "saw with a blade for metal", 1, "pc"


def _tightening(
    materials: tuple[Material, ...],
    bolts: tuple[BoltLine, ...],
    bolting: Bolting,
    frame_bolts: tuple[BoltName, ...],
    units: UnitSystem,
) -> Iterator[Line]:
    named = {line.size for line in bolts}
    for material in materials:
        named |= {size for size in BOLTS if re.search(rf"(?<!\S){re.escape(size)}(?![\w-])", material.item)}
    for size in sorted(named):
        yield "tightening", f"socket {BOLTS[size].flats_mm:g} mm, for {size}", 1, "pc"
        yield "tightening", f"spanner {BOLTS[size].flats_mm:g} mm, for {size}", 1, "pc"
    for size in sorted({line.size for line in bolts} if bolting.heads != "hex" else set()):
        yield "tightening", f"hex key {HEX_KEYS_MM[size]:g} mm, for {size}", 1, "pc"
    torques = [line.tight.torque_n_m for line in bolts]
    torques += [tightening(BOLTS[size], bolting, None).torque_n_m for size in frame_bolts]
    if torques:
        unit, words = (INCH_POUND, "in·lb") if units == "imperial" else (1.0, "N·m")
        least, most = floor(min(torques) / unit), ceil(max(torques) / unit)
        yield "tightening", f"{WRENCH}, {least} to {most} {words}", 1, "pc"
    if named:
        yield "tightening", "paint marker for nuts", 1, "pc"
    if any("screw" in m.item for m in materials):
        yield "tightening", "screwdriver bits", 3, "pc"
    if any("rivet" in m.item for m in materials):
        yield "tightening", "rivet tool with its mandrels", 1, "pc"


def _measuring(pieces: tuple[Piece, ...]) -> Iterator[Line]:
    for item in ("tape measure", "marker and knife", "chalk line", "set square", "spirit level"):
        yield "measuring", item, 1, "pc"
    if pieces:
        yield "measuring", "steel rule and scriber", 1, "pc"
        yield "measuring", "strap with ratchet", 1, "pc"


def _setting(materials: tuple[Material, ...], marks: tuple[Mark, ...]) -> Iterator[Line]:
    yield "setting", "cleaner and lint-free cloths", 1, "set"
    if any(m.unit.startswith("cartridge") for m in materials):
        yield "setting", "cartridge gun", 1, "pc"
        yield "setting", "nozzles and smoothing tool", 1, "set"
    if any(mark.kind == "pad" for mark in marks):
        yield "setting", "roller to press the tape", 1, "pc"
        yield "setting", "surface thermometer", 1, "pc"
    yield "setting", "vacuum cleaner or magnet for chips", 1, "pc"
    yield "setting", "blocks to lay panels on", 4, "pc"


def _protection(marks: tuple[Mark, ...], pieces: tuple[Piece, ...]) -> Iterator[Line]:
    for item in ("goggles", "gloves"):
        yield "protection", item, 1, "pair"
    yield "protection", "ladder with a rope to tie it", 1, "pc"
    yield "protection", "board or mat to spread the weight", 1, "pc"
    yield "protection", "opaque cover for the panels", 1, "set"
    if pieces or any(m.kind == "hole" for m in marks):
        yield "protection", "ear defenders", 1, "pair"


def _fasteners(materials: tuple[Material, ...]) -> Iterator[Line]:
    """Counted in the hand, spares with them: being short by two is the trade's classic."""
    for m in materials:
        if m.unit == "pc" and not m.item.startswith(("panel ", "drill bit")):
            yield "fasteners", m.item, m.needed + m.spare, "pc"


def _by_the_roll(materials: tuple[Material, ...]) -> Iterator[Line]:
    """Sealant, tape, primer, cable: in whole packs, or in metres."""
    for m in materials:
        if m.unit != "pc":
            most = m.needed + m.spare
            yield "by the roll", m.item, round(most, 1) if m.unit == "m" else ceil(most), m.unit
