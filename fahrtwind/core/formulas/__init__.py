"""Published formulas, grouped by subject. Importing this package declares all of them."""

from fahrtwind.core.formulas import (
    adhesive,
    air,
    bolts,
    brackets,
    joints,
    members,
    metal_screws,
    plates,
    roof,
    roof_shape,
    sections,
    sharing,
    sun,
    verdict,
    wind,
    wood,
)

__all__ = [
    "adhesive",
    "air",
    "bolts",
    "brackets",
    "joints",
    "members",
    "metal_screws",
    "plates",
    "roof",
    "roof_shape",
    "sections",
    "sharing",
    "sun",
    "verdict",
    "wind",
    "wood",
]
