"""Placements made into panels on feet: with air over the crown, and held."""

from __future__ import annotations

from math import ceil

import numpy as np

from fahrtwind.core.choose.figures import with_panels
from fahrtwind.core.choose.goals import Offered, fitted_feet, stand_off_of, usual_hold
from fahrtwind.core.choose.hold_all import HeldRoof, hold_all
from fahrtwind.core.choose.hold_search import QUICK
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.layout.clear_height import LEAST_AIR_MM
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.placing import panel_at
from fahrtwind.core.stations.layout.proposals.placements import Kind, Placements, fits_room

STAND_OFF_STEP_MM, HIGHEST_STAND_OFF_MM = 5.0, 120.0
OF_THE_ROOF = ("carrier", "tether", "speed")
"""Changes that no proposal makes: it brings panels, and a fairing before them at most."""


def panels_of(offered: Offered, placements: Placements) -> tuple[PlacedPanel, ...]:
    """The placements as panels with feet, front to rear; one that has its stretch to itself comes to lie in
    the middle.
    """
    job = offered.job
    locked = tuple(p for p in job.panels if p.locked)
    panels = list(locked)
    hold, feet = usual_hold(job), fitted_feet(offered, placements)
    for i in sorted(range(len(placements)), key=lambda i: (int(placements.x[i]), int(placements.y[i]))):
        kind = offered.kinds[placements.kind[i]]
        port = _centred(kind, placements, i, locked)
        number = 1 + max((int(p.id[1:]) for p in panels if p.id[1:].isdigit()), default=0)
        panels.append(
            panel_at(
                offered.models[kind.model],
                number,
                (float(placements.x[i]), port),
                turned=kind.turned,
                hold=hold,
                stand_off=stand_off_of(job),
                feet=int(feet[i]),
            )
        )
    return tuple(panels)


def raised(job: Job, panels: tuple[PlacedPanel, ...]) -> tuple[PlacedPanel, ...]:
    """Panels that would come too near to the crown stand off further, in steps of 5 mm, as far as feet
    usually reach.
    """
    heights = {h.panel: h.least_mm for h in evaluate(with_panels(job, panels)).findings.clear_heights}
    found = []
    for panel in panels:
        wanted = LEAST_AIR_MM - heights.get(panel.id, LEAST_AIR_MM)
        if wanted > 0 and not panel.locked:
            higher = min(
                ceil((panel.stand_off.mm + wanted) / STAND_OFF_STEP_MM) * STAND_OFF_STEP_MM,
                HIGHEST_STAND_OFF_MM,
            )
            panel = panel.model_copy(update={"stand_off": Length(mm=max(higher, panel.stand_off.mm))})
        found.append(panel)
    return tuple(found)


def held(job: Job, panels: tuple[PlacedPanel, ...]) -> HeldRoof:
    """Panels made to hold by their own feet, fasteners, pads and bars; by a fairing too where that is needed.
    Where that is not enough they stay as they were.
    """
    return hold_all(with_panels(job, panels), without=OF_THE_ROOF, but_locked=True, effort=QUICK)


def what_holds(job: Job, panels: tuple[PlacedPanel, ...]) -> tuple[HeldRoof, tuple[str, ...]]:
    """The panels that can be held, with the names of those that were left out, worst first: what no fastener
    holds, or what has any other stop.
    """
    left_out: list[str] = []
    while True:
        found = held(job, panels)
        worst = found.panel if found.why else _stopped(found.job)
        if worst is None or any(p.locked and p.id == worst for p in panels):
            return found, tuple(left_out)
        left_out += [p.name for p in panels if p.id == worst]
        panels = tuple(p for p in panels if p.id != worst)


def _stopped(job: Job) -> str | None:
    """The panel with most stops."""
    stops = [
        s.place.split(".")[1]
        for s in evaluate(job).snags
        if s.severity == "stop" and s.station != "wire" and s.place.startswith("panels.")
    ]
    return max(stops, key=stops.count, default=None)


def _centred(kind: Kind, placements: Placements, one: int, locked: tuple[PlacedPanel, ...]) -> float:
    gap, middle = placements.gap_mm, round(-kind.width_mm / 2)
    beside = (placements.x < placements.x[one] + kind.length_mm + gap) & (
        placements.x + placements.length + gap > placements.x[one]
    )
    alone = beside.sum() == 1 and not any(
        r.x_mm < placements.x[one] + kind.length_mm + gap and r.x_end_mm + gap > placements.x[one]
        for r in map(panel_rect, locked)
    )
    at = (placements.x[one : one + 1], np.array([middle], dtype=np.int64))
    if alone and fits_room(kind.room, *at, kind.length_mm, kind.width_mm)[0]:
        return float(middle)
    return float(placements.y[one])
