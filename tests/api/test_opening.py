"""Starting: what is answered before the application is there, and answers that are kept."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from sqlalchemy import text
from sqlalchemy.exc import OperationalError

from fahrtwind.api import jobs
from fahrtwind.api.app import close, create_app
from fahrtwind.api.keeping import Keeping
from fahrtwind.api.later import Later
from fahrtwind.api.opening import Opening
from fahrtwind.core.errors import Unavailable
from fahrtwind.store.answers import Answers, this_program
from fahrtwind.store.database import open_database

HERE = "http://127.0.0.1"


@pytest.fixture
def static(tmp_path: Path) -> Path:
    (tmp_path / "built" / "assets").mkdir(parents=True)
    (tmp_path / "built" / "index.html").write_text("<title>Fahrtwind</title>", encoding="utf-8")
    (tmp_path / "built" / "assets" / "a.js").write_text("1", encoding="utf-8")
    return tmp_path / "built"


@pytest.fixture
def used(tmp_path: Path, static: Path) -> tuple[Path, str, bytes]:
    """A database of the demo's jobs of which one was opened: where it is, which job, and its answer."""
    database = tmp_path / "used.db"
    desk = TestClient(create_app(database, demo=True, static=static), base_url=HERE)
    job_id = next(line["id"] for line in desk.get("/api/jobs").json() if line["name"] == "Speiche")
    return database, job_id, desk.get(f"/api/jobs/{job_id}").content


@pytest.fixture
def begun(used: tuple[Path, str, bytes], static: Path) -> Iterator[tuple[TestClient, threading.Event]]:
    """A server whose application is not there before the event is set."""
    go_on = threading.Event()

    def create() -> FastAPI:
        go_on.wait(60)
        return create_app(used[0], static=static)

    app = Opening(Later(create), open_database(used[0]), ("shop.local",), static, close)
    yield TestClient(app, base_url=HERE), go_on
    go_on.set()


def test_list_page_and_kept_answers_do_not_wait(
    begun: tuple[TestClient, threading.Event], used: tuple[Path, str, bytes]
) -> None:
    desk, go_on = begun
    early = {path: desk.get(path) for path in ("/api/jobs", f"/api/jobs/{used[1]}", "/", "/assets/a.js")}
    assert {answer.status_code for answer in early.values()} == {200}
    assert early[f"/api/jobs/{used[1]}"].content == used[2]
    assert early["/"].text == desk.get(f"/jobs/{used[1]}/hold").text == "<title>Fahrtwind</title>"
    for path, answer in early.items():
        assert "default-src 'self'" in answer.headers["content-security-policy"], path
    go_on.set()
    assert desk.get(f"/api/jobs/{used[1]}/revision").json()["revision"] == 1
    for path, answer in early.items():
        later = desk.get(path)
        assert (
            later.content == answer.content
            and later.headers["cache-control"] == answer.headers["cache-control"]
        )


@pytest.mark.parametrize(
    "path", ["/api/jobs/{job}/revision", "/api/jobs/nobody", "/api/jobs?all=1", "/api/due"]
)
def test_whatever_else_is_asked_waits(
    begun: tuple[TestClient, threading.Event], used: tuple[Path, str, bytes], path: str
) -> None:
    desk, go_on = begun
    told: list[int] = []
    asked = threading.Thread(target=lambda: told.append(desk.get(path.format(job=used[1])).status_code))
    asked.start()
    asked.join(0.3)
    assert asked.is_alive()
    go_on.set()
    asked.join(60)
    assert told == [404 if "nobody" in path else 200]


def test_strangers_are_refused_and_guests_wait_at_the_door(
    begun: tuple[TestClient, threading.Event], used: tuple[Path, str, bytes]
) -> None:
    desk, go_on = begun
    for path in ("/api/jobs", f"/api/jobs/{used[1]}", "/"):
        assert desk.get(path, headers={"origin": "http://elsewhere.test"}).status_code == 403
        assert desk.get(path, headers={"host": "elsewhere.test"}).status_code == 403
    assert desk.get("/api/jobs", headers={"host": "shop.local"}).status_code == 200
    go_on.set()
    phone = TestClient(desk.app, base_url="http://127.0.0.1", client=("192.168.4.31", 5000))
    assert phone.get(f"/api/jobs/{used[1]}").json()["code"] == "not_paired"


