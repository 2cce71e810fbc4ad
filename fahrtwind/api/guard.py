"""What reaches the server at all: only this machine's names, no foreign origins, no oversized bodies."""

from __future__ import annotations

from urllib.parse import urlsplit

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fahrtwind.api.errors import error_response
from fahrtwind.files.job_file import LARGEST_BYTES

LOCAL = ("127.0.0.1", "localhost", "::1")
LARGEST_BODY = LARGEST_BYTES + 1000
HEADERS = [
    (
        b"content-security-policy",
        b"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'",
    ),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
]


class BodyTooLarge(Exception):
    """Raised inside ``receive`` once too much has arrived."""


class Guard:
    """ASGI middleware. ``hosts`` are the names the server answers to besides this machine's own."""

    def __init__(self, app: ASGIApp, hosts: tuple[str, ...] = ()) -> None:
        self._app = app
        self._hosts = {*LOCAL, *hosts}
        self._any_host = "0.0.0.0" in self._hosts or "::" in self._hosts

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = {k.decode("latin-1").lower(): v.decode("latin-1") for k, v in scope["headers"]}
        refusal = self._refusal(headers)
        if refusal is not None:
            await error_response(403, "foreign_origin", refusal, "Open Fahrtwind at the address it printed.")(
                scope, receive, send
            )
            return
        seen = 0

        async def counted() -> Message:
            nonlocal seen
            message = await receive()
            seen += len(message.get("body", b""))
            if seen > LARGEST_BODY:
                raise BodyTooLarge
            return message

        async def dressed(message: Message) -> None:
            if message["type"] == "http.response.start":
                message = {**message, "headers": [*message.get("headers", []), *HEADERS]}
            await send(message)

        try:
            if int(headers.get("content-length") or 0) > LARGEST_BODY:
                raise BodyTooLarge
            await self._app(scope, counted, dressed)
        except (BodyTooLarge, ValueError) as error:
            if (
                isinstance(error, ValueError)
                and "content-length" not in str(error)
                and not str(error).startswith("invalid literal")
            ):
                raise
            too_large = error_response(413, "too_large", "The request is over 5 MB.", "Choose a smaller file.", "file")
            await too_large(scope, receive, send)

    def _refusal(self, headers: dict[str, str]) -> str | None:
        host = _name(f"//{headers.get('host', '')}")
        if not self._any_host and host not in self._hosts:
            return f"The server does not answer to the name “{host}”."
        origin = headers.get("origin")
        if origin and (origin == "null" or urlsplit(origin).netloc != headers.get("host")):
            return "The request comes from a page of another origin."
        return None


def _name(address: str) -> str:
    try:
        return urlsplit(address).hostname or ""
    except ValueError:
        return ""
