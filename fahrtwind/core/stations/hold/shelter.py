"""How far a panel in front keeps the ram pressure off the one behind it: by distance, overlap and height,
without a step anywhere.
"""

from __future__ import annotations

from collections.abc import Callable

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.zones import Wind
from fahrtwind.core.stations.layout.footprint import Rect

FULL_MM, NONE_MM = 50.0, 300.0
"""Up to the first distance a panel in front shelters whole, from the second on not at all (judgement: the
stream closes again behind a step within a few of its heights).
"""


@dataclass(frozen=True, slots=True)
class Face:
    """A panel as the wind meets it: what it covers, and the top of its frame over the roof, mm."""

    id: str
    rect: Rect
    top_mm: float


def shelter_of(face: Face, others: tuple[Face, ...], wind: Wind = "front") -> float:
    """Share of the ram pressure that others keep off, 0 to 1.

    A panel half as high shelters nothing, one as high shelters whole; between them it grows evenly
    (judgement).
    """
    ahead_mm, own = AHEAD_MM[wind], face.rect
    in_front = ((other, ahead_mm(own, other.rect)) for other in others)
    kept = sum(
        min((NONE_MM - ahead) / (NONE_MM - FULL_MM), 1.0)
        * _overlap(own, other.rect, wind)
        * min(max(2 * other.top_mm / max(face.top_mm, 1.0) - 1, 0.0), 1.0)
        for other, ahead in in_front
        if 0 <= ahead < NONE_MM and other.id != face.id
    )
    return min(kept, 1.0)


def around(face: Face, others: tuple[Face, ...]) -> tuple[Face, ...]:
    """Those that may shelter a panel from any side; of many on a roof few."""
    reach = face.rect.grown(NONE_MM)
    return tuple(o for o in others if o.id != face.id and reach.meets(o.rect))


AHEAD_MM: dict[Wind, Callable[[Rect, Rect], float]] = {
    "front": lambda own, other: own.x_mm - other.x_end_mm,
    "rear": lambda own, other: other.x_mm - own.x_end_mm,
    "port": lambda own, other: own.y_mm - other.y_end_mm,
    "starboard": lambda own, other: other.y_mm - own.y_end_mm,
}
"""From the windward edge of one to the lee edge of the other in front of it; negative where it is not."""


def _overlap(own: Rect, other: Rect, wind: Wind) -> float:
    """Share of the windward edge that lies behind the other."""
    if wind in ("front", "rear"):
        common, whole = min(own.y_end_mm, other.y_end_mm) - max(own.y_mm, other.y_mm), own.width_mm
    else:
        common, whole = min(own.x_end_mm, other.x_end_mm) - max(own.x_mm, other.x_mm), own.length_mm
    return max(common, 0.0) / whole
