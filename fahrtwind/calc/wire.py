"""Calculations of the wiring: strings and their limits, curves, the best groupings, cable, the meter."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.choose.curves import EvenLight, HourLight, curves_of
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.formulas.wiring import open_voltage, voltage_drop
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.carrying import resistance
from fahrtwind.core.stations.wire.diode import Diode, diode_of
from fahrtwind.core.stations.wire.hour import ArrayCurve
from fahrtwind.core.stations.wire.meter import MeterVerdict
from fahrtwind.core.stations.wire.parts import WirePart
from fahrtwind.core.stations.wire.proposals import GroupingFinding
from fahrtwind.core.stations.wire.results import ControllerFinding
from fahrtwind.core.stations.wire.runs import Harness
from fahrtwind.core.tables.cables import CABLES, CableName, cold_factor


@dataclass(frozen=True, slots=True)
class WireAnswer:
    """The wiring of a job: controllers with their limits, conductors, parts, what readings mean."""

    controllers: tuple[ControllerFinding, ...]
    harnesses: tuple[Harness, ...]
    parts: tuple[WirePart, ...]
    meter: tuple[MeterVerdict, ...]


@calculation("wire.plan")
def wire_plan(given: JobInput) -> WireAnswer:
    """Limits of every controller, the way and length of every cable, what to buy, what the meter means."""
    f = evaluate(load_job(given.job)).findings
    return WireAnswer(f.arrays, f.harnesses, f.wire_parts, f.meter)


@calculation("wire.groupings")
def wire_groupings(given: JobInput) -> GroupingFinding:
    """Every way to plug the panels together, ranked by a year's energy under the roof's own shadows."""
    seen = visit(load_job(given.job))
    seen.demand("moments")  # so that a missing place is told in its own words
    found: GroupingFinding = seen.demand("groupings")
    return found


class CurvesInput(JobInput):
    month: Annotated[int, Field(ge=1, le=12)] | None = None
    hour: Annotated[float, Field(ge=0, le=24)] = 12.0
    heading_deg: Annotated[float, Field(ge=0, le=360)] | None = None
    light_w_m2: Annotated[float, Field(ge=1, le=1500)] = 1000.0
    cell_c: Annotated[float, Field(ge=-40, le=100)] = 25.0


@calculation("wire.curves")
def wire_curves(given: CurvesInput) -> tuple[ArrayCurve, ...]:
    """Current and power over voltage of every string: at an hour of a month, or in even light without one."""
    job = load_job(given.job)
    if given.month is None:
        return curves_of(job, EvenLight(given.light_w_m2, given.cell_c))
    return curves_of(job, HourLight(given.month, given.hour, given.heading_deg))


class ModelInput(CalcInput):
    model: PanelModel


@calculation("wire.diode")
def wire_diode(given: ModelInput) -> Diode:
    """The single diode that fits a data sheet."""
    return diode_of(given.model)


class ColdInput(CalcInput):
    voc_v: Annotated[float, Field(ge=1, le=200)]
    panels: Annotated[int, Field(ge=1, le=24)] = 1
    per_k: Annotated[float, Field(ge=-2, le=0)] | None = None
    coldest_c: Annotated[float, Field(ge=-60, le=25)]


@dataclass(frozen=True, slots=True)
class ColdAnswer:
    """``by_sheet_v`` None where no coefficient was given; the higher counts."""

    by_table_v: float
    by_sheet_v: float | None
    counts_v: float


@calculation("wire.cold_voltage")
def wire_cold_voltage(given: ColdInput) -> ColdAnswer:
    """Open-circuit voltage in record cold by NEC Table 690.7(A) and by the sheet's coefficient."""
    table = given.panels * given.voc_v * cold_factor(given.coldest_c)
    sheet = None
    if given.per_k is not None:
        sheet = float(open_voltage(given.panels, given.voc_v, given.per_k, given.coldest_c))
    return ColdAnswer(table, sheet, max(table, sheet or 0.0))


class DropInput(CalcInput):
    cable: CableName
    one_way_mm: Annotated[float, Field(ge=0, le=50_000)]
    current_a: Annotated[float, Field(ge=0, le=300)]
    running_v: Annotated[float, Field(ge=1, le=1000)]


@dataclass(frozen=True, slots=True)
class DropAnswer:
    volts: float
    percent: float


@calculation("wire.voltage_drop")
def wire_voltage_drop(given: DropInput) -> DropAnswer:
    """Volts lost there and back in a warm cable."""
    ohm = resistance(CABLES[given.cable])
    volts = float(voltage_drop(ohm, 2 * given.one_way_mm, given.current_a))
    return DropAnswer(volts, volts / given.running_v * 100)
