"""Bolts through skin or member with large washers below: the bolt and what the washer pulls against."""

from __future__ import annotations

from fahrtwind.core.formulas.bolts import (
    bolt_shear,
    bolt_tension,
    hole_bearing,
    thread_stress_area,
    washer_punching,
)
from fahrtwind.core.formulas.brackets import by_worst_fastener
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.metal_screws import pull_over, several
from fahrtwind.core.job.panel import ThroughBolts
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
from fahrtwind.core.tables.confidence import Confidence
from fahrtwind.core.tables.fasteners import BOLT_FACTOR, BOLT_STEEL_SOURCE, BOLT_STRENGTH_N_MM2, BOLTS
from fahrtwind.core.tables.materials import LAMINATES, METALS


def chain(hold: ThroughBolts, ground: Ground) -> Chain:
    pry = worst_share(hold, ground.on_side)
    stiffness = stiffness_ends(ground.vehicle, ground.bay)
    return chain_over(ground, hold.bracket, _bolts(hold, ground, pry), hold.washer.mm / 2, stiffness)


def _bolts(hold: ThroughBolts, ground: Ground, pry: float) -> list[Link]:
    bolt, count = BOLTS[hold.bolt], chosen(float(hold.count), "bolts in the foot")
    with scope("link fastener"):
        area = thread_stress_area(
            given(bolt.diameter_mm, "table", "bolt"),
            given(bolt.pitch_mm, "table", "thread pitch"),
            given(bolt.thread_form, "table", "form of the thread"),
        )
        steel = given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE)
        pull = by_worst_fastener(bolt_tension(steel, area), pry)
        fastener = link(
            "fastener",
            f"{hold.count} × {hold.bolt} bolt",
            (pull, BOLT_FACTOR),
            (several(count, bolt_shear(steel, area)), BOLT_FACTOR),
            source=BOLT_STEEL_SOURCE,
        )
    with scope("link base"):
        return [fastener, washer_base(hold, ground, pry)]


def washer_base(hold: ThroughBolts, ground: Ground, pry: float) -> Link:
    """What the washer below pulls against, of a foot whose worst bolt takes the share ``pry`` of the pull:
    the member's wall or wood where the bolt goes through it, else the skin.
    """
    vehicle, members, into_member = ground.vehicle, ground.members, ground.into_member
    confidence: Confidence = "judgement"
    where, thickness, kind = "skin", skin_mm(vehicle), vehicle.skin or "steel"
    if into_member and members.kind == "wood_truss":
        where, thickness, kind = "truss", members.depth.mm if members.depth else 0.0, "membrane"
    elif into_member and members.wall is not None:
        where, thickness, kind = (
            "member wall",
            members.wall.mm,
            "steel" if members.kind == "steel_hat" else "aluminium",
        )
    count, diameter = float(hold.count), BOLTS[hold.bolt].diameter_mm
    sheet, washer = given(thickness, "measured", where), chosen(hold.washer.mm, "washer diameter")
    if kind in LAMINATES:
        laminate = LAMINATES[kind]
        single = washer_punching(
            washer,
            given(min(thickness, 60.0), "measured", where),
            given(laminate.punching_n_mm2, "table", laminate.source),
        )
        bearing = given(laminate.bearing_n_mm2, "table", laminate.source)
        factor, source = laminate.factor, laminate.source
    else:
        metal = METALS[kind]
        strength = given(metal.ultimate_n_mm2 * metal.knock_down, "table", metal.source)
        counted = given(min(hold.washer.mm, WASHER_COUNTED_MM), "chosen", "washer, counted up to 19 mm")
        single, bearing = pull_over(sheet, counted, strength), strength
        factor, source, confidence = metal.screw_factor, metal.source, metal.confidence
    pull = by_worst_fastener(single, pry)
    clearance = given(BOLTS[hold.bolt].clearance_mm, "table", "hole for the bolt")
    single_along = hole_bearing(
        diameter, given(min(thickness, 30.0), "measured", where), bearing, FAR_FROM_EDGES_MM, clearance
    )
    along = several(count, single_along)
    return link(
        "base",
        f"washers pulling through the {where}",
        (pull, factor),
        (along, factor),
        source=source,
        confidence=confidence,
    )
