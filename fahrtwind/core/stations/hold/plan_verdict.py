"""The verdict of the whole roof: the worst of all feet."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.alike import first_least
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.verdict import FASTEST_M_S, Air, PanelVerdict


@dataclass(frozen=True, slots=True)
class PlanVerdict:
    """The whole roof: the worst of all feet. ``required`` is the highest driving speed; ``worst_panel`` is
    the id of a panel or a carrier.
    """

    required_m_s: float
    probe_m_s: float
    let_go_m_s: float
    let_go_typical_m_s: float
    safe_m_s: float
    lost_let_go_m_s: float
    lost_safe_m_s: float
    worst_panel: str
    worst_foot: str
    pressure_pa: float
    density_kg_m3: float
    gust_m_s: float
    fastest_told_m_s: float
    parked_gust_m_s: float
    parked_let_go_m_s: float
    parked_safe_m_s: float
    parked_worst: str
    """Gusts from any side while it stands: the site's, and at which the first panel lets go or is safe to."""
    demanded_by: Literal["road", "parked"]
    """Which of the two asks for more pressure."""


def plan_verdict(
    verdicts: tuple[PanelVerdict | CarrierVerdict, ...], air: Air, required_m_s: float
) -> PlanVerdict:
    """Of one panel or carrier, or more."""
    worst = first_least(verdicts, lambda v: v.let_go_m_s, lambda v: v.safe_m_s)
    standing = first_least(verdicts, lambda v: v.parked.let_go_m_s).parked
    return PlanVerdict(
        required_m_s=required_m_s,
        probe_m_s=air.probe_m_s,
        let_go_m_s=worst.let_go_m_s,
        let_go_typical_m_s=min(v.let_go_typical_m_s for v in verdicts),
        safe_m_s=min(v.safe_m_s for v in verdicts),
        lost_let_go_m_s=min(v.lost_let_go_m_s for v in verdicts),
        lost_safe_m_s=min(v.lost_safe_m_s for v in verdicts),
        worst_panel=worst.panel if isinstance(worst, PanelVerdict) else worst.carrier,
        worst_foot=worst.worst_foot,
        pressure_pa=air.pressure_pa,
        density_kg_m3=air.density_kg_m3,
        gust_m_s=air.gust_m_s,
        fastest_told_m_s=FASTEST_M_S,
        parked_gust_m_s=air.parked_gust_m_s,
        parked_let_go_m_s=standing.let_go_m_s,
        parked_safe_m_s=min(v.parked.safe_m_s for v in verdicts),
        parked_worst=standing.worst,
        demanded_by="road" if air.pressure_pa >= air.parked_pa else "parked",
    )
