"""Strip bent to a bracket: how long it is flat, and how far the tool goes so that it springs back to the
angle.
"""

from math import log10, pi
from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

Inside = Annotated[Number, Arg("r", "mm", "inside radius", 0.1, 200)]
Thickness = Annotated[Number, Arg("s", "mm", "thickness", 0.3, 30)]
Turned = Annotated[Number, Arg("α", "°", "angle that is bent through", 0, 150)]
DIN = Source("DIN 6935:2011-10, length of bends by the correction of the neutral line, from memory")


@formula(
    title="where the neutral line of a bend lies",
    symbol="k",
    expression="k = min(0.65 + ½ · log₁₀(r / s), 1)",
    unit="",
    source=DIN,
)
def neutral_line(inside_mm: Inside, thickness_mm: Thickness) -> Number:
    return min(0.65 + 0.5 * log10(inside_mm / thickness_mm), 1.0)


@formula(
    title="length of a bend laid flat",
    symbol="l_b",
    expression="l_b = π · α / 180 · (r + k · s / 2)",
    unit="mm",
    source=DIN,
)
def bend_length(
    angle_deg: Turned,
    inside_mm: Inside,
    thickness_mm: Thickness,
    neutral: Annotated[Number, Arg("k", "", "neutral line", 0, 1)],
) -> Number:
    return pi * angle_deg / 180 * (inside_mm + neutral * thickness_mm / 2)


@formula(
    title="radius before a bend springs back, over the radius after",
    symbol="K_s",
    expression="K_s = 4 · q³ − 3 · q + 1, q = r · f_y / (E · s)",
    unit="",
    source=Source("Kalpakjian and Schmid, Manufacturing Engineering and Technology, springback of bends"),
)
def spring_back(
    inside_mm: Inside,
    thickness_mm: Thickness,
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield", 30, 1000)],
    modulus_n_mm2: Annotated[Number, Arg("E", "N/mm²", "modulus", 40_000, 220_000)],
) -> Number:
    q = inside_mm * yield_n_mm2 / (modulus_n_mm2 * thickness_mm)
    return 4 * q**3 - 3 * q + 1


@formula(
    title="angle to bend through so that it springs back to the one that is wanted",
    symbol="α_t",
    expression="α_t = α · (2 · r / (K_s · s) + 1) / (2 · r / s + 1)",
    unit="°",
    source=Source("Kalpakjian and Schmid: the arc of the neutral line stays as long as it was"),
)
def tool_angle(
    angle_deg: Turned,
    inside_mm: Inside,
    thickness_mm: Thickness,
    ratio: Annotated[Number, Arg("K_s", "", "spring-back", 0.3, 1)],
) -> Number:
    return angle_deg * (2 * inside_mm / (ratio * thickness_mm) + 1) / (2 * inside_mm / thickness_mm + 1)
