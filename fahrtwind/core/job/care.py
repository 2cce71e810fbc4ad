"""The care of what was built: since when it drives, what was looked at, what happened to it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job.dates import Day
from fahrtwind.core.job.part import Identifier, Note, Part, Word

FoundState = Literal["sound", "loose foot", "torque fell", "lifted edge", "leak"]
Km = Annotated[float, Field(ge=0, le=2_000_000)]


class Look(Part):
    """A look at bolts and seals, or at one place: ``where``; ``km``: driven since it was built."""

    id: Identifier
    day: Day
    km: Km | None = None
    found: FoundState = "sound"
    where: Word = ""
    note: Note = ""


class Happening(Part):
    """A storm, or something that touched it."""

    id: Identifier
    day: Day
    what: Literal["storm", "scrape"] = "storm"
    note: Note = ""


class Care(Part):
    """``drives_since``: the first day on the road; ``km_a_month``: about how far it goes."""

    drives_since: Day | None = None
    km_a_month: Annotated[float, Field(ge=1, le=50_000)] | None = None
    looks: Annotated[tuple[Look, ...], Field(max_length=200)] = ()
    happenings: Annotated[tuple[Happening, ...], Field(max_length=100)] = ()
