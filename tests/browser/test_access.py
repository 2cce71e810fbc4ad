"""Automatic accessibility check of every screen (axe), in both themes; and proof that the check can fail."""

from __future__ import annotations

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.conftest import go, open_demo

pytestmark = pytest.mark.browser
STATIONS = ("survey", "structure", "layout", "hold", "build", "seal", "wire", "days", "roof-day", "log")
WHOLE = ("survey", "layout", "days")
"""Stations at which the whole page is looked at: head, strip and snags are the same at the others."""
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "best-practice"]


def faults(page: Page, within: str | None = None, rules: list[str] = RULES) -> list[str]:
    """What axe finds; ``within`` a part of the page where the rest was looked at before."""
    options = {"runOnly": rules, "resultTypes": ["violations"]}
    found = Axe().run(page, context=within, options=options)
    return [f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in found.response["violations"]]


@pytest.mark.parametrize("theme", ["shop", "sun"])
def test_every_screen_passes(page: Page, theme: str) -> None:
    page.goto("/")
    page.evaluate("theme => localStorage.setItem('theme', theme)", theme)
    page.reload()
    expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
    assert faults(page) == []
    open_demo(page)
    for station in STATIONS:
        go(page, station)
        if station == "layout":
            page.locator("[data-panel='p1']").focus()
        if theme == "sun":  # the same page in other colours
            assert faults(page, rules=["color-contrast"]) == [], station
        else:
            assert faults(page, None if station in WHOLE else "#station") == [], station
            for tab in page.get_by_role("tab").all()[1:]:
                tab.click()
                assert faults(page, "#station") == [], tab.inner_text()
    page.get_by_role("button", name="Show side and cross-section").click()
    assert faults(page) == []
    go(page, "hold")
    page.get_by_role("list", name="Links of the chain").get_by_role("button").first.click()
    expect(page.get_by_role("dialog").get_by_text("Source").first).to_be_visible()
    assert faults(page) == []


def test_what_a_rack_shows_in_the_workshop_passes(page: Page) -> None:
    """The first job has no carrier: all parts of Build and Seal once more where there are pieces."""
    open_demo(page, "build", "Speiche")
    for station in ("build", "seal"):
        go(page, station)
        for tab in page.get_by_role("tab").all():
            tab.click()
            assert faults(page, "#station") == [], tab.inner_text()


@pytest.mark.parametrize("theme", ["shop", "sun"])
def test_every_page_of_the_phone_passes(page: Page, theme: str) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto("/")
    page.evaluate("theme => localStorage.setItem('theme', theme)", theme)
    page.reload()
    open_demo(page, "roof-day")
    expect(page.get_by_role("heading", name="Before the ladder")).to_be_visible()
    assert faults(page) == []
    page.get_by_role("button", name="Climb").click()
    page.get_by_role("button", name="Step 8, Drill one").click()
    page.get_by_role("button", name="What was found here").click()
    page.get_by_role("button", name="Roof", exact=True).click()
    expect(page.get_by_role("region", name="Not as planned").get_by_role("button").first).to_be_visible()
    assert faults(page) == []
    page.get_by_role("button", name="Step 15, Seal").click()
    page.get_by_role("button", name="Start: tool the bead").click()
    assert faults(page) == []
    page.get_by_role("button", name="Plan", exact=True).click()
    page.get_by_role("link", name="Log").click()
    page.get_by_role("button", name="is not sound").first.click()
    assert faults(page) == []


def test_the_check_finds_a_seeded_fault(page: Page) -> None:
    page.goto("/")
    expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
    page.evaluate(
        "document.querySelector('main').insertAdjacentHTML('beforeend', '<img "
        'src="x.png"><button></button>\')'
    )
    assert {f.split(":")[0] for f in faults(page)} >= {"image-alt", "button-name"}


def test_it_fits_a_tablet_and_a_phone(page: Page) -> None:
    open_demo(page, "survey", "Speiche")
    for width, height in ((1024, 700), (390, 800)):
        page.set_viewport_size({"width": width, "height": height})
        for station in ("survey", "structure", "layout", "build", "seal"):
            go(page, station)
            for tab in page.get_by_role("tab").all():
                tab.click()
                assert page.evaluate("document.documentElement.scrollWidth") <= width + 1, tab.inner_text()
    go(page, "roof-day")
    for width, height in ((1024, 700), (390, 800)):
        page.set_viewport_size({"width": width, "height": height})
        told = "marks from the datum" if width > 640 else "Before the ladder"
        expect(page.get_by_role("heading", name=told)).to_be_attached()
        assert page.evaluate("document.documentElement.scrollWidth") <= width + 1
