"""Which metals touch, which of them is eaten, and whether something has to come between them."""

from __future__ import annotations

from math import pi
from typing import Literal

from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.job.workshop import Coat
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.tables.alloys import AlloyName
from fahrtwind.core.tables.fasteners import BOLTS
from fahrtwind.core.tables.galvanic import APART_V, INDEX_V, LARGE_ANODE, MetalName

Between = Literal["fine", "grease", "isolate", "isolated"]
RUSTY = {"aluminium", "steel"}
"""Near to one another by the table; rust that holds water and salt against the aluminium makes it otherwise:
common practice, no source."""


@dataclass(frozen=True, slots=True)
class Contact:
    """Two metals that touch: ``anode`` is eaten, so many times as large as the other; ``between``: what has
    to come between them, or that it is there.
    """

    carrier: str
    where: str
    anode: MetalName
    cathode: MetalName
    apart_v: float
    limit_v: float
    anode_to_cathode: float
    between: Between


def metal_of(alloy: AlloyName, coat: Coat) -> MetalName:
    """What a section is to the water that stands on it."""
    if alloy == "1.4301":
        return "stainless"
    if alloy == "S235":
        return "zinc" if coat.galvanised else "steel"
    return "aluminium"


def contacts_of(
    carrier: Carrier, pieces: tuple[Piece, ...], bolts: tuple[BoltLine, ...], coat: Coat, afloat: bool
) -> tuple[Contact, ...]:
    """Of a carrier: rails, bars, posts, feet and bolts. ``afloat``: on a boat there is salt unless said."""
    if afloat and coat.salt is None:
        coat = coat.model_copy(update={"salt": True})
    rail = metal_of(carrier.alloy, coat)
    run, section = carrier.end.mm - carrier.start.mm, carrier.section
    surface = max(len(carrier.rails) * run * 2 * (section.width.mm + section.height.mm), 1.0)
    found: list[Contact | None] = []
    if not isinstance(carrier.hold, BasePlate | OuterFoot):
        foot: MetalName = "stainless" if carrier.hold.bracket.metal == "stainless" else "aluminium"
        bracket = carrier.hold.bracket
        feet = max(1, sum(line.count for line in bolts if line.joint.startswith("feet")))
        area = 2 * feet * bracket.length.mm * (bracket.base_mm + carrier.foot_mm)
        stood = metal_of(carrier.on_feet[1], coat)
        where = "feet on rails" if carrier.foot_mm == carrier.height.mm else "feet on crossbars"
        found.append(_contact(carrier.id, where, (foot, area), (stood, surface), coat))
    if isinstance(carrier, Rack):
        if carrier.crossbars is not None:
            long = sum(2 * (p.wide_mm + p.high_mm) * p.length_mm for p in pieces if p.kind == "crossbar")
            under = (metal_of(carrier.crossbars.alloy, coat), long or 1.0)
            found.append(_contact(carrier.id, "rails on crossbars", (rail, surface), under, coat))
        bar = metal_of(carrier.bar_alloy, coat)
        bars = sum(2 * (p.wide_mm + p.high_mm) * p.length_mm for p in pieces if p.kind == "bar") or 1.0
        found.append(_contact(carrier.id, "bars on rails", (bar, bars), (rail, surface), coat))
        if carrier.joint == "angles":
            angles = sum(2 * (p.wide_mm + p.high_mm) * p.length_mm for p in pieces if p.kind == "corner")
            found.append(
                _contact(carrier.id, "corners on rails", ("aluminium", angles or 1.0), (rail, surface), coat)
            )
        if carrier.posts is not None:
            post = metal_of(carrier.posts.alloy, coat)
            tall = sum(2 * (p.wide_mm + p.high_mm) * p.length_mm for p in pieces if p.kind == "post") or 1.0
            found.append(_contact(carrier.id, "posts under rails", (post, tall), (rail, surface), coat))
    heads = sum(2 * line.count * pi / 4 * BOLTS[line.size].washer_mm ** 2 for line in bolts)
    if heads:
        found.append(_contact(carrier.id, "bolts in rails", ("stainless", heads), (rail, surface), coat))
    return tuple(c for c in found if c is not None)


def _contact(
    carrier: str, where: str, one: tuple[MetalName, float], other: tuple[MetalName, float], coat: Coat
) -> Contact | None:
    """None between the same metal. Each with its surface, mm²."""
    if one[0] == other[0]:
        return None
    (anode, large), (cathode, small) = sorted((one, other), key=lambda m: -INDEX_V[m[0]])
    apart = INDEX_V[anode] - INDEX_V[cathode]
    limit = APART_V["rain" if coat.salt is False else "salt"]  # not said: the sharper one
    ratio = large / small
    between: Between = "isolate"
    if apart <= limit + 1e-9 and {anode, cathode} != RUSTY:
        between = "fine"
    elif coat.washers:
        between = "isolated"
    elif ratio >= LARGE_ANODE and coat.salt is not True:
        between = "grease"
    return Contact(carrier, where, anode, cathode, apart, limit, ratio, between)
