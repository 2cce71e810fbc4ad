"""Thin skin between members: how soft, and whether it drums."""

from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

PLATES = "Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells, 2nd ed. 1959"
TERMS = np.arange(1, 400)


@formula(
    title="bending stiffness of the skin",
    symbol="D",
    expression="D = E · t³ / (12 · (1 − ν²))",
    unit="N·mm",
    source=Source(f"{PLATES}, eq. (3)"),
)
def plate_stiffness(
    modulus_n_mm2: Annotated[Number, Arg("E", "N/mm²", "modulus of elasticity", 100, 300_000)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness", 0.3, 50)],
    poisson: Annotated[Number, Arg("ν", "", "Poisson's ratio", 0, 0.49)],
) -> Number:
    return modulus_n_mm2 * thickness_mm**3 / (12 * (1 - poisson**2))


@formula(
    title="stiffness of the skin under one foot",
    symbol="k",
    expression="k = 2·π³·D / (p² · Σ sin²(m·π·a/p) / m³)",
    unit="N/mm",
    source=Source(
        f"{PLATES}, from memory: strip simply supported along two edges, point load at a; the soft end"
    ),
)
def skin_spring(
    stiffness_n_mm: Annotated[Number, Arg("D", "N·mm", "bending stiffness of the skin", 1)],
    bay_mm: Annotated[Number, Arg("p", "mm", "bay: member to member", 50, 3000)],
    at_mm: Annotated[Number, Arg("a", "mm", "distance from the member in front", 0.5, 3000)],
) -> Number:
    series = float((np.sin(TERMS * np.pi * at_mm / bay_mm) ** 2 / TERMS**3).sum())
    return 2 * np.pi**3 * stiffness_n_mm / (bay_mm**2 * series)


@formula(
    title="lowest frequency of the skin in a bay",
    symbol="f",
    expression="f = (π/2) · √(D/μ) / p²  (D in N·m, p in m)",
    unit="Hz",
    source=Source(
        "Leissa, Vibration of Plates, NASA SP-160, 1969, from memory: strip simply supported along two edges"
    ),
)
def skin_frequency(
    stiffness_n_mm: Annotated[Number, Arg("D", "N·mm", "bending stiffness of the skin", 1)],
    bay_mm: Annotated[Number, Arg("p", "mm", "bay: member to member", 50, 3000)],
    mass_kg_m2: Annotated[Number, Arg("μ", "kg/m²", "mass of the skin", 0.5, 200)],
) -> Number:
    return np.pi / 2 * (stiffness_n_mm / 1000 / mass_kg_m2) ** 0.5 / (bay_mm / 1000) ** 2


@formula(
    title="pull at which the skin begins to keep a dish",
    symbol="P",
    expression="P = 4·π·m_p / (1 − 2·c/(3·R)), m_p = f_y · t² / 4",
    unit="N",
    source=Source(
        "Yield-line fan about a loaded circle (Johansen, Brudlinieteorier, 1943); membrane action beyond it "
        "leaves a dish"
    ),
)
def skin_dish(
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield strength of the skin", 50, 700)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness", 0.2, 12)],
    pressed_mm: Annotated[Number, Arg("c", "mm", "radius of what presses", 0, 300)],
    held_mm: Annotated[Number, Arg("R", "mm", "distance to the nearest member", 0.3, 5000)],
) -> Number:
    moment = yield_n_mm2 * thickness_mm**2 / 4
    return 4 * np.pi * moment / (1 - 2 * min(pressed_mm, held_mm) / (3 * held_mm))


@formula(
    title="pull that cracks a laminate or ply between members",
    symbol="P",
    expression="P = 2·π·m, m = σ_f · t² / 6",
    unit="N",
    source=Source(
        "Fan of radial cracks, elastic and brittle: half of the yield-line value (after Johansen 1943)",
        "judgement",
    ),
)
def board_cracking(
    bending_n_mm2: Annotated[Number, Arg("σ_f", "N/mm²", "bending strength", 2, 400)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness", 0.3, 60)],
) -> Number:
    return 2 * np.pi * bending_n_mm2 * thickness_mm**2 / 6
