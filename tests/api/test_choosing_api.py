"""Searches, the shop, the year, variants and changes over HTTP; the shop in an older database."""

from __future__ import annotations

import sqlite3
import time
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import create_engine

from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.document import Job
from fahrtwind.files.job_file import write_job
from fahrtwind.store.database import migrate, open_database
from fahrtwind.store.shop import Shop
from tests.conftest import changed


def job_named(client: TestClient, name: str) -> str:
    return str(next(j["id"] for j in client.get("/api/jobs").json() if j["name"] == name))


def until(client: TestClient, job: str, run: str, done: Any, work: str = "proposals") -> dict[str, Any]:
    for _ in range(600):
        answer: dict[str, Any] = client.get(f"/api/jobs/{job}/slow/{work}/{run}").json()
        if done(answer):
            return answer
        time.sleep(0.05)
    raise AssertionError("the search does not get there")


def edit(client: TestClient, job: str, *edits: dict[str, Any]) -> dict[str, Any]:
    revision = client.get(f"/api/jobs/{job}/revision").json()["revision"]
    body = {
        "base_revision": revision,
        "client": "t",
        "edit_id": f"{time.monotonic_ns()}",
        "edits": list(edits),
    }
    answer = client.post(f"/api/jobs/{job}/edits", json=body)
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def test_a_search_tells_as_it_goes_and_its_layouts_become_variants(client: TestClient) -> None:
    job = job_named(client, "Speiche")
    search = client.post(f"/api/jobs/{job}/slow/proposals").json()["id"]
    early = until(client, job, search, lambda a: a["result"] and a["result"]["proposals"])
    assert early["result"]["proposals"][0]["figures"]["watts"] > 0
    done = until(client, job, search, lambda a: a["state"] not in ("running", "waiting"))
    assert (
        done["state"] == "done"
        and len(done["result"]["proposals"]) >= 4
        and done["result"]["most_watts"] >= 700
    )
    best = done["result"]["proposals"][0]
    kept = edit(client, job, {"op": "keep_variant", "name": best["title"], "panels": best["panels"]})
    assert (
        [p["name"] for p in kept["job"]["panels"]] == ["Middle", "Rear"]  # what lay there lies there
        and len(kept["job"]["variants"][0]["panels"]) == best["figures"]["panels"]
    )
    chosen = edit(client, job, {"op": "choose_variant", "variant": "v1", "reason": "most of all"})
    assert (
        len(chosen["job"]["panels"]) == best["figures"]["panels"]
        and chosen["job"]["decisions"][0]["reason"] == "most of all"
    )
    lines = client.get(f"/api/jobs/{job}/variants").json()
    assert [line["chosen"] for line in lines] == [False, True, False], "what lay there before is kept too"
    assert lines[1]["differences"] == []


def test_a_search_can_be_stopped_and_says_what_it_lacks(client: TestClient) -> None:
    job = job_named(client, "Lichtspiel")
    search = client.post(f"/api/jobs/{job}/slow/proposals").json()["id"]
    until(client, job, search, lambda a: a["result"])
    assert client.delete(f"/api/jobs/{job}/slow/proposals/{search}").status_code == 204
    assert (
        until(client, job, search, lambda a: a["state"] not in ("running", "waiting"))["state"] == "stopped"
    )
    bare = job_named(client, "Imkerwagen")
    failed = until(
        client,
        bare,
        client.post(f"/api/jobs/{bare}/slow/proposals").json()["id"],
        lambda a: a["state"] == "failed",
    )
    assert failed["problem"]["field"] == "wish.offers" and failed["problem"]["remedy"]
    assert client.get(f"/api/jobs/{bare}/slow/proposals/nosuch").status_code == 404


