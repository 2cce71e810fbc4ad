"""Where rain runs on a roof and where it stands: a fine height grid, filled and routed.

The level to which water can rise at a spot is the least of the highest points on all ways from there to the
roof's edge. On a grid whose edges weigh as much as the higher of their two cells, those ways are the ways of
the minimum spanning tree (Hu 1961, the maximum capacity route), so one tree tells all levels and, followed
towards the edge, where full hollows spill. What is filled less what is there is what stands (Barnes, Lehman
and Mulla 2014 do the same with a queue).
"""

from __future__ import annotations

from math import hypot, radians, tan

import numpy as np
import numpy.typing as npt
import shapely

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.survey.outline import Vertex

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
BoolArray = npt.NDArray[np.bool_]
FINE_MM, COARSE_MM = 10.0, 40.0
SHALLOW_MM, SMALL_CM2 = 0.5, 20.0
"""Less than that is wet, not standing (common practice, no source)."""
LIFT_MM = 1e-6
ABOVE_NOTHING = 1e-3
"""A weight of nothing would be no edge to a sparse matrix."""
STREAMS_ALONG, STREAMS_ACROSS = 14, 7
MOST_CELLS = 1600
ROUND_ABOUT = tuple((down, right) for down in (-1, 0, 1) for right in (-1, 0, 1) if down or right)


@dataclass(frozen=True, slots=True)
class Dam:
    """Something that stands on the roof and keeps water back: a ring of corners, mm, and how high it is."""

    id: str
    name: str
    ring: tuple[tuple[float, float], ...]
    height_mm: float


@dataclass(frozen=True, slots=True)
class Pool:
    """Water that stands: where it is deepest, how large, how deep, how much; what keeps it there, empty where
    the roof itself does; the seals that lie in it.
    """

    x_mm: float
    y_mm: float
    area_cm2: float
    depth_mm: float
    litres: float
    dammed_by: tuple[str, ...]
    seals: tuple[str, ...]
    outline: tuple[Vertex, ...]


@dataclass(frozen=True, slots=True)
class Stream:
    """A way that rain takes, points of x and y, mm, to the edge or into a pool."""

    points: tuple[Vertex, ...]
    stands: bool


@dataclass(frozen=True, slots=True)
class WaterFinding:
    """All pools, the largest first, and some of the streams. ``shape_known``: the crown was measured."""

    step_mm: float
    shape_known: bool
    lean_deg: float
    nose_deg: float
    litres: float
    pools: tuple[Pool, ...]
    streams: tuple[Stream, ...]


@dataclass(frozen=True, slots=True, eq=False)
class Terrain:
    """Heights of a roof on a grid, rows along x: ``height`` in mm, ``inside`` the roof; cells outside let
    water go. ``x_mm``, ``y_mm``: middles of the cells.
    """

    x_mm: FloatArray
    y_mm: FloatArray
    height: FloatArray
    inside: BoolArray
    step_mm: float


def terrain_of(
    edge: shapely.Polygon, heights: FloatArray | None, parked: tuple[float, float], step_mm: float
) -> Terrain:
    """The roof within its edge. ``heights``: of the crown on this grid, None where it was not measured and
    the roof counts as flat; ``parked``: lean to starboard and nose up, degrees.
    """
    x, y = grid_of(edge, step_mm)
    grid_x, grid_y = np.meshgrid(x, y, indexing="ij")
    lean, nose = parked
    height = np.zeros_like(grid_x) if heights is None else heights.copy()
    # leaning to starboard lowers starboard; with the nose up the rear lies lower
    height -= grid_y * tan(radians(lean)) + grid_x * tan(radians(nose))
    inside = shapely.contains_xy(edge, grid_x.ravel(), grid_y.ravel()).reshape(grid_x.shape)
    return Terrain(x, y, height, inside, step_mm)


def grid_of(edge: shapely.Polygon, step_mm: float) -> tuple[FloatArray, FloatArray]:
    """Middles of the cells along and across, mm, one cell beyond the edge on all sides."""
    x0, y0, x1, y1 = edge.bounds
    return (
        np.arange(x0 - step_mm / 2, x1 + step_mm, step_mm),
        np.arange(y0 - step_mm / 2, y1 + step_mm, step_mm),
    )


def with_dams(terrain: Terrain, dams: tuple[Dam, ...]) -> tuple[Terrain, IntArray]:
    """The terrain with everything on it, and for every cell which dam stands there, −1 none. What reaches
    over the edge dams nothing there.
    """
    height, which = terrain.height.copy(), np.full(terrain.height.shape, -1, dtype=np.int64)
    for number, dam in enumerate(dams):
        ring = np.array(dam.ring)
        (x0, y0), (x1, y1) = ring.min(axis=0), ring.max(axis=0)
        rows = slice(*np.searchsorted(terrain.x_mm, (x0 - 1e-9, x1 + 1e-9)))
        columns = slice(*np.searchsorted(terrain.y_mm, (y0 - 1e-9, y1 + 1e-9)))
        xs, ys = np.meshgrid(terrain.x_mm[rows], terrain.y_mm[columns], indexing="ij")
        if not xs.size:
            continue
        under = shapely.contains_xy(shapely.Polygon(ring), xs.ravel(), ys.ravel()).reshape(xs.shape)
        height[rows, columns] += dam.height_mm * under
        which[rows, columns] = np.where(under, number, which[rows, columns])
    return Terrain(terrain.x_mm, terrain.y_mm, height, terrain.inside, terrain.step_mm), which


