"""Straight lines for rails on a curved roof: four schools side by side, one recommended, what is left to wedge.

On each side the marks say at which distance from the centre a foot's upright stands plumb. They scatter; one straight line
parallel to the centre has to be chosen, and at every mark a lean is left that a bar under one edge of the foot takes out.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.declare import given, is_recording, scope
from fahrtwind.core.formulas.roof_shape import residual_lean, wedge_thickness
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.keyed import Keyed, keyed
from fahrtwind.core.job.roof import LineSchool, MountingLines
from fahrtwind.core.structure.members import Member
from fahrtwind.core.survey.crown import CrownSurface

FloatArray = npt.NDArray[np.float64]
Side = Literal["port", "starboard"]
HUBER = 1.345
OUTLIER = 3.5
LEAST_SCATTER_MM = 3.0
FREQUENT_WINDOW_MM = 10.0
DRIFT_MM = 15.0
"""A line that runs out further than this over its length wants its two ends set one by one (10–15 mm: common practice)."""
FLAT_ROOF_MM = 60_000.0
SCHOOLS: tuple[LineSchool, ...] = ("mean", "most_frequent", "median", "robust")
SOURCE = "Huber, Robust Statistics, 1981 (M-estimate of location, k = 1.345, scale from the median deviation)"


@dataclass(frozen=True, slots=True)
class School:
    """An offset by one school and the largest lean it leaves, among the marks that are not strays."""

    name: LineSchool
    offset_mm: float
    worst_lean_deg: float | None


@dataclass(frozen=True, slots=True)
class MarkLean:
    """One mark: its stray from the chosen line, the lean left there, and the bar under a foot's edge that takes it out.

    ``under`` is the edge the bar goes under: the outboard one where the foot leans outward.
    """

    mark: str
    x_mm: float
    offset_mm: float
    stray: bool
    lean_deg: float | None
    wedge_mm: float | None
    under: Literal["outboard", "inboard", ""]


@dataclass(frozen=True, slots=True)
class SideLine:
    side: Side
    from_crown: bool
    schools: tuple[School, ...]
    recommended: LineSchool
    reason: str
    chosen: LineSchool
    offset_mm: float
    drift_mm: float
    marks: tuple[MarkLean, ...]


@dataclass(frozen=True, slots=True)
class LinesFinding:
    """Both lines. ``check_mm`` is the distance between them to measure at both ends; the chalk line is snapped between the two x."""

    sides: tuple[SideLine, ...]
    chalk_front_x_mm: float | None
    chalk_rear_x_mm: float | None
    check_mm: float | None


def mounting_lines(job: Job, members: tuple[Member, ...], crown: CrownSurface | None) -> LinesFinding:
    """Lines from the job's marks; where a side has none, from the crown at the wanted slope of the roof there."""
    if is_recording():
        return _lines(job.mounting, members, crown)
    return _cached(keyed(job.mounting), members, crown)


@lru_cache(maxsize=64)
def _cached(mounting: Keyed[MountingLines], members: tuple[Member, ...], crown: CrownSurface | None) -> LinesFinding:
    return _lines(mounting.part, members, crown)


def _lines(mounting: MountingLines, members: tuple[Member, ...], crown: CrownSurface | None) -> LinesFinding:
    both_sides: tuple[Side, ...] = ("port", "starboard")
    sides = [line for side in both_sides if (line := _side(mounting, side, members, crown)) is not None]
    xs = [m.x_mm for line in sides for m in line.marks]
    both = len(sides) == 2
    return LinesFinding(
        tuple(sides), min(xs, default=None), max(xs, default=None), sum(s.offset_mm for s in sides) if both else None
    )


def _side(mounting: MountingLines, side: Side, members: tuple[Member, ...], crown: CrownSurface | None) -> SideLine | None:
    marks = [(m.id, m.x.mm, m.offset.mm) for m in mounting.marks if m.side == side]
    computed = not marks and crown is not None and mounting.wanted is not None
    if computed and crown is not None and mounting.wanted is not None:
        marks = _from_crown(crown, members, side, mounting.wanted.mm)
    if not marks:
        return None
    x, y = np.array([m[1] for m in marks]), np.array([m[2] for m in marks])
    radius = [_radius(crown, side, a, b) for a, b in zip(x, y, strict=True)]
    strays = stray_marks(y)
    offsets = by_schools(y)
    recommended, reason = _recommend(y, strays)
    chosen = mounting.school or recommended
    kept = y[~strays]
    kept_radius = [r for r, stray in zip(radius, strays, strict=True) if not stray]
    schools = tuple(School(name, offsets[name], _worst(offsets[name], kept, kept_radius)) for name in SCHOOLS)
    told = tuple(
        _lean(side, mark, bool(stray), r, line=offsets[chosen], base=mounting.base_width.mm)
        for mark, stray, r in zip(marks, strays, radius, strict=True)
    )
    return SideLine(side, computed, schools, recommended, reason, chosen, offsets[chosen], _drift(x[~strays], kept), told)


