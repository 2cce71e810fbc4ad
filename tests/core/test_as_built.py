"""What was built differently is worked at once, from where the foot stands, and every way out is tried."""

from __future__ import annotations

from typing import Any

import pytest
from pydantic import ValidationError

from fahrtwind.core.choose.as_built import reality
from fahrtwind.core.edits import AddEntry, Edit, SetValue, apply_edits
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.feet import FootPlace


def foot_of(told: Evaluation, panel: str, foot: str) -> FootPlace:
    return next(f for f in told.findings.feet if (f.panel, f.foot) == (panel, foot))


def foot_of_all(feet: tuple[FootPlace, ...], foot: str) -> float:
    return next(f.x_mm for f in feet if f.foot == foot)


def record(
    place: FootPlace, *, aft: float | None = None, starboard: float | None = None, **more: Any
) -> Edit:
    """A record as the roof day writes it: the tape was read at a mark 20 mm before the foot's middle."""
    mark_x, mark_y = place.x_mm - 20, place.y_mm + 5
    value = {
        "id": "u1",
        "holder": place.panel,
        "foot": place.foot,
        "foot_x": {"mm": place.x_mm},
        "foot_y": {"mm": place.y_mm},
        "mark_x": {"mm": mark_x},
        "mark_y": {"mm": mark_y},
        "x": None if aft is None else {"mm": mark_x + aft},
        "y": None if starboard is None else {"mm": mark_y + starboard},
        **more,
    }
    return AddEntry(path="built.feet", value=value)


@pytest.fixture
def planned(one_panel: Job) -> Evaluation:
    return evaluate(one_panel)


def test_a_foot_recorded_as_planned_changes_nothing(one_panel: Job, planned: Evaluation) -> None:
    place = foot_of(planned, "p3", "f1")
    now = evaluate(apply_edits(one_panel, [record(place, aft=0, starboard=0, pilot="solid")]))
    assert now.findings.verdicts == planned.findings.verdicts
    assert now.findings.marks == planned.findings.marks
    (found,) = now.findings.as_built
    assert found.state == "as planned" and found.words == "as planned"
    assert {s.id for s in now.snags} == {s.id for s in planned.snags}
    assert reality(one_panel).feet == ()


def test_a_hole_that_is_off_moves_the_foot_and_all_behind_it(one_panel: Job, planned: Evaluation) -> None:
    """M6 in two holes of 6.6 mm (ISO 273 medium) lets a bracket stand 0.6 mm off; 8 mm is too much."""
    place = foot_of(planned, "p3", "f1")
    job = apply_edits(one_panel, [record(place, aft=8, starboard=3)])
    now = evaluate(job)
    moved = foot_of(now, "p3", "f1")
    assert (moved.x_mm, moved.y_mm) == (place.x_mm + 8, place.y_mm + 3)
    assert moved.along_mm == place.along_mm + 8 and place.off_mm is not None
    assert moved.off_mm == pytest.approx(place.off_mm + 8)
    (found,) = now.findings.as_built
    assert found.takes_mm == pytest.approx(0.6) and found.state == "off"
    assert found.words == "8 mm aft and 3 mm to starboard"
    assert (found.planned_x_mm, found.x_mm) == (place.x_mm, place.x_mm + 8)
    marks = {m.number: m for m in planned.findings.marks if (m.panel, m.foot) == ("p3", "f1")}
    for mark in (m for m in now.findings.marks if (m.panel, m.foot) == ("p3", "f1")):
        assert mark.x_mm == pytest.approx(marks[mark.number].x_mm + 8)
    assert "foot-off-plan" in {s.id for s in now.snags if s.severity == "stop"}
    assert now.spoken.refused_feet == ("p3.f1",), "and is not shown as holding"
    solved = evaluate(apply_edits(job, [SetValue(path="built.feet.u1.solved", value="bracket")]))
    assert "foot-off-plan" not in {s.id for s in solved.snags}


@pytest.mark.parametrize("aft", [80.0, -80.0])
def test_a_foot_beside_its_member_no_longer_counts_as_in_it(
    one_panel: Job, planned: Evaluation, aft: float
) -> None:
    place = foot_of(planned, "p3", "f1")
    assert place.landing == "member"
    now = evaluate(apply_edits(one_panel, [record(place, aft=aft)]))
    assert foot_of(now, "p3", "f1").landing == "skin"
    assert now.findings.plan and planned.findings.plan
    assert now.findings.plan.safe_m_s < planned.findings.plan.safe_m_s


