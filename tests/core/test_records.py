"""Records beside the standard frozen dataclass with slots: they compare, hash, show and travel alike."""

from __future__ import annotations

import dataclasses
import pickle
from typing import Any

import numpy as np
import pytest

from fahrtwind.core.records import dataclass, replace


@dataclass(frozen=True, slots=True)
class Link:
    """A record of this product."""

    id: str
    used: float = 0.5
    parts: tuple[int, ...] = ()
    beside: str = dataclasses.field(default="", compare=False)


@dataclass(frozen=True, slots=True)
class Alone:
    value: Any


@dataclass(frozen=True, slots=True)
class Nothing:
    pass


@dataclass(frozen=True, slots=True, eq=False)
class Arrays:
    values: np.ndarray


@dataclass(frozen=True, slots=True)
class Told:
    id: str

    def __repr__(self) -> str:
        return f"told {self.id}"

    def __hash__(self) -> int:
        return 7


def standard(cls: type) -> Any:
    """The same class as the standard decorator makes it."""
    body = {
        name: value
        for name, value in vars(cls).items()
        if name in ("__annotations__", "__module__", "__qualname__")
    }
    told = {f.name: f for f in dataclasses.fields(cls)}
    for name, of in told.items():
        if of.default is not dataclasses.MISSING:
            body[name] = dataclasses.field(default=of.default, compare=of.compare)
    return dataclasses.dataclass(frozen=True, slots=True)(type(cls.__name__, (), body))


def test_records_compare_hash_and_show_as_the_standard_ones() -> None:
    made = [
        ("a",),
        ("a", 0.5),
        ("a", 0.6),
        ("b", 0.5, (1, 2)),
        ("b", 0.5, (1, 2), "else"),
        ("a", float("nan")),
    ]
    other = standard(Link)
    ours, theirs = [Link(*each) for each in made], [other(*each) for each in made]
    assert [[a == b for b in ours] for a in ours] == [[a == b for b in theirs] for a in theirs]
    assert [hash(a) for a in ours] == [hash(a) for a in theirs]
    assert [repr(a) for a in ours] == [repr(a) for a in theirs]
    assert Link("a") != ("a", 0.5, (), "") and Link("a") != Alone("a")
    assert Alone(1) == Alone(1) != Alone(2) and hash(Alone(1)) == hash((1,)) and Nothing() == Nothing()
    nan = float("nan")
    assert Alone(nan) == Alone(nan), "the same object is alike, as in a tuple"
    with pytest.raises(ValueError, match="ambiguous"):
        bool(Alone(np.zeros(2)) == Alone(np.zeros(2)))


def test_records_are_dataclasses_with_slots() -> None:
    link = Link("a", parts=(1,))
    assert dataclasses.is_dataclass(link) and not hasattr(link, "__dict__")
    assert dataclasses.replace(link, used=0.7) == replace(link, used=0.7) == Link("a", 0.7, (1,))
    assert replace(Alone(1), value=2) == Alone(2) and replace(Nothing()) == Nothing()
    with pytest.raises(TypeError, match="usage"):
        replace(link, usage=0.7)  # type: ignore[call-arg]
    assert dataclasses.asdict(link) == {"id": "a", "used": 0.5, "parts": (1,), "beside": ""}
    assert pickle.loads(pickle.dumps(link)) == link
    match link:
        case Link(name, used):
            assert (name, used) == ("a", 0.5)


def test_what_a_record_brings_itself_stays_and_arrays_are_compared_as_objects() -> None:
    assert repr(Told("x")) == "told x" and hash(Told("x")) == 7 and Told("x") == Told("x")
    one, other = Arrays(np.zeros(2)), Arrays(np.zeros(2))
    assert one == one and one != other and len({one, other}) == 2


def test_anything_else_is_made_by_the_standard_decorator() -> None:
    @dataclass(frozen=True, slots=True, order=True)
    class Ranked:
        at: int

    @dataclass(slots=True)
    class Open:
        at: int

    assert Ranked(1) < Ranked(2)
    with pytest.raises(dataclasses.FrozenInstanceError):
        Ranked(1).at = 2  # type: ignore[misc]
    changed = Open(1)
    changed.at = 2
    assert changed == Open(2)
