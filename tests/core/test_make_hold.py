"""Make it hold: what is offered does what it says, and nothing gentler of its kind was passed over."""

from __future__ import annotations

import pytest

from fahrtwind.core.choose import hold_search
from fahrtwind.core.choose.foresight import Reach, foreseen, reach_of
from fahrtwind.core.choose.look import Look, more_stops
from fahrtwind.core.choose.look import stops_of as standing
from fahrtwind.core.choose.make_hold import MadeToHold, make_hold, offers_for
from fahrtwind.core.choose.schools import side_by_side
from fahrtwind.core.choose.spending import spending_of
from fahrtwind.core.edits import AddEntry, PutOnRails, RemoveEntry, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.engine.beside import Hands, Stopped, beside
from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.evaluate import evaluate, rules, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.saying import say_speed
from fahrtwind.core.stations.hold.verdict import FASTEST_M_S
from fahrtwind.demo import demo_jobs
from tests.conftest import changed


def stops_of(job: Job, panel: str) -> set[str]:
    on = next(p for p in job.panels if p.id == panel)
    return {
        s.id
        for s in evaluate(job).snags
        if s.severity == "stop" and s.place.startswith((f"panels.{panel}", f"carriers.{on.carrier}"))
    }


def held(job: Job) -> MadeToHold:
    told: list[MadeToHold] = []
    found = make_hold(job, told.append)
    counts = [len(t.panels) for t in told]
    assert counts == sorted(set(counts)), "shown as they are found, what lies on one carrier at once"
    assert not told or told[-1] == found
    for panel in found.panels:
        assert bool(panel.offers) != bool(panel.why), "an offer or the reason why there is none"
        for offer in panel.offers:
            after = apply_edits(job, list(offer.edits))
            assert not stops_of(after, panel.panel) & {
                "let-go-too-low",
                "safe-speed-too-low",
                "parked-lets-go",
            }
            told = evaluate(after).findings
            verdict = next(v for v in told.verdicts if v.panel == panel.panel)
            assert offer.safe_m_s <= verdict.safe_m_s + 1e-9
            assert offer.safe_m_s >= after.vehicle.top_speed.m_s  # type: ignore[union-attr]
            before_holes = sum(m.kind == "hole" for m in evaluate(job).findings.marks)
            assert offer.holes == sum(m.kind == "hole" for m in told.marks) - before_holes
    return found


def test_a_sound_job_needs_nothing(sound: Job) -> None:
    assert make_hold(sound).panels == ()


def test_what_a_panel_has_already_may_not_become_worse(sound: Job) -> None:
    """One of four feet in skin may become one of six, not four of eight; what is wrong at every foot may be
    wrong at more of them.
    """
    skin, ply = ("screws-in-skin", "panels.p1"), ("ply-too-thin", "panels.p1")
    before = {skin: (1, 4), ply: (4, 4)}
    assert more_stops(before, {skin: (1, 6), ply: (6, 6)}) == set()
    assert more_stops(before, {skin: (4, 8), ply: (8, 8)}) == {skin}
    assert more_stops({}, before) == {skin, ply}
    beside = changed(sound, panels__p1__feet__f1__along="300 mm", panels__p1__feet__f1__pinned=True)
    told = evaluate(beside)
    seen = standing(told.snags, told.findings.feet)
    assert seen[skin] == (1, len(beside.panels[0].feet))


def test_what_is_offered_holds_and_brings_no_new_stop(one_panel: Job) -> None:
    """Four feet hold to 101 km/h: at 112 one change of fasteners, frame bolts or feet is enough."""
    fast = changed(one_panel, vehicle__top_speed="112 km/h")
    assert "safe-speed-too-low" in stops_of(fast, "p3")
    found = held(fast)
    assert [p.panel for p in found.panels] == ["p3"] and found.panels[0].offers
    before = {(s.id, s.place.split(".")[1]) for s in evaluate(fast).snags if s.severity == "stop"}
    for offer in found.panels[0].offers:
        after = evaluate(apply_edits(fast, list(offer.edits)))
        assert {(s.id, s.place.split(".")[1]) for s in after.snags if s.severity == "stop"} <= before
    *offers, slower = found.panels[0].offers
    ranks = [(max(o.holes, 0), round(o.hours, 1)) for o in offers]
    assert ranks == sorted(ranks), "fewest holes first, then the least work"
    assert slower.words == "drive 100 km/h at most", "it holds to 101 as it is"


