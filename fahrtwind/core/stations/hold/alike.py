"""The worst of several, and of those that are alike the first: which foot of a symmetric roof is told should
not hang on the last digit of a frame.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import TypeVar

import numpy as np

from fahrtwind.core.stations.hold.frame.model import FloatArray

ALIKE = 1e-6
"""Share within which values are alike; frames are solved to that."""
T = TypeVar("T")


def first_largest(values: FloatArray, axis: int | None = None) -> np.ndarray:
    """Position of the largest along an axis, or in the whole laid out in a row; of those alike the first."""
    most = values.max(axis=axis, keepdims=True)
    return np.asarray((values >= most - ALIKE * np.abs(most)).argmax(axis=axis))


def first_smallest(values: FloatArray) -> int:
    """Position of the smallest in the whole laid out in a row; of those alike the first."""
    return int(first_largest(-values))


def first_least(entries: Iterable[T], *keys: Callable[[T], float]) -> T:
    """The entry with the least first key, of those alike the one with the least second key, and so on; of
    those alike in all the first. Raises ValueError where there is none.
    """
    left = list(entries)
    for key in keys:
        least = min(key(entry) for entry in left)
        left = [entry for entry in left if key(entry) <= least + ALIKE * abs(least)]
    return left[0]
