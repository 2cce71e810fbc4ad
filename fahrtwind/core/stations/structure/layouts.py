"""Hypotheses about how members stand: each a design matrix that turns a few parameters into all positions.

Parameters are the first member a, the pitch p, a second pitch, and the size of an odd bay at an end; every
position is linear in them, so each hypothesis can be fitted by weighted least squares.
"""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass, replace

FloatArray = npt.NDArray[np.float64]
Story = Literal[
    "one spacing",
    "odd front bay",
    "odd rear bay",
    "odd bays at both ends",
    "two sections",
    "two sections, odd front bay",
    "two sections, odd rear bay",
    "two sections, odd bays at both ends",
    "every second missed",
]
End = Literal["front", "rear"]
OVERHANG_MM = 15.0
"""A member may be computed this far beyond the roof's edge and still count as standing on it."""


@dataclass(frozen=True, slots=True)
class Pitch:
    """The spacing of a section: a parameter of the layout, or a multiple of it."""

    column: int
    times: float = 1.0


@dataclass(frozen=True, slots=True, eq=False)
class Layout:
    """A hypothesis: positions = design @ theta (mm), one row a member, front to rear.

    ``pitches`` are the spacings of the sections, front to rear; ``bays`` says at which end each odd bay is,
    by its parameter. ``silent`` marks members that a search of that kind never notices; ``section`` numbers
    each member's section.
    """

    design: FloatArray
    theta: FloatArray
    pitches: tuple[Pitch, ...]
    bays: tuple[tuple[End, int], ...]
    section: tuple[int, ...]
    silent: npt.NDArray[np.bool_]
    prior: float

    @property
    def positions(self) -> FloatArray:
        found: FloatArray = self.design @ self.theta
        return found

    @property
    def free_pitches(self) -> tuple[int, ...]:
        """The parameters that are spacings, each once."""
        return tuple(dict.fromkeys(p.column for p in self.pitches))

    @property
    def story(self) -> Story:
        if self.silent.any():
            return "every second missed"
        ends = [end for end, _ in self.bays]
        odd = "odd bays at both ends" if len(ends) == 2 else f"odd {ends[0]} bay" if ends else ""
        two = "two sections" if len(self.pitches) == 2 else ""
        return ", ".join(w for w in (two, odd) if w) or "one spacing"  # type: ignore[return-value]

    def pitch_mm(self, section: int) -> float:
        """Spacing of a section, counted from 1."""
        pitch = self.pitches[section - 1]
        return float(self.theta[pitch.column] * pitch.times)


def trimmed(layout: Layout, span: float) -> Layout:
    """The layout without members that its fit has pushed off the roof. ``span``: length of the roof, mm."""
    on = (layout.positions >= -2 * OVERHANG_MM) & (layout.positions <= span + 2 * OVERHANG_MM)
    return layout if on.all() or on.sum() < 2 else kept(layout, on)


def kept(layout: Layout, on: npt.NDArray[np.bool_]) -> Layout:
    """Only the members marked. ``on``: a mask, one entry a member."""
    section = tuple(s for s, keep in zip(layout.section, on, strict=True) if keep)
    return replace(layout, design=layout.design[on], section=section, silent=layout.silent[on])


def single(first: float, pitch: float, span: float, prior: float) -> Layout:
    """One equal spacing over the whole roof; ``first`` may be any of its members. In mm; ``prior``: weight,
    0 to 1.
    """
    first -= pitch * np.floor((first + OVERHANG_MM) / pitch)
    count = max(int(np.floor((span + OVERHANG_MM - first) / pitch)) + 1, 1)
    design = np.stack([np.ones(count), np.arange(float(count))], axis=1)
    return _plain(design, np.array([first, pitch]), prior)


def _plain(design: FloatArray, theta: FloatArray, prior: float) -> Layout:
    n = len(design)
    return Layout(design, theta, (Pitch(1),), (), (1,) * n, np.zeros(n, dtype=bool), prior)


def every_second_missed(base: Layout, prior: float) -> Layout:
    """Members stand at half of a pitch; the ones between were never noticed. ``prior`` multiplies the
    weight (0 to 1).
    """
    n = len(base.design)
    first, half = base.theta[0], base.theta[1] / 2
    lead = first - half >= -OVERHANG_MM
    start = first - half if lead else first
    count = 2 * n - 1 + int(lead) + 1
    design = np.stack([np.ones(count), np.arange(float(count))], axis=1)
    layout = _plain(design, np.array([start, half]), prior)
    layout.silent[int(not lead) :: 2] = True
    return layout


def odd_end(base: Layout, end: End, keep: int, bay: float, prior: float) -> Layout:
    """The bay at one end differs: one member stands ``bay`` beyond member ``keep``, nothing regular beyond
    it. ``prior`` multiplies the weight (0 to 1); ``bay`` in mm.
    """
    front = end == "front"
    part = slice(keep, None) if front else slice(None, keep + 1)
    rows, section, silent = base.design[part], base.section[part], base.silent[part]
    beyond = np.append(base.design[keep], -1.0 if front else 1.0)[None, :]
    rows = np.hstack([rows, np.zeros((len(rows), 1))])
    design = np.vstack([beyond, rows] if front else [rows, beyond])
    sections = (section[0], *section) if front else (*section, section[-1])
    silent = np.insert(silent, 0 if front else len(silent), False)
    column = len(base.theta)
    return replace(
        base,
        design=design,
        theta=np.append(base.theta, bay),
        bays=(*base.bays, (end, column)),
        section=sections,
        silent=silent,
        prior=base.prior * prior,
    )


def two_sections(first: float, pitch: float, joint: int, second: float, span: float, prior: float) -> Layout:
    """Pitch changes at member ``joint`` (counted from the first on the roof). Places and pitches in mm;
    ``prior``: weight, 0 to 1.
    """
    at_joint = first + joint * pitch
    behind = int(np.floor((span + OVERHANG_MM - at_joint) / second))
    front = np.stack([np.ones(joint + 1), np.arange(joint + 1), np.zeros(joint + 1)], axis=1)
    rear = np.stack([np.ones(behind), np.full(behind, joint), np.arange(1, behind + 1)], axis=1)
    design = np.vstack([front, rear])
    n = len(design)
    section = (1,) * (joint + 1) + (2,) * behind
    return Layout(
        design,
        np.array([first, pitch, second]),
        (Pitch(1), Pitch(2)),
        (),
        section,
        np.zeros(n, dtype=bool),
        prior,
    )


def thinned(base: Layout, joint: int, end: End, times: int, prior: float) -> Layout:
    """Towards one end from member ``joint`` on, only every second or third member of the spacing stands.
    ``prior`` multiplies the weight (0 to 1).
    """
    index = np.arange(len(base.design))
    coarse = (index < joint) if end == "front" else (index > joint)
    layout = kept(base, ~coarse | ((index - joint) % times == 0))
    where = index[~coarse | ((index - joint) % times == 0)]
    if end == "front":
        pitches, section = (Pitch(1, float(times)), Pitch(1)), tuple(1 if i <= joint else 2 for i in where)
    else:
        pitches, section = (Pitch(1), Pitch(1, float(times))), tuple(1 if i <= joint else 2 for i in where)
    return replace(layout, pitches=pitches, section=section, prior=prior)
