"""Forecasts fetched from a weather office: the simulated one in its own process, and offices in trouble."""

from __future__ import annotations

import http.server
import threading
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from fahrtwind.api.app import create_app
from fahrtwind.api.serve import simulated_office


@pytest.fixture
def office() -> Iterator[str]:
    with simulated_office() as address:
        for _ in range(200):
            try:
                urllib.request.urlopen(f"{address}/forecast?latitude=52&first=2026-05-04", timeout=1).close()
                break
            except OSError:
                time.sleep(0.05)
        yield address


def asked(tmp_path: Path, office: str | None, job: str = "Imkerwagen") -> tuple[int, dict[str, object]]:
    app = create_app(tmp_path / "jobs.db", demo=True, weather_office=office)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        found = next(j["id"] for j in client.get("/api/jobs").json() if j["name"] == job)
        answer = client.post(f"/api/jobs/{found}/forecast")
        body: dict[str, object] = answer.json()
        if answer.status_code == 200:
            edit = [{"op": "set", "path": "days.forecast", "value": body["forecast"]}]
            revision = client.get(f"/api/jobs/{found}").json()["revision"]
            told = {"edits": edit, "base_revision": revision, "client": "t", "edit_id": "e1"}
            stored = client.post(f"/api/jobs/{found}/edits", json=told)
            assert stored.status_code == 200, stored.text
        return answer.status_code, body


def test_a_forecast_is_fetched_from_the_office_and_can_be_stored(tmp_path: Path, office: str) -> None:
    status, body = asked(tmp_path, office)
    assert status == 200 and body["hours"] == 16 * 24 and body["notes"] == []
    assert len(body["forecast"]["members"]) == 8  # type: ignore[index]


def test_without_a_place_or_a_day_it_says_which_is_missing(tmp_path: Path, office: str) -> None:
    status, body = asked(tmp_path, office, "Feldlabor")
    assert (status, body["field"]) == (422, "days.first")


@pytest.mark.parametrize("answer", [b"<html>", b"{}", b"{" + b" " * 3_000_000])
def test_an_office_in_trouble_is_told_and_nothing_is_lost(tmp_path: Path, answer: bytes) -> None:
    class Bad(http.server.BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self.send_response(200)
            self.end_headers()
            self.wfile.write(answer)

        def log_message(self, *_: object) -> None:
            pass

    with http.server.ThreadingHTTPServer(("127.0.0.1", 0), Bad) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        status, body = asked(tmp_path, f"http://127.0.0.1:{server.server_address[1]}")
        server.shutdown()
    assert status in (413, 422, 400) and body["remedy"]


def test_no_office_is_told(tmp_path: Path) -> None:
    assert asked(tmp_path, None)[0] == 424
    status, body = asked(tmp_path, "http://127.0.0.1:9")
    assert (status, body["code"]) == (424, "weather_office_unavailable")
