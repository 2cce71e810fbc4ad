"""What is worked out about the hold: the slipstream, the chain of every foot, the verdict of every panel and
of the roof.
"""

from __future__ import annotations

from fahrtwind.core.formulas.air import air_density, air_speed, dynamic_pressure
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof import added_roof_mass
from fahrtwind.core.job.document import Assumptions, Members, SkinKind, Vehicle
from fahrtwind.core.job.panel import Attachment, PlacedPanel
from fahrtwind.core.quantities import Length, Speed
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.explain import explain_panel
from fahrtwind.core.stations.hold.links import Chain, skin_of
from fahrtwind.core.stations.hold.loads import PanelLoads, is_exposed, panel_loads
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict, plan_verdict
from fahrtwind.core.stations.hold.verdict import Air, Forces, PanelVerdict, forces, judge
from fahrtwind.core.stations.house import rules, stage, working
from fahrtwind.core.stations.layout.feet import FootPlace, Landing
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.tables.feet import FOOT_MASS_KG

rules.unanswered("hold")
Way = tuple[Landing, bool]
"""What a foot lands in, and whether it stands on a long side of the frame: feet alike in both have the same
chain.
"""


@stage("hold", "Slipstream", "vehicle.top_speed", place="air")
def air(top_speed: Speed, altitude: Length, assumptions: Assumptions, probe: float | None) -> Air:
    speed = top_speed.m_s if probe is None else probe
    with scope("air"):
        gust = given(assumptions.gust.m_s, "chosen", "assumptions: headwind gust")
        density = air_density(given(altitude.mm / 1000, "chosen", "altitude"))
        pressure = dynamic_pressure(density, air_speed(given(speed, "chosen", "road speed"), gust))
    return Air(speed, gust, density, pressure)


@stage("hold", "Skin", "vehicle.skin")
def skin(vehicle: Vehicle, skin_kind: SkinKind, skin_thickness: Length) -> Vehicle:
    """What a chain reads of the vehicle, alone."""
    return skin_of(vehicle)


@stage("hold", "Front edge", "panels.{id}", each="panels", all="exposures")
def exposed(panel: PlacedPanel, panel_shapes: tuple[Shape, ...], assumptions: Assumptions) -> bool:
    return is_exposed(assumptions, panel_rect(panel), tuple(s.rect for s in panel_shapes))


@stage("hold", "Loads", "panels.{id}", each="panels", all="loads_by_panel")
def loads(panel: PlacedPanel, roof: Rect, exposed: bool) -> PanelLoads:
    return panel_loads(roof, panel, exposed)


@stage("hold", "Feet", "panels.{id}", each="panels", all="ways_by_panel")
def ways(panel: PlacedPanel, own_feet: tuple[FootPlace, ...]) -> tuple[Way, ...]:
    return tuple((f.landing, f.on_side) for f in own_feet)


@stage("hold", "Chains", "panels.{id}.hold", each="panels", all="chains_by_panel")
def chains(
    panel: PlacedPanel, hold: Attachment, skin: Vehicle, ribs: Members, ways: tuple[Way, ...]
) -> tuple[Chain, ...]:
    """One chain for each foot; feet that land alike share it. By panel: one that no source covers takes
    no other panel's verdict away.
    """
    alike = {way: chain_of(skin, ribs, hold, *way) for way in dict.fromkeys(ways)}
    return tuple(alike[way] for way in ways)


@stage("hold", "Forces", "panels.{id}", each="panels", all="forces_by_panel")
def shared(
    panel: PlacedPanel,
    loads: PanelLoads,
    own_feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    assumptions: Assumptions,
) -> Forces | None:
    """How the feet share the loads; None without feet."""
    if not own_feet:
        return None
    bump = given(assumptions.bump_g, "chosen", "assumptions: upward bump")
    return forces(loads, panel_rect(panel).centre, own_feet, chains, bump)


@stage("hold", "Verdict", "panels.{id}", each="panels", all="verdicts")
def verdict(
    panel: PlacedPanel,
    loads: PanelLoads,
    own_feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    shared: Forces,
    air: Air,
) -> PanelVerdict:
    return judge(panel.id, loads, own_feet, chains, shared, air)


@working("hold/{id}", each="panels")
def verdict_working(
    panel: PlacedPanel,
    roof: Rect,
    exposed: bool,
    skin: Vehicle,
    ribs: Members,
    own_feet: tuple[FootPlace, ...],
    assumptions: Assumptions,
    air: Air,
) -> None:
    """The same once more, each foot's chain on its own, and the scalar formulas behind the arrays."""
    with scope("hold", panel.id):
        loads = panel_loads(roof, panel, exposed)
        found = []
        for foot in own_feet:
            with scope(foot.foot):
                found.append(chain_of(skin, ribs, panel.hold, foot.landing, foot.on_side))
        own = tuple(found)
        bump = given(assumptions.bump_g, "chosen", "assumptions: upward bump")
        shared = forces(loads, panel_rect(panel).centre, own_feet, own, bump)
        explain_panel(loads, own_feet, own, shared, judge(panel.id, loads, own_feet, own, shared, air), air)


@stage("hold", "Whole roof", "panels")
def speeds(verdicts: tuple[PanelVerdict, ...], air: Air, top_speed: Speed) -> PlanVerdict | None:
    return plan_verdict(verdicts, air, top_speed.m_s) if verdicts else None


@stage("hold", "Roof mass", "panels", place="roof mass", otherwise=0.0)
def roof_mass_kg(panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...]) -> float:
    with scope("roof mass"):
        own = given(sum(p.model.mass.kg for p in panels), "chosen", "panel masses")
        foot = given(FOOT_MASS_KG, "default", "common practice")
        return float(added_roof_mass(own, float(len(feet)), foot))
