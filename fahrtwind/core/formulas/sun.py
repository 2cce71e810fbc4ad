"""Light, shadow, heat and power of a panel."""

from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

KASTEN = (
    "Kasten and Czeplak, Solar and terrestrial radiation dependent on the amount and type of "
    "cloud, Solar Energy 24 (1980)"
)
SERIES = (
    "Groups in series carry the current of the darkest one still working, the others are bypassed: "
    "current proportional to light, "
    "voltage to the number of groups; judgement, checked against single-diode curves"
)
HEAT = "T_c = T_a + G/800 · (NOCT + ΔT_gap − 20) · (1 − η/0.9) · 9.5/(5.7 + 3.8 · 0.51 · v)"
RADIAN = 57.29577951308232
SAM = (
    "Gilman et al., SAM Photovoltaic Model Technical Reference Update, NREL/TP-6A20-67399 (2018), "
    "section 10.6"
)


@formula(
    title="cosine of the angle of incidence",
    symbol="cos θ",
    expression="cos θ = cos z · cos β + sin z · sin β · cos(A − γ)",
    unit="",
    source=Source(
        "Reda and Andreas, Solar Position Algorithm, NREL/TP-560-34302 (2008), eq. 47, azimuths from north"
    ),
)
def incidence_cosine(
    zenith_deg: Annotated[Number, Arg("z", "°", "zenith angle of the sun", 0, 180)],
    azimuth_deg: Annotated[Number, Arg("A", "°", "azimuth of the sun")],
    tilt_deg: Annotated[Number, Arg("β", "°", "tilt of the panel", 0, 90)],
    facing_deg: Annotated[Number, Arg("γ", "°", "azimuth the panel faces")],
) -> Number:
    level = np.cos(zenith_deg / RADIAN) * np.cos(tilt_deg / RADIAN)
    return level + np.sin(zenith_deg / RADIAN) * np.sin(tilt_deg / RADIAN) * np.cos(
        (azimuth_deg - facing_deg) / RADIAN
    )


@formula(
    title="share of an even sky a raised panel faces",
    symbol="F",
    expression="F = (1 + cos β) / 2",
    unit="",
    source=Source(
        "Liu and Jordan, The long-term average performance of flat-plate solar-energy collectors, "
        "Solar Energy 7 (1963)"
    ),
)
def faced_sky(tilt_deg: Annotated[Number, Arg("β", "°", "tilt of the panel", 0, 90)]) -> Number:
    return (1 + np.cos(tilt_deg / RADIAN)) / 2


@formula(
    title="beam outside the atmosphere",
    symbol="E₀",
    expression="E₀ = 1366 · (1 + 0.033 · cos(2π · n / 365))",
    unit="W/m²",
    source=Source(
        "Duffie and Beckman, Solar Engineering of Thermal Processes, eq. 1.4.1a, solar constant 1366 W/m²"
    ),
)
def extraterrestrial_light(day: Annotated[Number, Arg("n", "", "day of the year", 1, 366)]) -> Number:
    return 1366.0 * (1 + 0.033 * np.cos(2 * np.pi * day / 365))


@formula(
    title="diffuse light on a raised panel that comes from about the sun",
    symbol="D_s",
    expression="D_s = D · A · R_b, A = B / E₀, R_b = max(cos θ, 0) / max(sin h, 0.01745)",
    unit="W/m²",
    source=Source(
        "Hay and Davies, Calculation of the solar radiation incident on an inclined surface (1980)"
    ),
)
def light_about_the_sun(
    diffuse_w_m2: Annotated[Number, Arg("D", "W/m²", "diffuse light on the level", 0, 1000)],
    anisotropy: Annotated[Number, Arg("A", "", "beam over the beam outside the atmosphere", 0, 1)],
    incidence: Annotated[Number, Arg("cos θ", "", "cosine of the angle of incidence", -1, 1)],
    height_sine: Annotated[Number, Arg("sin h", "", "sine of the sun's elevation", -1, 1)],
) -> Number:
    return diffuse_w_m2 * anisotropy * np.maximum(incidence, 0.0) / np.maximum(height_sine, 0.01745)


