"""Order among panels, another model in a place, variants and decisions, and what a change would change."""

from __future__ import annotations

from itertools import pairwise

import pytest

from fahrtwind.core.choose.changes import changes
from fahrtwind.core.choose.compare import compare
from fahrtwind.core.choose.figures import figures_of, mirrored_share
from fahrtwind.core.edits import (
    Arrange,
    ChooseVariant,
    KeepVariant,
    MirrorPanel,
    PutOnRack,
    PutOnRails,
    RemoveEntry,
    ReplaceModel,
    SetValue,
    TetherPanel,
    UseVariant,
    apply_edits,
)
from fahrtwind.core.errors import FahrtwindError, InputError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.formulas.sight import seen_from
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.room import room_of
from fahrtwind.core.stations.layout.snapping import snaps_of
from tests.conftest import changed


def arranged(job: Job, order: str, *ids: str) -> Job:
    return apply_edits(job, [Arrange(panels=ids, order=order)])  # type: ignore[arg-type]


def test_panels_line_up_with_the_first_of_them(sound: Job) -> None:
    job = changed(sound, panels__p2__x="300 mm", panels__p4__turned=True)
    rects = {p.id: panel_rect(p) for p in arranged(job, "front", "p1", "p2").panels}
    assert rects["p2"].x_mm == rects["p1"].x_mm == panel_rect(job.panels[0]).x_mm
    rects = {p.id: panel_rect(p) for p in arranged(job, "rear", "p1", "p4").panels}
    assert rects["p4"].x_end_mm == pytest.approx(rects["p1"].x_end_mm)
    rects = {p.id: panel_rect(p) for p in arranged(job, "middle", "p1", "p4").panels}
    assert rects["p4"].centre[0] == pytest.approx(rects["p1"].centre[0])
    rects = {p.id: panel_rect(p) for p in arranged(job, "starboard", "p2", "p4").panels}
    assert rects["p4"].y_end_mm == pytest.approx(rects["p2"].y_end_mm)
    assert arranged(job, "centre_line", "p3").panels[2].y.mm == 0


def test_gaps_become_equal_between_the_outer_two(sound: Job) -> None:
    job = changed(sound, panels__p1__x="200 mm", panels__p2__x="2500 mm", panels__p3__x="6000 mm")
    rects = sorted(
        (panel_rect(p) for p in arranged(job, "spread_along", "p3", "p1", "p2").panels[:3]),
        key=lambda r: r.x_mm,
    )
    gaps = [b.x_mm - a.x_end_mm for a, b in pairwise(rects)]
    assert gaps[0] == pytest.approx(gaps[1]) and rects[0].x_mm == 200 and rects[2].x_mm == 6000


def test_a_locked_panel_is_not_moved_turned_or_removed(sound: Job) -> None:
    job = changed(sound, panels__p2__locked=True)
    for edit in (
        SetValue(path="panels.p2.x", value="1 m"),
        SetValue(path="panels.p2.x.mm", value=1000),
        SetValue(path="panels.p2.turned", value=True),
        RemoveEntry(path="panels.p2"),
        Arrange(panels=("p3", "p2"), order="front"),
    ):
        with pytest.raises(InputError) as caught:
            apply_edits(job, [edit])
        assert caught.value.field == "panels.p2.locked"
    assert changed(job, panels__p2__name="Still named").panels[1].name == "Still named"
    assert arranged(job, "front", "p2", "p3").panels[1] == job.panels[1], "it may be what others line up with"


def test_too_few_and_unknown_panels_are_refused(sound: Job) -> None:
    for edit in (
        Arrange(panels=("p1",), order="front"),
        Arrange(panels=("p1", "p2"), order="spread_along"),
        Arrange(panels=("p1", "p9"), order="front"),
        ReplaceModel(panels=("p9",), model="Halde 410"),
        ReplaceModel(panels=("p1",), model="Nebel"),
        UseVariant(variant="v7"),
        ChooseVariant(variant="v7", reason="no such"),
    ):
        with pytest.raises(FahrtwindError) as caught:
            apply_edits(sound, [edit])
        assert caught.value.remedy


