"""Print the speed figures: ``make bench``. Nothing here fails a test; the limits are what the product
promises.
"""

from __future__ import annotations

import gc
import gzip
import json
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path

import numpy as np
from pydantic_core import to_json

from bench.browser import over_http_and_in_the_browser
from bench.choices import choices
from bench.cutting import building, cutting
from bench.figures import compare_and_keep, line, median_ms
from bench.frames import frames, racks
from bench.hands import hands
from bench.jobs import IN_SIGHT, large_job, largest_job, nudged
from bench.layout import proposals, shadows
from bench.plans import plans
from bench.requests import requests
from bench.strings import strings
from bench.structure import advice, quality
from bench.walks import walks
from fahrtwind.api.app import STATIC
from fahrtwind.api.changes import changed
from fahrtwind.api.collecting import collect_seldom
from fahrtwind.core.edits import AddEntry, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.evaluate import MEMORY, evaluate, evaluate_in_sight
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.structure import members
from fahrtwind.core.stations.structure.evidence import KnownFacts, ReadingFact
from fahrtwind.core.stations.structure.next_check import next_check_for
from fahrtwind.core.stations.structure.reading_of_job import evidence_key
from fahrtwind.core.stations.survey.crown import crown_finding, fit_crown
from fahrtwind.core.tables.readings import RELIABILITY
from fahrtwind.core.working import working
from fahrtwind.demo import FOLDER
from fahrtwind.store.database import migrate, open_database
from fahrtwind.store.jobs import Change, JobStore
from tests.browser.conftest import Server
from tests.truth.roofs import METHODS


def forget() -> None:
    MEMORY.forget()
    members._fit.cache_clear()


def in_process() -> None:
    job = large_job()
    found = evaluate(job).findings
    print(
        f"Job: {len(job.panels)} panels, {len(found.feet)} feet, {len(found.members.members)} "
        f"members, {len(job.obstacles)} obstacles"
    )
    gc.collect()
    collect_seldom()
    moved = [nudged(job, i) for i in range(60)]
    line("whole evaluation, one panel moved", median_ms(lambda i: evaluate(moved[i])), "ms", 25)
    line(
        "whole evaluation, every stage worked out anew but the member fit",
        median_ms(lambda i: (MEMORY.forget(), evaluate(moved[i]))),
        "ms",
        25,
    )
    line(
        "whole evaluation, nothing remembered at all",
        median_ms(lambda i: (forget(), evaluate(moved[i])), 20),
        "ms",
    )
    key = evidence_key(job, 15_700)
    line(
        "member fit alone, 17 readings",
        median_ms(lambda i: (members._fit.cache_clear(), members.fit_members(key)), 20),
        "ms",
    )
    many = many_readings()
    line(
        "member fit, 300 readings on 12 m",
        median_ms(lambda i: (members._fit.cache_clear(), members.fit_members(many)), 20),
        "ms",
        150,
    )
    line(
        "where to check next, fit known",
        median_ms(
            lambda i: (next_check_for.cache_clear(), next_check_for(many, frozenset(), ("magnet",))), 20
        ),
        "ms",
    )
    crown = job.survey.crown
    line(
        "crown surface and its pictures, 23 readings",
        median_ms(lambda i: crown_finding(fit_crown(crown, 8400.0, 1175.0)), 20),
        "ms",
    )
    line(
        "working sheet of one link",
        median_ms(lambda i: working(moved[i], "hold/p1/f1/link base"), 20),
        "ms",
        50,
    )
    line("applying one edit", median_ms(lambda i: nudged(job, i)), "ms")


def twenty_four() -> None:
    """One of 24 panels of six feet moved: worked out, and what a window is sent of it."""
    whole = largest_job()
    job = apply_edits(whole, [SpreadFeet(panel=p.id, count=6) for p in whole.panels])
    before = evaluate(job)
    x = job.panels[11].x.mm

    def at(mm: float) -> Job:
        return apply_edits(job, [SetValue(path="panels.p12.x", value={"mm": mm})])

    moved, dragged = ([at(x + side * 5.0 * i) for i in range(1, 21)] for side in (1, -1))
    far = at(4000.0)
    in_sight = median_ms(lambda i: evaluate_in_sight(dragged[i], before, IN_SIGHT), 20)
    line("one of 24 panels dragged: worked out in sight", in_sight, "ms", 25)
    line("one of 24 panels moved: all worked out", median_ms(lambda i: evaluate(moved[i]), 20), "ms", 25)
    for words, after in (("40 mm", moved[7]), ("across half the roof", far)):
        seen = list(changed(before, evaluate_in_sight(after, before, IN_SIGHT), ("evaluation",)))
        line(f"one of 24 panels dragged {words}: news sent", len(to_json(seen)) / 1000, "kB", 30)
        news = [*changed(job, after, ("job",)), *changed(before, evaluate(after), ("evaluation",))]
        line(f"one of 24 panels dropped after {words}: news sent", len(to_json(news)) / 1000, "kB", 30)
    line("the whole answer instead", len(to_json(before)) / 1000, "kB")


