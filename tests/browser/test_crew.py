"""The crew's phones: let in by a code, without the network, two at once, with instruments and clocks."""

from __future__ import annotations

import json
import re
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Server

pytestmark = pytest.mark.browser
NO_SECURE_CONTEXT = "delete Crypto.prototype.randomUUID; delete window.caches;"
"""A phone in the workshop's network gets the page without encryption: the browser then lacks these."""


@pytest.fixture
def own(tmp_path: Path) -> Iterator[Server]:
    """A server of its own: these tests kill it."""
    running = Server(tmp_path)
    yield running
    running.kill()


def ask(server: Server, path: str, body: Any = None) -> Any:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(server.url + path, data, {"content-type": "application/json"})
    with urllib.request.urlopen(request, timeout=20) as answer:
        return json.load(answer)


@pytest.fixture
def job(own: Server) -> str:
    return next(j["id"] for j in ask(own, "/api/jobs") if j["name"] == "Lichtspiel")


@pytest.fixture
def let_in(browser: Browser, own: Server, job: str) -> Iterator[Callable[[str], Page]]:
    contexts = []

    def come(name: str) -> Page:
        door = ask(own, f"/api/jobs/{job}/phones/door", {"host": "127.0.0.1"})
        context = browser.new_context(
            viewport={"width": 390, "height": 844}, has_touch=True, reduced_motion="reduce"
        )
        context.add_init_script(NO_SECURE_CONTEXT)
        contexts.append(context)
        page = context.new_page()
        page.goto(f"{door['address']}/pair?code={door['code']}")
        page.get_by_label("Your name").fill(name)
        page.get_by_role("button", name="Come in").click()
        page.get_by_role("button", name=re.compile("Climb")).click()
        return page

    yield come
    for context in contexts:
        context.close()


def step(page: Page, title: str) -> None:
    page.get_by_role("button", name=re.compile(rf"^Step \d+, {title}")).click()


def log_of(server: Server, job: str) -> list[Any]:
    entries: list[Any] = ask(server, f"/api/jobs/{job}/log")["entries"]
    return entries


def test_everything_done_without_the_network_goes_in_once_and_in_order(
    let_in: Callable[[str], Page], own: Server, job: str
) -> None:
    phone = let_in("Ada")
    address = phone.url.split("?")[0]
    step(phone, "Mark the feet")
    phone.get_by_label("Mark 1 is done").check()
    expect(phone.get_by_text("not stored yet")).not_to_be_visible()
    own.kill()
    phone.get_by_label("Mark 2 is done").click()  # the last of its foot: the next one comes into hand
    expect(phone.get_by_text("foot 2 of 30")).to_be_visible()
    phone.get_by_role("button", name="Done", exact=True).click()
    expect(phone.get_by_text("2 not stored yet")).to_be_visible()
    context = phone.context
    phone.close()  # killed, and opened again while nobody answers

    phone = context.new_page()
    phone.goto(address)
    expect(phone.get_by_text("2 not stored yet")).to_be_visible()
    step(phone, "Mark the feet")
    expect(phone.get_by_text("foot 2 of 30")).to_be_visible()
    expect(phone.get_by_text("2 of 54 ticked")).to_be_visible()
    step(phone, "Seal round")
    phone.get_by_role("button", name=re.compile("Start: tool the bead")).click()
    expect(phone.get_by_text(re.compile(r"\d+ min left"))).to_be_visible()
    own.start()
    # the phones' door opens only when somebody opens it, and then at the same address
    assert ask(own, f"/api/jobs/{job}/phones/door", {"host": "127.0.0.1"})["address"] in address
    expect(phone.get_by_text("not stored yet")).not_to_be_visible()
    entries = log_of(own, job)
    assert [e["entry"]["kind"] for e in entries] == ["tick", "tick", "step", "timer"]
    assert {e["client"] for e in entries} == {"Ada"} and entries[1]["entry"]["ago_s"] > 0


def test_the_box_and_the_round_go_on_without_the_network(
    let_in: Callable[[str], Page], own: Server, job: str
) -> None:
    phone = let_in("Ada")
    phone.get_by_role("button", name="The box").click()
    line = phone.get_by_label(re.compile("chalk line"))
    listed = phone.get_by_role("region", name="The box").get_by_role("checkbox").count()
    phone.context.set_offline(True)
    line.check()
    expect(line).to_be_checked()
    expect(phone.get_by_text(f"{listed - 1} of {listed} not in the box yet.")).to_be_visible()
    phone.context.set_offline(False)
    for _ in range(100):
        if ask(own, f"/api/jobs/{job}")["job"]["workshop"]["packed"]:
            break
        phone.wait_for_timeout(200)
    assert len(ask(own, f"/api/jobs/{job}")["job"]["workshop"]["packed"]) == 1
    expect(line).to_be_checked()


