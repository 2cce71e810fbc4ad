"""The working of a panel's verdict: the scalar formulas, called once more for what the arrays decided.

Only runs while recording. The tests hold these scalars against the arrays.
"""

from __future__ import annotations

import numpy as np

from fahrtwind.core.formulas.air import slipstream_uplift, speed_at_pressure
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sharing import foot_pull, foot_shear
from fahrtwind.core.formulas.verdict import limit_pressure, utilisation
from fahrtwind.core.stations.hold.links import Chain, Link
from fahrtwind.core.stations.hold.loads import CASES, PanelLoads
from fahrtwind.core.stations.hold.verdict import Air, Forces, PanelVerdict
from fahrtwind.core.stations.layout.feet import FootPlace

CASE_NAMES = [c[0] for c in CASES]


def explain_panel(
    loads: PanelLoads,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    shared: Forces,
    verdict: PanelVerdict,
    air: Air,
) -> None:
    """Note the scalar formulas behind the arrays of a verdict: uplift, then each foot at its worst case."""
    with scope("uplift"):
        slipstream_uplift(
            air.pressure_pa, given(loads.cautious_m2, "computed", "zones under the panel, cautious end")
        )
    for i, foot in enumerate(feet):
        with scope(foot.foot):
            _explain_foot(i, chains[i], shared, CASE_NAMES.index(verdict.feet[i].case), verdict, air)


def _explain_foot(i: int, chain: Chain, shared: Forces, case: int, verdict: PanelVerdict, air: Air) -> None:
    with scope("force"):
        pull = _pull(i, chain, shared, case, air)
        shear = _shear(i, shared, case, air)
    for link in chain.links:
        with scope(f"link {link.id}"):
            pull_now = given(pull, "computed", f"force on the foot, {CASE_NAMES[case]}")
            shear_now = given(shear, "computed", f"force on the foot, {CASE_NAMES[case]}")
            capacity = [
                given(c, "computed", f"design capacity, {link.title}")
                for c in (link.pull_design_n, link.shear_design_n)
            ]
            utilisation(pull_now, shear_now, *capacity)
    weakest = next(k for k in chain.links if k.id == verdict.feet[i].weakest)
    with scope("let-go speed"):
        _speed(i, weakest.pull_nominal_n, weakest.shear_nominal_n, weakest, shared, air)
    with scope("safe speed"):
        _speed(i, weakest.pull_design_n, weakest.shear_design_n, weakest, shared, air)


def _pull(i: int, chain: Chain, shared: Forces, case: int, air: Air) -> float:
    """Motion of the plate is linear in the pressure: constant case plus slipstream."""
    n = len(CASES)
    motion = shared.pull_sharing.motion[0, case] + shared.pull_sharing.motion[0, n] * air.pressure_pa
    where = "equilibrium of the panel on all feet"
    arm = shared.shear_sharing
    lift, pitch, roll = (given(float(m), "computed", where) for m in motion)
    centre = _centre_offset(shared)
    return float(
        foot_pull(
            given(chain.stiffness_n_mm, "default", "stiffness of the foot"),
            lift,
            pitch,
            roll,
            float(arm.x_mm[0, i]) + centre[0],
            float(arm.y_mm[0, i]) + centre[1],
        )
    )


def _centre_offset(shared: Forces) -> tuple[float, float]:
    """Centre of the feet relative to the panel's centre: shear arms are about the feet, pull arms about the
    panel.
    """
    return shared.shear_sharing.centre_x_mm, shared.shear_sharing.centre_y_mm


def _shear(i: int, shared: Forces, case: int, air: Air) -> float:
    total = 0.0
    share = shared.shear_sharing
    for factor, column in ((1.0, case), (air.pressure_pa, len(CASES))):
        total += factor * float(
            foot_shear(
                given(float(share.along_n[0, column]), "computed", "even share"),
                given(float(share.across_n[0, column]), "computed", "even share"),
                given(float(share.twist_n_mm[0, column]), "computed", "twist"),
                float(share.x_mm[0, i]),
                float(share.y_mm[0, i]),
            )
        )
    return total


def _speed(i: int, pull_cap: float, shear_cap: float, link: Link, shared: Forces, air: Air) -> float:
    """The worst case for this link need not be the worst case of the foot, so all cases are tried."""
    per_pa = (float(shared.pull_cautious[0, 0, i]), float(shared.along_per_pa[0, 0, i]))
    constants = [
        (float(shared.pull_constant[0, c, i]), float(shared.along_constant[0, c, i]))
        for c in range(len(CASES))
    ]
    unnoted = limit_pressure.__wrapped__  # type: ignore[attr-defined]
    pressures = [unnoted(c[0], per_pa[0], c[1], per_pa[1], pull_cap, shear_cap) for c in constants]
    case = int(np.argmin(pressures))
    origin = f"foot, {CASE_NAMES[case]}"
    pressure = limit_pressure(
        given(constants[case][0], "computed", origin),
        given(per_pa[0], "computed", "foot, slipstream of 1 Pa"),
        given(constants[case][1], "computed", origin),
        given(per_pa[1], "computed", "foot, drag of 1 Pa"),
        given(pull_cap, "computed", link.title),
        given(shear_cap, "computed", link.title),
    )
    return float(speed_at_pressure(min(pressure, 1e6), air.density_kg_m3, air.gust_m_s))
