"""The pieces of all carriers, material by material, cut from the bars that the workshop has or buys."""

from __future__ import annotations

from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.cutting import Cut, Stock, Wanted, cut_list
from fahrtwind.core.stations.build.piece import Piece

USUAL_BAR_MM = 6000.0
"""What a bar is where nobody has said: the usual length in metric trade (common practice, no source)."""
WITHIN_SECONDS = 1.0
"""For the proof while the plan is changed; the calculation of its own takes longer."""


@dataclass(frozen=True, slots=True)
class Length:
    """A piece as the saw sees it."""

    piece: str
    material: str
    says: str
    length_mm: float
    sold_mm: float | None


@dataclass(frozen=True, slots=True)
class MaterialCut:
    """The cut list of one material, which ``says`` it in the job's units. ``assumed_mm``: no bar of it was
    entered, and bars of that length count, without a price.
    """

    material: str
    says: str
    pieces: int
    run_mm: float
    assumed_mm: float | None
    cut: Cut


def longest_mm(workshop: Workshop, material: str, sold_mm: float | None) -> float:
    """The longest piece that a bar of a material gives; ``sold_mm``: what its carrier says of it."""
    lengths = [b.length.mm for b in workshop.stock if b.material == material]
    return max(lengths or [sold_mm or USUAL_BAR_MM]) - 2 * workshop.trim.mm


def lengths_of(pieces: tuple[Piece, ...]) -> tuple[Length, ...]:
    return tuple(Length(p.id, p.material, p.says, round(p.length_mm, 2), p.sold_mm) for p in pieces)


def cut_lists(
    lengths: tuple[Length, ...], workshop: Workshop, seconds: float = WITHIN_SECONDS
) -> tuple[MaterialCut, ...]:
    """One for each material, in the order in which the pieces name them."""
    told = []
    for material in dict.fromkeys(piece.material for piece in lengths):
        own = [p for p in lengths if p.material == material]
        stocks = [
            Stock(bar.id, bar.length.mm, bar.price, bar.have)
            for bar in workshop.stock
            if bar.material == material
        ]
        wanted = [Wanted(p.piece, p.length_mm) for p in own]
        assumed = max((p.sold_mm for p in own if p.sold_mm), default=USUAL_BAR_MM)
        bars = stocks or [Stock("", assumed, 1.0)]
        cut = cut_list(wanted, bars, workshop.kerf.mm, workshop.trim.mm, seconds)
        run = sum(p.length_mm for p in own)
        told.append(MaterialCut(material, own[0].says, len(own), run, None if stocks else assumed, cut))
    return tuple(told)
