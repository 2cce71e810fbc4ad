"""Records: frozen dataclasses with slots that are quick to declare and to make.

The standard decorator writes and compiles six functions for each class, a millisecond of every start for each
of the hundreds here, and sets each field of a frozen record by a call. Here only ``__init__`` is written;
comparing, hashing and showing are the same few functions for all. That nobody changes a record is held by the
type checker, to which this is the standard decorator.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from operator import attrgetter
from typing import TYPE_CHECKING, Any

_made: dict[type, tuple[list[str], Callable[[Any], tuple[Any, ...]]]] = {}

if TYPE_CHECKING:
    from dataclasses import dataclass, replace
else:

    def dataclass(cls=None, /, *, frozen=False, slots=False, eq=True, **further):
        """``dataclasses.dataclass`` for records, frozen and with slots; anything else is made by that."""

        def made(cls):
            if not (frozen and slots) or further:
                return dataclasses.dataclass(cls, frozen=frozen, slots=slots, eq=eq, **further)
            return _record(cls, eq=eq)

        return made if cls is None else made(cls)

    def replace(record, /, **changes):
        """``dataclasses.replace``, which looks at every field of a record each time."""
        if record.__class__ not in _made:
            return dataclasses.replace(record, **changes)
        names, values = _made[record.__class__]
        return record.__class__(**dict(zip(names, values(record), strict=True)) | changes)


__all__ = ["dataclass", "replace"]


def _record(cls: type, *, eq: bool) -> type:
    own = set(cls.__dict__)
    described = cls.__doc__
    cls.__doc__ = described or cls.__name__  # else the standard decorator writes out how it is made
    made: type = dataclasses.dataclass(repr=False, eq=False, slots=True)(cls)
    made.__doc__ = described
    fields = dataclasses.fields(made)
    told: dict[str, Callable[..., Any]] = {"__repr__": _shown}
    if eq:
        values = _values([f.name for f in fields if f.compare])
        told |= {"__eq__": _equal_by(values), "__hash__": _hash_by(values)}
    for name, function in told.items():
        if name not in own:
            setattr(made, name, function)
    if all(f.init for f in fields):
        names = [f.name for f in fields]
        _made[made] = names, _values(names)
    return made


def _values(names: list[str]) -> Callable[[Any], tuple[Any, ...]]:
    """All fields that count."""
    if len(names) > 1:
        return attrgetter(*names)
    return lambda record: tuple(getattr(record, name) for name in names)


def _equal_by(values: Callable[[Any], tuple[Any, ...]]) -> Callable[[Any, object], Any]:
    def equal(self: Any, other: object) -> Any:
        return values(self) == values(other) if other.__class__ is self.__class__ else NotImplemented

    return equal


def _hash_by(values: Callable[[Any], tuple[Any, ...]]) -> Callable[[Any], int]:
    return lambda self: hash(values(self))


def _shown(self: Any) -> str:
    told = ", ".join(f"{f.name}={getattr(self, f.name)!r}" for f in dataclasses.fields(self) if f.repr)
    return f"{type(self).__qualname__}({told})"
