"""Build in the running application: bars by keyboard, the cut list that follows, a piece with its holes."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_demo, saved


def test_bars_are_typed_and_the_cut_list_follows(page: Page) -> None:
    open_demo(page, "build", "Speiche")
    expect(page.get_by_text("2 bars, 77.00")).to_be_visible()
    expect(page.get_by_text("Nothing is cheaper: proved.")).to_be_visible()
    long = page.get_by_label("New bar: length")
    long.fill("9 m")
    long.press("Tab")
    page.keyboard.type("50")
    page.keyboard.press("Enter")
    saved(page)
    expect(page.get_by_text(re.compile(r"bars?, 50\.00"))).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("Bar of 9000 mm: b1-r1"))).to_be_visible()
    long.fill("9 miles")
    long.press("Enter")
    expect(page.get_by_role("alert").first).to_be_visible()
    long.fill("")
    page.get_by_role("heading", level=1, name="Build").click()
    page.keyboard.press("Control+z")
    expect(page.get_by_text("2 bars, 77.00")).to_be_visible()


def test_a_piece_is_chosen_by_keyboard_and_tells_its_holes(page: Page) -> None:
    open_demo(page, "build", "Speiche")
    page.get_by_role("button", name="b1-a2").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Mark the port end with b1-a2")).to_be_visible()
    expect(
        page.get_by_role("row", name=re.compile("113 mm front 9 mm, through corner on rail r1"))
    ).to_be_visible()
    expect(page.get_by_role("img", name="upper face: 2 holes")).to_be_visible()
    with page.expect_download() as told:
        page.get_by_role("link", name="Cut list, CSV").click()
    assert "b1-a2" in told.value.path().read_text()
    open_demo(page, "build")
    expect(page.get_by_text("Panels on feet need no pieces")).to_be_visible()
