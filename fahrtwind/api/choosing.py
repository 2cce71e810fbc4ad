"""Routes that help to choose a layout: places to snap to, the shadows of a day, variants side by side, what
an edit changes.
"""

from __future__ import annotations

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Query

from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.api.schemas import Edits, Request
from fahrtwind.core.choose.changes import Change, changes
from fahrtwind.core.choose.compare import VariantLine, compare
from fahrtwind.core.choose.curves import EvenLight, HourLight, curves_of
from fahrtwind.core.choose.days import ask_why_not
from fahrtwind.core.edits import apply_edits
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.part import Identifier, Name
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.stations.days.why_not import WhyNot
from fahrtwind.core.stations.layout.snapping import Snap, snaps_of
from fahrtwind.core.stations.layout.sun.day import ShadeMoment, day_of
from fahrtwind.core.stations.wire.hour import ArrayCurve

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["choosing"], responses=ERROR_RESPONSES)


class WhatChanges(Request):
    edits: Edits


@router.get("/snaps")
def read_snaps(job_id: str, store: Store, panel: Annotated[Identifier, Query()]) -> tuple[Snap, ...]:
    """Places one panel likes to lie at."""
    job = store.get(job_id).job
    return snaps_of(job, panel, evaluate(job).findings.members.members)


@router.get("/day")
def read_day(
    job_id: str,
    store: Store,
    month: Annotated[int, Query()],
    heading_deg: Annotated[float | None, Query(ge=0, le=360)] = None,
) -> tuple[ShadeMoment, ...]:
    """Where the shadows lie through one day of a month."""
    return day_of(SunnyRoof.of(store.get(job_id).job), month, heading_deg)


@router.get("/curves")
def read_curves(
    job_id: str,
    store: Store,
    month: Annotated[int | None, Query(ge=1, le=12)] = None,
    hour: Annotated[float, Query(ge=0, le=24)] = 12.0,
    heading_deg: Annotated[float | None, Query(ge=0, le=360)] = None,
) -> tuple[ArrayCurve, ...]:
    """Curves of all strings at an hour under their shadows; without a month in full even light."""
    job = store.get(job_id).job
    return curves_of(job, EvenLight() if month is None else HourLight(month, hour, heading_deg))


@router.get("/why-not")
def read_why_not(
    job_id: str, store: Store, step: Annotated[Name, Query()], day: Annotated[date, Query()]
) -> WhyNot:
    """Why a step cannot be done on a day; where nothing stands against it, it may."""
    return ask_why_not(store.get(job_id).job, step, day)


@router.get("/variants")
def read_variants(job_id: str, store: Store) -> tuple[VariantLine, ...]:
    """The present layout and the variants side by side."""
    return compare(store.get(job_id).job)


@router.post("/changes")
def read_changes(job_id: str, given: WhatChanges, store: Store) -> tuple[Change, ...]:
    """Everything these edits would change, before they are made; nothing is stored."""
    job = store.get(job_id).job
    return changes(job, apply_edits(job, given.edits))
