"""Pieces by hand; cut lists beside an exhaustive search and beside another solver."""

from __future__ import annotations

import random
from itertools import pairwise

import pytest

from fahrtwind.core.edits import (
    AddEntry,
    PutInFrame,
    PutOnPosts,
    PutOnRack,
    PutOnRails,
    SetValue,
    apply_edits,
)
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.build.cut_lists import MaterialCut
from fahrtwind.core.stations.build.cutting import Cut, Stock, Wanted, cut_list
from fahrtwind.core.stations.build.piece import Piece
from tests.conftest import changed

KERF, TRIM = 3.0, 5.0
TUBE = "6060-T66 tube 40 mm × 40 mm × 3 mm"


def cheapest(lengths: list[float], stocks: list[Stock]) -> float:
    """Every way to put pieces into bars, one after the other."""
    best = [float("inf")]
    left = [s.have if s.have is not None else 99 for s in stocks]

    def put(i: int, rooms: list[float], cost: float) -> None:
        if cost >= best[0] - 1e-9:
            return
        if i == len(lengths):
            best[0] = cost
            return
        for k in range(len(rooms)):
            if rooms[k] >= lengths[i] - 1e-9 and rooms[k] not in rooms[:k]:
                put(i + 1, [*rooms[:k], rooms[k] - lengths[i] - KERF, *rooms[k + 1 :]], cost)
        for s, stock in enumerate(stocks):
            room = stock.length_mm - 2 * TRIM
            if left[s] and room >= lengths[i] - 1e-9:
                left[s] -= 1
                put(i + 1, [*rooms, room - lengths[i] - KERF], cost + stock.price)
                left[s] += 1

    put(0, [], 0.0)
    return best[0]


def sound(cut: Cut, wanted: list[Wanted], stocks: list[Stock]) -> None:
    """Every piece once, in a bar that it fits into, one kerf apart."""
    assert sorted(p for bar in cut.bars for p in bar.pieces) == sorted(w.id for w in wanted)
    lengths = {w.id: w.length_mm for w in wanted}
    for bar in cut.bars:
        assert bar.at_mm[0] == TRIM and tuple(lengths[p] for p in bar.pieces) == bar.lengths_mm
        for (at, long), (then, _) in pairwise(zip(bar.at_mm, bar.lengths_mm, strict=True)):
            assert then == pytest.approx(at + long + KERF)
        assert bar.at_mm[-1] + bar.lengths_mm[-1] <= bar.length_mm - TRIM + 0.1
    for stock in stocks:
        assert stock.have is None or sum(b.stock == stock.id for b in cut.bars) <= stock.have
    assert cut.cost == pytest.approx(sum(b.price for b in cut.bars)) and cut.bound <= cut.cost + 1e-9


@pytest.mark.parametrize("seed", range(25))
def test_no_way_to_cut_a_small_set_is_cheaper(seed: int) -> None:
    dice = random.Random(seed)
    lengths = [float(dice.randint(300, 3200)) for _ in range(dice.randint(3, 8))]
    stocks = [Stock("six", 6000, dice.randint(3000, 6000) / 100), Stock("four", 4000, 28.0)]
    if dice.random() < 0.6:
        stocks.append(Stock("rest", dice.choice((1500, 2600)), 0.0, dice.randint(1, 2)))
    wanted = [Wanted(f"a{i}", length) for i, length in enumerate(lengths)]
    cut = cut_list(wanted, stocks, KERF, TRIM)
    sound(cut, wanted, stocks)
    assert cut.proved and cut.cost == pytest.approx(cheapest(sorted(lengths, reverse=True), stocks))


@pytest.mark.parametrize("seed", range(6))
def test_large_sets_are_as_cheap_as_another_solver_finds_them(seed: int) -> None:
    """Bars as boxes and pieces as things in them, for a constraint solver: a formulation that shares nothing
    with patterns.
    """
    from ortools.sat.python import cp_model

    dice = random.Random(100 + seed)
    kinds = [float(dice.randint(400, 2900)) for _ in range(dice.randint(2, 5))]
    lengths = [dice.choice(kinds) for _ in range(dice.randint(14, 26))]
    stocks = [Stock("six", 6000, 42.0), Stock("five", 5200, 37.5)]
    wanted = [Wanted(f"a{i}", length) for i, length in enumerate(lengths)]
    cut = cut_list(wanted, stocks, KERF, TRIM, seconds=30)
    sound(cut, wanted, stocks)
    model, most = cp_model.CpModel(), len(cut.bars)
    used = [[model.new_bool_var("") for _ in stocks] for _ in range(most)]
    lies = [[model.new_int_var(0, lengths.count(k), "") for k in sorted(set(lengths))] for _ in range(most)]
    for bar, kinds_in in zip(used, lies, strict=True):
        model.add_at_most_one(bar)
        room = sum(int(s.length_mm - 2 * TRIM + KERF) * b for s, b in zip(stocks, bar, strict=True))
        model.add(sum(int(k + KERF) * n for k, n in zip(sorted(set(lengths)), kinds_in, strict=True)) <= room)
    for i, kind in enumerate(sorted(set(lengths))):
        model.add(sum(row[i] for row in lies) == lengths.count(kind))
    cost = sum(int(s.price * 100) * b for bar in used for s, b in zip(stocks, bar, strict=True))
    model.add(cost <= int(cut.cost * 100) - 1)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = 20
    assert solver.solve(model) != cp_model.OPTIMAL, "no list is a cent cheaper"


