"""The seal's part of the job: the roof's surface, how it is sealed, with what, on what kind of day."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Identifier, Name, Note, Part, Word
from fahrtwind.core.quantities import Angle, Length
from fahrtwind.core.tables.sealants import FamilyName, PlaceKind, SubstrateName

Share = Annotated[float, Field(ge=1, le=100)]


class MakerSheet(Part):
    """What the maker's sheet of a sealant says; it overrules the table. ``depth_24h``: how deep it cures in a
    day at 23 °C and half of the moisture; ``bonds``: to this roof.
    """

    id: Identifier
    family: FamilyName
    document: Word = ""
    skin_h: Annotated[float, Field(gt=0, le=72)] | None = None
    depth_24h: q.CureDepth | None = None
    coldest: q.WorkTemperature | None = None
    bonds: Literal["yes", "with primer", "no"] | None = None


class Gland(Part):
    """Where cables go in. ``cable``: outer diameter of each; ``cables``: how many; ``faces``: where their
    ends point.
    """

    x: q.Along
    y: q.Across
    cable: q.Small = Length(mm=6)
    cables: Annotated[int, Field(ge=1, le=8)] = 2
    base: q.Pad = Length(mm=60)
    faces: Literal["front", "rear", "port", "starboard"] = "rear"


class Moisture(Part):
    """A reading inside, beside a place of the seal list."""

    id: Identifier
    place: Name
    percent: Share
    note: Note = ""


class KindSeal(Part):
    """How one kind of place is sealed otherwise than the rest; blank fields are as for the rest."""

    id: Identifier
    kind: PlaceKind
    under: Literal["tape", "wet"] | None = None
    edge: Literal["leave", "trim"] | None = None
    sides: Literal["all round", "low side open"] | None = None
    under_with: FamilyName | None = None
    round_with: FamilyName | None = None
    why: Note = ""


class Seal(Part):
    """``under``: tape or wet sealant below a plate; ``edge``: squeeze-out left alone, or trimmed after two
    days and capped; ``sides``: sealed all round, or open on the low side so that a leak shows.
    ``lean`` to starboard and ``nose`` up: how the vehicle usually stands. ``temperature`` and ``humidity`` of
    the day on which it is sealed.
    """

    substrate: SubstrateName | None = None
    under: Literal["tape", "wet"] = "tape"
    edge: Literal["leave", "trim"] = "leave"
    sides: Literal["all round", "low side open"] = "all round"
    why: Note = ""
    under_with: FamilyName | None = None
    round_with: FamilyName | None = None
    temperature: q.WorkTemperature | None = None
    humidity: Share | None = None
    kinds: Annotated[tuple[KindSeal, ...], Field(max_length=9)] = ()
    sheets: Annotated[tuple[MakerSheet, ...], Field(max_length=12)] = ()
    lean: q.Parked = Angle(deg=0)
    nose: q.Parked = Angle(deg=0)
    gland: Gland | None = None
    moisture: Annotated[tuple[Moisture, ...], Field(max_length=200)] = ()
