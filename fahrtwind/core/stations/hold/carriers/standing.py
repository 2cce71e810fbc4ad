"""Where a carrier stands along the roof, when that is not at the members."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.carrier import MOST_STANDINGS, OnRails, Rack, Standing
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import JobEdit, with_lists
from fahrtwind.core.job.part import Identifier
from fahrtwind.core.job.paths import entry_position
from fahrtwind.core.quantities import Length

BEYOND_SHARE = 0.35
"""Rails stick out by so much of a bay (common practice): feet in the middle carry little more than others."""


class StandAnywhere(JobEdit):
    """So many feet under every rail of a carrier at places of their own, or so many crossbars; none: at the
    members again. Raises InputError for a single one, and where points or posts say where it stands.
    """

    op: Literal["stand_anywhere"] = "stand_anywhere"
    carrier: Identifier
    count: Annotated[int, Field(ge=0, le=MOST_STANDINGS)]

    def apply(self, job: Job) -> Job:
        """Raises InputError as said."""
        if self.count == 1:
            raise InputError("A rail turns about one foot.", remedy="Take two or more.", field="count")
        path = f"carriers.{self.carrier}"
        carrier = job.carriers[entry_position(job.carriers, self.carrier, path)]
        if isinstance(carrier, Rack) and (carrier.points or carrier.posts):
            raise InputError(
                f"{carrier.name} stands on points or posts.",
                remedy="Move those; only feet have places of their own.",
                field=path,
            )
        stood = carrier.model_copy(update={"feet_at": spread_along(carrier, self.count)})
        return with_lists(job, {"carriers": tuple(stood if c is carrier else c for c in job.carriers)})

    def words(self) -> str:
        return f"{self.count} feet at places of their own" if self.count else "Feet at the members"


def spread_along(carrier: OnRails, count: int) -> tuple[Standing, ...]:
    """So many places along a carrier, alike far apart, its ends beyond the outermost by a part of that."""
    if not count:
        return ()
    run = carrier.end.mm - carrier.start.mm
    bay = run / (count - 1 + 2 * BEYOND_SHARE)
    places = (carrier.start.mm + bay * (BEYOND_SHARE + i) for i in range(count))
    return tuple(Standing(id=f"s{i}", x=Length(mm=round(x))) for i, x in enumerate(places, start=1))
