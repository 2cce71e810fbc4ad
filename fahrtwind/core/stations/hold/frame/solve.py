"""How a frame bears its loads: forces on its supports, in its bars and its ties, also with each support lost.

The stiffness matrix is solved once; a lost support is taken off again in the small space of its springs
(Sherman, Morrison, Woodbury), so all lost supports cost little more than none.
"""

from __future__ import annotations

import numpy as np

from fahrtwind.core.errors import InputError
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.frame.model import DOFS, FloatArray, Frame, arm, bar_axes, bar_matrices

LOOSE = 1e-9
"""Of a frame scaled to ones on its diagonal: what resists less than this moves freely."""


@dataclass(frozen=True, slots=True, eq=False)
class Solved:
    """Forces for v situations of the supports (all there, then each lost) and c loads; N and N·mm.

    ``on_support``: (v, c, supports, 6), what the frame does to the ground along x, y, z and about them, nan
    where the others hold no frame; ``in_bar``: (v, c, bars, 12), on the ends of every bar in its own axes;
    ``in_tie``: (v, c, ties, 6), what the first part does to the second; ``moved``: (c, nodes, 6), with all
    supports, mm and rad.
    """

    on_support: FloatArray
    in_bar: FloatArray
    in_tie: FloatArray
    moved: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class _Assembled:
    stiffness: FloatArray
    support_rows: FloatArray  # (springs, dofs)
    springs: FloatArray  # (springs,): of all supports, those that are there
    spring_at: np.ndarray  # (springs, 2): the support of each and which of its six it is
    bar_rows: FloatArray  # (bars, 12, 12): forces in a bar's own axes from the moves of its ends
    bar_dofs: np.ndarray  # (bars, 12)
    tie_rows: FloatArray  # (ties, 6, 12)
    tie_dofs: np.ndarray  # (ties, 12)


@dataclass(frozen=True, slots=True, eq=False)
class ReadyFrame:
    """A frame that bears loads: its stiffness scaled to ones on the diagonal, with its inverse, and what one
    newton at each of its springs does, (dofs, springs), (springs, springs), (springs, bars, 12) and
    (springs, ties, 6).
    """

    frame: Frame
    parts: _Assembled
    scaled: FloatArray
    scale: FloatArray
    inverse: FloatArray
    unit: FloatArray
    give: FloatArray
    bar_unit: FloatArray
    tie_unit: FloatArray

    def under(self, loads: FloatArray, settled: FloatArray | None = None) -> Solved:
        """Loads: (c, nodes, 6), N and N·mm at the nodes. ``settled``: (supports, 6), how far the ground under
        each support has moved and turned, mm and rad, under all loads alike; a lost support takes its own
        along.
        """
        right = loads.reshape(len(loads), -1).T
        ground = self._ground(settled)
        right = right + (self.parts.support_rows.T @ (self.parts.springs * ground))[:, None]
        return _with_each_lost(self, _refined(self.scaled, self.scale, self.inverse, right), ground)

    def _ground(self, settled: FloatArray | None) -> FloatArray:
        """How far each spring's end in the ground has moved, (springs,)."""
        at = self.parts.spring_at
        return np.zeros(len(at)) if settled is None else np.asarray(settled[at[:, 0], at[:, 1]])


def made_ready(frame: Frame) -> ReadyFrame:
    """A frame made ready for its loads. Raises InputError where it is none, or moves."""
    frame.check()
    parts = _assemble(frame)
    scale = 1 / np.sqrt(np.maximum(np.diag(parts.stiffness), 1e-12))
    scaled = parts.stiffness * scale[:, None] * scale[None, :]
    inverse = _inverse(frame, scaled, scale)
    unit = _refined(scaled, scale, inverse, parts.support_rows.T)
    give, bars, ties = parts.support_rows @ unit, _bars(parts, unit), _ties(parts, unit)
    return ReadyFrame(frame, parts, scaled, scale, inverse, unit, give, bars, ties)


def solve(frame: Frame, loads: FloatArray, settled: FloatArray | None = None) -> Solved:
    """Loads: (c, nodes, 6), N and N·mm at the nodes; ground ``settled``: (supports, 6), mm and rad. Raises
    InputError where the frame is none, or moves.
    """
    return made_ready(frame).under(loads, settled)


