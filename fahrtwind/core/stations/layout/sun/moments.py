"""Moments that stand for a year or a day, each with the light on every cell group of every panel.

What panels give together depends on how all their groups are lit at once, which sums by panel cannot tell.
Clear moments are drawn so that each stands for the same light (evenly along hour and heading, no chance in
it); cloud is even and needs one moment an hour of the month.
"""

from __future__ import annotations

from dataclasses import fields

import numpy as np
import numpy.typing as npt

from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.sun import faced_sky, light_about_the_sun
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.raised import Body
from fahrtwind.core.stations.layout.sun.harvest import (
    Stand,
    beside_the_beam,
    darkest_sky,
    incidence_of,
    light_by_group,
    shaded_cells,
    stand_of,
    tilt_of,
)
from fahrtwind.core.stations.layout.sun.shadows import (
    Caster,
    casters_of,
    cells_of,
    horizons,
    raised_on,
    sky_share,
)
from fahrtwind.core.stations.layout.sun.sky import HOURS, MONTHS, SiteYear, Sky, site_of, sky_of_day, year_of

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
A_MONTH, HALF_HOUR = 40, 0.5


@dataclass(frozen=True, slots=True, eq=False)
class Moments:
    """``month`` (from 0), ``hour``, ``hours`` each stands for in a year, ``air_c``, ``clear`` sky or cloud:
    shape (n,). ``light`` of each panel, W/m², shape (groups, n), in the order of the job; ``even``: the same
    with nothing in the way, shape (n,).
    """

    month: IntArray
    hour: FloatArray
    hours: FloatArray
    air_c: FloatArray
    clear: npt.NDArray[np.bool_]
    light: tuple[FloatArray, ...]
    even: tuple[FloatArray, ...]
    wind_m_s: float


@dataclass(frozen=True, slots=True, eq=False)
class _Lit:
    groups: FloatArray
    even: FloatArray


def moments_of_year(roof: SunnyRoof, a_month: int = A_MONTH) -> Moments:
    """Moments that stand for a year. Raises InputError where place, climate or heading is missing."""
    site, stand = site_of(roof), stand_of(roof)
    sky = year_of(site)
    pick, heading, hours = _drawn(site, sky, stand, a_month)
    dull, dull_hours = _dull(site, sky)
    bodies = raised_on(roof, tilted=stand.tilted)
    casters = casters_of(roof, lids_open=stand.lids_open, bodies=bodies)
    lit = [
        _panel(p, bodies.get(p.id), _part(sky, pick), heading, _part(sky, dull), casters, stand)
        for p in roof.panels
    ]
    both = np.concatenate([pick, dull])
    return Moments(
        sky.month[both],
        sky.hour[both] + 0.5,
        np.concatenate([hours, dull_hours]),
        np.array(site.temperature_deg_c)[sky.month[both]],
        np.arange(len(both)) < len(pick),
        tuple(light.groups for light in lit),
        tuple(light.even for light in lit),
        stand.wind_m_s,
    )


def moments_of_day(
    roof: SunnyRoof, month: int, heading_deg: float | None = None, hour: float | None = None
) -> Moments:
    """The half-hours of the 15th of a month under a clear sky at one heading, or only the one nearest to an
    hour. Raises as the year's, and InputError where the sun is down then.
    """
    site, stand = site_of(roof), stand_of(roof, heading_deg)
    sky = sky_of_day(site, month)
    if hour is not None:
        sky = _part(sky, np.array([_nearest(sky, hour)]))
    heading = np.full(len(sky.month), stand.headings_deg[0])
    bodies = raised_on(roof, tilted=stand.tilted)
    casters = casters_of(roof, lids_open=stand.lids_open, bodies=bodies)
    none = np.zeros(0, dtype=np.int64)
    lit = [_panel(p, bodies.get(p.id), sky, heading, _part(sky, none), casters, stand) for p in roof.panels]
    return Moments(
        sky.month,
        sky.hour / 2,  # half-hours of the day are counted there
        sky.hours,
        np.full(len(sky.month), site.temperature_deg_c[month - 1]),
        np.ones(len(sky.month), dtype=bool),
        tuple(light.groups for light in lit),
        tuple(light.even for light in lit),
        stand.wind_m_s,
    )


