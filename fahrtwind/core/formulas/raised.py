"""A raised panel: what pushes it up and down, its struts and its pins."""

from math import cos, radians
from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

Raised = Annotated[Number, Arg("θ", "°", "how far it is raised", 0, 90)]
EC9 = "EN 1999-1-1:2007, 6.3.1.2 and Table 6.6 (class A), from memory"


@formula(
    title="force coefficient that presses a raised panel down",
    symbol="c_f",
    expression="c_f = 0.2, 0.5, 0.8, 1.2 at 0, 10, 20, 30°, straight between; 1.8 above",
    unit="",
    source=Source(
        "EN 1991-1-4:2005, Table 7.6: downward overall coefficient of canopies; above 30° 7.4.3, sign boards "
        "(borrowed)",
        "judgement",
    ),
)
def pressed_coefficient(angle_deg: Raised) -> Number:
    told = (0.2, 0.5, 0.8, 1.2)
    if angle_deg > 30:
        return 1.8
    i = min(int(angle_deg // 10), 2)
    return told[i] + (told[i + 1] - told[i]) * (angle_deg - 10 * i) / 10


@formula(
    title="force in the struts of a raised panel",
    symbol="S",
    expression="S = (F · x − W · cos θ · L/2) / (s · L · cos ψ)",
    unit="N",
    source=Source("Moments about the hinge; tension is positive (statics)"),
)
def strut_force(
    force_n: Annotated[Number, Arg("F", "N", "air, normal to the panel, away from the roof")],
    centre_mm: Annotated[Number, Arg("x", "mm", "its place from the hinge", 0, 3000)],
    weight_n: Annotated[Number, Arg("W", "N", "weight", 0, 2000)],
    angle_deg: Raised,
    chord_mm: Annotated[Number, Arg("L", "mm", "hinge to the raised edge", 50, 3000)],
    share: Annotated[Number, Arg("s", "", "strut's place, of the chord", 0.2, 1.0)],
    square: Annotated[Number, Arg("cos ψ", "", "how square the strut stands to the panel", 0.05, 1.0)],
) -> Number:
    turning = force_n * centre_mm - weight_n * cos(radians(angle_deg)) * chord_mm / 2
    return turning / (share * chord_mm * square)


@formula(
    title="slenderness of a strut",
    symbol="λ̄",
    expression="λ̄ = (l / i / π) · √(f / E)",
    unit="",
    source=Source(EC9),
)
def slenderness(
    length_mm: Annotated[Number, Arg("l", "mm", "pin to pin", 20, 6000)],
    radius_mm: Annotated[Number, Arg("i", "mm", "radius of gyration", 0.5, 200)],
    yield_n_mm2: Annotated[Number, Arg("f", "N/mm²", "yield", 50, 700)],
    modulus_n_mm2: Annotated[Number, Arg("E", "N/mm²", "modulus", 1000, 250_000)],
) -> Number:
    return length_mm / radius_mm / 3.141592653589793 * (yield_n_mm2 / modulus_n_mm2) ** 0.5


@formula(
    title="what buckling leaves of a strut",
    symbol="χ",
    expression="χ = 1 / (φ + √(φ² − λ̄²)), φ = ½ · (1 + α · (λ̄ − λ̄₀) + λ̄²), at most 1",
    unit="",
    source=Source(f"{EC9}; EN 1993-1-4, 5.4.2 for stainless"),
)
def buckling_share(
    slender: Annotated[Number, Arg("λ̄", "", "slenderness", 0, 20)],
    imperfection: Annotated[Number, Arg("α", "", "imperfection", 0.1, 0.8)],
    plateau: Annotated[Number, Arg("λ̄₀", "", "below it nothing buckles", 0, 0.5)],
) -> Number:
    phi = 0.5 * (1 + imperfection * (slender - plateau) + slender**2)
    return min(1 / (phi + max(phi**2 - slender**2, 0.0) ** 0.5), 1.0)


@formula(title="strut in compression", symbol="N", expression="N = χ · A · f", unit="N", source=Source(EC9))
def strut_strength(
    share: Annotated[Number, Arg("χ", "", "what buckling leaves", 0, 1)],
    area_mm2: Annotated[Number, Arg("A", "mm²", "its metal", 1, 20_000)],
    yield_n_mm2: Annotated[Number, Arg("f", "N/mm²", "yield", 50, 700)],
) -> Number:
    return share * area_mm2 * yield_n_mm2


@formula(
    title="pin in double shear",
    symbol="V",
    expression="V = 2 · 0.5 · R_m · A_s",
    unit="N",
    source=Source("EN 1993-1-4:2006, 6.2(3): α_v 0.5 for stainless, two planes"),
)
def pin_shear(
    strength_n_mm2: Annotated[Number, Arg("R_m", "N/mm²", "tensile strength", 100, 1300)],
    area_mm2: Annotated[Number, Arg("A_s", "mm²", "stress area", 1, 200)],
) -> Number:
    return 2 * 0.5 * strength_n_mm2 * area_mm2
