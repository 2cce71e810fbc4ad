"""What is worked out about carriers: their feet, what they carry, their verdicts."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import scope
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Assumptions, Members, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.stations.hold.carriers.explain import explain_carrier
from fahrtwind.core.stations.hold.carriers.links import rail_foot_chain
from fahrtwind.core.stations.hold.carriers.rails import Profile, profile_of
from fahrtwind.core.stations.hold.carriers.sharing import Carried, CarrierForces, share_carrier
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict, judge_carrier
from fahrtwind.core.stations.hold.forces import Shared, along_rows
from fahrtwind.core.stations.hold.ground import bay_at
from fahrtwind.core.stations.hold.links import Bay, Chain
from fahrtwind.core.stations.hold.loads import PanelLoads, case_forces
from fahrtwind.core.stations.hold.verdict import Air
from fahrtwind.core.stations.house import stage, working
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.structure.members import MemberFit


@stage("hold", "What lies on a carrier", "panels.{id}.carrier", each="panels", all="all_carried")
def carried(
    panel: PlacedPanel,
    held_at: tuple[FootPlace, ...],
    shared: Shared,
    loads: tuple[PanelLoads, ...],
    assumptions: Assumptions,
) -> Carried | None:
    """None for a panel on feet of its own."""
    if panel.carrier is None:
        return None
    rows = along_rows(loads, case_forces(loads[0].mass_kg, assumptions.bump_g))
    return Carried(panel.carrier, panel.id, held_at, shared, loads[0].rect.centre, rows)


@stage("hold", "Chains of a carrier", "carriers.{id}.hold", each="carriers", all="chains_by_carrier")
def foot_chains(
    carrier: Carrier, skin: Vehicle, ribs: Members, members: MemberFit, feet_of_carrier: tuple[FootPlace, ...]
) -> tuple[Chain, ...]:
    return tuple(rail_foot_chain(carrier, skin, ribs, f.landing, _bay(f, members)) for f in feet_of_carrier)


def _bay(foot: FootPlace, members: MemberFit) -> Bay | None:
    return None if foot.landing == "member" else bay_at(members.members, foot.x_mm)


@stage("hold", "Section of a carrier", "carriers.{id}", each="carriers", all="profiles")
def profile(carrier: Carrier) -> Profile:
    return profile_of(carrier)


@stage("hold", "Forces of a carrier", "carriers.{id}", each="carriers", all="forces_by_carrier")
def carrier_forces(
    carrier: Carrier,
    profile: Profile,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    all_carried: tuple[Carried, ...],
) -> CarrierForces | None:
    """None while nothing lies on it or nothing holds it."""
    own = tuple(c for c in all_carried if c.carrier == carrier.id)
    if not own or not feet_of_carrier:
        return None
    return share_carrier(carrier, profile, feet_of_carrier, foot_chains, own)


@stage("hold", "Verdict of a carrier", "carriers.{id}", each="carriers", all="carrier_verdicts")
def carrier_verdict(
    carrier: Carrier,
    profile: Profile,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    carrier_forces: CarrierForces,
    air: Air,
) -> CarrierVerdict:
    return judge_carrier(carrier, profile, feet_of_carrier, foot_chains, carrier_forces, air)


@working("hold/{id}", each="carriers")
def carrier_working(
    carrier: Carrier,
    skin: Vehicle,
    ribs: Members,
    members: MemberFit,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    carrier_forces: CarrierForces,
    carrier_verdict: CarrierVerdict,
    air: Air,
) -> None:
    """Section, each foot's chain once more, and the scalar formulas behind the arrays."""
    with scope("hold", carrier.id):
        own = profile_of(carrier)
        for foot in feet_of_carrier:
            with scope(foot.foot):
                rail_foot_chain(carrier, skin, ribs, foot.landing, _bay(foot, members))
        explain_carrier(own, feet_of_carrier, foot_chains, carrier_forces, carrier_verdict, air)
