"""Calculations about the roof and what is under it: outline, crown, points, lids, squareness, members, lines,
bays.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, ValidationError

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.errors import InputError
from fahrtwind.core.job.document import Job, Members, Obstacle, Reading, Scan, Trust
from fahrtwind.core.job.load import as_input_error, load_job
from fahrtwind.core.job.roof import Crown, MountingLines, PointRow, Squareness
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.structure.bays import Spot, judge_spot
from fahrtwind.core.stations.structure.members import MemberFit, fit_members
from fahrtwind.core.stations.structure.mounting_lines import LinesFinding, mounting_lines
from fahrtwind.core.stations.structure.next_check import NextCheck, cheap_kinds, next_check_for
from fahrtwind.core.stations.structure.reading_of_job import evidence_key
from fahrtwind.core.stations.survey.crown import SpotShape, crown_of, fit_crown
from fahrtwind.core.stations.survey.factory_points import RowFit, fit_row
from fahrtwind.core.stations.survey.lids import LidSwing, lid_swing
from fahrtwind.core.stations.survey.squareness import (
    SquareFinding,
    StraightFinding,
    check_square,
    check_straight,
)
from fahrtwind.files.drawing_import import DrawingUnit
from fahrtwind.files.outline_import import UnderstoodOutline, read_outline

Span = Annotated[float, Field(ge=500, le=20_000)]
Place = Annotated[float, Field(ge=-25_000, le=25_000)]


class MembersInput(CalcInput):
    """Readings, scans and what is known already; bare numbers are mm."""

    roof_length_mm: Span
    readings: Annotated[tuple[Reading, ...], Field(max_length=400)]
    scans: Annotated[tuple[Scan, ...], Field(max_length=60)] = ()
    trust: Annotated[tuple[Trust, ...], Field(max_length=7)] = ()
    members: Members = Members()

    def job(self) -> Job:
        """The evidence as a job. Raises an InputError where an id is used twice."""
        try:
            return Job(
                name="members",
                readings=self.readings,
                scans=self.scans,
                trust=self.trust,
                members=self.members,
            )
        except ValidationError as error:
            raise as_input_error(error) from error


@calculation("members.fit")
def members(given: MembersInput) -> MemberFit:
    """Where the members are: sections, certainty of each, rejected readings, other spacings that are
    possible.
    """
    return fit_members(evidence_key(given.job(), given.roof_length_mm))


@calculation("members.next")
def members_next(given: MembersInput) -> NextCheck:
    """Where to check next and what each answer would mean."""
    return next_check_for(
        evidence_key(given.job(), given.roof_length_mm),
        frozenset(),
        cheap_kinds(given.job().vehicle, given.members),
    )


class CrownInput(CalcInput):
    length_mm: Span
    width_mm: Annotated[float, Field(ge=300, le=4000)]
    crown: Crown
    x_mm: Place
    y_mm: Place


@calculation("crown.at")
def crown_at(given: CrownInput) -> SpotShape:
    """Height, slope and local radius of a crowned roof at one spot, with their uncertainty."""
    surface = fit_crown(given.crown, given.length_mm, given.width_mm / 2)
    if surface is None:
        raise InputError(
            "The crown has no readings.", remedy="Give gaps or angles at one cross-section.", field="crown"
        )
    return surface.at(given.x_mm, given.y_mm)


@calculation("points.fit")
def points_fit(given: PointRow) -> RowFit:
    """How a row of factory points stands off its pattern, and which point is out of line."""
    return fit_row(given)


@dataclass(frozen=True, slots=True)
class SquareResult:
    """Each is None where too little was measured for it."""

    square: SquareFinding | None
    straight: StraightFinding | None


@calculation("square.check")
def square_check(given: Squareness) -> SquareResult:
    """Is it square, is it straight: how far out, which corner or end to move, which way."""
    return SquareResult(check_square(given), check_straight(given.offsets))


@dataclass(frozen=True, slots=True)
class LidResult:
    swing: LidSwing | None


@calculation("lid.swing")
def lid(given: Obstacle) -> LidResult:
    """How far an open lid leans beyond its hinge and how high it stands."""
    return LidResult(lid_swing(given))


class OutlineInput(CalcInput):
    text: Annotated[str, Field(max_length=2_100_000)]
    units: UnitSystem = "metric"
    unit: DrawingUnit | None = None


@calculation("outline.parse")
def outline_parse(given: OutlineInput) -> UnderstoodOutline:
    """What a DXF, SVG or rows of points mean as a roof's outline, before it is taken."""
    return read_outline(given.text, given.units, given.unit)


@calculation("mounting.lines")
def lines(given: JobInput) -> LinesFinding:
    """Straight lines for rails on a curved roof by four schools, with the lean and wedge left at each
    mark.
    """
    job = load_job(given.job)
    length = job.vehicle.roof_length
    found = fit_members(evidence_key(job, length.mm)).members if length else ()
    return mounting_lines(job.mounting, found, crown_of(job))


class LinesOnlyInput(CalcInput):
    mounting: MountingLines


@calculation("mounting.schools")
def line_schools(given: LinesOnlyInput) -> LinesFinding:
    """The four schools for marks alone, without a crown: offsets, strays and the check distance."""
    return mounting_lines(given.mounting, (), None)


class SpotInput(JobInput):
    x_mm: Place


@calculation("bay.spot")
def spot(given: SpotInput) -> Spot:
    """What the roof is like at a spot: nearest member, stiffness, drumming, and what may be fastened
    there.
    """
    job = load_job(given.job)
    length = job.vehicle.roof_length
    return judge_spot(
        job, job.members, fit_members(evidence_key(job, length.mm)).members if length else (), given.x_mm
    )
