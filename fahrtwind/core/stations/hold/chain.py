"""The load path of a foot: frame, bracket, fastener or tape, skin or member. Each link with its strength.

Strengths are for the pull on the whole foot: a bracket's prying is already taken off. Where the part's own
standard covers only steel, or nothing is published, the low end is used and the link says so.
"""

from __future__ import annotations

from dataclasses import dataclass

from fahrtwind.core.formulas.adhesive import bond_share, tape_edge_strength, tape_stiffness, tape_strength
from fahrtwind.core.formulas.bolts import (
    bolt_shear,
    bolt_tension,
    hole_bearing,
    thread_stress_area,
    washer_punching,
)
from fahrtwind.core.formulas.brackets import (
    bracket_bending,
    by_worst_fastener,
    even_share,
    in_series,
    prying,
    row_share,
)
from fahrtwind.core.formulas.declare import Confidence, given, scope
from fahrtwind.core.formulas.metal_screws import (
    design_capacity,
    pull_over,
    screw_pull_out,
    screw_shear,
    several,
)
from fahrtwind.core.formulas.wood import (
    thread_in_member,
    wood_design_withdrawal,
    wood_screw_failure,
    wood_screw_lateral,
    wood_screw_withdrawal,
)
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Bracket, FoamTape, Screws, ThroughBolts
from fahrtwind.core.stations.hold.fastening import bonded_pad_mm, hole_pitch_mm
from fahrtwind.core.stations.layout.feet import Landing
from fahrtwind.core.tables import feet as ft
from fahrtwind.core.tables.fasteners import (
    BOLT_FACTOR,
    BOLT_STEEL_SOURCE,
    BOLT_STRENGTH_N_MM2,
    BOLTS,
    SCREW_STEEL_SOURCE,
    SCREW_STRENGTH_N_MM2,
    SCREWS,
)
from fahrtwind.core.tables.materials import (
    BRACKET_METALS,
    FRAME_METAL,
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

WASHER_COUNTED_MM = 19.0
SEAL_LAYER_MM = 1.0


@dataclass(frozen=True, slots=True)
class Link:
    """One link: nominal strength and design capacity in pull and along the roof, N per foot."""

    id: str
    title: str
    pull_nominal_n: float
    pull_design_n: float
    shear_nominal_n: float
    shear_design_n: float
    source: str
    confidence: Confidence


@dataclass(frozen=True, slots=True)
class Chain:
    links: tuple[Link, ...]
    stiffness_n_mm: float


def chain_of(
    vehicle: Vehicle,
    members: Members,
    hold: Screws | ThroughBolts | FoamTape,
    landing: Landing,
    on_side: bool = True,
) -> Chain:
    """The chain of a foot. The skin must be known (``skin_known``); members only where the foot lands in one.

    ``on_side``: the foot stands at a long side of the frame, so its row of fasteners, along the member, runs
    along the lever.
    """
    into_member = landing == "member" and members_known(members)
    return _build(vehicle, members, hold, into_member, on_side)


def skin_of(vehicle: Vehicle) -> Vehicle:
    """The part of a vehicle that a chain reads, alone: two vehicles with the same skin give the same text."""
    return Vehicle(
        skin=vehicle.skin, skin_thickness=vehicle.skin_thickness, ply_thickness=vehicle.ply_thickness
    )


def skin_known(vehicle: Vehicle) -> bool:
    thickness = vehicle.ply_thickness if vehicle.skin == "membrane" else vehicle.skin_thickness
    return vehicle.skin is not None and thickness is not None


def members_known(members: Members) -> bool:
    holds_in = members.depth if members.kind == "wood_truss" else members.wall
    return members.kind is not None and holds_in is not None


def skin_mm(vehicle: Vehicle) -> float:
    """Thickness of what is above the members: sheet, laminate or ply (the membrane itself carries
    nothing).
    """
    part = vehicle.ply_thickness if vehicle.skin == "membrane" else vehicle.skin_thickness
    return part.mm if part else 0.0


def _build(
    vehicle: Vehicle,
    members: Members,
    hold: Screws | ThroughBolts | FoamTape,
    into_member: bool,
    on_side: bool,
) -> Chain:
    with scope("link frame"):
        links = [_frame(hold.bracket)]
    with scope("link bracket"):
        links.append(_bracket(hold.bracket))
    base = given(
        ft.STIFFNESS_MEMBER_N_MM if into_member else ft.STIFFNESS_SKIN_N_MM, "default", ft.STIFFNESS_SOURCE
    )
    if hold.school == "tape":
        return Chain((*links, *_tape(hold)), _tape_spring(hold, base))
    with scope("prying"):
        pry = _share(hold, on_side)
    if hold.school == "screws":
        links += _screws(vehicle, members, hold, into_member, pry)
    else:
        links += _bolts(vehicle, members, hold, into_member, pry)
    return Chain(tuple(links), float(base))


def _share(hold: Screws | ThroughBolts, on_side: bool) -> float:
    """Of the pull on the foot, what its worst fastener takes."""
    lever, toe = _chosen(hold.bracket.lever.mm, "bracket lever"), _chosen(hold.bracket.toe.mm, "bracket toe")
    count = _chosen(float(hold.count), "fasteners in the foot")
    if on_side:
        return float(
            row_share(lever, toe, count, given(hole_pitch_mm(hold), "computed", "distance of the holes"))
        )
    return float(even_share(prying(lever, toe), count))


def _chosen(value: float, place: str) -> float:
    return given(value, "chosen", place)


def _link(
    link_id: str,
    title: str,
    pull: tuple[float, float],
    shear: tuple[float, float],
    *,
    source: str,
    confidence: Confidence = "published",
) -> Link:
    """A link from (nominal, factor) pairs for pull and for force along the roof."""
    with scope("pull"):
        pull_design = design_capacity(pull[0], given(pull[1], "default", source))
    with scope("along"):
        shear_design = design_capacity(shear[0], given(shear[1], "default", source))
    return Link(
        link_id,
        title,
        float(pull[0]),
        float(pull_design),
        float(shear[0]),
        float(shear_design),
        source,
        confidence,
    )


def _frame(bracket: Bracket) -> Link:
    bolt = BOLTS[bracket.frame_bolt]
    flange = given(ft.FRAME_FLANGE_MM, "default", ft.FRAME_FLANGE_SOURCE)
    strength = given(FRAME_METAL.ultimate_n_mm2, "table", FRAME_METAL.source)
    pull = pull_over(
        flange, given(min(bolt.washer_mm, WASHER_COUNTED_MM), "table", "frame bolt washer"), strength
    )
    along = hole_bearing(given(bolt.diameter_mm, "table", "frame bolt"), flange, strength)
    return _link(
        "frame",
        f"frame flange at the {bracket.frame_bolt} bolt",
        (pull, 3.0),
        (along, 1.95),
        confidence="judgement",
        source="AISI S100 J4.4.2 borrowed for the aluminium flange, Ω = 3.0; bearing 1.95 on "
        "rupture (Aluminum Design Manual)",
    )


def _bracket(bracket: Bracket) -> Link:
    metal = BRACKET_METALS[bracket.metal]
    size = (_chosen(bracket.length.mm, "bracket length"), _chosen(bracket.thickness.mm, "bracket thickness"))
    yield_strength = given(metal.yield_n_mm2, "table", metal.source)
    bending = bracket_bending(yield_strength, *size, _chosen(max(bracket.lever.mm, 1.0), "bracket lever"))
    bolt = BOLTS[bracket.frame_bolt]
    along = hole_bearing(
        given(bolt.diameter_mm, "table", "frame bolt"),
        size[1],
        given(metal.ultimate_n_mm2, "table", metal.source),
    )
    return _link(
        "bracket",
        f"{bracket.metal} bracket bending",
        (bending, 1.65),
        (along, 1.95),
        source=f"{metal.source}; 1.65 on yield, 1.95 on rupture (Aluminum Design Manual)",
    )


def _screws(vehicle: Vehicle, members: Members, hold: Screws, into_member: bool, pry: float) -> list[Link]:
    screw, count = SCREWS[hold.screw], _chosen(float(hold.count), "screws in the foot")
    with scope("link fastener"):
        area = given(0.785398 * screw.core_mm**2, "table", "core section of the screw")
        steel = given(SCREW_STRENGTH_N_MM2, "table", SCREW_STEEL_SOURCE)
        pull = by_worst_fastener(bolt_tension(steel, area), pry)
        fastener = _link(
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
    return _link(
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
        _chosen(hold.length.mm, "screw length"),
        _chosen(foot, "foot and sealant layer"),
        given(above_mm, "measured", "skin or ply above"),
        given(depth_mm, "measured", where),
    )
    gravity, diameter = (
        given(wood.gravity, "table", wood.source),
        given(screw.diameter_mm, "table", "screw diameter"),
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
    link = _link(
        "base",
        f"screws in the {where}",
        (max(float(nominal), 1e-3), 1.0),
        (along, WOOD_LATERAL_FACTOR),
        source=wood.source,
        confidence="published" if where == "truss" else "judgement",
    )
    return Link(
        link.id,
        link.title,
        link.pull_nominal_n,
        max(min(float(design), link.pull_nominal_n), 1e-3),
        link.shear_nominal_n,
        link.shear_design_n,
        link.source,
        link.confidence,
    )


def _laminate_base(hold: Screws, thickness: float, pry: float) -> Link:
    laminate, screw, count = LAMINATES["fibreglass"], SCREWS[hold.screw], float(hold.count)
    sheet = given(thickness, "measured", "skin thickness")
    strength = given(laminate.punching_n_mm2 / 2, "table", f"{laminate.source}; halved for a thread")
    pull = by_worst_fastener(washer_punching(max(screw.diameter_mm, 5.0), sheet, strength), pry)
    along = several(
        count, hole_bearing(screw.diameter_mm, sheet, given(laminate.bearing_n_mm2, "table", laminate.source))
    )
    return _link(
        "base",
        "screws stripping out of the laminate",
        (pull, laminate.factor),
        (along, laminate.factor),
        source=laminate.source,
        confidence="judgement",
    )


def _bolts(
    vehicle: Vehicle, members: Members, hold: ThroughBolts, into_member: bool, pry: float
) -> list[Link]:
    bolt, count = BOLTS[hold.bolt], _chosen(float(hold.count), "bolts in the foot")
    with scope("link fastener"):
        area = thread_stress_area(
            given(bolt.diameter_mm, "table", "bolt"),
            given(bolt.pitch_mm, "table", "thread pitch"),
            given(bolt.thread_form, "table", "form of the thread"),
        )
        steel = given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE)
        pull = by_worst_fastener(bolt_tension(steel, area), pry)
        fastener = _link(
            "fastener",
            f"{hold.count} × {hold.bolt} bolt",
            (pull, BOLT_FACTOR),
            (several(count, bolt_shear(steel, area)), BOLT_FACTOR),
            source=BOLT_STEEL_SOURCE,
        )
    with scope("link base"):
        return [fastener, _washer_base(vehicle, members, hold, into_member, pry)]


def _washer_base(
    vehicle: Vehicle, members: Members, hold: ThroughBolts, into_member: bool, pry: float
) -> Link:
    """What the washer below pulls against: the member's wall or wood where the bolt goes through it, else the
    skin.
    """
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
    sheet, washer = given(thickness, "measured", where), _chosen(hold.washer.mm, "washer diameter")
    if kind in LAMINATES:
        laminate = LAMINATES[kind]
        single = washer_punching(
            washer,
            given(min(thickness, 60.0), "measured", where),
            given(laminate.punching_n_mm2, "table", laminate.source),
        )
        bearing = given(laminate.bearing_n_mm2, "table", laminate.source)
        factor, source, confidence = laminate.factor, laminate.source, "judgement"
    else:
        metal = METALS[kind]
        strength = given(metal.ultimate_n_mm2 * metal.knock_down, "table", metal.source)
        counted = given(min(hold.washer.mm, WASHER_COUNTED_MM), "chosen", "washer, counted up to 19 mm")
        single, bearing = pull_over(sheet, counted, strength), strength
        factor, source, confidence = metal.screw_factor, metal.source, metal.confidence
    pull = by_worst_fastener(single, pry)
    along = several(count, hole_bearing(diameter, given(min(thickness, 30.0), "measured", where), bearing))
    return _link(
        "base",
        f"washers pulling through the {where}",
        (pull, factor),
        (along, factor),
        source=source,
        confidence=confidence,
    )


def _tape(hold: FoamTape) -> list[Link]:
    length, width = bonded_pad_mm(hold)
    pad = (_chosen(length, "pad length under the base"), _chosen(width, "pad width under the base"))
    nominal = given(ft.TAPE_DESIGN_N_MM2 * ft.TAPE_FACTOR, "default", ft.TAPE_FACTOR_SOURCE)
    with scope("link tape"):
        bonded = max(float(bond_share(_chosen(hold.dwell_h, "dwell"))), 1e-6)
        whole = tape_strength(nominal, *pad, bonded)
        spread = _link(
            "tape",
            "tape, pull spread over the pad",
            (whole, ft.TAPE_FACTOR),
            (whole, ft.TAPE_FACTOR),
            source=ft.TAPE_SOURCE,
            confidence="common practice",
        )
    with scope("link tape edge"):
        off = _chosen(max(hold.bracket.lever.mm, ft.TAPE_ECCENTRICITY_MM), "bracket lever, at least 5 mm")
        edge = tape_edge_strength(nominal, *pad, bonded, off)
        edge_link = _link(
            "tape edge",
            "tape, peel at the pad's edge",
            (edge, ft.TAPE_FACTOR),
            (whole, ft.TAPE_FACTOR),
            source=ft.TAPE_SOURCE,
            confidence="common practice",
        )
    return [spread, edge_link]


def _tape_spring(hold: FoamTape, base: float) -> float:
    with scope("stiffness"):
        length, width = bonded_pad_mm(hold)
        spring = tape_stiffness(
            given(ft.TAPE_MODULUS_N_MM2, "default", "judgement"),
            _chosen(length, "pad length under the base"),
            _chosen(width, "pad width under the base"),
            _chosen(hold.thickness.mm, "tape thickness"),
        )
        return float(in_series(spring, base))
