"""The survey beside geometry that can be written down: circles, parallelograms, rectangles."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fahrtwind.calc import run
from fahrtwind.core.edits import ApplyTemplate, apply_edits
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.roof import Crown, PointRow, Squareness
from fahrtwind.core.stations.layout.distances import distances
from fahrtwind.core.stations.survey.crown import fit_crown
from fahrtwind.core.stations.survey.factory_points import fit_row
from fahrtwind.core.stations.survey.outline import flat_polygon, outline_polygon, outline_trouble
from fahrtwind.core.stations.survey.squareness import check_square, check_straight
from tests.conftest import changed

RADIUS, HALF, LENGTH = 4000.0, 1000.0, 5000.0
ACROSS = range(-900, 901, 225)


def drop(y: float) -> float:
    """How far a circle of ``RADIUS`` has fallen at y (sagitta of the double chord)."""
    return RADIUS - math.sqrt(RADIUS**2 - y**2)


def gap_section(noise: np.ndarray | None = None, tilt: float = 0.0, x: float = 2500) -> dict[str, Any]:
    shift = noise if noise is not None else np.zeros(len(ACROSS))
    return {
        "id": f"s{x:.0f}",
        "x": x,
        "readings": [
            {"id": f"g{i}", "y": float(y), "gap": max(drop(y) + 20 + tilt * y + float(shift[i]), 0.0)}
            for i, y in enumerate(ACROSS)
        ],
    }


def test_crown_from_gaps_is_the_circle_they_were_taken_from() -> None:
    surface = fit_crown(Crown.model_validate({"sections": [gap_section(tilt=0.01)]}), LENGTH, HALF)
    assert surface is not None
    for y in (-950, -400, 0, 300, 800):
        assert surface.height(2500, y)[0] == pytest.approx(-drop(y), abs=1.5)
        assert surface.at(2500, y).slope_across_deg == pytest.approx(
            math.degrees(math.asin(y / RADIUS)), abs=0.4
        )
    assert surface.at(2500, 0).radius_mm == pytest.approx(RADIUS, rel=0.03)


@given(st.floats(-3, 3), st.floats(-4, 4))
def test_gauge_zero_and_lean_are_taken_out(zero: float, lean: float) -> None:
    readings = [
        {"id": f"g{i}", "y": float(y), "angle": math.degrees(math.asin(y / RADIUS)) + zero + lean}
        for i, y in enumerate(ACROSS)
    ]
    crown = Crown.model_validate(
        {"gauge_zero": zero, "lean": lean, "sections": [{"id": "s", "x": 2500, "readings": readings}]}
    )
    surface = fit_crown(crown, LENGTH, HALF)
    assert surface is not None
    assert surface.height(2500, 900)[0] == pytest.approx(-drop(900), abs=2)
    assert surface.at(2500, 0).slope_across_deg == pytest.approx(0, abs=0.1)


def test_crown_intervals_hold_what_they_promise() -> None:
    """Gaps with 1.5 mm of noise, seeded: the 95 % interval of the height contains the circle in about 95 % of
    the cases.
    """
    rng, inside, asked = np.random.default_rng(5), 0, 0
    for _ in range(120):
        surface = fit_crown(
            Crown.model_validate({"sections": [gap_section(rng.normal(0, 1.5, len(ACROSS)))]}), LENGTH, HALF
        )
        assert surface is not None
        for y in (-850, -500, -150, 350, 700):
            height, sigma = surface.height(2500, y)
            inside += abs(height + drop(y) - 0) < 1.96 * sigma
            asked += 1
    assert 0.90 <= inside / asked <= 1.0


def test_lengthwise_fall_and_what_is_not_measured() -> None:
    falls = [
        {"id": f"l{i}", "x": float(x), "gap": 10 + max(0.0, 600 - x) ** 2 / 9000}
        for i, x in enumerate((0, 200, 400, 700, 1500, 2500, 4000, 5000))
    ]
    surface = fit_crown(Crown.model_validate({"lengthwise": falls}), LENGTH, HALF)
    assert surface is not None
    assert surface.height(0, 0)[0] - surface.height(1500, 0)[0] == pytest.approx(-40, abs=9)
    assert surface.height(0, 900)[1] > 2 * surface.height(0, 0)[1], (
        "nothing was measured across: the edge is uncertain"
    )
    assert fit_crown(Crown(), LENGTH, HALF) is None


def test_outline_of_every_kind(demo: Job) -> None:
    demo = changed(demo, survey={})
    plain = outline_polygon(demo)
    assert plain is not None and plain.area == pytest.approx(8400 * 2350)
    rounded = outline_polygon(
        changed(demo, survey__outline__front_radius="300 mm", survey__outline__rear_radius="300 mm")
    )
    assert rounded is not None and rounded.area == pytest.approx(
        8400 * 2350 - (4 - math.pi) * 300**2, rel=1e-4
    )
    tapered = outline_polygon(
        changed(demo, survey__outline__front_narrower="200 mm", survey__outline__taper_run="1 m")
    )
    assert tapered is not None and tapered.area == pytest.approx(8400 * 2350 - 200 * 1000)
    moved = outline_polygon(changed(demo, survey__outline__rear_port__along="100 mm"))
    assert moved is not None and moved.area == pytest.approx(8400 * 2350 + 100 * 2350 / 2)
    points = changed(
        demo,
        survey__outline__points=[
            {"x": 0, "y": -500},
            {"x": 3000, "y": -800},
            {"x": 3000, "y": 800},
            {"x": 0, "y": 500},
        ],
    )
    assert outline_polygon(points).area == pytest.approx(3000 * 1300)  # type: ignore[union-attr]
    flat = flat_polygon(
        changed(demo, survey__outline__side_fall="100 mm", survey__outline__front_fall="300 mm")
    )
    assert flat is not None and flat.bounds == pytest.approx((300, -1075, 8300, 1075))


def test_distances_follow_the_true_edge(demo: Job) -> None:
    tapered = changed(demo, survey__outline__front_narrower="200 mm", survey__outline__taper_run="2 m")
    port = {(d.panel, d.to): d.mm for d in distances(tapered) if d.kind == "edge"}
    plain = {(d.panel, d.to): d.mm for d in distances(demo) if d.kind == "edge"}
    assert port["p1", "port"] < plain["p1", "port"] - 150
    assert port["p3", "port"] == pytest.approx(plain["p3", "port"], abs=1)


def test_a_stray_point_is_named_and_does_not_drag_the_row() -> None:
    points = [
        {"id": f"n{i}", "count": i, "x": 604.0 + 880 * i + 8 * (i == 2), "y": -697.0 + i} for i in range(5)
    ]
    fit = fit_row(
        PointRow.model_validate(
            {
                "id": "w",
                "name": "port",
                "kind": "pin",
                "start": 600,
                "y": -700,
                "pitch": 880,
                "count": 6,
                "points": points,
            }
        )
    )
    assert fit.shift_x_mm == pytest.approx(4, abs=0.2) and fit.turn_mm_per_m == pytest.approx(
        1000 / 880, rel=0.05
    )
    assert [p.count for p in fit.points if p.stray] == [2]
    assert fit.points[2].off_x_mm == pytest.approx(8, abs=0.3)
    assert not fit.points[5].measured and fit.points[5].x_mm == pytest.approx(604 + 4400, abs=0.5)


@given(st.floats(-60, 60).filter(lambda s: abs(s) > 4))
def test_squareness_of_a_parallelogram(shift: float) -> None:
    """A parallelogram whose rear stands ``shift`` to starboard, its measures written down by Pythagoras."""
    long = math.hypot(4000, shift)
    found = check_square(
        Squareness.model_validate(
            {
                "port_side": long,
                "starboard_side": long,
                "front_side": 2000,
                "rear_side": 2000,
                "diagonal_port": math.hypot(4000, 2000 + shift),
                "diagonal_starboard": math.hypot(4000, 2000 - shift),
            }
        )
    )
    assert found is not None and not found.square
    assert found.skew_mm == pytest.approx(shift, abs=1e-6) and found.misfit_mm < 0.1
    assert found.corner == "whole rear edge" and found.move_starboard_mm == pytest.approx(-shift, abs=0.3)


def test_one_corner_out_is_named_and_a_misread_tape_too() -> None:
    one = {
        "port_side": 4000,
        "starboard_side": math.hypot(4000, 30),
        "front_side": 2000,
        "rear_side": 2030,
        "diagonal_port": math.hypot(4000, 2030),
        "diagonal_starboard": math.hypot(4000, 2000),
    }
    found = check_square(Squareness.model_validate(one))
    assert (
        found is not None
        and found.corner == "rear starboard corner"
        and found.move_starboard_mm == pytest.approx(-30, abs=1)
    )
    misread = check_square(Squareness.model_validate({**one, "diagonal_port": one["diagonal_port"] + 100}))
    assert misread is not None and misread.misfit_mm > 10
    assert check_square(Squareness.model_validate({"diagonal_port": 4000})) is None
    straight = check_straight(
        Squareness.model_validate(
            {
                "offsets": [
                    {"id": "a", "x": 0, "port": 700, "starboard": 700},
                    {"id": "b", "x": 2000, "port": 706, "starboard": 690},
                    {"id": "c", "x": 4000, "port": 700, "starboard": 680},
                ]
            }
        ).offsets
    )
    assert (
        straight is not None
        and straight.out_of_parallel_mm == pytest.approx(-20)
        and straight.port_bow_mm == pytest.approx(4)
    )
    assert straight.move == "rear starboard to starboard"


def test_reach_and_scars(demo: Job) -> None:
    demo = changed(demo, survey={})
    ladder = evaluate(
        changed(demo, survey__access__walkable="no", survey__access__ladder_rear=False)
    ).findings.survey.reach
    assert ladder is not None and ladder.share == pytest.approx(1600 / 2350)
    scars = [
        {"id": "h1", "kind": "glued_panel", "x": 900, "y": 0, "count": 6},
        {"id": "h2", "kind": "screw", "x": 200, "y": 50, "count": 10},
    ]
    survey = evaluate(changed(demo, survey__scars=scars)).findings.survey
    assert [e.scar for e in survey.seal_entries] == ["h2", "h1"] and survey.removal_h == pytest.approx(
        3 + 1 / 3
    )
    steps = [s.title for s in evaluate(changed(demo, survey__scars=scars)).findings.steps]
    assert steps.index("Take old work off and close every scar") < steps.index("Dry-fit")


def test_a_lid_that_opens_past_upright_leans_over_its_hinge(sound: Job) -> None:
    obstacle = {
        "id": "o9",
        "kind": "hatch",
        "name": "Hatch",
        "x": "2.0 m",
        "y": 0,
        "length": 400,
        "width": 400,
        "height": 60,
        "lid_hinge": "rear",
        "lid_angle": "120°",
    }
    swing = run("lid.swing", obstacle).swing
    assert (swing.lean_mm, swing.tip_height_mm) == pytest.approx(
        (200, 60 + 400 * math.sin(math.radians(120)))
    )
    shape = next(s for s in evaluate(changed(sound, obstacles=[obstacle])).findings.shapes if s.id == "o9")
    assert shape.lid is not None and (shape.lid.x_mm, shape.lid.length_mm) == pytest.approx((2400, 200))


def test_round_and_free_obstacles_take_only_the_room_they_have(sound: Job) -> None:
    panel = next(s.rect for s in evaluate(sound).findings.shapes if s.id == "p1")
    corner = {
        "id": "o9",
        "kind": "hatch",
        "name": "Dome",
        "shape": "circle",
        "x": panel.x_end_mm - 20,
        "y": panel.y_mm - 180,
        "length": 400,
        "width": 400,
        "clearance": 0,
    }
    ids = {s.id for s in evaluate(changed(sound, obstacles=[corner])).snags}
    assert "on-obstacle" not in ids, (
        "the circle's bounding box overlaps the panel's corner, the circle does not"
    )
    assert "on-obstacle" in {
        s.id for s in evaluate(changed(sound, obstacles=[{**corner, "shape": "rectangle"}])).snags
    }
    gone = [{**corner, "shape": "rectangle", "stays": False}]
    assert "on-obstacle" not in {s.id for s in evaluate(changed(sound, obstacles=gone)).snags}


@pytest.mark.parametrize("kind", ["van", "bus", "rv", "trailer", "boat", "truck_bed"])
def test_templates_start_a_roof_and_overwrite_nothing(kind: str) -> None:
    job = apply_edits(
        Job.model_validate({"name": "x", "vehicle": {"roof_width": "1.5 m"}}), [ApplyTemplate(template=kind)]
    )  # type: ignore[arg-type]
    assert job.vehicle.roof_width is not None and job.vehicle.roof_width.text == "1.5 m"
    survey = evaluate(job).findings.survey
    assert len(survey.outline) >= 4 and survey.outline_trouble == "" and survey.flat_area_m2 > 1


@given(st.lists(st.floats(-900, 900), min_size=4, max_size=9, unique=True), st.floats(2500, 9000))
def test_a_mirrored_crown_is_the_mirror_and_more_readings_never_blur_it(
    ys: list[float], radius: float
) -> None:
    def surface(positions: list[float]) -> Any:
        readings = [
            {"id": f"g{i}", "y": y, "gap": 5 + radius - math.sqrt(radius**2 - y**2)}
            for i, y in enumerate(positions)
        ]
        return fit_crown(
            Crown.model_validate({"sections": [{"id": "s", "x": 2500, "readings": readings}]}), LENGTH, HALF
        )

    here, there, fewer = surface(ys), surface([-y for y in ys]), surface(ys[:-1])
    for y in (-800.0, -200.0, 500.0):
        assert there.height(2500, -y)[0] == pytest.approx(here.height(2500, y)[0], abs=1e-6)
        assert here.height(2500, y)[1] <= fewer.height(2500, y)[1] * (here.worst_residual + 1) + 1e-9


@pytest.mark.parametrize(
    ("vehicle", "allowed"),
    [
        (
            {"skin": "steel", "skin_thickness": "1.5 mm", "inside": "gutted"},
            {"bridge", "through-bolt with large washer"},
        ),
        ({"skin": "steel", "skin_thickness": "1.5 mm", "inside": "finished"}, {"bridge"}),
        ({"skin": "steel", "skin_thickness": "1.5 mm", "inside": "unknown"}, {"bridge"}),
        (
            {"skin": "membrane", "ply_thickness": "3/8 in", "inside": "gutted"},
            {"bridge", "through-bolt with large washer"},
        ),
        ({"skin": "membrane", "ply_thickness": "15 mm", "inside": "finished"}, {"bridge", "blind fastener"}),
        (
            {"skin": "fibreglass", "skin_thickness": "9 mm", "inside": "gutted"},
            {"bridge", "through-bolt with large washer", "blind fastener"},
        ),
    ],
)
def test_what_may_be_fastened_in_mid_bay(demo: Job, vehicle: dict[str, str], allowed: set[str]) -> None:
    job = demo.model_copy(
        update={"vehicle": demo.vehicle.model_validate({**demo.vehicle.model_dump(), **vehicle})}
    )
    bay = evaluate(job).findings.bays[3]
    assert {f.way for f in bay.ranking if f.rank is not None} == allowed
    assert all(f.why for f in bay.ranking)


def test_an_open_stretch_lets_nuts_be_set_only_there(demo: Job) -> None:
    partly = changed(
        demo,
        vehicle__inside="partial",
        survey__access__open_bays=[{"id": "e1", "start": "1 m", "end": "3 m"}],
    )
    bolts = [
        next(f.rank is not None for f in b.ranking if f.way.startswith("through"))
        for b in evaluate(partly).findings.bays
    ]
    assert bolts == [1000 <= b.x_mm <= 3000 for b in evaluate(partly).findings.bays]


def test_stations_tell_what_is_open(demo: Job) -> None:
    states = {s.station: s.state for s in evaluate(demo.model_copy(update={"panels": ()})).stations}
    assert (states["survey"], states["structure"], states["layout"], states["hold"]) == (
        "answered",
        "answered",
        "open",
        "open",
    )
    doubtful = changed(demo, survey__access__walkable="unknown")
    assert {s.station: s.state for s in evaluate(doubtful).stations}["survey"] == "in doubt"


def test_an_outline_without_area_is_no_roof(demo: Job) -> None:
    """A square of 101 mm is taken, one of 99 mm is not: nothing can stand on it."""
    for side, told in ((99.0, "no area"), (101.0, "")):
        corners = [{"x": x, "y": y} for x, y in ((0, 0), (side, 0), (side, side), (0, side))]
        trouble = outline_trouble(changed(demo, survey__outline__points=corners))
        assert told in trouble and bool(trouble) == bool(told)


def test_a_factory_point_measured_in_one_direction_is_off_by_that_alone() -> None:
    """Four points 500 mm apart on a straight row; the third is 30 mm aft, nobody measured it across."""
    measured = [{"id": f"n{i}", "count": i, "x": 500 + 500 * i + 30 * (i == 2)} for i in range(4)]
    row = {
        "id": "w1",
        "name": "rail",
        "kind": "stud",
        "start": 500,
        "y": 700,
        "pitch": 500,
        "points": measured,
    }
    found = fit_row(PointRow.model_validate({**row, "points": measured}))
    third = next(p for p in found.points if p.count == 2)
    assert third.off_mm == pytest.approx(abs(third.x_mm - (500 + 2 * 500)), abs=4)
    assert third.off_mm == pytest.approx(abs(third.off_x_mm or 0.0), abs=1e-9)
