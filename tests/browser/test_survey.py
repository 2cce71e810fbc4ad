"""Survey and structure in the real browser: an empty roof becomes a settled structure by keyboard alone;
views; imports.
"""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import go, open_demo, saved

pytestmark = pytest.mark.browser


def part(page: Page, name: str) -> None:
    tab = page.get_by_role("tab", name=name)
    tab.focus()
    page.keyboard.press("Enter")
    expect(tab).to_have_attribute("aria-selected", "true")


def start(page: Page, name: str) -> None:
    page.goto("/")
    page.get_by_label("Name").focus()
    page.keyboard.type(name)
    page.keyboard.press("Enter")
    page.get_by_role("navigation", name="Stations").wait_for()


def row(page: Page, noun: str, cells: dict[str, str]) -> None:
    """Type a new row of a table as a person would: each cell, Enter at the end."""
    for column, text in cells.items():
        page.get_by_label(f"New {noun}: {column}", exact=True).focus()
        page.keyboard.type(text)
    page.keyboard.press("Enter")
    expect(page.get_by_label(f"New {noun}: {next(iter(cells))}", exact=True)).to_have_value("")


def test_from_an_empty_survey_to_a_settled_structure_by_keyboard(page: Page) -> None:
    start(page, "Tastenbus")
    part(page, "Outline")
    page.get_by_role("button", name="bus", exact=True).focus()
    page.keyboard.press("Enter")
    saved(page)
    part(page, "Crown")
    page.get_by_role("button", name="+ cross-section").focus()
    page.keyboard.press("Enter")
    for y, gap in (("-1000", "84"), ("-500", "22"), ("0", "0"), ("500", "20"), ("1000", "86")):
        page.get_by_label("New crown reading: y, to starboard", exact=True).focus()
        page.keyboard.type(y)
        page.get_by_label("New crown reading: gap", exact=True).focus()
        page.keyboard.type(gap)
        page.keyboard.press("Enter")
        expect(page.get_by_label("New crown reading: gap", exact=True)).to_have_value("")
    expect(page.get_by_text(re.compile(r"rises 1\d\d mm"))).to_be_visible()
    part(page, "Old work")
    row(page, "scar", {"x": "2.1 m", "y": "-30 cm", "how many": "4"})
    expect(page.get_by_text("Deburr, prime bare metal")).to_be_visible()
    part(page, "Access")
    page.get_by_label("Bears a person").focus()
    page.keyboard.type("no")
    expect(page.get_by_text(re.compile(r"\d\d % of the roof in reach"))).to_be_visible()

    go(page, "structure")
    expect(page.get_by_role("region", name="Check here next")).to_contain_text("Search this stretch")
    box = page.get_by_label("Position of the reading, then Enter")
    box.focus()
    page.keyboard.press("m")
    for position in ("400", "1050", "1702"):
        page.keyboard.type(position)
        page.keyboard.press("Enter")
        expect(box).to_have_value("")
    expect(page.get_by_text("every 651 mm ±")).to_be_visible()
    check = page.get_by_role("region", name="Check here next")
    members = [400 + 650.7 * i for i in range(14)]
    for _ in range(14):  # follow the advice until it says that enough is known
        words = check.inner_text()
        if "Enough is known" in words:
            break
        low, high = (int(n) for n in re.search(r"(\d+) mm to (\d+) mm", words).groups())  # type: ignore[union-attr]
        there = [m for m in members if low <= m <= high]
        if there:
            check.get_by_label("Found at").focus()
            page.keyboard.type(f"{there[0]:.0f}")
            page.keyboard.press("Enter")
        else:
            check.get_by_role("button", name="Nothing there").focus()
            page.keyboard.press("Enter")
        expect(check).not_to_have_text(words, use_inner_text=True)
    expect(check).to_contain_text("Enough is known")
    expect(page.get_by_text("settled", exact=True)).to_be_visible()


def test_the_views_hang_on_one_cursor_and_the_strip_carries_the_survey(page: Page) -> None:
    open_demo(page, "structure")
    page.get_by_role("button", name="Show side and cross-section").click()
    strip = page.get_by_role("group", name="Roof seen from above", exact=False)
    frame = strip.bounding_box()
    assert frame is not None
    page.mouse.move(frame["x"] + 312, frame["y"] + 150)
    section = page.get_by_role("img", name=re.compile(r"Cross-section at 2\d\d\d mm"))
    expect(section).to_be_visible()
    page.mouse.move(frame["x"] + 623, frame["y"] + frame["height"] + 40)
    expect(page.get_by_role("img", name=re.compile(r"Cross-section at 5\d\d\d mm"))).to_be_visible()
    page.get_by_role("button", name="old hole", exact=False).first.click()
    expect(page.get_by_role("tab", name="Old work")).to_have_attribute("aria-selected", "true")
    go(page, "structure")
    page.get_by_role("tab", name="Mounting lines").click()
    expect(page.get_by_text("stray: measure again")).to_be_visible()
    page.get_by_role("button", name="lean and wedge: show the working").first.click()
    expect(page.get_by_role("dialog").get_by_text("straight base that touches")).to_be_visible()


def test_an_import_is_shown_before_it_is_taken_and_a_bad_one_changes_nothing(page: Page) -> None:
    start(page, "Zeichnung")
    page.get_by_role("tab", name="Outline").click()
    rows = page.get_by_label("Rows of x and y")
    rows.fill("x,y\n0,-700\n0,nonsense")
    expect(page.get_by_role("alert")).to_contain_text("nonsense")
    rows.fill("x,y\n0,-700\n4 m,-800\n4 m,800\n0,700")
    expect(page.get_by_role("img", name="Outline as understood")).to_be_visible()
    expect(page.get_by_text("4000 mm × 1600 mm, 4 points")).to_be_visible()
    page.get_by_role("button", name="Take this outline").click()
    expect(page.get_by_text("The edge is 4 points")).to_be_visible()
    page.get_by_role("tab", name="Vehicle").click()
    expect(page.get_by_label("Roof length", exact=True)).to_have_value("4000 mm")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Roof length", exact=True)).to_have_value("")
    page.get_by_role("tab", name="Factory points").click()
    page.get_by_role("button", name="+ row of points").click()
    page.get_by_label("New point: count").fill("0")
    page.get_by_label("New point: x", exact=True).fill("17 parsec")
    page.get_by_role("button", name="Add point").click()
    expect(page.get_by_role("alert")).to_contain_text("outside")
    expect(page.get_by_label("New point: x", exact=True)).to_have_value("17 parsec")


def test_a_panel_is_mirrored_and_told_how_it_clears_the_crown(page: Page) -> None:
    open_demo(page, "layout")
    page.locator("[data-panel='p5']").focus()
    expect(page.get_by_text("Clear of the crown by")).to_be_visible()
    page.get_by_role("button", name="clear height: show the working").click()
    expect(page.get_by_role("dialog").get_by_text("plane through the feet").first).to_be_visible()
    page.keyboard.press("Escape")
    page.locator("[data-panel='p1']").focus()
    expect(page.get_by_text("front x 230 mm")).to_be_visible()
    page.get_by_role("button", name="Mirror to the other side").focus()
    page.keyboard.press("Enter")
    twin = page.locator("[data-panel='p6']")
    expect(twin).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_label("y, middle, to starboard")).to_have_value("590 mm")
    page.keyboard.press("Control+z")
    expect(twin).to_have_count(0)
