"""Places a panel likes to lie: at its margins, a gap away from things, in line with other panels, mirrored,
over members.
"""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.feet import place_feet
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.room import room_of
from fahrtwind.core.stations.structure.members import Member

SAME_MM = 0.5


@dataclass(frozen=True, slots=True)
class Snap:
    """A value of a panel's x (its front edge) or y (its middle) that lines up with something: the line to
    draw, and why.

    ``low_mm`` and ``high_mm`` are how far the thing reaches along the line: it matters to a panel that comes
    near.
    """

    axis: Literal["x", "y"]
    at_mm: float
    line_mm: float
    low_mm: float
    high_mm: float
    words: str


def snaps_of(plan: RoofPlan, panel_id: str, members: tuple[Member, ...]) -> tuple[Snap, ...]:
    """All places for one panel, along and across. Raises InputError where there is no such panel."""
    panel = next((p for p in plan.panels if p.id == panel_id), None)
    if panel is None:
        raise InputError(
            f"There is no panel {panel_id}.", remedy="Choose one of the job's panels.", field="panel"
        )
    rect = panel_rect(panel)
    mates = {p.id for p in plan.panels if p.id == panel_id or (panel.array and p.array == panel.array)}
    room = room_of(
        plan,
        panel.stand_off.mm + panel.model.frame_height.mm,
        frozenset(p.id for p in plan.panels if p.id not in mates),
    )
    found: list[Snap] = []
    if room is not None:
        found += _against(rect, room.bounds, "edge margin", inside=True)
        for block in room.blocks:
            found += _against(rect, block.rect, block.name, inside=False)
    for other in plan.panels:
        if other.id not in mates:
            found += _in_line(rect, panel_rect(other), other.name)
    roof = room.bounds if room else rect
    found.append(Snap("y", 0.0, 0.0, roof.x_mm, roof.x_end_mm, "centre line"))
    for foot in place_feet(
        plan.members, panel, ()
    ):  # where the frame's feet are meant to be, before they snap to members
        if foot.on_side:
            found += [
                Snap(
                    "x",
                    rect.x_mm + m.x_mm - foot.x_mm,
                    m.x_mm,
                    roof.y_mm,
                    roof.y_end_mm,
                    f"foot {foot.foot} on member {m.number}",
                )
                for m in members
            ]
    return _distinct(found)


def _against(rect: Rect, other: Rect, name: str, *, inside: bool) -> list[Snap]:
    low_x, high_x = (other.x_mm, other.x_end_mm) if inside else (other.x_end_mm, other.x_mm)
    low_y, high_y = (other.y_mm, other.y_end_mm) if inside else (other.y_end_mm, other.y_mm)
    along, across = (other.y_mm, other.y_end_mm), (other.x_mm, other.x_end_mm)
    return [
        Snap("x", low_x, low_x, *along, name),
        Snap("x", high_x - rect.length_mm, high_x, *along, name),
        Snap("y", low_y + rect.width_mm / 2, low_y, *across, name),
        Snap("y", high_y - rect.width_mm / 2, high_y, *across, name),
    ]


def _in_line(rect: Rect, other: Rect, name: str) -> list[Snap]:
    """In line with another panel; mirrored only as its twin, in the same place along the roof."""
    along, across, (_, y) = (other.y_mm, other.y_end_mm), (other.x_mm, other.x_end_mm), other.centre
    half = rect.width_mm / 2
    return [
        Snap("x", other.x_mm, other.x_mm, *along, f"in line with {name}"),
        Snap("x", other.x_end_mm - rect.length_mm, other.x_end_mm, *along, f"in line with {name}"),
        Snap("y", y, y, *across, f"in line with {name}"),
        Snap("y", other.y_mm + half, other.y_mm, *across, f"in line with {name}"),
        Snap("y", other.y_end_mm - half, other.y_end_mm, *across, f"in line with {name}"),
        Snap("y", -other.y_mm - half, -other.y_mm, *across, f"mirrors {name}"),
        Snap("y", -other.y_end_mm + half, -other.y_end_mm, *across, f"mirrors {name}"),
    ]


def _distinct(found: list[Snap]) -> tuple[Snap, ...]:
    """One for each value; what was named first stays."""
    kept: list[Snap] = []
    for snap in found:
        if not any(k.axis == snap.axis and abs(k.at_mm - snap.at_mm) < SAME_MM for k in kept):
            kept.append(snap)
    return tuple(sorted(kept, key=lambda s: (s.axis, s.at_mm)))
