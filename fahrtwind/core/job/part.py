"""What every part of the job document has in common."""

from __future__ import annotations

from collections import Counter
from typing import Annotated

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

from fahrtwind.core.quantities import printable, printable_lines

Identifier = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,24}$")]
Name = Annotated[str, Field(min_length=1, max_length=80), AfterValidator(printable)]
Word = Annotated[str, Field(max_length=40), AfterValidator(printable)]
Note = Annotated[str, Field(max_length=500), AfterValidator(printable_lines)]
Reason = Annotated[str, Field(min_length=3, max_length=500), AfterValidator(printable_lines)]


class Part(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def refuse_twins(list_name: str, ids: list[str]) -> None:
    """Raise where an id is used twice in one list."""
    if len(set(ids)) == len(ids):
        return
    twins = sorted(i for i, count in Counter(ids).items() if count > 1)
    if twins:
        raise PydanticCustomError(
            "bad_input",
            "{problem}",
            {
                "problem": f"{list_name}: the id {twins[0]} is used twice.",
                "remedy": "Give every entry its own id.",
            },
        )
