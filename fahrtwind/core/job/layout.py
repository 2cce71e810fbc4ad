"""The layout's part of the job: rules of the roof, what is on offer, where it will stand, variants and
decisions.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator
from pydantic_core import PydanticCustomError

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.part import Identifier, Name, Note, Part, Reason, Word
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.job.tether import Tether

MONTHS = 12


class Margins(Part):
    """Least distance of a panel from each roof edge; negative: it may hang over that far. Blank: the general
    edge clearance.
    """

    front: q.Shift | None = None
    rear: q.Shift | None = None
    port: q.Shift | None = None
    starboard: q.Shift | None = None


class FreeArea(Part):
    """A rectangle to keep free of panels: a walkway, a ladder landing, room for a panel that comes later."""

    id: Identifier
    kind: Literal["walkway", "landing", "later"]
    name: Name
    x: q.Along
    y: q.Across
    length: q.LongSide
    width: q.LongSide


class Offer(Part):
    """A model that may be used, by its name, and at most how many of it; blank: as many as the stock
    allows.
    """

    id: Identifier
    model: Name
    at_most: Annotated[int, Field(ge=0, le=24)] | None = None


class Wish(Part):
    """What layouts are proposed from, and what is wanted most of them. ``one_lost``: panels are made to hold
    even when a foot fails.
    """

    offers: Annotated[tuple[Offer, ...], Field(max_length=12)] = ()
    aim: Literal["watts", "energy", "balance"] = "balance"
    one_lost: bool = False


class ClimateMonth(Part):
    """A month: share of the time the sun shines unclouded, air temperature by day, and how hazy clear air is
    (Linke).
    """

    sunshine: Annotated[float, Field(ge=0, le=1)]
    temperature: q.WorkTemperature
    turbidity: Annotated[float, Field(ge=1.5, le=8)] = 3.0


class Site(Part):
    """Where and how the vehicle will stand. Longitude east positive; a heading counts from north over
    east.
    """

    latitude: q.Latitude | None = None
    longitude: q.Longitude | None = None
    climate: Word | None = None
    months: Annotated[tuple[ClimateMonth, ...], Field(max_length=MONTHS)] = ()
    standing: Literal["any", "heading", "driving"] = "any"
    heading: q.Heading | None = None
    lids: Literal["closed", "open"] = "closed"

    @field_validator("months")
    @classmethod
    def _none_or_all(cls, months: tuple[ClimateMonth, ...]) -> tuple[ClimateMonth, ...]:
        if len(months) not in (0, MONTHS):
            raise PydanticCustomError(
                "bad_input",
                "{problem}",
                {
                    "problem": f"The climate has {len(months)} months.",
                    "remedy": "Give all twelve, January first, or none.",
                },
            )
        return months


class Variant(Part):
    """A layout that was kept: its panels, and what they lay on and hung from, as they were."""

    id: Identifier
    name: Name
    panels: Annotated[tuple[PlacedPanel, ...], Field(max_length=24)] = ()
    carriers: Annotated[tuple[Carrier, ...], Field(max_length=6)] = ()
    tethers: Annotated[tuple[Tether, ...], Field(max_length=48)] = ()
    raisings: Annotated[tuple[Raising, ...], Field(max_length=12)] = ()
    note: Note = ""


class Decision(Part):
    """A choice that was made and why: of a layout (``chosen`` is the id of a variant) or of a way to hold."""

    id: Identifier
    about: Literal["layout", "hold"] = "layout"
    chosen: Identifier
    name: Name
    reason: Reason
    over: Annotated[tuple[Name, ...], Field(max_length=12)] = ()
