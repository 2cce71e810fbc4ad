"""Stages that cannot answer: each says why and the others go on, so that no job is ever lost to one number in it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import TypeVar

from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.formulas.declare import scope

T = TypeVar("T")
NOT_FORESEEN = "Undo the last change or correct the value, then report this."


@dataclass(frozen=True, slots=True)
class Silence:
    """A stage without an answer: where in the job, in words what, why, and what to do. ``foreseen``: a limit we know of."""

    station: str
    place: str
    what: str
    why: str
    remedy: str
    foreseen: bool


@dataclass(slots=True)
class Stages:
    """Runs stages and notes those that stay silent."""

    silent: list[Silence] = field(default_factory=list)

    def ask(self, station: str, place: str, what: str, work: Callable[[], T], otherwise: T) -> T:
        """What ``work`` answers; ``otherwise`` where it cannot, with the reason noted."""
        try:
            with scope():
                return work()
        except FahrtwindError as error:
            self.silent.append(Silence(station, place, what, error.problem, error.remedy, True))
        except Exception as error:  # whatever it is: the rest of the job must stay readable and mendable
            why = f"It could not be worked out ({type(error).__name__})."
            self.silent.append(Silence(station, place, what, why, NOT_FORESEEN, False))
        return otherwise

    def each(self, station: str, place: str, what: str, work: Callable[[], tuple[T, ...]]) -> tuple[T, ...]:
        """The same for a stage that answers with several things: none where it cannot."""
        nothing: tuple[T, ...] = ()
        return self.ask(station, place, what, work, nothing)
