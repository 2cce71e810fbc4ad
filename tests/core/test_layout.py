"""The panel over the crown, its twin, and the marks to set it by, beside geometry written out."""

from __future__ import annotations

import math

import pytest

from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import MirrorPanel, apply_edits
from tests.conftest import changed

R = 4000.0


def crowned(job: Job, **values: object) -> Job:
    gaps = [{"id": f"g{i}", "y": float(y), "gap": R - math.sqrt(R * R - y * y)} for i, y in enumerate(range(-1150, 1151, 100))]
    return changed(
        job, survey__crown={"sections": [{"id": f"s{x}", "x": float(x), "readings": gaps} for x in (1000, 3500, 6000)]}, **values
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
        evaluate(crowned(one_panel, panels__p3__stand_off=f"{h} mm")).findings.clear_heights[0].least_mm for h in (50, 70)
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


@pytest.mark.parametrize(("height", "gap", "blocked"), [("60 mm", 20, True), ("60 mm", 140, False), ("160 mm", 0, False)])
def test_a_low_panel_may_lie_under_a_lid_that_leans_over_it(one_panel: Job, height: str, gap: float, blocked: bool) -> None:
    """A lid at 135° stands as high over a spot as the spot is away from the hinge; the panel's top is at 75 mm here."""
    rect = evaluate(one_panel).findings.shapes[0].rect
    hatch = {"id": "o1", "kind": "hatch", "name": "Hatch", "x": rect.x_mm - gap - 500, "y": 0, "length": 500, "width": 400,
             "height": height, "clearance": 0, "lid_hinge": "rear", "lid_angle": "135\u00b0"}  # fmt: skip
    low = changed(one_panel, panels__p3__stand_off="40 mm", obstacles=[hatch])
    assert ("lid-blocked" in {s.id for s in evaluate(low).snags}) == blocked
    by_plan = {**hatch, "lid_angle": None, "lid_reach": 353}
    assert "lid-blocked" in {s.id for s in evaluate(changed(low, obstacles=[by_plan])).snags}, "without an angle the plan decides"
