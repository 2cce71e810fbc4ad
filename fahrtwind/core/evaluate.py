"""Job in, everything that follows from it out: all parts of all stations, put together for whoever wants the
whole.
"""

from __future__ import annotations

from collections.abc import Collection
from sys import intern
from typing import Any, Literal, TypeVar

from fahrtwind.core.engine.memory import Memory
from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.engine.silence import Question, Silence
from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.results import Findings
from fahrtwind.core.road import NOT_BUILT, ROAD, Station
from fahrtwind.core.spoken import Spoken, spoken_verdict
from fahrtwind.core.stations.all import house, rules
from fahrtwind.core.stations.views import Asked

MEMORY = Memory()
"""What was worked out lately, for all jobs of this process."""
WHOLE = ("evaluation", "")


@dataclass(frozen=True, slots=True)
class StationState:
    station: Station
    state: Literal["open", "in doubt", "answered", "not built"]
    stops: int
    cautions: int
    notes: int
    questions: int


@dataclass(frozen=True, slots=True)
class Evaluation:
    findings: Findings
    snags: tuple[Snag, ...]
    stations: tuple[StationState, ...]
    spoken: Spoken


def visit(job: Job, probe_m_s: float | None = None, memory: Memory = MEMORY) -> Visit:
    """A look at a job: parts are worked out when they are read. ``probe_m_s``: a road speed to look at
    instead of the highest.
    """
    return Visit(house, Asked(job, probe_m_s), memory)


@dataclass(frozen=True, slots=True)
class Field:
    """The part that a field of the findings tells; ``flat``: one list of the lists of all entries.
    ``otherwise`` where the part is not known.
    """

    part: str
    flat: bool = False
    otherwise: Any = None

    @property
    def station(self) -> str:
        """Whose part it is."""
        return (house.together.get(self.part) or house.parts[self.part]).station

    def read(self, seen: Visit) -> Any:
        value = seen.get(self.part, self.otherwise)
        return tuple(one for own in value for one in own) if self.flat else value


FIELDS: dict[str, Field] = {
    "roof": Field("roof"),
    "shapes": Field("shapes"),
    "survey": Field("surveyed"),
    "members": Field("members"),
    "next_check": Field("next_check"),
    "bays": Field("bays"),
    "lines": Field("lines"),
    "feet": Field("feet"),
    "clear_heights": Field("clear_heights"),
    "seen": Field("seen"),
    "dry_fit": Field("dry_fit"),
    "cable_pairs": Field("cable_pairs"),
    "distances": Field("distances"),
    "overlaps": Field("overlaps"),
    "verdicts": Field("verdicts"),
    "plan": Field("speeds"),
    "carriers": Field("carrier_verdicts"),
    "unjudged": Field("unjudged", otherwise=()),
    "taped": Field("taped", otherwise=()),
    "caught": Field("all_caught"),
    "raised": Field("raised_units"),
    "roof_mass_kg": Field("roof_mass_kg"),
    "marks": Field("marks"),
    "seal": Field("seal_choice"),
    "seal_places": Field("seal_places"),
    "seal_sections": Field("seal_sections"),
    "seal_amounts": Field("seal_amounts"),
    "seal_ways": Field("seal_ways"),
    "cure": Field("cure"),
    "standing": Field("standing"),
    "gland": Field("gland_check"),
    "gland_offers": Field("gland_offers", otherwise=()),
    "proof": Field("proof"),
    "arrays": Field("controller_findings", otherwise=()),
    "harnesses": Field("harnesses", otherwise=()),
    "wire_parts": Field("wire_parts", otherwise=()),
    "meter": Field("meter", otherwise=()),
    "pieces": Field("made"),
    "bolts": Field("bolts_by_carrier", flat=True),
    "bolt_choice": Field("bolt_choice"),
    "fits": Field("fits_by_carrier", flat=True),
    "leans": Field("leans_by_carrier", flat=True),
    "cuts": Field("cuts"),
    "contacts": Field("contacts_by_carrier", flat=True),
    "lifts": Field("lifts"),
    "assembly": Field("assembly_by_carrier", flat=True),
    "kit": Field("kit"),
    "purchase": Field("purchase"),
    "cost": Field("cost"),
    "materials": Field("materials"),
    "steps": Field("steps"),
    "work": Field("network"),
    "hours": Field("hours"),
    "kept": Field("kept_plan"),
    "learned": Field("learned", otherwise=()),
    "in_hand": Field("in_hand", otherwise=()),
    "as_built": Field("as_built", otherwise=()),
    "torques": Field("torques", otherwise=()),
    "judged": Field("judged", otherwise=()),
    "to_look_at": Field("to_look_at", otherwise=()),
}


