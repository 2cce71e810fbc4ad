"""The calculations beyond single formulas: whole questions with typed answers."""

from __future__ import annotations

from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field

from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.job.load import load_job
from fahrtwind.core.quantities import QUANTITIES, UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import sixteenths
from fahrtwind.core.stations.hold.sharing import share_pull
from fahrtwind.core.working import Working, working
from fahrtwind.files.readings_csv import ReadingsTable, read_readings

QUANTITY_BY_NOUN = {kind.noun: kind for kind in QUANTITIES}


class QuantityInput(CalcInput):
    kind: Literal["length", "speed", "mass", "power", "temperature", "angle", "voltage", "current"]
    text: Annotated[str, Field(max_length=200)]
    units: UnitSystem = "metric"


@dataclass(frozen=True, slots=True)
class QuantityResult:
    value: float
    unit: str
    text: str
    on_tape: str | None


@calculation("quantity.parse")
def parse_quantity(given: QuantityInput) -> QuantityResult:
    """What a typed quantity means in the core's unit."""
    kind = QUANTITY_BY_NOUN[given.kind]
    parsed = kind.parse(given.text, given.units, "text")
    return QuantityResult(
        parsed.value,
        kind.unit,
        parsed.text or "",
        sixteenths(parsed.value) if given.kind == "length" else None,
    )


class ReadingsInput(CalcInput):
    text: Annotated[str, Field(max_length=2_000_000)]
    units: UnitSystem = "metric"


@calculation("readings.parse")
def parse_readings(given: ReadingsInput) -> ReadingsTable:
    """What pasted or loaded rows of readings mean, line by line, before they are taken."""
    return read_readings(given.text, given.units)


class FootInput(CalcInput):
    x_mm: Annotated[float, Field(ge=-10_000, le=10_000)]
    y_mm: Annotated[float, Field(ge=-10_000, le=10_000)]
    stiffness_n_mm: Annotated[float, Field(gt=0, le=1e7)] = 2000.0


class SharesInput(CalcInput):
    """A load upward, with its point of attack relative to the panel's centre."""

    feet: Annotated[tuple[FootInput, ...], Field(min_length=1, max_length=24)]
    load_n: Annotated[float, Field(ge=-1e6, le=1e6)]
    at_x_mm: float = 0.0
    at_y_mm: float = 0.0


@dataclass(frozen=True, slots=True)
class LostShares:
    """Pull on the remaining feet in N; ``stands`` is False where they are in one line and hold nothing."""

    lost: int
    stands: bool
    pull_n: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class SharesResult:
    stands: bool
    pull_n: tuple[float, ...]
    lost: tuple[LostShares, ...]


@calculation("feet.share")
def shares(given: SharesInput) -> SharesResult:
    """How a stiff panel shares an upward load among its feet, also with each foot lost."""
    x = np.array([f.x_mm for f in given.feet])
    y = np.array([f.y_mm for f in given.feet])
    stiffness = np.array([f.stiffness_n_mm for f in given.feet])
    load = np.array([[given.load_n, given.load_n * given.at_x_mm, given.load_n * given.at_y_mm]])
    solved = share_pull(x, y, stiffness, load)
    pull = solved.pull_n[:, 0].tolist()
    lost = tuple(LostShares(i, bool(solved.stable[i + 1]), tuple(pull[i + 1])) for i in range(len(x)))
    return SharesResult(bool(solved.stable[0]), tuple(pull[0]), lost)


class JobInput(CalcInput):
    job: dict[str, Any]
    probe_m_s: Annotated[float, Field(ge=0, le=60)] | None = None


@calculation("job.evaluate")
def evaluate_job(given: JobInput) -> Evaluation:
    """Everything the core derives from a whole job document."""
    return evaluate(load_job(given.job), given.probe_m_s)


class WorkingInput(JobInput):
    place: Annotated[str, Field(max_length=120)]


@calculation("job.working")
def job_working(given: WorkingInput) -> Working:
    """The working sheet of one number of a job: formulas, inputs with origin, sources."""
    return working(load_job(given.job), given.place, given.probe_m_s)
