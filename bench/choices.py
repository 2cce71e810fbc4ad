"""How long it takes to make a panel hold, and to set all ways to hold side by side."""

from __future__ import annotations

import time
from math import inf
from statistics import median

from bench.figures import line
from fahrtwind.api.helpers import Helpers
from fahrtwind.core.choose.look import Look
from fahrtwind.core.choose.make_hold import failing_panels, offers_for
from fahrtwind.core.choose.schools import side_by_side
from fahrtwind.core.edits import SetValue, apply_edits
from fahrtwind.core.engine.beside import Hands, beside
from fahrtwind.core.evaluate import evaluate
from fahrtwind.demo import demo_jobs

FAST = "130 km/h"
"""Faster than any of the demo's panels is made for."""


def choices() -> None:
    """Of every demo job with panels, driven fast: each panel that fails; and the ways to hold as it is, one
    after the other and with helpers, as the application has them.
    """
    helpers = Helpers()
    helpers.call()
    hands = Hands(lambda: inf, lambda: False, lambda share, doing: None, helpers.apart(lambda: False))
    for job in (j for j in demo_jobs() if j.panels):
        fast = apply_edits(job, [SetValue(path="vehicle.top_speed", value=FAST)])
        evaluate(fast)  # as a window has that shows it
        before = Look(fast)
        spent = []
        for panel in failing_panels(fast, before.near):
            start = time.perf_counter()
            offers_for(before, panel)
            spent.append((time.perf_counter() - start) * 1000)
        if spent:
            line(f"{job.name}: make one panel hold, median of {len(spent)}", median(spent), "ms", 300)
        evaluate(job)
        start = time.perf_counter()
        side_by_side(job)
        line(f"{job.name}: ways to hold one after the other", time.perf_counter() - start, "s")
        start = time.perf_counter()
        with beside(hands):
            side_by_side(job)
        line(f"{job.name}: ways to hold side by side", time.perf_counter() - start, "s", 2)
    helpers.close()
