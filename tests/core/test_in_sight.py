"""While a panel is dragged only the stations in sight follow: what they tell is what the whole would."""

from __future__ import annotations

import random

import pytest

from fahrtwind.core.edits import SetValue, apply_edits
from fahrtwind.core.engine.memory import Memory
from fahrtwind.core.evaluate import FIELDS, evaluate, evaluate_in_sight
from fahrtwind.core.job.document import Job
from fahrtwind.core.road import ROAD, Station
from fahrtwind.demo import demo_jobs
from tests.truth.documents import random_document

DRAGGED: tuple[Station, ...] = ("layout", "hold")
PAIRS = [
    (one, other) for seed in range(6) for one, other in [(random_document(seed), random_document(seed + 90))]
]


def dragged(job: Job, dice: random.Random) -> Job:
    panel = dice.choice(job.panels)
    x, y = (getattr(panel, side).mm + dice.uniform(-600, 600) for side in "xy")
    return apply_edits(
        job,
        [
            SetValue(path=f"panels.{panel.id}.x", value={"mm": x}),
            SetValue(path=f"panels.{panel.id}.y", value={"mm": y}),
        ],
    )


@pytest.mark.parametrize("stations", [DRAGGED, ("seal",), ("wire", "roof-day"), ROAD])
def test_what_is_in_sight_is_what_the_whole_tells_and_the_rest_stays(stations: tuple[Station, ...]) -> None:
    dice = random.Random(5)
    moves = [(job, dragged(job, dice)) for job in demo_jobs() if job.panels]
    for job, moved in [*moves, *PAIRS]:  # one job for another, too: anything may change, also what is silent
        before, whole = evaluate(job), evaluate(moved)
        part = evaluate_in_sight(moved, before, stations)
        for name, told in FIELDS.items():
            wanted = whole if told.station in stations else before
            assert getattr(part.findings, name) == getattr(wanted.findings, name), name
        for station in ROAD:
            wanted = whole if station in stations else before
            assert [s for s in part.snags if s.station == station] == [
                s for s in wanted.snags if s.station == station
            ]
        assert part.findings.questions == whole.findings.questions
        if stations == ROAD:
            assert (part.snags, part.stations, part.spoken) == (whole.snags, whole.stations, whole.spoken)


def test_a_station_out_of_sight_is_not_worked_out(sound: Job, monkeypatch: pytest.MonkeyPatch) -> None:
    before = evaluate(sound)

    asked: list[object] = []
    monkeypatch.setattr("fahrtwind.core.stations.seal.stages.places_of", lambda *_, **__: asked.append(1))
    moved = dragged(sound, random.Random(1))
    part = evaluate_in_sight(moved, before, DRAGGED, memory=Memory())
    assert not asked and part.findings.seal_places is before.findings.seal_places
    evaluate_in_sight(moved, before, ("seal",), memory=Memory())
    assert asked
    monkeypatch.undo()
    assert part.findings.verdicts == evaluate(moved).findings.verdicts != before.findings.verdicts


def test_a_speed_that_is_tried_is_another_look(demo: Job) -> None:
    assert evaluate(demo) is evaluate(demo), "the same job is not put together twice"
    for speed in (10.0, 12.5):
        tried = evaluate(demo, speed).findings.plan
        assert tried is not None and tried.probe_m_s == speed
