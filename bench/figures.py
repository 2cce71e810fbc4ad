"""How a figure is taken, printed, and at the end set beside the last ones in one table (docs/bench.csv)."""

from __future__ import annotations

import csv
import statistics
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from bench.pace import pace

KEPT = Path(__file__).parent.parent / "docs" / "bench.csv"
_HEAD = ("figure", "value", "then", "unit", "promised", "kept")
SPEEDS = ("ms", "s")


@dataclass(frozen=True)
class Figure:
    words: str
    value: float
    pace: float
    """Of this minute, as so many times the hour in which speeds were promised."""
    unit: str
    least: float | None
    most: float | None

    @property
    def then(self) -> float:
        """What it would have been in the hour in which speeds were promised: that is what is promised."""
        return self.value / self.pace if self.unit in SPEEDS else self.value

    @property
    def promised(self) -> str:
        if self.least is not None and self.most is not None:
            return f"{self.least:g} to {self.most:g}"
        if self.most is not None:
            return f"at most {self.most:g}"
        return f"at least {self.least:g}" if self.least is not None else ""

    @property
    def kept(self) -> str:
        if not self.promised:
            return ""
        low, high = (
            self.least if self.least is not None else -1e99,
            self.most if self.most is not None else 1e99,
        )
        return "yes" if low <= self.then <= high else "NO"


_taken: list[Figure] = []
_paces: list[float] = []


def line(
    words: str, value: float, unit: str, most: float | None = None, *, least: float | None = None
) -> None:
    _paces.append(pace())
    while_taken = statistics.mean(_paces[-2:])  # after the figure before, and after this one
    figure = Figure(words, value, while_taken, unit, least, most)
    _taken.append(figure)
    then = f", {figure.then:.1f} at the promised pace" if unit in SPEEDS else ""
    promise = f"   promised: {figure.promised}" if figure.promised else ""
    print(f"{words:78} {value:9.1f} {unit}{then}{promise}", flush=True)


def median_ms(run: Callable[[int], object], times: int = 60) -> float:
    taken = []
    for i in range(times):
        start = time.perf_counter()
        run(i)
        taken.append((time.perf_counter() - start) * 1000)
    return statistics.median(taken)


def compare_and_keep() -> None:
    """One table of all figures of this run beside those of the last, which it then replaces."""
    last = {}
    if KEPT.is_file():
        with KEPT.open(newline="") as file:
            last = {row["figure"]: row.get("then") or row["value"] for row in csv.DictReader(file)}
    print(f"\n{'figure':78} {'now':>9} {'then':>9} {'last':>9} {'unit':6} promised, kept")
    for f in _taken:
        print(
            f"{f.words:78} {f.value:9.1f} {f.then:9.1f} {last.get(f.words, '-'):>9} {f.unit:6} {f.promised} "
            f"{f.kept}".rstrip()
        )
    with KEPT.open("w", newline="") as file:
        rows = csv.writer(file, lineterminator="\n")
        rows.writerow(_HEAD)
        rows.writerows(
            (f.words, f"{f.value:.1f}", f"{f.then:.1f}", f.unit, f.promised, f.kept) for f in _taken
        )
