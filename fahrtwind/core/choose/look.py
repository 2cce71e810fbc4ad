"""A job as far as a search has looked at it: what holds first, the whole only where somebody wants it."""

from __future__ import annotations

from functools import cached_property

from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.evaluate import snags_at, snags_of_places, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.road import Station

NEAR: tuple[Station, ...] = ("structure", "layout", "hold")
"""The stations that mostly say why a way to hold is no good; what water, cables and days say of it costs more
to work out.
"""
Stops = frozenset[tuple[str, str]]


class Look:
    """A look at a job. What was worked out once is kept."""

    def __init__(self, job: Job) -> None:
        self.job = job

    @cached_property
    def seen(self) -> Visit:
        """Its parts, each worked out when it is read."""
        return visit(self.job)

    @cached_property
    def placed(self) -> tuple[Snag, ...]:
        """What the rules of the stations nearest to the hold find without any forces: known long before the
        rest.
        """
        return snags_of_places(self.seen, self.job, NEAR)

    @cached_property
    def near(self) -> tuple[Snag, ...]:
        """What the rules of the stations nearest to the hold find."""
        return snags_at(self.seen, self.job, NEAR)

    @cached_property
    def everywhere(self) -> tuple[Snag, ...]:
        """What all rules find."""
        return snags_at(self.seen, self.job)


def stops_of(snags: tuple[Snag, ...]) -> Stops:
    """The stops, each by its rule and the panel, carrier or part of the job that it is about."""
    return frozenset((s.id, ".".join(s.place.split(".")[:2])) for s in snags if s.severity == "stop")
