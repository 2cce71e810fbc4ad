"""Snags of rows of holes in a bracket's base."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.panel import FoamTape, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_at_least, say_length
from fahrtwind.core.stations.hold.schools.drilled import hole_pitch_mm, row_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.feet import EDGE_DISTANCE_DIAMETERS


def _drilled(panels: tuple[PlacedPanel, ...]) -> Iterator[tuple[PlacedPanel, Screws | ThroughBolts]]:
    for panel in panels:
        if panel.feet and (not isinstance(panel.hold, FoamTape)):
            yield (panel, panel.hold)


def _sides(panel: PlacedPanel) -> set[bool]:
    """Whether the panel has feet on its sides (row of holes along the lever), on its ends (row along the
    bracket), or both.
    """
    return {f.side in ("port", "starboard") for f in panel.feet}


@rule(
    "holes-beyond-base",
    "stop",
    "hold",
    "Holes beyond the bracket's base",
    "geometry: a hole outside the base holds nothing",
)
def holes_beyond_base(units: UnitSystem, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, hold in _drilled(panels):
        reach = row_mm(hold) / 2 + hold.fastener_mm / 2
        bracket = hold.bracket
        room = min(bracket.toe.mm, bracket.lever.mm) if True in _sides(panel) else bracket.length.mm / 2
        if False in _sides(panel):
            room = min(room, bracket.length.mm / 2)
        if hold.count > 1 and reach > room:
            washers = hold.school == "bolts" and hole_pitch_mm(hold) > 3.2 * BOLTS[hold.bolt].clearance_mm
            because = (
                f", {say_length(hole_pitch_mm(hold), units)} apart for their washers," if washers else ""
            )
            yield Found(
                place=f"panels.{panel.id}.hold.bracket.toe",
                where=panel.name,
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
def bracket_too_small(units: UnitSystem, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, hold in _drilled(panels):
        row = row_mm(hold) / 2 + EDGE_DISTANCE_DIAMETERS * hold.fastener_mm
        if row > hold.bracket.toe.mm and True in _sides(panel):
            yield Found(
                place=f"panels.{panel.id}.hold.bracket.toe",
                where=panel.name,
                why=f"{hold.count} holes in a row need a toe of {say_at_least(row, units)}; the "
                f"bracket has {say_length(hold.bracket.toe.mm, units)}.",
                remedy="Choose a bracket with a longer toe, or fewer fasteners.",
                quantity="toe",
                value=hold.bracket.toe.mm,
                limit=row,
                unit="mm",
            )