def _nearest(sky: Sky, hour: float) -> int:
    away = np.abs(sky.hour / 2 - hour)
    if not len(away) or away.min() > HALF_HOUR:
        raise InputError(
            f"At {hour:g} h the sun is down.", remedy="Choose an hour of daylight.", field="hour"
        )
    return int(away.argmin())


def _part(sky: Sky, at: IntArray) -> Sky:
    return Sky(*(getattr(sky, f.name)[at] for f in fields(Sky)))


def _drawn(site: SiteYear, sky: Sky, stand: Stand, a_month: int) -> tuple[IntArray, FloatArray, FloatArray]:
    """Which groups of the clear sky, at which heading, standing for how many hours."""
    level = np.maximum(sky.beam * np.sin(np.radians(sky.elevation_deg)) + sky.diffuse, 1.0)
    headings = np.array(stand.headings_deg)
    picks, faces, hours = [], [], []
    for month in range(MONTHS):
        here = np.flatnonzero(sky.month == month)
        if not len(here) or site.sunshine[month] <= 0:
            continue
        # hour by hour, and within an hour round the compass: even draws then cover both
        group, face = (a.ravel() for a in np.meshgrid(here, headings, indexing="ij"))
        share = sky.hours[group] * site.sunshine[month] / len(headings)
        weight = np.cumsum(share * level[group])
        at = np.searchsorted(weight, (np.arange(a_month) + 0.5) / a_month * weight[-1])
        picks.append(group[at])
        faces.append(face[at])
        hours.append(weight[-1] / a_month / level[group[at]])
    return np.concatenate(picks), np.concatenate(faces), np.concatenate(hours)


def _dull(site: SiteYear, sky: Sky) -> tuple[IntArray, FloatArray]:
    """One moment under cloud for every hour of every month: the one nearest to the hour's mean light."""
    picks, hours = [], []
    for slot in np.unique(sky.month * HOURS + sky.hour):
        here = np.flatnonzero(sky.month * HOURS + sky.hour == slot)
        weights = sky.hours[here]
        mean = float(np.average(sky.clouded[here], weights=weights))
        picks.append(here[int(np.argmin(np.abs(sky.clouded[here] - mean)))])
        hours.append(float(weights.sum()) * (1 - site.sunshine[int(slot) // HOURS]))
    return np.array(picks, dtype=np.int64), np.array(hours)


def _panel(
    panel: PlacedPanel,
    body: Body | None,
    clear: Sky,
    heading: FloatArray,
    dull: Sky,
    casters: list[Caster],
    stand: Stand,
) -> _Lit:
    go_on()
    cells = cells_of(panel, body)
    horizon = horizons(cells.points, casters, but=body.panels if body else (panel.id,))
    tilt = tilt_of(cells)
    faced = float(faced_sky(tilt))
    dark = darkest_sky(cells, sky_share(cells, horizon)) * faced
    lit, clouded = beside_the_beam(clear, tilt), beside_the_beam(dull, tilt)
    incidence = incidence_of(cells, clear, heading)
    towards = clear.beam * incidence + np.asarray(
        light_about_the_sun(clear.diffuse, lit.anisotropy, incidence, lit.height_sine)
    )
    shaded = shaded_cells(horizon, clear.azimuth_deg - heading, clear.elevation_deg)
    under_cloud = dark[:, None] * clouded.clouded[None, :] + clouded.ground_clouded[None, :]
    return _Lit(
        np.hstack([light_by_group(cells, towards, shaded, lit, dark), under_cloud]),
        np.concatenate(
            [towards + faced * lit.even + lit.ground, faced * clouded.clouded + clouded.ground_clouded]
        ),
    )