def test_yield_snaps_and_changes_answer_for_a_job(client: TestClient) -> None:
    job = job_named(client, "Lichtspiel")
    begun = client.post(f"/api/jobs/{job}/slow/year").json()
    told = until(client, job, begun["id"], lambda a: a["state"] == "done", "year")
    year = told["result"]
    assert told["revision"] == begun["revision"] and told["work"] == "year"
    assert year["year_wh"] > 1e6 and len(year["months"]) == 12 and year["panels"][4]["lost"] > 0.05
    december = [p["months"][11]["day_wh"] for p in year["panels"]]
    assert sum(december) == pytest.approx(year["months"][11]["day_wh"]), (
        "the panels' months make up the roof's"
    )
    day = client.get(f"/api/jobs/{job}/day", params={"month": 12, "heading_deg": 180}).json()
    assert any(s["panel"] == "p5" and s["share"] > 0.1 for m in day for s in m["shadows"]), (
        "the air conditioner shades the rear"
    )
    assert client.get(f"/api/jobs/{job}/day", params={"month": 12}).json()["field"] == "heading_deg"
    assert any(
        s["words"] == "centre line"
        for s in client.get(f"/api/jobs/{job}/snaps", params={"panel": "p1"}).json()
    )
    assert client.get(f"/api/jobs/{job}/snaps", params={"panel": "p99"}).json()["field"] == "panel"
    swap = {"op": "replace_model", "panels": ["p1"], "model": "Halde 410"}
    told = client.post(f"/api/jobs/{job}/changes", json={"edits": [swap]}).json()
    assert {"power", "drill map"} <= {c["what"] for c in told}
    assert client.get(f"/api/jobs/{job}/revision").json()["revision"] == 1, "looking changes nothing"
    bare = job_named(client, "Imkerwagen")
    run = client.post(f"/api/jobs/{bare}/slow/year").json()["id"]
    refused = until(client, bare, run, lambda a: a["state"] == "failed", "year")
    assert refused["problem"]["field"] == "site.climate" and refused["result"] is None
    working = client.get(f"/api/jobs/{job}/working", params={"place": "yield/p1"}).json()
    steps = [
        "incidence_cosine",
        "faced_sky",
        "light_about_the_sun",
        "ground_light",
        "bypassed_light",
        "cell_temperature",
        "panel_power",
    ]
    assert [s["formula"] for s in working["steps"]] == steps


def test_controllers_of_the_catalogue_and_of_other_jobs_are_offered_once(client: TestClient) -> None:
    offered = client.get("/api/shop/controllers").json()
    names = [(o["controller"]["name"], o["job"]) for o in offered]
    assert ("Torwart 20", "Imkerwagen") in names and ("Torwart 20", "") not in names, "one sheet, once"
    assert ("Wehr 6", "") in names
    job = job_named(client, "Speiche")
    taken = next(o["controller"] for o in offered if o["controller"]["name"] == "Wehr 6")
    value = {key: taken[key] for key in taken if key != "id"}
    answer = edit(client, job, {"op": "add", "path": "wiring.controllers", "value": value})
    made = answer["job"]["wiring"]["controllers"][-1]
    assert made["max_voltage"]["v"] == 240 and made["charge_current"]["a"] == 65
    again = [(o["controller"]["name"], o["job"]) for o in client.get("/api/shop/controllers").json()]
    assert again.count(("Wehr 6", "Speiche")) == 1 and ("Wehr 6", "") not in again


