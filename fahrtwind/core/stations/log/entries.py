"""What can be written into the log of a job. Entries are added and never changed: the last word counts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job.part import Name, Note, Part


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


Entry = Annotated[StepTicked | Remark, Field(discriminator="kind")]


def steps_done(entries: tuple[Entry, ...]) -> frozenset[str]:
    """Titles of the steps that the last word on them says are done.

    >>> ticked = (StepTicked(step="Dry-fit"), StepTicked(step="Mark"), StepTicked(step="Mark", done=False))
    >>> sorted(steps_done(ticked))
    ['Dry-fit']
    """
    last = {e.step: e.done for e in entries if isinstance(e, StepTicked)}
    return frozenset(step for step, done in last.items() if done)