def _refined(scaled: FloatArray, scale: FloatArray, inverse: FloatArray, right: FloatArray) -> FloatArray:
    """Solved, and once more for what is left over: stiff joints beside soft supports cost digits."""
    wanted = right * scale[:, None]
    found = inverse @ wanted
    found += inverse @ (wanted - scaled @ found)
    return np.asarray(found * scale[:, None])


def _assemble(frame: Frame) -> _Assembled:
    size = DOFS * len(frame.nodes_mm)
    stiffness = np.zeros((size, size))

    def dofs(first: int, second: int) -> np.ndarray:
        return np.concatenate([DOFS * first + np.arange(DOFS), DOFS * second + np.arange(DOFS)])

    lengths, axes = bar_axes(frame)
    turn = np.zeros((len(frame.bars), 12, 12))
    for block in range(0, 12, 3):
        turn[:, block : block + 3, block : block + 3] = axes
    bar_rows = bar_matrices([b.stiff for b in frame.bars], lengths) @ turn
    bar_dofs = np.array([dofs(b.start, b.end) for b in frame.bars])
    whole = np.swapaxes(turn, 1, 2) @ bar_rows
    np.add.at(stiffness, (bar_dofs[:, :, None], bar_dofs[:, None, :]), whole)
    tie_rows, tie_dofs = np.zeros((len(frame.ties), 6, 12)), np.zeros((len(frame.ties), 12), dtype=int)
    for i, tie in enumerate(frame.ties):
        apart = np.hstack([-np.eye(6), np.eye(6)])
        apart[:3, :6] = -arm(frame.nodes_mm[tie.second] - frame.nodes_mm[tie.first])
        tie_dofs[i] = dofs(tie.first, tie.second)
        tie_rows[i] = -np.array(tie.springs)[:, None] * apart
        stiffness[np.ix_(tie_dofs[i], tie_dofs[i])] -= apart.T @ tie_rows[i]
    held, springs, spring_at = _grounded(frame, size)
    stiffness += held.T @ (springs[:, None] * held)
    return _Assembled(stiffness, held, springs, spring_at, bar_rows, bar_dofs, tie_rows, tie_dofs)


def _grounded(frame: Frame, size: int) -> tuple[FloatArray, FloatArray, np.ndarray]:
    """Rows, springs and places of what the ground resists with."""
    rows, springs, places = [], [], []
    for i, support in enumerate(frame.supports):
        reach = np.eye(DOFS)
        reach[:3] = arm(np.array(support.at_mm) - frame.nodes_mm[support.node])
        for which, spring in enumerate((*support.springs, *support.turning)):
            if which < 3 or spring > 0:
                row = np.zeros(size)
                row[DOFS * support.node : DOFS * (support.node + 1)] = reach[which]
                rows.append(row)
                springs.append(spring)
                places.append((i, which))
    return np.array(rows), np.array(springs), np.array(places, dtype=int)


def _inverse(frame: Frame, scaled: FloatArray, scale: FloatArray) -> FloatArray:
    """By Cholesky's factor, whose pivots say whether the frame stands: less than half the work of one that
    knows nothing of the matrix.
    """
    from scipy.linalg.lapack import dpotrf, dpotri  # loaded late: a start need not wait for it

    factor, failed = dpotrf(scaled, lower=1)
    if not failed and float(np.diag(factor).min()) ** 2 > LOOSE:
        below = np.tril(dpotri(factor, lower=1)[0])
        return np.asarray(below + np.tril(below, -1).T, dtype=np.float64)
    raise InputError(
        f"{_what_moves(frame, scaled, scale)} without anything that stops it.",
        remedy="Make a joint stiff, add a brace, or another support.",
        field="joint",
    )


ROLL, PITCH, ACROSS = 3, 4, 0.7
MOVES = ("slide along the roof", "slide across", "lift", "roll about its length", "pitch", "swing sideways")


