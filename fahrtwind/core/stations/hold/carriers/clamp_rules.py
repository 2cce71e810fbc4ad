"""Snags of clamps: two-piece ones on round rails, those of panels on frames."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.joints import tube_dent
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.sections import RoundTube
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_force, say_length
from fahrtwind.core.stations.hold.carriers.links import CLAMP_PRELOAD_N
from fahrtwind.core.stations.hold.carriers.rails import (
    CLAMP_OUT_MM,
    bolt_of,
    carrier_of,
    clamps_of,
    over_rail,
)
from fahrtwind.core.stations.house import rule
from fahrtwind.core.tables.alloys import ALLOYS

PRACTICE = "common practice, no source"
EDGE_MM = 8.0
"""From the middle of a bolt to the edge of the tube: its washer lies flat."""


def _clamped(carrier: Carrier) -> Rack | None:
    return carrier if isinstance(carrier, Rack) and carrier.joint == "clamps" else None


@rule("clamp-on-square", "stop", "hold", "Tube clamp on what is no round tube", "geometry", each="carriers")
def clamp_on_square(carrier: Carrier) -> Iterator[Found]:
    rack = _clamped(carrier)
    if rack is not None and not isinstance(rack.section, RoundTube):
        yield Found(
            place=f"carriers.{rack.id}.section",
            where=rack.name,
            why="A two-piece clamp grips a round tube; on anything else it touches at corners and walks.",
            remedy="Round rails, or angles in the corners.",
        )


@rule(
    "clamp-dents",
    "note",
    "hold",
    "Clamps dent a thin tube",
    "Roark, ring under two opposite loads, from memory",
    each="carriers",
)
def clamp_dents(carrier: Carrier, units: UnitSystem) -> Iterator[Found]:
    rack = _clamped(carrier)
    if rack is None or not isinstance(rack.section, RoundTube):
        return
    tube, alloy = rack.section, ALLOYS[rack.alloy]
    with scope("clamp dents", rack.id):
        bears = rack.clamp.width.mm * float(
            tube_dent(
                given(alloy.yield_n_mm2, "table", alloy.source),
                given(tube.wall.mm, "chosen", "wall of the rail"),
                given(max((tube.diameter.mm - tube.wall.mm) / 2, 2.0), "chosen", "middle of the wall"),
            )
        )
    squeezed = rack.clamp.bolts * CLAMP_PRELOAD_N
    if bears < squeezed:
        yield Found(
            place=f"carriers.{rack.id}.clamp",
            where=rack.name,
            why=f"Touching along two lines it dents the tube at {say_force(bears, units)}; tightened it "
            f"presses with {say_force(squeezed, units)}.",
            remedy="Saddles that fit the tube all round, or a plug in it; torque by their maker.",
            quantity="press",
            value=squeezed,
            limit=bears,
            unit="N",
        )


@rule("clamp-off-frame", "stop", "hold", "Clamp finds no frame beside the panel", "geometry", each="panels")
def clamp_off_frame(panel: PlacedPanel, carriers: tuple[Carrier, ...], units: UnitSystem) -> Iterator[Found]:
    """Its bolt stands a little beside the panel's edge, and goes through the upper face of the rail there."""
    frame = carrier_of(panel, carriers)
    if not isinstance(frame, Rack) or not frame.flush:
        return
    room = frame.section.width.mm / 2 - EDGE_MM
    for side in ("port", "starboard"):
        bolts = {bolt_of(c) for c in clamps_of(frame, panel) if c.side == side and over_rail(frame, c)}
        for bolt in bolts:
            rail = min(frame.rails, key=lambda r: abs(r.y.mm - bolt))
            off = abs(rail.y.mm - bolt)
            if off > room:
                yield Found(
                    place=f"carriers.{frame.id}.rails.{rail.id}.y",
                    where=f"{panel.name} on {frame.name}, {side} side",
                    why=f"Its bolt is {say_length(off, units)} off the middle of rail {rail.id}; "
                    f"{say_length(room, units)} are room for it.",
                    remedy=f"Its middle {say_length(CLAMP_OUT_MM, units)} outside of the panel.",
                    quantity="off the rail",
                    value=off,
                    limit=room,
                    unit="mm",
                )
