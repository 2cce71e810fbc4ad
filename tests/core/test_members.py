"""The member fit on roofs with known truth (seeded), and on readings that cannot decide."""

from __future__ import annotations

import numpy as np
import pytest

from fahrtwind.core.job.document import Job, Reading
from fahrtwind.core.structure.members import MemberFit, fit_members
from fahrtwind.core.tables.readings import RELIABILITY


def reading(index: int, x: float, kind: str = "magnet") -> Reading:
    return Reading.model_validate({"id": f"r{index}", "x": float(x), "kind": kind})


def synthetic(seed: int) -> tuple[MemberFit, float, np.ndarray]:
    """A roof with members off by up to a few mm, a third of them unread and up to a fifth of the readings false."""
    rng = np.random.default_rng(seed)
    pitch, span = rng.uniform(400, 820), 9000.0
    first = rng.uniform(60, pitch)
    members = np.arange(first, span, pitch) + 0.0
    members = members + rng.normal(0, 4, len(members))
    kinds = ("magnet", "rivet_row", "stud_finder")
    found = []
    for x in members:
        if rng.random() > 0.35:
            kind = kinds[rng.integers(3)]
            found.append((x + rng.normal(0, RELIABILITY[kind].sigma_mm), kind))  # type: ignore[index]
    false = rng.integers(0, 1 + len(found) // 4)
    found += [(rng.uniform(0, span), "knock") for _ in range(false)]
    fit = fit_members(tuple(reading(i, x, kind) for i, (x, kind) in enumerate(found)), span)
    return fit, pitch, members


def test_known_roofs_are_found_and_their_bands_are_honest() -> None:
    settled, right, inside, bands = 0, 0, 0, 0
    for seed in range(120):
        fit, pitch, members = synthetic(seed)
        if fit.status != "settled":
            continue
        settled += 1
        assert fit.pitch_mm is not None
        if abs(fit.pitch_mm - pitch) > 0.01 * pitch:
            continue
        right += 1
        for truth in members:
            nearest = min(fit.members, key=lambda m: abs(m.x_mm - truth))
            bands += 1
            inside += nearest.band_low_mm <= truth <= nearest.band_high_mm
    assert settled >= 100
    assert right / settled > 0.97
    assert 0.90 <= inside / bands <= 0.995


def test_the_demo_names_its_two_false_readings_and_the_rib_that_was_missed(demo: Job) -> None:
    fit = fit_members(demo.readings, 8400)
    assert fit.status == "settled"
    assert fit.pitch_mm == pytest.approx(655, abs=2)
    assert {r.reading for r in fit.rejected} == {"r6", "r11"}
    assert [m.number for m in fit.members if m.status == "inferred"] == [4, 7][1:]


@pytest.mark.parametrize("positions", [[], [600], [600, 1200], [600, 1210, 700]])
def test_too_little_is_said_to_be_too_little(positions: list[float]) -> None:
    fit = fit_members(tuple(reading(i, x) for i, x in enumerate(positions)), 8000)
    assert fit.status == "not known" and fit.members == () and fit.remedy


def test_readings_without_order_give_no_lattice() -> None:
    rng = np.random.default_rng(3)
    verdicts = [fit_members(tuple(reading(i, x) for i, x in enumerate(rng.uniform(0, 8000, 5))), 8000).status for _ in range(40)]
    assert verdicts.count("settled") <= 4


def test_every_second_member_read_leaves_the_half_pitch_open() -> None:
    fit = fit_members(tuple(reading(i, 300 + 1200 * i) for i in range(4)), 8000)
    pitches = {round((fit.pitch_mm or 0) / 100), *(round(a.pitch_mm / 100) for a in fit.alternatives)}
    assert fit.status == "in doubt" and {6, 12} <= pitches


def test_a_pilot_hole_through_speaks_against_a_member() -> None:
    hits = tuple(reading(i, 300 + 1200 * i) for i in range(5))
    through = tuple(reading(10 + i, 900 + 1200 * i, "pilot_through") for i in range(2))
    fit = fit_members(hits + through, 8000)
    assert fit.pitch_mm == pytest.approx(1200, abs=10) and not any(abs(a.pitch_mm - 600) < 20 for a in fit.alternatives)
    against = fit_members((*(reading(i, 300 + 600 * i) for i in range(8)), reading(9, 2100, "pilot_through")), 8000)
    assert against.contradictions == ("r9",) and against.status == "in doubt"


def test_struck_readings_do_not_count(demo: Job) -> None:
    struck = tuple(r.model_copy(update={"struck": True}) for r in demo.readings)
    assert fit_members(struck, 8400).status == "not known"
