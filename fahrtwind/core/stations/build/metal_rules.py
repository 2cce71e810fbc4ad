"""Snags of metals and of what is painted on them."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.build.metals import Contact
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.house import rule
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.galvanic import GALVANIC_SOURCE

PRACTICE = "common practice, no source"
LEAST_PLAY_MM = 0.3
"""So that a bolt still goes through a coated hole."""


@rule("unlike-metals", "caution", "build", "Unlike metals touch", GALVANIC_SOURCE, each="carriers")
def unlike_metals(carrier: Carrier, contacts: tuple[Contact, ...], workshop: Workshop) -> Iterator[Found]:
    eaten = [c for c in contacts if c.between == "isolate"]
    if eaten:
        worst = max(eaten, key=lambda c: c.apart_v / c.anode_to_cathode)
        where = "rain" if workshop.coat.salt is False else "salt"
        yield Found(
            place="workshop.coat.washers",
            where=f"{carrier.name}, {', '.join(c.where for c in eaten)}",
            why=f"{worst.anode.capitalize()} is eaten by {worst.cathode}: {worst.apart_v:.2f} V apart, "
            f"{worst.limit_v:.2f} are allowed in {where}."
            if worst.apart_v > worst.limit_v
            else "Rust holds water and salt against the aluminium.",
            remedy="Plastic washers and sleeves, foam or rubber between them, paste on the threads.",
            quantity="apart",
            value=worst.apart_v,
            limit=worst.limit_v,
            unit="V",
        )


def _steel(carrier: Carrier) -> bool:
    alloys = {carrier.alloy}
    if isinstance(carrier, Rack):
        under = (part for part in (carrier.posts, carrier.crossbars) if part is not None)
        alloys |= {carrier.bar_alloy, *(part.alloy for part in under)}
    return "S235" in alloys


@rule("steel-bare", "caution", "build", "Plain steel without a coat", PRACTICE, each="carriers")
def steel_bare(carrier: Carrier, workshop: Workshop) -> Iterator[Found]:
    if _steel(carrier) and workshop.coat.kind == "none" and not workshop.coat.galvanised:
        yield Found(
            place="workshop.coat.kind",
            where=carrier.name,
            why="It rusts, and the rust runs down the roof.",
            remedy="Galvanised steel, or paint or powder on every edge and hole.",
        )


@rule("zinc-not-etched", "caution", "build", "Paint on zinc without its primer", PRACTICE, each="carriers")
def zinc_not_etched(carrier: Carrier, workshop: Workshop) -> Iterator[Found]:
    coat = workshop.coat
    if _steel(carrier) and coat.galvanised and coat.kind in ("paint", "powder") and not coat.etched:
        yield Found(
            place="workshop.coat.etched",
            where=carrier.name,
            why="Paint comes off bare zinc in sheets.",
            remedy="Degrease, etch primer, then paint.",
        )


@rule(
    "coat-fills-holes",
    "caution",
    "build",
    "The coat leaves no room for the bolts",
    "ISO 273: clearance holes",
)
def coat_fills_holes(workshop: Workshop, made: tuple[Piece, ...], units: UnitSystem) -> Iterator[Found]:
    coat, bolt = workshop.coat, BOLTS[JOINT_BOLT]
    play = bolt.clearance_mm - bolt.diameter_mm - 2 * coat.thickness.mm
    drilled = any(piece.holes for piece in made)
    if drilled and coat.kind != "none" and coat.when == "after drilling" and play < LEAST_PLAY_MM:
        yield Found(
            place="workshop.coat.thickness",
            where=f"holes of {say_size(bolt.clearance_mm, units)}",
            why=f"{coat.thickness.mm:g} mm on their walls leave {max(play, 0):.1f} mm of play.",
            remedy="Drill them larger, or mask holes and threads and run a tap through after.",
            quantity="play",
            value=play,
            limit=LEAST_PLAY_MM,
            unit="mm",
        )


@rule("bare-holes", "note", "build", "Holes are drilled through the coat", PRACTICE)
def bare_holes(workshop: Workshop, made: tuple[Piece, ...]) -> Iterator[Found]:
    coat = workshop.coat
    if coat.kind != "none" and coat.when == "before drilling" and any(piece.holes for piece in made):
        yield Found(
            place="workshop.coat.when",
            where="every drilled hole",
            why="Its edge is bare metal under a coat that hides what happens there.",
            remedy="Paint each edge before the bolt goes in, or coat after drilling.",
        )


@rule("coat-not-asked", "caution", "build", "Nobody asked how long the coat takes", PRACTICE)
def coat_not_asked(workshop: Workshop, made: tuple[Piece, ...]) -> Iterator[Found]:
    if made and workshop.coat.kind in ("powder", "anodised") and workshop.coat.days is None:
        yield Found(
            place="workshop.coat.days",
            where="coating",
            why="It goes away to be coated; two weeks and more are usual.",
            remedy="Ask the coater, and type the working days.",
        )
