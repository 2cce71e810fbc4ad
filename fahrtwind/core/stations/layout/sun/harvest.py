"""The year's energy of every panel: light by month and hour, shadow by cell group, heat by air gap, over one
heading or all.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sun import (
    bypassed_light,
    cell_temperature,
    faced_sky,
    ground_light,
    incidence_cosine,
    light_about_the_sun,
    panel_power,
)
from fahrtwind.core.job.panel import PanelModel, PlacedPanel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import panel_size_mm
from fahrtwind.core.stations.layout.raised import Body
from fahrtwind.core.stations.layout.sun.shadows import (
    BEARING_DEG,
    BEARINGS,
    Caster,
    Cells,
    casters_of,
    cells_of,
    horizons,
    raised_on,
    sky_share,
)
from fahrtwind.core.stations.layout.sun.sky import HOURS, MONTHS, Sky, site_of, year_of
from fahrtwind.core.tables.mounting_gap import NOCT_DEG_C, POWER_PER_K, gap_rise_k

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
HEADINGS = 24
ALBEDO, ALBEDO_SOURCE = 0.2, "usual ground, 0.2: common practice (Liu and Jordan, 1963)"
PARKED_WIND_M_S, DRIVING_WIND_M_S = 1.0, 15.0
"""Common practice, no source: a breeze over a parked roof, and a moderate road speed."""


@dataclass(frozen=True, slots=True)
class Stand:
    """How the vehicle stands: one heading or all of them averaged, lids, whether panels are raised, wind over
    the roof.
    """

    headings_deg: tuple[float, ...]
    lids_open: bool
    tilted: bool
    wind_m_s: float


@dataclass(frozen=True, slots=True, eq=False)
class Harvest:
    """Energy of each panel by month and hour, Wh; what the open sky would give; and the light behind it.

    ``beam`` and ``beam_kept`` are the direct light of each panel by month, Wh/m² summed over the headings,
    under the open sky and past the shadows. ``diffuse_lost`` is a share, the same in every month.
    ``hottest_deg_c`` is under the brightest light.
    """

    wh: FloatArray
    open_wh: FloatArray
    beam: FloatArray
    beam_kept: FloatArray
    diffuse_lost: FloatArray
    hottest_deg_c: FloatArray


def stand_of(roof: SunnyRoof, heading_deg: float | None = None) -> Stand:
    """How the job's vehicle stands, or at a heading of one's own. Raises InputError where a heading is wanted
    and none is given.
    """
    site, driving = roof.site, roof.site.standing == "driving"
    headings = tuple(360.0 / HEADINGS * i for i in range(HEADINGS))
    if heading_deg is not None:
        headings = (heading_deg,)
    elif site.standing == "heading":
        if site.heading is None:
            raise InputError(
                "The heading is not known.",
                remedy="Type where its front points: 0° is north, 90° east.",
                field="site.heading",
            )
        headings = (site.heading.deg,)
    return Stand(
        headings,
        not driving and site.lids == "open",
        not driving,
        DRIVING_WIND_M_S if driving else PARKED_WIND_M_S,
    )


def harvest_of(roof: SunnyRoof, stand: Stand) -> Harvest:
    """Energy of the job's panels over a year. Raises InputError where place or climate is missing."""
    site = site_of(roof)
    sky = year_of(site)
    bodies = raised_on(roof, tilted=stand.tilted)
    casters = casters_of(roof, lids_open=stand.lids_open, bodies=bodies)
    air = np.array(site.temperature_deg_c)[sky.month]
    shares = np.array(site.sunshine)[sky.month]
    parts = [_panel(panel, bodies.get(panel.id), sky, (air, shares), casters, stand) for panel in roof.panels]
    columns = (
        [np.array(column) for column in zip(*parts, strict=True)]
        if parts
        else [np.zeros((0, MONTHS, HOURS))] * 2 + [np.zeros((0, MONTHS))] * 2 + [np.zeros(0)] * 2
    )
    return Harvest(*columns)


