"""Where water stands and runs: beside bowls with known volumes, beside a second method, and what must hold on
every roof.
"""

from __future__ import annotations

import heapq
from math import pi, radians, tan

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import ndimage

from fahrtwind.core.evaluate import visit
from fahrtwind.core.formulas.sealing import fillet_volume
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.seal.water import (
    SHALLOW_MM,
    Dam,
    FloatArray,
    Terrain,
    _lakes,
    filled,
    grid_of,
    pools_of,
    streams_of,
    terrain_of,
    with_dams,
)
from tests.conftest import changed
from tests.core.test_snags import HOLLOW

ROOF = shapely.box(0, -1000, 3000, 1000)


def ground(shape: str, step: float = 10.0, parked: tuple[float, float] = (0.0, 0.0)) -> Terrain:
    x, y = np.meshgrid(*grid_of(ROOF, step), indexing="ij")
    heights = {
        "bowl": np.minimum(((x - 1500) ** 2 + y**2) / 40_000, 4.0),
        "two bowls": np.minimum(
            np.minimum(((x - 800) ** 2 + y**2) / 30_000, ((x - 2200) ** 2 + (y - 200) ** 2) / 20_000), 3.0
        ),
        "plane": np.zeros_like(x),
        "crown": -(y**2) / 10_000,
    }[shape]
    return terrain_of(ROOF, heights, parked, step)


def flooded(terrain: Terrain) -> FloatArray:
    """Priority flood from the rim inward (Barnes, Lehman and Mulla 2014): one cell after the other."""
    rows, columns = terrain.height.shape
    level = np.full((rows, columns), np.inf)
    seen = ~terrain.inside
    queue: list[tuple[float, int, int]] = []
    ways = ((1, 0), (-1, 0), (0, 1), (0, -1))
    for r, c in zip(*np.nonzero(terrain.inside), strict=True):
        if any(not terrain.inside[r + a, c + b] for a, b in ways):
            heapq.heappush(queue, (terrain.height[r, c], int(r), int(c)))
            level[r, c], seen[r, c] = terrain.height[r, c], True
    while queue:
        high, r, c = heapq.heappop(queue)
        for a, b in ways:
            if not seen[r + a, c + b]:
                seen[r + a, c + b] = True
                level[r + a, c + b] = max(high, terrain.height[r + a, c + b])
                heapq.heappush(queue, (level[r + a, c + b], r + a, c + b))
    return level


def litres(terrain: Terrain) -> float:
    level, _ = filled(terrain)
    return float(np.where(terrain.inside, level - terrain.height, 0).sum() * terrain.step_mm**2 / 1e6)


def test_a_bowl_holds_what_its_formula_says() -> None:
    """A paraboloid r² / 40 000 up to 4 mm is 400 mm wide: π · r⁴ / 80 000 = π / 2 · R² · h = 1.005 l."""
    terrain = ground("bowl")
    assert litres(terrain) == pytest.approx(pi / 2 * 400**2 * 4 / 1e6, rel=5e-3)
    level, _ = filled(terrain)
    which = np.full(level.shape, -1)
    (pool,) = pools_of(terrain, level, which, (), (("in it", 1500.0, 50.0), ("beside", 2500.0, 0.0)))
    wide = max(v.y_mm for v in pool.outline) - min(v.y_mm for v in pool.outline)
    in_row = int((level - terrain.height > SHALLOW_MM).sum(axis=1).max())
    assert wide == pytest.approx(in_row * terrain.step_mm), "the ring is round whole cells"
    assert pool.depth_mm == pytest.approx(4, abs=0.01) and (pool.x_mm, pool.y_mm) == pytest.approx(
        (1500, 0), abs=10
    )
    assert pool.area_cm2 == pytest.approx(pi * 374**2 / 100, rel=0.03), "deeper than half a millimetre"
    assert pool.seals == ("in it",) and pool.dammed_by == ()


@pytest.mark.parametrize("seed", range(8))
def test_levels_are_those_of_another_method(seed: int) -> None:
    """Random hills and plates, a roof with a corner cut off."""
    dice = np.random.default_rng(seed)
    edge = shapely.Polygon([(0, -600), (1700, -600), (2000, -300), (2000, 600), (0, 600)])
    x, y = np.meshgrid(*grid_of(edge, 25.0), indexing="ij")
    heights = sum(
        dice.uniform(-8, 8)
        * np.exp(-((x - dice.uniform(0, 2000)) ** 2 + (y - dice.uniform(-600, 600)) ** 2) / w**2)
        for w in dice.uniform(100, 500, 9)
    )
    plates = tuple(
        Dam(f"d{i}", f"plate {i}", ((a, b), (a + 200, b), (a + 200, b + 60), (a, b + 60)), 6.0)
        for i, (a, b) in enumerate(zip(dice.uniform(0, 1800, 5), dice.uniform(-600, 500, 5), strict=True))
    )
    bare = terrain_of(edge, np.asarray(heights), (dice.uniform(-2, 2), dice.uniform(-1, 1)), 25.0)
    terrain, _ = with_dams(bare, plates)
    level, onward = filled(terrain)
    assert np.abs(level - flooded(terrain))[terrain.inside].max() < 1e-9
    flat = level.ravel()
    for cell in np.flatnonzero(terrain.inside.ravel()):
        if onward[cell] < terrain.height.size and terrain.inside.ravel()[onward[cell]]:
            assert flat[onward[cell]] <= flat[cell] + 1e-9, "never uphill"


