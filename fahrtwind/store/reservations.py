"""What jobs keep of the shop's stock, so that no two of them count the same bar.

A job's own document says what it keeps: no second list can disagree with it. Removed jobs keep nothing.
"""

from __future__ import annotations

import json
from collections import Counter

from sqlalchemy import select
from sqlalchemy.orm import Session

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.workshop import ShopItem, Workshop
from fahrtwind.core.records import dataclass
from fahrtwind.store.tables import JobRow, RevisionRow, ShopItemRow


@dataclass(frozen=True, slots=True)
class Kept:
    """So many units of an item are kept for a job."""

    job: str
    name: str
    amount: float


def kept_by(workshop: Workshop) -> Counter[str]:
    """What a job keeps, by the shop's name of it: reserved units, and bars that lie there for it."""
    kept: Counter[str] = Counter()
    for item in workshop.items:
        kept[item.name] += item.reserved  # type: ignore[assignment]  # units may be metres
    for bar in workshop.stock:
        if bar.item is not None and bar.have is not None:
            kept[bar.item] += bar.have
    return +kept


def kept_of_all(session: Session) -> dict[str, list[Kept]]:
    """By item, which jobs keep how much of it; jobs that cannot be read keep nothing that is known."""
    rows = session.execute(
        select(JobRow.id, RevisionRow.document)
        .join(RevisionRow, (RevisionRow.job_id == JobRow.id) & (RevisionRow.number == JobRow.head))
        .where(JobRow.removed_at.is_(None), RevisionRow.document.contains('"items"'))
    )
    told: dict[str, list[Kept]] = {}
    for job_id, document in rows:
        try:
            content = json.loads(document)
            workshop = Workshop.model_validate(content.get("workshop", {}))
        except ValueError:
            continue
        for name, amount in kept_by(workshop).items():
            told.setdefault(name, []).append(Kept(job_id, str(content.get("name", "")), amount))
    return told


def refuse_double(session: Session, job_id: str, before: Workshop, after: Workshop) -> None:
    """Raises InputError where a job would keep more of an item than the other jobs leave of the stock. What
    it kept before it may go on keeping: the stock may have shrunk since.
    """
    had, wants = kept_by(before), kept_by(after)
    more = [name for name, amount in wants.items() if amount > had.get(name, 0.0)]
    if not more:
        return
    others = kept_of_all(session)
    for name in more:
        row = session.get(ShopItemRow, name)
        if row is None:
            continue  # not of this shop: the job's own affair
        stock = ShopItem.model_validate_json(row.document).stock
        elsewhere = [kept for kept in others.get(name, []) if kept.job != job_id]
        free = stock - sum(kept.amount for kept in elsewhere)
        if wants[name] > free + 1e-9:
            whose = ", ".join(dict.fromkeys(kept.name for kept in elsewhere))
            raise InputError(
                f"Of {name} {max(free, 0):g} are free; {wants[name]:g} are wanted"
                + (f" and {whose} keeps the rest." if whose else "."),
                remedy="Keep fewer, free some in the other job, or buy them.",
                field="workshop.items",
            )
