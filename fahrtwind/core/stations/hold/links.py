"""Links of a load path, and the two that every way to hold has: the frame's flange and the bracket.

Strengths are for the pull on the whole foot: a bracket's prying is already taken off. Where the part's own
standard covers only steel, or nothing is published, the low end is used and the link says so.
"""

from __future__ import annotations

from dataclasses import dataclass

from fahrtwind.core.formulas.bolts import hole_bearing
from fahrtwind.core.formulas.brackets import bracket_bending
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.metal_screws import design_capacity, pull_over
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Bracket
from fahrtwind.core.tables import feet as ft
from fahrtwind.core.tables.confidence import Confidence
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.materials import BRACKET_METALS, FRAME_METAL

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


def frame_link(bracket: Bracket) -> Link:
    """The panel's own frame under the head of the frame bolt: pull-over, and bearing along the roof."""
    bolt = BOLTS[bracket.frame_bolt]
    flange = given(ft.FRAME_FLANGE_MM, "default", ft.FRAME_FLANGE_SOURCE)
    strength = given(FRAME_METAL.ultimate_n_mm2, "table", FRAME_METAL.source)
    pull = pull_over(
        flange, given(min(bolt.washer_mm, WASHER_COUNTED_MM), "table", "frame bolt washer"), strength
    )
    along = hole_bearing(given(bolt.diameter_mm, "table", "frame bolt"), flange, strength)
    return link(
        "frame",
        f"frame flange at the {bracket.frame_bolt} bolt",
        (pull, 3.0),
        (along, 1.95),
        confidence="judgement",
        source="AISI S100 J4.4.2 borrowed for the aluminium flange, Ω = 3.0; bearing 1.95 on "
        "rupture (Aluminum Design Manual)",
    )


def bracket_link(bracket: Bracket) -> Link:
    """The bracket's leg in bending under pull, its hole in bearing along the roof."""
    metal = BRACKET_METALS[bracket.metal]
    size = (chosen(bracket.length.mm, "bracket length"), chosen(bracket.thickness.mm, "bracket thickness"))
    yield_strength = given(metal.yield_n_mm2, "table", metal.source)
    bending = bracket_bending(yield_strength, *size, chosen(max(bracket.lever.mm, 1.0), "bracket lever"))
    bolt = BOLTS[bracket.frame_bolt]
    along = hole_bearing(
        given(bolt.diameter_mm, "table", "frame bolt"),
        size[1],
        given(metal.ultimate_n_mm2, "table", metal.source),
    )
    return link(
        "bracket",
        f"{bracket.metal} bracket bending",
        (bending, 1.65),
        (along, 1.95),
        source=f"{metal.source}; 1.65 on yield, 1.95 on rupture (Aluminum Design Manual)",
    )


def ground_stiffness(into_member: bool) -> float:
    """Stiffness of a foot by what it stands on, N/mm."""
    stiffness = ft.STIFFNESS_MEMBER_N_MM if into_member else ft.STIFFNESS_SKIN_N_MM
    return given(stiffness, "default", ft.STIFFNESS_SOURCE)
