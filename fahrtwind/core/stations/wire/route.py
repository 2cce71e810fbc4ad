"""Where cables run: the cheapest way over the roof that clips can hold, on a grid.

Along a frame or a rail a tie holds every 300 mm. Over open roof every clip is a hole or a dab of glue, so a
millimetre there counts for several; where water stands it counts for more; obstacles and what a lid sweeps
are closed. The way is found by Dijkstra's algorithm, its length is the true one.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from math import ceil, hypot
from typing import Any

import numpy as np
import numpy.typing as npt
import shapely
from shapely.geometry.base import BaseGeometry

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.survey.outline import Vertex

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
CELL_MM, EDGE_MM = 50.0, 60.0
ON_FRAME, OPEN_ROOF, UNDER_PANEL, IN_WATER, CLOSED = 1.0, 4.0, 5.0, 16.0, 1e6
"""What a millimetre counts for: judgement; a frame or rail holds a tie, open roof wants clips,
and those under a panel nobody reaches again."""
CLIP_EVERY_MM = 300.0
"""Ties along frames and clips over the roof: common practice, no source."""
LINE_WITHIN_MM = 45.0
"""Corners of the grid are cut by no more: a cable is not laid in steps."""
CLEAR_MM, GRAZE_MM = 25.0, 2.0
"""Cables keep so far off what is closed; what goes no deeper into it only touches."""
SEARCHED = (2.5 * ON_FRAME, 1.25 * OPEN_ROOF, np.inf)
"""How far round a spot ways to others are looked for, one after the other: so many times their distance. Most
lie along frames, nearly all others over open roof.
"""
Spot = tuple[float, float]


@dataclass(frozen=True, slots=True, eq=False)
class Ground:
    """The roof as cells: what a millimetre counts for in each, shape (along, across), the graph of
    neighbours, and what no cable crosses.
    """

    x_mm: float
    y_mm: float
    counts: FloatArray
    graph: Any
    closed: BaseGeometry

    def cell(self, spot: Spot) -> int:
        """The cell a spot is in, or the nearest on the roof."""
        rows, columns = self.counts.shape
        row = int(np.clip((spot[0] - self.x_mm) // CELL_MM, 0, rows - 1))
        column = int(np.clip((spot[1] - self.y_mm) // CELL_MM, 0, columns - 1))
        return int(row * columns + column)

    def spot(self, cell: int) -> Spot:
        """Middle of a cell, mm."""
        row, column = divmod(cell, self.counts.shape[1])
        return self.x_mm + (row + 0.5) * CELL_MM, self.y_mm + (column + 0.5) * CELL_MM

    def counts_at(self, spots: FloatArray) -> FloatArray:
        """What a millimetre counts for (a ratio) at spots, shape (n, 2)."""
        rows, columns = self.counts.shape
        row = np.clip((spots[:, 0] - self.x_mm) // CELL_MM, 0, rows - 1).astype(np.int64)
        column = np.clip((spots[:, 1] - self.y_mm) // CELL_MM, 0, columns - 1).astype(np.int64)
        found: FloatArray = self.counts[row, column]
        return found


@dataclass(frozen=True, slots=True)
class Way:
    """A cable's way: corners, true length, how much of it lies on frames and rails, over open roof, in water
    that stands; ``crosses``: it goes over what is closed; ``clip_spots``: where clips hold it over open roof.
    """

    points: tuple[Vertex, ...]
    length_mm: float
    held_mm: float
    open_mm: float
    wet_mm: float
    crosses: bool
    clip_spots: tuple[Vertex, ...]

    @property
    def ties(self) -> int:
        """Along frames and rails."""
        return ceil(self.held_mm / CLIP_EVERY_MM)

    @property
    def clips(self) -> int:
        """Over open roof."""
        return len(self.clip_spots)


def ground_of(
    roof: Rect,
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    obstacles: tuple[Shape, ...],
    pools: Sequence[tuple[float, float, float]],
) -> Ground:
    """The roof as ground for cables. ``pools``: middle and radius of water that stands, mm."""
    rows, columns = max(ceil(roof.length_mm / CELL_MM), 2), max(ceil(roof.width_mm / CELL_MM), 2)
    x = roof.x_mm + (np.arange(rows, dtype=np.float64) + 0.5) * CELL_MM
    y = roof.y_mm + (np.arange(columns, dtype=np.float64) + 0.5) * CELL_MM
    at_x, at_y = np.meshgrid(x, y, indexing="ij")
    counts = np.full((rows, columns), OPEN_ROOF)
    for px, py, radius in pools:
        counts[np.hypot(at_x - px, at_y - py) <= radius] = IN_WATER
    closed = _not_carried_over(_closed(obstacles), panels)
    for part in shapely.get_parts(closed.buffer(CLEAR_MM)):
        west, south, east, north = part.bounds
        here = _within(x, y, Rect(west, south, east - west, north - south))
        counts[here][shapely.contains_xy(part, at_x[here], at_y[here])] = CLOSED
    for panel in panels:
        whole = panel_rect(panel)
        inner = whole.grown(-EDGE_MM)
        counts[_within(x, y, whole)] = ON_FRAME if panel.model.build == "framed" else OPEN_ROOF
        if panel.model.build == "framed" and inner.length_mm > 0 and inner.width_mm > 0:
            counts[_within(x, y, inner)] = UNDER_PANEL
    for rail in _rails(carriers):
        counts[_within(x, y, rail)] = ON_FRAME
    return Ground(roof.x_mm, roof.y_mm, counts, _graph(counts), closed.buffer(-GRAZE_MM))


def _not_carried_over(closed: BaseGeometry, panels: tuple[PlacedPanel, ...]) -> BaseGeometry:
    """What is closed but for what lies under panels: they carry their cables over it."""
    shapely.prepare(closed)
    over = [area for p in panels if closed.intersects(area := panel_rect(p).polygon())]
    return closed.difference(shapely.union_all(over)) if over else closed


@lru_cache(maxsize=4)
def _closed(obstacles: tuple[Shape, ...]) -> BaseGeometry:
    """What stands on the roof, and what lids sweep."""
    found = []
    for shape in obstacles:
        corners = [(v.x_mm, v.y_mm) for v in shape.ring]
        found.append(shapely.Polygon(corners) if corners else shape.rect.polygon())
        if shape.lid:
            found.append(shape.lid.polygon())
    return shapely.union_all(found)


def _within(x: FloatArray, y: FloatArray, rect: Rect) -> tuple[slice, slice]:
    """The rows and columns whose middles, x and y, lie in a rectangle."""
    rows = np.searchsorted(x, rect.x_mm, "left"), np.searchsorted(x, rect.x_end_mm, "right")
    columns = np.searchsorted(y, rect.y_mm, "left"), np.searchsorted(y, rect.y_end_mm, "right")
    return slice(*rows), slice(*columns)


def _rails(carriers: tuple[Carrier, ...]) -> list[Rect]:
    """Rails and crossbars, at least a cell wide."""
    found = []
    for carrier in carriers:
        long = carrier.end.mm - carrier.start.mm
        found += [Rect(carrier.start.mm, r.y.mm - CELL_MM / 2, long, CELL_MM) for r in carrier.rails]
        low, high = min(r.y.mm for r in carrier.rails), max(r.y.mm for r in carrier.rails)
        bars = getattr(carrier, "bars", ())
        found += [Rect(b.x.mm - CELL_MM / 2, low, CELL_MM, high - low) for b in bars]
    return found


@lru_cache(maxsize=4)
def _neighbours(rows: int, columns: int) -> tuple[IntArray, Any, Any, FloatArray]:
    """Every cell with its eight neighbours, both ways: from, to, where each cell's begin, how far, mm."""
    from scipy.sparse import coo_array  # loaded late, like its search: a start need not wait for them

    cell = np.arange(rows * columns).reshape(rows, columns)
    starts, ends, far = [], [], []
    for dx, dy in ((1, 0), (0, 1), (1, 1), (1, -1)):
        one = cell[: rows - dx, max(-dy, 0) : columns - max(dy, 0)].ravel()
        other = cell[dx:, max(dy, 0) : columns + min(dy, 0)].ravel()
        starts += [one, other]
        ends += [other, one]
        far += [np.full(len(one) * 2, hypot(dx, dy) * CELL_MM)]
    shape = (rows * columns, rows * columns)
    links = coo_array(
        (np.concatenate(far), (np.concatenate(starts), np.concatenate(ends))), shape=shape
    ).tocsr()
    links.sort_indices()
    return np.repeat(cell.ravel(), np.diff(links.indptr)), links.indices, links.indptr, links.data


