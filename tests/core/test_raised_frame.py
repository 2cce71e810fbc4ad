"""A frame that is raised with the panels in it: balance, a case by hand, and what stands beside it."""

from __future__ import annotations

from math import cos, hypot, radians, sin

import numpy as np
import pytest

from fahrtwind.core.choose.hold_changes import changes_of
from fahrtwind.core.choose.make_hold import make_hold
from fahrtwind.core.edits import PutInFrame, PutOnRails, RaisePanel, StandAnywhere, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.panel import GLUED, FoamTape
from fahrtwind.core.stations.hold.carriers.rack_forces import clamp_places
from fahrtwind.core.stations.hold.carriers.stages import Footing
from fahrtwind.core.stations.hold.raised.frame import Standing, _loads, _on_clamps, judge_frame
from fahrtwind.core.stations.hold.raised.parts import RaisedPart, blows
from fahrtwind.core.stations.hold.raised.stages import raised_frame
from tests.conftest import changed

G = 9.80665


def framed(sound: Job, *panels: str, up: str = "starboard", feet: int = 2, **values: object) -> Job:
    """Panels in one frame of angles and tubes, raised with it by 45° on so many feet a side."""
    first = panels[0]
    on = apply_edits(sound, [PutInFrame(panels=panels), StandAnywhere(carrier="b1", count=feet)])
    on = changed(on, **{f"panels__{first}__tilt": "45°", f"panels__{first}__tilt_up": up})
    return changed(apply_edits(on, [RaisePanel(panel=first)]), **values)


def parts(job: Job) -> dict[str, RaisedPart]:
    (told,) = evaluate(job).findings.raised
    return {p.part: p for p in told.parts}


def standing_of(job: Job) -> Standing:
    found = visit(job).of("raised_frame", job.raisings[0])
    assert isinstance(found, Standing)
    return found


@pytest.mark.parametrize("up", ["starboard", "port"])
@pytest.mark.parametrize("panels", [("p1",), ("p1", "p2"), ("p1", "p2", "p3", "p4")])
def test_hinges_and_struts_bear_air_and_weight(sound: Job, panels: tuple[str, ...], up: str) -> None:
    """In the frame's own axes: forces add up to the air's and the weight's, and turn about nothing. The air's
    middle lies a quarter, a half and three quarters from the hinges (EN 1991-1-4, 7.4.3 and 7.3).
    """
    job = framed(sound, *panels, up=up, feet=3, raisings__g1__struts=2)
    standing = standing_of(job)
    carried = tuple(c for c in visit(job).demand("all_carried") if c is not None and c.carrier == "b1")
    air = blows(45.0)
    on = _on_clamps(standing, carried, air)
    frame, ways = standing.frame(clamp_places(carried), stiffest=False)
    loads = _loads(frame, on, standing.down)
    held = frame.ready.under(loads).on_support[0]
    area = sum(c.rect.area_m2 for c in carried)
    for row, blow in zip(loads[1:], air, strict=True):
        assert row[:, 2].sum() == pytest.approx(blow.coefficient * area)
    mass = sum(c.mass_kg for c in carried) + frame.mass_kg.sum()
    out = 1.0 if up == "starboard" else -1.0
    lean = sin(radians(45))
    assert loads[0, :, :3].sum(axis=0) == pytest.approx([0.0, -out * mass * G * lean, -mass * G * lean])
    at = np.array([s.at_mm for s in frame.frame.supports])
    nodes = frame.frame.nodes_mm
    for load, back in zip(loads, held, strict=True):
        assert back[:, :3].sum(axis=0) == pytest.approx(load[:, :3].sum(axis=0), abs=1e-4)
        turned = np.cross(at, back[:, :3]).sum(axis=0) + back[:, 3:].sum(axis=0)
        wanted = np.cross(nodes, load[:, :3]).sum(axis=0) + load[:, 3:].sum(axis=0)
        assert turned == pytest.approx(wanted, abs=1e-3 * max(np.abs(wanted).max(), 1.0))
        along = (back[-2:, :3] * ways).sum(axis=1)
        across = np.linalg.norm(back[-2:, :3] - along[:, None] * ways, axis=1)
        assert (across < 2.0).all(), "a strut only pulls and pushes along itself; its own weight is beside"


