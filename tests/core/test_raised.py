"""Panels raised while parked: struts, hinges and the feet under them in balance, and the gust to stow at."""

from __future__ import annotations

import numpy as np
import pytest

from fahrtwind.core.edits import RaisePanel, RemoveEntry, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.stations.hold.raised.parts import CENTRES
from fahrtwind.core.stations.hold.raised.statics import RaisedVerdict, _lines, unit_of
from tests.conftest import changed


@pytest.fixture
def raised(sound: Job) -> Job:
    return apply_edits(changed(sound, panels__p1__tilt="50°"), [RaisePanel(panel="p1")])


def told(job: Job) -> RaisedVerdict:
    (verdict,) = evaluate(job).findings.raised
    return verdict


def turn(arm: np.ndarray, force: np.ndarray) -> float:
    """The moment of a force, per millimetre of its arm's length."""
    return float(arm[0] * force[1] - arm[1] * force[0])


@pytest.mark.parametrize("base", [None, "300 mm", "900 mm"])
def test_what_the_feet_get_is_air_and_weight_and_turns_about_nothing(raised: Job, base: str | None) -> None:
    """Forces on the roof add up to the air's and the weight's, in every case; about the hinge the strut's
    foot balances both. Coefficients as in EN 1991-1-4: 1.8 up and down at 50°.
    """
    job = changed(raised, raisings__g1__base=base)
    raising, panel = job.raisings[0], job.panels[0]
    unit, lines = unit_of(raising, (panel,)), _lines(unit_of(raising, (panel,)), raising)
    tilt = np.radians(50.0)
    normal, along = np.array([-np.sin(tilt), np.cos(tilt)]), np.array([np.cos(tilt), np.sin(tilt)])
    weight = np.array([0.0, -panel.model.mass.kg * 9.80665])
    area = 1.64 * 0.992
    cases = [(sign * 1.8 * area, at) for sign in (1.0, -1.0) for at in CENTRES]
    for q in (0.0, 600.0):
        hinge = raising.hinges * (lines.hinge[0] + q * lines.hinge[1])
        foot = raising.struts * (lines.strut_foot[0] + q * lines.strut_foot[1])
        for i, (coefficient, at) in enumerate(cases):
            air = coefficient * q * normal
            assert hinge[i] + foot[i] == pytest.approx(air + weight, abs=1e-6)
            by_air = at * unit.chord_mm * turn(along, air)
            by_weight = unit.chord_mm / 2 * turn(along, weight)
            assert unit.base_mm * foot[i][1] == pytest.approx(by_air + by_weight, abs=1e-3)


def test_weaker_steeper_and_fewer_is_never_better(raised: Job) -> None:
    once = told(raised)
    thick = told(changed(raised, panels__p1__hold__bracket__thickness="8 mm"))
    assert thick.stow_m_s >= once.stow_m_s
    assert told(changed(raised, raisings__g1__struts=4)).stow_m_s >= once.stow_m_s
    bendy = changed(raised, raisings__g1__strut={"kind": "round", "diameter": "10 mm", "wall": "1 mm"})
    assert told(bendy).stow_m_s <= once.stow_m_s
    assert {p.part: p for p in told(bendy).parts}["strut pushed"].bears_n < 600
    assert told(changed(raised, panels__p1__tilt="20°")).stow_m_s >= once.stow_m_s
    assert once.mean_m_s == pytest.approx(once.stow_m_s / 1.6)


def test_stow_gust_is_where_the_first_part_is_used_up(raised: Job) -> None:
    """At the stow gust the pull on the foot under a strut is what its weakest link bears, by hand."""
    verdict = told(raised)
    assert verdict.first == "foot under a strut"
    unit = unit_of(raised.raisings[0], (raised.panels[0],))
    lines = _lines(unit, raised.raisings[0])
    links = [k for c in visit(raised).of("verdict", raised.panels[0]).chains for k in c.links]
    pull, shear = min(k.pull_design_n for k in links), min(k.shear_design_n for k in links)
    q = 0.5 * 1.25 * verdict.stow_m_s**2
    constant, per_pa = lines.strut_foot
    used = (constant[:, 1] + q * per_pa[:, 1]) / pull
    used += (np.abs(constant[:, 0]) + q * np.abs(per_pa[:, 0])) / shear
    assert used.max() == pytest.approx(1.0, rel=1e-6)


def test_an_array_is_raised_as_one_and_goes_with_its_panels(sound: Job) -> None:
    job = changed(
        sound,
        panels__p1__array="a1",
        panels__p3__array="a1",
        panels__p1__tilt="40°",
        panels__p3__tilt="40°",
        panels__p3__x="1900 mm",
    )
    job = apply_edits(job, [RaisePanel(panel="p3")])
    assert job.raisings[0].panels == ("p1", "p3")
    unit = unit_of(job.raisings[0], (job.panels[0], job.panels[2]))
    assert unit.area_m2 == pytest.approx(2 * 1.64 * 0.992, rel=0.01)
    less = apply_edits(job, [RemoveEntry(path="panels.p1")])
    assert less.raisings[0].panels == ("p3",)
    assert apply_edits(less, [RemoveEntry(path="panels.p3")]).raisings == ()


def test_bad_raisings_name_what_is_wrong(raised: Job) -> None:
    raw = raised.model_dump(mode="json")
    raw["raisings"][0]["at"] = 7
    with pytest.raises(InputError) as at:
        load_job(raw)
    assert at.value.field == "raisings.0.at" or "at" in str(at.value.field)
    flat = evaluate(changed(raised, panels__p1__tilt="0°"))
    assert flat.findings.raised == ()


def test_panels_of_a_unit_that_differ_are_told_at_the_last(raised: Job) -> None:
    found = evaluate(changed(raised, raisings__g1__panels=["p1", "p3"]))
    (told,) = (s for s in found.snags if s.id == "raised-unevenly")
    assert told.place == "panels.p3.tilt" and told.where == "Front port, Middle port"
