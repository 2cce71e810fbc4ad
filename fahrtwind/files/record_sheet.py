"""The record as a PDF: every entry, whether the chain over them is whole, and the photographs."""

from __future__ import annotations

import base64
from collections.abc import Callable, Iterable
from datetime import datetime

from pydantic import TypeAdapter

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.log.chain import first_broken
from fahrtwind.core.stations.log.entries import Entry, Photographed, entry_words
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
MOST_PICTURES = 60
"""On paper; the newest. The others stay with the job."""
Content = Callable[[str], tuple[str, bytes]]
"""Media type and bytes of what is kept under a digest."""


def write_record_sheet(
    job: Job, evaluation: Evaluation, log: Iterable[WrittenEntry], stamp: Stamp, content: Content
) -> bytes:
    """All entries, the oldest first, then the photographs that they tell of."""
    entries = tuple(log)
    told, left_out = _pictures(entries, content)
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
            "pictures": told,
            "left_out": f"{left_out} older photographs are kept with the job." if left_out else "",
            "limits": LIMITS,
        },
    )


def built_rows(built: Iterable[BuiltFinding]) -> list[list[str]]:
    """Where each recorded foot is, and what its pilot hole met."""
    met = {"solid": "met metal", "through": "met nothing", None: ""}
    return [[b.where, b.words, met[b.pilot]] for b in built]


def _pictures(entries: tuple[WrittenEntry, ...], content: Content) -> tuple[list[list[str]], int]:
    """Each as a drawing that holds it, with its words; and how many there was no room for."""
    taken = [(e, entry) for e in entries if isinstance(entry := _entry(e), Photographed)]
    told = []
    for written, entry in taken[-MOST_PICTURES:]:
        kind, picture = content(entry.digest)
        if not kind.startswith("image/"):
            continue
        words = ", ".join(word for word in (entry.place, entry.text, entry.digest[:8]) if word)
        told.append([_framed(kind, picture), f"{written.number}  {_when(written.at)}", words])
    return told, max(0, len(taken) - MOST_PICTURES)


def _framed(kind: str, picture: bytes) -> str:
    """An SVG round a photograph: one that is damaged leaves its frame empty, and the sheet is still made."""
    data = base64.b64encode(picture).decode()
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="300" '
        f'fill="#e8e8e4"/><image width="400" height="300" href="data:{kind};base64,{data}"/></svg>'
    )


def _entry(written: WrittenEntry) -> Entry:
    return _ENTRY.validate_json(written.document)


def _row(written: WrittenEntry) -> list[str]:
    entry = _entry(written)
    who = "" if _is_window(written.client) else written.client
    return [str(written.number), _when(written.at), who, entry_words(entry), written.digest[:8]]


def _when(at: datetime) -> str:
    return f"{at:%-d %b %Y %H:%M}"


def _is_window(client: str) -> bool:
    """Windows of the desk have no name, only an id."""
    return len(client) >= 32 and all(c in "0123456789abcdef-" for c in client)
