"""What is worked out about the hold: the slipstream, the chain of every foot, the verdict of every panel and
of the roof.
"""

from __future__ import annotations

from fahrtwind.core.formulas.air import air_density, air_pressure, air_speed, dynamic_pressure
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof import added_roof_mass
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.document import Assumptions, Members, SkinKind, Vehicle
from fahrtwind.core.job.panel import Attachment, PlacedPanel, SpanBars
from fahrtwind.core.quantities import Length, Speed
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.carriers.links import clamp_chain
from fahrtwind.core.stations.hold.carriers.rails import carrier_of, clamps_of
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.explain import explain_panel
from fahrtwind.core.stations.hold.forces import Shared, share
from fahrtwind.core.stations.hold.ground import above_of, bay_at
from fahrtwind.core.stations.hold.links import Above, Bay, Chain, skin_of
from fahrtwind.core.stations.hold.loads import PanelLoads, panel_loads
from fahrtwind.core.stations.hold.parked import ParkedWind, height_mm, wind_while_parked
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict, plan_verdict
from fahrtwind.core.stations.hold.shelter import Face, around, shelter_of
from fahrtwind.core.stations.hold.span import OnBar, on_bars, span_chain
from fahrtwind.core.stations.hold.tethers.caught import Caught
from fahrtwind.core.stations.hold.unjudged import MemberEnd, member_ends
from fahrtwind.core.stations.hold.verdict import Air, PanelVerdict, judge
from fahrtwind.core.stations.hold.zones import WINDS
from fahrtwind.core.stations.house import rules, stage, working
from fahrtwind.core.stations.layout.feet import FootPlace, Landing
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.tables.feet import FOOT_MASS_KG

rules.unanswered("hold")


@dataclass(frozen=True, slots=True)
class Way:
    """What a foot lands in and where between members; feet alike in all of it have the same chain."""

    landing: Landing
    on_side: bool
    bay: Bay | None
    bar: OnBar | None = None


@stage("hold", "Wind while parked", "assumptions.basic_wind", place="parked wind")
def parked_wind(vehicle: Vehicle, assumptions: Assumptions, top_speed: Speed) -> ParkedWind:
    with scope("parked wind"):
        return wind_while_parked(vehicle, assumptions, top_speed.m_s)


@stage("hold", "Slipstream", "vehicle.top_speed", place="air")
def air(
    top_speed: Speed, altitude: Length, assumptions: Assumptions, probe: float | None, parked_wind: ParkedWind
) -> Air:
    speed = top_speed.m_s if probe is None else probe
    with scope("air"):
        gust = given(assumptions.gust.m_s, "chosen", "assumptions: headwind gust")
        cold = given(assumptions.coldest.deg_c, "chosen", "assumptions: coldest driving day")
        density = air_density(air_pressure(given(altitude.mm / 1000, "chosen", "altitude")), cold)
        pressure = dynamic_pressure(density, air_speed(given(speed, "chosen", "road speed"), gust))
    return Air(speed, gust, density, pressure, parked_wind.gust_m_s, parked_wind.pressure_pa)


@stage("hold", "Skin", "vehicle.skin")
def skin(vehicle: Vehicle, skin_kind: SkinKind, skin_thickness: Length) -> Vehicle:
    """What a chain reads of the vehicle, alone."""
    return skin_of(vehicle)


@stage("hold", "Height of the roof", "vehicle.height")
def roof_height_mm(vehicle: Vehicle) -> float:
    return height_mm(vehicle)


@stage("hold", "Faces", "panels.{id}", each="panels", all="faces")
def face(panel: PlacedPanel) -> Face:
    return Face(panel.id, panel_rect(panel), panel.stand_off.mm + panel.model.frame_height.mm)