def test_a_raised_frame_stands_on_its_own_feet_whatever_is_known_of_others(sound: Job) -> None:
    """Rails before it in the list, of which nothing is known: their parts lie beyond the formulas."""
    job = framed(sound, "p1")
    seen, own = visit(job), standing_of(job)
    (footing,) = seen["footings"]
    other = Footing("b0", footing.feet[:1], footing.chains[:1])
    told = raised_frame(job.raisings[0], seen["panels"], seen["carriers"], (other, footing))
    assert told is not None and told.feet == own.feet and told.chains == own.chains
    assert {f.panel for f in told.feet} == {own.rack.id}
    assert raised_frame(job.raisings[0], seen["panels"], seen["carriers"], (other,)) is None


def test_struts_by_hand(sound: Job) -> None:
    """One panel of 1640 by 992 mm on two bars and two struts: moments about the hinges, 8 mm beside it. What
    both struts bear together hangs on no stiffness. Aluminium has 2.7 g/cm³; half a strut hangs on its pin.
    """
    job = framed(sound, "p1", raisings__g1__struts=2)
    standing, panel = standing_of(job), job.panels[0]
    chord = 992.0 + 16.0
    pin, base = 0.7 * chord, chord
    strut = hypot(base - pin * cos(radians(45)), pin * sin(radians(45)))
    assert (standing.chord_mm, standing.strut_mm) == pytest.approx((chord, strut))
    arm = (
        base * sin(radians(45)) * pin / strut
    )  # of the struts about the hinges: twice the triangle over its base
    kg_mm, half_strut = 2.70e-6 * (40 * 40 - 34 * 34), 2.70e-6 * np.pi / 4 * (20**2 - 16**2) * strut / 2
    bars = 2 * kg_mm * (chord + 40) * chord / 2  # to the outer faces of the rails
    rail = kg_mm * 1640 * chord
    struts = 2 * half_strut * pin
    turning = (panel.model.mass.kg * chord / 2 + bars + rail + struts) * G * cos(radians(45))
    turning -= panel.model.mass.kg * G * sin(radians(45)) * 20  # it lies 20 mm over the middle of the bars
    carried = tuple(c for c in visit(job).demand("all_carried") if c is not None and c.carrier == "b1")
    air = blows(45.0)
    for stiffest in (False, True):
        frame, ways = standing.frame(clamp_places(carried), stiffest)
        loads = _loads(frame, _on_clamps(standing, carried, air), standing.down)
        held = frame.ready.under(loads).on_support[0, :, -2:, :3]
        still, *blown = (held * ways).sum(axis=(1, 2))
        feet = 2 * half_strut * float(standing.down @ ways[0])  # their lower halves stand on the roof
        assert still == pytest.approx(feet - turning / arm, rel=1e-3)
        for sum_of_both, blow in zip(blown, air, strict=True):
            by_air = (1.8 if blow.coefficient > 0 else -1.8) * 1.64 * 0.992 * (8 + blow.centre * 992)
            assert sum_of_both == pytest.approx(by_air / arm, rel=1e-5)


def test_the_part_that_goes_first_is_at_its_end_at_the_stow_gust(sound: Job) -> None:
    """At the gust that is told, the first part bears exactly what it may (0.5 · 1.25 · v², EN 1991-1-4)."""
    job = framed(sound, "p1", "p2", feet=3)
    (told,) = evaluate(job).findings.raised
    first = next(p for p in told.parts if p.part == told.first)
    assert first.gust_m_s == told.stow_m_s == min(p.gust_m_s for p in told.parts)
    assert {p.part.split()[0] for p in told.parts} >= {"strut", "pin", "foot", "clamp", "corner"}
    standing, air = standing_of(job), visit(job).demand("air")
    carried = tuple(c for c in visit(job).demand("all_carried") if c is not None and c.carrier == "b1")
    chains = tuple(c for v in visit(job).demand("verdicts") for c in v.chains if v.panel in ("p1", "p2"))
    gust_pa = 0.5 * 1.25 * told.stow_m_s**2
    at_end = judge_frame(standing, carried, chains, gust_pa, 0.0)
    assert next(p for p in at_end.parts if p.part == told.first).force_n == pytest.approx(
        first.bears_n, rel=1e-6
    )
    assert air.parked_pa != gust_pa


