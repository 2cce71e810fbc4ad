"""Shared fixtures: the demo job, a test client on a fresh database, a small job to bend."""

from __future__ import annotations

import asyncio
import json
from collections.abc import Coroutine, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any, TypeVar

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from fahrtwind.api.app import create_app
from fahrtwind.api.collecting import collect_seldom
from fahrtwind.core.edits import Edit, RemoveEntry, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.stations.layout.sun import findings as sun
from fahrtwind.demo import FOLDER

settings.register_profile("seeded", deadline=None, derandomize=True)
settings.load_profile("seeded")

T = TypeVar("T")


def pytest_collection_finish() -> None:
    """What was collected stays until the end."""
    collect_seldom()


def ended(work: Coroutine[Any, Any, T]) -> T:
    """What a coroutine returns. It has a thread of its own: in this one a browser's loop may be running."""
    with ThreadPoolExecutor(1) as alone:
        return alone.submit(asyncio.run, work).result()


def changed(job: Job, *edits: Edit, **values: Any) -> Job:
    """The job with edits applied and dotted paths set; ``__`` stands for a dot."""
    sets = [SetValue(path=path.replace("__", "."), value=value) for path, value in values.items()]
    return apply_edits(job, [*edits, *sets])


def yield_of(job: Job) -> sun.YieldFinding:
    """The year of a job's panels."""
    return sun.yield_of(SunnyRoof.of(job))


@pytest.fixture
def demo() -> Job:
    """The bus of the demo: planned, with a blocked lid and a taped panel at the rear."""
    return load_job(json.loads((FOLDER / "lichtspiel.json").read_text(encoding="utf-8")))


@pytest.fixture
def sound(demo: Job) -> Job:
    """The demo job put right: four panels with six feet each in members, in a sheltered place, no stop."""
    cleared = apply_edits(
        demo,
        [
            SetValue(path="obstacles.o2.lid_hinge", value="rear"),
            SetValue(path="survey", value={"access": {"walkable": "yes"}}),
            SetValue(path="vehicle.top_speed", value="95 km/h"),
            SetValue(path="assumptions.basic_wind", value="18 m/s"),
            RemoveEntry(path="wiring.strings.s3"),
            RemoveEntry(path="wiring.controllers.c2"),
            SetValue(path="days.kept", value=[]),
            SetValue(path="built", value={}),
        ],
    )
    panels = [
        {**p.model_dump(), "hold": cleared.panels[0].hold.model_dump(), "measured_length": None}
        for p in cleared.panels[:4]
    ]
    return load_job({**cleared.model_dump(), "panels": panels})


@pytest.fixture
def one_panel(sound: Job) -> Job:
    """A single panel with four feet over the middle of the roof."""
    job = load_job({**sound.model_dump(), "panels": [sound.panels[2].model_dump()], "obstacles": []})
    alone = [SetValue(path="wiring.strings", value=[{"id": "s1", "controller": "c1", "panels": ["p3"]}])]
    return apply_edits(job, [*alone, SetValue(path="panels.p3.y", value=0), SpreadFeet(panel="p3", count=4)])


@pytest.fixture
def database(tmp_path: Path) -> Path:
    return tmp_path / "jobs.db"


@pytest.fixture
def client(database: Path) -> Iterator[TestClient]:
    with TestClient(
        create_app(database, demo=True), base_url="http://127.0.0.1", raise_server_exceptions=False
    ) as found:
        yield found
