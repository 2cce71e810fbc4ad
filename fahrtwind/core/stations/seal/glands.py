"""Where cables go in: what is wrong with the place, its bore, what levels it, where else it could go."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from math import ceil, hypot, radians, tan

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.declare import given
from fahrtwind.core.formulas.roof_shape import wedge_thickness
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import KeepOut
from fahrtwind.core.job.sealing import Gland
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.cables import cable_end
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.stations.survey.crown import CrownSurface

FloatArray = npt.NDArray[np.float64]
BoolArray = npt.NDArray[np.bool_]
TIGHTER_MM = 0.7
"""The rubber's bore is so much smaller than the cable: common practice, no source."""
BUTYL_MM, FLAT_MM = 3.0, 1.0
"""A layer of butyl tape; a gap that needs none."""
THIN_SKIN_MM = 1.2
"""Below it the gland's screws need a plate behind: common practice, no source."""
LINE_CLEAR_MM, MEMBER_CLEAR_MM, PANEL_CLEAR_MM = 50.0, 25.0, 40.0
MOST_OFFERS, STEP_MM, OFFERS_APART_MM = 4, 60.0, 400.0
FLAT_RADIUS_MM = 1e6


@dataclass(frozen=True, slots=True)
class GlandCheck:
    """``bore_mm``: of the rubber for one cable; ``layers``: of butyl that level its base, ``lean_deg``: of
    the roof there, both None while nobody measured the crown; ``backing``: a plate behind a thin skin;
    ``wrong``: what speaks against the place; ``away_mm``: to the farthest cable end.
    """

    bore_mm: float
    layers: int | None
    lean_deg: float | None
    backing: bool
    wrong: tuple[str, ...]
    away_mm: float | None


@dataclass(frozen=True, slots=True)
class GlandOffer:
    """A place with nothing against it, and how far the cable ends are from it."""

    x_mm: float
    y_mm: float
    away_mm: float
    why: str


@dataclass(frozen=True, slots=True)
class Surroundings:
    """What decides about a gland's place."""

    roof: Rect
    shapes: tuple[Shape, ...]
    members: tuple[Member, ...]
    face_mm: float
    keep_outs: tuple[KeepOut, ...]
    crown: CrownSurface | None
    ends: tuple[tuple[float, float], ...]
    pools: tuple[tuple[float, float, float], ...]
    """Middle and radius of water that stands, mm."""


def check_of(gland: Gland, vehicle: Vehicle, around: Surroundings) -> GlandCheck:
    """What is wrong with a gland's place, in the order of how bad it is."""
    lean = _lean(gland.x.mm, gland.y.mm, around.crown)
    thin = vehicle.skin in ("steel", "aluminium") and (
        vehicle.skin_thickness is None or vehicle.skin_thickness.mm < THIN_SKIN_MM
    )
    return GlandCheck(
        max(gland.cable.mm - TIGHTER_MM, 1.0),
        None if lean is None else _layers(gland.base.mm, lean),
        lean,
        thin,
        tuple(_wrong(gland.x.mm, gland.y.mm, gland.base.mm / 2, gland.faces, around)),
        _away(gland.x.mm, gland.y.mm, around),
    )


def _layers(base_mm: float, lean_deg: float) -> int:
    gap = float(
        wedge_thickness(
            given(base_mm, "chosen", "base of the gland"),
            given(lean_deg, "inferred", "roof there"),
            given(0.0, "chosen", "no bar"),
            given(FLAT_RADIUS_MM, "default", "flat base"),
        )
    )
    return 0 if gap < FLAT_MM else ceil(gap / BUTYL_MM)


def _lean(x_mm: float, y_mm: float, crown: CrownSurface | None) -> float | None:
    return None if crown is None else hypot(*crown.slopes(x_mm, y_mm))


def _wrong(x: float, y: float, half: float, faces: str, around: Surroundings) -> list[str]:
    told = []
    roof = around.roof
    if not (roof.x_mm + half <= x <= roof.x_end_mm - half and roof.y_mm + half <= y <= roof.y_end_mm - half):
        told.append("its base hangs over the roof's edge")
    for shape in around.shapes:
        r = shape.rect
        clear = PANEL_CLEAR_MM if shape.kind == "panel" else 0.0
        if (
            r.x_mm - half - clear < x < r.x_end_mm + half + clear
            and r.y_mm - half - clear < y < r.y_end_mm + half + clear
        ):
            told.append(
                "it lies under or against a panel" if shape.kind == "panel" else "an obstacle is there"
            )
            break
    if any(_inside(x, y, s.lid, half) for s in around.shapes if s.lid):
        told.append("an open lid leans over it")
    near = next((m for m in around.members if abs(m.x_mm - x) < around.face_mm / 2 + MEMBER_CLEAR_MM), None)
    if near is not None:
        told.append(f"member {near.number} is under its hole")
    for line in around.keep_outs:
        if _to_line(x, y, line) < line.clear.mm + LINE_CLEAR_MM:
            told.append(f"{line.name} runs under it")
            break
    if any(hypot(x - px, y - py) < radius + half for px, py, radius in around.pools):
        told.append("water stands there")
    if faces == "front":
        told.append("driving rain is pressed into it: turn it aft")
    return told


