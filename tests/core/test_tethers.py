"""Tethers: what catching asks of a line, and a plate that has lost a foot."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from fahrtwind.core.edits import RemoveEntry, TetherPanel, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.formulas.tethers import catch_load
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.stations.hold.tethers.caught import Caught, _Plate
from tests.conftest import changed


@pytest.mark.parametrize("mass_kg", [6.0, 25.0])
@pytest.mark.parametrize(("spring", "slack"), [(60.0, 0.0), (60.0, 30.0), (800.0, 4.0)])
def test_the_jerk_is_that_of_a_panel_let_fly(mass_kg: float, spring: float, slack: float) -> None:
    """The formula beside the motion itself, integrated with scipy: the panel's mass drops out."""
    force = 500.0

    def motion(_: float, state: np.ndarray) -> tuple[float, float]:
        line = spring * max(state[0] - slack, 0.0)  # mm, N
        return state[1], 1000 * (force - line) / mass_kg

    flown = solve_ivp(motion, (0.0, 1.0), (0.0, 0.0), max_step=2e-4, rtol=1e-8)
    most = spring * max(flown.y[0].max() - slack, 0.0)
    assert catch_load(force, spring, slack) == pytest.approx(most, rel=2e-3)


@pytest.fixture
def roomy(sound: Job) -> Job:
    """With room for anchors on both sides of the first panel."""
    return changed(sound, panels__p1__y="-560 mm")


def caught_of(job: Job) -> Caught:
    (found,) = evaluate(job).findings.caught
    return found


def test_a_tight_tether_takes_the_place_of_the_foot_beside_it() -> None:
    """Four feet, one lost, a tether as stiff as a foot in its place: all pull as before, by symmetry a
    quarter each.
    """
    corners = np.array([(1.0, x, y) for x in (-500.0, 500.0) for y in (-300.0, 300.0)])
    plate = _Plate(
        corners,
        corners,
        corners[:1],
        np.full((1, 4), 700.0),
        np.array([700.0]),
        np.zeros(1),
        np.zeros((1, 3)),
        np.array([1.0, 0.0, 0.0]),
    )
    feet, lines = plate.solved(np.full(4, 1000.0), np.zeros(1))
    assert feet[0, 0, 0] == pytest.approx([0.0, 250.0, 250.0, 250.0], abs=0.01)
    assert lines[0, 0, 0] == pytest.approx([250.0], abs=0.01)
    slack, loose = plate.solved(np.full(4, 1000.0), np.array([1e4]))
    assert loose[0, 0, 0] == pytest.approx([0.0])
    assert slack[0, 0, 0].sum() == pytest.approx(1000.0, rel=1e-4)


def test_clamps_in_line_are_held_by_their_tethers() -> None:
    """Two clamps on one side, one of them lost, a load in the middle. Moments about both axes: 492 · f = 0,
    496 · (f − a + b) = 0, so the clamp that is left carries nothing and each tether half.
    """
    corners = np.array([(1.0, x, y) for x in (-740.0, 740.0) for y in (-496.0, 496.0)])
    clamps = np.array([(1.0, -492.0, 496.0), (1.0, 492.0, 496.0)])
    lines = np.array([(1.0, 0.0, -496.0), (1.0, 0.0, 496.0)])
    springs, load = np.full((1, 2), 2000.0), np.array([1.0, 0.0, 0.0])
    plate = _Plate(corners, clamps, lines, springs, np.full(2, 41.0), np.zeros(2), np.zeros((1, 3)), load)
    feet, tethers = plate.solved(np.full(2, 1000.0), np.zeros(2))
    assert feet[0, 0, 0] == pytest.approx([0.0, 0.0], abs=0.5)
    assert tethers[0, 0, 0] == pytest.approx([500.0, 500.0], rel=1e-3)
    assert np.isfinite(plate.alone().solved(np.full(2, 1000.0), np.zeros(0))[0]).all()


