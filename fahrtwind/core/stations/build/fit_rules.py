"""Snags of feet that have to meet their points, and of pieces changed by hand."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_at_least, say_length
from fahrtwind.core.stations.build.fit import FootFit, Lean
from fahrtwind.core.stations.build.loose_pieces import EDGE_DIAMETERS
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.house import rule
from fahrtwind.core.tables.fasteners import BOLTS

PRACTICE = "common practice, no source"
CHANGED_MM = 1.0
LEANS_DEG = 1.0
"""What a foot takes by itself."""


@rule("slot-too-long", "stop", "build", "Point too far off for a slot", "geometry", each="carriers")
def slot_too_long(carrier: Carrier, fits: tuple[FootFit, ...], units: UnitSystem) -> Iterator[Found]:
    if isinstance(carrier.hold, BasePlate | OuterFoot):
        return
    bracket = carrier.hold.bracket
    edges = 2 * EDGE_DIAMETERS * BOLTS[JOINT_BOLT].diameter_mm
    rooms = {"along": bracket.length.mm - edges, "across": bracket.base_mm - edges}
    for way, room in rooms.items():
        slots = {f.where: f.slot_along_mm if way == "along" else f.slot_across_mm for f in fits}
        over = {where: slot for where, slot in slots.items() if slot > room}
        if over:
            worst = max(over, key=over.__getitem__)
            yield Found(
                place=f"carriers.{carrier.id}.hold.bracket.length",
                where=f"{carrier.name}, {worst}" + (f" and {len(over) - 1} more" if len(over) > 1 else ""),
                why=f"It needs a slot of {say_at_least(over[worst], units)} {way}; its foot has room for "
                f"{say_length(max(room, 0.0), units)}.",
                remedy="A larger bracket, holes drilled where the points were measured, or leave it out.",
                quantity="slot",
                value=over[worst],
                limit=room,
                unit="mm",
            )


@rule(
    "points-not-measured", "caution", "build", "Holes for points nobody measured", PRACTICE, each="carriers"
)
def points_not_measured(carrier: Carrier, fits: tuple[FootFit, ...]) -> Iterator[Found]:
    unknown = [fit for fit in fits if not fit.known]
    if unknown:
        yield Found(
            place="survey.point_rows",
            where=f"{carrier.name}, {', '.join(f.where for f in unknown[:3])}"
            + (f" and {len(unknown) - 3} more" if len(unknown) > 3 else ""),
            why=f"{len(unknown)} of its {len(fits)} holes would be drilled where the drawing has the point.",
            remedy="Measure each point from the datum under Survey before its hole is drilled.",
            quantity="not measured",
            value=float(len(unknown)),
            unit="points",
        )


@rule("feet-lean", "note", "build", "Rails lean out with the roof", "geometry", each="carriers")
def feet_lean(
    carrier: Carrier, leans: tuple[Lean, ...], survey_notes: Survey, units: UnitSystem
) -> Iterator[Found]:
    if any(row.lean for row in survey_notes.point_rows):
        return  # pads that were measured are told under Hold
    leaning = [lean for lean in leans if lean.lean_deg > LEANS_DEG]
    for lean in leaning:
        yield Found(
            place=f"carriers.{carrier.id}",
            where=f"{carrier.name}, rail {lean.rail}",
            why=f"Its pads lean {lean.lean_deg:.1f}° {'outward' if lean.outward else 'inward'}.",
            remedy=f"A wedge of {say_at_least(lean.wedge_mm, units)}, feet bent by {lean.lean_deg:.1f}°, or "
            f"a strap that pulls the rail {say_at_least(lean.strap_mm, units)} "
            f"{'in' if lean.outward else 'out'}; crossbars are measured after that.",
            quantity="lean",
            value=lean.lean_deg,
            limit=LEANS_DEG,
            unit="°",
        )


@rule("plan-moved", "caution", "build", "The plan moved under a piece changed by hand", "the job itself")
def plan_moved(workshop: Workshop, made: tuple[Piece, ...], units: UnitSystem) -> Iterator[Found]:
    pieces = {p.id: p for p in made}
    for change in workshop.changes:
        piece = pieces.get(change.piece)
        now = piece.planned_mm if piece else None
        if now is None or abs(now - change.planned.mm) > CHANGED_MM:
            yield Found(
                place=f"workshop.changes.{change.id}",
                where=f"piece {change.piece}",
                why="The plan has no such piece any more."
                if now is None
                else f"It was changed when the plan said {say_length(change.planned.mm, units)}; now it says "
                f"{say_length(now, units)}.",
                remedy="Take the change back, or make it anew for the plan as it is.",
                quantity="planned",
                value=now,
                limit=change.planned.mm,
                unit="mm",
            )


@rule("bend-does-not-fit", "stop", "build", "Bracket too low to be bent", "geometry of the bend")
def bend_does_not_fit(made: tuple[Piece, ...], units: UnitSystem) -> Iterator[Found]:
    seen: set[str] = set()
    for piece in (p for p in made if p.kind == "bracket" and p.part_of not in seen):
        at = [0.0, *(bend.at_mm for bend in piece.bends), piece.length_mm]
        least = min((b - a for a, b in pairwise(at)), default=0.0)
        if least < LEAST_LEG * piece.high_mm:
            seen.add(piece.part_of)
            yield Found(
                place=piece.path,
                where=piece.name,
                why=f"A leg of it is {say_length(least, units)}; the brake holds "
                f"{say_length(LEAST_LEG * piece.high_mm, units)} at least.",
                remedy="Thinner strip, a higher stand-off, or brackets cut from angle bar.",
                quantity="leg",
                value=least,
                limit=LEAST_LEG * piece.high_mm,
                unit="mm",
            )


LEAST_LEG = 3.0
"""Legs over thickness, from middle of bend to middle of bend: common practice, no source."""
