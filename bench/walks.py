"""Walks: jobs are changed step by step as somebody might who tries everything, and after each step asked for
all there is. Nothing may fail for a reason that nobody foresaw. Seeded.
"""

from __future__ import annotations

import random
import re
from collections import Counter, defaultdict
from collections.abc import Callable, Iterator
from pathlib import Path
from time import monotonic
from typing import Any

from bench.figures import line
from fahrtwind.core.choose.changes import changes
from fahrtwind.core.edits import (
    Edit,
    MirrorPanel,
    PlacePanel,
    PutInFrame,
    PutOnPosts,
    PutOnRack,
    PutOnRails,
    RaisePanel,
    RemoveEntry,
    ReplaceModel,
    SetValue,
    SpreadFeet,
    StandAnywhere,
    TetherPanel,
    apply_edits,
)
from fahrtwind.core.engine.beside import Hands, Stopped
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.document import Job
from fahrtwind.core.slow import WORKS, WorkName
from fahrtwind.core.working import working
from fahrtwind.demo import demo_jobs
from fahrtwind.files.job_file import read_job, write_job
from tests.core.test_documents import trouble
from tests.truth.documents import random_document

WALKS, STEPS = 60, 12
FIELD = Path(__file__).parent.parent / "tests" / "field_jobs"
ASKED: tuple[WorkName, ...] = ("hold", "schools", "remedies", "days", "helps", "groupings", "reality")
SECONDS = 10.0
"""For one slow work; what is not done by then is broken off."""
WITH_UNIT = re.compile(r"\.(mm|deg|m_s|w|v|a|kg|deg_c|n|nm|mm2|wh)$")


def walks(count: int = WALKS) -> None:
    jobs = [*demo_jobs(), *(read_job(p.read_bytes()) for p in sorted(FIELD.glob("*.json")))]
    jobs += [random_document(seed) for seed in range(12)]
    values = _values_seen(jobs)
    wrong: Counter[str] = Counter()
    steps = 0
    for number in range(count):
        dice = random.Random(number)
        before = dice.choice(jobs)
        for job in _walk(before, dice, values, wrong):
            steps += 1
            wrong.update(_asked(before, job, dice))
            before = job
    print(f"\n{count} walks, {steps} steps")
    for words, times in wrong.most_common():
        print(f"  {times} times: {words}")
    line("walks: what failed for a reason nobody foresaw", wrong.total(), "times", 0)


def _walk(job: Job, dice: random.Random, values: dict[str, list[Any]], wrong: Counter[str]) -> Iterator[Job]:
    """The job after each step that was not refused."""
    for _ in range(STEPS):
        edit = _step(job, dice, values)
        try:
            job = apply_edits(job, [edit])
        except FahrtwindError:
            continue
        except Exception as error:  # whatever it is: it is what is looked for
            wrong[f"{edit.op}: {type(error).__name__}"] += 1
            continue
        yield job


def _asked(before: Job, job: Job, dice: random.Random) -> Iterator[str]:
    """What went wrong where a job was asked for its answer, what else the step changes, a working, and now
    and then for slow work.
    """
    try:
        found = evaluate(job)
        yield from trouble(found)
        changes(before, job)
        if read_job(write_job(job).encode()) != job:
            yield "written and read it is another job"
        if found.findings.verdicts:
            told = dice.choice(found.findings.verdicts)
            foot = dice.choice(told.feet)
            working(job, f"hold/{told.panel}/{foot.foot}/link {dice.choice(foot.links).id}")
        if dice.random() < 1 / STEPS:
            WORKS[dice.choice(ASKED)].do([job], _patient(), lambda found: None)
    except (FahrtwindError, Stopped):
        pass
    except Exception as error:  # whatever it is: it is what is looked for
        yield f"{type(error).__name__}: {error}"


def _patient() -> Hands:
    until = monotonic() + SECONDS
    return Hands(
        lambda: max(until - monotonic(), 0.0), lambda: monotonic() > until, lambda share, doing: None
    )


def _step(job: Job, dice: random.Random, values: dict[str, list[Any]]) -> Edit:
    models = [model.name for model in catalogue()]
    if not job.panels or dice.random() < 0.08:
        return PlacePanel(model=dice.choice(models))
    ids = [panel.id for panel in job.panels]
    one, some = dice.choice(ids), tuple(dice.sample(ids, dice.randint(1, min(4, len(ids)))))
    maybe = dice.random() < 0.5
    ways: list[Callable[[], Edit]] = [
        lambda: SpreadFeet(panel=one, count=dice.randint(2, 10), along="sides" if maybe else "ends"),
        lambda: MirrorPanel(panel=one),
        lambda: PutOnRails(panels=some),
        lambda: PutOnRack(panels=some, points=maybe),
        lambda: PutOnPosts(panels=some, outer=maybe),
        lambda: PutInFrame(panels=some, crossbars=maybe),
        lambda: RaisePanel(panel=one),
        lambda: TetherPanel(panel=one),
        lambda: ReplaceModel(panels=some, model=dice.choice(models)),
        lambda: RemoveEntry(path=f"panels.{one}"),
        lambda: SetValue(path=f"panels.{one}.x", value={"mm": dice.uniform(-200, 6000)}),
        lambda: SetValue(path=f"panels.{one}.y", value={"mm": dice.uniform(-1500, 800)}),
        *[lambda: _other_value(job, dice, values)] * 10,
    ]
    if job.carriers:
        carrier = dice.choice(job.carriers).id
        ways.append(lambda: StandAnywhere(carrier=carrier, count=dice.randint(0, 8)))
        ways.append(lambda: RemoveEntry(path=f"carriers.{carrier}"))
    return dice.choice(ways)()


def _other_value(job: Job, dice: random.Random, values: dict[str, list[Any]]) -> Edit:
    """Any field, set to what another job has there, or a number made larger, smaller or nothing."""
    whole = job.model_dump(mode="json")
    part = dice.choice([name for name, value in whole.items() if isinstance(value, (dict, list)) and value])
    fields = [(p, v) for p, v in _leaves(whole[part], part) if not p.endswith((".text", ".id"))]
    if not fields:
        return PlacePanel(model=catalogue()[0].name)
    path, value = dice.choice(fields)
    if isinstance(value, (int, float)) and not isinstance(value, bool) and dice.random() < 0.4:
        value = value * dice.choice([0, 0.2, 0.5, 0.9, 1.1, 2, 5, -1]) + dice.choice([0, 0, 1])
    else:
        value = dice.choice(values[_pattern(path)] or [None])
    if unit := WITH_UNIT.search(path):
        return SetValue(path=path[: unit.start()], value=None if value is None else {unit[1]: value})
    return SetValue(path=path, value=value)


def _values_seen(jobs: list[Job]) -> dict[str, list[Any]]:
    seen: dict[str, list[Any]] = defaultdict(list)
    for job in jobs:
        for path, value in _leaves(job.model_dump(mode="json"), ""):
            seen[_pattern(path)].append(value)
    return seen


def _pattern(path: str) -> str:
    """A path whatever the entries in it are called."""
    return re.sub(r"\.[a-z]+[0-9]+(?=\.|$)", ".#", path)


def _leaves(part: Any, path: str) -> Iterator[tuple[str, Any]]:
    if isinstance(part, dict):
        for name, value in part.items():
            yield from _leaves(value, f"{path}.{name}" if path else name)
    elif isinstance(part, list):
        for value in part:
            if isinstance(value, dict) and "id" in value:
                yield from _leaves(value, f"{path}.{value['id']}")
    else:
        yield path, part
