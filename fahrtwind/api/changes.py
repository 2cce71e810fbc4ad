"""What is new in an answer against the one that a window already has: changed branches, not the whole.

Whatever a stage did not work out again is the same object as before and is not even looked at.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from typing import Any

from pydantic import BaseModel

from fahrtwind.core.quantities import Quantity

Path = tuple[str | int, ...]
MOST_OF = 0.5
"""Where that share of an object's fields is new, the object is sent whole: shorter than naming each."""


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
    elif is_dataclass(after):
        yield from _object(before, after, at, [field.name for field in fields(after)])
    elif isinstance(after, BaseModel) and not isinstance(after, Quantity):
        yield from _object(before, after, at, list(type(after).model_fields))
    elif before != after:
        yield Changed(at=at, value=after)


def _object(before: Any, after: Any, at: Path, names: list[str]) -> Iterator[New]:
    new = [c for name in names for c in changed(getattr(before, name), getattr(after, name), (*at, name))]
    own = all(len(c.at) == len(at) + 1 for c in new)
    if own and len(new) >= MOST_OF * len(names):
        yield Changed(at=at, value=after)
    else:
        yield from new


def _list(before: tuple[Any, ...], after: tuple[Any, ...], at: Path) -> Iterator[New]:
    if len(before) == len(after):
        for i, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from changed(one, other, (*at, i))
        return
    shorter = min(len(before), len(after))
    start = next((i for i in range(shorter) if not _same(before[i], after[i])), shorter)
    rest = shorter - start
    end = next((i for i in range(rest) if not _same(before[-1 - i], after[-1 - i])), rest)
    items = after[start : len(after) - end]
    yield Spliced(at=at, start=start, drop=len(before) - end - start, items=items)


def _same(one: Any, other: Any) -> bool:
    return one is other or (type(one) is type(other) and bool(one == other))
