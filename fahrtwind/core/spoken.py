"""The verdict in a word: holds, thin, refused with its stops, or not known. Nothing with a stop on it is said
to hold.
"""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass
from fahrtwind.core.results import Findings

Word = Literal["holds", "thin", "refused", "not known"]
THIN_SHARE = 1.1
"""Under a tenth above the speed that is driven the margin is thin (judgement: what a speedometer and a tail
wind are off).
"""


@dataclass(frozen=True, slots=True)
class Spoken:
    """The word, what it rests on in a few titles, and the feet (``panel.foot``) that a stop refuses."""

    word: Word
    because: tuple[str, ...]
    refused_feet: tuple[str, ...]


def spoken_verdict(job: Job, findings: Findings, snags: tuple[Snag, ...]) -> Spoken:
    """What to say about the whole roof, once everything else is known."""
    stops = [s for s in snags if s.severity == "stop"]
    built = {f"built.feet.{b.id}": f"{b.holder}.{b.foot}" for b in findings.as_built}
    struck = {built.get(s.place, _struck(s.place)) for s in stops}
    refused = tuple(
        f"{f.panel}.{f.foot}"
        for f in findings.feet
        if not struck.isdisjoint(("panels", f.panel, f"{f.panel}.{f.foot}"))
    )
    missing = _missing(job, findings)
    if stops:
        titles = dict.fromkeys(s.title for s in sorted(stops, key=lambda s: s.station != "hold"))
        return Spoken("refused", tuple(titles), refused)
    if missing:
        return Spoken("not known", missing, ())
    plan = findings.plan
    if plan is not None and plan.lost_let_go_m_s < plan.required_m_s:
        return Spoken("thin", ("One foot lost: the others let go",), ())
    if plan is not None and plan.parked_safe_m_s < plan.parked_gust_m_s:
        return Spoken("thin", ("Not safe in a storm while parked",), ())
    if plan is not None and plan.safe_m_s < THIN_SHARE * plan.required_m_s:
        return Spoken("thin", ("Hardly more than what you drive",), ())
    return Spoken("holds", (), ())


def _struck(place: str) -> str:
    """What a stop at a job path refuses: a foot as ``panel.foot``, a panel, all ``panels``; anything else is
    no foot's.
    """
    words = place.split(".")
    if words[0] not in ("panels", "carriers", "tethers"):
        return place
    if len(words) >= 4 and words[2] == "feet":
        return f"{words[1]}.{words[3]}"
    return words[1] if len(words) > 1 else "panels"


def _missing(job: Job, findings: Findings) -> tuple[str, ...]:
    """What is not known that the verdict would need."""
    judged = {v.panel for v in findings.verdicts}
    if not job.panels:
        return ("No panel is on the roof",)
    if any(p.id not in judged for p in job.panels):
        asked = [q.ask for q in findings.questions if q.station in ("survey", "structure", "layout")]
        return tuple(asked[:2]) or ("A panel has no verdict",)
    deck = job.vehicle.kind in ("boat", "truck_bed")
    held = [*((p.id, p.hold.school) for p in job.panels), *((c.id, c.hold.school) for c in job.carriers)]
    drilled = {name for name, school in held if school == "screws" or (school == "bolts" and not deck)}
    if any(f.landing == "unknown" and f.panel in drilled for f in findings.feet):
        return ("Where the feet land",)
    return ()
