"""The rails, bars and posts of every carrier. Nothing is typed twice: pieces follow the carriers."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from fahrtwind.core.job.carrier import Carrier, Rack, Rail
from fahrtwind.core.job.panel import OuterFoot, PlacedPanel
from fahrtwind.core.job.sections import OwnSection
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.build.crossbars import crossbar_pieces, holes_over_crossbars
from fahrtwind.core.stations.build.piece import (
    Face,
    Hole,
    Piece,
    closed,
    drilled,
    in_order,
    kg_m_of,
    material_of,
    says,
)
from fahrtwind.core.stations.build.small_pieces import corner_angles, splice_holes, splice_plates
from fahrtwind.core.stations.build.splices import bending_at, splices_of
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.hold.carriers.rack import ANGLE_GAUGE_MM
from fahrtwind.core.stations.hold.carriers.rails import CLAMP_OUT_MM, bar_ends, bolt_of, clamps_of, over_rail
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.tables.fasteners import BOLTS

LEAST_MM = 10.0
"""What comes out shorter is none: a rail that ends before it begins is told under Hold."""
SHARED_GAP_MM = 40.0
"""Two panels no further apart share a middle clamp."""


def pieces_of(
    carrier: Carrier,
    panels: tuple[PlacedPanel, ...],
    feet: tuple[FootPlace, ...],
    verdict: CarrierVerdict | None,
    longest_mm: float,
    units: UnitSystem,
    tapped: bool = False,
) -> tuple[Piece, ...]:
    """The pieces of a carrier. A rail longer than ``longest_mm`` is spliced where it bends least, if it can
    be; rails that are the vehicle's own are none of ours. ``tapped``: corners go into threads of the rails.
    """
    on = tuple(p for p in panels if p.carrier == carrier.id)
    found: list[Piece] = []
    if not (isinstance(carrier, Rack) and carrier.own_rails):
        for number, rail in enumerate(carrier.rails):
            splices = splices_of(carrier, rail, feet, verdict, longest_mm, number)
            told = [(at, bending_at(verdict, rail, at)) for at in splices]
            found += _rail(carrier, rail, on, feet, told, units)
    if isinstance(carrier, Rack):
        found += _bars(carrier, on, units)
        found += _posts(carrier, units)
        found += crossbar_pieces(carrier, feet, units)
        found += corner_angles(carrier, units)
    found += splice_plates(carrier, tuple(found), units)
    made = (piece for piece in found if piece.length_mm >= LEAST_MM)
    return tuple(_tapped(piece) if tapped and piece.kind == "rail" else piece for piece in made)


def _tapped(piece: Piece) -> Piece:
    """With threads where nuts would be: the drill before the tap, through one wall."""
    bolt = BOLTS[JOINT_BOLT]
    holes = (
        replace(
            drilled(h.at_mm, h.face, bolt.tap_drill_mm, h.what, off_mm=h.off_mm), thread=f"{bolt.name} tapped"
        )
        if h.what.startswith("corner")
        else h
        for h in piece.holes
    )
    return replace(piece, holes=tuple(holes))


def _rail(
    carrier: Carrier,
    rail: Rail,
    panels: tuple[PlacedPanel, ...],
    feet: tuple[FootPlace, ...],
    splices: list[tuple[float, float | None]],
    units: UnitSystem,
) -> Iterator[Piece]:
    """``splices``: where they are, mm, and what bends there, N·mm."""
    path = f"carriers.{carrier.id}.section"
    mass = kg_m_of(carrier.section, carrier.alloy, path)
    holes = [*_foot_holes(carrier, rail, feet), *_on_rail(carrier, rail, panels)]
    bends = dict(splices)
    ends = [carrier.start.mm, *bends, carrier.end.mm]
    for i, (start, end) in enumerate(pairwise(ends)):
        part = f"{rail.id}{chr(97 + i) if splices else ''}"
        yield Piece(
            f"{carrier.id}-{part}",
            "rail",
            carrier.id,
            f"carriers.{carrier.id}",
            f"{carrier.name}, rail {part}",
            material_of(carrier.alloy, carrier.section),
            says(carrier.alloy, carrier.section, units),
            end - start,
            "front",
            mass * (end - start) / 1000,
            carrier.section.width.mm,
            carrier.section.height.mm,
            in_order(
                [
                    *(
                        replace(h, at_mm=h.at_mm - start)
                        for h in holes
                        if start <= h.at_mm < end or h.at_mm == end == carrier.end.mm
                    ),
                    *splice_holes(carrier, end - start, start in bends, end in bends),
                ]
            ),
            carrier.stock.mm if carrier.stock else None,
            end in bends,
            bends.get(end),
        )


def _foot_holes(carrier: Carrier, rail: Rail, feet: tuple[FootPlace, ...]) -> Iterator[Hole]:
    """Of the bolts that hold a rail on its feet, or between its angles on crossbars; a slotted profile takes
    them in its slot, posts are joined to the rail otherwise.
    """
    if isinstance(carrier.section, OwnSection) or (isinstance(carrier, Rack) and carrier.posts):
        return
    if isinstance(carrier, Rack) and carrier.crossbars:
        yield from holes_over_crossbars(carrier, feet)
        return
    for foot in feet:
        if foot.line == rail.id:
            size, through = BOLTS[JOINT_BOLT].clearance_mm, closed(carrier.section)
            yield drilled(foot.x_mm, "lower", size, f"foot {foot.foot}", through)


def _on_rail(carrier: Carrier, rail: Rail, panels: tuple[PlacedPanel, ...]) -> Iterator[Hole]:
    """What sits on a rail: clamps of panels, corners of bars. A slotted profile takes it in its slot."""
    if isinstance(carrier.section, OwnSection):
        return
    if isinstance(carrier, Rack):
        if carrier.port.mm <= rail.y.mm <= carrier.starboard.mm:
            yield from _corners_on(carrier, rail)
        yield from _clamps_on_frame(carrier, rail, panels)
        return
    own = (
        Edge(clamp.x_mm, clamp.side == "rear", panel.name)
        for panel in panels
        for clamp in clamps_of(carrier, panel)
        if clamp.line == rail.id
    )
    yield from _clamps(own)


def _clamps_on_frame(rack: Rack, rail: Rail, panels: tuple[PlacedPanel, ...]) -> Iterator[Hole]:
    """Of panels whose sides lie on the rails of a frame."""
    size, half = BOLTS[JOINT_BOLT].clearance_mm, rack.section.width.mm / 2
    for panel in panels:
        for clamp in clamps_of(rack, panel):
            off = bolt_of(clamp) - rail.y.mm
            if over_rail(rack, clamp) and abs(off) < half:
                yield drilled(clamp.x_mm, "upper", size, f"clamp of {panel.name}", off_mm=off)


def _to_port(rack: Rack, rail: Rail) -> bool:
    """Whether the bars lie to starboard of a rail of a frame, wherever on the roof that is."""
    across = [r.y.mm for r in rack.rails]
    return rail.y.mm < (min(across) + max(across)) / 2


def _corners_on(rack: Rack, rail: Rail) -> Iterator[Hole]:
    size, half = BOLTS[JOINT_BOLT].clearance_mm, rack.bar_section.width.mm / 2
    inner: Face = "starboard" if _to_port(rack, rail) else "port"
    for bar in rack.bars:
        if rack.joint == "bolt":
            yield drilled(bar.x.mm, "upper", size, f"bar {bar.id}", closed(rack.section))
        elif rack.joint == "angles":
            for side in (-1.0, 1.0):
                at = bar.x.mm + side * (half + ANGLE_GAUGE_MM)
                face = inner if rack.flush else "upper"
                yield drilled(at, face, size, f"corner of bar {bar.id}", closed(rack.section))


@dataclass(frozen=True, slots=True)
class Edge:
    """A panel's edge over a rail or bar, mm along it; ``far``: the panel lies before it."""

    at_mm: float
    far: bool
    panel: str


