"""Snags: what is wrong, doubtful or forgotten. A rule is declared once, with its severity, station and
source.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping
from dataclasses import field
from typing import Any, Literal, TypeVar

from fahrtwind.core.engine.silence import Silence
from fahrtwind.core.engine.stage import House, Visit
from fahrtwind.core.records import dataclass
from fahrtwind.core.road import Station

Severity = Literal["stop", "caution", "note"]
ORDER: dict[Severity, int] = {"stop": 0, "caution": 1, "note": 2}
F = TypeVar("F", bound=Callable[..., Any])


@dataclass(frozen=True, slots=True)
class Found:
    """What a rule reports: the place as a job path, the place in words, why, what to do, and the figures
    behind it.
    """

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


@dataclass(frozen=True, slots=True)
class Rule:
    """A rule as declared. ``together``: the name under which all that it found is read; empty for one about
    silent stages.
    """

    id: str
    severity: Severity
    station: Station
    title: str
    source: str
    each: str | None
    together: str


@dataclass(slots=True)
class Rules:
    """All rules of a house by id, in the order in which they were declared."""

    house: House
    by_id: dict[str, Rule] = field(default_factory=dict)
    _read: dict[str, frozenset[str]] = field(default_factory=dict)

    def rule(
        self,
        rule_id: str,
        severity: Severity,
        station: Station,
        title: str,
        source: str,
        *,
        each: str | None = None,
    ) -> Callable[[F], F]:
        """Declare a rule: it reads what its parameters name and yields one Found for each place where it
        applies.
        """
        self._add(
            Rule(rule_id, severity, station, title, source, each, f"all {rule_id}" if each else rule_id)
        )
        return self.house.rule(rule_id, station, title, each=each)

    def unanswered(self, station: Station) -> None:
        """Declare what stands for every stage of a station that could not answer: what is not known is never
        read as good.
        """
        self._add(Rule(f"{station}-unanswered", "stop", station, "Cannot be worked out", LIMITS, None, ""))

    def _add(self, rule: Rule) -> None:
        if rule.id in self.by_id:
            raise ValueError(f"rule {rule.id} is declared twice")
        self.by_id[rule.id] = rule

    def ask(
        self,
        visit: Visit,
        reasons: Mapping[tuple[str, str], str],
        stations: Collection[Station] | None = None,
        without: str = "",
    ) -> tuple[Snag, ...]:
        """What all rules find, or those of some ``stations``, or that read nothing of the part ``without``;
        stops first. ``reasons``: why a caution was dismissed, by rule and place; stops are not.
        """
        snags = []
        for rule in self.by_id.values():
            if stations is not None and rule.station not in stations:
                continue
            if without and (not rule.together or without in self._behind(rule)):
                continue
            found = visit.get(rule.together, ()) if rule.together else ()
            for one in _flat(found) if rule.each else found:
                snags.append(
                    _snag(rule, one, None if rule.severity == "stop" else reasons.get((rule.id, one.place)))
                )
        snags += [self._unheard(name, silence) for name, silence in visit.all_silent()]
        return self.in_order(snags)

    def _behind(self, rule: Rule) -> frozenset[str]:
        """What a rule reads, itself or through others: looked up once, after everything is declared."""
        if rule.id not in self._read:
            self._read[rule.id] = self.house.behind(rule.together)
        return self._read[rule.id]

    def in_order(self, snags: Iterable[Snag]) -> tuple[Snag, ...]:
        """Stops first, what was dismissed last, and of equal weight in the order of the declared rules."""
        order = {name: i for i, name in enumerate(self.by_id)}
        return tuple(
            sorted(
                snags, key=lambda s: (s.dismissed is not None, ORDER[s.severity], order.get(s.id, len(order)))
            )
        )

    def _unheard(self, name: str, silence: Silence) -> Snag:
        """A stage without an answer; a rule that could not be asked counts as found."""
        if name in self.by_id:
            station = self.by_id[name].station
            told = Rule("rule-unanswered", "stop", station, "Cannot be checked", LIMITS, None, "")
        elif f"{silence.station}-unanswered" in self.by_id:
            told = self.by_id[f"{silence.station}-unanswered"]
        else:  # a view: it belongs to no station, and nothing that reads it is known
            told = Rule("view-unanswered", "stop", "survey", "Cannot be read", LIMITS, None, "")
        return _snag(told, Found(silence.place or "job", silence.what, silence.why, silence.remedy), None)


LIMITS = "validity limits of the formulas"


def _flat(found: tuple[tuple[Found, ...], ...]) -> tuple[Found, ...]:
    return tuple(one for some in found for one in some)


def _snag(rule: Rule, f: Found, dismissed: str | None) -> Snag:
    return Snag(
        id=rule.id,
        severity=rule.severity,
        station=rule.station,
        title=rule.title,
        place=f.place,
        where=f.where,
        why=f.why,
        remedy=f.remedy,
        source=rule.source,
        quantity=f.quantity,
        value=f.value,
        limit=f.limit,
        unit=f.unit,
        dismissed=dismissed,
    )
