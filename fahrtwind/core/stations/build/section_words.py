"""Sections in words, as pieces, bars of the shop and lists name them."""

from __future__ import annotations

from functools import partial

from fahrtwind.core.job.sections import ChannelSection, EqualAngle, RectangularTube, RoundTube, Section
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_size


def say_section(section: Section, units: UnitSystem) -> str:
    """A section in words."""
    size = partial(say_size, system=units)
    if isinstance(section, RoundTube):
        return f"tube {size(section.diameter.mm)} × {size(section.wall.mm)}"
    if isinstance(section, RectangularTube):
        return f"tube {size(section.height.mm)} × {size(section.width.mm)} × {size(section.wall.mm)}"
    if isinstance(section, EqualAngle):
        return f"angle {size(section.leg.mm)} × {size(section.leg.mm)} × {size(section.wall.mm)}"
    if isinstance(section, ChannelSection):
        return f"channel {size(section.width.mm)} × {size(section.height.mm)} × {size(section.wall.mm)}"
    return f"own section {size(section.height.mm)} high"
