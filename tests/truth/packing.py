"""An exhaustive search for the best layout on a coarse grid, and roofs to search: independent of the
proposals' own method.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.proposals.placements import Kind
from fahrtwind.core.stations.layout.room import Block, Room


@dataclass(frozen=True)
class Offered:
    """Models as (length, width, watts), the room and the gap, all in mm."""

    models: tuple[tuple[int, int, int], ...]
    bounds: tuple[int, int, int, int]
    blocks: tuple[tuple[int, int, int, int], ...]
    gap: int
    side_gap: int = 0
    """Between panels side by side; no less than the gap."""

    def room(self) -> Room:
        x, y, x1, y1 = self.bounds
        blocks = tuple(
            Block("obstacle", f"o{i}", f"thing {i}", Rect(a, b, c - a, d - b), 25.0)
            for i, (a, b, c, d) in enumerate(self.blocks)
        )
        return Room(
            Rect(x, y, x1 - x, y1 - y), blocks, (), float(self.gap), float(max(self.gap, self.side_gap))
        )

    def kinds(self) -> list[Kind]:
        found: list[Kind] = []
        for number, (length, width, _) in enumerate(self.models):
            for turned in (False, True) if length != width else (False,):
                size = (width, length) if turned else (length, width)
                found.append(Kind(len(found), number, turned, *size, self.room()))
        return found

    def watts(self) -> np.ndarray:  # type: ignore[type-arg]
        return np.array([w for *_, w in self.models])[[k.model for k in self.kinds()]]


def exhaustive(offered: Offered, grid: int) -> int:
    """The most watts by trying every placement on a grid in turn; all sizes must be whole grid steps."""
    x0, y0, x1, y1 = (v // grid for v in offered.bounds)
    taken = np.zeros((x1 - x0, y1 - y0), dtype=bool)
    for a, b, c, d in offered.blocks:
        taken[
            max(a // grid - x0, 0) : max(c // grid - x0, 0), max(b // grid - y0, 0) : max(d // grid - y0, 0)
        ] = True
    sizes = {
        (length // grid, width // grid, watts)
        for a, b, watts in offered.models
        for length, width in ((a, b), (b, a))
    }
    gap, side = offered.gap // grid, max(offered.gap, offered.side_gap) // grid
    cells = [(i, j) for i in range(taken.shape[0]) for j in range(taken.shape[1])]
    density = max(watts / ((length + gap) * (width + side)) for length, width, watts in sizes)
    best = 0

    def search(start: int, used: np.ndarray, watts: int) -> None:  # type: ignore[type-arg]
        nonlocal best
        best = max(best, watts)
        for position in range(start, len(cells)):
            i, j = cells[position]
            room = (taken.shape[0] - i + gap) * (taken.shape[1] + side)
            if watts + density * room <= best:
                return
            for length, width, power in sizes:
                here = (slice(i, i + length), slice(j, j + width))
                grown = (slice(max(i - gap, 0), i + length + gap), slice(max(j - side, 0), j + width + side))
                inside = i + length <= taken.shape[0] and j + width <= taken.shape[1]
                if inside and not taken[here].any() and not used[grown].any():
                    more = used.copy()
                    more[here] = True
                    search(position + 1, more, watts + power)

    search(0, np.zeros_like(taken), 0)
    return best


BENCH_MODELS = ((1722, 1134, 410), (1640, 992, 320), (1480, 670, 185), (1190, 540, 110))


def bench_roof(seed: int) -> Offered:
    """A seeded roof of 2.5 to 12 m with up to 8 obstacles, each with 40 mm around it, and four panel
    models.
    """
    rng = np.random.default_rng(seed)
    length, width = int(rng.uniform(2500, 12_000)), int(rng.uniform(1500, 2400))
    blocks: list[tuple[int, int, int, int]] = []
    for _ in range(min(int(rng.integers(1, 9)), length // 900)):
        for _ in range(50):
            a, b = int(rng.uniform(200, 700)), int(rng.uniform(200, 700))
            x, y = int(rng.uniform(0, length - a)), int(rng.uniform(-0.3, 0.3) * width)
            one = (x - 40, y - b // 2 - 40, x + a + 40, y + b // 2 + 40)
            if all(one[2] < o[0] or o[2] < one[0] or one[3] < o[1] or o[3] < one[1] for o in blocks):
                blocks.append(one)
                break
    half = width // 2
    return Offered(BENCH_MODELS, (30, -half + 30, length - 30, half - 30), tuple(blocks), 20)
