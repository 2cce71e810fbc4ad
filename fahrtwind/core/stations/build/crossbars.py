"""The crossbars under a rack, and what holds its rails on them."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.sections import OwnSection
from fahrtwind.core.quantities import UnitSystem
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
from fahrtwind.core.stations.build.small_pieces import angle_piece
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.hold.carriers.rack import ANGLE_GAUGE_MM, crossbars_at
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.tables.fasteners import BOLTS


def crossbar_pieces(rack: Rack, feet: tuple[FootPlace, ...], units: UnitSystem) -> Iterator[Piece]:
    """A crossbar at every member that the rack stands on, and an angle on both sides of a rail over each."""
    under = rack.crossbars
    if under is None:
        return
    mass = kg_m_of(under.section, under.alloy, f"carriers.{rack.id}.crossbars.section")
    long = under.starboard_mm - under.port_mm
    for name in _names(feet):
        yield Piece(
            f"{rack.id}-{name}",
            "crossbar",
            rack.id,
            f"carriers.{rack.id}.crossbars",
            f"{rack.name}, crossbar {name}",
            material_of(under.alloy, under.section),
            says(under.alloy, under.section, units),
            long,
            "port",
            mass * long / 1000,
            under.section.width.mm,
            under.section.height.mm,
            in_order(_holes(rack, tuple(f for f in feet if f.line == name))),
        )
    for name in _names(feet):
        for rail in rack.rails:
            for side, beside in (("p", "to port of"), ("s", "to starboard of")):
                words = f"corner {beside} rail {rail.id} on crossbar {name}"
                yield angle_piece(
                    rack, f"{name}{rail.id}{side}", words, f"crossbar {name}", f"rail {rail.id}", units
                )


def _names(feet: tuple[FootPlace, ...]) -> dict[str, float]:
    """Every crossbar with its x, mm."""
    return crossbars_at(feet)


def _holes(rack: Rack, feet: tuple[FootPlace, ...]) -> Iterator[Hole]:
    """Of its feet from below, of the angles beside each rail from above; a slotted profile takes both in its
    slots.
    """
    under = rack.crossbars
    if under is None or isinstance(under.section, OwnSection):
        return
    size, through = BOLTS[JOINT_BOLT].clearance_mm, closed(under.section)
    for foot in feet:
        yield drilled(foot.y_mm - under.port_mm, "lower", size, f"foot {foot.foot}", through)
    reach = rack.section.width.mm / 2 + ANGLE_GAUGE_MM
    for rail in rack.rails:
        for side in (-reach, reach):
            at = rail.y.mm + side - under.port_mm
            yield drilled(at, "upper", size, f"corner of rail {rail.id}", through)


def holes_over_crossbars(rack: Rack, feet: tuple[FootPlace, ...]) -> Iterator[Hole]:
    """In a rail, for the upright legs of its angles over each crossbar: one bolt through both and a closed
    rail, one for each where it is open.
    """
    faces: tuple[Face, ...] = ("port",) if closed(rack.section) else ("port", "starboard")
    for name, x in _names(feet).items():
        for face in faces:
            size = BOLTS[JOINT_BOLT].clearance_mm
            yield drilled(x, face, size, f"crossing {name}", closed(rack.section))
