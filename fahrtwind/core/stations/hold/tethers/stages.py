"""What is worked out about tethers."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.tethers import catch_load, caught_force, loose_panel
from fahrtwind.core.job.document import Assumptions, Members, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.stations.hold.forces import Shared
from fahrtwind.core.stations.hold.ground import bay_at
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.loads import PanelLoads
from fahrtwind.core.stations.hold.tethers.caught import Caught, Held
from fahrtwind.core.stations.hold.tethers.caught import caught as caught_of
from fahrtwind.core.stations.hold.tethers.line import Strength, strength_of
from fahrtwind.core.stations.hold.verdict import Air
from fahrtwind.core.stations.house import stage, working
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.structure.members import MemberFit


@stage("hold", "Tethers", "tethers", each="panels", all="strengths_by_panel")
def tether_strengths(
    panel: PlacedPanel,
    tethers: tuple[Tether, ...],
    anchors: tuple[FootPlace, ...],
    skin: Vehicle,
    ribs: Members,
    members: MemberFit,
) -> tuple[Strength, ...]:
    """In the order of the panel's tethers."""
    places = {a.panel: a for a in anchors}
    own = ((t, places[t.id]) for t in tethers if t.panel == panel.id)
    return tuple(
        strength_of(t, at, _reach_mm(panel, at), skin, ribs, bay_at(members.members, at.x_mm))
        for t, at in own
    )


def _reach_mm(panel: PlacedPanel, anchor: FootPlace) -> float:
    """From the frame's lower edge to the anchor."""
    rect = panel_rect(panel)
    x = min(max(anchor.x_mm, rect.x_mm), rect.x_end_mm)
    y = min(max(anchor.y_mm, rect.y_mm), rect.y_end_mm)
    return float(np.linalg.norm((anchor.x_mm - x, anchor.y_mm - y, panel.stand_off.mm)))


@stage("hold", "What tethers catch", "tethers", each="panels", all="all_caught")
def caught(
    panel: PlacedPanel,
    tethers: tuple[Tether, ...],
    tether_strengths: tuple[Strength, ...],
    loads: tuple[PanelLoads, ...],
    held_at: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    shared: Shared,
    assumptions: Assumptions,
    air: Air,
) -> Caught | None:
    """None for a panel without tethers."""
    own = tuple(t for t in tethers if t.panel == panel.id)
    if not own:
        return None
    held = Held(panel, loads, held_at, chains, shared, assumptions.bump_g)
    return caught_of(held, own, tether_strengths, air)


@working("tether/{id}", each="panels")
def tether_working(
    panel: PlacedPanel,
    tethers: tuple[Tether, ...],
    anchors: tuple[FootPlace, ...],
    skin: Vehicle,
    ribs: Members,
    members: MemberFit,
    loads: tuple[PanelLoads, ...],
    air: Air,
) -> None:
    """Each tether's parts once more, and what catching asks of it."""
    places = {a.panel: a for a in anchors}
    with scope("tether", panel.id):
        uplift = given(loads[0].cautious_m2, "inferred", "uplift of one pascal, m²")
        off = loose_panel(uplift, given(loads[0].rect.area_m2, "chosen", "panel"))
        air_force = given(float(off) * air.pressure_pa, "inferred", "of the air at the probed speed")
        for tether in (t for t in tethers if t.panel == panel.id):
            with scope(tether.id):
                at = places[tether.id]
                bay = bay_at(members.members, at.x_mm)
                own = strength_of(tether, at, _reach_mm(panel, at), skin, ribs, bay)
                slack = given(tether.slack.mm, "chosen", "slack")
                spring = given(own.spring_n_mm, "inferred", "line and anchor")
                catch_load(air_force, spring, slack)
                caught_force(given(own.weakest.bears_n, "inferred", own.weakest.title), spring, slack)
