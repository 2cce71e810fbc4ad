"""Snags of base plates on decks."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import BasePlate
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_force, say_length
from fahrtwind.core.stations.hold.carriers.links import CLAMP_PRELOAD_N
from fahrtwind.core.stations.hold.links import SEAL_LAYER_MM, skin_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS

PRACTICE = "common practice, no source"
CORE_BEARS_N_MM2 = {"foam": 1.4, "balsa": 10.0}
"""Crushing of PVC foam of 80 kg/m³ and of end-grain balsa: makers' data, from memory."""
NUT_AND_WASHER = 1.3


def _plated(holders: tuple[Holder, ...]) -> Iterator[tuple[Holder, BasePlate]]:
    for holder in holders:
        if isinstance(holder.hold, BasePlate) and holder.feet:
            yield holder, holder.hold


@rule(
    "core-crushed", "stop", "hold", "Tightening crushes the deck's core", "Makers' data of cores, from memory"
)
def core_crushed(holders: tuple[Holder, ...], units: UnitSystem) -> Iterator[Found]:
    for holder, hold in _plated(holders):
        strength = CORE_BEARS_N_MM2.get(hold.core)
        if strength is None:
            continue
        bears = strength * hold.backing.mm**2 / hold.count
        if bears < CLAMP_PRELOAD_N:
            yield Found(
                place=f"{holder.hold_path}.core",
                where=holder.name,
                why=f"Each bolt squeezes with about {say_force(CLAMP_PRELOAD_N, units)}; the core under its "
                f"share of the plate bears {say_force(bears, units)}.",
                remedy="Take the core out round every bolt and fill it: solid inserts.",
                quantity="squeeze",
                value=CLAMP_PRELOAD_N,
                limit=bears,
                unit="N",
            )


@rule("core-drinks", "caution", "hold", "Bolt holes let water into the core", PRACTICE)
def core_drinks(holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _plated(holders):
        if hold.core in CORE_BEARS_N_MM2:
            yield Found(
                place=f"{holder.hold_path}.core",
                where=holder.name,
                why="A bare core round a bolt drinks what gets past the sealant, and rots or comes loose.",
                remedy="Drill wide, fill, and drill again through the filler.",
            )


@rule("backing-smaller", "caution", "hold", "Backing plate smaller than the base plate", PRACTICE)
def backing_smaller(holders: tuple[Holder, ...], units: UnitSystem) -> Iterator[Found]:
    for holder, hold in _plated(holders):
        if hold.backing.mm < hold.plate.mm:
            yield Found(
                place=f"{holder.hold_path}.backing",
                where=holder.name,
                why=f"{say_length(hold.backing.mm, units)} below, {say_length(hold.plate.mm, units)} above.",
                remedy="At least as large as the base plate.",
                quantity="backing plate",
                value=hold.backing.mm,
                limit=hold.plate.mm,
                unit="mm",
            )


@rule("deck-bolt-short", "stop", "hold", "Bolt too short for deck and plates", PRACTICE)
def deck_bolt_short(holders: tuple[Holder, ...], vehicle: Vehicle, units: UnitSystem) -> Iterator[Found]:
    for holder, hold in _plated(holders):
        through = hold.thickness.mm + SEAL_LAYER_MM + skin_mm(vehicle) + hold.backing_thickness.mm
        need = through + NUT_AND_WASHER * BOLTS[hold.bolt].diameter_mm
        if hold.length.mm < need:
            yield Found(
                place=f"{holder.hold_path}.length",
                where=holder.name,
                why=f"Plates, deck and nut need {say_length(need, units)}.",
                remedy="The next length, and try it in one hole.",
                quantity="bolt length",
                value=hold.length.mm,
                limit=need,
                unit="mm",
            )