def test_a_pilot_that_fell_through_is_no_hold_whatever_the_finder_thinks(
    one_panel: Job, planned: Evaluation
) -> None:
    place = foot_of(planned, "p3", "f1")
    job = apply_edits(one_panel, [record(place, pilot="through")])
    now = evaluate(job)
    assert foot_of(now, "p3", "f1").landing == "skin"
    assert "pilot-through" in {s.id for s in now.snags if s.severity == "stop"}
    told = reality(job)
    assert told.feet[0].words == "pilot met nothing"
    assert all("Drill the bracket" not in way.words for way in told.feet[0].ways)
    assert "screws-in-skin" in {s.id for s in now.snags if s.severity == "stop"}
    assert foot_of(now, "p3", "f1").planned_x_mm == place.x_mm


def test_every_way_out_does_what_it_says(one_panel: Job, planned: Evaluation) -> None:
    place = foot_of(planned, "p3", "f1")
    job = apply_edits(one_panel, [record(place, aft=8)])
    told = reality(job)
    (foot,) = told.feet
    assert len(foot.ways) == 3 and foot.ways[0].words.startswith("Drill the bracket anew")
    assert told.planned.let_go_m_s == planned.findings.plan.let_go_m_s if planned.findings.plan else False
    for way in foot.ways:
        after = evaluate(apply_edits(job, list(way.edits)))
        assert after.findings.plan and way.speeds.let_go_m_s == after.findings.plan.let_go_m_s
        assert "foot-off-plan" not in {s.id for s in after.snags}
    ours = [f for f in planned.findings.feet if f.side == place.side]
    for way in foot.ways[1:]:
        there = evaluate(apply_edits(job, list(way.edits))).findings.feet
        taken = [f.x_mm for f in there if f.side == place.side and f.foot != "f1"]
        assert taken == [f.x_mm for f in ours if f.foot != "f1"], "the others stay where they are"
        assert all(abs(foot_of_all(there, "f1") - x) > 60 for x in taken), "and no foot comes upon another"
    moved = apply_edits(job, list(foot.ways[1].edits))
    (scar,) = moved.survey.scars
    assert scar.x.mm == pytest.approx(place.x_mm + 8, abs=0.1) and not moved.built.feet
    stands = foot_of(evaluate(moved), "p3", "f1")
    members = evaluate(moved).findings.members.members
    assert min(abs(m.x_mm - stands.x_mm) for m in members) < 0.2


def test_a_foot_is_recorded_once(one_panel: Job, planned: Evaluation) -> None:
    place = foot_of(planned, "p3", "f1")
    once = apply_edits(one_panel, [record(place, aft=8)])
    twice = record(place, aft=3)
    assert isinstance(twice, AddEntry)
    again = AddEntry(path="built.feet", value={**twice.value, "id": "u2"})
    with pytest.raises((ValidationError, Exception), match="recorded twice"):
        apply_edits(once, [again])


def test_a_foot_further_out_is_mended_by_no_drilling(one_panel: Job, planned: Evaluation) -> None:
    """Its lever is longer than the chain was worked with: the number would be on the unsafe side."""
    place = foot_of(planned, "p3", "f1")
    assert place.side == "port"
    out = apply_edits(one_panel, [record(place, starboard=-8, solved="bracket")])
    (found,) = evaluate(out).findings.as_built
    assert found.lever_longer and found.state == "off"
    assert not any("Drill" in way.words for foot in reality(out).feet for way in foot.ways)
    nearer = apply_edits(one_panel, [record(place, starboard=8, solved="bracket")])
    (found,) = evaluate(nearer).findings.as_built
    assert not found.lever_longer and found.state == "mended"


def test_a_pad_that_is_moved_leaves_glue_and_no_hole(one_panel: Job) -> None:
    taped = apply_edits(one_panel, [SetValue(path="panels.p3.hold", value={"school": "tape"})])
    place = foot_of(evaluate(taped), "p3", "f1")
    (foot,) = reality(apply_edits(taped, [record(place, aft=8)])).feet
    moved = [way for way in foot.ways if "move the foot" in way.words]
    assert moved and all(way.words.startswith("Take the pad off") for way in moved)
    after = apply_edits(apply_edits(taped, [record(place, aft=8)]), list(moved[0].edits))
    assert [scar.kind for scar in after.survey.scars] == ["glue_dab"]
