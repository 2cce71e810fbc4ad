"""Screws in thin metal. Steel by AISI S100; other metals only as a bracketed judgement made elsewhere."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

AISI = "AISI S100-16, section J4"
Diameter = Annotated[Number, Arg("d", "mm", "screw diameter", 2.03, 6.35)]
Threaded = Annotated[Number, Arg("t_c", "mm", "thickness the thread holds in", 0.2, 6.4)]
ThreadedStrength = Annotated[Number, Arg("F_u2", "N/mm²", "strength of the threaded sheet", 50, 700)]


@formula(
    title="screw pull-out from sheet",
    symbol="P_not",
    expression="P = 0.85 · t_c · d · F_u2",
    unit="N",
    source=Source(f"{AISI}.4.1"),
)
def screw_pull_out(thickness_mm: Threaded, diameter_mm: Diameter, strength_n_mm2: ThreadedStrength) -> Number:
    return 0.85 * thickness_mm * diameter_mm * strength_n_mm2


@formula(
    title="pull-over of a head or washer through sheet",
    symbol="P_nov",
    expression="P = 1.5 · t₁ · d_w · F_u1",
    unit="N",
    source=Source(f"{AISI}.4.2; d_w counted up to 19 mm"),
)
def pull_over(
    thickness_mm: Annotated[Number, Arg("t₁", "mm", "sheet under the head", 0.2, 13)],
    washer_mm: Annotated[Number, Arg("d_w", "mm", "head or washer diameter counted", 3, 19.05)],
    strength_n_mm2: Annotated[Number, Arg("F_u1", "N/mm²", "strength of the sheet", 50, 700)],
) -> Number:
    return 1.5 * thickness_mm * washer_mm * strength_n_mm2


@formula(
    title="pull-over of a head or washer through aluminium",
    symbol="P_nov",
    expression="P = C · t · F_u · (D_ws − D_h), C = 1.0, D_ws counted up to 15.9 mm",
    unit="N",
    source=Source(
        "Aluminum Design Manual 2015, J.5.4.2 (2005: 5.4.3.2), form from memory; the steel formula gives "
        "3 to 6 times as much"
    ),
)
def aluminium_pull_over(
    thickness_mm: Annotated[Number, Arg("t", "mm", "sheet under the head", 0.2, 13)],
    washer_mm: Annotated[Number, Arg("D_ws", "mm", "head or washer diameter", 3, 40)],
    hole_mm: Annotated[Number, Arg("D_h", "mm", "hole", 2, 30)],
    strength_n_mm2: Annotated[Number, Arg("F_u", "N/mm²", "strength of the sheet", 50, 700)],
) -> Number:
    return 1.0 * thickness_mm * strength_n_mm2 * max(min(washer_mm, 15.9) - hole_mm, 0.0)


@formula(
    title="bearing of a blind rivet in thin sheet",
    symbol="F_b",
    expression="F = α · f_u · d · t, α = 3.6 · √(t/d), at most 2.1",
    unit="N",
    source=Source("EN 1993-1-3:2006, Table 8.1, both sheets as thin as the thinner one"),
)
def rivet_bearing(
    thickness_mm: Annotated[Number, Arg("t", "mm", "thinner sheet", 0.2, 6)],
    diameter_mm: Annotated[Number, Arg("d", "mm", "rivet", 2.6, 6.4)],
    strength_n_mm2: Annotated[Number, Arg("f_u", "N/mm²", "strength of the sheet", 50, 550)],
) -> Number:
    return min(3.6 * (thickness_mm / diameter_mm) ** 0.5, 2.1) * strength_n_mm2 * diameter_mm * thickness_mm


@formula(
    title="rubber of a well nut behind its board",
    symbol="P",
    expression="P = 2 N/mm² · π/4 · (D_b² − D_h²)",
    unit="N",
    source=Source(
        "No standard: pressure of the bulge on the back of the board, judgement, low end", "judgement"
    ),
)
def well_nut_pull(
    bulge_mm: Annotated[Number, Arg("D_b", "mm", "bulge behind the board", 3, 60)],
    hole_mm: Annotated[Number, Arg("D_h", "mm", "hole", 2, 40)],
) -> Number:
    return 2 * 3.141592653589793 / 4 * (bulge_mm**2 - hole_mm**2)


@formula(
    title="tilting of a screw in shear",
    symbol="P_ns",
    expression="P = min(4.2 · √(t₂³ · d) · F_u2, 2.7 · t₂ · d · F_u2)",
    unit="N",
    source=Source(f"{AISI}.3.1, for the thinner of two sheets on the thread side"),
)
def screw_shear(thickness_mm: Threaded, diameter_mm: Diameter, strength_n_mm2: ThreadedStrength) -> Number:
    tilting = 4.2 * (thickness_mm**3 * diameter_mm) ** 0.5 * strength_n_mm2
    return min(tilting, 2.7 * thickness_mm * diameter_mm * strength_n_mm2)


@formula(
    title="strength of several fasteners",
    symbol="P_n",
    expression="P_n = n · P",
    unit="N",
    source=Source("Sum over equal fasteners of one foot"),
)
def several(
    count: Annotated[Number, Arg("n", "", "fasteners in the foot", 1, 12)],
    single_n: Annotated[Number, Arg("P", "N", "strength of one", 0)],
) -> Number:
    return count * single_n


@formula(
    title="design capacity",
    symbol="P_d",
    expression="P_d = P_n / Ω",
    unit="N",
    source=Source("Allowable strength design: nominal strength over safety factor (AISI S100 B3.2.1)"),
)
def design_capacity(
    nominal_n: Annotated[Number, Arg("P_n", "N", "nominal strength", 0)],
    factor: Annotated[Number, Arg("Ω", "", "safety factor", 1, 10)],
) -> Number:
    return nominal_n / factor