def test_what_does_not_fit_or_suffice_is_named() -> None:
    bars = [Stock("six", 6000, 40.0)]
    cut = cut_list([Wanted("long", 5995), Wanted("short", 5990)], bars, KERF, TRIM)
    assert cut.missing == ("long",) and [b.pieces for b in cut.bars] == [("short",)]
    few = cut_list([Wanted(f"a{i}", 3500) for i in range(3)], [Stock("own", 6000, 0.0, 2)], KERF, TRIM)
    assert few.bars == () and set(few.missing) == {"a0", "a1", "a2"} and few.proved
    hurried = cut_list(
        [Wanted(f"a{i}", 400 + 37 * i) for i in range(45)],
        [Stock("six", 6000, 40.0), Stock("four", 4000, 28.5)],
        KERF,
        TRIM,
        seconds=1e-3,
    )
    assert hurried.missing == () and hurried.bars and hurried.bound <= hurried.cost, "an answer without proof"
    none = cut_list([Wanted("a", 3000), Wanted("b", 2990)], bars, 0.0, TRIM)
    assert len(none.bars) == 1 and none.bars[0].left_mm == pytest.approx(0.0), "a break line takes nothing"


def test_a_piece_of_no_length_is_none(sound: Job) -> None:
    cut = cut_list([Wanted("none", -20), Wanted("one", 500)], [Stock("six", 6000, 40.0)], KERF, TRIM)
    assert cut.missing == ("none",) and [b.pieces for b in cut.bars] == [("one",)]
    job = changed(apply_edits(sound, [PutInFrame(panels=("p1",))]), carriers__b1__rails__r2__y="-1090 mm")
    assert not [p for p in evaluate(job).findings.pieces if p.length_mm <= 0]


def pieces(job: Job) -> dict[str, Piece]:
    found = evaluate(job).findings
    assert not found.silent, found.silent
    return {p.id: p for p in found.pieces}


def tubes(job: Job) -> list[MaterialCut]:
    """The cut list of its rails and bars; corner angles have one of their own."""
    return [cut for cut in evaluate(job).findings.cuts if "tube" in cut.material]


def test_pieces_of_a_rack_by_hand(sound: Job) -> None:
    """A rail from 170 with a bar at 558 of 40 mm: its corner angles are bolted 20 + 20 mm to either side of
    it, 348 and 428 from the front end. The bar begins at −1146, the rail at −888 is 258 from its port end,
    and the clamp of the panel whose edge is at −1086 is 60 − 8 from it.
    """
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    told, rack = pieces(job), job.carriers[0]
    assert (rack.start.mm, rack.rails[0].y.mm, rack.bars[0].x.mm, rack.port.mm) == (170, -888, 558, -1146)  # type: ignore[union-attr]
    rail, bar = told["b1-r1"], told["b1-a1"]
    assert rail.length_mm == rack.end.mm - 170 and rail.marked == "front" and rail.material == TUBE
    corners = [h.at_mm for h in rail.holes if h.face == "upper" and "bar a1" in h.what]
    assert corners == [348, 428]
    feet = [f.x_mm - 170 for f in evaluate(job).findings.feet if f.panel == "b1" and f.foot.startswith("r1")]
    assert [h.at_mm for h in rail.holes if h.face == "lower"] == pytest.approx(feet)
    assert {(h.face, h.at_mm) for h in bar.holes if "rail r1" in h.what} == {("front", 258)}
    assert next(h.at_mm for h in bar.holes if h.what == "clamp of Front port") == 52
    assert all(h.through for h in rail.holes), "nobody reaches a nut inside a tube"
    area = 40 * 40 - 34 * 34
    assert bar.mass_kg == pytest.approx(area * 2.7e-6 * bar.length_mm, rel=1e-3)


