"""Links of a load path, and the two that every way to hold has: the frame's flange and the bracket.

Strengths are for the pull on the whole foot: a bracket's prying is already taken off. Where the part's own
standard covers only steel, or nothing is published, the low end is used and the link says so.
"""

from __future__ import annotations

from fahrtwind.core.formulas.bolts import bolt_shear, bolt_tension, hole_bearing, thread_stress_area
from fahrtwind.core.formulas.brackets import bending_width, bracket_bending, upright_bending, with_tipping
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.metal_screws import aluminium_pull_over, design_capacity, pull_over, several
from fahrtwind.core.formulas.plates import board_cracking, plate_stiffness, skin_dish, skin_spring
from fahrtwind.core.formulas.verdict import rated_share
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import BoltName, Bracket
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.tables import feet as ft
from fahrtwind.core.tables.confidence import Confidence
from fahrtwind.core.tables.fasteners import BOLT_FACTOR, BOLT_STEEL_SOURCE, BOLT_STRENGTH_N_MM2, BOLTS
from fahrtwind.core.tables.materials import BRACKET_METALS, FRAME_METAL, LAMINATES, METALS
from fahrtwind.core.tables.skins import SKIN_ELASTICITY

WASHER_COUNTED_MM = 19.0
RATED_PA, TEST_FACTOR, MOUNTING_POINTS = 1600.0, 1.5, 4
"""IEC 61215-2:2021, MQT 16: at least 2400 Pa in the test, 1600 Pa design; four points unless the manual says
else.
"""
EDGE_MM = 5.0
SKIN_BEARING_MM = 2.4 * 6.0
"""Along the roof the skin is stressed in its plane; bearing on an M6 is counted, which its links repeat."""
FAR_FROM_EDGES_MM = 1000.0
"""A hole in the roof stands far from any edge of the sheet."""
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
    """The links of a foot, and how soft and how stiff it may stand: the ends of a range on bare skin."""

    links: tuple[Link, ...]
    stiffness_n_mm: float
    stiffest_n_mm: float


@dataclass(frozen=True, slots=True)
class Above:
    """What a foot carries: how high the frame stands over the roof, and the panel's rated uplift (design) at
    so many mounting points.
    """

    height_mm: float = 0.0
    area_m2: float = 1.0
    rated_pa: float = RATED_PA
    rated_known: bool = False
    points: int = MOUNTING_POINTS
    points_known: bool = False


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


def chosen(value: float, place: str) -> float:
    """Note that a number, in whatever unit its field has, was chosen in the job."""
    return given(value, "chosen", place)


def link(
    link_id: str,
    title: str,
    pull: tuple[float, float],
    shear: tuple[float, float],
    *,
    source: str,
    confidence: Confidence = "published",
) -> Link:
    """A link from (nominal, factor) pairs for pull and for force along the roof. Nominal in N, factor
    without unit.
    """
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


def bolts_link(name: BoltName, count: int, title: str) -> Link:
    """So many stainless bolts, evenly loaded, in pull and in shear through the thread."""
    bolt = BOLTS[name]
    with scope("link fastener"):
        area = thread_stress_area(
            given(bolt.diameter_mm, "table", "bolt"),
            given(bolt.pitch_mm, "table", "thread pitch"),
            given(bolt.thread_form, "table", "form of the thread"),
        )
        steel = given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE)
        many = chosen(float(count), "bolts")
        pull = several(many, bolt_tension(steel, area))
        with scope("along"):
            along = several(many, bolt_shear(steel, area))
        return link("fastener", title, (pull, BOLT_FACTOR), (along, BOLT_FACTOR), source=BOLT_STEEL_SOURCE)


def frame_link(bracket: Bracket, above: Above) -> Link:
    """The panel's own frame under the head of the frame bolt: pull-over in aluminium, at most what its sheet
    lets one mounting point carry, and bearing along the roof.
    """
    bolt = BOLTS[bracket.frame_bolt]
    flange = given(ft.FRAME_FLANGE_MM, "default", ft.FRAME_FLANGE_SOURCE)
    strength = given(FRAME_METAL.ultimate_n_mm2, "table", FRAME_METAL.source)
    hole = given(bolt.clearance_mm, "table", "hole for the frame bolt")
    over = aluminium_pull_over(flange, given(bolt.washer_mm, "table", "frame bolt washer"), hole, strength)
    along = hole_bearing(
        given(bolt.diameter_mm, "table", "frame bolt"),
        flange,
        strength,
        given(ft.FRAME_EDGE_MM, "default", ft.FRAME_FLANGE_SOURCE),
        hole,
    )
    held = link(
        "frame",
        f"panel frame at the {bracket.frame_bolt} bolt",
        (over, 3.0),
        (along, 1.95),
        confidence="judgement",
        source="Aluminum Design Manual 2015 J.5, Ω = 3.0, from memory; at most the rated load's share "
        "(IEC 61215-2 MQT 16); bearing 1.95 on rupture",
    )
    rated = rated_share(
        given(above.rated_pa, "chosen" if above.rated_known else "default", "rated uplift, design"),
        given(above.area_m2, "chosen", "panel"),
        given(float(above.points), "chosen" if above.points_known else "default", "mounting points"),
    )
    return replace(
        held,
        pull_nominal_n=min(held.pull_nominal_n, TEST_FACTOR * float(rated)),
        pull_design_n=min(held.pull_design_n, float(rated)),
    )