def _panel(
    panel: PlacedPanel,
    body: Body | None,
    sky: Sky,
    weather: tuple[FloatArray, FloatArray],
    casters: list[Caster],
    stand: Stand,
) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray, float, float]:
    cells = cells_of(panel, body)
    horizon = horizons(cells.points, casters, but=body.panels if body else (panel.id,))
    tilt = tilt_of(cells)
    faced = float(faced_sky(tilt))
    lit = beside_the_beam(sky, tilt)
    seen = sky_share(cells, horizon)
    dark = darkest_sky(cells, seen) * faced
    wh, open_wh, beam_all, beam_kept = (
        np.zeros(MONTHS * HOURS),
        np.zeros(MONTHS * HOURS),
        np.zeros(MONTHS),
        np.zeros(MONTHS),
    )
    at = sky.month * HOURS + sky.hour
    hottest = -273.0
    for heading in stand.headings_deg:
        go_on()
        incidence = incidence_of(cells, sky, heading)
        beam = sky.beam * incidence
        # what comes from about the sun is hidden with it
        towards = beam + np.asarray(
            light_about_the_sun(sky.diffuse, lit.anisotropy, incidence, lit.height_sine)
        )
        shaded = shaded_cells(horizon, sky.azimuth_deg - heading, sky.elevation_deg)
        light, lit_open = _working_light(cells, towards, shaded, lit, dark, faced)
        for target, (clear, clouded) in ((wh, light), (open_wh, lit_open)):
            power, hot = _power(panel, clear, clouded, weather, stand.wind_m_s)
            target += np.bincount(at, weights=power * sky.hours, minlength=MONTHS * HOURS) / len(
                stand.headings_deg
            )
            hottest = max(hottest, hot)
        direct = beam * weather[1] * sky.hours
        beam_all += np.bincount(sky.month, weights=direct, minlength=MONTHS)
        beam_kept += np.bincount(sky.month, weights=direct * (1 - shaded.mean(axis=0)), minlength=MONTHS)
    by_hour = (MONTHS, HOURS)
    return wh.reshape(by_hour), open_wh.reshape(by_hour), beam_all, beam_kept, 1 - float(seen.mean()), hottest


def darkest_sky(cells: Cells, seen: FloatArray) -> FloatArray:
    """Share of the sky the worst cell of every group sees."""
    return np.array([seen[cells.group == g].min() for g in range(cells.groups)])


def tilt_of(cells: Cells) -> float:
    """Tilt of a panel's glass, degrees."""
    return float(np.degrees(np.arccos(min(cells.normal[2], 1.0))))


def incidence_of(cells: Cells, sky: Sky, heading_deg: float | FloatArray) -> FloatArray:
    """Share of the beam of each group of the sky that meets the glass, cosine of its angle; 0 behind."""
    tilt, ahead = tilt_of(cells), float(np.degrees(np.arctan2(cells.normal[1], -cells.normal[0])))
    found: FloatArray = np.maximum(
        incidence_cosine(90 - sky.elevation_deg, sky.azimuth_deg, tilt, ahead + heading_deg), 0.0
    )
    return found


