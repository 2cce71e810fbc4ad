"""What is set from outside alone: the fastener, and the sheet or board that it spreads behind."""

from __future__ import annotations

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.bolts import bolt_shear, bolt_tension, hole_bearing, thread_stress_area
from fahrtwind.core.formulas.brackets import by_worst_fastener
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.metal_screws import pull_over, rivet_bearing, several, well_nut_pull
from fahrtwind.core.job.panel import OneSided
from fahrtwind.core.stations.hold.links import (
    FAR_FROM_EDGES_MM,
    WASHER_COUNTED_MM,
    Chain,
    Link,
    chosen,
    link,
    skin_mm,
    stiffness_ends,
)
from fahrtwind.core.stations.hold.schools.drilled import worst_share
from fahrtwind.core.stations.hold.schools.foot import chain_over
from fahrtwind.core.stations.hold.schools.school import Ground
from fahrtwind.core.tables.fasteners import (
    BOLT_FACTOR,
    BOLT_STEEL_SOURCE,
    BOLT_STRENGTH_N_MM2,
    BOLTS,
    RIVET_PULL_N,
    RIVET_SHEAR_N,
    RIVET_SOURCE,
    WELL_NUT_BULGE,
)
from fahrtwind.core.tables.materials import METALS, Metal

BULGE_OF_HOLE = 1.25
BLIND_SIDE_OF_RIVET = 1.3
"""What spreads behind the sheet, over its hole or rivet (judgement)."""
SHEET_FACTOR, RUBBER_FACTOR = 3.0, 4.0
THREADED = {"rivet_nut": "rivet nuts", "expanding": "expanding bolts"}
NOTHING_N = 1e-3
"""A well nut's hold along the roof: rubber; nothing is counted."""


def chain(hold: OneSided, ground: Ground) -> Chain:
    """Raises InputError where what is below holds no such fastener."""
    pry = worst_share(hold, ground.on_side)
    stiffness = stiffness_ends(ground.vehicle, ground.bay)
    below = _well_nuts(hold, pry) if hold.insert == "well_nut" else _in_sheet(hold, ground, pry)
    return chain_over(ground, hold.bracket, below, hold.fastener_mm / 2, stiffness)


def _in_sheet(hold: OneSided, ground: Ground, pry: float) -> list[Link]:
    metal, thickness, where = _sheet(hold, ground)
    with scope("link fastener"):
        fastener = _rivets(hold, pry) if hold.insert == "blind_rivet" else _bolts(hold, pry)
    count, sheet = chosen(float(hold.count), "fasteners in the foot"), given(thickness, "measured", where)
    strength = given(metal.ultimate_n_mm2 * metal.knock_down, "table", metal.source)
    with scope("link base"):
        if hold.insert != "blind_rivet":
            bulge = min(BULGE_OF_HOLE * hold.fastener_mm, WASHER_COUNTED_MM)
            single = hole_bearing(hold.fastener_mm, sheet, strength, FAR_FROM_EDGES_MM, hold.fastener_mm)
            what = THREADED[hold.insert]
        else:
            bulge = BLIND_SIDE_OF_RIVET * hold.rivet.mm
            single = rivet_bearing(sheet, chosen(hold.rivet.mm, "rivet"), strength)
            what = "rivets"
        held = pull_over(sheet, given(bulge, "default", "what spreads behind the sheet: judgement"), strength)
        base = link(
            "base",
            f"{what} pulling out of the {where}",
            (by_worst_fastener(held, pry), SHEET_FACTOR),
            (several(count, single), SHEET_FACTOR),
            source=f"{metal.source}; AISI S100 J4.4.2 borrowed for the blind side",
            confidence="judgement",
        )
    return [fastener, base]


def _sheet(hold: OneSided, ground: Ground) -> tuple[Metal, float, str]:
    """The metal a fastener spreads behind, its thickness in mm, and what it is."""
    vehicle, members = ground.vehicle, ground.members
    if ground.into_member and members.kind in ("steel_hat", "aluminium_box") and members.wall is not None:
        return METALS["steel" if members.kind == "steel_hat" else "aluminium"], members.wall.mm, "member wall"
    if vehicle.skin in ("steel", "aluminium") and not (ground.into_member and members.kind == "wood_truss"):
        return METALS[vehicle.skin], skin_mm(vehicle), "skin"
    raise InputError(
        "Rivets, rivet nuts and expanding bolts need sheet metal to spread behind; here is wood or laminate.",
        remedy="Take screws into the truss, or bolts with washers.",
        field="hold.insert",
    )


def _bolts(hold: OneSided, pry: float) -> Link:
    bolt = BOLTS[hold.bolt]
    area = thread_stress_area(
        given(bolt.diameter_mm, "table", "bolt"),
        given(bolt.pitch_mm, "table", "thread pitch"),
        given(bolt.thread_form, "table", "form of the thread"),
    )
    steel = given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE)
    pull, shear = bolt_tension(steel, area), bolt_shear(steel, area)
    if hold.pull_n is not None:
        pull = min(float(pull), given(hold.pull_n, "chosen", "insert's maker"))
    if hold.shear_n is not None:
        shear = min(float(shear), given(hold.shear_n, "chosen", "insert's maker"))
    return link(
        "fastener",
        f"{hold.count} × {hold.bolt}: {THREADED[hold.insert]}",
        (by_worst_fastener(pull, pry), BOLT_FACTOR),
        (several(float(hold.count), shear), BOLT_FACTOR),
        source=BOLT_STEEL_SOURCE if hold.pull_n is None else "insert's maker",
    )


def _rivets(hold: OneSided, pry: float) -> Link:
    known = hold.pull_n is not None and hold.shear_n is not None
    pull = given(hold.pull_n or RIVET_PULL_N, "chosen" if hold.pull_n else "default", RIVET_SOURCE)
    shear = given(hold.shear_n or RIVET_SHEAR_N, "chosen" if hold.shear_n else "default", RIVET_SOURCE)
    return link(
        "fastener",
        f"{hold.count} × blind rivet",
        (by_worst_fastener(pull, pry), SHEET_FACTOR),
        (several(float(hold.count), shear), SHEET_FACTOR),
        source="rivet's maker" if known else RIVET_SOURCE,
        confidence="common practice" if known else "judgement",
    )


def _well_nuts(hold: OneSided, pry: float) -> list[Link]:
    """Rubber in pull alone; along the roof nothing is counted."""
    with scope("link fastener"):
        hole = hold.fastener_mm
        rubber = well_nut_pull(given(WELL_NUT_BULGE * hole, "default", "bulge behind the board"), hole)
        single = given(hold.pull_n, "chosen", "well nut's maker") if hold.pull_n else rubber
        nuts = link(
            "fastener",
            f"{hold.count} × well nut",
            (by_worst_fastener(single, pry), RUBBER_FACTOR),
            (NOTHING_N, 1.0),
            source="no standard: rubber creeps and ages; judgement, low end",
            confidence="judgement",
        )
    return [nuts]
