"""The wiring diagram and the labels of its cables as PDF."""

from __future__ import annotations

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.saying import say_run
from fahrtwind.core.stations.wire.runs import Run
from fahrtwind.files.drawing import CAUTION, Stamp
from fahrtwind.files.svg import to_svg
from fahrtwind.files.wiring_drawing import wiring_drawing
from fahrtwind.files.workshop_sheets import PAPERS, compile_sheet

LIVE = "Live in every light: panels covered, isolator open, ends taped until they are plugged. "


def write_wiring(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """Diagram, and every run with its length."""
    rows = [
        [
            run.label,
            f"{'branch pieces' if run.trunk else run.starts} → {run.ends}",
            job.wiring.cable,
            say_run(run.length_mm, job.units),
            say_run(run.extension_mm, job.units) if run.extension_mm > 0 else "lead reaches",
        ]
        for run in _runs(evaluation)
    ]
    return compile_sheet(
        "wiring.typ",
        {
            "title": f"Wiring: {job.name}",
            "stamp": stamp.words(),
            "paper": PAPERS[job.units],
            "diagram": to_svg(wiring_drawing(job)),
            "runs": rows,
            "caution": LIVE + CAUTION,
        },
    )


def write_cable_labels(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """Two for each run: what it is called, how many volts it may carry, from where to where."""
    volts = {
        a.controller: max((x.value for x in a.limits if x.key == "cold voltage"), default=0.0)
        for a in evaluation.findings.arrays
    }
    labels = [
        {
            "id": run.label.replace("-", "−"),
            "volts": f"up to {volts[run.controller]:.0f} V" if volts.get(run.controller) else "live in light",
            "way": f"{'branch' if run.trunk else run.starts} → {run.ends}",
        }
        for run in _runs(evaluation)
        for _ in range(2)
    ]
    title = f"Cable labels: {job.name}, {stamp.words()}"
    return compile_sheet("cable-labels.typ", {"title": title, "paper": PAPERS[job.units], "labels": labels})


def _runs(evaluation: Evaluation) -> list[Run]:
    return [run for harness in evaluation.findings.harnesses for run in harness.runs]
