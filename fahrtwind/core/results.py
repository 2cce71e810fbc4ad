"""What the core finds out about a job: complete, frozen, derived afresh each time and never stored."""

from __future__ import annotations

from fahrtwind.core.engine.silence import Question, Silence
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.assembly import AssemblyStep
from fahrtwind.core.stations.build.bolt_set import BoltSet
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.build.cut_lists import MaterialCut
from fahrtwind.core.stations.build.fit import FootFit, Lean
from fahrtwind.core.stations.build.kit import KitLine
from fahrtwind.core.stations.build.lifting import LiftedUnit
from fahrtwind.core.stations.build.materials import Material
from fahrtwind.core.stations.build.metals import Contact
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.build.purchase import Cost, PurchaseLine
from fahrtwind.core.stations.days.activities import Network
from fahrtwind.core.stations.days.hours import HoursBand
from fahrtwind.core.stations.days.kept import KeptPlan
from fahrtwind.core.stations.days.learned import LearnedRate
from fahrtwind.core.stations.days.steps import WorkStep
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict
from fahrtwind.core.stations.hold.raised.statics import RaisedVerdict
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.hold.schools.tape.stress import TapedFoot
from fahrtwind.core.stations.hold.tethers.caught import Caught
from fahrtwind.core.stations.hold.unjudged import MemberEnd
from fahrtwind.core.stations.hold.verdict import PanelVerdict
from fahrtwind.core.stations.layout.cables import CablePair
from fahrtwind.core.stations.layout.clear_height import ClearHeight
from fahrtwind.core.stations.layout.distances import Distance, Overlap
from fahrtwind.core.stations.layout.dry_fit import DryFit
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.layout.street import SeenFrom
from fahrtwind.core.stations.log.inspection import LookPlace
from fahrtwind.core.stations.log.judged import LookVerdict
from fahrtwind.core.stations.roof_day.built import BuiltFinding
from fahrtwind.core.stations.roof_day.in_hand import InHand
from fahrtwind.core.stations.roof_day.torques import TorqueFinding
from fahrtwind.core.stations.seal.amounts import Amount
from fahrtwind.core.stations.seal.choice import SealChoice
from fahrtwind.core.stations.seal.cure import CureTimes
from fahrtwind.core.stations.seal.glands import GlandCheck, GlandOffer
from fahrtwind.core.stations.seal.layers import SealSection
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.stations.seal.proof import Proof
from fahrtwind.core.stations.seal.side_by_side import SealWay
from fahrtwind.core.stations.seal.water import WaterFinding
from fahrtwind.core.stations.structure.bays import Spot
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.stations.structure.mounting_lines import LinesFinding
from fahrtwind.core.stations.structure.next_check import NextCheck
from fahrtwind.core.stations.survey.findings import SurveyFindings
from fahrtwind.core.stations.wire.meter import MeterVerdict
from fahrtwind.core.stations.wire.parts import WirePart
from fahrtwind.core.stations.wire.results import ControllerFinding
from fahrtwind.core.stations.wire.runs import Harness


@dataclass(frozen=True, slots=True)
class Findings:
    """Everything but the snags, which read this."""

    roof: Rect | None
    shapes: tuple[Shape, ...]
    survey: SurveyFindings
    members: MemberFit
    next_check: NextCheck | None
    bays: tuple[Spot, ...]
    lines: LinesFinding
    feet: tuple[FootPlace, ...]
    clear_heights: tuple[ClearHeight, ...]
    seen: SeenFrom | None
    dry_fit: tuple[DryFit, ...]
    cable_pairs: tuple[CablePair, ...]
    distances: tuple[Distance, ...]
    overlaps: tuple[Overlap, ...]
    verdicts: tuple[PanelVerdict, ...]
    plan: PlanVerdict | None
    carriers: tuple[CarrierVerdict, ...]
    unjudged: tuple[MemberEnd, ...]
    taped: tuple[TapedFoot, ...]
    caught: tuple[Caught, ...]
    raised: tuple[RaisedVerdict, ...]
    roof_mass_kg: float
    marks: tuple[Mark, ...]
    seal: SealChoice | None
    seal_places: tuple[SealPlace, ...]
    seal_sections: tuple[SealSection, ...]
    seal_amounts: tuple[Amount, ...]
    seal_ways: tuple[SealWay, ...]
    cure: CureTimes | None
    standing: WaterFinding | None
    gland: GlandCheck | None
    gland_offers: tuple[GlandOffer, ...]
    proof: Proof | None
    arrays: tuple[ControllerFinding, ...]
    harnesses: tuple[Harness, ...]
    wire_parts: tuple[WirePart, ...]
    meter: tuple[MeterVerdict, ...]
    pieces: tuple[Piece, ...]
    bolts: tuple[BoltLine, ...]
    bolt_choice: tuple[BoltSet, ...]
    fits: tuple[FootFit, ...]
    leans: tuple[Lean, ...]
    cuts: tuple[MaterialCut, ...]
    contacts: tuple[Contact, ...]
    lifts: tuple[LiftedUnit, ...]
    assembly: tuple[AssemblyStep, ...]
    kit: tuple[KitLine, ...]
    purchase: tuple[PurchaseLine, ...]
    cost: Cost | None
    materials: tuple[Material, ...]
    steps: tuple[WorkStep, ...]
    work: Network | None
    hours: HoursBand | None
    kept: KeptPlan | None
    learned: tuple[LearnedRate, ...]
    in_hand: tuple[InHand, ...]
    as_built: tuple[BuiltFinding, ...]
    torques: tuple[TorqueFinding, ...]
    judged: tuple[LookVerdict, ...]
    to_look_at: tuple[LookPlace, ...]
    questions: tuple[Question, ...]
    silent: tuple[Silence, ...]
    """Stages that could not answer, for example because a link's source does not cover it."""
