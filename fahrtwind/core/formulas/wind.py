"""Wind on a vehicle that stands: gust pressure by terrain, crosswind on the road."""

from math import cos, log, radians
from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

EUROCODE = "EN 1991-1-4:2005"
Roughness = Annotated[Number, Arg("z₀", "m", "roughness of the ground", 0.003, 1)]
Height = Annotated[Number, Arg("z", "m", "height above the ground, at least z_min", 1, 200)]


@formula(
    title="mean wind at a height",
    symbol="v_m",
    expression="v_m = 0.19 · (z₀/0.05)^0.07 · ln(z/z₀) · v_b",
    unit="m/s",
    source=Source(f"{EUROCODE}, expressions (4.3), (4.4), (4.5); no hills"),
)
def mean_wind(
    basic_m_s: Annotated[Number, Arg("v_b", "m/s", "basic wind, 10-minute mean at 10 m", 0, 60)],
    roughness_m: Roughness,
    height_m: Height,
) -> Number:
    return 0.19 * (roughness_m / 0.05) ** 0.07 * log(height_m / roughness_m) * basic_m_s


@formula(
    title="gust pressure at a height",
    symbol="q_p",
    expression="q_p = (1 + 7/ln(z/z₀)) · ½ · ρ · v_m²",
    unit="Pa",
    source=Source(f"{EUROCODE}, expressions (4.7), (4.8)"),
)
def gust_pressure(
    mean_m_s: Annotated[Number, Arg("v_m", "m/s", "mean wind at the height", 0, 80)],
    roughness_m: Roughness,
    height_m: Height,
    density_kg_m3: Annotated[Number, Arg("ρ", "kg/m³", "air density", 0.3, 1.6)],
) -> Number:
    return (1 + 7 / log(height_m / roughness_m)) * 0.5 * density_kg_m3 * mean_m_s**2


@formula(
    title="air speed with a wind from the side",
    symbol="v",
    expression="v = √(v_road² + w² + 2·v_road·w·cos β)",
    unit="m/s",
    source=Source("Sum of two velocities (geometry)"),
)
def air_speed_with_crosswind(
    road_speed_m_s: Annotated[Number, Arg("v_road", "m/s", "road speed", 0, 70)],
    wind_m_s: Annotated[Number, Arg("w", "m/s", "wind", 0, 60)],
    from_deg: Annotated[Number, Arg("β", "°", "wind off the bow", 0, 180)],
) -> Number:
    across = 2 * road_speed_m_s * wind_m_s * cos(radians(from_deg))
    return (road_speed_m_s**2 + wind_m_s**2 + across) ** 0.5


@formula(
    title="force coefficient of a raised panel",
    symbol="c_f",
    expression="c_f = 1.3, 1.4, 1.4, 1.8 at 0, 10, 20, 30°, straight between; 1.8 above",
    unit="",
    source=Source(
        f"{EUROCODE}, Table 7.6: upward overall coefficient of canopies, the larger of free and blocked "
        "below; above 30° 7.4.3, sign boards (borrowed)",
        "judgement",
    ),
)
def raised_coefficient(angle_deg: Annotated[Number, Arg("θ", "°", "how far it is raised", 0, 90)]) -> Number:
    at, told = (0.0, 10.0, 20.0, 30.0), (1.3, 1.4, 1.4, 1.8)
    if angle_deg >= at[-1]:
        return told[-1]
    i = int(angle_deg // 10)
    return told[i] + (told[i + 1] - told[i]) * (angle_deg - at[i]) / 10


@formula(
    title="wind on the windward half of a plate",
    symbol="c_w",
    expression="c_w = c + 4·m",
    unit="",
    source=Source("Two even halves with a total c and a moment m about the middle (statics)"),
)
def windward_half(
    coefficient: Annotated[Number, Arg("c", "", "over the whole plate", 0, 10)],
    moment: Annotated[Number, Arg("m", "", "of c about the middle, in lengths along the wind", 0, 2)],
) -> Number:
    return coefficient + 4 * moment
