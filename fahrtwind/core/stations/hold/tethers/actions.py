"""Giving a panel its tethers, and taking them away with it."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import JobEdit, with_lists
from fahrtwind.core.job.identifiers import identifier, next_number
from fahrtwind.core.job.panel import Attachment, PlacedPanel, Side
from fahrtwind.core.job.part import Identifier
from fahrtwind.core.job.paths import entry_position
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.schools import bolts, screws
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect, roof_rect

APART_MM = 10.0


class TetherPanel(JobEdit):
    """Two tethers for a panel, on opposite sides: at its long sides where the roof has room beside them."""

    op: Literal["tether_panel"] = "tether_panel"
    panel: Identifier

    def apply(self, job: Job) -> Job:
        panel = job.panels[entry_position(job.panels, self.panel, f"panels.{self.panel}")]
        number = next_number("tethers", [t.id for t in job.tethers])
        made = tuple(
            _tether(job, panel, side, identifier("tethers", i))
            for i, side in enumerate(_sides(job, panel), start=number)
        )
        return with_lists(job, {"tethers": (*job.tethers, *made)})

    def words(self) -> str:
        return f"Tethers for {self.panel}"


def _sides(job: Job, panel: PlacedPanel) -> tuple[Side, Side]:
    rect, roof = panel_rect(panel), roof_rect(job.vehicle)
    if roof is None or _room_beside(job, panel, rect, roof):
        return "port", "starboard"
    return "front", "rear"


def anchor_hold(job: Job, panel: PlacedPanel) -> Attachment:
    """As the panel is held; an anchor on the same tape would come off with it."""
    if panel.hold.school != "tape":
        return panel.hold
    if job.members.kind is None:
        return bolts.usual(job.units)
    return screws.usual(job.units)


def out_mm(panel: PlacedPanel, anchor: Attachment) -> float:
    """How far out an anchor stands clear of the feet beside it."""
    foot = panel.hold.bracket
    return foot.lever.mm + foot.toe.mm + anchor.bracket.lever.mm + APART_MM


def _room_beside(job: Job, panel: PlacedPanel, rect: Rect, roof: Rect) -> bool:
    hold = anchor_hold(job, panel)
    out = out_mm(panel, hold) + hold.bracket.toe.mm
    return rect.y_mm - out >= roof.y_mm and rect.y_end_mm + out <= roof.y_end_mm


def _tether(job: Job, panel: PlacedPanel, side: Side, name: str) -> Tether:
    rect = panel_rect(panel)
    hold = anchor_hold(job, panel)
    run = rect.length_mm if side in ("port", "starboard") else rect.width_mm
    return Tether(
        id=name,
        name=f"Tether {name.lstrip('j')}",
        panel=panel.id,
        side=side,
        along=Length(mm=round(run / 2)),
        out=Length(mm=round(out_mm(panel, hold))),
        hold=hold,
    )


def tethers_follow(job: Job, path: str) -> Job:
    """After an edit at ``path`` took a panel away: its tethers go with it."""
    if not path.startswith("panels") or not job.tethers:
        return job
    there = {p.id for p in job.panels}
    kept = tuple(t for t in job.tethers if t.panel in there)
    return job if len(kept) == len(job.tethers) else with_lists(job, {"tethers": kept})
