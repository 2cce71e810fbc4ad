"""Factory points against their nominal pattern: which one is off, and by how much.

The measured row is the nominal one moved and turned a little (a rigid fit, no stretching), found by
reweighted least squares so that one wrong hole does not drag the others along.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.job.roof import FactoryPoint, PointRow
from fahrtwind.core.records import dataclass

FloatArray = npt.NDArray[np.float64]
TUKEY = 4.685
LEAST_SCALE_MM = 1.0
ROUNDS = 30


@dataclass(frozen=True, slots=True)
class PointPlace:
    """A factory point: where it is (measured, else where the fitted row puts it) and how far off its row,
    mm.
    """

    row: str
    count: int
    x_mm: float
    y_mm: float
    measured: bool
    off_x_mm: float | None
    off_y_mm: float | None
    off_mm: float | None
    stray: bool
    usable: bool
    why: str


@dataclass(frozen=True, slots=True)
class RowFit:
    """A row: how the whole of it stands off its nominal place, and each of its points.

    ``turn_mm_per_m`` is how far it runs out sideways. ``measured`` counts the points the fit rests on.
    """

    row: str
    name: str
    kind: str
    shift_x_mm: float
    shift_y_mm: float
    turn_mm_per_m: float
    measured: int
    points: tuple[PointPlace, ...]


def fit_row(row: PointRow) -> RowFit:
    """Fit a row's measured points to its pattern and place all of them."""
    nominal = np.array([[row.start.mm + i * row.pitch.mm, row.y.mm] for i in range(row.count)])
    known = [p for p in row.points if p.x is not None or p.y is not None]
    shift, turn = _rigid(nominal, known) if known else (np.zeros(2), 0.0)
    fitted = (
        nominal + shift + turn * np.stack([-(nominal[:, 1] - row.y.mm), nominal[:, 0] - row.start.mm], axis=1)
    )
    by_count = {p.count: p for p in row.points}
    places = tuple(_place(row, i, fitted[i], by_count.get(i)) for i in range(row.count))
    return RowFit(
        row.id, row.name, row.kind, float(shift[0]), float(shift[1]), float(turn * 1000), len(known), places
    )


def _rigid(nominal: FloatArray, known: list[FactoryPoint]) -> tuple[FloatArray, float]:
    """Shift (2,) and turn in rad; the turn only where two points give it hold."""
    rows, values = [], []
    start = nominal[0]
    for point in known:
        if point.count >= len(nominal):
            continue
        along, across = nominal[point.count] - start
        if point.x is not None:
            rows.append([1.0, 0.0, -across])
            values.append(point.x.mm - nominal[point.count, 0])
        if point.y is not None:
            rows.append([0.0, 1.0, along])
            values.append(point.y.mm - nominal[point.count, 1])
    if not rows:
        return np.zeros(2), 0.0
    design, wanted = np.array(rows), np.array(values)
    prior = np.diag([1e-6, 1e-6, 1 / 0.01**2])  # rows turn by about 10 mm in a metre at most: common practice
    weight = np.ones(len(wanted))
    solution = np.array(
        [
            np.median(wanted[design[:, 0] == 1]) if (design[:, 0] == 1).any() else 0.0,
            np.median(wanted[design[:, 1] == 1]) if (design[:, 1] == 1).any() else 0.0,
            0.0,
        ]
    )
    for _ in range(ROUNDS):
        off = wanted - design @ solution
        scale = max(1.4826 * float(np.median(np.abs(off))), LEAST_SCALE_MM)
        weight = np.where(np.abs(off) < TUKEY * scale, (1 - (off / (TUKEY * scale)) ** 2) ** 2, 0.0)
        normal = design.T @ (design * weight[:, None]) + prior
        solution = np.linalg.solve(normal, design.T @ (weight * wanted))
    return solution[:2], float(solution[2])


def _place(row: PointRow, count: int, fitted: FloatArray, point: FactoryPoint | None) -> PointPlace:
    x, y = float(fitted[0]), float(fitted[1])
    if point is None or (point.x is None and point.y is None):
        usable, why = (point.usable, point.why) if point else (True, "")
        return PointPlace(row.id, count, x, y, False, None, None, None, False, usable, why)
    off_x = point.x.mm - x if point.x is not None else None
    off_y = point.y.mm - y if point.y is not None else None
    off = float(np.hypot(off_x or 0.0, off_y or 0.0))
    return PointPlace(
        row.id,
        count,
        point.x.mm if point.x is not None else x,
        point.y.mm if point.y is not None else y,
        True,
        off_x,
        off_y,
        off,
        off > row.tolerance.mm,
        point.usable,
        point.why,
    )
