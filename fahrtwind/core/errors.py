"""One tree of errors. Each keeps its facts as attributes and says what to do about it."""

from __future__ import annotations

from typing import Any


class FahrtwindError(Exception):
    """Root of every error this program raises on purpose.

    Attributes:
        code: stable word for programs and tests.
        field: path of the job field or input the error is about ("" where none applies).
        problem: what is wrong, in one sentence.
        remedy: what the person can do about it, in one sentence.
    """

    code = "error"

    def __init__(self, problem: str, *, remedy: str, field: str = "") -> None:
        self.problem = problem
        self.remedy = remedy
        self.field = field
        super().__init__(problem)

    def __str__(self) -> str:
        return (
            f"{self.field}: {self.problem} {self.remedy}" if self.field else f"{self.problem} {self.remedy}"
        )

    def __reduce__(self) -> tuple[Any, ...]:
        """Errors are handed over between processes with all their facts, however they are made."""
        return _as_it_was, (type(self), self.args, self.__dict__)


def _as_it_was(kind: type[FahrtwindError], args: tuple[Any, ...], facts: dict[str, Any]) -> FahrtwindError:
    error = kind.__new__(kind, *args)
    error.args = args
    error.__dict__.update(facts)
    return error


class InputError(FahrtwindError):
    """Something a person or a program handed in cannot be used."""

    code = "bad_input"


class UnreadableQuantity(InputError):
    code = "unreadable_quantity"


class WrongUnit(InputError):
    code = "wrong_unit"


class OutOfRange(InputError):
    code = "out_of_range"


class UnknownPath(InputError):
    code = "unknown_path"


class UnreadableFile(InputError):
    code = "unreadable_file"


class NewerFile(InputError):
    code = "newer_file"


class TooLarge(InputError):
    code = "too_large"


class WrongHeader(InputError):
    code = "wrong_header"


class OutsideValidity(FahrtwindError):
    """A formula was asked for something its source does not cover."""

    code = "outside_validity"


class UnreadableJob(FahrtwindError):
    """A stored document that this program cannot read; earlier revisions may still be."""

    code = "unreadable_job"

    def __init__(self, problem: str, *, revision: int, can_undo: bool) -> None:
        remedy = "Undo the last change, or take the file as it is." if can_undo else "Take the file as it is."
        super().__init__(problem, remedy=remedy, field="job")
        self.current_revision = revision
        self.can_undo = can_undo


class Unavailable(FahrtwindError):
    """The database cannot be used just now: nothing was stored, and trying again is right."""

    code = "database_unavailable"


class OfficeSilent(FahrtwindError):
    """The weather office gives no answer that can be used."""

    code = "weather_office_unavailable"


class NotFound(FahrtwindError):
    code = "not_found"


class Conflict(FahrtwindError):
    """The stored job has moved on since the caller read it."""

    code = "conflict"

    def __init__(self, problem: str, *, remedy: str, current_revision: int, changed_by: str) -> None:
        super().__init__(problem, remedy=remedy, field="base_revision")
        self.current_revision = current_revision
        self.changed_by = changed_by
