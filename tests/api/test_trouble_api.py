"""The server in trouble: what cannot be worked out, databases that refuse, who may ask at all, requests that
dawdle.
"""

from __future__ import annotations

import asyncio
import socket
import sqlite3
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
import uvicorn
from fastapi.testclient import TestClient

from fahrtwind.api import guard, serve, slow
from fahrtwind.api.app import LARGEST_BODY, create_app
from fahrtwind.core.errors import Unavailable
from fahrtwind.store import database as db
from tests.conftest import ended


def edit(client: TestClient, job: str, base: int, edit_id: str, *edits: dict[str, Any]) -> Any:
    body = {"base_revision": base, "client": "me", "edit_id": edit_id, "edits": list(edits)}
    return client.post(f"/api/jobs/{job}/edits", json=body)


def start(client: TestClient) -> str:
    return str(client.post("/api/jobs", json={"name": "new", "client": "me"}).json()["id"])


def test_a_change_that_cannot_be_worked_out_is_not_stored(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    job = start(client)

    def broken(*_: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr("fahrtwind.api.jobs.evaluate", broken)
    answer = edit(client, job, 1, "e", {"op": "set", "path": "name", "value": "broken"})
    assert answer.status_code == 500 and "unchanged" in answer.json()["message"]
    monkeypatch.undo()
    assert client.get(f"/api/jobs/{job}").json()["revision"] == 1
    assert (
        edit(client, job, 1, "e", {"op": "set", "path": "name", "value": "fine"}).json()["job"]["name"]
        == "fine"
    )


@pytest.mark.parametrize(
    "edits",
    [
        [
            {"op": "set", "path": "members.known_pitch", "value": "600 mm"},
            {"op": "set", "path": "members.known_pitch_within", "value": "0"},
        ],
        [
            {
                "op": "add",
                "path": "obstacles",
                "value": {
                    "kind": "fan",
                    "name": "long",
                    "x": "1 m",
                    "y": "0",
                    "length": "3.5 m",
                    "width": "400 mm",
                    "lid_hinge": "rear",
                    "lid_angle": "110°",
                },
            }
        ],
        [{"op": "add", "path": "mounting.marks", "value": {"x": "1 m", "side": "port", "offset": "4.5 m"}}],
        [
            {"op": "set", "path": "vehicle.top_speed", "value": "200 km/h"},
            {"op": "set", "path": "assumptions.gust", "value": "140 km/h"},
        ],
        [
            {"op": "set", "path": "vehicle.skin", "value": "fibreglass"},
            {"op": "set", "path": "vehicle.skin_thickness", "value": "0.31 mm"},
        ],
        *[[{"op": "place_panel", "model": "Halde 410"}] * 9],
    ],
)
def test_no_accepted_edit_locks_a_job(client: TestClient, edits: list[dict[str, Any]]) -> None:
    listed = client.get("/api/jobs").json()
    job = next(j["id"] for j in listed if j["name"] == "Lichtspiel")
    answer = edit(client, job, client.get(f"/api/jobs/{job}").json()["revision"], "x", *edits)
    assert answer.status_code in (200, 422), answer.text
    assert client.get(f"/api/jobs/{job}").status_code == 200
    assert client.get(f"/api/jobs/{job}/files/job.json").status_code == 200


def test_the_ninth_large_panel_is_an_input_error(client: TestClient) -> None:
    job, status = start(client), 200
    for i in range(24):
        answer = edit(client, job, i + 1, f"e{i}", {"op": "place_panel", "model": "Halde 410"})
        status = answer.status_code
        if status != 200:
            break
    assert status == 422 and "room" in answer.json()["message"]


def test_an_unreadable_job_can_be_undone_and_taken(client: TestClient, database: Path) -> None:
    job = start(client)
    edit(client, job, 1, "e", {"op": "set", "path": "name", "value": "second"})
    with sqlite3.connect(database) as raw:
        raw.execute("UPDATE revisions SET document = '{' WHERE job_id = ? AND number = 2", (job,))
    answer = client.get(f"/api/jobs/{job}")
    assert answer.status_code == 422 and answer.json()["code"] == "unreadable_job"
    assert answer.json()["can_undo"] and answer.json()["current_revision"] == 2
    assert client.get(f"/api/jobs/{job}/files/job.json").text == "{"
    assert client.get("/api/jobs").status_code == 200
    body = {"base_revision": 2, "client": "me", "edit_id": "u"}
    assert client.post(f"/api/jobs/{job}/travel/undo", json=body).json()["job"]["name"] == "new"


def test_a_busy_database_is_503_and_the_edit_goes_in_later(
    client: TestClient, database: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(db, "BUSY_MS", 60)
    client.app.state.store._engine.dispose()  # type: ignore[attr-defined]
    job = start(client)
    change = {"op": "set", "path": "name", "value": "late"}
    with sqlite3.connect(database, isolation_level=None) as other:
        other.execute("BEGIN IMMEDIATE")
        answer = edit(client, job, 1, "e", change)
        assert (
            answer.status_code == 503
            and answer.json()["code"] == "database_unavailable"
            and answer.json()["remedy"]
        )
        other.execute("ROLLBACK")
    assert edit(client, job, 1, "e", change).json()["job"]["name"] == "late"


@pytest.fixture
def everywhere(database: Path) -> Iterator[TestClient]:
    """A server that listens on all addresses and was told one name."""
    with TestClient(
        create_app(database, hosts=("0.0.0.0", "shop.local")), base_url="http://192.168.4.20:8765"
    ) as found:
        yield found


@pytest.mark.parametrize(
    ("host", "status"),
    [
        ("192.168.4.20:8765", 200),
        ("shop.local:8765", 200),
        ("localhost", 200),
        ("[fd00::5]:8765", 200),
        ("rebound.example", 403),
        ("192.168.4.20.rebound.example", 403),
        ("", 403),
    ],
)
def test_a_rebound_name_reads_nothing_even_on_all_addresses(
    everywhere: TestClient, host: str, status: int
) -> None:
    assert everywhere.get("/api/jobs", headers={"host": host}).status_code == status


def test_413_is_for_size_only(client: TestClient) -> None:
    large = client.post("/api/jobs/import?client=me", content=b"x" * (LARGEST_BODY + 1))
    assert large.status_code == 413 and large.json()["code"] == "too_large"
    chunks = (b"x" * 1_000_000 for _ in range(7))
    assert client.post("/api/jobs/import?client=me", content=chunks).status_code == 413
    assert (
        client.post("/api/jobs/import?client=me", content=b"x", headers={"content-length": "1"}).status_code
        == 422
    )


def test_a_body_that_never_comes_is_ended(database: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(guard, "BODY_WITHIN_S", 0.05)
    app, sent = create_app(database), []

    async def never() -> Any:
        await asyncio.Event().wait()

    async def send(message: Any) -> None:
        sent.append(message)

    headers = [(b"host", b"127.0.0.1"), (b"content-type", b"application/json"), (b"content-length", b"20")]
    scope = {
        "type": "http",
        "method": "POST",
        "path": "/api/jobs",
        "raw_path": b"/api/jobs",
        "query_string": b"",
        "headers": headers,
        "http_version": "1.1",
        "scheme": "http",
        "server": ("127.0.0.1", 80),
        "client": ("127.0.0.1", 1),
        "root_path": "",
    }
    ended(asyncio.wait_for(app(scope, never, send), 5))
    assert sent[0]["status"] == 408


def test_half_a_head_is_ended_and_a_taken_port_told(database: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(serve, "HEADERS_WITHIN_S", 0.1)
    with serve.bound("127.0.0.1", 0) as listener:
        port = listener.getsockname()[1]
        with pytest.raises(Unavailable):
            serve.bound("127.0.0.1", port)
        server = uvicorn.Server(
            uvicorn.Config(create_app(database), http=serve.PatientOnce, log_level="error")
        )
        thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]}, daemon=True)
        thread.start()
        for start_line in (b"GET /api/jobs HT", b""):
            with socket.create_connection(("127.0.0.1", port), timeout=5) as half:
                half.sendall(start_line)
                assert half.recv(100) == b"", "closed from the other side"
        server.should_exit = True
        thread.join(5)


def test_a_search_belongs_to_its_job_waits_for_its_turn_and_says_that_it_failed(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    gate, jobs = threading.Event(), [start(client) for _ in range(10)]

    def broken(job: Any, hands: Any, show: Any) -> Any:
        gate.wait(10)
        raise ZeroDivisionError

    monkeypatch.setitem(slow.WORKS, "proposals", slow.SlowWork(60, broken))
    begun = [client.post(f"/api/jobs/{job}/slow/proposals").json()["id"] for job in jobs]

    def states() -> list[str]:
        return [
            client.get(f"/api/jobs/{job}/slow/proposals/{one}").json()["state"]
            for job, one in zip(jobs, begun, strict=True)
        ]

    assert client.get(f"/api/jobs/{jobs[1]}/slow/proposals/{begun[0]}").status_code == 404
    assert (
        sorted(set(states())) in (["running", "waiting"], ["waiting"]) and states().count("waiting") >= 8
    ), "none is cancelled"
    gate.set()
    until = time.monotonic() + 10
    while set(states()) != {"failed"}:
        assert time.monotonic() < until, f"the searches did not end: {states()}"
    assert client.get(f"/api/jobs/{jobs[0]}/slow/proposals/{begun[0]}").json()["problem"]["remedy"]


def test_a_work_whose_window_was_closed_gives_way_to_one_that_waits(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def patient(job: Any, hands: Any, show: Any) -> Any:
        while not hands.cancelled() and hands.seconds_left() > 0:
            time.sleep(0.01)
        raise slow.Stopped

    monkeypatch.setattr(slow, "LOOKED_AT_S", 2.0)
    monkeypatch.setitem(slow.WORKS, "year", slow.SlowWork(20, patient))
    looked_at, closed, late = [start(client) for _ in range(3)]
    runs = {job: client.post(f"/api/jobs/{job}/slow/year").json()["id"] for job in (looked_at, closed, late)}

    def state(job: str) -> str:
        told: str = client.get(f"/api/jobs/{job}/slow/year/{runs[job]}").json()["state"]
        return told

    until = time.monotonic() + 10
    while state(late) == "waiting":
        assert state(looked_at) == "running" and time.monotonic() < until
    assert (state(looked_at), state(closed), state(late)) == ("running", "stopped", "running")
    for job in (looked_at, late):
        client.delete(f"/api/jobs/{job}/slow/year/{runs[job]}")
