"""The day's shadows as drawn: beside rays marched through the solids, and by what the sun does."""

from __future__ import annotations

import numpy as np
import pytest
from shapely.geometry import Point

from fahrtwind.core.edits import AddEntry, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.raised import bodies_of
from fahrtwind.core.stations.layout.sun.day import ShadeMoment, day_of
from fahrtwind.core.stations.layout.sun.shadows import casters_of, cells_of
from fahrtwind.core.stations.survey.outline import polygon_of
from tests.conftest import changed
from tests.truth.plain_sun import marched

BOX = {"kind": "other", "name": "Box", "x": 2500, "y": -150, "length": 250, "width": 700, "height": 520}


@pytest.fixture
def boxed(one_panel: Job) -> Job:
    return apply_edits(changed(one_panel, site__climate="Niederau"), [AddEntry(path="obstacles", value=BOX)])


def share(moment: ShadeMoment, panel: str = "p3") -> float:
    return next((s.share for s in moment.shadows if s.panel == panel), 0.0)


@pytest.mark.parametrize(
    ("tilt", "up"),
    [("0°", "front"), ("30°", "front"), ("30°", "rear"), ("20°", "port"), ("20°", "starboard")],
)
def test_the_drawn_shadow_covers_the_cells_whose_rays_are_stopped(boxed: Job, tilt: str, up: str) -> None:
    job = changed(boxed, panels__p3__tilt=tilt, panels__p3__tilt_up=up)
    others = [c for c in casters_of(job, lids_open=False, bodies=bodies_of(job.panels, ())) if c.of != "p3"]
    cells = cells_of(job.panels[0], bodies_of(job.panels, ()).get("p3"))
    seen = 0
    for moment in day_of(job, 2, 200.0)[3:-3:4]:
        drawn = next((s for s in moment.shadows if s.panel == "p3"), None)
        shade = polygon_of(drawn.rings[0]) if drawn else None
        to_sun = np.array(
            [
                -np.cos(np.radians(moment.bearing_deg)),
                np.sin(np.radians(moment.bearing_deg)),
                np.tan(np.radians(moment.elevation_deg)),
            ]
        )
        if to_sun @ cells.normal <= 0:
            assert share(moment) == pytest.approx(1), "the sun is behind the panel"
            continue
        for point in cells.points[::4]:
            spot = Point(point[:2])
            if shade is not None and shade.exterior.distance(spot) < 8:
                continue
            seen += 1
            assert (shade is not None and shade.contains(spot)) == marched(
                point, others, moment.bearing_deg, moment.elevation_deg
            )
    assert seen > 20 and any(share(m) > 0.02 for m in day_of(job, 2, 200.0)), "the case has a shadow at all"


def test_the_day_turns_with_sun_season_and_heading(boxed: Job) -> None:
    december, june = day_of(boxed, 12, 180.0), day_of(boxed, 6, 180.0)
    assert len(december) < len(june) and december[0].hour > june[0].hour
    noon = min(december, key=lambda m: abs(m.hour - 12))
    assert min(noon.bearing_deg, 360 - noon.bearing_deg) < 3, (
        "at noon the sun is in the south, where the front points"
    )
    assert noon.elevation_deg == pytest.approx(90 - 49 - 23.3, abs=0.3), "latitude and declination"
    assert max(share(m, "") for m in december) > max(share(m, "") for m in june), "low sun, long shadows"
    morning = day_of(boxed, 3, 0.0)[4]
    assert 90 < morning.bearing_deg < 180, (
        "in the morning the sun is to starboard of a front that points north"
    )


def test_driving_shuts_the_lids_and_lays_panels_flat(boxed: Job) -> None:
    lid = changed(
        boxed,
        obstacles__o1__lid_hinge="rear",
        obstacles__o1__lid_angle="90°",
        site__lids="open",
        panels__p3__tilt="30°",
    )
    driving = changed(lid, site__standing="driving")
    plain = changed(boxed, site__standing="driving")
    assert [m.shadows for m in day_of(driving, 3, 90.0)] == [m.shadows for m in day_of(plain, 3, 90.0)]
    assert [m.shadows for m in day_of(lid, 3, 90.0)] != [m.shadows for m in day_of(boxed, 3, 90.0)]


def test_what_is_missing_is_asked_for(boxed: Job) -> None:
    for job, month, field in (
        (boxed, 3, "heading_deg"),
        (boxed, 13, "month"),
        (changed(boxed, site__climate=None), 3, "site.climate"),
    ):
        with pytest.raises(InputError) as told:
            day_of(job, month, None if field == "heading_deg" else 10.0)
        assert told.value.field == field and told.value.remedy
