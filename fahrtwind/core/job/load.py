"""From untrusted data to a job, with errors that name the field and the remedy."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import BaseModel, ValidationError

from fahrtwind.core.errors import (
    FahrtwindError,
    InputError,
    NewerFile,
    OutOfRange,
    UnreadableFile,
    UnreadableQuantity,
    WrongUnit,
)
from fahrtwind.core.job.document import SCHEMA_VERSION, Job
from fahrtwind.core.quantities import is_printable

_BY_TYPE: dict[str, type[InputError]] = {
    e.code: e for e in (OutOfRange, UnreadableQuantity, WrongUnit, InputError)
}
_ROOMY = ("too_long", "string_too_long", "greater_than_equal", "less_than_equal", "greater_than", "less_than")

_NO_NUMBER = ("float_parsing", "int_parsing", "float_type", "int_type", "finite_number")


def _from_1(data: dict[str, Any]) -> dict[str, Any]:
    """Version 2 added the survey's parts, scans and mounting lines; all of them start empty."""
    return {**data, "schema_version": 2}


def _from_2(data: dict[str, Any]) -> dict[str, Any]:
    """Version 3 added the layout's rules, offers, site, variants and decisions, and the electrical side of
    panel models.
    """
    return {**data, "schema_version": 3}


def _from_3(data: dict[str, Any]) -> dict[str, Any]:
    """Version 4 added the vehicle without papers, the width of a clamp bar and the bias shared by all
    readings of the lines.
    """
    return {**data, "schema_version": 4}


def _from_4(data: dict[str, Any]) -> dict[str, Any]:
    """Version 5 added wind while parked, the coldest driving day and the rated uplift of panel models."""
    return {**data, "schema_version": 5}


_UP: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {1: _from_1, 2: _from_2, 3: _from_3, 4: _from_4}


def load_job(data: Any, *, stored: bool = False) -> Job:
    """Validate a job document of any version this program has known.

    ``stored``: it was accepted once. Where a rule about text came later, characters that cannot be written
    and texts that say something else than their value are dropped rather than the job.

    Raises NewerFile for a later version, otherwise an InputError with the path of the first wrong field.
    """
    if not isinstance(data, dict):
        raise UnreadableFile("This is not a job document.", remedy="Choose a job file written by Fahrtwind.")
    version = data.get("schema_version")
    if not isinstance(version, int) or version < 1:
        raise UnreadableFile(
            "The document has no schema_version.",
            remedy="Choose a job file written by Fahrtwind.",
            field="schema_version",
        )
    if version > SCHEMA_VERSION:
        raise NewerFile(
            f"The job was written by a newer Fahrtwind (document version {version}; this one reads "
            f"up to {SCHEMA_VERSION}).",
            remedy="Update Fahrtwind, then open it again.",
            field="schema_version",
        )
    for step in range(version, SCHEMA_VERSION):
        data = _UP[step](data)
    try:
        return _validated(data)
    except ValidationError as error:
        if stored:
            return _repaired(data, error)
        raise as_input_error(error) from error


def _validated(data: dict[str, Any]) -> Job:
    return Job.model_validate(data, context={"units": data.get("units", "metric")})


def _repaired(data: dict[str, Any], first: ValidationError) -> Job:
    try:
        return _validated(_without_bad_text(data))
    except ValidationError:
        raise as_input_error(first) from first


def _without_bad_text(part: Any) -> Any:
    """A copy with unwritable characters replaced, and without the text of any quantity: its value is what was
    computed with.
    """
    if isinstance(part, dict):
        quantity = len(part) == 2 and "text" in part
        return {k: _without_bad_text(v) for k, v in part.items() if not (quantity and k == "text")}
    if isinstance(part, list):
        return [_without_bad_text(v) for v in part]
    if isinstance(part, str):
        return "".join(c if c == "\n" or is_printable(c) else "\ufffd" for c in part)
    return part


def as_input_error(error: ValidationError, data: BaseModel | None = None) -> FahrtwindError:
    """The first problem of a pydantic error as one of ours; ``field`` is its dotted path."""
    first = error.errors()[0]
    field = ".".join(str(part) for part in first["loc"])
    context = first.get("ctx", {})
    if "problem" in context:
        return _BY_TYPE.get(first["type"], InputError)(
            context["problem"], remedy=context["remedy"], field=field
        )
    problem = _plain(first["msg"])
    if first["type"] in _ROOMY:
        return OutOfRange(problem, remedy="Type a value within that limit.", field=field)
    if first["type"] in ("literal_error", "union_tag_invalid"):
        return InputError(problem, remedy="Choose one of those.", field=field)
    if first["type"] in _NO_NUMBER:
        typed = first["input"]
        told = f"“{typed}” is not a number." if isinstance(typed, str) else "This is not a number."
        return UnreadableQuantity(told, remedy="Type for example 12 or 38.50.", field=field)
    if first["type"] == "int_from_float":
        return InputError("This is not a whole number.", remedy="Type it without decimals.", field=field)
    if first["type"] == "missing":
        return InputError("This value is missing.", remedy="Fill it in.", field=field)
    if first["type"] == "timezone_aware":
        remedy = "Write the distance from UTC with it: 2026-05-04T08:00+02:00."
        return InputError("This time does not say its zone.", remedy=remedy, field=field)
    if first["type"] == "extra_forbidden":
        return InputError("This field is not known.", remedy="Remove it or correct its name.", field=field)
    return InputError(problem, remedy="Correct this value.", field=field)


def _plain(message: str) -> str:
    return message.replace("Input should be", "This should be").rstrip(".") + "."
