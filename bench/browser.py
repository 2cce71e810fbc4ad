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

DRAG = """
async ([panel, steps]) => {
  const target = document.querySelector(`[data-panel="${panel}"]`);
  const box = target.getBoundingClientRect();
  const fire = (type, x, y) => target.dispatchEvent(new PointerEvent(type, {
    bubbles: true, pointerId: 1, button: 0, buttons: 1, clientX: x, clientY: y }));
  target.setPointerCapture = () => {};
  const frame = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
  const strip = target.closest("svg");
  const verdict = () => [...strip.querySelectorAll("text")].map((t) => t.textContent).join("|");
  let [x, y] = [box.x + 20, box.y + 10];
  fire("pointerdown", x, y);
  await frame();
  const picture = [], told = [];
  for (let i = 1; i <= steps; i += 1) {
    const before = [target.getAttribute("transform"), verdict()];
    const start = performance.now();
    fire("pointermove", x + 4 + i * 2, y);
    while (target.getAttribute("transform") === before[0]) await frame();
    picture.push(performance.now() - start);
    while (verdict() === before[1] && performance.now() - start < 2000) await frame();
    told.push(performance.now() - start);
  }
  fire("pointerup", x + 4 + steps * 2, y);
  return [picture, told];
}
"""


def post(url: str, body: Any) -> Any:
    request = urllib.request.Request(url, json.dumps(body).encode(), {"content-type": "application/json"})
    with urllib.request.urlopen(request) as answer:
        return json.load(answer)


def over_http_and_in_the_browser(folder: Path) -> None:
    server = Server(folder)
    try:
        upload = urllib.request.Request(
            f"{server.url}/api/jobs/import?client=bench",
            write_job(large_job()).encode(),
            {"content-type": "application/octet-stream"},
        )
        with urllib.request.urlopen(upload) as answer:
            job = json.load(answer)["id"]
        line("one panel's new position stored and judged over HTTP", statistics.median(_edits(server, job)), "ms", 50)
        demo = next(j["id"] for j in json.load(urllib.request.urlopen(f"{server.url}/api/jobs")) if j["name"] == "Lichtspiel")
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium")
            line("opening the demo job to a usable picture", statistics.median(_openings(browser, server.url, demo)), "ms", 1500)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(f"{server.url}/jobs/{job}/layout")
            page.locator('[data-panel="p4"]').wait_for()
            picture, told = page.evaluate(DRAG, ["p4", 40])
            line("dragging: pointer to picture", statistics.median(picture), "ms", 100)
            line("dragging: pointer to the new distances and verdict", statistics.median(told), "ms", 100)
            browser.close()
    finally:
        server.kill()


def _edits(server: Server, job: str) -> list[float]:
    taken = []
    for i in range(60):
        edits = [{"op": "set", "path": "panels.p4.x", "value": {"mm": 4040 + i}}]
        start = time.perf_counter()
        post(
            f"{server.url}/api/jobs/{job}/edits", {"base_revision": 1 + i, "client": "bench", "edit_id": f"b{i}", "edits": edits}
        )
        taken.append((time.perf_counter() - start) * 1000)
    return taken


def _openings(browser: Any, url: str, job: str) -> list[float]:
    taken = []
    for _ in range(7):
        page: Page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
        start = time.perf_counter()
        page.goto(f"{url}/jobs/{job}/hold", wait_until="commit")
        page.locator("[data-foot]").first.wait_for()
        taken.append((time.perf_counter() - start) * 1000)
        page.close()
    return taken
