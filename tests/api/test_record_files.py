"""The record leaves with its job and comes back to the letter; what was changed on the way shows."""

from __future__ import annotations

import base64
import hashlib
import io
import json
import struct
import zlib
from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from fahrtwind.api.app import create_app
from fahrtwind.files.job_file import LARGEST_BYTES

PICTURE = b"\x89PNG\r\n\x1a\n" + bytes(300)


@pytest.fixture
def desk(database: Path) -> TestClient:
    return TestClient(create_app(database, demo=True), base_url="http://127.0.0.1")


@pytest.fixture
def job(desk: TestClient) -> str:
    """Lichtspiel with a day's record: a step, a reading, a photograph, a correction."""
    found: str = next(j["id"] for j in desk.get("/api/jobs").json() if j["name"] == "Lichtspiel")
    octets = {"content-type": "application/octet-stream"}
    digest = desk.post(f"/api/jobs/{found}/attachments?name=rib.png", content=PICTURE, headers=octets).json()[
        "digest"
    ]
    for i, entry in enumerate(
        (
            {"kind": "step", "step": "Dry-fit", "ago_s": 60},
            {"kind": "measured", "what": "torque", "value": "8 N·m", "place": "Front port f2", "by": "w 1"},
            {"kind": "photograph", "digest": digest, "text": "rib"},
            {"kind": "correction", "corrects": 2, "text": "it was f3"},
        )
    ):
        told = {"client": "Ada", "entry_id": f"e{i}", "entry": entry}
        assert desk.post(f"/api/jobs/{found}/log", json=told).status_code == 201
    return found


def brought_in(desk: TestClient, record: Any) -> Any:
    data = json.dumps(record).encode()
    headers = {"content-type": "application/octet-stream"}
    return desk.post("/api/jobs/import?client=t", content=data, headers=headers)


def test_the_record_comes_back_to_the_letter(desk: TestClient, job: str) -> None:
    record = desk.get(f"/api/jobs/{job}/record.json").json()
    made = brought_in(desk, record).json()
    assert made["job"] == desk.get(f"/api/jobs/{job}").json()["job"]
    before, after = (desk.get(f"/api/jobs/{one}/log").json() for one in (job, made["id"]))
    assert after["entries"] == before["entries"] and after["broken_at"] is None
    assert after["steps_done"] == ["Dry-fit"]
    digest = hashlib.sha256(PICTURE).hexdigest()
    assert desk.get(f"/api/jobs/{made['id']}/attachments/{digest}").content == PICTURE
    again = desk.get(f"/api/jobs/{made['id']}/record.json").json()
    assert again == record
    more = {"client": "Bo", "entry_id": "m", "entry": {"kind": "remark", "text": "sold"}}
    assert desk.post(f"/api/jobs/{made['id']}/log", json=more).json()["broken_at"] is None


def test_a_record_that_was_changed_on_the_way_shows_where(desk: TestClient, job: str) -> None:
    record = desk.get(f"/api/jobs/{job}/record.json").json()
    record["log"][1]["document"] = record["log"][1]["document"].replace("8 N·m", "9 N·m")
    made = brought_in(desk, record).json()["id"]
    assert desk.get(f"/api/jobs/{made}/log").json()["broken_at"] == 2
    del record["log"][0]
    made = brought_in(desk, record).json()["id"]
    assert desk.get(f"/api/jobs/{made}/log").json()["broken_at"] == 1


