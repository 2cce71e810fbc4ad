"""A value beside its limit, and what limits of strings are worked from."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.diode import Diode

Key = Literal[
    "cold voltage", "hot voltage", "start", "current", "power", "reverse", "fuse", "ampacity",
    "terminal", "connector", "drop", "mismatch"
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class Limit:
    """``limit`` None: nobody said what is allowed; ``least``: the value has to be over it. ``place``: the job
    path that decides it.
    """

    key: Key
    words: str
    value: float
    limit: float | None
    unit: str
    least: bool
    source: str
    place: str
    held: bool | None
    """Whether it is kept; None where no limit is known."""


def limit_of(  # noqa: PLR0913  the fields of a limit
    key: Key, words: str, value: float, limit: float | None, unit: str, least: bool, source: str, place: str
) -> Limit:
    """A value beside its limit, both in ``unit``; ``least``: it has to be over it."""
    held = None if limit is None else value >= limit if least else value <= limit
    return Limit(key, words, value, limit, unit, least, source, place, held)


@dataclass(frozen=True, slots=True)
class Air:
    """Record low, hot summer air, °C; code family; units to tell them in."""

    coldest_c: float
    warmest_c: float
    code: Literal["NEC", "IEC"]
    units: UnitSystem


def string_isc(diodes: tuple[Diode, ...]) -> float:
    """The largest of a string: bypass diodes let the others pass."""
    return max(d.isc_a for d in diodes)


def string_imp(diodes: tuple[Diode, ...]) -> float:
    """What a string runs at: the weakest of it."""
    return min(d.imp_a for d in diodes)
