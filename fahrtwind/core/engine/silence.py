"""What is asked for, and stages that cannot answer: each says why and the others go on, so that no job is
lost to one number in it.
"""

from __future__ import annotations

from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.records import dataclass

NOT_FORESEEN = "Undo the last change or correct the value, then report this."


@dataclass(frozen=True, slots=True)
class Question:
    """A missing input: the job path that answers it, the station that asks, and how to find out."""

    path: str
    station: str
    ask: str


@dataclass(frozen=True, slots=True)
class Silence:
    """A stage without an answer: where in the job, in words what, why, and what to do. ``foreseen``: a limit
    we know of.
    """

    station: str
    place: str
    what: str
    why: str
    remedy: str
    foreseen: bool


def silence_of(station: str, place: str, what: str, error: Exception) -> Silence:
    """What is told of a part that failed: its own words where the error has them."""
    if isinstance(error, FahrtwindError):
        field = error.field or ""
        closer = field if field.startswith(f"{place}.") else place
        return Silence(station, closer, what, error.problem, error.remedy, True)
    why = f"It could not be worked out ({type(error).__name__})."
    return Silence(station, place, what, why, NOT_FORESEEN, False)
