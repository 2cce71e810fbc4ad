"""Jobs in and out of the database. Every change is a new revision made in one write transaction."""

from __future__ import annotations

import json
import secrets
from collections import OrderedDict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from typing import Any

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from fahrtwind.core.edits import Edit, SetValue, apply_edits, describe
from fahrtwind.core.errors import Conflict, FahrtwindError, NotFound, UnreadableJob
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.records import dataclass
from fahrtwind.store.overview import JobSummary, Overview
from fahrtwind.store.reservations import refuse_double
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
class Change:
    """Who changes what, seen from where: the revision the caller last read, and an id that makes a retry
    harmless.
    """

    base_revision: int
    client: str
    edit_id: str


@dataclass(frozen=True, slots=True, eq=False)
class Draft:
    """A change that is not stored yet: the job it makes and the revision it would become.

    ``already``: it was stored before, or changes nothing; ``revision`` is then the newest of the job.
    """

    job: Job
    row: JobRow
    revision: RevisionRow
    already: bool = False


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
        self._overview = Overview(engine, self._readable)
        self.changed: Callable[[str], None] = lambda job_id: None
        """Told the id of every job of which there is a new revision."""

    def summaries(self) -> list[JobSummary]:
        """A line of every job, what was changed last first."""
        return self._overview.summaries()

    def part_of_all(self, name: str) -> list[tuple[JobSummary, Any]]:
        """One part of every job that can be read, for example ``care``."""
        return self._overview.part(name)

    def create(self, job: Job, client: str, summary: str = "Started the job") -> StoredJob:
        with self._writing() as session:
            row = JobRow(id=secrets.token_hex(6), head=1, created_at=self._now())
            session.add(row)
            session.flush()
            revision = self._revision(row.id, 1, job, summary, Change(0, client, secrets.token_hex(8)))
            session.add(revision)
        self.changed(row.id)
        return _stored(row, revision, job)

    def get(self, job_id: str) -> StoredJob:
        with self._reading() as session:
            row, revision = _head(session, job_id)
            return _stored(row, revision, self._job(revision))

    def at(self, job_id: str, number: int) -> Job:
        """The job as it was at a revision. Raises NotFound where there is none of that number."""
        with self._reading() as session:
            _head_number(session, job_id)
            revision = session.get(RevisionRow, (job_id, number))
            if revision is None:
                raise NotFound("There is no such revision.", remedy="Reload the job.", field="revision")
            return self._job(revision)

    def revision(self, job_id: str) -> tuple[int, str]:
        """Number and author of the newest revision; cheap enough to be asked every few seconds."""
        with self._reading() as session:
            _, revision = _head(session, job_id)
            return revision.number, revision.client

    def draft_edit(self, job_id: str, change: Change, edits: list[Edit]) -> Draft:
        """Apply edits without storing them, outside any lock, so that all that follows from them can be
        worked out first.

        Raises Conflict when someone else was faster, InputError when an edit cannot be applied.
        """
        with self._reading() as session:
            row, head = _head(session, job_id)
            if (done := self._done(session, row, head, change)) is not None:
                return done
        _refuse_stale(head, change.base_revision)
        before = self._job(head)
        job = apply_edits(before, edits)
        if job is before:  # a reading that the job does not ask for: nothing to undo either
            return Draft(job, row, head, already=True)
        revision = self._revision(job_id, head.number + 1, job, describe(edits)[:200], change)
        revision.merge_key = _merge_key(edits)
        merges = bool(revision.merge_key) and _same_gesture(head, revision)
        revision.back_to = head.back_to if merges else head.number
        return Draft(job, row, revision)

    def draft_travel(self, job_id: str, change: Change, *, back: bool) -> Draft:
        """One step back or forward, not stored yet. The present document need not be readable."""
        with self._reading() as session:
            row, head = _head(session, job_id)
            if (done := self._done(session, row, head, change)) is not None:
                return done
            _refuse_stale(head, change.base_revision)
            goal = head.back_to if back else head.forward_to
            if goal is None:
                raise NotFound(
                    f"Nothing to {'undo' if back else 'redo'}.",
                    remedy="Go on working.",
                    field="base_revision",
                )
            target = session.get_one(RevisionRow, (job_id, goal))
        job = self._job(target)
        summary = f"{'Undid' if back else 'Redid'}: {head.summary if back else target.summary}"[:200]
        revision = self._revision(job_id, head.number + 1, job, summary, change)
        revision.back_to = target.back_to if back else head.number
        revision.forward_to = head.number if back else target.forward_to
        return Draft(job, row, revision)

    def commit(self, draft: Draft) -> StoredJob:
        """Store a draft as the newest revision. Raises Conflict when the job has moved on meanwhile."""
        new = draft.revision
        if draft.already:
            return _stored(draft.row, new, draft.job)
        with self._writing() as session:
            row, number = _head_number(session, new.job_id)
            if number != new.number - 1:
                head = session.get_one(RevisionRow, (new.job_id, number))
                done = self._done(session, row, head, Change(0, new.client, new.edit_id))
                if done is not None:
                    return _stored(row, done.revision, done.job)
                _refuse_stale(head, new.number - 1)
            before = self._kept_before(session, new)
            if before is not None:
                refuse_double(session, new.job_id, before, draft.job.workshop)
            session.add(new)
            row.head = new.number
        self.changed(row.id)
        return _stored(row, new, draft.job)

    def _kept_before(self, session: Session, new: RevisionRow) -> Workshop | None:
        """The workshop of the revision before; None where that one cannot be read."""
        try:
            return self._job(session.get_one(RevisionRow, (new.job_id, new.number - 1))).workshop
        except UnreadableJob:
            return None

    def edit(self, job_id: str, change: Change, edits: list[Edit]) -> StoredJob:
        """Apply edits and store them."""
        return self.commit(self.draft_edit(job_id, change, edits))

    def _done(self, session: Session, row: JobRow, head: RevisionRow, change: Change) -> Draft | None:
        """The job as it stands where this very change was made before: the answer to the first try was lost
        on the way.
        """
        made = session.scalar(
            select(RevisionRow.number).where(
                RevisionRow.job_id == row.id, RevisionRow.edit_id == change.edit_id
            )
        )
        return None if made is None else Draft(self._job(head), row, head, already=True)

    def undo(self, job_id: str, change: Change) -> StoredJob:
        return self.commit(self.draft_travel(job_id, change, back=True))

    def redo(self, job_id: str, change: Change) -> StoredJob:
        return self.commit(self.draft_travel(job_id, change, back=False))

    def remove(self, job_id: str) -> None:
        """Take a job off the list. Its revisions stay in the database."""
        with self._writing() as session:
            row, _ = _head(session, job_id)
            row.removed_at = self._now()

    @contextmanager
    def _reading(self) -> Iterator[Session]:
        with Session(self._engine, expire_on_commit=False) as session:
            yield session
            session.expunge_all()  # rows stay usable, and nothing is written back

    @contextmanager
    def _writing(self) -> Iterator[Session]:
        with (
            Session(self._engine.execution_options(writes=True), expire_on_commit=False) as session,
            session.begin(),
        ):
            yield session

    def _job(self, revision: RevisionRow) -> Job:
        """The job of a revision. Documents never change, so the last few are not parsed again."""
        job = self._parsed.get(revision.document)
        if job is None:
            job = self._readable(revision)
            self._remember(revision.document, job)
        return job

    @staticmethod
    def _readable(revision: RevisionRow) -> Job:
        try:
            return load_job(json.loads(revision.document), stored=True)
        except (FahrtwindError, ValueError, RecursionError) as error:
            raise UnreadableJob(
                f"This job cannot be read ({error}).",
                revision=revision.number,
                can_undo=revision.back_to is not None,
            ) from error

    def document(self, job_id: str) -> str:
        """The newest document as it is stored, whether or not this program can read it."""
        with self._reading() as session:
            return _head(session, job_id)[1].document

    def _remember(self, document: str, job: Job) -> None:
        self._parsed[document] = job
        while len(self._parsed) > REMEMBERED:
            self._parsed.popitem(last=False)

    def _revision(self, job_id: str, number: int, job: Job, summary: str, change: Change) -> RevisionRow:
        document = job.model_dump_json(exclude_none=True)
        self._remember(document, job)
        return RevisionRow(
            job_id=job_id,
            number=number,
            document=document,
            summary=summary,
            client=change.client[:60],
            edit_id=change.edit_id,
            merge_key="",
            at=self._now(),
            back_to=None,
            forward_to=None,
        )


