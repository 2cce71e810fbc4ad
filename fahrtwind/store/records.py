"""What is kept beside a job's document: its log, which only grows, and its files by the hash of their
content.
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterable
from datetime import UTC, datetime, timedelta

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import Engine, delete, func, select
from sqlalchemy.orm import Session

from fahrtwind.core.errors import InputError, NotFound, TooLarge
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.log.chain import FIRST, ChainLink, digest_of, first_broken
from fahrtwind.core.stations.log.entries import Entry
from fahrtwind.store.jobs import utc_now
from fahrtwind.store.tables import AttachmentRow, ContentRow, JobRow, LogRow

MOST_ENTRIES, MOST_FILES = 20_000, 500
LARGEST_FILE_BYTES = 5_000_000
#: media type -> what its content begins with
KINDS: dict[str, bytes] = {
    "image/jpeg": b"\xff\xd8\xff",
    "image/png": b"\x89PNG\r\n\x1a\n",
    "application/pdf": b"%PDF-",
}
_ENTRY: TypeAdapter[Entry] = TypeAdapter(Entry)


@dataclass(frozen=True, slots=True)
class Logged:
    """An entry of the log with its number; when it came in, when it ``happened``, both in UTC; from which
    window; ``digest``: the hash over it and the one before.
    """

    number: int
    at: datetime
    happened: datetime
    client: str
    entry: Entry
    digest: str


@dataclass(frozen=True, slots=True)
class LetterOfLog:
    """An entry as it is stored; ``at`` in UTC."""

    number: int
    at: datetime
    client: str
    entry_id: str
    document: str
    digest: str


@dataclass(frozen=True, slots=True)
class Attachment:
    """A file of a job: the hash of its content is its address."""

    digest: str
    name: str
    media_type: str
    size: int
    at: datetime


class Records:
    """All reading and writing of logs and files.

    Args:
        engine: from ``open_database``.
        now: the clock, replaceable in tests.
    """

    def __init__(self, engine: Engine, now: Callable[[], datetime] = utc_now) -> None:
        self._engine, self._now = engine, now

    def log(self, job_id: str, after: int = 0) -> tuple[Logged, ...]:
        """Entries with a number over ``after``, in the order in which they came in."""
        with Session(self._engine) as session:
            _must_exist(session, job_id)
            rows = session.scalars(
                select(LogRow).where(LogRow.job_id == job_id, LogRow.number > after).order_by(LogRow.number)
            ).all()
            return tuple(_logged(row) for row in rows)

    def write(self, job_id: str, client: str, entry_id: str, entry: Entry) -> Logged:
        """Add an entry. The same ``entry_id`` sent again is the same entry, not a second one."""
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            _must_exist(session, job_id)
            own = select(LogRow).where(LogRow.job_id == job_id)
            known = session.scalar(own.where(LogRow.entry_id == entry_id))
            if known is not None:
                return _logged(known)
            last = session.scalar(own.order_by(LogRow.number.desc()).limit(1))
            number = 1 + (last.number if last else 0)
            if number > MOST_ENTRIES:
                raise TooLarge("The log is full.", remedy="Start a new job for what comes.", field="entry")
            at, document = self._now(), entry.model_dump_json()
            row = LogRow(
                job_id=job_id,
                number=number,
                at=at,
                client=client,
                entry_id=entry_id,
                document=document,
                digest=digest_of(last.digest if last else FIRST, number, at, client, document),
            )
            session.add(row)
            return _logged(row)

    def to_the_letter(self, job_id: str) -> tuple[LetterOfLog, ...]:
        """The log as it is stored, for whoever takes it elsewhere."""
        with Session(self._engine) as session:
            _must_exist(session, job_id)
            rows = session.scalars(
                select(LogRow).where(LogRow.job_id == job_id).order_by(LogRow.number)
            ).all()
            return tuple(
                LetterOfLog(r.number, r.at.replace(tzinfo=UTC), r.client, r.entry_id, r.document, r.digest)
                for r in rows
            )

    def restore(self, job_id: str, log: Iterable[LetterOfLog]) -> None:
        """Put a log that came from elsewhere into a job that has none yet, to the letter: what was changed on
        the way shows. Raises InputError where an entry cannot be read.
        """
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            _must_exist(session, job_id)
            for entry in log:
                try:
                    _ENTRY.validate_json(entry.document)
                except ValidationError as error:
                    raise InputError(
                        f"Entry {entry.number} of the record cannot be read.",
                        remedy="Take the record file as Fahrtwind wrote it.",
                        field="file",
                    ) from error
                at = entry.at.astimezone(UTC).replace(tzinfo=None)
                row = LogRow(
                    job_id=job_id,
                    number=entry.number,
                    at=at,
                    client=entry.client,
                    entry_id=entry.entry_id,
                    document=entry.document,
                    digest=entry.digest,
                )
                session.add(row)

    def broken(self, job_id: str) -> int | None:
        """The first entry that is not as it was written; None where the whole log is."""
        with Session(self._engine) as session:
            _must_exist(session, job_id)
            rows = session.scalars(
                select(LogRow).where(LogRow.job_id == job_id).order_by(LogRow.number)
            ).all()
            return first_broken(ChainLink(r.number, r.at, r.client, r.document, r.digest) for r in rows)

    def attachments(self, job_id: str) -> tuple[Attachment, ...]:
        with Session(self._engine) as session:
            _must_exist(session, job_id)
            rows = session.execute(
                select(AttachmentRow, ContentRow.media_type, func.length(ContentRow.content))
                .join(ContentRow, ContentRow.digest == AttachmentRow.digest)
                .where(AttachmentRow.job_id == job_id)
                .order_by(AttachmentRow.at, AttachmentRow.name)
            ).all()
            return tuple(Attachment(row.digest, row.name, kind, size, row.at) for row, kind, size in rows)

    def attach(self, job_id: str, name: str, content: bytes) -> Attachment:
        """Keep a photograph or a document with a job. Raises TooLarge, or InputError for other kinds of
        file.
        """
        kind = next((kind for kind, start in KINDS.items() if content.startswith(start)), None)
        if len(content) > LARGEST_FILE_BYTES:
            raise TooLarge("The file is over 5 MB.", remedy="Take a smaller picture.", field="file")
        if kind is None:
            raise InputError(
                "This is no JPEG, PNG or PDF.", remedy="Choose a photograph or a PDF.", field="file"
            )
        digest = hashlib.sha256(content).hexdigest()
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            _must_exist(session, job_id)
            if session.get(ContentRow, digest) is None:
                session.add(ContentRow(digest=digest, media_type=kind, content=content))
                session.flush()
            row = session.get(AttachmentRow, (job_id, digest))
            if row is None:
                count = session.scalar(
                    select(func.count()).select_from(AttachmentRow).where(AttachmentRow.job_id == job_id)
                )
                if (count or 0) >= MOST_FILES:
                    raise TooLarge(
                        f"A job keeps {MOST_FILES} files.", remedy="Remove some first.", field="file"
                    )
                row = AttachmentRow(job_id=job_id, digest=digest, name=name, at=self._now())
                session.add(row)
            return Attachment(digest, row.name, kind, len(content), row.at)

    def content(self, job_id: str, digest: str) -> tuple[str, bytes]:
        """Media type and content of a job's file."""
        with Session(self._engine) as session:
            if session.get(AttachmentRow, (job_id, digest)) is None:
                raise NotFound("The job has no such file.", remedy="Reload the list.", field="digest")
            found = session.get_one(ContentRow, digest)
            return found.media_type, found.content

    def detach(self, job_id: str, digest: str) -> None:
        """Take a file off a job; its content goes when no job has it any more. Raises InputError where the
        log tells of it.
        """
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(AttachmentRow, (job_id, digest))
            if row is None:
                raise NotFound("The job has no such file.", remedy="Reload the list.", field="digest")
            told = select(LogRow.number).where(LogRow.job_id == job_id, LogRow.document.contains(digest))
            if (number := session.scalar(told.limit(1))) is not None:
                raise InputError(
                    f"Entry {number} of the log tells of this file.",
                    remedy="Leave it: what the log tells of stays.",
                    field="digest",
                )
            session.delete(row)
            session.flush()
            still = session.scalar(
                select(AttachmentRow.digest).where(AttachmentRow.digest == digest).limit(1)
            )
            if still is None:
                session.execute(delete(ContentRow).where(ContentRow.digest == digest))


def _must_exist(session: Session, job_id: str) -> None:
    row = session.get(JobRow, job_id)
    if row is None or row.removed_at is not None:
        raise NotFound("There is no such job.", remedy="Go back to the list of jobs.", field="job")


def _logged(row: LogRow) -> Logged:
    entry, at = _ENTRY.validate_json(row.document), row.at.replace(tzinfo=UTC)
    return Logged(row.number, at, at - timedelta(seconds=entry.ago_s), row.client, entry, row.digest)
