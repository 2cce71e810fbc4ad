"""The weather over the grid's half hours, and what it makes of the roof's skin."""

from __future__ import annotations

from datetime import timedelta
from math import pi
from typing import Literal

import numpy as np

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.sealing import vapour_pressure
from fahrtwind.core.formulas.sun import clear_light, clouded_light
from fahrtwind.core.formulas.weather import dew_point, skin_temperature, surface_coefficient
from fahrtwind.core.job.days import COLUMNS, Forecast, ForecastMember, Spell
from fahrtwind.core.records import dataclass
from fahrtwind.core.solar_library import sun_over
from fahrtwind.core.stations.days.grid import SLOT, BoolArray, FloatArray, Grid
from fahrtwind.core.tables.roof_colours import ABSORPTANCE, EMISSIVITY, RoofColour

WET_MM = 0.1
"""Rain from which a roof is wet: what a gauge shows as rain (WMO-No. 8)."""
COLDEST_AT_H, WARMEST_AT_H = 5.0, 15.0
"""By the clock, where only the day's low and high were told: common practice."""
TOLD_CLOUD = {"dry": 0.4, "rain": 1.0}
GUSTY = 1.5
"""Gusts over the wind, where only the wind was told, and what limits of wind reckon with: common practice."""


@dataclass(frozen=True, slots=True, eq=False)
class Weather:
    """Each half hour of the grid. ``known``: something was said about it; where nothing was, the other
    figures are not numbers. ``light``: the sun is up. ``wet``: it rains.
    """

    known: BoolArray
    air_c: FloatArray
    humidity: FloatArray
    wind_m_s: FloatArray
    gust_m_s: FloatArray
    rain_mm: FloatArray
    cloud: FloatArray
    sun_w_m2: FloatArray
    surface_c: FloatArray
    dew_c: FloatArray
    vapour_hpa: FloatArray
    light: BoolArray

    @property
    def felt_m_s(self) -> FloatArray:
        """The wind whose usual gusts these are, m/s, where they are stronger than usual: limits are told for
        the wind.
        """
        return np.fmax(self.wind_m_s, self.gust_m_s / GUSTY)

    @property
    def wet(self) -> BoolArray:
        found: BoolArray = self.rain_mm >= WET_MM
        return found


@dataclass(frozen=True, slots=True)
class WeatherTold:
    """What the calendar says about the weather. ``shelter_warm_c``: in a heated shelter."""

    weather: Literal["forecast", "told", "ignored"] | None
    spells: tuple[Spell, ...]
    forecast: Forecast | None
    shelter: Literal["none", "roofed", "heated"]
    shelter_warm_c: float
    colour: RoofColour


@dataclass(frozen=True, slots=True)
class Sunlit:
    """Where the vehicle stands while it is worked on, degrees; and whether somebody said so."""

    latitude_deg: float
    longitude_deg: float


def weathers_of(days: WeatherTold, grid: Grid, place: Sunlit) -> tuple[Weather, ...]:
    """One for each way it may go, the first the one that is planned by; one without figures where weather is
    ignored or not told.
    """
    if days.weather == "forecast" and days.forecast is not None:
        check_forecast(days.forecast, grid)
        columns = [_of_member(m, days.forecast, grid) for m in days.forecast.members]
    elif days.weather == "told":
        columns = [_of_spells(days.spells, grid)]
    else:
        columns = [{name: np.full(grid.slots, np.nan) for name in COLUMNS}]
    light, clear = _sky(grid, place)
    return tuple(_sheltered(_weather(c, light, clear, days.colour), days) for c in columns)


def check_forecast(forecast: Forecast, grid: Grid) -> None:
    """Raises InputError where it says nothing about the days that are planned."""
    hours = len(forecast.members[0].air_c)
    ends = forecast.start + timedelta(hours=hours)
    if ends <= grid.moment(0):
        raise InputError(
            f"The forecast ends on {ends:%d %B %Y}, before the first day.",
            remedy="Load a newer one, or set the first day.",
            field="days.forecast",
        )
    if forecast.start >= grid.moment(0) + timedelta(days=grid.days):
        raise InputError(
            f"The forecast begins on {forecast.start:%d %B %Y}, after the last day that is planned.",
            remedy="Set the first day, or plan further ahead.",
            field="days.forecast",
        )


