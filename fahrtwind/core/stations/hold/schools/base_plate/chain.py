"""A base plate under a post: the plate between post and bolts, the bolts, the deck over the backing plates.

All for the pull on the whole foot, shared evenly. A moment at the foot of a post counts as the pull that
loads its worst bolt as much (``moment_pull``).
"""

from __future__ import annotations

from fahrtwind.core.formulas.bolts import hole_bearing, plate_spread
from fahrtwind.core.formulas.brackets import bracket_bending
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.metal_screws import several
from fahrtwind.core.job.panel import BasePlate, ThroughBolts
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.links import (
    Chain,
    Link,
    bolts_link,
    chosen,
    link,
    skin_link,
    stiffness_ends,
)
from fahrtwind.core.stations.hold.schools.bolts.chain import washer_base
from fahrtwind.core.stations.hold.schools.school import Ground
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.materials import BRACKET_METALS, LAMINATES

EDGE_DIAMETERS = 1.5
"""Bolts stand so far in from the edge of the plate."""
BACKING_YIELD_N_MM2 = 160.0
"""A backing plate from the shop's aluminium, low end."""
DECK_PRESSURE_N_MM2 = {"fibreglass": 6.7, "membrane": 2.3}
"""What the deck may be pressed with under the plate: laminate as wood across the grain on the safe side; ply
NDS 3.10."""
MOST_PRESSED_MM = 150.0


def edge_mm(hold: BasePlate) -> float:
    return EDGE_DIAMETERS * BOLTS[hold.bolt].diameter_mm + 2


def lever_mm(hold: BasePlate) -> float:
    """From the compressed edge of the plate to the bolts in tension."""
    return hold.plate.mm - edge_mm(hold)


def chain(hold: BasePlate, ground: Ground) -> Chain:
    links = [_plate(hold), bolts_link(hold.bolt, hold.count, f"{hold.count} × {hold.bolt} bolt")]
    with scope("link base"):
        links.append(_deck(hold, ground))
    if ground.bay is not None and hold.core == "solid":
        with scope("link skin"):
            links.append(skin_link(ground.vehicle, ground.bay, hold.backing.mm / 2))
    return Chain(tuple(links), *stiffness_ends(ground.vehicle, ground.bay))


def _plate(hold: BasePlate) -> Link:
    """Bends along the line of its bolts, on the side in tension: two such lines for an even pull."""
    metal, bolt = BRACKET_METALS[hold.metal], BOLTS[hold.bolt]
    with scope("link bracket"):
        leg = bracket_bending(
            given(metal.yield_n_mm2, "table", metal.source),
            chosen(hold.plate.mm, "side of the plate"),
            chosen(min(hold.thickness.mm, 15.0), "plate thickness"),
            given(max(hold.plate.mm / 2 - edge_mm(hold), 1.0), "computed", "bolt line to the post's middle"),
        )
        bearing = hole_bearing(
            given(bolt.diameter_mm, "table", "bolt"),
            chosen(hold.thickness.mm, "plate thickness"),
            given(metal.ultimate_n_mm2, "table", metal.source),
            given(edge_mm(hold), "computed", "bolt to the edge of the plate"),
            given(bolt.clearance_mm, "table", "hole for the bolt"),
        )
        along = several(chosen(float(hold.count), "bolts"), bearing)
        source = f"{metal.source}; 1.65 on yield, 1.95 on rupture"
        return link(
            "bracket", f"{hold.metal} base plate bending", (2 * leg, 1.65), (along, 1.95), source=source
        )


def _deck(hold: BasePlate, ground: Ground) -> Link:
    """The deck under what a backing plate presses around each bolt: no more of it than its thickness makes
    stiff.
    """
    kind, washer = ground.vehicle.skin or "steel", BOLTS[hold.bolt].washer_mm
    pressed = washer
    if kind in LAMINATES:
        spread = plate_spread(
            chosen(hold.backing_thickness.mm, "backing plate"),
            given(BACKING_YIELD_N_MM2, "default", "backing plate of aluminium, low end"),
            given(DECK_PRESSURE_N_MM2[kind], "default", "pressure that the deck bears"),
        )
        pressed = washer + 2 * float(spread)
    counted = min(pressed, hold.backing.mm / 2, MOST_PRESSED_MM)
    bolts = ThroughBolts(bolt=hold.bolt, washer=Length(mm=round(counted, 3)))
    with scope("bolt"):
        one = washer_base(bolts.model_copy(update={"count": hold.count}), ground, 1.0 / hold.count)
    return one
