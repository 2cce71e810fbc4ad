"""The Log in the real interface: written down, corrected, photographed; what is due, what was found."""

from __future__ import annotations

import struct
import zlib

from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Server, open_demo, saved


def picture(width: int, height: int) -> bytes:
    """A PNG of one grey."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    rows = zlib.compress(b"".join(b"\0" + b"\x90" * width for _ in range(height)))
    head = struct.pack(">IIBBBBB", width, height, 8, 0, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")


def test_the_record_grows_and_a_photograph_is_made_small(page: Page) -> None:
    open_demo(page, "log", "speiche")
    page.get_by_label("What", exact=True).fill("Two bolts of the front bar cut to 55 mm")
    page.get_by_role("button", name="Write it down").focus()
    page.keyboard.press("Enter")
    entries = page.get_by_role("list", name="Entries")
    expect(entries.get_by_text("Two bolts of the front bar")).to_be_visible()
    page.get_by_role("button", name="Correct entry 1").click()
    page.get_by_label("What is right").fill("It was the rear bar")
    page.get_by_role("button", name="Write it down").click()
    expect(entries.get_by_text("Corrects 1: It was the rear bar")).to_be_visible()
    expect(entries.get_by_text("Two bolts of the front bar")).to_be_visible()
    page.get_by_label("It is").select_option("torque")
    page.get_by_label("What", exact=True).fill("8.5 N·m")
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_text("3 entries, the chain is whole")).to_be_visible()
    box = page.locator("main input[type=file]")
    huge = {"name": "roof.png", "mimeType": "image/png", "buffer": picture(3200, 2000)}
    box.set_input_files(huge)  # type: ignore[arg-type]
    shown = entries.get_by_role("img")
    expect(shown).to_be_visible()
    size = "async i => { await i.decode(); return [i.naturalWidth, i.naturalHeight]; }"
    assert shown.evaluate(size) == [1600, 1000]
    wrong = {"name": "roof.png", "mimeType": "image/png", "buffer": b"no picture at all"}
    box.set_input_files(wrong)  # type: ignore[arg-type]
    expect(page.get_by_role("alert")).to_contain_text("no picture")


def test_what_is_due_and_what_was_found_stands_on_the_first_page_too(page: Page) -> None:
    open_demo(page, "log", "speiche")
    page.get_by_role("tab", name="Still tight?").focus()
    page.keyboard.press("Enter")
    page.get_by_label("Drives since").fill("2026-01-05")
    expect(page.get_by_text("every bolt after the first 100 km")).to_be_visible()
    page.get_by_role("button", name="Write down a look").click()
    page.get_by_label("Found").select_option("loose foot")
    expect(page.get_by_text("slowly home").first).to_be_visible()
    expect(page.get_by_role("region", name="Snags").get_by_text("Found, and not mended")).to_be_visible()
    expect(page.get_by_text("Refused").first).to_be_visible()
    page.get_by_role("tab", name="Handover").click()
    with page.expect_download() as loading:
        page.get_by_role("link", name="Handover sheet, PDF").click()
    assert loading.value.suggested_filename.endswith("handover.pdf")
    saved(page)
    page.goto("/")
    expect(page.get_by_text("mend and look again").first).to_be_visible()


def test_the_round_goes_from_place_to_place_on_a_phone(browser: Browser, server: Server) -> None:
    context = browser.new_context(
        base_url=server.url, viewport={"width": 390, "height": 844}, has_touch=True, reduced_motion="reduce"
    )
    page = context.new_page()
    open_demo(page, "survey", "wasserlaeufer")
    page.goto(page.url.replace("/survey", "/log"))
    expect(page.get_by_text("3 of 3 places still to look at")).to_be_visible()
    expect(page.get_by_text("paint marks in line").first).to_be_visible()
    page.get_by_role("button", name="Arch, seal is not sound").press("Enter")
    page.get_by_role("button", name="a lifted edge").tap()
    expect(page.get_by_text("slowly home")).to_be_visible()
    expect(page.get_by_role("alert").first).to_contain_text("do not drive on")
    whole = page.get_by_role("button", name="All round: sound")
    for place in ("Arch", "cables"):
        page.get_by_role("button", name=f"{place} is sound", exact=True).tap()
    expect(page.get_by_text("Mend what was found")).to_be_visible()
    expect(whole).to_be_disabled()
    page.get_by_role("button", name="Take back what was found at Arch, seal").tap()
    page.get_by_role("button", name="Arch, seal is sound").tap()
    seen = {"name": "seal.png", "mimeType": "image/png", "buffer": picture(300, 200)}
    page.get_by_label("Picture of Arch, seal").set_input_files(seen)  # type: ignore[arg-type]
    expect(page.get_by_alt_text("Arch, seal, as seen last")).to_be_visible()
    whole.tap()
    expect(page.get_by_text("Looked at all round today")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") == 390
    context.close()


def test_the_list_shows_every_roof_with_what_stops_it_and_what_comes_next(page: Page) -> None:
    page.goto("/")
    row = page.get_by_role("link").filter(has_text="Lichtspiel").last
    row.scroll_into_view_if_needed()  # a row is looked at when it comes into sight
    expect(row).to_contain_text("Foot off plan")
    expect(row).to_contain_text("Next:")
    expect(row.get_by_role("img", name="Lichtspiel: refused")).to_be_visible()
    row.press("Enter")
    expect(page.get_by_role("heading", level=1, name="Roof day")).to_be_visible()


def test_a_scar_is_photographed_where_it_is_listed(page: Page) -> None:
    open_demo(page, "survey", "feldlabor")
    page.get_by_role("tab", name="Old work").press("Enter")
    seen = {"name": "scar.png", "mimeType": "image/png", "buffer": picture(300, 200)}
    page.get_by_label("Picture of scar h2").set_input_files(seen)  # type: ignore[arg-type]
    expect(page.get_by_alt_text("scar h2, as seen last")).to_be_visible()
    expect(page.get_by_alt_text("as seen last")).to_have_count(1)


def test_a_reading_of_a_bolt_that_is_gone_is_taken_back_at_the_desk(page: Page) -> None:
    """What the snag asks for can be done where it says."""
    open_demo(page, "roof-day", "speiche")
    job = page.url.split("/jobs/")[1].split("/")[0]
    revision = page.request.get(f"/api/jobs/{job}/revision").json()["revision"]
    read = {"op": "note_reading", "step": "torque", "what": "torque", "value": "9 N·m"}
    gone = {"op": "record_foot", "holder": "p1", "foot": "f99", "anew": True, "pilot": "solid"}
    at = {name: {"mm": 500} for name in ("foot_x", "foot_y", "mark_x", "mark_y")}
    edits = [{**read, "holder": "b1", "bolt": "M12 nowhere"}, {**gone, **at}]
    body = {"base_revision": revision, "client": "phone", "edit_id": "torque1", "edits": edits}
    assert page.request.post(f"/api/jobs/{job}/edits", data=body).ok
    page.reload()
    records = page.get_by_role("list", name="Records").get_by_role("listitem")
    expect(records).to_have_count(2)
    expect(page.get_by_text("Torque of a bolt that is not planned")).to_be_visible()
    page.get_by_role("button", name="Take back the record: b1, M12 nowhere").press("Enter")
    expect(page.get_by_text("Torque of a bolt that is not planned")).to_be_hidden()
    page.get_by_role("button", name="Take back the record: p1 f99").click()
    expect(records).to_have_count(0)
