"""Fasteners as long as the roof wants them, by hand."""

from __future__ import annotations

import pytest

from fahrtwind.core.choose.hold_changes import changes_of
from fahrtwind.core.choose.make_hold import make_hold
from fahrtwind.core.choose.remedies import remedies
from fahrtwind.core.choose.schools import WAYS, held_in
from fahrtwind.core.edits import AddEntry, PlacePanel, SetValue, apply_edits
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job, Members, Vehicle
from fahrtwind.core.job.panel import OneSided, Screws, ThroughBolts
from fahrtwind.core.stations.hold.carriers.actions import PutOnRails
from fahrtwind.core.stations.hold.schools.drilled import leg_wanted_mm
from fahrtwind.core.stations.hold.schools.lengths import fitted, fitting_mm
from fahrtwind.demo import demo_jobs

PLY = Vehicle.model_validate({"skin": "membrane", "ply_thickness": 9.5})
STEEL = Vehicle.model_validate({"skin": "steel", "skin_thickness": 0.8})
HAT = Members.model_validate({"kind": "steel_hat", "wall": 1.5, "face_width": 45, "depth": 20})


def truss(depth: float) -> Members:
    return Members.model_validate({"kind": "wood_truss", "face_width": 45, "depth": depth})


def test_screws_hold_six_diameters_in_a_truss_and_end_in_it() -> None:
    """#14: 6.147 mm in wood, six of them 36.9; two thirds of the screw are thread. Foot 4, sealant 1, ply
    9.5: 60 is the first with 2/3 · 60 = 40 of thread; 70 ends 65 below the roof, 75 would in the ceiling.
    """
    assert fitting_mm(Screws(), PLY, truss(60), "metric") == (60, 65, 70)
    # 49.5 of ply and truss: 55 ends below them, and below 55 there are only four diameters, 24.6: then the
    # longest is the best
    assert fitting_mm(Screws(), PLY, truss(40), "metric") == (50, 45, 40)
    assert fitting_mm(Screws(), PLY, truss(20), "metric") == ()
    assert [x / 25.4 for x in fitting_mm(Screws(), PLY, truss(60), "imperial")] == [2.25, 2.5, 2.75]


def test_in_metal_they_come_out_below_it_and_bolts_have_room_for_their_nuts() -> None:
    # foot and sealant 5, sheet 0.8, wall 1.5, 3 beyond: 10.3 at least; 25.8 to the bottom of the rib
    assert fitting_mm(Screws(), STEEL, HAT, "metric") == (16, 20, 25)
    thick = Members.model_validate({"kind": "steel_hat", "wall": 7.1, "face_width": 45, "depth": 20})
    assert fitting_mm(Screws(), STEEL, thick, "metric")[0] == 16, "15.9 at least"
    # foot and sealant 5, sheet 0.8, washer 2, nut 6, a turn of 1: 14.8
    assert fitting_mm(ThroughBolts(), STEEL, HAT, "metric", into_member=False)[0] == 16
    assert fitting_mm(OneSided(), STEEL, HAT, "metric") == ()
    # through ply and truss: 5 + 9.5 + 60 + 2 + 7 = 83.5
    assert fitting_mm(ThroughBolts(), PLY, truss(60), "metric")[0] == 90


def test_what_is_not_known_is_not_guessed_and_what_fits_stays() -> None:
    bare = Members.model_validate({"kind": "steel_hat"})
    assert fitting_mm(Screws(), STEEL, bare, "metric") == ()
    assert fitting_mm(Screws(), Vehicle.model_validate({"skin": "membrane"}), truss(60), "metric") == ()
    endless = Members.model_validate({"kind": "wood_truss"})
    assert fitting_mm(Screws(), PLY, endless, "metric") == (), "a ceiling may be anywhere"
    assert fitted(Screws(), PLY, endless, "metric").length.mm == 25
    assert fitted(Screws(), STEEL, HAT, "metric").length.mm == 25
    assert fitted(Screws(), PLY, truss(60), "metric").length.mm == 60
    assert fitted(Screws(), PLY, Members(), "metric").length.mm == 25


@pytest.fixture
def trailer() -> Job:
    """The demo's trailer: laminate of 5 mm on trusses of 50, panels on tape."""
    return next(j for j in demo_jobs() if j.members.kind == "wood_truss" and j.panels)


def test_a_way_that_is_chosen_begins_with_lengths_that_fit(trailer: Job) -> None:
    panel = trailer.panels[0].id
    screwed = apply_edits(trailer, [SetValue(path=f"panels.{panel}.hold", value={"school": "screws"})])
    known = fitting_mm(screwed.panels[0].hold, trailer.vehicle, trailer.members, trailer.units)
    assert screwed.panels[0].hold.length.mm in known and screwed.panels[0].hold.length.mm > 25
    on_rails = apply_edits(trailer, [PutOnRails(panels=(panel,))])
    assert on_rails.carriers[-1].hold.length.mm in known


