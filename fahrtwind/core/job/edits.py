"""Edits: the only way a job changes. Each names a path, so every input box has one address.

Paths are dotted; entries of lists are addressed by their id: ``panels.p1.feet.f2.along``.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from fahrtwind.core.errors import InputError, UnknownPath
from fahrtwind.core.job.document import Job, VehicleKind
from fahrtwind.core.job.load import as_input_error
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.part import Identifier, Name, Note
from fahrtwind.core.layout.arranging import Order, arranged, refuse_locked, replaced
from fahrtwind.core.layout.placing import find_model, mirrored_panel, new_panel, spread_feet
from fahrtwind.core.layout.variants import chosen, kept, used
from fahrtwind.core.survey.templates import fill_from_template

FieldPath = Annotated[str, Field(min_length=1, max_length=160, pattern=r"^[A-Za-z0-9_.-]+$")]


WITHOUT_IDS = ("dismissals", "own_models", "survey.outline.points")
ID_LETTERS = {
    "readings": "r", "scans": "s", "trust": "t", "obstacles": "o", "panels": "p", "feet": "f", "marks": "l", "scars": "h", "keep_outs": "k",
    "point_rows": "w", "points": "n", "sections": "c", "keep_free": "z", "offers": "e", "variants": "v",
}  # fmt: skip


class _Edit(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class SetValue(_Edit):
    """Set one field. A string given for a quantity is read as a person would type it."""

    op: Literal["set"] = "set"
    path: FieldPath
    value: Any = None


class AddEntry(_Edit):
    """Append an entry to a list. Without an ``id`` the entry gets the next free one."""

    op: Literal["add"] = "add"
    path: FieldPath
    value: dict[str, Any]


class RemoveEntry(_Edit):
    op: Literal["remove"] = "remove"
    path: FieldPath


class PlacePanel(_Edit):
    """Put a panel of a model on the first free spot, with feet spread along its sides."""

    op: Literal["place_panel"] = "place_panel"
    model: Annotated[str, Field(min_length=1, max_length=80)]


class SpreadFeet(_Edit):
    """Give a panel ``count`` feet, spread evenly along its long (or short) sides, and let them snap."""

    op: Literal["spread_feet"] = "spread_feet"
    panel: str
    count: Annotated[int, Field(ge=2, le=16)]
    along: Literal["sides", "ends"] = "sides"


class MirrorPanel(_Edit):
    """Put the same panel on the other side of the centre line: same edge offset, same distances, feet mirrored too."""

    op: Literal["mirror_panel"] = "mirror_panel"
    panel: Identifier


class ApplyTemplate(_Edit):
    """Fill what is still blank with the usual size of a kind of vehicle."""

    op: Literal["apply_template"] = "apply_template"
    template: VehicleKind


class Arrange(_Edit):
    """Put panels in line with the first of them, on the centre line, or at equal gaps between the outer two."""

    op: Literal["arrange"] = "arrange"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]
    order: Order


class ReplaceModel(_Edit):
    """Another model in the place of panels that were planned: feet keep their share of the frame, measured sizes go."""

    op: Literal["replace_model"] = "replace_model"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]
    model: Annotated[str, Field(min_length=1, max_length=80)]


class KeepVariant(_Edit):
    """Keep the present layout, or the given panels, as a variant."""

    op: Literal["keep_variant"] = "keep_variant"
    name: Name
    note: Note = ""
    panels: Annotated[tuple[PlacedPanel, ...], Field(max_length=24)] | None = None


class UseVariant(_Edit):
    """Put a variant on the roof; a layout that is there and not kept yet is kept first."""

    op: Literal["use_variant"] = "use_variant"
    variant: Identifier


class ChooseVariant(_Edit):
    """Put a variant on the roof for good, with the reason."""

    op: Literal["choose_variant"] = "choose_variant"
    variant: Identifier
    reason: Annotated[str, Field(min_length=3, max_length=500)]


Edit = Annotated[
    SetValue
    | AddEntry
    | RemoveEntry
    | PlacePanel
    | SpreadFeet
    | MirrorPanel
    | ApplyTemplate
    | Arrange
    | ReplaceModel
    | KeepVariant
    | UseVariant
    | ChooseVariant,
    Field(discriminator="op"),
]


def apply_edits(job: Job, edits: list[Edit]) -> Job:
    """Return the job with the edits applied in order, or raise an InputError and change nothing."""
    for edit in edits:
        job = _apply(job, edit)
    return job


def describe(edits: list[Edit]) -> str:
    """A short summary for the revision list."""
    first = edits[0]
    words = {"set": "Set", "add": "Added to", "remove": "Removed", "place_panel": "Placed", "spread_feet": "Spread feet of",
             "mirror_panel": "Mirrored", "apply_template": "Started from the usual", "arrange": "Arranged", "replace_model": "Changed to",
             "keep_variant": "Kept", "use_variant": "Put on the roof:", "choose_variant": "Chose"}  # fmt: skip
    thing = next(
        (v for name in ("path", "model", "panel", "template", "name", "variant") if (v := getattr(first, name, None))), ""
    )
    more = f" and {len(edits) - 1} more" if len(edits) > 1 else ""
    return f"{words[first.op]} {thing}{more}"


def _apply(job: Job, edit: Edit) -> Job:
    data = job.model_dump()
    if isinstance(edit, Arrange | ReplaceModel | KeepVariant | UseVariant | ChooseVariant):
        data |= _whole(job, edit)
    elif isinstance(edit, SetValue):
        _refuse_locked(job, edit.path)
        holder, key = _find(data, edit.path)
        holder[key] = edit.value
    elif isinstance(edit, AddEntry):
        entries = _list_at(data, edit.path)
        entries.append(_with_id(edit.value, entries, edit.path))
    elif isinstance(edit, RemoveEntry):
        _refuse_locked(job, edit.path, whole=True)
        holder, key = _find(data, edit.path)
        if not isinstance(holder, list):
            raise UnknownPath(f"{edit.path} is not an entry of a list.", remedy="Name a list entry.", field=edit.path)
        del holder[key]
    elif isinstance(edit, PlacePanel):
        data["panels"] = [*data["panels"], new_panel(job, edit.model).model_dump()]
    elif isinstance(edit, MirrorPanel):
        _find(data, f"panels.{edit.panel}")
        data["panels"] = [*data["panels"], mirrored_panel(job, edit.panel).model_dump()]
    elif isinstance(edit, ApplyTemplate):
        data = fill_from_template(job, edit.template)
    else:
        holder, key = _find(data, f"panels.{edit.panel}")
        holder[key]["feet"] = [f.model_dump() for f in spread_feet(job, edit.panel, edit.count, edit.along)]
    try:
        return Job.model_validate(data, context={"units": data["units"]})
    except ValidationError as error:
        problem = as_input_error(error)
        problem.field = _by_id(data, problem.field)
        raise problem from error


def _whole(job: Job, edit: Arrange | ReplaceModel | KeepVariant | UseVariant | ChooseVariant) -> dict[str, Any]:
    """The parts of the document an edit gives anew."""
    found: Any
    match edit:
        case Arrange():
            found = {"panels": arranged(job, edit.panels, edit.order)}
        case ReplaceModel():
            model = find_model(job, edit.model)
            known = {p.id for p in job.panels}
            if missing := [i for i in edit.panels if i not in known]:
                raise UnknownPath(
                    f"There is no panel {missing[0]}.", remedy="Reload the job: it may have been removed.", field="panels"
                )
            found = {"panels": [replaced(p, model) if p.id in edit.panels else p for p in job.panels]}
        case KeepVariant():
            found = {"variants": kept(job, edit.name, edit.note, edit.panels)}
        case UseVariant():
            found = used(job, edit.variant)
        case _:
            found = chosen(job, edit.variant, edit.reason)
    return {name: [part.model_dump() for part in parts] for name, parts in found.items()}


PLACE_FIELDS = ("x", "y", "turned")


def _refuse_locked(job: Job, path: str, *, whole: bool = False) -> None:
    """A locked panel is neither moved nor turned nor removed."""
    words = path.split(".")
    if words[0] == "panels" and (len(words) == 2 if whole else len(words) > 2 and words[2] in PLACE_FIELDS):
        panel = next((p for p in job.panels if p.id == words[1]), None)
        if panel is not None:
            refuse_locked(panel)


def _by_id(data: Any, dotted: str) -> str:
    """Turn the list positions of a validation error into ids, the way paths are written everywhere else."""
    here: Any = data
    words = []
    for part in dotted.split("."):
        step = here[int(part)] if isinstance(here, list | tuple) and part.isdigit() and int(part) < len(here) else None
        words.append(str(step.get("id", part)) if isinstance(step, dict) else part)
        here = step if step is not None else (here.get(part) if isinstance(here, dict) else None)
    return ".".join(words)


def _with_id(value: dict[str, Any], siblings: list[Any], path: str) -> dict[str, Any]:
    if "id" in value or path in WITHOUT_IDS or (path.startswith("obstacles") and path.endswith("points")):
        return value
    letter = ID_LETTERS.get(path.rsplit(".", 1)[-1], "e")
    return {"id": next_id(letter, [s.get("id", "") for s in siblings]), **value}


def next_id(letter: str, taken: list[str]) -> str:
    """The next free id: one more than the highest number in use, so that ids are not reused at once.

    >>> next_id("p", ["p1", "p4"])
    'p5'
    """
    numbers = [int(t[len(letter) :]) for t in taken if t.startswith(letter) and t[len(letter) :].isdigit()]
    return f"{letter}{max(numbers, default=0) + 1}"


def _list_at(data: Any, path: str) -> list[Any]:
    holder, key = _find(data, path)
    found = holder[key]
    if not isinstance(found, list | tuple):
        raise UnknownPath(f"{path} is not a list.", remedy="Add to readings, obstacles, panels or feet.", field=path)
    holder[key] = list(found)
    return holder[key]  # type: ignore[no-any-return]


def _find(data: Any, path: str) -> tuple[Any, Any]:
    """The container and key a path leads to; lists on the way become mutable copies."""
    here, parts = data, path.split(".")
    for position, part in enumerate(parts):
        if isinstance(here, dict) and part in here:
            key: Any = part
            if isinstance(here[key], tuple):
                here[key] = list(here[key])
        elif isinstance(here, list):
            key = _position(here, part, path)
        else:
            raise UnknownPath(f"There is no field {path}.", remedy="Check the spelling against the job schema.", field=path)
        if position == len(parts) - 1:
            return here, key
        here = here[key]
    raise InputError("An empty path.", remedy="Name a field.", field="path")


def _position(entries: list[Any], part: str, path: str) -> int:
    for index, entry in enumerate(entries):
        if isinstance(entry, dict) and (entry.get("id") == part or (("id" not in entry) and str(index) == part)):
            return index
    raise UnknownPath(f"There is no {part} in {path}.", remedy="Reload the job: it may have been removed.", field=path)
