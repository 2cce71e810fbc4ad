"""Listening to instruments on a socket of this machine; the last readings are kept, numbered."""

from __future__ import annotations

import socketserver
import threading
from collections import deque
from datetime import UTC, datetime

from fahrtwind.core.errors import Unavailable
from fahrtwind.core.records import dataclass
from fahrtwind.instruments.lines import LONGEST_LINE, InstrumentKind, Reading, parse

KEPT = 200
MOST_INSTRUMENTS = 16
SILENT_S = 600.0
"""An instrument that says nothing for so long is let go."""


@dataclass(frozen=True, slots=True)
class Heard:
    """A reading with its number and when it came in, in UTC; ``words``: as it goes into a box."""

    number: int
    at: datetime
    instrument: str
    kind: InstrumentKind
    value: float
    unit: str
    words: str


class Instruments:
    """What the instruments said last. Until ``listen`` was called nobody can say anything."""

    def __init__(self) -> None:
        self._heard: deque[Heard] = deque(maxlen=KEPT)
        self._lock = threading.Lock()
        self._count = 0
        self.room = threading.BoundedSemaphore(MOST_INSTRUMENTS)
        self.refused = ""
        """Why the last line that was none was refused."""
        self.port: int | None = None

    def after(self, number: int) -> tuple[Heard, ...]:
        """Readings with a number over ``number``, the oldest first."""
        with self._lock:
            return tuple(h for h in self._heard if h.number > number)

    def listen(self, port: int) -> int:
        """Take readings on 127.0.0.1; 0 takes any free port. Tells the port. Raises Unavailable where it
        cannot be had.
        """
        try:
            server = _Server(("127.0.0.1", port), _Line)
        except (OSError, OverflowError) as error:
            raise Unavailable(
                f"Port {port} for instruments cannot be had.",
                remedy="Choose another with --instruments-port.",
                field="instruments-port",
            ) from error
        server.instruments = self
        threading.Thread(target=server.serve_forever, name="instruments", daemon=True).start()
        self.port = server.server_address[1]
        return self.port

    def hear(self, line: bytes) -> None:
        """One line of an instrument."""
        told = parse(line)
        with self._lock:
            if isinstance(told, Reading):
                self._count += 1
                now = datetime.now(UTC)
                heard = Heard(self._count, now, told.instrument, told.kind, told.value, told.unit, told.words)
                self._heard.append(heard)
            else:
                self.refused = told


class _Server(socketserver.ThreadingTCPServer):
    allow_reuse_address = True
    daemon_threads = True
    instruments: Instruments


class _Line(socketserver.StreamRequestHandler):
    timeout = SILENT_S
    server: _Server

    def handle(self) -> None:
        with self.server.instruments.room:
            while line := self.rfile.readline(LONGEST_LINE + 2):
                if not line.endswith(b"\n"):
                    break  # too long, or broken off in the middle: nothing after it can be trusted
                if line.strip():
                    self.server.instruments.hear(line.strip())
