"""Changing one place of a job: only what lies on the path is validated, everything else stays the same
objects.

Paths are dotted; entries of lists are addressed by their id, entries without one by their position.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cache
from typing import Annotated, Any, Literal, TypeVar, get_args, get_origin

from pydantic import BaseModel, ValidationError

from fahrtwind.core.errors import UnknownPath
from fahrtwind.core.job.load import as_input_error
from fahrtwind.core.quantities import number_typed

M = TypeVar("M", bound=BaseModel)
Change = Callable[[Any], Any]
"""Turns what stands at the end of a path into what shall stand there."""


def changed_at(holder: M, path: str, change: Change, units: str) -> M:
    """The model with ``change`` applied to what stands at ``path``.

    Raises UnknownPath where the path leads nowhere, otherwise an InputError that names the field that does
    not fit.
    """
    return _changed_model(holder, path.split("."), change, units, path)  # type: ignore[no-any-return]


def rebuilt(holder: M, fields: dict[str, Any], units: str, at: str = "") -> M:
    """The model with some fields given anew and validated; parts that are models already are taken as they
    are. Raises InputError naming the field under ``at``.
    """
    fields = {name: _typed(type(holder), name, value, at) for name, value in fields.items()}
    data = {name: getattr(holder, name) for name in type(holder).model_fields} | fields
    try:
        whole = type(holder).model_validate(data, context={"units": fields.get("units", units)})
        # validation makes new tuples; what was not given anew stays the very same object
        return whole.model_copy(update={name: value for name, value in data.items() if name not in fields})
    except ValidationError as error:
        problem = as_input_error(error)
        problem.field = ".".join(p for p in (at, _by_id(data, problem.field)) if p)
        raise problem from error


def _typed(model: type[BaseModel], name: str, value: Any, at: str) -> Any:
    """Texts where plain numbers belong, read as people type them; everything else as it is."""
    number, parts = _takes(model, name)
    field = f"{at}.{name}" if at else name
    if isinstance(value, str):
        return number_typed(value, field) if number else value
    if isinstance(value, dict):
        field = f"{field}.{value['id']}" if "id" in value else field
        owners = {key: next((p for p in parts if key in p.model_fields), None) for key in value}
        return {k: _typed(owner, k, v, field) if (owner := owners[k]) else v for k, v in value.items()}
    if isinstance(value, tuple | list):
        return tuple(_typed(model, name, entry, at) if isinstance(entry, dict) else entry for entry in value)
    return value


@cache
def _takes(model: type[BaseModel], name: str) -> tuple[bool, tuple[type[BaseModel], ...]]:
    """Whether a field takes a plain number and no text, and the models of which it takes one or several."""
    field = model.model_fields.get(name)
    kinds = tuple(_kinds(field.annotation)) if field else ()
    models = tuple(k for k in kinds if isinstance(k, type) and issubclass(k, BaseModel))
    return (float in kinds or int in kinds) and str not in kinds, models


def _kinds(hint: Any) -> Iterator[Any]:
    """The types a hint is put together from; of an annotated one its own."""
    if get_origin(hint) is Literal:
        yield from (type(value) for value in get_args(hint))
    elif not (inner := get_args(hint)):
        yield hint
    else:
        for part in inner[:1] if get_origin(hint) is Annotated else inner:
            yield from _kinds(part)


def _changed_model(holder: Any, parts: list[str], change: Change, units: str, path: str) -> Any:
    name, rest = parts[0], parts[1:]
    if isinstance(holder, tuple):
        return _changed_entry(holder, parts, change, units, path)
    if not isinstance(holder, BaseModel) or name not in type(holder).model_fields:
        raise UnknownPath(
            f"There is no field {path}.", remedy="Check the spelling against the job schema.", field=path
        )
    before = getattr(holder, name)
    after = _changed_model(before, rest, change, units, path) if rest else change(before)
    if after is before:
        return holder
    length = len(path.split(".")) - len(parts)
    return rebuilt(holder, {name: after}, units, ".".join(path.split(".")[:length]))


def _changed_entry(
    entries: tuple[Any, ...], parts: list[str], change: Change, units: str, path: str
) -> tuple[Any, ...]:
    at = entry_position(entries, parts[0], path)
    after = _changed_model(entries[at], parts[1:], change, units, path) if parts[1:] else change(entries[at])
    return (*entries[:at], after, *entries[at + 1 :])


def without_entry(holder: M, path: str, units: str) -> M:
    """The model without the list entry that the path names. Raises InputError where there is none."""
    list_path, _, entry = path.rpartition(".")

    def dropped(entries: Any) -> Any:
        if not isinstance(entries, tuple):
            raise UnknownPath(f"{path} is not an entry of a list.", remedy="Name a list entry.", field=path)
        at = entry_position(entries, entry, path)
        return (*entries[:at], *entries[at + 1 :])

    if not list_path:
        raise UnknownPath(f"{path} is not an entry of a list.", remedy="Name a list entry.", field=path)
    return changed_at(holder, list_path, dropped, units)


def entry_position(entries: tuple[Any, ...], name: str, path: str) -> int:
    """Position of the entry of that id, or of that number where entries have none. Raises InputError naming
    the path where there is none.
    """
    for index, entry in enumerate(entries):
        own = getattr(entry, "id", None)
        if own == name or (own is None and str(index) == name):
            return index
    raise UnknownPath(
        f"There is no {name} in {path}.", remedy="Reload the job: it may have been removed.", field=path
    )


def _by_id(data: Any, dotted: str) -> str:
    """Turn the list positions of a validation error into ids, the way paths are written everywhere else."""
    here: Any = data
    words = []
    for part in dotted.split("."):
        if isinstance(here, list | tuple) and part.isdigit() and int(part) < len(here):
            here = here[int(part)]
            words.append(str(_part(here, "id") or part))
        else:
            words.append(part)
            here = _part(here, part)
    return ".".join(words)


def _part(holder: Any, name: str) -> Any:
    return holder.get(name) if isinstance(holder, dict) else getattr(holder, name, None)
