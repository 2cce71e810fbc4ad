"""No stored document may make evaluation fail: random valid documents, and both ends of every range."""

from __future__ import annotations

import random
from dataclasses import fields, is_dataclass
from math import isfinite
from typing import Any, get_args

import pytest
from pydantic import BaseModel

from fahrtwind.core.edits import (
    MirrorPanel,
    PlacePanel,
    PutInFrame,
    PutOnPosts,
    PutOnRack,
    PutOnRails,
    RaisePanel,
    RemoveEntry,
    SetValue,
    TetherPanel,
    apply_edits,
)
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import BoltName, ScrewName
from fahrtwind.core.quantities import Quantity
from fahrtwind.core.tables.fasteners import BOLTS, SCREWS
from fahrtwind.demo import demo_jobs
from fahrtwind.files.drawing import drill_drawing
from fahrtwind.files.job_file import read_job, write_job
from fahrtwind.files.svg import to_svg
from tests.truth.documents import random_document, range_ends


def trouble(evaluation: Evaluation) -> list[str]:
    """Stages that fell silent for a reason nobody foresaw, rules that could not be asked, numbers that are
    none.
    """
    found = [f"{s.what}: {s.why}" for s in evaluation.findings.silent if not s.foreseen]
    found += [s.where for s in evaluation.snags if s.id == "rule-unanswered"]
    return found + list(_not_finite(evaluation, ""))


def _not_finite(part: Any, path: str) -> list[str]:
    if isinstance(part, float):
        return [] if isfinite(part) else [path]
    if isinstance(part, tuple):
        return [p for i, entry in enumerate(part) for p in _not_finite(entry, f"{path}[{i}]")]
    if is_dataclass(part):
        return [p for f in fields(part) for p in _not_finite(getattr(part, f.name), f"{path}.{f.name}")]
    return []


@pytest.mark.parametrize("block", range(6))
def test_random_documents_are_always_answered(block: int) -> None:
    for seed in range(25 * block, 25 * block + 25):
        job = random_document(seed)
        found = evaluate(job)
        assert trouble(found) == [], seed
        assert found.spoken.word == "refused" or not found.findings.silent
        assert read_job(write_job(job).encode()) == job
        assert to_svg(drill_drawing(job, found.findings)).startswith("<svg")


def quantity_paths(part: BaseModel, path: str = "") -> list[str]:
    """Paths of all quantities of a document, one entry of each list."""
    found: list[str] = []
    for name in type(part).model_fields:
        value, here = getattr(part, name), f"{path}{name}"
        if isinstance(value, Quantity):
            found.append(here)
        elif isinstance(value, BaseModel):
            found += quantity_paths(value, f"{here}.")
        elif isinstance(value, tuple) and value and isinstance(value[0], BaseModel):
            found += quantity_paths(value[0], f"{here}.{getattr(value[0], 'id', 0)}.")
    return found


@pytest.mark.parametrize("block", range(3))
def test_actions_on_random_documents_are_done_or_refused_in_words(block: int) -> None:
    """One after the other, as somebody does who tries things out; after each the job is still answered."""
    done = 0
    for seed in range(5 * block, 5 * block + 5):
        dice, job = random.Random(seed), random_document(seed)
        for _ in range(8):
            if not job.panels:
                job = apply_edits(job, [PlacePanel(model="Kiesel 185")])
            ids = [p.id for p in job.panels]
            some = tuple(dice.sample(ids, dice.randint(1, len(ids))))
            actions = [
                PutOnRails(panels=some),
                PutOnRack(panels=some, points=dice.random() < 0.5),
                PutOnPosts(panels=some, outer=dice.random() < 0.5),
                PutInFrame(panels=some, crossbars=dice.random() < 0.5),
                RaisePanel(panel=some[0]),
                TetherPanel(panel=some[0]),
                MirrorPanel(panel=some[0]),
                RemoveEntry(path=f"panels.{some[0]}"),
            ]
            try:
                job = apply_edits(job, [dice.choice(actions)])
            except FahrtwindError as refused:
                assert refused.problem and refused.remedy
                continue
            done += 1
            assert trouble(evaluate(job)) == [], seed
    assert done > 10


@pytest.mark.parametrize("job", demo_jobs(), ids=lambda job: job.name)
def test_both_ends_of_every_range_are_answered_or_refused(job: Job) -> None:
    """Of what lies far out or odd one of each field, drawn for each job; each end of a range in one job."""
    tried, dice = 0, random.Random(job.name)
    ends: dict[str, list[Any]] = {}
    for path, end in range_ends():
        ends.setdefault(path, []).append(end)
    jobs = [j.name for j in demo_jobs()]
    for number, path in enumerate(sorted({*quantity_paths(job), *ends})):
        unit = _unit_of(job, path)
        own = ends.get(path, ()) if number % len(jobs) == jobs.index(job.name) else ()
        for value in (dice.choice((-1e6, -400.0, 0.0, 0.3, 1e6)), *own):
            try:
                changed = apply_edits(job, [SetValue(path=path, value={unit: value} if unit else value)])
            except FahrtwindError:
                continue
            tried += 1
            assert trouble(evaluate(changed)) == [], (job.name, path, value)
    assert tried > 20


def _unit_of(job: Job, path: str) -> str | None:
    here: Any = job
    for word in path.split("."):
        here = (
            next((e for e in here if getattr(e, "id", None) == word), None)
            if isinstance(here, tuple)
            else getattr(here, word, None)
        )
        if here is None:
            return None
    return type(here).value_name() if isinstance(here, Quantity) else None


def test_edits_share_what_they_do_not_touch(demo: Job) -> None:
    moved = apply_edits(demo, [SetValue(path="panels.p2.x", value="300 mm")])
    assert (
        moved.panels[0] is demo.panels[0]
        and moved.panels[1] is not demo.panels[1]
        and moved.panels[1].model is demo.panels[1].model
    )
    assert moved.survey is demo.survey and moved.vehicle is demo.vehicle and moved.readings is demo.readings
    assert (
        apply_edits(demo, [SetValue(path="panels.p2.x", value=demo.panels[1].x)]).panels[1].x
        == demo.panels[1].x
    )


def test_a_ninth_panel_past_the_end_is_an_input_error() -> None:
    job = Job.model_validate({"name": "long", "vehicle": {"roof_length": 20_000, "roof_width": 2000}})
    with pytest.raises(FahrtwindError) as caught:
        for _ in range(24):
            job = apply_edits(job, [PlacePanel(model="Halde 410")])
    assert caught.value.field == "panels" and len(job.panels) >= 8


def test_what_may_be_chosen_is_what_the_tables_know() -> None:
    assert set(get_args(ScrewName)) == set(SCREWS) and set(get_args(BoltName)) == set(BOLTS)
