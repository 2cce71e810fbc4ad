"""Putting panels in order: in line, at equal gaps, another model in the same place."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import Foot, PanelModel, PlacedPanel
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect

Order = Literal[
    "front", "rear", "port", "starboard", "middle", "centre_line", "spread_along", "spread_across"
]
LEAST_TO_SPREAD = 3


def arranged(job: Job, ids: tuple[str, ...], order: Order) -> tuple[PlacedPanel, ...]:
    """All panels, those named put in order. The first named stays; the others line up with it, or spread
    between the outer two.

    ``middle`` puts the middles of all on the same x; ``centre_line`` puts each on the roof's centre line.
    Raises InputError where a panel is locked or too few are named.
    """
    chosen = [_panel(job, i) for i in dict.fromkeys(ids)]
    least = 1 if order == "centre_line" else LEAST_TO_SPREAD if order.startswith("spread") else 2
    if len(chosen) < least:
        raise InputError(
            f"This needs {least} panels or more.",
            remedy="Pick more panels with shift and a click.",
            field="panels",
        )
    moved = (
        _spread(chosen, order)
        if order.startswith("spread")
        else {p.id: _aligned(p, panel_rect(chosen[0]), order) for p in chosen}
    )
    for panel in chosen:
        if moved[panel.id] != panel:
            refuse_locked(panel)
    return tuple(moved.get(p.id, p) for p in job.panels)


def _panel(job: Job, panel_id: str) -> PlacedPanel:
    found = next((p for p in job.panels if p.id == panel_id), None)
    if found is None:
        raise InputError(
            f"There is no panel {panel_id}.",
            remedy="Reload the job: it may have been removed.",
            field="panels",
        )
    return found


def refuse_locked(panel: PlacedPanel) -> None:
    """Raise where a panel is locked in its place."""
    if panel.locked:
        raise InputError(
            f"{panel.name} is locked in its place.",
            remedy="Unlock it first.",
            field=f"panels.{panel.id}.locked",
        )


def _aligned(panel: PlacedPanel, to: Rect, order: Order) -> PlacedPanel:
    rect = panel_rect(panel)
    x, y = panel.x.mm, panel.y.mm
    match order:
        case "front":
            x = to.x_mm
        case "rear":
            x = to.x_end_mm - rect.length_mm
        case "middle":
            x = to.centre[0] - rect.length_mm / 2
        case "port":
            y = to.y_mm + rect.width_mm / 2
        case "starboard":
            y = to.y_end_mm - rect.width_mm / 2
        case _:
            y = 0.0
    return _at(panel, x, y)


def _at(panel: PlacedPanel, x_mm: float, y_mm: float) -> PlacedPanel:
    if x_mm == panel.x.mm and y_mm == panel.y.mm:
        return panel
    return panel.model_copy(update={"x": Length(mm=x_mm), "y": Length(mm=y_mm)})


def _spread(chosen: list[PlacedPanel], order: Order) -> dict[str, PlacedPanel]:
    """Equal gaps between neighbours; the first and the last stay."""
    along = order == "spread_along"
    row = sorted(chosen, key=lambda p: panel_rect(p).x_mm if along else panel_rect(p).y_mm)
    rects = [panel_rect(p) for p in row]
    sizes = [r.length_mm if along else r.width_mm for r in rects]
    start = rects[0].x_mm if along else rects[0].y_mm
    end = rects[-1].x_end_mm if along else rects[-1].y_end_mm
    gap = (end - start - sum(sizes)) / (len(row) - 1)
    moved, at = {}, start
    for panel, size in zip(row, sizes, strict=True):
        moved[panel.id] = _at(panel, at, panel.y.mm) if along else _at(panel, panel.x.mm, at + size / 2)
        at += size + gap
    return moved


def replaced(panel: PlacedPanel, model: PanelModel) -> PlacedPanel:
    """Another model in the same place: front edge and middle stay, measured sizes go, feet keep their share
    of the frame.

    A pinned foot stays where it is on the roof as long as the new frame reaches it.
    """
    before = panel_rect(panel)
    other = panel.model_copy(update={"model": model, "measured_length": None, "measured_width": None})
    after = panel_rect(other)

    def moved(foot: Foot) -> Foot:
        on_side = foot.side in ("port", "starboard")
        old, new = (before.length_mm, after.length_mm) if on_side else (before.width_mm, after.width_mm)
        if foot.pinned and foot.along.mm <= new:
            return foot
        return foot.model_copy(update={"along": Length(mm=round(foot.along.mm * new / old, 1))})

    return other.model_copy(update={"feet": tuple(moved(f) for f in panel.feet)})
