"""What there is to choose from, and which calculations there are."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter

from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.schemas import CalcListed, Catalogue, ClimateChoice, ExportChoice, ReadingChoice
from fahrtwind.core.job.catalogue import SOURCE, catalogue
from fahrtwind.core.tables.climates import CLIMATES
from fahrtwind.core.tables.readings import RELIABILITY
from fahrtwind.files.exports import EXPORTS
from fahrtwind.files.job_file import job_schema

router = APIRouter(prefix="/api", responses=ERROR_RESPONSES)


@router.get("/calc", tags=["calc"])
def list_calculations() -> list[CalcListed]:
    """The calculations; each has an address of its own below this one, described in
    ``/api/calc/openapi.json``.
    """
    from fahrtwind.calc import CALCULATIONS  # loaded late: its doors are many and few starts need them

    return [CalcListed(name=c.name, answers=c.answers) for c in CALCULATIONS.values()]


@router.get("/catalogue", tags=["choices"])
def read_catalogue() -> Catalogue:
    return Catalogue(
        panels=list(catalogue()),
        panel_source=SOURCE,
        climates=[
            ClimateChoice(
                value=c.name, words=c.words, latitude_deg=c.latitude_deg, longitude_deg=c.longitude_deg
            )
            for c in CLIMATES.values()
        ],
        reading_kinds=[
            ReadingChoice(
                value=kind,
                words=r.words,
                sigma_mm=r.sigma_mm,
                false_share=r.false_share,
                miss_share=r.miss_share,
            )
            for kind, r in RELIABILITY.items()
        ],
        exports=[ExportChoice(value=name, words=e.title, station=e.station) for name, e in EXPORTS.items()],
    )


@router.get("/schema/job", tags=["choices"])
def read_job_schema() -> dict[str, Any]:
    """The JSON Schema of the job file."""
    return job_schema()
