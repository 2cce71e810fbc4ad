"""The kinds of work on a roof: how long each takes, who does it where, and what has to be done before what.

Times are common practice, no source: the shop's own rates overrule them. Orders carry the reason that is
told to whoever wants to do it the other way round.
"""

from __future__ import annotations

from typing import Literal, get_args

from fahrtwind.core.records import dataclass

StepKind = Literal[
    "survey",
    "measure",
    "cut",
    "coat first",
    "drill pieces",
    "bend",
    "slots",
    "coat",
    "edges",
    "slot nuts",
    "spacers",
    "splices",
    "corners",
    "frames",
    "reach",
    "scars",
    "clean",
    "mark",
    "dry fit",
    "pilot",
    "drill",
    "deburr",
    "lay",
    "prime",
    "stick",
    "stand",
    "snug",
    "retighten",
    "set",
    "strap",
    "square",
    "torque",
    "leads",
    "night",
    "trim",
    "seal",
    "bench cables",
    "plug",
    "lay cables",
    "lift",
    "tighten",
    "raise",
    "tethers",
    "meter",
    "connect",
    "hose",
    "write",
    "drive",
]
KINDS: tuple[StepKind, ...] = get_args(StepKind)
Place = Literal["bench", "roof", "inside"]
Bonded = Literal["none", "tape", "sealant", "paint"]


@dataclass(frozen=True, slots=True)
class Rate:
    """``fixed_min`` once and ``each_min`` for every ``unit``; ``hands``: persons. ``bonds``: what has to
    stick, so that the surface has to be dry, clear of dew and in its window; ``carried``: something is in the
    hands that wind takes.
    """

    fixed_min: float
    each_min: float
    unit: str
    place: Place
    hands: int = 1
    bonds: Bonded = "none"
    carried: bool = False


RATES: dict[StepKind, Rate] = {
    "survey": Rate(15, 10, "question", "roof"),
    "measure": Rate(5, 5, "panel", "bench"),
    "cut": Rate(20, 6, "piece", "bench"),
    "coat first": Rate(30, 5, "piece", "bench"),
    "drill pieces": Rate(15, 3, "hole", "bench"),
    "bend": Rate(15, 8, "bracket", "bench"),
    "slots": Rate(10, 8, "foot", "bench"),
    "coat": Rate(30, 5, "piece", "bench"),
    "edges": Rate(10, 1, "hole", "bench"),
    "slot nuts": Rate(10, 1, "nut", "bench"),
    "spacers": Rate(10, 2, "sleeve", "bench"),
    "splices": Rate(10, 15, "joint", "bench"),
    "corners": Rate(20, 6, "joint", "bench"),
    "frames": Rate(10, 5, "hole", "bench"),
    "reach": Rate(20, 0, "roof", "roof"),
    "scars": Rate(30, 12, "scar", "roof", bonds="sealant"),
    "clean": Rate(20, 4, "foot", "roof"),
    "mark": Rate(20, 3, "mark", "roof"),
    "dry fit": Rate(20, 10, "panel", "roof", 2, carried=True),
    "pilot": Rate(20, 0, "hole", "roof", 2),
    "drill": Rate(10, 3, "hole", "roof"),
    "deburr": Rate(10, 2, "hole", "roof", bonds="paint"),
    "lay": Rate(15, 5, "fastener", "roof", bonds="sealant"),
    "prime": Rate(15, 4, "foot", "roof", bonds="tape"),
    "stick": Rate(10, 4, "foot", "roof", bonds="tape"),
    "stand": Rate(30, 10, "foot", "roof", 2, carried=True),
    "snug": Rate(20, 10, "foot", "roof", 2),
    "retighten": Rate(10, 3, "foot", "roof", 2),
    "set": Rate(30, 5, "foot", "roof", 2, carried=True),
    "strap": Rate(15, 5, "foot", "roof", 2),
    "square": Rate(20, 0, "carrier", "roof", 2),
    "torque": Rate(15, 2, "bolt", "roof"),
    "leads": Rate(10, 3, "panel", "roof"),
    "night": Rate(20, 0, "roof", "roof"),
    "trim": Rate(10, 3, "foot", "roof"),
    "seal": Rate(15, 4, "foot", "roof", bonds="sealant"),
    "bench cables": Rate(20, 10, "cable", "bench"),
    "plug": Rate(10, 3, "joint", "roof"),
    "lay cables": Rate(20, 15, "string", "roof"),
    "lift": Rate(15, 10, "panel", "roof", 2, carried=True),
    "tighten": Rate(10, 8, "panel", "roof"),
    "raise": Rate(30, 5, "pin", "roof", 2, carried=True),
    "tethers": Rate(5, 8, "tether", "roof"),
    "meter": Rate(10, 5, "string", "inside"),
    "connect": Rate(30, 10, "controller", "inside"),
    "hose": Rate(15, 5, "place", "roof", 2),
    "write": Rate(20, 0, "job", "inside"),
    "drive": Rate(0, 0, "job", "inside", 0),
}
"""How many hands lifts need is worked out by mass; the figure here is the least."""


@dataclass(frozen=True, slots=True)
class Order:
    """``before`` is done before ``after``. ``least_h``: between the end of one and the start of the other;
    ``most_h``: no longer; ``day``: on the same day, or on a later one.
    """

    before: StepKind
    after: StepKind
    why: str
    least_h: float = 0.0
    most_h: float | None = None
    day: Literal["any", "same", "later"] = "any"


