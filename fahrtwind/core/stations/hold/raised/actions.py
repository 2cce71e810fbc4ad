"""Giving panels their hinges and struts, and taking them away with them."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import JobEdit, with_lists
from fahrtwind.core.job.identifiers import next_id
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.part import Identifier
from fahrtwind.core.job.paths import entry_position
from fahrtwind.core.job.raising import MOST_LATCHES, MOST_RAISED, Raising

LEAST_LATCHES = 2


class RaisePanel(JobEdit):
    """Hinges and struts for a panel and the others of its array or its frame, as one unit that has one angle;
    a frame on feet at places of its own gets a latch at each of the side that is raised.
    """

    op: Literal["raise_panel"] = "raise_panel"
    panel: Identifier

    def apply(self, job: Job) -> Job:
        panel = job.panels[entry_position(job.panels, self.panel, f"panels.{self.panel}")]
        on = next((c for c in job.carriers if c.id == panel.carrier), None)
        frame = on if isinstance(on, Rack) and on.flush else None
        together = [p.id for p in job.panels if p.id == panel.id or _of_one(panel, p, frame)][:MOST_RAISED]
        name = next_id("raisings", [r.id for r in job.raisings])
        made = Raising(id=name, name=f"Unit {name.lstrip('g')}", panels=tuple(together))
        if frame is not None and len(frame.feet_at) >= LEAST_LATCHES:
            made = made.model_copy(update={"latches": min(len(frame.feet_at), MOST_LATCHES)})
        raised = with_lists(job, {"raisings": (*job.raisings, made)})
        return _as_one(raised, panel, made)

    def words(self) -> str:
        return f"Hinges and struts for {self.panel}"


def _of_one(panel: PlacedPanel, other: PlacedPanel, frame: Rack | None) -> bool:
    """Whether two panels are one array, or lie in one frame."""
    if frame is not None and other.carrier == frame.id:
        return True
    return bool(panel.array and other.array == panel.array)


def _as_one(job: Job, panel: PlacedPanel, raising: Raising) -> Job:
    """All of a unit raised as one of them is."""
    angle = {"tilt": panel.tilt, "tilt_up": panel.tilt_up}
    panels = tuple(p.model_copy(update=angle) if p.id in raising.panels else p for p in job.panels)
    return with_lists(job, {"panels": panels})


def unit_follows(job: Job, path: str) -> Job:
    """After the angle or the raised edge of a panel was set: all of its unit has the same."""
    words = path.split(".")
    if words[0] != "panels" or words[2:3] not in (["tilt"], ["tilt_up"]):
        return job
    panel = job.panels[entry_position(job.panels, words[1], path)]
    raising = next((r for r in job.raisings if panel.id in r.panels), None)
    return job if raising is None else _as_one(job, panel, raising)


def raisings_follow(job: Job, path: str) -> Job:
    """After an edit at ``path`` took a panel away: units lose it, and go with their last."""
    if not path.startswith("panels") or not job.raisings:
        return job
    there = {p.id for p in job.panels}
    if all(set(r.panels) <= there for r in job.raisings):
        return job
    kept = (r.model_copy(update={"panels": tuple(p for p in r.panels if p in there)}) for r in job.raisings)
    return with_lists(job, {"raisings": tuple(r for r in kept if r.panels)})
