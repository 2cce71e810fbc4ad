"""Racks on posts: an arch, its base plates, who hangs on it."""

from __future__ import annotations

import numpy as np
import pytest

from fahrtwind.core.edits import PutOnPosts, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.panel import BasePlate
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.carriers.rack import rack_frame, rack_parts
from fahrtwind.core.stations.hold.frame.solve import solve
from fahrtwind.core.stations.hold.loads import panel_loads
from fahrtwind.core.stations.hold.schools.base_plate import places
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.demo import demo_jobs
from tests.conftest import changed


@pytest.fixture
def boat() -> Job:
    return next(j for j in demo_jobs() if j.vehicle.kind == "boat")


def rack_of(job: Job) -> Rack:
    (rack,) = job.carriers
    assert isinstance(rack, Rack)
    return rack


def test_the_demo_arch_holds_and_all_of_it_is_told(boat: Job) -> None:
    seen = evaluate(boat)
    assert seen.spoken.word == "holds"
    (arch,) = seen.findings.carriers
    assert {r.runs for r in arch.rails} == {"along", "across", "up"}
    assert len(arch.feet) == 4 and sum(r.runs == "up" for r in arch.rails) == 4
    assert len(seen.findings.marks) == 16  # four bolts a plate
    items = " ".join(m.item for m in seen.findings.materials)
    assert "base plate" in items and "backing plate" in items and "post 1.4301" in items
    assert "solid insert" in items
    titles = [s.title for s in seen.findings.steps]
    assert titles.index("Stand the frame up loosely and mark its feet") < titles.index("Drill the rest")
    assert titles[-1] == "Write down what was done"


def test_uplift_goes_through_the_feet_and_pushes_turn_them(boat: Job) -> None:
    """Of the frame itself: what pulls at its top arrives at its feet; a push there arrives with the moment it
    has about the deck.
    """
    rack, seen = rack_of(boat), visit(boat)
    feet, chains = seen.of("feet_of_carrier", rack), seen.of("foot_chains", rack)
    frame = rack_frame(rack, rack_parts(rack), feet, chains, (), stiffest=False).frame
    loads = np.zeros((2, len(frame.nodes_mm), 6))
    top = max(range(len(frame.nodes_mm)), key=lambda i: frame.nodes_mm[i, 2])
    loads[0, top, 2] = 800.0
    loads[1, top, 1] = 300.0
    on = solve(frame, loads).on_support[0]
    assert on[0, :, 2].sum() == pytest.approx(800.0, rel=1e-6)
    assert on[1, :, 1].sum() == pytest.approx(300.0, rel=1e-6)
    about_x = (np.array([s.at_mm[1] for s in frame.supports]) * on[1, :, 2]).sum() + on[1, :, 3].sum()
    assert about_x == pytest.approx(-300.0 * frame.nodes_mm[top, 2], rel=1e-6)
    assert np.abs(on[1, :, 3]).min() > 0  # every foot is turned


def test_the_chain_of_a_base_plate_by_hand(boat: Job) -> None:
    """Plate 120 × 8 of 1.4301 over bolts 14 mm in from its edge: 2 · 220 · 120 · 64 / (4 · 46); four M8 of
    700 N/mm² with 36.6 mm²; the deck of 7 mm under 24.7 mm + 2 · 14.1 mm of backing plate counted.
    """
    rack = rack_of(boat)
    chain = visit(boat).of("foot_chains", rack)[0]
    links = {link.id: link for link in chain.links}
    assert links["bracket"].pull_nominal_n == pytest.approx(2 * 220 * 120 * 64 / (4 * 46), rel=1e-6)
    assert links["bracket"].pull_design_n == pytest.approx(links["bracket"].pull_nominal_n / 1.65, rel=1e-6)
    assert links["fastener"].pull_nominal_n == pytest.approx(4 * 700 * 36.6, rel=2e-3)
    assert "skin" not in links, "a cored deck with inserts is no thin plate"
    solid = changed(boat, carriers__b1__hold__core="solid")
    assert "skin" in {k.id for k in visit(solid).of("foot_chains", rack_of(solid))[0].links}


