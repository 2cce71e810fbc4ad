"""What the weather does to a roof: how warm its skin gets, when dew falls."""

from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula


@formula(
    title="heat that an outer surface gives off",
    symbol="h",
    expression="h = 4 + 4 · v + ε · 4 · 5.67e−8 · (T + 273.15)³",
    unit="W/(m²·K)",
    source=Source("EN ISO 6946:2007, annex A: external surfaces, by convection and radiation"),
)
def surface_coefficient(
    wind_m_s: Annotated[Number, Arg("v", "m/s", "wind beside the surface", 0, 40)],
    air_c: Annotated[Number, Arg("T", "°C", "air", -45, 60)],
    emissivity: Annotated[Number, Arg("ε", "", "of the surface", 0.05, 1)],
) -> Number:
    return 4 + 4 * wind_m_s + emissivity * 4 * 5.67e-8 * (air_c + 273.15) ** 3


@formula(
    title="temperature of a roof's skin",
    symbol="T_s",
    expression="T_s = T + (α · G − ε · 63 · (1 − N)) / h",
    unit="°C",
    source=Source(
        "ASHRAE Handbook Fundamentals (2009), chapter 18, eq. 30: sol-air temperature, 63 W/m² to a clear "
        "sky from a level surface; cloud takes that share away (judgement). Thin skins follow at once",
        "judgement",
    ),
)
def skin_temperature(
    air_c: Annotated[Number, Arg("T", "°C", "air", -45, 60)],
    sun_w_m2: Annotated[Number, Arg("G", "W/m²", "light on the level", 0, 1500)],
    absorptance: Annotated[Number, Arg("α", "", "of the colour", 0, 1)],
    emissivity: Annotated[Number, Arg("ε", "", "of the surface", 0.05, 1)],
    cover: Annotated[Number, Arg("N", "", "share of the sky under cloud", 0, 1)],
    coefficient: Annotated[Number, Arg("h", "W/(m²·K)", "heat given off", 4)],
) -> Number:
    return air_c + (absorptance * sun_w_m2 - emissivity * 63 * (1 - cover)) / coefficient


@formula(
    title="dew point",
    symbol="T_d",
    expression="T_d = 243.12 · ln(p / 6.112) / (17.62 − ln(p / 6.112))",
    unit="°C",
    source=Source("WMO Guide to Instruments (WMO-No. 8, 2018), annex 4.B: Magnus formula turned round"),
)
def dew_point(
    vapour_hpa: Annotated[Number, Arg("p", "hPa", "pressure of the water vapour", 0.001, 200)],
) -> Number:
    ratio = np.log(vapour_hpa / 6.112)
    return 243.12 * ratio / (17.62 - ratio)