@stage("hold", "Shelter", "panels.{id}", each="panels", all="shelters")
def shelter(
    panel: PlacedPanel, face: Face, faces: tuple[Face, ...], assumptions: Assumptions
) -> tuple[float, ...]:
    """Of the ram pressure from each of ``WINDS``, the share that is kept off; a fairing keeps the slipstream
    off.
    """
    near = around(face, faces)
    kept = [shelter_of(face, near, wind) for wind in WINDS]
    return (1.0 if assumptions.front_edge == "faired" else kept[0], *kept[1:])


@stage("hold", "Loads", "panels.{id}", each="panels", all="loads_by_panel")
def loads(
    panel: PlacedPanel, roof: Rect, shelter: tuple[float, ...], roof_height_mm: float
) -> tuple[PanelLoads, ...]:
    """The slipstream, then parked from each of ``WINDS``."""
    slipstream = panel_loads(roof, panel, shelter[0], roof_height_mm)
    return slipstream, *_parked_loads(roof, panel, shelter, roof_height_mm)


def _parked_loads(
    roof: Rect, panel: PlacedPanel, shelter: tuple[float, ...], height_mm: float
) -> tuple[PanelLoads, ...]:
    sides = zip(shelter, WINDS, strict=True)
    return tuple(panel_loads(roof, panel, kept, height_mm, wind, parked=True) for kept, wind in sides)


@stage("hold", "Where a panel is held", "panels.{id}", each="panels", all="held_by_panel")
def held_at(
    panel: PlacedPanel, own_feet: tuple[FootPlace, ...], carriers: tuple[Carrier, ...]
) -> tuple[FootPlace, ...]:
    """At its feet, or at the clamps on what it lies on."""
    under = carrier_of(panel, carriers)
    return own_feet if under is None else clamps_of(under, panel)


@stage("hold", "Feet", "panels.{id}", each="panels", all="ways_by_panel")
def ways(panel: PlacedPanel, held_at: tuple[FootPlace, ...], members: MemberFit) -> tuple[Way, ...]:
    bars = on_bars(held_at, members.members)
    return tuple(
        Way(
            f.landing,
            f.on_side,
            None if f.landing in ("member", "rail") else bay_at(members.members, f.x_mm),
            bars.get(f.foot),
        )
        for f in held_at
    )


@stage("hold", "What a foot carries", "panels.{id}", each="panels", all="aboves")
def above(panel: PlacedPanel) -> Above:
    return above_of(panel)


@stage("hold", "Chains", "panels.{id}.hold", each="panels", all="chains_by_panel")
def chains(
    panel: PlacedPanel,
    hold: Attachment,
    skin: Vehicle,
    ribs: Members,
    ways: tuple[Way, ...],
    above: Above,
    carriers: tuple[Carrier, ...],
) -> tuple[Chain, ...]:
    """One chain for each foot; feet that land alike share it. By panel: one that no source covers takes
    no other panel's verdict away.
    """
    under = carrier_of(panel, carriers)
    alike = {way: _chain(way, skin, ribs, hold, above, under, panel.span) for way in dict.fromkeys(ways)}
    return tuple(alike[way] for way in ways)


def _chain(
    way: Way,
    skin: Vehicle,
    ribs: Members,
    hold: Attachment,
    above: Above,
    under: Carrier | None,
    span: SpanBars | None,
) -> Chain:
    if under is not None:
        return clamp_chain(under, above)
    if way.bar is not None and span is not None:
        return span_chain(span, hold, skin, ribs, way.bar, above)
    return chain_of(skin, ribs, hold, way.landing, way.on_side, way.bay, above)


@stage("hold", "Forces", "panels.{id}", each="panels", all="forces_by_panel")
def shared(
    panel: PlacedPanel,
    loads: tuple[PanelLoads, ...],
    held_at: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    assumptions: Assumptions,
    carriers: tuple[Carrier, ...],
) -> Shared | None:
    """How the feet share the loads; None without feet."""
    if not held_at:
        return None
    bump = given(assumptions.bump_g, "chosen", "assumptions: upward bump")
    return share(_over_clamps(panel, loads, carriers), held_at, chains, bump)


