"""How much sealant a seal takes, and how fast it cures."""

from math import pi
from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

GEOMETRY = Source("Geometry: prisms, cones and boxes (any handbook of mathematics)")


@formula(
    title="fillet of sealant round a plate",
    symbol="V",
    expression="V = (a² / 2 · P + π · a³ / 3) / 1000",
    unit="ml",
    source=GEOMETRY,
)
def fillet_volume(
    leg_mm: Annotated[Number, Arg("a", "mm", "leg of the fillet", 0, 40)],
    perimeter_mm: Annotated[Number, Arg("P", "mm", "round the plate", 0)],
) -> Number:
    """Along straight sides a triangle; round each of four corners a quarter of a cone."""
    return (leg_mm**2 / 2 * perimeter_mm + pi * leg_mm**3 / 3 * (perimeter_mm > 0)) / 1000


@formula(
    title="layer of sealant under a plate",
    symbol="V",
    expression="V = A · t / 1000",
    unit="ml",
    source=GEOMETRY,
)
def layer_volume(
    area_mm2: Annotated[Number, Arg("A", "mm²", "plate", 0)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "layer, with what squeezes out", 0, 20)],
) -> Number:
    return area_mm2 * thickness_mm / 1000


@formula(
    title="cap over a head",
    symbol="V",
    expression="V = (π · h / 6 · (3 · r² + h²) − π / 4 · d² · k) / 1000",
    unit="ml",
    source=Source("Segment of a sphere less the head in it (Bronstein, Handbook of Mathematics)"),
)
def cap_volume(
    radius_mm: Annotated[Number, Arg("r", "mm", "radius of the cap", 0, 60)],
    height_mm: Annotated[Number, Arg("h", "mm", "its height", 0, 40)],
    head_mm: Annotated[Number, Arg("d", "mm", "head", 0, 60)],
    head_high_mm: Annotated[Number, Arg("k", "mm", "height of the head", 0, 30)],
) -> Number:
    segment = pi * height_mm / 6 * (3 * radius_mm**2 + height_mm**2)
    return (segment - pi / 4 * head_mm**2 * head_high_mm) / 1000


@formula(
    title="pressure of water vapour in the air",
    symbol="p",
    expression="p = φ · 6.112 · exp(17.62 · T / (243.12 + T))",
    unit="hPa",
    source=Source("WMO Guide to Instruments (WMO-No. 8, 2018), annex 4.B: Magnus formula over water"),
)
def vapour_pressure(
    temperature_c: Annotated[Number, Arg("T", "°C", "air", -45, 60)],
    humidity: Annotated[Number, Arg("φ", "", "relative humidity, share", 0.01, 1)],
) -> Number:
    return humidity * 6.112 * np.exp(17.62 * temperature_c / (243.12 + temperature_c))


@formula(
    title="time until a sealant has cured to a depth",
    symbol="t",
    expression="t = 24 · (z / z₂₄)² · p₀ / p",
    unit="h",
    source=Source(
        "Depth of moisture cure z = √(2·V·P·p·t), Comyn et al., International Journal of Adhesion and "
        "Adhesives 18 (1998), 247; p₀ at 23 °C and 50 %"
    ),
)
def cure_time(
    depth_mm: Annotated[Number, Arg("z", "mm", "depth to the nearest air", 0, 200)],
    depth_24h_mm: Annotated[Number, Arg("z₂₄", "mm", "in a day at 23 °C and 50 %", 0.1, 20)],
    usual_hpa: Annotated[Number, Arg("p₀", "hPa", "vapour at 23 °C and 50 %", 5, 30)],
    vapour_hpa: Annotated[Number, Arg("p", "hPa", "vapour of the day", 0.05, 80)],
) -> Number:
    return 24 * (depth_mm / depth_24h_mm) ** 2 * usual_hpa / vapour_hpa