def test_bolts_go_through_their_stack(sound: Job) -> None:
    """Angles of 6 on tubes of 40: on the rail 46 mm + washers 3.2 + nut 9.5 + two threads 2.5 = 61.2, so
    M8 × 65; on the bar two angles, 52 mm, 67.2: M8 × 70. A foot of 4 mm under the rail 44 mm, 59.2: M8 × 60.
    """
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    told = {line.joint: line for line in evaluate(job).findings.bolts}
    corners = len(job.carriers[0].bars) * 2  # type: ignore[union-attr]
    rails, bars, feet = (
        told[k] for k in ("corners on the rails", "corners on the bars", "feet under the rails")
    )
    assert (rails.needed_mm, rails.length_mm, rails.count) == (pytest.approx(61.2), 65, 2 * corners)
    assert (bars.needed_mm, bars.length_mm, bars.count) == (pytest.approx(67.2), 70, corners)
    thick = job.carriers[0].hold.bracket.thickness.mm
    assert feet.needed_mm == pytest.approx(40 + thick + 15.2)
    assert feet.count == sum(f.panel == "b1" for f in evaluate(job).findings.feet)
    listed = {m.item: m.needed for m in evaluate(job).findings.materials if "two washers" in m.item}
    lengths = {f"M8 × {line.length_mm:.0f} mm" for line in told.values()}
    assert sum(listed.values()) == 3 * corners + feet.count
    assert all(any(size in item for item in listed) for size in lengths)


def test_bars_bolted_through_the_rails_are_one_stack(sound: Job) -> None:
    """Two tubes of 40 on each other are 80 mm, of which 2 · 34 are hollow; + 15.2 = 95.2: M8 × 100."""
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    joined = apply_edits(job, [SetValue(path=f"carriers.{job.carriers[0].id}.joint", value="bolt")])
    told = {line.joint: line for line in evaluate(joined).findings.bolts}
    through = told["bars through the rails"]
    assert (through.grip_mm, through.hollow_mm, through.length_mm) == (80, 68, 100)
    assert through.needed_mm == pytest.approx(95.2)
    assert through.count == len(job.carriers[0].bars) * 2  # type: ignore[union-attr]


def test_a_frame_ends_at_its_rails_and_rails_share_a_clamp(sound: Job) -> None:
    framed = apply_edits(sound, [PutInFrame(panels=("p1",))])
    inside = framed.panels[0].model.width.mm + 2 * 8 - 40  # rails 8 mm outside, half a tube of each
    found = pieces(framed)
    assert {p.length_mm for p in found.values() if p.kind == "bar"} == {inside}
    for piece in found.values():  # the whole frame is to port of the middle, its rails face one another
        assert all(0 < h.at_mm < piece.length_mm for h in piece.holes), piece
        if piece.kind == "rail":
            faces = {h.face for h in piece.holes if h.what.startswith("corner")}
            assert faces == {"starboard" if piece.id == "b1-r1" else "port"}
            assert sum(h.what.startswith("clamp") and h.off_mm == 0 for h in piece.holes) == 2
    railed = apply_edits(
        sound,
        [
            SetValue(path="panels.p3.x", value={"mm": sound.panels[0].x.mm + 1640 + 20}),
            PutOnRails(panels=("p1", "p3")),
        ],
    )
    clamps = [h for h in pieces(railed)["b1-r1"].holes if h.face == "upper"]
    assert len(clamps) == 3 and "Front port and" in clamps[1].what
    assert clamps[1].at_mm == pytest.approx(clamps[0].at_mm + 8 + 1640 + 10)


def test_a_long_rail_is_spliced_in_inner_bays_and_not_beside_its_neighbour(sound: Job) -> None:
    job = apply_edits(sound, [PutOnRails(panels=("p1", "p3"))])
    job = changed(job, carriers__b1__end="8 m", carriers__b1__stock="5.2 m")
    told, found = pieces(job), evaluate(job)
    feet = sorted(f.x_mm for f in found.findings.feet if f.foot.startswith("r1"))
    at = []
    for rail in ("r1", "r2"):
        front, rear = told[f"b1-{rail}a"], told[f"b1-{rail}b"]
        assert max(front.length_mm, rear.length_mm) <= 5190
        assert front.length_mm + rear.length_mm == pytest.approx(8000 - job.carriers[0].start.mm)
        at.append(job.carriers[0].start.mm + front.length_mm)
        bay = max(i for i, x in enumerate(feet) if x < at[-1])
        assert 0 < bay < len(feet) - 2, "never in an end bay"
        share = (at[-1] - feet[bay]) / (feet[bay + 1] - feet[bay])
        assert min(share, 1 - share) == pytest.approx(0.2)
        holes = [h.at_mm for h in front.holes] + [front.length_mm + h.at_mm for h in rear.holes]
        assert len(holes) == len({round(x, 3) for x in holes}), "no hole is in both pieces"
        ends = [h.at_mm for h in front.holes if h.what == "splice"]
        assert ends == [front.length_mm - 120, front.length_mm - 30]
        assert [h.at_mm for h in rear.holes if h.what == "splice"] == [30, 120]
    assert abs(at[0] - at[1]) > 300
    plates = [p for p in found.findings.pieces if p.kind == "splice plate"]
    assert len(plates) == 4 and {p.length_mm for p in plates} == {300} and not told_of(found, "splice")
    short = changed(job, carriers__b1__stock="1 m")
    assert "piece-too-long" in {s.id for s in evaluate(short).snags}


