"""Invented weather: one course of days for each place, and forecasts that know near days better.

Highs and lows come and go over days (an autoregressive walk); temperature, cloud, rain and wind follow them.
A forecast's members start from the true course and drift away from it the further they look ahead. Judgement
throughout: it only has to behave like weather.
"""

from __future__ import annotations

from datetime import UTC, date, datetime, time, timedelta
from math import cos, pi

import numpy as np
import numpy.typing as npt

FloatArray = npt.NDArray[np.float64]
MEMBERS, DAYS = 8, 14
MEMORY_DAYS, KEEPS = 14, 0.65
"""How far back a day remembers, and how much of it the next one keeps."""
DRIFT = 0.16
"""How far members drift apart in a day."""
DRY_FROM = -0.55
"""Below this state of the sky it rains now and then."""


def forecast(
    latitude: float, longitude: float, first: date, issued: date, seed: int, members: int = MEMBERS
) -> dict[str, object]:
    """An hourly forecast in the open layout, from midnight UTC of the day before ``first``."""
    start = datetime.combine(first - timedelta(days=1), time(0), UTC)
    hours = (DAYS + 2) * 24
    place = round(latitude * 4) * 2000 + round(longitude * 4) + 1_000_000
    return {
        "layout": "hourly-forecast-1",
        "source": "simulated weather office",
        "issued": datetime.combine(issued, time(6), UTC).isoformat(),
        "start": start.isoformat(),
        "members": [
            _member(
                _states(start, hours, issued, place, seed, m), start, latitude, longitude, (seed, place, m)
            )
            for m in range(members)
        ],
    }


def _noise(*key: int) -> np.random.Generator:
    return np.random.default_rng([abs(k) for k in key])


def _true_state(day: int, place: int, seed: int) -> float:
    """Of a day counted from the epoch: high pressure above zero."""
    back = range(MEMORY_DAYS)
    told = [_noise(seed, place, day - k).normal() * KEEPS**k for k in back]
    return float(sum(told) * (1 - KEEPS**2) ** 0.5)


def _states(start: datetime, hours: int, issued: date, place: int, seed: int, member: int) -> FloatArray:
    """Hour by hour between the middles of the days, with the member's drift."""
    epoch = date(1970, 1, 1)
    first = (start.date() - epoch).days
    days = hours // 24 + 2
    drift = _noise(seed, place, (issued - epoch).days, member, 77)
    walk, states = 0.0, []
    for k in range(-1, days):
        ahead = first + k - (issued - epoch).days
        if ahead > 0:
            walk += drift.normal() * DRIFT * (0.5 if member == 0 else 1.0)
        states.append(_true_state(first + k, place, seed) + walk)
    middles = np.arange(-1, days) * 24 + 12.0
    found: FloatArray = np.interp(np.arange(hours), middles, np.array(states))
    return found


def _member(
    state: FloatArray, start: datetime, latitude: float, longitude: float, key: tuple[int, int, int]
) -> dict[str, list[float]]:
    rng = _noise(*key, 5)
    hours = len(state)
    moments = [start + timedelta(hours=h) for h in range(hours)]
    season = np.array([cos(2 * pi * (m.timetuple().tm_yday - 200) / 365) for m in moments])
    sun_hour = np.array([(m.hour + longitude / 15) % 24 for m in moments])
    swing = np.cos(2 * pi * (sun_hour - 15) / 24)
    north = 1.0 if latitude >= 0 else -1.0
    cloud = np.clip(0.5 - 0.38 * state + rng.normal(0, 0.08, hours), 0, 1)
    air = 25 - 0.3 * abs(latitude) + north * season * 0.19 * abs(latitude) + 2.0 * state
    air = air + swing * (5.5 - 3.5 * cloud) + rng.normal(0, 0.3, hours)
    wet = (state < DRY_FROM) & (rng.random(hours) < 0.25 + 0.3 * np.clip(DRY_FROM - state, 0, 2))
    rain = np.where(wet, rng.gamma(1.2, 1.0, hours), 0.0)
    humidity = np.clip(68 - 9 * state - 12 * swing + 18 * wet + rng.normal(0, 3, hours), 25, 100)
    wind = np.clip(3.4 - 0.9 * state + 1.1 * swing + rng.normal(0, 0.6, hours), 0.2, 25)
    columns = {
        "air_c": air,
        "humidity_percent": humidity,
        "wind_m_s": wind,
        "gust_m_s": wind * 1.6,
        "rain_mm": rain,
        "cloud_percent": cloud * 100,
    }
    digits = {"humidity_percent": 0, "cloud_percent": 0}
    return {name: [round(float(v), digits.get(name, 1)) for v in values] for name, values in columns.items()}
