"""A framed panel is soft beside its feet: each side of its frame is a beam on the feet that stand under it.

The glass hands its load to the sides along lines of 45° from the corners, or evenly: neither is right
everywhere, together with the stiff plate they bound it (a plate-and-frame model within 1 %). A side without
feet of its own hands what it carries to the corners, as a beam between them.
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.footprint import Rect

FloatArray = npt.NDArray[np.float64]
FRAME_EI_N_MM2 = 2.5e9
"""Bending stiffness of the frame's side with its glass, 35 to 40 mm high: judgement, 1.7 to 2.8e9."""
PARTS = 4
APART_MM = 1.0
"""Supports closer than this to one another hold no beam."""
GAUSS_AT, GAUSS_WEIGHT = np.polynomial.legendre.leggauss(3)


@dataclass(frozen=True, slots=True)
class Pressed:
    """A part of a panel, mm, with its pressures, shape (c,): as many as there are loads."""

    rect: Rect
    pressure: FloatArray


def beam_pulls(
    at_mm: FloatArray,
    stiffness: FloatArray,
    load_at_mm: FloatArray,
    loads: FloatArray,
    ei_n_mm2: float = FRAME_EI_N_MM2,
) -> FloatArray:
    """Pull on the supports of a beam on springs, also with each support lost: shape (n + 1, c, n), N.

    Args:
        at_mm: supports along the beam, shape (n,); stiffness: N/mm, shape (n,).
        load_at_mm: where loads pull, shape (k,); loads: N, shape (k, c); ei_n_mm2: bending stiffness.

    The deflection is the cubic spline w = a + b·x + Σ F·|x − x_i|³/(12·EI) over all forces: two conditions of
    equilibrium and F = k·w at every support. Where no two supports are left apart from one another the beam
    hangs free: nan.
    """
    n = len(at_mm)
    bend = np.abs(at_mm[:, None] - at_mm[None, :]) ** 3 / (12 * ei_n_mm2)
    matrix = np.zeros((n + 2, n + 2))
    matrix[:n, :n] = np.diag(1 / stiffness) + bend
    matrix[:n, n] = matrix[n, :n] = 1.0
    matrix[:n, n + 1] = matrix[n + 1, :n] = at_mm
    right = np.zeros((n + 2, loads.shape[1]))
    right[:n] = np.abs(at_mm[:, None] - load_at_mm[None, :]) ** 3 / (12 * ei_n_mm2) @ loads
    right[n], right[n + 1] = loads.sum(axis=0), load_at_mm @ loads
    there = np.vstack([np.ones(n + 2), 1.0 - np.eye(n, n + 2)])  # all, then without each
    foremost, last = (np.where(there[:, :n] > 0, at_mm, end) for end in (np.inf, -np.inf))
    left = last.max(axis=1, initial=-np.inf) - foremost.min(axis=1, initial=np.inf) > APART_MM
    held = there[left]
    # a support that is lost keeps its place in the equations, with a pull of nothing: all are solved at once
    each = held[:, :, None] * matrix * held[:, None, :] + np.eye(n + 2) * (1.0 - held)[:, :, None]
    pulls = np.full((n + 1, loads.shape[1], n), np.nan)
    pulls[left] = np.swapaxes(np.linalg.solve(each, held[:, :, None] * right)[:, :n], 1, 2)
    return pulls


def side_loads(rect: Rect, side: str, pressed: tuple[Pressed, ...], corners: bool) -> tuple[FloatArray, ...]:
    """What the glass hands to one side of the frame: places along it in mm, shape (k,), forces at 45° and
    forces evenly, shape (k, c), in the unit of the pressures times m².

    ``corners``: the sides beside it have no feet and hand theirs over at its ends.
    """
    parts = [_seen_from(rect, side, p) for p in pressed]
    length, depth = rect.size if side in ("port", "starboard") else rect.size[::-1]
    edges = np.array([p[:4] for p in parts])
    pressure = np.array([p[4] for p in parts])
    at, weight = _points(_kinks(edges[:, :2], edges[:, 2:], length, depth), length)
    inside = (edges[:, 0] <= at[:, None]) & (at[:, None] < edges[:, 1])
    slanted = np.minimum(np.minimum(at, length - at), depth / 2)
    limits = slanted, np.full_like(at, depth / 2)
    reached = [_within(edges[:, 2:], limit[:, None]) * inside for limit in limits]
    at_45, evenly = ((weight[:, None] * r) @ pressure * 1e-6 for r in reached)
    if not corners:
        return at, at_45, at_45
    ends = _ends(edges, pressure, length, depth)
    at = np.concatenate([at, [0.0, length]])
    return at, np.vstack([at_45, ends]), np.vstack([evenly, np.zeros_like(ends)])


def _ends(edges: FloatArray, pressure: FloatArray, length: float, depth: float) -> FloatArray:
    """Forces at both ends, shape (2, c): of the side beside it, hung up at its two corners, what this one
    gets.
    """
    at, weight = _points(_kinks(edges[:, 2:], edges[:, :2], depth, length), depth)
    inside = (edges[:, 2] <= at[:, None]) & (at[:, None] < edges[:, 3])
    reach = np.minimum(np.minimum(at, depth - at), length / 2)[:, None]
    near = _within(edges[:, :2], reach)
    far = _within(length - edges[:, 1::-1], reach)
    share = (weight * (1 - at / depth))[:, None]
    return np.stack([((share * r * inside) @ pressure).sum(axis=0) for r in (near, far)]) * 1e-6


def _kinks(along: FloatArray, inward: FloatArray, length: float, depth: float) -> set[float]:
    """Where the load along a side bends or jumps: at edges of parts, and where a line of 45° crosses them."""
    crossed = {*inward.ravel(), *(depth - inward).ravel()}
    return {
        length / 2,
        depth / 2,
        length - depth / 2,
        *along.ravel(),
        *crossed,
        *(length - x for x in crossed),
    }


def _points(edges: set[float], length: float) -> tuple[FloatArray, FloatArray]:
    """Points and weights of Gauss between all edges inside a run, mm: exact for what changes only there."""
    cuts = sorted({e for e in edges if 0 <= e <= length} | {length * i / PARTS for i in range(PARTS + 1)})
    spans = np.array([(a, b) for a, b in pairwise(cuts) if b - a > 1e-9])
    half = (spans[:, 1] - spans[:, 0]) / 2
    at = spans.mean(axis=1)[:, None] + half[:, None] * GAUSS_AT[None, :]
    return at.ravel(), (half[:, None] * GAUSS_WEIGHT[None, :]).ravel()


def _within(spans: FloatArray, limit: FloatArray) -> FloatArray:
    """How much of every span (p, 2) lies before the limit (k, 1): (k, p)."""
    found: FloatArray = np.clip(limit, spans[:, 0], spans[:, 1]) - spans[:, 0]
    return found


def _seen_from(rect: Rect, side: str, pressed: Pressed) -> tuple[float, float, float, float, FloatArray]:
    """A part in the coordinates of a side: from and to along it, from and to inward."""
    part = pressed.rect
    x0, x1 = part.x_mm - rect.x_mm, part.x_end_mm - rect.x_mm
    y0, y1 = part.y_mm - rect.y_mm, part.y_end_mm - rect.y_mm
    match side:
        case "port":
            return x0, x1, y0, y1, pressed.pressure
        case "starboard":
            return x0, x1, rect.width_mm - y1, rect.width_mm - y0, pressed.pressure
        case "front":
            return y0, y1, x0, x1, pressed.pressure
        case _:
            return y0, y1, rect.length_mm - x1, rect.length_mm - x0, pressed.pressure
