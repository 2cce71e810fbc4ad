"""Racks: the frame of a job by hand, what must hold whatever the numbers are, what edits do."""

from __future__ import annotations

import random
from typing import Any

import numpy as np
import pytest

from fahrtwind.core.choose.make_hold import make_hold
from fahrtwind.core.edits import PutInFrame, PutOnRack, RemoveEntry, SetValue, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.formulas.roof import GRAVITY
from fahrtwind.core.job.carrier import Crossbars, Rack, Rails
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.panel import BasePlate, Screws
from fahrtwind.core.job.sections import ChannelSection, EqualAngle, OwnSection
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.carriers.links import joint_chain
from fahrtwind.core.stations.hold.carriers.rack_forces import RackForces
from fahrtwind.core.stations.hold.carriers.sections import bar_strength, shape_of
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.working import working
from tests.conftest import changed
from tests.core.test_documents import trouble
from tests.core.test_snags import POINTS, racked
from tests.truth.documents import random_part


def rack_of(job: Job) -> Rack:
    found = job.carriers[0]
    assert isinstance(found, Rack)
    return found


def verdict(job: Job) -> CarrierVerdict:
    found = evaluate(job).findings
    assert not found.silent, found.silent
    return found.carriers[0]


def forces(job: Job) -> RackForces:
    found = visit(job).of("carrier_forces", job.carriers[0])
    assert isinstance(found, RackForces)
    return found


def test_one_click_sets_up_a_rack_on_the_points(sound: Job) -> None:
    job = racked(sound)
    rack, found = rack_of(job), evaluate(job).findings
    assert rack.points == ("w1", "w2") and [r.y.mm for r in rack.rails] == [-1050, 1050]
    assert all(p.carrier == rack.id and not p.feet and p.stand_off.mm == 120 for p in job.panels)
    feet = [f for f in found.feet if f.panel == rack.id]
    assert {f.landing for f in feet} == {"point"} and len(feet) == 10
    assert not [m for m in found.marks if m.panel == rack.id], "nothing is drilled"
    bars = [b.x.mm for b in rack.bars]
    for panel in job.panels:
        length = panel.model.length.mm
        assert sum(panel.x.mm < b < panel.x.mm + length for b in bars) == 2
    bought = {m.item: m.needed for m in found.materials}
    assert bought["panel clamp with bolt"] == 16 and bought["bracket for a factory point"] == 10
    corners = "corner 6063-T5, angle 40 mm × 40 mm × 6 mm"
    assert bought[corners] == 4 * len(bars)
    back = apply_edits(job, [RemoveEntry(path=f"carriers.{rack.id}")])
    assert all(p.feet and p.carrier is None for p in back.panels)


def test_points_on_one_side_only_are_not_enough(sound: Job) -> None:
    lonely = changed(sound, survey__point_rows=POINTS[:1])
    with pytest.raises(InputError, match="both sides") as caught:
        apply_edits(lonely, [PutOnRack(panels=("p1",))])
    assert caught.value.field == "survey.point_rows"
    standing = apply_edits(lonely, [PutOnRack(panels=("p1", "p2"), points=False)])
    assert {f.landing for f in evaluate(standing).findings.feet if f.panel == "b1"} == {"member"}


