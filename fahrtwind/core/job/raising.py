"""What raises panels while the vehicle is parked: hinges, struts, pins, and what locks it for the road."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.panel import BoltName
from fahrtwind.core.job.part import Identifier, Name, Part
from fahrtwind.core.job.sections import RectangularTube, RoundTube
from fahrtwind.core.quantities import Length
from fahrtwind.core.tables.alloys import AlloyName

MOST_RAISED, MOST_LATCHES = 8, 8


class Raising(Part):
    """One or several ``panels`` that are raised as one stiff unit, by as much as they say.

    ``at``: where the struts grip, of the way from the hinges to the raised edge; ``base``: their feet from
    the hinges, blank where as far as they grip; ``latches``: what holds the raised edge down on the road,
    each rated to ``latch_n`` by its maker.
    """

    id: Identifier
    name: Name
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=MOST_RAISED)]
    hinges: Annotated[int, Field(ge=2, le=8)] = 2
    struts: Annotated[int, Field(ge=1, le=8)] = 2
    at: Annotated[float, Field(ge=0.2, le=1.0)] = 0.7
    base: q.Size | None = None
    strut: Annotated[RoundTube | RectangularTube, Field(discriminator="kind")] = RoundTube(
        diameter=Length(mm=20), wall=Length(mm=2)
    )
    alloy: AlloyName = "6060-T66"
    pin: BoltName = "M8"
    latches: Annotated[int, Field(ge=0, le=MOST_LATCHES)] = 2
    latch_n: Annotated[float, Field(ge=50, le=50_000)] | None = None
