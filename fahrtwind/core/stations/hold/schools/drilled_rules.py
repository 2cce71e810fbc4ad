"""Snags of rows of holes in a bracket's base."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.panel import Drilled
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_at_least, say_length
from fahrtwind.core.stations.hold.schools.drilled import hole_pitch_mm, row_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.feet import EDGE_DISTANCE_DIAMETERS


def _drilled(holders: tuple[Holder, ...]) -> Iterator[tuple[Holder, Drilled]]:
    """Whatever stands on brackets that are drilled: the end of a bar has room for its holes."""
    for holder in holders:
        if holder.feet and not holder.bars and isinstance(holder.hold, Drilled):
            yield (holder, holder.hold)


def _sides(holder: Holder) -> set[bool]:
    """Whether the panel has feet on its sides (row of holes along the lever), on its ends (row along the
    bracket), or both.
    """
    return {f.on_side for f in holder.feet}


@rule(
    "holes-beyond-base",
    "stop",
    "hold",
    "Holes beyond the bracket's base",
    "geometry: a hole outside the base holds nothing",
)
def holes_beyond_base(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _drilled(holders):
        reach = row_mm(hold) / 2 + hold.fastener_mm / 2
        bracket = hold.bracket
        room = min(bracket.toe.mm, bracket.lever.mm) if True in _sides(holder) else bracket.length.mm / 2
        if False in _sides(holder):
            room = min(room, bracket.length.mm / 2)
        if hold.count > 1 and reach > room:
            washers = hold.school == "bolts" and hole_pitch_mm(hold) > 3.2 * BOLTS[hold.bolt].clearance_mm
            because = (
                f", {say_length(hole_pitch_mm(hold), units)} apart for their washers," if washers else ""
            )
            yield Found(
                place=f"{holder.hold_path}.bracket.toe",
                where=holder.name,
                why=f"{hold.count} holes in a row{because} reach {say_length(reach, units)} from "
                f"its middle; the base ends after {say_length(room, units)}.",
                remedy="Choose a bracket with a longer lever and toe, smaller washers, or fewer fasteners.",
                quantity="reach of the row",
                value=reach,
                limit=room,
                unit="mm",
            )


@rule(
    "bracket-too-small",
    "caution",
    "hold",
    "Bracket base too small for its holes",
    "AISI S100 J4.2: edge distance 1.5 diameters",
)
def bracket_too_small(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _drilled(holders):
        row = row_mm(hold) / 2 + EDGE_DISTANCE_DIAMETERS * hold.fastener_mm
        if row > hold.bracket.toe.mm and True in _sides(holder):
            yield Found(
                place=f"{holder.hold_path}.bracket.toe",
                where=holder.name,
                why=f"{hold.count} holes in a row need a toe of {say_at_least(row, units)}; the "
                f"bracket has {say_length(hold.bracket.toe.mm, units)}.",
                remedy="Choose a bracket with a longer toe, or fewer fasteners.",
                quantity="toe",
                value=hold.bracket.toe.mm,
                limit=row,
                unit="mm",
            )
