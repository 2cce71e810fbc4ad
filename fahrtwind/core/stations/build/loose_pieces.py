"""Pieces that belong to no carrier's frame: bars from member to member, brackets that are bent here."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from math import ceil

from fahrtwind.core.formulas.declare import scope
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.panel import BasePlate, Bracket, Holding, OuterFoot, PlacedPanel, SpanBars
from fahrtwind.core.job.sections import OwnSection
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import replace
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.build.bends import arc_mm, inside_mm, tool_deg
from fahrtwind.core.stations.build.fit import FootFit
from fahrtwind.core.stations.build.piece import (
    Bend,
    Hole,
    Piece,
    drilled,
    in_order,
    kg_m_of,
    material_of,
    says,
)
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.layout.feet import ENDS_OF
from fahrtwind.core.stations.layout.holders import BarRun, Holder
from fahrtwind.core.tables.fasteners import BOLTS

BEYOND_MEMBER_MM = 30.0
"""How far a bar reaches beyond the screws in its last member."""
DENSITY = {"aluminium": 2700.0, "stainless": 7900.0}
PLAY_MM = 0.5
"""Of a screw or rivet in a bracket."""
FRAME_BOLT_UP_MM, EDGE_DIAMETERS = 16.0, 1.5
"""The frame's bolt over the frame's underside, at most half of its height; from a hole to the edge."""


def bridges(
    panel: PlacedPanel, span: SpanBars, bars: tuple[BarRun, ...], units: UnitSystem
) -> Iterator[Piece]:
    """Bars from member to member under the feet of a panel, a hole for each foot; their ends are drilled by
    the drill map.
    """
    path = f"panels.{panel.id}.span"
    mass, size = kg_m_of(span.section, span.alloy, path), BOLTS[JOINT_BOLT].clearance_mm
    for number, bar in enumerate(bars, start=1):
        start = bar.first_mm - BEYOND_MEMBER_MM
        length = bar.last_mm - bar.first_mm + 2 * BEYOND_MEMBER_MM
        side = "port" if bar.y_mm < panel.y.mm else "starboard"
        holes = (
            []
            if isinstance(span.section, OwnSection)
            else [drilled(x - start, "upper", size, "foot", through=True) for x in bar.feet_mm]
        )
        yield Piece(
            f"{panel.id}-u{number}",
            "bridge",
            panel.id,
            path,
            f"{panel.name}, bar {number} under its {side} feet",
            material_of(span.alloy, span.section),
            says(span.alloy, span.section, units),
            length,
            "front",
            mass * length / 1000,
            span.section.width.mm,
            span.section.height.mm,
            in_order(holes),
        )


def bent_brackets(
    holder: Holder,
    owner: PlacedPanel | Carrier,
    marks: tuple[Mark, ...],
    fits: Mapping[str, FootFit],
    units: UnitSystem,
) -> Iterator[Piece]:
    """One strip for each foot: base, upright, and under a rail a flange on top."""
    if isinstance(holder.hold, BasePlate | OuterFoot) or holder.id.endswith(ENDS_OF):
        return
    bracket = holder.hold.bracket
    with scope("bracket", holder.id):
        legs, bends, flat = _developed(bracket, owner)
    metal = bracket.metal
    mass = bracket.length.mm * bracket.thickness.mm * flat * DENSITY[metal] / 1e9
    width, thick = (say_size(mm, "metric") for mm in (bracket.length.mm, bracket.thickness.mm))
    told = " × ".join(say_size(mm, units) for mm in (bracket.length.mm, bracket.thickness.mm))
    frame = BOLTS[bracket.frame_bolt if isinstance(owner, PlacedPanel) else JOINT_BOLT].clearance_mm
    for foot in _feet_of(holder, fits):
        fit = fits.get(foot)
        # the toe points outward: a point further to starboard lies further in on the port side
        moved = 0.0 if fit is None else fit.off_across_mm * (1.0 if "port" in fit.where else -1.0)
        holes = [*_base_holes(holder, foot, marks, legs[0], moved)]
        top = drilled(flat - legs[-1], "upper", frame, "frame" if isinstance(owner, PlacedPanel) else "rail")
        if fit is not None and not fit.round:
            # across the roof is along the strip: the longer way of the slot decides how it lies
            across = fit.slot_across_mm >= fit.slot_along_mm
            slot = float(ceil(max(fit.slot_across_mm, fit.slot_along_mm)))
            top = replace(top, slot_mm=slot, slot_across=not across)
        yield Piece(
            f"{holder.id}-{foot}",
            "bracket",
            holder.id,
            holder.hold_path,
            f"{holder.name}, bracket at foot {foot}",
            f"{metal} flat {width} × {thick}",
            f"{metal}, flat {told}",
            flat,
            "port",
            mass,
            bracket.length.mm,
            bracket.thickness.mm,
            in_order([*holes, top]),
            bends=bends,
        )


def _feet_of(holder: Holder, fits: Mapping[str, FootFit]) -> list[str]:
    """Feet that are fastened, and those on factory points."""
    return [f.foot for f in holder.feet] or list(fits)


def _base_holes(
    holder: Holder, foot: str, marks: tuple[Mark, ...], at_mm: float, moved_mm: float
) -> Iterator[Hole]:
    """Where the drill map has the foot's holes, as many beside one another; on a factory point one, moved to
    where the point was measured.
    """
    own = [m for m in marks if m.panel == holder.id and m.foot == foot and m.kind == "hole"]
    if not own:
        if holder.feet:
            return  # stuck, nothing is drilled
        yield drilled(at_mm + moved_mm, "upper", BOLTS[JOINT_BOLT].clearance_mm, "factory point")
        return
    along = [m.x_mm for m in own] if len({round(m.y_mm) for m in own}) == 1 else [m.y_mm for m in own]
    middle = sum(along) / len(along)
    size = _through_mm(holder.hold)
    for place in sorted(along):
        yield drilled(at_mm, "upper", size, "roof", off_mm=place - middle)


def _through_mm(hold: Holding) -> float:
    """The hole in a bracket for what goes on into the roof."""
    bolt = BOLTS.get(getattr(hold, "bolt", ""))
    if bolt is None or getattr(hold, "insert", "") == "blind_rivet":
        return hold.fastener_mm + PLAY_MM
    return bolt.clearance_mm


def _developed(bracket: Bracket, owner: PlacedPanel | Carrier) -> tuple[list[float], tuple[Bend, ...], float]:
    """A bracket laid flat: where its holes lie (in the base from its toe's edge; in its top from the far
    end), its bends, and how long the strip is, mm.
    """
    inside, arc = inside_mm(bracket), arc_mm(bracket, 90.0)
    tool, corner = tool_deg(bracket, 90.0), inside + bracket.thickness.mm
    if isinstance(owner, PlacedPanel):
        bolt = BOLTS[bracket.frame_bolt]
        up = min(owner.model.frame_height.mm / 2, FRAME_BOLT_UP_MM)
        edge = EDGE_DIAMETERS * bolt.clearance_mm
        legs = [bracket.base_mm, owner.stand_off.mm + up + edge]
        top = edge
    else:
        over = owner.on_feet[0].width.mm
        legs = [bracket.base_mm, owner.foot_mm, over]
        top = over / 2
    # a leg is straight up to its corners: one where it ends, two where it stands between bends
    straight = [leg - corner * (1 if i in (0, len(legs) - 1) else 2) for i, leg in enumerate(legs)]
    bends, at = [], 0.0
    for number, run in enumerate(straight[:-1]):
        at += run
        bends.append(Bend(at + arc / 2, 90.0, tool, inside, up=number == 0))
        at += arc
    return [bracket.toe.mm, top], tuple(bends), at + straight[-1]
