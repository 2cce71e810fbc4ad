"""The working of any number: run the evaluation while recording and keep the steps of one place."""

from __future__ import annotations

from dataclasses import dataclass

from fahrtwind.core.errors import NotFound
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.formulas.declare import Step, recording
from fahrtwind.core.job.document import Job
from fahrtwind.core.layout.sun.findings import yield_of

CAUTION = "Planning aid: the makers' instructions, local rules and licensed practice come first."


@dataclass(frozen=True, slots=True)
class Working:
    """A working sheet: the steps in order, the last one being the number asked about."""

    place: str
    steps: tuple[Step, ...]
    caution: str


def working(job: Job, place: str, probe_m_s: float | None = None) -> Working:
    """Steps under ``place``, for example ``air``, ``structure/member 3``, ``hold/p1/f2/link base`` or ``yield/p1``.

    Raises NotFound where nothing was computed there.
    """
    with recording() as notes:
        if place.startswith("yield"):
            yield_of(job)
        else:
            evaluate(job, probe_m_s)
    steps = tuple(s for s in notes.steps if s.place == place or s.place.startswith(f"{place}/"))
    if not steps:
        raise NotFound(f"Nothing was computed at “{place}”.", remedy="Answer the open questions first.", field="place")
    return Working(place, _without_repeats(steps), CAUTION)


def _without_repeats(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    return tuple(dict.fromkeys(steps))
