"""An application that is put together when it is needed, or when somebody has the time."""

from __future__ import annotations

from collections.abc import Callable
from threading import Lock
from typing import Generic, TypeVar

from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

A = TypeVar("A", bound=ASGIApp)


class Later(Generic[A]):
    """ASGI application. ``made``: None as long as it is not there."""

    def __init__(self, create: Callable[[], A]) -> None:
        self._create, self._lock = create, Lock()
        self.made: A | None = None

    def ready(self) -> A:
        """The application, put together now where nobody has."""
        with self._lock:
            if self.made is None:
                self.made = self._create()
            return self.made

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        app = await run_in_threadpool(self.ready) if self.made is None else self.made
        await app(scope, receive, send)
