"""Job in, everything that follows from it out: all parts of all stations, put together for whoever wants the
whole.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import Literal

from fahrtwind.core.engine.memory import Memory
from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.results import Findings
from fahrtwind.core.road import NOT_BUILT, ROAD, Station
from fahrtwind.core.spoken import Spoken, spoken_verdict
from fahrtwind.core.stations.all import house, rules
from fahrtwind.core.stations.views import Asked

MEMORY = Memory()
"""What was worked out lately, for all jobs of this process."""


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


def evaluate(job: Job, probe_m_s: float | None = None, memory: Memory = MEMORY) -> Evaluation:
    """Derive everything from a job. ``probe_m_s`` is a road speed to look at; the highest driving speed by
    default.

    Answers for every document: a stage that cannot is listed in ``findings.silent`` and becomes a stop of its
    station.
    """
    seen = visit(job, probe_m_s, memory)
    seen.everything()
    findings = Findings(
        roof=seen.get("roof"),
        shapes=seen["shapes"],
        survey=seen["surveyed"],
        members=seen["members"],
        next_check=seen.get("next_check"),
        bays=seen["bays"],
        lines=seen["lines"],
        feet=seen["feet"],
        clear_heights=seen["clear_heights"],
        seen=seen.get("seen"),
        dry_fit=seen["dry_fit"],
        cable_pairs=seen["cable_pairs"],
        distances=seen["distances"],
        overlaps=seen["overlaps"],
        verdicts=seen["verdicts"],
        plan=seen.get("speeds"),
        carriers=seen["carrier_verdicts"],
        unjudged=seen.get("unjudged", ()),
        taped=seen.get("taped", ()),
        caught=seen["all_caught"],
        raised=seen["raised_units"],
        roof_mass_kg=seen["roof_mass_kg"],
        marks=seen["marks"],
        seal=seen.get("seal_choice"),
        seal_places=seen["seal_places"],
        seal_sections=seen["seal_sections"],
        seal_amounts=seen["seal_amounts"],
        seal_ways=seen["seal_ways"],
        cure=seen.get("cure"),
        standing=seen.get("standing"),
        gland=seen.get("gland_check"),
        gland_offers=seen.get("gland_offers", ()),
        proof=seen.get("proof"),
        arrays=seen.get("controller_findings", ()),
        harnesses=seen.get("harnesses", ()),
        wire_parts=seen.get("wire_parts", ()),
        meter=seen.get("meter", ()),
        pieces=seen["made"],
        bolts=tuple(line for own in seen["bolts_by_carrier"] for line in own),
        bolt_choice=seen["bolt_choice"],
        fits=tuple(fit for own in seen["fits_by_carrier"] for fit in own),
        leans=tuple(lean for own in seen["leans_by_carrier"] for lean in own),
        cuts=seen["cuts"],
        contacts=tuple(contact for own in seen["contacts_by_carrier"] for contact in own),
        lifts=seen["lifts"],
        assembly=tuple(step for own in seen["assembly_by_carrier"] for step in own),
        kit=seen["kit"],
        purchase=seen["purchase"],
        cost=seen.get("cost"),
        materials=seen["materials"],
        steps=seen["steps"],
        work=seen.get("network"),
        hours=seen.get("hours"),
        kept=seen.get("kept_plan"),
        learned=seen.get("learned", ()),
        in_hand=seen.get("in_hand", ()),
        as_built=seen.get("as_built", ()),
        torques=seen.get("torques", ()),
        judged=seen.get("judged", ()),
        to_look_at=seen.get("to_look_at", ()),
        questions=seen.all_questions(),
        silent=tuple(s for (name, _), s in seen.silent.items() if name not in rules.by_id),
    )
    snags = rules.ask(seen, _reasons(job))
    return Evaluation(
        findings, snags, _stations(job, snags, findings.questions), spoken_verdict(job, findings, snags)
    )


def snags_at(job: Job, stations: Collection[Station], memory: Memory = MEMORY) -> tuple[Snag, ...]:
    """What the rules of some stations find; nothing is worked out that only others read."""
    return rules.ask(visit(job, memory=memory), _reasons(job), stations)


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