def test_feet_bear_what_the_clamps_hand_down(sound: Job) -> None:
    """In every situation, with all feet and with each lost, pulls on the feet are those of the clamps and the
    weight of the rack: nothing is lost on the way.
    """
    job = racked(sound)
    seen, told = visit(job), forces(job)
    shared = [seen.of("shared", p).road for p in job.panels]
    clamps = sum(s.pull_constant[0].sum(axis=1) for s in shared)
    per_pa = sum(s.pull_per_pa[0].sum(axis=1) for s in shared)
    cases = len(set(told.road.cases))
    rows = len(clamps)
    mass = told.frame.mass_kg.sum()
    weight = [-0.6 * mass * 9.80665] * (cases // 2) + [0.0] * (cases // 2)  # a bump takes it off
    for end in (slice(0, rows), slice(rows, 2 * rows)):
        for variant in np.flatnonzero(told.road.stable):
            on = told.road.pull_constant[variant, end].sum(axis=1)
            assert on == pytest.approx(clamps + np.tile(weight, rows // cases), abs=1e-3)
            assert told.road.pull_per_pa[variant, end].sum(axis=1) == pytest.approx(per_pa, abs=1e-6)


def test_weaker_is_never_safer(sound: Job) -> None:
    def safe(**values: Any) -> float:
        return verdict(racked(sound, **values)).safe_m_s

    walls = [safe(bar_section={"kind": "tube", "wall": t}) for t in (1, 2, 4)]
    assert walls == sorted(walls) and walls[0] < walls[-1]
    angles = [safe(angle_wall=f"{t} mm") for t in (2, 4, 6)]
    assert angles[0] < angles[1] < angles[2] * 1.001
    soft = verdict(racked(sound, joint="welded", alloy="6060-T66", bar_alloy="6060-T66"))
    hard = verdict(racked(sound, joint="welded", alloy="S235", bar_alloy="S235"))
    assert max(r.utilisation for r in soft.rails) > max(r.utilisation for r in hard.rails)
    told = verdict(racked(sound))
    assert told.let_go_m_s >= told.safe_m_s and told.let_go_m_s >= told.lost_let_go_m_s
    lower = verdict(racked(sound, ({"rating": "30 kg"}, {"rating": "30 kg"})))
    assert lower.safe_m_s < told.safe_m_s


def test_a_point_bears_its_rating_and_no_more(sound: Job) -> None:
    """F/R + H/R = 1 at the let-go speed of the foot that its point decides, R 60 kg · g."""
    job = racked(sound, ({"rating": "60 kg"}, {"rating": "60 kg"}))
    told = verdict(job)
    worst = next(f for f in told.feet if f.foot == told.worst_foot)
    point = next(k for k in told.chains[worst.chain].links if k.id == "point")
    assert point.pull_nominal_n == pytest.approx(60 * 9.80665)
    assert worst.utilisation == pytest.approx(
        (max(worst.pull_n, 0) + worst.shear_n) / (60 * 9.80665), rel=1e-9
    )
    unknown = evaluate(racked(sound, ({"rating": None}, {"rating": None})))
    stop = next(s for s in unknown.snags if s.id == "point-not-rated")
    assert "pull" in stop.why and unknown.spoken.word == "refused"


def test_mirrored_racks_have_mirrored_feet(sound: Job) -> None:
    job = racked(sound)
    both = [p for p in job.panels if p.id in ("p1", "p2")]
    assert both[0].y.mm == pytest.approx(-both[1].y.mm)
    by_foot = {f.foot: f for f in verdict(job).feet}
    for foot, told in by_foot.items():
        if foot.startswith("r1"):
            other = by_foot[foot.replace("r1", "r2")]
            assert told.pull_n == pytest.approx(other.pull_n, rel=1e-6, abs=1.0)
            assert told.safe_m_s == pytest.approx(other.safe_m_s, rel=1e-4)


def test_the_working_repeats_what_is_told(sound: Job) -> None:
    job = racked(sound)
    told = verdict(job)
    corner = max(told.joints, key=lambda j: j.utilisation)
    steps = working(job, f"hold/b1/corner {corner.joint}").steps
    used = [s.result for s in steps if s.formula == "utilisation"]
    assert max(used) == pytest.approx(corner.utilisation, rel=1e-9)
    bar = max(told.rails, key=lambda r: r.utilisation)
    sheet = working(job, f"hold/b1/bending {bar.rail}")
    stress = [s.result for s in sheet.steps if s.formula == "bar_stress"]
    assert stress[0] * 1.65 / 160 == pytest.approx(bar.utilisation, rel=1e-6)


def test_sections_by_hand() -> None:
    """50 × 5 angle: A 475, I_eff 73 062; channel 50 × 30 × 4: A 408; an own section must be whole."""
    angle = shape_of(EqualAngle(leg=Length(mm=50), wall=Length(mm=5)), "")
    assert (angle.area_mm2, angle.up_mm4) == (pytest.approx(475), pytest.approx(73_062, rel=1e-4))
    assert angle.up_mm3 == pytest.approx(73_062 / (50 - 14.34), rel=1e-3)
    channel = shape_of(ChannelSection(), "")
    assert channel.area_mm2 == pytest.approx(408) and channel.side_mm3 == pytest.approx(
        151_976 / 25, rel=1e-4
    )
    half = OwnSection(inertia_cm4=9, modulus_cm3=4)
    assert bar_strength(half, "6060-T66", "here").shape.up_mm4 == 90_000
    with pytest.raises(InputError) as caught:
        bar_strength(OwnSection(), "6060-T66", "here")
    assert caught.value.field == "here.inertia_cm4"


def test_bad_racks_name_what_is_wrong(sound: Job) -> None:
    def silent(**values: Any) -> Any:
        return evaluate(racked(sound, **values)).findings.silent[0]

    beyond = silent(bars__a1__x="-900 mm")
    assert beyond.place == "carriers.b1.bars.a1.x" and "beyond the rails" in beyond.why
    short = silent(port="900 mm")
    assert "fewer than two rails" in short.why
    half = silent(bar_section={"kind": "own", "inertia_cm4": 9, "modulus_cm3": 4})
    assert half.place == "carriers.b1.bar_section.side_inertia_cm4"
    crossed = racked(sound, bars=[{"id": "a1", "x": 900}, {"id": "a2", "x": 900.2}])
    assert evaluate(crossed).findings.silent or evaluate(crossed).findings.carriers, "two bars in one place"


def test_a_frame_lies_in_one_plane_round_its_panels(sound: Job) -> None:
    """40 mm tubes 40 mm over the roof: panels lie at 80 mm, not at 120 as on a rack; the bars start half a
    tube in from the panel's ends. Its bars stand in the stream whole.
    """
    job = apply_edits(sound, [PutInFrame(panels=("p1",))])
    frame, panel = rack_of(job), job.panels[0]
    rect = panel_rect(panel)
    assert panel.stand_off.mm == 80 and panel.carrier == frame.id
    assert [b.x.mm for b in frame.bars] == [rect.x_mm + 20, rect.x_end_mm - 20]
    assert [r.y.mm for r in frame.rails] == [rect.y_mm - 8, rect.y_end_mm + 8], "clamps in their middle"
    told = forces(job)
    assert set(told.frame.frame.nodes_mm[:, 2]) == {60.0}, "rails and bars with one axis"
    still = forces(changed(job, carriers__b1__flush=False, carriers__b1__height="20 mm"))
    front = told.road.along_per_pa[0].sum() - still.road.along_per_pa[0].sum()
    assert front > 0, "it has more in the stream than bars under panels"
    assert verdict(job).safe_m_s > 0
    vent = {
        "kind": "other",
        "name": "Vent",
        "x": rect.x_mm - 100,
        "y": 0,
        "length": 300,
        "width": 300,
        "height": 60,
    }
    under = changed(job, obstacles=[{"id": "o9", **vent, "y": panel.y.mm}])
    assert "bar-over-obstacle" in {s.id for s in evaluate(under).snags}, "its bars hang down to 40 mm"
    with pytest.raises(InputError, match="across them"):
        changed(job, carriers__b1__joint="bolt")


def test_a_bolt_a_corner_carries_no_turning(sound: Job) -> None:
    """The bar swings about a single bolt: no moment about the upright axis, and no angle among the links."""
    job = racked(sound, joint="bolt")
    assert np.abs(np.nan_to_num(forces(job).ties_road.per_pa[..., 5])).max() == pytest.approx(0.0, abs=1e-6)
    assert [k.id for k in joint_chain(rack_of(job)).links] == ["bolt", "rail"]
    assert [k.id for k in joint_chain(rack_of(racked(sound))).links] == ["bolt", "rail", "angle"]
    assert verdict(racked(sound, joint="welded")).joints == ()


def test_a_rack_that_does_not_hold_is_mended_as_a_rack(sound: Job) -> None:
    weak = racked(sound, angle_wall="2 mm")
    found = make_hold(weak)
    offers = [o for p in found.panels for o in p.offers]
    assert offers and any("corner angles" in o.words for o in offers)
    for offer in offers[:1]:
        after = apply_edits(weak, list(offer.edits))
        assert not [s for s in evaluate(after).snags if s.severity == "stop" and s.id.startswith("carrier")]


def test_changes_of_the_rack_reach_the_panels(sound: Job) -> None:
    raised = apply_edits(racked(sound), [SetValue(path="carriers.b1.bar_section.height", value="60 mm")])
    assert {p.stand_off.mm for p in raised.panels} == {140.0}
    tall = verdict(racked(sound, height="200 mm"))
    assert tall.safe_m_s < verdict(racked(sound)).safe_m_s, "what stands taller drags more"


@pytest.mark.parametrize("seed", range(40))
def test_carriers_anyhow_are_answered(sound: Job, seed: int) -> None:
    """Any carrier that may be typed, under four panels, gives finite numbers or a stop."""
    dice = random.Random(seed)
    kind = dice.choice((Rack, Rails))
    carrier = {**random_part(kind, dice), "kind": kind.__name__.lower(), "id": "b1", "name": "Any"}
    if kind is Rack:
        carrier["points"] = dice.choice(([], ["w1", "w2"]))
        carrier["flush"] = carrier.get("joint") in ("angles", "welded") and dice.random() < 0.5
        carrier["hold"] = random_part(BasePlate if carrier.get("posts") else Screws, dice)
        if carrier["points"] or carrier.get("posts"):
            carrier["feet_at"] = []
        if carrier["points"] or carrier.get("posts") or carrier.get("own_rails") or dice.random() < 0.5:
            carrier["crossbars"] = None
        elif carrier.get("crossbars"):
            carrier["height"] = {"mm": Crossbars.model_validate(carrier["crossbars"]).section.height.mm + 30}
    found = evaluate(load_job({**racked(sound).model_dump(), "carriers": [carrier]}))
    assert trouble(found) == []
    assert bool(found.findings.carriers) or found.spoken.word in ("refused", "not known")


def test_clamps_on_round_rails_slip_and_turn(sound: Job) -> None:
    """By hand: two M8 settled at 0.64 · 6250 N grip with 2 · 0.15 · 2 · 4000 = 2400 N; rubber has half the
    preload and twice the friction. More bolts never hold less; rails of the vehicle's own are not bought.
    """
    tube = {"kind": "round", "diameter": "48 mm", "wall": "2.5 mm"}
    job = racked(sound, section=tube, joint="clamps")
    (rack,) = evaluate(job).findings.carriers
    assert rack.corner is not None
    links = {k.id: k for k in rack.corner.links}
    assert links["slip"].shear_nominal_n == pytest.approx(2400.0, rel=5e-3)
    assert links["slip"].shear_design_n == pytest.approx(1600.0, rel=5e-3)
    assert links["bolt"].pull_nominal_n == pytest.approx(2 * 700 * 36.6, rel=5e-3)
    lined = evaluate(changed(job, carriers__b1__clamp__lined=True)).findings.carriers[0].corner
    assert lined is not None
    assert lined.links[1].shear_nominal_n == pytest.approx(links["slip"].shear_nominal_n)
    assert lined.links[1].pull_nominal_n == pytest.approx(links["slip"].pull_nominal_n / 2)
    four = evaluate(changed(job, carriers__b1__clamp__bolts=4)).findings.carriers[0]
    for more, fewer in zip(four.joints, rack.joints, strict=True):
        assert more.utilisation <= fewer.utilisation
    own = changed(job, carriers__b1__own_rails=True)
    assert not any(m.item.startswith("rail ") for m in evaluate(own).findings.materials)
    assert any("two-piece clamp" in m.item for m in evaluate(own).findings.materials)


def test_corners_bear_the_landing_after_a_bump(sound: Job) -> None:
    """All that lies on the rails comes down with three times its weight through the corners: panels and bars,
    by hand. With a foot lost nobody drives into potholes.
    """
    job = racked(sound)
    told, rack = forces(job), rack_of(job)
    landing = (told.ties_road.per_pa[0] == 0).all(axis=(1, 2))
    bar_kg_m = next(m for m in told.frame.made_of.values() if m.runs == "across").strength.mass_kg_m
    bars = len(rack.bars) * bar_kg_m * (rack.starboard.mm - rack.port.mm) / 1000
    above = bars + sum(p.model.mass.kg for p in job.panels)
    down = told.ties_road.constant[0, landing, :, 2].sum(axis=-1)
    assert down.size and down == pytest.approx(3 * GRAVITY * above, rel=1e-6)
    assert not np.nan_to_num(told.ties_road.constant[1:, landing]).any()
