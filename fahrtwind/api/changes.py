"""What is new in an answer against the one that a window already has: changed branches, not the whole.

Whatever a stage did not work out again is the same object as before and is not even looked at.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from difflib import SequenceMatcher
from functools import cache
from typing import Any

from pydantic import BaseModel

from fahrtwind.core.quantities import Quantity

Path = tuple[str | int, ...]
MOST_OF = 0.5
"""Where that share of an object's fields is new, the object is sent whole: shorter than naming each."""


NAMED_BY = ("id", "panel", "foot", "kind", "place")
"""Fields by which entries of lists are told apart."""


class Changed(BaseModel):
    """A branch that is another now. ``at``: names of fields and positions in lists, from the answer's
    root.
    """

    at: Path
    value: Any


class Spliced(BaseModel):
    """A list of which ``drop`` entries from ``start`` on give way to ``items``."""

    at: Path
    start: int
    drop: int
    items: tuple[Any, ...]


New = Changed | Spliced


def changed(before: Any, after: Any, at: Path = ()) -> Iterator[New]:
    """The branches of ``after`` that differ from ``before``."""
    if before is after:
        return
    if type(before) is not type(after):
        yield Changed(at=at, value=after)
    elif isinstance(after, tuple):
        yield from _list(before, after, at)
    elif not isinstance(after, Quantity) and (names := _fields(after.__class__)):
        yield from _object(before, after, at, names)
    elif before != after:
        yield Changed(at=at, value=after)


def _object(before: Any, after: Any, at: Path, names: tuple[str, ...]) -> Iterator[New]:
    new = [
        c
        for name in names
        if (was := getattr(before, name)) is not (now := getattr(after, name))
        for c in changed(was, now, (*at, name))
    ]
    own = all(len(c.at) == len(at) + 1 for c in new)
    if own and len(new) >= MOST_OF * len(names):
        yield Changed(at=at, value=after)
    else:
        yield from new


def _list(before: tuple[Any, ...], after: tuple[Any, ...], at: Path) -> Iterator[New]:
    """Told from the end to the front, so that places before a splice stay what they are."""
    for kind, a, a_end, b, b_end in reversed(_steps(before, after)):
        if kind != "other" and a_end - a == b_end - b:
            for i in range(a_end - a):
                yield from changed(before[a + i], after[b + i], (*at, a + i))
        else:
            yield Spliced(at=at, start=a, drop=a_end - a, items=after[b:b_end])


def _steps(before: tuple[Any, ...], after: tuple[Any, ...]) -> list[tuple[str, int, int, int, int]]:
    """How a list becomes another: what stays, gives way, comes and goes, as positions in both."""
    if len(before) == len(after) and all(
        one is other or _who(one) == _who(other) for one, other in zip(before, after, strict=True)
    ):
        return [("equal", 0, len(before), 0, len(after))]
    known, now = [_who(entry) for entry in before], [_who(entry) for entry in after]
    try:
        return list(SequenceMatcher(None, known, now, autojunk=False).get_opcodes())
    except TypeError:  # entries that cannot be looked up by their value
        return [("other", 0, len(before), 0, len(after))]


def _who(entry: Any) -> Any:
    """By what an entry is known in its list, whatever else changes of it: a place that moves in a sorted list
    is not told as many others that became something else.
    """
    names = _names(entry.__class__)
    return tuple(getattr(entry, name) for name in names) if names else entry


@cache
def _fields(of: Any) -> tuple[str, ...]:
    """What an object is made of; empty for what is told as one value."""
    if is_dataclass(of):
        return tuple(field.name for field in fields(of))
    return tuple(of.model_fields) if issubclass(of, BaseModel) else ()


@cache
def _names(of: Any) -> tuple[str, ...]:
    return tuple(name for name in NAMED_BY if name in _fields(of))
