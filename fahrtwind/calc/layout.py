"""Calculations about what goes where: proposals, the year's energy, variants, changes, tables of panels and
climates.
"""

from __future__ import annotations

import time
from typing import Annotated

from pydantic import Field

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.choose.changes import Change, changes
from fahrtwind.core.choose.compare import VariantLine, compare
from fahrtwind.core.choose.make_hold import MadeToHold, make_hold
from fahrtwind.core.choose.propose import Proposals, propose
from fahrtwind.core.choose.remedies import Remedy, remedies
from fahrtwind.core.choose.schools import SchoolLine, side_by_side
from fahrtwind.core.edits import Edit, apply_edits
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.layout import ClimateMonth
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.part import Identifier
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.stations.layout.proposals.packing import Search
from fahrtwind.core.stations.layout.snapping import Snap, snaps_of
from fahrtwind.core.stations.layout.sun.day import ShadeMoment, day_of
from fahrtwind.core.stations.layout.sun.findings import YieldFinding, yield_of
from fahrtwind.files.climate_csv import read_climate
from fahrtwind.files.panel_csv import PanelTable, read_panels


class ProposeInput(JobInput):
    seconds: Annotated[float, Field(ge=0.2, le=120)] = 30.0


@calculation("layout.propose")
def layout_propose(given: ProposeInput) -> Proposals:
    """The best layouts from the job's offers, how good they provably are, and what stops one more panel."""
    end = time.monotonic() + given.seconds
    return propose(load_job(given.job), Search(lambda: end - time.monotonic()))


@calculation("job.make_hold")
def job_make_hold(given: JobInput) -> MadeToHold:
    """The least changes that make each panel hold, tried out."""
    return make_hold(load_job(given.job))


@calculation("job.schools")
def job_schools(given: JobInput) -> tuple[SchoolLine, ...]:
    """The layout held in every way there is, made to hold where possible, side by side."""
    return side_by_side(load_job(given.job))


@calculation("job.remedies")
def job_remedies(given: JobInput) -> tuple[Remedy, ...]:
    """The least changes that clear each stop of a job, each tried out."""
    return remedies(load_job(given.job))


@calculation("layout.yield")
def layout_yield(given: JobInput) -> YieldFinding:
    """The year's energy of the job's panels with shadows, bypass diodes and heat, at its place and
    climate.
    """
    return yield_of(SunnyRoof.of(load_job(given.job)))


class DayInput(JobInput):
    month: int
    heading_deg: Annotated[float, Field(ge=0, le=360)] | None = None


@calculation("layout.day")
def layout_day(given: DayInput) -> tuple[ShadeMoment, ...]:
    """Where the shadows lie through one day of a month, half-hour by half-hour."""
    return day_of(SunnyRoof.of(load_job(given.job)), given.month, given.heading_deg)


@calculation("layout.compare")
def layout_compare(given: JobInput) -> tuple[VariantLine, ...]:
    """The present layout and the kept variants side by side."""
    return compare(load_job(given.job))


class ChangesInput(JobInput):
    edits: Annotated[list[Edit], Field(min_length=1, max_length=500)]


@calculation("layout.changes")
def layout_changes(given: ChangesInput) -> tuple[Change, ...]:
    """Everything that edits would change: figures, feet, marks, materials, snags."""
    job = load_job(given.job)
    return changes(job, apply_edits(job, given.edits))


class SnapsInput(JobInput):
    panel: Identifier


@calculation("layout.snaps")
def layout_snaps(given: SnapsInput) -> tuple[Snap, ...]:
    """Places a panel likes to lie: margins, gaps, members, in line with others, mirrored."""
    job = load_job(given.job)
    return snaps_of(job, given.panel, evaluate(job).findings.members.members)


class PanelsInput(CalcInput):
    text: Annotated[str, Field(max_length=2_100_000)]
    frame_mm: Annotated[float, Field(ge=1, le=150)] | None = None
    mass_kg: Annotated[float, Field(ge=0.2, le=100)] | None = None


@calculation("panels.parse")
def panels_parse(given: PanelsInput) -> PanelTable:
    """What the lines of a module table mean, before they are taken."""
    return read_panels(given.text, given.frame_mm, given.mass_kg)


class ClimateInput(CalcInput):
    text: Annotated[str, Field(max_length=21_000)]


@calculation("climate.parse")
def climate_parse(given: ClimateInput) -> tuple[ClimateMonth, ...]:
    """What a table of twelve months means."""
    return read_climate(given.text)
