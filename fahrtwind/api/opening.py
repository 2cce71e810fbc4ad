"""What is answered while the application is still being put together: its page, the list of jobs, and the
answers that are kept. Whatever else is asked waits until all is there.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Generic

from pydantic_core import to_json
from sqlalchemy import Engine
from sqlalchemy.exc import DatabaseError
from starlette.concurrency import run_in_threadpool
from starlette.responses import Response
from starlette.types import ASGIApp, Receive, Scope, Send

from fahrtwind.api.errors import error_response
from fahrtwind.api.guard import Guard, is_guest
from fahrtwind.api.later import A, Later
from fahrtwind.api.pages import Pages
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.store.answers import Answers
from fahrtwind.store.overview import Lines

JOBS = "/api/jobs"


class Opening(Generic[A]):
    """ASGI application in front of ``whole``, which takes everything once it is there.

    Args:
    whole: the application that is put together meanwhile.
    engine: of its database.
    hosts: names the server answers to besides this machine's own.
    static: folder of the built front end.
    close: called with the application when the server ends.
    """

    def __init__(
        self,
        whole: Later[A],
        engine: Engine,
        hosts: tuple[str, ...],
        static: Path,
        close: Callable[[A], None],
    ) -> None:
        self._whole, self._hosts, self._close = whole, hosts, close
        self._lines, self._answers, self._pages = Lines(engine), Answers(engine), Pages(static)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan":
            await self._live(receive, send)
            return
        known = await run_in_threadpool(self._known, scope) if self._early(scope) else None
        if known is None and self._whole.made is None:
            known = await run_in_threadpool(self._trouble)
        if known is None:
            await self._whole(scope, receive, send)
        else:
            await Guard(known, self._hosts)(scope, receive, send)

    def _trouble(self) -> ASGIApp | None:
        """Waits for the whole; what to say where it cannot be put together now. Who asks next tries again."""
        try:
            self._whole.ready()
        except FahrtwindError as error:
            return error_response(503, error.code, error.problem, error.remedy, error.field)
        return None

    def _early(self, scope: Scope) -> bool:
        """Whether it is somebody at this machine who reads, and the whole is not there yet."""
        reads = scope["type"] == "http" and scope["method"] == "GET" and not scope["query_string"]
        return reads and self._whole.made is None and not is_guest(scope)

    def _known(self, scope: Scope) -> ASGIApp | None:
        """What answers already; None where the whole is needed."""
        path: str = scope["path"]
        if not path.startswith("/api/"):
            return self._pages
        try:
            if path == JOBS:
                lines = self._lines.summaries()
                return _told(to_json(lines)) if lines else None
            above, _, job_id = path.rpartition("/")
            kept = self._answers.of(job_id) if above == JOBS else None
        except DatabaseError:  # whoever answers in the end says what is wrong
            return None
        return None if kept is None else _told(kept)

    async def _live(self, receive: Receive, send: Send) -> None:
        """The server need not wait for the whole; at its end the whole is closed, as far as it is there."""
        await receive()
        await send({"type": "lifespan.startup.complete"})
        await receive()
        if self._whole.made is not None:
            await run_in_threadpool(self._close, self._whole.made)
        await send({"type": "lifespan.shutdown.complete"})


def _told(answer: bytes) -> Response:
    return Response(answer, media_type="application/json")
