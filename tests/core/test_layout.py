"""The panel over the crown, its twin, and the marks to set it by, beside geometry written out."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from fahrtwind.core.edits import MirrorPanel, PlacePanel, SpreadFeet, apply_edits
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.panel import Screws
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.layout.cables import cable_end, cable_pairs
from fahrtwind.core.stations.layout.clear_height import clear_height_of
from fahrtwind.core.stations.layout.distances import distances
from fahrtwind.core.stations.layout.feet import move_onto_holes_mm
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.placing import new_panel, panel_at, usual_feet
from fahrtwind.core.stations.layout.room import least_from_edge, room_of
from fahrtwind.core.stations.survey.crown import crown_of
from fahrtwind.core.tables.climates import CLIMATES, SOURCE
from tests.conftest import changed

GAPS = [{"id": f"g{i}", "y": y, "gap": y * y / 8000} for i, y in enumerate(range(-1000, 1001, 250))]

R = 4000.0


def crowned(job: Job, **values: object) -> Job:
    gaps = [
        {"id": f"g{i}", "y": float(y), "gap": R - math.sqrt(R * R - y * y)}
        for i, y in enumerate(range(-1150, 1151, 100))
    ]
    return changed(
        job,
        survey__crown={
            "sections": [{"id": f"s{x}", "x": float(x), "readings": gaps} for x in (1000, 3500, 6000)]
        },
        **values,
    )


def test_clear_height_of_a_panel_across_the_middle(one_panel: Job) -> None:
    """Feet at ±w on a circle of radius R: the middle of the plane is a sagitta lower over the roof."""
    found = evaluate(crowned(one_panel, panels__p3__stand_off="80 mm")).findings
    height = found.clear_heights[0]
    width = max(abs(f.y_mm) for f in found.feet)
    sag = min(2 * width, max(f.x_mm for f in found.feet) - min(f.x_mm for f in found.feet)) / 200
    assert height.least_mm == pytest.approx(80 - (R - math.sqrt(R * R - width**2)) - sag, abs=6)
    assert abs(height.at_y_mm) < 130


def test_higher_feet_clear_more_and_a_flat_roof_asks_nothing(one_panel: Job) -> None:
    low, high = (
        evaluate(crowned(one_panel, panels__p3__stand_off=f"{h} mm")).findings.clear_heights[0].least_mm
        for h in (50, 70)
    )
    assert high - low == pytest.approx(20, abs=1e-6)
    assert evaluate(one_panel).findings.clear_heights == ()


def test_the_twin_stands_as_far_from_its_edge_as_the_first(sound: Job) -> None:
    alone = sound.model_copy(update={"panels": sound.panels[:1]})
    both = apply_edits(alone, [MirrorPanel(panel="p1")])
    found = evaluate(both).findings
    to_edge = {(d.panel, d.to): d.mm for d in found.distances if d.kind == "edge"}
    assert to_edge["p1", "port"] == pytest.approx(to_edge["p2", "starboard"])
    assert to_edge["p1", "front"] == pytest.approx(to_edge["p2", "front"])
    feet = {(f.panel, round(f.x_mm), round(abs(f.y_mm))) for f in found.feet}
    assert {(x, y) for p, x, y in feet if p == "p1"} == {(x, y) for p, x, y in feet if p == "p2"}
    verdicts = {v.panel: v for v in found.verdicts}
    assert verdicts["p1"].let_go_m_s == pytest.approx(verdicts["p2"].let_go_m_s, rel=1e-6)


def test_marks_to_set_a_panel_by(sound: Job) -> None:
    marks = {d.panel: d for d in evaluate(sound).findings.dry_fit}
    shapes = {s.id: s.rect for s in evaluate(sound).findings.shapes}
    for panel, mark in marks.items():
        rect = shapes[panel]
        assert (mark.front_x_mm, mark.port_y_mm) == (rect.x_mm, rect.y_mm)
        assert mark.diagonal_mm == pytest.approx(
            math.hypot(mark.rear_x_mm - mark.front_x_mm, mark.starboard_y_mm - mark.port_y_mm)
        )


@pytest.mark.parametrize(
    ("height", "gap", "blocked"), [("60 mm", 20, True), ("60 mm", 140, False), ("160 mm", 0, False)]
)
def test_a_low_panel_may_lie_under_a_lid_that_leans_over_it(
    one_panel: Job, height: str, gap: float, blocked: bool
) -> None:
    """A lid at 135° stands as high over a spot as the spot is away from the hinge; the panel's top is at 75
    mm here.
    """
    rect = evaluate(one_panel).findings.shapes[0].rect
    hatch = {
        "id": "o1",
        "kind": "hatch",
        "name": "Hatch",
        "x": rect.x_mm - gap - 500,
        "y": 0,
        "length": 500,
        "width": 400,
        "height": height,
        "clearance": 0,
        "lid_hinge": "rear",
        "lid_angle": "135\u00b0",
    }
    low = changed(one_panel, panels__p3__stand_off="40 mm", obstacles=[hatch])
    assert ("lid-blocked" in {s.id for s in evaluate(low).snags}) == blocked
    by_plan = {**hatch, "lid_angle": None, "lid_reach": 353}
    assert "lid-blocked" in {s.id for s in evaluate(changed(low, obstacles=[by_plan])).snags}, (
        "without an angle the plan decides"
    )


def test_margins_by_side_and_overhang_shape_the_room(sound: Job) -> None:
    job = changed(
        sound,
        assumptions__margins__front="200 mm",
        assumptions__margins__port="-80 mm",
        obstacles=[],
        survey={},
    )
    room = room_of(job, 70.0)
    assert room is not None
    assert (room.bounds.x_mm, room.bounds.x_end_mm) == (200, 8400 - 30)
    assert (room.bounds.y_mm, room.bounds.y_end_mm) == (-1175 - 80, 1175 - 30)
    assert (
        least_from_edge(job.assumptions, "rear") == job.assumptions.edge_clearance.mm
        and least_from_edge(job.assumptions, "port") == -80
    )
    assert room_of(changed(job, vehicle__roof_width=None), 70.0) is None


def test_an_allowed_overhang_is_a_caution_and_more_a_stop(sound: Job) -> None:
    job = changed(sound, assumptions__margins__port="-100 mm")
    for y, expected in ((-740, "hangs-over"), (-790, "over-edge")):
        found = {s.id: s for s in evaluate(changed(job, panels__p1__y={"mm": float(y)})).snags}
        assert expected in found and found[expected].place == "panels.p1"
        assert ("over-edge" in found) == (expected == "over-edge")


def test_shaped_roofs_take_slices_off_the_room(sound: Job) -> None:
    """A taper of 300 mm over 1 m: every slice is as deep as the edge is at its deepest, so no panel gets over
    it.
    """
    job = changed(sound, obstacles=[], survey__outline={"front_narrower": "300 mm", "taper_run": "1 m"})
    room = room_of(job, 70.0)
    assert room is not None
    edges = [b.rect for b in room.blocks if b.kind == "edge" and b.of == "port"]
    assert len(edges) >= 3 and edges[0].x_mm == 30
    for r in edges:
        assert r.y_end_mm >= -1175 + 30 + 300 * (1 - (r.x_mm + 1) / 1000) - 1
    assert sum(r.length_mm for r in edges) == pytest.approx(970, abs=251)


def test_free_areas_locked_panels_and_clearances_block(sound: Job) -> None:
    area = {"id": "z1", "kind": "later", "name": "Later", "x": 7000, "y": 0, "length": 600, "width": 500}
    room = room_of(changed(sound, keep_free=[area]), 70.0, frozenset({"p1"}))
    assert room is not None
    by_kind = {(b.kind, b.of): b for b in room.blocks}
    assert by_kind["free area", "z1"].rect.centre == (7300, 0)
    assert (
        by_kind["panel", "p1"].rect.length_mm
        == panel_rect(sound.panels[0]).length_mm + 2 * sound.assumptions.panel_gap.mm
    )
    assert ("panel", "p2") not in by_kind and by_kind["obstacle", "o3"].clearance_mm == 40


def test_leads_of_a_pair_meet_by_pythagoras(sound: Job) -> None:
    job = changed(
        sound,
        panels__p1__pair="A",
        panels__p1__cable_end="rear",
        panels__p4__pair="A",
        panels__p4__cable_end="front",
    )
    pair = cable_pairs(job)[0]
    a, b = panel_rect(job.panels[0]), panel_rect(job.panels[3])
    assert pair.apart_mm == pytest.approx(math.hypot(b.x_mm - a.x_end_mm, b.centre[1] - a.centre[1]))
    assert (pair.pair, pair.first, pair.second) == ("A", "p1", "p4")
    for side, at in (
        ("port", (a.centre[0], a.y_mm)),
        ("starboard", (a.centre[0], a.y_end_mm)),
        ("front", (a.x_mm, a.centre[1])),
    ):
        assert cable_end(changed(job, panels__p1__cable_end=side).panels[0]) == at
    assert cable_pairs(changed(job, panels__p4__cable_end=None)) == ()


def test_a_panel_is_laid_by_its_front_port_corner() -> None:
    for model in catalogue():
        for turned in (False, True):
            panel = panel_at(
                model,
                7,
                (400.0, -500.0),
                turned=turned,
                hold=Screws(),
                stand_off=Length(mm=60),
                feet=usual_feet(model),
            )
            rect = panel_rect(panel)
            assert (panel.id, rect.x_mm, rect.y_mm) == ("p7", 400, -500)
            assert len(panel.feet) == usual_feet(model) and panel.stand_off.mm == 60


def test_a_foot_on_an_obstacle_or_beside_the_roof_is_a_stop(sound: Job) -> None:
    """Moved along all four edges of the air conditioner: inside it is named, a hair beside it is not."""
    box = panel_rect(sound.panels[0])
    foot = next(f for f in evaluate(sound).findings.feet if f.panel == "p1" and f.foot == "f1")
    assert box.x_mm < foot.x_mm < box.x_end_mm

    def told(x: float, y: float) -> bool:
        block = {
            "id": "o9",
            "kind": "other",
            "name": "box",
            "x": x,
            "y": y,
            "length": 40,
            "width": 40,
            "clearance": 0,
        }
        job = load_job({**sound.model_dump(), "obstacles": [block]})
        return any(s.id == "foot-on-obstacle" and "f1" in s.where for s in evaluate(job).snags)

    assert told(foot.x_mm - 20, foot.y_mm), "under the foot"
    for x, y in (
        (-41, 0),
        (-40, 0),
        (0, 0),
        (1, 0),
        (-20, 21),
        (-20, -21),
    ):  # on its edge it stands beside it
        assert not told(foot.x_mm + x, foot.y_mm + y)
    beside = changed(sound, panels__p1__y={"mm": -sound.vehicle.roof_width.mm / 2 + 300})  # type: ignore[union-attr]
    assert any(s.id == "foot-on-obstacle" for s in evaluate(beside).snags)


def test_the_first_panel_stands_at_the_front_and_one_too_long_at_its_edge(sound: Job) -> None:
    empty = changed(sound, panels=[], obstacles=[])
    assert new_panel(empty, "Halde 410").x.mm == 150
    short = changed(empty, vehicle__roof_length="1200 mm")
    assert new_panel(short, "Halde 410").x.mm == 0
    first = apply_edits(empty, [PlacePanel(model="Halde 410")])
    second = new_panel(first, "Halde 410")
    gap = second.x.mm - panel_rect(first.panels[0]).x_end_mm
    assert 0 < gap <= 60, "behind the first, not on it"


def test_the_start_catalogue_adds_up() -> None:
    """Power is working voltage times working current, and every sheet is plausible."""
    for model in catalogue():
        assert model.vmp and model.imp and model.voc and model.isc
        assert model.vmp.v * model.imp.a == pytest.approx(model.power.w, rel=0.01)
        assert 1.1 < model.voc.v / model.vmp.v < 1.3 and 1.02 < model.isc.a / model.imp.a < 1.12
        assert 130 < model.power.w / (model.length.mm * model.width.mm * 1e-6) < 230


def test_each_climate_has_twelve_plausible_months() -> None:
    for climate in CLIMATES.values():
        assert len(climate.sunshine) == len(climate.temperature_deg_c) == len(climate.turbidity) == 12
        assert all(0 < s < 1 for s in climate.sunshine) and all(1.5 <= t <= 8 for t in climate.turbidity)
        assert "invented" in SOURCE.lower() and -60 < climate.latitude_deg < 70


def test_a_small_move_brings_members_under_the_frame_s_holes(sound: Job) -> None:
    told = evaluate(sound).findings
    front = sound.panels[0].x.mm
    under = [f.x_mm - front + 80 for f in told.feet if f.panel == "p1" and f.y_mm < -600]
    drilled = changed(sound, panels__p1__model__holes=under)
    snag = next(s for s in evaluate(drilled).snags if s.id == "off-frame-holes" and s.place == "panels.p1")
    assert "Move the panel" in snag.remedy and "forward" in snag.remedy
    way = move_onto_holes_mm(drilled.members, drilled.panels[0], told.members.members)
    assert way is not None and -110 <= way < 0
    moved = changed(drilled, panels__p1__x=f"{front + way} mm")
    assert not [s for s in evaluate(moved).snags if s.id == "off-frame-holes" and s.place == "panels.p1"]


def test_beside_the_roof_there_is_no_front_to_measure_to(sound: Job) -> None:
    """A panel half over the starboard edge of a tapered roof: its front distance is measured where there is
    roof.
    """
    job = changed(
        sound,
        survey__outline={"front_narrower": "150 mm", "taper_run": "600 mm"},
        panels__p2__y="1150 mm",
        panels__p2__x="900 mm",
    )
    found = {d.to: d.mm for d in distances(job) if d.panel == "p2" and d.kind == "edge"}
    assert 300 < found["front"] <= 900 and found["starboard"] < -400


def test_a_pair_on_a_narrow_roof_makes_room_to_both_sides(sound: Job) -> None:
    narrow = load_job({**sound.model_dump(), "panels": [sound.panels[2].model_dump()], "obstacles": []})
    across = panel_rect(narrow.panels[0]).width_mm
    job = changed(narrow, vehicle__roof_width={"mm": 2 * across + 220}, panels__p3__y=0)
    pair = apply_edits(job, [MirrorPanel(panel="p3")])
    assert pair.panels[0].y.mm == -pair.panels[1].y.mm and {"over-edge", "brackets-meet"}.isdisjoint(
        s.id for s in evaluate(pair).snags
    )
    kept = apply_edits(changed(job, panels__p3__locked=True), [MirrorPanel(panel="p3")])
    assert kept.panels[0].y.mm == 0, "what is locked stays"


def test_feet_in_one_line_tell_no_plane(one_panel: Job) -> None:
    """Three feet in a row, wherever the row runs, carry no plane: the height over the crown is not told."""
    crowned = changed(one_panel, survey__crown={"sections": [{"id": "c1", "x": 4000, "readings": GAPS}]})
    crown, panel = crown_of(crowned), one_panel.panels[0]
    place = evaluate(one_panel).findings.feet[0]
    assert crown is not None
    for dx, dy in ((500.0, 0.0), (0.0, 500.0), (300.0, 200.0)):
        line = tuple(replace(place, foot=f"f{i}", x_mm=2000 + i * dx, y_mm=-300 + i * dy) for i in range(3))
        assert clear_height_of(panel, line, crown) is None
        corner = (*line[:2], replace(line[2], x_mm=line[2].x_mm + 90, y_mm=line[2].y_mm + 150))
        assert clear_height_of(panel, corner, crown) is not None


def test_spread_feet_stand_to_a_tenth_of_a_millimetre(one_panel: Job) -> None:
    """A fifth in from both ends of the frame (common practice): 1776 mm of frame puts them at 355.2, 888,
    1420.8.
    """
    job = changed(one_panel, panels__p3__measured_length="1776 mm")
    spread = apply_edits(job, [SpreadFeet(panel="p3", count=6)]).panels[0].feet
    assert [f.along.mm for f in spread if f.side == "port"] == [355.2, 888.0, 1420.8]


def test_room_on_a_tapered_roof_keeps_its_distance_on_both_sides(one_panel: Job) -> None:
    """The roof narrows from 2000 to 1000 mm over its length; 30 mm are kept from its edge on either side."""
    points = [{"x": 0, "y": -1000}, {"x": 0, "y": 1000}, {"x": 8400, "y": 500}, {"x": 8400, "y": -500}]
    job = changed(one_panel, survey__outline__points=points, assumptions__edge_clearance="30 mm")
    room = room_of(job, 60.0)
    assert room is not None
    for side, sign in (("port", -1), ("starboard", 1)):
        edges = [b.rect for b in room.blocks if b.kind == "edge" and b.of == side]
        for rect in edges:
            inner = sign * (rect.y_end_mm if sign < 0 else rect.y_mm)
            narrow = 1000 - 500 * min(rect.x_end_mm, 8400) / 8400
            assert inner == pytest.approx(narrow - 30, abs=12)
        assert len(edges) > 3
