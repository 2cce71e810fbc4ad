"""Take the pictures in docs/screenshots from the demo data: ``make screenshots``."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from tests.browser.conftest import Server

TARGET = Path(__file__).parent / "screenshots"
SETTLE_MS = 900


def nothing(page: Page) -> None:
    """The station as it opens."""


def select_panel(page: Page) -> None:
    page.locator("[data-panel='p3']").focus()


def rack(page: Page) -> None:
    """Two panels on a rack over the factory points, and how its bars bend."""
    page.get_by_role("heading", name="Bending of rails and bars").wait_for()
    page.get_by_role("heading", name="Bending of rails and bars").scroll_into_view_if_needed()
    page.locator("main").evaluate("m => m.scrollBy(0, 60)")


def open_working(page: Page) -> None:
    page.get_by_role("list", name="Links of the chain").get_by_role("button").last.click()
    page.get_by_role("dialog").get_by_text("Source").first.wait_for()


def part(name: str, *, sections: bool = False) -> Callable[[Page], None]:
    """One part of a station, with the side view and cross-section where they belong to it."""

    def prepare(page: Page) -> None:
        if sections:
            page.get_by_role("button", name="Show side and cross-section").click()
        page.get_by_role("tab", name=name).click()
        if sections:
            frame = page.get_by_role("group", name="Roof seen from above", exact=False).bounding_box()
            assert frame is not None
            page.mouse.move(frame["x"] + 0.36 * frame["width"], frame["y"] + 0.5 * frame["height"])

    return prepare


def proposals(page: Page) -> None:
    page.get_by_role("tab", name="Proposals").click()
    page.get_by_role("button", name="Propose layouts").click()
    page.get_by_text("No layout gives more than").wait_for(timeout=60_000)
    page.get_by_role("button", name="Enough").wait_for(state="detached", timeout=100_000)
    page.locator("main").evaluate("m => m.scrollTo(0, 0)")


def ways(page: Page) -> None:
    page.get_by_role("tab", name="Ways to plug").click()
    page.get_by_text("none gives half a per cent more").wait_for(timeout=60_000)


def curves(page: Page) -> None:
    """An afternoon in December: shadows on the roof and the curves they make."""
    page.get_by_role("tab", name="Curves").click()
    page.get_by_label("Light").select_option("12")
    hour = page.get_by_role("slider", name="Hour by the mean sun")
    for _ in range(5):
        hour.press("ArrowRight")
    page.get_by_role("img", name="Curves of Stromwart D").scroll_into_view_if_needed()


def shade(page: Page) -> None:
    page.get_by_role("tab", name="Sun and shade").click()
    page.get_by_role("heading", name="When the shadow falls").wait_for(timeout=20_000)
    page.get_by_label("Shadow on").select_option(label="Rear")
    page.locator("main").evaluate("m => m.scrollTo(0, 460)")


def days(page: Page) -> None:
    """The plan between two days of rain and the step that waits for a warm skin."""
    page.get_by_text("Proved").wait_for(timeout=60_000)
    page.get_by_role("group", name="Road of days").get_by_role("button", name="Stick").first.press("Enter")
    page.get_by_label("Why not on").fill("2026-09-22")
    page.locator("main").evaluate("m => m.scrollTo(0, 70)")


def together(page: Page) -> None:
    """Three vehicles that share two people."""
    page.get_by_role("tab", name="Other vehicles").click()
    page.get_by_text("Proved: in sum").wait_for(timeout=60_000)
    page.locator("main").evaluate("m => m.scrollTo(0, 142)")


def roofs(page: Page) -> None:
    """Every roof of the list, drawn."""
    for name in ("Feldlabor", "Imkerwagen", "Lichtspiel", "Speiche", "Wasserläufer"):
        page.get_by_role("img", name=name).wait_for(timeout=60_000)


def ways_out(page: Page) -> None:
    """What can be done about a hole that is off."""
    page.get_by_role("region", name="Not as planned").get_by_role("button").first.wait_for(timeout=60_000)


def look_round(page: Page) -> None:
    """A place is sound, at the next something was found."""
    page.get_by_role("button", name="is sound").first.click()
    page.get_by_role("button", name="is not sound").first.click()
    page.get_by_role("button", name="a lifted edge").click()
    page.get_by_role("status").get_by_text("slowly home").wait_for()


def on_the_phone(page: Page) -> None:
    """The third foot in hand, after five steps are done."""
    page.get_by_role("button", name="Climb").click()
    for _ in range(5):
        page.get_by_role("button", name="Done", exact=True).click()
    for _ in range(2):
        page.get_by_role("button", name="Next foot").click()


DESK, PHONE = (1280, 800), (390, 844)
Shot = tuple[str, str, str, Callable[[Page], None]]
SHOTS: tuple[Shot, ...] = (
    ("survey", "Feldlabor", "survey", part("Old work")),
    ("crown", "Lichtspiel", "survey", part("Crown", sections=True)),
    ("structure", "Lichtspiel", "structure", nothing),
    ("layout", "Lichtspiel", "layout", select_panel),
    ("proposals", "Lichtspiel", "layout", proposals),
    ("shade", "Lichtspiel", "layout", shade),
    ("hold", "Lichtspiel", "hold", nothing),
    ("rack", "Speiche", "hold", rack),
    ("build", "Speiche", "build", part("Pieces")),
    ("seal", "Lichtspiel", "seal", part("Layers")),
    ("wire", "Lichtspiel", "wire", ways),
    ("curves", "Lichtspiel", "wire", curves),
    ("days", "Imkerwagen", "days", days),
    ("together", "Speiche", "days", together),
    ("working", "Lichtspiel", "hold", open_working),
    ("roof-day", "Lichtspiel", "roof-day", ways_out),
    ("look", "Wasserläufer", "log", look_round),
    ("phone", "Lichtspiel", "roof-day", on_the_phone),
)


def main() -> None:
    """All pictures; what fails ends the server too, which would wait for ever."""
    TARGET.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        try:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
            for shot in (("jobs", "", "", roofs), *SHOTS):
                take(browser, server.url, shot)
            browser.close()
        finally:
            server.kill()


def take(browser: Browser, url: str, shot: Shot) -> None:
    name, job, station, prepare = shot
    width, height = PHONE if name in ("phone", "look") else DESK
    page = browser.new_context(viewport={"width": width, "height": height}, base_url=url).new_page()
    page.goto("/")
    page.get_by_role("link", name="Lichtspiel").wait_for()
    if job:
        page.get_by_role("link", name=job).click()
        page.wait_for_url("**/jobs/*/*")  # a phone may be led to its own pages
        page.goto(f"{page.url.rsplit('/', 1)[0]}/{station}")
        page.get_by_role("heading", level=1).wait_for()
    prepare(page)
    page.wait_for_timeout(SETTLE_MS)
    page.screenshot(path=TARGET / f"{name}.png")
    page.context.close()


if __name__ == "__main__":
    main()