def test_another_model_keeps_its_place_and_its_feet_their_share(sound: Job) -> None:
    job = changed(sound, panels__p1__measured_length="1641 mm", panels__p1__feet__f1__pinned=True)
    after = apply_edits(job, [ReplaceModel(panels=("p1",), model="Kiesel 185")]).panels[0]
    before = job.panels[0]
    assert (after.x, after.y, after.measured_length) == (before.x, before.y, None)
    assert after.feet[0].along == before.feet[0].along, "a pinned foot stays"
    assert after.feet[1].along.mm == pytest.approx(before.feet[1].along.mm * 1480 / 1641, abs=0.1)


def test_a_change_of_model_lists_all_that_hangs_on_it(sound: Job) -> None:
    after = apply_edits(sound, [ReplaceModel(panels=("p1", "p2"), model="Halde 410")])
    told = {c.what: c for c in changes(sound, after)}
    assert told["power"].before == "1280 W" and told["power"].after == "1460 W"
    assert "feet of Front port" in told and "drill map" in told and "marks to set Front port by" in told
    assert told["panel Halde 320"].after == "2 pc" and told["panel Halde 410"].before == "none"
    fresh = {s.title for s in evaluate(after).snags if s.severity != "note"} - {
        s.title for s in evaluate(sound).snags
    }
    assert fresh and all(any(t in what for what in told) for t in fresh)
    assert changes(sound, sound) == ()


def test_what_hangs_on_a_change_is_told_by_name_whatever_has_feet(sound: Job) -> None:
    """A carrier, a tether, bars from member to member."""
    off = SetValue(path="panels.p1.x", value={"mm": 400})
    for put in (
        PutOnRails(panels=("p1", "p3")),
        TetherPanel(panel="p1"),
        SetValue(path="panels.p1.span", value={}),
    ):
        carried = apply_edits(sound, [off, put])
        moved = [SetValue(path=f"panels.{p}.x", value={"mm": 700}) for p in ("p1", "p2", "p3", "p4")]
        told = {c.what for c in (*changes(sound, carried), *changes(carried, apply_edits(carried, moved)))}
        names = {f.panel for f in evaluate(carried).findings.feet} - {p.id for p in carried.panels}
        assert names, put.words()
        assert not [what for what in told if any(name in what.split() for name in names)]


def test_a_variant_keeps_what_its_panels_lie_on(sound: Job) -> None:
    """Rails, a rack and feet side by side: each comes back with all that is under it."""
    railed = apply_edits(
        sound, [PutOnRails(panels=("p1", "p3")), TetherPanel(panel="p2"), KeepVariant(name="Rails")]
    )
    racked = apply_edits(
        railed,
        [
            *(RemoveEntry(path=f"tethers.{t.id}") for t in railed.tethers),
            RemoveEntry(path="carriers.b1"),
            PutOnRack(panels=("p1", "p3"), points=False),
            KeepVariant(name="Rack"),
        ],
    )
    back = apply_edits(racked, [UseVariant(variant="v1")])
    assert (
        back.carriers == railed.carriers and back.tethers == railed.tethers and back.panels == railed.panels
    )
    lines = {line.name: line for line in compare(racked)}
    assert lines["Rack"].present and not lines["Rails"].present
    assert any("Rails" in told for told in lines["Rails"].differences)
    assert lines["Rails"].figures.mass_kg != lines["Rack"].figures.mass_kg
    bare = apply_edits(racked, [KeepVariant(name="Feet", panels=sound.panels), UseVariant(variant="v3")])
    assert bare.carriers == () and bare.panels == sound.panels


def test_a_panel_is_seen_from_where_the_line_over_the_edge_meets_the_eye(sound: Job) -> None:
    """A flat roof 2,800 mm high, a panel whose top is 110 mm over it and 190 mm in from the port edge: an eye
    at 1,600 mm sees it from 190 · 1,200 / 110 = 2,073 mm on. Similar triangles, by hand.
    """
    flat = changed(sound, survey__crown={}, vehicle__height="2.8 m", panels=[sound.panels[0].model_dump()])
    panel = flat.panels[0]
    edge = panel_rect(panel).y_mm + flat.vehicle.roof_width.mm / 2  # type: ignore[union-attr]
    top = panel.stand_off.mm + panel.model.frame_height.mm
    seen = evaluate(flat).findings.seen
    assert seen is not None and seen.side == "port" and seen.distance_m is not None
    assert seen.distance_m == pytest.approx(edge * 1200 / top / 1000, rel=1e-9)
    assert seen_from(190, 2800, 1600, 110) == pytest.approx(2072.7, abs=0.1)
    assert seen_from(190, 2800, 1600, -5) == float("inf")
    assert evaluate(changed(flat, vehicle__height=None)).findings.seen is None