def test_what_costs_less_comes_first_where_every_price_is_known(one_panel: Job) -> None:
    """All that any offer takes has a price of its own: dearer by what is bought more, times its price."""
    fast = changed(one_panel, vehicle__top_speed="112 km/h")
    unpriced = make_hold(fast).panels[0].offers
    assert {offer.dearer for offer in unpriced} == {None}, "without a price nobody knows"
    after = [apply_edits(fast, list(offer.edits)) for offer in unpriced]
    keys = sorted({line.serves for job in (fast, *after) for line in evaluate(job).findings.purchase})
    prices = {key: 1.0 + 0.25 * i for i, key in enumerate(keys)}
    items = [
        {"id": f"i{i}", "name": f"item {i}", "serves": key, "price": prices[key], "unit": "pc"}
        for i, key in enumerate(keys)
    ]
    priced = changed(fast, workshop__items=items)

    def spent(job: Job) -> float:
        return sum(line.packs * prices[line.serves] for line in evaluate(job).findings.purchase)

    offers = make_hold(priced).panels[0].offers
    assert len(offers) > 2
    for offer in offers:
        more = spent(apply_edits(priced, list(offer.edits))) - spent(priced)
        assert offer.dearer == pytest.approx(more), offer.words
    ranks = [(max(o.holes, 0), round(o.dearer or 0.0, 2), round(o.hours, 1)) for o in offers[:-1]]
    assert ranks == sorted(ranks)
    assert len({o.dearer for o in offers}) > 1
    lines = side_by_side(priced)
    screws, tape = (next(line for line in lines if line.way == way) for way in ("screws", "tape"))
    told = spending_of(visit(apply_edits(priced, list(screws.edits))))
    assert screws.spends == told and told is not None
    assert tape.spends is not None and tape.spends.unpriced > told.unpriced, "foam tape has no price here"


@pytest.mark.parametrize("driven", ["90 km/h", "105 km/h", "112 km/h"])
def test_the_fewest_holes_are_the_fewest(one_panel: Job, driven: str) -> None:
    """Every number of feet and screws with fewer holes, set up and evaluated here, has a stop."""
    start = {"school": "screws", "count": 4, "bracket": {"frame_bolt": "M8"}}
    fast = changed(one_panel, panels__p3__hold=start, vehicle__top_speed=driven)
    spoilt = apply_edits(
        fast, [SpreadFeet(panel="p3", count=2), SetValue(path="panels.p3.hold.count", value=1)]
    )
    offers = [o for p in make_hold(spoilt).panels for o in p.offers if o.fewest]
    assert len(offers) == 1
    feet = len(next(p for p in apply_edits(spoilt, list(offers[0].edits)).panels if p.id == "p3").feet)
    holes = offers[0].holes + 2
    assert feet <= holes
    for number, count in ((n, c) for n in (4, 6, 8, 10, 12) for c in (1, 2, 3, 4) if n * c < holes):
        fields = {"count": count, "bracket.toe": "40 mm", "bracket.lever": "40 mm", "bracket.length": "80 mm"}
        room = {} if count < 3 else fields  # for the row of three or four; two fit as they are
        edits = [SetValue(path=f"panels.p3.hold.{n}", value=v) for n, v in {"count": count, **room}.items()]
        spread = [SpreadFeet(panel="p3", count=number), *edits]
        assert stops_of(apply_edits(spoilt, spread), "p3"), f"{number} feet, {count} screws"


