"""Metals beside one another in the wet: how far apart they are, and how far they may be."""

from typing import Literal

MetalName = Literal["stainless", "steel", "aluminium", "zinc"]
INDEX_V: dict[MetalName, float] = {"stainless": 0.50, "steel": 0.85, "aluminium": 0.90, "zinc": 1.20}
"""Anodic index, volts below gold: the larger is eaten."""
APART_V = {"salt": 0.15, "rain": 0.25}
GALVANIC_SOURCE = (
    "Anodic index and differences allowed outdoors, in salt 0.15 V, in rain 0.25 V (tables after "
    "MIL-STD-889), from memory"
)
LARGE_ANODE = 20.0
"""An anode so many times larger than what eats it lasts without salt: judgement."""