@pytest.mark.parametrize(
    "spoil",
    [
        lambda r: r["files"][0].update(content=base64.b64encode(PICTURE + b"x").decode()),
        lambda r: r["files"][0].update(content="not base64!"),
        lambda r: r["log"].append(r["log"][0]),
        lambda r: r["log"][0].update(document='{"kind": "step"}'),
        lambda r: r["log"][0].update(number=-1),
        lambda r: r["log"][0].update(at="0001-01-01T00:00:00+14:00"),
        lambda r: r["log"][0].update(at="2026-05-01T08:00:00"),
        lambda r: r.update(fahrtwind_record=2),
        lambda r: r.update(more=1),
        lambda r: r["job"].update(panels="none"),
    ],
)
def test_a_damaged_record_is_refused_whole(desk: TestClient, job: str, spoil: Callable[[Any], None]) -> None:
    record = desk.get(f"/api/jobs/{job}/record.json").json()
    spoil(record)
    before = desk.get("/api/jobs").json()
    refused = brought_in(desk, record)
    assert refused.status_code == 422 and refused.json()["remedy"], refused.text
    assert desk.get("/api/jobs").json() == before


def test_pictures_that_find_no_room_are_named(desk: TestClient, job: str) -> None:
    headers = {"content-type": "application/octet-stream"}
    for i in range(3):
        large = b"\xff\xd8\xff" + bytes([i]) * 1_300_000
        desk.post(f"/api/jobs/{job}/attachments?name=large{i}.jpg", content=large, headers=headers)
    answer = desk.get(f"/api/jobs/{job}/record.json")
    assert len(answer.content) <= LARGEST_BYTES
    files = answer.json()["files"]
    assert len(files) == 4 and {f["content"] is None for f in files} == {True, False}
    assert brought_in(desk, answer.json()).status_code == 201


def test_the_sheet_tells_every_entry_and_the_chain(desk: TestClient, job: str) -> None:
    sheet = desk.get(f"/api/jobs/{job}/record.pdf")
    text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(sheet.content)).pages)
    for words in ("4 entries; the chain over them is whole", "Dry-fit", "torque 8 N·m, by w 1", "Ada", "f4"):
        assert words in text, words
    assert "8 mm aft" in text


def grey_png(width: int, height: int) -> bytes:
    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    rows = zlib.compress(b"".join(b"\0" + b"\x90" * width for _ in range(height)))
    head = struct.pack(">IIBBBBB", width, height, 8, 0, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")


def test_photographs_are_printed_and_a_damaged_one_leaves_its_frame_empty(desk: TestClient, job: str) -> None:
    octets = {"content-type": "application/octet-stream"}
    whole = desk.post(
        f"/api/jobs/{job}/attachments?name=foot.png", content=grey_png(120, 90), headers=octets
    ).json()["digest"]
    entry = {"kind": "photograph", "digest": whole, "text": "foot before sealing", "place": "Front port f1"}
    desk.post(f"/api/jobs/{job}/log", json={"client": "Ada", "entry_id": "p2", "entry": entry})
    pages = PdfReader(io.BytesIO(desk.get(f"/api/jobs/{job}/record.pdf").content)).pages
    sizes = [picture.image.size for page in pages for picture in page.images if picture.image]
    assert sizes == [(120, 90)], "the whole one; the damaged one is only its frame"
    text = " ".join(page.extract_text() for page in pages)
    for words in ("Photographs", "Front port f1, foot before sealing", f"rib, {hashed(PICTURE)}"):
        assert words in text, words


def hashed(content: bytes) -> str:
    return hashlib.sha256(content).hexdigest()[:8]


def test_what_the_record_says_was_done_is_offered_to_the_plan(desk: TestClient, job: str) -> None:
    """Lichtspiel's dry-fit was done a minute ago in the fixture; a mark ticked an hour before began it."""
    tick = {"kind": "tick", "step": "Dry-fit", "item": "1", "ago_s": 3660}
    desk.post(f"/api/jobs/{job}/log", json={"client": "Ada", "entry_id": "t", "entry": tick})
    (told,) = desk.get(f"/api/jobs/{job}/log/done").json()
    assert told["title"] == "Dry-fit" and told["step"] == "dry fit"
    begun, ended = (datetime.fromisoformat(told[name]) for name in ("started", "ended"))
    assert 59 <= (ended - begun).total_seconds() / 60 <= 61
