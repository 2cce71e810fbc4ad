"""What is worked out for the bench and the roof: marks, and the list of what to bring."""

from __future__ import annotations

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import Plan
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.build.bolts import BoltLine, bolts_of
from fahrtwind.core.stations.build.cut_lists import Length, MaterialCut, cut_lists, lengths_of, longest_mm
from fahrtwind.core.stations.build.drill_map import drill_map
from fahrtwind.core.stations.build.materials import Material
from fahrtwind.core.stations.build.materials import materials as materials_of
from fahrtwind.core.stations.build.pieces import Piece, material_of, pieces_of
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.sealant import SealPlan

rules.unanswered("roof-day")
rules.unanswered("build")


@stage("build", "Pieces of a carrier", "carriers.{id}", each="carriers", all="pieces_by_carrier")
def pieces(
    carrier: Carrier,
    panels: tuple[PlacedPanel, ...],
    feet_of_carrier: tuple[FootPlace, ...],
    carrier_verdict: CarrierVerdict | None,
    workshop: Workshop,
    units: UnitSystem,
) -> tuple[Piece, ...]:
    material = material_of(carrier.alloy, carrier.section)
    longest = longest_mm(workshop, material, carrier.stock.mm if carrier.stock else None)
    return pieces_of(carrier, panels, feet_of_carrier, carrier_verdict, longest, units)


@stage("build", "Bolts", "carriers.{id}", each="carriers", all="bolts_by_carrier", place="bolts/{id}")
def bolts(carrier: Carrier, pieces: tuple[Piece, ...]) -> tuple[BoltLine, ...]:
    return bolts_of(carrier, pieces)


@stage("build", "Lengths to cut", "workshop", otherwise=())
def lengths(pieces_by_carrier: tuple[tuple[Piece, ...], ...]) -> tuple[Length, ...]:
    """By themselves, so that moving a hole does not ask for a new cut list."""
    return lengths_of(tuple(piece for own in pieces_by_carrier for piece in own))


@stage("build", "Cut list", "workshop", otherwise=())
def cuts(lengths: tuple[Length, ...], workshop: Workshop) -> tuple[MaterialCut, ...]:
    return cut_lists(lengths, workshop)


@stage("roof-day", "Marks", "panels", otherwise=())
def marks(plan: Plan, holders: tuple[Holder, ...], seal: SealPlan) -> tuple[Mark, ...]:
    return drill_map(plan, holders, f"{seal.under} + {seal.round}")


@stage("roof-day", "Materials", "panels", otherwise=())
def materials(
    plan: Plan,
    holders: tuple[Holder, ...],
    marks: tuple[Mark, ...],
    seal: SealPlan,
    pieces_by_carrier: tuple[tuple[Piece, ...], ...],
    bolts_by_carrier: tuple[tuple[BoltLine, ...], ...],
) -> tuple[Material, ...]:
    pieces = tuple(piece for own in pieces_by_carrier for piece in own)
    bolts = tuple(line for own in bolts_by_carrier for line in own)
    return materials_of(plan, holders, marks, seal, pieces, bolts)
