"""Proposals: optimal by exhaustive search, allowed by the rules, different from one another, honest about
what they prove.
"""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest

from fahrtwind.core.choose.figures import with_panels
from fahrtwind.core.choose.goals import offered_by
from fahrtwind.core.choose.laid import what_holds
from fahrtwind.core.choose.look import Look
from fahrtwind.core.choose.make_hold import failing_panels, offers_for
from fahrtwind.core.choose.one_more import one_more
from fahrtwind.core.choose.propose import CLEARLY_OTHER, WANTED, Proposals, difference, propose
from fahrtwind.core.edits import AddEntry, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.placing import usual_feet
from fahrtwind.core.stations.layout.proposals.best import Goal, Limits, best_layout, bound_of, pushed_apart
from fahrtwind.core.stations.layout.proposals.packing import Search, Task, greedy, pack
from fahrtwind.core.stations.layout.proposals.placements import Placements, fits_room, placements_of, relaxed
from fahrtwind.core.stations.layout.room import room_of
from tests.conftest import changed
from tests.truth.packing import Offered, bench_roof, exhaustive

NO_LIMITS = Limits([99] * 4, 99, [1000] * 4, 10**9)
PLENTY = Search(lambda: 60.0)
ENOUGH = 200.0  # seconds: what is proved ends by itself, also on a busy machine


def within(seconds: float) -> Search:
    end = time.monotonic() + seconds
    return Search(lambda: end - time.monotonic())


