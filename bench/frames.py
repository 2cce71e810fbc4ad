"""Frames beside a general-purpose frame library: the same frame, all loads, each support lost in turn."""

from __future__ import annotations

import time

import numpy as np

from bench.figures import line, median_ms
from bench.jobs import IN_SIGHT, railed_job
from fahrtwind.core.edits import SetValue, apply_edits
from fahrtwind.core.evaluate import evaluate, evaluate_in_sight
from fahrtwind.core.stations.hold.frame.solve import solve
from fahrtwind.demo import demo_jobs
from tests.core.test_frame import by_library, wild

ROWS = 40
"""About as many as a rack has: models, cases, winds."""
LEAST_TIMES = 100.0


def racks() -> None:
    """One panel moved on the demo's carriers, and on two rails under twelve panels."""
    for job in (*demo_jobs(), railed_job(2), railed_job(3)):
        if not job.carriers:
            continue
        panel = job.panels[0]
        moved = [
            apply_edits(job, [SetValue(path=f"panels.{panel.id}.x", value={"mm": panel.x.mm + i})])
            for i in range(80)
        ]
        before = evaluate(job)
        kind = job.carriers[0].name
        dragged = median_ms(lambda i, m=moved, b=before: evaluate_in_sight(m[i], b, IN_SIGHT), 40)
        line(f"{job.name}, {kind}: one panel dragged, worked out in sight", dragged, "ms", 40)
        dropped = median_ms(lambda i, m=moved: evaluate(m[40 + i]), 40)
        line(f"{job.name}, {kind}: one panel moved, all worked out", dropped, "ms", 40)


def frames() -> None:
    """Ours with all rows at once; the library one row after the other, measured on one and taken ``ROWS``
    times.
    """
    frame, load = wild(np.random.default_rng(3))
    rows = np.repeat(load, ROWS, axis=0)
    ours = median_ms(lambda _: solve(frame, rows), 20)
    start = time.perf_counter()
    for lost in (None, *range(len(frame.supports))):
        by_library(frame, load[0], lost)
    theirs = (time.perf_counter() - start) * 1000
    line(f"frame of {len(frame.bars)} bars, {ROWS} loads, every support lost in turn", ours, "ms")
    line("the same by a frame library, one load", theirs, "ms")
    line("times faster for all loads", ROWS * theirs / ours, "", least=LEAST_TIMES)
