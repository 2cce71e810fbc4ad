"""Shadows of lids, raised panels and steps beside a ray marched through the solids; the gathered year beside
its quarters.
"""

from __future__ import annotations

from itertools import pairwise
from math import cos, radians, sin, tan

import numpy as np
import numpy.typing as npt
import pandas as pd
import pytest
from pvlib import atmosphere, clearsky, solarposition
from shapely.geometry import Point, Polygon

from fahrtwind.core.edits import AddEntry, MirrorPanel, RaisePanel, apply_edits
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.raised import bodies_of, raised_panel
from fahrtwind.core.stations.layout.sun.harvest import harvest_of, stand_of
from fahrtwind.core.stations.layout.sun.shadows import Caster, bearings, casters_of, cells_of, horizons
from fahrtwind.core.stations.layout.sun.sky import STEP_MINUTES, site_of, year_of
from tests.conftest import changed, yield_of
from tests.truth.plain_sun import marched

FloatArray = npt.NDArray[np.float64]


def solids(job: Job, *, lids_open: bool = False, tilted: bool = False) -> list[Caster]:
    bodies = bodies_of(job.panels, job.raisings) if tilted else {}
    return casters_of(job, lids_open=lids_open, bodies=bodies)


LID = {
    "kind": "fan",
    "name": "Fan",
    "x": 2600,
    "y": 0,
    "length": 400,
    "width": 500,
    "height": 150,
    "lid_angle": "120°",
}


@pytest.mark.parametrize("hinge", ["front", "rear", "left", "right"])
def test_an_open_lid_shades_what_the_marched_ray_says(one_panel: Job, hinge: str) -> None:
    job = apply_edits(
        changed(one_panel, panels=[]), [AddEntry(path="obstacles", value={**LID, "lid_hinge": hinge})]
    )
    things = solids(job, lids_open=True)
    assert len(things) == 2 and len(solids(job)) == 1
    agree(things, seed=len(hinge))


@pytest.mark.parametrize("up", ["front", "rear", "port", "starboard"])
def test_a_raised_panel_shades_what_the_marched_ray_says(one_panel: Job, up: str) -> None:
    job = changed(one_panel, panels__p3__tilt="40°", panels__p3__tilt_up=up)
    things = solids(job, tilted=True)
    assert [c.of for c in things] == ["p3"] and solids(job) == []
    rect, edge = panel_rect(job.panels[0]), np.array(things[0].corners)
    run = {"front": rect.length_mm, "rear": rect.length_mm}.get(up, rect.width_mm)
    spans = np.ptp(edge, axis=0)
    assert min(abs(spans - run * cos(radians(40)))) < 1e-6
    agree(things, seed=7)


def agree(things: list[Caster], seed: int) -> None:
    rng = np.random.default_rng(seed)
    middle = np.mean([c for t in things for c in t.corners], axis=0)
    points = np.column_stack(
        [
            middle[0] + rng.uniform(-1500, 1500, 60),
            middle[1] + rng.uniform(-1000, 1000, 60),
            np.full(60, 70.0),
        ]
    )
    footprints = [Polygon(t.corners) for t in things]
    points = np.array([p for p in points if all(f.distance(Point(p[:2])) > 20 for f in footprints)])
    horizon = horizons(points, things)
    seen = wrong = 0
    for i, point in enumerate(points):
        for column in rng.integers(0, len(bearings()), 4):
            elevation = rng.uniform(4, 60)
            if abs(tan(radians(elevation)) - horizon[i, column]) < 0.03:
                continue
            dark = tan(radians(elevation)) < horizon[i, column]
            seen += dark
            wrong += dark != marched(point, things, float(bearings()[column]), elevation)
    assert seen > 3 and wrong == 0


