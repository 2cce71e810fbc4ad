"""Jobs in and out of the database. Every change is a new revision made in one write transaction."""

from __future__ import annotations

import json
import secrets
from collections import OrderedDict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from fahrtwind.core.errors import Conflict, NotFound
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import Edit, SetValue, apply_edits, describe
from fahrtwind.core.job.load import load_job
from fahrtwind.store.tables import JobRow, RevisionRow

REMEMBERED = 24
MERGE_WITHIN = timedelta(seconds=2)
"""Changes of one field by one window in quick succession undo as one: nudging, typing, dragging."""


@dataclass(frozen=True, slots=True)
class StoredJob:
    id: str
    revision: int
    job: Job
    summary: str
    changed_by: str
    changed_at: datetime
    can_undo: bool
    can_redo: bool


@dataclass(frozen=True, slots=True)
class JobSummary:
    id: str
    revision: int
    name: str
    vehicle: str
    panels: int
    changed_at: datetime


@dataclass(frozen=True, slots=True)
class Change:
    """Who changes what, seen from where: the revision the caller last read, and an id that makes a retry harmless."""

    base_revision: int
    client: str
    edit_id: str


def utc_now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)


class JobStore:
    """All reading and writing of jobs.

    Args:
        engine: from ``open_database``.
        now: the clock, replaceable in tests.
    """

    def __init__(self, engine: Engine, now: Callable[[], datetime] = utc_now) -> None:
        self._engine = engine
        self._now = now
        self._parsed: OrderedDict[str, Job] = OrderedDict()

    def summaries(self) -> list[JobSummary]:
        with Session(self._engine) as session:
            rows = session.execute(
                select(JobRow, RevisionRow)
                .join(RevisionRow, (RevisionRow.job_id == JobRow.id) & (RevisionRow.number == JobRow.head))
                .where(JobRow.removed_at.is_(None))
                .order_by(RevisionRow.at.desc())
            ).all()
        return [_summary(job, revision) for job, revision in rows]

    def create(self, job: Job, client: str, summary: str = "Started the job") -> StoredJob:
        with self._writing() as session:
            row = JobRow(id=secrets.token_hex(6), head=1, created_at=self._now())
            session.add(row)
            session.flush()
            revision = self._revision(row.id, 1, job, summary, client)
            session.add(revision)
            return _stored(row, revision, job)

    def get(self, job_id: str) -> StoredJob:
        with Session(self._engine) as session:
            row, revision = _head(session, job_id)
            return _stored(row, revision, self._job(revision))

    def revision(self, job_id: str) -> tuple[int, str]:
        """Number and author of the newest revision; cheap enough to be asked every few seconds."""
        with Session(self._engine) as session:
            _, revision = _head(session, job_id)
            return revision.number, revision.client

    def edit(self, job_id: str, change: Change, edits: list[Edit]) -> StoredJob:
        """Apply edits. Raises Conflict when someone else was faster, InputError when an edit cannot be applied."""
        with self._writing() as session:
            row, head = _head(session, job_id)
            done = session.scalar(select(RevisionRow).where(RevisionRow.job_id == job_id, RevisionRow.edit_id == change.edit_id))
            if done is not None:  # the answer to the first try was lost on the way
                return _stored(row, head, self._job(head))
            _refuse_stale(head, change.base_revision)
            job = apply_edits(self._job(head), edits)
            revision = self._revision(job_id, head.number + 1, job, describe(edits)[:200], change.client)
            revision.edit_id, revision.merge_key = change.edit_id, _merge_key(edits)
            merges = bool(revision.merge_key) and _same_gesture(head, revision)
            revision.back_to = head.back_to if merges else head.number
            return self._append(session, row, revision, job)

    def undo(self, job_id: str, change: Change) -> StoredJob:
        return self._travel(job_id, change, back=True)

    def redo(self, job_id: str, change: Change) -> StoredJob:
        return self._travel(job_id, change, back=False)

    def remove(self, job_id: str) -> None:
        """Take a job off the list. Its revisions stay in the database."""
        with self._writing() as session:
            row, _ = _head(session, job_id)
            row.removed_at = self._now()

    def backup(self, target: Path) -> None:
        """A consistent copy of the database while it is in use."""
        connection = self._engine.raw_connection()  # VACUUM runs outside any transaction
        try:
            connection.cursor().execute("VACUUM INTO ?", (str(target),))
        finally:
            connection.close()

    @contextmanager
    def _writing(self) -> Iterator[Session]:
        with Session(self._engine.execution_options(writes=True), expire_on_commit=False) as session, session.begin():
            yield session

    def _job(self, revision: RevisionRow) -> Job:
        """The job of a revision. Documents never change, so the last few are not parsed again."""
        job = self._parsed.get(revision.document)
        if job is None:
            job = load_job(json.loads(revision.document))
            self._remember(revision.document, job)
        return job

    def _remember(self, document: str, job: Job) -> None:
        self._parsed[document] = job
        while len(self._parsed) > REMEMBERED:
            self._parsed.popitem(last=False)

    def _revision(self, job_id: str, number: int, job: Job, summary: str, client: str) -> RevisionRow:
        document = job.model_dump_json(exclude_none=True)
        self._remember(document, job)
        return RevisionRow(
            job_id=job_id, number=number, document=document, summary=summary, client=client[:60],
            edit_id=secrets.token_hex(8), merge_key="", at=self._now(), back_to=None, forward_to=None,
        )  # fmt: skip

    def _append(self, session: Session, row: JobRow, revision: RevisionRow, job: Job) -> StoredJob:
        session.add(revision)
        row.head = revision.number
        return _stored(row, revision, job)

    def _travel(self, job_id: str, change: Change, *, back: bool) -> StoredJob:
        with self._writing() as session:
            row, head = _head(session, job_id)
            _refuse_stale(head, change.base_revision)
            goal = head.back_to if back else head.forward_to
            if goal is None:
                raise NotFound(f"Nothing to {'undo' if back else 'redo'}.", remedy="Go on working.", field="base_revision")
            target = session.get_one(RevisionRow, (job_id, goal))
            job = self._job(target)
            word = "Undid" if back else "Redid"
            revision = self._revision(
                job_id, head.number + 1, job, f"{word}: {head.summary if back else target.summary}"[:200], change.client
            )
            revision.back_to = target.back_to if back else head.number
            revision.forward_to = head.number if back else target.forward_to
            return self._append(session, row, revision, job)


