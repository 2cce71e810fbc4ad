"""Jobs are told what they were told before, and job files of every version are still read.

Regression; ``python -m tests.truth.golden`` keeps a change that was meant.
"""

from __future__ import annotations

import json
from typing import Any

import pytest

from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import SCHEMA_VERSION, Job
from fahrtwind.core.job.load import load_job
from tests.truth.golden import FIGURES, KEPT, figures, golden_jobs, path_of, told


@pytest.mark.parametrize("job", golden_jobs(), ids=lambda job: job.name)
def test_a_job_is_told_what_it_was_told(job: Job) -> None:
    before, now = json.loads(path_of(job).read_text(encoding="utf-8")), told(job)
    assert list(now) == list(before)
    for part, value in now.items():
        assert not list(_differences(before[part], value, part)), part


def _differences(before: Any, now: Any, where: str) -> Any:
    """Places at which two parts differ; the last of the kept digits may be rounded either way."""
    if isinstance(before, dict) and isinstance(now, dict) and before.keys() == now.keys():
        for key, value in before.items():
            yield from _differences(value, now[key], f"{where}.{key}")
    elif isinstance(before, list) and isinstance(now, list) and len(before) == len(now):
        for i, (one, other) in enumerate(zip(before, now, strict=True)):
            yield from _differences(one, other, f"{where}[{i}]")
    elif isinstance(before, float) and isinstance(now, float):
        if abs(before - now) > max(1.1e-3 * abs(before), 1e-6):  # below that it is dust of a solved frame
            yield f"{where}: {before} is now {now}"
    elif before != now:
        yield f"{where}: {before} is now {now}"


def test_ranges_and_catalogue_are_what_they_were() -> None:
    assert json.loads(FIGURES.read_text(encoding="utf-8")) == figures()


@pytest.mark.parametrize("version", range(1, SCHEMA_VERSION + 1))
def test_job_files_of_every_version_are_read_and_answered(version: int) -> None:
    """The bus of the demo as each version of the program shipped it: nothing that was measured is lost."""
    kept = json.loads((KEPT / "jobs" / f"version-{version}.json").read_text(encoding="utf-8"))
    assert kept["schema_version"] == version
    job = load_job(kept)
    assert job.schema_version == SCHEMA_VERSION
    for name in ("readings", "obstacles", "panels"):
        assert [e["id"] for e in kept[name]] == [e.id for e in getattr(job, name)]
    found = evaluate(job)
    assert (
        found.findings.verdicts and not found.findings.silent and found.findings.members.status == "settled"
    )
