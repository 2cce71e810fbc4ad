"""A frame on crossbars of its own: what it stands on by hand, balance, what is built of it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from fahrtwind.core.edits import PutInFrame, SetValue, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.sections import RectangularTube
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.carriers.rack import crossbars_at
from fahrtwind.core.stations.hold.carriers.rack_forces import rack_frames
from fahrtwind.core.stations.hold.carriers.rack_loads import drag_of
from fahrtwind.core.stations.hold.carriers.rack_verdict import _bolted, _turned
from fahrtwind.core.stations.hold.loads import DRAG_COEFFICIENT
from fahrtwind.core.working import working
from tests.conftest import changed
from tests.core.test_racks import forces, rack_of, verdict
from tests.core.test_snags import POINTS


def on_crossbars(sound: Job, **more: object) -> Job:
    job = apply_edits(sound, [PutInFrame(panels=("p1",), crossbars=True)])
    return changed(job, **{f"carriers__b1__{name}": value for name, value in more.items()})


def test_crossbars_lie_at_every_second_member_on_feet_of_their_own(sound: Job) -> None:
    """Tubes of 40 mm on feet of 40: rails from 80 on, their middle and that of the bars at 100, the crossbars
    at 60. Feet 100 mm outside of the frame, but no nearer to the roof's edge than that: the panel begins
    89 mm from it, its rail 8 mm further out.
    """
    job = on_crossbars(sound)
    frame, found = rack_of(job), evaluate(job).findings
    assert frame.crossbars is not None and frame.flush and job.panels[0].stand_off.mm == 120
    own = [f for f in found.feet if f.panel == "b1"]
    members = [m.number for m in found.members.members if frame.start.mm <= m.x_mm <= frame.end.mm]
    kept = [m for i, m in enumerate(members) if i % 2 == 0 or i == len(members) - 1]
    assert {f.member for f in own} == set(kept) and len(own) == 2 * len(kept)
    assert {f.y_mm for f in own} == {row.y.mm for row in frame.crossbars.feet}
    places = forces(job).frame.frame.nodes_mm
    assert set(places[:, 2]) == {60.0, 100.0}
    ends = [places[forces(job).frame.lines[f"k{m}"]][[0, -1], 1].tolist() for m in kept]
    assert ends == [[frame.crossbars.port_mm, frame.crossbars.starboard_mm]] * len(kept)


def test_what_lifts_the_panel_goes_through_crossings_into_the_feet(sound: Job) -> None:
    """Uplift by a pascal reaches the crossings whole, and the feet with it; a plain frame has as much. With
    the feet right under the rails the crossbars have nothing to do: the feet take what those of the frame
    without crossbars take at the same members.
    """
    job = on_crossbars(sound)
    told, plain = forces(job), forces(apply_edits(sound, [PutInFrame(panels=("p1",))]))
    feet, first = told.road.pull_per_pa[0].sum(axis=-1), told.frame.corners
    crossings = -told.ties_road.per_pa[0, :, first:, 2].sum(axis=-1)
    assert first == 2 * 2 and len(told.frame.frame.ties) > first
    blown = crossings[np.abs(crossings) > 1e-12]  # what lands after a bump is no wind
    np.testing.assert_allclose(blown, feet, rtol=1e-9)
    np.testing.assert_allclose(feet, plain.road.pull_per_pa[0].sum(axis=-1), rtol=1e-9)
    rails = [r.y.mm for r in rack_of(job).rails]
    under = {f"carriers__b1__crossbars__feet__f{i}__y": f"{y} mm" for i, y in enumerate(rails, start=1)}
    below = forces(changed(job, **under))
    same = forces(changed(apply_edits(sound, [PutInFrame(panels=("p1",))]), carriers__b1__every=2))
    by_place = [np.sort(t.road.pull_per_pa[0].max(axis=0)) for t in (below, same)]
    np.testing.assert_allclose(by_place[0], by_place[1], rtol=0.1)


def test_weaker_parts_are_never_safer(sound: Job) -> None:
    whole = verdict(on_crossbars(sound))
    kinds = {j.kind for j in whole.joints}
    assert kinds == {"corner", "crossing"} and whole.crossing is not None
    for weaker in ({"angle_wall": "3 mm"}, {"crossbars__section__wall": "1 mm"}, {"every": 4}):
        assert verdict(on_crossbars(sound, **weaker)).safe_m_s <= whole.safe_m_s
    welded = verdict(on_crossbars(sound, joint="welded"))
    assert {j.kind for j in welded.joints} == {"crossing"}, "only what is bolted has bolts"


def test_the_working_of_a_crossing_names_the_crossbar(sound: Job) -> None:
    job = on_crossbars(sound)
    worst = max((j for j in verdict(job).joints if j.kind == "crossing"), key=lambda j: j.utilisation)
    steps = working(job, f"hold/b1/corner {worst.joint}").steps
    used = [step.result for step in steps if "utilisation" in step.formula]
    assert max(used) == pytest.approx(worst.utilisation, rel=1e-6)


def test_crossbars_are_cut_drilled_bolted_and_laid(sound: Job) -> None:
    """From 60 mm beyond the first foot to 60 beyond the last; two angles beside each rail, 20 + 20 mm from
    its middle; every angle one bolt below and, on both sides of a closed rail together, one across.
    """
    job = on_crossbars(sound)
    under, found = rack_of(job).crossbars, evaluate(job).findings
    assert under is not None
    crossbars = [p for p in found.pieces if p.kind == "crossbar"]
    rows = [row.y.mm for row in under.feet]
    rails = [r.y.mm for r in rack_of(job).rails]
    at = sorted(y - rows[0] + 60 for y in (*rows, *(r + side for r in rails for side in (-40, 40))))
    for piece in crossbars:
        assert piece.length_mm == pytest.approx(rows[1] - rows[0] + 120)
        assert [h.at_mm for h in piece.holes] == pytest.approx(at)
    n = len(crossbars)
    bolts = {b.joint: b.count for b in found.bolts}
    assert (bolts["feet under the crossbars"], bolts["rails on the crossbars"]) == (2 * n, 4 * n)
    assert bolts["angles on the rails"] == 2 * n and "feet under the rails" not in bolts
    angles = [p for p in found.pieces if p.kind == "corner" and "on crossbar k" in p.name]
    assert len(angles) == 4 * n
    steps = [s.title for s in found.steps]
    laid = next(i for i, t in enumerate(steps) if "lay the rails on the crossbars" in t)
    assert "crossbars on their feet" in " ".join(steps[:laid])


def test_what_crossbars_cannot_be_is_told(sound: Job) -> None:
    job = on_crossbars(changed(sound, survey__point_rows=POINTS))
    with pytest.raises(InputError, match="not on points"):
        apply_edits(job, [SetValue(path="carriers.b1.points", value=["w1", "w2"])])
    with pytest.raises(InputError, match="left for their feet"):
        on_crossbars(sound, height="45 mm")
    beside = on_crossbars(sound, crossbars__feet__f2__y="-600 mm")
    (silence,) = [s for s in evaluate(beside).findings.silent if "crossbars" in s.why]
    assert "r2" in silence.why and "further out" in silence.remedy
    fan = {"id": "o9", "kind": "fan", "name": "Fan", "length": 300, "width": 300, "height": 60}
    foot = next(f for f in evaluate(on_crossbars(sound)).findings.feet if f.panel == "b1")
    below = changed(on_crossbars(sound), obstacles=[{**fan, "x": foot.x_mm - 150, "y": foot.y_mm + 300}])
    where = [s.where for s in evaluate(below).snags if s.id == "bar-over-obstacle"]
    assert any("crossbar" in w for w in where), "a fan of 60 mm passes under the rails, not the crossbars"


def test_names_are_only_names(sound: Job) -> None:
    job = on_crossbars(sound)
    rows = rack_of(job).crossbars.feet  # type: ignore[union-attr]
    named = [{"id": name, "y": row.y.model_dump()} for name, row in zip(("left", "s1"), rows, strict=True)]
    assert verdict(on_crossbars(sound, crossbars__feet=named)).safe_m_s == verdict(job).safe_m_s
    twins = [{"id": "r1", "x": b.x.model_dump()} for b in rack_of(job).bars[:1]]
    (silence,) = [s for s in evaluate(on_crossbars(sound, bars=twins)).findings.silent if "named" in s.why]
    assert "another id" in silence.remedy


def test_a_crossbar_lies_between_its_feet_as_they_were_built(sound: Job) -> None:
    """One foot 12 mm aft of where it was planned: the crossbar lies 6 mm further aft, and still bears."""
    frame, feet = visit(on_crossbars(sound)), "feet_of_carrier"
    rack = rack_of(on_crossbars(sound))
    planned = frame.of(feet, rack)
    built = (replace(planned[0], x_mm=planned[0].x_mm + 12, y_mm=planned[0].y_mm - 5), *planned[1:])
    first = planned[0].line
    assert crossbars_at(built)[first] == pytest.approx(crossbars_at(planned)[first] + 6)
    chains, clamps = frame.of("foot_chains", rack), frame.of("clamped_at", rack)
    for told in rack_frames(rack, built, chains, clamps):
        ends = told.frame.nodes_mm[told.lines[first]]
        assert set(ends[:, 0]) == {crossbars_at(built)[first]} and built[0].y_mm in ends[:, 1]


def test_a_crossing_is_a_corner_turned_round() -> None:
    """A rail 40 wide and 60 high between two angles on a crossbar 50 wide, by hand: bolts 40 mm beside the
    rail's middle across the roof, half the crossbar from it along it; the joint 30 mm below the rail's axis.
    """
    rail = RectangularTube(height=Length(mm=60), width=Length(mm=40))
    pull, along = _turned(_bolted(True, rail, RectangularTube(width=Length(mm=50))))
    roll, pitch, yaw = (np.array([0.0] * 3 + [1000.0 * (i == k) for i in range(3)]) for k in range(3))
    assert (pull(roll), pull(pitch), along(yaw)) == pytest.approx((1000 / 80, 1000 / 50, 1000 / 80))
    aft, across, up = (np.array([10.0 * (i == k) for i in range(6)]) for k in range(3))
    assert (pull(aft), pull(across), pull(-up)) == pytest.approx((300 / 50, 300 / 80, 5.0))


def test_feet_bend_along_the_roof_and_crossbars_stand_in_the_wind(sound: Job) -> None:
    """Uprights are plates along what they hold: soft across it. A crossbar is in the stream from end to end,
    whatever lies over it: coefficient times its face, N for a pascal.
    """
    job = on_crossbars(sound)
    for told, soft, firm in ((job, 0, 1), (apply_edits(sound, [PutInFrame(panels=("p1",))]), 1, 0)):
        springs = forces(told).frame.frame.supports[0].springs
        assert springs[soft] < springs[firm]
    rack, frame = rack_of(job), forces(job).frame
    under = rack.crossbars
    assert under is not None
    name = next(line for line in frame.lines if line.startswith("k"))
    own = tuple(c for c in visit(job)["all_carried"] if c.carrier == "b1")
    pushed = drag_of(rack, frame, own)[0, frame.lines[name], 0].sum()
    assert pushed == pytest.approx(DRAG_COEFFICIENT * 0.04 * (under.starboard_mm - under.port_mm) / 1000)


def test_a_thin_crossbar_is_the_weak_wall_of_its_crossings(sound: Job) -> None:
    told = verdict(on_crossbars(sound, crossbars__section__wall="1.5 mm"))
    assert told.crossing is not None and told.corner is not None
    walls = [next(k for k in chain.links if k.id == "rail") for chain in (told.crossing, told.corner)]
    assert walls[0].title.startswith("crossbar") and walls[0].pull_nominal_n < walls[1].pull_nominal_n / 2
    assert "crossbar" in told.chains[0].links[0].title
