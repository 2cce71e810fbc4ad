"""What is worked out for the bench and the roof: marks, and the list of what to bring."""

from __future__ import annotations

from datetime import date

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import BoltName, PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.views import Plan
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import replace
from fahrtwind.core.stations.build.assembly import AssemblyStep, Parts, assembly_of
from fahrtwind.core.stations.build.bolt_set import BoltSet, bolt_sets
from fahrtwind.core.stations.build.bolts import BoltLine, bolts_of
from fahrtwind.core.stations.build.changes import with_changes
from fahrtwind.core.stations.build.cut_lists import Length, MaterialCut, cut_lists, lengths_of, longest_mm
from fahrtwind.core.stations.build.drill_map import drill_map
from fahrtwind.core.stations.build.fit import FootFit, Lean, fits_of, leans_of
from fahrtwind.core.stations.build.kit import KitLine, kit_of
from fahrtwind.core.stations.build.lifting import LiftedUnit, lifted_units
from fahrtwind.core.stations.build.loose_pieces import bent_brackets, bridges
from fahrtwind.core.stations.build.materials import Material, keyed, shim_materials, wiring_materials
from fahrtwind.core.stations.build.materials import materials as materials_of
from fahrtwind.core.stations.build.metals import Contact, contacts_of
from fahrtwind.core.stations.build.piece import Piece, material_of
from fahrtwind.core.stations.build.pieces import pieces_of
from fahrtwind.core.stations.build.purchase import Cost, PurchaseLine, cost_of, purchase_of
from fahrtwind.core.stations.build.raised_parts import raised_materials, strut_pieces
from fahrtwind.core.stations.hold.carriers.forced import Forced
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.raised.statics import RaisedVerdict
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.layout.feet import ENDS_OF, FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.amounts import Amount
from fahrtwind.core.stations.seal.choice import KindChoice
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.stations.survey.factory_points import RowFit
from fahrtwind.core.stations.wire.parts import WirePart
from fahrtwind.core.tables.sealants import FOOT_KINDS

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
    tapped = workshop.bolting.corners == "tapped"
    return pieces_of(carrier, panels, feet_of_carrier, carrier_verdict, longest, units, tapped)


@stage("build", "Bolts", "carriers.{id}", each="carriers", all="bolts_by_carrier", place="bolts/{id}")
def bolts(carrier: Carrier, pieces: tuple[Piece, ...], workshop: Workshop) -> tuple[BoltLine, ...]:
    return bolts_of(carrier, pieces, workshop.bolting)


@stage("build", "Fewest different bolts", "carriers", otherwise=())
def bolt_choice(bolts_by_carrier: tuple[tuple[BoltLine, ...], ...]) -> tuple[BoltSet, ...]:
    return bolt_sets([line for own in bolts_by_carrier for line in own])


@stage(
    "build",
    "Feet on factory points",
    "carriers.{id}",
    each="carriers",
    all="fits_by_carrier",
    place="fit/{id}",
)
def fits(
    carrier: Carrier,
    feet_of_carrier: tuple[FootPlace, ...],
    point_rows: tuple[RowFit, ...],
    workshop: Workshop,
) -> tuple[FootFit, ...]:
    return fits_of(carrier, feet_of_carrier, point_rows, workshop.fit)


@stage("build", "Pads that lean", "carriers.{id}", each="carriers", all="leans_by_carrier", place="lean/{id}")
def leans(
    carrier: Carrier, feet_of_carrier: tuple[FootPlace, ...], crown: CrownSurface | None, survey_notes: Survey
) -> tuple[Lean, ...]:
    return leans_of(carrier, feet_of_carrier, crown, survey_notes.point_rows)


@stage("build", "Bars and brackets without a carrier", "panels", otherwise=())
def loose_pieces(
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    holders: tuple[Holder, ...],
    marks: tuple[Mark, ...],
    fits_by_carrier: tuple[tuple[FootFit, ...], ...],
    workshop: Workshop,
    units: UnitSystem,
) -> tuple[Piece, ...]:
    owners = {s.id: s for s in (*panels, *carriers)}
    fits = [fit for own in fits_by_carrier for fit in own]
    found: list[Piece] = []
    for holder in holders:
        owner = owners.get(holder.id.removesuffix(ENDS_OF))
        if isinstance(owner, PlacedPanel) and owner.span is not None and holder.bars:
            found += bridges(owner, owner.span, holder.bars, units)
        elif owner is not None and workshop.brackets == "bent here":
            by_foot = {f.foot: f for f in fits if f.carrier == holder.id}
            found += bent_brackets(holder, owner, marks, by_foot, units)
    return tuple(found)


@stage("build", "Struts", "raisings.{id}", each="raisings", all="struts_by_unit", otherwise=())
def struts(raising: Raising, raised_unit: RaisedVerdict, units: UnitSystem) -> tuple[Piece, ...]:
    return strut_pieces(raising, raised_unit, units)


@stage("build", "Pieces with what was changed by hand", "workshop.changes", otherwise=())
def made(
    pieces_by_carrier: tuple[tuple[Piece, ...], ...],
    struts_by_unit: tuple[tuple[Piece, ...], ...],
    loose_pieces: tuple[Piece, ...],
    workshop: Workshop,
) -> tuple[Piece, ...]:
    carried = (*pieces_by_carrier, *struts_by_unit)
    whole = (*(piece for own in carried for piece in own), *loose_pieces)
    return with_changes(whole, workshop.changes)


