"""From how near in the street the panels are seen: whoever lives in the vehicle wants to know."""

from __future__ import annotations

from collections.abc import Iterable

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sight import seen_from
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.survey.crown import CrownSurface

EYE_MM = 1600.0
"""Eye of an adult who stands: common practice, no source."""


@dataclass(frozen=True, slots=True)
class SeenFrom:
    """The nearest distance from the vehicle at which a panel shows, which panel, and over which edge;
    ``distance_m`` is None where none is ever seen from the ground.
    """

    distance_m: float | None
    panel: str = ""
    side: str = ""


def seen_of(panel: PlacedPanel, roof: Rect, vehicle_height_mm: float, crown: CrownSurface | None) -> SeenFrom:
    """Over which edge a panel is seen from nearest. Without a measured crown the roof counts as flat."""
    rect = panel_rect(panel)
    x, y = rect.centre
    edges = {
        "port": (rect.y_mm - roof.y_mm, (x, roof.y_mm)),
        "starboard": (roof.y_end_mm - rect.y_end_mm, (x, roof.y_end_mm)),
        "front": (rect.x_mm - roof.x_mm, (roof.x_mm, y)),
        "rear": (roof.x_end_mm - rect.x_end_mm, (roof.x_end_mm, y)),
    }
    highest = 0.0 if crown is None else max(crown.height(roof.length_mm / 2, 0.0)[0], 0.0)
    over = 0.0 if crown is None else crown.height(x, y)[0]
    top = over + panel.stand_off.mm + panel.model.frame_height.mm
    told = []
    for side, (inset, at) in edges.items():
        level = 0.0 if crown is None else crown.height(*at)[0]
        with scope("seen", panel.id), scope(side):
            away = seen_from(
                given(max(inset, 0.0), "chosen", "panel to edge"),
                given(
                    vehicle_height_mm - (highest - level),
                    "chosen",
                    "height of the vehicle, less the crown's fall",
                ),
                given(EYE_MM, "default", "common practice"),
                given(top - level, "inferred", "stand-off and frame over the edge's level"),
            )
        if float(away) < float("inf"):
            told.append(SeenFrom(float(away) / 1000, panel.id, side))
    return nearest(told)


def nearest(seen: Iterable[SeenFrom]) -> SeenFrom:
    """From how near any of them shows."""
    shown = (s for s in seen if s.distance_m is not None)
    return min(shown, key=lambda s: s.distance_m or 0.0, default=SeenFrom(None))
