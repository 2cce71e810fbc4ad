"""All jobs at once: a line of each for the list, one part of each for what is due and who is where.

Documents of revisions never change, so a line or a part is read once a revision, however many jobs there are.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from datetime import UTC, datetime
from typing import TYPE_CHECKING, Any, NamedTuple

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from fahrtwind.core.errors import UnreadableJob
from fahrtwind.core.records import dataclass
from fahrtwind.store.tables import JobRow, RevisionRow

if TYPE_CHECKING:
    from fahrtwind.core.job.document import Job

NO_PART = object()
"""Stands for the part of a job that cannot be read."""


@dataclass(frozen=True, slots=True)
class JobSummary:
    id: str
    revision: int
    name: str
    vehicle: str
    panels: int
    changed_at: datetime


class Head(NamedTuple):
    """The newest revision of a job, without its document."""

    job_id: str
    number: int
    at: datetime


class Lines:
    """Args:
    engine: of the store.
    """

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._lines: dict[str, JobSummary] = {}

    def summaries(self) -> list[JobSummary]:
        """A line of every job, what was changed last first."""
        with Session(self._engine) as session:
            heads = self._heads(session)
            for head in heads:
                known = self._lines.get(head.job_id)
                if known is None or known.revision != head.number:
                    row = session.get_one(RevisionRow, (head.job_id, head.number))
                    self._lines[head.job_id] = _summary(row)
        return [self._lines[head.job_id] for head in heads]

    @staticmethod
    def _heads(session: Session) -> list[Head]:
        rows = session.execute(
            select(JobRow.id, RevisionRow.number, RevisionRow.at)
            .join(RevisionRow, (RevisionRow.job_id == JobRow.id) & (RevisionRow.number == JobRow.head))
            .where(JobRow.removed_at.is_(None))
            .order_by(RevisionRow.at.desc())
        )
        return [Head(*row) for row in rows]


class Overview(Lines):
    """Args:
    engine: of the store.
    readable: makes a job of a revision; raises UnreadableJob.
    """

    def __init__(self, engine: Engine, readable: Callable[[RevisionRow], Job]) -> None:
        super().__init__(engine)
        self._readable = readable
        self._parts: dict[tuple[str, str], tuple[int, Any]] = {}

    def part(self, name: str) -> list[tuple[JobSummary, Any]]:
        """One part of every job that can be read, for example ``care``."""
        lines = self.summaries()
        with Session(self._engine) as session:
            for line in lines:
                if self._parts.get((line.id, name), (0, None))[0] != line.revision:
                    self._parts[line.id, name] = (line.revision, self._read(session, line, name))
        found = [(line, self._parts[line.id, name][1]) for line in lines]
        return [(line, part) for line, part in found if part is not NO_PART]

    def _read(self, session: Session, line: JobSummary, name: str) -> Any:
        try:
            return getattr(self._readable(session.get_one(RevisionRow, (line.id, line.revision))), name)
        except UnreadableJob:
            return NO_PART


def _summary(revision: RevisionRow) -> JobSummary:
    """A line of the list; a document that is damaged costs its own line's words, not the list."""
    try:
        document = json.loads(revision.document)
        name, vehicle, panels = (
            str(document["name"]),
            str(document["vehicle"].get("kind", "van")),
            len(document["panels"]),
        )
    except (ValueError, LookupError, TypeError, AttributeError, RecursionError):
        name, vehicle, panels = f"Job {revision.job_id}: cannot be read", "", 0
    return JobSummary(
        revision.job_id, revision.number, name, vehicle, panels, revision.at.replace(tzinfo=UTC)
    )
