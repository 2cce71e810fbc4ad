"""Edits: the only way a job changes. Each names a path, so every input box has one address.

Paths are dotted; entries of lists are addressed by their id: ``panels.p1.feet.f2.along``.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from fahrtwind.core.errors import UnknownPath
from fahrtwind.core.job.document import Job, VehicleKind
from fahrtwind.core.job.panel import FoamTape, PlacedPanel
from fahrtwind.core.job.part import Identifier, Name, Note, Part, Reason
from fahrtwind.core.job.paths import changed_at, entry_position, rebuilt, without_entry
from fahrtwind.core.layout.arranging import Order, arranged, refuse_locked, replaced
from fahrtwind.core.layout.placing import find_model, first_hold, new_panel, spread_feet, with_twin
from fahrtwind.core.layout.variants import chosen, kept, used
from fahrtwind.core.quantities import Length, UnitSystem
from fahrtwind.core.survey.templates import fill_from_template

FieldPath = Annotated[str, Field(min_length=1, max_length=160, pattern=r"^[A-Za-z0-9_.-]+$")]


LEAST_TOE_MM = 5.0
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
    model: Name


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
    model: Name


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
    reason: Reason


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
    """Return the job with the edits applied in order, or raise an InputError and change nothing.

    Parts of the document that no edit touches stay the same objects.
    """
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
    units = job.units
    match edit:
        case SetValue():
            _refuse_locked(job, edit.path)
            value = _with_usual_parts(edit, units)
            return _bracket_follows(changed_at(job, edit.path, lambda _before: value, units), edit.path)
        case AddEntry():
            return changed_at(job, edit.path, lambda entries: _with_entry(entries, edit), units)
        case RemoveEntry():
            _refuse_locked(job, edit.path, whole=True)
            return without_entry(job, edit.path, units)
        case PlacePanel():
            return _with_parts(job, {"panels": (*job.panels, new_panel(job, edit.model))})
        case MirrorPanel():
            _named_panel(job, edit.panel)
            return _with_parts(job, {"panels": with_twin(job, edit.panel)})
        case SpreadFeet():
            _named_panel(job, edit.panel)
            feet = [f.model_dump() for f in spread_feet(job, edit.panel, edit.count, edit.along)]
            return changed_at(job, f"panels.{edit.panel}.feet", lambda _before: feet, units)
        case ApplyTemplate():
            return rebuilt(job, fill_from_template(job, edit.template), units)
        case _:
            return _with_parts(job, _whole(job, edit))


def _with_parts(job: Job, lists: dict[str, tuple[Part, ...]]) -> Job:
    """The job with whole lists given anew: entries that are not the job's own objects are validated like typed ones."""
    own = {id(entry) for name in lists for entry in getattr(job, name)}
    fields = {name: tuple(e if id(e) in own else e.model_dump() for e in entries) for name, entries in lists.items()}
    return rebuilt(job, fields, job.units)


def _with_usual_parts(edit: SetValue, units: UnitSystem) -> Any:
    """A school that is chosen without its parts starts with those usual in the job's units."""
    if not isinstance(edit.value, dict) or set(edit.value) != {"school"} or not edit.path.endswith(".hold"):
        return edit.value
    school = edit.value["school"]
    return first_hold(school, units) if school in ("screws", "bolts", "tape") else edit.value


def _bracket_follows(job: Job, path: str) -> Job:
    """A pad that is typed takes its bracket along: a pad beyond the base that presses it would hold nothing there."""
    words = path.split(".")
    if len(words) != 4 or words[0] != "panels" or words[2:] not in (["hold", "pad_length"], ["hold", "pad_width"]):
        return job
    hold = job.panels[entry_position(job.panels, words[1], path)].hold
    if not isinstance(hold, FoamTape):
        return job
    bracket = hold.bracket
    if words[3] == "pad_length":
        value = {"length": Length(mm=hold.pad_length.mm)}
    else:
        value = {"toe": Length(mm=max(hold.pad_width.mm - bracket.lever.mm, LEAST_TOE_MM))}
    return changed_at(job, f"panels.{words[1]}.hold.bracket", lambda _: dict(bracket) | value, job.units)


def _named_panel(job: Job, panel_id: str) -> None:
    entry_position(job.panels, panel_id, f"panels.{panel_id}")


def _whole(job: Job, edit: Arrange | ReplaceModel | KeepVariant | UseVariant | ChooseVariant) -> dict[str, tuple[Part, ...]]:
    """The parts of the document an edit gives anew."""
    match edit:
        case Arrange():
            return {"panels": arranged(job, edit.panels, edit.order)}
        case ReplaceModel():
            model = find_model(job, edit.model)
            for panel_id in edit.panels:
                _named_panel(job, panel_id)
            return {"panels": tuple(replaced(p, model) if p.id in edit.panels else p for p in job.panels)}
        case KeepVariant():
            return {"variants": kept(job, edit.name, edit.note, edit.panels)}
        case UseVariant():
            return used(job, edit.variant)
        case _:
            return chosen(job, edit.variant, edit.reason)


PLACE_FIELDS = ("x", "y", "turned")


def _refuse_locked(job: Job, path: str, *, whole: bool = False) -> None:
    """A locked panel is neither moved nor turned nor removed."""
    words = path.split(".")
    if words[0] == "panels" and (len(words) == 2 if whole else len(words) > 2 and words[2] in PLACE_FIELDS):
        panel = next((p for p in job.panels if p.id == words[1]), None)
        if panel is not None:
            refuse_locked(panel)


def _with_entry(entries: Any, edit: AddEntry) -> tuple[Any, ...]:
    if not isinstance(entries, tuple):
        raise UnknownPath(f"{edit.path} is not a list.", remedy="Add to readings, obstacles, panels or feet.", field=edit.path)
    return (*entries, _with_id(edit.value, entries, edit.path))


def _with_id(value: dict[str, Any], siblings: tuple[Any, ...], path: str) -> dict[str, Any]:
    if "id" in value or path in WITHOUT_IDS or (path.startswith("obstacles") and path.endswith("points")):
        return value
    letter = ID_LETTERS.get(path.rsplit(".", 1)[-1], "e")
    return {"id": next_id(letter, [getattr(s, "id", "") for s in siblings]), **value}


def next_id(letter: str, taken: list[str]) -> str:
    """The next free id: one more than the highest number in use, so that ids are not reused at once.

    >>> next_id("p", ["p1", "p4"])
    'p5'
    """
    numbers = [int(t[len(letter) :]) for t in taken if t.startswith(letter) and t[len(letter) :].isdigit()]
    return f"{letter}{max(numbers, default=0) + 1}"
