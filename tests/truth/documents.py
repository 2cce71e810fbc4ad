"""Random valid job documents, drawn from the model itself: every field, every choice, and often the ends of
every range.
"""

from __future__ import annotations

import random
from datetime import date, time, timedelta
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from annotated_types import Ge, Le, MaxLen, MinLen
from pydantic import AfterValidator, AwareDatetime, BaseModel, ValidationError
from pydantic.fields import FieldInfo

from fahrtwind.core.job import days
from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import Quantity

AT_AN_END = 0.25
BLANK = 0.3
MOST_ENTRIES = 3


def random_document(seed: int, tries: int = 200) -> Job:
    """A valid job; draws that break a rule between fields are drawn again."""
    dice = random.Random(seed)
    for _ in range(tries):
        data = _model(Job, dice) | {"name": f"random {seed}"}
        try:
            return Job.model_validate(data)
        except ValidationError:
            continue
    raise RuntimeError(f"no valid document in {tries} draws")


def random_part(model: type[BaseModel], dice: random.Random) -> dict[str, Any]:
    """Fields of any such part, each within its range; entries of its lists have names of their own."""
    data = _model(model, dice)
    for name, entries in data.items():
        if isinstance(entries, list) and entries and isinstance(entries[0], dict):
            data[name] = [{**entry, "id": f"{name[0]}{i}"} for i, entry in enumerate(entries, start=1)]
    return data


def range_ends(model: type[BaseModel] = Job, path: str = "") -> list[tuple[str, float]]:
    """Every quantity field that is reached without a list, with both ends of its range."""
    found: list[tuple[str, float]] = []
    for name, field in model.model_fields.items():
        kind, notes = _plain(field)
        within = next(
            (n.func for n in notes if isinstance(n, AfterValidator) and hasattr(n.func, "low")), None
        )
        if within is not None:
            found += [(f"{path}{name}", within.low), (f"{path}{name}", within.high)]
        elif isinstance(kind, type) and issubclass(kind, BaseModel) and not issubclass(kind, Quantity):
            found += range_ends(kind, f"{path}{name}.")
    return found


def _plain(field: FieldInfo) -> tuple[Any, list[Any]]:
    return _unwrapped(field.annotation, list(field.metadata))


def _unwrapped(kind: Any, notes: list[Any]) -> tuple[Any, list[Any]]:
    """The bare type and its notes, without ``| None`` and ``Annotated``."""
    if get_origin(kind) in (Union, UnionType):
        rest = [k for k in get_args(kind) if k is not NoneType]
        return _unwrapped(rest[0], notes) if len(rest) == 1 else (kind, notes)
    if get_origin(kind) is Annotated:
        return _unwrapped(get_args(kind)[0], [*notes, *_flat(get_args(kind)[1:])])
    return kind, notes


def _flat(notes: tuple[Any, ...]) -> list[Any]:
    return [n for note in notes for n in (note.metadata if isinstance(note, FieldInfo) else [note])]


def _model(model: type[BaseModel], dice: random.Random, number: int = 1) -> dict[str, Any]:
    data: dict[str, Any] = {}
    for name, field in model.model_fields.items():
        if name == "id":
            data[name] = f"e{number}"
        elif name == "schema_version":
            continue
        elif get_origin(field.annotation) is Literal and len(get_args(field.annotation)) == 1:
            data[name] = field.default  # what kind of part it is
        elif not field.is_required() and dice.random() < BLANK:
            continue
        else:
            data[name] = _value(*_plain(field), dice)
    if {"length", "width"} <= data.keys() and model.__name__ == "PanelModel":
        data["length"], data["width"] = sorted((data["length"], data["width"]), key=lambda q: -q["mm"])
    return _in_order(model, data)


def _in_order(model: type[BaseModel], data: dict[str, Any]) -> dict[str, Any]:
    """What has to end after it begins, and columns that are as long as one another."""
    for first, last in (("starts", "ends"), ("started", "ended"), ("low", "high")):
        if {first, last} <= data.keys() and model.__module__ == days.__name__:
            pair = sorted((data[first], data[last]), key=str if first != "low" else lambda q: q["deg_c"])
            data[first], data[last] = pair
            if model is days.Person and pair[0] == pair[1]:
                data["starts"], data["ends"] = "00:00", "23:00"
    if model is days.ForecastMember:
        hours = min(len(data[name]) for name in days.COLUMNS)
        for name, (low, high) in days.COLUMNS.items():
            data[name] = [None if v is None else min(max(v, low), high) for v in data[name][:hours]]
    return data


def _value(kind: Any, notes: list[Any], dice: random.Random) -> Any:
    if get_origin(kind) is Literal:
        return dice.choice(get_args(kind))
    if get_origin(kind) in (Union, UnionType):
        return _value(*_unwrapped(dice.choice(get_args(kind)), notes), dice)
    if get_origin(kind) is tuple:
        inner, own = _unwrapped(get_args(kind)[0], [])
        most = min(next((n.max_length for n in notes if isinstance(n, MaxLen)), MOST_ENTRIES), MOST_ENTRIES)
        least = next((n.min_length for n in notes if isinstance(n, MinLen)), 0)
        count = 12 if "ClimateMonth" in str(inner) else dice.randint(least, most)
        return [
            _model(inner, dice, i + 1) if _is_part(inner) else _value(inner, own, dice) for i in range(count)
        ]
    if isinstance(kind, type) and issubclass(kind, Quantity):
        within = next(n.func for n in notes if isinstance(n, AfterValidator) and hasattr(n.func, "low"))
        return {kind.value_name(): _number(within.low, within.high, dice)}
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        return _model(kind, dice)
    return _scalar(kind, notes, dice)


def _is_part(kind: Any) -> bool:
    return isinstance(kind, type) and issubclass(kind, BaseModel) and not issubclass(kind, Quantity)


def _scalar(kind: Any, notes: list[Any], dice: random.Random) -> Any:
    if kind is bool:
        return dice.random() < 0.5
    if kind is str and any(getattr(n, "func", None) is days._known_zone for n in notes):
        return dice.choice(["Europe/Berlin", "UTC", "America/St_Johns", "Pacific/Auckland"])
    if kind is str:
        least = next((n.min_length for n in notes if isinstance(n, MinLen)), 1)
        return dice.choice(["e1", "e2", "plain words", "M8"]).ljust(least, "x")[:20].replace(" ", "-")
    if kind is date:
        return (date(2026, 3, 20) + timedelta(days=dice.randint(0, 20))).isoformat()
    if kind is time:
        return f"{dice.randint(0, 23):02}:{dice.choice([0, 30]):02}"
    if kind is AwareDatetime:
        return f"2026-03-{dice.randint(19, 31)}T{dice.randint(0, 23):02}:00:00+0{dice.randint(0, 2)}:00"
    low = next((n.ge for n in notes if isinstance(n, Ge)), 0.0)
    high = next((n.le for n in notes if isinstance(n, Le)), 10.0)
    number = _number(float(low), float(high), dice)
    return round(number) if kind is int else number


def _number(low: float, high: float, dice: random.Random) -> float:
    if dice.random() < AT_AN_END:
        return dice.choice([low, high])
    return round(dice.uniform(low, high), 3)
