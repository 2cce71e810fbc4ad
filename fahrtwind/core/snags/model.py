"""Snags: what is wrong, doubtful or forgotten. A rule is declared once, with its severity, station and source."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import partial
from typing import TYPE_CHECKING, Literal, get_args

from fahrtwind.core.job.document import Job
from fahrtwind.core.silence import Silence, Stages

if TYPE_CHECKING:
    from fahrtwind.core.results import Findings

Severity = Literal["stop", "caution", "note"]
Station = Literal["survey", "structure", "layout", "hold", "build", "seal", "wire", "days", "roof-day", "log"]
STATIONS: tuple[Station, ...] = get_args(Station)
ORDER: dict[Severity, int] = {"stop": 0, "caution": 1, "note": 2}


@dataclass(frozen=True, slots=True)
class Found:
    """What a rule reports: the place as a job path, the place in words, why, what to do, and the figures behind it."""

    place: str
    where: str
    why: str
    remedy: str
    quantity: str = ""
    value: float | None = None
    limit: float | None = None
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Snag:
    id: str
    severity: Severity
    station: Station
    title: str
    place: str
    where: str
    why: str
    remedy: str
    source: str
    quantity: str
    value: float | None
    limit: float | None
    unit: str
    dismissed: str | None


Check = Callable[[Job, "Findings"], Iterable[Found]]


@dataclass(frozen=True, slots=True)
class Rule:
    id: str
    severity: Severity
    station: Station
    title: str
    source: str
    check: Check


RULES: dict[str, Rule] = {}


def rule(rule_id: str, severity: Severity, station: Station, title: str, source: str) -> Callable[[Check], Check]:
    """Declare a snag rule. ``check`` yields one Found for each place where it applies."""

    def declare(check: Check) -> Check:
        if rule_id in RULES:
            raise ValueError(f"rule {rule_id} is declared twice")
        RULES[rule_id] = Rule(rule_id, severity, station, title, source, check)
        return check

    return declare


def _found(rule: Rule, job: Job, findings: Findings) -> tuple[Found, ...]:
    return tuple(rule.check(job, findings))


def _unchecked(silence: Silence) -> Snag:
    """A rule that could not be asked: what it would have found is not known, so it counts as found."""
    station: Station = next((s for s in STATIONS if s == silence.station), "hold")
    return Snag(
        "rule-unanswered", "stop", station, "Cannot be checked", silence.place or "job", silence.what, silence.why, silence.remedy,
        "validity limits of the formulas", "", None, None, "", None,
    )  # fmt: skip


def find_snags(job: Job, findings: Findings) -> tuple[Snag, ...]:
    """Run every rule. Stops come first; dismissed cautions keep their place and carry the reason."""
    reasons = {(d.snag, d.place): d.reason for d in job.dismissals}
    stages = Stages()
    snags = [
        Snag(
            r.id, r.severity, r.station, r.title, f.place, f.where, f.why, f.remedy, r.source, f.quantity, f.value, f.limit,
            f.unit, None if r.severity == "stop" else reasons.get((r.id, f.place)),
        )
        for r in RULES.values()
        for f in stages.each(r.station, "", r.title, partial(_found, r, job, findings))
    ]  # fmt: skip
    snags += [_unchecked(s) for s in stages.silent]
    return tuple(sorted(snags, key=lambda s: (s.dismissed is not None, ORDER[s.severity])))
