"""Snags of sealing: what does not stick, what is covered too soon, where water stands, cables that leak."""

from __future__ import annotations

from collections.abc import Iterator
from math import hypot

import numpy as np

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length, say_temperature
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.seal.choice import KindChoice
from fahrtwind.core.stations.seal.glands import GlandCheck
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.stations.seal.proof import WET_PERCENT, Proof
from fahrtwind.core.stations.seal.water import WaterFinding
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.tables.sealants import SOURCE

PRACTICE = "common practice, no source"
WET = f"over {WET_PERCENT:.0f} % wood rots: common practice"
UNDER_PLATES = ("screw foot", "bolt foot", "one-sided foot", "deck bolt", "gland", "clip screw")
SEALED = (*UNDER_PLATES, "tape edge", "scar")


def _sealed(places: tuple[SealPlace, ...]) -> bool:
    return any(p.kind in SEALED and p.sealed for p in places)


def _used(kinds: tuple[KindChoice, ...], places: tuple[SealPlace, ...]) -> list[KindChoice]:
    """Kinds of which some place is sealed."""
    there = {p.kind for p in places if p.kind in SEALED and p.sealed}
    return [k for k in kinds if k.kind in there]


@rule("seal-does-not-bond", "stop", "seal", "It does not stick to this roof", SOURCE)
def seal_does_not_bond(
    seal_kinds: tuple[KindChoice, ...], seal_places: tuple[SealPlace, ...]
) -> Iterator[Found]:
    told: dict[tuple[str, str], Found] = {}
    for kind in _used(seal_kinds, seal_places):
        choice = kind.choice
        pairs = [(choice.round_bond, "round_with")]
        if kind.kind in UNDER_PLATES:
            pairs.append((choice.under_bond, "under_with"))
        for bonding, place in pairs:
            if bonding.bond == "refused":
                at = "seal.kinds" if kind.own else f"seal.{place}"
                where = f"{bonding.family} on {choice.substrate}" + (f", {kind.kind}" if kind.own else "")
                told.setdefault(
                    (at, where),
                    Found(
                        place=at,
                        where=where,
                        why=bonding.why,
                        remedy="Choose one that bonds, or type what the maker's sheet says.",
                    ),
                )
    yield from told.values()


@rule("seals-clash", "stop", "seal", "Two sealants that must not touch", SOURCE)
def seals_clash(seal_kinds: tuple[KindChoice, ...], seal_places: tuple[SealPlace, ...]) -> Iterator[Found]:
    told: dict[tuple[str, str], Found] = {}
    for kind in _used(seal_kinds, seal_places):
        choice = kind.choice
        if kind.kind in UNDER_PLATES and choice.clash:
            at = "seal.kinds" if kind.own else "seal.round_with"
            where = f"{choice.under.name} beside {choice.round.name}" + (f", {kind.kind}" if kind.own else "")
            told.setdefault(
                (at, where),
                Found(
                    place=at,
                    where=where,
                    why=choice.clash,
                    remedy="One family below and round, or two that bear one another.",
                ),
            )
    yield from told.values()


@rule("membrane-not-told", "caution", "seal", "Which membrane it is, nobody said", PRACTICE)
def membrane_not_told(vehicle: Vehicle, sealing: Seal, seal_places: tuple[SealPlace, ...]) -> Iterator[Found]:
    if vehicle.skin == "membrane" and sealing.substrate is None and seal_places:
        yield Found(
            place="seal.substrate",
            where="roof",
            why="Rubber and thermoplastic take different sealants; the thermoplastic is counted.",
            remedy="Rub a hidden spot with solvent: rubber stains the cloth black. Then choose.",
        )


@rule("too-cold-to-seal", "stop", "seal", "Too cold for this sealant", SOURCE)
def too_cold_to_seal(
    sealing: Seal, seal_kinds: tuple[KindChoice, ...], seal_places: tuple[SealPlace, ...], units: UnitSystem
) -> Iterator[Found]:
    if sealing.temperature is None:
        return
    warm = sealing.temperature.deg_c
    kinds = _used(seal_kinds, seal_places)
    used = {f.name: f for k in kinds for f in (k.choice.under, k.choice.round)}
    for family in used.values():
        if warm < family.coldest_c:
            yield Found(
                place="seal.temperature",
                where=family.words,
                why=f"{say_temperature(warm, units)}; it bonds from "
                f"{say_temperature(family.coldest_c, units)}.",
                remedy="A warmer day, or a heated shelter until it has cured.",
                quantity="temperature",
                value=warm,
                limit=family.coldest_c,
                unit="°C",
            )


@rule("runs-off", "caution", "seal", "Self-levelling sealant on a slope", SOURCE)
def runs_off(
    seal_kinds: tuple[KindChoice, ...], seal_places: tuple[SealPlace, ...], crown: CrownSurface
) -> Iterator[Found]:
    for kind in _used(seal_kinds, seal_places):
        around = kind.choice.round
        own = [p for p in seal_places if p.kind == kind.kind]
        falls = crown.falls(np.array([p.x_mm for p in own]), np.array([p.y_mm for p in own]))
        steep = {p.name: float(fall) for p, fall in zip(own, falls, strict=True)}
        over = {name: slope for name, slope in steep.items() if slope > around.steepest_deg}
        if over:
            worst = max(over, key=over.__getitem__)
            yield Found(
                place="seal.kinds" if kind.own else "seal.round_with",
                where=worst + (f" and {len(over) - 1} more" if len(over) > 1 else ""),
                why=f"The roof falls {over[worst]:.0f}° there; {around.words} runs from "
                f"{around.steepest_deg:.0f}°.",
                remedy="The non-sag kind of the same maker at those places.",
                quantity="slope",
                value=over[worst],
                limit=around.steepest_deg,
                unit="°",
            )


