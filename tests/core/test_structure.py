"""What follows from the members: the next check, lines on a curved roof, the strength of a bay."""

from __future__ import annotations

import math

import numpy as np
import pytest

from fahrtwind.calc import run
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.structure.mounting_lines import mounting_lines, robust_location, stray_marks
from fahrtwind.core.stations.survey.crown import crown_of
from tests.conftest import changed
from tests.truth.advice import checks_until_settled

R = 3000.0


def every(pitch: float, count: int, first: float = 300.0, kind: str = "magnet") -> list[dict[str, object]]:
    return [{"id": f"r{i}", "x": first + pitch * i, "kind": kind} for i in range(count)]


def test_the_next_check_goes_where_it_decides() -> None:
    given = {"roof_length_mm": 8000, "readings": every(1200, 5), "members": {"kind": "steel_hat"}}
    found = run("members.next", given)
    assert not found.enough and found.kind == "magnet"
    assert min(abs(found.x_mm - (900 + 1200 * i)) for i in range(-1, 6)) < 60, (
        "between two members read: there or not there"
    )
    answers = {o.answer: o for o in found.outcomes}
    assert sum(o.chance for o in found.outcomes) == pytest.approx(1)
    assert "600 mm" in answers["hit"].means and "1200 mm" in answers["nothing"].means


def test_the_next_check_never_drills_where_a_gentler_test_tells_as_much() -> None:
    found = run(
        "members.next", {"roof_length_mm": 8000, "readings": every(650, 4), "members": {"kind": "wood_truss"}}
    )
    assert found.kind == "stud_finder"


@pytest.mark.parametrize("readings", [[], every(600, 1), every(600, 3, kind="pilot_through")])
def test_with_nothing_to_weigh_it_says_where_to_search(readings: list[dict[str, object]]) -> None:
    found = run("members.next", {"roof_length_mm": 6000, "readings": readings})
    assert found.start_mm is not None and found.end_mm > found.start_mm and not found.enough
    searched = {"id": "s1", "start": found.start_mm, "end": found.end_mm, "kind": "magnet"}
    again = run("members.next", {"roof_length_mm": 6000, "readings": readings, "scans": [searched]})
    assert again.start_mm >= found.end_mm - 1, "what was searched is not searched again"


def test_enough_is_said_when_every_member_in_use_is_sure(demo: Job) -> None:
    assert evaluate(demo).findings.next_check.enough  # type: ignore[union-attr]
    few = demo.model_copy(update={"readings": demo.readings[:4]})
    found = evaluate(few).findings.next_check
    assert found is not None and not found.enough and found.x_mm is not None


def test_advice_settles_the_spacing_in_fewer_checks_than_walking() -> None:
    seeds = range(5)  # the bench takes more
    advised = [checks_until_settled(s, advised=True) for s in seeds]
    walked = [checks_until_settled(s, advised=False) for s in seeds]
    assert np.mean([right for _, right in advised]) >= 0.9
    assert np.median([n for n, _ in advised]) <= 0.85 * np.median([n for n, _ in walked])


def lines_job(demo: Job, offsets: list[float], **more: object) -> Job:
    marks = [
        {"id": f"l{i}", "x": 700.0 * i, "side": side, "offset": o}
        for side in ("port", "starboard")
        for i, o in enumerate(offsets)
    ]
    for i, mark in enumerate(marks):
        mark["id"] = f"l{i}"
    gaps = [
        {"id": f"g{i}", "y": float(y), "gap": R - math.sqrt(R * R - y * y)}
        for i, y in enumerate(range(-1100, 1101, 200))
    ]
    return changed(
        demo,
        mounting={"marks": marks, **more},
        survey__crown={"sections": [{"id": "a", "x": 4200, "readings": gaps}]},
    )


def test_four_schools_and_the_lean_that_is_left(demo: Job) -> None:
    offsets = [612.0, 618, 609, 655, 615, 611]
    line = evaluate(lines_job(demo, offsets)).findings.lines.sides[0]
    schools = {s.name: s.offset_mm for s in line.schools}
    assert schools["mean"] == pytest.approx(np.mean(offsets)) and schools["median"] == pytest.approx(
        np.median(offsets)
    )
    assert schools["most_frequent"] == pytest.approx(np.mean([612, 618, 609, 615, 611]), abs=1.5)
    assert line.recommended == "robust" and [m.stray for m in line.marks] == [o == 655 for o in offsets]
    for mark, offset in zip(line.marks, offsets, strict=True):
        lean = math.degrees((line.offset_mm - offset) / R)
        assert mark.lean_deg == pytest.approx(lean, rel=0.12, abs=0.02)
        told = run(
            "formula.wedge_thickness",
            {"base_mm": 50, "lean_deg": mark.lean_deg, "bar_mm": 20, "radius_mm": R},
        )
        assert mark.wedge_mm == pytest.approx(told.value, rel=0.12, abs=0.02)
        assert mark.under == ("outboard" if lean > 0 else "inboard")


