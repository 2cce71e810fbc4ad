"""When work can start at the earliest, because of what has to be delivered first."""

from __future__ import annotations

from datetime import date

import numpy as np

from fahrtwind.core.job.days import Days
from fahrtwind.core.job.workshop import ItemKind, Workshop
from fahrtwind.core.stations.build.purchase import PANEL, PurchaseLine
from fahrtwind.core.tables.work import StepKind

FIRST_USE: dict[ItemKind, tuple[StepKind, ...]] = {
    "section": ("cut",),
    "fastener": ("corners", "lay", "set", "snug", "lift"),
    "bracket": ("frames", "dry fit"),
    "clamp": ("set", "lift"),
    "tape": ("prime",),
    "sealant": ("scars", "lay", "seal"),
    "cable": ("bench cables",),
    "connector": ("bench cables",),
    "panel": ("measure",),
    "tool": (),
    "other": ("lift",),
}
"""What each kind of thing is needed for first: common practice."""


def releases_of(
    lines: tuple[PurchaseLine, ...], workshop: Workshop, days: Days
) -> dict[str, tuple[date, str]]:
    """For each kind of work the first day on which it can start and what it waits for: ordered on the first
    day, on working days from Monday to Friday.
    """
    found: dict[str, tuple[date, str]] = {}

    def after(kind: StepKind, day: date, name: str) -> None:
        if kind not in found or found[kind][0] < day:
            found[kind] = (day, name)

    for delivery in days.deliveries:
        after(delivery.before, delivery.day, delivery.name)
    if days.first is not None:
        kinds = {item.serves: item.kind for item in workshop.items}
        for line in lines:
            if line.packs and line.lead_days:
                comes = np.busday_offset(np.datetime64(days.first), line.lead_days, roll="forward")
                for kind in FIRST_USE[_kind(line, kinds)]:
                    after(kind, date.fromisoformat(str(comes)), line.item or line.says)
    return found


def unasked(lines: tuple[PurchaseLine, ...]) -> tuple[str, ...]:
    """What is bought without anybody having asked when it comes."""
    return tuple(line.says for line in lines if line.packs and line.lead_days is None)


def unbought(lines: tuple[PurchaseLine, ...]) -> tuple[str, ...]:
    """What is needed and nobody said whether it lies there or where it is bought."""
    return tuple(line.says for line in lines if not line.item and line.needed > line.reserved)


def _kind(line: PurchaseLine, kinds: dict[str, ItemKind]) -> ItemKind:
    if line.unit == "bar":
        return "section"
    if line.serves.startswith(PANEL):
        return "panel"
    return kinds.get(line.serves, "other")
