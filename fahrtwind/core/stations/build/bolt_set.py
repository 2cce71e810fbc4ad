"""Fewest different bolts that serve every joint of a job: longer ones with washers where that is allowed."""

from __future__ import annotations

from collections.abc import Sequence
from math import ceil

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.tables.fasteners import BOLTS, LENGTHS_MM

STICKS_OUT_MM, MORE_WASHERS = 6.0, 2
"""How much more may stand out beyond the nut, and how many washers are put under it: common practice."""


@dataclass(frozen=True, slots=True)
class Served:
    """A joint with the bolt it gets out of the set, and the washers that take up what is too long."""

    carrier: str
    joint: str
    length_mm: float
    washers: int


@dataclass(frozen=True, slots=True)
class BoltSet:
    """``lengths_mm``: of the bolts to buy for all joints; ``before``: so many lengths without the set."""

    size: str
    lengths_mm: tuple[float, ...]
    counts: tuple[int, ...]
    before: int
    served: tuple[Served, ...]


def bolt_sets(lines: Sequence[BoltLine]) -> tuple[BoltSet, ...]:
    """By size. Each joint takes any length between what it needs and that with more washers and thread beyond
    the nut. Points that meet the fewest spans on a line: always the far end of the span that ends first, no
    choice is better.
    """
    told = []
    for size in dict.fromkeys(line.size for line in lines):
        nutted = (x for x in lines if x.size == size and x.length_mm and x.engaged_mm is None)
        own = sorted(nutted, key=_most)
        groups: list[list[BoltLine]] = []
        for line in own:  # a group is met by the longest bolt that its first, most demanding joint takes
            if not groups or line.needed_mm > _most(groups[-1][0]):
                groups.append([])
            groups[-1].append(line)
        if own:  # and then by the shortest that still goes through all of it
            told.append(_set(size, own, [max(x.length_mm or 0.0 for x in group) for group in groups]))
    return tuple(told)


def _most(line: BoltLine) -> float:
    """The longest bolt that is sold and may go into a joint, mm."""
    more = MORE_WASHERS * BOLTS[line.size].washer_thick_mm + STICKS_OUT_MM
    sold = [float(x) for x in LENGTHS_MM if x <= line.needed_mm + more]
    return max([*sold, line.length_mm or 0.0])


def _set(size: str, lines: list[BoltLine], lengths: list[float]) -> BoltSet:
    served, counts = [], dict.fromkeys(lengths, 0)
    for line in lines:
        length = min(x for x in lengths if line.needed_mm <= x <= _most(line))
        spare = length - line.needed_mm - STICKS_OUT_MM
        washers = max(0, ceil(spare / BOLTS[size].washer_thick_mm)) if spare > 0 else 0
        served.append(Served(line.carrier, line.joint, length, washers))
        counts[length] += line.count
    before = len({line.length_mm for line in lines})
    return BoltSet(size, tuple(lengths), tuple(counts.values()), before, tuple(served))
