"""Seal in the running application: list, layers, bonds, water, gland, proof; by mouse and keyboard."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_demo, saved


def part(page: Page, name: str) -> None:
    page.get_by_role("tab", name=name).focus()
    page.keyboard.press("Enter")


def test_the_day_decides_how_long_it_cures(page: Page) -> None:
    open_demo(page, "seal")
    expect(page.get_by_text("nobody said what day it is")).to_be_visible()
    warm = page.get_by_label("Roof and air")
    warm.fill("23 °C")
    warm.press("Enter")
    page.get_by_label("Moisture of the air, %").fill("50")
    page.get_by_label("Moisture of the air, %").press("Enter")
    saved(page)
    expect(page.get_by_text(re.compile(r"^1 to [45] days$"))).to_be_visible()
    expect(page.get_by_text("nobody said what day it is")).to_be_hidden()
    warm.fill("2 °C")
    warm.press("Enter")
    expect(page.get_by_text("Too cold for this sealant").first).to_be_visible()
    warm.fill("400 °C")
    warm.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("outside")
    warm.press("Escape")
    expect(page.get_by_role("row", name=re.compile("Front port, foot f1 screw foot"))).to_be_visible()


def test_layers_are_drawn_and_ways_are_taken(page: Page) -> None:
    open_demo(page, "seal")
    part(page, "Layers")
    expect(page.get_by_role("img", name=re.compile("screw foot cut through, 7 layers"))).to_be_visible()
    page.get_by_role("button", name="Take tape, trim").click()
    expect(page.get_by_text("wait, then trim what squeezed out")).to_be_visible()
    page.get_by_label(re.compile("^Round it")).select_option("silicone")
    expect(page.get_by_text("Two sealants that must not touch").first).to_be_visible()
    page.get_by_label(re.compile("^Ground")).select_option("gelcoat")
    saved(page)
    part(page, "What bonds")
    expect(page.get_by_role("heading", name="On gelcoat")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("^acrylic")).first).to_contain_text("refused")
    page.get_by_label("New sheet: family").select_option("acrylic")
    page.get_by_label("New sheet: sheet, date").fill("2026-05")
    page.get_by_role("button", name="Add sheet").click()
    expect(page.get_by_role("row", name=re.compile("^acrylic")).first).to_contain_text(
        "maker's sheet 2026-05"
    )


def test_water_is_drawn_and_parking_changes_it(page: Page) -> None:
    open_demo(page, "seal")
    part(page, "Water")
    # works of other tests may be before it: two run at once
    expect(page.get_by_text("grid of 10 mm")).to_be_visible()
    expect(page.locator("marker#water-head")).to_have_count(1)
    nose = page.get_by_label("Nose up")
    nose.fill("3 deg")
    nose.press("Enter")
    expect(page.get_by_text(re.compile(r"\d l in \d+ places?|Everything runs off"))).to_be_visible()
    part(page, "Seal list")
    expect(page.locator("marker#water-head")).to_have_count(0)


def test_a_gland_is_placed_checked_and_moved_where_nothing_speaks_against_it(page: Page) -> None:
    open_demo(page, "seal")
    part(page, "Gland")
    page.get_by_role("button", name="take it off").click()
    page.get_by_role("button", name="Put a gland on the roof").click()
    expect(page.get_by_role("heading", name="What speaks against it")).to_be_visible()
    expect(page.get_by_text("Gland in a bad place").first).to_be_visible()
    page.get_by_role("button", name="Put it there").first.click()
    expect(page.get_by_role("heading", name="Nothing speaks against it")).to_be_visible()
    expect(page.get_by_role("button", name="Gland of the cables")).to_be_visible()
    page.get_by_label("Its mouth faces").select_option("front")
    expect(page.get_by_text("driving rain is pressed into it: turn it aft", exact=True)).to_be_visible()


def test_a_wet_reading_is_a_stop(page: Page) -> None:
    open_demo(page, "seal")
    part(page, "Proof")
    expect(page.get_by_text("the lowest places first")).to_be_visible()
    page.get_by_label("New reading: percent").fill("31")
    page.get_by_label("New reading: percent").press("Enter")
    expect(page.get_by_text("It is wet inside").first).to_be_visible()


def test_one_kind_is_sealed_otherwise_by_keyboard(page: Page) -> None:
    open_demo(page, "seal")
    part(page, "Layers")
    page.get_by_role("button", name="Otherwise for each gland").focus()
    page.keyboard.press("Enter")
    saved(page)
    own = page.get_by_role("region", name="Seal of each gland")
    own.get_by_label("Round it").select_option("polyurethane")
    saved(page)
    page.get_by_role("button", name=re.compile("^gland 1")).click()
    expect(page.get_by_text("bead of polyurethane all round")).to_be_visible()
    own.get_by_label("Round it").select_option("silicone")
    expect(page.get_by_text("Two sealants that must not touch").first).to_be_visible()
    own.get_by_role("button", name="Seal gland as the rest").click()
    saved(page)
    expect(own).to_be_hidden()
    expect(page.get_by_text("Two sealants that must not touch")).to_be_hidden()