def told_of(found: Evaluation, word: str) -> list[str]:
    return [f"{s.id}: {s.why}" for s in found.snags if word in s.id]


def test_what_the_stock_is_called_does_not_hang_on_the_units(sound: Job) -> None:
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    bar = {"material": TUBE, "length": "6 m", "price": 38.5}
    bought = apply_edits(job, [AddEntry(path="workshop.stock", value=bar)])
    inches = apply_edits(bought, [SetValue(path="units", value="imperial")])
    (cut,) = tubes(inches)
    assert cut.assumed_mm is None and cut.material == TUBE and "1 9/16" in cut.says


def test_what_is_made_is_what_is_bought(sound: Job) -> None:
    """Posts beside the roof reach below it, bars of a frame end at its rails: so they are listed."""
    outer = apply_edits(sound, [PutOnPosts(panels=("p1",), outer=True)])
    outer = changed(outer, carriers__b1__hold__below="2.2 m")
    listed = {m.item.split()[0]: m for m in evaluate(outer).findings.materials if m.unit.startswith("pc of")}
    assert listed["post"].unit == "pc of 2.4 m", "150 mm over the roof and 2,200 below"
    assert listed["post"].needed == sum(p.marked == "lower" for p in evaluate(outer).findings.pieces)
    framed = apply_edits(sound, [PutInFrame(panels=("p1",))])
    bars = [m for m in evaluate(framed).findings.materials if m.item.startswith("bar ")]
    assert [m.unit for m in bars] == ["pc of 1.0 m"]
    slotted = {"kind": "own", "inertia_cm4": 9, "modulus_cm3": 4, "side_inertia_cm4": 9, "torsion_cm4": 1}
    own = {"carriers__b1__section": slotted, "carriers__b1__bar_section": slotted}
    slots = changed(apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)]), **own)
    heads = [m.needed for m in evaluate(slots).findings.materials if "hammer-head" in m.item]
    assert heads == [4 * 2 * len(slots.carriers[0].bars)]  # type: ignore[union-attr]


def test_holes_that_meet_inside_a_tube_are_told(sound: Job) -> None:
    """A foot's bolt comes from below and a corner's from above: in one tube both go through both walls."""
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    foot = next(f.x_mm for f in evaluate(job).findings.feet if f.panel == "b1")
    near = changed(
        job, carriers__b1__bars__a1__x=f"{foot + 40 + 5} mm"
    )  # its nearer corner bolt 5 mm from it
    told = [s for s in evaluate(near).snags if s.id == "holes-close"]
    assert any("foot r1" in s.where and "corner of bar a1" in s.where for s in told)
    assert not [s for s in evaluate(job).snags if s.id == "holes-close"]


def test_bars_are_asked_for_and_leftovers_come_first(sound: Job) -> None:
    job = apply_edits(sound, [PutOnRack(panels=("p1", "p3"), points=False)])
    (assumed,) = tubes(job)
    assert assumed.assumed_mm == 6000 and any(s.id == "bars-not-said" for s in evaluate(job).snags)
    bar = {"material": TUBE, "length": "6 m", "price": 38.5}
    bought = apply_edits(job, [AddEntry(path="workshop.stock", value=bar)])
    rest = {"material": TUBE, "length": "2.7 m", "have": 2}
    (cut,) = tubes(bought)
    (less,) = tubes(apply_edits(bought, [AddEntry(path="workshop.stock", value=rest)]))
    assert cut.cut.cost == len(cut.cut.bars) * 38.5 and cut.assumed_mm is None
    assert less.cut.cost < cut.cut.cost and any(b.price == 0 for b in less.cut.bars) and less.cut.proved