def _graph(counts: FloatArray) -> Any:
    """Every cell with its eight neighbours; an edge counts as the mean of its ends. It holds both directions,
    so that no search has to turn it round first.
    """
    from scipy.sparse import csr_array

    starts, ends, begin, far = _neighbours(*counts.shape)
    half = counts.ravel() / 2
    return csr_array(((half[starts] + half[ends]) * far, ends, begin), shape=(counts.size, counts.size))


def _before(ground: Ground, start: Spot, ends: Sequence[Spot]) -> Any:
    """For every cell the one before it on the cheapest way from a spot, at least as far as to all ends."""
    from scipy.sparse.csgraph import dijkstra

    at, wanted = ground.cell(start), {ground.cell(end) for end in ends}
    far = max((hypot(end[0] - start[0], end[1] - start[1]) for end in ends), default=0.0) + CELL_MM
    for times in SEARCHED:
        _, before = dijkstra(ground.graph, indices=np.array(at), return_predecessors=True, limit=times * far)
        if all(before[cell] >= 0 for cell in wanted - {at}):
            break
    return before


def ways_from(ground: Ground, start: Spot, ends: Sequence[Spot]) -> list[Way]:
    """The cheapest ways from each end to the start, from end to start: one search for all."""
    before = _before(ground, start, ends)
    # plus and minus of a panel alone come from one place
    ways = {end: _way(ground, _back(before, ground.cell(end)), end, start) for end in dict.fromkeys(ends)}
    return [ways[end] for end in ends]