def _what_moves(frame: Frame, scaled: FloatArray, scale: FloatArray) -> str:
    """The part that moves most in the softest way the frame can move, in words."""
    mode = (np.linalg.eigh(scaled)[1][:, 0] * scale).reshape(-1, DOFS)
    size = max(float(np.ptp(frame.nodes_mm, axis=0).max()), 1.0)
    mode[:, 3:] *= size  # a turn counts by how far the ends go
    ends = [np.abs(mode[[bar.start, bar.end]]).max(axis=0) for bar in frame.bars]
    most = int(np.argmax([float(e.max()) for e in ends]))
    bar, how = frame.bars[most], int(ends[most].argmax())
    runs_across = abs(bar_axes(frame)[1][most, 0, 1]) > ACROSS
    if runs_across and how in (ROLL, PITCH):  # a bar across that turns about y rolls about its own length
        how = ROLL + PITCH - how
    return f"{bar.part} can {MOVES[how]}"


def _with_each_lost(frame: ReadyFrame, moved: FloatArray, ground: FloatArray) -> Solved:
    """``moved``: (dofs, c) by the loads; ``ground``: (springs,), how far it has moved by itself."""
    parts = frame.parts
    at = parts.support_rows @ moved - ground[:, None]  # how far every support gives
    own = _springs_of_each(parts, len(frame.frame.supports))
    root = np.append(np.sqrt(parts.springs), 0.0)[own]  # (n, 6), 0 where a support has fewer springs
    give = root[:, :, None] * frame.give[own[:, :, None], own[:, None, :]] * root[:, None, :]
    rest = np.eye(DOFS) - give
    held = np.linalg.eigvalsh(rest)[:, 0] >= 1e-7  # otherwise what is left holds no frame
    rest[~held] = np.eye(DOFS)
    # newtons taken back, (n, c, 6)
    pushed = np.swapaxes(root[:, :, None] * np.linalg.solve(rest, root[:, :, None] * at[own]), 1, 2)

    def with_lost(whole: FloatArray, unit: FloatArray) -> FloatArray:
        """``whole``: (c, …) with all supports; ``unit``: (springs, …) what one newton at each does."""
        found = np.empty((len(own) + 1, *whole.shape))
        found[0] = whole
        np.matmul(pushed, unit.reshape(len(unit), -1)[own], out=found[1:].reshape(*pushed.shape[:2], -1))
        found[1:] += whole
        found[1:][~held] = np.nan
        return found

    on_support = _on_supports(parts, with_lost(at.T, frame.give.T), len(own))
    on_support[np.arange(1, len(own) + 1), :, np.arange(len(own))] = 0.0
    on_support[1:][~held] = np.nan
    return Solved(
        on_support,
        with_lost(_bars(parts, moved), frame.bar_unit),
        with_lost(_ties(parts, moved), frame.tie_unit),
        moved.T.reshape(moved.shape[1], -1, DOFS),
    )


def _springs_of_each(parts: _Assembled, supports: int) -> np.ndarray:
    """Which springs each support has, (n, 6); -1 where it has fewer."""
    found = np.full((supports, DOFS), -1)
    seen = np.zeros(supports, dtype=int)
    for spring, (support, _) in enumerate(parts.spring_at):
        found[support, seen[support]] = spring
        seen[support] += 1
    return found


def _on_supports(parts: _Assembled, give: FloatArray, supports: int) -> FloatArray:
    """(v, c, supports, 6) from how far every spring gives, (v, c, springs)."""
    found = np.zeros((*give.shape[:2], supports, DOFS))
    found[:, :, parts.spring_at[:, 0], parts.spring_at[:, 1]] = give * parts.springs
    return found


def _bars(parts: _Assembled, moved: FloatArray) -> FloatArray:
    """(c, bars, 12)."""
    return np.asarray(np.einsum("bij,bjc->cbi", parts.bar_rows, moved[parts.bar_dofs]))


def _ties(parts: _Assembled, moved: FloatArray) -> FloatArray:
    """(c, ties, 6)."""
    if not len(parts.tie_rows):
        return np.zeros((moved.shape[1], 0, DOFS))
    return np.asarray(np.einsum("tij,tjc->cti", parts.tie_rows, moved[parts.tie_dofs]))
