"""The solvers beside general-purpose libraries: scipy's minimiser, a frame library, a statistics library."""

from __future__ import annotations

import numpy as np
import pytest
import statsmodels.api as sm
from Pynite import FEModel3D
from scipy import sparse
from scipy.optimize import brentq, minimize
from scipy.sparse.linalg import spsolve

from fahrtwind.core.formulas.plates import skin_spring
from fahrtwind.core.formulas.verdict import limit_pressure, utilisation
from fahrtwind.core.stations.hold.sharing import share_pull
from fahrtwind.core.stations.structure.evidence import KnownFacts, ReadingFact
from fahrtwind.core.stations.structure.members import EvidenceKey, fit_members
from fahrtwind.core.stations.structure.mounting_lines import robust_location

FEET_X = np.array([-600.0, 100.0, 650.0, -580.0, 80.0, 640.0])
FEET_Y = np.array([-480.0, -510.0, -500.0, 500.0, 470.0, 505.0])
STIFFNESS = np.array([2000.0, 200.0, 2000.0, 1800.0, 700.0, 2000.0])
LOAD, AT_X, AT_Y = 1500.0, -170.0, 60.0


def _ours(lost: int | None = None) -> np.ndarray:
    solved = share_pull(FEET_X, FEET_Y, STIFFNESS, np.array([[LOAD, LOAD * AT_X, LOAD * AT_Y]]))
    return solved.pull_n[0 if lost is None else lost + 1, 0]


@pytest.mark.parametrize("lost", [None, 0, 3, 5])
def test_shares_are_those_of_least_energy(lost: int | None) -> None:
    """Minimum of the springs' energy less the work of the load, found numerically
    (scipy.optimize.minimize).
    """
    k = STIFFNESS.copy()
    if lost is not None:
        k[lost] = 0.0

    def energy(motion: np.ndarray) -> float:
        stretch = motion[0] + motion[1] * FEET_X / 1000 + motion[2] * FEET_Y / 1000
        return float(
            0.5 * (k * stretch**2).sum()
            - LOAD * (motion[0] + motion[1] * AT_X / 1000 + motion[2] * AT_Y / 1000)
        )

    best = minimize(energy, np.zeros(3), method="BFGS", options={"gtol": 1e-9})
    stretch = best.x[0] + best.x[1] * FEET_X / 1000 + best.x[2] * FEET_Y / 1000
    assert _ours(lost) == pytest.approx(k * stretch, rel=1e-3, abs=0.05)


def test_shares_beside_a_frame_library() -> None:
    """The same feet as spring supports under a very stiff star of beams (PyNite)."""
    model = FEModel3D()
    model.add_material("stiff", 2.1e5, 8e4, 0.3, 0.0)
    model.add_section("beam", 1e5, 5e9, 5e9, 5e9)
    model.add_node("load", AT_X, AT_Y, 0)
    for i, (x, y) in enumerate(zip(FEET_X, FEET_Y, strict=True)):
        model.add_node(f"f{i}", float(x), float(y), 0)
        model.add_member(f"m{i}", "load", f"f{i}", "stiff", "beam")
        model.def_support_spring(f"f{i}", "DZ", float(STIFFNESS[i]))
    model.def_support("load", True, True, False, False, False, True)
    model.add_node_load("load", "FZ", LOAD)
    model.analyze(check_statics=False)
    reactions = np.array([-model.nodes[f"f{i}"].RxnFZ["Combo 1"] for i in range(len(FEET_X))])
    assert reactions.sum() == pytest.approx(LOAD, rel=1e-4)
    assert _ours() == pytest.approx(reactions, rel=2e-3, abs=0.5)


def test_pitch_beside_robust_regression() -> None:
    """With the counts known, Tukey's biweight regression (statsmodels RLM) finds the same line."""
    rng = np.random.default_rng(7)
    counts = np.array([0, 1, 2, 2, 4, 5, 6, 8, 9, 9, 11])
    x = 305 + 612 * counts + rng.normal(0, 8, len(counts))
    x[4] += 170.0  # a false one
    readings = tuple(ReadingFact(f"r{i}", float(v), "magnet") for i, v in enumerate(x))
    ours = fit_members(EvidenceKey(readings, (), KnownFacts(), 7500, 45))
    theirs = sm.RLM(x, sm.add_constant(counts), M=sm.robust.norms.TukeyBiweight()).fit()
    assert ours.pitch_mm == pytest.approx(theirs.params[1], abs=3 * theirs.bse[1])
    assert ours.pitch_sigma_mm == pytest.approx(theirs.bse[1], rel=1.0)
    assert [r.reading for r in ours.rejected] == ["r4"]
    assert ours.members[0].x_mm == pytest.approx(theirs.params[0], abs=6)


@pytest.mark.parametrize(
    "constants", [(-80.0, 0.9, 20.0, 0.05), (30.0, -0.1, 10.0, 0.2), (0.0, 0.4, 120.0, 0.0)]
)
def test_limit_pressure_is_the_root_of_the_utilisation(constants: tuple[float, float, float, float]) -> None:
    """Root found by scipy.optimize.brentq on the declared utilisation."""
    f0, f1, s0, s1 = constants
    root = brentq(lambda q: float(utilisation(f0 + f1 * q, s0 + s1 * q, 700.0, 400.0)) - 1, 0, 1e6)
    assert limit_pressure(f0, f1, s0, s1, 700.0, 400.0) == pytest.approx(root, rel=1e-9)


def test_mounting_line_beside_a_statistics_library() -> None:
    """Nearer to the marks without their slips than statsmodels' Tukey and Huber fits of a constant, and near
    each of them.
    """
    rng, off = np.random.default_rng(11), []
    for _ in range(60):
        clean = 620 + rng.normal(0, 6, 9)
        y = np.append(clean, 620 + rng.choice([-1, 1]) * rng.uniform(40, 90, int(rng.integers(1, 3))))
        theirs = [
            float(sm.RLM(y, np.ones(len(y)), M=norm()).fit().params[0])
            for norm in (sm.robust.norms.TukeyBiweight, sm.robust.norms.HuberT)
        ]
        off.append([abs(e - clean.mean()) for e in (robust_location(y), *theirs)])
        assert robust_location(y) == pytest.approx(theirs[0], abs=8)
    ours, tukey, huber = np.mean(off, axis=0)
    assert ours <= tukey and ours < huber / 3


def test_skin_spring_beside_finite_differences() -> None:
    """A long plate strip under a point load, solved on a grid with scipy's sparse solver: the soft end within
    a few per cent.
    """
    bay, stiffness, step = 600.0, 66_000.0, 15.0
    nx, ny = int(bay / step) - 1, 2 * int(2 * bay / step) + 1

    def laplace(n: int) -> sparse.csr_array:
        return sparse.diags_array([1.0, -2.0, 1.0], offsets=[-1, 0, 1], shape=(n, n)).tocsr() / step**2  # type: ignore[arg-type]

    lap = sparse.kron(laplace(nx), sparse.eye_array(ny)) + sparse.kron(sparse.eye_array(nx), laplace(ny))
    load = np.zeros(nx * ny)
    at = nx // 2 * ny + ny // 2  # simply supported all round; the far ends are two bays away
    load[at] = 1 / step**2
    moment = spsolve(lap.tocsc(), load)
    deflection = spsolve(lap.tocsc(), moment) / stiffness
    middle = (nx // 2 + 1) * step
    assert skin_spring(stiffness, bay, middle) == pytest.approx(1 / deflection[at], rel=0.03)
