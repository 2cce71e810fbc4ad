"""The working of a carrier: the scalar formulas, called once more for what the arrays decided."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sharing import side_frame_pull
from fahrtwind.core.formulas.verdict import utilisation
from fahrtwind.core.stations.hold.carriers.rails import Profile
from fahrtwind.core.stations.hold.carriers.sharing import CarrierForces
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.explain import explain_speed
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.verdict import Air, FootVerdict
from fahrtwind.core.stations.layout.feet import FootPlace


def explain_carrier(
    profile: Profile,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    forces: CarrierForces,
    verdict: CarrierVerdict,
    air: Air,
) -> None:
    """Note each foot at its worst case, and what the rails use of their strength in bending, N·mm."""
    for i, foot in enumerate(feet):
        with scope(foot.foot):
            _explain_foot(i, chains[i], forces, verdict.feet[i], air)
    for rail in verdict.rails:
        with scope(f"bending {rail.rail}"):
            most = max(abs(m) for m in rail.moments_n_mm)
            utilisation(
                given(most, "computed", "beam on its feet, worst case"),
                0.0,
                given(profile.moment_design_n_mm, "computed", "moment at yield over 1.65"),
                1.0,
            )


def _explain_foot(i: int, chain: Chain, forces: CarrierForces, told: FootVerdict, air: Air) -> None:
    road = forces.road
    at = list(zip(road.cases, road.models, strict=True)).index((told.case, told.model))
    where = f"clamps on its rail, {told.model}; {told.case}"
    with scope("force"):
        pull = float(
            side_frame_pull(
                given(float(road.pull_constant[0, at, i]), "computed", where),
                given(float(road.pull_per_pa[0, at, i]), "computed", where),
                air.pressure_pa,
            )
        )
    for link in chain.links:
        with scope(f"link {link.id}"):
            utilisation(
                given(pull, "computed", f"force on the foot, {told.case}"),
                given(told.shear_n, "computed", f"force on the foot, {told.case}"),
                given(link.pull_design_n, "computed", f"design capacity, {link.title}"),
                given(link.shear_design_n, "computed", f"design capacity, {link.title}"),
            )
    weakest = next(k for k in chain.links if k.id == told.weakest)
    with scope("let-go speed"):
        explain_speed(i, weakest.pull_nominal_n, weakest.shear_nominal_n, weakest, road, air)
    with scope("safe speed"):
        explain_speed(i, weakest.pull_design_n, weakest.shear_design_n, weakest, road, air)
