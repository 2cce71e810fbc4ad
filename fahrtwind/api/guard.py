"""What reaches the server at all: only names it was told, no foreign origins, nothing that dawdles; and who
asks from outside.
"""

from __future__ import annotations

import asyncio
import ipaddress
from urllib.parse import urlsplit

from starlette.exceptions import HTTPException
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fahrtwind.api.errors import TOO_LARGE, error_response

LOCAL = ("127.0.0.1", "localhost", "::1")
EVERYWHERE = ("0.0.0.0", "::")
BODY_WITHIN_S = 20.0
HEADERS = [
    (
        b"content-security-policy",
        b"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'",
    ),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
]


class TooSlow(HTTPException):
    """A request whose next part did not come in time."""

    def __init__(self) -> None:
        super().__init__(408, "The request broke off.")


class Guard:
    """ASGI middleware. ``hosts`` are the names the server answers to besides this machine's own.

    On all addresses it answers to plain addresses and to the names it was told: a page elsewhere can point a
    name of its own at this machine, but not an address.
    """

    def __init__(self, app: ASGIApp, hosts: tuple[str, ...] = (), most_bytes: int = 5_001_000) -> None:
        self._app = app
        self._most_bytes = most_bytes
        self._hosts = {*LOCAL, *(h.lower() for h in hosts if h not in EVERYWHERE)}
        self._any_address = any(h in EVERYWHERE for h in hosts)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = {k.decode("latin-1").lower(): v.decode("latin-1") for k, v in scope["headers"]}
        refusal = self._refused(headers, any_address=scope.get("by_phones_door", False))
        if refusal is not None:
            await refusal(scope, receive, send)
        else:
            await self._pass_on(scope, receive, send)

    async def _pass_on(self, scope: Scope, receive: Receive, send: Send) -> None:
        answered, arrived = False, False

        async def timely() -> Message:
            nonlocal arrived
            if arrived:  # the next message is the end of the connection, which may take as long as it likes
                return await receive()
            try:
                message = await asyncio.wait_for(receive(), BODY_WITHIN_S)
            except TimeoutError as error:
                raise TooSlow from error
            arrived = not message.get("more_body", False)
            return message

        async def dressed(message: Message) -> None:
            nonlocal answered
            if message["type"] == "http.response.start":
                answered = True
                told = list(message.get("headers", []))
                own = {name.lower() for name, _ in told}
                ours = [h for h in (*HEADERS, *_keeping(scope["path"])) if h[0] not in own]
                message = {**message, "headers": [*told, *ours]}
            await send(message)

        try:
            await self._app(scope, timely, dressed)
        except TooSlow:
            if not answered:
                slow = error_response(408, "too_slow", "The request broke off.", "Send it again.")
                await slow(scope, receive, send)

    def _refused(self, headers: dict[str, str], *, any_address: bool) -> Response | None:
        words = self._refusal(headers, any_address or self._any_address)
        if words is not None:
            return error_response(403, "foreign_origin", words, "Open Fahrtwind at the address it printed.")
        # the framework's own limit says the same of bodies that do not tell their length, in plain words
        # instead of our shape
        if (length := headers.get("content-length", "")).isdigit() and int(length) > self._most_bytes:
            return error_response(413, "too_large", TOO_LARGE, "Choose a smaller file.", "file")
        return None

    def _refusal(self, headers: dict[str, str], any_address: bool) -> str | None:
        host = _name(f"//{headers.get('host', '')}")
        if host not in self._hosts and not (any_address and _is_address(host)):
            return f"The server does not answer to the name “{host}”."
        origin = headers.get("origin")
        if origin and (origin == "null" or urlsplit(origin).netloc != headers.get("host")):
            return "The request comes from a page of another origin."
        return None


def is_guest(scope: Scope) -> bool:
    """Whether a request came by the phones' door or from another machine. Without an address it came by a
    socket of this one.
    """
    if scope.get("by_phones_door"):
        return True
    client, server = scope.get("client"), scope.get("server")
    try:
        address = ipaddress.ip_address(client[0].split("%")[0] if client else "")
    except ValueError:
        return False
    if isinstance(address, ipaddress.IPv6Address) and address.ipv4_mapped:
        address = address.ipv4_mapped
    return not (address.is_loopback or (server and str(address) == server[0]))


def _keeping(path: str) -> list[tuple[bytes, bytes]]:
    """How long a browser may keep an answer: assets carry their hash in their name, answers about jobs are
    never kept.
    """
    if path.startswith("/assets/"):
        return [(b"cache-control", b"public, max-age=31536000, immutable")]
    return [(b"cache-control", b"no-store")] if path.startswith("/api/") else []


def _name(address: str) -> str:
    try:
        return urlsplit(address).hostname or ""
    except ValueError:
        return ""


def _is_address(host: str) -> bool:
    try:
        ipaddress.ip_address(host)
    except ValueError:
        return False
    return True
