"""The whole path in the real browser: from an empty job to the drill map, by mouse and by keyboard."""

from __future__ import annotations

import json

import ezdxf.recover
import pypdf
import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import go, open_demo, saved

pytestmark = pytest.mark.browser

VEHICLE = {
    "Highest speed": "90 km/h",
    "Roof length": "5.4 m",
    "Roof width": "1,6 m",
    "Altitude, lowest": "200 m",
    "Roof load limit": "150 kg",
}


def fill(page: Page, label: str, text: str) -> None:
    page.get_by_label(label, exact=True).fill(text)
    page.get_by_label(label, exact=True).press("Enter")


def test_from_an_empty_job_to_the_drill_map(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Name").fill("Werkstattwagen")
    page.get_by_label("Vehicle").select_option("van")
    page.get_by_role("button", name="Start the job").click()

    # survey: a bad value is refused beside its box and nothing is lost
    expect(page.locator("[data-figure=word]")).to_have_text("Not known")
    fill(page, "Roof length", "400 m")
    expect(page.get_by_text("400 m is outside")).to_be_visible()
    expect(page.get_by_label("Roof length", exact=True)).to_have_value("400 m")
    for label, text in VEHICLE.items():
        fill(page, label, text)
    page.get_by_label("Skin", exact=True).select_option("steel")
    fill(page, "Skin thickness", "20 ga")
    page.get_by_label("Inside").select_option("gutted")
    saved(page)
    expect(page.get_by_label("Roof length", exact=True)).to_have_value("5.4 m")
    page.get_by_role("tab", name="Obstacles").click()
    page.get_by_role("button", name="+ roof fan").click()
    fill(page, "x, along", "2.9 m")
    page.get_by_label("Lid hinge").select_option("rear")
    fill(page, "Leans over by, measured", "150 mm")

    # structure: call them out one by one, then paste
    go(page, "structure")
    box = page.get_by_label("Position of the reading, then Enter")
    page.get_by_role("radio", name="seen").click()
    for position in ("40 cm", "1000", "1602"):
        box.fill(position)
        box.press("Enter")
        expect(box).to_have_value("")
    page.get_by_role("button", name="Paste, CSV").click()
    page.get_by_label("Rows of position, kind, uncertainty").fill(
        "2197 mm; rivet row\n2803; seen\n3060; knock\nnonsense; magnet\n4000; magnet"
    )
    expect(page.get_by_text("Line 4 left out")).to_be_visible()
    page.get_by_role("button", name="Take 4 readings").click()
    expect(page.get_by_text("every 600 mm ±")).to_be_visible()
    expect(page.get_by_text("not one of this spacing").first).to_be_visible()
    page.get_by_role("tab", name="Known, searched").click()
    page.get_by_label("Members", exact=True).select_option("steel_hat")
    for label, text in {"Face width": "50 mm", "Wall": "1.5 mm", "Depth to ceiling": "40 mm"}.items():
        fill(page, label, text)

    # layout: place, drag, type
    go(page, "layout")
    page.get_by_role("button", name="+ Kiesel 185").click()
    panel = page.locator("[data-panel='p1']")
    before = panel.bounding_box()
    assert before is not None
    page.mouse.move(before["x"] + 30, before["y"] + 15)
    page.mouse.down()
    page.mouse.move(before["x"] + 90, before["y"] + 25, steps=8)
    page.mouse.up()
    saved(page)
    after = panel.bounding_box()
    assert after is not None and after["x"] - before["x"] == pytest.approx(60, abs=3)
    fill(page, "x, front edge", "280 mm")
    fill(page, "y, middle, to starboard", "0")
    expect(page.locator("[data-foot='p1.f1']")).to_have_attribute("data-state", "holds")

    # hold: school, chain, working, slider
    go(page, "hold")
    page.get_by_role("radio", name="Bonded: foam tape or adhesive").click()
    expect(page.get_by_text("tape, peel at the pad's edge").first).to_be_visible()
    state = page.locator("[data-foot='p1.f1']")
    slider = page.get_by_role("slider")
    slider.focus()
    slider.press("End")
    expect(state).to_have_attribute("data-state", "lets go")
    page.get_by_role("button", name="back to 90 km/h").click()
    expect(state).not_to_have_attribute("data-state", "lets go")
    page.get_by_role("radio", name="Screws into members").click()
    page.get_by_role("button", name="screws pulling out of the").first.click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text("AISI S100").first).to_be_visible()
    expect(dialog.get_by_text("measured:").first).to_be_visible()
    page.keyboard.press("Escape")

    # roof day: files that say what the screen says
    go(page, "roof-day")
    marks = page.get_by_role("heading", name="marks from the datum").inner_text().split()[0]
    with page.expect_download() as pdf:
        page.get_by_role("link", name="Work sheet, PDF").click()
    text = "".join(p.extract_text() for p in pypdf.PdfReader(pdf.value.path()).pages)
    assert "Werkstattwagen" in text
    with page.expect_download() as dxf:
        page.get_by_role("link", name="Drill map, true scale, DXF").click()
    document, _ = ezdxf.recover.readfile(dxf.value.path())
    assert len(document.modelspace().query('CIRCLE[layer=="HOLES"]')) == int(marks)
    with page.expect_download() as exported:
        page.get_by_role("link", name="Whole job, JSON").click()
    assert json.loads(exported.value.path().read_text())["vehicle"]["roof_width"] == {
        "mm": 1600.0,
        "text": "1,6 m",
    }


