"""Routes of the jobs: list, create, read, edit, undo, what-if, working, files, import."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal
from urllib.parse import quote

from fastapi import APIRouter, Body, Depends, Query, Request, Response
from pydantic_core import to_json
from starlette.background import BackgroundTask

from fahrtwind.api.admission import phone_of
from fahrtwind.api.changes import New, changed
from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.keeping import Keeping
from fahrtwind.api.schemas import (
    ChangeRequest,
    Client,
    Direction,
    EditRequest,
    Held,
    JobAnswer,
    JobListed,
    JobNews,
    Looking,
    NewJob,
    Probe,
    RevisionAnswer,
    WhatIf,
    WhatIfNews,
)
from fahrtwind.core.edits import apply_edits
from fahrtwind.core.errors import FahrtwindError, NotFound, UnreadableJob
from fahrtwind.core.evaluate import Evaluation, evaluate, evaluate_in_sight
from fahrtwind.core.job.document import Job, Vehicle
from fahrtwind.core.job.load import load_job
from fahrtwind.core.working import Working, working
from fahrtwind.files.drawing import Stamp
from fahrtwind.files.dxf import to_dxf
from fahrtwind.files.exports import EXPORTS
from fahrtwind.files.job_file import read_document
from fahrtwind.files.pieces_drawing import pieces_drawing
from fahrtwind.files.record_file import is_record, read_record
from fahrtwind.files.svg import to_svg
from fahrtwind.store.answers import Answers
from fahrtwind.store.jobs import Change, Draft, JobStore
from fahrtwind.store.records import LetterOfLog, Records

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERROR_RESPONSES)


def job_store(request: Request) -> JobStore:
    store: JobStore = request.app.state.store
    return store


Store = Annotated[JobStore, Depends(job_store)]


def _json(answer: JobAnswer) -> Response:
    """Written straight to JSON: validating an evaluation that was just computed would double the time."""
    return _as_told(answer.__pydantic_serializer__.to_json(answer, warnings=False))


def _as_told(answer: bytes) -> Response:
    return Response(answer, media_type="application/json")


def answer_of(store: JobStore, job_id: str) -> tuple[int, bytes]:
    """The newest revision of a job and what a window is told of it."""
    stored = store.get(job_id)
    return stored.revision, bytes(_json(JobAnswer.of(stored, evaluate(stored.job))).body)


def _news(store: JobStore, job_id: str, held: Held, job: Job, evaluation: Evaluation) -> list[New] | None:
    """What is new against the answer that a window has; None where that one cannot be told any more."""
    try:
        before = store.at(job_id, held.revision)
    except (NotFound, UnreadableJob):
        return None
    known = evaluate(before, held.probe_m_s)
    return [*changed(before, job, ("job",)), *changed(known, evaluation, ("evaluation",))]


def _created(store: JobStore, job: Job, client: str, summary: str = "Started the job") -> Response:
    evaluation = evaluate(job)
    response = _json(JobAnswer.of(store.create(job, client, summary), evaluation))
    response.status_code = 201
    return response


def _change(given: ChangeRequest) -> Change:
    return Change(given.base_revision, given.client, given.edit_id)


@router.get("", response_model=list[JobListed])
def list_jobs(request: Request, store: Store) -> list[JobListed]:
    """All jobs; a phone is told of its own."""
    phone = phone_of(request)
    told = [s for s in store.summaries() if phone is None or s.id == phone.job_id]
    return [JobListed.model_validate(s, from_attributes=True) for s in told]


@router.post("", response_model=JobAnswer, status_code=201)
def create_job(given: NewJob, store: Store) -> Response:
    job = Job(name=given.name, units=given.units, vehicle=Vehicle(kind=given.kind))
    return _created(store, job, given.client)


@router.post("/import", response_model=JobAnswer, status_code=201)
def import_job(
    request: Request,
    store: Store,
    client: Annotated[Client, Query()],
    data: Annotated[
        bytes, Body(media_type="application/octet-stream", description="A job file, at most 5 MB")
    ],
) -> Response:
    """A job file, or a record file with its log and photographs: then these come in with it."""
    document = read_document(data)
    if not is_record(document):
        return _created(store, load_job(document), client, "Imported a job file")
    told = read_record(document)
    evaluation = evaluate(told.job)
    stored = store.create(told.job, client, "Imported a record")
    records: Records = request.app.state.records
    try:
        for name, content in told.pictures:
            records.attach(stored.id, name, content)
        records.restore(stored.id, (LetterOfLog(**e.model_dump()) for e in told.log))
    except FahrtwindError:
        store.remove(stored.id)
        raise
    response = _json(JobAnswer.of(stored, evaluation))
    response.status_code = 201
    return response


@router.get("/{job_id}", response_model=JobAnswer)
def read_one(
    request: Request, job_id: str, store: Store, probe_m_s: Annotated[Probe | None, Query()] = None
) -> Response:
    """What was kept of the job as it stands is told at once, and worked out behind it for what is asked
    next.
    """
    if probe_m_s is not None:
        stored = store.get(job_id)
        return _json(JobAnswer.of(stored, evaluate(stored.job, probe_m_s)))
    answers: Answers = request.app.state.answers
    keeping: Keeping = request.app.state.keeping
    kept = answers.of(job_id)
    if kept is not None:
        response = _as_told(kept)
        response.background = BackgroundTask(keeping.work_out, job_id)
        return response
    revision, told = answer_of(store, job_id)
    response = _as_told(told)
    response.background = BackgroundTask(keeping.put, job_id, revision, told)
    return response


@router.delete("/{job_id}", status_code=204, response_class=Response)
def remove_job(job_id: str, store: Store) -> Response:
    store.remove(job_id)
    return Response(status_code=204)


@router.get("/{job_id}/revision", response_model=RevisionAnswer)
def read_revision(job_id: str, store: Store) -> RevisionAnswer:
    number, client = store.revision(job_id)
    return RevisionAnswer(revision=number, changed_by=client)


def _committed(store: JobStore, draft: Draft, asked: Looking) -> Response:
    """Everything that follows is worked out before the change is stored."""
    evaluation = evaluate(draft.job, asked.probe_m_s)
    stored = store.commit(draft)
    if stored.job is not draft.job:
        evaluation = evaluate(stored.job, asked.probe_m_s)
    answer = JobAnswer.of(stored, evaluation)
    new = asked.held and _news(store, stored.id, asked.held, stored.job, evaluation)
    if new is None:
        return _json(answer)
    head = answer.model_dump(mode="json", exclude={"job", "evaluation"})
    return Response(to_json({**head, "changes": new}), media_type="application/json")


@router.post("/{job_id}/edits", response_model=JobNews | JobAnswer)
def edit_job(job_id: str, given: EditRequest, store: Store) -> Response:
    """Store edits. Told is what is new against ``held``, everything without it."""
    return _committed(store, store.draft_edit(job_id, _change(given), given.edits), given)


@router.post("/{job_id}/travel/{direction}", response_model=JobNews | JobAnswer)
def travel(job_id: str, direction: Direction, given: ChangeRequest, store: Store) -> Response:
    return _committed(store, store.draft_travel(job_id, _change(given), back=direction == "undo"), given)


@router.post("/{job_id}/what-if", response_model=WhatIfNews | Evaluation)
def what_if(job_id: str, given: WhatIf, store: Store) -> Response:
    """The evaluation the job would have with these edits, or what would be new in it; nothing is stored."""
    stored = store.get(job_id)
    job, probe = apply_edits(stored.job, given.edits), given.probe_m_s
    if given.stations is None:
        evaluation = evaluate(job, probe)
    else:
        evaluation = evaluate_in_sight(job, evaluate(stored.job, probe), given.stations, probe)
    new = given.held and _news(store, job_id, given.held, stored.job, evaluation)
    if new is None:
        return Response(to_json(evaluation), media_type="application/json")
    return Response(to_json({"changes": new}), media_type="application/json")


@router.get("/{job_id}/working", response_model=Working)
def read_working(
    job_id: str,
    store: Store,
    place: Annotated[str, Query(max_length=120)],
    probe_m_s: Annotated[Probe | None, Query()] = None,
) -> Working:
    """The working sheet of a number: for example ``air`` or ``hold/p1/f2/link base``."""
    return working(store.get(job_id).job, place, probe_m_s)


@router.get("/{job_id}/pieces/{piece}/{form}", response_class=Response)
def read_piece(job_id: str, piece: str, form: Literal["dxf", "svg"], store: Store) -> Response:
    """One piece face by face at true scale."""
    stored = store.get(job_id)
    own = tuple(p for p in evaluate(stored.job).findings.pieces if p.id == piece)
    if not own:
        raise NotFound(f"The job has no piece {piece}.", remedy="Reload the list of pieces.", field="piece")
    drawing = pieces_drawing(own, stored.job.units, Stamp(date.today(), stored.revision))
    name = f'attachment; filename="{piece}.{form}"'
    if form == "svg":
        return Response(to_svg(drawing), media_type="image/svg+xml", headers={"content-disposition": name})
    return Response(to_dxf(drawing), media_type="image/vnd.dxf", headers={"content-disposition": name})


@router.get("/{job_id}/files/{name}", response_class=Response)
def read_file(request: Request, job_id: str, name: str, store: Store) -> Response:
    export = EXPORTS.get(name)
    if export is None:
        raise NotFound(
            f"There is no file {name}.", remedy=f"Ask for one of {', '.join(EXPORTS)}.", field="name"
        )
    try:
        stored = store.get(job_id)
    except UnreadableJob:
        if name != "job.json":
            raise
        disposition = f'attachment; filename="{job_id}-{name}"'
        return Response(
            store.document(job_id), media_type=export.media_type, headers={"content-disposition": disposition}
        )
    stamp = Stamp(date.today(), stored.revision, f"{str(request.base_url).rstrip('/')}/jobs/{job_id}")
    job = stored.job
    stem = (
        "".join(c if c.isascii() and (c.isalnum() or c in "-_") else "-" for c in job.name).strip("-")
        or "job"
    )
    disposition = (
        f"attachment; filename=\"{stem}-{name}\"; filename*=UTF-8''{quote(job.name, safe='')}-{name}"
    )
    return Response(
        export.write(job, evaluate(job), stamp),
        media_type=export.media_type,
        headers={"content-disposition": disposition},
    )
