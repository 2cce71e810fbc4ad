"""Roof day on a phone: stops before all else, one step at a time, ticks that are never lost."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Server, open_demo

pytestmark = pytest.mark.browser


@pytest.fixture
def phone(browser: Browser, server: Server) -> Iterator[Page]:
    context = browser.new_context(
        base_url=server.url, viewport={"width": 390, "height": 844}, has_touch=True, reduced_motion="reduce"
    )
    page = context.new_page()
    yield page
    context.close()


def roof_day(page: Page) -> None:
    open_demo(page, "roof-day")
    page.get_by_role("button", name=re.compile("Climb")).click()
    expect(page.get_by_text(re.compile(r"Step 1 of \d+"))).to_be_visible()


def test_stops_stand_before_the_first_step_and_say_why(phone: Page) -> None:
    roof_day(phone)
    stops = phone.get_by_role("alert")
    expect(stops).to_contain_text("do not drill")
    stops.get_by_role("button").click()
    expect(stops).to_contain_text("Lid cannot open")
    assert phone.evaluate("document.documentElement.scrollWidth") == 390


def test_a_tick_goes_on_to_the_next_step_and_outlives_reload_and_outage(phone: Page, server: Server) -> None:
    roof_day(phone)
    title = phone.get_by_role("heading", level=2).inner_text()
    phone.get_by_role("button", name="Done", exact=True).click()
    expect(phone.get_by_text(re.compile("Step 2 of"))).to_be_visible()
    expect(phone.get_by_text("1 done")).to_be_visible()
    expect(phone.get_by_text("not stored yet")).not_to_be_visible()
    phone.context.set_offline(True)
    phone.get_by_role("button", name="Done", exact=True).click()
    expect(phone.get_by_text("1 not stored yet")).to_be_visible()
    phone.context.set_offline(False)
    expect(phone.get_by_text("not stored yet")).not_to_be_visible()
    phone.reload()
    expect(phone.get_by_text(re.compile("Step 3 of"))).to_be_visible()
    phone.get_by_role("button", name=re.compile(f"Step 1, {title}, done")).click()
    phone.get_by_role("button", name="Done ✓, undo").click()
    expect(phone.get_by_text("1 done")).to_be_visible()


def test_the_foot_in_hand_is_led_from_foot_to_foot_and_a_refused_one_says_so(phone: Page) -> None:
    roof_day(phone)
    phone.get_by_role("button", name=re.compile("Mark the feet from the datum")).click()
    expect(phone.get_by_text("foot 1 of 30")).to_be_visible()
    expect(phone.get_by_role("cell", name="312 mm").first).to_be_visible()
    phone.get_by_role("button", name="Next foot").click()
    expect(phone.get_by_text("foot 2 of 30")).to_be_visible()
    phone.get_by_role("button", name=re.compile("Stick and press the pads")).click()
    expect(phone.get_by_text("Refused by a stop: leave this foot alone.")).to_be_visible()
    phone.get_by_role("button", name="Roof", exact=True).click()
    expect(phone.get_by_role("group", name=re.compile("Roof seen from above"))).to_be_visible()


def test_every_button_is_large_enough_for_a_glove(phone: Page) -> None:
    roof_day(phone)
    for button in phone.get_by_role("button").all():
        box = button.bounding_box()
        assert box is not None and min(box["width"], box["height"]) >= 14 and box["height"] >= 28, button
    for name in ("Back", "Done", "Next"):
        box = phone.get_by_role("button", name=name, exact=True).bounding_box()
        assert box is not None and box["height"] >= 56
