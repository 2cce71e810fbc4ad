"""The survey's geometry beside general-purpose libraries and plain counting (seeded)."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.optimize import least_squares
from shapely.geometry import Point, Polygon

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.roof import Crown, PointRow, Squareness
from fahrtwind.core.stations.survey.access import reach_area
from fahrtwind.core.stations.survey.crown import fit_crown
from fahrtwind.core.stations.survey.factory_points import fit_row
from fahrtwind.core.stations.survey.outline import fillet, sound_outline
from fahrtwind.core.stations.survey.squareness import check_square
from tests.conftest import changed


@pytest.mark.parametrize("radius", [2600.0, 4000.0, 7000.0])
def test_crown_radius_beside_a_circle_fitted_by_least_squares(radius: float) -> None:
    """Noisy gaps of a circular roof: scipy fits centre and radius to the points, the surface its own radius
    in the middle.
    """
    rng, ys = np.random.default_rng(int(radius)), np.arange(-1000, 1001, 125.0)
    gaps = radius - np.sqrt(radius**2 - ys**2) + rng.normal(0, 0.8, len(ys)) + 6
    crown = {
        "sections": [
            {
                "id": "s",
                "x": 2500,
                "readings": [
                    {"id": f"g{i}", "y": y, "gap": g} for i, (y, g) in enumerate(zip(ys, gaps, strict=True))
                ],
            }
        ]
    }
    surface = fit_crown(Crown.model_validate(crown), 5000, 1100)
    circle = least_squares(lambda p: np.hypot(ys - p[0], -gaps - p[1]) - p[2], [0.0, -radius, radius])
    assert surface is not None
    spot = surface.at(2500, 0)
    assert spot.radius_mm == pytest.approx(circle.x[2], rel=0.15)
    assert spot.radius_mm == pytest.approx(radius, abs=3 * (spot.radius_sigma_mm or 0))
    for y in (-900.0, 300.0, 850.0):
        fall = circle.x[2] - math.sqrt(circle.x[2] ** 2 - (y - circle.x[0]) ** 2)
        assert surface.height(2500, y)[0] - surface.height(2500, circle.x[0])[0] == pytest.approx(
            -fall, abs=4
        )


@given(
    st.lists(st.tuples(st.floats(-120, 120), st.floats(-120, 120)), min_size=4, max_size=4),
    st.floats(1500, 9000),
    st.floats(900, 2500),
)
def test_any_four_corners_are_found_again_from_their_six_distances(
    moves: list[tuple[float, float]], length: float, width: float
) -> None:
    plain = [(0.0, -width / 2), (0.0, width / 2), (length, width / 2), (length, -width / 2)]
    corners = [np.array([x + dx, y + dy]) for (x, y), (dx, dy) in zip(plain, moves, strict=True)]

    def apart(i: int, j: int) -> float:
        return float(np.linalg.norm(corners[i] - corners[j]))

    names = {
        "front_side": (0, 1),
        "starboard_side": (1, 2),
        "rear_side": (2, 3),
        "port_side": (3, 0),
        "diagonal_port": (0, 2),
        "diagonal_starboard": (1, 3),
    }
    found = check_square(Squareness.model_validate({name: apart(*pair) for name, pair in names.items()}))
    assert found is not None and found.misfit_mm < 0.5
    if found.square:
        assert abs(found.skew_mm) <= 3


@given(st.floats(-15, 15), st.floats(-15, 15), st.floats(-0.006, 0.006))
def test_a_row_of_points_is_found_as_it_was_moved(shift_x: float, shift_y: float, turn: float) -> None:
    """A row moved and turned exactly: shift and run-out come back, no point is called a stray."""
    points = [
        {"id": f"n{i}", "count": i, "x": 600 + 700 * i + shift_x, "y": -690 + shift_y + turn * 700 * i}
        for i in range(6)
    ]
    fit = fit_row(
        PointRow.model_validate(
            {
                "id": "w",
                "name": "row",
                "kind": "pin",
                "start": 600,
                "y": -690,
                "pitch": 700,
                "count": 6,
                "points": points,
            }
        )
    )
    assert (fit.shift_x_mm, fit.shift_y_mm) == pytest.approx((shift_x, shift_y), abs=0.3)
    assert fit.turn_mm_per_m == pytest.approx(1000 * turn, abs=0.15)
    assert not any(p.stray for p in fit.points)


@given(st.floats(20, 400), st.floats(0.3, 2.8))
def test_a_rounded_corner_is_an_arc_that_touches_both_sides(radius: float, between: float) -> None:
    corner, before = (0.0, 0.0), (2000.0, 0.0)
    after = (2000 * math.cos(between), 2000 * math.sin(between))
    assume(radius / math.tan(between / 2) < 900)
    arc = fillet(before, corner, after, radius)
    circumcentre = least_squares(
        lambda p: [math.dist(p[:2], q) - p[2] for q in arc], [arc[4][0], arc[4][1], radius]
    )
    assert circumcentre.x[2] == pytest.approx(radius, rel=1e-3)
    reach = radius / math.tan(between / 2)
    assert math.dist(arc[0], corner) == pytest.approx(reach, rel=1e-9) and math.dist(
        arc[-1], corner
    ) == pytest.approx(reach, rel=1e-9)


def test_reach_beside_counting_points(demo: Job) -> None:
    """A seeded shower of points: the share that lies within arm's length of an allowed edge is the area's
    share.
    """
    job = changed(
        demo,
        survey__access={
            "walkable": "no",
            "ladder_port": True,
            "ladder_starboard": False,
            "ladder_rear": True,
            "reach": "70 cm",
        },
    )
    roof = sound_outline(job)
    assert isinstance(roof, Polygon)
    area = reach_area(job, roof)
    rng = np.random.default_rng(1)
    x0, y0, x1, y1 = roof.bounds
    drops = [
        p for p in (Point(x, y) for x, y in rng.uniform((x0, y0), (x1, y1), (4000, 2))) if roof.contains(p)
    ]
    near = sum(p.y < y0 + 700 or p.x > x1 - 700 for p in drops)
    assert area.area / roof.area == pytest.approx(near / len(drops), abs=0.02)