@pytest.mark.parametrize(("driven", "feet", "count"), [("90 km/h", 4, 3), ("120 km/h", 6, 4)])
def test_thin_screws_want_many_in_a_foot_and_every_fewer_is_tried(
    one_panel: Job, driven: str, feet: int, count: int
) -> None:
    """A strong panel on #8 screws: one more in each foot helps again and again."""
    hold = {
        "school": "screws",
        "count": 1,
        "screw": "#8",
        "bracket": {"frame_bolt": "M8", "thickness": "6 mm"},
    }
    calm = changed(
        one_panel, panels__p3__hold=hold, vehicle__top_speed=driven, assumptions__basic_wind="12 m/s"
    )
    start = changed(calm, panels__p3__model__uplift="5400 Pa")
    panel = next(p for p in start.panels if p.id == "p3")
    [fewest] = [o for o in offers_for(Look(start), panel).offers if o.fewest]
    assert fewest.words.startswith(f"{feet} feet, {count} a foot")
    room = {"bracket.toe": "26 mm", "bracket.lever": "26 mm", "bracket.length": "52 mm"}
    for n, c in ((n, c) for n in (4, 6, 8, 10, 12) for c in (1, 2, 3, 4) if n * c < feet * count):
        fields = {"count": c, **(room if c > 2 else {})}
        edits = [SetValue(path=f"panels.p3.hold.{name}", value=value) for name, value in fields.items()]
        fewer = apply_edits(start, [SpreadFeet(panel="p3", count=n), *edits])
        assert stops_of(fewer, "p3"), f"{n} feet, {c} screws"


def test_what_no_foot_mends_is_mended_with_what_keeps_the_wind_off() -> None:
    """The bus at 130 km/h: its panels are not made for it, so a fairing comes first; on two of them the bolt
    at the frame is short as well, and both are found together.
    """
    bus = next(j for j in demo_jobs() if j.name == "Lichtspiel")
    fast = apply_edits(bus, [SetValue(path="vehicle.top_speed", value="130 km/h")])
    offered = {
        p: {o.words for o in offers_for(Look(fast), next(q for q in fast.panels if q.id == p)).offers}
        for p in ("p1", "p3")
    }
    assert "M8 at the frame, a fairing before the front edges" in offered["p1"]
    assert "a fairing before the front edges" in offered["p3"]


def test_gusts_of_two_changes_are_foreseen_by_the_part_that_goes_first() -> None:
    """Both strengthen the bracket, by a half and a third; on the road it bears so little that its speed there
    tells nothing.
    """

    def reach(parked: float, **parts: float) -> Reach:
        return Reach(0.0, 0.0, parked, 90.0, {"rated": 80.0, **parts}, dict.fromkeys(parts, 1.0), 0.0)

    now = reach(0.4, bracket=1.0, frame=60.0)
    alone = [reach(0.6, bracket=20.0, frame=60.0), reach(0.533, bracket=15.0, frame=60.0)]
    assert foreseen(now, alone).parked == pytest.approx(0.4 * 1.5 * 1.3325)
    other = [*alone, reach(0.45, bracket=70.0, frame=60.0)]
    assert foreseen(now, other).parked > 1, "where another part goes first it may be much more"


