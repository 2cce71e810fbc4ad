"""Road loads, weight and roof mass."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

GRAVITY = 9.80665
SECURING = "EN 12195-1:2010, 5.2 (road: 0.8 g forward, 0.5 g rearward and sideways, 1 g down)"


@formula(
    title="inertia force along the roof",
    symbol="F_road",
    expression="F_road = m · a · g",
    unit="N",
    source=Source(SECURING),
)
def road_force(
    mass_kg: Annotated[Number, Arg("m", "kg", "mass of the panel", 0, 500)],
    acceleration_g: Annotated[Number, Arg("a", "g", "acceleration", 0, 5)],
) -> Number:
    return mass_kg * acceleration_g * GRAVITY


@formula(
    title="weight that still holds the panel down",
    symbol="W",
    expression="W = m · min(0.6, 1 − a_up) · g",
    unit="N",
    source=Source(
        "ASCE 7-16, 2.4.1: weight against wind counts by 0.6; an upward bump takes it off, a_up 1 g normal "
        "road, 2 g rough: common practice",
        "common practice",
    ),
)
def holding_weight(
    mass_kg: Annotated[Number, Arg("m", "kg", "mass of the panel", 0, 500)],
    bump_g: Annotated[Number, Arg("a_up", "g", "upward bump", 0, 5)],
) -> Number:
    return mass_kg * min(0.6, 1 - bump_g) * GRAVITY


@formula(
    title="mass the plan adds to the roof",
    symbol="m_roof",
    expression="m_roof = Σ m_panel + n_feet · m_foot",
    unit="kg",
    source=Source("Sum; mass of a bracket with its hardware: common practice, no source", "common practice"),
)
def added_roof_mass(
    panels_kg: Annotated[Number, Arg("Σ m", "kg", "mass of the panels", 0)],
    feet: Annotated[Number, Arg("n", "", "number of feet", 0)],
    foot_kg: Annotated[Number, Arg("m_foot", "kg", "mass of one foot with hardware", 0, 5)],
) -> Number:
    return panels_kg + feet * foot_kg


@formula(
    title="sealant bead",
    symbol="V",
    expression="V = π/4 · d² · L / 1000",
    unit="ml",
    source=Source("Volume of a round bead"),
)
def bead_volume(
    diameter_mm: Annotated[Number, Arg("d", "mm", "bead diameter", 0, 30)],
    length_mm: Annotated[Number, Arg("L", "mm", "bead length", 0)],
) -> Number:
    return 3.141592653589793 / 4 * diameter_mm**2 * length_mm / 1000
