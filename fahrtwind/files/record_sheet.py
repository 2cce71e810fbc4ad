"""The record as a PDF: every entry, and whether the chain over them is whole."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from pydantic import TypeAdapter

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.log.chain import first_broken
from fahrtwind.core.stations.log.entries import Entry, entry_words
from fahrtwind.core.stations.roof_day.built import BuiltFinding
from fahrtwind.files.drawing import Stamp
from fahrtwind.files.record_file import WrittenEntry, link_of
from fahrtwind.files.workshop_sheets import PAPERS, compile_sheet

_ENTRY: TypeAdapter[Entry] = TypeAdapter(Entry)
LIMITS = (
    "Entries are added and never changed: each carries a hash over itself and the one before, so a changed "
    "record shows. A correction stands beside what it corrects. Photographs are kept with the job under the "
    "hash that is told here."
)


def write_record_sheet(job: Job, evaluation: Evaluation, log: Iterable[WrittenEntry], stamp: Stamp) -> bytes:
    """All entries, the oldest first."""
    entries = tuple(log)
    broken = first_broken(link_of(e) for e in entries)
    chain = (
        f"{len(entries)} entries; the chain over them is whole."
        if broken is None
        else f"ENTRY {broken} IS NOT AS IT WAS WRITTEN, or one before it is missing."
    )
    return compile_sheet(
        "record.typ",
        {
            "title": f"Record: {job.name}",
            "stamp": stamp.words(),
            "paper": PAPERS[job.units],
            "chain": chain,
            "built": built_rows(evaluation.findings.as_built),
            "entries": [_row(e) for e in entries],
            "limits": LIMITS,
        },
    )


def built_rows(built: Iterable[BuiltFinding]) -> list[list[str]]:
    """Where each recorded foot is, and what its pilot hole met."""
    met = {"solid": "met metal", "through": "met nothing", None: ""}
    return [[b.where, b.words, met[b.pilot]] for b in built]


def _row(written: WrittenEntry) -> list[str]:
    entry = _ENTRY.validate_json(written.document)
    who = "" if _is_window(written.client) else written.client
    return [str(written.number), _when(written.at), who, entry_words(entry), written.digest[:8]]


def _when(at: datetime) -> str:
    return f"{at:%-d %b %Y %H:%M}"


def _is_window(client: str) -> bool:
    """Windows of the desk have no name, only an id."""
    return len(client) >= 32 and all(c in "0123456789abcdef-" for c in client)
