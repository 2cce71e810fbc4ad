"""How panels stand when they are raised: each about an edge of its own, those of one unit about one edge."""

from __future__ import annotations

from collections.abc import Iterable
from math import cos, radians, sin
from typing import Literal

from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect


@dataclass(frozen=True, slots=True)
class Raised:
    """What a raised panel covers, and how much higher its edges stand than lying flat, mm: ``low_mm`` the one
    towards the hinges, more than 0 where others of its unit are nearer to them, and ``rise_mm`` its ``up``
    edge.
    """

    rect: Rect
    up: Literal["front", "rear", "port", "starboard"]
    rise_mm: float
    low_mm: float = 0.0


@dataclass(frozen=True, slots=True)
class Body:
    """What turns as one plane: what it covers lying flat, and the panels of it."""

    rect: Rect
    panels: frozenset[str]


def bodies_of(panels: Iterable[PlacedPanel], raisings: Iterable[Raising]) -> dict[str, Body]:
    """Of every panel that is raised what it turns with: its unit, or itself where it has none, or where one
    of its unit is raised otherwise.
    """
    up = {p.id: p for p in panels if p.tilt.deg > 0}
    found = {p.id: Body(panel_rect(p), frozenset({p.id})) for p in up.values()}
    for raising in raisings:
        own = [up[name] for name in raising.panels if name in up]
        if len({(p.tilt.deg, p.tilt_up) for p in own}) == 1:
            body = Body(_around([panel_rect(p) for p in own]), frozenset(p.id for p in own))
            found.update({p.id: body for p in own})
    return found


def _around(rects: list[Rect]) -> Rect:
    x, y = min(r.x_mm for r in rects), min(r.y_mm for r in rects)
    return Rect(x, y, max(r.x_end_mm for r in rects) - x, max(r.y_end_mm for r in rects) - y)


def raised_panel(panel: PlacedPanel, body: Body) -> Raised:
    """How a panel stands when its body is raised by as much as it says."""
    rect, tilt = panel_rect(panel), radians(panel.tilt.deg)
    out, free = out_of_hinge(panel, rect, body)
    start, run = out * cos(tilt), free * cos(tilt)
    seen = {
        "front": Rect(body.rect.x_end_mm - start - run, rect.y_mm, run, rect.width_mm),
        "rear": Rect(body.rect.x_mm + start, rect.y_mm, run, rect.width_mm),
        "port": Rect(rect.x_mm, body.rect.y_end_mm - start - run, rect.length_mm, run),
        "starboard": Rect(rect.x_mm, body.rect.y_mm + start, rect.length_mm, run),
    }[panel.tilt_up]
    return Raised(seen, panel.tilt_up, (out + free) * sin(tilt), out * sin(tilt))


def out_of_hinge(panel: PlacedPanel, rect: Rect, body: Body) -> tuple[float, float]:
    """Where a panel begins, measured from the hinges, and how far it reaches on, mm."""
    match panel.tilt_up:
        case "front":
            return body.rect.x_end_mm - rect.x_end_mm, rect.length_mm
        case "rear":
            return rect.x_mm - body.rect.x_mm, rect.length_mm
        case "port":
            return body.rect.y_end_mm - rect.y_end_mm, rect.width_mm
        case _:
            return rect.y_mm - body.rect.y_mm, rect.width_mm
