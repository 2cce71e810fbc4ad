"""Snags of pieces and of what they are cut from."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length, say_run
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.build.cut_lists import Length, MaterialCut, longest_mm
from fahrtwind.core.stations.build.piece import Hole, Piece
from fahrtwind.core.stations.build.small_pieces import plated, splice_bears_n_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.tables.fasteners import LENGTHS_MM

PRACTICE = "common practice, no source"
HOLES = "EN 1999-1-1:2007, Table 8.2: end distance 1.2, spacing 2.2 hole diameters at least, from memory"
PLATES = "EN 1999-1-1:2007, 6.2.5: two plates to the outer fibre, 1.65 on yield"
TO_END, APART = 1.2, 2.2


@rule("piece-too-long", "stop", "build", "Piece longer than every bar", PRACTICE)
def piece_too_long(lengths: tuple[Length, ...], workshop: Workshop, units: UnitSystem) -> Iterator[Found]:
    for piece in lengths:
        longest = longest_mm(workshop, piece.material, piece.sold_mm)
        if piece.length_mm > longest:
            yield Found(
                place="workshop.stock",
                where=f"piece {piece.piece}",
                why=f"It is {say_run(piece.length_mm, units)} long; a bar gives {say_run(longest, units)}.",
                remedy="A longer bar, a shorter rail, or more feet so that a splice finds an inner bay.",
                quantity="length",
                value=piece.length_mm,
                limit=longest,
                unit="mm",
            )


@rule("bars-do-not-suffice", "stop", "build", "Too few bars in stock", PRACTICE)
def bars_do_not_suffice(cuts: tuple[MaterialCut, ...]) -> Iterator[Found]:
    for own in cuts:
        if own.pieces and not own.cut.bars and len(own.cut.missing) == own.pieces and own.assumed_mm is None:
            yield Found(
                place="workshop.stock",
                where=own.says,
                why=f"{own.pieces} pieces do not come out of the bars that are there."
                if own.cut.proved
                else f"For {own.pieces} pieces no way was found to cut them from the bars that are there.",
                remedy="More bars, or leave their number blank where more can be bought.",
            )


@rule("bars-not-said", "caution", "build", "Nobody said what bars there are", PRACTICE)
def bars_not_said(cuts: tuple[MaterialCut, ...], units: UnitSystem) -> Iterator[Found]:
    for own in cuts:
        if own.assumed_mm is not None:
            yield Found(
                place="workshop.stock",
                where=own.says,
                why=f"Bars of {say_run(own.assumed_mm, units)} are counted, and no price.",
                remedy="Type the lengths that can be bought, with their price, and what lies in the shop.",
            )


@rule("no-bolt-that-long", "stop", "build", "No bolt is sold that long", "ISO 4014, 4017", each="carriers")
def no_bolt_that_long(carrier: Carrier, bolts: tuple[BoltLine, ...], units: UnitSystem) -> Iterator[Found]:
    for line in bolts:
        if line.length_mm is None:
            yield Found(
                place=f"carriers.{carrier.id}.section",
                where=f"{carrier.name}, {line.joint}",
                why=f"Its stack needs {line.size} × {say_length(line.needed_mm, units)}.",
                remedy="A lower section, or threaded rod with a nut at both ends.",
                quantity="length",
                value=line.needed_mm,
                limit=float(LENGTHS_MM[-1]),
                unit="mm",
            )


@rule("hole-near-end", "caution", "build", "Hole near the end of a piece", HOLES)
def hole_near_end(made: tuple[Piece, ...], units: UnitSystem) -> Iterator[Found]:
    for piece in made:
        for hole in piece.holes:
            room = min(hole.at_mm, piece.length_mm - hole.at_mm)
            if room < TO_END * hole.diameter_mm:
                yield Found(
                    place=piece.path,
                    where=f"{piece.name}, {hole.what}",
                    why=f"Its middle is {say_length(room, units)} from the end; "
                    f"{say_length(TO_END * hole.diameter_mm, units)} at least.",
                    remedy="Let the piece reach further, or move what is bolted there.",
                    quantity="to the end",
                    value=room,
                    limit=TO_END * hole.diameter_mm,
                    unit="mm",
                )


@rule("holes-close", "caution", "build", "Holes close to one another", HOLES)
def holes_close(made: tuple[Piece, ...], units: UnitSystem) -> Iterator[Found]:
    """On one face, on two opposite ones where a bolt goes through, and where bolts cross inside a tube."""
    for piece in made:
        most = APART * max((hole.diameter_mm for hole in piece.holes), default=0.0)
        for one, other in combinations(piece.holes, 2):
            apart = abs(other.at_mm - one.at_mm)
            if apart >= most:  # most are far apart
                continue
            least = _least_apart(one, other)
            if apart < least and abs(other.off_mm - one.off_mm) < least:
                yield Found(
                    place=piece.path,
                    where=f"{piece.name}: {one.what}, {other.what}",
                    why=f"Along the piece their middles are {say_length(apart, units)} apart; "
                    f"{say_length(least, units)} at least.",
                    remedy="Move a bar or a panel by a few centimetres, or drill one of them elsewhere.",
                    quantity="apart",
                    value=apart,
                    limit=least,
                    unit="mm",
                )


def _least_apart(one: Hole, other: Hole) -> float:
    """How far apart two holes have to be along a piece, mm: in one wall by their edges, across one another by
    their bolts.
    """
    across = {"upper": "level", "lower": "level"}
    size = max(one.diameter_mm, other.diameter_mm)
    if across.get(one.face) != across.get(other.face):
        return size if one.through and other.through else 0.0
    return APART * size if one.face == other.face or one.through or other.through else 0.0


@rule("splice-not-judged", "note", "build", "Not judged: a splice", PRACTICE, each="carriers")
def splice_not_judged(carrier: Carrier, pieces: tuple[Piece, ...]) -> Iterator[Found]:
    for piece in (p for p in pieces if p.spliced):
        if piece.splice_n_mm is None or not plated(carrier):
            known = None if piece.splice_n_mm is None else piece.splice_n_mm / 1000
            told = "Nobody knows how much bends there."
            yield Found(
                place=f"carriers.{carrier.id}",
                where=f"{piece.name}, rear end",
                why=told if known is None else f"{known:.0f} N·m bend there at the probed speed.",
                remedy="The maker's joint for this section, or a longer bar.",
                quantity="bending",
                value=known,
                unit="N·m",
            )


@rule("splice-too-weak", "stop", "build", "Splice too weak", PLATES, each="carriers")
def splice_too_weak(carrier: Carrier, pieces: tuple[Piece, ...]) -> Iterator[Found]:
    for piece in (p for p in pieces if p.spliced and plated(carrier)):
        bears, bends = splice_bears_n_mm(carrier), piece.splice_n_mm or 0.0
        if bends > bears:
            yield Found(
                place=f"carriers.{carrier.id}.section",
                where=f"{piece.name}, rear end",
                why=f"{bends / 1000:.0f} N·m bend there at the probed speed; its two plates bear "
                f"{bears / 1000:.0f}.",
                remedy="A longer bar, a foot nearer to the splice, or a higher section.",
                quantity="bending",
                value=bends / 1000,
                limit=bears / 1000,
                unit="N·m",
            )
