"""Snags of lifting."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_mass
from fahrtwind.core.stations.build.lifting import LiftedUnit
from fahrtwind.core.stations.house import rule

NIOSH = "NIOSH 94-110: lifting index at most 1; up to 2 for fit people, a few times: judgement"


@rule("too-few-to-lift", "stop", "build", "Too few people for this lift", NIOSH)
def too_few_to_lift(lifts: tuple[LiftedUnit, ...], workshop: Workshop, units: UnitSystem) -> Iterator[Found]:
    for unit in lifts:
        if workshop.lifting.persons < unit.least_persons:
            yield _found(unit, workshop, units, unit.least_persons)


@rule("lift-strains", "note", "build", "A heavy lift for so few", NIOSH)
def lift_strains(lifts: tuple[LiftedUnit, ...], workshop: Workshop, units: UnitSystem) -> Iterator[Found]:
    for unit in lifts:
        if unit.least_persons <= workshop.lifting.persons < unit.persons:
            yield _found(unit, workshop, units, unit.persons)


def _found(unit: LiftedUnit, workshop: Workshop, units: UnitSystem, wanted: int) -> Found:
    there = workshop.lifting.persons
    return Found(
        place="workshop.lifting.persons",
        where=unit.name,
        why=f"{say_mass(unit.mass_kg, units)} on {there}; each lifts {say_mass(unit.each_kg, units)} "
        "without strain.",
        remedy=f"{wanted} people, a lift or crane, or carry it up in parts.",
        quantity="persons",
        value=float(there),
        limit=float(wanted),
        unit="persons",
    )
