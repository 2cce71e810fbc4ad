"""Screws into a member, ply or laminate: the screw itself and what its thread holds in."""

from __future__ import annotations

from fahrtwind.core.formulas.bolts import bolt_shear, bolt_tension, hole_bearing, washer_punching
from fahrtwind.core.formulas.brackets import by_worst_fastener
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.metal_screws import screw_pull_out, screw_shear, several
from fahrtwind.core.formulas.wood import (
    thread_in_member,
    wood_design_withdrawal,
    wood_screw_failure,
    wood_screw_lateral,
    wood_screw_withdrawal,
)
from fahrtwind.core.job.panel import Screws
from fahrtwind.core.stations.hold.links import (
    FAR_FROM_EDGES_MM,
    SEAL_LAYER_MM,
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
from fahrtwind.core.tables.fasteners import BOLT_FACTOR, SCREW_STEEL_SOURCE, SCREW_STRENGTH_N_MM2, SCREWS
from fahrtwind.core.tables.materials import (
    LAMINATES,
    MEMBER_WOOD,
    METALS,
    PLY_WOOD,
    WOOD_DURATION,
    WOOD_FACTORS_SOURCE,
    WOOD_LATERAL_FACTOR,
    WOOD_WET,
    Metal,
    Wood,
)


def chain(hold: Screws, ground: Ground) -> Chain:
    pry = worst_share(hold, ground.on_side)
    stiffness = stiffness_ends(ground.vehicle, ground.bay)
    return chain_over(ground, hold.bracket, _screws(hold, ground, pry), 0.0, stiffness)


def _screws(hold: Screws, ground: Ground, pry: float) -> list[Link]:
    vehicle, members, into_member = ground.vehicle, ground.members, ground.into_member
    screw, count = SCREWS[hold.screw], chosen(float(hold.count), "screws in the foot")
    with scope("link fastener"):
        area = given(0.785398 * screw.core_mm**2, "table", "core section of the screw")
        steel = given(SCREW_STRENGTH_N_MM2, "table", SCREW_STEEL_SOURCE)
        pull = by_worst_fastener(bolt_tension(steel, area), pry)
        fastener = link(
            "fastener",
            f"{hold.count} × {hold.screw} screw",
            (pull, BOLT_FACTOR),
            (several(count, bolt_shear(steel, area)), BOLT_FACTOR),
            source=SCREW_STEEL_SOURCE,
        )
    with scope("link base"):
        if into_member and members.kind == "wood_truss":
            base = _wood_base(
                hold, MEMBER_WOOD, skin_mm(vehicle), members.depth.mm if members.depth else 0.0, pry, "truss"
            )
        elif into_member:
            wall = members.wall.mm if members.wall else 0.0
            base = _metal_base(
                hold,
                METALS["steel" if members.kind == "steel_hat" else "aluminium"],
                wall,
                pry,
                "member wall",
            )
        elif vehicle.skin == "membrane":
            base = _wood_base(hold, PLY_WOOD, 0.0, skin_mm(vehicle), pry, "ply only")
        elif vehicle.skin == "fibreglass":
            base = _laminate_base(hold, skin_mm(vehicle), pry)
        else:
            base = _metal_base(hold, METALS[vehicle.skin or "steel"], skin_mm(vehicle), pry, "skin only")
    return [fastener, base]


def _metal_base(hold: Screws, metal: Metal, thickness: float, pry: float, where: str) -> Link:
    screw, count = SCREWS[hold.screw], float(hold.count)
    sheet, diameter = given(thickness, "measured", where), given(screw.diameter_mm, "table", "screw diameter")
    strength = given(metal.ultimate_n_mm2 * metal.knock_down, "table", metal.source)
    pull = by_worst_fastener(screw_pull_out(sheet, diameter, strength), pry)
    along = several(count, screw_shear(sheet, diameter, strength))
    return link(
        "base",
        f"screws pulling out of the {where}",
        (pull, metal.screw_factor),
        (along, metal.screw_factor),
        source=metal.source,
        confidence=metal.confidence,
    )


def _wood_base(hold: Screws, wood: Wood, above_mm: float, depth_mm: float, pry: float, where: str) -> Link:
    screw, count = SCREWS[hold.screw], float(hold.count)
    foot = hold.bracket.thickness.mm + SEAL_LAYER_MM
    thread = thread_in_member(
        chosen(hold.length.mm, "screw length"),
        chosen(foot, "foot and sealant layer"),
        given(above_mm, "measured", "skin or ply above"),
        given(depth_mm, "measured", where),
    )
    gravity, diameter = (
        given(wood.gravity, "table", wood.source),
        given(screw.wood_mm, "table", "screw diameter in wood"),
    )
    factors = (
        given(WOOD_DURATION, "default", WOOD_FACTORS_SOURCE),
        given(WOOD_WET, "default", WOOD_FACTORS_SOURCE),
    )
    allowed = wood_design_withdrawal(wood_screw_withdrawal(gravity, diameter), thread, *factors)
    design = by_worst_fastener(allowed, pry)
    nominal = by_worst_fastener(wood_screw_failure(gravity, diameter, thread), pry)
    lateral = wood_screw_lateral(
        given(wood.density_k_kg_m3, "table", wood.source),
        given(max(1.1 * screw.core_mm, 1.8), "table", "1.1 × core"),
        thread,
        given(SCREW_STRENGTH_N_MM2, "table", SCREW_STEEL_SOURCE),
    )
    along = max(float(several(count, lateral)), 1e-3)
    held = link(
        "base",
        f"screws in the {where}",
        (max(float(nominal), 1e-3), 1.0),
        (along, WOOD_LATERAL_FACTOR),
        source=wood.source,
        confidence="published" if where == "truss" else "judgement",
    )
    return Link(
        held.id,
        held.title,
        held.pull_nominal_n,
        max(min(float(design), held.pull_nominal_n), 1e-3),
        held.shear_nominal_n,
        held.shear_design_n,
        held.source,
        held.confidence,
    )


def _laminate_base(hold: Screws, thickness: float, pry: float) -> Link:
    laminate, screw, count = LAMINATES["fibreglass"], SCREWS[hold.screw], float(hold.count)
    sheet = given(thickness, "measured", "skin thickness")
    strength = given(laminate.punching_n_mm2 / 2, "table", f"{laminate.source}; halved for a thread")
    pull = by_worst_fastener(
        washer_punching(given(screw.diameter_mm, "table", "thread"), sheet, strength), pry
    )
    bearing = given(laminate.bearing_n_mm2, "table", laminate.source)
    single_along = hole_bearing(
        screw.diameter_mm, sheet, bearing, FAR_FROM_EDGES_MM, given(screw.diameter_mm, "table", "hole")
    )
    along = several(count, single_along)
    return link(
        "base",
        "screws stripping out of the laminate",
        (pull, laminate.factor),
        (along, laminate.factor),
        source=laminate.source,
        confidence="judgement",
    )