def small_roof(seed: int) -> Offered:
    """Sizes in whole 100 mm, so that a grid of 100 mm holds a best layout."""
    rng = np.random.default_rng(seed)
    length, width = int(rng.integers(14, 21)) * 100, int(rng.integers(11, 16)) * 100
    models = tuple(
        (int(rng.integers(9, 15)) * 100, int(rng.integers(6, 9)) * 100, int(rng.integers(8, 30)) * 10)
        for _ in range(2)
    )
    x, y = int(rng.integers(2, length // 100 - 5)) * 100, int(rng.integers(-3, 3)) * 100
    half = width // 200 * 100
    return Offered(
        models, (0, -half, length, -half + width), ((x, y, x + 300, y + 300),), 0 if seed % 2 else 100
    )


def watts_goal(offered: Offered, **more: object) -> Goal:
    watts = offered.watts()
    return Goal(lambda p: watts[p.kind], True, **more)  # type: ignore[arg-type]


@pytest.mark.parametrize("seed", range(20))
def test_the_best_layout_is_the_one_an_exhaustive_search_finds(seed: int) -> None:
    for side_gap in (0, 200):
        offered = replace(small_roof(seed), side_gap=side_gap)
        best = best_layout(offered.kinds(), watts_goal(offered), NO_LIMITS, PLENTY, 60, lambda _: None)
        assert best.worth == best.bound == exhaustive(offered, 100)


@pytest.mark.parametrize("seed", [2, 4, 6, 8, 10])
def test_layouts_of_real_sizes_are_proved_and_lie_free(seed: int) -> None:
    offered = bench_roof(seed)
    kinds = offered.kinds()
    seen: list[int] = []
    goal = watts_goal(offered)
    best = best_layout(kinds, goal, NO_LIMITS, PLENTY, 60, lambda p: seen.append(int(goal.worth(p).sum())))
    assert best.bound == best.worth >= max(seen) and seen
    lie_free(best.layout, offered)
    coarse = bound_of(kinds, goal, NO_LIMITS, PLENTY)
    assert coarse is not None and coarse >= best.worth, "a rounded bound is never below a layout"


def lie_free(layout: Placements, offered: Offered) -> None:
    for i in range(len(layout)):
        assert layout.clash(i).sum() == 1
        kind = offered.kinds()[layout.kind[i]]
        assert fits_room(kind.room, layout.x[i : i + 1], layout.y[i : i + 1], kind.length_mm, kind.width_mm)[
            0
        ]


def test_a_long_roof_is_solved_in_halves_that_meet() -> None:
    offered = bench_roof(15)
    assert len(placements_of(offered.kinds())) > 4500
    best = best_layout(offered.kinds(), watts_goal(offered), NO_LIMITS, PLENTY, 60, lambda _: None)
    assert best.bound == best.worth == 3480
    lie_free(best.layout, offered)


def test_pushing_apart_keeps_every_panel_in_its_lane_and_free() -> None:
    offered = bench_roof(8)
    best = best_layout(offered.kinds(), watts_goal(offered), NO_LIMITS, PLENTY, 60, lambda _: None).layout
    pushed = pushed_apart(offered.kinds(), best, 2500.0)
    lie_free(pushed, offered)
    assert (pushed.y == best.y).all() and (pushed.x != best.x).any()


def test_rounding_for_a_bound_never_makes_a_panel_longer_or_a_block_larger() -> None:
    offered = bench_roof(4)
    for kind, loose in zip(offered.kinds(), relaxed(offered.kinds(), 40), strict=True):
        assert loose.length_mm <= kind.length_mm and loose.width_mm == kind.width_mm
        for block, other in zip(kind.room.blocks, loose.room.blocks, strict=True):
            assert other.rect.length_mm <= block.rect.length_mm + 40 + offered.gap


def test_stock_mass_pairs_and_unlike_are_kept() -> None:
    offered = bench_roof(8)
    goal = watts_goal(offered)
    few = best_layout(
        offered.kinds(), goal, Limits([1, 0, 2, 99], 4, [1000] * 4, 10**9), PLENTY, 60, lambda _: None
    )
    models = [offered.kinds()[k].model for k in few.layout.kind]
    assert models.count(0) <= 1 and models.count(1) == 0 and models.count(2) <= 2 and len(models) == 4
    light = best_layout(
        offered.kinds(),
        goal,
        Limits([99] * 4, 99, [20_000, 18_000, 12_000, 8_000], 30_000),
        PLENTY,
        60,
        lambda _: None,
    )
    assert sum([20, 18, 12, 8][offered.kinds()[k].model] for k in light.layout.kind) <= 30
    mirrored = best_layout(
        offered.kinds(), watts_goal(offered, symmetric=True), NO_LIMITS, PLENTY, 60, lambda _: None
    ).layout
    places = set(zip(mirrored.kind.tolist(), mirrored.x.tolist(), mirrored.y.tolist(), strict=True))
    assert all(
        (k, x, -y - w) in places
        for (k, x, y), w in zip(
            sorted(places), [offered.kinds()[k].width_mm for k, *_ in sorted(places)], strict=True
        )
    )
    whole = best_layout(offered.kinds(), goal, NO_LIMITS, PLENTY, 60, lambda _: None)
    other = best_layout(
        offered.kinds(), watts_goal(offered, unlike=(whole.layout,)), NO_LIMITS, PLENTY, 60, lambda _: None
    )
    assert difference(whole.layout, other.layout) >= 0.35 and other.worth <= whole.worth


def test_without_time_there_is_a_layout_and_no_claim() -> None:
    offered = bench_roof(13)
    told: list[Placements] = []
    best = best_layout(offered.kinds(), watts_goal(offered), NO_LIMITS, within(0.05), 0.05, told.append)
    assert best.worth > 3000 and told and best.bound is None
    lie_free(best.layout, offered)


def test_nothing_fits_and_nothing_is_claimed() -> None:
    tiny = Offered(((1722, 1134, 410),), (0, -400, 900, 400), (), 20)
    best = best_layout(tiny.kinds(), watts_goal(tiny), NO_LIMITS, PLENTY, 5, lambda _: None)
    assert len(best.layout) == 0 and best.worth == best.bound == 0
    task = Task(best.layout, np.empty(0, dtype=np.int64), np.empty(0, dtype=np.int64), [1], 1, [1], 1)
    assert len(greedy(task)) == 0 and pack(task, PLENTY, 1, greedy(task)).proved


@pytest.fixture
def offering(sound: Job) -> Callable[..., Job]:
    """The sound bus, its panels off the roof, with models on offer."""

    def make(*models: str, **values: object) -> Job:
        wish = {"offers": [{"id": f"e{i}", "model": m} for i, m in enumerate(models)], "aim": "watts"}
        return changed(sound, **{"panels": [], "wish": wish, **values})

    return make


@pytest.fixture
def short(offering: Callable[..., Job]) -> Job:
    return offering("Halde 410", "Kiesel 185", vehicle__roof_length="4.5 m")


def layout_stops(job: Job, proposals: Proposals) -> set[str]:
    found = set()
    for p in proposals.proposals:
        told = evaluate(with_panels(job, p.panels))
        found |= {s.id for s in told.snags if s.severity == "stop" and s.station == "layout"}
    return found


def test_proposals_are_many_different_allowed_and_the_best_is_proved(short: Job) -> None:
    told: list[Proposals] = []
    found = propose(short, within(ENOUGH), told.append)
    assert len(found.proposals) >= WANTED and told[0].proposals, "the first is there at once"
    drafts = next(t for t in told if t.doing)
    assert len(drafts.proposals) >= 3 and all(p.draft for p in drafts.proposals), (
        "drafts of every goal before any is answered"
    )
    assert found.progress == 1 and not any(p.draft for p in found.proposals)
    assert not layout_stops(short, found) - {"touches-the-crown"}
    most = next(p for p in found.proposals if p.title == "Most watts")
    assert most.best and most.figures.watts == found.most_watts == max(
        p.figures.watts for p in found.proposals
    )
    for i, one in enumerate(found.proposals):
        for other in found.proposals[:i]:
            same = sum(
                any(
                    abs(a.x_mm - b.x_mm) < 20
                    and abs(a.y_mm - b.y_mm) < 20
                    and abs(a.length_mm - b.length_mm) < 1
                    for b in other.rects
                )
                for a in one.rects
            )
            assert 1 - same / max(len(one.rects), len(other.rects)) >= CLEARLY_OTHER - 1e-9
    assert all(len(p.figures.models) == 1 for p in found.proposals if p.title.startswith("All "))
    assert len({p.title for p in found.proposals}) == len(found.proposals)
    for proposal in found.proposals:
        put = apply_edits(with_panels(short, proposal.panels), list(proposal.edits))
        failing = failing_panels(put, evaluate(put).snags)
        assert bool(failing) == bool(proposal.why_not), "it holds, or one line says why nothing holds it"


def test_what_holds_leaves_out_what_nothing_would_hold_there(sound: Job) -> None:
    """At 130 km/h larger bolts and a fairing hold all four; at 140 nothing holds the front pair."""
    faster = changed(sound, vehicle__top_speed="130 km/h")
    everything, none = what_holds(faster, faster.panels)
    assert none == () and len(everything.job.panels) == 4 and "fairing" in everything.words[0]
    fastest = changed(sound, vehicle__top_speed="140 km/h")
    found, left_out = what_holds(fastest, fastest.panels)
    assert set(left_out) == {"Front port", "Front starboard"} and found.why == ""
    left = [s for s in evaluate(found.job).snags if s.severity == "stop" and s.station != "wire"]
    assert not left
    for panel in fastest.panels[:2]:
        assert not offers_for(Look(fastest), panel, without=("speed", "carrier")).offers


def test_a_panel_gets_no_more_feet_than_members_and_two_a_side(
    sound: Job, offering: Callable[..., Job]
) -> None:
    job = offering("Halde 410", "Kiesel 185")
    found = propose(job, within(6))
    assert "Side by side, panels keep" in found.note
    for proposal in found.proposals:
        told = evaluate(with_panels(job, proposal.panels)).findings
        assert told.members.members
        for panel in proposal.panels:
            rect, end = panel_rect(panel), panel.hold.bracket.length.mm / 2
            reached = sum(rect.x_mm + end <= m.x_mm <= rect.x_end_mm - end for m in told.members.members)
            own = [f for f in told.feet if f.panel == panel.id]
            usual = usual_feet(panel.model)
            assert len(own) == (usual if reached < 2 else min(2 * reached, usual))
            assert sum(f.landing == "member" for f in own) == min(2 * reached, len(own)), (
                "each has a member of its own"
            )
    unsure = changed(job, members__face_width="20 mm")
    taped = changed(
        job, panels=[{**sound.panels[0].model_dump(), "locked": True, "hold": {"school": "tape"}}]
    )
    for other in (unsure, taped):
        for proposal in propose(other, within(4)).proposals:
            own = [p for p in proposal.panels if not p.locked]
            assert all(len(p.feet) == usual_feet(p.model) for p in own), (
                "what may be skin, and tape, gets no foot less"
            )


def test_locked_panels_stay_and_free_areas_stay_free(sound: Job) -> None:
    job = changed(
        sound,
        panels__p1__locked=True,
        vehicle__roof_length="5 m",
        panels=[{**sound.panels[0].model_dump(), "locked": True}],
        keep_free=[
            {"id": "z1", "kind": "walkway", "name": "way", "x": 2500, "y": 0, "length": 2000, "width": 500}
        ],
        wish={"offers": [{"id": "e1", "model": "Kiesel 185"}], "aim": "watts"},
    )
    found = propose(job, within(ENOUGH))
    for proposal in found.proposals:
        assert proposal.panels[0] == job.panels[0]
        assert "on-the-way" not in {s.id for s in evaluate(with_panels(job, proposal.panels)).snags}


def test_stock_and_roof_load_limit_what_is_proposed(offering: Callable[..., Job]) -> None:
    job = offering("Halde 410", vehicle__roof_length="5 m", vehicle__roof_load_limit="60 kg")
    assert {p.figures.panels for p in propose(job, within(ENOUGH)).proposals} <= {1, 2}
    stocked = apply_edits(
        offering("Stein"),
        [AddEntry(path="own_models", value={**catalogue()[0].model_dump(), "name": "Stein", "stock": 1})],
    )
    assert {p.figures.panels for p in propose(stocked, within(ENOUGH)).proposals} == {1}


def test_a_proposal_clears_the_crown_by_its_stand_off(offering: Callable[..., Job]) -> None:
    readings = [{"id": f"g{i}", "y": y, "gap": y * y / 25000} for i, y in enumerate(range(-1000, 1001, 250))]
    crown = {"sections": [{"id": f"s{x}", "x": x, "readings": readings} for x in (600, 2500, 4200)]}
    job = offering("Halde 410", vehicle__roof_length="4.5 m", survey__crown=crown)
    found = propose(job, within(ENOUGH))
    assert not layout_stops(job, found) and any(p.stand_off.mm > 40 for p in found.proposals[0].panels)


def test_what_stops_one_more_names_the_miss_and_the_way_out(one_panel: Job) -> None:
    """A fan's clearance leaves 12 mm too little for another panel."""
    fan = {"kind": "fan", "name": "Fan", "x": 1804, "y": 0, "length": 300, "width": 2000, "clearance": 25}
    job = apply_edits(
        changed(
            one_panel, panels=[], vehicle__roof_length="2100 mm", vehicle__roof_width="1500 mm", survey={}
        ),
        [AddEntry(path="obstacles", value=fan)],
    )
    room = room_of(job, 70.0)
    assert room is not None
    offers = [
        m.model_copy(
            update={"name": "Lang 410", "length": m.length.model_copy(update={"mm": 1761.0, "text": None})}
        )
        for m in catalogue()[:1]
    ]
    miss = one_more(job, offers, list(catalogue()), room)[0]
    assert (
        miss.short_mm == pytest.approx(12) and "12 mm too long lengthwise" in miss.why and "Fan" in miss.why
    )
    assert any("Fan: keep 13 mm instead of 25 mm" in r for r in miss.remedies)
    assert any("Halde 410" in r for r in miss.remedies)


def test_cancel_ends_a_search_and_keeps_what_was_found(offering: Callable[..., Job]) -> None:
    told: list[Proposals] = []
    job = offering("Halde 410", "Halde 320", "Kiesel 185", "Schiefer 110")
    found = propose(job, Search(lambda: 60.0, lambda: len(told) > 1), told.append)
    assert found.proposals or told[0].proposals
    assert len(told) < 12


@pytest.mark.parametrize(
    ("values", "field"),
    [
        ({"wish": {}}, "wish.offers"),
        ({"vehicle__roof_length": None}, "vehicle.roof_length"),
        ({"wish": {"offers": [{"id": "e1", "model": "Nebel"}]}}, "model"),
    ],
)
def test_what_a_search_lacks_is_named(short: Job, values: dict[str, object], field: str) -> None:
    with pytest.raises(InputError) as caught:
        offered_by(changed(short, **values))
    assert caught.value.field == field


def test_a_tapered_rounded_outline_is_kept(offering: Callable[..., Job]) -> None:
    outline = {
        "front_radius": "400 mm",
        "front_narrower": "200 mm",
        "taper_run": "900 mm",
        "rear_radius": "150 mm",
    }
    job = offering("Kiesel 185", vehicle__roof_length="4.2 m", survey__outline=outline)
    assert not layout_stops(job, propose(job, within(ENOUGH))) - {"touches-the-crown"}


def test_the_title_of_most_energy_goes_to_the_layout_that_has_it(short: Job) -> None:
    found = propose(changed(short, site__climate="Niederau", wish__aim="energy"), within(12))
    titled = [p for p in found.proposals if p.title == "Most energy"]
    most = max(p.figures.year_wh or 0 for p in found.proposals)
    assert all(p.figures.year_wh == most and not p.best for p in titled)
    assert titled or "Most energy" in found.note


def test_energy_prefers_the_sun(offering: Callable[..., Job]) -> None:
    """Two places for one panel; a tall thing stands beside the front one."""
    job = offering("Halde 410", vehicle__roof_length="4 m", site__climate="Niederau")
    tall = {
        "kind": "other",
        "name": "Tower",
        "x": 10,
        "y": 0,
        "length": 150,
        "width": 1800,
        "height": 900,
        "clearance": 0,
    }
    job = apply_edits(
        changed(
            job,
            obstacles=[],
            wish__offers=[{"id": "e1", "model": "Halde 410", "at_most": 1}],
            wish__aim="energy",
        ),
        [AddEntry(path="obstacles", value=tall)],
    )
    found = propose(job, within(ENOUGH)).proposals[0]
    assert found.title == "Most energy" and panel_rect(found.panels[0]).x_mm > 1500


def test_a_mirrored_layout_a_little_weaker_is_the_balanced_one(offering: Callable[..., Job]) -> None:
    """A small panel beside a box is worth less than the 3 % that a mirrored layout counts more."""
    offers = [
        {"id": "e1", "model": "Halde 410", "at_most": 4},
        {"id": "e2", "model": "Splitt 50", "at_most": 1},
    ]
    bare = offering(
        vehicle__roof_length="5.5 m",
        obstacles=[],
        readings=[],
        keep_free=[],
        own_models=[],
        survey={},
        site={},
        wish={"offers": offers, "aim": "balance"},
    )
    box = {"kind": "other", "name": "Box", "x": 4760, "y": -560, "length": 700, "width": 1100, "height": 60}
    found = propose(apply_edits(bare, [AddEntry(path="obstacles", value=box)]), within(ENOUGH))
    balanced, most = (
        next(p for p in found.proposals if p.title == title) for title in ("Balanced", "Most watts")
    )
    assert balanced.figures.mirrored == 1 and balanced.figures.watts == 1640 and not balanced.best
    assert most.figures.watts == 1690
