"""Straight lines for rails on a curved roof: four schools side by side, one recommended, what is left to
wedge.

On each side the marks say at which distance from the centre a foot's upright stands plumb. They scatter; one
straight line parallel to the centre has to be chosen, and at every mark a lean is left that a bar under one
edge of the foot takes out.
"""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof_shape import residual_lean, wedge_thickness
from fahrtwind.core.job.roof import LineSchool, MountingLines
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.stations.survey.crown import CrownSurface

FloatArray = npt.NDArray[np.float64]
Side = Literal["port", "starboard"]
CUT, MAD_TO_SIGMA = 3.0, 1.4826
LEAST_TO_JUDGE = 4
LEAST_SCATTER_MM = 3.0
FREQUENT_WINDOW_MM = 10.0
DRIFT_MM = 15.0
"""A line that runs out further than this over its length wants its two ends set one by one (10–15 mm: common
practice).
"""
FLAT_ROOF_MM = 60_000.0
SCHOOLS: tuple[LineSchool, ...] = ("mean", "most_frequent", "median", "robust")
SOURCE = (
    "Rousseeuw and Leroy, Robust Regression and Outlier Detection, 1987 (least trimmed "
    "squares, then the mean of what is left)"
)


@dataclass(frozen=True, slots=True)
class School:
    """An offset by one school and the largest lean it leaves, among the marks that are not strays."""

    name: LineSchool
    offset_mm: float
    worst_lean_deg: float | None


