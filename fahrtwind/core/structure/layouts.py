"""Hypotheses about how members stand: each a design matrix that turns a few parameters into all positions.

Parameters are the first member a, the pitch p, a second pitch, and the size of an odd bay at an end; every position is
linear in them, so each hypothesis can be fitted by weighted least squares.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import numpy.typing as npt

FloatArray = npt.NDArray[np.float64]
Story = Literal["one spacing", "odd front bay", "odd rear bay", "two sections", "every second missed"]
OVERHANG_MM = 15.0
"""A member may be computed this far beyond the roof's edge and still count as standing on it."""


@dataclass(frozen=True, slots=True, eq=False)
class Layout:
    """A hypothesis: positions = design @ theta (mm), one row a member, front to rear.

    ``pitch_columns`` says which parameters are pitches (for their prior), ``bay_columns`` which are odd bays.
    ``silent`` marks members that a search of that kind never notices; ``section`` numbers each member's section.
    """

    story: Story
    design: FloatArray
    theta: FloatArray
    pitch_columns: tuple[int, ...]
    bay_columns: tuple[int, ...]
    section: tuple[int, ...]
    silent: npt.NDArray[np.bool_]
    prior: float

    @property
    def positions(self) -> FloatArray:
        found: FloatArray = self.design @ self.theta
        return found


def trimmed(layout: Layout, span: float) -> Layout:
    """The layout without members that its fit has pushed off the roof."""
    on = (layout.positions >= -2 * OVERHANG_MM) & (layout.positions <= span + 2 * OVERHANG_MM)
    if on.all() or on.sum() < 2:
        return layout
    section = tuple(s for s, keep in zip(layout.section, on, strict=True) if keep)
    return replace(layout, design=layout.design[on], section=section, silent=layout.silent[on])


def single(first: float, pitch: float, span: float, prior: float) -> Layout:
    """One equal spacing over the whole roof; ``first`` may be any of its members."""
    first -= pitch * np.floor((first + OVERHANG_MM) / pitch)
    count = int(np.floor((span + OVERHANG_MM - first) / pitch)) + 1
    design = np.stack([np.ones(max(count, 1)), np.arange(float(max(count, 1)))], axis=1)
    return _plain("one spacing", design, np.array([first, pitch]), prior)


def _plain(story: Story, design: FloatArray, theta: FloatArray, prior: float, bays: tuple[int, ...] = ()) -> Layout:
    n = len(design)
    return Layout(story, design, theta, (1,), bays, (1,) * n, np.zeros(n, dtype=bool), prior)


def every_second_missed(base: Layout, prior: float) -> Layout:
    """Members stand at half of a pitch; the ones between were never noticed."""
    n = len(base.design)
    first, half = base.theta[0], base.theta[1] / 2
    lead = first - half >= -OVERHANG_MM
    start = first - half if lead else first
    count = 2 * n - 1 + int(lead) + 1
    design = np.stack([np.ones(count), np.arange(float(count))], axis=1)
    layout = _plain("every second missed", design, np.array([start, half]), prior)
    layout.silent[int(not lead) :: 2] = True
    return layout


def odd_front(base: Layout, keep_from: int, bay: float, prior: float) -> Layout:
    """The first bay differs: one member stands ``bay`` in front of member ``keep_from``, nothing regular before it."""
    rest = base.design[keep_from:].copy()
    rest[:, 1] -= keep_from
    theta = np.append(base.theta.copy(), bay)
    theta[0] += keep_from * base.theta[1]
    design = np.hstack([rest, np.zeros((len(rest), 1))])
    design = np.vstack([[1.0, 0.0, -1.0], design])
    return _plain("odd front bay", design, theta, prior, (2,))


def odd_rear(base: Layout, keep_to: int, bay: float, prior: float) -> Layout:
    """The last bay differs: one member stands ``bay`` behind member ``keep_to``, nothing regular behind it."""
    rest = base.design[: keep_to + 1]
    design = np.hstack([rest, np.zeros((len(rest), 1))])
    design = np.vstack([design, [*base.design[keep_to], 1.0]])
    return _plain("odd rear bay", design, np.append(base.theta, bay), prior, (2,))


def two_sections(first: float, pitch: float, joint: int, second: float, span: float, prior: float) -> Layout:
    """Pitch changes at member ``joint`` (counted from the first on the roof)."""
    at_joint = first + joint * pitch
    behind = int(np.floor((span + OVERHANG_MM - at_joint) / second))
    front = np.stack([np.ones(joint + 1), np.arange(joint + 1), np.zeros(joint + 1)], axis=1)
    rear = np.stack([np.ones(behind), np.full(behind, joint), np.arange(1, behind + 1)], axis=1)
    design = np.vstack([front, rear])
    n = len(design)
    section = (1,) * (joint + 1) + (2,) * behind
    return Layout("two sections", design, np.array([first, pitch, second]), (1, 2), (), section, np.zeros(n, dtype=bool), prior)
