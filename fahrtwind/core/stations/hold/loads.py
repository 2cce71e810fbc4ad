"""The loads on one panel: slipstream per pascal, and what road and weight add."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.air import (
    net_uplift_coefficient,
    slipstream_drag,
    suction_for_area,
    windward_zone_depth,
)
from fahrtwind.core.formulas.declare import given
from fahrtwind.core.formulas.roof import holding_weight, road_force
from fahrtwind.core.job.document import Assumptions
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.tables.suction import CURVED_1, SHARP_1, SHARP_10, SOURCE, Zone

FloatArray = npt.NDArray[np.float64]

RAM_STRIP_MM = 300.0
RAM_CAUTIOUS = 0.8
SHELTER_MM = 150.0
"""A panel whose front edge is this close behind another one is sheltered from ram pressure (judgement)."""
FLOOR_EXPOSED, FLOOR_SHELTERED, FLOOR_TYPICAL = 1.2, 0.8, 0.4
DRAG_COEFFICIENT = 2.0
JUDGEMENT = "judgement, cautious end"
CASES: tuple[tuple[str, float, float, bool], ...] = (
    ("cruising", 0.0, 0.0, False),
    ("bump", 0.0, 0.0, True),
    ("braking 0.8 g", -0.8, 0.0, False),
    ("accelerating 0.5 g", 0.5, 0.0, False),
    ("cornering 0.5 g to port", 0.0, 0.5, False),
    ("cornering 0.5 g to starboard", 0.0, -0.5, False),
)
"""Name, acceleration pushing the panel aft and to starboard in g, and whether the wheels drop (EN
12195-1).
"""


@dataclass(frozen=True, slots=True)
class ZonePiece:
    """A part of a panel in one zone, with the range of its net uplift coefficient."""

    zone: Zone
    area_m2: float
    x_mm: float
    y_mm: float
    cautious: float
    typical: float


@dataclass(frozen=True, slots=True)
class PanelLoads:
    """Loads on a panel. Uplift moments are about the panel's centre; all slipstream figures are per
    pascal.
    """

    pieces: tuple[ZonePiece, ...]
    cautious_m2: float
    typical_m2: float
    cautious_at_mm: tuple[float, float]
    typical_at_mm: tuple[float, float]
    drag_m2: float
    centre_height_mm: float
    mass_kg: float
    worst_zone: Zone


def panel_loads(roof: Rect, panel: PlacedPanel, exposed: bool) -> PanelLoads:
    """The loads of a panel; ``exposed`` where its front edge feels ram pressure."""
    rect = panel_rect(panel)
    pieces = _pieces(roof, rect, exposed)
    height = panel.stand_off.mm + panel.model.frame_height.mm
    drag = slipstream_drag(
        1.0,
        given(DRAG_COEFFICIENT, "default", JUDGEMENT),
        given(rect.width_mm, "chosen", f"{panel.name}: size across"),
        given(max(height, 1.0), "chosen", f"{panel.name}: stand-off and frame height"),
    )
    cautious = _weighted(pieces, [p.cautious for p in pieces])
    typical = _weighted(pieces, [p.typical for p in pieces])
    return PanelLoads(
        pieces=pieces,
        cautious_m2=cautious[0],
        typical_m2=typical[0],
        cautious_at_mm=cautious[1],
        typical_at_mm=typical[1],
        drag_m2=float(drag),
        centre_height_mm=panel.stand_off.mm + panel.model.frame_height.mm / 2,
        mass_kg=panel.model.mass.kg,
        worst_zone=max(pieces, key=lambda p: p.cautious).zone,
    )


def is_exposed(assumptions: Assumptions, rect: Rect, all_rects: tuple[Rect, ...]) -> bool:
    """Whether the slipstream can push under the front edge of the panel that covers ``rect``."""
    return assumptions.front_edge == "open" and not _sheltered(rect, all_rects)


def _sheltered(rect: Rect, others: tuple[Rect, ...]) -> bool:
    """Another panel stands close in front over at least half of the front edge."""
    covered = sum(
        max(0.0, min(rect.y_end_mm, o.y_end_mm) - max(rect.y_mm, o.y_mm))
        for o in others
        if 0 <= rect.x_mm - o.x_end_mm <= SHELTER_MM
    )
    return covered >= rect.width_mm / 2


def zone_rects(roof: Rect) -> list[tuple[Zone, Rect]]:
    """The zones of the roof seen from the slipstream; zones of one name may be several rectangles."""
    e = float(windward_zone_depth(given(roof.width_mm, "measured", "roof width")))
    strip, second, corner = e / 10, e / 2, e / 4
    far = 1e5
    return [
        ("front corner", Rect(-far, -far, far + strip, far - roof.width_mm / 2 + corner)),
        ("front edge", Rect(-far, -roof.width_mm / 2 + corner, far + strip, roof.width_mm - 2 * corner)),
        ("front corner", Rect(-far, roof.width_mm / 2 - corner, far + strip, far)),
        ("behind the front", Rect(strip, -far, second - strip, 2 * far)),
        ("rest", Rect(second, -far, far, 2 * far)),
    ]


def _pieces(roof: Rect, rect: Rect, exposed: bool) -> tuple[ZonePiece, ...]:
    """Cut a panel by zones and by the strip at its front edge that feels ram pressure."""
    strip = min(RAM_STRIP_MM, rect.length_mm)
    bands = [
        (Rect(rect.x_mm, rect.y_mm, strip, rect.width_mm), RAM_CAUTIOUS if exposed else 0.0),
        (Rect(rect.x_mm + strip, rect.y_mm, rect.length_mm - strip, rect.width_mm), 0.0),
    ]
    floor = FLOOR_EXPOSED if exposed else FLOOR_SHELTERED
    zones = zone_rects(roof)
    pieces = []
    for band, ram in bands:
        for zone, zone_rect in zones:
            part = band.clipped(zone_rect)
            if part is not None:
                cautious = _cautious(zone, rect.area_m2, ram, floor)
                pieces.append(
                    ZonePiece(zone, part.area_m2, *part.centre, cautious, max(CURVED_1[zone], FLOOR_TYPICAL))
                )
    return tuple(pieces)


def _cautious(zone: Zone, panel_area_m2: float, ram: float, floor: float) -> float:
    suction = suction_for_area(
        given(SHARP_1[zone], "table", SOURCE),
        given(SHARP_10[zone], "table", SOURCE),
        given(panel_area_m2, "chosen", "panel size"),
    )
    return float(
        net_uplift_coefficient(suction, given(ram, "default", JUDGEMENT), given(floor, "default", JUDGEMENT))
    )


def _weighted(pieces: tuple[ZonePiece, ...], coefficients: list[float]) -> tuple[float, tuple[float, float]]:
    """Coefficient times area over all pieces, and its centre on the plan."""
    parts = [c * p.area_m2 for c, p in zip(coefficients, pieces, strict=True)]
    total = sum(parts)
    x = sum(a * p.x_mm for a, p in zip(parts, pieces, strict=True)) / total
    y = sum(a * p.y_mm for a, p in zip(parts, pieces, strict=True)) / total
    return total, (x, y)


def case_forces(loads: PanelLoads, bump_g: float) -> FloatArray:
    """Constant forces of every load case, shape (cases, 3): aft, to starboard, upward, in N."""
    mass = given(loads.mass_kg, "chosen", "panel mass")
    rows = []
    for name, aft, starboard, bumps in CASES:
        along = road_force(mass, given(abs(aft), "table", f"EN 12195-1, {name}")) * np.sign(aft)
        across = road_force(mass, given(abs(starboard), "table", f"EN 12195-1, {name}")) * np.sign(starboard)
        up = -holding_weight(mass, given(bump_g if bumps else 0.0, "chosen", "assumptions: upward bump"))
        rows.append((along, across, up))
    return np.array(rows, dtype=float)
