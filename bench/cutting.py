"""Cut lists of 48 seeded sets as racks bring them, beside first-fit decreasing; Build after one change."""

from __future__ import annotations

import random
import time

from bench.figures import line
from fahrtwind.core.edits import SetValue, apply_edits
from fahrtwind.core.evaluate import visit
from fahrtwind.core.stations.build.cutting import Stock, Wanted, cut_list
from fahrtwind.demo import demo_jobs

SETS, KERF_MM, TRIM_MM, MOST_SECONDS = 48, 3.0, 5.0, 10.0


def cutting() -> None:
    """How many are proved, within which time, and what first-fit decreasing costs more."""
    dice, spent, proved, ours, theirs = random.Random(11), [], 0, 0.0, 0.0
    for _ in range(SETS):
        lengths, stocks = drawn(dice)
        wanted = [Wanted(f"a{i}", length) for i, length in enumerate(lengths)]
        start = time.perf_counter()
        cut = cut_list(wanted, stocks, KERF_MM, TRIM_MM, MOST_SECONDS)
        spent.append(time.perf_counter() - start)
        proved += cut.proved
        ours += cut.cost
        theirs += first_fit(lengths, stocks)
    spent.sort()
    line(f"cut lists proved, of {SETS}", proved, "", least=SETS)
    line("cut list, nine in ten within", spent[int(0.9 * SETS)], "s", 1)
    line("cut list, the slowest", spent[-1], "s", 10)
    line("first-fit decreasing costs more by", 100 * (theirs / ours - 1), "%")


def drawn(dice: random.Random) -> tuple[list[float], list[Stock]]:
    """Up to 60 pieces of a few lengths, from two stock lengths and sometimes leftovers."""
    spans = ((300, 900), (900, 1800), (1800, 3600))
    kinds = [float(dice.randint(*dice.choice(spans))) for _ in range(dice.randint(2, 6))]
    lengths = [dice.choice(kinds) for _ in range(dice.randint(8, 60))]
    stocks = [Stock("six", 6000, dice.randint(30, 60)), Stock("four", 4000, dice.randint(22, 40))]
    if dice.random() < 0.5:
        stocks.append(Stock("rest", 2500, 0.0, 2))
    return lengths, stocks


def first_fit(lengths: list[float], stocks: list[Stock]) -> float:
    """Longest piece first into the first bar with room; a new bar is the one that is cheapest by length."""
    left = {s.id: s.have for s in stocks}
    rooms, cost = [], 0.0
    for length in sorted(lengths, reverse=True):
        at = next((i for i, room in enumerate(rooms) if room >= length), None)
        if at is None:
            fitting = [
                s
                for s in stocks
                if s.length_mm - 2 * TRIM_MM >= length and (left[s.id] is None or left[s.id])
            ]
            bar = min(fitting, key=lambda s: s.price / s.length_mm)
            have = left[bar.id]
            left[bar.id] = None if have is None else have - 1
            cost += bar.price
            rooms.append(bar.length_mm - 2 * TRIM_MM - length - KERF_MM)
        else:
            rooms[at] -= length + KERF_MM
    return cost


def building() -> None:
    """What Build works out anew after one change that moves a hole, and after one that changes lengths."""
    job = next(j for j in demo_jobs() if j.name == "Speiche")
    rack = job.carriers[0]
    for what, path, step in (
        ("Build after a bar moved", f"carriers.{rack.id}.bars.{rack.bars[0].id}.x", rack.bars[0].x.mm),  # type: ignore[union-attr]
        ("Build after lengths changed", f"carriers.{rack.id}.end", rack.end.mm),
    ):
        spent = []
        for i in range(8):
            moved = apply_edits(job, [SetValue(path=path, value={"mm": step + 3 + i})])
            seen = visit(moved)
            for part in BEFORE:
                seen.get(part)
            start = time.perf_counter()
            for part in BUILD:
                seen.get(part)
            spent.append(time.perf_counter() - start)
        line(f"{what}, without the cut list", 1000 * sorted(spent)[len(spent) // 2], "ms", 30)
        start = time.perf_counter()
        seen.get("cuts")
        line(f"{what}, its cut list", 1000 * (time.perf_counter() - start), "ms")


BEFORE = ("carrier_verdicts", "marks", "seal", "holders", "verdicts")
BUILD = (
    "pieces_by_carrier",
    "bolts_by_carrier",
    "bolt_choice",
    "fits_by_carrier",
    "leans_by_carrier",
    "made",
    "lengths",
    "contacts_by_carrier",
    "lifts",
    "assembly_by_carrier",
    "materials",
    "kit",
)
