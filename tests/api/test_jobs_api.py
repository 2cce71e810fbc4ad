"""The API as a browser uses it, and as nobody should."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from fahrtwind.core.job.document import Job
from fahrtwind.files.job_file import write_job


@pytest.fixture
def job_id(client: TestClient) -> str:
    return str(next(j["id"] for j in client.get("/api/jobs").json() if j["name"] == "Lichtspiel"))


def edit(client: TestClient, job_id: str, revision: int, *edits: dict[str, Any], edit_id: str = "") -> Any:
    body = {
        "base_revision": revision,
        "client": "test",
        "edit_id": edit_id or f"e{revision}",
        "edits": list(edits),
    }
    return client.post(f"/api/jobs/{job_id}/edits", json=body)


def test_the_path_from_an_empty_job_to_a_verdict(client: TestClient) -> None:
    made = client.post(
        "/api/jobs", json={"name": "New one", "kind": "van", "units": "imperial", "client": "test"}
    )
    assert made.status_code == 201 and made.json()["evaluation"]["findings"]["plan"] is None
    job_id = made.json()["id"]
    sets = {
        "roof_length": "12'",
        "roof_width": "60",
        "skin": "steel",
        "skin_thickness": "20 ga",
        "top_speed": "70",
        "altitude": "600 ft",
    }
    members = {"kind": "steel_hat", "wall": "1.5 mm", "face_width": "1 1/2", "depth": "1 1/2"}
    edits = [{"op": "set", "path": f"vehicle.{k}", "value": v} for k, v in sets.items()]
    edits += [{"op": "set", "path": f"members.{k}", "value": v} for k, v in members.items()]
    edits += [
        {"op": "add", "path": "readings", "value": {"x": f"{12 + 24 * i}", "kind": "seen"}} for i in range(6)
    ]
    edits += [{"op": "place_panel", "model": "Kiesel 185"}]
    answer = edit(client, job_id, 1, *edits)
    assert answer.status_code == 200, answer.text
    findings = answer.json()["evaluation"]["findings"]
    assert findings["members"]["pitch_mm"] == pytest.approx(24 * 25.4, rel=1e-3)
    assert (
        findings["plan"]["let_go_m_s"] > 0
        and answer.json()["job"]["vehicle"]["roof_width"]["text"] == "60 in"
    )


def test_what_if_answers_and_stores_nothing(client: TestClient, job_id: str) -> None:
    before = client.get(f"/api/jobs/{job_id}").json()
    asked = {"edits": [{"op": "set", "path": "panels.p1.y", "value": {"mm": -1500}}], "probe_m_s": 40}
    answer = client.post(f"/api/jobs/{job_id}/what-if", json=asked)
    assert (
        "over-edge" in {s["id"] for s in answer.json()["snags"]}
        and answer.json()["findings"]["plan"]["probe_m_s"] == 40
    )
    assert client.get(f"/api/jobs/{job_id}").json() == before


def test_conflict_tells_who_and_where(client: TestClient, job_id: str) -> None:
    rename = {"op": "set", "path": "name", "value": "One"}
    assert edit(client, job_id, 1, rename).status_code == 200
    late = edit(client, job_id, 1, rename, edit_id="late")
    assert late.status_code == 409
    assert (
        late.json()["code"] == "conflict" and late.json()["current_revision"] == 2 and late.json()["remedy"]
    )
    assert client.get(f"/api/jobs/{job_id}/revision").json() == {"revision": 2, "changed_by": "test"}
    undone = client.post(
        f"/api/jobs/{job_id}/travel/undo", json={"base_revision": 2, "client": "test", "edit_id": "u"}
    )
    assert undone.json()["job"]["name"] == "Lichtspiel" and undone.json()["can_redo"]


@pytest.mark.parametrize(
    ("path", "value", "code"),
    [
        ("vehicle.roof_length", "400 m", "out_of_range"),
        ("vehicle.roof_length", "-1 m", "out_of_range"),
        ("vehicle.top_speed", "5 kg", "wrong_unit"),
        ("vehicle.top_speed", "soon", "unreadable_quantity"),
        ("vehicle.roof_width", "", "unreadable_quantity"),
        ("no.such", 1, "unknown_path"),
        ("vehicle.roof_length", {"mm": "NaN"}, "unreadable_quantity"),
        ("vehicle.roof_length", 0, "out_of_range"),
    ],
)
def test_bad_values_are_422_with_field_and_remedy(
    client: TestClient, job_id: str, path: str, value: Any, code: str
) -> None:
    answer = edit(client, job_id, 1, {"op": "set", "path": path, "value": value})
    body = answer.json()
    assert answer.status_code == 422 and body["code"] == code and body["remedy"]
    assert body["field"].startswith(path.split(".")[0])
    assert client.get(f"/api/jobs/{job_id}").json()["revision"] == 1


def test_files_out_and_in(client: TestClient, job_id: str, demo: Job) -> None:
    for name, start in {
        "work-sheet.pdf": b"%PDF",
        "drill-map.dxf": b"  0",
        "drill-map.svg": b"<svg",
        "materials.csv": b"item",
        "pieces.csv": b"piece,name",
        "pieces.dxf": b"  0",
        "pieces.svg": b"<svg",
        "cut-list.csv": b"material,bar",
        "pieces.pdf": b"%PDF",
        "templates.pdf": b"%PDF",
        "panel-templates.dxf": b"  0",
        "panel-templates.svg": b"<svg",
        "labels.pdf": b"%PDF",
        "purchase.csv": b"supplier,item",
        "quote.pdf": b"%PDF",
        "job.json": b"{",
    }.items():
        answer = client.get(f"/api/jobs/{job_id}/files/{name}")
        assert answer.status_code == 200 and answer.content.startswith(start)
        assert f'filename="Lichtspiel-{name}"' in answer.headers["content-disposition"]
    assert client.get(f"/api/jobs/{job_id}/files/..%2F..%2Fetc%2Fpasswd").status_code == 404
    header = {"content-type": "application/octet-stream"}
    again = client.post("/api/jobs/import?client=t", content=write_job(demo).encode(), headers=header)
    assert again.status_code == 201 and Job.model_validate(again.json()["job"]) == demo
    for data, status in ((b"{", 422), (b" " * 5_100_000, 413), (b"[" * 90_000, 422)):
        assert client.post("/api/jobs/import?client=t", content=data, headers=header).status_code == status
    assert len(client.get("/api/jobs").json()) == 6


def test_a_name_with_a_path_in_it_stays_a_name(client: TestClient) -> None:
    assert client.post("/api/jobs", json={"name": "two\r\nlines", "client": "t"}).status_code == 422
    made = client.post("/api/jobs", json={"name": '../../etc/"x"Y', "client": "t"}).json()
    disposition = client.get(f"/api/jobs/{made['id']}/files/job.json").headers["content-disposition"]
    assert "/" not in disposition and disposition.count('"') == 2


def test_only_this_machine_and_its_own_pages_are_answered(client: TestClient, job_id: str) -> None:
    assert client.get("/api/jobs", headers={"host": "elsewhere.example"}).status_code == 403
    assert client.get("/api/jobs", headers={"origin": "http://elsewhere.example"}).status_code == 403
    assert client.get("/api/jobs", headers={"origin": "null"}).status_code == 403
    assert client.get("/api/jobs", headers={"origin": "http://127.0.0.1"}).status_code == 200
    assert "default-src 'self'" in client.get("/api/jobs").headers["content-security-policy"]


def test_every_error_has_the_one_shape(client: TestClient, job_id: str) -> None:
    answers = [
        client.get("/api/jobs/none"),
        client.get(f"/api/jobs/{job_id}/working", params={"place": "nowhere"}),
        client.post("/api/jobs", content=b"{"),
        client.post("/api/jobs", json={"name": "", "client": "t"}),
        client.post("/api/calc/none", json={}),
        client.delete("/api/jobs/none"),
    ]
    for answer in answers:
        assert 400 <= answer.status_code < 500
        assert {"code", "field", "message", "remedy"} <= set(answer.json()), answer.text


def test_the_demo_has_one_vehicle_of_each_kind_and_every_one_can_be_printed(client: TestClient) -> None:
    jobs = {j["name"]: j for j in client.get("/api/jobs").json()}
    assert {j["vehicle"] for j in jobs.values()} == {"van", "bus", "rv", "trailer", "boat"}
    for name, job in jobs.items():
        sheet = client.get(f"/api/jobs/{job['id']}/files/work-sheet.pdf")
        assert sheet.status_code == 200 and sheet.content.startswith(b"%PDF"), name
    boat = client.get(f"/api/jobs/{jobs['Wasserläufer']['id']}/files/job.json")
    assert "filename*=UTF-8''Wasserl%C3%A4ufer-job.json" in boat.headers["content-disposition"]
    assert boat.json()["name"] == "Wasserläufer"


def test_inches_all_the_way_through_the_structure(client: TestClient) -> None:
    made = client.post(
        "/api/jobs", json={"name": "Inches", "kind": "trailer", "units": "imperial", "client": "test"}
    ).json()
    edits: list[dict[str, Any]] = [
        {"op": "apply_template", "template": "trailer"},
        {"op": "set", "path": "members.known_pitch", "value": "16"},
    ]
    edits += [
        {"op": "add", "path": "readings", "value": {"x": f"{8 + 16 * i} 1/4", "kind": "stud_finder"}}
        for i in (0, 1, 2, 4, 5, 7, 8)
    ]
    edits += [{"op": "add", "path": "scans", "value": {"start": "5'", "end": "7' 6", "kind": "knock"}}]
    edits += [
        {
            "op": "add",
            "path": "mounting.marks",
            "value": {"x": f"{8 + 16 * i}", "side": "port", "offset": f"{24 + i / 8}"},
        }
        for i in range(4)
    ]
    answer = edit(client, made["id"], 1, *edits)
    assert answer.status_code == 200, answer.text
    found, job = answer.json()["evaluation"]["findings"], answer.json()["job"]
    assert found["members"]["pitch_mm"] == pytest.approx(16 * 25.4, abs=2)
    assert job["scans"][0]["end"] == {"text": "7' 6", "mm": pytest.approx(90 * 25.4)}
    assert found["next_check"]["words"].count('"') in (0, 2), "lengths are said in inches"
    assert found["lines"]["sides"][0]["offset_mm"] == pytest.approx((24 + 3 / 16) * 25.4, abs=2)


def test_people_of_two_vehicles_are_told_where_both_want_them(client: TestClient, demo: Job) -> None:
    """Two copies of the demo job share their crew, and each keeps the same plan."""
    made = [
        client.post(
            "/api/jobs/import?client=t",
            content=write_job(demo.model_copy(update={"name": name})),
            headers={"content-type": "application/octet-stream"},
        ).json()["id"]
        for name in ("one", "two")
    ]
    told = client.get(f"/api/jobs/{made[0]}/elsewhere").json()
    assert {t["job"] for t in told} == {"two", demo.name}, "the demo itself has the same crew"
    assert {t["name"] for t in told} == {p.name for p in demo.days.crew}
    first = min(span["starts"] for span in told[0]["taken"])
    assert first[:10] == min(step.starts for step in demo.days.kept).date().isoformat()
    assert not told[0]["sure"], "the demo's plan does not say who does what"
    client.delete(f"/api/jobs/{made[1]}")
    left = client.get(f"/api/jobs/{made[0]}/elsewhere").json()
    assert {t["job"] for t in left} == {demo.name}


def test_a_reading_that_the_job_does_not_ask_for_makes_no_revision(client: TestClient) -> None:
    job = next(j["id"] for j in client.get("/api/jobs").json() if j["name"] == "Lichtspiel")
    reading = {"op": "note_reading", "step": "meter", "what": "volts", "value": "38 V"}
    body = {"base_revision": 1, "client": "t", "edit_id": "e1", "edits": [reading]}
    told = client.post(f"/api/jobs/{job}/edits", json=body).json()
    assert told["revision"] == 1 and not told["can_undo"]
    warm = {**reading, "step": "seal", "what": "skin temperature", "value": "18 °C"}
    body = {**body, "edit_id": "e2", "edits": [reading, warm]}
    assert client.post(f"/api/jobs/{job}/edits", json=body).json()["revision"] == 2
