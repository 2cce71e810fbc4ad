"""What is worked out about raised units."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import scope
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.stations.hold.carriers.sharing import Carried
from fahrtwind.core.stations.hold.carriers.stages import Footing
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.raised.frame import Standing, judge_frame, raised_whole
from fahrtwind.core.stations.hold.raised.parts import explain_parts
from fahrtwind.core.stations.hold.raised.statics import RaisedVerdict, judge_raised
from fahrtwind.core.stations.hold.verdict import Air, PanelVerdict
from fahrtwind.core.stations.house import stage, working

NEAR_EDGE = 0.75


@stage("hold", "Frame that is raised", "raisings.{id}", each="raisings")
def raised_frame(
    raising: Raising,
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    footings: tuple[Footing, ...],
) -> Standing | None:
    """None where the panels are not raised, not with their frame, or one of its rails stands on nothing, as
    far as that is known.
    """
    rack = raised_whole(raising, panels, carriers)
    own = next((p for p in panels if p.id in raising.panels and p.tilt.deg > 0), None)
    on = next((f for f in footings if rack is not None and f.carrier == rack.id), None)
    if rack is None or own is None or on is None:
        return None
    standing = Standing.of(raising, rack, own, on.feet, on.chains)
    stood = all(standing.under(rail) for rail in (standing.hinged, standing.freed))
    return standing if stood else None


@stage("hold", "Raised in the wind", "raisings.{id}", each="raisings", all="raised_units")
def raised_unit(
    raising: Raising,
    panels: tuple[PlacedPanel, ...],
    verdicts: tuple[PanelVerdict, ...],
    raised_frame: Standing | None,
    all_carried: tuple[Carried, ...],
    carrier_verdicts: tuple[CarrierVerdict, ...],
    air: Air,
) -> RaisedVerdict | None:
    """None where none of its panels is raised, their feet are not known, they are raised off a carrier that
    stays, or what lies in their frame or what it bears on the road is not worked out.
    """
    own = tuple(p for p in panels if p.id in raising.panels and p.tilt.deg > 0)
    told = [v for v in verdicts if v.panel in {p.id for p in own}]
    if not own or not told:
        return None
    chains: tuple[Chain, ...] = tuple(c for v in told for c in v.chains)
    with scope("raised", raising.id):
        if raised_frame is not None:
            lying = tuple(c for c in all_carried if c.carrier == raised_frame.rack.id)
            held = next((v for v in carrier_verdicts if v.carrier == raised_frame.rack.id), None)
            if held is None or {c.panel for c in lying} != {p.id for p in own}:
                return None
            road = on_latches(raised_frame, held)
            return judge_frame(raised_frame, lying, chains, air.parked_pa, road)
        if any(p.carrier for p in own):
            return None
        return judge_raised(raising, own, chains, air.parked_pa, _on_raised_edge(told))


def _on_raised_edge(verdicts: list[PanelVerdict]) -> float:
    """What pulls at the edge that is locked down on the road, at the probed speed: the uplift as if a quarter
    in from that edge, none of the weight counted.
    """
    return sum(NEAR_EDGE * v.uplift_n for v in verdicts)


def on_latches(standing: Standing, verdict: CarrierVerdict) -> float:
    """What pulls at all latches of a frame together on the road: each takes what its foot takes, and counts
    as the one that is pulled most.
    """
    freed = {foot.foot for foot, _ in standing.under(standing.freed)}
    pulls = [max(f.pull_n, 0.0) for f in verdict.feet if f.foot in freed]
    return max(sum(pulls), standing.raising.latches * max(pulls, default=0.0))


@working("raised/{id}", each="raisings")
def raised_working(
    raising: Raising,
    panels: tuple[PlacedPanel, ...],
    verdicts: tuple[PanelVerdict, ...],
    raised_frame: Standing | None,
    all_carried: tuple[Carried, ...],
    carrier_verdicts: tuple[CarrierVerdict, ...],
    air: Air,
) -> None:
    """The same once more: what is noted there stands under ``raised``."""
    told = raised_unit(raising, panels, verdicts, raised_frame, all_carried, carrier_verdicts, air)
    if told is not None:
        with scope("raised", raising.id):
            explain_parts(told.parts, "the frame" if told.frame else "balance about the hinges")
