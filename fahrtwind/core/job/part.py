"""What every part of the job document has in common."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

Identifier = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,24}$")]
Name = Annotated[str, Field(min_length=1, max_length=80)]
Note = Annotated[str, Field(max_length=500)]


class Part(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def refuse_twins(list_name: str, ids: list[str]) -> None:
    """Raise where an id is used twice in one list."""
    twins = sorted({i for i in ids if ids.count(i) > 1})
    if twins:
        raise PydanticCustomError(
            "bad_input", "{problem}",
            {"problem": f"{list_name}: the id {twins[0]} is used twice.", "remedy": "Give every entry its own id."},
        )  # fmt: skip