def test_variants_are_kept_used_compared_and_chosen_with_a_reason(sound: Job) -> None:
    job = apply_edits(
        sound,
        [
            KeepVariant(name="Four"),
            RemoveEntry(path="panels.p4"),
            SetValue(path="panels.p1.x", value="260 mm"),
        ],
    )
    job = apply_edits(job, [UseVariant(variant="v1")])
    assert job.panels == sound.panels and [v.name for v in job.variants] == ["Four", "Before Four"], (
        "nothing is lost"
    )
    lines = compare(job)
    assert [line.present for line in lines] == [True, True, False]
    assert set(lines[2].differences) == {"1 × Halde 320 fewer", "Front port: 30 mm aft"}
    chosen = apply_edits(job, [ChooseVariant(variant="v2", reason="  Three are enough.  ")])
    decision = chosen.decisions[-1]
    assert (decision.name, decision.reason, decision.over) == ("Before Four", "Three are enough.", ("Four",))
    assert len(chosen.panels) == 3 and compare(chosen)[2].chosen
    assert "other-than-chosen" not in {s.id for s in evaluate(chosen).snags}
    moved = changed(chosen, panels__p1__x="300 mm")
    assert "other-than-chosen" in {s.id for s in evaluate(moved).snags}
    empty = apply_edits(changed(sound, panels=[]), [KeepVariant(name="Bare")])
    with pytest.raises(InputError):
        apply_edits(empty, [ChooseVariant(variant="v1", reason="no panels at all")])


def test_figures_tell_what_the_evaluation_tells(sound: Job) -> None:
    sound = changed(sound, site={})
    found, told = figures_of(sound), evaluate(sound)
    assert (
        found.watts == 1280
        and found.panels == 4
        and found.feet == 24
        and found.mass_kg == told.findings.roof_mass_kg
    )
    assert found.holes == len([m for m in told.findings.marks if m.kind == "hole"]) == 48
    assert found.price is None and found.year_wh is None and found.stops == 0
    priced = changed(
        sound, **{f"panels__{p.id}__model__price": 100 for p in sound.panels}, site__climate="Niederau"
    )
    assert figures_of(priced).price == 400 and (figures_of(priced).year_wh or 0) > 500_000


def test_mirrored_share_counts_twins(one_panel: Job) -> None:
    alone = changed(one_panel, panels__p3__y="300 mm")
    assert mirrored_share(alone.panels) == 0 and mirrored_share(one_panel.panels) == 1
    assert (
        mirrored_share(apply_edits(changed(alone, panels__p3__y="600 mm"), [MirrorPanel(panel="p3")]).panels)
        == 1
    )


def test_snaps_name_edges_gaps_members_lines_and_mirrors(sound: Job) -> None:
    found = snaps_of(sound, "p1", evaluate(sound).findings.members.members)
    rect, twin = panel_rect(sound.panels[0]), panel_rect(sound.panels[1])
    at = {(s.axis, round(s.at_mm)): s.words for s in found}
    assert at["x", 30] == "edge margin" and at["y", round(-twin.centre[1])] in (
        "mirrors Front starboard",
        "in line with Middle port",
    )
    assert any(words.startswith("foot f1 on member") for (axis, _), words in at.items() if axis == "x")
    behind = twin.x_end_mm + sound.assumptions.panel_gap.mm
    assert at["x", round(behind)] == "Front starboard"
    assert ("y", 0) in at and all(s.high_mm >= s.low_mm for s in found)
    room = room_of(sound, 75.0)
    assert room is not None and all(abs(s.at_mm) < 10_000 for s in found) and rect.length_mm > 0


def test_low_panels_have_more_room_under_a_leaning_lid(sound: Job) -> None:
    job = changed(
        sound,
        obstacles__o2__lid_angle="150°",
        obstacles__o2__lid_hinge="rear",
        obstacles__o2__height="120 mm",
    )
    low, high = room_of(job, 60.0), room_of(job, 200.0)
    assert low is not None and high is not None
    lids = [[b for b in r.blocks if b.kind == "lid" and b.of == "o2"] for r in (low, high)]
    assert not lids[0] and lids[1][0].rect.length_mm > 50
