"""Phones of the crew: who was let in to which job, and sent away again."""

from __future__ import annotations

import secrets
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from hashlib import sha256

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from fahrtwind.core.errors import NotFound, TooLarge
from fahrtwind.core.records import dataclass
from fahrtwind.store.jobs import utc_now
from fahrtwind.store.tables import JobRow, PhoneRow

MOST_PHONES = 20
KEEPS = timedelta(days=30)
"""A phone that was let in stays so for this long; then it pairs anew."""


@dataclass(frozen=True, slots=True)
class Phone:
    """``name``: as its owner typed it; ``paired_at``: in UTC."""

    id: str
    job_id: str
    name: str
    paired_at: datetime


class Phones:
    """All reading and writing of paired phones. Each request of a phone asks for its key: those are held in
    memory.

    Args:
        engine: from ``open_database``.
        now: the clock, replaceable in tests.
    """

    def __init__(self, engine: Engine, now: Callable[[], datetime] = utc_now) -> None:
        self._engine, self._now = engine, now
        with Session(engine) as session:
            rows = session.scalars(select(PhoneRow)).all()
            self._by_key = {row.key_digest: _phone(row) for row in rows}

    def of(self, job_id: str) -> tuple[Phone, ...]:
        """Phones that may come in to a job, the first paired first."""
        here = [p for p in self._by_key.values() if p.job_id == job_id and self._still(p)]
        return tuple(sorted(here, key=lambda p: p.paired_at))

    def known(self, key: str) -> Phone | None:
        """The phone that carries this key; None where there is none, it was sent away or its time is over."""
        phone = self._by_key.get(_digest(key))
        return phone if phone is not None and self._still(phone) else None

    def pair(self, job_id: str, name: str) -> tuple[Phone, str]:
        """Let a phone in to a job; told is the key that it shows from now on. Raises NotFound without such a
        job, TooLarge where too many are in.
        """
        if len(self.of(job_id)) >= MOST_PHONES:
            words = f"{MOST_PHONES} phones are in already."
            raise TooLarge(words, remedy="Send one away first, under Roof day.", field="name")
        key = secrets.token_urlsafe(32)
        row = PhoneRow(
            id=secrets.token_hex(6), job_id=job_id, name=name, key_digest=_digest(key), paired_at=self._now()
        )
        phone = _phone(row)
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            job = session.get(JobRow, job_id)
            if job is None or job.removed_at is not None:
                raise NotFound("There is no such job any more.", remedy="Open another.", field="job")
            session.add(row)
        self._by_key[_digest(key)] = phone
        return phone, key

    def send_away(self, job_id: str, phone_id: str) -> None:
        """From now on the phone is a stranger. Raises NotFound where the job has none of that id."""
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(PhoneRow, phone_id)
            if row is None or row.job_id != job_id:
                raise NotFound("There is no such phone.", remedy="Reload the list.", field="phone")
            session.delete(row)
            self._by_key.pop(row.key_digest, None)

    def _still(self, phone: Phone) -> bool:
        return self._now().replace(tzinfo=UTC) - phone.paired_at < KEEPS


def _digest(key: str) -> str:
    return sha256(key.encode()).hexdigest()


def _phone(row: PhoneRow) -> Phone:
    return Phone(row.id, row.job_id, row.name, row.paired_at.replace(tzinfo=UTC))
