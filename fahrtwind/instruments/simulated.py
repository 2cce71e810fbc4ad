"""Stand-ins for instruments that nobody has at hand: they say what one would read on a mild spring day."""

from __future__ import annotations

import json
import random
import socket
import sys
import threading
from collections.abc import Iterator

from fahrtwind.instruments.lines import UNITS, InstrumentKind

EVERY_S = 3.0
STANDS_IN: dict[InstrumentKind, tuple[str, float, float]] = {
    "torque": ("simulated wrench", 8.0, 0.3),
    "skin temperature": ("simulated thermometer", 18.0, 0.8),
    "humidity": ("simulated hygrometer", 56.0, 2.0),
    "angle": ("simulated gauge", 2.4, 0.2),
    "volts": ("simulated meter", 38.4, 0.4),
}
"""Name, middle and spread of what each says."""


def lines(seed: int) -> Iterator[bytes]:
    """One reading of each kind after another, for ever, the same for the same seed."""
    drawn = random.Random(seed)
    while True:
        for kind, (name, middle, spread) in STANDS_IN.items():
            value = round(drawn.gauss(middle, spread), 1)
            told = {"instrument": name, "kind": kind, "value": value, "unit": UNITS[kind][0]}
            yield json.dumps(told, ensure_ascii=False).encode() + b"\n"


def run(port: int, seed: int = 1, *, with_parent: bool = False) -> int:
    """Speak to the listener on this machine until it hangs up. ``with_parent``: end when standard input
    ends. Tells the exit code.
    """
    over = threading.Event()
    if with_parent:
        threading.Thread(target=_wait_for_parent, args=(over,), daemon=True).start()
    try:
        with socket.create_connection(("127.0.0.1", port), timeout=10) as line:
            for told in lines(seed):
                line.sendall(told)
                if over.wait(EVERY_S / len(STANDS_IN)):
                    break
    except OSError:
        return 1
    return 0


def _wait_for_parent(over: threading.Event) -> None:
    sys.stdin.read()
    over.set()