def evaluate(job: Job, probe_m_s: float | None = None, memory: Memory = MEMORY) -> Evaluation:
    """Derive everything from a job. ``probe_m_s`` is a road speed to look at instead of the highest one.

    Answers for every document: a stage that cannot is listed in ``findings.silent`` and becomes a stop of its
    station.
    """
    given = (job, intern(repr(probe_m_s)))  # what is remembered is known by which objects it was given
    known = memory.done(WHOLE, given)
    if known is None:
        seen = visit(job, probe_m_s, memory)
        seen.everything()
        findings = Findings(
            **{name: told.read(seen) for name, told in FIELDS.items()},
            questions=seen.all_questions(),
            silent=_silent(seen),
        )
        known = _put_together(job, findings, rules.ask(seen, _reasons(job)))
        memory.keep(WHOLE, given, known)
    return known  # type: ignore[no-any-return]


def evaluate_in_sight(
    job: Job,
    known: Evaluation,
    stations: Collection[Station],
    probe_m_s: float | None = None,
    memory: Memory = MEMORY,
) -> Evaluation:
    """What ``known`` becomes in some ``stations``: while a panel is dragged, nobody looks at the others.

    What the others found, asked and said stays as it was told, also in the verdict: who rests or lets go has
    everything evaluated.
    """
    seen = visit(job, probe_m_s, memory)
    in_sight = {n: told.read(seen) for n, told in FIELDS.items() if told.station in ("", *stations)}
    seen.everything(("view",))
    snags = rules.ask(seen, _reasons(job), stations)
    before = known.findings
    findings = replace(
        before,
        **in_sight,
        questions=seen.all_questions(),
        silent=_merged(before.silent, _silent(seen), stations),
    )
    return _put_together(job, findings, rules.in_order(_merged(known.snags, snags, stations)))


def _put_together(job: Job, findings: Findings, snags: tuple[Snag, ...]) -> Evaluation:
    stations = _stations(job, snags, findings.questions)
    return Evaluation(findings, snags, stations, spoken_verdict(job, findings, snags))


T = TypeVar("T", bound=Snag | Silence)


def _merged(before: tuple[T, ...], now: tuple[T, ...], stations: Collection[Station]) -> tuple[T, ...]:
    """What is told now of some stations, with what was told before of the others."""
    return (*(b for b in before if b.station not in stations), *(n for n in now if n.station in stations))


def _silent(seen: Visit) -> tuple[Silence, ...]:
    return tuple(silence for name, silence in seen.all_silent() if name not in rules.by_id)


def snags_at(seen: Visit, job: Job, stations: Collection[Station] | None = None) -> tuple[Snag, ...]:
    """What the rules of some stations find, or of all; nothing is worked out that only others read."""
    if stations is None:
        seen.everything()
    return rules.ask(seen, _reasons(job), stations)


def snags_of_places(seen: Visit, job: Job, stations: Collection[Station]) -> tuple[Snag, ...]:
    """What those rules of some stations find that know no forces: nothing of the wind is worked out."""
    return rules.ask(seen, _reasons(job), stations, without="loads")


def _reasons(job: Job) -> dict[tuple[str, str], str]:
    return {(d.snag, d.place): d.reason for d in job.dismissals}


def _stations(job: Job, snags: tuple[Snag, ...], questions: tuple[Question, ...]) -> tuple[StationState, ...]:
    if not job.panels:  # nothing to hold yet is no answer
        first = (Question("panels", name, "Place a panel first.") for name in ("hold", "build"))
        questions = (*questions, *first)
    return tuple(_station(name, snags, questions) for name in ROAD)


def _station(name: Station, snags: tuple[Snag, ...], questions: tuple[Question, ...]) -> StationState:
    here = [s for s in snags if s.station == name and s.dismissed is None]
    counts = {level: sum(s.severity == level for s in here) for level in ("stop", "caution", "note")}
    asked = sum(q.station == name for q in questions)
    if name == "roof-day":  # the work sheet is as good as everything before it
        # who does not plan the wiring or the days here still gets a whole work sheet
        asked = sum(q.path != "wiring.controllers" and q.station != "days" for q in questions)
    doubtful = counts["stop"] + counts["caution"] > 0
    if name == "roof-day":
        doubtful = any(s.severity == "stop" for s in snags)
    state = "not built" if name in NOT_BUILT else "open" if asked else "in doubt" if doubtful else "answered"
    return StationState(name, state, counts["stop"], counts["caution"], counts["note"], asked)  # type: ignore[arg-type]