@formula(
    title="light from the ground on a raised panel",
    symbol="G_g",
    expression="G_g = ρ_g · G · (1 − cos β) / 2",
    unit="W/m²",
    source=Source(
        "Liu and Jordan, The long-term average performance of flat-plate solar-energy collectors, "
        "Solar Energy 7 (1963)"
    ),
)
def ground_light(
    albedo: Annotated[Number, Arg("ρ_g", "", "share the ground throws back", 0, 1)],
    level_w_m2: Annotated[Number, Arg("G", "W/m²", "all light on the level", 0, 1800)],
    tilt_deg: Annotated[Number, Arg("β", "°", "tilt of the panel", 0, 90)],
) -> Number:
    return albedo * level_w_m2 * (1 - np.cos(tilt_deg / RADIAN)) / 2


@formula(
    title="light of a clear sky on the level",
    symbol="G_clear",
    expression="G_clear = 1098 · cos θ_z · exp(−0.059 / cos θ_z)",
    unit="W/m²",
    source=Source("Haurwitz, J. Meteorology 2 (1945), as in Reno, Hansen and Stein, SAND2012-2389"),
)
def clear_light(zenith_deg: Annotated[Number, Arg("θ_z", "°", "zenith angle of the sun", 0, 90)]) -> Number:
    straight = np.cos(zenith_deg / RADIAN)
    return 1098 * straight * np.exp(-0.059 / straight)


@formula(
    title="light under cloud",
    symbol="G",
    expression="G = G_clear · (1 − 0.75 · N^3.4)",
    unit="W/m²",
    source=Source(KASTEN),
)
def clouded_light(
    clear_w_m2: Annotated[Number, Arg("G_clear", "W/m²", "light of the clear sky on the level", 0, 1500)],
    cover: Annotated[Number, Arg("N", "", "share of the sky under cloud", 0, 1)],
) -> Number:
    return clear_w_m2 * (1 - 0.75 * cover**3.4)


@formula(title="temperature of the cells", symbol="T_c", expression=HEAT, unit="°C", source=Source(SAM))
def cell_temperature(
    air_deg_c: Annotated[Number, Arg("T_a", "°C", "temperature of the air", -60, 60)],
    light_w_m2: Annotated[Number, Arg("G", "W/m²", "light on the panel", 0, 2000)],
    noct_deg_c: Annotated[Number, Arg("NOCT", "°C", "nominal operating cell temperature", 20, 90)],
    gap_rise_k: Annotated[Number, Arg("ΔT_gap", "K", "rise for a narrow air gap", 0, 30)],
    efficiency: Annotated[Number, Arg("η", "", "efficiency of the panel", 0, 0.5)],
    wind_m_s: Annotated[Number, Arg("v", "m/s", "wind over the panel", 0, 60)],
) -> Number:
    return air_deg_c + light_w_m2 / 800 * (noct_deg_c + gap_rise_k - 20) * (1 - efficiency / 0.9) * 9.5 / (
        5.7 + 3.8 * 0.51 * wind_m_s
    )


@formula(
    title="power of a panel",
    symbol="P",
    expression="P = P_stc · G/1000 · (1 + γ/100 · (T_c − 25))",
    unit="W",
    source=Source(
        "Standard test conditions of IEC 60904-3 (1000 W/m², 25 °C) with the data sheet's "
        "coefficient of power"
    ),
)
def panel_power(
    rated_w: Annotated[Number, Arg("P_stc", "W", "power at standard test conditions", 0, 2000)],
    light_w_m2: Annotated[Number, Arg("G", "W/m²", "light the cells work at", 0, 2000)],
    per_k: Annotated[Number, Arg("γ", "%/K", "temperature coefficient of power", -2, 1)],
    cell_deg_c: Annotated[Number, Arg("T_c", "°C", "temperature of the cells", -60, 150)],
) -> Number:
    return rated_w * light_w_m2 / 1000 * (1 + per_k / 100 * (cell_deg_c - 25))


@formula(
    title="light a panel works at with bypass diodes",
    symbol="G",
    expression="G = max over k of k · G_k / n, bright first",
    unit="W/m²",
    source=Source(SERIES, "judgement"),
)
def bypassed_light(
    groups: Annotated[Number, Arg("n", "", "cell groups with a bypass diode each", 1, 12)],
    working: Annotated[Number, Arg("k", "", "groups that work", 1, 12)],
    darkest_w_m2: Annotated[Number, Arg("G_k", "W/m²", "light on the darkest of them", 0, 2000)],
) -> Number:
    return working * darkest_w_m2 / groups
