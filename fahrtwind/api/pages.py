"""The built front end: every address that is no asset is the one page."""

from __future__ import annotations

from pathlib import Path

from starlette.requests import Request
from starlette.responses import FileResponse, Response
from starlette.routing import Mount, Route, Router
from starlette.staticfiles import StaticFiles
from starlette.types import Receive, Scope, Send

from fahrtwind.api.errors import error_response

STATIC = Path(__file__).parent / "static"
PHONE_KEEPS = "private, max-age=57600"
"""A phone opens its page again without the network for the length of a working day."""


class Pages:
    """ASGI application of the folder ``static``; where nothing is built there is no page."""

    def __init__(self, static: Path) -> None:
        self._page = static / "index.html"
        self._router = Router([Route("/{path:path}", self._one_page, methods=["GET"])])
        if self.built:
            self._router.routes.insert(0, Mount("/assets", StaticFiles(directory=static / "assets")))

    @property
    def built(self) -> bool:
        return self._page.is_file()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        await self._router(scope, receive, send)

    def _one_page(self, request: Request) -> Response:
        if request.url.path.startswith("/api/") or not self.built:
            return error_response(404, "not_found", "There is no such address.", "See /api/openapi.json.")
        by_phone = getattr(request.state, "phone", None) is not None
        return FileResponse(self._page, headers={"cache-control": PHONE_KEEPS if by_phone else "no-cache"})
