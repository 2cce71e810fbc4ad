"""The job with all that was written down while it was built, as one JSON file: log, chain and photographs."""

from __future__ import annotations

import base64
import binascii
import json
from collections.abc import Iterable
from hashlib import sha256
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator

from fahrtwind.core.errors import UnreadableFile
from fahrtwind.core.job.dates import Moment
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.log.chain import ChainLink
from fahrtwind.files.job_file import LARGEST_BYTES, RECORD

MOST_OF_PICTURES = 0.8
"""Of what a file may have, so much is left to pictures; the newest come first, the others are named."""
Digest = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


class _Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True)


class WrittenEntry(_Strict):
    """An entry to the letter, as the chain was made over it."""

    number: Annotated[int, Field(ge=1, le=20_000)]
    at: Moment
    client: Annotated[str, Field(max_length=60)]
    entry_id: Annotated[str, Field(min_length=1, max_length=60)]
    document: Annotated[str, Field(max_length=4000)]
    digest: Digest


class WrittenFile(_Strict):
    """``content``: in base64; None where the file had no more room for it."""

    digest: Digest
    name: Annotated[str, Field(min_length=1, max_length=80)]
    content: str | None = None


class RecordFile(_Strict):
    fahrtwind_record: Literal[1] = 1
    job: dict[str, Any]
    log: Annotated[tuple[WrittenEntry, ...], Field(max_length=20_000)] = ()
    files: Annotated[tuple[WrittenFile, ...], Field(max_length=500)] = ()

    @model_validator(mode="after")
    def _each_once(self) -> RecordFile:
        for told in ([e.number for e in self.log], [e.entry_id for e in self.log]):
            if len(set(told)) < len(told):
                raise ValueError("an entry of the log is told twice")
        return self


@dataclass(frozen=True, slots=True)
class ReadRecord:
    """What came out of a file. ``pictures``: name and content of those that are in it."""

    job: Job
    log: tuple[WrittenEntry, ...] = ()
    pictures: tuple[tuple[str, bytes], ...] = ()


def write_record(job: Job, log: Iterable[WrittenEntry], files: Iterable[tuple[str, str, bytes]]) -> str:
    """``files``: digest, name and content, the newest first."""
    document = job.model_dump(mode="json", exclude_none=True)
    written = tuple(log)
    room = LARGEST_BYTES - len(json.dumps(document)) - sum(len(e.document) + 300 for e in written)
    room = int(room * MOST_OF_PICTURES)
    kept = []
    for digest, name, content in files:
        told = base64.b64encode(content).decode()
        fits = len(told) <= room
        room -= len(told) if fits else 0
        kept.append(WrittenFile(digest=digest, name=name, content=told if fits else None))
    return RecordFile(job=document, log=written, files=tuple(kept)).model_dump_json(indent=1) + "\n"


def is_record(document: Any) -> bool:
    return isinstance(document, dict) and RECORD in document


def read_record(document: dict[str, Any]) -> ReadRecord:
    """The parts of a record file. Raises UnreadableFile where they are none of ours, or an InputError that
    names the field of its job.
    """
    try:
        told = RecordFile.model_validate(document)
        pictures = tuple(_picture(f) for f in told.files if f.content is not None)
    except (ValidationError, binascii.Error, ValueError) as error:
        first = error.errors()[0] if isinstance(error, ValidationError) else None
        where = ".".join(str(part) for part in first["loc"]) if first else "files"
        raise UnreadableFile(
            f"The record in the file is damaged ({where}).",
            remedy="Take the record file as Fahrtwind wrote it.",
            field="file",
        ) from error
    return ReadRecord(load_job(told.job), told.log, pictures)


def _picture(file: WrittenFile) -> tuple[str, bytes]:
    content = base64.b64decode(file.content or "", validate=True)
    if sha256(content).hexdigest() != file.digest:
        raise ValueError("a picture is not the one that was written")
    return file.name, content


def link_of(entry: WrittenEntry) -> ChainLink:
    return ChainLink(entry.number, entry.at, entry.client, entry.document, entry.digest)
