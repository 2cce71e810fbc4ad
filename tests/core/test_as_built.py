"""What was built differently is worked at once, from where the foot stands, and every way out is tried."""

from __future__ import annotations

from typing import Any

import pytest
from pydantic import ValidationError

from fahrtwind.core.choose.as_built import reality
from fahrtwind.core.edits import (
    AddEntry,
    Edit,
    ForgetFoot,
    NoteReading,
    PutOnRack,
    RecordFoot,
    SetValue,
    apply_edits,
)
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import Evaluation, evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import FoamTape
from fahrtwind.core.stations.layout.feet import FootPlace
from tests.conftest import changed


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


def test_what_can_be_done_with_what_is_in_the_box_comes_first(one_panel: Job, planned: Evaluation) -> None:
    """M6 through 6.6 mm (ISO 273) for the bracket; a bit for the pilot and sealant to move the foot."""
    place = foot_of(planned, "p3", "f1")
    job = apply_edits(one_panel, [record(place, aft=8)])
    kit = {line.item: line.id for line in evaluate(job).findings.kit}
    assert {"drill bit 6.6 mm", "drill bit 4 mm", "hybrid sealant"} <= set(kit)
    (foot,) = reality(job).feet
    assert foot.ways and not any(way.lacks for way in foot.ways), "nobody ticked anything: it may be there"

    def packed(*items: str) -> list[tuple[str, tuple[str, ...]]]:
        ticks = [AddEntry(path="workshop.packed", value={"id": kit[i]}) for i in items]
        (foot,) = reality(apply_edits(job, ticks)).feet
        return [(way.words.split(",")[0].split(";")[0], way.lacks) for way in foot.ways]

    for_moves = packed("drill bit 4 mm", "hybrid sealant")
    assert for_moves[0] == ("Seal the hole", ()), for_moves
    assert for_moves.index(("Drill the bracket anew", ("drill bit 6.6 mm",))) > 0
    for_bracket = packed("drill bit 6.6 mm")
    assert for_bracket[0] == ("Drill the bracket anew", ())
    assert for_bracket[1] == ("Seal the hole", ("drill bit 4 mm", "hybrid sealant"))


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


def recording(place: FootPlace, mark_x: float, **found: Any) -> RecordFoot:
    planned = {
        "foot_x": {"mm": place.x_mm},
        "foot_y": {"mm": place.y_mm},
        "mark_x": {"mm": mark_x},
        "mark_y": {"mm": place.y_mm},
    }
    return RecordFoot.model_validate(
        {"holder": place.panel, "foot": place.foot, "anew": True, **planned, **found}
    )


def test_a_record_from_the_ladder_is_one_edit_however_it_is_told(one_panel: Job, planned: Evaluation) -> None:
    """The tape reads from the centre line on the mark's own side; a pilot hole is where its foot is."""
    port = next(f for f in planned.findings.feet if f.panel == "p3" and f.y_mm < 0)
    starboard = next(f for f in planned.findings.feet if f.panel == "p3" and f.y_mm > 0)
    mark = port.x_mm - 20
    out = f"{-port.y_mm + 3:.1f}"
    job = apply_edits(one_panel, [recording(port, mark, x=f"{mark + 8}", from_centre=out)])
    [record] = job.built.feet
    assert record.id == "u1" and (record.off_x_mm, record.off_y_mm) == (pytest.approx(8), pytest.approx(-3))
    right = apply_edits(one_panel, [recording(starboard, mark, from_centre=f"{starboard.y_mm + 3:.1f}")])
    assert right.built.feet[0].off_y_mm == pytest.approx(3) and right.built.feet[0].x is None
    # the pilot at another mark of the foot, 40 mm behind: measured or not, it is as far off as the foot
    drilled = apply_edits(job, [recording(port, mark + 40, pilot="solid", anew=False)])
    [reading] = [r for r in drilled.readings if r.id == "u1p"]
    assert reading.kind == "pilot_solid" and reading.x.mm == pytest.approx(mark + 48)
    assert drilled.built.feet[0].mark_x.mm == mark, "where it was measured stays"
    moved = apply_edits(drilled, [recording(port, mark, x=f"{mark + 2}", anew=False)])
    assert next(r for r in moved.readings if r.id == "u1p").x.mm == pytest.approx(mark + 42)
    assert moved.built.feet[0].pilot == "solid" and moved.built.feet[0].y is None
    fell = apply_edits(moved, [recording(port, mark, pilot="through", anew=False)])
    assert next(r for r in fell.readings if r.id == "u1p").kind == "pilot_through"
    gone = apply_edits(fell, [ForgetFoot(holder="p3", foot=port.foot)])
    assert gone.built.feet == () and gone.readings == one_panel.readings


