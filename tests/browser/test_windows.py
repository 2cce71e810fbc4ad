"""Two windows on one job, and a server that dies: nothing is overwritten silently, nothing committed is lost."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, open_demo, saved

pytestmark = pytest.mark.browser


def rename(page: Page, name: str) -> None:
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Name", exact=True).press("Enter")


def test_the_second_window_is_told_and_may_take_over_or_reload(window: Callable[[], Page]) -> None:
    first, second = window(), window()
    open_demo(first)
    second.goto(first.url)
    expect(second.get_by_label("Name", exact=True)).to_have_value("Lichtspiel")
    rename(first, "From the first")
    saved(first)
    rename(second, "From the second")
    bar = second.get_by_role("alert")
    expect(bar).to_contain_text("The job has moved on in another window")
    first.reload()
    expect(first.get_by_label("Name", exact=True)).to_have_value("From the first")
    second.get_by_role("button", name="Take over").click()
    saved(second)
    expect(first.get_by_role("alert")).to_contain_text("Another window changed this job")
    first.get_by_role("button", name="Reload").click()
    expect(first.get_by_label("Name", exact=True)).to_have_value("From the second")
    first.get_by_role("button", name="Undo").click()
    expect(first.get_by_label("Name", exact=True)).to_have_value("From the first")


def test_a_killed_server_loses_nothing_that_was_typed(page: Page, server: Server) -> None:
    open_demo(page)
    rename(page, "Before the crash")
    saved(page)
    server.kill()
    rename(page, "Typed without a server")
    expect(page.get_by_role("alert")).to_contain_text("does not answer")
    expect(page.get_by_role("status")).to_have_text("not saved")
    server.start()
    saved(page)
    page.reload()
    expect(page.get_by_label("Name", exact=True)).to_have_value("Typed without a server")


def test_what_is_being_typed_survives_a_crash_of_the_window(page: Page) -> None:
    open_demo(page)
    box = page.get_by_label("Roof load limit")
    box.fill("250 k")  # not readable yet, so it cannot be stored
    page.reload()
    expect(page.get_by_label("Roof load limit")).to_have_value("250 k")
    page.get_by_label("Roof load limit").press("Escape")
    expect(page.get_by_label("Roof load limit")).to_have_value("250 kg")
