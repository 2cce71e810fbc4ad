"""What is worked out about raised units."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import scope
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.raised.statics import RaisedVerdict, judge_raised
from fahrtwind.core.stations.hold.verdict import Air, PanelVerdict
from fahrtwind.core.stations.house import stage, view, working
from fahrtwind.core.stations.views import Asked

NEAR_EDGE = 0.75


@view()
def raisings(asked: Asked) -> tuple[Raising, ...]:
    return asked.job.raisings


@stage("hold", "Raised in the wind", "raisings.{id}", each="raisings", all="raised_units")
def raised_unit(
    raising: Raising, panels: tuple[PlacedPanel, ...], verdicts: tuple[PanelVerdict, ...], air: Air
) -> RaisedVerdict | None:
    """None where none of its panels is raised, or their feet are not known."""
    own = tuple(p for p in panels if p.id in raising.panels and p.tilt.deg > 0)
    told = [v for v in verdicts if v.panel in {p.id for p in own}]
    if not own or not told:
        return None
    with scope("raised", raising.id):
        chains: tuple[Chain, ...] = tuple(c for v in told for c in v.chains)
        return judge_raised(raising, own, chains, air.parked_pa, _on_raised_edge(told))


def _on_raised_edge(verdicts: list[PanelVerdict]) -> float:
    """What pulls at the edge that is locked down on the road, at the probed speed: the uplift as if a quarter
    in from that edge, none of the weight counted.
    """
    return sum(NEAR_EDGE * v.uplift_n for v in verdicts)


@working("raised/{id}", each="raisings")
def raised_working(
    raising: Raising, panels: tuple[PlacedPanel, ...], verdicts: tuple[PanelVerdict, ...], air: Air
) -> None:
    """The same once more: what is noted there stands under ``raised``."""
    raised_unit(raising, panels, verdicts, air)
