"""Zones of a roof seen from the wind: corners, the windward edge, what lies behind it, the rest."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.formulas.air import windward_zone_depth
from fahrtwind.core.formulas.declare import given
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.tables.suction import Zone

Wind = Literal["front", "rear", "port", "starboard"]
"""The side of the vehicle that the wind comes from; the slipstream comes from the front."""
WINDS: tuple[Wind, ...] = ("front", "rear", "port", "starboard")
FAR_MM = 1e5


def zone_rects(roof: Rect, height_mm: float, wind: Wind = "front") -> list[tuple[Zone, Rect]]:
    """The zones seen from a side; zones of one name may be several rectangles. Height of the roof in mm."""
    across = run(roof, wind)[1]
    e = float(windward_zone_depth(given(across, "measured", "roof across the wind"), height_mm))
    strip, second, half, corner = e / 10, e / 2, across / 2, e / 4
    inner = max(half - corner, 0.0)
    zones: list[tuple[Zone, float, float, float, float]] = [
        ("corner", -FAR_MM, strip, -FAR_MM, -inner),
        ("windward edge", -FAR_MM, strip, -inner, inner),
        ("corner", -FAR_MM, strip, inner, FAR_MM),
        ("behind the edge", strip, second, -FAR_MM, FAR_MM),
        ("rest", second, FAR_MM, -FAR_MM, FAR_MM),
    ]
    return [(name, on_roof(roof, wind, u0, u1, v0, v1)) for name, u0, u1, v0, v1 in zones if u1 > u0]


def run(rect: Rect, wind: Wind) -> tuple[float, float]:
    """Extent of a rectangle along the wind and across it, mm."""
    return rect.size if wind in ("front", "rear") else rect.size[::-1]


def on_roof(roof: Rect, wind: Wind, u0: float, u1: float, v0: float, v1: float) -> Rect:
    """The rectangle between these distances behind the roof's windward edge and beside its middle, mm."""
    x, y = roof.centre
    match wind:
        case "front":
            return Rect(roof.x_mm + u0, y + v0, u1 - u0, v1 - v0)
        case "rear":
            return Rect(roof.x_end_mm - u1, y + v0, u1 - u0, v1 - v0)
        case "port":
            return Rect(x + v0, roof.y_mm + u0, v1 - v0, u1 - u0)
        case _:
            return Rect(x + v0, roof.y_end_mm - u1, v1 - v0, u1 - u0)


def behind_windward_edge(rect: Rect, wind: Wind, depth_mm: float) -> tuple[Rect, Rect | None]:
    """A rectangle cut in two: the strip at its own windward edge, and what is left of it. Depth in mm."""
    length, across = run(rect, wind)
    strip = min(depth_mm, length)
    first = on_roof(rect, wind, 0.0, strip, -across / 2, across / 2)
    return first, None if length <= strip else on_roof(rect, wind, strip, length, -across / 2, across / 2)
