"""Who is let in: this machine itself, and phones that were paired, each to its one job. Strangers get the
pairing page and nothing else.
"""

from __future__ import annotations

from html import escape
from http.cookies import CookieError, SimpleCookie
from pathlib import Path
from string import Template
from typing import Any
from urllib.parse import parse_qs

from starlette.concurrency import run_in_threadpool
from starlette.requests import Request
from starlette.responses import HTMLResponse, RedirectResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from fahrtwind.api.errors import error_response
from fahrtwind.api.guard import is_guest
from fahrtwind.api.phone_door import PhoneDoor
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.store.phones import KEEPS, Phone, Phones

_PAGE = Template((Path(__file__).parent / "pairing.html").read_text(encoding="utf-8"))
COOKIE = "fahrtwind_phone"
PAIR = "/pair"
LONGEST_FORM = 2000
FOR_ALL = ("/api/catalogue", "/api/calc/", "/api/instruments/")
"""What a phone may ask beside its own job."""
LISTS = ("/api/jobs", "/api/due")
"""These tell a phone of its own job only."""


class Admission:
    """ASGI middleware. A guest is whoever comes by the phones' door or from another machine."""

    def __init__(self, app: ASGIApp, door: PhoneDoor, phones: Phones) -> None:
        self._app, self._door, self._phones = app, door, phones

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not is_guest(scope):
            await self._app(scope, receive, send)
            return
        phone = self._phones.known(_key(scope))
        answer = (
            await self._stranger(Request(scope, receive))
            if phone is None
            else _refused(scope["method"], scope["path"], phone)
        )
        if answer is not None:
            await answer(scope, receive, send)
        else:
            state = {**scope.get("state", {}), "phone": phone}
            await self._app({**scope, "state": state}, receive, send)

    async def _stranger(self, request: Request) -> Response:
        if request.url.path.startswith("/api/"):
            words = "This machine has not been let in."
            return error_response(401, "not_paired", words, "Open the address in the browser and pair.")
        if request.url.path == PAIR and request.method == "POST":
            return await self._pair(request)
        return pairing_page(request.query_params.get("code", ""))

    async def _pair(self, request: Request) -> Response:
        form = await _form(request)
        code, name = "".join(form.get("code", "").split()), form.get("name", "").strip()
        if not name or len(name) > 40 or not name.isprintable():
            return pairing_page(code, name, "Type a name of at most 40 letters: the record tells who did it.")
        try:
            job_id = self._door.job_for(code)
            phone, key = await run_in_threadpool(self._phones.pair, job_id, name)
        except FahrtwindError as error:
            return pairing_page("", name, f"{error.problem} {error.remedy}")
        answer = RedirectResponse(f"/jobs/{phone.job_id}/roof-day", status_code=303)
        answer.set_cookie(
            COOKIE, key, max_age=int(KEEPS.total_seconds()), httponly=True, samesite="lax", path="/"
        )
        return answer


def phone_of(request: Request) -> Phone | None:
    """The phone that asks; None at the desk."""
    phone: Phone | None = getattr(request.state, "phone", None)
    return phone


def _key(scope: Scope) -> str:
    headers = dict(scope["headers"])
    try:
        found: Any = SimpleCookie(headers.get(b"cookie", b"").decode("latin-1")).get(COOKIE)
    except CookieError:
        return ""
    return found.value if found else ""


def _refused(method: str, path: str, phone: Phone) -> Response | None:
    """What a phone is told that asks for more than its job."""
    own = f"/api/jobs/{phone.job_id}"
    if path in ("/", PAIR):
        return RedirectResponse(f"/jobs/{phone.job_id}/roof-day", status_code=303)
    other_jobs = (f"{own}/phones", f"{own}/elsewhere", f"{own}/neighbours", f"{own}/slow/together")
    desk_only = path.startswith(other_jobs) or (method == "DELETE" and path == own)
    of_its_job = path == own or path.startswith(f"{own}/")
    general = path.startswith(FOR_ALL) or (method == "GET" and path in LISTS)
    if not desk_only and (of_its_job or general or not path.startswith("/api/")):
        return None
    return error_response(403, "not_for_phones", "Phones see their own job only.", "Do this at the desk.")


async def _form(request: Request) -> dict[str, str]:
    body = b""
    async for part in request.stream():
        body += part
        if len(body) > LONGEST_FORM:
            return {}
    fields = parse_qs(body.decode("utf-8", "replace"), max_num_fields=5) if body.count(b"&") < 5 else {}
    return {name: values[0] for name, values in fields.items()}


def pairing_page(code: str, name: str = "", trouble: str = "") -> Response:
    """A plain form: nothing of the application is served before the code was right."""
    told = f'<p role="alert"><strong>{escape(trouble)}</strong></p>' if trouble else ""
    safe = code if code.isascii() and code.isdigit() and len(code) == 6 else ""
    page = _PAGE.substitute(trouble=told, code=safe, name=escape(name[:40], quote=True))
    # the browser names the page's own origin only where it may tell the page it comes from
    headers = {"referrer-policy": "same-origin", "cache-control": "no-store"}
    return HTMLResponse(page, status_code=422 if trouble else 200, headers=headers)
