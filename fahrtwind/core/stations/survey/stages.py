"""What is worked out from the survey."""

from __future__ import annotations

from shapely.geometry import Polygon

from fahrtwind.core.job.document import Obstacle
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.views import Roof
from fahrtwind.core.quantities import Length, UnitSystem
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.survey.access import Reach, Strip, keep_out_strips, reach
from fahrtwind.core.stations.survey.crown import CrownFinding, CrownSurface, crown_finding, crown_of
from fahrtwind.core.stations.survey.factory_points import RowFit, fit_row
from fahrtwind.core.stations.survey.findings import SurveyFindings
from fahrtwind.core.stations.survey.lids import LidSwing, lid_swing
from fahrtwind.core.stations.survey.old_work import SealEntry, seal_entries
from fahrtwind.core.stations.survey.outline import (
    Vertex,
    flat_polygon,
    outline_polygon,
    outline_trouble,
    ring,
)
from fahrtwind.core.stations.survey.squareness import (
    SquareFinding,
    StraightFinding,
    check_square,
    check_straight,
)

rules.unanswered("survey")


@stage("survey", "Flat area", "survey.outline")
def flat(roof_notes: Roof) -> Polygon | None:
    return flat_polygon(roof_notes)


@stage("survey", "Outline", "survey.outline", otherwise=())
def outline(roof_notes: Roof) -> tuple[Vertex, ...]:
    return ring(outline_polygon(roof_notes))


@stage("survey", "Outline", "survey.outline", otherwise="")
def trouble(roof_notes: Roof) -> str:
    """Why the edge cannot be a roof's; empty where it can."""
    return outline_trouble(roof_notes)


@stage("survey", "Crown", "survey.crown")
def crown(roof_notes: Roof, roof_length: Length, roof_width: Length) -> CrownSurface | None:
    return crown_of(roof_notes)


@stage("survey", "Crown", "survey.crown")
def crown_pictures(crown: CrownSurface) -> CrownFinding:
    return crown_finding(crown)


@stage("survey", "Factory points", "survey.point_rows", otherwise=())
def point_rows(survey_notes: Survey) -> tuple[RowFit, ...]:
    return tuple(fit_row(r) for r in survey_notes.point_rows)


@stage("survey", "Open lids", "obstacles", place="lid", otherwise=())
def lids(obstacles: tuple[Obstacle, ...]) -> tuple[LidSwing, ...]:
    return tuple(s for o in obstacles if (s := lid_swing(o)) is not None)


@stage("survey", "Reach", "survey.access")
def within_reach(roof_notes: Roof) -> Reach | None:
    return reach(roof_notes)


@stage("survey", "Lines under the skin", "survey.keep_outs", otherwise=())
def keep_outs(roof_notes: Roof) -> tuple[Strip, ...]:
    return keep_out_strips(roof_notes)


@stage("survey", "Squareness", "survey.squareness", place="squareness")
def square(survey_notes: Survey, units: UnitSystem) -> SquareFinding | None:
    return check_square(survey_notes.squareness, units)


@stage("survey", "Parallel edges", "survey.squareness")
def straight(survey_notes: Survey, units: UnitSystem) -> StraightFinding | None:
    return check_straight(survey_notes.squareness.offsets, units)


@stage("survey", "Old work", "survey.scars", place="old work", otherwise=())
def old_work(roof_notes: Roof) -> tuple[SealEntry, ...]:
    return seal_entries(roof_notes)


@stage("survey", "Survey")
def surveyed(
    outline: tuple[Vertex, ...],
    trouble: str,
    flat: Polygon | None,
    crown_pictures: CrownFinding | None,
    point_rows: tuple[RowFit, ...],
    lids: tuple[LidSwing, ...],
    within_reach: Reach | None,
    keep_outs: tuple[Strip, ...],
    square: SquareFinding | None,
    straight: StraightFinding | None,
    old_work: tuple[SealEntry, ...],
) -> SurveyFindings:
    """Everything about the roof in one."""
    return SurveyFindings(
        outline=outline,
        outline_trouble=trouble,
        flat=ring(flat),
        flat_area_m2=flat.area * 1e-6 if flat else 0.0,
        crown=crown_pictures,
        rows=point_rows,
        lids=lids,
        reach=within_reach,
        keep_outs=keep_outs,
        square=square,
        straight=straight,
        seal_entries=old_work,
        removal_h=sum(e.minutes for e in old_work) / 60,
    )