def _clamps(edges: Iterator[Edge]) -> Iterator[Hole]:
    """A hole beside each edge; one in the middle where two panels share a clamp."""
    size = BOLTS[JOINT_BOLT].clearance_mm
    waiting = sorted(edges, key=lambda e: (e.at_mm, not e.far))
    while waiting:
        first, *rest = waiting
        if first.far and rest and not rest[0].far and rest[0].at_mm - first.at_mm <= SHARED_GAP_MM:
            middle = (first.at_mm + rest[0].at_mm) / 2
            yield drilled(middle, "upper", size, f"clamp of {first.panel} and {rest[0].panel}")
            waiting = rest[1:]
            continue
        out = CLAMP_OUT_MM if first.far else -CLAMP_OUT_MM
        yield drilled(first.at_mm + out, "upper", size, f"clamp of {first.panel}")
        waiting = rest


def _bars(rack: Rack, panels: tuple[PlacedPanel, ...], units: UnitSystem) -> Iterator[Piece]:
    mass = kg_m_of(rack.bar_section, rack.bar_alloy, f"carriers.{rack.id}.bar_section")
    start, end = bar_ends(rack)
    for bar in rack.bars:
        yield Piece(
            f"{rack.id}-{bar.id}",
            "bar",
            rack.id,
            f"carriers.{rack.id}",
            f"{rack.name}, bar {bar.id}",
            material_of(rack.bar_alloy, rack.bar_section),
            says(rack.bar_alloy, rack.bar_section, units),
            end - start,
            "port",
            mass * (end - start) / 1000,
            rack.bar_section.width.mm,
            rack.bar_section.height.mm,
            in_order(_bar_holes(rack, bar.id, panels, start)),
        )


