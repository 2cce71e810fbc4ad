"""Days in the real interface: a plan on its road, why not, holding, keeping, what helps, bad forecasts."""

from __future__ import annotations

import json
import re
from typing import Any

from playwright.sync_api import Page, expect

from fahrtwind.demo import FOLDER
from tests.browser.conftest import go, open_demo, saved


def part(page: Page, name: str) -> None:
    page.get_by_role("tab", name=name).focus()
    page.keyboard.press("Enter")


def test_a_plan_is_found_held_kept_and_written_by_keyboard(page: Page) -> None:
    open_demo(page, "days", "imkerwagen")
    expect(page.get_by_text("Proved: none ends earlier")).to_be_visible()
    road = page.get_by_role("group", name="Road of days")
    stick = road.get_by_role("button", name=re.compile("^Stick and press")).first
    stick.focus()
    page.keyboard.press("Enter")
    card = page.get_by_role("heading", name="Stick and press the pads", level=2)
    expect(card).to_be_visible()
    expect(page.get_by_text("72 h of dwell", exact=False).first).to_be_visible()
    expect(page.get_by_text(re.compile("feet held, no panel yet"))).to_be_visible()
    page.get_by_label("Why not on").fill("2026-09-22")
    expect(page.get_by_text("Not on Tue 22 Sept", exact=False)).to_be_visible()
    expect(page.get_by_text("ends at the earliest", exact=False)).to_be_visible()
    lift = road.get_by_role("button", name=re.compile("^Lift the panels")).first
    lift.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(road.get_by_role("button", name=re.compile("^Lift the panels.*pinned")).first).to_be_visible()
    expect(page.get_by_text("Drive from Fri 2 Oct", exact=False)).to_be_visible()
    keep = page.get_by_role("button", name="Keep this plan")
    expect(keep).to_be_enabled()
    keep.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("this plan is kept")).to_be_visible()
    saved(page)
    page.keyboard.press("Control+z")
    expect(keep).to_be_visible()


def test_what_helps_and_how_sure(page: Page) -> None:
    open_demo(page, "days", "imkerwagen")
    part(page, "What helps")
    row = page.get_by_role("row", name=re.compile("a heated shelter"))
    expect(row).to_be_visible()
    part(page, "How sure")
    expect(page.get_by_text("of 6", exact=False).first).to_be_visible()
    expect(page.get_by_text("what breaks it")).to_be_visible()


def test_from_nothing_told_to_a_plan_with_what_is_typed(page: Page) -> None:
    """The van has its days taken away; each question leads to its part."""
    open_demo(page, "days", "speiche")
    part(page, "People and days")
    for name in ("Jo", "Mika"):
        page.get_by_role("button", name=f"Remove {name}").click()
    questions = page.get_by_role("list", name="Still to answer")
    expect(questions.get_by_role("button", name="Who works, and when?")).to_be_visible()
    part(page, "Plan")
    questions.get_by_role("button", name="Who works, and when?").click()
    for _ in range(2):
        page.get_by_role("button", name="Add a person").click()
    page.get_by_role("button", name="Sa", exact=True).first.click()
    part(page, "Weather")
    page.get_by_label("It is").select_option("ignored")
    saved(page)
    expect(
        page.get_by_role("region", name="Snags").get_by_text("Planned without any weather")
    ).to_be_visible()
    part(page, "Plan")
    expect(page.get_by_text("Drive from")).to_be_visible()
    expect(page.get_by_text("Weather does not count.", exact=False)).to_be_visible()


def test_a_forecast_is_fetched_and_loaded_and_bad_ones_are_said(page: Page) -> None:
    open_demo(page, "days", "imkerwagen")
    part(page, "Weather")
    page.get_by_role("button", name="Fetch a newer one").click()
    expect(page.get_by_text("8 courses", exact=False)).to_be_visible()
    saved(page)
    page.get_by_role("button", name=re.compile("^Working of the roof's skin on Thu 24 Sept")).click()
    expect(page.get_by_role("dialog").get_by_text("temperature of a roof's skin")).to_be_visible()
    page.keyboard.press("Escape")
    bad = {"name": "f.csv", "mimeType": "text/csv", "buffer": b"time,air_c\n2026-05-04T08:00,1\n"}
    page.locator("input[type=file]").first.set_input_files(bad)  # type: ignore[arg-type]
    expect(page.get_by_role("alert")).to_contain_text("The column humidity_percent is missing")
    expect(page.get_by_text("8 courses", exact=False)).to_be_visible()


def test_no_plan_says_why(page: Page) -> None:
    open_demo(page, "days", "wasserlaeufer")
    expect(page.get_by_text("Drive from", exact=False)).to_be_visible()
    part(page, "People and days")
    page.get_by_role("button", name="Remove Ida").click()
    part(page, "Plan")
    expect(page.get_by_text("Not within these days")).to_be_visible()
    expect(page.get_by_text("4 hands wanted, 3 at work", exact=False)).to_be_visible()
    go(page, "roof-day")


def test_vehicles_that_share_people_are_planned_and_kept_together(page: Page) -> None:
    """Two copies of one job by keyboard: ticked, planned, kept for both; each then says where people are."""
    job = demo_without_plan("Kiosk")
    for name in ("Kiosk", "Zirkus"):
        page.goto("/")
        content = json.dumps({**job, "name": name}).encode()
        page.get_by_label("Load a job file").set_input_files(
            {"name": f"{name}.json", "mimeType": "application/json", "buffer": content}
        )
        page.get_by_role("navigation", name="Stations").wait_for()
    go(page, "days")
    page.get_by_role("tab", name="Other vehicles").press("Enter")
    ticks = page.get_by_role("checkbox")
    expect(ticks.first).to_be_visible()
    for tick in ticks.all():
        if tick.is_checked():
            tick.press("Space")
    page.get_by_role("checkbox", name=re.compile("^Kiosk")).press("Space")
    expect(page.get_by_role("region", name="Kiosk")).to_contain_text("May")
    expect(page.get_by_text("Proved: in sum they cannot drive earlier.")).to_be_visible()
    page.get_by_role("button", name="Keep for all").press("Enter")
    expect(page.get_by_text("kept for all")).to_be_visible()
    page.get_by_role("tab", name="People and days").click()
    expect(page.get_by_role("button", name="Ada is not at Kiosk after all")).to_be_visible()
    page.get_by_role("tab", name="Plan", exact=True).click()
    expect(page.get_by_text("this plan is kept")).to_be_visible()
    page.goto("/")
    page.get_by_role("link", name="Kiosk").first.click()
    go(page, "days")
    page.get_by_role("tab", name="People and days").click()
    page.get_by_role("button", name="Jo is not at Zirkus after all").press("Enter")
    expect(page.get_by_text("Zirkus has Jo:")).to_be_visible()
    page.get_by_role("button", name="Jo is at Zirkus then").press("Enter")
    expect(page.get_by_text("Zirkus has Jo:")).to_be_hidden()


def demo_without_plan(name: str) -> dict[str, Any]:
    """The bus as a vehicle of its own: nothing of it is done or kept."""
    job: dict[str, Any] = json.loads((FOLDER / "lichtspiel.json").read_text(encoding="utf-8"))
    return {**job, "name": name, "days": {**job["days"], "kept": [], "done": []}}
