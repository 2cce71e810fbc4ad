"""Hands: the real interface is clicked, typed into and dragged as by somebody who tries everything, on the
desk and on a phone. No script may fail, no answer may be the server's fault, nothing may be shown that is no
word for a person, no page may be wider than its window. Seeded.
"""

from __future__ import annotations

import random
import re
import tempfile
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import suppress
from pathlib import Path

from playwright.sync_api import Browser, ElementHandle, Error, Page, ViewportSize, sync_playwright

from bench.figures import line
from fahrtwind.demo import FOLDER
from tests.browser.conftest import Server, open_demo

ROUNDS, STEPS, SETTLE_MS, PATIENT_MS = 10, 60, 120, 3000
DESK: ViewportSize = {"width": 1280, "height": 800}
PHONE: ViewportSize = {"width": 390, "height": 844}
STATIONS = ("survey", "structure", "layout", "hold", "build", "seal", "wire", "days", "roof-day", "log")
BUTTONS = (
    "main button, main [role=tab], main summary, main [role=button], [role=dialog] button, header button"
)
BOXES = (
    "main input:not([type=checkbox]):not([type=radio]):not([type=range]):not([type=file]), main textarea, "
    "[role=dialog] input:not([type=checkbox]):not([type=file])"
)
CHOICES = "main input[type=checkbox], main input[type=radio], main select, [role=dialog] select"
TYPED = (
    "",
    "12",
    "300 mm",
    "-5",
    "abc",
    "1e9",
    "0",
    "5 5/16",
    "ß€ 漢",
    "0.001",
    "2.4 m",
    "50 %",
    "3,5",
    "M6",
)
KEYS = ("Escape", "Delete", "Control+z", "Control+y", "Tab", "Enter", "Shift+Tab", " ", "m", "r")
ARROWS = ("ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown")
NO_WORDS = re.compile(r"undefined|\bNaN\b|\[object Object\]|\bInfinity\b|\bnull\b|\bNone\b|Traceback")
REFUSED = re.compile(r"status of 4\d\d")
"""A refusal is an answer; the browser writes it on its console all the same."""


def hands(rounds: int = ROUNDS) -> None:
    jobs = [path.stem for path in sorted(FOLDER.glob("*.json"))]
    wrong: Counter[str] = Counter()
    server = Server(Path(tempfile.mkdtemp()))
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
            for number in range(rounds):
                size = PHONE if number % 3 == 2 else DESK
                wrong.update(_round(browser, server, jobs[number % len(jobs)], size, random.Random(number)))
            browser.close()
    finally:
        server.kill()
    for words, times in wrong.most_common():
        print(f"  {times} times: {words}")
    line("hands on the interface: what went wrong", wrong.total(), "times", 0)


def _round(browser: Browser, server: Server, job: str, size: ViewportSize, dice: random.Random) -> list[str]:
    """What went wrong while one job was tried."""
    context = browser.new_context(base_url=server.url, viewport=size, accept_downloads=True)
    page, wrong = context.new_page(), []
    page.on("dialog", lambda dialog: dialog.accept())
    page.on("pageerror", lambda error: wrong.append(f"{job}: script: {error}"))
    page.on(
        "console",
        lambda said: wrong.append(f"{job}: {said.text}") if _is_fault(said.type, said.text) else None,
    )
    page.on("response", lambda r: wrong.append(f"{r.status} {r.url}") if r.status >= 500 else None)
    open_demo(page, "roof-day" if size is PHONE else "survey", job)
    page.set_default_timeout(PATIENT_MS)
    for _ in range(STEPS):
        with suppress(Error):  # what was there a moment ago is gone or covered
            _step(page, dice, size)
        page.wait_for_timeout(SETTLE_MS)
        wrong += [f"{job}: {words}" for words in _seen(page, size)]
    context.close()
    return list(dict.fromkeys(wrong))


def _is_fault(kind: str, text: str) -> bool:
    return kind == "error" and not REFUSED.search(text)


def _step(page: Page, dice: random.Random, size: ViewportSize) -> None:
    stations = STATIONS[-2:] if size is PHONE else STATIONS
    tries: tuple[tuple[int, Callable[[], None]], ...] = (
        (8, lambda: _go(page, dice.choice(stations))),
        (42, lambda: _one(page, BUTTONS, dice).click()),
        (22, lambda: _type(page, dice)),
        (12, lambda: _choose(_one(page, CHOICES, dice), dice)),
        (10, lambda: page.keyboard.press(dice.choice(KEYS + ARROWS))),
        (6, lambda: _drag(page, dice, size)),
    )
    dice.choices([do for _, do in tries], [weight for weight, _ in tries])[0]()


def _go(page: Page, station: str) -> None:
    title = station.replace("-", " ").capitalize()
    page.get_by_role("navigation", name="Stations").get_by_text(title).first.click()


def _one(page: Page, which: str, dice: random.Random) -> ElementHandle:
    """Raises Error where there is none to be touched."""
    there = [e for e in page.query_selector_all(which) if e.is_visible() and e.is_enabled()]
    if not there:
        raise Error("nothing there")
    return dice.choice(there)


def _type(page: Page, dice: random.Random) -> None:
    _one(page, BOXES, dice).fill(dice.choice(TYPED))
    page.keyboard.press(dice.choice(("Enter", "Tab", "Escape")))


def _choose(found: ElementHandle, dice: random.Random) -> None:
    options = found.evaluate("e => e.options ? [...e.options].map((o) => o.value) : null")
    if options is None:
        found.click()
    elif options:
        found.select_option(dice.choice(options))


def _drag(page: Page, dice: random.Random, size: ViewportSize) -> None:
    x, y = dice.uniform(0.06, 0.75) * size["width"], dice.uniform(110, 390)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dice.uniform(-300, 300), y + dice.uniform(-300, 300), steps=4)
    page.mouse.up()


def _seen(page: Page, size: ViewportSize) -> Iterator[str]:
    text = page.evaluate("document.body.innerText")
    if len(text) < 30:
        yield "an empty page"
    for found in NO_WORDS.finditer(text):
        yield f"shown: {text[max(0, found.start() - 40) : found.end() + 20]!r}"
    if page.evaluate("[...document.querySelectorAll('select')].some((e) => !e.options.length)"):
        yield "an empty choice"
    if page.evaluate("document.documentElement.scrollWidth") > size["width"]:
        yield "wider than its window"
