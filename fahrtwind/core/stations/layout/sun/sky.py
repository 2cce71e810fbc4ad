"""The light of a year at a site, gathered by month, hour and direction of the sun.

Sun position and clear sky come from an established solar library. Within a month, an hour and a few degrees
of direction the light hardly changes, so some thousand groups stand for 35,040 quarters of an hour, and every
heading reads the same groups.
"""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np
import numpy.typing as npt

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.sun import clouded_light, extraterrestrial_light
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.solar_library import solar_library
from fahrtwind.core.tables.climates import CLIMATES

if TYPE_CHECKING:
    import pandas as pd

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
STEP_MINUTES = 15
YEAR = 2025
"""A year without a leap day; where the sun stands differs by less than half a degree between years."""
AZIMUTH_DEG, ELEVATION_DEG = 3.0, 2.0
LOWEST_DEG = 0.5
DEG_AN_HOUR = 15.0
MONTHS, HOURS = 12, 24


@dataclass(frozen=True, slots=True)
class SiteYear:
    """A site with its twelve months. ``words`` say where the figures come from."""

    latitude_deg: float
    longitude_deg: float
    altitude_m: float
    sunshine: tuple[float, ...]
    temperature_deg_c: tuple[float, ...]
    turbidity: tuple[float, ...]
    words: str


@dataclass(frozen=True, slots=True, eq=False)
class Sky:
    """Groups of like light. Azimuth from north over east, elevation, W/m² of the clear beam, of clear and of
    clouded diffuse light.

    ``beyond`` is the beam outside the atmosphere, W/m².

    ``hours`` is how long a group lasts in the year; ``month`` and ``hour`` count from 0, in local mean time.
    """

    month: IntArray
    hour: IntArray
    azimuth_deg: FloatArray
    elevation_deg: FloatArray
    beam: FloatArray
    diffuse: FloatArray
    clouded: FloatArray
    beyond: FloatArray
    hours: FloatArray


def site_of(roof: SunnyRoof) -> SiteYear:
    """Place and climate of a roof. Raises InputError naming what is missing."""
    site = roof.site
    known = CLIMATES.get(site.climate) if site.climate else None
    if site.climate and known is None:
        raise InputError(
            f"There is no climate {site.climate}.",
            remedy=f"Choose one of {', '.join(CLIMATES)}.",
            field="site.climate",
        )
    if site.months:
        climate = (
            tuple(m.sunshine for m in site.months),
            tuple(m.temperature.deg_c for m in site.months),
            tuple(m.turbidity for m in site.months),
        )
        words = "own climate"
    elif known is not None:
        climate, words = (
            (known.sunshine, known.temperature_deg_c, known.turbidity),
            f"{known.name}: {known.words} (invented site)",
        )
    else:
        raise InputError(
            "The climate is not known.",
            remedy="Choose one of the climates or load twelve months of your own.",
            field="site.climate",
        )
    latitude = site.latitude.deg if site.latitude else known.latitude_deg if known else None
    longitude = site.longitude.deg if site.longitude else known.longitude_deg if known else 0.0
    if latitude is None:
        raise InputError(
            "The place is not known.", remedy="Type its latitude, north positive.", field="site.latitude"
        )
    altitude = (
        roof.vehicle.altitude.mm / 1000 if roof.vehicle.altitude else known.altitude_m if known else 0.0
    )
    return SiteYear(latitude, longitude, altitude, *climate, words)


