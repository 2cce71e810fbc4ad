"""Welds and connectors of racks: forces of one newton by hand, an arch beside its posts, what is not said."""

from __future__ import annotations

from math import pi
from typing import Any

import numpy as np
import pytest

from fahrtwind.core.edits import PutOnRack, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.sections import RectangularTube, RoundTube
from fahrtwind.core.stations.hold.carriers.seams import _between, _connected, _round_end, seams_of, strength
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict, SeamVerdict
from fahrtwind.core.working import working
from fahrtwind.demo import demo_jobs
from tests.conftest import changed

ONE = np.eye(6)


@pytest.fixture
def boat() -> Job:
    return next(j for j in demo_jobs() if j.name == "Wasserläufer")


def verdict(job: Job) -> CarrierVerdict:
    return evaluate(job).findings.carriers[0]


def arch(job: Job, **more: Any) -> CarrierVerdict:
    return verdict(changed(job, **{f"carriers__b1__{k}": v for k, v in more.items()}))


def test_a_weld_round_a_tube_by_hand() -> None:
    """Throat 2.5 round 42.4: area π·d·a = 333.0 mm², bending π·d²·a/4 = 3530 mm³, torsion twice that."""
    reads = _round_end(RoundTube(diameter={"mm": 42.4}, wall={"mm": 2.6}), 2.5)  # type: ignore[arg-type]
    area, w = pi * 42.4 * 2.5, pi * 42.4**2 * 2.5 / 4
    assert reads(ONE) == pytest.approx([1 / area] * 3 + [1 / (2 * w), 1 / w, 1 / w])
    assert reads(-ONE) == pytest.approx(reads(ONE))
    both = reads(np.array([100.0, 30.0, 40.0, 0, 1000.0, -2000.0]))
    assert both == pytest.approx((100 + 50) / area + 3000 / w), "shears as one force, the rest by size"


def test_a_weld_round_a_rectangle_bends_along_its_sides() -> None:
    """60 high, 40 wide, throat 3: 3 · (40 · 60 + 1200) = 10 800 up, 3 · (2400 + 533.3) = 8800 aside; torsion
    2 · 2400 · 3.
    """
    reads = _round_end(RectangularTube(height={"mm": 60}, width={"mm": 40}), 3.0)  # type: ignore[arg-type]
    assert reads(ONE) == pytest.approx([1 / 600] * 3 + [1 / 14_400, 1 / 10_800, 1 / 8800])


def test_a_bar_on_a_rail_and_between_rails_turns_about_its_own_sides(sound: Job) -> None:
    """Rail 60 wide under a bar 40 wide and 30 high. Lying on it, rolling bends the weld along the rail's
    width; between rails along the bar's height, and what pulls it off is what runs across.
    """
    job = apply_edits(sound, [PutOnRack(panels=("p1",), points=False)])
    sizes = {
        "carriers__b1__joint": "welded",
        "carriers__b1__section": {"kind": "tube", "height": "50 mm", "width": "60 mm"},
        "carriers__b1__bar_section": {"kind": "tube", "height": "30 mm", "width": "40 mm"},
    }
    rack = changed(job, **sizes).carriers[0]
    assert isinstance(rack, Rack)
    over = _between(rack, 3.0)(ONE)
    roll, pitch = 3 * (40 * 60 + 1200), 3 * (40 * 60 + 1600 / 3)
    assert over == pytest.approx([1 / 600] * 3 + [1 / roll, 1 / pitch, 1 / (2 * 2400 * 3)])
    between = _between(rack.model_copy(update={"flush": True}), 3.0)(ONE)
    roll, yaw = 3 * (40 * 30 + 300), 3 * (40 * 30 + 1600 / 3)
    assert between == pytest.approx([1 / 420] * 3 + [1 / roll, 1 / (2 * 1200 * 3), 1 / yaw])


def test_welds_bear_what_their_metal_and_fillers_do() -> None:
    """Stainless 520/√3, mild steel 360/(√3 · 0.8), 6060 with the weaker filler 150/√3."""
    told = [strength(a) for a in ("1.4301", "S235", "6060-T66")]  # type: ignore[arg-type]
    assert told == pytest.approx([300.2, 259.8, 86.6], abs=0.05)


def test_an_arch_is_judged_at_both_ends_of_its_posts(boat: Job) -> None:
    """The bending at a post's ends over what its weld bears; nothing is judged where nobody says a throat."""
    assert verdict(boat).seams == ()
    assert "joints-of-posts" in {s.id for s in evaluate(boat).snags}
    told = arch(boat, throat="2.5 mm")
    assert "joints-of-posts" not in {
        s.id for s in evaluate(changed(boat, carriers__b1__throat="2.5 mm")).snags
    }
    posts = [r.rail for r in told.rails if r.runs == "up"]
    ends = [s for s in told.seams if s.seam.endswith((" foot", " top"))]
    assert {s.seam for s in ends} == {f"{p} {e}" for p in posts for e in ("foot", "top")}
    assert all(s.kind == "weld" for s in told.seams)
    w = pi * 42.4**2 * 2.5 / 4
    for line in (r for r in told.rails if r.runs == "up"):
        own = {s.seam: s for s in ends}
        for end, moment in (("foot", line.moments_n_mm[0]), ("top", line.moments_n_mm[-1])):
            bending_alone = abs(moment) / w * 1.95 / own[f"{line.rail} {end}"].bears
            assert own[f"{line.rail} {end}"].utilisation >= bending_alone - 1e-9


