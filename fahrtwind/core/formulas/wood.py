"""Screws in wood: withdrawal by NDS and the Wood Handbook, lateral strength by EN 1995."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

Gravity = Annotated[Number, Arg("G", "", "specific gravity of the wood", 0.3, 0.73)]
Diameter = Annotated[Number, Arg("D", "mm", "screw diameter", 2.5, 10)]
NDS = "NDS 2018 (National Design Specification for Wood Construction)"


@formula(
    title="allowable withdrawal of a wood screw",
    symbol="W",
    expression="W = 2850 · G² · D (lbf/in, D in inches)",
    unit="N/mm",
    source=Source(f"{NDS}, equation 12.2-2"),
)
def wood_screw_withdrawal(gravity: Gravity, diameter_mm: Diameter) -> Number:
    return 2850 * gravity**2 * (diameter_mm / 25.4) * 4.4482216 / 25.4


@formula(
    title="allowable withdrawal of a lag screw",
    symbol="W",
    expression="W = 1800 · G^1.5 · D^0.75 (lbf/in, D in inches)",
    unit="N/mm",
    source=Source(f"{NDS}, equation 12.2-1"),
)
def lag_screw_withdrawal(gravity: Gravity, diameter_mm: Diameter) -> Number:
    return 1800 * gravity**1.5 * (diameter_mm / 25.4) ** 0.75 * 4.4482216 / 25.4


@formula(
    title="withdrawal of a wood screw at failure",
    symbol="p",
    expression="p = 108.25 · G² · D · L",
    unit="N",
    source=Source(
        "Wood Handbook, FPL-GTR-190 (2010), equation 8-4, from memory; agrees with 15,700·G²·D·L in "
        "inch units"
    ),
)
def wood_screw_failure(
    gravity: Gravity,
    diameter_mm: Diameter,
    thread_mm: Annotated[Number, Arg("L", "mm", "thread in the wood", 0, 200)],
) -> Number:
    return 108.25 * gravity**2 * diameter_mm * thread_mm


@formula(
    title="design withdrawal of a wood screw",
    symbol="P_d",
    expression="P_d = W · L · C_D · C_M",
    unit="N",
    source=Source(f"{NDS}, Table 11.3.1; C_D load duration, C_M wet service"),
)
def wood_design_withdrawal(
    withdrawal_n_mm: Annotated[Number, Arg("W", "N/mm", "allowable withdrawal per length", 0)],
    thread_mm: Annotated[Number, Arg("L", "mm", "thread in the wood", 0, 200)],
    duration: Annotated[Number, Arg("C_D", "", "load duration factor", 0.9, 2.0)],
    wet: Annotated[Number, Arg("C_M", "", "wet service factor", 0.5, 1.0)],
) -> Number:
    return withdrawal_n_mm * thread_mm * duration * wet


@formula(
    title="sideways strength of a screw under a thin steel foot",
    symbol="F_v",
    expression="F_v = min(0.4 · f_h · t · d, 1.15 · √(2 · M_y · f_h · d)), f_h = 0.082 · ρ_k · "
    "d^−0.3, M_y = 0.3 · f_u · d^2.6",
    unit="N",
    source=Source("EN 1995-1-1:2004, expressions (8.9), (8.15), (8.14); rope effect left out"),
)
def wood_screw_lateral(
    density_kg_m3: Annotated[Number, Arg("ρ_k", "kg/m³", "characteristic density", 250, 700)],
    core_mm: Annotated[Number, Arg("d", "mm", "effective diameter", 1.8, 8)],
    depth_mm: Annotated[Number, Arg("t", "mm", "depth in the wood", 0, 200)],
    strength_n_mm2: Annotated[Number, Arg("f_u", "N/mm²", "strength of the screw", 300, 1000)],
) -> Number:
    embedment = 0.082 * density_kg_m3 * core_mm**-0.3
    moment = 0.3 * strength_n_mm2 * core_mm**2.6
    return min(0.4 * embedment * depth_mm * core_mm, 1.15 * (2 * moment * embedment * core_mm) ** 0.5)


@formula(
    title="thread that sits in the member",
    symbol="L",
    expression="L = min(l − t_foot − t_above, 2/3 · l, h) ≥ 0",
    unit="mm",
    source=Source(
        f"{NDS}, 12.2.2 and Appendix L: the thread in the member, which is two thirds of the screw"
    ),
)
def thread_in_member(
    length_mm: Annotated[Number, Arg("l", "mm", "fastener length", 4, 300)],
    foot_mm: Annotated[Number, Arg("t_foot", "mm", "thickness of the foot", 0, 30)],
    above_mm: Annotated[Number, Arg("t_above", "mm", "skin and ply above the member", 0, 60)],
    member_mm: Annotated[Number, Arg("h", "mm", "depth of the member", 0, 200)],
) -> Number:
    return max(min(length_mm - foot_mm - above_mm, 2 / 3 * length_mm, member_mm), 0.0)