def test_raised_cells_lie_on_the_raised_plane(one_panel: Job) -> None:
    for up, axis, sign in (("front", 0, -1), ("rear", 0, 1), ("port", 1, -1), ("starboard", 1, 1)):
        panel = changed(one_panel, panels__p3__tilt="30°", panels__p3__tilt_up=up).panels[0]
        flat, raised = cells_of(panel, None), cells_of(panel, bodies_of([panel], ())[panel.id])
        foot = panel.stand_off.mm + panel.model.frame_height.mm
        assert (flat.points[:, 2] == foot).all() and flat.normal == pytest.approx([0, 0, 1])
        away = sign * (raised.points[:, axis] - flat.points[:, axis])
        assert (away <= 1e-6).all(), "raised cells draw in towards the hinge"
        plane = (raised.points - raised.points[0]) @ raised.normal
        assert plane == pytest.approx(np.zeros(len(plane)), abs=1e-6)
        top = raised.points[:, 2].max() - foot
        run = panel_rect(panel).length_mm if axis == 0 else panel_rect(panel).width_mm
        assert 0.85 * run * sin(radians(30)) < top < run * sin(radians(30))


def test_a_unit_of_panels_is_one_plane_that_throws_no_shadow_on_itself(one_panel: Job) -> None:
    """Two side by side raised to starboard about the first one's port edge: the second begins where the first
    ends, nothing of either lies in the other's shadow, and what they cover is the unit's width times cos 30°.
    """
    first = changed(
        one_panel, panels__p3__tilt="30°", panels__p3__tilt_up="starboard", panels__p3__y="-500 mm"
    )
    alone = apply_edits(first, [MirrorPanel(panel="p3")])
    low, high = alone.panels
    gap = panel_rect(high).y_mm - panel_rect(low).y_end_mm
    assert gap > 0
    pair = apply_edits(
        changed(alone, panels__p3__array="u", **{f"panels__{high.id}__array": "u"}), [RaisePanel(panel="p3")]
    )
    assert set(pair.raisings[0].panels) == {"p3", high.id}
    bodies = bodies_of(pair.panels, pair.raisings)
    below, above = (raised_panel(p, bodies[p.id]) for p in pair.panels)
    lean = sin(radians(30))
    assert (below.low_mm, above.low_mm) == pytest.approx((0.0, below.rise_mm + gap * lean))
    hinge = panel_rect(low).y_mm
    whole = panel_rect(high).y_end_mm - hinge
    assert above.rect.y_end_mm == pytest.approx(hinge + whole * cos(radians(30)))
    assert above.rise_mm == pytest.approx(whole * lean)
    points = np.concatenate([cells_of(p, bodies[p.id]).points for p in pair.panels])
    normal = cells_of(low, bodies["p3"]).normal
    assert (points - points[0]) @ normal == pytest.approx(np.zeros(len(points)), abs=1e-6)

    casters = {c.of: c for c in solids(pair, tilted=True)}
    for panel in pair.panels:
        for x, y, z in cells_of(panel, bodies[panel.id]).points[::7]:
            assert casters[panel.id].height(x, y) == pytest.approx(z), "what throws the shadow is that plane"

    def lost(job: Job) -> float:
        bare = job.model_copy(update={"obstacles": ()})
        return max(p.lost for p in yield_of(changed(bare, site__climate="Niederau")).panels)

    assert lost(pair) == 0.0
    assert lost(alone) > 0.01, "about an edge of its own each, one stands in the other's light"


def test_cell_groups_lie_side_by_side_across_the_short_side(one_panel: Job) -> None:
    for turned in (False, True):
        panel = changed(one_panel, panels__p3__turned=turned).panels[0]
        cells = cells_of(panel, None)
        short = 1 if not turned else 0
        edges = [np.sort(cells.points[cells.group == g][:, short])[[0, -1]] for g in range(cells.groups)]
        assert cells.groups == 3 and all(a[1] < b[0] for a, b in pairwise(edges))
        longs = [np.ptp(cells.points[cells.group == g][:, 1 - short]) for g in range(3)]
        assert longs == pytest.approx([longs[0]] * 3)


