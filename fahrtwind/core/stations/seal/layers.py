"""Each kind of seal as its layers from below, true to scale, each with its reason."""

from __future__ import annotations

from collections.abc import Iterator
from math import pi, sin
from typing import Literal

from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.seal.amounts import CAP_BEYOND_MM, CAP_OVER_MM, HEAD_HIGH, PATCH_MM
from fahrtwind.core.stations.seal.choice import KindChoice, SealChoice
from fahrtwind.core.stations.seal.cure import FILLET_MM, LAYER_MM, SETTLES_H
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.tables.sealants import PlaceKind

Look = Literal["skin", "soft", "sealant", "metal", "tape", "none"]
SKIN_MM = {"steel": 0.8, "aluminium": 1.0, "fibreglass": 4.0, "membrane": 1.5}
PLATE_MM, TAPE_THICK_MM, COVER_MM, BESIDE_MM = 4.0, 1.6, 1.0, 40.0
ARC = 12


@dataclass(frozen=True, slots=True)
class Corner:
    """Across from the middle of the place, and up from the skin's face, mm."""

    u_mm: float
    z_mm: float


@dataclass(frozen=True, slots=True)
class Layer:
    """A step of a seal: what is done, why, how long to wait then, and what of it is seen in the section:
    rings of points across and up from the skin's face, mm.
    """

    what: str
    why: str
    wait_h: float
    look: Look
    rings: tuple[tuple[Corner, ...], ...]


@dataclass(frozen=True, slots=True)
class SealSection:
    """A kind of place as it is built up. ``places``: of that kind."""

    kind: PlaceKind
    places: int
    layers: tuple[Layer, ...]


def sections_of(
    places: tuple[SealPlace, ...], vehicle: Vehicle, kinds: tuple[KindChoice, ...]
) -> tuple[SealSection, ...]:
    """One for each kind that the plan has, drawn for the largest of its plates."""
    told = []
    for chosen in kinds:
        own = [p for p in places if p.kind == chosen.kind]
        largest = max(own, key=lambda p: p.plate_long_mm * p.plate_wide_mm)
        layers = tuple(_layers(largest, vehicle, chosen.choice, chosen.seal))
        told.append(SealSection(chosen.kind, len(own), layers))
    return tuple(told)


def _box(u0: float, u1: float, z0: float, z1: float) -> tuple[Corner, ...]:
    return (Corner(u0, z0), Corner(u1, z0), Corner(u1, z1), Corner(u0, z1))


def _layers(place: SealPlace, vehicle: Vehicle, choice: SealChoice, seal: Seal) -> Iterator[Layer]:
    if place.kind == "open tube":
        yield Layer("deburr, wipe out", "Chips left inside rust.", 0, "none", ())
        yield Layer("cap at both ends", "Spiders and water live in tubes.", 0, "none", ())
        yield Layer("drain hole at the low end, 5 mm", "What gets in has to get out.", 0, "none", ())
        return
    half, skin = max(place.plate_wide_mm, 8.0) / 2, _skin(vehicle)
    yield Layer(
        "clean, dry, wipe once more",
        "Sealant sticks to what is there: dust, wax or damp.",
        0,
        "skin",
        tuple(_box(u0, u1, -skin, 0) for u0, u1 in _beside_hole(place, half + BESIDE_MM)),
    )
    if place.holes and vehicle.skin in ("steel", "aluminium"):
        yield Layer(
            "deburr, rust-proof paint on the edge",
            "Bare steel rusts under the best seal; chips are gone before evening.",
            1 if vehicle.skin == "steel" else 0,
            "none",
            (),
        )
    for bonding in (choice.under_bond, choice.round_bond):
        if bonding.bond == "with primer":
            yield Layer(f"primer for {bonding.family}", bonding.why, 0.5, "none", ())
    if place.kind == "scar":
        yield from _patch(half, choice)
        return
    if place.kind == "cable clip":
        yield _dab(choice, half)
        return
    low = TAPE_THICK_MM if place.kind == "tape edge" else LAYER_MM
    yield _under(place, choice, half, low)
    if place.kind != "gland":
        yield _fastened(place, half, skin, low)
    yield from _edges(place, choice, seal, half, low)


def _skin(vehicle: Vehicle) -> float:
    if vehicle.skin_thickness is not None:
        return vehicle.skin_thickness.mm
    return SKIN_MM[vehicle.skin or "steel"]


def _beside_hole(place: SealPlace, end: float) -> list[tuple[float, float]]:
    """The skin from end to end with its hole."""
    if not place.holes or place.kind == "tape edge":
        return [(-end, end)]
    hole = place.hole_mm / 2
    return [(-end, -hole), (hole, end)]