def test_a_guest_is_told_nothing_early(
    begun: tuple[TestClient, threading.Event], used: tuple[Path, str, bytes]
) -> None:
    desk, go_on = begun
    phone = TestClient(desk.app, base_url=HERE, client=("192.168.4.31", 5000))
    told: list[int] = []
    asked = threading.Thread(target=lambda: told.append(phone.get(f"/api/jobs/{used[1]}").status_code))
    asked.start()
    asked.join(0.3)
    assert asked.is_alive()
    go_on.set()
    asked.join(60)
    assert told == [401]


def test_where_it_cannot_be_put_together_now_whoever_asks_next_tries_again(
    used: tuple[Path, str, bytes], static: Path
) -> None:
    troubles = [Unavailable("The database is busy.", remedy="Try again.", field="database")]

    def create() -> FastAPI:
        if troubles:
            raise troubles.pop()
        return create_app(used[0], static=static)

    desk = TestClient(Opening(Later(create), open_database(used[0]), (), static, close), base_url=HERE)
    told = desk.get("/api/due")
    assert told.status_code == 503
    assert told.json()["message"] == "The database is busy." and told.json()["remedy"] == "Try again."
    assert desk.get("/api/due").status_code == 200


def test_an_answer_is_kept_of_the_job_as_it_stands_and_of_this_program_only(
    used: tuple[Path, str, bytes], monkeypatch: pytest.MonkeyPatch
) -> None:
    database, job_id, told = used
    engine = open_database(database)
    assert Answers(engine).of(job_id) == told
    assert Answers(engine, maker="another").of(job_id) is None and len(this_program()) == 64
    desk = TestClient(create_app(database), base_url=HERE)
    with monkeypatch.context() as nobody_works:
        nobody_works.setattr(jobs, "evaluate", None)
        quiet = TestClient(desk.app, base_url=HERE, raise_server_exceptions=False)
        assert quiet.get(f"/api/jobs/{job_id}").content == told, "told before anything is worked out"
    edit = {"op": "set", "path": "vehicle.top_speed", "value": "90 km/h"}
    change = {"base_revision": 1, "client": "desk", "edit_id": "e1", "edits": [edit]}
    assert desk.post(f"/api/jobs/{job_id}/edits", json=change).status_code == 200
    assert Answers(engine).of(job_id) is None
    after = desk.get(f"/api/jobs/{job_id}")
    assert after.json()["revision"] == 2 and Answers(engine).of(job_id) == after.content
    desk.delete(f"/api/jobs/{job_id}")
    assert Answers(engine).of(job_id) is None and desk.get(f"/api/jobs/{job_id}").status_code == 404
    engine.dispose()


def test_a_job_opens_though_its_kept_answer_is_damaged_and_none_can_be_kept(
    used: tuple[Path, str, bytes], monkeypatch: pytest.MonkeyPatch
) -> None:
    database, job_id, told = used
    engine = open_database(database)
    with engine.execution_options(writes=True).begin() as connection:
        connection.execute(text("UPDATE answers SET body = x'00'"))
    assert Answers(engine).of(job_id) is None

    def full(*_: object) -> None:
        raise OperationalError("INSERT", {}, Exception("database or disk is full"))

    desk = TestClient(create_app(database), base_url=HERE)
    with monkeypatch.context() as no_room:
        no_room.setattr(Answers, "keep", full)
        assert desk.get(f"/api/jobs/{job_id}").content == told
        desk.app.state.keeping.keep(job_id)  # type: ignore[attr-defined]
    assert desk.get(f"/api/jobs/{job_id}").content == told == Answers(engine).of(job_id)
    engine.dispose()


def test_the_answer_of_a_job_is_kept_once_it_rests(used: tuple[Path, str, bytes]) -> None:
    engine, asked = open_database(used[0]), []

    def answer_of(job_id: str) -> tuple[int, bytes]:
        asked.append(job_id)
        return 1, b"again %d" % len(asked)

    resting = Keeping(Answers(engine), answer_of, quiet_s=0.2)
    for _ in range(5):
        resting.changed(used[1])
    _until(lambda: Answers(engine).of(used[1]) == b"again 1")
    over = Keeping(Answers(engine), answer_of, quiet_s=0.2)
    over.changed(used[1])
    over.close()
    late = Keeping(Answers(engine), answer_of, quiet_s=0.4)
    late.changed(used[1])
    _until(lambda: Answers(engine).of(used[1]) == b"again 2")
    late.keep("nobody")
    assert asked == [*[used[1]] * 2, "nobody"], "of what ended nothing came"
    assert Answers(engine).of("nobody") is None
    engine.dispose()


def _until(there: Callable[[], bool]) -> None:
    for _ in range(600):
        if there():
            return
        time.sleep(0.05)
    raise AssertionError("it never came")
