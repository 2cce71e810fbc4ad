"""The list of all jobs: what it costs, and what it tells of jobs that cannot be read."""

from __future__ import annotations

import threading
import time
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import text

from fahrtwind.api import glances
from fahrtwind.api.app import create_app
from fahrtwind.api.slow import GIVEN_UP_S, SlowWorks
from fahrtwind.core.engine.beside import Hands, Stopped
from fahrtwind.core.job.document import Job
from fahrtwind.core.slow import WORKS, SlowWork
from tests.conftest import ended


def test_what_nobody_waits_for_is_not_worked_out(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    app = create_app(tmp_path / "list.db", demo=True)
    job = app.state.store.summaries()[0].id
    evaluated: list[Job] = []
    honest = glances.evaluate
    monkeypatch.setattr(glances, "evaluate", lambda job: evaluated.append(job) or honest(job))
    asking = app.state.glances

    async def ask(gone: bool) -> Any:
        async def is_disconnected() -> bool:
            return gone

        request: Any = SimpleNamespace(is_disconnected=is_disconnected)
        return await asking.of(job, app.state.store, app.state.records, request)

    asking._turn.acquire()
    assert ended(ask(gone=True)) is None and not evaluated, "left before its turn"
    asking._turn.release()
    first = ended(ask(gone=False))
    assert first.roof is not None and ended(ask(gone=False)) is first and len(evaluated) == 1


def test_the_list_reads_a_revision_once_and_leaves_out_what_cannot_be_read(tmp_path: Path) -> None:
    app = create_app(tmp_path / "list.db", demo=True)
    client = TestClient(app, base_url="http://127.0.0.1")
    jobs = client.get("/api/jobs").json()
    due = client.get("/api/due").json()
    assert due and {d["id"] for d in due} < {j["id"] for j in jobs}
    store = app.state.store
    renamed = store.get(jobs[0]["id"])
    body = {"base_revision": renamed.revision, "client": "t", "edit_id": "e1"}
    edits = [{"op": "set", "path": "name", "value": "Another name"}]
    assert client.post(f"/api/jobs/{renamed.id}/edits", json=body | {"edits": edits}).status_code == 200
    assert client.get("/api/jobs").json()[0]["name"] == "Another name"
    with store._engine.begin() as connection:
        connection.execute(
            text("update revisions set document = '{' where job_id = :job"), {"job": due[0]["id"]}
        )
    fresh = TestClient(create_app(tmp_path / "list.db"), base_url="http://127.0.0.1")
    assert len(fresh.get("/api/jobs").json()) == len(jobs), "its line stays"
    assert due[0]["id"] not in {d["id"] for d in fresh.get("/api/due").json()}


def test_work_whose_window_was_closed_stops_by_itself(demo: Job, monkeypatch: pytest.MonkeyPatch) -> None:
    begun = threading.Event()

    def endless(job: Job, hands: Hands, show: Any) -> None:
        while True:
            begun.set()
            if hands.cancelled():
                raise Stopped
            time.sleep(0.01)

    monkeypatch.setitem(WORKS, "year", SlowWork(600.0, endless))
    works = SlowWorks()
    running = works.start("j", "year", 1, [demo])
    assert begun.wait(20) and not running.ended.is_set()
    running.asked -= GIVEN_UP_S + 1
    assert running.ended.wait(20) and running.state == "stopped"
    works.close()


def test_a_glance_is_of_the_newest_revision_and_of_what_the_log_says(client: TestClient) -> None:
    job = next(j["id"] for j in client.get("/api/jobs").json() if j["name"] == "Speiche")

    def seen() -> dict[str, Any]:
        found: dict[str, Any] = client.get(f"/api/jobs/{job}/glance").json()
        return found

    before = seen()
    step = {"kind": "step", "step": before["next_step"]["words"]}
    told = client.post(f"/api/jobs/{job}/log", json={"client": "t", "entry_id": "s1", "entry": step})
    assert told.status_code == 201 and seen()["next_step"]["words"] != step["step"]
    body = {"base_revision": 1, "client": "t", "edit_id": "e1"}
    edits = [{"op": "set", "path": "vehicle.top_speed", "value": "125 km/h"}]
    assert client.post(f"/api/jobs/{job}/edits", json=body | {"edits": edits}).status_code == 200
    assert seen()["word"] == "refused" != before["word"] and seen()["stops"]
