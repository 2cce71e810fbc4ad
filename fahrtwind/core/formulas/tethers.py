"""Tethers: what a line bears, and what catching a panel asks of it."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

Spring = Annotated[Number, Arg("k", "N/mm", "line and anchor in series", 0.1, 1e6)]
Slack = Annotated[Number, Arg("s", "mm", "slack", 0, 500)]
FALLING = Source(
    "Energy of a constant force over slack and stretch of an elastic line: T²/2k = F · (s + T/k); mass drops "
    "out (mechanics)"
)


@formula(
    title="load of a tether that catches",
    symbol="T",
    expression="T = F · (1 + √(1 + 2 · k · s / F))",
    unit="N",
    source=FALLING,
)
def catch_load(
    force_n: Annotated[Number, Arg("F", "N", "what the air pulls with", 0)],
    spring_n_mm: Spring,
    slack_mm: Slack,
) -> Number:
    return force_n + (force_n**2 + 2 * spring_n_mm * slack_mm * force_n) ** 0.5


@formula(
    title="pull of the air that a tether may catch",
    symbol="F",
    expression="F = T² / (2 · (T + k · s))",
    unit="N",
    source=FALLING,
)
def caught_force(
    load_n: Annotated[Number, Arg("T", "N", "what the tether may bear", 1)],
    spring_n_mm: Spring,
    slack_mm: Slack,
) -> Number:
    return load_n**2 / (2 * (load_n + spring_n_mm * slack_mm))


@formula(
    title="breaking force of wire rope",
    symbol="F_min",
    expression="F_min = K · d² · R_r · η",
    unit="N",
    source=Source("EN 12385-4, K 0.359 for 7 × 7; η of its ends by EN 13411; from memory"),
)
def rope_strength(
    factor: Annotated[Number, Arg("K", "", "make of the rope", 0.2, 0.5)],
    diameter_mm: Annotated[Number, Arg("d", "mm", "rope", 0.3, 30)],
    grade_n_mm2: Annotated[Number, Arg("R_r", "N/mm²", "grade of its wires", 1000, 2200)],
    ends: Annotated[Number, Arg("η", "", "what its ends keep", 0.3, 1.0)],
) -> Number:
    return factor * diameter_mm**2 * grade_n_mm2 * ends


@formula(
    title="how a line stretches",
    symbol="k",
    expression="k = E · A / L",
    unit="N/mm",
    source=Source("Hooke's law (strength of materials)"),
)
def line_spring(
    modulus_n_mm2: Annotated[Number, Arg("E", "N/mm²", "modulus of the line", 10, 250_000)],
    area_mm2: Annotated[Number, Arg("A", "mm²", "its metal", 0.1, 2000)],
    length_mm: Annotated[Number, Arg("L", "mm", "its length", 5, 6000)],
) -> Number:
    return modulus_n_mm2 * area_mm2 / length_mm


@formula(
    title="strip of metal in tension",
    symbol="N",
    expression="N = R_m · t · (b − d₀)",
    unit="N",
    source=Source("Net section, 0.9 · f_u · A_net left to the factor (EN 1993-1-1, 6.2.3)"),
)
def strip_tension(
    strength_n_mm2: Annotated[Number, Arg("R_m", "N/mm²", "tensile strength", 50, 1300)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "strip", 0.3, 12)],
    net_width_mm: Annotated[Number, Arg("b − d₀", "mm", "width beside the hole", 0.1, 150)],
) -> Number:
    return strength_n_mm2 * thickness_mm * net_width_mm


@formula(
    title="what a link bears in its worst direction",
    symbol="F",
    expression="F = 1 / √(1/P² + 1/S²)",
    unit="N",
    source=Source("Straight-line interaction of pull and shear, F at the angle that asks most (geometry)"),
)
def worst_direction(
    pull_n: Annotated[Number, Arg("P", "N", "capacity in pull", 1e-6)],
    shear_n: Annotated[Number, Arg("S", "N", "capacity along the roof", 1e-6)],
) -> Number:
    return (pull_n**-2 + shear_n**-2) ** -0.5


@formula(
    title="force of the air on a panel that has come off",
    symbol="c·A",
    expression="c · A = max(c_uplift · A, 1.2 · A)",
    unit="m²",
    source=Source("A short plate across the stream, c 1.2 (handbooks), or its uplift", "judgement"),
)
def loose_panel(
    uplift_m2: Annotated[Number, Arg("c_u·A", "m²", "uplift of one pascal", 0)],
    area_m2: Annotated[Number, Arg("A", "m²", "panel", 0.005, 10)],
) -> Number:
    return max(uplift_m2, 1.2 * area_m2)
