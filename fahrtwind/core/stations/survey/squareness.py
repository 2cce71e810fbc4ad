"""Is it square, is it straight? From sides, diagonals and offsets: how far out, and which corner to move
where.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof_shape import skew_from_diagonals
from fahrtwind.core.job.roof import EdgeOffset, Squareness
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length

FloatArray = npt.NDArray[np.float64]
CORNERS = ("front port", "front starboard", "rear starboard", "rear port")
MEASURES: tuple[tuple[str, int, int], ...] = (
    ("front_side", 0, 1),
    ("starboard_side", 1, 2),
    ("rear_side", 2, 3),
    ("port_side", 3, 0),
    ("diagonal_port", 0, 2),
    ("diagonal_starboard", 1, 3),
)
SQUARE_WITHIN_MM = 3.0
STEPS, STILL_MM, SHORTEST_MM = 50, 1e-7, 1e-3
CORNER_OF = np.array(
    [
        [[0, 0, 0, 0, 0], [-0.5, 0, 0, 0, 0]],
        [[0, 0, 0, 0, 0], [0.5, 0, 0, 0, 0]],
        [[0, 1, 0, 0, 0], [0, 0, 1, 0, 0]],
        [[0, 0, 0, 1, 0], [0, 0, 0, 0, 1]],
    ],
    dtype=float,
)
"""Each corner's x and y from the parameters: width in front, then x and y of both rear corners:
(4, 2, 5).
"""


@dataclass(frozen=True, slots=True)
class SquareFinding:
    """``skew_mm``: how far the rear stands to starboard of square. ``move`` names the one corner to move, aft
    and to starboard.

    ``misfit_mm`` is how badly the six measures agree with one another: a misread tape shows here.
    """

    skew_mm: float
    out_deg: float
    square: bool
    corner: str
    move_aft_mm: float
    move_starboard_mm: float
    misfit_mm: float
    words: str


@dataclass(frozen=True, slots=True)
class StraightFinding:
    """Two lines along the roof: spacing at both ends, how far out of parallel, how far each bows, which end
    to move.
    """

    front_spacing_mm: float
    rear_spacing_mm: float
    out_of_parallel_mm: float
    port_bow_mm: float
    starboard_bow_mm: float
    move: str
    move_mm: float
    words: str


def check_square(measured: Squareness, units: UnitSystem = "metric") -> SquareFinding | None:
    """Judge a four-sided thing; None while fewer than two diagonals and one side are known."""
    length = measured.port_side or measured.starboard_side
    d1, d2 = measured.diagonal_port, measured.diagonal_starboard
    if d1 is None or d2 is None or length is None:
        return None
    sides = [s.mm for s in (measured.port_side, measured.starboard_side) if s is not None]
    corners, misfit = _corners(measured, float(np.mean(sides)))
    across = float(np.linalg.norm(corners[1] - corners[0]))
    with scope("squareness"):
        skew = float(
            skew_from_diagonals(
                given(d1.mm, "measured", "diagonal from front port"),
                given(d2.mm, "measured", "diagonal from front starboard"),
                given(across, "measured", "front side, or from sides and diagonals"),
            )
        )
    corner, move = _corner_to_move(corners)
    name = f"{CORNERS[corner]} corner" if corner is not None else "whole rear edge"
    square = abs(skew) <= SQUARE_WITHIN_MM and float(np.abs(move).max()) <= 2 * SQUARE_WITHIN_MM
    return SquareFinding(
        skew,
        float(np.degrees(np.arctan(skew / float(np.mean(sides))))),
        square,
        name,
        float(move[0]),
        float(move[1]),
        misfit,
        _square_words(skew, square, name, move, units),
    )


def _corners(measured: Squareness, length: float) -> tuple[FloatArray, float]:
    """Corners (4, 2) that fit the measures best, front edge on x = 0; what was not measured is taken from its
    opposite.
    """
    known = {name: value.mm for name, _, _ in MEASURES if (value := getattr(measured, name)) is not None}
    diagonal = float(np.mean([known["diagonal_port"], known["diagonal_starboard"]]))
    width = (
        known.get("front_side") or known.get("rear_side") or float(np.sqrt(max(diagonal**2 - length**2, 1.0)))
    )
    for name, usual in (
        ("front_side", width),
        ("rear_side", width),
        ("port_side", length),
        ("starboard_side", length),
    ):
        known.setdefault(name, usual)

    wanted = np.array([known[name] for name, _, _ in MEASURES])
    parameters = _fitted(np.array([width, length, width / 2, length, -width / 2]), wanted)
    apart, _ = _apart(parameters)
    return CORNER_OF @ parameters, float(np.abs(wanted - np.linalg.norm(apart, axis=1)).max())


def _apart(parameters: FloatArray) -> tuple[FloatArray, FloatArray]:
    """From corner to corner along each measure (6, 2), and how that follows the parameters (6, 2, 5)."""
    follows = np.array([CORNER_OF[i] - CORNER_OF[j] for _, i, j in MEASURES])
    return follows @ parameters, follows


def _fitted(parameters: FloatArray, wanted: FloatArray) -> FloatArray:
    """Least squares by Gauss and Newton, steps halved while they lead uphill: corners are linear in the
    parameters, so each step is one linear solution. (A library's solver takes as long to load as all else.)
    """
    for _ in range(STEPS):
        apart, follows = _apart(parameters)
        lengths = np.maximum(np.linalg.norm(apart, axis=1), SHORTEST_MM)
        slopes = np.einsum("mk,mkp->mp", apart / lengths[:, None], follows)
        step = np.linalg.lstsq(slopes, wanted - lengths, rcond=None)[0]
        before = float(((wanted - lengths) ** 2).sum())
        while float(np.abs(step).max()) > STILL_MM:
            now = np.linalg.norm(_apart(parameters + step)[0], axis=1)
            if float(((wanted - now) ** 2).sum()) <= before:
                break
            step = step / 2
        parameters = parameters + step
        if float(np.abs(step).max()) <= STILL_MM:
            break
    return parameters


def _corner_to_move(corners: FloatArray) -> tuple[int | None, FloatArray]:
    """Which rear corner to move and by how much; None where both have to go sideways together. The front edge
    is the datum.

    Square means: both sides at right angles to the front edge and equally long.
    """
    width = corners[1] - corners[0]
    normal = np.array([width[1], -width[0]]) / float(np.linalg.norm(width))
    sides = {2: corners[2] - corners[1], 3: corners[3] - corners[0]}
    off = {i: float(side @ (width / np.linalg.norm(width))) for i, side in sides.items()}
    length = float(np.mean([side @ normal for side in sides.values()]))
    targets = {2: corners[1] + length * normal, 3: corners[0] + length * normal}
    if min(abs(o) for o in off.values()) > SQUARE_WITHIN_MM:
        return None, (targets[2] - corners[2] + targets[3] - corners[3]) / 2
    corner = max(off, key=lambda i: abs(off[i]))
    return corner, targets[corner] - corners[corner]


def _square_words(skew: float, square: bool, corner: str, move: FloatArray, units: UnitSystem) -> str:
    if square:
        return f"Square within {say_length(SQUARE_WITHIN_MM, units)}."
    aft = (
        f"{say_length(abs(move[0]), units)} {'aft' if move[0] > 0 else 'forward'}"
        if abs(move[0]) >= 0.5
        else ""
    )
    side = (
        f"{say_length(abs(move[1]), units)} to {'starboard' if move[1] > 0 else 'port'}"
        if abs(move[1]) >= 0.5
        else ""
    )
    way = " and ".join(w for w in (aft, side) if w) or say_length(0.0, units)
    return (
        f"Out of square by {say_length(abs(skew), units)}, the rear to "
        f"{'starboard' if skew > 0 else 'port'}. Move the {corner} {way}."
    )


def check_straight(offsets: tuple[EdgeOffset, ...], units: UnitSystem = "metric") -> StraightFinding | None:
    """Judge two lines by their offsets from a string; None with fewer than two stations."""
    if len(offsets) < 2 or len({o.x.mm for o in offsets}) < 2:
        return None
    x = np.array([o.x.mm for o in offsets])
    ends = np.array([x.min(), x.max()])
    port, port_bow = _line(x, np.array([o.port.mm for o in offsets]), ends)
    starboard, starboard_bow = _line(x, np.array([o.starboard.mm for o in offsets]), ends)
    front, rear = float(port[0] + starboard[0]), float(port[1] + starboard[1])
    out = rear - front
    side = "starboard" if abs(starboard[1] - starboard[0]) >= abs(port[1] - port[0]) else "port"
    inward = {"port": "starboard", "starboard": "port"}[side]
    way = inward if out > 0 else side
    told = say_length(abs(out), units)
    words = f"Parallel within {told}."
    if abs(out) > SQUARE_WITHIN_MM:
        words = (
            f"{told} {'wider' if out > 0 else 'narrower'} at the rear. Move the rear end of the "
            f"{side} line {told} to {way}."
        )
    return StraightFinding(
        front, rear, out, port_bow, starboard_bow, f"rear {side} to {way}", abs(out), words
    )


def _line(x: FloatArray, y: FloatArray, ends: FloatArray) -> tuple[FloatArray, float]:
    """Least-squares line at both ends, and the largest distance of a station from it."""
    slope, offset = np.polyfit(x, y, 1)
    return offset + slope * ends, float(np.abs(y - offset - slope * x).max())