def filled(terrain: Terrain) -> tuple[FloatArray, IntArray]:
    """The level of water that cannot run away, mm, and for every cell the next on its way to the edge, as a
    flat index; −1 outside.
    """
    from scipy.sparse import coo_array  # loaded late: a start need not wait for them
    from scipy.sparse.csgraph import breadth_first_order, minimum_spanning_tree

    rows, columns = terrain.height.shape
    cells = rows * columns
    height = np.where(terrain.inside, terrain.height, -np.inf).ravel()
    index = np.arange(cells).reshape(rows, columns)
    pairs = np.concatenate(
        [
            np.stack([index[:-1].ravel(), index[1:].ravel()]),
            np.stack([index[:, :-1].ravel(), index[:, 1:].ravel()]),
        ],
        axis=1,
    )
    inner = terrain.inside.ravel()
    pairs = pairs[:, inner[pairs[0]] | inner[pairs[1]]]
    outward = inner[pairs[0]] != inner[pairs[1]]
    rim = np.unique(np.where(inner[pairs[0]], pairs[0], pairs[1])[outward])
    # all that is outside is one place, numbered after the last cell; each cell of the rim touches it once
    low = np.concatenate([pairs[0][~outward], rim])
    high = np.concatenate([pairs[1][~outward], np.full(len(rim), cells)])
    weight = np.concatenate([np.maximum(height[pairs[0]], height[pairs[1]])[~outward], height[rim]])
    finite = height[np.isfinite(height)]
    base = float(finite.min()) if finite.size else 0.0
    graph = coo_array((weight - base + ABOVE_NOTHING, (low, high)), shape=(cells + 1, cells + 1))
    tree = minimum_spanning_tree(graph)
    order, before = breadth_first_order(tree, cells, directed=False)
    level = np.full(cells + 1, -np.inf)
    level[:cells][inner] = height[inner]
    for group in _by_depth(order.astype(np.int64), before.astype(np.int64)):
        level[group] = np.maximum(level[group], level[before[group]])
    onward = np.where(inner, before[:cells].astype(np.int64), -1)
    told = np.where(inner, level[:cells], terrain.height.ravel()).reshape(rows, columns)
    return told, onward


def _by_depth(order: IntArray, before: IntArray) -> list[IntArray]:
    """Cells in groups of equal distance from the edge, so that each group follows from the one before."""
    groups, position = [], np.empty(len(before), dtype=np.int64)
    position[order] = np.arange(len(order))
    parents = position[before[order[1:]]]
    start, end = 1, 1
    while start < len(order):
        # breadth first: the children of the last group come next, in one run
        end = int(np.searchsorted(parents, start, side="left")) + 1
        if end <= start:
            end = start + 1
        groups.append(order[start:end])
        start = end
    return groups


def pools_of(
    terrain: Terrain,
    level: FloatArray,
    which: IntArray,
    dams: tuple[Dam, ...],
    seals: tuple[tuple[str, float, float], ...],
) -> tuple[Pool, ...]:
    """What stands deeper and wider than wet. ``level``: of the water, mm, by cell like ``which``; ``seals``:
    the id of a place with its x and y, mm, several times where it is at several spots.
    """
    deep = np.where(terrain.inside, level - terrain.height, 0.0)
    cell_mm2 = terrain.step_mm**2
    found = []
    for cells in _lakes(deep > SHALLOW_MM):
        area_cm2 = len(cells) * cell_mm2 / 100
        if area_cm2 < SMALL_CM2:
            continue
        own = np.zeros(deep.shape, dtype=bool)
        own.flat[cells] = True
        rim = _grown(own) & ~own
        touching = sorted({int(k) for k in np.unique(which[rim]) if k >= 0})
        deepest = cells[deep.flat[cells].argmax()]
        row, column = divmod(int(deepest), deep.shape[1])
        found.append(
            Pool(
                float(terrain.x_mm[row]),
                float(terrain.y_mm[column]),
                round(area_cm2, 1),
                round(float(deep[row, column]), 2),
                round(float(deep.flat[cells].sum()) * cell_mm2 / 1e6, 3),
                tuple(dams[k].name for k in touching),
                tuple(dict.fromkeys(n for n, x, y in seals if _within(terrain, own | rim, x, y))),
                _outline(terrain, own),
            )
        )
    return tuple(sorted(found, key=lambda p: -p.litres))


