"""What stops one more panel: for every model the free spot it misses by least, what bounds that spot, and
what would help.
"""

from __future__ import annotations

from itertools import combinations

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.room import Block, Room, Side, least_from_edge

TELL_WITHIN_MM = 400.0
TOUCHING_MM = 1.0
MOST_TOLD = 3


@dataclass(frozen=True, slots=True)
class OneMore:
    """A panel that misses a spot by ``short_mm``: the spot, what bounds it, and remedies in words. 0: it
    would fit.
    """

    model: str
    turned: bool
    short_mm: float
    spot: Rect
    why: str
    remedies: tuple[str, ...]


def one_more(job: Job, offers: list[PanelModel], others: list[PanelModel], room: Room) -> tuple[OneMore, ...]:
    """The nearest misses over the job's present panels, the smallest first. ``others``: models that could be
    taken instead.
    """
    gap, side = room.gap_mm, room.side_gap_mm
    blocks = [
        *room.blocks,
        *(Block("panel", p.id, p.name, panel_rect(p).grown(gap, side), gap) for p in job.panels),
    ]
    spots = _empty_spots(room.bounds, blocks)
    found = []
    for model in offers:
        best = min(
            (_miss(model, turned, spot) for spot in spots for turned in (False, True)),
            key=lambda miss: miss[:3],
            default=None,
        )
        if best is not None and best[0] <= TELL_WITHIN_MM:
            found.append(_told(job, model, best, blocks, others))
    return tuple(sorted(found, key=lambda o: o.short_mm)[:MOST_TOLD])


def _empty_spots(bounds: Rect, blocks: list[Block]) -> list[Rect]:
    """Empty rectangles that cannot grow across: between any two edges along the roof, the stretches nothing
    reaches into.
    """
    xs = sorted(
        {
            bounds.x_mm,
            bounds.x_end_mm,
            *(
                min(max(e, bounds.x_mm), bounds.x_end_mm)
                for b in blocks
                for e in (b.rect.x_mm, b.rect.x_end_mm)
            ),
        }
    )
    found = []
    for x0, x1 in combinations(xs, 2):
        taken = sorted(
            (b.rect.y_mm, b.rect.y_end_mm) for b in blocks if b.rect.x_mm < x1 and b.rect.x_end_mm > x0
        )
        low = bounds.y_mm
        for start, end in (*taken, (bounds.y_end_mm, bounds.y_end_mm)):
            if start - low > TOUCHING_MM:
                found.append(Rect(x0, low, x1 - x0, min(start, bounds.y_end_mm) - low))
            low = max(low, end)
    return found


def _miss(model: PanelModel, turned: bool, spot: Rect) -> tuple[float, float, float, bool, Rect]:
    """By how much a spot is too small: the larger of both ways, their sum, minus the area to prefer roomy
    spots.
    """
    along, across = (model.width.mm, model.length.mm) if turned else (model.length.mm, model.width.mm)
    short = (max(along - spot.length_mm, 0.0), max(across - spot.width_mm, 0.0))
    both = TELL_WITHIN_MM if all(s > 0 for s in short) else 0.0  # too small both ways: hardly a near miss
    return max(short) + both, sum(short), -spot.area_m2, turned, spot


def _told(
    job: Job,
    model: PanelModel,
    best: tuple[float, float, float, bool, Rect],
    blocks: list[Block],
    others: list[PanelModel],
) -> OneMore:
    short, _, _, turned, spot = best
    units = job.units
    lengthwise = (
        model.width.mm if turned else model.length.mm
    ) - spot.length_mm >= short - 1e-6 and short > 0
    way = "crosswise" if turned else "lengthwise"
    ends = _ends(spot, blocks, job, along=lengthwise)
    if short <= 0:
        why = (
            f"It would still fit {way}: the count on offer, the roof's load or the time of the "
            f"search stops it."
        )
        return OneMore(model.name, turned, 0.0, spot, why, ())
    said = "long" if lengthwise != turned else "wide"
    between = " and ".join(dict.fromkeys(name for name, _ in ends)) or "the edges"
    why = f"{say_length(short, units)} too {said} {way}, between {between}."
    return OneMore(
        model.name,
        turned,
        short,
        spot,
        why,
        (*_yielding(ends, short, units), *_smaller(model, spot, others, units)),
    )


def _ends(spot: Rect, blocks: list[Block], job: Job, *, along: bool) -> list[tuple[str, float]]:
    """What bounds a spot at both ends, with how much of that is distance that could be given up."""
    found = []
    for at_start in (True, False):
        edge = (
            (spot.x_mm if along else spot.y_mm) if at_start else (spot.x_end_mm if along else spot.y_end_mm)
        )
        side: Side = ("front" if at_start else "rear") if along else ("port" if at_start else "starboard")
        touching = [b for b in blocks if _touches(b.rect, spot, edge, along=along, at_start=at_start)]
        if touching:
            # across, panels keep their distance for the feet between them: that cannot be given up
            found += [(b.name, b.clearance_mm if along or b.kind != "panel" else 0.0) for b in touching]
        else:
            found.append((f"the {side} edge", max(least_from_edge(job.assumptions, side), 0.0)))
    return found


def _touches(rect: Rect, spot: Rect, edge: float, *, along: bool, at_start: bool) -> bool:
    if along:
        beside = rect.y_mm < spot.y_end_mm - TOUCHING_MM and rect.y_end_mm > spot.y_mm + TOUCHING_MM
        return beside and abs((rect.x_end_mm if at_start else rect.x_mm) - edge) < TOUCHING_MM
    beside = rect.x_mm < spot.x_end_mm - TOUCHING_MM and rect.x_end_mm > spot.x_mm + TOUCHING_MM
    return beside and abs((rect.y_end_mm if at_start else rect.y_mm) - edge) < TOUCHING_MM


def _yielding(ends: list[tuple[str, float]], short: float, units: UnitSystem) -> list[str]:
    return [
        f"{name}: keep {say_length(clearance - short, units)} instead of {say_length(clearance, units)}"
        for name, clearance in ends
        if clearance >= short
    ]


def _smaller(model: PanelModel, spot: Rect, others: list[PanelModel], units: UnitSystem) -> list[str]:
    """The strongest other model that fits the spot."""
    fitting = [
        m
        for m in others
        if m.name != model.name
        and any(
            a <= spot.length_mm and b <= spot.width_mm
            for a, b in ((m.length.mm, m.width.mm), (m.width.mm, m.length.mm))
        )
    ]
    if not fitting:
        return []
    best = max(fitting, key=lambda m: m.power.w)
    return [f"take the {say_length(best.length.mm, units)} model {best.name} ({best.power.w:.0f} W)"]