@given(st.floats(0.0, 6.0), st.floats(0.1, 3.0))
@settings(max_examples=12, deadline=None)
def test_on_a_plane_more_slope_never_holds_more(lean: float, more: float) -> None:
    dam = (Dam("d", "plate", ((1400, -300), (1600, -300), (1600, 300), (1400, 300)), 5.0),)
    less, steeper = (
        litres(with_dams(ground("plane", 20.0, (0.0, nose)), dam)[0]) for nose in (lean, lean + more)
    )
    assert steeper <= less + 1e-9


def test_a_mirrored_roof_has_mirrored_water() -> None:
    terrain = ground("two bowls")
    other = Terrain(
        terrain.x_mm,
        terrain.y_mm,
        terrain.height[:, ::-1].copy(),
        terrain.inside[:, ::-1].copy(),
        terrain.step_mm,
    )
    level, _ = filled(terrain)
    mirrored, _ = filled(other)
    assert np.abs(level - mirrored[:, ::-1])[terrain.inside].max() < 1e-9


def test_a_plate_across_the_flow_dams_a_wedge() -> None:
    """On a plane that falls 2° aft a plate of 400 mm across and 5 mm high keeps a wedge in front of it that
    reaches 5 / tan 2° = 143 mm forward, less what spills round its ends.
    """
    slope = 2.0
    plate = Dam("d", "foot", ((2000, -200), (2050, -200), (2050, 200), (2000, 200)), 5.0)
    hooks = (
        plate,
        Dam("a", "port hook", ((1800, -210), (2050, -210), (2050, -200), (1800, -200)), 9.0),
        Dam("b", "starboard hook", ((1800, 200), (2050, 200), (2050, 210), (1800, 210)), 9.0),
    )
    terrain, which = with_dams(ground("plane", 5.0, (0.0, slope)), hooks)
    level, onward = filled(terrain)
    (pool,) = pools_of(terrain, level, which, hooks, ())
    reach = 5 / tan(radians(slope))
    assert pool.litres == pytest.approx(400 * 5 * reach / 2 / 1e6, rel=0.08)
    assert set(pool.dammed_by) == {"foot", "port hook", "starboard hook"}
    assert any(s.stands for s in streams_of(terrain, level, onward))


def test_streams_leave_a_crown_over_its_sides() -> None:
    terrain = ground("crown", 20.0)
    level, onward = filled(terrain)
    for stream in streams_of(terrain, level, onward):
        first, last = stream.points[0], stream.points[-1]
        assert not stream.stands and abs(last.y_mm) > abs(first.y_mm) - 1e-9 and abs(last.y_mm) > 940


def test_parking_otherwise_empties_a_hollow_roof(sound: Job) -> None:
    hollow = changed(sound, survey__crown=HOLLOW)
    found = visit(hollow).demand("water")
    assert found.shape_known and found.litres > 20 and found.pools[0].depth_mm > 10
    nosed = visit(changed(hollow, seal__nose="6 deg")).demand("water")
    assert nosed.litres < found.litres / 3
    flat = visit(changed(sound, survey__crown={})).demand("water")
    assert not flat.shape_known


def test_a_fillet_is_as_large_as_its_slices() -> None:
    """Integrated by a geometry library: rings of the plate grown by what is left of the leg."""
    plate = shapely.box(0, 0, 60, 45)
    leg, slices = 6.0, 4000
    heights = (np.arange(slices) + 0.5) * leg / slices
    rings = [plate.buffer(leg - h, quad_segs=64).area - plate.area for h in heights]
    assert float(fillet_volume(leg, 210.0)) == pytest.approx(sum(rings) * leg / slices / 1000, rel=1e-3)


def test_lakes_are_those_of_the_image_library() -> None:
    """Wet cells that hang together, over corners too, beside ``scipy.ndimage.label``."""
    rng = np.random.default_rng(5)
    drawn = [rng.random((30, 20)) < share for share in (0.1, 0.3, 0.5)]
    row = np.zeros((5, 9), dtype=bool)
    row[2, 2:7] = True
    for wet in (*drawn, row, ~row & False):
        labels, count = ndimage.label(wet, structure=np.ones((3, 3)))
        lakes = [set(cells.tolist()) for cells in _lakes(wet)]
        assert lakes == [set(np.flatnonzero(labels == k + 1).tolist()) for k in range(count)]