def test_steps_of_the_roof_throw_shadows_and_removed_things_do_not(one_panel: Job) -> None:
    step = {
        "id": "c1",
        "kind": "raised",
        "name": "Raised",
        "x": 1700,
        "y": 0,
        "length": 900,
        "width": 1600,
        "step": 300,
    }
    job = changed(one_panel, survey__sections=[step], site__climate="Niederau")
    assert yield_of(job).lost > 0.01
    assert yield_of(changed(job, survey__sections=[{**step, "step": -60}])).lost == pytest.approx(0, abs=1e-9)
    box = {"kind": "other", "name": "Box", "x": 2400, "y": 0, "length": 200, "width": 900, "height": 500}
    boxed = apply_edits(changed(one_panel, site__climate="Niederau"), [AddEntry(path="obstacles", value=box)])
    assert yield_of(boxed).lost > 0.02
    assert yield_of(changed(boxed, obstacles__o1__stays=False)).lost == pytest.approx(0, abs=1e-9)


def test_a_gathered_year_holds_the_light_of_all_its_quarters(sound: Job) -> None:
    """Sum over the groups beside the library's own sum over every quarter of an hour."""
    site = site_of(changed(sound, site__climate="Windkamm"))
    sky = year_of(site)
    utc = pd.date_range("2025-01-01 00:07:30", "2025-12-31 23:59", freq="15min") - pd.Timedelta(
        hours=site.longitude_deg / 15
    )
    sun = solarposition.get_solarposition(
        utc.tz_localize("UTC"), site.latitude_deg, site.longitude_deg, site.altitude_m
    )
    sun = sun[sun["apparent_elevation"] > 0.5]
    mass = atmosphere.get_absolute_airmass(
        atmosphere.get_relative_airmass(sun["apparent_zenith"]), atmosphere.alt2pres(site.altitude_m)
    )
    local = sun.index + pd.Timedelta(hours=site.longitude_deg / 15)
    haze = np.array(site.turbidity)[local.month - 1]
    clear = clearsky.ineichen(
        sun["apparent_zenith"].to_numpy(), mass.to_numpy(), haze, altitude=site.altitude_m
    )
    assert float((sky.beam * sky.hours).sum()) == pytest.approx(
        float(clear["dni"].sum()) * STEP_MINUTES / 60, rel=1e-6
    )
    assert float((sky.clouded * sky.hours).sum()) == pytest.approx(
        0.25 * float(clear["ghi"].sum()) * STEP_MINUTES / 60, rel=1e-6
    )
    on_level = float((sky.beam * np.sin(np.radians(sky.elevation_deg)) * sky.hours).sum())
    by_quarters = (
        float((clear["dni"] * np.cos(np.radians(sun["apparent_zenith"].to_numpy()))).sum())
        * STEP_MINUTES
        / 60
    )
    assert on_level == pytest.approx(by_quarters, rel=3e-3)
    assert sky.hours.sum() == pytest.approx(len(sun) / 4)


def test_a_mirrored_roof_gives_the_same_year(sound: Job) -> None:
    """All headings averaged, port and starboard are alike."""
    job = changed(sound, site__climate="Niederau", obstacles__o3__y="300 mm", obstacles__o3__height="600 mm")
    data = job.model_dump()
    for thing in (*data["panels"], *data["obstacles"]):
        thing["y"] = {"mm": -thing["y"]["mm"]}
    mirrored = Job.model_validate(data)
    assert float(harvest_of(mirrored, stand_of(mirrored)).wh.sum()) == pytest.approx(
        float(harvest_of(job, stand_of(job)).wh.sum()), rel=4e-3
    )


def test_the_other_half_of_the_earth_has_its_summer_in_january(sound: Job) -> None:
    south = yield_of(changed(sound, site__climate="Kargfeld", site__latitude="-33°"))
    assert south.months[0].day_wh > 1.5 * south.months[5].day_wh
    assert south.tilts[3].winter > 1.2 > south.tilts[3].summer
