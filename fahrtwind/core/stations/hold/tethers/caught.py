"""A panel with tethers: what happens when one of its feet lets go, and when all of them do.

With one foot lost the panel is a stiff plate on the feet that are left, with each tether as a spring that
starts at its slack. With all lost it hangs in the stream: no share of that is sure, so every tether has to
stop it alone, and there must be tethers on two sides, or it flips about the one.
"""

from __future__ import annotations

import numpy as np

from fahrtwind.core.formulas.air import speed_at_pressure
from fahrtwind.core.formulas.tethers import catch_load, caught_force, loose_panel
from fahrtwind.core.formulas.verdict import limit_pressure, utilisation
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.forces import FloatArray, Shared, plate_rows
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.loads import PanelLoads, case_forces, standing_force
from fahrtwind.core.stations.hold.parked import WIND_DENSITY_KG_M3
from fahrtwind.core.stations.hold.sharing import variants
from fahrtwind.core.stations.hold.tethers.line import Strength, TetherPart
from fahrtwind.core.stations.hold.verdict import (
    FASTEST_M_S,
    MOST_PA,
    Air,
    Capacities,
    capacities,
    limits,
    road_speeds,
)
from fahrtwind.core.stations.layout.feet import FootPlace

HALVINGS, LEAST_PA = 27, 1e-2
FAINT_N_MM = 1e-3
"""At each corner: keeps a plate on one foot, or on feet in line, solvable. It turns until its tethers are
tight.
"""


@dataclass(frozen=True, slots=True)
class TetherVerdict:
    """Loads of a tether at the probed speed, N, when one foot and when all feet let go; what it bears."""

    tether: str
    one_lost_n: float
    all_lost_n: float
    bears_n: float
    weakest: TetherPart
    spring_n_mm: float
    reach_mm: float


@dataclass(frozen=True, slots=True)
class Caught:
    """A panel with its tethers. ``two_sides``: they stand on two sides of it. Speeds at which the next thing
    lets go after one foot is lost, and to which the tethers stop a panel that has lost all; gusts likewise.
    """

    panel: str
    tethers: tuple[TetherVerdict, ...]
    two_sides: bool
    one_lost_m_s: float
    all_lost_m_s: float
    all_lost_gust_m_s: float


@dataclass(frozen=True, slots=True, eq=False)
class _Plate:
    """A panel's plate on feet and tethers. Arms about its centre: ``corners`` (4, 3), ``feet`` (n, 3),
    ``lines`` (t, 3); ``springs`` (ends, n); loads about it: ``constant`` (cases, 3), ``per_pa`` (3,).
    """

    corners: FloatArray
    feet: FloatArray
    lines: FloatArray
    springs: FloatArray
    line_springs: FloatArray
    slack_mm: FloatArray
    constant: FloatArray
    per_pa: FloatArray

    def alone(self) -> _Plate:
        """The same without tethers."""
        none = self.line_springs[:0]
        return replace(self, lines=self.lines[:0], line_springs=none, slack_mm=none)

    def loads(self, pressure: FloatArray) -> FloatArray:
        """N and N·mm with each foot lost, (lost, cases, 3); ``pressure`` (lost,) in Pa."""
        found: FloatArray = self.constant[None] + pressure[:, None, None] * self.per_pa
        return found

    def solved(self, pressure: FloatArray, slack_mm: FloatArray) -> tuple[FloatArray, FloatArray]:
        """With each foot lost at its own pressure in Pa: pulls in N on feet (lost, ends, cases, n) and on
        tethers (lost, ends, cases, t).
        """
        n, t = len(self.feet), len(self.lines)
        there = variants(n)[1:]
        springs = there[:, None, :] * self.springs[None]
        base = np.einsum("len,ni,nj->leij", springs, self.feet, self.feet)
        base += FAINT_N_MM * self.corners.T @ self.corners
        loads = np.broadcast_to(self.loads(pressure)[:, None], (n, len(self.springs), len(self.constant), 3))
        tight = np.zeros((*loads.shape[:3], t))
        for _ in range(t + 2):
            pulled = tight * self.line_springs
            matrix = base[:, :, None] + np.einsum("lect,ti,tj->lecij", pulled, self.lines, self.lines)
            right = loads + np.einsum("lect,ti->leci", pulled * slack_mm, self.lines)
            motion = np.linalg.solve(matrix, right[..., None])[..., 0]
            rises = motion @ self.lines.T - slack_mm
            now = (rises > 0).astype(float)
            if np.array_equal(now, tight):
                break
            tight = now
        on_feet = springs[:, :, None] * (motion @ self.feet.T)
        return on_feet, self.line_springs * np.maximum(rises, 0.0)


@dataclass(frozen=True, slots=True, eq=False)
class Held:
    """A panel on what holds it: its winds, its feet with their chains, how they share the loads."""

    panel: PlacedPanel
    winds: tuple[PanelLoads, ...]
    feet: tuple[FootPlace, ...]
    chains: tuple[Chain, ...]
    shared: Shared
    bump_g: float