def starts() -> None:
    """From nothing to the first answer, on files that were read before."""
    program = [sys.executable, "-m", "fahrtwind.cli"]
    demo = str(FOLDER / "lichtspiel.json")
    check = [*program, "check", demo]
    line(
        "fahrtwind check of the demo bus",
        _took(lambda: subprocess.run(check, capture_output=True)),
        "ms",
        1000,
    )
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        bus = _bus_of(server)
        urllib.request.urlopen(f"{server.url}/api/jobs/{bus}").read()
        time.sleep(2)  # its answer is kept behind the back of whoever got it
        server.kill()
        started = _took(server.start, times=1)
        first = _took(lambda: urllib.request.urlopen(f"{server.url}/api/jobs/{bus}").read(), times=1)
        server.kill()
        time.sleep(2)  # what it had begun beside its answers ends with it
        line("server started to answering the list of jobs", started, "ms", 1500)
        line("first answer of the demo bus, opened before", first, "ms", 150)


def _bus_of(server: Server) -> str:
    jobs = json.load(urllib.request.urlopen(f"{server.url}/api/jobs"))
    return next(str(j["id"]) for j in jobs if j["name"] == "Lichtspiel")


def _took(work: Callable[[], object], times: int = 3) -> float:
    return median_ms(lambda _: work(), times)


def largest() -> None:
    """The largest job a document may hold, and long batches: stored and judged, without HTTP."""
    with tempfile.TemporaryDirectory() as folder:
        engine = open_database(Path(folder) / "bench.db")
        migrate(engine)
        store = JobStore(engine)
        stored = store.create(largest_job(), "bench")
        evaluate(stored.job)

        def edit(i: int) -> None:
            nonlocal stored
            change = Change(stored.revision, "bench", f"e{i}")
            stored = store.edit(stored.id, change, [SetValue(path="panels.p4.x", value={"mm": 1480.0 + i})])
            evaluate(stored.job)

        line("largest job allowed: one edit stored and judged", median_ms(edit, 20), "ms", 500)
        many = [SetValue(path="panels.p4.x", value={"mm": 4040 + i / 10}) for i in range(500)]
        pasted = [
            AddEntry(path="readings", value={"x": f"{20 + 37 * i} mm", "kind": "magnet"}) for i in range(370)
        ]
        for words, edits in (("500 edits in one request", many), ("370 readings pasted", pasted)):
            plain = store.create(large_job(), "bench")
            taken = median_ms(
                lambda i, at=plain, e=edits: store.edit(at.id, Change(at.revision, "bench", "b"), e), 1
            )  # type: ignore[misc]
            line(f"{words}: stored", taken, "ms", 1000)
        engine.dispose()


def many_readings() -> members.EvidenceKey:
    """300 readings of all kinds on 12 m, one in seven of them false."""
    rng = np.random.default_rng(2)
    there = np.arange(200, 12_000, 640.0) + rng.normal(0, 5, 19)
    found = []
    for i in range(300):
        kind = METHODS[rng.integers(5)]
        x = (
            rng.uniform(0, 12_000)
            if rng.random() < 0.15
            else there[rng.integers(19)] + rng.normal(0, RELIABILITY[kind].sigma_mm)
        )
        found.append(ReadingFact(f"r{i}", float(x), kind))
    return members.EvidenceKey(tuple(found), (), KnownFacts(), 12_000.0, 45.0)


def script_size() -> None:
    scripts = sum(len(gzip.compress(p.read_bytes(), 9)) for p in (STATIC / "assets").glob("*.js"))
    line("compressed script for the first screen", scripts / 1000, "kB", 250)


def main() -> None:
    in_process()
    twenty_four()
    starts()
    script_size()
    largest()
    with tempfile.TemporaryDirectory() as folder:
        over_http_and_in_the_browser(Path(folder))
    frames()
    choices()
    cutting()
    building()
    strings()
    plans()
    racks()
    shadows()
    proposals()
    quality()
    advice()
    requests()
    walks()
    hands()
    compare_and_keep()


if __name__ == "__main__":
    main()