def test_the_check_distance_and_the_school_that_was_chosen(demo: Job) -> None:
    found = evaluate(lines_job(demo, [600.0, 640, 600, 604], school="mean")).findings.lines
    assert [s.chosen for s in found.sides] == ["mean", "mean"]
    assert found.check_mm == pytest.approx(2 * 611) and (found.chalk_front_x_mm, found.chalk_rear_x_mm) == (
        0,
        2100,
    )


def test_lines_from_the_crown_alone_are_parallel_on_an_even_roof(demo: Job) -> None:
    job = changed(lines_job(demo, [600.0]), mounting__marks=[], mounting__wanted="700 mm")
    fit = evaluate(job).findings
    line = mounting_lines(job.mounting, fit.members.members, crown_of(job)).sides[0]
    assert line.from_crown and all(m.offset_mm == pytest.approx(700, abs=12) for m in line.marks)


def test_strays_need_more_than_ordinary_scatter() -> None:
    assert not stray_marks(np.array([600.0, 612, 595, 620, 604])).any()


def test_the_robust_line_leaves_slips_out_even_two_to_one_side() -> None:
    """Excess lean over the mean of the marks without the slips, on R 2.5 m: a plain reference leaves 0.031°
    on average.
    """
    rng, excess = np.random.default_rng(4), []
    for _ in range(600):
        scatter, slips, count = rng.uniform(2, 8), int(rng.integers(0, 3)), int(rng.integers(7, 14))
        marks = 600 + rng.normal(0, scatter, count)
        slipped = rng.choice(count, slips, replace=False)
        best = float(np.delete(marks, slipped).mean())
        marks[slipped] += rng.choice([-1, 1]) * rng.uniform(4 * scatter, 12 * scatter, slips)
        excess.append(math.degrees(abs(robust_location(marks) - best) / 2500))
    assert np.mean(excess) <= 0.025


def test_one_offset_for_both_sides(demo: Job) -> None:
    job = lines_job(demo, [600.0, 604, 598, 602, 601])
    shifted = [
        m.model_dump() | {"offset": m.offset.mm + 8} if m.side == "port" else m.model_dump()
        for m in job.mounting.marks
    ]
    job = changed(job, mounting__marks=shifted)
    apart, common = evaluate(job).findings.lines, evaluate(changed(job, mounting__common=True)).findings.lines
    assert [s.offset_mm for s in apart.sides] == pytest.approx(
        [609, 601]
    ) and apart.common_mm == pytest.approx(605)
    assert [s.offset_mm for s in common.sides] == pytest.approx([605, 605])
    port, before = common.sides[0].marks[0], apart.sides[0].marks[0]
    assert port.lean_deg is not None and before.lean_deg is not None and port.lean_deg < before.lean_deg, (
        "the line moved inboard"
    )


def test_a_bay_is_softest_in_its_middle_and_the_ranking_follows(demo: Job) -> None:
    job = demo.model_dump(mode="json")
    members = evaluate(demo).findings.members.members
    a, b = members[4].x_mm, members[5].x_mm
    spots = [
        run("bay.spot", {"job": job, "x_mm": a + share * (b - a)}) for share in (0.1, 0.3, 0.5, 0.7, 0.9)
    ]
    stiffness = [s.stiffness_n_mm for s in spots]
    assert min(stiffness) == stiffness[2] and stiffness[0] == pytest.approx(stiffness[4], rel=0.01)
    assert spots[2].drumming == "strong"
    assert [f.way for f in spots[2].ranking if f.rank] == ["bridge", "through-bolt with large washer"]
    over = run("bay.spot", {"job": job, "x_mm": a})
    assert over.ranking[0].rank == 1 and over.drumming == "none"
    closed = {**job, "vehicle": {**job["vehicle"], "inside": "finished"}}
    shut = run("bay.spot", {"job": closed, "x_mm": (a + b) / 2})
    assert next(f for f in shut.ranking if f.way.startswith("through")).rank is None
