"""All edits, plain ones and the stations' actions: the only way a job changes."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, ValidationError

from fahrtwind.core.errors import InputError, OutOfRange
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import AddEntry, RemoveEntry, SetValue
from fahrtwind.core.job.load import as_input_error
from fahrtwind.core.stations.hold.actions import bond_follows, bracket_follows, with_usual_parts
from fahrtwind.core.stations.hold.carriers.actions import (
    PutInFrame,
    PutOnPosts,
    PutOnRack,
    PutOnRails,
    carriers_follow,
)
from fahrtwind.core.stations.hold.carriers.standing import StandAnywhere
from fahrtwind.core.stations.hold.raised.actions import RaisePanel, raisings_follow, unit_follows
from fahrtwind.core.stations.hold.tethers.actions import TetherPanel, tethers_follow
from fahrtwind.core.stations.layout.actions import (
    Arrange,
    ChooseVariant,
    KeepVariant,
    MirrorPanel,
    PlacePanel,
    ReplaceModel,
    SpreadFeet,
    UseVariant,
    refuse_to_move,
)
from fahrtwind.core.stations.roof_day.actions import ForgetFoot, NoteReading, RecordFoot
from fahrtwind.core.stations.survey.actions import ApplyTemplate

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
    | ChooseVariant
    | PutOnRails
    | PutOnRack
    | PutOnPosts
    | PutInFrame
    | StandAnywhere
    | TetherPanel
    | RaisePanel
    | RecordFoot
    | ForgetFoot
    | NoteReading,
    Field(discriminator="op"),
]


def apply_edits(job: Job, edits: list[Edit]) -> Job:
    """Return the job with the edits applied in order, or raise an InputError and change nothing.

    Parts of the document that no edit touches stay the same objects.
    """
    for edit in edits:
        try:
            job = _apply(job, edit)
        except ValidationError as error:  # an action would set up what no job may hold
            wrong = as_input_error(error)
            beyond = isinstance(wrong, OutOfRange)
            raise InputError(
                f"{edit.words()}: part of it would be beyond what a job may hold ({wrong.field}: "
                f"{wrong.problem.rstrip('.')}).",
                remedy="Move or resize the panels, then do it again." if beyond else wrong.remedy,
                field=wrong.field,
            ) from error
    return job


def _apply(job: Job, edit: Edit) -> Job:
    """One edit, with what the stations refuse and what follows from it."""
    if isinstance(edit, SetValue):
        refuse_to_move(job, edit.path)
        whole = edit.model_copy(update={"value": with_usual_parts(edit.path, edit.value, job)})
        held = bond_follows(bracket_follows(whole.apply(job), edit.path), edit.path)
        return unit_follows(carriers_follow(held, edit.path), edit.path)
    if isinstance(edit, RemoveEntry):
        refuse_to_move(job, edit.path, whole=True)
        return _without_panel(carriers_follow(edit.apply(job), edit.path), edit.path)
    return edit.apply(job)


def _without_panel(job: Job, path: str) -> Job:
    """What hangs on a panel goes with it."""
    return raisings_follow(tethers_follow(job, path), path)


def describe(edits: list[Edit]) -> str:
    """A short summary for the revision list."""
    more = f" and {len(edits) - 1} more" if len(edits) > 1 else ""
    return f"{edits[0].words()}{more}"


__all__ = [
    "AddEntry",
    "ApplyTemplate",
    "Arrange",
    "ChooseVariant",
    "Edit",
    "ForgetFoot",
    "KeepVariant",
    "MirrorPanel",
    "NoteReading",
    "PlacePanel",
    "PutInFrame",
    "PutOnPosts",
    "PutOnRack",
    "PutOnRails",
    "RaisePanel",
    "RecordFoot",
    "RemoveEntry",
    "ReplaceModel",
    "SetValue",
    "SpreadFeet",
    "StandAnywhere",
    "TetherPanel",
    "UseVariant",
    "apply_edits",
    "describe",
]
