"""How a figure is taken and printed."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable


def median_ms(run: Callable[[int], object], times: int = 60) -> float:
    taken = []
    for i in range(times):
        start = time.perf_counter()
        run(i)
        taken.append((time.perf_counter() - start) * 1000)
    return statistics.median(taken)


def line(words: str, value: float, unit: str, limit: float | None = None) -> None:
    promise = f"   promised: at most {limit:g} {unit}" if limit is not None else ""
    print(f"{words:74} {value:8.1f} {unit}{promise}", flush=True)
