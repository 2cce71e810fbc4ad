"""Joints of a rack, and how it hums."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula


@formula(
    title="turning stiffness of an angle in a corner",
    symbol="k_θ",
    expression="k_θ = E · b · t³ / (4 · g)",
    unit="N·mm/rad",
    source=Source("Leg of the angle bending between its bolt line and its heel (statics)", "judgement"),
)
def cleat_spring(
    modulus_n_mm2: Annotated[Number, Arg("E", "N/mm²", "modulus of the angle", 1000, 250_000)],
    width_mm: Annotated[Number, Arg("b", "mm", "length of the angle", 10, 200)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness of the angle", 1, 15)],
    gauge_mm: Annotated[Number, Arg("g", "mm", "bolt line to heel", 5, 100)],
) -> Number:
    return modulus_n_mm2 * width_mm * thickness_mm**3 / (4 * gauge_mm)


@formula(
    title="how soft the upright of a foot is across",
    symbol="k",
    expression="k = E · l · t³ / (4 · h³)",
    unit="N/mm",
    source=Source("Cantilever 3·E·I/h³ with I = l·t³/12 (strength of materials)"),
)
def upright_spring(
    modulus_n_mm2: Annotated[Number, Arg("E", "N/mm²", "modulus of the bracket", 1000, 250_000)],
    length_mm: Annotated[Number, Arg("l", "mm", "bracket length", 5, 600)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "bracket thickness", 0.3, 150)],
    height_mm: Annotated[Number, Arg("h", "mm", "rail over the roof", 1, 2000)],
) -> Number:
    return modulus_n_mm2 * length_mm * thickness_mm**3 / (4 * height_mm**3)


@formula(
    title="pull on the worst bolt of a joint",
    symbol="T",
    expression="T = F / n + |M_y| / z_y + |M_x| / z_x",
    unit="N",
    source=Source("Bolt group that tips about its compressed edge (statics)"),
)
def joint_pull(
    pull_n: Annotated[Number, Arg("F", "N", "bar pulling off the rail")],
    bolts: Annotated[Number, Arg("n", "", "bolts into the rail", 1, 8)],
    pitch_n_mm: Annotated[Number, Arg("M_y", "N·mm", "moment that turns the joint along the rail")],
    pitch_arm_mm: Annotated[Number, Arg("z_y", "mm", "its lever", 1, 300)],
    roll_n_mm: Annotated[Number, Arg("M_x", "N·mm", "moment that turns the joint across the rail")],
    roll_arm_mm: Annotated[Number, Arg("z_x", "mm", "its lever", 1, 300)],
) -> Number:
    return pull_n / bolts + abs(pitch_n_mm) / pitch_arm_mm + abs(roll_n_mm) / roll_arm_mm


@formula(
    title="stress in a bar",
    symbol="σ",
    expression="σ = |N|/A + |M_up|/W_up + |M_side|/W_side + √3·|T|/W_t",
    unit="N/mm²",
    source=Source(
        "Elastic stresses, von Mises with the torsion added straight: on the safe side (EN 1999-1-1 6.2.1)"
    ),
)
def bar_stress(  # noqa: PLR0913  four forces, each with its section value
    axial_n: Annotated[Number, Arg("N", "N", "along the bar")],
    area_mm2: Annotated[Number, Arg("A", "mm²", "area", 1)],
    up_n_mm: Annotated[Number, Arg("M_up", "N·mm", "bending up and down")],
    up_mm3: Annotated[Number, Arg("W_up", "mm³", "its elastic modulus", 1)],
    side_n_mm: Annotated[Number, Arg("M_side", "N·mm", "bending sideways")],
    side_mm3: Annotated[Number, Arg("W_side", "mm³", "its elastic modulus", 1)],
    torsion_n_mm: Annotated[Number, Arg("T", "N·mm", "torsion")],
    torsion_mm3: Annotated[Number, Arg("W_t", "mm³", "torsion modulus", 1)],
) -> Number:
    return (
        abs(axial_n) / area_mm2
        + abs(up_n_mm) / up_mm3
        + abs(side_n_mm) / side_mm3
        + 1.7320508075688772 * abs(torsion_n_mm) / torsion_mm3
    )


@formula(
    title="lowest frequency of a frame under its weight",
    symbol="f",
    expression="f = √(g · Σ m·w / Σ m·w²) / (2·π)",
    unit="Hz",
    source=Source("Rayleigh's quotient with the deflection under its own weight; a few per cent high"),
)
def rayleigh_frequency(
    weighted_kg_mm: Annotated[Number, Arg("Σ m·w", "kg·mm", "masses times how far they sag", 1e-9)],
    weighted_kg_mm2: Annotated[Number, Arg("Σ m·w²", "kg·mm²", "masses times that squared", 1e-12)],
) -> Number:
    return (9806.65 * weighted_kg_mm / weighted_kg_mm2) ** 0.5 / 6.283185307179586


@formula(
    title="wind at which a bar hums",
    symbol="v_crit",
    expression="v_crit = b · f / (1000 · St)",
    unit="m/s",
    source=Source("Vortex shedding, St 0.12 square, 0.18 round: EN 1991-1-4:2005, E.1.3.1 and Table E.1"),
)
def humming_wind(
    depth_mm: Annotated[Number, Arg("b", "mm", "height of the bar in the wind", 3, 300)],
    frequency_hz: Annotated[Number, Arg("f", "Hz", "its lowest frequency", 0.1, 500)],
    strouhal: Annotated[Number, Arg("St", "", "Strouhal number", 0.05, 0.3)],
) -> Number:
    return depth_mm * frequency_hz / (1000 * strouhal)


@formula(
    title="what a two-piece clamp holds by friction",
    symbol="F",
    expression="F = 2 · K · μ · n · F_p",
    unit="N",
    source=Source(
        "Roloff/Matek, Maschinenelemente, 12: clamped joint, K 1 where halves touch along lines; from memory"
    ),
)
def clamp_grip(
    contact: Annotated[Number, Arg("K", "", "how the halves touch", 0.5, 1.6)],
    friction: Annotated[Number, Arg("μ", "", "friction", 0.05, 0.6)],
    bolts: Annotated[Number, Arg("n", "", "bolts, both sides together", 1, 8)],
    preload_n: Annotated[Number, Arg("F_p", "N", "what is left of the preload", 10, 100_000)],
) -> Number:
    return 2 * contact * friction * bolts * preload_n


@formula(
    title="force about a tube that turns like a moment",
    symbol="F",
    expression="F = 2 · M / D",
    unit="N",
    source=Source("Friction at the tube's surface (statics)"),
)
def turning_force(
    moment_n_mm: Annotated[Number, Arg("M", "N·mm", "moment about the tube", 0)],
    diameter_mm: Annotated[Number, Arg("D", "mm", "tube", 5, 150)],
) -> Number:
    return 2 * moment_n_mm / diameter_mm


@formula(
    title="press along a tube that dents it",
    symbol="p",
    expression="p = f_y · t² / (6 · 0.3183 · R)",
    unit="N/mm",
    source=Source(
        "Roark's Formulas for Stress and Strain, 8th ed., Table 9.2 case 1: ring under two opposite loads, "
        "M 0.3183 · p · R; from memory"
    ),
)
def tube_dent(
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield", 50, 700)],
    wall_mm: Annotated[Number, Arg("t", "mm", "wall", 0.3, 12)],
    radius_mm: Annotated[Number, Arg("R", "mm", "middle of the wall", 2, 75)],
) -> Number:
    return yield_n_mm2 * wall_mm**2 / (6 * 0.3183 * radius_mm)
