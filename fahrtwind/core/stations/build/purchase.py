"""What is bought, where, in which packs, until when; what lies in the shop for it; what it all costs."""

from __future__ import annotations

from datetime import date
from math import ceil

import numpy as np

from fahrtwind.core.job.workshop import Bought, Workshop
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.cut_lists import MaterialCut
from fahrtwind.core.stations.build.materials import Material

PANEL = "panel "
"""How a line begins that is a panel, bought with a rack and without."""
TOOL = "drill bit "
"""Tools are packed, not bought for a job."""
A_PIECE = "pc of "
"""Unit of lines that are cut from bars, which are bought instead."""


@dataclass(frozen=True, slots=True)
class PurchaseLine:
    """``says`` what ``serves`` is in the job's units. So much of it is needed, so much of it is kept in the
    shop for this job, and so many packs are bought. ``item``: what it is bought as, empty where nobody said;
    ``price``: of all packs, None where nobody knows; ``order_by``: last day to order, None without a start of
    the work.
    """

    serves: str
    says: str
    unit: str
    needed: float
    reserved: float
    item: str
    supplier: str
    packs: int
    pack: float
    price: float | None
    lead_days: int | None
    order_by: date | None


@dataclass(frozen=True, slots=True)
class Cost:
    """``unpriced``: lines without a price, which the sums leave out; ``less_than_rack``: what making all but
    the panels costs less than a bought rack, None while a price of it is missing.
    """

    material: float
    unpriced: int
    work: float | None
    margin: float
    total: float
    currency: str
    rack: float | None
    less_than_rack: float | None


def purchase_of(
    materials: tuple[Material, ...],
    cuts: tuple[MaterialCut, ...],
    workshop: Workshop,
    planned: date | None = None,
) -> tuple[PurchaseLine, ...]:
    """A line for each material and for each length of bar that the cut lists take. ``planned``: the first day
    of a plan that was kept, by which all has to be there.
    """
    items = {item.serves: item for item in workshop.items}
    lines = [
        _line(m, items.get(m.key), workshop, planned)
        for m in materials
        if not m.unit.startswith(A_PIECE) and not m.item.startswith(TOOL)
    ]
    return (*lines, *_bars(cuts, items, workshop, planned))


def _line(m: Material, item: Bought | None, workshop: Workshop, planned: date | None) -> PurchaseLine:
    needed = m.needed + m.spare
    if item is None:
        return PurchaseLine(m.key, m.item, m.unit, needed, 0.0, "", "", 0, 1.0, None, None, None)
    missing = max(0.0, needed - item.reserved)
    packs = ceil(missing / item.pack - 1e-9)
    return PurchaseLine(
        m.key,
        m.item,
        m.unit,
        needed,
        min(item.reserved, needed),
        item.name,
        item.supplier,
        packs,
        item.pack,
        0.0 if packs == 0 else None if item.price is None else packs * item.price,
        item.lead_days,
        order_day(workshop, item.lead_days, planned, coated=False) if packs else None,
    )


def _bars(
    cuts: tuple[MaterialCut, ...], items: dict[str, Bought], workshop: Workshop, planned: date | None
) -> tuple[PurchaseLine, ...]:
    stock = {bar.id: bar for bar in workshop.stock}
    lines = []
    for own in cuts:
        for bar_id in dict.fromkeys(bar.stock for bar in own.cut.bars):
            taken = [bar for bar in own.cut.bars if bar.stock == bar_id]
            entry = stock.get(bar_id)
            long = taken[0].length_mm / 1000
            serves = f"bar {own.material}, {long:g} m"
            item = items.get(serves)
            there = len(taken) if entry is not None and entry.have is not None else 0
            have = max(there, min(len(taken), int(item.reserved) if item else 0))
            buys = len(taken) - have
            priced = None if entry is None else entry.price * buys
            lead = item.lead_days if item else None
            lines.append(
                PurchaseLine(
                    serves,
                    f"bar {own.says}",
                    "bar",
                    float(len(taken)),
                    float(have),
                    (entry.item or serves) if entry else "",
                    item.supplier if item else "",
                    buys if entry else 0,
                    1.0,
                    priced,
                    lead,
                    order_day(workshop, lead, planned, coated=True) if buys else None,
                )
            )
    return tuple(lines)


def order_day(workshop: Workshop, lead_days: int | None, planned: date | None, coated: bool) -> date | None:
    """The last working day on which something can be ordered so that it lies there when the work starts;
    ``coated``: it has to go to the coater in between, which a plan has in it already.
    """
    start = planned or workshop.costing.start
    if start is None or lead_days is None:
        return None
    at_coater = coated and planned is None and workshop.coat.kind != "none"
    away = lead_days + ((workshop.coat.days or 0) if at_coater else 0)
    day = np.busday_offset(np.datetime64(start), -away, roll="backward")
    return date.fromisoformat(str(day))


def cost_of(lines: tuple[PurchaseLine, ...], workshop: Workshop, wiring: frozenset[str]) -> Cost:
    """Material, work and margin, beside a bought rack where somebody typed its price. ``wiring``: what lines
    serve that are wired, which a rack does not bring either.
    """
    costing = workshop.costing
    material = sum(line.price or 0.0 for line in lines)
    unpriced = sum(line.price is None for line in lines)
    work = costing.hours * costing.rate if costing.hours is not None and costing.rate is not None else None
    margin = costing.margin / 100 * (material + (work or 0.0))
    total = material + (work or 0.0) + margin
    made = [line for line in lines if not line.serves.startswith(PANEL) and line.serves not in wiring]
    less = None
    if costing.rack is not None and work is not None and all(line.price is not None for line in made):
        own = sum(line.price or 0.0 for line in made) + work
        less = costing.rack - own * (1 + costing.margin / 100)
    return Cost(material, unpriced, work, margin, total, costing.currency, costing.rack, less)