@lru_cache(maxsize=16)
def year_of(site: SiteYear) -> Sky:
    """The year's light at a site in quarters of an hour, gathered."""
    month, hour, azimuth, elevation, (beam, diffuse, level, beyond) = _quarters(site)
    clouded = clouded_light(level, 1.0)
    cell = np.stack(
        [
            month,
            hour,
            (azimuth // AZIMUTH_DEG).astype(np.int64),
            (elevation // ELEVATION_DEG).astype(np.int64),
        ]
    )
    _, group, counts = np.unique(cell, axis=1, return_inverse=True, return_counts=True)
    group = group.ravel()

    def mean(values: FloatArray) -> FloatArray:
        return np.bincount(group, weights=values) / counts

    first = np.zeros(len(counts), dtype=np.int64)
    first[group[::-1]] = np.arange(len(group))[::-1]
    return Sky(
        month[first],
        hour[first],
        mean(azimuth),
        mean(elevation),
        mean(beam),
        mean(diffuse),
        mean(clouded),
        mean(beyond),
        counts * STEP_MINUTES / 60.0,
    )


@lru_cache(maxsize=64)
def sun_of_day(site: SiteYear, month: int) -> tuple[tuple[float, float, float], ...]:
    """Hour by the mean sun, azimuth from north over east and elevation on the 15th of a month, every
    half-hour of light.
    """
    import pandas as pd

    local = pd.date_range(f"{YEAR}-{month:02}-15", periods=48, freq="30min")
    sun = _sun_at(site, local)
    return tuple(
        (i / 2, float(azimuth), float(elevation))
        for i, (azimuth, elevation) in enumerate(zip(sun["azimuth"], sun["apparent_elevation"], strict=True))
        if elevation > LOWEST_DEG
    )


@lru_cache(maxsize=64)
def sky_of_day(site: SiteYear, month: int) -> Sky:
    """The clear sky on the 15th of a month, half-hour by half-hour while the sun is up; ``hour`` counts
    half-hours of the mean sun's day.
    """
    import pandas as pd

    local = pd.date_range(f"{YEAR}-{month:02}-15", periods=48, freq="30min")
    _, _, azimuth, elevation, (beam, diffuse, level, beyond) = _light_at(site, local)
    half = np.flatnonzero(_sun_at(site, local)["apparent_elevation"].to_numpy() > LOWEST_DEG)
    months, hours = np.full(len(half), month - 1), np.full(len(half), 0.5)
    clouded = np.asarray(clouded_light(level, 1.0))
    return Sky(months, half, azimuth, elevation, beam, diffuse, clouded, beyond, hours)


def _sun_at(site: SiteYear, local: pd.DatetimeIndex) -> pd.DataFrame:
    """Places of the sun at times of the mean sun."""
    import pandas as pd

    solarposition = solar_library().solarposition

    utc = (local - pd.Timedelta(hours=site.longitude_deg / DEG_AN_HOUR)).tz_localize("UTC")
    return solarposition.get_solarposition(utc, site.latitude_deg, site.longitude_deg, site.altitude_m)


_Light = tuple[
    IntArray, IntArray, FloatArray, FloatArray, tuple[FloatArray, FloatArray, FloatArray, FloatArray]
]


def _quarters(site: SiteYear) -> _Light:
    import pandas as pd

    return _light_at(
        site, pd.date_range(f"{YEAR}-01-01 00:07:30", f"{YEAR}-12-31 23:59", freq=f"{STEP_MINUTES}min")
    )


def _light_at(site: SiteYear, local: pd.DatetimeIndex) -> _Light:
    """Month, hour, place of the sun, and beam, diffuse and level light of a clear sky, while it is up."""
    atmosphere, clearsky = solar_library().atmosphere, solar_library().clearsky
    sun = _sun_at(site, local)
    up = (sun["apparent_elevation"] > LOWEST_DEG).to_numpy()
    sun, when = sun[up], local[up]
    month = when.month.to_numpy().astype(np.int64) - 1
    zenith = sun["apparent_zenith"].to_numpy()
    pressure = atmosphere.alt2pres(site.altitude_m)
    air_mass = atmosphere.get_absolute_airmass(atmosphere.get_relative_airmass(zenith), pressure)
    turbidity = np.array(site.turbidity)[month]
    clear = clearsky.ineichen(zenith, air_mass, turbidity, altitude=site.altitude_m)
    light = tuple(np.asarray(clear[name], dtype=np.float64) for name in ("dni", "dhi", "ghi"))
    beyond = np.asarray(extraterrestrial_light(when.day_of_year.to_numpy().astype(float)), dtype=np.float64)
    return (
        month,
        when.hour.to_numpy().astype(np.int64),
        sun["azimuth"].to_numpy(),
        sun["apparent_elevation"].to_numpy(),
        (*light, beyond),
    )  # type: ignore[return-value]
