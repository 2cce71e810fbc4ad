"""What can be written into the log of a job. Entries are added and never changed: the last word counts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from fahrtwind.core.job.part import Name, Note, Part, Word
from fahrtwind.core.quantities import printable


class StepTicked(Part):
    """A step of the work, by its title: steps may be numbered anew when the plan changes."""

    kind: Literal["step"] = "step"
    step: Name
    done: bool = True


class Remark(Part):
    """Something worth remembering, about a place of the job where there is one."""

    kind: Literal["remark"] = "remark"
    text: Annotated[Note, Field(min_length=1)]
    place: Annotated[str, Field(max_length=160)] = ""


class Correction(Part):
    """What an earlier entry says wrongly: that one stays, this one names it."""

    kind: Literal["correction"] = "correction"
    corrects: Annotated[int, Field(ge=1)]
    text: Annotated[Note, Field(min_length=1)]


MeasuredWhat = Literal[
    "torque", "skin temperature", "humidity", "position", "pilot hole", "batch", "volts", "other"
]


class Measured(Part):
    """Something read on the roof: with what it was made, how it was tightened, what the weather was.
    The value is kept as the instrument shows it, with its unit.
    """

    kind: Literal["measured"] = "measured"
    what: MeasuredWhat
    value: Annotated[str, Field(min_length=1, max_length=60), AfterValidator(printable)]
    place: Annotated[str, Field(max_length=160)] = ""
    by: Word = ""


class Photographed(Part):
    """A photograph that was kept with the job, by the hash of its content."""

    kind: Literal["photograph"] = "photograph"
    digest: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    text: Note = ""
    place: Annotated[str, Field(max_length=160)] = ""


Entry = Annotated[StepTicked | Remark | Correction | Measured | Photographed, Field(discriminator="kind")]


def steps_done(entries: tuple[Entry, ...]) -> frozenset[str]:
    """Titles of the steps that the last word on them says are done.

    >>> ticked = (StepTicked(step="Dry-fit"), StepTicked(step="Mark"), StepTicked(step="Mark", done=False))
    >>> sorted(steps_done(ticked))
    ['Dry-fit']
    """
    last = {e.step: e.done for e in entries if isinstance(e, StepTicked)}
    return frozenset(step for step, done in last.items() if done)
