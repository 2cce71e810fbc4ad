"""The hours as a band: the weather, and what each allows."""

from __future__ import annotations

from datetime import datetime

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.activities import PAINT_C, ROOF_WIND_M_S, SEALANT_HOTTEST_C, Activity, Needs
from fahrtwind.core.stations.days.conditions import Calendar, conditions_of
from fahrtwind.core.stations.days.grid import SLOT_MIN, BoolArray
from fahrtwind.core.stations.days.work_facts import WorkFacts

HOURLY = 60 // SLOT_MIN
WEATHER_ONLY = ("nobody works", "too few hands", "past the plan")


@dataclass(frozen=True, slots=True)
class HoursBand:
    """Hour by hour over the days that are planned, from ``starts`` on: figures None where nobody forecast
    anything. ``roof``, ``carry``, ``seal``, ``paint``, ``tape``: whether the weather lets one climb, carry
    panels, seal, paint, stick; ``works``: somebody is at work.
    """

    starts: datetime
    days: int
    air_c: tuple[float | None, ...]
    skin_c: tuple[float | None, ...]
    dew_c: tuple[float | None, ...]
    wind_m_s: tuple[float | None, ...]
    rain_mm: tuple[float | None, ...]
    light: tuple[bool, ...]
    works: tuple[bool, ...]
    roof: tuple[bool, ...]
    carry: tuple[bool, ...]
    seal: tuple[bool, ...]
    paint: tuple[bool, ...]
    tape: tuple[bool, ...]


def hours_of(calendar: Calendar, facts: WorkFacts) -> HoursBand:
    """The weather of a calendar with what it allows."""
    grid, weather = calendar.grid, calendar.weather
    planned = grid.first_slot(calendar.days.horizon)
    hours = np.arange(0, planned, HOURLY)
    wind = min(ROOF_WIND_M_S, facts.lift_wind_m_s)

    def figures(values: npt.NDArray[np.float64], digits: int = 1) -> tuple[float | None, ...]:
        return tuple(None if np.isnan(v) else round(float(v), digits) for v in values[hours])

    def flags(values: BoolArray) -> tuple[bool, ...]:
        return tuple(bool(v) for v in values[hours])

    def allows(needs: Needs) -> tuple[bool, ...]:
        asked = Activity("", "seal", "", 0, SLOT_MIN, "", 1, "roof", needs)
        found = [c for c in conditions_of(asked, calendar) if c.name not in WEATHER_ONLY]
        return flags(np.all([c.ok for c in found], axis=0) if found else np.ones(grid.slots, dtype=bool))

    sealed = Needs(True, facts.sealant_coldest_c, SEALANT_HOTTEST_C, True, ROOF_WIND_M_S, facts.skin("seal"))
    return HoursBand(
        grid.moment(0),
        calendar.days.horizon,
        figures(weather.air_c),
        figures(weather.surface_c),
        figures(weather.dew_c),
        figures(weather.wind_m_s),
        figures(weather.rain_mm, 2),
        flags(weather.light),
        flags(np.any(calendar.present, axis=0) if calendar.present else np.zeros(grid.slots, dtype=bool)),
        allows(Needs(True, wind_m_s=ROOF_WIND_M_S)),
        allows(Needs(True, wind_m_s=wind)),
        allows(sealed),
        allows(Needs(True, *PAINT_C, True, ROOF_WIND_M_S)),
        allows(Needs(True, *facts.tape_c, True, ROOF_WIND_M_S)),
    )