def caught(held: Held, tethers: tuple[Tether, ...], strengths: tuple[Strength, ...], air: Air) -> Caught:
    """Of a panel with feet and at least one tether."""
    plate = _plate(held, tethers, strengths)
    bears = np.array([s.weakest.bears_n for s in strengths])
    at_probe = _tether_loads(plate, np.full(len(held.feet), air.pressure_pa)).max(axis=(0, 1, 2))
    loose = [float(loose_panel(w.cautious_m2, w.rect.area_m2)) for w in held.winds]
    lines = list(zip(tethers, strengths, strict=True))
    allowed = [float(caught_force(s.weakest.bears_n, s.spring_n_mm, t.slack.mm)) for t, s in lines]
    two_sides = len({t.side for t in tethers}) > 1
    least = min(allowed) if two_sides else 0.0
    gust = float(speed_at_pressure(least / max(loose[1:]), WIND_DENSITY_KG_M3, 0.0))
    told = tuple(
        TetherVerdict(
            t.id,
            float(at_probe[i]),
            float(catch_load(loose[0] * air.pressure_pa, s.spring_n_mm, t.slack.mm)),
            s.weakest.bears_n,
            s.weakest,
            s.spring_n_mm,
            s.reach_mm,
        )
        for i, (t, s) in enumerate(lines)
    )
    return Caught(
        held.panel.id,
        told,
        two_sides,
        float(road_speeds(np.array(_one_lost(plate, held, bears)), air)),
        float(road_speeds(np.array(least / loose[0]), air)),
        min(gust, FASTEST_M_S),
    )


def _plate(held: Held, tethers: tuple[Tether, ...], strengths: tuple[Strength, ...]) -> _Plate:
    winds, chains = held.winds, held.chains
    rect, centre = winds[0].rect, winds[0].rect.centre
    road, parked = case_forces(winds[0].mass_kg, held.bump_g), standing_force(winds[0].mass_kg)
    rows = plate_rows(winds, road, parked)
    arms = [(1.0, f.x_mm - centre[0], f.y_mm - centre[1]) for f in held.feet]
    ends = [(1.0, x * rect.length_mm, y * rect.width_mm) for x in (-0.5, 0.5) for y in (-0.5, 0.5)]
    half = {"port": (None, -0.5), "starboard": (None, 0.5), "front": (-0.5, None), "rear": (0.5, None)}
    lines = []
    for t in tethers:
        x, y = half[t.side]
        lines.append(
            (
                1.0,
                t.along.mm - rect.length_mm / 2 if x is None else x * rect.length_mm,
                t.along.mm - rect.width_mm / 2 if y is None else y * rect.width_mm,
            )
        )
    return _Plate(
        np.array(ends),
        np.array(arms),
        np.array(lines),
        np.array([[c.stiffness_n_mm for c in chains], [c.stiffest_n_mm for c in chains]]),
        np.array([s.spring_n_mm for s in strengths]),
        np.array([t.slack.mm for t in tethers]),
        rows[: len(road)],
        rows[2 * (len(road) + len(parked))],
    )


def _tether_loads(plate: _Plate, pressure: FloatArray) -> FloatArray:
    """What tethers carry when a foot lets go at once, (lost, ends, cases, t): what they would carry without
    slack, caught over their slack.
    """
    _, steady = plate.solved(pressure, np.zeros_like(plate.slack_mm))
    return np.asarray(catch_load(steady, plate.line_springs, plate.slack_mm))


def _one_lost(plate: _Plate, held: Held, bears_n: FloatArray) -> float:
    """Pressure in Pa at which something lets go once the worst foot is lost: without factors at the feet,
    with what they may bear at the tethers.

    A framed panel bends beside its feet, and what that costs is in its verdict without tethers. The stiff
    plate here says by how much its tethers better it.
    """
    cap = capacities(held.chains)
    without = _feet_limits(plate.alone(), held.shared, cap)
    stopped = _plate_limits(plate, held.shared, cap, bears_n)
    let_go, _, _ = limits(held.shared.road, cap)
    known = let_go[1:].min(axis=(1, 2))
    better = np.maximum(stopped / np.maximum(without, LEAST_PA), 1.0)
    return float(np.where(without > 2 * LEAST_PA, known * better, stopped).min())


def _feet_limits(plate: _Plate, shared: Shared, cap: Capacities) -> FloatArray:
    """Pressure in Pa at which a stiff plate without tethers lets go with each foot lost, (lost,)."""
    cases, road, n = len(plate.constant), shared.road, len(plate.feet)
    along, along_pa = (part[1:, None, :cases] for part in (road.along_constant, road.along_per_pa))
    still, one = (plate.solved(np.full(n, pressure), plate.slack_mm)[0] for pressure in (0.0, 1.0))
    pressure = limit_pressure(
        still[..., None],
        (one - still)[..., None],
        along[..., None],
        along_pa[..., None],
        cap.pull_nominal,
        cap.shear_nominal,
    )
    there = variants(n)[1:, None, None, :, None] > 0
    least = np.where(there, pressure, MOST_PA).min(axis=(1, 2, 3, 4))
    return np.asarray(np.clip(least, LEAST_PA, MOST_PA))


def _plate_limits(plate: _Plate, shared: Shared, cap: Capacities, bears_n: FloatArray) -> FloatArray:
    """Pressure in Pa at which a stiff plate lets go with each foot lost, (lost,), found by halving."""
    cases, road = len(plate.constant), shared.road
    along, along_pa = (part[1:, None, :cases] for part in (road.along_constant, road.along_per_pa))
    there = variants(len(plate.feet))[1:, None, None, :, None]
    low, high = np.full(len(plate.feet), LEAST_PA), np.full(len(plate.feet), MOST_PA)
    for _ in range(HALVINGS):
        middle = np.sqrt(low * high)
        pull, _ = plate.solved(middle, plate.slack_mm)
        level = along + along_pa * middle[:, None, None, None]
        used = utilisation(pull[..., None], level[..., None], cap.pull_nominal, cap.shear_nominal) * there
        on_lines = (_tether_loads(plate, middle) / bears_n).max(axis=(1, 2, 3), initial=0.0)
        gone = np.maximum(used.max(axis=(1, 2, 3, 4)), on_lines) > 1
        low, high = np.where(gone, low, middle), np.where(gone, middle, high)
    return low
