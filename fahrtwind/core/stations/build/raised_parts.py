"""What raises a unit: its struts as pieces to cut, its hinges, pins and latches to buy."""

from __future__ import annotations

from fahrtwind.core.job.raising import Raising
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_force
from fahrtwind.core.stations.build.materials import Material
from fahrtwind.core.stations.build.piece import Piece, drilled, in_order, kg_m_of, material_of, says
from fahrtwind.core.stations.hold.raised.statics import EYE_EDGE_DIAMETERS, RaisedVerdict
from fahrtwind.core.tables.fasteners import BOLTS

SPARE_PINS = 2


def strut_pieces(raising: Raising, verdict: RaisedVerdict, units: UnitSystem) -> tuple[Piece, ...]:
    """Alike, each with a hole for its pin through both walls as far from its ends as they are judged by."""
    bolt, section = BOLTS[raising.pin], raising.strut
    edge = EYE_EDGE_DIAMETERS * bolt.diameter_mm
    length = verdict.strut_mm + 2 * edge
    path = f"raisings.{raising.id}.strut"
    mass = kg_m_of(section, raising.alloy, path) * length / 1000
    pins = [
        drilled(at, "upper", bolt.clearance_mm, f"pin at its {end}", through=True)
        for at, end in ((edge, "foot"), (length - edge, "upper end"))
    ]
    return tuple(
        Piece(
            f"{raising.id}-{i}",
            "strut",
            raising.id,
            path,
            f"{raising.name}, strut {i}",
            material_of(raising.alloy, section),
            says(raising.alloy, section, units),
            length,
            "lower",
            mass,
            section.width.mm,
            section.height.mm,
            in_order(pins),
        )
        for i in range(1, raising.struts + 1)
    )


def raised_materials(
    raisings: tuple[Raising, ...], verdicts: tuple[RaisedVerdict, ...], units: UnitSystem
) -> tuple[Material, ...]:
    """Of every unit that is raised."""
    lines: list[Material] = []
    named = {r.id: r for r in raisings}
    for told in verdicts:
        raising = named[told.raising]
        rating = raising.latch_n
        rated = "its rating is not known" if rating is None else f"rated {say_force(rating, units)}"
        counts = {
            "hinge, stainless": (told.hinges, 0, raising.name),
            "foot with an eye, for a strut": (raising.struts, 0, raising.name),
            "fork or bracket with an eye, for a strut": (raising.struts, 0, raising.name),
            f"stainless pin {raising.pin} with a ring": (
                told.hinges + 2 * raising.struts,
                SPARE_PINS,
                "hinges and struts",
            ),
            "latch for the road": (raising.latches, 0, rated),
        }
        lines += [Material(item, n, spare, "pc", note) for item, (n, spare, note) in counts.items() if n]
    return tuple(lines)
