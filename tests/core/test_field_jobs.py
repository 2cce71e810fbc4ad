"""Field jobs: whole roofs as readable job files, each planned from an empty job, with the trouble that its
kind of roof brings and the answers that its crew needs.
"""

from __future__ import annotations

from datetime import date, timedelta
from itertools import pairwise
from pathlib import Path

import pytest

from fahrtwind.core.choose.curves import EvenLight, curves_of
from fahrtwind.core.choose.remedies import remedies
from fahrtwind.core.edits import PutOnPosts, PutOnRails, SetValue, TetherPanel, apply_edits
from fahrtwind.core.evaluate import Evaluation, evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.log.due import due_of
from fahrtwind.demo import demo_jobs
from fahrtwind.files.job_file import read_job, write_job
from tests.conftest import changed, yield_of

FOLDER = Path(__file__).parent.parent / "field_jobs"
KM_H = 3.6


def job_of(name: str) -> Job:
    return read_job((FOLDER / f"{name}.json").read_bytes())


def snags(found: Evaluation, rule: str) -> list[str]:
    return [f"{s.where}: {s.why}" for s in found.snags if s.id == rule]


def stops(found: Evaluation) -> set[str]:
    return {s.id for s in found.snags if s.severity == "stop"}


@pytest.mark.parametrize("path", sorted(FOLDER.glob("*.json")), ids=lambda p: p.stem)
def test_every_field_job_is_read_answered_and_written_again(path: Path) -> None:
    job = read_job(path.read_bytes())
    assert read_job(write_job(job).encode()) == job
    found = evaluate(job)
    assert found.findings.silent == () and found.findings.materials and found.findings.steps


def test_druckerei_a_rack_on_factory_holes_that_are_off() -> None:
    found = evaluate(job_of("druckerei"))
    (rack,) = found.findings.carriers
    assert len(rack.feet) == 8, "the front pair under the fan's edge is left out"
    assert stops(found) == set()
    assert len(snags(found, "point-off-slot")) == 3, "two are off; the row is fitted through all"
    assert snags(found, "pads-lean"), "the pads follow the roof by 4°"
    assert snags(found, "channel-holds-water")
    assert not found.findings.marks, "no new hole"
    assert not snags(found, "ceiling-unknown") and not snags(found, "members-unknown")
    unrated = changed(job_of("druckerei"), survey__point_rows__w1__rating=None)
    assert "point-not-rated" in stops(evaluate(unrated))


def test_gaertnerei_tube_rails_on_twenty_pins() -> None:
    found = evaluate(job_of("gaertnerei"))
    (rack,) = found.findings.carriers
    assert len(rack.feet) == 20 and stops(found) == set()
    assert snags(found, "pads-lean"), "the crowned roof leans the rails out by 2.5°"
    heavy = changed(
        job_of("gaertnerei"), survey__point_rows__w1__rating="25 kg", survey__point_rows__w2__rating="25 kg"
    )
    assert "carrier-lets-go" in stops(evaluate(heavy)), "a clip for a roof bag holds no panels"


def test_sternwarte_two_panels_bridged_over_a_dome() -> None:
    job = job_of("sternwarte")
    found = evaluate(job)
    assert found.spoken.word == "holds"
    assert not [o for o in found.findings.overlaps if o.kind == "obstacle"], "the dome is under the bars"
    (rack,) = found.findings.carriers
    assert rack.sag_mm is not None and rack.sag_mm < 5
    low = evaluate(changed(job, carriers__b1__height="20 mm", obstacles__o1__height="105 mm"))
    assert stops(low) & {"on-obstacle", "bar-over-obstacle"}


