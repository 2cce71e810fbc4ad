"""The working of a panel's verdict: the scalar formulas, called once more for what the arrays decided.

Only runs while recording. The tests hold these scalars against the arrays.
"""

from __future__ import annotations

import numpy as np

from fahrtwind.core.formulas.air import slipstream_uplift, speed_at_pressure
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sharing import foot_pull, foot_shear, side_frame_pull
from fahrtwind.core.formulas.verdict import caution_in_all, limit_pressure, utilisation
from fahrtwind.core.stations.hold.forces import CASE_NAMES, MODELS, Forces, Shared
from fahrtwind.core.stations.hold.links import Chain, Link
from fahrtwind.core.stations.hold.loads import PanelLoads
from fahrtwind.core.stations.hold.verdict import Air, FootVerdict, PanelVerdict
from fahrtwind.core.stations.layout.feet import FootPlace


def explain_panel(
    loads: PanelLoads,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    shared: Shared,
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
            _explain_foot(i, chains[i], shared, verdict.feet[i], loads, air)


def _explain_foot(
    i: int, chain: Chain, shared: Shared, told: FootVerdict, loads: PanelLoads, air: Air
) -> None:
    road = shared.road
    at = list(zip(road.cases, road.models, strict=True)).index((told.case, told.model))
    with scope("force"):
        pull = _pull(i, at, chain, shared, air)
        shear = _shear(i, CASE_NAMES.index(told.case), shared, air)
    for link in chain.links:
        with scope(f"link {link.id}"):
            pull_now = given(pull, "computed", f"force on the foot, {told.case}")
            shear_now = given(shear, "computed", f"force on the foot, {told.case}")
            capacity = [
                given(c, "computed", f"design capacity, {link.title}")
                for c in (link.pull_design_n, link.shear_design_n)
            ]
            utilisation(pull_now, shear_now, *capacity)
    weakest = next(k for k in chain.links if k.id == told.weakest)
    with scope("let-go speed"):
        explain_speed(i, weakest.pull_nominal_n, weakest.shear_nominal_n, weakest, road, air)
    with scope("safe speed"):
        explain_speed(i, weakest.pull_design_n, weakest.shear_design_n, weakest, road, air)
    with scope("caution in all"):
        caution_in_all(
            given(weakest.pull_nominal_n / weakest.pull_design_n, "table", weakest.title),
            given(loads.cautious_m2, "computed", "zones under the panel, cautious end"),
            given(loads.typical_m2, "computed", "zones under the panel, typical end"),
            given(air.probe_m_s, "chosen", "road speed"),
            given(air.gust_m_s, "chosen", "assumptions: headwind gust"),
        )


def _pull(i: int, at: int, chain: Chain, shared: Shared, air: Air) -> float:
    """By the model that gives most: the plate's motion, or the beam under the side of the frame."""
    road = shared.road
    if road.models[at] not in (MODELS[0], f"{MODELS[0]}, skin at its softest"):
        where = f"{road.models[at]}; {road.cases[at]}"
        return float(
            side_frame_pull(
                given(float(road.pull_constant[0, at, i]), "computed", where),
                given(float(road.pull_per_pa[0, at, i]), "computed", road.models[at]),
                air.pressure_pa,
            )
        )
    case, wind = CASE_NAMES.index(road.cases[at]), 2 * (len(CASE_NAMES) + 1)
    motion = shared.plate.motion[0, case] + shared.plate.motion[0, wind] * air.pressure_pa
    lift, pitch, roll = (given(float(m), "computed", "equilibrium of the panel on all feet") for m in motion)
    arm = shared.shear
    # arms along the roof are about the feet, those of the pull about the panel
    x, y = float(arm.x_mm[0, i]) + arm.centre_x_mm, float(arm.y_mm[0, i]) + arm.centre_y_mm
    return float(
        foot_pull(given(chain.stiffness_n_mm, "default", "stiffness of the foot"), lift, pitch, roll, x, y)
    )


def _shear(i: int, case: int, shared: Shared, air: Air) -> float:
    total = 0.0
    share = shared.shear
    for factor, column in ((1.0, case), (air.pressure_pa, len(CASE_NAMES))):
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


def explain_speed(i: int, pull_cap: float, shear_cap: float, link: Link, road: Forces, air: Air) -> float:
    """Note the road speed in m/s at which a link reaches so much, N. The worst situation for this link need
    not be the worst of the foot, so all are tried.
    """
    parts = (road.pull_constant, road.pull_per_pa, road.along_constant, road.along_per_pa)
    lines = [tuple(float(part[0, s, i]) for part in parts) for s in range(len(road.cases))]
    unnoted = limit_pressure.__wrapped__  # type: ignore[attr-defined]
    at = int(np.argmin([unnoted(*line, pull_cap, shear_cap) for line in lines]))
    origin = f"foot, {road.cases[at]}, {road.models[at]}"
    pull_0, pull_1, along_0, along_1 = lines[at]
    pressure = limit_pressure(
        given(pull_0, "computed", origin),
        given(pull_1, "computed", "foot, slipstream of 1 Pa"),
        given(along_0, "computed", origin),
        given(along_1, "computed", "foot, drag of 1 Pa"),
        given(pull_cap, "computed", link.title),
        given(shear_cap, "computed", link.title),
    )
    return float(speed_at_pressure(min(pressure, 1e6), air.density_kg_m3, air.gust_m_s))