def test_the_same_by_keyboard_alone(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Name").focus()
    keys = page.keyboard
    keys.type("Nur Tasten")
    for key in ("Tab", "b", "Tab", "Tab", "Enter"):  # vehicle: bus; units as they are; start
        keys.press(key)
    page.get_by_role("navigation", name="Stations").wait_for()
    page.get_by_label("Highest speed").focus()
    for text in ("80 km/h", "6 m", "2 m", "0 m", "200 kg"):
        keys.type(text)
        keys.press("Tab")
    keys.type("steel")  # the skin's choice, by its first letters
    saved(page)
    page.get_by_label("Skin thickness").focus()
    keys.type("1.2 mm")
    keys.press("Tab")
    page.get_by_role("button", name="Structure", exact=False).first.focus()
    keys.press("Enter")
    box = page.get_by_label("Position of the reading, then Enter")
    box.focus()
    keys.press("e")
    for position in (500, 1100, 1700, 2300):
        keys.type(str(position))
        keys.press("Enter")
        expect(box).to_have_value("")
    expect(page.get_by_text("every 600 mm ±")).to_be_visible()
    expect(page.get_by_role("cell", name="seen").first).to_be_visible()

    page.get_by_role("navigation", name="Stations").get_by_role("button", name="Layout").focus()
    keys.press("Enter")
    page.get_by_role("button", name="+ Kiesel 185").focus()
    keys.press("Enter")
    panel = page.locator("[data-panel='p1']")
    panel.focus()
    x = page.get_by_label("x, front edge")
    expect(x).to_have_value("150 mm")
    keys.press("ArrowRight")
    keys.press("Shift+ArrowRight")
    expect(x).to_have_value("161 mm")
    keys.press("r")
    expect(page.get_by_label("turned, crosswise")).to_be_checked()
    keys.press("Control+z")
    expect(page.get_by_label("turned, crosswise")).not_to_be_checked()
    keys.press("Control+y")
    expect(page.get_by_label("turned, crosswise")).to_be_checked()
    foot = page.locator("[data-foot='p1.f1']")
    foot.focus()
    keys.press("Enter")
    expect(page.get_by_role("heading", level=1, name="Hold")).to_be_visible()


def test_a_snag_leads_to_the_thing_and_a_caution_needs_a_reason(page: Page) -> None:
    open_demo(page)
    snags = page.get_by_role("region", name="Snags")
    expect(snags.get_by_text("7 stops: do not drill")).to_be_visible()
    snags.get_by_text("Layout 3 stops").click()
    snags.get_by_role("button", name="Middle port under Emergency hatch").click()
    expect(page.get_by_role("heading", level=1, name="Layout")).to_be_visible()
    expect(page.locator("[data-panel='p3']")).to_have_attribute("aria-pressed", "true")
    snags.get_by_text("Structure 3 cautions").click()
    row = snags.get_by_role("listitem").filter(has_text="No reading near a member")
    row.get_by_role("button", name="Dismiss with a reason").click()
    expect(row.get_by_role("button", name="Dismiss", exact=True)).to_be_disabled()
    row.get_by_label("Reason").fill("seen through the lamp hole")
    row.get_by_role("button", name="Dismiss", exact=True).click()
    expect(snags.get_by_text("dismissed, seen through the lamp hole").first).to_be_visible()
    assert (
        snags.get_by_role("listitem")
        .filter(has_text="stop")
        .get_by_role("button", name="Dismiss with a reason")
        .count()
        == 0
    )


def test_an_own_panel_and_a_station_that_is_not_built_yet(page: Page) -> None:
    open_demo(page, "layout")
    page.get_by_role("button", name="Own panel").click()
    for label, text in (
        ("Name", "Eigenbau"),
        ("Length", "1.2 m"),
        ("Width", "54cm"),
        ("Frame height", "30 mm"),
        ("Mass", "heavy"),
        ("Power", "100 W"),
    ):
        page.locator("form").get_by_label(label, exact=True).fill(text)
    page.get_by_role("button", name="Keep this panel").click()
    expect(page.get_by_role("alert")).to_contain_text("not a mass")
    page.locator("form").get_by_label("Mass").fill("8 kg")
    page.get_by_role("button", name="Keep this panel").click()
    page.get_by_role("button", name="+ Eigenbau").click()
    expect(page.locator("[data-panel='p6']")).to_be_visible()
    go(page, "log")
    expect(page.get_by_text("Nothing is written down yet", exact=False)).to_be_visible()