def test_what_two_changes_let_foresee_by_hand() -> None:
    """With a gust of 10 m/s. Each part keeps its own share of the air's speed that is safe: the bracket holds
    38 m/s and is safe at 0.5 of 48, the frame 50 and 0.8 of 60. Bolts make 62 of the frame's 50, a fairing
    makes 76 of the bracket's 38, 60 of the frame's 50 and 90 of the rating's 75. Rails bring a clamp instead
    of the bracket: of the fairing it gets what the rating gets, of the bolts nothing.
    """
    shares = {"rated": 0.9, "bracket": 0.5, "frame": 0.8, "clamp": 0.75}

    def reach(**parts: float) -> Reach:
        return Reach(0.0, 0.0, 1.0, 90.0, parts, {name: shares[name] for name in parts}, 10.0)

    now = reach(rated=75.0, bracket=38.0, frame=50.0)
    bolts = reach(rated=75.0, bracket=38.0, frame=62.0)
    fairing = reach(rated=90.0, bracket=76.0, frame=60.0)
    rails = reach(rated=75.0, clamp=40.0, frame=50.0)
    both = foreseen(now, [bolts, fairing])
    assert both.parts == pytest.approx({"rated": 90.0, "bracket": 76.0, "frame": 74.4})
    assert both.safe_m_s == pytest.approx(0.5 * (76.0 + 10.0) - 10.0)
    railed = foreseen(now, [bolts, fairing, rails])
    assert railed.parts == pytest.approx({"rated": 90.0, "frame": 74.4, "clamp": 40.0 * 90.0 / 75.0})
    assert railed.safe_m_s == pytest.approx(0.75 * (48.0 + 10.0) - 10.0)


def test_how_far_a_link_is_safe_is_told_by_two_points_of_its_line(one_panel: Job) -> None:
    """What is used of each link at the speed that is foreseen as safe, worked out there: all of it. Also of
    a link that nobody is told of because it goes beyond all speeds.
    """
    seen, panel = visit(one_panel), one_panel.panels[0]
    told = reach_of(one_panel, panel, seen)
    assert told is not None
    gust = told.gust_m_s
    safe = {name: told.shares[name] * (goes + gust) - gust for name, goes in told.parts.items()}
    assert max(told.parts.values()) > FASTEST_M_S
    at = {name: visit(one_panel, speed).of("verdict", panel) for name, speed in safe.items() if speed < 50}
    used = {
        name: max(link.utilisation for f in verdict.feet for link in f.links if name == f"foot {link.id}")
        for name, verdict in at.items()
        if name != "rated"
    }
    assert len(used) >= 3
    assert used == pytest.approx(dict.fromkeys(used, 1.0), abs=0.02)


def test_a_panel_whose_own_clamps_are_short_is_tried_no_further(monkeypatch: pytest.MonkeyPatch) -> None:
    """The boat's panels are clamped to its arch: no post makes the clamps hold what the wind takes."""
    boat = next(j for j in demo_jobs() if j.name == "Wasserläufer")
    fast = changed(boat, vehicle__top_speed="130 km/h")
    tried: list[Job] = []

    def noted(job: Job, panel: PlacedPanel, seen: Visit) -> Reach | None:
        tried.append(job)
        return reach_of(job, panel, seen)

    monkeypatch.setattr(hold_search, "reach_of", noted)
    told = offers_for(Look(fast), fast.panels[0])
    assert [o.words for o in told.offers] == ["drive 110 km/h at most"]
    assert len(tried) == 3, "as it is, with all at once, and slower"


def test_what_places_alone_forbid_is_known_without_forces(one_panel: Job) -> None:
    """Two panels on one spot: rules that know no forces say so, and nothing that the others do not say."""
    lone = one_panel.panels[0]
    twice = apply_edits(
        one_panel, [AddEntry(path="panels", value=lone.model_dump(mode="json", exclude={"id"}))]
    )
    look = Look(twice)
    placed = {(s.id, s.place) for s in look.placed}
    assert {"brackets-meet", "panels-overlap"} <= {name for name, _ in placed}
    assert "loads" not in look.seen._entries and "loads" in rules.house.behind("all let-go-too-low")
    assert placed < {(s.id, s.place) for s in look.near}


def test_with_a_foot_lost_where_that_is_wished(one_panel: Job) -> None:
    """On three feet it holds and tips off once one fails: nothing to mend unless that is wished."""
    foot = one_panel.panels[0].feet[0].id
    lone = apply_edits(
        one_panel, [SpreadFeet(panel="p3", count=4), RemoveEntry(path=f"panels.p3.feet.{foot}")]
    )
    driven = changed(lone, vehicle__top_speed="50 km/h")
    assert evaluate(driven).findings.verdicts[0].lost_let_go_m_s == 0
    assert make_hold(driven).panels == ()
    found = held(changed(driven, wish__one_lost=True))
    for offer in found.panels[0].offers:
        after = apply_edits(driven, list(offer.edits))
        assert not any(s.id == "one-foot-lost" for s in evaluate(after).snags), offer.words


