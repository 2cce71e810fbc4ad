"""When a part of a carrier goes, as pressures, and as speeds."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.verdict import MOST_PA, Air, road_speeds


@dataclass(frozen=True, slots=True)
class Limits:
    """Pressures in Pa at which something goes without its factor and with it; both also with a foot lost."""

    let_go: float
    safe: float
    lost: float
    lost_safe: float


def road_speed(pressure_pa: float, air: Air) -> float:
    """The speed on the road, m/s, at which there is this pressure."""
    return float(road_speeds(np.array(min(pressure_pa, MOST_PA)), air))
