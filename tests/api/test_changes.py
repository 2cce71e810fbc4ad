"""News against what a window holds: put into it they give the very answer that is told whole."""

from __future__ import annotations

import json
import random
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pydantic_core import to_json

from fahrtwind.api.changes import changed
from fahrtwind.core.edits import SetValue, apply_edits
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from tests.truth.documents import random_document


def put_in(whole: Any, news: list[dict[str, Any]]) -> Any:
    """What a window does with news, plainly."""
    for new in news:
        if not new["at"]:
            whole = new["value"]
            continue
        holder = whole
        for step in new["at"][:-1]:
            holder = holder[step]
        last = new["at"][-1]
        if "value" in new:
            holder[last] = new["value"]
        else:
            holder[last][new["start"] : new["start"] + new["drop"]] = new["items"]
    return whole


def test_news_of_any_two_documents_make_the_one_into_the_other() -> None:
    dice = random.Random(3)
    jobs = [random_document(seed) for seed in range(40)]
    for one in jobs:
        other = dice.choice(jobs)
        for before, after in ((one, other), (evaluate(one), evaluate(other))):
            news = json.loads(to_json(list(changed(before, after))))
            assert put_in(json.loads(to_json(before)), news) == json.loads(to_json(after))


def test_what_stays_is_not_sent(demo: Job) -> None:
    assert not list(changed(evaluate(demo), evaluate(demo)))
    moved = apply_edits(demo, [SetValue(path="panels.p2.x", value={"mm": demo.panels[1].x.mm + 7})])
    news = list(changed(evaluate(demo), evaluate(moved)))
    verdicts = {new.at[2] for new in news if new.at[:2] == ("findings", "verdicts") and len(new.at) > 2}
    assert verdicts == {1} and len(to_json(news)) < 0.12 * len(to_json(evaluate(demo)))


@pytest.fixture
def opened(client: TestClient) -> dict[str, Any]:
    job = next(j for j in client.get("/api/jobs").json() if j["name"] == "Lichtspiel")
    answer: dict[str, Any] = client.get(f"/api/jobs/{job['id']}").json()
    return answer


@pytest.mark.parametrize("probe", [None, 20.0])
def test_a_window_that_takes_in_the_news_shows_what_is_told_whole(
    client: TestClient, opened: dict[str, Any], probe: float | None
) -> None:
    url, held = f"/api/jobs/{opened['id']}", {"revision": 1, "probe_m_s": None}
    edit = {"edits": [{"op": "mirror_panel", "panel": "p1"}], "probe_m_s": probe, "held": held}
    what_if = client.post(f"{url}/what-if", json=edit).json()
    window = put_in(json.loads(json.dumps(opened)), what_if["changes"])
    plain = client.post(f"{url}/what-if", json={k: v for k, v in edit.items() if k != "held"}).json()
    assert window["evaluation"] == plain

    stamp = {"base_revision": 1, "client": "test", "edit_id": "n1"}
    told = client.post(f"{url}/edits", json=edit | stamp).json()
    assert set(told) == {
        "id",
        "revision",
        "summary",
        "changed_by",
        "changed_at",
        "can_undo",
        "can_redo",
        "changes",
    }
    window = put_in(json.loads(json.dumps(opened)), told["changes"])
    query = {} if probe is None else {"probe_m_s": probe}
    whole = client.get(url, params=query).json()
    assert (window["job"], window["evaluation"]) == (whole["job"], whole["evaluation"])


def test_news_against_what_nobody_knows_any_more_are_told_whole(
    client: TestClient, opened: dict[str, Any]
) -> None:
    body = {
        "edits": [{"op": "set", "path": "name", "value": "N"}],
        "base_revision": 1,
        "client": "t",
        "edit_id": "x",
    }
    told = client.post(f"/api/jobs/{opened['id']}/edits", json=body | {"held": {"revision": 77}}).json()
    assert told["job"]["name"] == "N" and told["evaluation"]["snags"]


def test_a_drag_asks_for_the_stations_in_sight_alone(client: TestClient, opened: dict[str, Any]) -> None:
    url = f"/api/jobs/{opened['id']}/what-if"
    body = {"edits": [{"op": "set", "path": "panels.p2.x", "value": {"mm": 3000}}], "held": {"revision": 1}}
    told = client.post(url, json=body | {"stations": ["layout", "hold"]}).json()["changes"]
    whole = client.post(url, json=body).json()["changes"]
    part, all_of_it = (put_in(json.loads(json.dumps(opened)), news)["evaluation"] for news in (told, whole))
    for name in ("feet", "verdicts", "plan", "overlaps"):
        assert part["findings"][name] == all_of_it["findings"][name]
    assert part["findings"]["harnesses"] == opened["evaluation"]["findings"]["harnesses"]
    assert all_of_it["findings"]["harnesses"] != part["findings"]["harnesses"]
    assert len(json.dumps(told)) < 0.8 * len(json.dumps(whole))
    for wrong in ([], ["kitchen"]):
        refused = client.post(url, json=body | {"stations": wrong})
        assert refused.status_code == 422 and "stations" in refused.text
