"""Proposals on seeded roofs beside a proof and a rectangle-packing library, and the year's shadows beside the
plain way.
"""

from __future__ import annotations

import time
from itertools import pairwise

import numpy as np
from rectpack import newPacker

from bench.figures import line, median_ms
from fahrtwind.core.choose.propose import AIM_SECONDS
from fahrtwind.core.edits import AddEntry, PlacePanel, SetValue, apply_edits
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.proposals.best import Best, Goal, Limits, best_layout
from fahrtwind.core.stations.layout.proposals.packing import Search
from fahrtwind.core.stations.layout.sun.harvest import harvest_of, stand_of
from fahrtwind.core.stations.layout.sun.sky import Sky, site_of, year_of
from fahrtwind.demo import demo_jobs
from tests.truth.packing import Offered, bench_roof
from tests.truth.plain_sun import beam_lost

ROOFS = 30
NO_LIMITS = Limits([99] * 4, 99, [1000] * 4, 10**9)
PLAIN_MOMENTS = 60


def _proposed(offered: Offered) -> tuple[Best, float, float]:
    """The layout within ten seconds, when the first one was there, and when the search was over, s."""
    watts, first = offered.watts(), list[float]()
    start = time.perf_counter()
    search = Search(lambda: AIM_SECONDS - (time.perf_counter() - start))
    goal = Goal(lambda p: watts[p.kind], True)
    best = best_layout(
        offered.kinds(),
        goal,
        NO_LIMITS,
        search,
        AIM_SECONDS,
        lambda _: first.append(time.perf_counter() - start),
    )
    return best, first[0], time.perf_counter() - start


def _by_library(offered: Offered) -> int:
    """The same roof by a rectangle-packing library: it knows no obstacles, so the free strips between them
    are its bins.
    """
    x0, y0, x1, y1 = offered.bounds
    cuts = sorted({x0, x1, *(x for b in offered.blocks for x in (max(b[0], x0), min(b[2], x1)))})
    packer = newPacker(rotation=True)
    gap = offered.gap
    for a, b in pairwise(cuts):
        taken = sorted((lo, hi) for left, lo, right, hi in offered.blocks if left < b and right > a)
        low = y0
        for start, end in (*taken, (y1, y1)):
            if start - low > 0 and b - a > 0:
                packer.add_bin(b - a + gap, start - low + gap)
            low = max(low, end)
    for number, (length, width, _) in enumerate(sorted(offered.models, key=lambda m: -m[2])):
        for _ in range(30):
            packer.add_rect(length + gap, width + gap, rid=number)
    packer.pack()
    watts = sorted((m[2] for m in offered.models), reverse=True)
    return sum(watts[rect[5]] for rect in packer.rect_list())


def proposals() -> None:
    shares, firsts, ends, library, proved = [], [], [], [], 0
    for seed in range(ROOFS):
        offered = bench_roof(seed)
        best, first, end = _proposed(offered)
        bound = best.bound or sum(w for *_, w in offered.models) * 99
        shares.append(best.worth / bound)
        proved += best.worth == bound
        firsts.append(first)
        ends.append(end)
        library.append(_by_library(offered) / bound)
    print(
        f"\nMost watts on {ROOFS} roofs of 2.5 to 12 m, up to 8 obstacles, 4 models, 10 s each, as "
        f"shares of the proved bound"
    )
    line("proposals: share of the proved bound, on average", 100 * float(np.mean(shares)), "%", least=99)
    line("proposals: share of the proved bound, at the worst", 100 * min(shares), "%", least=96)
    line(f"proposals: of {ROOFS} proved to be the best there is", proved, "roofs")
    line("proposals: a rectangle-packing library, on average", 100 * float(np.mean(library)), "%")
    line("proposals: first layout, the slowest of them", max(firsts) * 1000, "ms", 1000)
    line("proposals: search over, median", float(np.median(ends)) * 1000, "ms")
    line("proposals: search over, the slowest", max(ends) * 1000, "ms", 10_500)


def shaded_job() -> Job:
    """8 panels and 8 obstacles on a bus."""
    bus = next(j for j in demo_jobs() if j.vehicle.kind == "bus")
    job = Job.model_validate(
        {**bus.model_dump(), "name": "shaded", "panels": [], "obstacles": [], "keep_free": []}
    )
    job = apply_edits(job, [SetValue(path="vehicle.roof_length", value="12 m")])
    for i in range(8):
        box = {
            "kind": "other",
            "name": f"Box {i}",
            "x": 1560 + 1400 * i,
            "y": 0,
            "length": 200,
            "width": 500,
            "height": 250,
        }
        job = apply_edits(job, [AddEntry(path="obstacles", value=box), PlacePanel(model="Schiefer 110")])
        panel = job.panels[-1].id
        job = apply_edits(job, [SetValue(path=f"panels.{panel}.x", value={"mm": 250.0 + 1400 * i})])
    return job


def shadows() -> None:
    job = shaded_job()
    stand = stand_of(job)
    print(
        f"\nA year in quarters of an hour, {len(job.panels)} panels, {len(job.obstacles)} "
        f"obstacles, {len(stand.headings_deg)} headings"
    )
    fresh = median_ms(lambda _: (year_of.cache_clear(), harvest_of(job, stand)), 3)
    line("a year of shadow, with the year's light worked out anew", fresh, "ms", 3000)
    line(
        "a year of shadow, another layout at the same place",
        median_ms(lambda _: harvest_of(job, stand), 5),
        "ms",
    )
    sky = year_of(site_of(job))
    some = np.random.default_rng(0).choice(len(sky.hours), PLAIN_MOMENTS, replace=False)
    part = Sky(*(getattr(sky, name)[some] for name in Sky.__dataclass_fields__))
    start = time.perf_counter()
    beam_lost(job, part, list(stand.headings_deg), np.ones(PLAIN_MOMENTS))
    quarters = float(sky.hours.sum()) * 4
    plain = (time.perf_counter() - start) / PLAIN_MOMENTS * quarters
    told = f"{plain:.0f} s for {quarters:.0f} moments (told from {PLAIN_MOMENTS})"
    print(f"  the plain way, moment by moment: {told}, {plain * 1000 / fresh:.0f} times as long")
