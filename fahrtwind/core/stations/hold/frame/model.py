"""A frame in space: nodes, straight bars between them, ties where two parts are joined off their axes, and
supports that give a little. Lengths in mm, forces in N; every node moves along x, y, z and turns about them.
"""

from __future__ import annotations

from dataclasses import field

import numpy as np
import numpy.typing as npt

from fahrtwind.core.errors import InputError
from fahrtwind.core.records import dataclass

FloatArray = npt.NDArray[np.float64]
DOFS = 6
SHORTEST_MM = 0.5
UPRIGHT = 0.99
MOST_BARS, MOST_NODES = 400, 300
UP = np.array([0.0, 0.0, 1.0])
AFT = np.array([1.0, 0.0, 0.0])


@dataclass(frozen=True, slots=True)
class Stiff:
    """What a bar's section resists with: EA in N, EI in N·mm² against bending up and down and sideways, GJ
    in N·mm².
    """

    axial_n: float
    up_n_mm2: float
    side_n_mm2: float
    torsion_n_mm2: float


@dataclass(frozen=True, slots=True)
class Bar:
    """A straight, slender bar between two nodes; ``part`` names what it is a piece of. Shear deformation is
    left out: right to a per cent where a bay is longer than ten times the bar's depth.
    """

    start: int
    end: int
    stiff: Stiff
    part: str


@dataclass(frozen=True, slots=True)
class Tie:
    """A joint of two nodes: springs in N/mm along and N·mm/rad about x, y, z that act at the second one,
    which hangs on the first by a rigid arm.
    """

    first: int
    second: int
    springs: tuple[float, float, float, float, float, float]
    name: str


@dataclass(frozen=True, slots=True)
class Support:
    """Ground under a node, at the end of a rigid arm to ``at_mm``: springs along x, y, z in N/mm and, where
    it resists turning, about them in N·mm/rad.
    """

    node: int
    at_mm: tuple[float, float, float]
    springs: tuple[float, float, float]
    name: str
    turning: tuple[float, float, float] = (0.0, 0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Frame:
    """A whole frame. ``parts`` of its bars and names of ties and supports are what messages call them."""

    nodes_mm: FloatArray
    bars: tuple[Bar, ...]
    ties: tuple[Tie, ...] = ()
    supports: tuple[Support, ...] = field(default=())

    def check(self) -> None:
        """Raises InputError naming the part that is no bar, hangs on nothing, or is one too many."""
        if len(self.bars) > MOST_BARS or len(self.nodes_mm) > MOST_NODES:
            raise InputError(
                f"The frame has {len(self.bars)} bars.",
                remedy=f"Work out at most {MOST_BARS} at once.",
                field="bars",
            )
        if not np.isfinite(self.nodes_mm).all():
            raise InputError("A node is nowhere.", remedy="Give finite places.", field="nodes")
        for bar in self.bars:
            if float(np.linalg.norm(self.nodes_mm[bar.end] - self.nodes_mm[bar.start])) < SHORTEST_MM:
                raise InputError(
                    f"{bar.part} has a piece without length.",
                    remedy="Move its ends, or what crosses it, apart.",
                    field="bars",
                )
        loose = self._not_held()
        if loose:
            raise InputError(
                f"{loose} is joined to nothing that is held.",
                remedy="Join it, or set a support under it.",
                field="bars",
            )

    def _not_held(self) -> str:
        """The first part that no chain of bars and ties leads from to a support; empty where all are held."""
        reached = {s.node for s in self.supports}
        links = [(b.start, b.end) for b in self.bars] + [(t.first, t.second) for t in self.ties]
        grew = True
        while grew:
            before = len(reached)
            for a, b in links:
                if a in reached or b in reached:
                    reached |= {a, b}
            grew = len(reached) > before
        return next((b.part for b in self.bars if b.start not in reached), "")


def bar_axes(frame: Frame) -> tuple[FloatArray, FloatArray]:
    """Lengths of all bars in mm, (bars,), and rows of unit vectors along each, sideways, and as near to up as
    it allows, (bars, 3, 3).
    """
    ends = np.array([(b.start, b.end) for b in frame.bars], dtype=int)
    along = frame.nodes_mm[ends[:, 1]] - frame.nodes_mm[ends[:, 0]]
    lengths = np.linalg.norm(along, axis=1)
    along = along / lengths[:, None]
    reference = np.where(np.abs(along[:, 2:]) > UPRIGHT, AFT, UP)
    side = np.cross(reference, along)
    side /= np.linalg.norm(side, axis=1)[:, None]
    return lengths, np.stack([along, side, np.cross(along, side)], axis=1)


def bar_matrices(stiffs: list[Stiff], lengths: FloatArray) -> FloatArray:
    """Stiffness of bars in their own axes, (bars, 12, 12), degrees of freedom of the start, then of the end:
    along, sideways, up, then turns about the same. Any textbook on frames.
    """
    k = np.zeros((len(stiffs), 12, 12))
    axial, up, side, torsion = (
        np.array([getattr(s, n) for s in stiffs])
        for n in ("axial_n", "up_n_mm2", "side_n_mm2", "torsion_n_mm2")
    )
    for value, (a, b) in ((axial / lengths, (0, 6)), (torsion / lengths, (3, 9))):
        k[:, [a, b], [a, b]] = value[:, None]
        k[:, [a, b], [b, a]] = -value[:, None]
    # moving up turns the section against the turn about the side axis, moving sideways with that about up
    for ei, (w, turn), sign in ((up, (2, 4), -1.0), (side, (1, 5), 1.0)):
        at = [w, turn, w + 6, turn + 6]
        c, s, m = 12 * ei / lengths**3, sign * 6 * ei / lengths**2, ei / lengths
        rows = ((c, s, -c, s), (s, 4 * m, -s, 2 * m), (-c, -s, c, -s), (s, 2 * m, -s, 4 * m))
        for i, row in enumerate(rows):
            for j, value in enumerate(row):
                k[:, at[i], at[j]] += value
    return k


def arm(offset_mm: FloatArray) -> FloatArray:
    """How a point moves that hangs on a node by a rigid arm of ``offset_mm``: (3, 6), mm and mm/rad, of the
    node's moves and turns.
    """
    x, y, z = offset_mm
    turns = np.array([[0.0, z, -y], [-z, 0.0, x], [y, -x, 0.0]])
    return np.hstack([np.eye(3), turns])