def test_what_hangs_on_it_counts_in_proportion_and_weaker_is_never_safer(boat: Job) -> None:
    def grab(job: Job) -> float:
        (arch,) = evaluate(job).findings.carriers
        assert arch.grabbed is not None
        return arch.grabbed.utilisation

    once = grab(boat)
    assert grab(changed(boat, carriers__b1__posts__grab_n=2000)) == pytest.approx(2 * once, rel=1e-9)
    assert grab(changed(boat, carriers__b1__posts__section__wall="2 mm")) > once
    assert grab(changed(boat, carriers__b1__height="1500 mm")) > once
    (free,) = evaluate(changed(boat, carriers__b1__posts__grab_n=0)).findings.carriers
    assert free.grabbed is None
    (told,) = evaluate(boat).findings.carriers
    (thin,) = evaluate(changed(boat, carriers__b1__hold__thickness="5 mm")).findings.carriers
    assert thin.let_go_m_s <= told.let_go_m_s and thin.parked.let_go_m_s <= told.parked.let_go_m_s


def test_one_click_on_a_van_and_what_is_under_the_panels_is_bridged(sound: Job) -> None:
    job = apply_edits(sound, [PutOnPosts(panels=("p1", "p3"))])
    rack = rack_of(job)
    assert rack.height.mm == 150 and rack.posts is not None and len(rack.posts.places) == 2
    fan = {"kind": "fan", "name": "Fan", "x": 700, "y": -590, "length": 300, "width": 300, "height": 90}
    blocked = changed(sound, obstacles=[{"id": "o9", **fan}])
    bridged = changed(job, obstacles=[{"id": "o9", **fan}])
    assert any(o.kind == "obstacle" for o in evaluate(blocked).findings.overlaps)
    assert not any(o.kind == "obstacle" for o in evaluate(bridged).findings.overlaps)
    opens = changed(job, obstacles=[{"id": "o9", **fan, "kind": "hatch"}])
    assert any(o.kind == "obstacle" for o in evaluate(opens).findings.overlaps), "a hatch is never covered"
    tall = changed(job, obstacles=[{"id": "o9", **fan, "height": 260}])
    assert any(o.kind == "obstacle" for o in evaluate(tall).findings.overlaps)


def test_posts_beside_the_roof_are_hinged_and_drill_no_hole(sound: Job) -> None:
    """A push of 300 N at the top of a portal on hinges 60 mm under the roof arrives as level forces that add
    up to it, with no moment at any foot, and tips it: pulls times their arms balance 300 N at its height.
    """
    job = apply_edits(sound, [PutOnPosts(panels=("p1", "p2", "p3", "p4"), outer=True)])
    rack, seen = rack_of(job), visit(job)
    assert {abs(r.y.mm) for r in rack.rails} == {1175 + 20 + 5.0}, "half the roof, half the rail, 5 mm"
    feet, chains = seen.of("feet_of_carrier", rack), seen.of("foot_chains", rack)
    frame = rack_frame(rack, rack_parts(rack), feet, chains, (), stiffest=False).frame
    loads = np.zeros((1, len(frame.nodes_mm), 6))
    top = max(range(len(frame.nodes_mm)), key=lambda i: frame.nodes_mm[i, 2])
    loads[0, top, 1] = 300.0
    on = solve(frame, loads).on_support[0, 0]
    assert on[:, 1].sum() == pytest.approx(300.0, rel=1e-6) and np.abs(on[:, 3:]).max() == 0.0
    about_x = (np.array([s.at_mm[1] for s in frame.supports]) * on[:, 2]).sum()
    assert about_x == pytest.approx(-300.0 * (frame.nodes_mm[top, 2] + 60.0), rel=1e-6)
    told = evaluate(job)
    assert told.findings.marks == () and not told.findings.silent
    titles = [s.title for s in told.findings.steps]
    assert "Stand the posts on their feet, all nuts loose" in titles
    assert not any(word in t for t in titles for word in ("Drill", "Mark", "Clean"))
    (van,) = (j for j in demo_jobs() if j.name == "Speiche")
    points = [s.title for s in evaluate(van).findings.steps]
    assert any("Clean" in t for t in points) and not any("Mark" in t for t in points), "it stands on the roof"


