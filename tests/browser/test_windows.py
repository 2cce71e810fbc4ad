"""Two windows on one job, and a server that dies: nothing is overwritten silently, nothing committed is
lost.
"""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, go, open_demo, saved

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
    expect(page.get_by_text("1 typed, not stored")).to_be_visible()
    go(page, "layout")
    expect(page.get_by_text("1 typed, not stored")).to_be_visible()
    go(page, "survey")
    page.get_by_label("Roof load limit").press("Escape")
    expect(page.get_by_text("typed, not stored")).to_have_count(0)
    expect(page.get_by_label("Roof load limit")).to_have_value("250 kg")


def test_what_was_done_without_a_line_meets_another_s_change_and_is_kept_until_decided(
    window: Callable[[], Page],
) -> None:
    away, near = window(), window()
    open_demo(away)
    near.goto(away.url)
    expect(near.get_by_label("Name", exact=True)).to_have_value("Lichtspiel")
    away.context.set_offline(True)
    rename(away, "Typed on the roof")
    expect(away.get_by_role("status")).to_have_text("not saved")
    rename(near, "Typed in the shop")
    saved(near)
    away.context.set_offline(False)
    expect(away.get_by_role("alert")).to_contain_text("The job has moved on in another window")
    away.get_by_role("button", name="Take over").click()
    saved(away)
    away.reload()
    expect(away.get_by_label("Name", exact=True)).to_have_value("Typed on the roof")


COUNTS = """() => {
  const rows = [...document.querySelectorAll("li[data-snag]")];
  const places = (row) => Number(/· (\\d+) places/.exec(row.textContent)?.[1] ?? 1);
  const stops = rows.filter((row) => row.querySelector("span").textContent === "stop");
  return {
    head: Number.parseInt(document.querySelector("[data-figure=stops]").textContent) || 0,
    listed: stops.reduce((n, row) => n + places(row), 0),
    twice: rows.length - new Set(rows.map((row) => row.dataset.snag)).size,
  };
}"""


def test_header_and_list_of_snags_agree_after_every_change(page: Page) -> None:
    open_demo(page, "layout")
    seen = set()

    def agree() -> None:
        told = page.evaluate(COUNTS)
        assert told["head"] == told["listed"] and told["twice"] == 0, told
        seen.add(told["head"])

    panel = page.locator("[data-panel='p1']")
    panel.focus()
    for _ in range(12):
        page.keyboard.press("Shift+ArrowRight")
        agree()
    saved(page)
    agree()
    page.get_by_role("button", name="Mirror to the other side").click()
    agree()
    saved(page)
    agree()
    box = panel.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 30, box["y"] + 30)
    page.mouse.down()
    for step in range(10):
        page.mouse.move(box["x"] + 30 + 40 * step, box["y"] + 30)
        agree()
    page.mouse.up()
    saved(page)
    agree()
    for _ in range(6):
        page.get_by_role("button", name="Undo").click()
        agree()
    assert len(seen) > 1, "nothing of it changed what is counted"