def _inside(x: float, y: float, rect: Rect, more: float) -> bool:
    return rect.x_mm - more < x < rect.x_end_mm + more and rect.y_mm - more < y < rect.y_end_mm + more


def _to_line(x: float, y: float, line: KeepOut) -> float:
    ax, ay, bx, by = line.from_x.mm, line.from_y.mm, line.to_x.mm, line.to_y.mm
    long = (bx - ax) ** 2 + (by - ay) ** 2
    t = 0.0 if long == 0 else max(0.0, min(1.0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long))
    return hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay))


def _away(x: float, y: float, around: Surroundings) -> float | None:
    return max((abs(x - ex) + abs(y - ey) for ex, ey in around.ends), default=None)


def offers_of(gland: Gland, around: Surroundings) -> tuple[GlandOffer, ...]:
    """Places with nothing against them, the nearest to the cable ends first, each apart from the others."""
    half, roof = gland.base.mm / 2, around.roof
    along = np.arange(roof.x_mm + half + STEP_MM, roof.x_end_mm - half, STEP_MM)
    across = np.arange(roof.y_mm + half + STEP_MM, roof.y_end_mm - half, STEP_MM)
    rows, columns = np.nonzero(_nothing_wrong(along, across, half, around))
    x, y = along[rows], across[columns]
    away = np.abs(roof.x_end_mm - x)
    if around.ends:
        ends = _outermost(np.array(around.ends))
        away = (np.abs(x[:, None] - ends[:, 0]) + np.abs(y[:, None] - ends[:, 1])).max(axis=1)
    told: list[GlandOffer] = []
    while len(told) < MOST_OFFERS and len(x):
        nearest = int(away.argmin())  # of several as near the foremost, then the one farthest to port
        at_x, at_y = float(x[nearest]), float(y[nearest])
        lean = _lean(at_x, at_y, around.crown)
        told.append(GlandOffer(at_x, at_y, float(away[nearest]), _say_lean(gland.base.mm, lean)))
        apart = np.hypot(x - at_x, y - at_y) > OFFERS_APART_MM
        x, y, away = x[apart], y[apart], away[apart]
    return tuple(told)


def _outermost(ends: FloatArray) -> FloatArray:
    """Of places, (n, 2), those of which one is the farthest from anywhere, counted along and across."""
    turned = ends @ np.array([[1.0, 1.0], [1.0, -1.0]])
    found: FloatArray = ends[np.unique([turned.argmin(axis=0), turned.argmax(axis=0)])]
    return found


def _say_lean(base_mm: float, lean_deg: float | None) -> str:
    if lean_deg is None:
        return "lean not known"
    return "flat" if tan(radians(lean_deg)) * base_mm < FLAT_MM else f"leans {lean_deg:.1f}°"


def _nothing_wrong(along: FloatArray, across: FloatArray, half: float, around: Surroundings) -> BoolArray:
    """What ``_wrong`` says of single places, for every crossing of places along and across at once."""
    right = np.ones((len(along), len(across)), dtype=bool)
    from_front, from_port = along.tolist(), across.tolist()
    kept_clear = [(s.rect, half + (PANEL_CLEAR_MM if s.kind == "panel" else 0.0)) for s in around.shapes]
    for r, clear in (*kept_clear, *((s.lid, half) for s in around.shapes if s.lid)):
        rows = _between(from_front, r.x_mm - clear, r.x_end_mm + clear)
        right[rows, _between(from_port, r.y_mm - clear, r.y_end_mm + clear)] = False
    for member in around.members:
        right[np.abs(member.x_mm - along) < around.face_mm / 2 + MEMBER_CLEAR_MM] = False
    x, y = along[:, None], across
    for line in around.keep_outs:
        start = np.array([line.from_x.mm, line.from_y.mm])
        run = np.array([line.to_x.mm, line.to_y.mm]) - start
        long = float(run @ run)
        at = np.clip(((x - start[0]) * run[0] + (y - start[1]) * run[1]) / long, 0, 1) if long else 0.0
        apart = np.hypot(x - start[0] - at * run[0], y - start[1] - at * run[1])
        right &= apart >= line.clear.mm + LINE_CLEAR_MM
    for pool_x, pool_y, radius in around.pools:
        right &= np.hypot(x - pool_x, y - pool_y) >= radius + half
    return right


def _between(places: list[float], low: float, high: float) -> slice:
    """Those of rising places that lie between two others."""
    return slice(bisect_right(places, low), bisect_left(places, high))


def ends_of(panels: tuple[PlacedPanel, ...]) -> tuple[tuple[float, float], ...]:
    """Where leads come out, mm from front edge and centre line; behind a panel where nobody said."""
    told = []
    for panel in panels:
        rect = panel_rect(panel)
        told.append(cable_end(panel) or (rect.x_end_mm, rect.centre[1]))
    return tuple(told)
