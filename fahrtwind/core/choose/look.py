"""A job as far as a search has looked at it: what holds first, the whole only where somebody wants it."""

from __future__ import annotations

from collections import Counter
from functools import cached_property

from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.evaluate import snags_at, snags_of_places, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.road import Station
from fahrtwind.core.stations.layout.feet import FootPlace

NEAR: tuple[Station, ...] = ("structure", "layout", "hold")
"""The stations that mostly say why a way to hold is no good; what water, cables and days say of it costs more
to work out.
"""
Stops = dict[tuple[str, str], tuple[int, int]]


class Look:
    """A look at a job. What was worked out once is kept."""

    def __init__(self, job: Job) -> None:
        self.job = job

    @cached_property
    def seen(self) -> Visit:
        """Its parts, each worked out when it is read."""
        return visit(self.job)

    @property
    def feet(self) -> tuple[FootPlace, ...]:
        """Where they stand, as far as that is known."""
        found: tuple[FootPlace, ...] = self.seen.get("feet", ())
        return found

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


def stops_of(snags: tuple[Snag, ...], feet: tuple[FootPlace, ...]) -> Stops:
    """The stops by rule and subject: at how many places, and how many feet that subject has."""
    standing = Counter((s.id, subject(s.place)) for s in snags if s.severity == "stop")
    own = Counter(foot.panel for foot in feet)
    return {key: (many, own[key[1].partition(".")[2]]) for key, many in standing.items()}


def more_stops(before: Stops, after: Stops) -> frozenset[tuple[str, str]]:
    """Rules and subjects that a change makes worse: there was no such stop, or it comes at more places and at
    a larger share of the feet. More feet of a kind that was wrong at every foot are no further trouble; one
    of four in skin becoming four of eight is.
    """

    def worse(key: tuple[str, str]) -> bool:
        many, feet = after[key]
        had, of = before.get(key, (0, 0))
        return not had or (many > had and many * of > had * feet)

    return frozenset(filter(worse, after))


def subject(place: str) -> str:
    """The panel, carrier or other part of the job that a place is about."""
    return ".".join(place.split(".")[:2])
