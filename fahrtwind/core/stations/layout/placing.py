"""Where a new panel goes at first, and how feet are spread over its frame."""

from __future__ import annotations

import math
from typing import Literal, cast

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.identifiers import identifier, next_number
from fahrtwind.core.job.panel import Attachment, Foot, PanelModel, PlacedPanel
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.schools import SCHOOLS
from fahrtwind.core.stations.hold.schools.lengths import fitted
from fahrtwind.core.stations.layout.footprint import Rect, lid_rect, obstacle_rect, panel_rect, roof_rect

FIRST_SCHOOL = "screws"
GAP_MM = 50.0
FURTHEST_AFT_MM = 22_000.0
LARGE_MM = 1300.0
END_SHARE = 0.2
"""Feet sit about a fifth in from the ends of the frame (common practice, and panel makers' usual clamping
zone).
"""


def new_panel(job: Job, model_name: str) -> PlacedPanel:
    """A panel of the named model on the first free spot along the centre line, held like the panel before
    it. Raises InputError where the roof has no room left for it or the model is not known.
    """
    model = find_model(job, model_name)
    at = _first_free_x(job, model)
    if at > FURTHEST_AFT_MM:
        raise InputError(
            "There is no room for another panel.",
            remedy="Move or remove a panel, or keep this layout as a variant.",
            field="panels",
        )
    number = next_number("panels", [p.id for p in job.panels])
    before = job.panels[-1] if job.panels else None
    panel = PlacedPanel(
        id=identifier("panels", number),
        name=f"Panel {number}",
        model=model,
        x=Length(mm=at),
        y=Length(mm=0.0),
        hold=before.hold if before else first_hold(job),
        stand_off=before.stand_off if before else Length(mm=40),
    )
    return panel.model_copy(update={"feet": _feet_for(panel, usual_feet(model), "sides")})


def first_hold(job: Job) -> Attachment:
    """How the first panel is held: screws from the shelf, as long as the roof wants them."""
    screws = cast("Attachment", SCHOOLS[FIRST_SCHOOL].usual(job.units))
    return fitted(screws, job.vehicle, job.members, job.units)


def usual_feet(model: PanelModel) -> int:
    """Six feet for a panel over 1.3 m, four for a smaller one: common practice, no source."""
    return 6 if model.length.mm > LARGE_MM else 4


def panel_at(
    model: PanelModel,
    number: int,
    corner_mm: tuple[float, float],
    *,
    turned: bool,
    hold: Attachment,
    stand_off: Length,
    feet: int,
) -> PlacedPanel:
    """A panel with so many feet along its sides whose front port corner lies at ``corner_mm``."""
    across = model.length.mm if turned else model.width.mm
    panel = PlacedPanel(
        id=identifier("panels", number),
        name=f"Panel {number}",
        model=model,
        x=Length(mm=corner_mm[0]),
        y=Length(mm=corner_mm[1] + across / 2),
        turned=turned,
        hold=hold,
        stand_off=stand_off,
    )
    return panel.model_copy(update={"feet": _feet_for(panel, feet, "sides")})


def with_twin(job: Job, panel_id: str) -> tuple[PlacedPanel, ...]:
    """The panels with the twin of one on the other side of the centre line.

    A panel that lies across that line gets its twin beside it, with room for both panels' brackets; where the
    roof has no room for that but for a pair to both sides of the line, the panel itself makes room.
    """
    panel = next(p for p in job.panels if p.id == panel_id)
    y, twin_y = _pair_y(job, panel, panel_rect(panel).width_mm)
    others = tuple(
        p.model_copy(update={"y": Length(mm=y)}) if p is panel and y != p.y.mm else p for p in job.panels
    )
    return (*others, _twin(job, panel, twin_y))


