"""Layout in the real browser: an empty roof is proposed, dragged, kept, compared and decided; models, sun,
order by keyboard.
"""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Page, Request, expect

from tests.browser.conftest import go, open_demo, saved
from tests.files.test_tables import OPEN_COLUMNS

pytestmark = pytest.mark.browser


def part(page: Page, name: str) -> None:
    tab = page.get_by_role("tab", name=name)
    tab.focus()
    page.keyboard.press("Enter")
    expect(tab).to_have_attribute("aria-selected", "true")


def press(page: Page, name: str, *, nth: int = 0, exact: bool = True) -> None:
    page.get_by_role("button", name=name, exact=exact).nth(nth).focus()
    page.keyboard.press("Enter")


def start_with_roof(page: Page) -> None:
    page.goto("/")
    page.get_by_label("Name").fill("Leerdach")
    page.get_by_role("button", name="Start the job").click()
    page.get_by_role("navigation", name="Stations").wait_for()
    for label, text in (("Roof length", "3.6 m"), ("Roof width", "1.6 m")):
        page.get_by_label(label, exact=True).fill(text)
        page.get_by_label(label, exact=True).press("Enter")
    saved(page)
    go(page, "layout")


def test_from_an_empty_roof_to_a_chosen_layout(page: Page) -> None:
    start_with_roof(page)
    part(page, "Proposals")
    press(page, "Propose layouts")
    expect(page.get_by_role("alert")).to_contain_text("No panel model is on offer")
    press(page, "+ Kiesel 185")
    press(page, "+ Schiefer 110")
    page.get_by_label("At most, Schiefer 110").fill("4")
    page.get_by_label("At most, Schiefer 110").press("Enter")
    page.get_by_label("What counts most").select_option("watts")
    saved(page)
    press(page, "Propose layouts")
    layouts = page.get_by_role("region", name="Proposals")
    expect(layouts.get_by_text(re.compile(r"No layout gives more than \d+ W: proved"))).to_be_visible()
    expect(page.get_by_role("button", name="Enough")).to_have_count(0)
    expect(layouts.get_by_role("heading", name=re.compile(r"\d layouts"))).to_be_visible()
    assert (
        layouts.get_by_role("listitem").filter(has=page.get_by_role("button", name="Keep as variant")).count()
        >= 3
    )
    press(page, "Keep as variant", nth=1)
    expect(page.get_by_role("tab", name="Variants")).to_contain_text("1")
    press(page, "Put on the roof")
    expect(page.locator("[data-panel]").first).to_be_visible()
    expect(page.get_by_role("tab", name="Variants")).to_contain_text("2")

    panel = page.locator("[data-panel]").first
    box = panel.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 25, box["y"] + 12)
    page.mouse.down()
    page.mouse.move(box["x"] + 45, box["y"] + 18, steps=6)
    page.mouse.up()
    saved(page)
    expect(page.get_by_text("The job has changed since")).to_be_visible()

    part(page, "Variants")
    page.get_by_label("Name of the variant").fill("Moved by hand")
    page.get_by_label("Name of the variant").press("Enter")
    table = page.get_by_role("region", name="Layouts side by side")
    expect(table.get_by_text("Moved by hand")).to_be_visible()
    expect(table.get_by_text(re.compile(r"aft|forward|starboard|port")).first).to_be_visible()
    press(page, "Choose …", nth=2)
    page.get_by_label("Why this one").fill("Leaves room at the front.")
    press(page, "Choose it")
    expect(page.get_by_role("main").get_by_text("Leaves room at the front.")).to_be_visible()
    expect(table.get_by_text("chosen")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("main").get_by_text("Leaves room at the front.")).to_have_count(0)