def test_two_phones_and_the_desk_never_lay_one_over_another(
    let_in: Callable[[str], Page], own: Server, job: str, browser: Browser
) -> None:
    ada, bo = let_in("Ada"), let_in("Bo")
    for phone, foot in ((ada, 1), (bo, 2)):
        step(phone, "Drill the rest")
        for _ in range(foot):
            phone.get_by_role("button", name="Next foot").click()
        phone.get_by_role("button", name=re.compile("It is not as planned|What was found here")).click()
    for phone in (ada, bo):
        phone.context.set_offline(True)
        phone.get_by_role("button", name="Pilot met nothing").click()
    revision = ask(own, f"/api/jobs/{job}/revision")["revision"]
    edit = {
        "base_revision": revision,
        "client": "desk",
        "edit_id": "e1",
        "edits": [{"op": "set", "path": "vehicle.altitude", "value": "300 m"}],
    }
    ask(own, f"/api/jobs/{job}/edits", edit)
    for phone in (bo, ada):
        phone.context.set_offline(False)
    for phone in (ada, bo):
        expect(phone.get_by_role("button", name="Pilot met nothing")).to_have_attribute(
            "aria-pressed", "true"
        )
        expect(phone.get_by_text("Kept here until")).not_to_be_visible()
        expect(phone.get_by_text("not stored yet")).not_to_be_visible()
    now = ask(own, f"/api/jobs/{job}")
    assert now["job"]["vehicle"]["altitude"]["mm"] == 300_000
    through = [f for f in now["job"]["built"]["feet"] if f["pilot"] == "through"]
    assert len({f["foot"] for f in through}) == 2
    assert "pilot-through" in {s["id"] for s in now["evaluation"]["snags"]}
    expect(ada.get_by_role("alert").first).to_contain_text("stops: do not drill")


def test_a_hole_that_is_off_is_worked_at_once_and_a_way_out_taken_by_thumb(
    let_in: Callable[[str], Page], own: Server, job: str
) -> None:
    phone = let_in("Ada")
    step(phone, "Drill the rest")
    for _ in range(4):
        phone.get_by_role("button", name="Next foot").click()
    phone.get_by_role("button", name="It is not as planned").click()
    box = phone.get_by_label(re.compile("tape aft"))
    planned = float((box.get_attribute("placeholder") or "").split()[0])
    box.fill(f"{planned + 12:.0f}")
    box.press("Tab")
    phone.get_by_role("button", name="It is there").press("Enter")
    trouble = phone.get_by_role("region", name="Not as planned")
    expect(trouble).to_contain_text("12 mm aft")
    way = trouble.get_by_role("button", name=re.compile("Drill the bracket anew"))
    way.last.click()
    expect(trouble).not_to_contain_text("12 mm aft")
    records = ask(own, f"/api/jobs/{job}")["job"]["built"]["feet"]
    assert [f["solved"] for f in records if f["id"] not in ("u1", "u2")] == ["bracket"]
    measured = [e["entry"] for e in log_of(own, job) if e["entry"]["kind"] == "measured"]
    assert measured and measured[0]["what"] == "position"


def test_an_instrument_fills_the_box_in_hand_and_typing_stays(
    let_in: Callable[[str], Page], own: Server, job: str
) -> None:
    phone = let_in("Ada")
    step(phone, "Square up, then tighten")
    box = phone.get_by_label("Torque")
    box.focus()
    expect(box).to_have_value(re.compile(r"^\d.* N·m$"))
    box.press("Enter")
    expect(phone.get_by_text("by simulated wrench")).to_be_visible()
    box.fill("7")
    phone.wait_for_timeout(5000)
    expect(box).to_have_value("7")
    (entry,) = [e["entry"] for e in log_of(own, job) if e["entry"]["kind"] == "measured"]
    assert entry["by"] == "simulated wrench" and entry["what"] == "torque"
    for typed, word in (("3 N·m", "loose: tighten on"), ("30", "too tight: new bolt")):
        box.fill(typed)
        box.press("Enter")
        expect(phone.get_by_text(word)).to_be_visible()


def test_clocks_run_by_the_server_whatever_the_day_is_on_the_phone(
    let_in: Callable[[str], Page], own: Server, job: str
) -> None:
    entry = {"kind": "timer", "step": "Seal round every foot", "name": "tool the bead", "minutes": 30}
    ask(own, f"/api/jobs/{job}/log", {"client": "desk", "entry_id": "t1", "entry": entry})
    phone = let_in("Ada")
    phone.clock.install(time="2020-01-01T00:00:00Z")
    phone.reload()
    step(phone, "Seal round")
    expect(phone.get_by_text(re.compile("(29|30) min left"))).to_be_visible()


def test_a_phone_that_was_sent_away_keeps_what_it_did(
    let_in: Callable[[str], Page], own: Server, job: str, browser: Browser
) -> None:
    phone = let_in("Ada")
    desk = browser.new_context(base_url=own.url, viewport={"width": 1280, "height": 800}).new_page()
    desk.goto(f"/jobs/{job}/roof-day")
    desk.get_by_role("button", name="Send Ada's phone away").press("Enter")
    expect(desk.get_by_role("button", name="Send Ada's phone away")).not_to_be_visible()
    step(phone, "Dry-fit")
    phone.get_by_role("button", name="Done", exact=True).click()
    expect(phone.get_by_text("1 not stored yet")).to_be_visible()
    expect(phone.get_by_text("has not been let in")).to_be_visible()
    assert log_of(own, job) == []
    phone.reload()
    expect(phone.get_by_text("Let this phone in")).to_be_visible()
    desk.context.close()
