"""Plans: forty steps, three people, fourteen days of half hours; what as-early-as-it-goes would have given."""

from __future__ import annotations

import time

import numpy as np

from bench.figures import line, median_ms
from fahrtwind.core.choose.days import ask_why_not, plan_days, problem_for
from fahrtwind.core.stations.days.planner import Solution, greedy, solve
from fahrtwind.demo import demo_jobs
from tests.truth.plans import faults_of, random_problem

PLANS, JUDGED = 30, 500


def plans() -> None:
    """Speeds as promised; every plan is walked through by the judge of the tests."""
    took, first, proved, possible, stuck, faults = [], [], 0, 0, 0, 0
    waste: list[float] = []
    for seed in range(PLANS):
        drawn = random_problem(seed, steps=40, persons=3, days=14, alike=seed % 2 == 0)
        seen: list[float] = []
        start = time.perf_counter()

        def told(_: Solution, began: float = start, into: list[float] = seen) -> None:
            into.append(time.perf_counter() - began)

        found = solve(drawn, 20, goals=2, told=told)
        if found.state != "found":
            continue
        possible += 1
        took.append(time.perf_counter() - start)
        first.append(seen[0])
        proved += all(found.proved)
        faults += bool(faults_of(drawn, found.starts))
        early = greedy(drawn)
        stuck += early is None
        if early is not None:
            ends = max(s + a.slots for s, a in zip(early, drawn.activities, strict=True))
            waste.append((ends - found.ends) / 48)
    line("plans of 40 steps that exist", possible, f"of {PLANS}")
    line("both goals proved within 20 s", 100 * proved / max(possible, 1), "%", least=90)
    line("first allowed plan, nine of ten within", float(np.quantile(first, 0.9)) * 1000, "ms", 1000)
    line("proof, median", float(np.median(took)) * 1000, "ms", 20_000)
    line("as early as it goes is stuck", 100 * stuck / max(possible, 1), "%")
    line("and else wastes on average", float(np.mean(waste)) if waste else 0.0, "days")
    line("plans with a fault", faults, "plans", 0)
    broken = 0
    for seed in range(1000, 1000 + JUDGED):
        drawn = random_problem(seed, steps=8, persons=2, days=8, alike=seed % 5 == 0)
        found = solve(drawn, 3, goals=2)
        broken += found.state == "found" and bool(faults_of(drawn, found.starts))
    line(f"of {JUDGED} small plans with a fault", broken, "plans", 0)
    job = next(j for j in demo_jobs() if j.name == "Imkerwagen")
    start = time.perf_counter()
    plan_days(job)
    line("plan of the trailer, proved", (time.perf_counter() - start) * 1000, "ms", 20_000)
    step = problem_for(job).activities[5].id
    assert job.days.first is not None
    day = job.days.first
    line("why not on a day", median_ms(lambda _: ask_why_not(job, step, day), 20), "ms", 300)
