"""A stiff panel on elastic feet: who carries how much, also with any one foot lost.

Pull is shared by the three equilibrium equations of a rigid plate on springs; force along the roof by the
elastic method of a fastener group. Everything is linear, so one solve serves the slipstream for one pascal
and the constants.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass

FloatArray = npt.NDArray[np.float64]
BoolArray = npt.NDArray[np.bool_]
IN_LINE = 1e-6


@dataclass(frozen=True, slots=True)
class Sharing:
    """Solved for v variants (all feet, then each foot lost), c load vectors and n feet.

    Attributes:
        motion: shape (v, c, 3): lift in mm, tilt along, tilt across in rad, for the panel's centre.
        pull_n: shape (v, c, n), upward pull on each foot; 0 for a lost foot.
        stable: shape (v,), False where the feet left stand in one line and cannot hold a panel.
    """

    motion: FloatArray
    pull_n: FloatArray
    stable: BoolArray


def variants(count: int) -> FloatArray:
    """Which feet are there: shape (count + 1, count); row 0 has all, row i + 1 lacks foot i. One where a
    foot is there, zero where it is lost.
    """
    present = np.ones((count + 1, count))
    present[np.arange(1, count + 1), np.arange(count)] = 0.0
    return present


def share_pull(x_mm: FloatArray, y_mm: FloatArray, stiffness: FloatArray, loads: FloatArray) -> Sharing:
    """Share vertical loads among feet.

    Args:
        x_mm, y_mm: feet relative to the panel's centre, shape (n,).
        stiffness: N/mm, shape (n,).
        loads: rows of (F, F·x, F·y) about the panel's centre in N and N·mm, shape (c, 3).
    """
    arm = np.stack([np.ones_like(x_mm), x_mm, y_mm], axis=1)
    spring = variants(len(x_mm)) * stiffness
    matrix = arm.T @ (spring[:, :, None] * arm)
    # Hadamard: the determinant of such a matrix is at most the product of its diagonal; 0 where feet stand in
    # one line
    whole = np.maximum(np.prod(np.diagonal(matrix, axis1=1, axis2=2), axis=1), 1e-9)
    stable = np.linalg.det(matrix) / whole > IN_LINE
    matrix[~stable] = np.eye(3)
    right = np.broadcast_to(loads.T, (len(matrix), *loads.T.shape))
    motion = np.swapaxes(np.linalg.solve(matrix, right), 1, 2)
    motion[~stable] = 0.0
    pull: FloatArray = np.asarray(spring[:, None, :] * (motion @ arm.T), dtype=np.float64)
    return Sharing(np.asarray(motion, dtype=np.float64), pull, stable)


@dataclass(frozen=True, slots=True)
class ShearShare:
    """Even shares and twist behind the force along the roof; shapes (v, c), (v, c), (v, c) and arms (v, n).

    ``centre_x_mm`` and ``centre_y_mm``: middle of all feet relative to the panel's centre.
    """

    along_n: FloatArray
    across_n: FloatArray
    twist_n_mm: FloatArray
    x_mm: FloatArray
    y_mm: FloatArray
    present: FloatArray
    centre_x_mm: float
    centre_y_mm: float

    def magnitude(self) -> FloatArray:
        """Force along the roof on each foot, N or N/Pa, shape (v, c, n); the array form of ``foot_shear``."""
        along = self.along_n[..., None] - self.twist_n_mm[..., None] * self.y_mm[:, None, :]
        across = self.across_n[..., None] + self.twist_n_mm[..., None] * self.x_mm[:, None, :]
        size: FloatArray = np.hypot(along, across) * self.present[:, None, :]
        return size


def share_shear(
    x_mm: FloatArray, y_mm: FloatArray, forces: FloatArray, turning: FloatArray | float = 0.0
) -> ShearShare:
    """Share forces (rows of aft, starboard; shape (c, 2)) that act at the panel's centre, where x and y
    begin, or elsewhere: then with what they turn about it, shape (c,), N·mm.
    """
    present = variants(len(x_mm))
    count = np.maximum(present.sum(axis=1), 1.0)
    cx, cy = (present @ x_mm) / count, (present @ y_mm) / count
    dx, dy = x_mm - cx[:, None], y_mm - cy[:, None]
    polar = np.maximum((present * (dx**2 + dy**2)).sum(axis=1), 1.0)
    moment = turning - cx[:, None] * forces[None, :, 1] + cy[:, None] * forces[None, :, 0]
    return ShearShare(
        forces[None, :, 0] / count[:, None],
        forces[None, :, 1] / count[:, None],
        moment / polar[:, None],
        dx,
        dy,
        present,
        float(cx[0]),
        float(cy[0]),
    )