def test_feldlabor_one_tilting_unit_on_tape() -> None:
    """Four panels in one frame on six taped feet: what lets go on the road and raised, which corner between
    the halves is too soft and what cures it, and that one plane throws no shadow on itself.
    """
    job = job_of("feldlabor_winter")
    found = evaluate(job)
    (unit,), (frame,) = found.findings.raised, found.findings.carriers
    assert job.raisings[0].panels == ("p1", "p2", "p3", "p4") and unit.frame == "b1"
    assert len(frame.feet) == 6 and len([t for t in found.findings.taped if t.panel == "b1"]) == 6
    assert unit.first == "foot under a strut" and 40 < unit.stow_m_s * KM_H < 65
    assert {"carrier-not-safe", "latch-not-rated", "tape-creeps"} <= stops(found)
    corner = next(p for p in unit.parts if p.part.startswith("corner"))
    assert corner.part.split()[1].endswith(("a2", "a3")) and corner.force_n > corner.bears_n, (
        "where the halves meet"
    )
    four = changed(job, raisings__g1__struts=4, carriers__b1__angle_wall="10 mm")
    cured = next(p for p in evaluate(four).findings.raised[0].parts if p.part.startswith("corner"))
    assert cured.force_n < cured.bears_n, "a strut at every bar and thicker angles"
    flat = changed(job, panels__p1__tilt="20°")
    (lower,) = evaluate(flat).findings.raised
    assert lower.stow_m_s > unit.stow_m_s
    shapes = {s.id: s.raised for s in found.findings.shapes if s.id in ("p1", "p2")}
    assert shapes["p1"].low_mm == 0 and shapes["p2"].low_mm > shapes["p1"].rise_mm
    december = yield_of(job).panels
    assert all(p.months[11].lost < 0.01 for p in december)


def test_imkerwagen_tape_on_a_curve_with_tethers() -> None:
    job = job_of("imkerwagen_laminat")
    found = evaluate(job)
    assert {"tape-too-cold", "safe-speed-too-low"} <= stops(found)
    assert len(snags(found, "tape-crown-strains")) == 4, "a flat base of 60 mm is forced onto 2.4 m"
    taped = [t for t in found.findings.taped if t.panel == "p1"]
    assert all(2200 < (t.radius_mm or 0) < 2800 for t in taped)
    bent = changed(job, **{f"panels__p{i}__hold__shaped": "bent" for i in range(1, 5)})
    assert not snags(evaluate(bent), "tape-crown-strains")
    assert len(found.findings.caught) == 2 and all(c.two_sides for c in found.findings.caught)
    assert all(t.all_lost_n > t.bears_n for c in found.findings.caught for t in c.tethers)
    assert snags(found, "tether-breaks") and snags(found, "bolts-need-access")
    warm = changed(job, **{f"panels__p{i}__hold__temperature": "22 °C" for i in range(1, 5)})
    assert "tape-too-cold" not in stops(evaluate(warm))


def test_toepferei_stiff_feet_touch_on_part_of_their_face() -> None:
    job = job_of("toepferei")
    found = evaluate(job)
    assert {"tape-touches-partly", "tape-crown-peels"} <= stops(found)
    bent = evaluate(changed(job, panels__p1__hold__shaped="bent"))
    assert not stops(bent) & {"tape-touches-partly", "tape-crown-peels"}


def test_buecherbus_well_nuts_refused_screws_into_trusses_hold() -> None:
    found = evaluate(job_of("buecherbus"))
    assert {"well-nuts-alone", "thin-board-under-well-nut"} <= stops(found)
    assert not [s for s in found.snags if s.severity == "stop" and "p2" in s.place], "the screwed one holds"
    ends = [f for f in found.findings.feet if f.panel == "p2"]
    assert {f.landing for f in ends} == {"member"}
    pilots = {m.pilot_mm for m in found.findings.marks if m.panel == "p2"}
    assert pilots and all(p and p < 5 for p in pilots)
    job = job_of("buecherbus")
    offer = next(r for r in remedies(job) if r.snag == "well-nuts-alone")
    assert offer.words == "screws into members"
    screwed = apply_edits(job, list(offer.edits))
    assert not stops(evaluate(screwed)), "as long as the shallow truss takes them: shorter ones do not hold"
    assert screwed.panels[0].hold.length.mm == 50