def test_a_seam_shows_its_working(boat: Job) -> None:
    said = changed(boat, carriers__b1__throat="2.5 mm")
    seam = next(s for s in verdict(said).seams if s.seam.endswith(" foot"))
    steps = working(said, f"hold/b1/seam {seam.seam}").steps
    assert steps[0].formula == "round_weld_modulus"
    assert steps[-1].result == pytest.approx(seam.utilisation)


def test_only_welds_whose_line_is_known_are_judged(boat: Job, sound: Job) -> None:
    """Round tubes that cross touch at a point, an angle is not welded all round, aluminium not to steel: none
    of them gets a share; aluminium posts count with what the heat has left once they are welded.
    """
    crossing = arch(boat, throat="2 mm", joint="welded")
    assert all(s.seam.endswith((" foot", " top")) for s in crossing.seams), "its bars lie on round rails"
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    more = {"carriers__b1__joint": "welded", "carriers__b1__throat": "2 mm"}
    angle = {"carriers__b1__bar_section": {"kind": "angle", "leg": "40 mm", "wall": "4 mm"}}
    for change in (angle, {"carriers__b1__bar_alloy": "S235"}):
        told = evaluate(changed(job, **more, **change))
        assert told.findings.carriers[0].seams == ()
        assert "corner-welds" in {s.id for s in told.snags}
    light = {"posts__alloy": "6082-T6", "alloy": "6082-T6", "bar_alloy": "6082-T6", "joint": "angles"}
    bolted, welded = arch(boat, **light), arch(boat, **light, throat="2 mm")
    for one, other in zip(bolted.rails, welded.rails, strict=True):
        softer = 250 / 125 if one.runs != "across" else 1
        assert other.utilisation == pytest.approx(softer * one.utilisation)


def worst(seams: tuple[SeamVerdict, ...]) -> float:
    return max(s.utilisation for s in seams)


def test_a_thicker_weld_is_never_weaker_and_decides_when_it_is_thin(boat: Job) -> None:
    none = verdict(boat)
    thin, usual, thick = (arch(boat, throat=f"{a} mm") for a in (0.5, 1.5, 2.5))
    assert worst(thin.seams) > worst(usual.seams) > worst(thick.seams)
    assert thin.safe_m_s <= usual.safe_m_s <= thick.safe_m_s <= none.safe_m_s
    assert thin.safe_m_s == pytest.approx(min(s.safe_m_s for s in thin.seams))
    assert all(s.safe_m_s <= s.let_go_m_s for s in thin.seams)
    assert thin.parked.safe_m_s < none.parked.safe_m_s
    assert thin.lost_safe_m_s <= none.lost_safe_m_s
    assert thin.grabbed is not None and thin.grabbed.part.startswith("weld at")


def test_a_connector_is_held_to_its_makers_moment(boat: Job) -> None:
    """All three moments as one: a rating ten times as high is used a tenth as much, and is what counts even
    where a throat is told as well.
    """
    assert _connected(0.0)(np.array([9.0, 9, 9, 2, 3, 6])) == pytest.approx(7)
    assert _connected(0.5)(np.array([-9.0, 9, 9, 2, 3, 6])) == pytest.approx(7 + 4.5)
    weak, strong = (arch(boat, posts__joint_nm=n, joint="angles", throat="2 mm") for n in (100, 1000))
    assert {s.kind for s in weak.seams} == {"connector"}
    for a, b in zip(weak.seams, strong.seams, strict=True):
        assert a.utilisation == pytest.approx(10 * b.utilisation) and (a.bears, b.bears) == (100, 1000)
    assert weak.safe_m_s < strong.safe_m_s
    pulled = arch(boat, posts__joint_nm=1000, joint="angles", posts__joint_n=2000)
    used, turned = ({s.seam: s for s in told.seams} for told in (pulled, strong))
    for name, seam in turned.items():
        most = seam.utilisation + seam.along_n * 1.65 / 2000
        assert 0 < seam.along_n == used[name].along_n and seam.utilisation < used[name].utilisation <= most
    with pytest.raises(InputError, match="joint_nm"):
        arch(boat, posts__joint_nm=0)


def test_a_lone_rack_has_a_seam_in_every_corner(sound: Job) -> None:
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    rack = changed(job, carriers__b1__joint="welded", carriers__b1__throat="2 mm").carriers[0]
    told = evaluate(job.model_copy(update={"carriers": (rack,)})).findings.carriers[0]
    assert isinstance(rack, Rack)
    assert len(told.seams) == len(rack.bars) * 2 and all(s.kind == "weld" for s in told.seams)
    assert told.joints == ()
    bolted = evaluate(job).findings.carriers[0]
    assert bolted.seams == () and visit(job).get("feet")
    assert seams_of(rack.model_copy(update={"throat": None}), None) == []  # type: ignore[arg-type]
