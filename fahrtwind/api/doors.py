"""The doors of calculation: one typed route for every entry of the register, an application of its own.

It is put together when the first request comes in: its models are many, and pages open without them.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from fastapi import FastAPI, Response
from pydantic import BaseModel

from fahrtwind import __version__
from fahrtwind.api import errors

if TYPE_CHECKING:
    from fahrtwind.calc.register import Calculation

PREFIX = "/api/calc"


def create_doors() -> FastAPI:
    """The application below ``/api/calc``."""
    from fahrtwind.calc import CALCULATIONS

    doors = FastAPI(
        title="Fahrtwind calculations",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/openapi.json",
        responses=errors.ERROR_RESPONSES,
    )
    errors.install(doors)
    for found in CALCULATIONS.values():
        doors.add_api_route(
            f"/{found.name}",
            _endpoint(found),
            methods=["POST"],
            response_model=found.result_type,
            tags=["calc"],
            summary=found.answers,
        )
    return doors


def _endpoint(found: Calculation) -> Callable[..., Response]:
    from fahrtwind.calc.register import as_json, compute

    def answer(given: BaseModel) -> Response:
        return Response(as_json(found.name, compute(found, given)), media_type="application/json")

    answer.__annotations__["given"] = found.input_model
    answer.__name__ = f"calc_{found.name.replace('.', '_')}"
    return answer
