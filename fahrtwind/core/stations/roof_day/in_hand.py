"""What one needs for a step up there: tools and bits, what to read and write down, timers, the caution."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.steps import WorkStep
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.roof_day.torques import TorqueWanted
from fahrtwind.core.stations.seal.cure import CureTimes
from fahrtwind.core.tables.roof_work import CAUTIONS, JET_MIN, READINGS, TOOLS, ReadAt
from fahrtwind.core.tables.work import PRIMER_FLASH_H, RATES, StepKind

DRILLS: tuple[StepKind, ...] = ("pilot", "drill")


@dataclass(frozen=True, slots=True)
class StepTimer:
    """Something to wait for or to be done by; ``most``: it is to be done before the time is over."""

    name: str
    minutes: float
    most: bool


@dataclass(frozen=True, slots=True)
class InHand:
    """Beside the step of the same ``number``. ``unit``: what its ``count`` counts; ``read``: what is read and
    written down in it; ``torques``: of the bolts that are tightened in it.
    """

    number: int
    unit: str
    tools: tuple[str, ...]
    read: tuple[ReadAt, ...]
    torques: tuple[TorqueWanted, ...]
    timers: tuple[StepTimer, ...]
    caution: str


def in_hand_of(
    steps: tuple[WorkStep, ...],
    marks: tuple[Mark, ...],
    cure: CureTimes | None,
    wanted: tuple[TorqueWanted, ...],
) -> tuple[InHand, ...]:
    """Of every step; how long the bead can be tooled and when rain does no harm come from ``cure``."""
    return tuple(
        InHand(
            step.number,
            RATES[step.kind].unit,
            (*TOOLS.get(step.kind, ()), *_bits(step, marks)),
            READINGS.get(step.kind, ()),
            tuple(w for w in wanted if _tightened_in(step, w)),
            tuple(_timers(step, cure)),
            CAUTIONS.get(step.kind, ""),
        )
        for step in steps
    )


def _tightened_in(step: WorkStep, wanted: TorqueWanted) -> bool:
    """A carrier's bolts when it is tightened, those through frames once the panels lie, all of them later."""
    if step.kind == "torque":
        return step.title.startswith(f"{wanted.where}: ")
    return step.kind == "retighten" or (step.kind == "tighten" and wanted.frame)


def _bits(step: WorkStep, marks: tuple[Mark, ...]) -> tuple[str, ...]:
    """Of the holes: the pilot's for pilots; for drilling all, the largest last."""
    if step.kind not in DRILLS:
        return ()
    holes = [m for m in marks if m.kind == "hole"]
    sizes = {m.pilot_mm for m in holes if m.pilot_mm}
    if step.kind == "drill":
        sizes |= {m.final_mm for m in holes if m.final_mm}
    return tuple(f"bit {size:g} mm" for size in sorted(sizes))


def _timers(step: WorkStep, cure: CureTimes | None) -> Iterator[StepTimer]:
    if step.kind == "seal" and cure is not None:
        yield StepTimer("tool the bead", round(cure.rain_h.least * 60), True)
        yield StepTimer("rain does no harm", round(cure.rain_h.most * 60), False)
    if step.kind == "hose":
        yield StepTimer("jet on this place", JET_MIN, False)
    if step.kind == "prime":
        yield StepTimer("primer flashes off", PRIMER_FLASH_H * 60, False)
    if step.wait_h > 0:
        yield StepTimer("before the next step", step.wait_h * 60, False)
