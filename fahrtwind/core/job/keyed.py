"""Parts of a job as keys of a cache."""

from __future__ import annotations

from dataclasses import field
from typing import Generic, TypeVar

from pydantic import BaseModel

from fahrtwind.core.records import dataclass

P = TypeVar("P", bound=BaseModel)


@dataclass(frozen=True, slots=True)
class Keyed(Generic[P]):
    """A part that is compared by its text: writing a nested model out is faster than hashing and comparing
    it.
    """

    text: str
    part: P = field(compare=False)


def keyed(part: P) -> Keyed[P]:
    return Keyed(part.model_dump_json(), part)
