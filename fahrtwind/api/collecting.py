"""When a long-lived process looks for garbage that holds itself in circles."""

from __future__ import annotations

import gc

SELDOM = (20_000, 20, 50)
"""So many new objects, and so many looks at the younger ones, before the next look. An evaluation makes as
many, and nearly all of them go by themselves: to look after every 700, as is usual, costs a twentieth of it.
"""


def collect_seldom() -> None:
    """What is there now, as all that was imported, stays and is not looked at again."""
    gc.freeze()
    gc.set_threshold(*SELDOM)
