"""How much of the sun's heat a roof takes up, by its colour."""

from typing import Literal

RoofColour = Literal["white", "light", "dark"]
ABSORPTANCE: dict[RoofColour, float] = {"white": 0.3, "light": 0.5, "dark": 0.88}
"""ASHRAE Handbook Fundamentals tells 0.44 for light and 0.88 for dark surfaces (α/h 0.026 and 0.052 at
17 W/m²K); clean white paint and light grey lie beside: judgement.
"""
EMISSIVITY = 0.9
"""Paint, gelcoat, membranes; bare metal radiates less and stays warmer at night: judgement."""
