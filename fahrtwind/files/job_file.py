"""The whole job as one JSON file, out and in again without loss, with a published schema."""

from __future__ import annotations

import json
from typing import Any

from fahrtwind.core.errors import TooLarge, UnreadableFile
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job

LARGEST_BYTES = 5_000_000
DEEPEST = 12
RECORD = "fahrtwind_record"
"""A file that has this has a log beside its job."""


def write_job(job: Job) -> str:
    return json.dumps(job.model_dump(mode="json", exclude_none=True), indent=1, ensure_ascii=False) + "\n"


def read_job(data: bytes) -> Job:
    """Read a job file, or the job of a record file. Raises TooLarge, UnreadableFile, NewerFile or an
    InputError that names the field.
    """
    document = read_document(data)
    return load_job(document["job"] if isinstance(document, dict) and RECORD in document else document)


def read_document(data: bytes) -> Any:
    """The JSON of a job or record file, its size and depth checked. Raises TooLarge or UnreadableFile."""
    if len(data) > LARGEST_BYTES:
        raise TooLarge(
            f"The file has {len(data) / 1e6:.1f} MB; a job file has at most {LARGEST_BYTES / 1e6:.0f} MB.",
            remedy="Choose a job file written by Fahrtwind.",
            field="file",
        )
    try:
        document = json.loads(data.decode("utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as error:
        raise UnreadableFile(
            f"The file is damaged or not a job file ({_where(error)}).",
            remedy="Export the job again and take that file.",
            field="file",
        ) from error
    if _depth(document) > DEEPEST:
        raise UnreadableFile(
            "The file is nested too deeply for a job.",
            remedy="Choose a job file written by Fahrtwind.",
            field="file",
        )
    return document


def job_schema() -> dict[str, Any]:
    """The JSON Schema of the job document (draft 2020-12)."""
    schema = Job.model_json_schema(mode="serialization")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}


def _where(error: Exception) -> str:
    return (
        f"it breaks off or goes wrong at line {error.lineno}"
        if isinstance(error, json.JSONDecodeError)
        else "it is not readable text"
    )


def _depth(value: Any) -> int:
    deepest, todo = 0, [(value, 1)]
    while todo:
        here, level = todo.pop()
        deepest = max(deepest, level)
        children = here.values() if isinstance(here, dict) else here if isinstance(here, list) else ()
        todo += [(child, level + 1) for child in children]
    return deepest
