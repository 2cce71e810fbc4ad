"""Air: density, dynamic pressure and the net uplift coefficient of a panel on a roof."""

from math import log10
from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula
from fahrtwind.core.tables.suction import SOURCE as EUROCODE


@formula(
    title="air pressure at altitude",
    symbol="p",
    expression="p = 101325 · (1 − 2.25577·10⁻⁵ · h)^5.2559",
    unit="Pa",
    source=Source("ISO 2533:1975 standard atmosphere, troposphere"),
)
def air_pressure(altitude_m: Annotated[Number, Arg("h", "m", "altitude", -450, 6000)]) -> Number:
    return 101_325 * (1 - 2.25577e-5 * altitude_m) ** 5.2559


@formula(
    title="air density",
    symbol="ρ",
    expression="ρ = p / (287.05 · (273.15 + T))",
    unit="kg/m³",
    source=Source("Ideal gas, dry air, R = 287.05 J/(kg·K) (ISO 2533:1975)"),
)
def air_density(
    pressure_pa: Annotated[Number, Arg("p", "Pa", "air pressure", 45_000, 108_000)],
    temperature_c: Annotated[Number, Arg("T", "°C", "air temperature", -60, 55)],
) -> Number:
    return pressure_pa / (287.05 * (273.15 + temperature_c))


@formula(
    title="air speed over the roof",
    symbol="v",
    expression="v = v_road + v_gust",
    unit="m/s",
    source=Source(
        "Headwind adds to road speed; size of the gust: common practice, no source", "common practice"
    ),
)
def air_speed(
    road_speed_m_s: Annotated[Number, Arg("v_road", "m/s", "road speed", 0, 70)],
    gust_m_s: Annotated[Number, Arg("v_gust", "m/s", "headwind gust", 0, 40)],
) -> Number:
    return road_speed_m_s + gust_m_s


@formula(
    title="dynamic pressure of the slipstream",
    symbol="q",
    expression="q = ½ · ρ · v²",
    unit="Pa",
    source=Source("Bernoulli; EN 1991-1-4:2005, expression (4.10)"),
)
def dynamic_pressure(
    density_kg_m3: Annotated[Number, Arg("ρ", "kg/m³", "air density", 0.3, 1.8)],
    speed_m_s: Annotated[Number, Arg("v", "m/s", "air speed", 0, 90)],
) -> Number:
    return 0.5 * density_kg_m3 * speed_m_s**2


@formula(
    title="speed at a dynamic pressure",
    symbol="v_road",
    expression="v_road = √(2 · q / ρ) − v_gust",
    unit="m/s",
    source=Source("Inverse of the dynamic pressure; EN 1991-1-4:2005, expression (4.10)"),
)
def speed_at_pressure(
    pressure_pa: Annotated[Number, Arg("q", "Pa", "dynamic pressure", 0)],
    density_kg_m3: Annotated[Number, Arg("ρ", "kg/m³", "air density", 0.3, 1.8)],
    gust_m_s: Annotated[Number, Arg("v_gust", "m/s", "headwind gust", 0, 40)],
) -> Number:
    return (2 * pressure_pa / density_kg_m3) ** 0.5 - gust_m_s


@formula(
    title="suction coefficient for the loaded area",
    symbol="c",
    expression="c = c₁ − (c₁ − c₁₀) · log₁₀ A, for 1 m² ≤ A ≤ 10 m²; c₁ below, c₁₀ above",
    unit="",
    source=Source(EUROCODE),
)
def suction_for_area(
    c_1: Annotated[Number, Arg("c₁", "", "suction coefficient for 1 m²", 0, 4)],
    c_10: Annotated[Number, Arg("c₁₀", "", "suction coefficient for 10 m²", 0, 4)],
    area_m2: Annotated[Number, Arg("A", "m²", "loaded area", 0.01, 20)],
) -> Number:
    return c_1 - (c_1 - c_10) * log10(min(max(area_m2, 1.0), 10.0))


@formula(
    title="depth of the windward zones",
    symbol="e",
    expression="e = min(b, 2·h)",
    unit="mm",
    source=Source(EUROCODE),
)
def windward_zone_depth(
    across_mm: Annotated[Number, Arg("b", "mm", "roof across the wind", 300, 25_000)],
    height_mm: Annotated[Number, Arg("h", "mm", "height of the roof", 300, 8_000)],
) -> Number:
    return min(across_mm, 2 * height_mm)


@formula(
    title="net uplift coefficient, cautious end",
    symbol="c_net",
    expression="c_net = max(c + c_ram, c_floor)",
    unit="",
    source=Source(
        "Judgement: no pressure map of panels on vehicle roofs is published. Sharp-edged roof "
        "suction plus ram "
        "pressure under an open front edge, never below the floor",
        "judgement",
    ),
)
def net_uplift_coefficient(
    suction: Annotated[Number, Arg("c", "", "suction coefficient from above", 0, 4)],
    ram: Annotated[Number, Arg("c_ram", "", "ram pressure from below", 0, 1)],
    floor: Annotated[Number, Arg("c_floor", "", "least coefficient assumed", 0, 4)],
) -> Number:
    return max(suction + ram, floor)


@formula(
    title="slipstream uplift on a panel",
    symbol="F_up",
    expression="F_up = q · Σ(c_net · A)",
    unit="N",
    source=Source("EN 1991-1-4:2005, expression (5.5), with the net coefficients above", "judgement"),
)
def slipstream_uplift(
    pressure_pa: Annotated[Number, Arg("q", "Pa", "dynamic pressure", 0)],
    coefficient_area_m2: Annotated[
        Number, Arg("Σ(c·A)", "m²", "coefficient times area, summed over the zones")
    ],
) -> Number:
    return pressure_pa * coefficient_area_m2


@formula(
    title="slipstream drag on a panel",
    symbol="F_drag",
    expression="F_drag = q · c_d · b · (h_frame + h_gap)",
    unit="N",
    source=Source(
        "Bluff body in a stream, c_d = 2.0 for a flat plate edge-on to its gap: judgement, cautious end",
        "judgement",
    ),
)
def slipstream_drag(
    pressure_pa: Annotated[Number, Arg("q", "Pa", "dynamic pressure", 0)],
    drag_coefficient: Annotated[Number, Arg("c_d", "", "drag coefficient", 0, 3)],
    width_mm: Annotated[Number, Arg("b", "mm", "panel width across", 10, 6000)],
    height_mm: Annotated[Number, Arg("h", "mm", "top of the frame above the roof", 1, 1000)],
) -> Number:
    return pressure_pa * drag_coefficient * width_mm * height_mm * 1e-6
