"""What can be done in the layout beyond setting, adding and removing, and what a lock refuses."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import JobEdit, with_lists
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.part import Identifier, Name, Note, Reason
from fahrtwind.core.job.paths import changed_at, entry_position
from fahrtwind.core.stations.layout.arranging import Order, arranged, refuse_locked, replaced
from fahrtwind.core.stations.layout.placing import find_model, new_panel, spread_feet, with_twin
from fahrtwind.core.stations.layout.variants import chosen, kept, used

PLACE_FIELDS = ("x", "y", "turned")


def refuse_to_move(job: Job, path: str, *, whole: bool = False) -> None:
    """Raise where an edit at ``path`` would move, turn or (``whole``) remove a locked panel."""
    words = path.split(".")
    if words[0] == "panels" and (len(words) == 2 if whole else len(words) > 2 and words[2] in PLACE_FIELDS):
        panel = next((p for p in job.panels if p.id == words[1]), None)
        if panel is not None:
            refuse_locked(panel)


def _must_exist(job: Job, panel_id: str) -> None:
    entry_position(job.panels, panel_id, f"panels.{panel_id}")


class PlacePanel(JobEdit):
    """Put a panel of a model on the first free spot, with feet spread along its sides."""

    op: Literal["place_panel"] = "place_panel"
    model: Name

    def apply(self, job: Job) -> Job:
        return with_lists(job, {"panels": (*job.panels, new_panel(job, self.model))})

    def words(self) -> str:
        return f"Placed {self.model}"


class SpreadFeet(JobEdit):
    """Give a panel ``count`` feet, spread evenly along its long (or short) sides, and let them snap."""

    op: Literal["spread_feet"] = "spread_feet"
    panel: str
    count: Annotated[int, Field(ge=2, le=16)]
    along: Literal["sides", "ends"] = "sides"

    def apply(self, job: Job) -> Job:
        _must_exist(job, self.panel)
        feet = [f.model_dump() for f in spread_feet(job, self.panel, self.count, self.along)]
        return changed_at(job, f"panels.{self.panel}.feet", lambda _before: feet, job.units)

    def words(self) -> str:
        return f"Spread feet of {self.panel}"


class MirrorPanel(JobEdit):
    """Put the same panel on the other side of the centre line: same edge offset, same distances, feet
    mirrored too.
    """

    op: Literal["mirror_panel"] = "mirror_panel"
    panel: Identifier

    def apply(self, job: Job) -> Job:
        _must_exist(job, self.panel)
        return with_lists(job, {"panels": with_twin(job, self.panel)})

    def words(self) -> str:
        return f"Mirrored {self.panel}"


class Arrange(JobEdit):
    """Put panels in line with the first of them, on the centre line, or at equal gaps between the outer
    two.
    """

    op: Literal["arrange"] = "arrange"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]
    order: Order

    def apply(self, job: Job) -> Job:
        return with_lists(job, {"panels": arranged(job, self.panels, self.order)})

    def words(self) -> str:
        return "Arranged panels"


class ReplaceModel(JobEdit):
    """Another model in the place of panels that were planned: feet keep their share of the frame, measured
    sizes go.
    """

    op: Literal["replace_model"] = "replace_model"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]
    model: Name

    def apply(self, job: Job) -> Job:
        model = find_model(job, self.model)
        for panel_id in self.panels:
            _must_exist(job, panel_id)
        return with_lists(
            job, {"panels": tuple(replaced(p, model) if p.id in self.panels else p for p in job.panels)}
        )

    def words(self) -> str:
        return f"Changed to {self.model}"


class KeepVariant(JobEdit):
    """Keep the present layout, or the given panels, as a variant."""

    op: Literal["keep_variant"] = "keep_variant"
    name: Name
    note: Note = ""
    panels: Annotated[tuple[PlacedPanel, ...], Field(max_length=24)] | None = None

    def apply(self, job: Job) -> Job:
        return with_lists(job, {"variants": kept(job, self.name, self.note, self.panels)})

    def words(self) -> str:
        return f"Kept {self.name}"


class UseVariant(JobEdit):
    """Put a variant on the roof; a layout that is there and not kept yet is kept first."""

    op: Literal["use_variant"] = "use_variant"
    variant: Identifier

    def apply(self, job: Job) -> Job:
        return with_lists(job, used(job, self.variant))

    def words(self) -> str:
        return f"Put on the roof: {self.variant}"


class ChooseVariant(JobEdit):
    """Put a variant on the roof for good, with the reason."""

    op: Literal["choose_variant"] = "choose_variant"
    variant: Identifier
    reason: Reason

    def apply(self, job: Job) -> Job:
        return with_lists(job, chosen(job, self.variant, self.reason))

    def words(self) -> str:
        return f"Chose {self.variant}"
