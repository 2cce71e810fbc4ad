"""How long screws and bolts are to be on a roof, of the lengths that are sold."""

from __future__ import annotations

from typing import TypeVar, cast

from fahrtwind.core.formulas.wood import thread_in_member
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Drilled, Holding, OneSided, Screws, ThroughBolts
from fahrtwind.core.quantities import Length, UnitSystem
from fahrtwind.core.stations.hold.links import skin_mm
from fahrtwind.core.stations.hold.schools.bolts import bolt_length_needed_mm
from fahrtwind.core.stations.hold.schools.drilled import reach_below_roof_mm
from fahrtwind.core.tables.fasteners import INCH_LENGTHS, LENGTHS_MM, SCREWS

LEAST_DIAMETERS, FULL_DIAMETERS = 4.0, 6.0
"""Of thread in a truss: below four refused, below six told (EN 1995-1-1, 8.7.2(3), from memory)."""
BEYOND_METAL_MM = 3.0
"""So far a screw comes out below the metal that it holds in: common practice."""
INCH_MM = 25.4
H = TypeVar("H", bound=Holding)


def sold_mm(units: UnitSystem) -> tuple[float, ...]:
    """Lengths of screws and bolts on the shelf of a shop that works in these units."""
    return tuple(INCH_MM * x for x in INCH_LENGTHS) if units == "imperial" else tuple(map(float, LENGTHS_MM))


def fitting_mm(
    hold: Drilled, vehicle: Vehicle, members: Members, units: UnitSystem, into_member: bool = True
) -> tuple[float, ...]:
    """Lengths that hold in a member, or in the skin alone, and end before the ceiling: shortest first, but
    where a truss is too shallow for a whole thread the longest. None where the roof is not known well enough
    to say, and for what is chosen by its grip.
    """
    if isinstance(hold, OneSided) or not _known(vehicle, members, into_member):
        return ()
    if isinstance(hold, ThroughBolts):
        need = bolt_length_needed_mm(vehicle, members, hold, into_member)
        return tuple(x for x in sold_mm(units) if x >= need)
    above = hold.length.mm - reach_below_roof_mm(hold)
    depth = members.depth.mm if into_member and members.depth else float("inf")
    short = [x for x in sold_mm(units) if x - above <= skin_mm(vehicle) + depth]
    if not into_member or members.kind != "wood_truss":
        wall = members.wall.mm if into_member and members.wall else 0.0
        return tuple(x for x in short if x - above >= skin_mm(vehicle) + wall + BEYOND_METAL_MM)
    diameter = SCREWS[hold.screw].wood_mm
    thread = {x: thread_mm(x, above, vehicle, members) / diameter for x in short}
    whole = tuple(x for x in short if thread[x] >= FULL_DIAMETERS)
    return whole or tuple(x for x in reversed(short) if thread[x] >= LEAST_DIAMETERS)


def thread_mm(length_mm: float, above_mm: float, vehicle: Vehicle, members: Members) -> float:
    """Thread of a screw in a truss, ``above_mm`` of which is foot and sealant."""
    depth = members.depth.mm if members.depth else length_mm  # not known: a question of its own
    unnoted = thread_in_member.__wrapped__  # type: ignore[attr-defined]
    return float(unnoted(length_mm, above_mm, skin_mm(vehicle), depth))


def fitted(hold: H, vehicle: Vehicle, members: Members, units: UnitSystem) -> H:
    """A hold with screws or bolts as long as this roof wants them: the length it has where that fits."""
    if not isinstance(hold, Screws | ThroughBolts):
        return hold
    fitting = fitting_mm(
        hold, vehicle, members, units, isinstance(hold, Screws) or members.kind == "wood_truss"
    )
    if not fitting or hold.length.mm in fitting:
        return hold
    return cast("H", hold.model_copy(update={"length": Length(mm=fitting[0])}))


def _known(vehicle: Vehicle, members: Members, into_member: bool) -> bool:
    """Whether what a fastener goes through is known, and in wood where it has to end."""
    if vehicle.skin is None or not skin_mm(vehicle):
        return False
    if not into_member:
        return True
    return (
        members.kind is not None
        and (members.depth if members.kind == "wood_truss" else members.wall) is not None
    )