def test_zirkuswagen_rails_moved_inboard_past_an_aerial() -> None:
    job = job_of("zirkuswagen")
    found = evaluate(job)
    assert stops(found) == set() and len(found.findings.carriers[0].feet) == 16
    straight = changed(job, carriers__b1__rails__r1__y="-840 mm", carriers__b1__rails__r2__y="840 mm")
    assert "rail-over-obstacle" in stops(evaluate(straight)), "the aerial stands in the port rail's way"
    thin = {"height": "30 mm", "width": "30 mm", "inertia_cm4": 2.7, "side_inertia_cm4": 2.7}
    thin |= {"modulus_cm3": 1.8, "side_modulus_cm3": 1.8, "torsion_cm4": 0.5}
    slender = {f"carriers__b1__section__{k}": v for k, v in thin.items()}
    told = evaluate(changed(job, **slender)).findings.carriers[0]
    assert told.let_go_m_s < found.findings.carriers[0].let_go_m_s, "100 mm beside its points it is twisted"


def test_libelle_rails_at_every_rib_longer_than_their_stock() -> None:
    job = job_of("libelle")
    found = evaluate(job)
    (rails,) = found.findings.carriers
    assert len(rails.feet) == 18 and stops(found) == set()
    assert "5.2 m" in snags(found, "rail-longer-than-stock")[0]
    assert snags(found, "rail-overhang")
    bolted = changed(job, carriers__b1__hold={"school": "bolts", "bolt": "M8", "length": "40 mm"})
    assert "nut-in-closed-rib" in stops(evaluate(bolted))
    second = evaluate(changed(job, carriers__b1__every=2)).findings.carriers[0]
    assert second.safe_m_s < rails.safe_m_s


def test_lichtspiel_which_stock_carries_how_many_panels() -> None:
    """The bus of the demo: a row of two panels on rails, sold in 4.3 and 5.2 m."""
    bus = next(j for j in demo_jobs() if j.name == "Lichtspiel")
    job = apply_edits(bus, [PutOnRails(panels=("p1", "p3"))])
    for stock, spliced in (("4.3 m", False), ("4 m", True), ("5.2 m", False)):
        with_stock = apply_edits(job, [SetValue(path="carriers.b1.stock", value=stock)])
        assert bool(snags(evaluate(with_stock), "rail-longer-than-stock")) is spliced


def test_wasserlaeufer_an_arch_on_a_cored_deck() -> None:
    boat = next(j for j in demo_jobs() if j.vehicle.kind == "boat")
    assert evaluate(boat).spoken.word == "holds"
    assert "core-crushed" in stops(evaluate(changed(boat, carriers__b1__hold__core="foam")))
    storm = evaluate(changed(boat, assumptions__basic_wind="32 m/s"))
    assert "carrier-parked" in stops(storm), "gusts at anchor, from any side"
    light = changed(boat, carriers__b1__posts__section__diameter="33.7 mm")
    assert {"arch-bends", "arch-strained"} & {s.id for s in evaluate(light).snags}


def test_a_tether_more_is_a_plan_that_grows() -> None:
    """A field job is walked on: what is added is drilled, bought and printed with the rest."""
    job = apply_edits(job_of("buecherbus"), [TetherPanel(panel="p2")])
    before, after = evaluate(job_of("buecherbus")).findings, evaluate(job).findings
    assert len(after.marks) > len(before.marks)
    assert any(m.item.startswith("tether, ") for m in after.materials)


def test_pritsche_two_piece_clamps_on_the_rails_of_a_truck_bed() -> None:
    job = job_of("pritsche")
    found = evaluate(job)
    (rack,) = found.findings.carriers
    assert stops(found) == set() and len(rack.joints) == 4
    assert {j.weakest for j in rack.joints} == {"slip"}
    items = [m.item for m in found.findings.materials]
    assert any(i.startswith("two-piece clamp for 48 mm tube") for i in items)
    assert not any(i.startswith("rail ") for i in items), "the bed has its rails"
    assert snags(found, "unlike-metals") and snags(found, "clamp-dents")
    square = {"kind": "tube", "height": "40 mm", "width": "40 mm", "wall": "3 mm"}
    assert "clamp-on-square" in stops(evaluate(changed(job, carriers__b1__section=square)))


