"""Snags of rivet nuts, blind rivets and well nuts."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import OneSided
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.hold.links import skin_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.holders import Holder, fastened

PRACTICE = "common practice, no source"
THICK_SHEET_MM, THICK_BOARD_MM = 1.0, 12.0
FEW = 2


def _set(holders: tuple[Holder, ...], insert: str) -> Iterator[tuple[Holder, OneSided]]:
    for holder in holders:
        if isinstance(holder.hold, OneSided) and holder.hold.insert == insert and holder.feet:
            yield holder, holder.hold


@rule(
    "rivet-nut-in-thin-skin",
    "stop",
    "hold",
    "Spreads behind thin skin",
    "Makers' least sheet: common practice",
)
def rivet_nut_in_thin_skin(
    holders: tuple[Holder, ...], vehicle: Vehicle, units: UnitSystem
) -> Iterator[Found]:
    """Of rivet nuts and of expanding bolts alike."""
    named = {h.id: h for kind in ("rivet_nut", "expanding") for h, _ in _set(holders, kind)}
    bare = [f for f in fastened(holders) if f.panel in named and f.landing != "member"]
    if bare and vehicle.skin in ("steel", "aluminium") and skin_mm(vehicle) < THICK_SHEET_MM:
        foot = bare[0]
        yield Found(
            place=named[foot.panel].place(foot),
            where=f"{named[foot.panel].name}, foot {foot.foot}",
            why=f"{say_length(skin_mm(vehicle), units)} of sheet tears before the nut or the sleeve pulls.",
            remedy="Set them in members, or through-bolt with large washers.",
            quantity="skin",
            value=skin_mm(vehicle),
            limit=THICK_SHEET_MM,
            unit="mm",
        )


@rule("rivets-pull-for-good", "caution", "hold", "Blind rivets in lasting tension", "EN 1993-1-3:2006, 8.3")
def rivets_pull_for_good(holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, _ in _set(holders, "blind_rivet"):
        yield Found(
            place=f"{holder.hold_path}.insert",
            where=holder.name,
            why="Blind rivets are made for shear; pulled and shaken they loosen.",
            remedy="Rivet nuts with bolts, or bolts; look at them often.",
        )


@rule("insert-not-rated", "note", "hold", "Strength of the insert not known", PRACTICE)
def insert_not_rated(holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder in holders:
        hold = holder.hold
        if isinstance(hold, OneSided) and holder.feet and hold.pull_n is None:
            yield Found(
                place=f"{holder.hold_path}.pull_n",
                where=holder.name,
                why="Its sheet was not entered: a cautious judgement is counted.",
                remedy="Type what the maker says one of them pulls.",
            )


@rule("well-nuts-alone", "stop", "hold", "Well nuts alone", "Rubber creeps and ages: common practice")
def well_nuts_alone(holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, _ in _set(holders, "well_nut"):
        yield Found(
            place=f"{holder.hold_path}.insert",
            where=holder.name,
            why="Rubber is the only thing that holds: it creeps, and along the roof it counts nothing.",
            remedy="Screws into the members in every foot, doubled at the windward edge.",
        )


@rule("thin-board-under-well-nut", "stop", "hold", "Board too thin for a well nut", PRACTICE)
def thin_board_under_well_nut(
    holders: tuple[Holder, ...], vehicle: Vehicle, units: UnitSystem
) -> Iterator[Found]:
    if vehicle.skin != "membrane" or vehicle.ply_thickness is None:
        return
    for holder, _ in _set(holders, "well_nut"):
        if vehicle.ply_thickness.mm < THICK_BOARD_MM:
            yield Found(
                place=f"{holder.hold_path}.insert",
                where=holder.name,
                why=f"{say_length(vehicle.ply_thickness.mm, units)} of ply; a well nut wants "
                f"{say_length(THICK_BOARD_MM, units)}.",
                remedy="Screws into the trusses instead.",
                quantity="board",
                value=vehicle.ply_thickness.mm,
                limit=THICK_BOARD_MM,
                unit="mm",
            )
