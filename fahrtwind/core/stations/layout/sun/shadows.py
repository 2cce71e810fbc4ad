"""What stands between the cells and the sun: for every cell and bearing the height of its horizon.

A thing on the roof is a convex footprint with a plane top. Along a bearing from a cell the footprint is
entered and left at two distances; on a plane top the steepest sight line goes through one of them, so the
horizon there is known for all heights of the sun at once, and the sun is behind the thing exactly when it
stands lower. Lids and raised panels count as solid down to the roof: a little more shadow than they throw.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from math import cos, pi, radians, sin, tan

import numpy as np
import numpy.typing as npt
from shapely.geometry import MultiPoint, Polygon
from shapely.geometry.polygon import orient

from fahrtwind.core.job.document import Obstacle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import Rect, lid_rect, obstacle_polygon, panel_rect
from fahrtwind.core.stations.layout.raised import Body, Raised, bodies_of, raised_panel
from fahrtwind.core.stations.survey.lids import lid_swing

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
BEARING_DEG = 3.0
BEARINGS = int(360 / BEARING_DEG)
CELL_MM = 160.0
COLUMNS_PER_GROUP = 2
NEAR_MM = 1.0
LEAST_STEP_MM = 5.0


@dataclass(frozen=True, slots=True)
class Caster:
    """Corners of a convex footprint, counter-clockwise, mm; the top's height is ``z0 + along · x + across ·
    y``.

    What ``hangs`` leaves room for something lower under it, which it shades too.
    """

    of: str
    corners: tuple[tuple[float, float], ...]
    z0: float
    along: float = 0.0
    across: float = 0.0
    hangs: bool = False

    def height(self, x: float, y: float) -> float:
        """Height of the top, or of the plane it lies in, over the roof at a spot, mm."""
        return self.z0 + self.along * x + self.across * y


@dataclass(frozen=True, slots=True, eq=False)
class Cells:
    """Middles of the cells of one panel, mm, the group each belongs to, and the panel's unit normal."""

    points: FloatArray
    group: IntArray
    groups: int
    normal: FloatArray


def raised_on(roof: SunnyRoof, *, tilted: bool) -> dict[str, Body]:
    """Of every panel that stands raised what it is raised with; none while all lie flat."""
    return bodies_of(roof.panels, roof.raisings) if tilted else {}


def casters_of(roof: SunnyRoof, *, lids_open: bool, bodies: dict[str, Body]) -> list[Caster]:
    """Everything on the roof that throws a shadow; panels too where they stand raised."""
    found = [c for o in roof.obstacles if o.stays for c in _obstacle(o, lids_open)]
    for section in roof.survey.sections:
        if section.step.mm > LEAST_STEP_MM:
            rect = Rect(
                section.x.mm, section.y.mm - section.width.mm / 2, section.length.mm, section.width.mm
            )
            found.append(Caster(section.id, _corners(rect.polygon()), section.step.mm))
    raised = [(p, bodies[p.id]) for p in roof.panels if p.id in bodies]
    return [*found, *(plane_of(panel, raised_panel(panel, body)) for panel, body in raised)]


def _obstacle(obstacle: Obstacle, lids_open: bool) -> list[Caster]:
    hull = obstacle_polygon(obstacle).convex_hull
    found = [Caster(obstacle.id, _corners(hull), obstacle.height.mm)] if isinstance(hull, Polygon) else []
    swing, lean = lid_swing(obstacle), lid_rect(obstacle)
    if not lids_open or swing is None:
        return found
    base = obstacle_polygon(obstacle).bounds
    hinge_at, sign, lengthwise = {
        "front": (base[0], -1.0, True),
        "rear": (base[2], 1.0, True),
        "left": (base[1], -1.0, False),
        "right": (base[3], 1.0, False),
    }[swing.hinge]
    reach = max(swing.lean_mm, NEAR_MM) if lean is not None else NEAR_MM
    slope = sign * (swing.tip_height_mm - swing.hinge_height_mm) / reach
    tip = hinge_at + sign * reach
    low, high = min(hinge_at, tip), max(hinge_at, tip)
    rect = (
        Rect(low, base[1], high - low, base[3] - base[1])
        if lengthwise
        else Rect(base[0], low, base[2] - base[0], high - low)
    )
    z0 = swing.hinge_height_mm - slope * hinge_at
    along, across = (slope, 0.0) if lengthwise else (0.0, slope)
    return [*found, Caster(f"{obstacle.id} lid", _corners(rect.polygon()), z0, along, across, hangs=True)]


def plane_of(panel: PlacedPanel, raised: Raised | None) -> Caster:
    """A panel's glass, lying flat or raised."""
    low = panel.stand_off.mm + panel.model.frame_height.mm
    if raised is None:
        return Caster(panel.id, _corners(panel_rect(panel).polygon()), low)
    low += raised.low_mm
    rect, slope = raised.rect, tan(radians(panel.tilt.deg))
    along, across, hinge = {
        "front": (-slope, 0.0, rect.x_end_mm),
        "rear": (slope, 0.0, rect.x_mm),
        "port": (0.0, -slope, rect.y_end_mm),
        "starboard": (0.0, slope, rect.y_mm),
    }[raised.up]
    return Caster(panel.id, _corners(rect.polygon()), low - (along + across) * hinge, along, across)


def _corners(polygon: Polygon) -> tuple[tuple[float, float], ...]:
    return tuple(
        (x, y)
        for x, y in list(orient(MultiPoint(list(polygon.exterior.coords)).convex_hull).exterior.coords)[:-1]
    )


