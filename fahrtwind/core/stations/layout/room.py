"""Where panels may lie: the roof less its margins, and everything that blocks a part of it, as upright
rectangles.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

from shapely.geometry import box

from fahrtwind.core.formulas.roof_shape import lid_height_beyond
from fahrtwind.core.job.document import Assumptions, Obstacle
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.distances import LID_MARGIN_MM, UPRIGHT_DEG, roof_extent
from fahrtwind.core.stations.layout.footprint import Rect, lid_rect, obstacle_rect, panel_rect, roof_rect
from fahrtwind.core.stations.survey.lids import lid_swing
from fahrtwind.core.stations.survey.outline import is_plain, sound_outline

BlockKind = Literal["edge", "obstacle", "lid", "panel", "free area"]
Side = Literal["front", "rear", "port", "starboard"]
SIDES: tuple[Side, ...] = ("front", "rear", "port", "starboard")
SLICE_MM = 250.0
LOW_STEP_MM = 5.0


@dataclass(frozen=True, slots=True)
class Block:
    """A part of the roof that a panel's frame must not enter. ``clearance_mm``: how much of it is distance to
    be kept.
    """

    kind: BlockKind
    of: str
    name: str
    rect: Rect
    clearance_mm: float


@dataclass(frozen=True, slots=True)
class Room:
    """The rectangle panels stay in, the blocks in it, and fences: a panel lies wholly inside or wholly
    outside of each.

    ``gap_mm`` is the least distance between panels along the roof, ``side_gap_mm`` across it, where their
    feet stand.
    """

    bounds: Rect
    blocks: tuple[Block, ...]
    fences: tuple[Rect, ...]
    gap_mm: float
    side_gap_mm: float


def least_from_edge(assumptions: Assumptions, side: Side) -> float:
    """The least distance from a roof edge, mm; negative where a panel may hang over it."""
    own = getattr(assumptions.margins, side)
    return float(assumptions.edge_clearance.mm if own is None else own.mm)


def room_of(
    plan: RoofPlan, panel_height_mm: float, keep: frozenset[str] = frozenset(), feet_mm: float = 0.0
) -> Room | None:
    """What is free for panels whose top stands ``panel_height_mm`` over the roof; None while the roof has no
    size.

    ``keep``: panels that stay where they are. ``feet_mm``: how far feet reach out beside a panel.
    Round and other shapes count as the rectangle around them.
    """
    roof = roof_rect(plan.vehicle)
    if roof is None:
        return None
    front, rear, port, starboard = (least_from_edge(plan.assumptions, side) for side in SIDES)
    bounds = Rect(front, roof.y_mm + port, roof.length_mm - front - rear, roof.width_mm - port - starboard)
    blocks = [*_outside(plan, roof), *_free_areas(plan)]
    for obstacle in plan.obstacles:
        if obstacle.stays:
            blocks += _obstacle(obstacle, panel_height_mm)
    gap = plan.assumptions.panel_gap.mm
    side_gap = max(gap, 2 * feet_mm)
    blocks += [
        Block("panel", p.id, p.name, panel_rect(p).grown(gap, side_gap), gap)
        for p in plan.panels
        if p.id in keep
    ]
    fences = tuple(
        Rect(s.x.mm, s.y.mm - s.width.mm / 2, s.length.mm, s.width.mm)
        for s in plan.survey.sections
        if abs(s.step.mm) > LOW_STEP_MM
    )
    return Room(bounds, tuple(blocks), fences, gap, side_gap)


def _obstacle(obstacle: Obstacle, panel_height_mm: float) -> list[Block]:
    clearance = obstacle.clearance.mm
    found = [
        Block("obstacle", obstacle.id, obstacle.name, obstacle_rect(obstacle).grown(clearance), clearance)
    ]
    lid = lid_rect(obstacle)
    if lid is not None:
        found += [
            Block("lid", obstacle.id, obstacle.name, low, 0.0)
            for low in _too_low(obstacle, lid, panel_height_mm)
        ]
    return found


def _too_low(obstacle: Obstacle, lid: Rect, panel_height_mm: float) -> list[Rect]:
    """The part of an open lid's lean under which such a panel does not pass: all of it, or a strip along the
    hinge.
    """
    swing = lid_swing(obstacle)
    if swing is None or swing.angle_deg <= UPRIGHT_DEG:
        return [lid]
    rise = float(lid_height_beyond(swing.hinge_height_mm, 1.0, swing.angle_deg)) - swing.hinge_height_mm
    wanted = panel_height_mm + LID_MARGIN_MM - swing.hinge_height_mm
    depth = (
        min(max(wanted / rise, 0.0), swing.lean_mm) if rise > 1e-9 else (swing.lean_mm if wanted > 0 else 0.0)
    )
    if depth <= 0:
        return []
    match swing.hinge:
        case "front":
            return [Rect(lid.x_end_mm - depth, lid.y_mm, depth, lid.width_mm)]
        case "rear":
            return [Rect(lid.x_mm, lid.y_mm, depth, lid.width_mm)]
        case "left":
            return [Rect(lid.x_mm, lid.y_end_mm - depth, lid.length_mm, depth)]
        case _:
            return [Rect(lid.x_mm, lid.y_mm, lid.length_mm, depth)]


def _free_areas(plan: RoofPlan) -> list[Block]:
    return [
        Block("free area", a.id, a.name, Rect(a.x.mm, a.y.mm - a.width.mm / 2, a.length.mm, a.width.mm), 0.0)
        for a in plan.keep_free
    ]


def _outside(plan: RoofPlan, roof: Rect) -> list[Block]:
    """What a tapered, rounded or crooked outline takes off its rectangle, in slices across the roof; errs
    towards less roof.
    """
    if is_plain(plan.survey.outline):
        return []
    outline = sound_outline(plan)
    return (
        []
        if outline is None
        else list(_slices(outline.wkb, roof, tuple(least_from_edge(plan.assumptions, s) for s in SIDES)))
    )


@lru_cache(maxsize=32)
def _slices(outline_wkb: bytes, roof: Rect, least: tuple[float, ...]) -> tuple[Block, ...]:
    from shapely import wkb

    outline, (front, rear, port, starboard) = wkb.loads(outline_wkb), least
    bounds = Rect(front, roof.y_mm + port, roof.length_mm - front - rear, roof.width_mm - port - starboard)
    found: list[Block] = []
    x = bounds.x_mm
    while x < bounds.x_end_mm - 1e-6:
        end = min(x + SLICE_MM, bounds.x_end_mm)
        rows = [roof_extent(outline, at, along_x=False) for at in (x + 0.01, (x + end) / 2, end - 0.01)]
        low, high = max(r[0] for r in rows) + port, min(r[1] for r in rows) - starboard
        if low > bounds.y_mm + 0.5:
            found.append(
                Block(
                    "edge",
                    "port",
                    "port edge",
                    _widened(x, bounds.y_mm, end, min(low, bounds.y_end_mm)),
                    port,
                )
            )
        if high < bounds.y_end_mm - 0.5:
            found.append(
                Block(
                    "edge",
                    "starboard",
                    "starboard edge",
                    _widened(x, max(high, bounds.y_mm), end, bounds.y_end_mm),
                    starboard,
                )
            )
        x = end
    return tuple(_merged(found))


def _widened(x0: float, y0: float, x1: float, y1: float) -> Rect:
    return Rect(x0, y0, x1 - x0, y1 - y0)


def _merged(blocks: list[Block]) -> list[Block]:
    """Neighbouring slices of nearly the same depth as one: fewer corners to try."""
    found: list[Block] = []
    for block in blocks:
        same = next((b for b in reversed(found) if b.of == block.of), None)
        if (
            same
            and abs(same.rect.width_mm - block.rect.width_mm) < 2
            and abs(same.rect.x_end_mm - block.rect.x_mm) < 1
        ):
            hull = box(*same.rect.polygon().union(block.rect.polygon()).bounds).bounds
            found[found.index(same)] = Block(
                block.kind, block.of, block.name, _widened(*hull), block.clearance_mm
            )
        else:
            found.append(block)
    return found
