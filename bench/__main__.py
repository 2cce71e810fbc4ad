"""Print the speed figures: ``make bench``. Nothing here fails a test; the limits are what the product
promises.
"""

from __future__ import annotations

import gc
import gzip
import tempfile
from pathlib import Path

import numpy as np

from bench.browser import over_http_and_in_the_browser
from bench.figures import compare_and_keep, line, median_ms
from bench.jobs import large_job, largest_job, nudged
from bench.layout import proposals, shadows
from bench.requests import requests
from bench.structure import advice, quality
from fahrtwind.api.app import STATIC
from fahrtwind.core.edits import AddEntry, SetValue
from fahrtwind.core.evaluate import MEMORY, evaluate
from fahrtwind.core.stations.structure import members
from fahrtwind.core.stations.structure.evidence import KnownFacts, ReadingFact
from fahrtwind.core.stations.structure.next_check import next_check_for
from fahrtwind.core.stations.structure.reading_of_job import evidence_key
from fahrtwind.core.stations.survey.crown import crown_finding, fit_crown
from fahrtwind.core.tables.readings import RELIABILITY
from fahrtwind.store.database import migrate, open_database
from fahrtwind.store.jobs import Change, JobStore
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
    gc.freeze()
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
    line("applying one edit", median_ms(lambda i: nudged(job, i)), "ms")


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
    script_size()
    largest()
    with tempfile.TemporaryDirectory() as folder:
        over_http_and_in_the_browser(Path(folder))
    shadows()
    proposals()
    quality()
    advice()
    requests()
    compare_and_keep()


if __name__ == "__main__":
    main()