def cells_of(panel: PlacedPanel, body: Body | None) -> Cells:
    """The cells of a panel, raised with its body or lying flat: groups lie side by side across its short
    side, each as long as the panel.

    Without a count of bypass diodes the whole panel is one group: the darkest cell then counts for all of it.
    """
    rect, groups = panel_rect(panel), max(panel.model.bypass_diodes or 1, 1)
    longer, shorter = max(rect.length_mm, rect.width_mm), min(rect.length_mm, rect.width_mm)
    columns = max(groups * COLUMNS_PER_GROUP, round(shorter / CELL_MM / groups) * groups)
    rows = max(round(longer / CELL_MM), 1)
    short = (np.arange(columns) + 0.5) / columns
    long = (np.arange(rows) + 0.5) / rows
    lengthwise = rect.length_mm >= rect.width_mm
    a, b = (g.ravel() for g in np.meshgrid(long, short, indexing="ij"))
    u, v = (a, b) if lengthwise else (b, a)
    group = np.minimum((b * groups).astype(np.int64), groups - 1)
    points, normal = _in_space(panel, body, rect.x_mm + u * rect.length_mm, rect.y_mm + v * rect.width_mm)
    return Cells(points, group, groups, normal)


def _in_space(
    panel: PlacedPanel, body: Body | None, x: FloatArray, y: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Cells that lie flat at x and y, raised about the edge of their body that stays down; the normal."""
    z = np.full_like(x, panel.stand_off.mm + panel.model.frame_height.mm)
    if body is None:
        return np.stack([x, y, z], axis=1), np.array((0.0, 0.0, 1.0))
    whole, tilt = body.rect, radians(panel.tilt.deg)
    lean, level = sin(tilt), cos(tilt)
    match panel.tilt_up:
        case "front":
            out = whole.x_end_mm - x
            x, normal = whole.x_end_mm - out * level, (lean, 0.0, level)
        case "rear":
            out = x - whole.x_mm
            x, normal = whole.x_mm + out * level, (-lean, 0.0, level)
        case "port":
            out = whole.y_end_mm - y
            y, normal = whole.y_end_mm - out * level, (0.0, lean, level)
        case _:
            out = y - whole.y_mm
            y, normal = whole.y_mm + out * level, (0.0, -lean, level)
    return np.stack([x, y, z + out * lean], axis=1), np.array(normal)


def bearings() -> FloatArray:
    """The bearings from ahead over starboard at which horizons are known, degrees."""
    return np.linspace(BEARING_DEG / 2, 360 - BEARING_DEG / 2, BEARINGS)


def toward(bearing_deg: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Unit vectors on the plan: ahead is -x, starboard is +y. Bearings in degrees from ahead."""
    angle = bearing_deg * (pi / 180)
    return -np.cos(angle), np.sin(angle)


def horizons(points: FloatArray, casters: Sequence[Caster], but: Collection[str] = ()) -> FloatArray:
    """Tangent of the horizon's elevation for every point (rows) and bearing (columns); 0 where the sky is
    open.

    Points (n, 3) in mm. ``but`` names what throws no shadow on these points: a panel, and all others of its
    plane, on its own cells.
    """
    dx, dy = toward(bearings())
    highest = np.zeros((len(points), BEARINGS))
    for caster in casters:
        if caster.of not in but:
            np.maximum(highest, _tangent(points, caster, dx, dy), out=highest)
    return highest


def _tangent(points: FloatArray, caster: Caster, dx: FloatArray, dy: FloatArray) -> FloatArray:
    enter, leave = np.full((len(points), BEARINGS), NEAR_MM), np.full((len(points), BEARINGS), np.inf)
    corners = caster.corners
    for (x0, y0), (x1, y1) in zip(corners, (*corners[1:], corners[0]), strict=True):
        ex, ey = x1 - x0, y1 - y0
        inside = (ex * (points[:, 1] - y0) - ey * (points[:, 0] - x0))[:, None]  # left of the edge: positive
        rate = (ex * dy - ey * dx)[None, :]
        with np.errstate(divide="ignore", invalid="ignore"):
            at = -inside / rate
        enter = np.where(rate > 1e-9, np.maximum(enter, at), enter)
        leave = np.where(rate < -1e-9, np.minimum(leave, at), leave)
        leave = np.where((np.abs(rate) <= 1e-9) & (inside < 0), -np.inf, leave)
    hit = leave > enter
    found = np.zeros_like(enter)
    for reach in (enter, np.where(hit, leave, NEAR_MM)):
        x, y = points[:, 0, None] + reach * dx, points[:, 1, None] + reach * dy
        rise = caster.z0 + caster.along * x + caster.across * y - points[:, 2, None]
        np.maximum(found, np.where(hit, rise / reach, 0.0), out=found)
    return found


HEIGHTS = 90


def sky_share(cells: Cells, horizon: FloatArray) -> FloatArray:
    """Share of the even sky's light on the panel that reaches each cell past the things on the roof, of
    what an open sky gives. ``horizon``: height over distance by cell and bearing, (cells, bearings);
    returned (cells,).
    """
    elevation = np.radians((np.arange(HEIGHTS) + 0.5) * 90 / HEIGHTS)
    dx, dy = toward(bearings())
    normal = cells.normal
    incidence = (
        np.cos(elevation)[:, None] * (normal[0] * dx + normal[1] * dy)[None, :]
        + np.sin(elevation)[:, None] * normal[2]
    )
    light = np.maximum(incidence, 0.0) * np.cos(elevation)[:, None]
    above = np.vstack([np.cumsum(light[::-1], axis=0)[::-1], np.zeros(BEARINGS)])
    level = np.minimum((np.degrees(np.arctan(horizon)) / 90 * HEIGHTS).round().astype(np.int64), HEIGHTS)
    seen: FloatArray = above[level, np.arange(BEARINGS)[None, :]].sum(axis=1) / light.sum()
    return seen