def test_an_outer_foot_bears_its_rating_and_no_more(sound: Job) -> None:
    """Safe speeds go with the root of the rating where nothing else gives: the rating is the design value."""
    job = apply_edits(sound, [PutOnPosts(panels=("p1",), outer=True)])
    weak = changed(job, carriers__b1__hold__pull_n=900, carriers__b1__hold__along_n=900)
    (told,) = evaluate(weak).findings.carriers
    base = next(k for k in told.chains[0].links if k.id == "base")
    assert (base.pull_design_n, base.pull_nominal_n, base.confidence) == (900.0, 900.0, "published")
    (unrated,) = evaluate(job).findings.carriers
    assert next(k for k in unrated.chains[0].links if k.id == "base").confidence == "judgement"
    assert unrated.safe_m_s < told.safe_m_s
    assert any(s.id == "outer-foot-unrated" for s in evaluate(job).snags)
    assert not any(s.id == "outer-foot-unrated" for s in evaluate(weak).snags)
    with pytest.raises(InputError, match="nothing else does"):
        changed(job, carriers__b1__posts=None)


def test_bolts_stand_in_the_plate() -> None:
    for count in (4, 6, 8):
        at = places(BasePlate(count=count))
        assert len(at) == count == len(set(at))
        assert all(max(abs(x), abs(y)) == 46.0 for x, y in at if abs(y) == 46.0)
        assert np.allclose(np.sum(at, axis=0), 0.0)


def test_bad_posts_name_what_is_wrong(boat: Job) -> None:
    raw = boat.model_dump(mode="json")
    raw["carriers"][0]["hold"] = {"school": "screws"}
    with pytest.raises(InputError) as held:
        load_job(raw)
    assert "base plates" in str(held.value)
    with pytest.raises(InputError) as one:
        changed(boat, carriers__b1__posts__places=[{"id": "s1", "x": 1800}])
    assert one.value.field and "places" in one.value.field
    with pytest.raises(InputError):
        changed(boat, panels__p1__carrier=None, panels__p1__hold={"school": "base_plate"})


def test_a_panel_that_stands_clear_is_a_canopy(demo: Job) -> None:
    """EN 1991-1-4 Table 7.6, level, blocked below: 1.3 over all, a quarter from the windward edge. In the
    slipstream neither less nor nearer its middle than the roof's own zones have it.
    """
    roof = Rect(0.0, -1175.0, 8400.0, 2350.0)
    low = demo.panels[2]
    clear = low.model_copy(update={"stand_off": Length(mm=600)})
    rect = panel_rect(clear)
    for wind, at in (
        ("front", (rect.x_mm + rect.length_mm / 4, rect.centre[1])),
        ("starboard", (rect.centre[0], rect.y_end_mm - rect.width_mm / 4)),
    ):
        parked = panel_loads(roof, clear, 0.0, 3000.0, wind, parked=True)  # type: ignore[arg-type]
        assert parked.cautious_m2 == pytest.approx(1.3 * rect.area_m2)
        assert parked.cautious_at_mm == pytest.approx(at)
    zoned, driven = (panel_loads(roof, p, 0.0, 3000.0) for p in (low, clear))
    assert driven.cautious_m2 == pytest.approx(max(zoned.cautious_m2, 1.3 * rect.area_m2))
    ahead = [w.cautious_m2 * (rect.centre[0] - w.cautious_at_mm[0]) for w in (zoned, driven)]
    assert ahead[1] == pytest.approx(max(ahead[0], 1.3 * rect.area_m2 * rect.length_mm / 4))
    at_most = low.model_copy(update={"stand_off": Length(mm=200)})
    assert panel_loads(roof, at_most, 0.0, 3000.0, parked=True).pieces != driven.pieces
    assert len(panel_loads(roof, at_most, 0.0, 3000.0).pieces) == len(zoned.pieces)
