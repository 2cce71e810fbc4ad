"""What is worked out about carriers: their feet, what they carry, their verdicts."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import scope
from fahrtwind.core.formulas.roof import GRAVITY
from fahrtwind.core.job.carrier import Carrier, Rack, Rails
from fahrtwind.core.job.document import Assumptions, Members, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.explain import explain_carrier, explain_rack
from fahrtwind.core.stations.hold.carriers.forced import Forced, forced_of
from fahrtwind.core.stations.hold.carriers.links import joint_chain, rail_foot_chain
from fahrtwind.core.stations.hold.carriers.rack import ClampPlace, RackFrame, rack_parts
from fahrtwind.core.stations.hold.carriers.rack_forces import (
    RackForces,
    clamp_places,
    rack_frames,
    share_rack,
)
from fahrtwind.core.stations.hold.carriers.rack_verdict import judge_rack
from fahrtwind.core.stations.hold.carriers.rails import Profile, profile_of
from fahrtwind.core.stations.hold.carriers.sharing import Carried, CarrierForces, share_carrier
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict, judge_carrier
from fahrtwind.core.stations.hold.forces import Shared, along_rows
from fahrtwind.core.stations.hold.ground import bay_at
from fahrtwind.core.stations.hold.links import Bay, Chain
from fahrtwind.core.stations.hold.loads import PanelLoads, case_forces
from fahrtwind.core.stations.hold.schools.tape.stress import TapedFoot, taped_feet
from fahrtwind.core.stations.hold.verdict import Air
from fahrtwind.core.stations.house import stage, working
from fahrtwind.core.stations.layout.feet import FootPlace, Landing
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.stations.survey.crown import CrownSurface


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
    return Carried(panel.carrier, panel.id, held_at, shared, loads[0].rect, loads[0].mass_kg, rows)


@stage("hold", "Ratings of factory points", "survey.point_rows", otherwise={})
def point_ratings_n(survey_notes: Survey) -> dict[str, float]:
    """What one point of every row may bear, N; rows whose rating nobody knows are not in it."""
    return {r.id: r.rating.kg * GRAVITY for r in survey_notes.point_rows if r.rating is not None}


@stage("hold", "Chains of a carrier", "carriers.{id}.hold", each="carriers")
def foot_chains(
    carrier: Carrier,
    skin: Vehicle,
    ribs: Members,
    members: MemberFit,
    feet_of_carrier: tuple[FootPlace, ...],
    point_ratings_n: dict[str, float],
) -> tuple[Chain, ...]:
    """One chain for each foot; feet that land alike share it."""
    ways = [_way(f, members, point_ratings_n) for f in feet_of_carrier]
    alike = {way: rail_foot_chain(carrier, skin, ribs, *way) for way in dict.fromkeys(ways)}
    return tuple(alike[way] for way in ways)


@dataclass(frozen=True, slots=True, eq=False)
class Footing:
    """What a carrier stands on: its feet, and the chain of each."""

    carrier: str
    feet: tuple[FootPlace, ...]
    chains: tuple[Chain, ...]


@stage("hold", "What a carrier stands on", "carriers.{id}", each="carriers", all="footings")
def footing(
    carrier: Carrier, feet_of_carrier: tuple[FootPlace, ...], foot_chains: tuple[Chain, ...]
) -> Footing:
    return Footing(carrier.id, feet_of_carrier, foot_chains)


def _way(
    foot: FootPlace, members: MemberFit, ratings_n: dict[str, float]
) -> tuple[Landing, Bay | None, float | None]:
    """What a foot lands in, where between members, and what its factory point bears."""
    bay = None if foot.landing in ("member", "point") else bay_at(members.members, foot.x_mm)
    return foot.landing, bay, ratings_n.get(foot.row) if foot.row else None


@stage("hold", "Section of a carrier", "carriers.{id}", each="carriers", all="profiles")
def profile(carrier: Carrier) -> Profile:
    return profile_of(carrier)


@stage("hold", "Clamps on a carrier", "carriers.{id}", each="carriers")
def clamped_at(carrier: Carrier, all_carried: tuple[Carried, ...]) -> tuple[ClampPlace, ...]:
    return clamp_places(tuple(c for c in all_carried if c.carrier == carrier.id))


@stage("hold", "Frame of a carrier", "carriers.{id}", each="carriers")
def frames_of_rack(
    carrier: Carrier,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    clamped_at: tuple[ClampPlace, ...],
) -> tuple[RackFrame, RackFrame] | None:
    """None where it needs no frame, or bears nothing yet. It stays while loads change."""
    if not isinstance(carrier, Rack) or not clamped_at or not feet_of_carrier:
        return None
    return rack_frames(carrier, feet_of_carrier, foot_chains, clamped_at)


@stage(
    "hold", "Rails over a roof that curves", "carriers.{id}", each="carriers", all="all_forced", otherwise=()
)
def forced(
    carrier: Carrier,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    crown: CrownSurface,
) -> tuple[Forced, ...]:
    return forced_of(carrier, feet_of_carrier, foot_chains, crown)


@stage("hold", "Forces of a carrier", "carriers.{id}", each="carriers", all="forces_by_carrier")
def carrier_forces(
    carrier: Carrier,
    profile: Profile,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    frames_of_rack: tuple[RackFrame, RackFrame] | None,
    all_carried: tuple[Carried, ...],
    assumptions: Assumptions,
) -> CarrierForces | RackForces | None:
    """None while nothing lies on it or nothing holds it."""
    own = tuple(c for c in all_carried if c.carrier == carrier.id)
    if not own or not feet_of_carrier:
        return None
    if isinstance(carrier, Rack):
        return frames_of_rack and share_rack(carrier, frames_of_rack, own, assumptions.bump_g)
    return share_carrier(carrier, profile, feet_of_carrier, foot_chains, own)


@stage("hold", "Verdict of a carrier", "carriers.{id}", each="carriers", all="carrier_verdicts")
def carrier_verdict(
    carrier: Carrier,
    profile: Profile,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    carrier_forces: CarrierForces | RackForces,
    all_carried: tuple[Carried, ...],
    air: Air,
) -> CarrierVerdict:
    match carrier, carrier_forces:
        case Rack(), RackForces():
            load = sum(c.mass_kg for c in all_carried if c.carrier == carrier.id)
            return judge_rack(carrier, feet_of_carrier, foot_chains, carrier_forces, load, air)
        case Rails(), CarrierForces():
            return judge_carrier(carrier, profile, feet_of_carrier, foot_chains, carrier_forces, air)
    raise TypeError("forces of another carrier")


@stage("hold", "Tape", "panels.{id}.hold", each="panels", all="taped_panels", otherwise=())
def taped_panel(
    panel: PlacedPanel, own_feet: tuple[FootPlace, ...], shared: Shared, air: Air, crown: CrownSurface | None
) -> tuple[TapedFoot, ...]:
    return () if panel.carrier else taped_feet(panel.hold, own_feet, shared.road, air, crown)


@stage("hold", "Tape", "carriers.{id}.hold", each="carriers", all="taped_carriers", otherwise=())
def taped_carrier(
    carrier: Carrier,
    feet_of_carrier: tuple[FootPlace, ...],
    carrier_forces: CarrierForces | RackForces,
    air: Air,
    crown: CrownSurface | None,
) -> tuple[TapedFoot, ...]:
    return taped_feet(carrier.hold, feet_of_carrier, carrier_forces.road, air, crown)


@stage("hold", "Tape", "panels", otherwise=())
def taped(
    taped_panels: tuple[tuple[TapedFoot, ...], ...], taped_carriers: tuple[tuple[TapedFoot, ...], ...]
) -> tuple[TapedFoot, ...]:
    """Every taped foot, of panels and of carriers."""
    return tuple(foot for own in (*taped_panels, *taped_carriers) for foot in own)


@working("tape/{id}", each="panels")
def taped_working(
    panel: PlacedPanel, own_feet: tuple[FootPlace, ...], shared: Shared, air: Air, crown: CrownSurface | None
) -> None:
    """The same once more: what is noted there stands under ``tape``."""
    taped_feet(panel.hold, own_feet, shared.road, air, crown)


@working("hold/{id}", each="carriers")
def carrier_working(
    carrier: Carrier,
    skin: Vehicle,
    ribs: Members,
    members: MemberFit,
    feet_of_carrier: tuple[FootPlace, ...],
    foot_chains: tuple[Chain, ...],
    carrier_forces: CarrierForces | RackForces,
    carrier_verdict: CarrierVerdict,
    point_ratings_n: dict[str, float],
    air: Air,
) -> None:
    """Section, each foot's chain once more, and the scalar formulas behind the arrays."""
    with scope("hold", carrier.id):
        own = profile_of(carrier)
        for foot in feet_of_carrier:
            with scope(foot.foot):
                rail_foot_chain(carrier, skin, ribs, *_way(foot, members, point_ratings_n))
        if isinstance(carrier, Rack) and isinstance(carrier_forces, RackForces):
            rack_parts(carrier)
            with scope("corner"):
                joint_chain(carrier)
            explain_rack(carrier, feet_of_carrier, foot_chains, carrier_forces, carrier_verdict, air)
        elif isinstance(carrier_forces, CarrierForces):
            explain_carrier(own, feet_of_carrier, foot_chains, carrier_forces, carrier_verdict, air)
