"""What goes up onto the roof: how heavy, where its middle lies, who lifts it, and in which wind not."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.lifting import recommended_weight, wind_of_force
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.job.workshop import Lifting
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.layout.footprint import panel_rect

FROM_MM, TO_MM = 750.0, 1400.0
"""From the trestle to where those above take it: common practice; higher than the shoulder the equation has
no answer."""
POOR_GRIP = 0.9
"""A frame's edge instead of handles (NIOSH 94-110, Table 7)."""
STRAINED = 2.0
"""Lifting index up to which fit people lift a few times: judgement; one is what nearly all can."""
PERSON_HOLDS_N = 50.0
"""What somebody on a ladder or at the roof's edge holds against wind: judgement."""
GUSTS, NEVER_OVER_M_S = 1.5, 10.0
"""Gusts over the forecast wind; nobody carries panels in more than a fresh breeze: common practice."""
FLAT_PLATE, LYING, AIR_KG_M3, GRAVITY = 1.8, 1.2, 1.25, 9.81
"""Force coefficients across a plate in the hands (EN 1991-1-4:2005, 7.4.3) and up on one that lies loose
(judgement)."""
LONG_MM = 1200.0
"""Nobody carries something longer alone: common practice."""


@dataclass(frozen=True, slots=True)
class LiftedUnit:
    """One lift: its mass, middle (aft and to starboard of the datum), how many lift it without strain and at
    least, blocks that hold it at the height of its bolts, and the forecast wind at whose gusts it is taken
    out of the hands of those there are, or lifts off its blocks.
    """

    id: str
    name: str
    mass_kg: float
    x_mm: float
    y_mm: float
    area_m2: float
    persons: int
    least_persons: int
    each_kg: float
    blocks_mm: float
    hands_m_s: float
    lies_m_s: float


@dataclass(frozen=True, slots=True)
class _Load:
    id: str
    name: str
    mass_kg: float
    x_mm: float
    y_mm: float
    area_m2: float
    longest_mm: float
    blocks_mm: float


def lifted_units(
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    raisings: tuple[Raising, ...],
    pieces: tuple[Piece, ...],
    lifting: Lifting,
) -> tuple[LiftedUnit, ...]:
    """Frames, panels, hinged units: what is carried up in one go."""
    loads = _loads(panels, carriers, raisings, pieces, lifting.as_one)
    return tuple(_unit(load, lifting) for load in loads)


def _loads(
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    raisings: tuple[Raising, ...],
    pieces: tuple[Piece, ...],
    as_one: bool,
) -> Iterator[_Load]:
    gone: set[str] = set()
    for carrier in carriers:
        own = [p for p in pieces if p.part_of == carrier.id and p.kind != "bracket"]
        on = [p for p in panels if p.carrier == carrier.id] if as_one else []
        gone |= {p.id for p in on}
        if own:
            yield _frame(carrier, own, on)
    for raising in raisings:  # in a frame it is the frame that makes them one
        unit = [p for p in panels if p.id in raising.panels and p.id not in gone and p.carrier is None]
        gone |= {p.id for p in unit}
        if unit:
            told = " and ".join(p.name for p in unit)
            yield _together(raising.id, told, unit)
    for panel in panels:
        if panel.id not in gone:
            yield _together(panel.id, panel.name, [panel])


def _together(name: str, says: str, panels: list[PlacedPanel]) -> _Load:
    mass = sum(p.model.mass.kg for p in panels)
    rects = [panel_rect(p) for p in panels]
    x = sum((r.x_mm + r.x_end_mm) / 2 * p.model.mass.kg for r, p in zip(rects, panels, strict=True)) / mass
    y = sum((r.y_mm + r.y_end_mm) / 2 * p.model.mass.kg for r, p in zip(rects, panels, strict=True)) / mass
    area = sum(r.length_mm * r.width_mm for r in rects) / 1e6
    longest = max(p.model.length.mm for p in panels)
    return _Load(name, says, mass, x, y, area, longest, panels[0].stand_off.mm)


def _frame(carrier: Carrier, pieces: list[Piece], panels: list[PlacedPanel]) -> _Load:
    """The middle of the frame from its rails and bars; whatever else is small follows them."""
    rails = [((carrier.start.mm + carrier.end.mm) / 2, r.y.mm) for r in carrier.rails]
    x_y_kg = [(x, y, _share(pieces, "rail", len(rails))) for x, y in rails]
    if isinstance(carrier, Rack):
        middle = (carrier.port.mm + carrier.starboard.mm) / 2
        x_y_kg += [(bar.x.mm, middle, _share(pieces, "bar", len(carrier.bars))) for bar in carrier.bars]
    mass, area = sum(p.mass_kg for p in pieces), sum(p.length_mm * p.wide_mm for p in pieces) / 1e6
    if panels:
        on = _together("", "", panels)
        x_y_kg.append((on.x_mm, on.y_mm, on.mass_kg))
        mass, area = mass + on.mass_kg, max(area, on.area_m2)
    total = sum(kg for *_, kg in x_y_kg) or 1.0
    x = sum(x * kg for x, _, kg in x_y_kg) / total
    y = sum(y * kg for _, y, kg in x_y_kg) / total
    longest = max(p.length_mm for p in pieces)
    name = f"{carrier.name} with its panels" if panels else f"{carrier.name}, bare"
    return _Load(carrier.id, name, mass, x, y, area, longest, carrier.height.mm)


def _share(pieces: list[Piece], kind: str, count: int) -> float:
    return sum(p.mass_kg for p in pieces if p.kind == kind) / max(count, 1)


def _unit(load: _Load, lifting: Lifting) -> LiftedUnit:
    with scope("lift", load.id):
        one = recommended_weight(
            given(lifting.hands.mm, "chosen", "hands from the body"),
            given(TO_MM, "default", "where it is handed on"),
            given(TO_MM - FROM_MM, "default", "how far up"),
            given(POOR_GRIP, "table", "a frame's edge"),
        )
        least = 2 if load.longest_mm > LONG_MM else 1
        winds = []
        for force, coefficient, how in (
            (lifting.persons * PERSON_HOLDS_N, FLAT_PLATE, "in the hands"),
            (load.mass_kg * GRAVITY, LYING, "loose on its blocks"),
        ):
            with scope(how):
                gust = wind_of_force(
                    given(force, "computed", how),
                    given(AIR_KG_M3, "default", "air"),
                    given(coefficient, "default", how),
                    given(max(load.area_m2, 0.01), "computed", "its area"),
                )
                winds.append(min(float(gust) / GUSTS, NEVER_OVER_M_S))
    return LiftedUnit(
        load.id,
        load.name,
        load.mass_kg,
        load.x_mm,
        load.y_mm,
        load.area_m2,
        max(least, ceil(load.mass_kg / float(one))),
        max(least, ceil(load.mass_kg / (STRAINED * float(one)))),
        float(one),
        load.blocks_mm,
        *winds,
    )
