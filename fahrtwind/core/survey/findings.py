"""Everything the survey finds out about a roof, in one frozen result."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache, partial

from fahrtwind.core.formulas.declare import is_recording
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.keyed import Keyed, keyed
from fahrtwind.core.silence import Silence, Stages
from fahrtwind.core.survey.access import Reach, Strip, keep_out_strips, reach
from fahrtwind.core.survey.crown import CrownFinding, CrownSurface, crown_finding, fit_job_crown
from fahrtwind.core.survey.factory_points import RowFit, fit_row
from fahrtwind.core.survey.lids import LidSwing, lid_swing
from fahrtwind.core.survey.old_work import SealEntry, seal_entries
from fahrtwind.core.survey.outline import Vertex, flat_polygon, outline_polygon, outline_trouble, ring
from fahrtwind.core.survey.squareness import SquareFinding, StraightFinding, check_square, check_straight


@dataclass(frozen=True, slots=True)
class SurveyFindings:
    """Rings are points in mm; None where nothing was measured. ``outline_trouble`` says why the edge cannot be a roof's."""

    outline: tuple[Vertex, ...]
    outline_trouble: str
    flat: tuple[Vertex, ...]
    flat_area_m2: float
    crown: CrownFinding | None
    rows: tuple[RowFit, ...]
    lids: tuple[LidSwing, ...]
    reach: Reach | None
    keep_outs: tuple[Strip, ...]
    square: SquareFinding | None
    straight: StraightFinding | None
    seal_entries: tuple[SealEntry, ...]
    removal_h: float


Surveyed = tuple[SurveyFindings, CrownSurface | None, tuple[Silence, ...]]


def survey_findings(job: Job) -> Surveyed:
    """Judge the survey. The fitted crown is handed on to whoever asks for heights, with what stayed silent. Cached on what it reads."""
    if is_recording():
        return _judge(job)
    read = Job(name="survey", units=job.units, vehicle=job.vehicle, survey=job.survey, obstacles=job.obstacles)
    return _cached(keyed(read))


@lru_cache(maxsize=64)
def _cached(read: Keyed[Job]) -> Surveyed:
    return _judge(read.part)


def _judge(job: Job) -> Surveyed:
    stages = Stages()
    ask, each, square = partial(stages.ask, "survey"), partial(stages.each, "survey"), job.survey.squareness
    flat = ask("survey.outline", "Flat area", lambda: flat_polygon(job), None)
    crown = ask("survey.crown", "Crown", lambda: fit_job_crown(job), None)
    entries = each("survey.scars", "Old work", lambda: seal_entries(job))
    found = SurveyFindings(
        outline=each("survey.outline", "Outline", lambda: ring(outline_polygon(job))),
        outline_trouble=ask("survey.outline", "Outline", lambda: outline_trouble(job), ""),
        flat=ring(flat), flat_area_m2=flat.area * 1e-6 if flat else 0.0,
        crown=ask("survey.crown", "Crown", lambda: crown_finding(crown) if crown else None, None),
        rows=each("survey.point_rows", "Factory points", lambda: tuple(fit_row(r) for r in job.survey.point_rows)),
        lids=each("obstacles", "Open lids", lambda: tuple(s for o in job.obstacles if (s := lid_swing(o)) is not None)),
        reach=ask("survey.access", "Reach", lambda: reach(job), None),
        keep_outs=each("survey.keep_outs", "Lines under the skin", lambda: keep_out_strips(job)),
        square=ask("survey.squareness", "Squareness", lambda: check_square(square, job.units), None),
        straight=ask("survey.squareness", "Parallel edges", lambda: check_straight(square.offsets, job.units), None), seal_entries=entries,
        removal_h=sum(e.minutes for e in entries) / 60,
    )  # fmt: skip
    return found, crown, tuple(stages.silent)
