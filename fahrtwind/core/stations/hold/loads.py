"""The loads on one panel: wind per pascal from one side, and what road and weight add."""

from __future__ import annotations

from math import cos, radians, sin

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.air import net_uplift_coefficient, slipstream_drag
from fahrtwind.core.formulas.declare import given
from fahrtwind.core.formulas.roof import holding_weight, road_force
from fahrtwind.core.formulas.wind import raised_coefficient, windward_half
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.zones import Wind, behind_windward_edge, run, zone_rects
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.tables.suction import CURVED_1, SHARP_1, SOURCE, Zone

FloatArray = npt.NDArray[np.float64]

RAM_STRIP_MM = 300.0
RAM_CAUTIOUS = 0.8
FLOOR_EXPOSED, FLOOR_SHELTERED, FLOOR_TYPICAL = 1.2, 0.8, 0.4
DRAG_COEFFICIENT = 2.0
OPEN_BELOW_MM = 200.0
"""A gap beyond this lets the wind through: only so much of it counts as blocked (judgement)."""
JUDGEMENT = "judgement, cautious end"
DIRECTIONS: tuple[tuple[str, float, float], ...] = (
    ("cruising", 0.0, 0.0),
    ("braking 0.8 g", -0.8, 0.0),
    ("accelerating 0.5 g", 0.5, 0.0),
    ("cornering 0.5 g to port", 0.0, 0.5),
    ("cornering 0.5 g to starboard", 0.0, -0.5),
)
"""Name, and acceleration pushing the panel aft and to starboard in g (EN 12195-1)."""
CASES: tuple[tuple[str, float, float, bool], ...] = tuple(
    (name if not drops else "bump" if name == "cruising" else f"bump, {name}", aft, starboard, drops)
    for drops in (False, True)
    for name, aft, starboard in DIRECTIONS
)
"""Every direction alone and while the wheels drop: a bump asks nobody whether somebody brakes."""


@dataclass(frozen=True, slots=True)
class ZonePiece:
    """A part of a panel in one zone, with the range of its net uplift coefficient."""

    zone: Zone
    rect: Rect
    cautious: float
    typical: float


@dataclass(frozen=True, slots=True)
class PanelLoads:
    """Loads on a panel, wind figures per pascal. ``drag_m2`` acts along the wind, ``heading`` says which way:
    aft and to starboard.
    """

    rect: Rect
    pieces: tuple[ZonePiece, ...]
    cautious_m2: float
    typical_m2: float
    cautious_at_mm: tuple[float, float]
    typical_at_mm: tuple[float, float]
    drag_m2: float
    heading: tuple[float, float]
    centre_height_mm: float
    mass_kg: float
    worst_zone: Zone


HEADING: dict[Wind, tuple[float, float]] = {
    "front": (1.0, 0.0),
    "rear": (-1.0, 0.0),
    "port": (0.0, 1.0),
    "starboard": (0.0, -1.0),
}


def panel_loads(
    roof: Rect,
    panel: PlacedPanel,
    shelter: float,
    height_mm: float,
    wind: Wind = "front",
    *,
    parked: bool = False,
) -> PanelLoads:
    """The loads of a panel with the wind from one side. ``shelter``: share of the ram pressure that is kept
    off its windward edge; ``height_mm``: of the roof over the ground; ``parked``: raised as it is then.
    """
    if parked and panel.tilt.deg > 0 and {wind, panel.tilt_up} in ALONG_TILT:
        return _raised(panel, wind)
    rect = panel_rect(panel)
    pieces = _pieces(zone_rects(roof, height_mm, wind), rect, shelter, wind)
    if panel.stand_off.mm > OPEN_BELOW_MM:
        pieces = _standing_clear(pieces, rect, wind, parked)
    top = min(panel.stand_off.mm, OPEN_BELOW_MM) + panel.model.frame_height.mm
    drag = slipstream_drag(
        1.0,
        given(DRAG_COEFFICIENT, "default", JUDGEMENT),
        given(run(rect, wind)[1], "chosen", f"{panel.name}: size across the wind"),
        given(max(top, 1.0), "chosen", f"{panel.name}: frame, and the gap that blocks"),
    )
    cautious = _weighted(pieces, [p.cautious for p in pieces])
    typical = _weighted(pieces, [p.typical for p in pieces])
    return PanelLoads(
        rect=rect,
        pieces=pieces,
        cautious_m2=cautious[0],
        typical_m2=typical[0],
        cautious_at_mm=cautious[1],
        typical_at_mm=typical[1],
        drag_m2=float(drag),
        heading=HEADING[wind],
        centre_height_mm=panel.stand_off.mm + panel.model.frame_height.mm / 2,
        mass_kg=panel.model.mass.kg,
        worst_zone=max(pieces, key=lambda p: p.cautious).zone,
    )