def _twin(job: Job, panel: PlacedPanel, y_mm: float) -> PlacedPanel:
    number = next_number("panels", [p.id for p in job.panels])
    across = panel_rect(panel).width_mm
    sides = {"port": "starboard", "starboard": "port"}
    feet = tuple(
        f.model_copy(update={"side": sides[f.side]})
        if f.side in sides
        else f.model_copy(update={"along": Length(mm=across - f.along.mm)})
        for f in panel.feet
    )
    return panel.model_copy(
        update={
            "id": identifier("panels", number),
            "name": f"Panel {number}",
            "y": Length(mm=y_mm),
            "feet": feet,
            "measured_length": None,
            "measured_width": None,
            "locked": False,
        }
    )


def _pair_y(job: Job, panel: PlacedPanel, across: float) -> tuple[float, float]:
    """Where the panel and its twin have their middles."""
    bracket = panel.hold.bracket
    gap = max(job.assumptions.panel_gap.mm, 2 * (bracket.lever.mm + bracket.toe.mm) + 1.0)
    if abs(panel.y.mm) >= (across + gap) / 2 - 1.0:
        return panel.y.mm, -panel.y.mm
    side = 1 if panel.y.mm <= 0 else -1
    beside, apart = panel.y.mm + (across + gap) * side, (across + gap) / 2
    half = job.vehicle.roof_width.mm / 2 if job.vehicle.roof_width else math.inf
    if abs(beside) + across / 2 > half >= apart + across / 2 and not panel.locked:
        return -apart * side, apart * side
    return panel.y.mm, beside


def find_model(job: Job, name: str) -> PanelModel:
    """The model of that name, the job's own first. Raises InputError where there is none."""
    for model in (*job.own_models, *catalogue()):
        if model.name == name:
            return model
    raise InputError(
        f"No panel model is called “{name}”.",
        remedy="Choose one from the list or add your own.",
        field="model",
    )


def spread_feet(job: Job, panel_id: str, count: int, along: Literal["sides", "ends"]) -> tuple[Foot, ...]:
    panel = next(p for p in job.panels if p.id == panel_id)
    return _feet_for(panel, count, along)


def _feet_for(panel: PlacedPanel, count: int, along: Literal["sides", "ends"]) -> tuple[Foot, ...]:
    rect = panel_rect(panel)
    sides = ("port", "starboard") if along == "sides" else ("front", "rear")
    run = rect.length_mm if along == "sides" else rect.width_mm
    feet: list[Foot] = []
    for side_index, side in enumerate(sides):
        on_side = (count + 1 - side_index) // 2
        for i in range(on_side):
            share = 0.5 if on_side == 1 else END_SHARE + (1 - 2 * END_SHARE) * i / (on_side - 1)
            feet.append(
                Foot.model_validate(
                    {"id": identifier("feet", len(feet) + 1), "side": side, "along": round(run * share, 1)}
                )
            )
    return tuple(feet)


def _first_free_x(job: Job, model: PanelModel) -> float:
    """The foremost x, in steps, where the panel keeps clear of obstacles and panels; behind the last thing if
    none.
    """
    longer, shorter = model.length.mm, model.width.mm
    taken = [panel_rect(p).grown(GAP_MM).polygon() for p in job.panels]
    taken += [lid.polygon() for o in job.obstacles if (lid := lid_rect(o)) is not None]
    taken += [obstacle_rect(o).grown(max(o.clearance.mm, GAP_MM)).polygon() for o in job.obstacles]
    roof = roof_rect(job.vehicle)
    end = (roof.length_mm if roof else 12_000) - longer
    x = 150.0
    while x <= end:
        spot = Rect(x, -shorter / 2, longer, shorter).polygon()
        if not any(spot.intersects(t) for t in taken):
            return x
        x += 10.0
    return max(end, 0.0) if not job.panels else _behind_the_last(job)


def _behind_the_last(job: Job) -> float:
    """Behind the rearmost panel, mm: it may be past the roof's end, and the snags then say so."""
    return max(panel_rect(p).x_end_mm for p in job.panels) + GAP_MM