def test_tape_that_lets_go_is_offered_what_helps(one_panel: Job) -> None:
    taped = changed(one_panel, panels__p3__hold={"school": "tape", "temperature": "21 °C"})
    assert "let-go-too-low" in stops_of(taped, "p3") or "safe-speed-too-low" in stops_of(taped, "p3")
    assert held(taped).panels[0].offers


def test_rails_that_do_not_hold_are_mended_as_rails(sound: Job) -> None:
    weak = apply_edits(
        sound,
        [
            PutOnRails(panels=("p1", "p3")),
            SetValue(path="carriers.b1.section.height", value="20 mm"),
            SetValue(path="carriers.b1.section.wall", value="1.5 mm"),
            SetValue(path="carriers.b1.every", value=3),
        ],
    )
    found = held(weak)
    assert {p.panel for p in found.panels} == {"p1", "p3"}
    assert all(
        any(part in str(o.edits) for part in ("carriers.b1", "front_edge", "top_speed"))
        for p in found.panels
        for o in p.offers
    )


def test_an_arch_with_thin_plates_is_mended_as_an_arch() -> None:
    boat = next(j for j in demo_jobs() if j.vehicle.kind == "boat")
    found = held(changed(boat, carriers__b1__hold__thickness="2 mm", vehicle__top_speed="90 km/h"))
    assert {o.words for p in found.panels for o in p.offers} >= {"base plates of 10 mm"}


def test_feet_between_members_are_offered_bars(one_panel: Job) -> None:
    feet = [
        {"id": f"f{i}", "side": side, "along": f"{at} mm", "pinned": True}
        for i, (side, at) in enumerate((s, a) for s in ("port", "starboard") for a in (410, 1065))
    ]
    panel = one_panel.panels[0].id
    thin = {"screw": "#8", "bracket": {"frame_bolt": "M8", "thickness": "6 mm"}}
    bare = changed(
        one_panel,
        **{f"panels__{panel}__feet": feet, f"panels__{panel}__hold": {"school": "screws", **thin}},
        vehicle__skin_thickness="0.8 mm",
    )
    assert "screws-in-skin" in stops_of(bare, panel)
    assert any("bars from member to member" in o.words for o in make_hold(bare).panels[0].offers)


def test_what_is_foreseen_finds_the_pair_that_holds() -> None:
    """The rear panel of the demo bus, on tape: no change alone holds it, rails and a fairing together do. The
    rails take the tape out of its chain, and a fairing helps what they bring.
    """
    bus = next(j for j in demo_jobs() if j.name == "Lichtspiel")
    offers = offers_for(Look(bus), bus.panels[4], without=("speed",)).offers
    assert "a fairing before the front edges, rails under it" in {o.words for o in offers}


def test_where_nothing_helps_the_reason_is_told(one_panel: Job) -> None:
    racing = changed(one_panel, vehicle__top_speed="205 km/h")
    found = offers_for(Look(racing), racing.panels[0], without=("speed",))
    assert found.offers == () and "gives way" in found.why
    now = next(v.safe_m_s for v in evaluate(racing).findings.verdicts if v.panel == racing.panels[0].id)
    assert f"as it is at most {say_speed(now, 'metric')}" in found.why, "no speed that needs the changes"


def test_it_stops_when_nobody_waits(one_panel: Job) -> None:
    fast = changed(one_panel, vehicle__top_speed="112 km/h")
    with beside(Hands(lambda: 1.0, lambda: True, lambda share, doing: None)), pytest.raises(Stopped):
        make_hold(fast)
