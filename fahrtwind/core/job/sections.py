"""Sections of rails, bars and posts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Part
from fahrtwind.core.quantities import Length


class RectangularTube(Part):
    """A tube on edge or flat: ``height`` is the side that stands upright."""

    kind: Literal["tube"] = "tube"
    height: q.Small = Length(mm=40)
    width: q.Small = Length(mm=40)
    wall: q.Sheet = Length(mm=3)


class RoundTube(Part):
    kind: Literal["round"] = "round"
    diameter: q.Small = Length(mm=40)
    wall: q.Sheet = Length(mm=3)

    @property
    def height(self) -> Length:
        return self.diameter

    @property
    def width(self) -> Length:
        return self.diameter


class EqualAngle(Part):
    """An angle of two equal legs, one level, one upright."""

    kind: Literal["angle"] = "angle"
    leg: q.Small = Length(mm=40)
    wall: q.Sheet = Length(mm=4)

    @property
    def height(self) -> Length:
        return self.leg

    @property
    def width(self) -> Length:
        return self.leg


class ChannelSection(Part):
    """A channel with its back level: ``width`` is the back, ``height`` the two flanges."""

    kind: Literal["channel"] = "channel"
    height: q.Small = Length(mm=30)
    width: q.Small = Length(mm=50)
    wall: q.Sheet = Length(mm=4)


class OwnSection(Part):
    """A slotted or solar profile by its sheet: never guessed from its outline. Second moment and section
    modulus about the level axis; ``side_…`` about the upright one and ``torsion_cm4``, which only a frame
    asks for; ``slot_n``: what a bolt in its slot may pull, nominal; ``slot_wide`` and ``slot_deep``: room
    for its head inside the slot.
    """

    kind: Literal["own"] = "own"
    height: q.Small = Length(mm=40)
    width: q.Small = Length(mm=40)
    inertia_cm4: Annotated[float, Field(ge=0.05, le=500)] | None = None
    modulus_cm3: Annotated[float, Field(ge=0.05, le=200)] | None = None
    side_inertia_cm4: Annotated[float, Field(ge=0.05, le=500)] | None = None
    side_modulus_cm3: Annotated[float, Field(ge=0.05, le=200)] | None = None
    torsion_cm4: Annotated[float, Field(ge=0.001, le=500)] | None = None
    mass_kg_m: Annotated[float, Field(ge=0.1, le=20)] | None = None
    slot_n: Annotated[float, Field(ge=50, le=50_000)] | None = None
    slot_wide: q.Small | None = None
    slot_deep: q.Small | None = None


Section = Annotated[
    RectangularTube | RoundTube | EqualAngle | ChannelSection | OwnSection, Field(discriminator="kind")
]