@dataclass(frozen=True, slots=True)
class MarkLean:
    """One mark: its stray from the chosen line, the lean left there, and the bar under a foot's edge that
    takes it out.

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
    """Both lines. ``common_mm`` is the one offset that serves both sides; ``check_mm`` is the distance
    between them to measure at both ends; the chalk line is snapped between the two x."""

    sides: tuple[SideLine, ...]
    chalk_front_x_mm: float | None
    chalk_rear_x_mm: float | None
    check_mm: float | None
    common_mm: float | None


def mounting_lines(
    mounting: MountingLines, members: tuple[Member, ...], crown: CrownSurface | None
) -> LinesFinding:
    """Lines from the marks; where a side has none, from the crown at the wanted slope of the roof there."""
    both_sides: tuple[Side, ...] = ("port", "starboard")
    read = [found for side in both_sides if (found := _marks(mounting, side, members, crown)) is not None]
    own = [by_schools(m.offset)[mounting.school or _recommend(m.stray)[0]] for m in read]
    common = float(np.mean(own)) if len(read) == 2 else None
    sides = tuple(_side(mounting, m, common if mounting.common else None) for m in read)
    xs = [m.x_mm for line in sides for m in line.marks]
    return LinesFinding(
        sides,
        min(xs, default=None),
        max(xs, default=None),
        sum(s.offset_mm for s in sides) if len(sides) == 2 else None,
        common,
    )


@dataclass(frozen=True, slots=True, eq=False)
class _Marks:
    """The marks of one side as arrays, which of them are strays, and the roof's radius at each (None without
    a crown).
    """

    side: Side
    computed: bool
    names: tuple[str, ...]
    x: FloatArray
    offset: FloatArray
    stray: npt.NDArray[np.bool_]
    radius: tuple[float | None, ...]


def _marks(
    mounting: MountingLines, side: Side, members: tuple[Member, ...], crown: CrownSurface | None
) -> _Marks | None:
    marks = [(m.id, m.x.mm, m.offset.mm) for m in mounting.marks if m.side == side]
    computed = False
    if not marks and crown is not None and mounting.wanted is not None:
        marks, computed = _from_crown(crown, members, side, mounting.wanted.mm), True
    if not marks:
        return None
    x, y = np.array([m[1] for m in marks]), np.array([m[2] for m in marks])
    radius = tuple(_radius(crown, side, a, b) for a, b in zip(x, y, strict=True))
    return _Marks(side, computed, tuple(m[0] for m in marks), x, y, stray_marks(y), radius)


def _side(mounting: MountingLines, marks: _Marks, common: float | None) -> SideLine:
    y, strays = marks.offset, marks.stray
    offsets = by_schools(y)
    recommended, reason = _recommend(strays)
    chosen = mounting.school or recommended
    line = offsets[chosen] if common is None else common
    kept_radius = [r for r, stray in zip(marks.radius, strays, strict=True) if not stray]
    schools = tuple(
        School(name, offsets[name], _worst(offsets[name], y[~strays], kept_radius)) for name in SCHOOLS
    )
    told = tuple(
        _lean(marks, i, line=line, base=mounting.base_width.mm, bar=mounting.bar_width.mm)
        for i in range(len(marks.names))
    )
    drift = _drift(marks.x[~strays], y[~strays])
    return SideLine(marks.side, marks.computed, schools, recommended, reason, chosen, line, drift, told)


def by_schools(y: FloatArray) -> dict[LineSchool, float]:
    """The offset by each school, from marks of shape (n,), mm."""
    return {
        "mean": float(y.mean()),
        "most_frequent": _most_frequent(y),
        "median": float(np.median(y)),
        "robust": robust_location(y),
    }


def robust_location(y: FloatArray) -> float:
    """Mean of the marks that are no strays; source: ``SOURCE``. In mm, like the marks."""
    return float(y[~stray_marks(y)].mean())


def _most_frequent(y: FloatArray) -> float:
    """The mean of the marks in the fullest window of 10 mm; the window nearest the median where several are
    as full.
    """
    windows = [y[(y >= low) & (y <= low + FREQUENT_WINDOW_MM)] for low in y]
    fullest = max(len(w) for w in windows)
    means = [float(w.mean()) for w in windows if len(w) == fullest]
    return min(means, key=lambda m: abs(m - float(np.median(y))))


def stray_marks(y: FloatArray) -> npt.NDArray[np.bool_]:
    """Which marks stand more than three deviations from the half that agrees best; weights are one or zero.
    Source: ``SOURCE``.

    Starting from the closest half, several slips to one side cannot drag the line after them. With fewer
    than four marks nobody can tell which one is wrong. Marks in mm, shape (n,), and so is the mask.
    """
    if len(y) < LEAST_TO_JUDGE:
        return np.zeros(len(y), dtype=bool)
    ordered = np.sort(y)
    half = len(y) // 2 + 1
    windows = np.lib.stride_tricks.sliding_window_view(ordered, half)
    centre = float(windows[windows.var(axis=1).argmin()].mean())
    scatter = max(MAD_TO_SIGMA * float(np.median(np.abs(y - centre))), LEAST_SCATTER_MM)
    kept = np.abs(y - centre) <= CUT * scatter
    for _ in range(20):
        centre = float(y[kept].mean())
        own = float(y[kept].std(ddof=1)) if kept.sum() > 2 else scatter
        # cutting off the tails narrows the scatter that is seen, so it may not shrink without end
        scatter = max(own * 1.05, 0.6 * scatter, LEAST_SCATTER_MM)
        now = np.abs(y - centre) <= CUT * scatter
        if (now == kept).all():
            break
        kept = now
    return np.asarray(~kept)


def _recommend(strays: npt.NDArray[np.bool_]) -> tuple[LineSchool, str]:
    if len(strays) < LEAST_TO_JUDGE:
        return "median", "Few marks: the middle one is least moved by a wrong reading."
    if strays.any():
        count = int(strays.sum())
        return (
            "robust",
            f"{count} stray mark{'s' if count > 1 else ''}: the robust fit leaves them out, the "
            f"mean does not.",
        )
    return "robust", "No stray: the robust fit is as good as the mean and stays so if a mark turns out wrong."


def _radius(crown: CrownSurface | None, side: Side, x: float, y: float) -> float | None:
    return None if crown is None else crown.at(x, -y if side == "port" else y).radius_mm or FLAT_ROOF_MM


def _worst(offset: float, y: FloatArray, radius: list[float | None]) -> float | None:
    leans = [abs((offset - b) / r) * 180 / np.pi for b, r in zip(y, radius, strict=True) if r is not None]
    return float(max(leans)) if leans else None


def _lean(marks: _Marks, i: int, *, line: float, base: float, bar: float) -> MarkLean:
    name, x, y, stray, radius = (
        marks.names[i],
        float(marks.x[i]),
        float(marks.offset[i]),
        bool(marks.stray[i]),
        marks.radius[i],
    )
    if radius is None:
        return MarkLean(name, x, y, stray, None, None, "")
    with scope("mounting", f"{marks.side} {name}"):
        curve = given(radius, "inferred", "crown")
        lean = residual_lean(given(line, "chosen", "line"), given(y, "measured", "plumb mark"), curve)
        wedge = wedge_thickness(
            given(base, "chosen", "base width of the foot"),
            lean,
            given(bar, "chosen", "width of the bar"),
            curve,
        )
    under: Literal["outboard", "inboard"] = "outboard" if lean > 0 else "inboard"
    return MarkLean(name, x, y, stray, float(lean), float(wedge), under)


def _drift(x: FloatArray, y: FloatArray) -> float:
    """How far the marks run out over their length: median of all pairwise slopes (Theil–Sen) times the
    length, mm.
    """
    i, j = np.triu_indices(len(x), 1)
    apart = np.abs(x[j] - x[i]) > 1.0
    if not apart.any():
        return 0.0
    slopes = (y[j] - y[i])[apart] / (x[j] - x[i])[apart]
    return float(np.median(slopes) * (x.max() - x.min()))


def _from_crown(
    crown: CrownSurface, members: tuple[Member, ...], side: Side, wanted: float
) -> list[tuple[str, float, float]]:
    """At every member the offset with the slope the roof has, at mid-length, at the wanted offset: there the
    same foot stands plumb.
    """
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
