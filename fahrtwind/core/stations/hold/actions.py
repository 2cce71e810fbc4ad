"""What follows from setting a field of a hold."""

from __future__ import annotations

from typing import Any

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import GLUED, FoamTape, Holding, PlacedPanel, SpanBars
from fahrtwind.core.job.paths import changed_at, entry_position
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.schools import SCHOOLS
from fahrtwind.core.stations.hold.schools.lengths import fitted

LEAST_TOE_MM = 5.0


def with_usual_parts(path: str, value: Any, job: Job) -> Any:
    """A school that is chosen without its parts starts with those usual in the job's units, as long as the
    roof wants them; so do the ends of bars that are chosen without anything about them.
    """
    if value == {} and path.endswith(".span"):
        return SpanBars(ends=fitted(SpanBars().ends, job.vehicle, job.members, job.units))
    if not isinstance(value, dict) or set(value) != {"school"} or not path.endswith((".hold", ".ends")):
        return value
    school = value["school"]
    if school not in SCHOOLS:
        return value
    return fitted(SCHOOLS[school].usual(job.units), job.vehicle, job.members, job.units)


def bracket_follows(job: Job, path: str) -> Job:
    """A pad that is typed takes its bracket along: a pad beyond the base that presses it would hold nothing
    there.
    """
    words = path.split(".")
    if words[2:] not in (["hold", "pad_length"], ["hold", "pad_width"]):
        return job
    hold = _hold_at(job, words, path)
    if not isinstance(hold, FoamTape):
        return job
    bracket = hold.bracket
    if words[3] == "pad_length":
        value = {"length": Length(mm=hold.pad_length.mm)}
    else:
        value = {"toe": Length(mm=max(hold.pad_width.mm - bracket.lever.mm, LEAST_TOE_MM))}
    return changed_at(job, f"{'.'.join(words[:3])}.bracket", lambda _: dict(bracket) | value, job.units)


def _hold_at(job: Job, words: list[str], path: str) -> Holding | None:
    """How a panel or a carrier holds; None for what else stands at that path."""
    if words[0] not in ("panels", "carriers"):
        return None
    entries: tuple[PlacedPanel, ...] | tuple[Carrier, ...]
    entries = job.panels if words[0] == "panels" else job.carriers
    return entries[entry_position(entries, words[1], path)].hold


USUAL_BOND = {"foam tape": {"thickness": Length(mm=1.6), "dwell_h": 72.0}, "adhesive": GLUED}


def bond_follows(job: Job, path: str) -> Job:
    """A pad that is bonded otherwise has the usual height and wait of what bonds it; the rest stays."""
    words = path.split(".")
    if words[2:] != ["hold", "bond"]:
        return job
    hold = _hold_at(job, words, path)
    if not isinstance(hold, FoamTape):
        return job
    usual = USUAL_BOND[hold.bond]
    return changed_at(job, ".".join(words[:3]), lambda _: dict(hold) | usual, job.units)