def test_weaker_is_never_better_and_soft_corners_are_named(sound: Job) -> None:
    """What a crew asks: which corners are too soft, and do angles cure it."""
    job = framed(sound, "p1", "p2", "p3", "p4", feet=3, raisings__g1__struts=4)
    once = parts(job)
    thin = parts(changed(job, carriers__b1__section__wall="1.5 mm", carriers__b1__bar_section__wall="1.5 mm"))
    bent = next(p for n, p in once.items() if n.startswith(("rail", "bar")))
    worse = next(p for n, p in thin.items() if n.startswith(("rail", "bar")))
    assert bent.unit == worse.unit == "N/mm²" and worse.gust_m_s < bent.gust_m_s
    assert worse.bears_n == bent.bears_n
    corner = next(p for n, p in once.items() if n.startswith("corner"))
    thick = parts(changed(job, carriers__b1__angle_wall="10 mm"))
    assert next(p for n, p in thick.items() if n.startswith("corner")).gust_m_s > corner.gust_m_s
    welded = parts(changed(job, carriers__b1__joint="welded", carriers__b1__throat="3 mm"))
    assert any(n.startswith("weld r") for n in welded) and not any(n.startswith("corner") for n in welded)
    soft = next(p for n, p in welded.items() if n.startswith(("rail", "bar")))
    assert soft.bears_n < bent.bears_n, "the heat has softened it"
    lower = parts(changed(job, panels__p1__tilt="20°"))
    assert all(p.tilt.deg == 20 for p in changed(job, panels__p1__tilt="20°").panels), (
        "one unit has one angle"
    )
    for name in ("strut pulled", "strut pushed", "clamp of a panel"):
        assert lower[name].gust_m_s >= once[name].gust_m_s


def test_on_the_road_a_latch_takes_what_its_foot_takes(sound: Job) -> None:
    job = framed(sound, "p1", "p2", feet=3)
    assert job.raisings[0].latches == 3
    found = evaluate(job)
    (told,), (carrier,) = found.findings.raised, found.findings.carriers
    freed = standing_of(job).freed.id
    most = max(f.pull_n for f in carrier.feet if f.foot.startswith(freed))
    assert told.latch_pull_n == pytest.approx(most) and told.frame == "b1"
    two = evaluate(changed(job, raisings__g1__latches=2))
    assert two.findings.raised[0].latch_pull_n > most
    assert "latch-at-each-foot" in {s.id for s in two.snags}


def test_panels_raised_off_rails_that_stay_are_a_stop(sound: Job) -> None:
    """Nobody works out what hinges do to rails: their own feet must not count as if they held it raised."""
    railed = apply_edits(changed(sound, panels__p1__tilt="45°"), [PutOnRails(panels=("p1",))])
    both = apply_edits(railed, [PutOnRails(panels=("p1", "p3")), RaisePanel(panel="p1")])
    assert both.raisings[0].panels == ("p1",) and both.panels[2].tilt.deg == 0, "rails make no unit"
    found = evaluate(apply_edits(railed, [RaisePanel(panel="p1")]))
    assert found.findings.raised == ()
    assert {s.id for s in found.snags if s.severity == "stop"} >= {"raised-not-judged"}


def test_more_struts_than_bars_names_the_field(sound: Job) -> None:
    found = evaluate(framed(sound, "p1", raisings__g1__struts=5))
    (told,) = (s for s in found.snags if s.place == "raisings.g1.struts")
    assert "2 bars" in told.why and found.findings.raised == ()


# feet at places of their own


