"""Slow work: it runs beside the requests, tells how far it is, and stops when nobody waits for it any more.

Whoever starts it hands in ``Hands``; the science says ``go_on`` wherever it has done a part, and need not
know whether anybody listens.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass


class Stopped(Exception):
    """The work was broken off because it was told to; nothing is wrong with it."""


@dataclass(frozen=True, slots=True)
class Hands:
    """What slow work is handed: seconds left, whether to stop, and whom to tell its share (0 to 1) and what
    it does.
    """

    seconds_left: Callable[[], float]
    cancelled: Callable[[], bool]
    tell: Callable[[float, str], None]


_HANDS: ContextVar[Hands | None] = ContextVar("hands", default=None)


@contextmanager
def beside(hands: Hands) -> Iterator[None]:
    """Within this block ``go_on`` speaks with these hands."""
    before = _HANDS.set(hands)
    try:
        yield
    finally:
        _HANDS.reset(before)


def go_on(share: float | None = None, doing: str = "") -> None:
    """Tell how far the work is. Raises Stopped where it was told to stop; nothing where nobody listens."""
    hands = _HANDS.get()
    if hands is None:
        return
    if hands.cancelled():
        raise Stopped
    if share is not None:
        hands.tell(share, doing)
