"""Calculations of the workshop: pieces, and bars to cut them from."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.formulas.bolts import engagement
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.panel import BoltName, Bracket
from fahrtwind.core.job.workshop import Bolting
from fahrtwind.core.quantities import Length
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.assembly import AssemblyStep
from fahrtwind.core.stations.build.bends import arc_mm, inside_mm, tool_deg
from fahrtwind.core.stations.build.bolt_set import BoltSet
from fahrtwind.core.stations.build.bolts import BoltLine, Tightening, length_needed, tightening
from fahrtwind.core.stations.build.cutting import Cut, Stock, Wanted, cut_list
from fahrtwind.core.stations.build.fit import FootFit, Lean
from fahrtwind.core.stations.build.kit import KitLine
from fahrtwind.core.stations.build.lifting import LiftedUnit
from fahrtwind.core.stations.build.metals import Contact
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.build.purchase import Cost, PurchaseLine
from fahrtwind.core.tables.alloys import AlloyName
from fahrtwind.core.tables.fasteners import BOLTS, LENGTHS_MM
from fahrtwind.files.items_csv import ItemTable, read_items


class PieceInput(CalcInput):
    id: Annotated[str, Field(min_length=1, max_length=40)]
    length_mm: Annotated[float, Field(ge=10, le=15_000)]


class BarInput(CalcInput):
    id: Annotated[str, Field(min_length=1, max_length=40)]
    length_mm: Annotated[float, Field(ge=100, le=15_000)]
    price: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    have: Annotated[int, Field(ge=1, le=999)] | None = None


class CutInput(CalcInput):
    pieces: Annotated[list[PieceInput], Field(min_length=1, max_length=120)]
    bars: Annotated[list[BarInput], Field(min_length=1, max_length=20)]
    kerf_mm: Annotated[float, Field(ge=0, le=10)] = 3.0
    trim_mm: Annotated[float, Field(ge=0, le=200)] = 5.0
    seconds: Annotated[float, Field(ge=0.1, le=60)] = 10.0


@calculation("build.cut_list")
def build_cut_list(given: CutInput) -> Cut:
    """The cheapest bars that pieces can be cut from, with the proof or a bound."""
    for name, entries in (("pieces", given.pieces), ("bars", given.bars)):
        ids = [entry.id for entry in entries]
        if len(set(ids)) < len(ids):
            raise InputError(
                f"Two {name} have the same id.", remedy="Give each an id of its own.", field=name
            )
    wanted = [Wanted(p.id, p.length_mm) for p in given.pieces]
    stocks = [Stock(b.id, b.length_mm, b.price, b.have) for b in given.bars]
    return cut_list(wanted, stocks, given.kerf_mm, given.trim_mm, given.seconds)


@calculation("build.pieces")
def build_pieces(given: JobInput) -> tuple[Piece, ...]:
    """Every piece of a job's carriers with its holes, measured from its marked end."""
    return evaluate(load_job(given.job)).findings.pieces


class BoltInput(CalcInput):
    size: BoltName
    grip_mm: Annotated[float, Field(ge=0, le=400)]
    lubrication: Literal["dry", "oil", "anti_seize"] = "anti_seize"
    tube_wall_mm: Annotated[float, Field(ge=0.5, le=12)] | None = None
    alloy: AlloyName = "6060-T66"


@dataclass(frozen=True, slots=True)
class BoltAnswer:
    """A bolt through a stack: what it needs, what is sold, its holes, and how tight it goes."""

    needed_mm: float
    length_mm: float | None
    clearance_mm: float
    tap_drill_mm: float
    engaged_steel_mm: float
    engaged_aluminium_mm: float
    tight: Tightening


@calculation("build.bolt")
def build_bolt(given: BoltInput) -> BoltAnswer:
    """Length, holes and torque of a stainless bolt through so many millimetres; ``tube_wall_mm``: of a hollow
    tube that it squeezes.
    """
    bolt = BOLTS[given.size]
    needed = length_needed(bolt, given.grip_mm)
    wall = None if given.tube_wall_mm is None else (given.tube_wall_mm, given.alloy)
    return BoltAnswer(
        needed,
        next((float(x) for x in LENGTHS_MM if x >= needed), None),
        bolt.clearance_mm,
        bolt.tap_drill_mm,
        float(engagement(1.0, bolt.diameter_mm)),
        float(engagement(2.0, bolt.diameter_mm)),
        tightening(bolt, Bolting(lubrication=given.lubrication), wall),
    )


class BendInput(CalcInput):
    metal: Literal["aluminium", "stainless"] = "aluminium"
    thickness_mm: Annotated[float, Field(ge=0.5, le=12)]
    angle_deg: Annotated[float, Field(gt=0, le=150)] = 90.0


@dataclass(frozen=True, slots=True)
class BendAnswer:
    inside_mm: float
    arc_mm: float
    tool_deg: float


@calculation("build.bend")
def build_bend(given: BendInput) -> BendAnswer:
    """A bend of a strip: inside radius, its length laid flat, and how far the tool goes for the angle."""
    bracket = Bracket(metal=given.metal, thickness=Length(mm=given.thickness_mm))
    return BendAnswer(
        inside_mm(bracket), arc_mm(bracket, given.angle_deg), tool_deg(bracket, given.angle_deg)
    )


@dataclass(frozen=True, slots=True)
class WorkshopAnswer:
    """What a job's carriers ask of the workshop."""

    bolts: tuple[BoltLine, ...]
    bolt_choice: tuple[BoltSet, ...]
    fits: tuple[FootFit, ...]
    leans: tuple[Lean, ...]
    contacts: tuple[Contact, ...]
    lifts: tuple[LiftedUnit, ...]
    assembly: tuple[AssemblyStep, ...]
    kit: tuple[KitLine, ...]
    purchase: tuple[PurchaseLine, ...]
    cost: Cost | None


@calculation("build.workshop")
def build_workshop(given: JobInput) -> WorkshopAnswer:
    """Bolts, fit, metals, lifts, order of assembly, kit and purchase of a job."""
    found = evaluate(load_job(given.job)).findings
    return WorkshopAnswer(**{name: getattr(found, name) for name in WorkshopAnswer.__slots__})


class ItemsInput(CalcInput):
    text: Annotated[str, Field(max_length=1_100_000)]


@calculation("items.parse")
def items_parse(given: ItemsInput) -> ItemTable:
    """What the lines of a table of shop items mean, before they are taken."""
    return read_items(given.text)
