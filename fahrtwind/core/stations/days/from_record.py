"""When steps were really done, by the record of the roof day: it teaches the shop its rates."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta

from fahrtwind.core.job.days import Days
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.activities import Activity, Network
from fahrtwind.core.stations.days.steps import WorkStep

LONGEST = timedelta(hours=14)
"""What took longer has a night in it: when it was worked at is not known."""
LEAST = timedelta(minutes=1)


@dataclass(frozen=True, slots=True)
class Noted:
    """An entry of the record about a step, by its title; ``done``: it says that the step is, or is not."""

    step: str
    at: datetime
    done: bool | None = None


@dataclass(frozen=True, slots=True)
class DoneByRecord:
    """An activity of the plan with when it was begun and ended."""

    step: str
    title: str
    started: datetime
    ended: datetime


def done_by_record(
    network: Network, steps: tuple[WorkStep, ...], noted: tuple[Noted, ...], days: Days
) -> tuple[DoneByRecord, ...]:
    """Steps that are done by the last word on them and not yet in the plan. One was begun with the first that
    was noted of it, or when the one before it ended; where neither is known nothing is told.
    """
    there = {d.step for d in days.done}
    found: list[DoneByRecord] = []
    ended: datetime | None = None
    for title, begun, end in _spans(steps, noted):
        before = ended if ended and ended <= end else None
        start = before if begun is None else begun
        ended = end
        if start is None or not LEAST <= end - start <= LONGEST:
            continue
        own = [a for a in network.activities if a.step == _number(steps, title) and a.id not in there]
        found += _shares(own, start, end)
    return tuple(found)


def _spans(
    steps: tuple[WorkStep, ...], noted: tuple[Noted, ...]
) -> Iterator[tuple[str, datetime | None, datetime]]:
    """Title, when it was first worked at, and when it was done, in the order in which they were done."""
    spans = []
    for step in steps:
        own = [n for n in noted if n.step == step.title]
        said = [n for n in own if n.done is not None]
        if not said or not said[-1].done:
            continue
        end = said[-1].at
        begun = min((n.at for n in own if n.done is None and n.at <= end), default=None)
        spans.append((step.title, begun, end))
    return iter(sorted(spans, key=lambda span: span[2]))


def _number(steps: tuple[WorkStep, ...], title: str) -> int:
    return next(s.number for s in steps if s.title == title)


def _shares(activities: list[Activity], start: datetime, end: datetime) -> Iterator[DoneByRecord]:
    """What was planned in several goes was done one after the other, each for its share."""
    each = (end - start) / max(len(activities), 1)
    for i, activity in enumerate(activities):
        yield DoneByRecord(activity.id, activity.title, start + i * each, start + (i + 1) * each)
