"""Where cables run: the cheapest way over the roof that clips can hold, on a grid.

Along a frame or a rail a tie holds every 300 mm. Over open roof every clip is a hole or a dab of glue, so a
millimetre there counts for several; where water stands it counts for more; obstacles and what a lid sweeps
are closed. The way is found by Dijkstra's algorithm, its length is the true one.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
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
IntArray = npt.NDArray[np.integer[Any]]
BoolArray = npt.NDArray[np.bool_]
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
SEARCHED = (2 * ON_FRAME, 1.25 * OPEN_ROOF, np.inf)
"""How far round a spot ways to others are looked for, one after the other: so many times their distance.
About half lie along frames, nearly all others over open roof.
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

    def spots(self, cells: IntArray) -> FloatArray:
        """Middles of cells, mm, shape (n, 2)."""
        at = np.column_stack(np.divmod(cells, self.counts.shape[1])) + 0.5
        found: FloatArray = (self.x_mm, self.y_mm) + at * CELL_MM
        return found

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
    middles = x.tolist(), y.tolist()
    counts = np.full((rows, columns), OPEN_ROOF)
    for px, py, radius in pools:
        counts[np.hypot(at_x - px, at_y - py) <= radius] = IN_WATER
    closed = _not_carried_over(_closed(obstacles), panels)
    for part in shapely.get_parts(closed.buffer(CLEAR_MM)):
        west, south, east, north = part.bounds
        here = _within(*middles, Rect(west, south, east - west, north - south))
        counts[here][shapely.contains_xy(part, at_x[here], at_y[here])] = CLOSED
    for panel in panels:
        whole = panel_rect(panel)
        inner = whole.grown(-EDGE_MM)
        counts[_within(*middles, whole)] = ON_FRAME if panel.model.build == "framed" else OPEN_ROOF
        if panel.model.build == "framed" and inner.length_mm > 0 and inner.width_mm > 0:
            counts[_within(*middles, inner)] = UNDER_PANEL
    for rail in _rails(carriers):
        counts[_within(*middles, rail)] = ON_FRAME
    deep = closed.buffer(-GRAZE_MM)
    shapely.prepare(deep)
    return Ground(roof.x_mm, roof.y_mm, counts, _graph(counts), deep)


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


def _within(x: list[float], y: list[float], rect: Rect) -> tuple[slice, slice]:
    """The rows and columns whose middles, x and y, lie in a rectangle."""
    rows = slice(bisect_left(x, rect.x_mm), bisect_right(x, rect.x_end_mm))
    return rows, slice(bisect_left(y, rect.y_mm), bisect_right(y, rect.y_end_mm))


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


@dataclass(frozen=True, slots=True, eq=False)
class Links:
    """Every cell with its eight neighbours, both ways: how many each has and where they begin, which they are
    and how far, mm. The search takes short integers for its graph.
    """

    count: IntArray
    begin: npt.NDArray[np.int32]
    ends: IntArray
    short_ends: npt.NDArray[np.int32]
    far_mm: FloatArray


@lru_cache(maxsize=4)
def _links(rows: int, columns: int) -> Links:
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
    short, begin = links.indices.astype(np.int32), links.indptr.astype(np.int32)
    return Links(np.diff(begin), begin, short.astype(np.int64), short, links.data)


def _graph(counts: FloatArray) -> Any:
    """Every cell with its eight neighbours; an edge counts as the mean of its ends. It holds both directions,
    so that no search has to turn it round first.
    """
    from scipy.sparse import csr_array

    links, half = _links(*counts.shape), counts.ravel() / 2
    weights = (np.repeat(half, links.count) + half[links.ends]) * links.far_mm
    return csr_array((weights, links.short_ends, links.begin), shape=(counts.size, counts.size))


def _before(ground: Ground, start: Spot, ends: Sequence[Spot]) -> IntArray:
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
    apart = list(dict.fromkeys(ends))  # plus and minus of a panel alone come from one place
    stairs = [_stairs(ground, _back(before, ground.cell(end)), end, start) for end in apart]
    ways = dict(zip(apart, _smoothed(ground, stairs), strict=True))
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
    [way] = measured(ground, shapely.linestrings([whole]))
    return way


def _back(before: IntArray, cell: int) -> IntArray:
    cells = [cell]
    while (cell := before.item(cell)) >= 0:
        cells.append(cell)
    return np.array(cells)


def _stairs(ground: Ground, cells: IntArray, end: Spot, start: Spot) -> Any:
    return shapely.linestrings(np.vstack([end, ground.spots(cells[1:-1]), start]))


def _smoothed(ground: Ground, stairs: list[Any]) -> list[Way]:
    ways = measured(ground, shapely.simplify(stairs, LINE_WITHIN_MM))
    for i, way in enumerate(ways):
        if way.crosses or way.wet_mm:
            [exact] = measured(ground, [stairs[i]])
            # a corner cut may graze what the grid went round
            ways[i] = exact if way.crosses or way.wet_mm > exact.wet_mm else way
    return ways


def measured(ground: Ground, lines: Sequence[Any]) -> list[Way]:
    """Ways with what they lie on, looked at every half cell. ``lines``: through their corners, mm."""
    corners, of = shapely.get_coordinates(lines, return_index=True)
    legs = np.flatnonzero(of[1:] == of[:-1])  # from this corner to the next
    across = corners[legs + 1] - corners[legs]
    runs = np.hypot(*across.T)
    parts = np.maximum(np.ceil(runs / (CELL_MM / 2)), 1).astype(np.int64)
    leg = np.repeat(np.arange(len(legs)), parts)
    within = (np.arange(len(leg)) - np.repeat(np.cumsum(parts) - parts, parts) + 0.5) / parts[leg]
    spots = corners[legs[leg]] + within[:, None] * across[leg]
    piece, way = (runs / parts)[leg], of[legs][leg]
    counts = ground.counts_at(spots)
    wet, held = counts == IN_WATER, counts < OPEN_ROOF
    bare = ~held & ~wet

    def together(which: BoolArray) -> list[float]:
        summed: list[float] = np.bincount(way[which], piece[which], len(lines)).tolist()
        return summed

    long = np.bincount(of[legs], runs, len(lines))
    crosses = (long > 0) & shapely.intersects(ground.closed, lines)
    told = zip(long.tolist(), together(held), together(bare), together(wet), crosses.tolist(), strict=True)
    return [
        Way(
            tuple(Vertex(x, y) for x, y in corners[of == i].tolist()),
            *of_way,
            _clip_spots(spots[bare & (way == i)], piece[bare & (way == i)]),
        )
        for i, of_way in enumerate(told)
    ]


def _clip_spots(spots: FloatArray, piece_mm: FloatArray) -> tuple[Vertex, ...]:
    """Clips along what lies over open roof, evenly: spots on it, shape (n, 2), each for so much of it."""
    reached = np.cumsum(piece_mm)
    clips = ceil(float(reached[-1]) / CLIP_EVERY_MM) if len(reached) else 0
    if not clips:
        return ()
    middles = (np.arange(clips) + 0.5) * reached[-1] / clips
    at = np.searchsorted(reached, middles)
    return tuple(Vertex(x, y) for x, y in spots[at].tolist())
