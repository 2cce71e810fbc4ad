"""The look after it was built, place by place: what to look at, and what was seen there before. Common
practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import date

from fahrtwind.core.job.care import Care, FoundState, Look
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.holders import Holder

REMEMBERED = 3
LONGEST = 40
"""Of the name of a place, as a look keeps it."""
BOLTS_LOOK = "No foot rocks by hand. Every paint mark unbroken"
SEAL_LOOK = "No edge lifts, no crack, no water track; press the bead with a thumb"
TAPE_LOOK = "No light under an edge, no edge lifts to a thumbnail"
CABLE_LOOK = "Gland tight, no chafed cable, no connector hangs in water"


@dataclass(frozen=True, slots=True)
class SeenThere:
    """What was found at a place on a day."""

    found: FoundState
    day: date
    note: str


@dataclass(frozen=True, slots=True)
class LookPlace:
    """A place to look at; ``look``: what for; ``seen``: what was found there, the newest first."""

    where: str
    look: str
    seen: tuple[SeenThere, ...]


def inspection(
    holders: tuple[Holder, ...], torques: Mapping[str, tuple[str, ...]], care: Care, *, cables: bool
) -> tuple[LookPlace, ...]:
    """``torques``: how tight the bolts of holders are wanted, in words, by their ids; ``cables``: some come
    through the roof.
    """
    looks = sorted(care.looks, key=lambda look: look.day)
    return tuple(_place(where, look, looks) for where, look in _places(holders, torques, cables=cables))


def _places(
    holders: tuple[Holder, ...], torques: Mapping[str, tuple[str, ...]], *, cables: bool
) -> Iterator[tuple[str, str]]:
    for holder in holders:
        wanted = torques.get(holder.id, ())
        told = "".join(f", {torque}" for torque in wanted)
        clamped = holder.path.startswith("carriers.")  # without feet its clamps hold all
        if not holder.feet and not wanted and not clamped:
            continue
        name = holder.name[: LONGEST - 6]
        yield name, f"{BOLTS_LOOK}{told}."
        if holder.feet:
            yield f"{name}, seal", f"{TAPE_LOOK if holder.hold.school == 'tape' else SEAL_LOOK}."
    if cables:
        yield "cables", f"{CABLE_LOOK}."


def _place(where: str, look: str, looks: list[Look]) -> LookPlace:
    """A look at all of it counts for every place."""
    own = [SeenThere(one.found, one.day, one.note) for one in reversed(looks) if one.where in (where, "")]
    return LookPlace(where, look, tuple(own[:REMEMBERED]))
