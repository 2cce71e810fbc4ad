"""The working of a day's warmest skin and its dew point, one formula after the other."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sealing import vapour_pressure
from fahrtwind.core.formulas.weather import dew_point, skin_temperature, surface_coefficient
from fahrtwind.core.stations.days.conditions import Calendar
from fahrtwind.core.tables.roof_colours import ABSORPTANCE, EMISSIVITY

SKY = "sun on the level under cloud: Haurwitz, Kasten and Czeplak"


def warmest_skins(calendar: Calendar) -> dict[str, float]:
    """For each planned day, by its date, the warmest skin in working hours, °C; worked out once more, so that
    a working can be shown. Nothing under a shelter: there the air decides.
    """
    grid, days, weather = calendar.grid, calendar.days, calendar.weather
    if days.shelter != "none" or not calendar.present:
        return {}
    works = np.any(calendar.present, axis=0) & weather.known
    found = {}
    for k in range(days.horizon):
        slots = np.flatnonzero((grid.day == k) & works)
        if len(slots):
            slot = int(slots[np.argmax(weather.surface_c[slots])])
            day = grid.date_of(k).isoformat()
            with scope("skin", day):
                found[day] = _skin(calendar, slot)
    return found


def _skin(calendar: Calendar, slot: int) -> float:
    weather, colour = calendar.weather, calendar.days.colour
    when = f"{calendar.grid.moment(slot):%H:%M}"

    def told(values: np.ndarray[tuple[int], np.dtype[np.float64]], what: str) -> float:
        return given(float(values[slot]), "measured", f"{what}, {when}")

    air = told(weather.air_c, "air")
    vapour = vapour_pressure(air, told(weather.humidity, "moisture"))
    dew_point(vapour)
    emissivity = given(EMISSIVITY, "table", "painted roof")
    loss = surface_coefficient(told(weather.wind_m_s, "wind"), air, emissivity)
    absorbed = given(ABSORPTANCE[colour], "table", f"{colour} roof")
    sun, cover = told(weather.sun_w_m2, SKY), told(weather.cloud, "cloud")
    return float(skin_temperature(air, sun, absorbed, emissivity, cover, loss))
