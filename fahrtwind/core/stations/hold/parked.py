"""Wind on a vehicle that stands, and across one that drives slowly."""

from __future__ import annotations

from math import radians, tan

from fahrtwind.core.formulas.air import dynamic_pressure, speed_at_pressure
from fahrtwind.core.formulas.declare import given
from fahrtwind.core.formulas.wind import air_speed_with_crosswind, gust_pressure, mean_wind
from fahrtwind.core.job.document import Assumptions, Vehicle
from fahrtwind.core.records import dataclass

WIND_DENSITY_KG_M3 = 1.25
"""EN 1991-1-4, 4.5(1), recommended."""
TERRAIN = {"land": (0.05, 2.0), "water": (0.003, 1.0)}
"""Roughness and least height that counts, m: EN 1991-1-4, Table 4.1, terrain II, and 0 for sea and lakes."""
USUAL_HEIGHT_MM = 3000.0
YAW_DEG = 20.0
"""From this angle on the flow comes over the roof's side: its edge zones count there (judgement)."""


@dataclass(frozen=True, slots=True)
class ParkedWind:
    """The gust that is counted with from any side, and its pressure; ``crosswind`` where a gust across the
    slow vehicle gives more than the wind at rest.
    """

    pressure_pa: float
    gust_m_s: float
    crosswind: bool


def height_mm(vehicle: Vehicle) -> float:
    """Height of the roof over the ground, the usual one where it is not measured."""
    return vehicle.height.mm if vehicle.height else USUAL_HEIGHT_MM


def terrain_of(vehicle: Vehicle, assumptions: Assumptions) -> str:
    """What is around it: as chosen, else water for a boat and open land for the others."""
    return assumptions.terrain or ("water" if vehicle.kind == "boat" else "land")


def wind_while_parked(vehicle: Vehicle, assumptions: Assumptions, top_speed_m_s: float) -> ParkedWind:
    """The larger of the site's gust and of a gust across the road so slow that it comes from the side."""
    roughness, least = TERRAIN[terrain_of(vehicle, assumptions)]
    rough = given(roughness, "table", "EN 1991-1-4, Table 4.1")
    told = "measured" if vehicle.height else "default"
    high = given(max(height_mm(vehicle) / 1000, least), told, "height of the roof")  # type: ignore[arg-type]
    mean = mean_wind(given(assumptions.basic_wind.m_s, "chosen", "assumptions: basic wind"), rough, high)
    density = given(WIND_DENSITY_KG_M3, "table", "EN 1991-1-4, 4.5")
    standing = float(gust_pressure(mean, rough, high, density))
    gust = given(assumptions.gust.m_s, "chosen", "assumptions: gust")
    slow = given(min(top_speed_m_s, gust / tan(radians(YAW_DEG))), "computed", "road speed at a yaw of 20°")
    across = float(dynamic_pressure(density, air_speed_with_crosswind(slow, gust, 90.0)))
    pressure = max(standing, across)
    return ParkedWind(pressure, float(speed_at_pressure(pressure, density, 0.0)), across > standing)
