"""Families of sealants and tapes: how they cure, what they bond to, what spoils them.

General knowledge of the trade, no source, unless a maker's sheet is typed in: every figure is a range, and
the maker's sheet of the product in hand decides.
"""

from __future__ import annotations

from typing import Literal, get_args

from fahrtwind.core.records import dataclass

FamilyName = Literal[
    "butyl tape",
    "bitumen tape",
    "lap sealant",
    "polyurethane",
    "hybrid",
    "silicone",
    "polysulphide",
    "acrylic",
    "cover tape",
    "rubber gasket",
]
SubstrateName = Literal[
    "rubber membrane",
    "thermoplastic membrane",
    "gelcoat",
    "painted metal",
    "galvanised steel",
    "bare aluminium",
    "anodised aluminium",
    "glass",
    "acrylic glass",
    "wood",
    "old silicone",
]
SUBSTRATES: tuple[SubstrateName, ...] = get_args(SubstrateName)
PlaceKind = Literal[
    "screw foot",
    "bolt foot",
    "one-sided foot",
    "tape edge",
    "deck bolt",
    "factory thread",
    "gland",
    "clip screw",
    "cable clip",
    "scar",
    "open tube",
]
"""What there is to seal: feet by how they are held, and what else lets water in."""
FOOT_KINDS: dict[str, PlaceKind] = {
    "screws": "screw foot",
    "bolts": "bolt foot",
    "one_sided": "one-sided foot",
    "tape": "tape edge",
    "base_plate": "deck bolt",
}
"""What a foot is to the seal, by the school that holds it."""
Cures = Literal["stays soft", "by moisture", "by drying", "as a sheet"]
Bond = Literal["good", "with primer", "refused"]
SOURCE = "common practice, no source: the maker's sheet decides"


@dataclass(frozen=True, slots=True)
class Span:
    """From the least to the most, in the unit of the field that holds it."""

    least: float
    most: float


@dataclass(frozen=True, slots=True)
class Family:
    """``skin_h``: until rain does no harm, hours, quick to slow; ``depth_24h_mm``: cured in a day at 23 °C
    and 50 %, least to most; ``coldest_c``: of roof and air; ``steepest_deg``: where it runs off; ``years``:
    between looks.
    """

    name: FamilyName
    cures: Cures
    skin_h: Span
    depth_24h_mm: Span
    coldest_c: float
    steepest_deg: float
    paintable: bool
    bears_sun: bool
    opened_days: int
    pack: str
    pack_ml: float
    years: float

    @property
    def words(self) -> str:
        """What it is called on a list."""
        return self.name if " " in self.name else f"{self.name} sealant"


TUBE = ("cartridge 290 ml", 290.0)
NEVER = (Span(0, 0), Span(0, 0))
"""What does not cure."""
FAMILIES: dict[FamilyName, Family] = {
    f.name: f
    for f in (
        Family(
            "butyl tape",
            "stays soft",
            Span(0, 0),
            Span(0, 0),
            5,
            90,
            False,
            False,
            3650,
            "roll 20 mm × 10 m",
            0,
            2,
        ),
        Family(
            "bitumen tape",
            "stays soft",
            Span(0, 0),
            Span(0, 0),
            10,
            90,
            False,
            True,
            3650,
            "roll 50 mm × 10 m",
            0,
            2,
        ),
        Family(
            "lap sealant",
            "by drying",
            Span(1, 4),
            Span(1.0, 1.5),
            10,
            5,
            False,
            True,
            14,
            "cartridge 290 ml",
            290,
            1,
        ),
        Family(
            "polyurethane",
            "by moisture",
            Span(0.75, 2),
            Span(2.5, 4),
            5,
            90,
            True,
            False,
            7,
            "cartridge 290 ml",
            290,
            2,
        ),
        Family(
            "hybrid",
            "by moisture",
            Span(0.25, 1),
            Span(2, 3.5),
            5,
            90,
            True,
            True,
            7,
            "cartridge 290 ml",
            290,
            2,
        ),
        Family(
            "silicone",
            "by moisture",
            Span(0.2, 0.5),
            Span(2, 4),
            5,
            90,
            False,
            True,
            14,
            "cartridge 290 ml",
            290,
            2,
        ),
        Family(
            "polysulphide",
            "by moisture",
            Span(2, 6),
            Span(1, 2),
            5,
            90,
            True,
            True,
            7,
            "cartridge 290 ml",
            290,
            2,
        ),
        Family(
            "acrylic",
            "by drying",
            Span(0.5, 1),
            Span(1, 2),
            5,
            90,
            True,
            False,
            30,
            "cartridge 290 ml",
            290,
            1,
        ),
        Family(
            "cover tape",
            "as a sheet",
            Span(0, 0),
            Span(0, 0),
            10,
            90,
            False,
            True,
            365,
            "roll 100 mm × 15 m",
            0,
            1,
        ),
        Family("rubber gasket", "as a sheet", *NEVER, -20, 90, False, True, 3650, "pc", 0, 2),
    )
}