def test_two_phones_never_overwrite_one_another(one_panel: Job, planned: Evaluation) -> None:
    place = foot_of(planned, "p3", "f1")
    job = apply_edits(one_panel, [recording(place, place.x_mm, x=f"{place.x_mm}")])
    with pytest.raises(InputError, match="recorded meanwhile") as told:
        apply_edits(job, [recording(place, place.x_mm, pilot="through")])
    assert told.value.field == "built.feet"
    late: tuple[Edit, ...] = (
        recording(place, place.x_mm, pilot="solid", anew=False),
        ForgetFoot(holder="p3", foot="f1"),
    )
    for edit in late:
        with pytest.raises(InputError, match="no record"):
            apply_edits(one_panel, [edit])


def test_readings_go_where_the_job_asks_for_them(one_panel: Job) -> None:
    def told(job: Job, step: str, what: str, value: str) -> Job:
        edit = NoteReading.model_validate({"step": step, "what": what, "value": value})
        return apply_edits(job, [edit])

    warm = told(one_panel, "seal", "skin temperature", "18 °C").seal.temperature
    assert warm is not None and warm.deg_c == 18
    assert told(one_panel, "lay", "humidity", "56 %").seal.humidity == 56
    assert told(one_panel, "tighten", "skin temperature", "9 °C") == one_panel
    taped = changed(one_panel, panels__p3__hold={"school": "tape"})
    cold = told(taped, "stick", "skin temperature", "9 °C").panels[0].hold
    assert isinstance(cold, FoamTape) and cold.temperature is not None and cold.temperature.deg_c == 9
    with pytest.raises(InputError) as refused:
        told(one_panel, "seal", "skin temperature", "warm")
    assert refused.value.field == "seal.temperature"


def test_a_wrench_is_judged_beside_what_the_bolt_bears(one_panel: Job) -> None:
    """M6 of class 70: stress area 20.1 mm² (ISO 898-1), proof 450 N/mm² (ISO 3506-1), 75 % of it; oiled,
    T = K·d·F = 0.15 · 6 mm · 0.75 · 450 · 20.1 = 6.1 N·m; at its proof 8.1 N·m.
    """

    def told(job: Job, value: str) -> Job:
        edit = {"step": "tighten", "what": "torque", "value": value, "holder": "p3"}
        return apply_edits(job, [NoteReading.model_validate(edit | {"bolt": "M6 through the frame"})])

    oiled = changed(one_panel, workshop__bolting__lubrication="oil")
    [wanted] = [w for w in visit(oiled)["torques_wanted"] if w.holder == "p3"]
    by_hand = 0.15 * 6 * 0.75 * 450 * 20.1 / 1000
    assert wanted.torque_n_m == pytest.approx(by_hand, rel=2e-3)
    assert wanted.most_n_m == pytest.approx(by_hand / 0.75, rel=2e-3)
    for value, state, snag in (
        ("6.1 N·m", "right", None),
        ("5.6 Nm", "right", None),
        ("5.4 N·m", "loose", "bolt-off-torque"),
        ("48 in-lb", "loose", "bolt-off-torque"),
        ("5 ft·lb", "tight", "bolt-off-torque"),
        ("8.3 N·m", "too tight", "bolt-too-tight"),
    ):
        now = evaluate(told(oiled, value))
        assert [t.state for t in now.findings.torques] == [state], value
        assert {s.id for s in now.snags} & {"bolt-off-torque", "bolt-too-tight"} == ({snag} - {None})
    again = told(told(oiled, "3 N·m"), "6.1 N·m")
    assert [t.torque.n_m for t in again.built.torques] == [6.1], "the last word counts"
    steps = {s.number: s for s in evaluate(oiled).findings.steps}
    inhand = {steps[h.number].kind: h.torques for h in evaluate(oiled).findings.in_hand if h.torques}
    assert inhand["tighten"] == (wanted,)
    with pytest.raises(InputError, match="is not a unit of torque"):
        told(oiled, "6 kg")


def test_a_tube_gives_before_its_bolt(sound: Job) -> None:
    """Through a hollow tube the wall sets how tight; a tenth over it is already too tight."""
    racked = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    walls = [w for w in visit(racked)["torques_wanted"] if w.gives == "wall"]
    lines = {f"M8 {b.joint}": b for b in evaluate(racked).findings.bolts}
    assert walls and all(w.most_n_m == pytest.approx(1.1 * w.torque_n_m) for w in walls)
    assert all(w.torque_n_m == lines[w.bolt].tight.torque_n_m for w in walls)
    steps = {s.number: s.title for s in evaluate(racked).findings.steps}
    hand = [h for h in evaluate(racked).findings.in_hand if set(walls) & set(h.torques)]
    assert any(steps[h.number].endswith("tighten in order") for h in hand)
