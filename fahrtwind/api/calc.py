"""Routes of the calculations: one typed route for every entry of the register, and what there is to choose
from.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from fastapi import APIRouter, Response
from pydantic import BaseModel

from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.schemas import CalcListed, Catalogue, Choice, ClimateChoice, ReadingChoice
from fahrtwind.calc import CALCULATIONS, Calculation
from fahrtwind.calc.register import as_json
from fahrtwind.calc.register import compute as run_typed
from fahrtwind.core.job import catalogue
from fahrtwind.core.tables.climates import CLIMATES
from fahrtwind.core.tables.readings import RELIABILITY
from fahrtwind.files.exports import EXPORTS
from fahrtwind.files.job_file import job_schema

router = APIRouter(prefix="/api", responses=ERROR_RESPONSES)


@router.get("/calc", tags=["calc"])
def list_calculations() -> list[CalcListed]:
    return [CalcListed(name=c.name, answers=c.answers) for c in CALCULATIONS.values()]


def _endpoint(found: Calculation) -> Callable[..., Response]:
    def compute(given: BaseModel) -> Response:
        return Response(as_json(found.name, run_typed(found, given)), media_type="application/json")

    compute.__annotations__["given"] = found.input_model
    compute.__name__ = f"calc_{found.name.replace('.', '_')}"
    return compute


for _found in CALCULATIONS.values():
    router.add_api_route(
        f"/calc/{_found.name}",
        _endpoint(_found),
        methods=["POST"],
        response_model=_found.result_type,
        tags=["calc"],
        summary=_found.answers,
    )


@router.get("/catalogue", tags=["choices"])
def read_catalogue() -> Catalogue:
    return Catalogue(
        panels=list(catalogue.CATALOGUE),
        panel_source=catalogue.SOURCE,
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
        exports=[Choice(value=name, words=e.title) for name, e in EXPORTS.items()],
    )


@router.get("/schema/job", tags=["choices"])
def read_job_schema() -> dict[str, Any]:
    """The JSON Schema of the job file."""
    return job_schema()
