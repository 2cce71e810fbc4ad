"""Another machine sees nothing before it was let in, and then its one job; the door is shut until opened."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from datetime import timedelta
from pathlib import Path

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from fahrtwind.api.app import create_app
from fahrtwind.api.phone_door import TRIES, PhoneDoor
from fahrtwind.core.errors import InputError
from fahrtwind.core.job.document import Job
from fahrtwind.store.database import open_database
from fahrtwind.store.jobs import JobStore, utc_now
from fahrtwind.store.phones import KEEPS, Phones


@pytest.fixture
def app(database: Path) -> Iterator[FastAPI]:
    app = create_app(database, demo=True, hosts=("0.0.0.0",), phones_port=0)
    yield app
    for job in app.state.store.summaries():
        app.state.phone_door.close(job.id)


@pytest.fixture
def desk(app: FastAPI) -> TestClient:
    return TestClient(app, client=("127.0.0.1", 50_000), base_url="http://127.0.0.1:8765")


@pytest.fixture
def elsewhere(app: FastAPI) -> Callable[[], TestClient]:
    """A machine of the local network: 192.0.2.0/24 is kept for examples (RFC 5737)."""
    return lambda: TestClient(app, client=("192.0.2.50", 50_000), base_url="http://192.0.2.7:8765")


def opened(desk: TestClient, job: str) -> dict[str, str]:
    told: dict[str, str] = desk.post(f"/api/jobs/{job}/phones/door", json={"host": "127.0.0.1"}).json()
    return told


def let_in(phone: TestClient, code: str, name: str = "Ada") -> int:
    return phone.post("/pair", data={"code": code, "name": name}, follow_redirects=False).status_code


def test_a_stranger_gets_the_pairing_page_and_nothing_else(
    desk: TestClient, elsewhere: Callable[[], TestClient]
) -> None:
    job = desk.get("/api/jobs").json()[0]["id"]
    stranger = elsewhere()
    for path in ("/", f"/jobs/{job}/roof-day", "/assets/index.js", "/api", "/favicon.ico"):
        page = stranger.get(path)
        assert "Let this phone in" in page.text and "Lichtspiel" not in page.text
        assert "<script" not in page.text
    for method in ("get", "post", "delete", "put", "options"):
        for path in (
            "/api/jobs",
            f"/api/jobs/{job}",
            f"/api/jobs/{job}/log",
            "/api/openapi.json",
            "/api/calc/x",
        ):
            assert stranger.request(method, path).status_code == 401
    stranger.cookies.set("fahrtwind_phone", "guessed")
    assert stranger.get("/api/jobs").status_code == 401


def test_a_phone_that_was_let_in_sees_its_own_job_and_writes_under_its_name(
    desk: TestClient, elsewhere: Callable[[], TestClient]
) -> None:
    own, other = (job["id"] for job in desk.get("/api/jobs").json()[:2])
    phone = elsewhere()
    assert let_in(phone, opened(desk, own)["code"]) == 303
    assert [job["id"] for job in phone.get("/api/jobs").json()] == [own]
    assert phone.get("/", follow_redirects=False).headers["location"] == f"/jobs/{own}/roof-day"
    entry = {"client": "x", "entry_id": "e1", "entry": {"kind": "step", "step": "Dry-fit"}}
    assert phone.post(f"/api/jobs/{own}/log", json=entry).json()["entries"][0]["client"] == "Ada"
    for path in (
        f"/api/jobs/{other}",
        f"/api/jobs/{other}/log",
        f"/api/jobs/{own}/phones",
        f"/api/jobs/{own}/elsewhere",
        f"/api/jobs/{own}/neighbours",
        "/api/shop/panels",
    ):
        assert phone.get(path).status_code == 403, path
    assert phone.delete(f"/api/jobs/{own}").status_code == 403
    assert phone.post(f"/api/jobs/{own}/slow/together?others={other}").status_code == 403
    assert phone.post("/api/jobs", json={}).status_code == 403
    assert {job["id"] for job in desk.get("/api/jobs").json()} >= {own, other}

    (inside,) = desk.get(f"/api/jobs/{own}/phones").json()["phones"]
    assert inside["name"] == "Ada"
    assert desk.delete(f"/api/jobs/{other}/phones/{inside['id']}").status_code == 404
    assert desk.delete(f"/api/jobs/{own}/phones/{inside['id']}").status_code == 204
    assert phone.get(f"/api/jobs/{own}").status_code == 401


def test_a_wrong_code_is_told_and_five_of_them_void_the_right_one(
    desk: TestClient, elsewhere: Callable[[], TestClient]
) -> None:
    job = desk.get("/api/jobs").json()[0]["id"]
    code, stranger = opened(desk, job)["code"], elsewhere()
    wrong = f"{(int(code) + 1) % 10**6:06d}"
    refused = stranger.post("/pair", data={"code": wrong, "name": '<b onload="x">'})
    assert (
        refused.status_code == 422
        and "Ask for a new code" in refused.text
        and "<b onload" not in refused.text
    )
    assert let_in(stranger, code, " ") == 422 and let_in(stranger, "x" * 9000) == 422
    for _ in range(TRIES - 1):
        let_in(stranger, wrong)
    assert let_in(stranger, code) == 422
    assert desk.get(f"/api/jobs/{job}/phones").json()["code"] is None
    assert let_in(stranger, opened(desk, job)["code"]) == 303
    assert (
        stranger.post("/pair", data={"code": "x" * 9000, "name": "A"}, follow_redirects=False).status_code
        == 303
    )


def test_a_code_is_good_for_ten_minutes() -> None:
    now = [0.0]
    door = PhoneDoor(0, clock=lambda: now[0])

    async def nobody(*_: object) -> None: ...

    door.open("job", nobody, "127.0.0.1")
    digits, left = door.code("job") or ("", 0)
    assert re.fullmatch(r"\d{6}", digits) and left == 600 and door.job_for(digits) == "job"
    now[0] = 600.0
    assert door.code("job") is None
    with pytest.raises(InputError):
        door.job_for(digits)
    door.close("job")
    assert door.address is None


def test_the_door_listens_only_while_it_is_open(desk: TestClient) -> None:
    import urllib.error
    import urllib.request

    job = desk.get("/api/jobs").json()[0]["id"]
    told = opened(desk, job)
    assert told["qr"].startswith("data:image/svg+xml")
    with pytest.raises(urllib.error.HTTPError) as refused:  # from this machine, and yet a guest
        urllib.request.urlopen(f"{told['address']}/api/jobs", timeout=5)
    assert refused.value.code == 401
    assert desk.delete(f"/api/jobs/{job}/phones/door").status_code == 204
    with pytest.raises(OSError):
        urllib.request.urlopen(f"{told['address']}/", timeout=5)


def test_paired_phones_outlive_a_restart_and_are_strangers_after_a_month(database: Path) -> None:
    engine = open_database(database)
    job = JobStore(engine).create(Job(name="one"), "test").id
    phone, key = Phones(engine).pair(job, "Ada")
    again = Phones(engine, now=lambda: utc_now() + KEEPS - timedelta(hours=1))
    assert again.known(key) == phone and again.of(job) == (phone,) and again.known(key[:-1]) is None
    later = Phones(engine, now=lambda: utc_now() + KEEPS)
    assert later.known(key) is None and later.of(job) == ()
    assert key not in database.read_bytes().decode("latin-1")
    engine.dispose()