def test_backstube_new_panels_in_trusses_after_the_old_came_off() -> None:
    job = job_of("backstube")
    found = evaluate(job)
    assert found.spoken.word == "holds" and stops(found) == set()
    assert {f.landing for f in found.findings.feet} == {"member"}, "every foot is in a truss"
    assert any("75 scars" in s for s in snags(found, "scars-open"))
    assert not snags(found, "leads-apart"), "dry-fit so that the leads of a pair meet"
    further = changed(job, panels__p1__y="-790 mm", panels__p2__y="790 mm")
    assert snags(evaluate(further), "leads-apart")
    assert found.findings.seen is not None and 3.0 < (found.findings.seen.distance_m or 0.0) < 4.0


def test_kurier_two_sizes_on_the_tracks_beside_a_fan() -> None:
    job = job_of("kurier")
    found = evaluate(job)
    (rack,) = found.findings.carriers
    assert stops(found) == set() and len(rack.feet) == 18 and not found.findings.marks
    low = evaluate(changed(job, carriers__b1__height="40 mm"))
    assert stops(low) == {"bar-over-obstacle"}, "bars that clear a 100 mm fan by nothing"
    faster = evaluate(changed(job, vehicle__top_speed="130 km/h"))
    assert "safe-speed-too-low" in stops(faster)


def filed(found: Evaluation) -> dict[str, float]:
    return {f.where: round(f.file_along_mm, 1) for f in found.findings.fits if f.file_along_mm}


def test_druckerei_is_made_filed_bent_and_coated_in_time() -> None:
    """The rows are fitted through all measured points: those that are 4 and 7 mm apart from their neighbours
    share that between them. Twelve working days at the coater are in the way of everything after them.
    """
    found = evaluate(job_of("druckerei"))
    assert filed(found) == {
        "port, 2 of 4": 1.5,
        "port, 3 of 4": -1.5,
        "starboard, 2 of 4": -3.0,
        "starboard, 3 of 4": 3.0,
    }
    leans = {(x.lean_deg, x.outward) for x in found.findings.leans}
    assert leans == {(4.0, True)} and all(4.0 < x.tool_deg < 4.1 for x in found.findings.leans)
    brackets = [p for p in found.findings.pieces if p.kind == "bracket"]
    assert len(brackets) == 8 and all(b.angle_deg == 90 < b.tool_deg for p in brackets for b in p.bends)
    assert all(any(h.slot_mm > 14 for h in p.holes) for p in brackets)
    assert all(c.cut.proved for c in found.findings.cuts)
    waits = {s.title: s.wait_h for s in found.findings.steps}
    assert waits["Rack 1: powder-coat"] == 12 * 24
    sunk = changed(job_of("druckerei"), workshop__bolting__heads="countersunk")
    assert "countersink-too-deep" in stops(evaluate(sunk)), "4 mm of channel do not seat a countersunk head"
    button = evaluate(changed(job_of("druckerei"), workshop__bolting__heads="button")).findings
    assert any("button-head bolt M8" in m.item for m in button.materials)
    assert any(k.item == "hex key 5 mm, for M8" for k in button.kit)
    tapped = changed(
        job_of("druckerei"), workshop__bolting__corners="tapped", carriers__b1__section__wall="6 mm"
    )
    assert "thread-in-wall" in stops(evaluate(tapped)), "6 mm of aluminium hold no M8: nuts"
    channel = changed(job_of("druckerei"), carriers__b1__section__width="24 mm")
    assert "nut-out-of-reach" in stops(evaluate(channel))


def test_gaertnerei_rails_are_pulled_together_squared_and_tightened() -> None:
    found = evaluate(job_of("gaertnerei"))
    rack = job_of("gaertnerei").carriers[0]
    titles = [s.title for s in found.findings.assembly]
    order = [
        titles.index(f"{rack.name}: {t}")
        for t in ("pull the rails together", "square it", "tighten in order")
    ]
    assert order == sorted(order)
    high = rack.height.mm + rack.section.height.mm
    assert {round(x.strap_mm, 1) for x in found.findings.leans} == {round(high * 0.04366, 1)}, "tan 2.5°"
    rails = [p for p in found.findings.pieces if p.kind == "rail"]
    assert all(h.through for p in rails for h in p.holes), "through the full depth of the tube"


