"""Bad input of the survey and the structure: named field, remedy, HTTP 4xx, and the stored job as it was."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

SECTION = {"x": "1 m", "readings": [{"id": "g1", "y": "0", "gap": "10 mm"}]}
ROW = {"name": "port", "kind": "pin", "start": "600 mm", "y": "-690 mm", "pitch": "880 mm"}
BAD_SETS: tuple[tuple[str, Any, str], ...] = (
    ("survey.outline.front_radius", "-5 cm", "survey.outline.front_radius"),
    ("survey.outline.front_radius", "90 m", "survey.outline.front_radius"),
    ("survey.outline.rear_port.along", "7 kg", "survey.outline.rear_port.along"),
    ("survey.outline.points", [{"x": "0"}], "survey.outline.points.0.y"),
    ("survey.outline.points", [{"x": 0, "y": i} for i in range(201)], "survey.outline.points"),
    ("survey.crown.gauge_zero", "120°", "survey.crown.gauge_zero"),
    ("survey.crown.lean", "3 mm", "survey.crown.lean"),
    ("survey.crown.lengthwise", [{"id": "l1", "x": "1 m", "gap": "-1 mm"}], "survey.crown.lengthwise.l1.gap"),
    ("survey.access.walkable", "perhaps", "survey.access.walkable"),
    ("survey.access.reach", "nan", "survey.access.reach"),
    ("survey.access.standing_limit", "0 kg", "survey.access.standing_limit"),
    ("survey.squareness.diagonal_port", "", "survey.squareness.diagonal_port"),
    ("survey.scars", [{"id": "h1", "kind": "ghost", "x": 0, "y": 0}], "survey.scars.h1.kind"),
    ("survey.scars", [{"id": "h1", "kind": "hole", "x": 0, "y": 0, "count": 0}], "survey.scars.h1.count"),
    (
        "survey.keep_outs",
        [{"id": "k1", "kind": "wire", "name": "", "from_x": 0, "from_y": 0, "to_x": 1, "to_y": 0}],
        "survey.keep_outs.k1.name",
    ),
    ("members.known_pitch", "5 parsec", "members.known_pitch"),
    ("mounting.marks", [{"id": "l1", "x": 0, "side": "left", "offset": 600}], "mounting.marks.l1.side"),
    ("mounting.base_width", "0", "mounting.base_width"),
    ("trust", [{"id": "t1", "kind": "magnet", "false_share": 1.5}], "trust.t1.false_share"),
    ("scans", [{"id": "s1", "start": 0, "end": "9e9 km", "kind": "magnet"}], "scans.s1.end"),
    ("obstacles.o1.lid_angle", "270°", "obstacles.o1.lid_angle"),
    ("obstacles.o1.shape", "star", "obstacles.o1.shape"),
)
BAD_ADDS: tuple[tuple[str, dict[str, Any]], ...] = (
    ("survey.point_rows", {**ROW, "count": 0}),
    ("survey.point_rows", {**ROW, "pitch": "3 mm"}),
    ("survey.crown.sections", {**SECTION, "edge": "bent"}),
    ("survey.sections", {"kind": "raised", "name": "x", "x": 0, "y": 0, "length": "-1 m", "width": "1 m"}),
    ("survey.nonsense", {"x": 1}),
)


@pytest.fixture
def bus(client: TestClient) -> dict[str, Any]:
    found = next(j for j in client.get("/api/jobs").json() if j["name"] == "Lichtspiel")
    return client.get(f"/api/jobs/{found['id']}").json()  # type: ignore[no-any-return]


def post(client: TestClient, job: dict[str, Any], edits: list[dict[str, Any]]) -> Any:
    body = {"base_revision": job["revision"], "client": "test", "edit_id": "e1", "edits": edits}
    return client.post(f"/api/jobs/{job['id']}/edits", json=body)


@pytest.mark.parametrize(
    ("path", "value", "field"), BAD_SETS, ids=[f"{p} {str(v)[:24]}" for p, v, _ in BAD_SETS]
)
def test_a_bad_value_is_named_and_changes_nothing(
    client: TestClient, bus: dict[str, Any], path: str, value: Any, field: str
) -> None:
    answer = post(client, bus, [{"op": "set", "path": path, "value": value}])
    assert answer.status_code == 422
    body = answer.json()
    assert body["field"].startswith(field) and body["remedy"] and body["message"]
    assert client.get(f"/api/jobs/{bus['id']}").json()["job"] == bus["job"]


@pytest.mark.parametrize(("path", "value"), BAD_ADDS)
def test_a_bad_entry_is_refused_whole(
    client: TestClient, bus: dict[str, Any], path: str, value: dict[str, Any]
) -> None:
    good = {"op": "set", "path": "name", "value": "half done"}
    answer = post(client, bus, [good, {"op": "add", "path": path, "value": value}])
    assert answer.status_code == 422 and answer.json()["remedy"]
    assert client.get(f"/api/jobs/{bus['id']}").json()["job"]["name"] == "Lichtspiel"


def test_new_entries_get_ids_and_can_be_addressed_by_them(client: TestClient, bus: dict[str, Any]) -> None:
    answer = post(client, bus, [{"op": "add", "path": "survey.crown.sections", "value": {"x": "4 m"}}])
    made = answer.json()["job"]["survey"]["crown"]["sections"][-1]
    assert made["id"] == "c3"
    after = {**answer.json()}
    body = {
        "base_revision": after["revision"],
        "client": "test",
        "edit_id": "e2",
        "edits": [
            {"op": "add", "path": "survey.crown.sections.c3.readings", "value": {"y": "0", "gap": "0"}},
            {"op": "set", "path": "survey.crown.sections.c3.edge", "value": "level"},
        ],
    }
    again = client.post(f"/api/jobs/{bus['id']}/edits", json=body).json()["job"]["survey"]["crown"][
        "sections"
    ][-1]
    assert again["edge"] == "level" and len(again["readings"]) == 1


def test_a_template_fills_blanks_and_one_undo_takes_it_back(client: TestClient) -> None:
    made = client.post("/api/jobs", json={"name": "Leer", "client": "test"}).json()
    filled = post(client, made, [{"op": "apply_template", "template": "boat"}]).json()
    assert (
        filled["job"]["vehicle"]["kind"] == "boat"
        and filled["evaluation"]["findings"]["survey"]["flat_area_m2"] > 1
    )
    back = client.post(
        f"/api/jobs/{made['id']}/travel/undo",
        json={"base_revision": filled["revision"], "client": "test", "edit_id": "u"},
    )
    assert back.json()["job"] == made["job"]
