"""The workshop's part of the job: what is cut from what."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Identifier, Name, Part
from fahrtwind.core.quantities import Length


class StockBar(Part):
    """A bar that pieces are cut from. ``material``: what it is, as the pieces say; ``have``: how many lie
    in the shop, blank where it is bought as needed; ``price``: of one, 0 for a leftover.
    """

    id: Identifier
    material: Name
    length: q.StockLength
    price: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    have: Annotated[int, Field(ge=1, le=999)] | None = None


class Workshop(Part):
    """``kerf``: what the saw takes; ``trim``: what comes off both ends of a bar before anything else."""

    kerf: q.Kerf = Length(mm=3)
    trim: q.Trim = Length(mm=5)
    stock: Annotated[tuple[StockBar, ...], Field(max_length=40)] = ()
