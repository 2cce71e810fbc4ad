"""What the other stations say that decides when something can be done: masses, tape, sealant, coat."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.formulas.sealing import vapour_pressure
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.lifting import LiftedUnit
from fahrtwind.core.stations.seal.choice import KindChoice, SealChoice
from fahrtwind.core.stations.seal.cure import CureTimes
from fahrtwind.core.tables.feet import TAPE_BEST_DEG_C, TAPE_LEAST_DEG_C
from fahrtwind.core.tables.work import Order, StepKind

CALM_M_S = 40.0
WaitKind = Literal["hours", "cure", "dwell", "working days"]


@dataclass(frozen=True, slots=True)
class Wait:
    """Between two activities. ``amount``: hours; for ``cure`` hPa·h of vapour; for ``dwell`` hours in which
    the skin is at least ``coldest_c``; for ``working days`` days.
    """

    kind: WaitKind
    amount: float
    coldest_c: float
    words: str


@dataclass(frozen=True, slots=True)
class WorkFacts:
    """``lift_wind_m_s``: forecast wind at which what is carried is taken out of the hands; ``cure_h``: hours
    and the vapour they were worked out for, hPa; ``coat_days``: working days at the coater's.
    """

    lift_persons: int
    lift_wind_m_s: float
    tape_c: tuple[float, float]
    sealant_coldest_c: float
    rain_h: float
    through_h: float
    trim_h: float
    cure_vapour_hpa: float
    coat_days: int

    def hands(self, kind: StepKind, least: int) -> int:
        return max(least, self.lift_persons) if kind == "lift" else least

    def skin(self, kind: StepKind) -> Wait | None:
        """Until rain does no harm to what was sealed; None for what bears rain at once."""
        if kind not in ("seal", "lay", "scars") or self.rain_h <= 0:
            return None
        return self._cured(self.rain_h, "until rain does it no harm")

    def wait(self, order: Order, wait_h: float) -> Wait | None:
        """Between the two of an order; ``wait_h``: what the step before it says of itself."""
        before, after = order.before, order.after
        if before in ("coat", "coat first"):
            days = self.coat_days
            return (
                Wait("working days", float(days), 0.0, f"{days} working days at the coater's")
                if days
                else None
            )
        if before == "stick" and after not in ("trim", "seal"):
            return self._dwelt(wait_h)
        if after == "trim":
            return Wait("hours", self.trim_h, 0.0, f"{self.trim_h:.0f} h until it has squeezed out")
        if (before == "scars" and after != "lift") or (before, after) in (("seal", "hose"), ("seal", "lift")):
            return self._cured(self.rain_h, "until it has a skin")
        if after == "retighten":
            return self._cured(self.through_h, "until it has cured through")
        least = wait_h if (before, after) == ("deburr", "lay") else order.least_h
        words = f"{least:g} h" if least >= 1 else f"{least * 60:.0f} min"
        return Wait("hours", least, 0.0, words) if least else None

    def before_driving(self, before: StepKind, wait_h: float) -> Wait | None:
        if before == "stick":
            return self._dwelt(wait_h)
        return self._cured(self.through_h, "until it has cured through")

    def _cured(self, hours: float, until: str) -> Wait | None:
        if hours <= 0:
            return None
        words = f"{hours:.0f} h on a day as told under Seal, {until}"
        return Wait("cure", hours * self.cure_vapour_hpa, self.sealant_coldest_c, words)

    def _dwelt(self, hours: float) -> Wait | None:
        if hours <= 0:
            return None
        least = TAPE_LEAST_DEG_C
        return Wait("dwell", hours, least, f"{hours:.0f} h of dwell; hours with a colder skin do not count")


def facts_of(
    lifts: tuple[LiftedUnit, ...],
    choice: SealChoice | None,
    kinds: tuple[KindChoice, ...],
    cure: CureTimes | None,
    coat_days: int,
) -> WorkFacts:
    """Of lifts, seal and coat; what nothing is known of stands in the way of nothing."""
    families = [
        f for c in ([choice] if choice else []) + [k.choice for k in kinds] for f in (c.under, c.round)
    ]
    vapour = float(vapour_pressure(cure.temperature_c, cure.humidity)) if cure else 1.0
    return WorkFacts(
        max((unit.persons for unit in lifts), default=2),
        min((unit.hands_m_s for unit in lifts), default=CALM_M_S),
        (TAPE_LEAST_DEG_C, TAPE_BEST_DEG_C[1]),
        max((f.coldest_c for f in families), default=5.0),
        cure.rain_h.most if cure else 0.0,
        max(cure.fillet_h.most, 0.0) if cure else 0.0,
        (cure.trim_h or 0.0) if cure else 0.0,
        vapour,
        coat_days,
    )