def test_feldlabor_one_unit_is_lifted_by_four_and_better_by_eight() -> None:
    together = changed(job_of("feldlabor_winter"), workshop__lifting__as_one=True)
    (unit,) = evaluate(together).findings.lifts
    assert unit.mass_kg == pytest.approx(4 * 13 + 15.3, abs=0.1), "four panels and their frame"
    assert (unit.least_persons, unit.persons) == (4, 8)
    assert unit.hands_m_s < 5, "a unit of four panels is a sail in a light breeze"
    assert "too-few-to-lift" in stops(evaluate(together)), "three are there"
    apart = evaluate(job_of("feldlabor_winter"))
    assert "too-few-to-lift" not in stops(apart) and len(apart.findings.lifts) == 5, (
        "bare first, then each panel"
    )


def test_libelle_rails_are_joined_where_they_bend_little() -> None:
    found = evaluate(job_of("libelle"))
    plates = [p for p in found.findings.pieces if p.kind == "splice plate"]
    assert len(plates) == 4 and "splice-too-weak" not in stops(found)
    glued = changed(job_of("libelle"), workshop__bolting__locking="threadlocker")
    assert "grease-and-glue" in stops(evaluate(glued)), "anti-seize, never with threadlocker"


def test_zirkuswagen_slot_nuts_go_in_before_the_corners_close() -> None:
    found = evaluate(job_of("zirkuswagen"))
    titles = [s.title.split(": ")[1] for s in found.findings.assembly]
    assert titles.index("slide in slot nuts and trim strips") < titles.index(
        "join rails and bars, all bolts loose"
    )
    assert {abs(f.reach_mm) for f in found.findings.fits} == {100}, "brackets reach across to the moved rail"
    cost = found.findings.cost
    assert cost is not None and cost.work == 405 and cost.rack == 620 and cost.less_than_rack is None


def test_pritsche_is_painted_before_it_goes_on_the_bed() -> None:
    titles = [s.title.split(": ")[1] for s in evaluate(job_of("pritsche")).findings.assembly]
    assert titles.index("paint") < titles.index("set it on its feet, bolts loose")


def test_speiche_two_bars_one_bolt_length_and_less_than_a_bought_rack() -> None:
    van = next(j for j in demo_jobs() if j.name == "Speiche")
    found = evaluate(van).findings
    (chosen,) = found.bolt_choice
    assert (chosen.lengths_mm, chosen.before) == ((65,), 2)
    wired = {p.item for p in found.wire_parts}
    rack = [
        line for line in found.purchase if not line.serves.startswith("panel") and line.serves not in wired
    ]
    made = sum(line.price or 0.0 for line in rack)
    assert found.cost is not None and found.cost.unpriced == 0 and made > 150
    assert found.cost.less_than_rack == pytest.approx(1480 - 1.08 * (made + 16 * 62))
    assert not [s for s in evaluate(van).snags if s.station == "build" and s.severity != "note"]


