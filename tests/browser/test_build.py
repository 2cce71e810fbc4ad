"""Build in the running application: every part of it, by mouse and by keyboard."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_demo, saved


def part(page: Page, name: str) -> None:
    """A part of the station, opened by keyboard."""
    page.get_by_role("tab", name=name).focus()
    page.keyboard.press("Enter")


def test_bars_are_typed_and_the_cut_list_follows(page: Page) -> None:
    open_demo(page, "build", "Speiche")
    expect(page.get_by_text("2 bars, 77.00")).to_be_visible()
    expect(page.get_by_text("Nothing is cheaper: proved.").first).to_be_visible()
    price = page.get_by_label("price of one, row 1")
    price.fill("no idea")
    price.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="the job uses 38.5")).to_be_visible()
    for typed, kept in (("38,60", "38.6"), ("38,50", "38.5")):
        price.fill(typed)
        price.press("Enter")
        saved(page)
        expect(price).to_have_value(kept)
    long = page.get_by_label("New bar: length")
    long.fill("9 m")
    long.press("Tab")
    page.keyboard.type("fifty")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="“fifty” is not a number")).to_be_visible()
    page.get_by_label("New bar: price of one").fill("50,00")
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


def test_a_piece_is_chosen_by_keyboard_changed_and_put_back(page: Page) -> None:
    open_demo(page, "build", "Speiche")
    part(page, "Pieces")
    page.get_by_role("button", name="4 alike").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("b1-a1, b1-a2, b1-a3, b1-a4")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("113 mm front – 4 mm|113 mm front 4 mm"))).to_be_visible()
    expect(page.get_by_role("img", name="upper face: 2 holes")).to_be_visible()
    page.get_by_role("button", name="Cut b1-a1 otherwise").click()
    length = page.get_by_label("Length of b1-a1")
    length.fill("1.62 m")
    length.press("Enter")
    saved(page)
    expect(page.get_by_text("The plan says 1600 mm.")).to_be_visible()
    expect(page.get_by_role("button", name="3 alike")).to_be_visible()
    page.get_by_role("button", name="Back to the plan").click()
    expect(page.get_by_role("button", name="4 alike")).to_be_visible()
    with page.expect_download() as told:
        page.get_by_role("link", name="Pieces and holes, CSV").click()
    assert "b1-a2" in told.value.path().read_text()
    page.get_by_label("Brackets are bent here").click()
    expect(page.get_by_text("Brackets", exact=True)).to_be_visible()
    open_demo(page, "build")
    expect(page.get_by_text("Panels on feet need no pieces")).to_be_visible()


def test_sleeves_let_bolts_be_tight_and_grease_forbids_glue(page: Page) -> None:
    open_demo(page, "build", "Speiche")
    part(page, "Bolts")
    row = page.get_by_role("row", name=re.compile("corners on the rails"))
    expect(row).to_contain_text("11.9 N·m")
    page.get_by_label("Spacer sleeves in closed tubes").click()
    expect(row).to_contain_text("2.1 N·m, the tube's wall")
    expect(page.get_by_text("A tight bolt dents its tube").first).to_be_visible()
    page.get_by_label("Locked by").select_option("threadlocker")
    expect(page.get_by_text("Anti-seize and threadlocker on one thread").first).to_be_visible()
    row.get_by_role("button", name="working").click()
    expect(page.get_by_role("dialog").get_by_text("tightening torque").first).to_be_visible()


def test_fit_metals_assembly_and_lifts_answer(page: Page) -> None:
    open_demo(page, "build", "Speiche")
    part(page, "Fit")
    slots = page.get_by_role("row", name=re.compile("front port"))
    expect(slots).to_contain_text("16 mm")
    page.get_by_label("Marking").fill("2 mm")
    page.get_by_label("Marking").press("Enter")
    expect(slots).to_contain_text("21 mm")
    page.get_by_label("Marking").fill("a bit")
    page.get_by_label("Marking").press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("Not stored")
    page.get_by_label("Marking").press("Escape")
    part(page, "Metals and coat")
    page.get_by_label("Plastic or foam between metals").click()
    expect(page.get_by_text("Unlike metals touch").first).to_be_visible()
    part(page, "Putting together")
    titles = page.locator("ol li")
    expect(titles.filter(has_text="powder-coat")).to_contain_text("Then wait 12 days.")
    part(page, "Lifting")
    people = page.get_by_label("People there")
    people.fill("1")
    people.press("Enter")
    expect(page.get_by_text("Too few people for this lift").first).to_be_visible()


def test_the_kit_is_ticked_off_and_stays_so(page: Page) -> None:
    open_demo(page, "build", "Speiche")
    part(page, "Kit")
    expect(page.get_by_text(re.compile(r"^\d+ to pack"))).to_be_visible()
    before = int(page.get_by_text(re.compile(r"^\d+ to pack")).inner_text().split()[0])
    page.get_by_label("centre punch").focus()
    page.keyboard.press("Space")
    expect(page.get_by_text(f"{before - 1} to pack")).to_be_visible()
    saved(page)
    page.reload()
    expect(page.get_by_label("centre punch")).to_be_checked()


def test_things_are_bought_from_the_shelf_and_kept_only_once(page: Page, tmp_path: Path) -> None:
    open_demo(page, "build", "Speiche")
    part(page, "Buying")
    expect(page.get_by_text("less than the bought rack")).to_be_visible()
    row = page.get_by_role("row", name=re.compile("bar 6063-T5, angle"))
    row.get_by_role("combobox").select_option("angle 40 × 40 × 4 6 m")
    expect(row).to_contain_text("2027-02-19")
    kept = row.get_by_role("textbox")
    kept.fill("2")
    kept.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("0 are free; 2 are wanted")
    kept.press("Escape")
    table = tmp_path / "items.csv"
    table.write_text("name,kind,price,stock\nslot nut M8,fastener,0.4,60\nbroken,fastener,much,1\n")
    page.locator("input[type=file]").set_input_files(table)
    expect(page.get_by_text("1 items can be taken, 1 cannot:")).to_be_visible()
    page.get_by_role("button", name="Take 1 items").click()
    page.get_by_label("find").fill("slot nut")
    expect(page.get_by_role("row", name=re.compile("slot nut M8 fastener"))).to_be_visible()
    with page.expect_download() as told:
        page.get_by_role("link", name="quote, PDF").click()
    assert told.value.path().read_bytes().startswith(b"%PDF")