def test_dragging_snaps_and_a_locked_panel_stays(page: Page) -> None:
    open_demo(page, "layout")
    panel = page.locator("[data-panel='p1']")
    box = panel.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 40, box["y"] + 40)
    page.mouse.down()
    page.wait_for_timeout(300)  # the places to snap to are on their way
    page.mouse.move(box["x"] + 22, box["y"] + 40, steps=8)
    expect(page.get_by_text(re.compile("edge margin|on member|port edge")).first).to_be_attached()
    page.mouse.up()
    saved(page)
    page.keyboard.press("l")
    expect(panel).to_have_accessible_name(re.compile("locked"))
    kept = page.get_by_label("x, front edge").input_value()
    box = panel.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 40, box["y"] + 40)
    page.mouse.down()
    page.mouse.move(box["x"] + 120, box["y"] + 40, steps=4)
    page.mouse.up()
    expect(page.get_by_label("x, front edge")).to_have_value(kept)
    page.get_by_role("button", name="Remove Front port").click()
    expect(page.get_by_role("alert")).to_contain_text("Unlock it first")


def test_a_panel_dragged_beyond_what_a_job_holds_goes_back_and_why_is_told(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    open_demo(page, "layout")
    panel = page.locator("[data-panel='p1']")
    panel.scroll_into_view_if_needed()
    place = panel.get_attribute("transform")
    verdict = page.get_by_role("region", name="Verdict").inner_text()
    box = panel.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y + 380, steps=6)
    page.mouse.up()
    expect(page.get_by_role("alert").filter(has_text="is outside")).to_contain_text("Not stored.")
    expect(page.get_by_label("y, middle, to starboard")).to_have_value("-590 mm")
    expect(panel).to_have_attribute("transform", str(place))
    page.wait_for_timeout(400)  # what was asked while it was dragged has come meanwhile
    expect(page.get_by_role("region", name="Verdict")).to_have_text(verdict, use_inner_text=True)


def test_lining_up_by_keyboard_and_moving_an_array_as_one(page: Page) -> None:
    open_demo(page, "layout")
    first, second = page.locator("[data-panel='p1']"), page.locator("[data-panel='p2']")
    first.focus()
    page.keyboard.press("Shift+ArrowRight")
    saved(page)
    for panel in (second, first):
        panel.focus()
        page.keyboard.press("Shift+Enter")
    expect(page.get_by_text("2 picked; they line up with Front starboard")).to_be_visible()
    press(page, "front edges")
    expect(first).to_have_accessible_name(re.compile("230 mm along"))
    press(page, "join as one array")
    saved(page)
    second.focus()
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("Shift+ArrowRight")
    for panel in (first, second):
        expect(panel).to_have_accessible_name(re.compile("250 mm along"))


def test_another_model_tells_what_changes_before_it_does(page: Page) -> None:
    open_demo(page, "layout")
    page.locator("[data-panel='p1']").click()
    page.get_by_label("Another model came").select_option("Halde 410")
    changes = page.get_by_role("region", name="What changes")
    expect(changes.get_by_text("1780 W")).to_be_visible()
    expect(changes.get_by_text("drill map")).to_be_visible()
    press(page, "Replace")
    saved(page)
    expect(changes).to_have_count(0)
    expect(page.get_by_label("Panels on the roof")).to_have_count(0)
    expect(page.get_by_role("button", name="Front port Halde 410")).to_be_visible()


def test_the_year_at_a_place(page: Page) -> None:
    open_demo(page, "layout")
    part(page, "Sun and shade")
    expect(page.get_by_text("lost to shadow")).to_be_visible()
    expect(page.get_by_text(re.compile("^In shadow: Rear"))).to_be_visible()
    shadow = page.locator("[data-shadow='p5']")
    noon = shadow.get_attribute("d")
    page.get_by_role("slider", name="Hour by the mean sun").press("ArrowRight")
    expect(shadow).not_to_have_attribute("d", noon or "")
    page.get_by_label("Shadow on").select_option(label="Rear")
    expect(page.locator("[data-panel='p5']")).to_have_attribute("aria-pressed", "true")
    page.get_by_label("Year or month").select_option("December")
    expect(page.get_by_role("columnheader", name="a day").first).to_be_visible()
    page.get_by_label("Climate", exact=True).select_option("Kargfeld")
    expect(page.get_by_text("Kargfeld: south, dry and hot (invented site)")).to_be_visible()
    page.get_by_label("It is").select_option("heading")
    expect(page.get_by_text("The heading is not known.")).to_be_visible()
    page.get_by_label("Front points to, north 0°").fill("90")
    page.get_by_label("Front points to, north 0°").press("Enter")
    expect(page.get_by_text("parked, front towards 90°")).to_be_visible()
    page.get_by_role("row", name=re.compile("^Rear")).get_by_role("button").nth(1).click()
    expect(page.get_by_role("dialog")).to_contain_text("temperature of the cells")
    page.keyboard.press("Escape")
    part(page, "Panels")
    expect(page.locator("[data-shadow]")).to_have_count(0)


