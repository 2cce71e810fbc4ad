"""Seal: what is listed, what bonds, how long it cures, where the gland goes; by hand."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from math import atan, ceil, degrees, exp, hypot

import numpy as np
import pytest
from shapely import LineString, Point

from fahrtwind.core.edits import AddEntry, PutOnRack, PutOnRails, SetValue, apply_edits
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.roof import KeepOut
from fahrtwind.core.stations.seal.cure import LAYER_MM
from fahrtwind.core.stations.seal.glands import _nothing_wrong, _to_line, _wrong, check_of, offers_of
from fahrtwind.core.stations.wire.runs import laid_ways
from fahrtwind.core.tables.sealants import FAMILIES, SUBSTRATES, beside, bond
from tests.conftest import changed


def test_everything_that_lets_water_in_is_on_the_list(sound: Job) -> None:
    """Each foot once with its holes and its plate; scars; both ends of every tube; what covers it."""
    found = evaluate(sound).findings
    feet = [p for p in found.seal_places if p.kind == "screw foot"]
    assert len(feet) == sum(len(p.feet) for p in sound.panels)
    assert sum(p.holes for p in feet) == sum(m.kind == "hole" for m in found.marks)
    bracket = sound.panels[0].hold.bracket
    sizes = {tuple(sorted((p.plate_long_mm, p.plate_wide_mm))) for p in feet if p.id.startswith("p1")}
    assert sizes == {tuple(sorted((bracket.length.mm, bracket.base_mm)))}
    racked = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    told = {p.id: p for p in evaluate(racked).findings.seal_places}
    rails_and_bars = len(racked.carriers[0].rails) + len(racked.carriers[0].bars)  # type: ignore[union-attr]
    assert told["b1-ends"].holes == 2 * rails_and_bars
    railed = apply_edits(sound, [PutOnRails(panels=("p1", "p3"))])
    low, high = (
        [p for p in evaluate(job).findings.seal_places if p.covered_by]
        for job in (
            changed(railed, carriers__b1__height="10 mm"),
            changed(railed, carriers__b1__height="200 mm", carriers__b1__rails__r1__y="-1000 mm"),
        )
    )
    assert low and not any(p.reachable for p in low), "50 mm over the roof no nozzle gets in"
    assert {p.reachable for p in high if p.y_mm == -1000} == {True}, "within an arm's length of the edge"


def test_the_table_tells_of_every_pair_and_refusals_say_why() -> None:
    for family in FAMILIES:
        for ground in SUBSTRATES:
            verdict, why = bond(family, ground)
            assert verdict in ("good", "with primer", "refused") and bool(why) == (verdict != "good")
    # trade facts, common practice, no source
    assert bond("silicone", "rubber membrane")[0] == "refused"
    assert bond("bitumen tape", "rubber membrane")[0] == "refused"
    assert bond("lap sealant", "rubber membrane")[0] == "good"
    assert all(bond(f, "old silicone")[0] == "refused" for f in ("butyl tape", "hybrid", "polyurethane"))
    assert (
        beside("silicone", "hybrid") and beside("hybrid", "silicone") and not beside("butyl tape", "hybrid")
    )


def test_the_makers_sheet_counts_before_the_table(sound: Job) -> None:
    refused = changed(sound, seal={"substrate": "rubber membrane", "round_with": "polyurethane"})
    assert "seal-does-not-bond" in {s.id for s in evaluate(refused).snags}
    sheet = {
        "family": "polyurethane",
        "document": "2026-03",
        "bonds": "with primer",
        "skin_h": 0.4,
        "depth_24h": "5 mm",
        "coldest": "-5 °C",
    }
    told = apply_edits(refused, [AddEntry(path="seal.sheets", value=sheet)])
    told = apply_edits(told, [SetValue(path="seal.temperature", value="0 °C")])
    found = evaluate(told)
    choice = found.findings.seal
    assert choice is not None and choice.round_bond.by_sheet and choice.round_bond.bond == "with primer"
    assert (choice.round.skin_h.most, choice.round.depth_24h_mm.least, choice.round.coldest_c) == (0.4, 5, -5)
    cold = [s.where for s in found.snags if s.id == "too-cold-to-seal"]
    assert cold == ["butyl tape"], "the sheet's sealant bears the cold, the tape under the plate does not"


def test_clips_over_open_roof_are_places_and_screws_are_holes(sound: Job) -> None:
    """One every 300 mm at most, evenly, over what lies open; stuck: a dab of 20 × 20 × 1.5 mm each."""
    found = evaluate(sound).findings
    ways = [way for h in found.harnesses for way in laid_ways(h).values()]
    for way in ways:
        assert len(way.clip_spots) == ceil(way.open_mm / 300)
        apart = [hypot(b.x_mm - a.x_mm, b.y_mm - a.y_mm) for a, b in pairwise(way.clip_spots)]
        # round a corner they are nearer in a straight line, never further than along the cable
        assert all(a <= way.open_mm / len(way.clip_spots) + way.held_mm + 50 for a in apart)
    clips = sum(len(way.clip_spots) for way in ways)
    stuck = [p for p in found.seal_places if p.kind == "cable clip"]
    assert clips and sum(p.count for p in stuck) == clips and not any(p.holes for p in stuck)
    screwed = evaluate(changed(sound, wiring__clip="screwed"))
    places = [p for p in screwed.findings.seal_places if p.kind == "clip screw"]
    assert sum(p.holes for p in places) == clips
    assert {p.kind for p in screwed.findings.seal_places} & {"cable clip"} == set()
    names = {p.name for p in places}
    hosed = {name for step in screwed.findings.proof.steps for name in step.places}
    assert names <= hosed, "each hole is hosed; stuck clips are not"
    assert not {p.name for p in stuck} & {n for s in found.proof.steps for n in s.places}
    [[dab]] = [[a for a in visit(sound)["place_amounts"] if a.place == stuck[0].id]]
    assert dab.volume_ml == pytest.approx(stuck[0].count * 0.4 * LAYER_MM) and dab.family == "hybrid"
    bought = {p.item: p.amount for p in found.wire_parts}
    assert bought["stick-on clip with dab of sealant"] == clips
    assert any(f"{clips} clips stuck" in s.detail for s in found.steps)


def test_cure_by_hand(sound: Job) -> None:
    """A fillet of 6 mm has its middle 6 / √2 = 4.24 mm from the air. Hybrid: 2 to 3.5 mm a day at 23 °C and
    50 %; at 8 °C and 40 % the air holds 0.4 · 10.72 = 4.29 hPa of 14.04.
    """
    job = changed(sound, seal={"temperature": "8 °C", "humidity": 40})
    cure = evaluate(job).findings.cure
    vapour = [share * 6.112 * exp(17.62 * t / (243.12 + t)) for t, share in ((23, 0.5), (8, 0.4))]
    slower = vapour[0] / vapour[1]
    assert cure is not None and not cure.assumed and cure.under_h is None
    assert cure.fillet_h.least == pytest.approx(24 * 18 / 3.5**2 * slower)
    assert cure.fillet_h.most == pytest.approx(24 * 18 / 2**2 * slower)
    assert cure.rain_h.most == pytest.approx(1.0 * slower)
    wet = evaluate(changed(job, seal__under="wet")).findings.cure
    narrow = min(sound.panels[0].hold.bracket.length.mm, sound.panels[0].hold.bracket.base_mm)
    assert wet is not None and wet.under_h is not None
    assert wet.under_h.least == pytest.approx(24 * (narrow / 2 / 3.5) ** 2 * slower)
    trimmed = evaluate(changed(job, seal__edge="trim")).findings
    assert trimmed.cure is not None and trimmed.cure.trim_h == 48
    titles = [s.title for s in trimmed.steps]
    assert titles.index("Trim what squeezed out") < titles.index("Seal round every foot")


def test_places_that_are_offered_for_a_gland_have_nothing_against_them(sound: Job) -> None:
    """The many-at-once check beside the one that says what is wrong."""
    keep = {"id": "k1", "kind": "wire", "name": "Wire", "from_x": 0, "from_y": 0, "to_x": 8000, "to_y": 300}
    job = changed(
        sound, survey__keep_outs=[keep], seal={"gland": {"x": "600 mm", "y": "0 mm", "cable": "6 mm"}}
    )
    found, around = evaluate(job).findings, visit(job)["surroundings"]
    assert found.gland is not None and found.gland.bore_mm == pytest.approx(5.3)
    assert len(found.gland_offers) == 4
    for offer in found.gland_offers:
        there = changed(job, seal__gland__x=f"{offer.x_mm} mm", seal__gland__y=f"{offer.y_mm} mm")
        assert there.seal.gland is not None
        assert check_of(there.seal.gland, there.vehicle, around).wrong == ()
        ends = [abs(offer.x_mm - x) + abs(offer.y_mm - y) for x, y in around.ends]
        assert offer.away_mm == pytest.approx(max(ends))
    # places across the whole roof, judged one by one and all at once; pools as well
    ponds = replace(around, pools=((6000.0, -500.0, 300.0),))
    dice = np.random.default_rng(5)
    x, y = np.sort(dice.uniform(100, 8300, 30)), np.sort(dice.uniform(-1100, 1100, 20))
    at_once = _nothing_wrong(x, y, 30.0, ponds)
    one_by_one = [not _wrong(float(a), float(b), 30.0, "rear", ponds) for a in x for b in y]
    assert at_once.ravel().tolist() == one_by_one and 0 < sum(one_by_one) < 600
    assert any("edge" in w for w in _wrong(10.0, 0.0, 30.0, "rear", around))
    assert any("edge" in w for w in _wrong(8390.0, 0.0, 30.0, "rear", around))
    on_wire = changed(job, seal__gland__x="4000 mm", seal__gland__y="150 mm")
    assert on_wire.seal.gland is not None
    assert any("Wire" in w for w in check_of(on_wire.seal.gland, on_wire.vehicle, around).wrong)
    # how far it leans: by the crown's slopes where it was measured, else told as not known
    arch = [{"id": f"g{y}", "y": y, "gap": 1.2e-4 * y**2} for y in (-900, -500, 0, 500, 900)]
    crown = {"sections": [{"id": "s1", "x": 4000, "readings": arch}]}
    measured = visit(changed(job, survey__crown=crown))["surroundings"]
    assert measured.crown is not None
    lean = degrees(atan(2 * 1.2e-4 * 150))
    told = check_of(on_wire.seal.gland, on_wire.vehicle, measured)
    assert told.lean_deg == pytest.approx(lean, rel=0.1) and told.layers is not None
    unknown = replace(around, crown=None)
    nothing = check_of(on_wire.seal.gland, on_wire.vehicle, unknown)
    assert nothing.lean_deg is None and nothing.layers is None
    assert {o.why for o in offers_of(on_wire.seal.gland, unknown)} == {"lean not known"}


def test_ways_side_by_side_and_the_hose_from_low_to_high(sound: Job) -> None:
    found = evaluate(changed(sound, seal={"temperature": "20 °C", "humidity": 60})).findings
    tape, trimmed, wet = found.seal_ways
    assert (tape.chosen, trimmed.chosen, wet.chosen) == (True, False, False)
    assert wet.tape_mm == 0 < tape.tape_mm and wet.volume_ml > tape.volume_ml
    assert trimmed.visits == 2 and trimmed.hours > tape.hours and wet.ready_days > tape.ready_days
    proof = found.proof
    assert proof is not None
    named = [name for step in proof.steps for name in step.places]
    listed = [p for p in found.seal_places if p.kind != "open tube"]
    assert sorted(named) == sorted(p.name for p in listed)
    offset = {p.name: abs(p.y_mm) for p in listed}
    lowest, highest = proof.steps[0].places, proof.steps[-1].places
    assert min(offset[n] for n in lowest) > max(offset[n] for n in highest), "from the sides to the middle"


def test_one_kind_is_sealed_otherwise_and_the_rest_as_before(sound: Job) -> None:
    """A gland wet in polyurethane: its layers, amounts, times and snags change, those of feet do not."""
    before = evaluate(sound).findings
    entry = {"id": "e1", "kind": "gland", "under": "wet", "round_with": "polyurethane", "why": "it moves"}
    job = changed(sound, seal__kinds=[entry])
    after = evaluate(job).findings
    told = {s.kind: s.layers for s in after.seal_sections}
    assert told["screw foot"] == {s.kind: s.layers for s in before.seal_sections}["screw foot"]
    words = " ".join(layer.what for layer in told["gland"])
    assert "polyurethane" in words and "hybrid under" in words and "butyl" not in words
    feet = {a.family: a for a in before.seal_amounts}
    now = {a.family: a for a in after.seal_amounts}
    assert now["polyurethane"].volume_ml > 0 and now["butyl tape"].tape_mm < feet["butyl tape"].tape_mm
    # under a plate of 60 mm moisture comes from its edges: 30 mm deep, slower than any fillet
    assert before.cure is not None and before.cure.under_h is None
    assert after.cure is not None and after.cure.under_h is not None
    assert [m.sealant for m in after.marks] == [m.sealant for m in before.marks]
    bad = evaluate(changed(job, seal__kinds__e1__round_with="acrylic", seal__substrate="gelcoat"))
    snag = next(s for s in bad.snags if s.id == "seal-does-not-bond")
    assert snag.where.endswith("gland") and snag.place == "seal.kinds"
    twice = evaluate(changed(sound, seal__kinds=[entry, {**entry, "id": "e2", "round_with": "hybrid"}]))
    assert "kind-told-twice" in {s.id for s in twice.snags}
    assert "polyurethane" not in {a.family for a in twice.findings.seal_amounts}
    screws = evaluate(
        changed(sound, seal__kinds=[{"id": "e1", "kind": "screw foot", "round_with": "polyurethane"}])
    ).findings
    assert all("polyurethane" in m.sealant for m in screws.marks)
    assert any("Polyurethane" in s.detail for s in screws.steps if s.title == "Seal round every foot")


def test_an_edge_left_open_is_no_seal(sound: Job) -> None:
    """Tape that is left open at its edge takes no sealant, so none can be too cold for it."""
    tape = {"school": "tape", "temperature": "20 °C", "sealed_edge": False}
    panels = {f"panels__{p.id}__hold": tape for p in sound.panels}
    job = changed(sound, **panels, survey__scars=[], seal__gland=None, seal__temperature="2 °C")
    assert "too-cold-to-seal" not in {s.id for s in evaluate(job).snags}
    closed = changed(job, **{f"panels__{p.id}__hold__sealed_edge": True for p in sound.panels})
    assert "too-cold-to-seal" in {s.id for s in evaluate(closed).snags}


def test_how_far_a_gland_is_from_a_slanted_line_beside_a_geometry_library() -> None:
    dice = np.random.default_rng(5)
    for ax, ay, bx, by, x, y in dice.uniform(-2000, 2000, (40, 6)):
        line = KeepOut.model_validate(
            {"id": "k", "kind": "wire", "name": "k", "from_x": {"mm": ax + 2000}, "from_y": {"mm": ay}}
            | {"to_x": {"mm": bx + 2000}, "to_y": {"mm": by}}
        )
        wanted = LineString([(ax + 2000, ay), (bx + 2000, by)]).distance(Point(x, y))
        assert _to_line(x, y, line) == pytest.approx(wanted)
    point = line.model_copy(update={"to_x": line.from_x, "to_y": line.from_y})
    assert _to_line(x, y, point) == pytest.approx(hypot(x - ax - 2000, y - ay))
