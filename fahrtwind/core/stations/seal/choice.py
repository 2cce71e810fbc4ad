"""What a job is sealed with: chosen, or what suits the ground; the maker's sheet before the table."""

from __future__ import annotations

from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.sealing import MakerSheet, Seal
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.tables.sealants import (
    FAMILIES,
    Bond,
    Family,
    FamilyName,
    PlaceKind,
    Span,
    SubstrateName,
    beside,
    bond,
)

USUAL_UNDER: dict[str, tuple[FamilyName, ...]] = {
    "tape": ("butyl tape", "lap sealant", "hybrid"),
    "wet": ("hybrid", "polyurethane", "lap sealant"),
}
USUAL_ROUND: tuple[FamilyName, ...] = ("hybrid", "lap sealant", "polyurethane")
MEMBRANES: tuple[SubstrateName, ...] = ("rubber membrane", "thermoplastic membrane")


@dataclass(frozen=True, slots=True)
class Bonding:
    """A family on this ground; ``by_sheet``: the maker's word; what it bears besides, in °C and degrees of
    slope.
    """

    family: FamilyName
    bond: Bond
    why: str
    by_sheet: bool
    paintable: bool
    bears_sun: bool
    coldest_c: float
    steepest_deg: float


@dataclass(frozen=True, slots=True)
class SealChoice:
    """``under``: plates, ``round``: them and over heads. ``clash``: why those two must not touch; empty where
    they may. ``all``: what every family does on this ground.
    """

    substrate: SubstrateName
    assumed: bool
    under: Family
    round: Family
    under_bond: Bonding
    round_bond: Bonding
    clash: str
    all: tuple[Bonding, ...]


@dataclass(frozen=True, slots=True)
class KindChoice:
    """One kind of place with what is chosen for it: its own or that of all."""

    kind: PlaceKind
    seal: Seal
    choice: SealChoice
    own: bool


OF_ALL = ("under", "edge", "sides", "under_with", "round_with")


def kinds_of(vehicle: Vehicle, seal: Seal, kinds: tuple[PlaceKind, ...]) -> tuple[KindChoice, ...]:
    """What is used for each kind that the plan has; of two entries for one kind the last counts."""
    entries = {entry.kind: entry for entry in seal.kinds}
    told = []
    for kind in kinds:
        entry = entries.get(kind)
        given = {n: v for n in OF_ALL if entry is not None and (v := getattr(entry, n)) is not None}
        if "under" in given and "under_with" not in given:
            given["under_with"] = None  # another way below brings its own usual sealant
        merged = seal.model_copy(update=given) if given else seal
        told.append(KindChoice(kind, merged, choice_of(vehicle, merged), bool(given)))
    return tuple(told)


def ground_of(vehicle: Vehicle, seal: Seal) -> tuple[SubstrateName, bool]:
    """The surface that is sealed to, and whether that was only concluded from the skin. Of a membrane the
    more delicate kind is taken until somebody says which it is.
    """
    if seal.substrate is not None:
        return seal.substrate, False
    if vehicle.skin == "membrane":
        return "thermoplastic membrane", True
    return ("gelcoat" if vehicle.skin == "fibreglass" else "painted metal"), True


def choice_of(vehicle: Vehicle, seal: Seal) -> SealChoice:
    """What is used, chosen or usual, with what it does on this ground."""
    ground, assumed = ground_of(vehicle, seal)
    sheets = {sheet.family: sheet for sheet in seal.sheets}
    bonds = {name: _bonding(name, ground, sheets.get(name)) for name in FAMILIES}
    order = ("lap sealant", *USUAL_ROUND) if ground in MEMBRANES else USUAL_ROUND
    under = seal.under_with or _first(USUAL_UNDER[seal.under], bonds)
    around = seal.round_with or _first(order, bonds)
    return SealChoice(
        ground,
        assumed,
        by_sheet(FAMILIES[under], sheets.get(under)),
        by_sheet(FAMILIES[around], sheets.get(around)),
        bonds[under],
        bonds[around],
        beside(under, around),
        tuple(bonds.values()),
    )


def _first(names: tuple[FamilyName, ...], bonds: dict[FamilyName, Bonding]) -> FamilyName:
    """The first that bonds; the first of all where none does, which is then told."""
    return next((n for n in names if bonds[n].bond != "refused"), names[0])


def _bonding(name: FamilyName, ground: SubstrateName, sheet: MakerSheet | None) -> Bonding:
    family = by_sheet(FAMILIES[name], sheet)
    bears = (family.paintable, family.bears_sun, family.coldest_c, family.steepest_deg)
    if sheet is not None and sheet.bonds is not None:
        told: dict[str, Bond] = {"yes": "good", "with primer": "with primer", "no": "refused"}
        return Bonding(name, told[sheet.bonds], f"maker's sheet {sheet.document}".strip(), True, *bears)
    verdict, why = bond(name, ground)
    return Bonding(name, verdict, why, False, *bears)


def by_sheet(family: Family, sheet: MakerSheet | None) -> Family:
    """A family with what its maker's sheet says otherwise."""
    if sheet is None:
        return family
    told = family
    if sheet.skin_h is not None:
        told = replace(told, skin_h=Span(sheet.skin_h, sheet.skin_h))
    if sheet.depth_24h is not None:
        told = replace(told, depth_24h_mm=Span(sheet.depth_24h.mm, sheet.depth_24h.mm))
    if sheet.coldest is not None:
        told = replace(told, coldest_c=sheet.coldest.deg_c)
    return told
