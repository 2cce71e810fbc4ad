"""The real interface: the built front end served by a real process, driven in Debian's headless Chromium."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

# the longest wait before a failure, not a speed: a busy machine may take its time
PATIENT_MS = 90_000
expect.set_options(timeout=PATIENT_MS)


class Server:
    """A server process on its own database; can be killed and started again on the same port."""

    def __init__(self, folder: Path) -> None:
        self.port, self.phones_port = _free_port(), _free_port()
        self.database = folder / "browser.db"
        self.url = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self) -> None:
        command = [
            sys.executable,
            "-m",
            "fahrtwind.cli",
            "serve",
            "--demo",
            "--port",
            str(self.port),
            "--phones-port",
            str(self.phones_port),
            "--database",
            str(self.database),
        ]
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        for _ in range(900):
            try:
                urllib.request.urlopen(f"{self.url}/api/jobs", timeout=1).close()
                return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def kill(self) -> None:
        os.kill(self.process.pid, signal.SIGKILL)
        self.process.wait()


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    running = Server(tmp_path_factory.mktemp("browser"))
    yield running
    running.kill()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        found = playwright.chromium.launch(executable_path="/usr/bin/chromium")
        yield found
        found.close()


@pytest.fixture
def window(browser: Browser, server: Server) -> Iterator[Callable[[], Page]]:
    """Opens windows; each has its own storage, as on another machine. Fails the test on any script error."""
    contexts, problems = [], []

    def open_window() -> Page:
        context = browser.new_context(
            base_url=server.url, viewport={"width": 1280, "height": 800}, accept_downloads=True
        )
        context.set_default_timeout(PATIENT_MS)
        contexts.append(context)
        page = context.new_page()
        page.on("pageerror", lambda error: problems.append(str(error)))
        return page

    yield open_window
    for context in contexts:
        context.close()
    assert not problems


@pytest.fixture
def page(window: Callable[[], Page]) -> Page:
    return window()


def open_demo(page: Page, station: str = "survey", job: str = "lichtspiel") -> None:
    """Open a fresh copy of a demo job: start from the list, import the demo's own file."""
    from fahrtwind.demo import FOLDER

    page.goto("/")
    page.get_by_label("Load a job file").set_input_files(FOLDER / f"{job.lower()}.json")
    page.get_by_role("navigation", name="Stations").wait_for()
    go(page, station)


def go(page: Page, station: str) -> None:
    title = station.replace("-", " ").capitalize()
    page.get_by_role("navigation", name="Stations").get_by_role("button", name=title).first.click()
    expect(page.get_by_role("heading", level=1, name=title)).to_be_visible()


def saved(page: Page) -> None:
    expect(page.get_by_role("status")).to_have_text("saved")