@stage("build", "Lengths to cut", "workshop", otherwise=())
def lengths(made: tuple[Piece, ...]) -> tuple[Length, ...]:
    """By themselves, so that moving a hole does not ask for a new cut list."""
    return lengths_of(made)


@stage("build", "Cut list", "workshop", otherwise=())
def cuts(lengths: tuple[Length, ...], workshop: Workshop) -> tuple[MaterialCut, ...]:
    return cut_lists(lengths, workshop)


@stage("roof-day", "Marks", "panels", otherwise=())
def marks(
    plan: Plan, holders: tuple[Holder, ...], every_seal_kind: tuple[KindChoice, ...] | None
) -> tuple[Mark, ...]:
    words = {k.kind: f"{k.choice.under.words} + {k.choice.round.words}" for k in every_seal_kind or ()}
    return drill_map(plan, holders, {school: words.get(kind, "") for school, kind in FOOT_KINDS.items()})


@stage("roof-day", "Materials", "panels", otherwise=())
def materials(
    plan: Plan,
    holders: tuple[Holder, ...],
    marks: tuple[Mark, ...],
    seal_amounts: tuple[Amount, ...],
    made: tuple[Piece, ...],
    bolts_by_carrier: tuple[tuple[BoltLine, ...], ...],
    workshop: Workshop,
    all_forced: tuple[tuple[Forced, ...], ...],
    raised_units: tuple[RaisedVerdict, ...],
    wire_parts: tuple[WirePart, ...] | None,
) -> tuple[Material, ...]:
    bolts = tuple(line for own in bolts_by_carrier for line in own)
    shown = materials_of(plan, holders, marks, seal_amounts, made, bolts, workshop)
    cables = wiring_materials(wire_parts or ())
    besides = (*raised_materials(plan.raisings, raised_units, plan.units), *cables)
    shown = (*shown, *shim_materials(all_forced, plan.units))
    if plan.units == "metric":
        return keyed((*shown, *besides), (*shown, *besides))
    metric = materials_of(replace(plan, units="metric"), holders, marks, seal_amounts, made, bolts, workshop)
    metric = (*metric, *shim_materials(all_forced, "metric"))
    return keyed((*shown, *besides), (*metric, *besides))


@stage("build", "Metals that touch", "carriers.{id}", each="carriers", all="contacts_by_carrier")
def contacts(
    carrier: Carrier,
    pieces: tuple[Piece, ...],
    bolts: tuple[BoltLine, ...],
    workshop: Workshop,
    vehicle: Vehicle,
) -> tuple[Contact, ...]:
    return contacts_of(carrier, pieces, bolts, workshop.coat, vehicle.kind == "boat")


@stage("build", "What is lifted", "workshop.lifting", otherwise=(), place="lift")
def lifts(
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    raisings: tuple[Raising, ...],
    made: tuple[Piece, ...],
    workshop: Workshop,
) -> tuple[LiftedUnit, ...]:
    return lifted_units(panels, carriers, raisings, made, workshop.lifting)


@stage("build", "Order of assembly", "carriers.{id}", each="carriers", all="assembly_by_carrier")
def assembly(
    carrier: Carrier,
    made: tuple[Piece, ...],
    bolts: tuple[BoltLine, ...],
    fits: tuple[FootFit, ...],
    leans: tuple[Lean, ...],
    workshop: Workshop,
    units: UnitSystem,
) -> tuple[AssemblyStep, ...]:
    own = tuple(piece for piece in made if piece.part_of == carrier.id)
    return assembly_of(Parts(carrier, own, bolts, fits, leans, workshop, units))


def _frame_bolts(holders: tuple[Holder, ...]) -> tuple[BoltName, ...]:
    on_feet = (h for h in holders if h.path.startswith("panels.") and h.feet)
    return tuple(sorted({h.hold.bracket.frame_bolt for h in on_feet}))


@stage("build", "Kit list", "workshop.packed", otherwise=())
def kit(
    materials: tuple[Material, ...],
    marks: tuple[Mark, ...],
    bolts_by_carrier: tuple[tuple[BoltLine, ...], ...],
    made: tuple[Piece, ...],
    workshop: Workshop,
    units: UnitSystem,
    holders: tuple[Holder, ...],
) -> tuple[KitLine, ...]:
    bolts = tuple(line for own in bolts_by_carrier for line in own)
    return kit_of(materials, marks, bolts, made, workshop, units, _frame_bolts(holders))


@stage("build", "Purchase list", "workshop.items", otherwise=())
def purchase(
    materials: tuple[Material, ...],
    cuts: tuple[MaterialCut, ...],
    workshop: Workshop,
    planned_start: date | None,
) -> tuple[PurchaseLine, ...]:
    return purchase_of(materials, cuts, workshop, planned_start)


@stage("build", "Cost", "workshop.costing", otherwise=None)
def cost(
    purchase: tuple[PurchaseLine, ...], workshop: Workshop, wire_parts: tuple[WirePart, ...] | None
) -> Cost:
    return cost_of(purchase, workshop, frozenset(p.item for p in wire_parts or ()))
