"""What stands on the roof, as outlines to draw and to keep clear of."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.raised import Raised
from fahrtwind.core.stations.survey.outline import Vertex


@dataclass(frozen=True, slots=True)
class Shape:
    """A panel or an obstacle with what it occupies on the plan, mm."""

    id: str
    kind: Literal["panel", "obstacle"]
    rect: Rect
    lid: Rect | None
    ring: tuple[Vertex, ...]
    """The true footprint of an obstacle that is no rectangle; empty otherwise."""
    raised: Raised | None = None
