"""The workshop's part of the job: how its pieces are made, from what, by whom, and what that costs."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Identifier, Name, Note, Part, Word
from fahrtwind.core.quantities import Angle, Length

Money = Annotated[float, Field(ge=0, le=100_000)]
ItemKind = Literal[
    "section",
    "fastener",
    "bracket",
    "clamp",
    "tape",
    "sealant",
    "cable",
    "connector",
    "panel",
    "tool",
    "other",
]


class StockBar(Part):
    """A bar that pieces are cut from. ``material``: what it is, as the pieces say; ``have``: how many lie
    in the shop, blank where it is bought as needed; ``price``: of one, 0 for a leftover; ``item``: which of
    the shop's it is, whose bars are then kept for this job.
    """

    id: Identifier
    material: Name
    length: q.StockLength
    price: Money = 0.0
    have: Annotated[int, Field(ge=1, le=999)] | None = None
    item: Name | None = None


class PieceChange(Part):
    """A piece made otherwise than the plan says. ``planned``: what the plan said when it was changed;
    ``cut_marked`` and ``cut_far``: how far the end is from square.
    """

    id: Identifier
    piece: Name
    planned: q.PieceLength
    length: q.PieceLength
    cut_marked: q.CutAngle = Angle(deg=0)
    cut_far: q.CutAngle = Angle(deg=0)
    why: Note = ""


class Fit(Part):
    """How well holes are found again: each figure is the most that a place is off, either way.
    ``drilled_to``: holes of rails go where the points were measured, or where the drawing has them.
    """

    measuring: q.Tolerance = Length(mm=1)
    marking: q.Tolerance = Length(mm=0.5)
    drilling: q.Tolerance = Length(mm=0.5)
    drilled_to: Literal["measured", "drawn"] = "measured"


class Bolting(Part):
    """``spacers``: a sleeve inside every closed tube that a bolt goes through; ``corners``: bolts of corners
    go into nuts, or into threads cut in the rail; ``pad``: foam or rubber between feet and rails, squeezed.
    """

    heads: Literal["hex", "button", "countersunk"] = "hex"
    corners: Literal["nuts", "tapped"] = "nuts"
    pad: q.Gap = Length(mm=0)
    lubrication: Literal["dry", "oil", "anti_seize"] = "anti_seize"
    locking: Literal["nylon_nut", "threadlocker", "serrated_flange", "spring_washer"] = "nylon_nut"
    spacers: bool = False


class Coat(Part):
    """What is put on the pieces. ``days``: working days until they are back, blank where nobody asked;
    ``galvanised``: steel has zinc on it, ``etched``: with a primer that bites on zinc; ``washers``: plastic
    or foam between unlike metals; ``salt``: on winter roads or at sea, blank where nobody said.
    """

    kind: Literal["none", "paint", "powder", "anodised"] = "none"
    when: Literal["after drilling", "before drilling"] = "after drilling"
    thickness: q.CoatThickness = Length(mm=0.08)
    days: Annotated[int, Field(ge=0, le=200)] | None = None
    galvanised: bool = False
    etched: bool = False
    washers: bool = False
    salt: bool | None = None


class Lifting(Part):
    """``persons``: who lift from below and from above; ``hands``: how far a load is from the body;
    ``as_one``: carriers go up with their panels on.
    """

    persons: Annotated[int, Field(ge=1, le=12)] = 3
    hands: q.Hands = Length(mm=400)
    as_one: bool = False


class ShopItem(Part):
    """Something that can be bought or lies in the shop. ``pack``: so many ``unit`` are sold together for
    ``price``; ``stock``: units in the shop; ``lead_days``: working days until it comes; ``length``: of a bar;
    ``sheet``: the maker's document with its date, whose values were taken over.
    """

    name: Name
    kind: ItemKind = "other"
    unit: Word = "pc"
    pack: Annotated[float, Field(gt=0, le=100_000)] = 1.0
    price: Money | None = None
    stock: Annotated[float, Field(ge=0, le=1_000_000)] = 0.0
    supplier: Word = ""
    lead_days: Annotated[int, Field(ge=0, le=400)] | None = None
    length: q.StockLength | None = None
    sheet: Word = ""


class Bought(ShopItem):
    """The copy of a shop's item that this job was planned with. ``serves``: the line of materials it is for;
    ``reserved``: units of the shop's stock kept for this job.
    """

    id: Identifier
    serves: Annotated[str, Field(min_length=1, max_length=160)]
    reserved: Annotated[float, Field(ge=0, le=1_000_000)] = 0.0


class Costing(Part):
    """``rack``: what a bought one would cost; ``start``: the day by which everything has to lie ready."""

    hours: Annotated[float, Field(ge=0, le=10_000)] | None = None
    rate: Money | None = None
    rack: Money | None = None
    margin: Annotated[float, Field(ge=0, le=200)] = 0.0
    currency: Annotated[str, Field(pattern=r"^[A-Za-z€£$]{1,4}$")] = "EUR"
    start: date | None = None


class Packed(Part):
    """A line of the kit list that lies in the box."""

    id: Identifier


class Workshop(Part):
    """``kerf``: what the saw takes; ``trim``: what comes off both ends of a bar before anything else;
    ``brackets``: bent here from strip, or bought.
    """

    kerf: q.Kerf = Length(mm=3)
    trim: q.Trim = Length(mm=5)
    stock: Annotated[tuple[StockBar, ...], Field(max_length=40)] = ()
    brackets: Literal["bought", "bent here"] = "bought"
    changes: Annotated[tuple[PieceChange, ...], Field(max_length=60)] = ()
    fit: Fit = Fit()
    bolting: Bolting = Bolting()
    coat: Coat = Coat()
    lifting: Lifting = Lifting()
    items: Annotated[tuple[Bought, ...], Field(max_length=120)] = ()
    costing: Costing = Costing()
    packed: Annotated[tuple[Packed, ...], Field(max_length=120)] = ()