def _standing_clear(
    pieces: tuple[ZonePiece, ...], rect: Rect, wind: Wind, parked: bool
) -> tuple[ZonePiece, ...]:
    """A panel with the wind below it too is a canopy: its force is a quarter from the windward edge (EN
    1991-1-4 7.3). In the slipstream of the roof two halves with the larger of the total by the roof's zones
    and as a canopy, and the larger moment.
    """
    long_mm = run(rect, wind)[0]
    canopy = float(raised_coefficient(given(0.0, "computed", "it lies level")))

    def halves(zoned: list[float], whole: float) -> tuple[float, float]:
        total, at = (0.0, rect.centre) if parked else _weighted(pieces, zoned)
        mean = total / rect.area_m2
        even, ahead = max(mean, whole), _ahead_mm(rect, at, wind) / long_mm
        moment = given(max(mean * ahead, whole / 4), "computed", "about its middle")
        front = float(windward_half(given(even, "computed", "over all of it"), moment))
        return front, max(2 * even - front, 0.0)

    zone = max(pieces, key=lambda p: p.cautious).zone
    cautious = halves([p.cautious for p in pieces], canopy)
    typical = halves([p.typical for p in pieces], FLOOR_TYPICAL)
    windward, lee = behind_windward_edge(rect, wind, long_mm / 2)
    first = ZonePiece(zone, windward, cautious[0], typical[0])
    return (first,) if lee is None else (first, ZonePiece(zone, lee, cautious[1], typical[1]))


def _ahead_mm(rect: Rect, at: tuple[float, float], wind: Wind) -> float:
    """How far a point is to windward of the middle, mm."""
    aft, starboard = HEADING[wind]
    x, y = rect.centre
    return max(0.0, (x - at[0]) * aft + (y - at[1]) * starboard)


ALONG_TILT = ({"front"}, {"rear"}, {"port"}, {"starboard"}, {"front", "rear"}, {"port", "starboard"})
"""Wind from the raised edge or from the low one; across them a raised panel is as good as a flat one."""


def _raised(panel: PlacedPanel, wind: Wind) -> PanelLoads:
    """A raised panel across the wind: a force normal to it, a quarter from its windward edge.

    Its hinge and strut are not known: its feet are taken to hold it as they hold it flat.
    """
    rect = panel_rect(panel)
    angle = radians(panel.tilt.deg)
    normal = float(raised_coefficient(given(panel.tilt.deg, "chosen", f"{panel.name}: raised by")))
    run_mm = run(rect, wind)[0]
    windward, _ = behind_windward_edge(rect, wind, run_mm / 2)  # its middle is a quarter from the edge
    pieces = (ZonePiece("windward edge", windward, 2 * normal * cos(angle), 2 * normal * cos(angle)),)
    total, at = _weighted(pieces, [pieces[0].cautious])
    return PanelLoads(
        rect=rect,
        pieces=pieces,
        cautious_m2=total,
        typical_m2=total,
        cautious_at_mm=at,
        typical_at_mm=at,
        drag_m2=normal * rect.area_m2 * sin(angle),
        heading=HEADING[wind],
        centre_height_mm=panel.stand_off.mm + run_mm * sin(angle) / 2,
        mass_kg=panel.model.mass.kg,
        worst_zone="windward edge",
    )


def _pieces(zones: list[tuple[Zone, Rect]], rect: Rect, shelter: float, wind: Wind) -> tuple[ZonePiece, ...]:
    """Cut a panel by zones and by the strip at its windward edge that feels ram pressure."""
    first, rest = behind_windward_edge(rect, wind, RAM_STRIP_MM)
    ram = RAM_CAUTIOUS * (1 - shelter)
    floor = FLOOR_EXPOSED + (FLOOR_SHELTERED - FLOOR_EXPOSED) * shelter
    pieces = []
    for band, pushed in ((first, ram), (rest, 0.0)):
        for zone, zone_rect in zones:
            part = band.clipped(zone_rect) if band is not None else None
            if part is not None:
                typical = max(CURVED_1[zone], FLOOR_TYPICAL)
                pieces.append(ZonePiece(zone, part, _cautious(zone, pushed, floor), typical))
    return tuple(pieces)


def _cautious(zone: Zone, ram: float, floor: float) -> float:
    suction = given(SHARP_1[zone], "table", SOURCE)
    return float(
        net_uplift_coefficient(suction, given(ram, "default", JUDGEMENT), given(floor, "default", JUDGEMENT))
    )


def _weighted(pieces: tuple[ZonePiece, ...], coefficients: list[float]) -> tuple[float, tuple[float, float]]:
    """Coefficient times area over all pieces, and its centre on the plan."""
    parts = [c * p.rect.area_m2 for c, p in zip(coefficients, pieces, strict=True)]
    total = sum(parts)
    x = sum(a * p.rect.centre[0] for a, p in zip(parts, pieces, strict=True)) / total
    y = sum(a * p.rect.centre[1] for a, p in zip(parts, pieces, strict=True)) / total
    return total, (x, y)


def case_forces(mass_kg: float, bump_g: float) -> FloatArray:
    """Constant forces of every load case on a mass, shape (cases, 3): aft, to starboard, upward, in N."""
    mass = given(mass_kg, "chosen", "panel mass")
    rows = []
    for name, aft, starboard, bumps in CASES:
        along = road_force(mass, given(abs(aft), "table", f"EN 12195-1, {name}")) * np.sign(aft)
        across = road_force(mass, given(abs(starboard), "table", f"EN 12195-1, {name}")) * np.sign(starboard)
        up = -holding_weight(mass, given(bump_g if bumps else 0.0, "chosen", "assumptions: upward bump"))
        rows.append((along, across, up))
    return np.array(rows, dtype=float)


def standing_force(mass_kg: float) -> FloatArray:
    """The one case of a vehicle that stands, shape (1, 3): what of its weight may be counted, in N."""
    up = -holding_weight(given(mass_kg, "chosen", "panel mass"), given(0.0, "default", "parked: no bump"))
    return np.array([[0.0, 0.0, up]], dtype=float)