def test_feet_stand_where_they_are_told(sound: Job) -> None:
    job = framed(sound, "p1", feet=3)
    rack = job.carriers[0]
    run = rack.end.mm - rack.start.mm
    x = [f.x_mm for f in evaluate(job).findings.feet if f.foot.startswith("r1")]
    assert x == sorted(x) and x[1] - x[0] == pytest.approx(x[2] - x[1], abs=1.0)
    assert x[0] - rack.start.mm == pytest.approx(0.35 * run / 2.7, abs=1.0)
    moved = changed(job, carriers__b1__feet_at__s1__x="500 mm")
    assert min(f.x_mm for f in evaluate(moved).findings.feet if f.panel == "b1") == 500.0
    back = apply_edits(job, [StandAnywhere(carrier="b1", count=0)])
    assert {f.landing for f in evaluate(back).findings.feet if f.panel == "b1"} == {"member"}
    off = changed(job, carriers__b1__feet_at__s1__x="500 mm")
    landings = {f.foot: f.landing for f in evaluate(off).findings.feet if f.panel == "b1"}
    assert landings["r1s1"] == "skin", "between members it holds in the skin only, and is told so"
    raw = job.model_dump(mode="json")
    raw["carriers"][0]["feet_at"][1]["id"] = "s1"
    with pytest.raises(InputError, match=r"called s1\. Give one of them another id"):
        load_job(raw)
    with pytest.raises(InputError, match="turns about one foot"):
        apply_edits(job, [StandAnywhere(carrier="b1", count=1)])


def test_crossbars_stand_there_too(sound: Job) -> None:
    on = apply_edits(
        sound, [PutInFrame(panels=("p1",), crossbars=True), StandAnywhere(carrier="b1", count=3)]
    )
    feet = [f for f in evaluate(on).findings.feet if f.panel == "b1"]
    assert {f.line for f in feet} == {"ks1", "ks2", "ks3"} and len(feet) == 6
    assert len({f.x_mm for f in feet}) == 3


def test_struts_are_cut_and_hinges_bought(sound: Job) -> None:
    """A strut is as long as pin to pin and one and a half pins of 8 mm beyond both; a pin for every hinge and
    both ends of every strut.
    """
    job = framed(sound, "p1", "p2", feet=3, raisings__g1__struts=2)
    found = evaluate(job)
    (told,) = found.findings.raised
    struts = [p for p in found.findings.pieces if p.kind == "strut"]
    assert len(struts) == 2 and {p.length_mm for p in struts} == {told.strut_mm + 24}
    assert [(h.at_mm, h.through) for h in struts[0].holes] == [
        (12, True),
        (pytest.approx(told.strut_mm + 12), True),
    ]
    needed = {m.item: m.needed for m in found.findings.materials}
    assert needed["hinge, stainless"] == 3 and needed["stainless pin M8 with a ring"] == 3 + 2 * 2
    assert needed["latch for the road"] == 3
    cut = [c for c in found.findings.cuts if "20 mm" in c.material]
    assert cut, "their tube is on the cut list"


def test_a_pad_under_a_rail_takes_its_bracket_along(sound: Job) -> None:
    taped = changed(framed(sound, "p1", feet=3), carriers__b1__hold={"school": "tape"})
    wide = changed(taped, carriers__b1__hold__pad_length="200 mm", carriers__b1__hold__pad_width="90 mm")
    bracket = wide.carriers[0].hold.bracket
    assert (bracket.length.mm, bracket.lever.mm + bracket.toe.mm) == (200, 90)
    glued = changed(taped, carriers__b1__hold__bond="adhesive").carriers[0].hold
    assert isinstance(glued, FoamTape) and glued.thickness.mm == GLUED["thickness"].mm


def test_what_would_hold_a_taped_frame_are_larger_pads_and_more_feet(sound: Job) -> None:
    flat = apply_edits(sound, [PutInFrame(panels=("p1",)), StandAnywhere(carrier="b1", count=2)])
    taped = changed(flat, carriers__b1__hold={"school": "tape", "temperature": "21 °C"})
    before = evaluate(taped).findings.carriers[0].safe_m_s
    changes = {c.words for c in changes_of(taped, taped.panels[0])}
    assert {f"a foot at {n} places under each rail" for n in (3, 4)} <= changes
    offers = [o for p in make_hold(taped).panels if p.panel == "p1" for o in p.offers]
    assert offers, "pads grow and feet are added"
    assert any("places under each rail" in o.words or o.words.startswith("pads") for o in offers)
    for offer in (o for o in offers if "slower" not in o.words):
        after = evaluate(apply_edits(taped, list(offer.edits)))
        assert (
            after.findings.carriers[0].safe_m_s == pytest.approx(offer.safe_m_s) and offer.safe_m_s > before
        )