def _lakes(wet: BoolArray) -> list[IntArray]:
    """The wet cells that hang together, over corners too, as flat indices that rise."""
    from scipy.sparse import coo_array  # loaded late: on many roofs nothing stands
    from scipy.sparse.csgraph import connected_components

    if not wet.any():
        return []
    rows, columns = wet.shape
    cells = np.flatnonzero(wet)
    number = np.full(wet.shape, -1)
    number[wet] = np.arange(len(cells))
    ones, others = [], []
    for down, right in ROUND_ABOUT[4:]:  # each pair once
        one = number[: rows - down, max(-right, 0) : columns - max(right, 0)]
        other = number[down:, max(right, 0) : columns + min(right, 0)]
        both = (one >= 0) & (other >= 0)
        ones.append(one[both])
        others.append(other[both])
    low, high = np.concatenate(ones), np.concatenate(others)
    graph = coo_array((np.ones(len(low)), (low, high)), shape=(len(cells), len(cells)))
    count, lake = connected_components(graph, directed=False)
    return [cells[lake == k] for k in range(count)]


def _grown(cells: BoolArray) -> BoolArray:
    """With the cells round about. None may lie at the rim of the grid."""
    grown = cells.copy()
    for down, right in ROUND_ABOUT:
        grown |= np.roll(cells, (down, right), axis=(0, 1))
    return grown


def _within(terrain: Terrain, cells: BoolArray, x_mm: float, y_mm: float) -> bool:
    row = round((x_mm - terrain.x_mm[0]) / terrain.step_mm)
    column = round((y_mm - terrain.y_mm[0]) / terrain.step_mm)
    rows, columns = cells.shape
    return 0 <= row < rows and 0 <= column < columns and bool(cells[row, column])


def _outline(terrain: Terrain, own: BoolArray) -> tuple[Vertex, ...]:
    """A ring round a pool for the picture, row by row: its port rim forth and its starboard rim back."""
    rows = np.flatnonzero(own.any(axis=1))
    step = max(1, len(rows) // 40)
    rows = np.unique(np.append(rows[::step], rows[-1]))
    half = terrain.step_mm / 2
    port, starboard = [], []
    for row in rows:
        columns = np.flatnonzero(own[row])
        x = float(terrain.x_mm[row])
        port.append(Vertex(x, float(terrain.y_mm[columns[0]]) - half))
        starboard.append(Vertex(x, float(terrain.y_mm[columns[-1]]) + half))
    return (*port, *reversed(starboard))


def streams_of(terrain: Terrain, level: FloatArray, onward: IntArray) -> tuple[Stream, ...]:
    """From an even spread of drops: always to the lowest neighbour, over a full hollow the way it spills.
    ``level``: of the water, mm, by cell; ``onward``: as ``filled`` tells it.
    """
    rows, columns = level.shape
    stands = terrain.inside & (level - terrain.height > SHALLOW_MM)
    after = _runs_to(terrain, level, onward)
    told = []
    for row in np.linspace(2, rows - 3, STREAMS_ALONG).astype(int):
        for column in np.linspace(2, columns - 3, STREAMS_ACROSS).astype(int):
            way = _run(after, stands.ravel(), int(row * columns + column))
            points = [(float(terrain.x_mm[c // columns]), float(terrain.y_mm[c % columns])) for c in way]
            if len(way) > 1:
                told.append(Stream(_thinned(points), bool(stands.flat[way[-1]])))
    return tuple(told)


def _run(after: IntArray, stands: BoolArray, start: int) -> list[int]:
    """The cells from one on, until water stands or runs no farther."""
    way = [start]
    while not stands[way[-1]] and after[way[-1]] >= 0 and len(way) <= MOST_CELLS:
        way.append(int(after[way[-1]]))
    return way


def _runs_to(terrain: Terrain, level: FloatArray, onward: IntArray) -> IntArray:
    """The cell to which water of each runs, as a flat index: the steepest of its eight neighbours, where
    none is lower the way it spills; −1 at the edge and outside.
    """
    rows, columns = level.shape
    inner = terrain.inside[1:-1, 1:-1].copy()
    after = onward.reshape(rows, columns)[1:-1, 1:-1].copy()
    cell = np.arange(rows * columns).reshape(rows, columns)
    steepest = np.full(inner.shape, LIFT_MM)
    for down, right in ROUND_ABOUT:
        there = slice(1 + down, rows - 1 + down), slice(1 + right, columns - 1 + right)
        inner &= terrain.inside[there]
        drop = (level[1:-1, 1:-1] - level[there]) / hypot(down, right)
        steeper = drop > steepest
        steepest[steeper], after[steeper] = drop[steeper], cell[there][steeper]
    found = np.full((rows, columns), -1)
    found[1:-1, 1:-1][inner] = after[inner]
    return found.ravel()


def _thinned(points: list[tuple[float, float]]) -> tuple[Vertex, ...]:
    step = max(1, len(points) // 24)
    return tuple(Vertex(x, y) for x, y in (*points[:-1:step], points[-1]))
