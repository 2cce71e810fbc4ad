"""Variants side by side with the present layout: their figures, and how each differs in plain words."""

from __future__ import annotations

from collections import defaultdict
from math import hypot

from fahrtwind.core.choose.figures import LayoutFigures, figures_of
from fahrtwind.core.job.carrier import OnRails
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.layout import Variant
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.variants import laid_out

SAME_MM = 0.5


@dataclass(frozen=True, slots=True)
class VariantLine:
    """A variant, or the present layout (``id`` empty). ``rects`` draw it; ``differences`` tell it from the
    present one.
    """

    id: str
    name: str
    note: str
    figures: LayoutFigures
    rects: tuple[Rect, ...]
    differences: tuple[str, ...]
    chosen: bool
    present: bool


def compare(job: Job) -> tuple[VariantLine, ...]:
    """The present layout first, then every variant that was kept."""
    now = job.panels
    chosen = next((d.chosen for d in reversed(job.decisions) if d.about == "layout"), None)
    lines = [VariantLine("", "On the roof now", "", figures_of(job), _rects(now), (), False, True)]
    for variant in job.variants:
        other = job.model_copy(update=laid_out(job, variant))
        told = (*differences(now, variant.panels, job.units), *carriers_apart(job, variant))
        lines.append(
            VariantLine(
                variant.id,
                variant.name,
                variant.note,
                figures_of(other),
                _rects(variant.panels),
                told,
                variant.id == chosen,
                same_layout(now, variant.panels) and carried_alike(job, variant),
            )
        )
    return tuple(lines)


def _rects(panels: tuple[PlacedPanel, ...]) -> tuple[Rect, ...]:
    return tuple(panel_rect(p) for p in panels)


def same_layout(one: tuple[PlacedPanel, ...], other: tuple[PlacedPanel, ...]) -> bool:
    """Whether the same models lie in the same places on the same feet."""
    return sorted(p.model_dump_json(exclude={"id", "name"}) for p in one) == sorted(
        p.model_dump_json(exclude={"id", "name"}) for p in other
    )


def carried_alike(job: Job, variant: Variant) -> bool:
    """Whether the same carriers and tethers are there, whatever they are called."""
    named = {"id", "name"}
    return all(
        [e.model_dump_json(exclude=named) for e in getattr(job, part)]
        == [e.model_dump_json(exclude=named) for e in there]
        for part, there in laid_out(job, variant).items()
        if part != "panels"
    )


def carriers_apart(job: Job, variant: Variant) -> tuple[str, ...]:
    """Carriers that only one of the two has, or has otherwise."""
    mine = {c.id: c for c in job.carriers}
    theirs = {c.id: c for c in laid_out(job, variant)["carriers"] if isinstance(c, OnRails)}
    told = [f"{c.name} more" for name, c in theirs.items() if name not in mine]
    told += [f"no {c.name}" for name, c in mine.items() if name not in theirs]
    told += [f"{c.name} otherwise" for name, c in theirs.items() if name in mine and mine[name] != c]
    return tuple(told)


def differences(
    now: tuple[PlacedPanel, ...], then: tuple[PlacedPanel, ...], units: UnitSystem
) -> tuple[str, ...]:
    """What is otherwise in ``then``: models added or gone, panels moved or turned. Panels of a model are
    matched by nearness.
    """
    mine, others = _by_model(now), _by_model(then)
    told = []
    for model in sorted({*mine, *others}):
        more = len(others[model]) - len(mine[model])
        if more:
            told.append(f"{abs(more)} × {model} {'more' if more > 0 else 'fewer'}")
        told += [words for pair in _matched(mine[model], others[model]) if (words := _moved(*pair, units))]
    return tuple(told)


def _by_model(panels: tuple[PlacedPanel, ...]) -> dict[str, list[PlacedPanel]]:
    found: dict[str, list[PlacedPanel]] = defaultdict(list)
    for panel in panels:
        found[panel.model.name].append(panel)
    return found


def _matched(mine: list[PlacedPanel], others: list[PlacedPanel]) -> list[tuple[PlacedPanel, PlacedPanel]]:
    pairs = sorted(
        (
            (hypot(a.x.mm - b.x.mm, a.y.mm - b.y.mm), i, j)
            for i, a in enumerate(mine)
            for j, b in enumerate(others)
        )
    )
    left, right, found = set(range(len(mine))), set(range(len(others))), []
    for _, i, j in pairs:
        if i in left and j in right:
            left.discard(i)
            right.discard(j)
            found.append((mine[i], others[j]))
    return found


def _moved(before: PlacedPanel, after: PlacedPanel, units: UnitSystem) -> str:
    dx, dy = after.x.mm - before.x.mm, after.y.mm - before.y.mm
    ways = [
        f"{say_length(abs(by), units)} {ahead if by > 0 else back}"
        for by, ahead, back in ((dx, "aft", "forward"), (dy, "to starboard", "to port"))
        if abs(by) > SAME_MM
    ]
    if before.turned != after.turned:
        ways.append("turned")
    if len(before.feet) != len(after.feet):
        ways.append(f"{len(after.feet)} feet instead of {len(before.feet)}")
    if before.stand_off != after.stand_off:
        ways.append(f"stand-off {say_length(after.stand_off.mm, units)}")
    if before.hold != after.hold:
        ways.append(f"held by {after.hold.school}")
    return f"{before.name}: {', '.join(ways)}" if ways else ""
