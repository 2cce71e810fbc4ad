"""Figures over HTTP and in the real browser, against a real server process."""

from __future__ import annotations

import json
import statistics
import time
import urllib.request
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, sync_playwright

from bench.figures import line
from bench.jobs import large_job
from fahrtwind.files.job_file import write_job
from tests.browser.conftest import Server

#: no wait of the bench is longer, ms
PATIENCE = 30_000
#: one panel is dragged step by step; a step that a snap swallows moves no picture and is left out
DRAG = """
async ([panel, steps, patience]) => {
  const target = document.querySelector(`[data-panel="${panel}"]`);
  const box = target.getBoundingClientRect();
  const fire = (type, x, y) => target.dispatchEvent(new PointerEvent(type, {
    bubbles: true, pointerId: 1, button: 0, buttons: 1, clientX: x, clientY: y }));
  target.setPointerCapture = () => {};
  const frame = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
  const strip = target.closest("svg");
  const ahead = () => [...strip.querySelectorAll("[data-ahead]")].map((e) => e.outerHTML).join("");
  const picture = () => target.getAttribute("transform") + ahead();
  const verdict = () => [...strip.querySelectorAll("text")].map((t) => t.textContent).join("|");
  const [x, y] = [box.x + 20, box.y + 10];
  fire("pointerdown", x, y);
  await frame();
  const seen = [], told = [], waited = [];
  for (let i = 1; i <= steps; i += 1) {
    const before = [picture(), verdict()];
    const start = performance.now();
    const over = () => performance.now() - start > patience;
    fire("pointermove", x + 4 + i * 9, y);
    while (picture() === before[0] && !over()) await frame();
    if (over()) { waited.push(`step ${i}: the picture did not move`); continue; }
    seen.push(performance.now() - start);
    while (verdict() === before[1] && !over()) await frame();
    if (over()) { waited.push(`step ${i}: no new distances`); continue; }
    told.push(performance.now() - start);
  }
  fire("pointerup", x + 4 + steps * 9, y);
  return [seen, told, waited];
}
"""


def post(url: str, body: Any) -> Any:
    request = urllib.request.Request(url, json.dumps(body).encode(), {"content-type": "application/json"})
    with urllib.request.urlopen(request, timeout=PATIENCE / 1000) as answer:
        return json.load(answer)


def over_http_and_in_the_browser(folder: Path) -> None:
    server = Server(folder)
    try:
        job = _imported(server)
        demo = next(
            j["id"]
            for j in json.load(urllib.request.urlopen(f"{server.url}/api/jobs"))
            if j["name"] == "Lichtspiel"
        )
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
            line(
                "opening the demo job to a usable picture",
                statistics.median(_openings(browser, server.url, demo)),
                "ms",
                1500,
            )
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(f"{server.url}/jobs/{job}/layout")
            page.locator('[data-panel="p4"]').wait_for(timeout=PATIENCE)
            _dragging(page)
            browser.close()
        line(
            "one panel's new position stored and judged over HTTP",
            statistics.median(_edits(server, _imported(server))),
            "ms",
            50,
        )
    finally:
        server.kill()


def _imported(server: Server) -> str:
    upload = urllib.request.Request(
        f"{server.url}/api/jobs/import?client=bench",
        write_job(large_job()).encode(),
        {"content-type": "application/octet-stream"},
    )
    with urllib.request.urlopen(upload, timeout=PATIENCE / 1000) as answer:
        return str(json.load(answer)["id"])


def _dragging(page: Page) -> None:
    seen, told, waited = page.evaluate(DRAG, ["p4", 20, PATIENCE])
    for words in waited:
        print(f"  dragging, {words} within {PATIENCE} ms")
    for words, taken in (("picture", seen), ("the new distances and verdict", told)):
        if taken:
            line(f"dragging: pointer to {words}", statistics.median(taken), "ms", 100)


def _edits(server: Server, job: str) -> list[float]:
    """Taken last, when the server has brought in what it brings in behind the first answers."""
    taken = []
    for i in range(60):
        edits = [{"op": "set", "path": "panels.p4.x", "value": {"mm": 4040 + i}}]
        start = time.perf_counter()
        post(
            f"{server.url}/api/jobs/{job}/edits",
            {"base_revision": 1 + i, "client": "bench", "edit_id": f"b{i}", "edits": edits},
        )
        taken.append((time.perf_counter() - start) * 1000)
    return taken


def _openings(browser: Any, url: str, job: str) -> list[float]:
    taken = []
    for _ in range(7):
        page: Page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
        start = time.perf_counter()
        page.goto(f"{url}/jobs/{job}/hold", wait_until="commit")
        page.locator("[data-foot]").first.wait_for(timeout=PATIENCE)
        taken.append((time.perf_counter() - start) * 1000)
        page.close()
    return taken