def test_short_screws_of_rails_are_offered_longer_ones(trailer: Job) -> None:
    on_rails = apply_edits(trailer, [PutOnRails(panels=(trailer.panels[0].id,))])
    path = f"carriers.{on_rails.carriers[-1].id}.hold.length"
    short = apply_edits(on_rails, [SetValue(path=path, value="25 mm")])
    assert any(s.id == "thread-too-short" and s.place == path for s in evaluate(short).snags)
    offer = next(r for r in remedies(short) if r.place == path)
    mended = evaluate(apply_edits(short, list(offer.edits)))
    assert not any(s.id in ("thread-too-short", "through-the-ceiling") for s in mended.snags)
    assert offer.words == "60 mm long"


def test_bars_are_held_by_their_ends(trailer: Job) -> None:
    """What is said of the screws of bars is said at the field of their ends, and mended there."""
    panel = trailer.panels[0]
    between = [
        {"id": f"f{i}", "side": side, "along": f"{at} mm", "pinned": True}
        for i, (side, at) in enumerate((s, a) for s in ("port", "starboard") for a in (150, 450))
    ]
    path = f"panels.{panel.id}.span"
    feet = SetValue(path=f"panels.{panel.id}.feet", value=between)
    hold = SetValue(path=f"panels.{panel.id}.hold", value={"school": "screws"})
    spanned = apply_edits(trailer, [feet, hold, SetValue(path=path, value={})])
    assert spanned.panels[0].span is not None and spanned.panels[0].span.ends.length.mm == 60
    short = apply_edits(spanned, [SetValue(path=f"{path}.ends.length", value="25 mm")])
    places = [s.place for s in evaluate(short).snags if s.id == "thread-too-short"]
    assert places == [f"{path}.ends.length"]
    offer = next(r for r in remedies(short) if r.place == places[0])
    assert offer.words == "60 mm long"
    assert apply_edits(short, list(offer.edits)).panels[0].span == spanned.panels[0].span
    chosen = apply_edits(short, [SetValue(path=f"{path}.ends", value={"school": "screws"})])
    assert chosen.panels[0].span == spanned.panels[0].span


def test_a_row_of_holes_has_its_distance_to_the_edge() -> None:
    """Four #14: three gaps of 20 (three diameters are 19.05), half of them 30, and 1.5 diameters of 6.35."""
    assert leg_wanted_mm(Screws(count=4)) == 40


@pytest.fixture(scope="module")
def on_trusses() -> Job:
    """Two large panels on ply over trusses 60 mm deep, each proved by a pilot hole; driven at 100 km/h."""
    facts = {
        "vehicle.roof_length": "7.2 m",
        "vehicle.roof_width": "2.4 m",
        "vehicle.skin": "membrane",
        "vehicle.ply_thickness": "9.5 mm",
        "vehicle.inside": "finished",
        "vehicle.altitude": "0 m",
        "vehicle.top_speed": "100 km/h",
        "members.kind": "wood_truss",
        "members.depth": "60 mm",
        "members.face_width": "38 mm",
    }
    trusses = [
        AddEntry(path="readings", value={"x": f"{200 + 610 * i} mm", "kind": kind})
        for kind in ("magnet", "pilot_solid")
        for i in range(11)
    ]
    panels = [PlacePanel(model="Halde 410"), PlacePanel(model="Halde 410")]
    told = [SetValue(path=path, value=value) for path, value in facts.items()]
    return apply_edits(Job(name="Waldkauz", vehicle=Vehicle(kind="rv")), [*told, *trusses, *panels])


@pytest.mark.parametrize("way", ["screws", "rack"])
def test_what_stands_on_trusses_can_be_held(on_trusses: Job, way: str) -> None:
    line = held_in(on_trusses, next(w for w in WAYS if w.name == way))
    assert line.stops == () and line.changes
    held = evaluate(apply_edits(on_trusses, list(line.edits)))
    assert not [s for s in held.snags if s.severity == "stop" and s.station == "hold"]
    assert held.findings.plan is not None and held.findings.plan.safe_m_s >= 100 / 3.6


def test_longer_screws_are_offered_where_there_is_wood_for_them(on_trusses: Job) -> None:
    """60 mm have 40 mm of thread in the truss, 70 mm have 46.7: a sixth more in all that the wood holds."""
    offers = [o for p in make_hold(on_trusses).panels for o in p.offers]
    longer = next(o for o in offers if "screws 70 mm long" in o.words)
    assert longer.holes == 0 and longer.safe_m_s >= 100 / 3.6
    deep = apply_edits(on_trusses, list(longer.edits))
    assert {p.hold.length.mm for p in deep.panels} == {60, 70}
    steel = next(j for j in demo_jobs() if j.members.kind == "steel_hat" and j.panels)
    assert not any(c.kind == "length" for c in changes_of(steel, steel.panels[0]))
