"""Routes of what is kept beside a job: its log and its files."""

from __future__ import annotations

from dataclasses import asdict
from datetime import UTC, date, datetime
from typing import Annotated

from fastapi import APIRouter, Body, Depends, Path, Query, Request, Response
from pydantic import BaseModel

from fahrtwind.api.admission import phone_of
from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.api.schemas import Client, EditId
from fahrtwind.api.schemas import Request as Strict
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.part import Name
from fahrtwind.core.stations.days.activities import Network
from fahrtwind.core.stations.days.from_record import DoneByRecord, Noted, done_by_record
from fahrtwind.core.stations.log.entries import (
    Clock,
    Entry,
    StepTicked,
    Tick,
    clocks,
    step_of,
    steps_done,
    ticked,
)
from fahrtwind.files.drawing import Stamp
from fahrtwind.files.record_file import WrittenEntry, write_record
from fahrtwind.files.record_sheet import write_record_sheet
from fahrtwind.store.records import Attachment, Logged, Records

router = APIRouter(prefix="/api/jobs/{job_id}", tags=["records"], responses=ERROR_RESPONSES)


def records_of(request: Request) -> Records:
    records: Records = request.app.state.records
    return records


TheRecords = Annotated[Records, Depends(records_of)]
Digest = Annotated[str, Path(pattern=r"^[0-9a-f]{64}$")]


class NewEntry(Strict):
    client: Client
    entry_id: EditId
    entry: Entry


class JobLog(BaseModel):
    """The log as far as it was asked for, and what it comes to; ``clocks`` run by
    this machine's clock, which says ``now``; ``broken_at``: the first entry that is not as
    it was written, None where the chain is whole.
    """

    entries: tuple[Logged, ...]
    steps_done: tuple[str, ...]
    ticked: tuple[Tick, ...]
    clocks: tuple[Clock, ...]
    now: datetime
    broken_at: int | None


def _log(records: Records, job_id: str, after: int) -> JobLog:
    entries = records.log(job_id)
    told = tuple(e.entry for e in entries)
    return JobLog(
        entries=tuple(e for e in entries if e.number > after),
        steps_done=tuple(sorted(steps_done(told))),
        ticked=tuple(sorted(ticked(told))),
        clocks=clocks(tuple((e.at, e.entry) for e in entries)),
        now=datetime.now(UTC),
        broken_at=records.broken(job_id),
    )


@router.get("/log")
def read_log(job_id: str, records: TheRecords, after: Annotated[int, Query(ge=0)] = 0) -> JobLog:
    """What was done and seen, in the order in which it came in; with ``after`` only entries that are
    newer.
    """
    return _log(records, job_id, after)


@router.post("/log", status_code=201)
def write_log(request: Request, job_id: str, given: NewEntry, records: TheRecords) -> JobLog:
    """Add an entry and tell the log. Sent twice under one ``entry_id`` it is written once. A phone that was
    let in writes under its owner's name.
    """
    phone = phone_of(request)
    client = phone.name if phone else given.client
    written = records.write(job_id, client, given.entry_id, given.entry)
    return _log(records, job_id, written.number - 1)


@router.get("/log/done")
def read_done(job_id: str, store: Store, records: TheRecords) -> tuple[DoneByRecord, ...]:
    """When steps were really done, by the log, of those that the plan does not have as done yet."""
    job = store.get(job_id).job
    noted = tuple(
        Noted(step_of(e.entry), e.happened, e.entry.done if isinstance(e.entry, StepTicked) else None)
        for e in records.log(job_id)
    )
    seen = visit(job)
    return done_by_record(seen.get("network") or Network((), ()), seen.get("steps", ()), noted, job.days)


@router.get("/record.json", response_class=Response)
def read_record_file(job_id: str, store: Store, records: TheRecords) -> Response:
    """The job with its log and, as far as they find room, its photographs: it comes back by import."""
    job = store.get(job_id).job
    pictures = (
        (a.digest, a.name, records.content(job_id, a.digest)[1])
        for a in reversed(records.attachments(job_id))
    )
    told = write_record(job, _written(records, job_id), pictures)
    headers = {"content-disposition": f'attachment; filename="{job_id}-record.json"'}
    return Response(told, media_type="application/json", headers=headers)


@router.get("/record.pdf", response_class=Response)
def read_record_sheet(job_id: str, store: Store, records: TheRecords) -> Response:
    stored = store.get(job_id)
    stamp = Stamp(date.today(), stored.revision)
    entries = _written(records, job_id)
    told = write_record_sheet(
        stored.job, evaluate(stored.job), entries, stamp, lambda digest: records.content(job_id, digest)
    )
    headers = {"content-disposition": f'attachment; filename="{job_id}-record.pdf"'}
    return Response(told, media_type="application/pdf", headers=headers)


def _written(records: Records, job_id: str) -> tuple[WrittenEntry, ...]:
    return tuple(WrittenEntry(**asdict(entry)) for entry in records.to_the_letter(job_id))


@router.get("/attachments")
def list_attachments(job_id: str, records: TheRecords) -> tuple[Attachment, ...]:
    return records.attachments(job_id)


@router.post("/attachments", status_code=201)
def attach(
    job_id: str,
    records: TheRecords,
    name: Annotated[Name, Query()],
    content: Annotated[
        bytes, Body(media_type="application/octet-stream", description="JPEG, PNG or PDF, at most 5 MB")
    ],
) -> Attachment:
    """Keep a photograph or a document with the job; it is addressed by the hash of its content."""
    return records.attach(job_id, name, content)


@router.get("/attachments/{digest}", response_class=Response)
def read_attachment(job_id: str, digest: Digest, records: TheRecords) -> Response:
    media_type, content = records.content(job_id, digest)
    headers = {"x-content-type-options": "nosniff", "content-disposition": "inline"}
    return Response(content, media_type=media_type, headers=headers)


@router.delete("/attachments/{digest}", status_code=204, response_class=Response)
def detach(job_id: str, digest: Digest, records: TheRecords) -> Response:
    records.detach(job_id, digest)
    return Response(status_code=204)