def _of_member(member: ForecastMember, forecast: Forecast, grid: Grid) -> dict[str, FloatArray]:
    """Hourly values stand for the two half hours that follow."""
    into = np.array(
        [(grid.moment(s) - forecast.start) // timedelta(hours=1) for s in range(grid.slots)], dtype=np.int64
    )
    columns = {}
    for name in COLUMNS:
        hourly = np.array([np.nan if v is None else v for v in getattr(member, name)], dtype=np.float64)
        inside = (into >= 0) & (into < len(hourly))
        values = np.full(grid.slots, np.nan)
        values[inside] = hourly[into[inside]]
        columns[name] = values
    return columns


def _of_spells(spells: tuple[Spell, ...], grid: Grid) -> dict[str, FloatArray]:
    """The later entry counts where two tell of the same hour."""
    columns = {name: np.full(grid.slots, np.nan) for name in COLUMNS}
    for spell in spells:
        told = _told(spell, grid)
        columns["air_c"][told] = _course(grid.minute[told] / 60, spell.low.deg_c, spell.high.deg_c)
        columns["humidity_percent"][told] = spell.humidity
        columns["wind_m_s"][told] = spell.wind.m_s
        columns["gust_m_s"][told] = spell.wind.m_s * GUSTY
        columns["rain_mm"][told] = 1.0 if spell.sky == "rain" else 0.0
        columns["cloud_percent"][told] = 100 * TOLD_CLOUD[spell.sky]
    return columns


def _told(spell: Spell, grid: Grid) -> BoolArray:
    """Which half hours it tells of."""
    last = (spell.ends - grid.first).days
    told: BoolArray = (grid.day >= (spell.starts - grid.first).days) & (grid.day <= last)
    if spell.until is not None:
        ends = spell.until.hour * 60 + spell.until.minute + spell.until.second / 60
        told &= (grid.day < last) | (grid.minute < ends)
    return told


def _course(hour: FloatArray, low: float, high: float) -> FloatArray:
    """From the low at five to the high at three and back, each way half a wave."""
    rise = WARMEST_AT_H - COLDEST_AT_H
    past = (hour - COLDEST_AT_H) % 24
    turn = np.where(past <= rise, pi * past / rise, pi + pi * (past - rise) / (24 - rise))
    return low + (high - low) * (1 - np.cos(turn)) / 2


def _sky(grid: Grid, place: Sunlit) -> tuple[BoolArray, FloatArray]:
    """Whether the sun is up in the middle of each half hour, and the light of a clear sky on the level,
    W/m².
    """
    middle = grid.start + SLOT / 2
    at = (place.latitude_deg, place.longitude_deg)
    zenith, elevation = sun_over(middle, SLOT.total_seconds(), grid.slots, *at)
    up = elevation > 0
    clear = np.zeros(grid.slots)
    clear[up] = clear_light(zenith[up])
    return up, clear


def _weather(
    columns: dict[str, FloatArray], light: BoolArray, clear: FloatArray, colour: RoofColour
) -> Weather:
    known = ~np.any([np.isnan(values) for values in columns.values()], axis=0)
    usable = {name: np.where(known, values, 0.0) for name, values in columns.items()}
    air, cloud = usable["air_c"], usable["cloud_percent"] / 100
    humidity = np.clip(usable["humidity_percent"] / 100, 0.01, 1)
    vapour = np.asarray(vapour_pressure(np.clip(air, -45, 60), humidity))
    sun = np.asarray(clouded_light(clear, cloud))
    absorbed = ABSORPTANCE[colour]
    given_off = surface_coefficient(np.minimum(usable["wind_m_s"], 40), np.clip(air, -45, 60), EMISSIVITY)
    surface = skin_temperature(np.clip(air, -45, 60), sun, absorbed, EMISSIVITY, cloud, given_off)

    def told(values: object) -> FloatArray:
        return np.where(known, np.asarray(values, dtype=np.float64), np.nan)

    return Weather(
        known,
        told(air),
        told(humidity),
        told(usable["wind_m_s"]),
        told(np.maximum(usable["gust_m_s"], usable["wind_m_s"])),
        told(usable["rain_mm"]),
        told(cloud),
        told(sun),
        told(surface),
        told(dew_point(vapour)),
        told(vapour),
        light,
    )


def _sheltered(weather: Weather, days: WeatherTold) -> Weather:
    """Under a roof nothing rains or blows, sun and clear sky do nothing, lamps give light; heating takes no
    moisture out of the air.
    """
    if days.shelter == "none":
        return weather
    still = np.where(weather.known, 0.0, np.nan)
    heated = days.shelter == "heated"
    known = np.ones_like(weather.known) if heated else weather.known
    warm = np.fmax(np.full_like(still, days.shelter_warm_c), weather.air_c) if heated else weather.air_c
    calm = np.zeros_like(still) if heated else still
    vapour = weather.vapour_hpa
    if heated:  # of hours nobody told of only the warmth is known: moisture as on a cool dry day
        vapour = np.where(weather.known, vapour, COOL_VAPOUR_HPA)
    dew = np.asarray(dew_point(np.where(np.isnan(vapour), 1.0, vapour)))
    full = np.asarray(vapour_pressure(np.clip(np.where(known, warm, 0.0), -45, 60), 1.0))
    share = np.clip(vapour / full, 0.01, 1)
    dew = np.where(np.isnan(vapour), np.nan, dew)
    return Weather(
        known, warm, share, calm, calm, calm, np.where(known, 1.0, np.nan), calm, warm, dew, vapour,
        np.ones_like(weather.light),
    )  # fmt: skip


COOL_VAPOUR_HPA = float(vapour_pressure(10.0, 0.5))
"""Of a cool day: what is counted where nobody said anything, so that cure takes its time."""
