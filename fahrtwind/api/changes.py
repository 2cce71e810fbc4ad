"""What is new in an answer against the one that a window already has: changed branches, not the whole.

Whatever a stage did not work out again is the same object as before and is not even looked at.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from difflib import SequenceMatcher
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
    """Told from the end to the front, so that places before a splice stay what they are."""
    for kind, a, a_end, b, b_end in reversed(_steps(before, after)):
        if kind == "replace" and a_end - a == b_end - b:
            for i in range(a_end - a):
                yield from changed(before[a + i], after[b + i], (*at, a + i))
        elif kind != "equal":
            yield Spliced(at=at, start=a, drop=a_end - a, items=after[b:b_end])


def _steps(before: tuple[Any, ...], after: tuple[Any, ...]) -> list[tuple[str, int, int, int, int]]:
    """How a list becomes another: what stays, gives way, comes and goes, as positions in both."""
    if len(before) == len(after):
        return [("replace", 0, len(before), 0, len(after))]
    try:
        return list(SequenceMatcher(None, list(before), list(after), autojunk=False).get_opcodes())
    except TypeError:  # entries that cannot be looked up by their value
        return [("other", 0, len(before), 0, len(after))]
