"""What the parts of a tether bear: its line, the hole in the frame, its anchor."""

from __future__ import annotations

from fahrtwind.core.formulas.bolts import hole_bearing
from fahrtwind.core.formulas.brackets import in_series
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.tethers import line_spring, rope_strength, strip_tension, worst_direction
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.tether import Line, Strap, Tether, WireRope
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.links import Above, Bay, chosen
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.tables import feet as ft
from fahrtwind.core.tables import ropes
from fahrtwind.core.tables.alloys import ALLOYS
from fahrtwind.core.tables.confidence import Confidence
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.materials import FRAME_METAL

HALF = 0.5
"""Of its nominal strength a part may bear in a catch, which comes once (judgement, as for lifting gear)."""
LOOPS_MM = 30.0
"""What loops and shackles need beyond the straight way of a line that is cut to fit."""
LOOP_MM = 6.0
"""What a rope's thimble, a strap's shackle or a bolt fills of the frame's hole."""


@dataclass(frozen=True, slots=True)
class TetherPart:
    """One part of a tether, and the load it may bear when it catches, in its worst direction, N."""

    id: str
    title: str
    bears_n: float
    source: str
    confidence: Confidence


@dataclass(frozen=True, slots=True)
class Strength:
    """A tether's parts, and how it stretches with its anchor, N/mm; ``reach_mm``: from frame to anchor."""

    parts: tuple[TetherPart, ...]
    spring_n_mm: float
    reach_mm: float

    @property
    def weakest(self) -> TetherPart:
        return min(self.parts, key=lambda p: p.bears_n)


def strength_of(
    tether: Tether, place: FootPlace, reach_mm: float, vehicle: Vehicle, ribs: Members, bay: Bay | None
) -> Strength:
    """The skin must be known, as for every chain."""
    with scope("anchor"):
        chain = chain_of(vehicle, ribs, tether.hold, place.landing, place.on_side, bay, Above())
    anchor = []
    for held in chain.links:
        if held.id == "frame":  # the line takes its place
            continue
        with scope("anchor", held.id):
            whole = worst_direction(held.pull_nominal_n, held.shear_nominal_n)
        anchor.append(
            TetherPart(held.id, f"anchor: {held.title}", HALF * float(whole), held.source, held.confidence)
        )
    with scope("line"):
        line, spring = _line(tether.line, tether.length.mm if tether.length else reach_mm + LOOPS_MM)
        both = in_series(spring, given(chain.stiffness_n_mm, "inferred", "anchor"))
    with scope("frame"):
        parts = (line, _frame_hole(), *anchor)
    return Strength(parts, float(both), reach_mm)


def _line(line: Line, length_mm: float) -> tuple[TetherPart, float]:
    """The line, and its stretch in N/mm."""
    run = chosen(length_mm, "length of the line")
    if isinstance(line, WireRope):
        d = chosen(line.diameter.mm, "rope")
        breaks = rope_strength(
            given(ropes.MIN_FORCE_FACTOR, "table", ropes.SOURCE),
            d,
            given(ropes.ROPE_STRENGTH_N_MM2, "table", ropes.SOURCE),
            given(ropes.ENDS_KEEP[line.ends], "table", ropes.SOURCE),
        )
        area = given(ropes.METAL_SHARE * line.diameter.mm**2, "table", "metal of the rope, mm²")
        spring = line_spring(given(ropes.ROPE_MODULUS_N_MM2, "table", ropes.SOURCE), area, run)
        return _half("wire rope", float(breaks), ropes.SOURCE), float(spring)
    if isinstance(line, Strap):
        known = line.breaks_n is not None
        breaks = given(line.breaks_n or ropes.STRAP_N, "chosen" if known else "default", "strap breaks")
        stretch = given(line.gives / 100 * length_mm, "chosen", "stretch at that load, mm")
        source = "by its maker" if known else "not rated: 25 mm strap, judgement, low end"
        part = _half("strap", float(breaks), source, "published" if known else "judgement")
        return part, float(breaks) / float(stretch)
    metal, hole = ALLOYS[line.alloy], BOLTS["M6"].clearance_mm
    net = strip_tension(
        given(metal.ultimate_n_mm2, "table", metal.source),
        chosen(line.thickness.mm, "strip"),
        chosen(max(line.width.mm - hole, 0.1), "width beside an M6"),
    )
    area = chosen(line.width.mm * line.thickness.mm, "strip, mm²")
    spring = line_spring(given(metal.modulus_n_mm2, "table", metal.source), area, run)
    return _half("bolted plate", float(net), metal.source), float(spring)


def _half(title: str, breaks_n: float, source: str, confidence: Confidence = "published") -> TetherPart:
    return TetherPart("line", title, HALF * breaks_n, f"{source}; half of it in a catch", confidence)


def _frame_hole() -> TetherPart:
    bears = hole_bearing(
        given(LOOP_MM, "default", "loop in the frame's hole"),
        given(ft.FRAME_FLANGE_MM, "default", ft.FRAME_FLANGE_SOURCE),
        given(FRAME_METAL.ultimate_n_mm2, "table", FRAME_METAL.source),
        given(ft.FRAME_EDGE_MM, "default", ft.FRAME_FLANGE_SOURCE),
        given(LOOP_MM + 1, "default", "hole in the frame"),
    )
    source = f"{FRAME_METAL.source}; hole bearing; half of it in a catch; a sharp edge is not in it"
    return TetherPart("frame", "hole in the panel's frame", HALF * float(bears), source, "judgement")
