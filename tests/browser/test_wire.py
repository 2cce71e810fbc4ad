"""Wire in the running application: strings, ways, curves, limits, cables, meter; by mouse and keyboard."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_demo, saved


def part(page: Page, name: str) -> None:
    page.get_by_role("tab", name=name).focus()
    page.keyboard.press("Enter")


def typed(page: Page, label: str, text: str) -> None:
    box = page.get_by_label(label, exact=True).first
    box.fill(text)
    box.press("Enter")
    saved(page)


def test_a_controller_is_taken_from_the_catalogue(page: Page) -> None:
    open_demo(page, "wire")
    page.get_by_label("Controller", exact=True).select_option("Wehr 6")
    page.get_by_role("button", name="Add a controller").press("Enter")
    saved(page)
    boxes = page.get_by_role("textbox", name="Input, most volts")
    expect(boxes.last).to_have_value("240 V")
    expect(page.get_by_role("heading", name="Wehr 6")).to_be_visible()


def test_strings_are_plugged_by_hand_and_limits_speak(page: Page) -> None:
    """From no controller on, by keyboard; what is passed is told, what is typed wrongly is refused."""
    open_demo(page, "wire")
    for name in ("Stromwart J", "Stromwart D"):
        page.get_by_role("button", name=f"Remove the controller {name}").click()
        saved(page)
    expect(page.get_by_text("Which charge controller do they plug into?").first).to_be_visible()
    page.get_by_role("button", name="Add a controller").focus()
    page.keyboard.press("Enter")
    saved(page)
    page.get_by_role("button", name="Add a string to Controller 1").focus()
    page.keyboard.press("Enter")
    saved(page)
    for panel in ("Front port", "Middle port", "Front starboard"):
        page.get_by_role("button", name=f"Put {panel} into string 1").focus()
        page.keyboard.press("Enter")
        saved(page)
    expect(page.get_by_text("3s1p, 960 W")).to_be_visible()
    expect(page.get_by_text("Nobody said what the controller bears").first).to_be_visible()
    typed(page, "Input, most volts", "100 V")
    expect(page.get_by_text("Cold voltage is over the controller's limit").first).to_be_visible()
    part(page, "Limits")
    expect(page.get_by_role("row", name=re.compile("^cold voltage"))).to_contain_text("passed")
    low = page.get_by_label("Record low")
    low.fill("-400 °C")
    low.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("outside")
    low.press("Escape")
    part(page, "Strings")
    page.get_by_role("button", name="Take Middle port out of string 1").click()
    saved(page)
    expect(page.get_by_text("Cold voltage is over the controller's limit")).to_be_hidden()
    expect(page.get_by_text("A panel is in no string").first).to_be_visible()


def test_the_best_way_is_proved_and_taken(page: Page) -> None:
    open_demo(page, "wire")
    page.get_by_role("button", name="Remove string 1").first.click()
    saved(page)
    part(page, "Ways to plug")
    expect(page.get_by_text("all there are; none gives half a per cent more")).to_be_visible()
    expect(page.get_by_text(re.compile("series|parallel")).first).to_be_visible()
    page.get_by_role("button", name="Plug it so").first.click()
    saved(page)
    expect(page.get_by_role("row", name=re.compile("as the job has it"))).to_contain_text("–")
    expect(page.get_by_text("A panel is in no string")).to_be_hidden()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("A panel is in no string").first).to_be_visible()


def test_curves_follow_the_hour(page: Page) -> None:
    open_demo(page, "wire")
    part(page, "Curves")
    full = page.get_by_role("img", name=re.compile("^Curves of Stromwart J"))
    expect(full).to_have_accessible_name(re.compile("1224 watts"))
    page.get_by_label("Light").select_option("12")
    hour = page.get_by_role("slider", name="Hour by the mean sun")
    hour.focus()
    expect(page.locator("[data-shadow]").first).to_be_attached()
    before = full.get_attribute("aria-label")
    for _ in range(4):
        page.keyboard.press("ArrowLeft")
    expect(full).not_to_have_accessible_name(str(before))
    for _ in range(14):
        page.keyboard.press("ArrowLeft")
    expect(page.get_by_role("alert")).to_contain_text("the sun is down")


def test_a_cable_is_led_elsewhere_by_typing_arrows_and_pointer(page: Page) -> None:
    open_demo(page, "wire")
    part(page, "Cables")
    trunk = page.get_by_role("row", name=re.compile("red branch pieces"))
    before = trunk.inner_text()
    page.get_by_label("New spot: aft").fill("1900 mm")
    page.get_by_label("New spot: across").fill("-900 mm")
    page.get_by_label("New spot: across").press("Enter")
    saved(page)
    expect(trunk).not_to_have_text(before)
    spot = page.get_by_role("button", name=re.compile("^Spot 1 cables"))
    spot.focus()
    page.keyboard.press("ArrowRight")
    saved(page)
    expect(page.get_by_label("aft, row 1")).to_have_value("1910 mm")
    box = spot.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + 60, box["y"] + 30, steps=5)
    page.mouse.up()
    saved(page)
    expect(page.get_by_label("aft, row 1")).not_to_have_value("1910 mm")
    expect(page.get_by_text("PV connector for 6 mm²")).to_be_visible()
    page.get_by_label("Conductor").select_option("2.5 mm²")
    saved(page)
    expect(page.get_by_text("The cable carries too much").first).to_be_visible()


def test_the_meter_is_told_and_judged(page: Page) -> None:
    open_demo(page, "wire", job="Speiche")
    part(page, "Meter")
    expect(page.get_by_text("As it should be")).to_be_visible()
    typed(page, "Meter says, volts", "-45 V")
    expect(page.get_by_text("Reversed", exact=True)).to_be_visible()
    expect(page.get_by_text("The meter says: do not plug in").first).to_be_visible()
    typed(page, "Meter says, volts", "0 V")
    expect(page.get_by_text("No contact", exact=True)).to_be_visible()
    page.get_by_role("button", name="Remove the reading at Middle + Rear").click()
    saved(page)
    page.get_by_role("button", name="Measure Middle + Rear").focus()
    page.keyboard.press("Enter")
    saved(page)
    expect(page.get_by_text("Type what the meter says")).to_be_visible()


def test_the_diagram_is_shown_and_taken_along(page: Page) -> None:
    open_demo(page, "wire")
    part(page, "Diagram")
    expect(page.get_by_role("img", name=re.compile("^Wiring diagram"))).to_be_visible()
    for name in ("Diagram, PDF", "SVG", "DXF", "Cable labels, PDF"):
        with page.expect_download() as taken:
            page.get_by_role("link", name=name, exact=True).click()
        assert taken.value.path().stat().st_size > 800


def test_a_sheet_with_a_gap_is_led_to_and_given_to_all(page: Page) -> None:
    """A value is cleared; the snag leads to its box; what is typed there goes to all panels of the model."""
    open_demo(page, "wire")
    part(page, "Sheets")
    box = page.get_by_label("Running volts").first
    box.fill("")
    box.press("Enter")
    saved(page)
    part(page, "Strings")
    page.get_by_text("Voltage at full power is missing").first.click()
    expect(page.get_by_role("tab", name="Sheets")).to_have_attribute("aria-selected", "true")
    typed(page, "Running volts", "33 V")
    expect(page.get_by_text("The data sheet does not give a curve")).to_be_hidden()
    page.get_by_role("button", name="The same for all 4").click()
    saved(page)
    expect(page.get_by_text("have another")).to_be_hidden()
    page.get_by_label("Rear", exact=True).select_option("rear")
    saved(page)
    part(page, "Cables")
    expect(page.get_by_role("row", name=re.compile("red Rear"))).to_be_visible()