def test_seals_of_the_field_jobs() -> None:
    """Tar-backed tape and lap sealant on the truss roof by temperature; sealant round each taped foot before
    the panel lies on it; solid seals on the boat's deck; what sticks to which roof.
    """
    trusses = job_of("buecherbus")
    cold = evaluate(changed(trusses, seal={"substrate": "rubber membrane", "temperature": "7 °C"}))
    assert "too-cold-to-seal" in stops(cold), "lap sealant from 10 °C"
    tarred = evaluate(changed(trusses, seal={"substrate": "rubber membrane", "under_with": "bitumen tape"}))
    assert "seal-does-not-bond" in stops(tarred), "its oils swell the rubber"
    usual = evaluate(changed(trusses, seal={"substrate": "rubber membrane"})).findings
    assert usual.seal is not None and (usual.seal.under.name, usual.seal.round.name) == (
        "butyl tape",
        "lap sealant",
    )
    curved = evaluate(job_of("imkerwagen_laminat")).findings
    assert {p.kind for p in curved.seal_places} >= {"tape edge"} and curved.seal_amounts
    titles = [s.title for s in curved.steps]
    assert titles.index("Seal round every foot") < titles.index(
        "Lift the panels on and set the frame bolts loose"
    )
    van = evaluate(job_of("druckerei")).findings
    threads = [p for p in van.seal_places if p.kind == "factory thread"]
    assert len(threads) == 8 and {p.covered_by for p in threads if p.covered_by} <= {
        "Front",
        "Middle",
        "Rear",
    }
    old = evaluate(job_of("backstube")).findings
    patches = sum(p.holes for p in old.seal_places if p.kind == "scar")
    assert patches >= 31 and old.survey.removal_h > 3, "six glued panels and 31 holes"


def test_gland_behind_one_another_on_a_rib_is_told() -> None:
    job = job_of("kurier")
    found = evaluate(changed(job, seal={"gland": {"x": "1 m", "y": "0 mm", "faces": "front"}}))
    assert found.findings.gland is not None and found.findings.gland.backing, "the skin is thin"
    assert any("driving rain" in w for w in found.findings.gland.wrong)
    offers = found.findings.gland_offers
    assert offers and all(o.away_mm <= p.away_mm for o, p in pairwise(offers))


@pytest.mark.parametrize("path", sorted(FOLDER.glob("*.json")), ids=lambda p: p.stem)
def test_every_field_job_is_plugged_without_a_stop(path: Path) -> None:
    job = read_job(path.read_bytes())
    found = evaluate(job)
    assert not [s.id for s in found.snags if s.station == "wire" and s.severity == "stop"]
    used = [p for s in job.wiring.strings for p in s.panels]
    assert sorted(used) == sorted(p.id for p in job.panels)
    assert all(limit.held is not False for a in found.findings.arrays for limit in a.limits)


def test_backstube_pairs_round_the_air_conditioner() -> None:
    """Two in series, three such in parallel: leads of a pair meet, three branch into one; another pairing
    gives no more, all in parallel does; what the meter says before and after the branches.
    """
    job = job_of("backstube")
    found = evaluate(job).findings
    [array], [harness] = found.arrays, found.harnesses
    assert array.words == "2s3p" and not array.fuse_needed, "two pairs drive 14.3 A back, panels bear 15 A"
    jumpers = {j.first: j.extension_mm for j in harness.jumpers}
    assert jumpers["Front port"] == jumpers["Rear port"] == 0 and jumpers["Middle port"] > 0, "round the box"
    assert any(p.item == "branch pieces, 3 into 1, plus and minus" for p in found.wire_parts)
    ways = visit(job).demand("groupings")
    best, pairs = ways.ways[0], next(w for w in ways.ways if w.words == "2s3p")
    assert best.words == "1s6p" and 1.01 < best.year_kwh / pairs.year_kwh < 1.05
    assert ways.own is not None and ways.own.year_kwh == pytest.approx(pairs.year_kwh, rel=1e-3)
    clear = {"sky": "clear", "month": 6, "hour": 12, "panel": "25 °C"}
    before, after = (
        evaluate(changed(job, wiring__meter=[{"id": "e1", "at": at, **clear, "volts": "44.5 V"}]))
        for at in ("s1", "c1")
    )
    assert before.findings.meter[0].meant[0].meaning == after.findings.meter[0].meant[0].meaning == "right"
    assert after.findings.meter[0].amps.low == pytest.approx(3 * before.findings.meter[0].amps.low, rel=0.02)


