"""The plain edits: set a field, add an entry, remove one. Each names a path, so every input box has one
address.

Paths are dotted; entries of lists are addressed by their id: ``panels.p1.feet.f2.along``. Only what lies on
the path is validated, the rest of the job stays the same objects.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from fahrtwind.core.errors import UnknownPath
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.identifiers import next_id
from fahrtwind.core.job.part import Part
from fahrtwind.core.job.paths import changed_at, rebuilt, without_entry

FieldPath = Annotated[str, Field(min_length=1, max_length=160, pattern=r"^[A-Za-z0-9_.-]+$")]
WITHOUT_IDS = ("dismissals", "own_models", "survey.outline.points")


class JobEdit(BaseModel):
    """A change of a job. What a kind of edit does is its ``apply``, what the list of revisions says of it its
    ``words``.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    def apply(self, job: Job) -> Job:
        """The job after the edit; raises an InputError where it cannot be made."""
        raise NotImplementedError

    def words(self) -> str:
        """The edit in words, for the list of revisions; raises NotImplementedError where it has none."""
        raise NotImplementedError


class SetValue(JobEdit):
    """Set one field. A string given for a quantity is read as a person would type it."""

    op: Literal["set"] = "set"
    path: FieldPath
    value: Any = None

    def apply(self, job: Job) -> Job:
        return changed_at(job, self.path, lambda _before: self.value, job.units)

    def words(self) -> str:
        return f"Set {self.path}"


class AddEntry(JobEdit):
    """Append an entry to a list. Without an ``id`` the entry gets the next free one."""

    op: Literal["add"] = "add"
    path: FieldPath
    value: dict[str, Any]

    def apply(self, job: Job) -> Job:
        return changed_at(job, self.path, self._after, job.units)

    def _after(self, entries: Any) -> tuple[Any, ...]:
        if not isinstance(entries, tuple):
            raise UnknownPath(
                f"{self.path} is not a list.",
                remedy="Add to readings, obstacles, panels or feet.",
                field=self.path,
            )
        return (*entries, self._with_id(entries))

    def _with_id(self, siblings: tuple[Any, ...]) -> dict[str, Any]:
        polygon = self.path.startswith("obstacles") and self.path.endswith("points")
        if "id" in self.value or self.path in WITHOUT_IDS or polygon:
            return self.value
        return {
            "id": next_id(self.path.rsplit(".", 1)[-1], [getattr(s, "id", "") for s in siblings]),
            **self.value,
        }

    def words(self) -> str:
        return f"Added to {self.path}"


class RemoveEntry(JobEdit):
    op: Literal["remove"] = "remove"
    path: FieldPath

    def apply(self, job: Job) -> Job:
        return without_entry(job, self.path, job.units)

    def words(self) -> str:
        """The edit in words, for the list of revisions. Raises NotImplementedError here: every edit has its
        own.
        """
        return f"Removed {self.path}"


def with_lists(job: Job, lists: dict[str, tuple[Part, ...]]) -> Job:
    """The job with whole lists given anew: entries that are not the job's own objects are validated like
    typed ones.
    """
    own = {id(entry) for name in lists for entry in getattr(job, name)}
    fields = {
        name: tuple(e if id(e) in own else e.model_dump() for e in entries) for name, entries in lists.items()
    }
    return rebuilt(job, fields, job.units)