@rule("kind-told-twice", "caution", "seal", "A kind of place is told twice", "the job")
def kind_told_twice(sealing: Seal) -> Iterator[Found]:
    kinds = [entry.kind for entry in sealing.kinds]
    for kind in sorted({k for k in kinds if kinds.count(k) > 1}):
        why = "The last entry counts."
        yield Found("seal.kinds", kind, why, "Remove all but one.")


@rule("sealed-before-covered", "note", "seal", "Nobody reaches it once the panel lies", "geometry")
def sealed_before_covered(seal_places: tuple[SealPlace, ...]) -> Iterator[Found]:
    hidden = [p for p in seal_places if p.covered_by and not p.reachable]
    if hidden:
        names = ", ".join(dict.fromkeys(p.covered_by for p in hidden))
        yield Found(
            place="seal",
            where=names,
            why="Once the panel lies no nozzle gets in there"
            + (f": {len(hidden)} places." if len(hidden) > 1 else "."),
            remedy="Seal and look at them before the panel goes down; photograph them.",
            quantity="places",
            value=float(len(hidden)),
            unit="places",
        )


@rule("seal-off-roof", "stop", "seal", "Place of the seal list off the roof", "geometry")
def seal_off_roof(seal_places: tuple[SealPlace, ...], roof: Rect) -> Iterator[Found]:
    for place in (p for p in seal_places if p.kind in ("scar", "gland")):
        if not (roof.x_mm <= place.x_mm <= roof.x_end_mm and roof.y_mm <= place.y_mm <= roof.y_end_mm):
            yield Found(
                place=place.path,
                where=place.name,
                why="It lies outside the roof's edge.",
                remedy="Check its distances from the datum.",
            )


@rule("seal-in-water", "caution", "seal", "A seal where water stands", "geometry of the crown, filled")
def seal_in_water(
    standing: WaterFinding, seal_places: tuple[SealPlace, ...], units: UnitSystem
) -> Iterator[Found]:
    for pool in standing.pools:
        radius = (pool.area_cm2 * 100 / 3.14) ** 0.5
        near = [
            p
            for p in seal_places
            if p.kind in SEALED
            and any(hypot(s.x_mm - pool.x_mm, s.y_mm - pool.y_mm) < radius for s in p.spots or (p,))
        ]
        if near:
            yield Found(
                place="seal.lean",
                where=", ".join(p.name for p in near[:3]),
                why=f"{pool.litres:.1f} l stand there, {say_length(max(pool.depth_mm, 1), units)} deep.",
                remedy="Park it so that the water runs off, or move what is sealed there.",
                quantity="depth",
                value=pool.depth_mm,
                unit="mm",
            )


@rule("water-not-known", "note", "seal", "Where water stands is not known", PRACTICE)
def water_not_known(standing: WaterFinding | None, seal_places: tuple[SealPlace, ...]) -> Iterator[Found]:
    if standing is None and _sealed(seal_places):
        yield Found(
            place="survey.crown",
            where="roof",
            why="Nobody measured its crown; a flat roof holds water anywhere.",
            remedy="Lay a straight-edge across it under Survey, or pour a bucket and look.",
        )


@rule("gland-badly-placed", "caution", "seal", "Gland in a bad place", PRACTICE)
def gland_badly_placed(gland_check: GlandCheck | None) -> Iterator[Found]:
    if gland_check is not None and gland_check.wrong:
        yield Found(
            place="seal.gland.x",
            where="gland",
            why="; ".join(gland_check.wrong).capitalize() + ".",
            remedy="Take one of the places that are offered, or turn it.",
        )


@rule("sheet-contradicts", "caution", "seal", "Maker's sheet contradicts itself", PRACTICE)
def sheet_contradicts(sealing: Seal) -> Iterator[Found]:
    for sheet in sealing.sheets:
        if sheet.skin_h and sheet.depth_24h and sheet.skin_h > 24:
            yield Found(
                place=f"seal.sheets.{sheet.id}.skin_h",
                where=f"{sheet.family}, {sheet.document or 'sheet'}",
                why=f"No skin before {sheet.skin_h:.0f} h, but {sheet.depth_24h.mm:g} mm cured in a day.",
                remedy="Read the sheet again: one of the two is another unit or another product.",
            )
    families = [sheet.family for sheet in sealing.sheets]
    for name in sorted({f for f in families if families.count(f) > 1}):
        yield Found(
            place="seal.sheets",
            where=name,
            why="Two sheets speak of it; the last one counts.",
            remedy="Keep the sheet of the product in hand.",
        )


@rule("wet-inside", "stop", "seal", "It is wet inside", WET)
def wet_inside(proof: Proof) -> Iterator[Found]:
    for place in proof.wet:
        yield Found(
            place="seal.moisture",
            where=place,
            why=f"A reading of more than {WET_PERCENT:.0f} %.",
            remedy="Open the lining, find the way of the water from above, dry, seal anew.",
        )