def test_kurier_two_sets_that_do_not_match() -> None:
    """50 W panels beside 250 W ones: on one controller all in parallel they are driven backwards (CHECKS:
    425 W and 8.5 A with other panels of that kind); two controllers lose nothing.
    """
    job = job_of("kurier")
    alone = [{"id": f"s{i}", "controller": "c1", "panels": [f"p{i}"]} for i in range(1, 5)]
    together = changed(job, wiring__strings=alone)
    [curve] = curves_of(together, EvenLight())
    assert curve.at_w == pytest.approx(425, rel=0.03) and curve.alone_w == pytest.approx(600, rel=0.002)
    small = [s.open_backwards_a for s in curve.strings if s.name.endswith("50") and "250" not in s.name]
    assert small == pytest.approx([8.5, 8.5], rel=0.04)
    assert "strings-unequal" in {s.id for s in evaluate(together).snags}
    two = visit(job).demand("groupings")
    one = visit(
        changed(job, wiring__strings=[], wiring__controllers=[job.wiring.controllers[0].model_dump()])
    ).demand("groupings")
    assert two.own is not None and two.own.lost_percent < 0.1
    assert 5 < two.ways[0].year_kwh - one.ways[0].year_kwh < 20, "kWh a year for a second controller"
    found = evaluate(job).findings
    assert any("red stays red" in p.note for p in found.wire_parts)
    assert {"tie, proof against sunlight"} <= {p.item for p in found.wire_parts}


def test_zirkuswagen_buecherbus_sternwarte_plugged() -> None:
    [mixed] = curves_of(job_of("zirkuswagen"), EvenLight())
    assert 0.1 < mixed.lost_percent < 1, "175 W beside 185 W in series"
    bus = evaluate(job_of("buecherbus")).findings
    missing = [r for r in bus.harnesses[0].runs if r.extension_mm > 0 and not r.trunk]
    assert {r.starts for r in missing} == {"Port"} and bus.harnesses[0].branch is not None
    told = evaluate(
        changed(
            job_of("sternwarte"),
            wiring__meter=[{"id": "e1", "at": "s1", "sky": "haze", "month": 4, "hour": 10}],
        )
    ).findings.meter[0]
    assert 43 < told.volts.low < 49 < told.volts.high < 54, "2 · 25 V, dull and cool"


def test_pritsche_carries_one_panel_first_and_is_looked_at_by_distance() -> None:
    """300 km a month: the first hundred are driven after ten days; bolts and clamps again after six weeks,
    then yearly. What moved by then keeps the second panel off.
    """
    job = job_of("pritsche")
    since = date(2026, 5, 4)
    due = {d.what: d.by for d in due_of(job.care, since)}
    assert due["every bolt after the first 100 km"] == since + timedelta(days=10)
    assert due["bolts and seals after six weeks"] == since + timedelta(weeks=6)
    looked = changed(job, care__looks=[{"id": "l1", "day": "2026-05-12", "km": 110, "found": "sound"}])
    left = {d.what for d in due_of(looked.care, date(2026, 5, 13))}
    assert "every bolt after the first 100 km" not in left and "bolts and seals after six weeks" in left
    places = [p.where for p in evaluate(job).findings.to_look_at]
    assert job.carriers[0].name in places
    fell = {"id": "l2", "day": "2026-06-15", "found": "torque fell", "where": job.carriers[0].name}
    moved = changed(job, care__looks=[fell])
    [verdict] = evaluate(moved).findings.judged
    assert verdict.words and any("torque fell" in d.why for d in due_of(moved.care, date(2026, 6, 16)))


def test_a_carrier_that_cannot_be_worked_out_leaves_the_rest_their_brackets() -> None:
    """A factory point two metres off its row is beyond any slot; the other frame is made as before."""
    van = apply_edits(job_of("druckerei"), [PutOnPosts(panels=("p3",), outer=True)])
    van = changed(van, workshop__brackets="bent here")
    off = changed(van, survey__point_rows__w2__points__n2__x="4260 mm")
    rack, frame = (carrier.id for carrier in van.carriers)
    whole, told = evaluate(van).findings, evaluate(off).findings
    assert not whole.silent and [s.place for s in told.silent] == [f"carriers.{rack}"]
    assert {f.carrier for f in told.fits} == {f.carrier for f in whole.fits} - {rack}
    assert [p for p in told.pieces if p.part_of == frame] == [p for p in whole.pieces if p.part_of == frame]