def _over_clamps(
    panel: PlacedPanel, loads: tuple[PanelLoads, ...], carriers: tuple[Carrier, ...]
) -> tuple[PanelLoads, ...]:
    """On a rack a panel tips over its clamps alone: what its height over the roof does, the frame finds."""
    if not isinstance(carrier_of(panel, carriers), Rack):
        return loads
    return tuple(replace(w, centre_height_mm=w.centre_height_mm - panel.stand_off.mm) for w in loads)


@stage("hold", "Verdict", "panels.{id}", each="panels", all="verdicts")
def verdict(
    panel: PlacedPanel,
    loads: tuple[PanelLoads, ...],
    held_at: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    above: Above,
    shared: Shared,
    air: Air,
) -> PanelVerdict:
    return judge(panel.id, loads, held_at, chains, above, shared, air)


@working("hold/{id}", each="panels")
def verdict_working(
    panel: PlacedPanel,
    roof: Rect,
    shelter: tuple[float, ...],
    roof_height_mm: float,
    skin: Vehicle,
    ribs: Members,
    held_at: tuple[FootPlace, ...],
    ways: tuple[Way, ...],
    above: Above,
    assumptions: Assumptions,
    carriers: tuple[Carrier, ...],
    air: Air,
) -> None:
    """The same once more, each foot's chain on its own, and the scalar formulas behind the arrays."""
    with scope("hold", panel.id):
        with scope("loads"):
            front = panel_loads(roof, panel, shelter[0], roof_height_mm)
        found = []
        for foot, way in zip(held_at, ways, strict=True):
            with scope(foot.foot):
                under = carrier_of(panel, carriers)
                found.append(_chain(way, skin, ribs, panel.hold, above, under, panel.span))
        own = tuple(found)
        bump = given(assumptions.bump_g, "chosen", "assumptions: upward bump")
    winds = (front, *_parked_loads(roof, panel, shelter, roof_height_mm))
    winds = _over_clamps(panel, winds, carriers)
    shared = share(winds, held_at, own, bump)
    told = judge(panel.id, winds, held_at, own, above, shared, air)
    with scope("hold", panel.id):
        explain_panel(winds[0], held_at, own, shared, told, air)


@stage("hold", "Links nobody can judge", "panels", otherwise=())
def unjudged(
    verdicts: tuple[PanelVerdict, ...], feet: tuple[FootPlace, ...], roof: Rect
) -> tuple[MemberEnd, ...]:
    return member_ends(verdicts, feet, roof)


@stage("hold", "Whole roof", "panels")
def speeds(
    verdicts: tuple[PanelVerdict, ...],
    carrier_verdicts: tuple[CarrierVerdict, ...],
    all_caught: tuple[Caught, ...],
    air: Air,
    top_speed: Speed,
) -> PlanVerdict | None:
    """With a foot lost, a panel with tethers holds as long as they stop it."""
    stopped = {c.panel: c.one_lost_m_s for c in all_caught}
    panels = (
        replace(v, lost_let_go_m_s=max(v.lost_let_go_m_s, min(stopped.get(v.panel, 0.0), v.let_go_m_s)))
        for v in verdicts
    )
    whole: tuple[PanelVerdict | CarrierVerdict, ...] = (*panels, *carrier_verdicts)
    return plan_verdict(whole, air, top_speed.m_s) if whole else None


@stage("hold", "Roof mass", "panels", place="roof mass", otherwise=0.0)
def roof_mass_kg(
    panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...], carrier_verdicts: tuple[CarrierVerdict, ...]
) -> float:
    with scope("roof mass"):
        rails = sum(c.mass_kg for c in carrier_verdicts)
        own = given(sum(p.model.mass.kg for p in panels) + rails, "chosen", "panels and carriers")
        foot = given(FOOT_MASS_KG, "default", "common practice")
        return float(added_roof_mass(own, float(len(feet)), foot))
