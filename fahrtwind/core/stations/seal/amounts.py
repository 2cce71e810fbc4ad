"""How much of everything the seal list takes, place by place, and in which packs it is bought."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, pi

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sealing import cap_volume, fillet_volume, layer_volume
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.seal.choice import KindChoice, SealChoice
from fahrtwind.core.stations.seal.cure import FILLET_MM, LAYER_MM
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.tables.sealants import FAMILIES, Family, FamilyName

WASTE = 1.25
TAPE_WIDE_MM = {"butyl tape": 20.0, "bitumen tape": 50.0, "cover tape": 100.0}
ROLL_MM = {"butyl tape": 10_000.0, "bitumen tape": 10_000.0, "cover tape": 15_000.0}
CAP_BEYOND_MM, CAP_OVER_MM, HEAD_HIGH = 4.0, 3.0, 0.4
PATCH_MM = 3.0
"""Beyond a head and over it; a head is so high for its width; sealant under and round a patch."""


@dataclass(frozen=True, slots=True)
class PlaceAmount:
    """What one place takes: millilitres of what comes from a cartridge, millimetres of tape."""

    place: str
    family: FamilyName
    volume_ml: float
    tape_mm: float
    bead_mm: float


@dataclass(frozen=True, slots=True)
class Amount:
    """Of a family for all places, with waste: packs to open, and how many places one opened cartridge has to
    serve within its days.
    """

    family: FamilyName
    volume_ml: float
    tape_mm: float
    bead_mm: float
    packs: int
    pack: str
    opened_days: int


def amounts_by_place(places: tuple[SealPlace, ...], kinds: tuple[KindChoice, ...]) -> tuple[PlaceAmount, ...]:
    """Each place by what is chosen for its kind."""
    chosen = {k.kind: k for k in kinds}
    return tuple(
        amount
        for place in places
        for amount in _of(place, chosen[place.kind].choice, chosen[place.kind].seal)
    )


def amounts_at_once(places: tuple[SealPlace, ...], kinds: tuple[KindChoice, ...]) -> tuple[Amount, ...]:
    """``amounts_of`` all places: alike ones are worked out once, so none shows its working."""
    alike: dict[tuple[object, ...], list[SealPlace]] = {}
    for p in places:
        plate = (p.kind, p.plate_long_mm, p.plate_wide_mm, p.holes, p.hole_mm, p.head_mm, p.sealed, p.count)
        alike.setdefault(plate, []).append(p)
    chosen = {k.kind: k for k in kinds}
    return amounts_of(
        tuple(
            replace(
                one,
                volume_ml=one.volume_ml * len(group),
                tape_mm=one.tape_mm * len(group),
                bead_mm=one.bead_mm * len(group),
            )
            for group in alike.values()
            for one in _of(group[0], chosen[group[0].kind].choice, chosen[group[0].kind].seal)
        )
    )


def _of(place: SealPlace, choice: SealChoice, seal: Seal) -> Iterator[PlaceAmount]:
    long, wide = place.plate_long_mm, place.plate_wide_mm
    around = choice.round.name
    with scope("seal", place.id):
        if place.kind == "open tube" or not place.sealed:
            return
        if place.kind == "scar":
            area = given(long * wide * place.holes, "computed", "patches")
            patch = layer_volume(area, given(PATCH_MM, "default", "under and round the patch"))
            yield PlaceAmount(place.id, around, float(patch), 0.0, 2 * (long + wide) * place.holes)
            return
        if place.kind == "factory thread":
            yield PlaceAmount(place.id, around, _hole(place), 0.0, 0.0)
            return
        if place.kind == "cable clip":
            yield PlaceAmount(place.id, around, place.count * _dab(place), 0.0, 0.0)
            return
        if place.kind != "tape edge":
            yield _under(place, choice)
        open_side = max(long, wide) if seal.sides == "low side open" else 0.0
        perimeter = place.count * (2 * (long + wide) - open_side)
        fillet = fillet_volume(
            given(FILLET_MM, "default", "leg of the fillet"), given(perimeter, "computed", "round the plate")
        )
        caps = place.holes * _cap(place) if place.head_mm else 0.0
        yield PlaceAmount(place.id, around, float(fillet) + caps, 0.0, perimeter)


def _under(place: SealPlace, choice: SealChoice) -> PlaceAmount:
    """Below a plate and in its holes: strips of tape side by side, or a layer."""
    long, wide = place.plate_long_mm, place.plate_wide_mm
    name = choice.under.name
    if name in TAPE_WIDE_MM:
        strips = ceil(min(long, wide) / TAPE_WIDE_MM[name])
        return PlaceAmount(place.id, name, 0.0, place.count * strips * max(long, wide), 0.0)
    layer = layer_volume(
        given(place.count * long * wide, "computed", "plate"),
        given(LAYER_MM, "default", "layer and squeeze-out"),
    )
    return PlaceAmount(place.id, name, float(layer) + place.holes * _hole(place), 0.0, 0.0)


def _dab(place: SealPlace) -> float:
    """Sealant under a stuck clip and out round it, ml."""
    foot = layer_volume(
        given(place.plate_long_mm * place.plate_wide_mm, "default", "foot of the clip"),
        given(LAYER_MM, "default", "layer and squeeze-out"),
    )
    return float(foot)


def _hole(place: SealPlace) -> float:
    """Sealant in a hole and the rim over it, ml."""
    return pi / 4 * (place.hole_mm + 2) ** 2 * LAYER_MM / 1000


def _cap(place: SealPlace) -> float:
    high = HEAD_HIGH * place.head_mm
    return float(
        cap_volume(
            given(place.head_mm / 2 + CAP_BEYOND_MM, "default", "head and 4 mm beyond"),
            given(high + CAP_OVER_MM, "default", "head and 3 mm over it"),
            given(place.head_mm, "table", "head"),
            given(high, "table", "height of the head"),
        )
    )


def amounts_of(own: tuple[PlaceAmount, ...]) -> tuple[Amount, ...]:
    """Added up by family, with a quarter for waste."""
    told = []
    for name in dict.fromkeys(a.family for a in own):
        volume = WASTE * sum(a.volume_ml for a in own if a.family == name)
        tape = WASTE * sum(a.tape_mm for a in own if a.family == name)
        bead = sum(a.bead_mm for a in own if a.family == name)
        family = FAMILIES[name]
        told.append(
            Amount(name, volume, tape, bead, _packs(family, volume, tape), family.pack, family.opened_days)
        )
    return tuple(told)


def _packs(family: Family, volume_ml: float, tape_mm: float) -> int:
    if tape_mm:
        return ceil(tape_mm / ROLL_MM[family.name])
    return ceil(volume_ml / family.pack_ml) if family.pack_ml else 0
