"""The doors of calculation: one typed route for every entry of the register, an application of its own.

It is put together when the first request comes in: its models are many, and pages open without them.
"""

from __future__ import annotations

from collections.abc import Callable
from threading import Lock
from typing import TYPE_CHECKING

from fastapi import FastAPI, Response
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

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


class Later:
    """An application that is put together at its first request, or when somebody has the time."""

    def __init__(self, create: Callable[[], ASGIApp]) -> None:
        self._create, self._lock = create, Lock()
        self._app: ASGIApp | None = None

    def ready(self) -> ASGIApp:
        with self._lock:
            if self._app is None:
                self._app = self._create()
            return self._app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        app = await run_in_threadpool(self.ready) if self._app is None else self._app
        await app(scope, receive, send)
