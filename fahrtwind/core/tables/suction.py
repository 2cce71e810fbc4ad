"""Suction coefficients of flat roofs, used to bracket a vehicle's roof. Positive numbers here mean lift."""

from typing import Literal

Zone = Literal["front corner", "front edge", "behind the front", "rest"]
ZONES: tuple[Zone, ...] = ("front corner", "front edge", "behind the front", "rest")

SOURCE = (
    "EN 1991-1-4:2005, Table 7.2 and Figure 7.2 (flat roofs of buildings; used here to bracket a vehicle)"
)
SHARP_1: dict[Zone, float] = {"front corner": 2.5, "front edge": 2.0, "behind the front": 1.2, "rest": 0.2}
SHARP_10: dict[Zone, float] = {"front corner": 1.8, "front edge": 1.2, "behind the front": 0.7, "rest": 0.2}
CURVED_1: dict[Zone, float] = {"front corner": 1.2, "front edge": 1.4, "behind the front": 0.3, "rest": 0.2}
"""Curved front edge, r/h = 0.10, loaded area 1 m²: the typical end of the range."""
