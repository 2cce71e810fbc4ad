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