def test_one_click_sets_two_tethers_into_members(roomy: Job) -> None:
    job = apply_edits(roomy, [TetherPanel(panel="p1")])
    seen = evaluate(job)
    anchors = [f for f in seen.findings.feet if f.panel in ("j1", "j2")]
    assert [a.landing for a in anchors] == ["member", "member"]
    assert len({t.side for t in job.tethers}) == 2
    assert not [s.id for s in seen.snags if s.severity == "stop"]
    assert sum(m.panel in ("j1", "j2") for m in seen.findings.marks) == 2 * job.tethers[0].hold.count
    assert any(m.item.startswith("tether, ") for m in seen.findings.materials)
    assert any(s.title == "Fit the tethers" for s in seen.findings.steps)
    without = apply_edits(job, [RemoveEntry(path="panels.p1")])
    assert without.tethers == ()


def test_more_slack_is_never_better_and_a_tether_never_worse(roomy: Job) -> None:
    job = apply_edits(roomy, [TetherPanel(panel="p1")])
    (alone,) = (v for v in evaluate(roomy).findings.verdicts if v.panel == "p1")
    told = [
        caught_of(changed(job, tethers__j1__slack=f"{s} mm", tethers__j2__slack=f"{s} mm"))
        for s in (0, 2, 9, 40)
    ]
    for looser, tighter in zip(told[1:], told, strict=False):
        assert looser.all_lost_m_s <= tighter.all_lost_m_s
        assert looser.one_lost_m_s <= tighter.one_lost_m_s + 1e-9
    assert all(t.one_lost_m_s >= alone.lost_let_go_m_s - 1e-6 for t in told)


def test_the_whole_chain_of_a_catch_by_hand(roomy: Job) -> None:
    """A rope of 4 mm, 300 mm long: 0.5 · 0.359 · 16 · 1570 · 0.9 = 4059 N; the anchor's weakest part in its
    worst direction; the panel loose in the stream.
    """
    job = apply_edits(roomy, [TetherPanel(panel="p1")])
    job = changed(job, tethers__j1__length="300 mm", tethers__j2__length="300 mm")
    seen = visit(job)
    panel = job.panels[0]
    strengths = seen.of("tether_strengths", panel)
    line, frame, *anchor = strengths[0].parts
    assert line.bears_n == pytest.approx(4059.0, rel=1e-3)
    assert frame.title == "hole in the panel's frame"
    chain = seen.of("chains", panel)[0]  # the anchor is held as the panel's feet are, into the same members
    by_id = {link.id: link for link in chain.links}
    for part in anchor:
        if part.id != "bracket":  # its upright ends lower than the panel's
            pull, shear = by_id[part.id].pull_nominal_n, by_id[part.id].shear_nominal_n
            # a foot's force along also tips it about its toe: the anchor's sits on the roof
            assert part.bears_n >= 0.5 / np.hypot(1 / pull, 1 / shear) - 1e-6
    rope = 70_000 * 0.467 * 16 / 300
    spring = 1 / (1 / rope + 1 / chain.stiffness_n_mm)
    assert strengths[0].spring_n_mm == pytest.approx(spring, rel=1e-6)
    told = caught_of(job)
    loads = seen.of("loads", panel)[0]
    assert loads.cautious_m2 > 1.2 * 1.64 * 0.992  # this one's uplift is the larger
    force = loads.cautious_m2 * seen["air"].pressure_pa
    caught = force + np.sqrt(force**2 + 2 * spring * 1.0 * force)
    assert told.tethers[0].all_lost_n == pytest.approx(caught, rel=1e-6)


def test_on_one_side_nothing_is_caught(roomy: Job) -> None:
    job = changed(apply_edits(roomy, [TetherPanel(panel="p1")]), tethers__j2__side="port")
    assert caught_of(job).all_lost_m_s == 0.0


def test_bad_tethers_name_what_is_wrong(roomy: Job) -> None:
    with pytest.raises(InputError) as none:
        apply_edits(roomy, [TetherPanel(panel="p99")])
    assert none.value.field and "p99" in none.value.field
    job = apply_edits(roomy, [TetherPanel(panel="p1")])
    raw = job.model_dump(mode="json")
    raw["tethers"][0]["line"] = {"kind": "chewing gum"}
    with pytest.raises(InputError) as gum:
        load_job(raw)
    assert gum.value.field and gum.value.field.startswith("tethers")
    with pytest.raises(InputError):
        changed(job, tethers__j1__slack="9 m")
    raw = job.model_dump(mode="json")
    raw["tethers"][0]["id"] = "p1"
    with pytest.raises(InputError) as twin:
        load_job(raw)
    assert "p1" in str(twin.value)