def _bar_holes(rack: Rack, bar: str, panels: tuple[PlacedPanel, ...], start: float) -> Iterator[Hole]:
    if isinstance(rack.bar_section, OwnSection):
        return
    size = BOLTS[JOINT_BOLT].clearance_mm
    for rail in rack.rails:
        if not rack.port.mm <= rail.y.mm <= rack.starboard.mm:
            continue
        if rack.joint == "bolt":
            yield drilled(rail.y.mm - start, "lower", size, f"rail {rail.id}", closed(rack.bar_section))
        elif rack.joint == "angles":
            yield from _corner_holes(rack, rail, start, size)
    own = (
        Edge(clamp.y_mm - start, clamp.side == "starboard", panel.name)
        for panel in panels
        for clamp in clamps_of(rack, panel)
        if clamp.line == bar and not over_rail(rack, clamp)
    )
    yield from _clamps(own)


def _corner_holes(rack: Rack, rail: Rail, start: float, size: float) -> Iterator[Hole]:
    """An angle on both sides of a bar, its upright leg bolted to the bar over the rail, or beside it where
    the bar ends there: one bolt through both and a closed bar, one for each where it is open.
    """
    at = rail.y.mm - start
    if rack.flush:
        half = rack.section.width.mm / 2
        at = at + half + ANGLE_GAUGE_MM if _to_port(rack, rail) else at - half - ANGLE_GAUGE_MM
    faces: tuple[Face, ...] = ("front",) if closed(rack.bar_section) else ("front", "rear")
    for face in faces:
        yield drilled(at, face, size, f"corner on rail {rail.id}", closed(rack.bar_section))


def _posts(rack: Rack, units: UnitSystem) -> Iterator[Piece]:
    if rack.posts is None:
        return
    section, alloy = rack.posts.section, rack.posts.alloy
    mass = kg_m_of(section, alloy, f"carriers.{rack.id}.posts.section")
    below = rack.hold.below.mm if isinstance(rack.hold, OuterFoot) else 0.0
    tall = rack.height.mm + below
    for rail in rack.rails:
        for post in rack.posts.places:
            yield Piece(
                f"{rack.id}-{rail.id}{post.id}",
                "post",
                rack.id,
                f"carriers.{rack.id}",
                f"{rack.name}, post {rail.id}{post.id}",
                material_of(alloy, section),
                says(alloy, section, units),
                tall,
                "lower",
                mass * tall / 1000,
                section.width.mm,
                section.height.mm,
                (),
            )
