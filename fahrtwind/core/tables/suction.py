"""Suction coefficients of flat roofs, used to bracket a vehicle's roof. Positive numbers here mean lift.

Fixings and feet take the value for 1 m² (EN 1991-1-4, 7.2.1(1), note); only what carries more than that may
take less.
"""

from typing import Literal

Zone = Literal["corner", "windward edge", "behind the edge", "rest"]
ZONES: tuple[Zone, ...] = ("corner", "windward edge", "behind the edge", "rest")

SOURCE = (
    "EN 1991-1-4:2005, Table 7.2 and Figure 7.2 (flat roofs of buildings; used here to bracket a vehicle)"
)
SHARP_1: dict[Zone, float] = {"corner": 2.5, "windward edge": 2.0, "behind the edge": 1.2, "rest": 0.2}
CURVED_1: dict[Zone, float] = {"corner": 1.2, "windward edge": 1.4, "behind the edge": 0.3, "rest": 0.2}
"""Curved front edge, r/h = 0.10, loaded area 1 m²: the typical end of the range."""