def _patch(half: float, choice: SealChoice) -> Iterator[Layer]:
    yield Layer("fill the hole", "Nothing may stand in it.", 0, "none", ())
    yield Layer(
        f"{choice.round.name}, then the patch",
        "50 mm beyond on all sides: the edge is what fails.",
        0,
        "sealant",
        (_box(-half, half, 0, PATCH_MM),),
    )
    yield Layer(
        "patch pressed on, edge sealed",
        "Done before a panel covers it.",
        24,
        "metal",
        (_box(-half + 6, half - 6, PATCH_MM, PATCH_MM + 1.5),),
    )


def _dab(choice: SealChoice, half: float) -> Layer:
    return Layer(
        f"dab of {choice.round.name}, the clip pressed into it",
        "No hole: it carries the cable's weight and nothing else.",
        choice.round.skin_h.most,
        "sealant",
        (_box(-half, half, 0, LAYER_MM),),
    )


def _under(place: SealPlace, choice: SealChoice, half: float, low: float) -> Layer:
    if place.kind == "tape edge":
        return Layer(
            "foam tape or beads, pressed",
            "It holds; it does not seal its edge.",
            0,
            "tape",
            (_box(-half, half, 0, low),),
        )
    if place.kind == "factory thread":
        return Layer(
            "foam pad, sealant round the thread",
            "Keeps paint, metals and water apart.",
            0,
            "soft",
            (_box(-half, half, 0, low),),
        )
    return Layer(
        f"{choice.under.name} under the plate and into the hole",
        "Closes the hole itself, so that the bead round it is the second line.",
        0,
        "soft",
        (_box(-half, half, 0, low),),
    )


def _fastened(place: SealPlace, half: float, skin: float, low: float) -> Layer:
    rings = [_box(-half, half, low, low + PLATE_MM)]
    if place.holes:
        shank, head = place.hole_mm / 2, max(place.head_mm, place.hole_mm) / 2
        top = low + PLATE_MM
        rings += [
            _box(-shank, shank, -skin - 8, top),
            _box(-head, head, top, top + HEAD_HIGH * place.head_mm),
        ]
    return Layer(
        "fastener through, tightened until it squeezes out all round" if place.holes else "foot set on it",
        "Squeeze-out on all sides is the only proof that the layer is whole.",
        0,
        "metal",
        tuple(rings),
    )


def _edges(place: SealPlace, choice: SealChoice, seal: Seal, half: float, low: float) -> Iterator[Layer]:
    soft = choice.under.cures == "stays soft" and place.kind != "tape edge"
    if soft and seal.edge == "trim":
        yield Layer("wait, then trim what squeezed out", "Two days: it creeps on.", SETTLES_H, "none", ())
    elif soft:
        yield Layer("leave the squeeze-out", "Cut edges of soft tape draw dirt.", 0, "none", ())
    if place.kind == "factory thread":
        return
    fillets: list[tuple[Corner, ...]] = [
        (Corner(half, 0), Corner(half + FILLET_MM, 0), Corner(half, FILLET_MM))
    ]
    open_low = seal.sides == "low side open"
    if not open_low:
        fillets.append((Corner(-half, 0), Corner(-half - FILLET_MM, 0), Corner(-half, FILLET_MM)))
    yield Layer(
        f"bead of {choice.round.name} {'on three sides, the low one open' if open_low else 'all round'}",
        "A leak shows on the open side before it rots." if open_low else "Nothing creeps under the plate.",
        choice.round.skin_h.most,
        "sealant",
        tuple(fillets),
    )
    if place.head_mm and place.holes:
        top, radius = low + PLATE_MM, place.head_mm / 2 + CAP_BEYOND_MM
        high = HEAD_HIGH * place.head_mm + CAP_OVER_MM
        dome = tuple(Corner(-radius * _cos(i), top + high * sin(pi * i / ARC)) for i in range(ARC + 1))
        yield Layer(
            "cap over the head", "Threads are channels.", choice.round.skin_h.most, "sealant", (dome,)
        )
    if not choice.round.bears_sun:
        yield Layer(
            "cover tape or paint over the bead",
            f"{choice.round.name.capitalize()} cracks in the sun.",
            0,
            "tape",
            (_box(half - 2, half + FILLET_MM + 4, FILLET_MM, FILLET_MM + COVER_MM),),
        )


def _cos(step: int) -> float:
    return sin(pi * (step / ARC + 0.5))
