"""What joins rails and bars: angles at the corners, plates over splices."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sections import net_plates, yield_moment
from fahrtwind.core.job.carrier import Carrier, OnRails, Rack
from fahrtwind.core.job.sections import ChannelSection, EqualAngle, RectangularTube
from fahrtwind.core.quantities import Length, UnitSystem
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.build.piece import Hole, Piece, drilled, in_order, says
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.hold.carriers.rack import ANGLE_GAUGE_MM, ANGLE_MM
from fahrtwind.core.tables.alloys import ALLOYS, AlloyName
from fahrtwind.core.tables.fasteners import BOLTS

ANGLE_ALLOY: AlloyName = "6063-T5"
PLATE_THICK_MM, PLATE_INTO_MM, PLATE_HOLES_MM = 6.0, 150.0, (30.0, 120.0)
"""A plate on both sides of a splice, 150 mm into both of its rails, two bolts in each: common practice."""
PLATE_LESS_MM = 2.0
"""Lower than the rail, so that nothing stands over its faces."""
PLATE_FACTOR = 1.65


def corner_angles(rack: Rack, units: UnitSystem) -> Iterator[Piece]:
    """One on both sides of a bar over every rail that it crosses."""
    if rack.joint != "angles":
        return
    for bar in rack.bars:
        for rail in rack.rails:
            if not rack.port.mm <= rail.y.mm <= rack.starboard.mm:
                continue
            for side in ("f", "r"):
                before = "in front of" if side == "f" else "behind"
                words = f"corner {before} bar {bar.id} on rail {rail.id}"
                yield angle_piece(
                    rack, f"{bar.id}{rail.id}{side}", words, f"rail {rail.id}", f"bar {bar.id}", units
                )


def angle_piece(rack: Rack, name: str, words: str, below: str, upright: str, units: UnitSystem) -> Piece:
    """An angle of a rack: what its lower leg is bolted to, what its ``upright`` one."""
    section = EqualAngle(leg=Length(mm=ANGLE_MM), wall=rack.angle_wall)
    size = BOLTS[JOINT_BOLT].clearance_mm
    wall = rack.angle_wall.mm
    area = wall * (2 * ANGLE_MM - wall)
    off = ANGLE_GAUGE_MM - ANGLE_MM / 2
    return Piece(
        f"{rack.id}-{name}",
        "corner",
        rack.id,
        f"carriers.{rack.id}",
        f"{rack.name}, {words}",
        _material(section),
        says(ANGLE_ALLOY, section, units),
        ANGLE_MM,
        "port",
        area * ANGLE_MM * ALLOYS[ANGLE_ALLOY].density_kg_m3 / 1e9,
        ANGLE_MM,
        ANGLE_MM,
        in_order(
            [
                drilled(ANGLE_MM / 2, "lower", size, below, off_mm=off),
                drilled(ANGLE_MM / 2, "front", size, upright, off_mm=off),
            ]
        ),
    )


def _material(section: EqualAngle) -> str:
    leg, wall = (say_size(mm, "metric") for mm in (section.leg.mm, section.wall.mm))
    return f"{ANGLE_ALLOY} angle {leg} × {leg} × {wall}"


def plated(carrier: OnRails) -> bool:
    """Whether plates fit on the sides of a rail; own profiles and round tubes take their maker's joints."""
    return isinstance(carrier.section, RectangularTube | ChannelSection)


def splice_holes(carrier: Carrier, length_mm: float, front: bool, rear: bool) -> Iterator[Hole]:
    """In a rail at its spliced ends, through both sides."""
    if not plated(carrier):
        return
    size = BOLTS[JOINT_BOLT].clearance_mm
    for at in PLATE_HOLES_MM:
        if front:
            yield drilled(at, "starboard", size, "splice", True)
        if rear:
            yield drilled(length_mm - at, "starboard", size, "splice", True)


def splice_plates(carrier: Carrier, pieces: tuple[Piece, ...], units: UnitSystem) -> Iterator[Piece]:
    """Two for every splice."""
    if not plated(carrier):
        return
    high, size = plate_height_mm(carrier), BOLTS[JOINT_BOLT].clearance_mm
    metal = ALLOYS[carrier.alloy]
    for piece in (p for p in pieces if p.spliced):
        for side in ("p", "s"):
            yield Piece(
                f"{piece.id}{side}",
                "splice plate",
                carrier.id,
                f"carriers.{carrier.id}",
                f"{piece.name}, plate on its {'port' if side == 'p' else 'starboard'} side",
                f"{carrier.alloy} flat {say_size(high, 'metric')} × {say_size(PLATE_THICK_MM, 'metric')}",
                f"{carrier.alloy}, flat {say_size(high, units)} × {say_size(PLATE_THICK_MM, units)}",
                2 * PLATE_INTO_MM,
                "front",
                high * PLATE_THICK_MM * 2 * PLATE_INTO_MM * metal.density_kg_m3 / 1e9,
                PLATE_THICK_MM,
                high,
                in_order(
                    drilled(PLATE_INTO_MM + sign * at, "starboard", size, "splice")
                    for at in PLATE_HOLES_MM
                    for sign in (-1.0, 1.0)
                ),
            )


def plate_height_mm(carrier: OnRails) -> float:
    return carrier.section.height.mm - PLATE_LESS_MM


def splice_bears_n_mm(carrier: OnRails) -> float:
    """Bending that the two plates of a splice bear, N·mm, by design; its bolts, 90 mm apart, bear more."""
    metal = ALLOYS[carrier.alloy]
    hole = BOLTS[JOINT_BOLT].clearance_mm
    with scope("splice", carrier.id):
        modulus = net_plates(
            given(PLATE_THICK_MM, "default", "plate"),
            given(plate_height_mm(carrier), "computed", "height of the plate"),
            given(hole, "table", "hole for the bolt"),
        )
        bears = yield_moment(modulus, given(metal.yield_n_mm2, "table", metal.source))
        return float(bears) / PLATE_FACTOR