def way_between(ground: Ground, start: Spot, end: Spot) -> Way:
    """The cheapest way between two spots."""
    return ways_from(ground, end, [start])[0]


def way_past(ground: Ground, start: Spot, past: Sequence[Spot], end: Spot) -> Way:
    """The cheapest way that touches every spot on it."""
    whole: list[Spot] = [start]
    for one, other in zip((start, *past), (*past, end), strict=True):
        leg = way_between(ground, one, other)
        whole += [(v.x_mm, v.y_mm) for v in leg.points[1:]]
    return measured(ground, tuple(whole))


def _back(before: Any, cell: int) -> list[int]:
    cells = [cell]
    while before[cells[-1]] >= 0:
        cells.append(int(before[cells[-1]]))
    return cells


def _way(ground: Ground, cells: list[int], end: Spot, start: Spot) -> Way:
    stairs = (end, *(ground.spot(c) for c in cells[1:-1]), start)
    line = shapely.LineString(stairs).simplify(LINE_WITHIN_MM)
    smooth = measured(ground, tuple((float(x), float(y)) for x, y in line.coords))
    if not smooth.crosses and not smooth.wet_mm:
        return smooth
    exact = measured(ground, stairs)
    # a corner cut may graze what the grid went round
    return exact if smooth.crosses or smooth.wet_mm > exact.wet_mm else smooth


def measured(ground: Ground, points: tuple[Spot, ...]) -> Way:
    """A way with what it lies on, looked at every half cell."""
    corners = np.array(points, dtype=np.float64)
    runs = np.hypot(*np.diff(corners, axis=0).T)
    parts = np.maximum(np.ceil(runs / (CELL_MM / 2)), 1).astype(np.int64)
    piece = np.repeat(runs / parts, parts)
    segment = np.repeat(np.arange(len(runs)), parts)
    within = (np.arange(len(segment)) - np.repeat(np.cumsum(parts) - parts, parts) + 0.5) / parts[segment]
    spots = corners[segment] + within[:, None] * (corners[segment + 1] - corners[segment])
    counts = ground.counts_at(spots)
    wet, held = counts == IN_WATER, counts < OPEN_ROOF
    total = float(runs.sum())
    bare = ~held & ~wet
    crosses = total > 0 and shapely.LineString(points).intersects(ground.closed)
    return Way(
        tuple(Vertex(x, y) for x, y in points),
        total,
        float(piece[held].sum()),
        float(piece[bare].sum()),
        float(piece[wet].sum()),
        bool(crosses),
        _clip_spots(spots[bare], piece[bare]),
    )


def _clip_spots(spots: FloatArray, piece_mm: FloatArray) -> tuple[Vertex, ...]:
    """Clips along what lies over open roof, evenly: spots on it, shape (n, 2), each for so much of it."""
    reached = np.cumsum(piece_mm)
    clips = ceil(float(reached[-1]) / CLIP_EVERY_MM) if len(reached) else 0
    if not clips:
        return ()
    middles = (np.arange(clips) + 0.5) * reached[-1] / clips
    at = np.searchsorted(reached, middles)
    return tuple(Vertex(float(x), float(y)) for x, y in spots[at])
