"""From force and capacity to a verdict: utilisation and the pressure at which a link lets go."""

from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

FLAT = 1e-300
"""A slope so small that whatever is left is never used up."""
LINEAR = Source(
    "Straight-line interaction of pull and shear; on the safe side of AISC 360 J3.7 and AISI S100 J4.5.1"
)


@formula(
    title="utilisation of a link",
    symbol="η",
    expression="η = max(F, 0) / F_cap + S / S_cap",
    unit="",
    source=LINEAR,
)
def utilisation(
    pull_n: Annotated[Number, Arg("F", "N", "pull on the link")],
    shear_n: Annotated[Number, Arg("S", "N", "force along the roof", 0)],
    pull_capacity_n: Annotated[Number, Arg("F_cap", "N", "capacity in pull", 1e-6)],
    shear_capacity_n: Annotated[Number, Arg("S_cap", "N", "capacity along the roof", 1e-6)],
) -> Number:
    return np.maximum(pull_n, 0.0) / pull_capacity_n + shear_n / shear_capacity_n


@formula(
    title="dynamic pressure at which bending either way reaches a limit",
    symbol="q*",
    expression="q* = min over ± of (σ_lim − R₀ ∓ U₀) / (R₁ ± U₁)",
    unit="Pa",
    source=Source("|U₀ + U₁·q| + R₀ + R₁·q = σ_lim: of two straight lines the one that is there first"),
)
def bending_limit_pressure(
    constant_n_mm2: Annotated[Number, Arg("U₀", "N/mm²", "bending with its sign, without slipstream")],
    per_pa: Annotated[Number, Arg("U₁", "N/mm² Pa⁻¹", "bending with its sign, for one pascal")],
    rest_n_mm2: Annotated[Number, Arg("R₀", "N/mm²", "all else by its size, without slipstream", 0)],
    rest_per_pa: Annotated[Number, Arg("R₁", "N/mm² Pa⁻¹", "all else by its size, for one pascal", 0)],
    limit_n_mm2: Annotated[Number, Arg("σ_lim", "N/mm²", "what is borne", 1e-6)],
) -> Number:
    """No less than zero; without bound where the pressure relieves it or does nothing."""
    left = limit_n_mm2 - rest_n_mm2
    one = _reached(left - constant_n_mm2, rest_per_pa + per_pa)
    return np.minimum(one, _reached(left + constant_n_mm2, rest_per_pa - per_pa))


def _reached(left: Number, slope: Number) -> Number:
    """The pressure that uses up what is left; beyond all air where the slope takes nothing of it."""
    with np.errstate(over="ignore"):
        return np.maximum(left, 0.0) / np.maximum(slope, FLAT)


@formula(
    title="dynamic pressure at which a link reaches its limit",
    symbol="q*",
    expression="η(q*) = 1 with F = F₀ + F₁·q and S = S₀ + S₁·q",
    unit="Pa",
    source=Source("Solving the straight-line interaction for the pressure; forces are linear in it"),
)
def limit_pressure(
    constant_pull_n: Annotated[Number, Arg("F₀", "N", "pull without slipstream")],
    pull_per_pa: Annotated[Number, Arg("F₁", "N/Pa", "pull for one pascal")],
    constant_shear_n: Annotated[Number, Arg("S₀", "N", "force along without slipstream", 0)],
    shear_per_pa: Annotated[Number, Arg("S₁", "N/Pa", "force along for one pascal", 0)],
    pull_capacity_n: Annotated[Number, Arg("F_cap", "N", "capacity in pull", 1e-6)],
    shear_capacity_n: Annotated[Number, Arg("S_cap", "N", "capacity along the roof", 1e-6)],
) -> Number:
    """The utilisation is piecewise linear and convex in q, so the first root is the smaller of the two
    branches'.
    """
    shear_slope = shear_per_pa / shear_capacity_n
    shear_rest = 1 - constant_shear_n / shear_capacity_n
    slope = pull_per_pa / pull_capacity_n + shear_slope
    rest = shear_rest - constant_pull_n / pull_capacity_n
    pressure = np.minimum(_reached(shear_rest, shear_slope), _reached(rest, slope))
    return float(pressure) if np.ndim(pressure) == 0 else pressure


@formula(
    title="share of a panel's rated load that reaches one mounting point",
    symbol="F",
    expression="F = p · A / n",
    unit="N",
    source=Source(
        "IEC 61215-2:2021, MQT 16: the load is tested on the mounting points of the maker's manual, 1600 Pa "
        "design with a test factor of 1.5 where the sheet is silent"
    ),
)
def rated_share(
    pressure_pa: Annotated[Number, Arg("p", "Pa", "rated uplift", 100, 20_000)],
    area_m2: Annotated[Number, Arg("A", "m²", "panel", 0.005, 10)],
    points: Annotated[Number, Arg("n", "", "mounting points of the manual", 1, 16)],
) -> Number:
    return pressure_pa * area_m2 / points


@formula(
    title="all factors between the typical load and the safe speed",
    symbol="γ",
    expression="γ = Ω · (c_cautious / c_typical) · ((v + v_gust) / v)²",
    unit="",
    source=Source("Product of what was multiplied on the way, so that caution is not stacked unseen"),
)
def caution_in_all(
    safety_factor: Annotated[Number, Arg("Ω", "", "nominal over design strength of the weakest link", 1)],
    cautious_m2: Annotated[Number, Arg("c_cautious", "m²", "coefficient times area, cautious end", 0)],
    typical_m2: Annotated[Number, Arg("c_typical", "m²", "coefficient times area, typical end", 1e-9)],
    road_speed_m_s: Annotated[Number, Arg("v", "m/s", "road speed", 0.1, 90)],
    gust_m_s: Annotated[Number, Arg("v_gust", "m/s", "headwind gust", 0, 40)],
) -> Number:
    gust = ((road_speed_m_s + gust_m_s) / road_speed_m_s) ** 2
    return safety_factor * cautious_m2 / typical_m2 * gust
