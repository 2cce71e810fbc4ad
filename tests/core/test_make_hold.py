"""Make it hold: what is offered does what it says, and nothing gentler of its kind was passed over."""

from __future__ import annotations

import pytest

from fahrtwind.core.choose.make_hold import MadeToHold, make_hold
from fahrtwind.core.edits import PutOnRails, SetValue, apply_edits
from fahrtwind.core.engine.beside import Hands, Stopped, beside
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
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
    found = make_hold(job)
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
            assert offer.safe_m_s >= job.vehicle.top_speed.m_s  # type: ignore[union-attr]
            before_holes = sum(m.kind == "hole" for m in evaluate(job).findings.marks)
            assert offer.holes == sum(m.kind == "hole" for m in told.marks) - before_holes
    return found


def test_a_sound_job_needs_nothing(sound: Job) -> None:
    assert make_hold(sound).panels == ()


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
    ranks = [(max(o.holes, 0), round(o.hours, 1)) for o in found.panels[0].offers]
    assert ranks == sorted(ranks), "fewest holes first, then the least work"


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
        "carriers.b1" in str(o.edits) or "front_edge" in str(o.edits) for p in found.panels for o in p.offers
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


def test_where_nothing_helps_the_reason_is_told(one_panel: Job) -> None:
    racing = changed(one_panel, vehicle__top_speed="205 km/h")
    found = make_hold(racing)
    assert found.panels[0].offers == () and "slower" in found.panels[0].why


def test_it_stops_when_nobody_waits(one_panel: Job) -> None:
    fast = changed(one_panel, vehicle__top_speed="112 km/h")
    with beside(Hands(lambda: 1.0, lambda: True, lambda share, doing: None)), pytest.raises(Stopped):
        make_hold(fast)
