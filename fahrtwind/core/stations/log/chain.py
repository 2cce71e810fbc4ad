"""The log as a chain: each entry carries a hash over itself and the one before, so that a change shows."""

from __future__ import annotations

import json
from collections.abc import Iterable
from datetime import UTC, datetime
from hashlib import sha256

from fahrtwind.core.records import dataclass

FIRST = "0" * 64
"""What the first entry stands on."""


@dataclass(frozen=True, slots=True)
class ChainLink:
    """An entry as it was written; ``document``: its JSON to the letter."""

    number: int
    at: datetime
    client: str
    document: str
    digest: str


def digest_of(before: str, number: int, at: datetime, client: str, document: str) -> str:
    """SHA-256 over the digest before and the entry; times count in UTC."""
    moment = at.replace(tzinfo=UTC) if at.tzinfo is None else at.astimezone(UTC)
    told = json.dumps([before, number, moment.isoformat(), client, document], ensure_ascii=False)
    return sha256(told.encode()).hexdigest()


def first_broken(links: Iterable[ChainLink]) -> int | None:
    """The number of the first entry that is not what was written, is missing or out of turn; None where the
    chain is whole.
    """
    before = FIRST
    for number, link in enumerate(links, start=1):
        if link.number != number:
            return number
        if digest_of(before, link.number, link.at, link.client, link.document) != link.digest:
            return link.number
        before = link.digest
    return None
