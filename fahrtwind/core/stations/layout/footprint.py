"""Plan geometry: rectangles of panels, obstacles and lids in roof coordinates (mm, x aft, y to starboard)."""

from __future__ import annotations

from functools import lru_cache

from shapely.geometry import Point, Polygon, box

from fahrtwind.core.job.document import Obstacle, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.survey.lids import lid_swing


@dataclass(frozen=True, slots=True)
class Rect:
    """An upright rectangle on the roof plan, mm."""

    x_mm: float
    y_mm: float
    length_mm: float
    width_mm: float

    @property
    def x_end_mm(self) -> float:
        return self.x_mm + self.length_mm

    @property
    def y_end_mm(self) -> float:
        return self.y_mm + self.width_mm

    @property
    def size(self) -> tuple[float, float]:
        return self.length_mm, self.width_mm

    @property
    def area_m2(self) -> float:
        return self.length_mm * self.width_mm * 1e-6

    @property
    def centre(self) -> tuple[float, float]:
        return self.x_mm + self.length_mm / 2, self.y_mm + self.width_mm / 2

    def meets(self, other: Rect) -> bool:
        """Whether it shares area with another upright rectangle."""
        return (
            self.x_mm < other.x_mm + other.length_mm
            and other.x_mm < self.x_mm + self.length_mm
            and self.y_mm < other.y_mm + other.width_mm
            and other.y_mm < self.y_mm + self.width_mm
        )

    def clipped(self, other: Rect) -> Rect | None:
        """The part inside another upright rectangle; None where they share no area."""
        if not self.meets(other):
            return None
        x, y = max(self.x_mm, other.x_mm), max(self.y_mm, other.y_mm)
        length, width = min(self.x_end_mm, other.x_end_mm) - x, min(self.y_end_mm, other.y_end_mm) - y
        return Rect(x, y, length, width) if length > 0 and width > 0 else None

    def polygon(self) -> Polygon:
        return _polygon(self)

    def grown(self, by_mm: float, across_mm: float | None = None) -> Rect:
        """Larger on all sides, across by another distance where one is given."""
        across = by_mm if across_mm is None else across_mm
        return Rect(
            self.x_mm - by_mm, self.y_mm - across, self.length_mm + 2 * by_mm, self.width_mm + 2 * across
        )


@lru_cache(maxsize=1024)
def _polygon(rect: Rect) -> Polygon:
    return box(rect.x_mm, rect.y_mm, rect.x_end_mm, rect.y_end_mm)


def panel_size_mm(panel: PlacedPanel) -> tuple[float, float]:
    """Longer and shorter side: as measured where it was measured, else by the data sheet."""
    longer = (panel.measured_length or panel.model.length).mm
    shorter = (panel.measured_width or panel.model.width).mm
    return longer, shorter


def panel_rect(panel: PlacedPanel) -> Rect:
    longer, shorter = panel_size_mm(panel)
    along, across = (shorter, longer) if panel.turned else (longer, shorter)
    return Rect(panel.x.mm, panel.y.mm - across / 2, along, across)


def obstacle_rect(obstacle: Obstacle) -> Rect:
    """The upright rectangle around an obstacle."""
    if obstacle.shape == "polygon" and len(obstacle.points) >= 3:
        x0, y0, x1, y1 = obstacle_polygon(obstacle).bounds
        return Rect(x0, y0, x1 - x0, y1 - y0)
    width = obstacle.length.mm if obstacle.shape == "circle" else obstacle.width.mm
    return Rect(obstacle.x.mm, obstacle.y.mm - width / 2, obstacle.length.mm, width)


def obstacle_polygon(obstacle: Obstacle) -> Polygon:
    """An obstacle's true footprint: rectangle, circle (as a many-sided polygon) or its own points."""
    if obstacle.shape == "polygon" and len(obstacle.points) >= 3:
        return Polygon([(obstacle.x.mm + p.x.mm, obstacle.y.mm + p.y.mm) for p in obstacle.points])
    if obstacle.shape == "circle":
        radius = obstacle.length.mm / 2
        return Point(obstacle.x.mm + radius, obstacle.y.mm).buffer(radius)
    return obstacle_rect(obstacle).polygon()


def lid_rect(obstacle: Obstacle) -> Rect | None:
    """The strip beside the hinge over which an open lid leans; None where there is no lid."""
    swing = lid_swing(obstacle)
    if swing is None or swing.lean_mm <= 0:
        return None
    base, reach = obstacle_rect(obstacle), swing.lean_mm
    match obstacle.lid_hinge:
        case "front":
            return Rect(base.x_mm - reach, base.y_mm, reach, base.width_mm)
        case "rear":
            return Rect(base.x_end_mm, base.y_mm, reach, base.width_mm)
        case "left":
            return Rect(base.x_mm, base.y_mm - reach, base.length_mm, reach)
        case _:
            return Rect(base.x_mm, base.y_end_mm, base.length_mm, reach)


def roof_rect(vehicle: Vehicle) -> Rect | None:
    if vehicle.roof_length is None or vehicle.roof_width is None:
        return None
    return Rect(0.0, -vehicle.roof_width.mm / 2, vehicle.roof_length.mm, vehicle.roof_width.mm)
