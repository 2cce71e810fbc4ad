"""Running the application: bind first, then say where it is; connections that send nothing end."""

from __future__ import annotations

import asyncio
import importlib
import ipaddress
import logging
import os
import socket
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

import h11
import uvicorn
from uvicorn.protocols.http.h11_impl import H11Protocol

from fahrtwind.api.collecting import collect_seldom
from fahrtwind.api.later import Later
from fahrtwind.api.opening import Opening
from fahrtwind.api.pages import STATIC
from fahrtwind.api.phone_door import PHONES_PORT
from fahrtwind.core.errors import Unavailable
from fahrtwind.core.records import dataclass, replace
from fahrtwind.instruments.listener import Instruments
from fahrtwind.store.database import open_database

if TYPE_CHECKING:
    from fastapi import FastAPI

HEADERS_WITHIN_S = 15.0
FIRST_ANSWERS_S = 1.0
"""The first page is opened before anything else is brought in."""
KEPT_AHEAD, AHEAD_EVERY_S = 5, 10.0
"""Of so many jobs, those changed last, the answer is kept even before they are opened, one every ten seconds:
whoever works meanwhile hardly notices.
"""


class PatientOnce(H11Protocol):
    """Ends a connection whose request head has not come in whole after ``HEADERS_WITHIN_S``."""

    _head_timer: asyncio.TimerHandle | None = None

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        super().connection_made(transport)
        self._watch()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        self._watch()

    def connection_lost(self, exc: Exception | None) -> None:
        self._forget()
        super().connection_lost(exc)

    def _watch(self) -> None:
        if self.conn.their_state is not h11.IDLE:
            self._forget()
        elif self._head_timer is None:
            self._head_timer = self.loop.call_later(HEADERS_WITHIN_S, self.transport.close)

    def _forget(self) -> None:
        if self._head_timer is not None:
            self._head_timer.cancel()
            self._head_timer = None


@dataclass(frozen=True, slots=True)
class Around:
    """What is served beside the pages: ``names`` others reach this machine by; the address of a
    ``weather_office``; ports for phones of the crew and for instruments, None listens to none. A ``demo``
    brings simulated ones of its own.
    """

    names: tuple[str, ...] = ()
    demo: bool = False
    weather_office: str | None = None
    phones_port: int = PHONES_PORT
    instruments_port: int | None = None


def serve(database: Path, host: str, port: int, around: Around) -> int:
    """Serve until stopped. Raises Unavailable where the database or a port cannot be had."""
    with ExitStack() as helpers:
        listening = Instruments()
        if around.instruments_port is not None or around.demo:
            heard = listening.listen(around.instruments_port or 0)
            if around.demo:
                helpers.enter_context(_helper("simulated-instruments", heard))
        office = around.weather_office
        if around.demo and office is None:
            office = helpers.enter_context(simulated_office())
        return _serve(database, host, port, replace(around, weather_office=office), listening)


def _serve(database: Path, host: str, port: int, around: Around, listening: Instruments) -> int:
    hosts = (host, *around.names)
    whole = Later(partial(_put_together, database, hosts, around, listening))
    app = Opening(whole, open_database(database), hosts, STATIC, _close)
    config = uvicorn.Config(
        app,
        http=PatientOnce,
        log_level=os.environ.get("FAHRTWIND_LOG", "warning"),
        timeout_graceful_shutdown=3,
        server_header=False,
    )
    with bound(host, port) as listener:
        shown = f"[{host}]" if ":" in host else host
        print(f"Fahrtwind is at http://{shown}:{listener.getsockname()[1]}  (stop with Ctrl+C)", flush=True)
        threading.Thread(target=_open, args=[whole], name="opening", daemon=True).start()
        uvicorn.Server(config).run(sockets=[listener])
    return 0


def _put_together(database: Path, hosts: tuple[str, ...], around: Around, listening: Instruments) -> FastAPI:
    from fahrtwind.api.app import create_app
    from fahrtwind.core.stations.all import house

    house.check_types()
    app = create_app(
        database,
        demo=around.demo,
        hosts=hosts,
        weather_office=around.weather_office,
        phones_port=around.phones_port,
        listening=listening,
    )
    collect_seldom()
    return app


def _close(app: FastAPI) -> None:
    from fahrtwind.api.app import close

    close(app)


def _open(whole: Later[FastAPI]) -> None:
    """Put the application together while the first page is opened, and then what it may need."""
    try:
        app = whole.ready()
    except Unavailable as error:  # who asks first tries again, and is told
        logging.getLogger("fahrtwind").warning("%s", error)
        return
    time.sleep(FIRST_ANSWERS_S)
    _warm(app)


@contextmanager
def simulated_office() -> Iterator[str]:
    """A weather office in a process of its own, which ends with this one."""
    with bound("127.0.0.1", 0) as probe:
        port = probe.getsockname()[1]
    with _helper("weather-office", port):
        yield f"http://127.0.0.1:{port}"


@contextmanager
def _helper(command: str, port: int) -> Iterator[None]:
    """A command of this program in a process of its own, which ends with this one."""
    words = [sys.executable, "-m", "fahrtwind.cli", command, "--port", str(port), "--with-parent"]
    with subprocess.Popen(words, stdin=subprocess.PIPE) as process:
        try:
            yield
        finally:
            process.terminate()


def _warm(app: FastAPI) -> None:
    """Bring in while nobody asks for it yet what an answer would wait seconds for: the library of the sun and
    the solvers, which the first wired job that is opened needs, the doors of calculation, helpers, and the
    answers of the jobs that were changed last.
    """
    from fahrtwind.api.helpers import LATE, Helpers
    from fahrtwind.core.solar_library import solar_library

    solar_library()
    for solver in LATE:
        importlib.import_module(solver)
    app.state.doors.ready()
    try:
        helpers = Helpers()
        helpers.call()
        app.state.slow_works.helpers = helpers
    except (OSError, RuntimeError) as error:  # no room for processes: slow work does one part after the other
        logging.getLogger("fahrtwind").warning("no helpers: %s", error)
    for line in app.state.store.summaries()[:KEPT_AHEAD]:
        if app.state.answers.of(line.id) is None:
            time.sleep(AHEAD_EVERY_S)
            app.state.keeping.keep(line.id)


def bound(host: str, port: int) -> socket.socket:
    """A listening socket on exactly this address."""
    try:
        family = socket.AF_INET6 if _is_v6(host) else socket.AF_INET
        return socket.create_server((host, port), family=family, backlog=128)
    except (OSError, OverflowError) as error:
        why: Any = getattr(error, "strerror", None) or error
        raise Unavailable(
            f"Port {port} on {host} cannot be had ({why}).",
            remedy="Stop what uses it, or choose another with --port.",
            field="port",
        ) from error


def _is_v6(host: str) -> bool:
    try:
        return ipaddress.ip_address(host).version == 6
    except ValueError:
        return False