def by_schools(y: FloatArray) -> dict[LineSchool, float]:
    """The offset by each school, from marks of shape (n,), mm."""
    return {
        "mean": float(y.mean()),
        "most_frequent": _most_frequent(y),
        "median": float(np.median(y)),
        "robust": robust_location(y),
    }


def robust_location(y: FloatArray) -> float:
    """Huber's M-estimate of location with the scale fixed at the median absolute deviation; source: ``SOURCE``."""
    centre = float(np.median(y))
    scale = max(1.4826 * float(np.median(np.abs(y - centre))), 1e-6)
    for _ in range(60):
        off = (y - centre) / scale
        weight = np.where(np.abs(off) <= HUBER, 1.0, HUBER / np.maximum(np.abs(off), 1e-12))
        new = float((weight * y).sum() / weight.sum())
        if abs(new - centre) < 1e-7 * scale:
            break
        centre = new
    return centre


def _most_frequent(y: FloatArray) -> float:
    """The mean of the marks in the fullest window of 10 mm; the window nearest the median where several are as full."""
    windows = [y[(y >= low) & (y <= low + FREQUENT_WINDOW_MM)] for low in y]
    fullest = max(len(w) for w in windows)
    means = [float(w.mean()) for w in windows if len(w) == fullest]
    return min(means, key=lambda m: abs(m - float(np.median(y))))


def stray_marks(y: FloatArray) -> npt.NDArray[np.bool_]:
    """Marks further than 3.5 robust standard deviations from the median (Iglewicz and Hoaglin, 1993)."""
    scatter = max(1.4826 * float(np.median(np.abs(y - np.median(y)))), LEAST_SCATTER_MM)
    return np.asarray(np.abs(y - np.median(y)) > OUTLIER * scatter)


def _recommend(y: FloatArray, strays: npt.NDArray[np.bool_]) -> tuple[LineSchool, str]:
    if len(y) < 4:
        return "median", "Few marks: the middle one is least moved by a wrong reading."
    if strays.any():
        return (
            "robust",
            f"{int(strays.sum())} stray mark{'s' if strays.sum() > 1 else ''}: the robust fit leaves them out, the mean does not.",
        )
    return "robust", "No stray: the robust fit is as good as the mean and stays so if a mark turns out wrong."


def _radius(crown: CrownSurface | None, side: Side, x: float, y: float) -> float | None:
    return None if crown is None else crown.at(x, -y if side == "port" else y).radius_mm or FLAT_ROOF_MM


def _worst(offset: float, y: FloatArray, radius: list[float | None]) -> float | None:
    leans = [abs((offset - b) / r) * 180 / np.pi for b, r in zip(y, radius, strict=True) if r is not None]
    return float(max(leans)) if leans else None


def _lean(side: Side, mark: tuple[str, float, float], stray: bool, radius: float | None, *, line: float, base: float) -> MarkLean:
    name, x, y = mark
    if radius is None:
        return MarkLean(name, x, y, stray, None, None, "")
    with scope("mounting", f"{side} {name}"):
        lean = residual_lean(
            given(line, "chosen", "line"), given(y, "measured", "plumb mark"), given(radius, "inferred", "crown")
        )
        wedge = wedge_thickness(given(base, "chosen", "base width of the foot"), lean)
    under: Literal["outboard", "inboard"] = "outboard" if lean > 0 else "inboard"
    return MarkLean(name, x, y, stray, float(lean), float(wedge), under)


def _drift(x: FloatArray, y: FloatArray) -> float:
    """How far the marks run out over their length: median of all pairwise slopes (Theil–Sen) times the length, mm."""
    i, j = np.triu_indices(len(x), 1)
    apart = np.abs(x[j] - x[i]) > 1.0
    if not apart.any():
        return 0.0
    slopes = (y[j] - y[i])[apart] / (x[j] - x[i])[apart]
    return float(np.median(slopes) * (x.max() - x.min()))


def _from_crown(crown: CrownSurface, members: tuple[Member, ...], side: Side, wanted: float) -> list[tuple[str, float, float]]:
    """At every member the offset with the slope the roof has, at mid-length, at the wanted offset: there the same foot stands plumb."""
    from scipy.optimize import brentq  # loaded late: it takes a second and few roofs need it

    sign = -1.0 if side == "port" else 1.0
    slope = abs(crown.at(crown.length_mm / 2, sign * wanted).slope_across_deg)
    found = []
    for member in members:

        def off(y: float, x: float = member.x_mm) -> float:
            return abs(crown.at(x, sign * y).slope_across_deg) - slope

        if off(1.0) < 0 < off(crown.half_mm):
            found.append((f"m{member.number}", member.x_mm, float(brentq(off, 1.0, crown.half_mm, xtol=0.1))))
    return found
