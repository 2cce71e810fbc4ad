"""Sun, shadow, bypass diodes and heat beside the solar library, published examples and plane geometry."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime
from math import cos, radians

import numpy as np
import pandas as pd
import pytest
from pvlib import clearsky, irradiance, location, pvsystem, singlediode, solarposition, temperature
from shapely.geometry import Point

from fahrtwind.core.edits import AddEntry, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.sun import cell_temperature, clear_light
from fahrtwind.core.job.document import Job
from fahrtwind.core.solar_library import sun_over
from fahrtwind.core.stations.layout.footprint import obstacle_polygon
from fahrtwind.core.stations.layout.sun.harvest import Stand, best_of_groups, harvest_of, stand_of
from fahrtwind.core.stations.layout.sun.shadows import (
    Caster,
    bearings,
    casters_of,
    cells_of,
    horizons,
    sky_share,
)
from fahrtwind.core.stations.layout.sun.sky import SiteYear, Sky, site_of, year_of
from fahrtwind.core.tables.mounting_gap import INCH_MM, gap_rise_k
from tests.conftest import changed, yield_of
from tests.truth.plain_sun import beam_lost, shadow_of

CLEAR = SiteYear(45.0, 0.0, 0.0, (1.0,) * 12, (15.0,) * 12, (3.0,) * 12, "always clear")


@pytest.fixture
def sunny(sound: Job) -> Job:
    return changed(sound, site__climate="Niederau")


def test_the_library_gives_the_published_sun_position() -> None:
    """Reda and Andreas 2008: 2003-10-17 12:30:30 UTC−7, 39.742476° N, 105.1786° W, 1830.14 m, 820 hPa, 11
    °C.
    """
    when = pd.DatetimeIndex(["2003-10-17 12:30:30"]).tz_localize("Etc/GMT+7")
    sun = solarposition.get_solarposition(
        when, 39.742476, -105.1786, 1830.14, pressure=82000, temperature=11, delta_t=67
    ).iloc[0]
    assert sun["apparent_zenith"] == pytest.approx(50.11162, abs=2e-5)
    assert sun["azimuth"] == pytest.approx(194.34024, abs=2e-5)


@pytest.mark.parametrize(("latitude", "longitude"), [(54.3, 10.1), (-33.0, 151.0), (71.0, -25.0)])
def test_the_sun_of_a_plan_is_the_librarys(latitude: float, longitude: float) -> None:
    """Its algorithm is loaded by itself, without the library about it: every half hour of a year, and the
    light of a clear sky on the level.
    """
    count = 365 * 48
    start = datetime(2026, 3, 1, 22, 45, tzinfo=UTC)
    zenith, elevation = sun_over(start, 1800.0, count, latitude, longitude)
    when = pd.date_range(start, periods=count, freq="30min")
    wanted = solarposition.get_solarposition(when, latitude, longitude)
    assert np.abs(zenith - wanted["apparent_zenith"]).max() < 1e-9
    assert np.abs(elevation - wanted["apparent_elevation"]).max() < 1e-9
    up = elevation > 0
    light = clearsky.haurwitz(wanted["apparent_zenith"])["ghi"]
    assert np.abs(np.asarray(clear_light(zenith[up])) - light[up]).max() < 1e-9


@pytest.mark.parametrize("shape", [{"shape": "rectangle"}, {"shape": "circle"}])
def test_a_cell_is_dark_exactly_inside_the_hull_of_footprint_and_moved_footprint(
    sound: Job, shape: dict[str, str]
) -> None:
    """Shadow of a convex obstacle by plane geometry, at seeded spots, bearings and elevations."""
    thing = {
        "kind": "other",
        "name": "Box",
        "x": 3000,
        "y": 100,
        "length": 500,
        "width": 700,
        "height": 400,
        **shape,
    }
    job = apply_edits(changed(sound, obstacles=[], panels=[]), [AddEntry(path="obstacles", value=thing)])
    rng = np.random.default_rng(3)
    points = np.stack(
        [rng.uniform(1500, 5000, 300), rng.uniform(-1200, 1200, 300), np.full(300, 80.0)], axis=1
    )
    horizon = horizons(points, casters_of(job, lids_open=False, bodies={}))
    footprint = obstacle_polygon(job.obstacles[0])
    for column in rng.integers(0, len(bearings()), 25):
        elevation = rng.uniform(3, 70)
        shadow = shadow_of(footprint, 400 - 80, float(bearings()[column]), elevation)
        dark = np.tan(radians(elevation)) < horizon[:, column]
        edge = np.array([shadow.exterior.distance(Point(p[:2])) < 2 for p in points])
        inside = np.array([shadow.contains(Point(p[:2])) for p in points])
        assert (dark == inside)[~edge].all()


def test_the_fast_year_agrees_with_the_plain_way_moment_by_moment(sunny: Job) -> None:
    job = changed(
        sunny,
        obstacles__o3__height="420 mm",
        panels=[sunny.panels[2].model_dump()],
        panels__p3__x="3.9 m",
        panels__p3__y="0 mm",
    )
    sky = year_of(site_of(job))
    rng = np.random.default_rng(1)
    some = rng.choice(len(sky.hours), 220, replace=False)
    part = Sky(*(getattr(sky, name)[some] for name in Sky.__dataclass_fields__))
    weights = np.array(site_of(job).sunshine)[part.month] * part.hours
    plain = beam_lost(job, part, [0.0, 105.0, 240.0], weights)
    cells = cells_of(job.panels[0], None)
    horizon = horizons(cells.points, casters_of(job, lids_open=False, bodies={}))
    light = part.beam * np.sin(np.radians(part.elevation_deg)) * weights
    fast = 0.0
    for heading in (0.0, 105.0, 240.0):
        column = ((part.azimuth_deg - heading) % 360 // 3).astype(int)
        fast += float(
            (light * (np.tan(np.radians(part.elevation_deg)) < horizon[:, column]).mean(axis=0)).sum()
        )
    assert plain[0] > 0.02, "the case has a shadow at all"
    assert fast / (3 * light.sum()) == pytest.approx(plain[0], rel=0.04)


def test_a_long_wall_takes_its_share_of_the_sky(one_panel: Job) -> None:
    """A wall without end whose edge stands at elevation h leaves (1 + cos h) / 2 of an even sky: plane
    geometry.
    """
    cells = cells_of(one_panel.panels[0], None)
    at = cells.points[0]
    for elevation in (20.0, 45.0, 70.0):
        height = at[2] + 1000 * np.tan(radians(elevation))
        wall = Caster(
            "w",
            ((-1e6, at[1] + 1000), (1e6, at[1] + 1000), (1e6, at[1] + 1100), (-1e6, at[1] + 1100)),
            height,
        )
        seen = sky_share(cells, horizons(cells.points, [wall]))[0]
        assert seen == pytest.approx((1 + cos(radians(elevation))) / 2, abs=0.012)


def _curve_power(light: list[float]) -> float:
    """Best power of 20-cell groups in series with bypass diodes (0.5 V), by single-diode curves of the
    library.
    """
    volts = []
    current = np.linspace(0, 9.0, 4000)
    for g in light:
        parameters = pvsystem.calcparams_desoto(g, 25, 0.004, 0.51, 8.7, 2e-10, 300.0, 0.12)
        voltage = singlediode.bishop88_v_from_i(current, *parameters)
        volts.append(np.maximum(np.nan_to_num(voltage, nan=-0.5), -0.5))
    return float((np.sum(volts, axis=0) * current).max())


@pytest.mark.filterwarnings("ignore:invalid value")
@pytest.mark.parametrize(
    "light", [[1000, 1000, 200], [1000, 600, 600], [1000, 900, 100], [1000, 1000, 850], [300, 300, 300]]
)
def test_bypassed_light_follows_single_diode_curves(light: list[float]) -> None:
    told = float(best_of_groups(np.array(light, dtype=float)[:, None])[0]) / 1000
    share = _curve_power(light) / _curve_power([1000, 1000, 1000])
    assert share - 0.07 < told < share + 0.02, "near the curves, and where it is off then towards less"


def test_the_heat_is_the_library_s(sunny: Job) -> None:
    for gap_mm, light, wind in ((5.0, 900.0, 1.0), (40.0, 500.0, 4.0), (150.0, 1000.0, 15.0)):
        told = cell_temperature(22.0, light, 45.0, gap_rise_k(gap_mm), 0.2, wind)
        assert told == pytest.approx(
            temperature.noct_sam(light, 22.0, wind, 45.0, 0.2, mount_standoff=gap_mm / INCH_MM)
        )


@pytest.mark.parametrize("latitude", [30, 45, 55])
@pytest.mark.parametrize(
    ("tilt", "up", "facing"),
    [(50, "front", 180), (20, "front", 180), (50, "rear", 0), (50, "port", 90), (70, "starboard", 270)],
)
def test_a_raised_panel_gets_the_library_s_light(
    one_panel: Job, monkeypatch: pytest.MonkeyPatch, latitude: float, tilt: float, up: str, facing: float
) -> None:
    """Winter and year of every orientation, clear air, beside pvlib's Hay–Davies sky with an albedo of 0.2:
    within 3.5 %.
    """
    stand = Stand((0.0,), lids_open=False, tilted=True, wind_m_s=1.0)
    cold = changed(one_panel, panels__p3__model__power_per_k=0)
    raised = changed(cold, panels__p3__tilt=f"{tilt}°", panels__p3__tilt_up=up)
    site = replace(CLEAR, latitude_deg=latitude)
    monkeypatch.setattr("fahrtwind.core.stations.layout.sun.harvest.site_of", lambda _: site)
    told = [harvest_of(job, stand).wh[0].sum(axis=1) for job in (raised, cold)]
    when = pd.date_range("2025-01-01", "2026-01-01", freq="15min", tz="UTC", inclusive="left")
    place = location.Location(latitude, 0.0, altitude=0)
    sun, sky = place.get_solarposition(when), place.get_clearsky(when, linke_turbidity=3.0)
    plane = irradiance.get_total_irradiance(
        tilt,
        facing,
        sun.apparent_zenith,
        sun.azimuth,
        sky.dni,
        sky.ghi,
        sky.dhi,
        albedo=0.2,
        model="haydavies",
        dni_extra=irradiance.get_extra_radiation(when),
    )["poa_global"]
    for months in ((12, 1, 2), tuple(range(1, 13))):
        ours = told[0][[m - 1 for m in months]].sum() / told[1][[m - 1 for m in months]].sum()
        there = when.month.isin(months)
        assert ours == pytest.approx(plane[there].sum() / sky.ghi[there].sum(), rel=0.035)


@pytest.mark.parametrize(("latitude", "ratio"), [(30, 1.63), (45, 2.24), (55, 2.97)])
def test_raised_to_the_winter_sun(
    one_panel: Job, monkeypatch: pytest.MonkeyPatch, latitude: float, ratio: float
) -> None:
    """50° to the south against flat from December to February; ratios computed with an independent library,
    clear air.
    """
    stand = Stand((0.0,), lids_open=False, tilted=True, wind_m_s=1.0)
    cold = changed(one_panel, panels__p3__model__power_per_k=0)
    raised = changed(cold, panels__p3__tilt="50°", panels__p3__tilt_up="front")
    site = replace(CLEAR, latitude_deg=latitude)
    monkeypatch.setattr("fahrtwind.core.stations.layout.sun.harvest.site_of", lambda _: site)
    flat, steep = (harvest_of(job, stand).wh[0][[0, 1, 11]].sum() for job in (cold, raised))
    assert steep / flat == pytest.approx(ratio, rel=0.035)


def test_more_shadow_never_gives_more(sunny: Job) -> None:
    before = yield_of(sunny)
    taller = yield_of(changed(sunny, obstacles__o3__height="900 mm"))
    assert taller.year_wh < before.year_wh and taller.lost > before.lost
    without = yield_of(changed(sunny, obstacles=[]))
    assert without.lost == pytest.approx(0, abs=1e-9) and without.year_wh > before.year_wh


def test_a_panel_without_diodes_loses_as_a_whole(sunny: Job) -> None:
    near = changed(sunny, panels__p3__x="3.9 m", panels__p3__y="0 mm", obstacles__o3__height="500 mm")
    three = next(p for p in yield_of(near).panels if p.panel == "p3")
    none = next(
        p for p in yield_of(changed(near, panels__p3__model__bypass_diodes=None)).panels if p.panel == "p3"
    )
    assert none.lost > three.lost and "bypass diodes" in none.supposed


def test_open_lids_raised_panels_and_headings_count(sunny: Job) -> None:
    shut = yield_of(sunny)
    lids = changed(sunny, obstacles__o1__lid_angle="80°", obstacles__o1__height="300 mm")
    assert yield_of(changed(lids, site__lids="open")).lost > yield_of(lids).lost
    raised = yield_of(changed(sunny, panels__p1__tilt="50°", panels__p1__tilt_up="starboard"))
    assert (
        next(p for p in raised.panels if p.panel == "p2").lost
        > next(p for p in shut.panels if p.panel == "p2").lost
    )
    assert raised.flat_wh == pytest.approx(shut.year_wh, rel=1e-9)
    north = yield_of(changed(sunny, site__standing="heading", site__heading="0°"))
    assert north.lost != pytest.approx(shut.lost, rel=1e-3)
    driving = yield_of(changed(sunny, site__standing="driving"))
    assert max(p.hottest_deg_c for p in driving.panels) < max(p.hottest_deg_c for p in shut.panels) - 10


def test_low_profile_is_hotter_and_gives_less(sunny: Job) -> None:
    gaps = yield_of(sunny).gaps
    assert [g.energy for g in gaps] == sorted(g.energy for g in gaps) and gaps[-1].energy == 1.0
    assert gaps[0].hottest_deg_c - gaps[-1].hottest_deg_c > 10


def test_months_and_hours_add_up(sunny: Job) -> None:
    found = yield_of(sunny)
    days = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
    assert sum(m.day_wh * d for m, d in zip(found.months, days, strict=True)) == pytest.approx(found.year_wh)
    assert sum(p.wh for p in found.panels) == pytest.approx(found.year_wh)
    assert found.months[0].lost_by_hour[0] is None and found.months[5].lost_by_hour[12] is not None


@pytest.mark.parametrize(
    ("values", "field"),
    [
        ({"site__climate": None}, "site.climate"),
        ({"site__climate": "Nirgends"}, "site.climate"),
        ({"site__standing": "heading"}, "site.heading"),
        (
            {"site__climate": None, "site__months": [{"sunshine": 0.4, "temperature": 10}] * 12},
            "site.latitude",
        ),
    ],
)
def test_what_is_missing_is_asked_for(sunny: Job, values: dict[str, object], field: str) -> None:
    with pytest.raises(InputError) as caught:
        stand_of(changed(sunny, **values))
        site_of(changed(sunny, **values))
    assert caught.value.field == field and caught.value.remedy
