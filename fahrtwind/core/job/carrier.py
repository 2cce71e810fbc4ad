"""What stands between panels and the roof: carriers, each with one or several panels on it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.panel import Attachment, Screws
from fahrtwind.core.job.part import Identifier, Name, Part
from fahrtwind.core.quantities import Length
from fahrtwind.core.tables.alloys import AlloyName


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


class OwnSection(Part):
    """A slotted or solar profile by its sheet: never guessed from its outline. Second moment and section
    modulus about the level axis; ``slot_n``: what a bolt in its slot may pull, nominal.
    """

    kind: Literal["own"] = "own"
    height: q.Small = Length(mm=40)
    width: q.Small = Length(mm=40)
    inertia_cm4: Annotated[float, Field(ge=0.05, le=500)] | None = None
    modulus_cm3: Annotated[float, Field(ge=0.05, le=200)] | None = None
    mass_kg_m: Annotated[float, Field(ge=0.1, le=20)] | None = None
    slot_n: Annotated[float, Field(ge=50, le=50_000)] | None = None


Section = Annotated[RectangularTube | RoundTube | OwnSection, Field(discriminator="kind")]


class Rail(Part):
    """One rail along the roof, y in its middle."""

    id: Identifier
    y: q.Across


class Rails(Part):
    """Rails along the roof on feet at the members, with panels under clamps.

    ``height``: underside of the rails over the roof; ``every``: a foot at every so many members; ``hold``:
    how each foot is held; ``stock``: length the section is sold in; ``clamp_n``: pull a clamp may take by its
    maker, nominal, blank where nobody says.
    """

    kind: Literal["rails"] = "rails"
    id: Identifier
    name: Name
    section: Section = RectangularTube()
    alloy: AlloyName = "6060-T66"
    height: q.Clearance = Length(mm=40)
    start: q.Along
    end: q.Along
    rails: Annotated[tuple[Rail, ...], Field(min_length=1, max_length=6)]
    every: Annotated[int, Field(ge=1, le=4)] = 1
    hold: Attachment = Screws()
    stock: q.LongSide | None = None
    clamp_n: Annotated[float, Field(ge=50, le=50_000)] | None = None

    @property
    def top_mm(self) -> float:
        """Upper face of the rails over the roof: where the panels lie."""
        section = self.section
        tall = section.diameter if isinstance(section, RoundTube) else section.height
        return self.height.mm + tall.mm


Carrier = Rails
