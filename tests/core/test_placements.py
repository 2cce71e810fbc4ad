"""Placements and packing on random rooms: whatever lies freely is never better than what is proved."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.strategies import DrawFn

from fahrtwind.core.choose.one_more import one_more
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.stations.layout.proposals.best import Goal, Limits, best_layout, task_of
from fahrtwind.core.stations.layout.proposals.packing import Search, greedy, relax, spots
from fahrtwind.core.stations.layout.proposals.placements import Kind, fits_room, placements_of, without_twins
from fahrtwind.core.stations.layout.room import Room
from tests.truth.packing import Offered

NO_LIMITS = Limits([99] * 3, 99, [1000] * 3, 10**9)
PLENTY = Search(lambda: 60.0)


@st.composite
def rooms(draw: DrawFn) -> Offered:
    number = st.integers
    length, width = draw(number(1500, 4200)), draw(number(900, 2300))
    models = tuple(
        (draw(number(700, 1700)), draw(number(350, 690)), draw(number(50, 400)))
        for _ in range(draw(number(1, 3)))
    )
    blocks = tuple(
        (x, y, x + draw(number(100, 600)), y + draw(number(100, 500)))
        for x, y in (
            (draw(number(0, length)), draw(number(-width // 2, width // 2)))
            for _ in range(draw(number(0, 3)))
        )
    )
    return Offered(
        models, (0, -width // 2, length, width - width // 2), blocks, draw(st.sampled_from([0, 10, 20, 35]))
    )


def goal_of(offered: Offered) -> Goal:
    watts = offered.watts()
    return Goal(lambda p: watts[p.kind], True)


def thrown(offered: Offered, seed: int) -> int:
    """Watts of a layout thrown at random: panels that happen to lie free, wherever they fall, kept one after
    the other.
    """
    rng = np.random.default_rng(seed)
    x0, y0, x1, y1 = offered.bounds
    kinds, watts, laid = offered.kinds(), 0, list[tuple[int, int, int, int]]()
    for _ in range(400):
        kind = kinds[rng.integers(len(kinds))]
        x, y = (
            int(rng.integers(x0, max(x1 - kind.length_mm, x0) + 1)),
            int(rng.integers(y0, max(y1 - kind.width_mm, y0) + 1)),
        )
        gap = offered.gap
        free = fits_room(kind.room, np.array([x]), np.array([y]), kind.length_mm, kind.width_mm)[0]
        apart = all(
            x >= c + gap or x + kind.length_mm + gap <= a or y >= d + gap or y + kind.width_mm + gap <= b
            for a, b, c, d in laid
        )
        if free and apart:
            laid.append((x, y, x + kind.length_mm, y + kind.width_mm))
            watts += offered.models[kind.model][2]
    return watts


@settings(max_examples=40)
@given(rooms(), st.integers(0, 1000))
def test_no_layout_thrown_anywhere_beats_what_is_proved(offered: Offered, seed: int) -> None:
    best = best_layout(offered.kinds(), goal_of(offered), NO_LIMITS, PLENTY, 60, lambda _: None)
    assert best.bound == best.worth, "a small room is always settled"
    assert thrown(offered, seed) <= best.worth
    for i in range(len(best.layout)):
        assert best.layout.clash(i).sum() == 1


@settings(max_examples=25)
@given(rooms())
def test_the_linear_bound_holds_and_twins_do_not_matter(offered: Offered) -> None:
    task = task_of(offered.kinds(), goal_of(offered), NO_LIMITS)
    if not len(task.placements):
        return
    relaxed = relax(task, 30)
    assert relaxed is not None
    bound, reduced = relaxed.whole(0.0), relaxed.reduced
    chosen = greedy(task)
    assert (
        int(task.worth[chosen].sum()) <= bound
        and (reduced >= 0).all()
        and len(reduced) == len(task.placements)
    )
    whole = placements_of(offered.kinds())
    worth = goal_of(offered).worth(whole)
    models = np.array([k.model for k in offered.kinds()])[whole.kind]
    kept = without_twins(whole, worth, models, spots(whole))
    # who falls short of paying by more than the gap is in no better layout: the value bounds every layout
    # with such a one
    assert all(relaxed.whole(float(r)) <= bound for r in reduced[:50])
    assert len(kept) == len(task.placements) and set(np.unique(models[kept])) == set(np.unique(models))


@settings(max_examples=30)
@given(rooms(), st.sampled_from([5, 10, 40]))
def test_every_placement_fits_on_every_raster(offered: Offered, step: int) -> None:
    for placements in (placements_of(offered.kinds(), step), placements_of(offered.kinds(), symmetric=True)):
        for kind in offered.kinds():
            own = placements.kind == kind.number
            assert fits_room(
                kind.room, placements.x[own], placements.y[own], kind.length_mm, kind.width_mm
            ).all()


def test_a_fence_is_lain_within_or_without() -> None:
    offered = Offered(((1000, 500, 100),), (0, -900, 4000, 900), (), 20)
    fence = Room(
        offered.room().bounds, (), (offered.room().bounds.__class__(1500, -500, 1100, 1000),), 20.0, 20.0
    )
    kinds = [Kind(k.number, k.model, k.turned, k.length_mm, k.width_mm, fence) for k in offered.kinds()]
    found = placements_of(kinds)
    within = (
        (found.x >= 1500)
        & (found.x + found.length <= 2600)
        & (found.y >= -500)
        & (found.y + found.width <= 500)
    )
    without = (
        (found.x + found.length <= 1500)
        | (found.x >= 2600)
        | (found.y + found.width <= -500)
        | (found.y >= 500)
    )
    assert within.any() and without.any() and (within | without).all()


@settings(max_examples=25)
@given(rooms())
def test_what_stops_one_more_is_short_by_just_that(offered: Offered) -> None:
    """Shorter by what is told, the panel fits the spot; by a little less it does not."""
    models = [
        PanelModel.model_validate(
            {
                "name": f"m{i}",
                "length": max(a, b),
                "width": min(a, b),
                "frame_height": 30,
                "mass": 10,
                "power": w,
            }
        )
        for i, (a, b, w) in enumerate(offered.models)
    ]
    for miss in one_more(Job(name="roof"), models, models, offered.room()):
        model = next(m for m in models if m.name == miss.model)
        along, across = (
            (model.width.mm, model.length.mm) if miss.turned else (model.length.mm, model.width.mm)
        )
        assert max(along - miss.spot.length_mm, across - miss.spot.width_mm, 0.0) == pytest.approx(
            miss.short_mm, abs=1e-6
        )
        corner = np.array([round(miss.spot.x_mm)]), np.array([round(miss.spot.y_mm)])
        shrunk = min(along, miss.spot.length_mm), min(across, miss.spot.width_mm)
        assert fits_room(offered.room(), *corner, int(shrunk[0]), int(shrunk[1]))[0]
        assert miss.why and (miss.short_mm == 0 or "mm too" in miss.why)