def bracket_link(bracket: Bracket, above: Above) -> Link:
    """The bracket: its leg in bending under pull; along the roof its upright in bending or its hole in
    bearing, whichever is less.
    """
    metal = BRACKET_METALS[bracket.metal]
    bolt = BOLTS[bracket.frame_bolt]
    length, thickness = (
        chosen(bracket.length.mm, "bracket length"),
        chosen(bracket.thickness.mm, "bracket thickness"),
    )
    lever = chosen(max(bracket.lever.mm, 1.0), "bracket lever")
    hole = given(bolt.clearance_mm, "table", "hole for the frame bolt")
    yield_strength = given(metal.yield_n_mm2, "table", metal.source)
    width = bending_width(length, hole, lever, chosen(bracket.toe.mm, "bracket toe"))
    bending = bracket_bending(yield_strength, width, thickness, lever)
    bearing = hole_bearing(
        given(bolt.diameter_mm, "table", "frame bolt"),
        thickness,
        given(metal.ultimate_n_mm2, "table", metal.source),
        chosen(bracket.length.mm / 2, "half of the bracket's length"),
        hole,
    )
    upright = upright_bending(
        yield_strength, length, hole, thickness, chosen(max(above.height_mm, 1.0), "stand-off")
    )
    with scope("upright"):
        bent = design_capacity(upright, given(1.65, "default", "1.65 on yield"))
    held = link(
        "bracket",
        f"{bracket.metal} bracket bending",
        (bending, 1.65),
        (bearing, 1.95),
        source=f"{metal.source}; 1.65 on yield, 1.95 on rupture (Aluminum Design Manual)",
    )
    return replace(
        held,
        shear_nominal_n=min(held.shear_nominal_n, float(upright)),
        shear_design_n=min(held.shear_design_n, float(bent)),
    )


def tipped(held: Link, bracket: Bracket, height_mm: float) -> Link:
    """The same link where a force along the roof, at the frame's height in mm, also tips the base about its
    toe.
    """
    height, base = given(height_mm, "chosen", "stand-off"), given(bracket.base_mm, "chosen", "upright to toe")
    nominal = with_tipping(held.shear_nominal_n, held.pull_nominal_n, height, base)
    with scope("design"):
        design = with_tipping(held.shear_design_n, held.pull_design_n, height, base)
    return replace(held, shear_nominal_n=float(nominal), shear_design_n=float(design))


@dataclass(frozen=True, slots=True)
class Bay:
    """A foot on the skin between members: length of its bay and its distance from the member in front, mm.

    ``known`` is False where no members are known: then a usual bay is taken, and its middle.
    """

    bay_mm: float
    at_mm: float
    known: bool = True


USUAL_BAY = Bay(650.0, 325.0, known=False)


def skin_link(vehicle: Vehicle, bay: Bay, pressed_mm: float) -> Link:
    """The skin between members under a foot: what it takes before it keeps a dish, or cracks.

    ``pressed_mm``: radius of what presses on it. Beyond the dish a metal skin carries on like a membrane; it
    lets go only where something is pulled through it.
    """
    thickness = given(skin_mm(vehicle), "measured", "skin thickness")
    kind = vehicle.skin or "steel"
    if kind in LAMINATES:
        laminate = LAMINATES[kind]
        cracking = board_cracking(given(laminate.bending_n_mm2, "table", laminate.source), thickness)
        pull, bearing, source = float(cracking), laminate.bearing_n_mm2, laminate.source
        kept = pull / laminate.factor
    else:
        metal = METALS[kind]
        member = given(min(bay.at_mm, bay.bay_mm - bay.at_mm), "inferred", "distance to the member")
        dish = skin_dish(
            given(metal.yield_n_mm2, "table", metal.source),
            thickness,
            given(pressed_mm, "chosen", "radius of what presses"),
            max(float(member), 1.0),
        )
        strength = given(metal.ultimate_n_mm2 * metal.knock_down, "table", metal.source)
        through = pull_over(thickness, WASHER_COUNTED_MM, strength)
        with scope("dish"):
            kept = float(design_capacity(dish, given(1.65, "default", "1.65 on yield")))
        pull, bearing = float(through), metal.ultimate_n_mm2
        source = f"{metal.source}; yield-line fan (Johansen 1943), 1.65; pulled through only as let-go"
    along = SKIN_BEARING_MM * float(thickness) * bearing
    held = link(
        "skin", "skin between the members", (pull, 3.0), (along, 3.0), source=source, confidence="judgement"
    )
    return replace(held, pull_design_n=min(kept, held.pull_nominal_n))


def stiffness_ends(vehicle: Vehicle, bay: Bay | None) -> tuple[float, float]:
    """Softest and stiffest a foot may stand, N/mm: over a member, or on the skin, which stiffens as a
    membrane.
    """
    if bay is None or not skin_known(vehicle):
        over = given(ft.STIFFNESS_MEMBER_N_MM, "default", ft.STIFFNESS_SOURCE)
        return over, over
    made_of = SKIN_ELASTICITY[vehicle.skin or "steel"]
    with scope("skin stiffness"):
        stiffness = plate_stiffness(
            given(made_of.modulus_n_mm2, "table", made_of.source),
            given(skin_mm(vehicle), "measured", "skin thickness"),
            given(made_of.poisson, "table", made_of.source),
        )
        at = min(max(bay.at_mm, EDGE_MM), max(bay.bay_mm - EDGE_MM, EDGE_MM))
        soft = float(skin_spring(stiffness, max(bay.bay_mm, 50.0), given(at, "inferred", "spot in the bay")))
    soft = min(soft, ft.STIFFNESS_MEMBER_N_MM)
    return soft, min(soft * ft.MEMBRANE_FACTOR, ft.STIFFNESS_MEMBER_N_MM)
