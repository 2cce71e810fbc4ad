"""What a finding means for the road: by the speed that is safe with one foot lost."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.job.care import Look
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_speed
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict

CRAWL_M_S = 30 / 3.6
"""Below this nobody drives home: the panel comes off where it stands (judgement)."""


@dataclass(frozen=True, slots=True)
class LookVerdict:
    """``most_m_s``: no faster until it is mended, None where nothing is known or nothing limits."""

    look: str
    verdict: Literal["drive on", "slowly home", "take the panel off", "not on the road's account"]
    words: str
    most_m_s: float | None


def lost_foot_m_s(speeds: PlanVerdict) -> float:
    """How fast it may drive with one foot lost, m/s: the safe speed counts the long run, the other the first
    gust that tears; the lower decides, and nobody drives faster than planned.
    """
    return min(speeds.lost_safe_m_s, speeds.lost_let_go_m_s, speeds.required_m_s)


def judged(look: Look, speeds: PlanVerdict | None, units: UnitSystem) -> LookVerdict:
    """A loose foot or a lifted edge counts as lost; a torque that fell as one that may be."""
    if look.found == "sound":
        return LookVerdict(look.id, "drive on", "Sound.", None)
    if look.found == "leak":
        words = "Open the seal, dry it, seal it anew; look for wet wood inside."
        return LookVerdict(look.id, "not on the road's account", words, None)
    if speeds is None:
        words = "How fast it may drive with a foot lost is not known: take the panel off where it stands."
        return LookVerdict(look.id, "take the panel off", words, None)
    most = lost_foot_m_s(speeds)
    if most < min(CRAWL_M_S, speeds.required_m_s):  # a boat may never go faster than that
        words = "No speed is safe with this foot lost that gets it home: take the panel off where it stands."
        return LookVerdict(look.id, "take the panel off", words, None)
    told = say_speed(most, units)
    if look.found == "torque fell" and most >= speeds.required_m_s:
        words = "Tighten it now, paint a new mark, look again after 100 km."
        return LookVerdict(look.id, "drive on", words, None)
    words = f"At most {told} until it is mended; tighten or tie it down first, look at its neighbours."
    return LookVerdict(look.id, "slowly home", words, most)
