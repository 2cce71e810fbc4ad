"""Giving panels their hinges and struts, and taking them away with them."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import JobEdit, with_lists
from fahrtwind.core.job.identifiers import next_id
from fahrtwind.core.job.part import Identifier
from fahrtwind.core.job.paths import entry_position
from fahrtwind.core.job.raising import Raising


class RaisePanel(JobEdit):
    """Hinges and struts for a panel and the others of its array, as one unit."""

    op: Literal["raise_panel"] = "raise_panel"
    panel: Identifier

    def apply(self, job: Job) -> Job:
        panel = job.panels[entry_position(job.panels, self.panel, f"panels.{self.panel}")]
        together = [p.id for p in job.panels if p.id == panel.id or (panel.array and p.array == panel.array)]
        name = next_id("raisings", [r.id for r in job.raisings])
        made = Raising(id=name, name=f"Unit {name.lstrip('g')}", panels=tuple(together[:8]))
        return with_lists(job, {"raisings": (*job.raisings, made)})

    def words(self) -> str:
        return f"Hinges and struts for {self.panel}"


def raisings_follow(job: Job, path: str) -> Job:
    """After an edit at ``path`` took a panel away: units lose it, and go with their last."""
    if not path.startswith("panels") or not job.raisings:
        return job
    there = {p.id for p in job.panels}
    if all(set(r.panels) <= there for r in job.raisings):
        return job
    kept = (r.model_copy(update={"panels": tuple(p for p in r.panels if p in there)}) for r in job.raisings)
    return with_lists(job, {"raisings": tuple(r for r in kept if r.panels)})
