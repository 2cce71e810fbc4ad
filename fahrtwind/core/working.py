"""The working of any number: the part that owns its place is worked out once more while its steps are
noted.
"""

from __future__ import annotations

from fahrtwind.core.errors import NotFound
from fahrtwind.core.evaluate import visit
from fahrtwind.core.formulas.declare import Step
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass

CAUTION = "Planning aid: the makers' instructions, local rules and licensed practice come first."


@dataclass(frozen=True, slots=True)
class Working:
    """A working sheet: the steps in order, the last one being the number asked about."""

    place: str
    steps: tuple[Step, ...]
    caution: str


def working(job: Job, place: str, probe_m_s: float | None = None) -> Working:
    """Steps under ``place``, for example ``air``, ``structure/member 3``, ``hold/p1/f2/link base`` or
    ``yield/p1``.

    Raises NotFound where nothing was computed there.
    """
    steps = visit(job, probe_m_s).explain(place)
    if not steps:
        raise NotFound(
            f"Nothing was computed at “{place}”.", remedy="Answer the open questions first.", field="place"
        )
    return Working(place, steps, CAUTION)