def _head(session: Session, job_id: str) -> tuple[JobRow, RevisionRow]:
    row = session.get(JobRow, job_id)
    if row is None or row.removed_at is not None:
        raise NotFound("There is no such job.", remedy="Go back to the list of jobs.", field="job")
    return row, session.get_one(RevisionRow, (job_id, row.head))


def _refuse_stale(head: RevisionRow, base_revision: int) -> None:
    if base_revision != head.number:
        raise Conflict(
            "The job was changed in another window.", remedy="Reload to see that change, or take over and save yours on top.",
            current_revision=head.number, changed_by=head.client,
        )  # fmt: skip


def _merge_key(edits: list[Edit]) -> str:
    return ",".join(sorted({e.path for e in edits if isinstance(e, SetValue)}))[:200] if all(
        isinstance(e, SetValue) for e in edits
    ) else ""  # fmt: skip


def _same_gesture(head: RevisionRow, new: RevisionRow) -> bool:
    return (
        head.merge_key == new.merge_key
        and head.client == new.client
        and head.back_to is not None
        and new.at - head.at <= MERGE_WITHIN
    )


def _stored(row: JobRow, revision: RevisionRow, job: Job) -> StoredJob:
    return StoredJob(
        row.id, revision.number, job, revision.summary, revision.client, revision.at.replace(tzinfo=UTC),
        revision.back_to is not None, revision.forward_to is not None,
    )  # fmt: skip


def _summary(row: JobRow, revision: RevisionRow) -> JobSummary:
    document = json.loads(revision.document)
    return JobSummary(
        row.id,
        revision.number,
        document["name"],
        document["vehicle"]["kind"],
        len(document["panels"]),
        revision.at.replace(tzinfo=UTC),
    )