def test_the_shop_is_shared_and_jobs_keep_their_copy(client: TestClient) -> None:
    model = {**catalogue()[0].model_dump(mode="json"), "name": "Stein 400", "price": 210.0, "stock": 3}
    assert [m["name"] for m in client.post("/api/shop/panels", json={"models": [model]}).json()] == [
        "Stein 400"
    ]
    job = job_named(client, "Lichtspiel")
    edit(
        client,
        job,
        {"op": "add", "path": "own_models", "value": model},
        {"op": "place_panel", "model": "Stein 400"},
    )
    client.post("/api/shop/panels", json={"models": [{**model, "price": 999.0}]})
    assert client.get(f"/api/jobs/{job}").json()["job"]["panels"][-1]["model"]["price"] == 210.0
    assert "Stein 400" in client.get("/api/shop/panels.csv").text
    slashed = {**model, "name": "Stein 400/40 Q?"}
    client.post("/api/shop/panels", json={"models": [slashed]})
    assert client.delete("/api/shop/panels/Stein%20400%2F40%20Q%3F").status_code == 204
    assert client.delete("/api/shop/panels/Stein 400").status_code == 204
    assert (
        client.delete("/api/shop/panels/Stein 400").status_code == 404
        and client.get("/api/shop/panels").json() == []
    )
    wrong = client.post("/api/shop/panels", json={"models": [{**model, "length": {"mm": 9000}}]})
    assert wrong.status_code == 422 and "length" in wrong.json()["field"] and wrong.json()["remedy"]


def test_a_database_from_before_the_shop_is_brought_up(tmp_path: Path) -> None:
    path = tmp_path / "old.db"
    migrate(create_engine(f"sqlite:///{path}"), "0001")
    with sqlite3.connect(path) as connection:
        assert not connection.execute("select name from sqlite_master where name = 'shop_panels'").fetchall()
    shop = Shop(open_database(path))
    shop.put([catalogue()[0]])
    assert shop.panels() == [catalogue()[0]]


@pytest.mark.parametrize(
    "edits",
    [
        [],
        [{"op": "replace_model", "panels": [], "model": "x"}],
        [{"op": "choose_variant", "variant": "v1", "reason": "x"}],
    ],
)
def test_edits_that_say_too_little_are_refused(client: TestClient, edits: list[dict[str, Any]]) -> None:
    answer = client.post(f"/api/jobs/{job_named(client, 'Lichtspiel')}/changes", json={"edits": edits})
    assert answer.status_code == 422 and answer.json()["field"] and answer.json()["remedy"]


def test_vehicles_are_planned_together_and_what_looks_at_one_refuses_others(
    client: TestClient, sound: Job
) -> None:
    made = []
    for name in ("Erster", "Zweiter"):
        own = changed(
            sound,
            name=name,
            days__crew=[{"id": "a", "name": "Ada"}, {"id": "b", "name": "Bo"}],
            days__first="2027-05-03",
            days__weather="ignored",
        )
        answer = client.post(
            "/api/jobs/import?client=t",
            content=write_job(own),
            headers={"content-type": "application/octet-stream"},
        )
        made.append(answer.json()["id"])
    begun = client.post(f"/api/jobs/{made[0]}/slow/together?others={made[1]}&others={made[0]}").json()
    assert begun["others"] == [{"job": made[1], "revision": 1}]
    again = client.post(f"/api/jobs/{made[0]}/slow/together?others={made[1]}").json()
    assert again["id"] == begun["id"] or begun["state"] == "done"
    done = until(client, made[0], begun["id"], lambda a: a["state"] not in ("running", "waiting"), "together")
    assert done["state"] == "done" and done["result"]["state"] == "found", done["problem"]
    assert [v["name"] for v in done["result"]["vehicles"]] == ["Erster", "Zweiter"]
    assert "finish" in done["result"]["proved"]

    lone = client.post(f"/api/jobs/{made[0]}/slow/together").json()
    lone = until(client, made[0], lone["id"], lambda a: a["state"] == "failed", "together")
    assert lone["problem"]["field"] == "jobs" and "Choose 2" in lone["problem"]["remedy"]
    one = client.post(f"/api/jobs/{made[0]}/slow/days?others={made[1]}").json()
    one = until(client, made[0], one["id"], lambda a: a["state"] == "failed", "days")
    assert one["problem"]["field"] == "others"
    assert client.post(f"/api/jobs/{made[0]}/slow/together?others=gone").status_code == 404
    many = "&".join(f"others=x{i}" for i in range(6))
    assert client.post(f"/api/jobs/{made[0]}/slow/together?{many}").status_code == 422
