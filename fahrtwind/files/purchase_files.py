"""The purchase list as CSV, and what the work costs as a sheet for the customer."""

from __future__ import annotations

import csv
import io
from typing import Any

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.saying import say_run
from fahrtwind.core.stations.build.purchase import Cost, PurchaseLine
from fahrtwind.files.drawing import Stamp
from fahrtwind.files.table import neutral
from fahrtwind.files.workshop_sheets import PAPERS, compile_sheet

CAUTION = "Planning aid. Makers' instructions, local rules and licensed practice come first."


def write_purchase(lines: tuple[PurchaseLine, ...]) -> str:
    """A line for each thing, those of one supplier together."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(
        (
            "supplier",
            "item",
            "for",
            "needed",
            "unit",
            "kept in shop",
            "packs",
            "in a pack",
            "price",
            "order by",
        )
    )
    for line in sorted(lines, key=lambda entry: (not entry.supplier, entry.supplier, entry.serves)):
        writer.writerow(
            (
                neutral(line.supplier),
                neutral(line.item),
                neutral(line.says),
                f"{line.needed:g}",
                line.unit,
                f"{line.reserved:g}",
                line.packs,
                f"{line.pack:g}",
                "" if line.price is None else f"{line.price:.2f}",
                "" if line.order_by is None else line.order_by.isoformat(),
            )
        )
    return out.getvalue()


def write_quote(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """What is done, what it takes and what it costs. What has no price is named: a quote that leaves it out
    silently would be too low.
    """
    found, cost = evaluation.findings, evaluation.findings.cost
    data: dict[str, Any] = {
        "title": f"Quote: {job.name}",
        "stamp": stamp.words(),
        "paper": PAPERS[job.units],
        "caution": CAUTION,
        "vehicle": f"{job.vehicle.kind.replace('_', ' ').capitalize()}, {len(job.panels)} panels, "
        f"{sum(p.model.power.w for p in job.panels):.0f} W.",
        "work": [*(f"{p.name}: {p.model.name}" for p in job.panels), *_carriers(job)],
        "lines": [
            [line.item or line.says, f"{line.needed:g} {line.unit}", _price(line)] for line in found.purchase
        ],
        "currency": job.workshop.costing.currency,
        "sums": _sums(job, cost) if cost else [],
        "open": _open(cost),
    }
    return compile_sheet("quote.typ", data)


def _carriers(job: Job) -> list[str]:
    return [f"{c.name}: {say_run(c.end.mm - c.start.mm, job.units)} long" for c in job.carriers]


def _price(line: PurchaseLine) -> str:
    if line.price is None:
        return "open"
    return f"{line.price:.2f}" if line.packs else "from stock"


def _sums(job: Job, cost: Cost) -> list[list[str]]:
    costing = job.workshop.costing
    rows = [["Material", f"{cost.material:.2f}"]]
    if cost.work is not None:
        rows.append([f"Work, {costing.hours:g} h at {costing.rate:.2f}", f"{cost.work:.2f}"])
    if cost.margin:
        rows.append([f"Overheads, {costing.margin:g} %", f"{cost.margin:.2f}"])
    return [*rows, ["Together", f"{cost.total:.2f}"]]


def _open(cost: Cost | None) -> str:
    if cost is None:
        return "The cost could not be worked out."
    open_ends = []
    if cost.unpriced:
        open_ends.append(f"{cost.unpriced} lines have no price yet and come on top")
    if cost.work is None:
        open_ends.append("work is not in it yet")
    return f"Not a final price: {'; '.join(open_ends)}." if open_ends else ""
