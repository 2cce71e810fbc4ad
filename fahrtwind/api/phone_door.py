"""The door for the crew's phones: closed unless the owner opens it, and then only on one address of the local
network. Who comes in through it needs a code that the desk shows and that expires.
"""

from __future__ import annotations

import secrets
import socket
import threading
import time
from collections.abc import Callable

import uvicorn
from starlette.types import ASGIApp, Receive, Scope, Send

from fahrtwind.core.errors import InputError, Unavailable
from fahrtwind.core.records import dataclass

CODE_S = 600.0
TRIES = 5
"""Wrong codes until every code is void: a million codes, five tries."""
PHONES_PORT = 8777
ELSEWHERE = "192.0.2.1"
"""An address nobody has (RFC 5737): asking the way there tells which address this machine has in the network;
nothing is sent.
"""


@dataclass(frozen=True, slots=True)
class Code:
    """``until``: by the monotonic clock, s."""

    digits: str
    until: float


class PhoneDoor:
    """Codes by job, and the listener. ``port``: 0 takes any that is free; ``clock``: monotonic, s."""

    def __init__(self, port: int = PHONES_PORT, clock: Callable[[], float] = time.monotonic) -> None:
        self._wanted_port, self._clock = port, clock
        self._codes: dict[str, Code] = {}
        self._wrong = 0
        self._server: uvicorn.Server | None = None
        self._thread: threading.Thread | None = None
        self._lock = threading.Lock()
        self.address: str | None = None
        """Where phones find it while it is open, for example ``http://192.0.2.7:8777``."""

    def open(self, job_id: str, app: ASGIApp, host: str | None = None) -> None:
        """Listen, if nobody does yet, and make a new code for a job. Raises Unavailable where there is no
        network or the port cannot be had.
        """
        with self._lock:
            if self.address is None:
                self._listen(app, host or address_here())
            self._wrong = 0
            self._codes[job_id] = Code(f"{secrets.randbelow(10**6):06d}", self._clock() + CODE_S)

    def close(self, job_id: str) -> None:
        """No more codes for a job; with the last one the door is shut, and phones that are in wait
        outside.
        """
        with self._lock:
            self._codes.pop(job_id, None)
            if not self._codes and self._server is not None:
                self._server.should_exit = True
                self._server.force_exit = True
                if self._thread is not None:
                    self._thread.join(5)
                self._server = self._thread = self.address = None

    def is_open(self, job_id: str) -> bool:
        return job_id in self._codes

    def code(self, job_id: str) -> tuple[str, float] | None:
        """The code of a job and for how many seconds it is good; None where it is over or void."""
        code = self._codes.get(job_id)
        left = code.until - self._clock() if code and code.digits else 0.0
        return (code.digits, left) if code and left > 0 else None

    def job_for(self, digits: str) -> str:
        """The job whose code this is. Raises InputError where it is none."""
        with self._lock:
            for job_id, code in self._codes.items():
                good = code.digits and code.until > self._clock()
                if good and secrets.compare_digest(code.digits.encode(), digits.encode()):
                    return job_id
            self._wrong += 1
            if self._wrong >= TRIES:
                self._codes = {job_id: Code("", 0.0) for job_id in self._codes}
        raise InputError(
            "This code is not good, or its time is over.",
            remedy="Ask for a new code at the desk: Roof day, Phones of the crew.",
            field="code",
        )

    def _listen(self, app: ASGIApp, host: str) -> None:
        from fahrtwind.api.serve import PatientOnce, bound

        try:
            listener = bound(host, self._wanted_port)
        except Unavailable:
            listener = bound(host, 0)
        config = uvicorn.Config(
            _marked(app), http=PatientOnce, lifespan="off", log_level="warning", server_header=False
        )
        self._server = uvicorn.Server(config)
        self._thread = threading.Thread(
            target=self._server.run, kwargs={"sockets": [listener]}, name="phones", daemon=True
        )
        self._thread.start()
        shown = f"[{host}]" if ":" in host else host
        self.address = f"http://{shown}:{listener.getsockname()[1]}"


def _marked(app: ASGIApp) -> ASGIApp:
    """The application, told that a request came in by the phones' door."""

    async def through(scope: Scope, receive: Receive, send: Send) -> None:
        await app({**scope, "by_phones_door": True}, receive, send)

    return through


def address_here() -> str:
    """The address of this machine in its network. Raises Unavailable where it is in none."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect((ELSEWHERE, 9))
            return str(probe.getsockname()[0])
        except OSError as error:
            raise Unavailable(
                "This machine is in no network.",
                remedy="Join the network of the phones, or type this machine's address in it.",
                field="host",
            ) from error