def test_models_from_a_table_into_the_shop_and_the_job(page: Page) -> None:
    open_demo(page, "layout")
    part(page, "Models")
    page.get_by_label("Load a table of panel models").set_input_files(
        {"name": "modules.csv", "mimeType": "text/csv", "buffer": OPEN_COLUMNS.encode()}
    )
    expect(page.get_by_text("0 can be taken, 2 not.")).to_be_visible()
    page.get_by_label("frame, if not in it").fill("35")
    page.get_by_label("mass, if not in it").fill("18")
    page.get_by_label("mass, if not in it").press("Tab")
    press(page, "Take 2 into the shop")
    expect(page.get_by_role("cell", name="Row one", exact=True)).to_be_visible()
    page.get_by_label("copy").select_option("Row one")
    expect(page.get_by_label("Voc, open")).to_have_value("37.8 V")
    page.get_by_label("Bypass diodes").fill("3")
    page.get_by_label("Bypass diodes").press("Enter")
    page.get_by_label("Frame holes from one end").fill("250 mm; 1400 mm")
    page.get_by_label("Frame holes from one end").press("Enter")
    saved(page)
    part(page, "Panels")
    press(page, "+ Row one", exact=False)
    saved(page)
    exported = page.request.get(f"/api/jobs/{page.url.split('/jobs/')[1].split('/')[0]}").json()["job"]
    model = exported["panels"][-1]["model"]
    assert model["bypass_diodes"] == 3 and [h["mm"] for h in model["holes"]] == [250, 1400], json.dumps(model)


def test_a_walkway_and_an_overhang_are_rules(page: Page) -> None:
    open_demo(page, "layout")
    part(page, "Rules")
    for column, text in {
        "name": "Way aft",
        "x, front": "200 mm",
        "y, middle": "-700 mm",
        "length": "1 m",
        "width": "400 mm",
    }.items():
        page.get_by_label(f"New free area: {column}", exact=True).fill(text)
    page.get_by_label("New free area: width", exact=True).press("Enter")
    expect(page.get_by_role("group", name="List of snags")).to_contain_text("Front port on Way aft")
    page.get_by_label("port edge", exact=True).fill("-100 mm")
    page.get_by_label("port edge", exact=True).press("Enter")
    saved(page)
    expect(page.get_by_label("port edge", exact=True)).to_have_value("-100 mm")


def test_a_drag_asks_for_what_is_in_sight_and_for_all_once_the_hand_rests(page: Page) -> None:
    open_demo(page, "layout")
    asked: list[list[str] | None] = []

    def note(request: Request) -> None:
        if request.url.endswith("/what-if"):
            body = json.loads(request.post_data or "{}")
            if body["edits"]:
                asked.append(body["stations"])

    page.on("request", note)
    box = page.locator("[data-panel='p1']").bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 40, box["y"] + 40)
    page.mouse.down()
    page.mouse.move(box["x"] + 70, box["y"] + 40, steps=5)
    with page.expect_request(lambda r: "/what-if" in r.url and '"stations":null' in (r.post_data or "")):
        pass
    assert asked[0] is not None and set(asked[0]) == {"survey", "structure", "layout", "hold"}
    page.keyboard.press("Escape")
    page.mouse.up()