def _head(session: Session, job_id: str) -> tuple[JobRow, RevisionRow]:
    row, number = _head_number(session, job_id)
    return row, session.get_one(RevisionRow, (job_id, number))


def _head_number(session: Session, job_id: str) -> tuple[JobRow, int]:
    """The job's row and the number of its newest revision, without reading the document."""
    row = session.get(JobRow, job_id)
    if row is None or row.removed_at is not None:
        raise NotFound("There is no such job.", remedy="Go back to the list of jobs.", field="job")
    return row, row.head


def _refuse_stale(head: RevisionRow, base_revision: int) -> None:
    if base_revision != head.number:
        raise Conflict(
            "The job was changed in another window.",
            remedy="Reload to see that change, or take over and save yours on top.",
            current_revision=head.number,
            changed_by=head.client,
        )


def _merge_key(edits: list[Edit]) -> str:
    return (
        ",".join(sorted({e.path for e in edits if isinstance(e, SetValue)}))[:200]
        if all(isinstance(e, SetValue) for e in edits)
        else ""
    )


def _same_gesture(head: RevisionRow, new: RevisionRow) -> bool:
    return (
        head.merge_key == new.merge_key
        and head.client == new.client
        and head.back_to is not None
        and timedelta(0) <= new.at - head.at <= MERGE_WITHIN  # a clock that was set back merges nothing
    )


def _stored(row: JobRow, revision: RevisionRow, job: Job) -> StoredJob:
    return StoredJob(
        row.id,
        revision.number,
        job,
        revision.summary,
        revision.client,
        revision.at.replace(tzinfo=UTC),
        revision.back_to is not None,
        revision.forward_to is not None,
    )