def shaded_cells(
    horizon: FloatArray, bearing_deg: FloatArray, elevation_deg: FloatArray
) -> npt.NDArray[np.bool_]:
    """For every cell (rows) and place of the sun in degrees (columns) whether it is behind something."""
    at = (bearing_deg % 360 // BEARING_DEG).astype(np.int64) % BEARINGS
    shaded: npt.NDArray[np.bool_] = np.tan(np.radians(elevation_deg))[None, :] < horizon[:, at]
    return shaded


@dataclass(frozen=True, slots=True, eq=False)
class BesideTheBeam:
    """Light beside the beam, for each group of the sky: an even part of the clear diffuse light, all clouded
    light, what the ground throws onto the panel in both, W/m²; the share of the beam that is left of that
    outside the atmosphere, and the sine of the elevation."""

    even: FloatArray
    clouded: FloatArray
    ground: FloatArray
    ground_clouded: FloatArray
    anisotropy: FloatArray
    height_sine: FloatArray


def beside_the_beam(sky: Sky, tilt_deg: float) -> BesideTheBeam:
    """Light beside the beam on a tilted panel, W/m²."""
    anisotropy = np.clip(sky.beam / sky.beyond, 0.0, 1.0)
    height_sine = np.sin(np.radians(sky.elevation_deg))
    level = sky.beam * height_sine + sky.diffuse
    return BesideTheBeam(
        sky.diffuse * (1 - anisotropy),
        sky.clouded,
        np.asarray(ground_light(ALBEDO, level, tilt_deg)),
        np.asarray(ground_light(ALBEDO, sky.clouded, tilt_deg)),
        anisotropy,
        height_sine,
    )


def _working_light(
    cells: Cells,
    towards: FloatArray,
    shaded: npt.NDArray[np.bool_],
    lit: BesideTheBeam,
    dark: FloatArray,
    faced: float,
) -> tuple[tuple[FloatArray, FloatArray], tuple[FloatArray, FloatArray]]:
    """Light the panel works at, clear and clouded: with everything on the roof, and under the open sky."""
    clear = light_by_group(cells, towards, shaded, lit, dark)
    clouded = float(best_of_groups(dark[:, None])[0]) * lit.clouded + lit.ground_clouded
    return (
        (best_of_groups(clear), clouded),
        (towards + faced * lit.even + lit.ground, faced * lit.clouded + lit.ground_clouded),
    )


def light_by_group(
    cells: Cells, towards: FloatArray, shaded: npt.NDArray[np.bool_], lit: BesideTheBeam, dark: FloatArray
) -> FloatArray:
    """Clear light of every cell group (rows) and moment (columns), W/m²: its darkest cell counts for all."""
    hidden = np.stack([shaded[cells.group == g].any(axis=0) for g in range(cells.groups)])
    found: FloatArray = (
        np.where(hidden, 0.0, towards[None, :]) + dark[:, None] * lit.even[None, :] + lit.ground[None, :]
    )
    return found


def best_of_groups(light: FloatArray) -> FloatArray:
    """Rows are cell groups in series with a bypass diode each: the light the whole panel works at, as good
    as it gets. W/m², shape (groups, moments); returned (moments,).
    """
    groups = len(light)
    bright_first = -np.sort(-light, axis=0)
    each = [bypassed_light(float(groups), float(k + 1), bright_first[k]) for k in range(groups)]
    best: FloatArray = np.max(each, axis=0)
    return best


def _power(
    panel: PlacedPanel,
    clear: FloatArray,
    clouded: FloatArray,
    weather: tuple[FloatArray, FloatArray],
    wind: float,
) -> tuple[FloatArray, float]:
    air, sunshine = weather
    found = np.zeros_like(clear)
    hottest = -273.0
    for light, share in ((clear, sunshine), (clouded, 1 - sunshine)):
        hot = cell_temperature(
            air, light, noct_of(panel.model), gap_rise_k(panel.stand_off.mm), efficiency_of(panel), wind
        )
        found += share * panel_power(panel.model.power.w, light, per_k_of(panel.model), hot)
        hottest = max(hottest, float(hot.max()))
    return found, hottest


def noct_of(model: PanelModel) -> float:
    """Temperature of the cells at the sheet's nominal operation, °C; the usual one where the sheet is
    silent.
    """
    return model.noct.deg_c if model.noct else NOCT_DEG_C


def per_k_of(model: PanelModel) -> float:
    """Change of power with heat, % per K; the usual one where the sheet is silent."""
    return POWER_PER_K if model.power_per_k is None else model.power_per_k


def efficiency_of(panel: PlacedPanel) -> float:
    """Share of the light that becomes power: rated power by area, at most one half."""
    longer, shorter = panel_size_mm(panel)
    return min(panel.model.power.w / (longer * shorter * 1e-3), 0.5)


def explain(roof: SunnyRoof, panel: PlacedPanel, stand: Stand) -> None:
    """Note the working of one panel under the brightest light of the year, for its working sheet."""
    site = site_of(roof)
    sky = year_of(site)
    cells = cells_of(panel, raised_on(roof, tilted=stand.tilted).get(panel.id))
    noon = int(np.argmax(sky.beam * incidence_of(cells, sky, stand.headings_deg[0])))
    tilt = tilt_of(cells)
    ahead = float(np.degrees(np.arctan2(cells.normal[1], -cells.normal[0]))) + stand.headings_deg[0]
    model = panel.model
    with scope("yield", panel.id):
        cosine = incidence_cosine(
            given(90 - float(sky.elevation_deg[noon]), "computed", "sun position"),
            given(float(sky.azimuth_deg[noon]), "computed", "sun position"),
            given(tilt, "chosen", "tilt"),
            given(ahead, "chosen", "heading"),
        )
        faced = float(faced_sky(given(tilt, "chosen", "tilt")))
        beam, diffuse, height = (
            float(sky.beam[noon]),
            float(sky.diffuse[noon]),
            float(np.sin(np.radians(sky.elevation_deg[noon]))),
        )
        anisotropy = beam / float(sky.beyond[noon])
        near = light_about_the_sun(
            given(diffuse, "computed", "clear sky, library"),
            given(anisotropy, "computed", "clear sky, library"),
            cosine,
            given(height, "computed", "sun position"),
        )
        ground = ground_light(
            given(ALBEDO, "default", ALBEDO_SOURCE),
            given(beam * height + diffuse, "computed", "clear sky, library"),
            given(tilt, "chosen", "tilt"),
        )
        total = beam * float(cosine) + float(near) + diffuse * (1 - anisotropy) * faced + float(ground)
        light = given(total, "computed", "beam, from about the sun, even sky, ground")
        groups = float(cells.groups)
        working = bypassed_light(
            given(groups, "chosen" if model.bypass_diodes else "default", "bypass diodes"), groups, light
        )
        hot = cell_temperature(
            given(site.temperature_deg_c[int(sky.month[noon])], "table", "climate"),
            working,
            given(noct_of(model), "chosen" if model.noct else "default", "NOCT"),
            given(gap_rise_k(panel.stand_off.mm), "table", "air gap"),
            given(efficiency_of(panel), "computed", "power by area"),
            given(stand.wind_m_s, "default", "common practice"),
        )
        panel_power(
            given(model.power.w, "chosen", "data sheet"),
            working,
            given(per_k_of(model), "default" if model.power_per_k is None else "chosen", "data sheet"),
            hot,
        )