# One letter for each substrate in the order of SubstrateName: good, with primer, refused.
_BONDS: dict[FamilyName, str] = {
    # rubber, thermoplastic, gelcoat, painted, galvanised, bare, anodised, glass, acrylic, wood, silicone
    "butyl tape": "grgggggggpr",
    "bitumen tape": "rrggggggrpr",
    "lap sealant": "gpggpppprpr",
    "polyurethane": "rrggppppppr",
    "hybrid": "prgggggggpr",
    "silicone": "rrggggggggp",
    "polysulphide": "rrgpppppprr",
    "acrylic": "rrrgrrrrrgr",
    "cover tape": "gpggggggrrr",
    "rubber gasket": "ggggggggggg",
}
_LETTERS: dict[str, Bond] = {"g": "good", "p": "with primer", "r": "refused"}
_WHY_REFUSED: dict[tuple[FamilyName | None, SubstrateName | None], str] = {
    (None, "old silicone"): "Nothing sticks to what silicone leaves; cut it off and clean to sound ground.",
    (
        None,
        "thermoplastic membrane",
    ): "It peels off in sheets; welded patches or the maker's own sealant hold.",
    ("butyl tape", "thermoplastic membrane"): "Oils wander between them; only a butyl made for it holds.",
    ("bitumen tape", "rubber membrane"): "Its oils swell the rubber.",
    ("polyurethane", "rubber membrane"): "It does not wet the rubber and lets go in the sun.",
    ("silicone", "rubber membrane"): "It lets go, and nothing bonds there afterwards.",
    ("silicone", "thermoplastic membrane"): "It lets go, and nothing bonds there afterwards.",
    ("acrylic", None): "It goes soft in standing water.",
    ("polysulphide", "acrylic glass"): "It crazes the plastic.",
    ("bitumen tape", "acrylic glass"): "It stains and crazes the plastic.",
    ("lap sealant", "acrylic glass"): "Its solvent crazes the plastic.",
    ("cover tape", "wood"): "It needs a closed, smooth face.",
}
_NEIGHBOURS: dict[frozenset[FamilyName], str] = {
    frozenset({"silicone", other}): "What silicone leaves blocks every other sealant and paint beside it."
    for other in get_args(FamilyName)
    if other not in ("silicone", "rubber gasket")
} | {
    frozenset({"bitumen tape", "lap sealant"}): "The solvent softens the bitumen.",
    frozenset({"bitumen tape", "polyurethane"}): "Oils of the bitumen stain it and weaken its edge.",
    frozenset({"acrylic", "polyurethane"}): "Acrylic stays wet under it.",
}


def bond(family: FamilyName, substrate: SubstrateName) -> tuple[Bond, str]:
    """Whether a family bonds to a substrate, and why not."""
    told = _LETTERS[_BONDS[family][SUBSTRATES.index(substrate)]]
    if told == "good":
        return told, ""
    if told == "with primer":
        return told, "Clean, and the primer that its maker names for this ground."
    for key in ((family, substrate), (None, substrate), (family, None)):
        if key in _WHY_REFUSED:
            return told, _WHY_REFUSED[key]
    return told, "It does not stay on this ground."


def beside(one: FamilyName, other: FamilyName) -> str:
    """Why two families must not touch; empty where they may."""
    return _NEIGHBOURS.get(frozenset({one, other}), "")
