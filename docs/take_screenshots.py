"""Take the pictures in docs/screenshots from the demo data: ``make screenshots``."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tests.browser.conftest import Server

TARGET = Path(__file__).parent / "screenshots"
SETTLE_MS = 900


def nothing(page: Page) -> None:
    """The station as it opens."""


def select_panel(page: Page) -> None:
    page.locator("[data-panel='p3']").focus()


def open_working(page: Page) -> None:
    page.get_by_role("list", name="Links of the chain").get_by_role("button").last.click()
    page.get_by_role("dialog").get_by_text("Source").first.wait_for()


def sunlight(page: Page) -> None:
    page.get_by_role("button", name="Sunlight").click()


SHOTS: tuple[tuple[str, str, Callable[[Page], None]], ...] = (
    ("survey", "survey", nothing),
    ("structure", "structure", nothing),
    ("layout", "layout", select_panel),
    ("hold", "hold", nothing),
    ("working", "hold", open_working),
    ("roof-day", "roof-day", nothing),
    ("sunlight", "hold", sunlight),
)


def main() -> None:
    TARGET.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder))
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
        page = browser.new_page(viewport={"width": 1280, "height": 800}, base_url=server.url)
        page.goto("/")
        page.get_by_role("link", name="Lichtspiel").wait_for()
        page.screenshot(path=TARGET / "jobs.png")
        page.get_by_role("link", name="Lichtspiel").click()
        page.get_by_role("navigation", name="Stations").wait_for()
        job = page.url.rsplit("/", 1)[0]
        for name, station, prepare in SHOTS:
            page.goto(f"{job}/{station}")
            page.get_by_role("heading", level=1).wait_for()
            prepare(page)
            page.wait_for_timeout(SETTLE_MS)
            page.screenshot(path=TARGET / f"{name}.png")
        browser.close()
        server.kill()


if __name__ == "__main__":
    main()
