"""Slow work: it runs beside the requests, tells how far it is, and stops when nobody waits for it any more.

Whoever starts it hands in ``Hands``; the science says ``go_on`` wherever it has done a part, and need not
know whether anybody listens.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Protocol, TypeVar

from fahrtwind.core.records import dataclass

P = TypeVar("P")
R = TypeVar("R")


class Stopped(Exception):
    """The work was broken off because it was told to; nothing is wrong with it."""


class Apart(Protocol):
    """Does the same work on several parts that know nothing of one another, at once where there are hands
    for it: each part's number and what came of it, as soon as it is there. ``work`` and parts may go to
    another process and back, so both are what can be written down.
    """

    def __call__(self, work: Callable[[P], R], parts: Sequence[P]) -> Iterator[tuple[int, R]]: ...


def one_by_one(work: Callable[[P], R], parts: Sequence[P]) -> Iterator[tuple[int, R]]:
    """One part after the other, here."""
    return ((number, work(part)) for number, part in enumerate(parts))


@dataclass(frozen=True, slots=True)
class Hands:
    """What slow work is handed: seconds left, whether to stop, whom to tell its share (0 to 1) and what it
    does, and who takes its parts.
    """

    seconds_left: Callable[[], float]
    cancelled: Callable[[], bool]
    tell: Callable[[float, str], None]
    apart: Apart = one_by_one


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


def apart(work: Callable[[P], R], parts: Sequence[P]) -> Iterator[tuple[int, R]]:
    """Each part's number and what came of it, as soon as it is there; one by one where nobody else takes any.
    Raises Stopped where the work was told to stop.
    """
    hands = _HANDS.get()
    return one_by_one(work, parts) if hands is None else hands.apart(work, parts)
