"""The working of a carrier: the scalar formulas, called once more for what the arrays decided."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.joints import bar_stress
from fahrtwind.core.formulas.sharing import side_frame_pull
from fahrtwind.core.formulas.verdict import utilisation
from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.stations.hold.carriers.rack_forces import RackForces
from fahrtwind.core.stations.hold.carriers.rails import Profile
from fahrtwind.core.stations.hold.carriers.seams import explain_seams, seams_of
from fahrtwind.core.stations.hold.carriers.sections import BarStrength
from fahrtwind.core.stations.hold.carriers.sharing import CarrierForces
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.explain import explain_speed
from fahrtwind.core.stations.hold.forces import Forces
from fahrtwind.core.stations.hold.frame.model import FloatArray
from fahrtwind.core.stations.hold.links import Chain, Link
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
            _explain_foot(i, chains[i], forces.road, verdict.feet[i], air, "clamps on its rail")
    for rail in verdict.rails:
        with scope(f"bending {rail.rail}"):
            most = max(abs(m) for m in rail.moments_n_mm)
            utilisation(
                given(most, "computed", "beam on its feet, worst case"),
                0.0,
                given(profile.moment_design_n_mm, "computed", "moment at yield over 1.65"),
                1.0,
            )


def explain_rack(
    rack: Rack,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    forces: RackForces,
    verdict: CarrierVerdict,
    air: Air,
) -> None:
    """Note each foot at its worst case, each seam, each corner's worst bolt, the stresses in every bar."""
    for i, foot in enumerate(feet):
        with scope(foot.foot):
            _explain_foot(i, chains[i], forces.road, verdict.feet[i], air, "frame on its feet")
    explain_seams(seams_of(rack, forces.frame), verdict.seams)
    for joint in verdict.joints:
        chain = verdict.corner if joint.kind == "corner" else verdict.crossing
        for link in chain.links if chain else ():
            with scope(f"corner {joint.joint}", f"link {link.id}"):
                _used(link, joint.pull_n, joint.shear_n, "worst bolt of the corner")
    for name, made in forces.frame.made_of.items():
        with scope(f"bending {name}"):
            _explain_bar(name, made.strength, forces, air)


def _explain_bar(name: str, strength: BarStrength, forces: RackForces, air: Air) -> None:
    """The end of a piece of the bar at which all stresses together are the most."""
    own = [i for i, bar in enumerate(forces.frame.frame.bars) if bar.part == name]
    shape, now = strength.shape, forces.bars_road.under(air.pressure_pa)[:, own]
    where = "frame, worst case of all"
    ends = [e for at in now.reshape(-1, 12) for e in (at[:6], at[6:])]
    sizes = (shape.area_mm2, shape.up_mm3, shape.side_mm3, shape.torsion_mm3)

    def stress(end: FloatArray) -> float:
        return sum(
            abs(float(end[i])) * k / w for i, k, w in zip((0, 4, 5, 3), (1, 1, 1, 3**0.5), sizes, strict=True)
        )

    worst = max(ends, key=stress)
    axial, up, side, torsion = (given(float(worst[i]), "computed", where) for i in (0, 4, 5, 3))
    bar_stress(axial, sizes[0], up, sizes[1], side, sizes[2], torsion, sizes[3])


def _used(link: Link, pull_n: float, shear_n: float, where: str) -> None:
    utilisation(
        given(pull_n, "computed", where),
        given(shear_n, "computed", where),
        given(link.pull_design_n, "computed", f"design capacity, {link.title}"),
        given(link.shear_design_n, "computed", f"design capacity, {link.title}"),
    )


def _explain_foot(i: int, chain: Chain, road: Forces, told: FootVerdict, air: Air, through: str) -> None:
    at = list(zip(road.cases, road.models, strict=True)).index((told.case, told.model))
    where = f"{through}, {told.model}; {told.case}"
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
            _used(link, pull, told.shear_n, f"force on the foot, {told.case}")
    weakest = next(k for k in chain.links if k.id == told.weakest)
    with scope("let-go speed"):
        explain_speed(i, weakest.pull_nominal_n, weakest.shear_nominal_n, weakest, road, air)
    with scope("safe speed"):
        explain_speed(i, weakest.pull_design_n, weakest.shear_design_n, weakest, road, air)
