"""Calculations of the seal: what bonds, how fast it cures, how much, where water stands."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.formulas.sealing import (
    cap_volume,
    cure_time,
    fillet_volume,
    layer_volume,
    vapour_pressure,
)
from fahrtwind.core.job.load import load_job
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.seal.amounts import Amount
from fahrtwind.core.stations.seal.choice import SealChoice
from fahrtwind.core.stations.seal.cure import CureTimes
from fahrtwind.core.stations.seal.layers import SealSection
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.stations.seal.proof import Proof
from fahrtwind.core.stations.seal.water import WaterFinding
from fahrtwind.core.tables.sealants import Bond, FamilyName, SubstrateName, bond


@dataclass(frozen=True, slots=True)
class SealAnswer:
    """The seal of a job: list, layers, amounts, times, proof."""

    choice: SealChoice | None
    places: tuple[SealPlace, ...]
    sections: tuple[SealSection, ...]
    amounts: tuple[Amount, ...]
    cure: CureTimes | None
    proof: Proof | None


@calculation("seal.plan")
def seal_plan(given: JobInput) -> SealAnswer:
    """Every place to seal, its layers, how much of what, when rain may fall, and how it is proved."""
    f = evaluate(load_job(given.job)).findings
    return SealAnswer(f.seal, f.seal_places, f.seal_sections, f.seal_amounts, f.cure, f.proof)


@calculation("seal.water")
def seal_water(given: JobInput) -> WaterFinding:
    """Where rain runs and stands on a job's roof, with all that is planned on it."""
    found: WaterFinding = visit(load_job(given.job)).demand("water")
    return found


class BondInput(CalcInput):
    family: FamilyName
    substrate: SubstrateName


@dataclass(frozen=True, slots=True)
class BondAnswer:
    bond: Bond
    why: str


@calculation("seal.bond")
def seal_bond(given: BondInput) -> BondAnswer:
    """Whether a family bonds to a ground, and why not."""
    return BondAnswer(*bond(given.family, given.substrate))


class CureInput(CalcInput):
    depth_mm: Annotated[float, Field(ge=0.1, le=100)]
    depth_24h_mm: Annotated[float, Field(ge=0.2, le=20)] = 3.0
    temperature_c: Annotated[float, Field(ge=-20, le=50)]
    humidity_percent: Annotated[float, Field(ge=1, le=100)]


@calculation("seal.cure")
def seal_cure(given: CureInput) -> float:
    """Hours until a sealant that cures by moisture is through to a depth."""
    usual = vapour_pressure(23.0, 0.5)
    today = vapour_pressure(given.temperature_c, given.humidity_percent / 100)
    return float(cure_time(given.depth_mm, given.depth_24h_mm, usual, today))


class BeadInput(CalcInput):
    plate_length_mm: Annotated[float, Field(ge=5, le=1000)]
    plate_width_mm: Annotated[float, Field(ge=5, le=1000)]
    leg_mm: Annotated[float, Field(ge=0, le=40)] = 6.0
    layer_mm: Annotated[float, Field(ge=0, le=10)] = 1.5
    head_mm: Annotated[float, Field(ge=0, le=40)] = 0.0


@dataclass(frozen=True, slots=True)
class BeadAnswer:
    fillet_ml: float
    layer_ml: float
    cap_ml: float


@calculation("seal.bead")
def seal_bead(given: BeadInput) -> BeadAnswer:
    """Sealant round a plate, under it and over a head, without waste."""
    perimeter = 2 * (given.plate_length_mm + given.plate_width_mm)
    area = given.plate_length_mm * given.plate_width_mm
    high = 0.4 * given.head_mm
    cap = cap_volume(given.head_mm / 2 + 4, high + 3, given.head_mm, high) if given.head_mm else 0.0
    return BeadAnswer(
        float(fillet_volume(given.leg_mm, perimeter)), float(layer_volume(area, given.layer_mm)), float(cap)
    )
