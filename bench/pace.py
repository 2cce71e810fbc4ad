"""How fast this hour is: a small fixed piece of work, of the kind this product is made of, beside what it
took when the speeds were promised. The machine's pace varies by a factor of two from hour to hour.
"""

from __future__ import annotations

import gc
import json
import time
from statistics import median

import numpy as np

PROMISED_MS = 7.4
"""What the work took in the hour in which the speeds were promised. Version 0.3 evaluated a moved panel
in 16.5 ms then and checked the demo bus in 2.3 s (docs/bench.md). In six slow minutes, in which that took
37 ms and 4.9 s, this work took 16 ms: 6.3 to 9.9 ms then by the one, 6.4 to 8.0 by the other.
"""
TIMES = 7
USUAL = (700, 10, 10)
"""What Python begins with: so many new objects, and looks at younger ones, before it looks for garbage."""


def pace() -> float:
    """How many times as long as then the same work takes now, with garbage looked for as often as then."""
    kept = gc.get_threshold()
    gc.set_threshold(*USUAL)
    try:
        return median(_took_ms() for _ in range(TIMES)) / PROMISED_MS
    finally:
        gc.set_threshold(*kept)


def _took_ms() -> float:
    start = time.perf_counter()
    _work()
    return (time.perf_counter() - start) * 1000


def _work() -> None:
    """Small arrays, many small objects, and text, about a third of the time each."""
    rng = np.random.default_rng(1)
    whole = rng.uniform(1, 2, (60, 60))
    for _ in range(60):
        part = np.maximum(whole[:12] @ whole, 0.5) / whole[:12]
        np.linalg.solve(whole[:12, :12] + 20 * np.eye(12), part[:, :4]).max(axis=0).tolist()
    told = {f"foot {i}": tuple(i * 0.5 + k for k in range(6)) for i in range(1500)}
    worst = sorted(told, key=lambda name: (-sum(told[name]), name))
    json.loads(json.dumps([{"at": name, "values": told[name]} for name in worst[:600]]))