PRIMER_FLASH_H, PRIMER_OPEN_H = 0.25, 1.0
"""Between primer and tape, at least and at most: common practice, the maker's sheet decides."""
OPEN = "an open hole takes in dew and rain: it is closed on the day it is drilled"
CHIPS = "chips rust into the paint with the first dew"
PANEL = "nobody reaches it once the panel lies"
SHEET = "delivered sizes differ from the sheet"
CUTS: tuple[StepKind, ...] = ("cut", "coat first", "drill pieces", "bend", "slots", "coat", "edges")
JOINED: tuple[StepKind, ...] = ("slot nuts", "spacers", "splices", "corners")
STANDING: tuple[StepKind, ...] = ("set", "strap", "square", "torque")
ON_ROOF: tuple[StepKind, ...] = tuple(k for k in KINDS if RATES[k].place == "roof" and k != "survey")
LAST: tuple[StepKind, ...] = ("tighten", "tethers", "connect", "hose", "retighten", "trim", "leads", "night")


def _chain(kinds: tuple[StepKind, ...], why: str) -> list[Order]:
    """Each before all that come later."""
    return [Order(a, b, why) for i, a in enumerate(kinds) for b in kinds[i + 1 :]]


ORDERS: tuple[Order, ...] = (
    *(Order("survey", k, "what is not known is measured first") for k in ("measure", "cut", "mark", "pilot")),
    *(Order("measure", k, SHEET) for k in ("cut", "frames", "mark", "dry fit", "drill pieces")),
    *_chain(CUTS, "a finish is spoilt by what is cut after it"),
    *(Order(k, j, "slots and ends are open only before corners close them") for k in CUTS for j in JOINED),
    *_chain(JOINED, "what a corner closes goes in before it"),
    *(Order(k, "set", "it goes up as one") for k in (*CUTS, *JOINED)),
    *(Order(k, "stand", "it goes up as one") for k in (*CUTS, *JOINED)),
    *(Order("reach", k, "nobody climbs before the ladder stands") for k in ON_ROOF if k != "reach"),
    Order("frames", "lift", "holes in a frame are drilled on the bench"),
    Order("scars", "clean", "old work spoils clean ground"),
    *(Order("scars", k, PANEL) for k in ("mark", "dry fit", "lift", "set")),
    Order("clean", "mark", "marks hold on clean ground"),
    Order("clean", "prime", "it is washed the day before, then dry", day="later"),
    Order("clean", "lay", "a washed roof dries first", least_h=2.0),
    *(Order("mark", k, "the mark says where") for k in ("dry fit", "pilot", "prime", "stand")),
    *(Order("dry fit", k, "lids and leads are tried before a hole") for k in ("pilot", "prime", "set")),
    Order("pilot", "drill", "one hole shows whether the member is there"),
    Order("drill", "deburr", CHIPS, day="same"),
    Order("deburr", "lay", "paint on the edge dries first", least_h=4.0),
    Order("drill", "lay", OPEN, day="same"),
    Order("pilot", "lay", OPEN, day="same"),
    Order("drill", "night", CHIPS, day="same"),
    Order("lay", "night", "the roof is left clean", day="same"),
    Order("prime", "stick", "primer flashes off, then it grows old", PRIMER_FLASH_H, PRIMER_OPEN_H),
    *(Order(k, "snug", "it stands before it is tightened") for k in ("stand", "lay")),
    *(Order("snug", k, "feet first, then joints") for k in ("square", "torque")),
    Order("stand", "lay", "feet are marked through their plates"),
    Order("snug", "retighten", "the sealant has lost some of its squeeze"),
    *(Order(k, j, "a foot is set before something stands on it") for k in ("lay", "stick") for j in STANDING),
    *_chain((*STANDING, "leads"), "loose, square, then torque"),
    *(Order(k, "seal", "the bead goes over what is tight") for k in ("lay", "stick", "snug", "trim")),
    *(Order(k, "trim", "it has squeezed out what it will") for k in ("lay", "stick")),
    *(Order(k, "lift", PANEL) for k in ("seal", "trim", "plug", "lay cables", "leads")),
    *(Order(k, "lift", "it stands tight before panels lie") for k in ("lay", "stick", "snug", "torque")),
    *(Order("measure", k, SHEET) for k in ("plug", "lift")),
    Order("bench cables", "plug", "cables are made up on the bench"),
    Order("bench cables", "lay cables", "cables are made up on the bench"),
    Order("lift", "tighten", "all bolts started by hand, then square, then tight"),
    Order("tighten", "raise", "a panel that is loose in its clamps slides out of them"),
    Order("raise", "hose", "it is wet afterwards, and slippery"),
    Order("tighten", "tethers", "the line is as short as it goes"),
    Order("plug", "meter", "a string is measured when it is one"),
    Order("lift", "meter", "covered panels give nothing"),
    Order("lay cables", "meter", "the meter stands at the cables' ends"),
    Order("meter", "connect", "nothing is joined that was not measured"),
    Order("seal", "hose", "what is not sealed leaks"),
    Order("lay", "hose", "what is not sealed leaks"),
    Order("tighten", "hose", "bolts move the seal"),
    *(Order(k, "write", "it is written down when it is done") for k in (*LAST, "raise", "lift", "seal")),
    Order("write", "drive", "nobody drives before it is written down"),
)
TOGETHER: tuple[tuple[StepKind, ...], ...] = (("drill", "deburr", "lay", "night"), ("prime", "stick"))
"""Done foot by foot in batches that fit a day, each batch through to its end."""
