"""One error shape for every failure, mapped in one place."""

from __future__ import annotations

import logging
from typing import TYPE_CHECKING, Any

from pydantic import BaseModel
from sqlalchemy.exc import DatabaseError
from starlette.exceptions import HTTPException
from starlette.requests import Request
from starlette.responses import JSONResponse

from fahrtwind.core import errors
from fahrtwind.store.database import trouble

if TYPE_CHECKING:
    from fastapi import FastAPI
    from fastapi.exceptions import RequestValidationError

TOO_LARGE = "The request is over 5 MB."
log = logging.getLogger("fahrtwind")
STATUS: dict[type[errors.FahrtwindError], int] = {
    errors.NotFound: 404,
    errors.Conflict: 409,
    errors.TooLarge: 413,
    errors.Unavailable: 503,
    errors.OfficeSilent: 424,
    errors.FahrtwindError: 422,
}


class ErrorBody(BaseModel):
    """What is wrong, where, and what to do about it."""

    code: str
    field: str
    message: str
    remedy: str
    current_revision: int | None = None
    changed_by: str | None = None
    can_undo: bool | None = None


_BODY = {"content": {"application/json": {"schema": {"$ref": "#/components/schemas/ErrorBody"}}}}
ERROR_RESPONSES: dict[int | str, dict[str, Any]] = {
    # one brings the model into the document, the others name it: a model for each status of each route is
    # built anew, a fifth of a second of every start
    status: {"description": words, **({"model": ErrorBody} if status == 422 else _BODY)}
    for status, words in (
        (400, "Not readable"),
        (403, "Foreign origin"),
        (404, "Not found"),
        (409, "Changed elsewhere"),
        (413, "Too large"),
        (422, "Cannot be used"),
        (424, "Another service gives no answer that can be used"),
        (503, "The database is busy, full or damaged; nothing was stored"),
    )
}


def error_response(status: int, code: str, message: str, remedy: str, field: str = "") -> JSONResponse:
    return JSONResponse(
        ErrorBody(code=code, field=field, message=message, remedy=remedy).model_dump(), status_code=status
    )


def install(app: FastAPI) -> None:
    from fastapi.exceptions import RequestValidationError  # who only answers with errors needs no framework

    @app.exception_handler(errors.FahrtwindError)
    async def ours(_request: Request, error: errors.FahrtwindError) -> JSONResponse:
        status = next(code for kind, code in STATUS.items() if isinstance(error, kind))
        body = ErrorBody(
            code=error.code,
            field=error.field,
            message=error.problem,
            remedy=error.remedy,
            current_revision=getattr(error, "current_revision", None),
            changed_by=getattr(error, "changed_by", None),
            can_undo=getattr(error, "can_undo", None),
        )
        return JSONResponse(body.model_dump(), status_code=status)

    @app.exception_handler(RequestValidationError)
    async def unfit(_request: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        field = ".".join(str(part) for part in first["loc"] if part != "body")
        if first["type"] in ("json_invalid", "value_error.jsondecode"):
            return error_response(
                400, "unreadable_body", "The request is not JSON.", "Send a JSON object.", "body"
            )
        return error_response(422, "bad_input", f"{first['msg']}.", "Correct this value.", field)

    @app.exception_handler(HTTPException)
    async def http(_request: Request, error: HTTPException) -> JSONResponse:
        if error.status_code == 413:
            return error_response(413, "too_large", TOO_LARGE, "Choose a smaller file.", "file")
        if error.status_code == 408:
            return error_response(408, "too_slow", str(error.detail), "Send it again.")
        return error_response(
            error.status_code, "http", str(error.detail), "Check the address and the method."
        )

    @app.exception_handler(DatabaseError)
    async def database(_request: Request, error: DatabaseError) -> JSONResponse:
        problem, remedy = trouble(error)
        log.warning("%s (%s)", problem, error.orig)
        return error_response(503, errors.Unavailable.code, problem, remedy)

    @app.exception_handler(Exception)
    async def unexpected(request: Request, error: Exception) -> JSONResponse:
        log.error("unexpected error in %s %s", request.method, request.url.path, exc_info=error)
        return error_response(
            500,
            "internal",
            "Fahrtwind made a mistake here; the stored job is unchanged.",
            "Try again, then report it.",
        )
