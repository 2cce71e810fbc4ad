"""Frames in space: beside a general-purpose frame library, textbook portals and worked values; what must hold
whatever the numbers are; what is no frame says so by name.
"""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise

import numpy as np
import pytest
from Pynite import FEModel3D

from fahrtwind.core.errors import InputError
from fahrtwind.core.stations.hold.alike import first_largest, first_least, first_smallest
from fahrtwind.core.stations.hold.frame.model import (
    DOFS,
    MOST_BARS,
    Bar,
    FloatArray,
    Frame,
    Stiff,
    Support,
    Tie,
)
from fahrtwind.core.stations.hold.frame.solve import Solved, solve

TUBE = Stiff(69_500 * 444.0, 69_500 * 101_972.0, 69_500 * 101_972.0, 26_000 * 151_959.0)
"""40 × 40 × 3 of aluminium, as in the worked rack."""
SPRINGS = (3000.0, 3000.0, 2000.0)


def laid(rails: Iterable[float], bars: Iterable[float], points: Iterable[float], clamp: float) -> Frame:
    """A flat rack: rails along x at y, bars across at x, points under the rails, clamps on the bars."""
    nodes: dict[tuple[float, float], int] = {}

    def node(x: float, y: float) -> int:
        return nodes.setdefault((x, y), len(nodes))

    pieces = []
    rails, bars, points = list(rails), list(bars), list(points)
    for y in rails:
        cuts = sorted({0.0, 2400.0, *points, *bars})
        pieces += [Bar(node(a, y), node(b, y), TUBE, f"rail {y:g}") for a, b in pairwise(cuts)]
    for x in bars:
        cuts = sorted({*rails, -clamp, clamp})
        pieces += [Bar(node(x, a), node(x, b), TUBE, f"bar {x:g}") for a, b in pairwise(cuts)]
    supports = tuple(Support(node(x, y), (x, y, 0.0), SPRINGS, f"{x:g} {y:g}") for y in rails for x in points)
    places = np.array([(x, y, 0.0) for x, y in nodes])
    return Frame(places, tuple(pieces), (), supports)


def clamped(frame: Frame, clamp: float) -> FloatArray:
    """Up 220 N at the front bar's clamps, 150 N at the others', 25 N aft each with 2000 N·mm about y."""
    loads = np.zeros((1, len(frame.nodes_mm), DOFS))
    at = [i for i, (_, y, _) in enumerate(frame.nodes_mm) if abs(y) == clamp]
    front = min(frame.nodes_mm[i, 0] for i in at)
    for i in at:
        loads[0, i] = [25.0, 0, 220.0 if frame.nodes_mm[i, 0] == front else 150.0, 0, 2000.0, 0]
    return loads


def test_the_worked_rack() -> None:
    """Rails at ±600, points at 200, 1200, 2200, bars at 300, 1200, 2100, clamps at ±450: worked with a frame
    library (G taken as 26 000 there to 0.5 %), with the first and the second port point lost too.
    """
    frame = laid((-600.0, 600.0), (300.0, 1200.0, 2100.0), (200.0, 1200.0, 2200.0), 450.0)
    solved = solve(frame, clamped(frame, 450.0))
    up = solved.on_support[:, 0, :, 2]
    assert up[0] == pytest.approx([192.3, 204.3, 123.3] * 2, abs=0.06)
    assert solved.on_support[0, 0, :3, 0] == pytest.approx([24.9, 25.2, 24.9], abs=0.06)
    assert np.abs(solved.on_support[0, 0, [0, 2], 1]) == pytest.approx([10.6, 10.6], abs=0.06)
    assert np.abs(solved.in_bar[0, 0][:, [4, 10]]).max() == pytest.approx(30_914, rel=2e-3)
    assert np.abs(solved.in_bar[0, 0][:, [3, 9]]).max() == pytest.approx(2086, rel=2e-2)
    assert up[1] == pytest.approx([0, 498.4, 21.6, 282.4, 114.9, 122.7], abs=1.2)
    assert np.abs(solved.in_bar[1, 0][:, [4, 10]]).max() == pytest.approx(125_582, rel=1e-2)
    assert up[2] == pytest.approx([294.5, 0, 225.5, 161.3, 266.5, 92.3], abs=1.0)


AXES = ("FX", "FZ", "FY", "MX", "MZ", "MY")


def by_library(frame: Frame, loads: FloatArray, lost: int | None) -> FloatArray:
    """Forces on the supports by PyNite, all by its own elements and springs."""
    model = FEModel3D()
    model.add_material("m", 1.0, 1.0, 0.3, 1.0)
    for i, (x, y, z) in enumerate(frame.nodes_mm):
        model.add_node(f"n{i}", x, z, -y)  # its second axis is up
    for i, bar in enumerate(frame.bars):
        s = bar.stiff
        model.add_section(f"s{i}", s.axial_n, s.side_n_mm2, s.up_n_mm2, s.torsion_n_mm2)
        model.add_member(f"b{i}", f"n{bar.start}", f"n{bar.end}", "m", f"s{i}")
    for i, support in enumerate(frame.supports):
        if i != lost:
            springs = (*support.springs, *support.turning)
            for axis, k in zip(("DX", "DZ", "DY", "RX", "RZ", "RY"), springs, strict=True):
                model.def_support_spring(f"n{support.node}", axis, k)
    for i, row in enumerate(loads):
        for axis, sign, value in zip(AXES, (1, -1, 1, 1, -1, 1), row, strict=True):
            model.add_node_load(f"n{i}", axis, sign * float(value))
    model.analyze_linear()
    on = np.zeros((len(frame.supports), 6))
    for i, support in enumerate(frame.supports):
        node = model.nodes[f"n{support.node}"]
        moved = [node.DX["Combo 1"], -node.DZ["Combo 1"], node.DY["Combo 1"]]
        turned = [node.RX["Combo 1"], -node.RZ["Combo 1"], node.RY["Combo 1"]]
        springs = np.array((*support.springs, *support.turning))
        on[i] = springs * [*moved, *turned] if i != lost else 0.0
    return on


def wild(rng: np.random.Generator) -> tuple[Frame, FloatArray]:
    """A frame of posts, rails and bars in space, sections that differ up and sideways, loads anyhow."""
    x, y = np.sort(rng.uniform(0, 3000, 3)), np.sort(rng.uniform(-900, 900, 2))
    x += np.arange(3) * 50
    nodes = [(a, b, z) for z in (0.0, float(rng.uniform(200, 900))) for b in y for a in x]
    flat = [(0, 1), (1, 2), (3, 4), (4, 5), (0, 3), (1, 4), (2, 5)]
    pairs = [*flat, *((a + 6, b + 6) for a, b in flat), *((i, i + 6) for i in range(6))]
    pieces = tuple(
        Bar(a, b, Stiff(*(10 ** rng.uniform([6.5, 9, 9, 9], [7.5, 10.5, 10.5, 10.5]))), f"bar {i}")
        for i, (a, b) in enumerate(pairs)
    )
    supports = tuple(
        Support(
            i,
            nodes[i],
            tuple(10 ** rng.uniform(2.5, 4, 3)),  # type: ignore[arg-type]
            f"foot {i}",
            tuple(10 ** rng.uniform(6, 8, 3)) if i in (2, 4) else (0.0, 0.0, 0.0),  # type: ignore[arg-type]
        )
        for i in range(6)
    )
    loads = rng.normal(0, 300, (1, 12, 6)) * [1, 1, 1, 100, 100, 100]
    return Frame(np.array(nodes), pieces, (), supports), loads


@pytest.mark.parametrize("seed", range(6))
def test_beside_a_frame_library(seed: int) -> None:
    """Equal to 1e-6 of the largest force, with all feet and with each lost."""
    frame, loads = wild(np.random.default_rng(seed))
    solved = solve(frame, loads)
    for lost in (None, 0, 4):
        ours = solved.on_support[0 if lost is None else lost + 1, 0]
        theirs = by_library(frame, loads[0], lost)
        assert ours == pytest.approx(theirs, abs=1e-6 * np.abs(theirs).max())


@pytest.mark.parametrize("seed", range(4))
def test_what_goes_in_comes_out_and_mirrored_is_mirrored(seed: int) -> None:
    """Forces and moments on the ground are those of the loads, also with a foot lost; a frame mirrored in its
    middle has mirrored forces.
    """
    frame, loads = wild(np.random.default_rng(100 + seed))
    solved = solve(frame, loads)
    places, at = frame.nodes_mm, np.array([s.at_mm for s in frame.supports])
    force = loads[0, :, :3].sum(axis=0)
    moment = loads[0, :, 3:].sum(axis=0) + np.cross(places, loads[0, :, :3]).sum(axis=0)
    for on in solved.on_support[:, 0]:
        most = np.abs(on[:, :3]).max()  # to so many digits of the largest force can sums be right
        assert on[:, :3].sum(axis=0) == pytest.approx(force, abs=1e-9 * most)
        told = np.cross(at, on[:, :3]).sum(axis=0) + on[:, 3:].sum(axis=0)
        assert told == pytest.approx(moment, abs=1e-9 * most * np.abs(at).max())
    other = mirrored(frame, loads)
    same, turned = [0, 2, 4], [1, 3, 5]
    assert other.on_support[..., same] == pytest.approx(solved.on_support[..., same], rel=1e-6, abs=1e-3)
    assert other.on_support[..., turned] == pytest.approx(-solved.on_support[..., turned], rel=1e-6, abs=1e-3)


def mirrored(frame: Frame, loads: FloatArray) -> Solved:
    flip = np.array([1, -1, 1])
    supports = tuple(
        Support(s.node, tuple(np.array(s.at_mm) * flip), s.springs, s.name, s.turning)  # type: ignore[arg-type]
        for s in frame.supports
    )
    return solve(Frame(frame.nodes_mm * flip, frame.bars, (), supports), loads * [1, -1, 1, -1, 1, -1])


@pytest.mark.parametrize("fixed", [True, False])
def test_portal_frames_by_hand(fixed: bool) -> None:
    """Side load 300 N at 1200 mm, span 2000 mm, k 0.6 (Kleinlogel): fixed feet 109 565 at the base, 70 435 in
    the corner, V 70.4; pinned feet 180 000 in each corner. The feet are fixed by a short base on two springs.
    """
    posts = Stiff(1e9, 1e10, 1e10, 1e10)
    beam = Stiff(1e9, 1e10, 1e10, 1e10)
    h, span = 1200.0, 2000.0
    nodes = [(0.0, y, z) for y in (0.0, span) for z in (0.0, h)]
    pieces = [Bar(0, 1, posts, "post"), Bar(2, 3, posts, "post"), Bar(1, 3, beam, "beam")]
    firm = 1e7
    if fixed:
        for foot, y in ((0, 0.0), (2, span)):
            for reach in (-500.0, 500.0):
                nodes.append((0.0, y + reach, 0.0))
                pieces.append(Bar(foot, len(nodes) - 1, Stiff(1e12, 1e15, 1e15, 1e15), "base"))
        held = range(4, 8)
    else:
        held = range(0, 4, 2)
    # along x the plane frame is held everywhere
    supports = [Support(i, nodes[i], (firm, firm, firm), f"foot {i}") for i in held]
    supports += [Support(i, nodes[i], (firm, 0.0, 0.0), "plane") for i in (1, 3)]
    loads = np.zeros((1, len(nodes), 6))
    loads[0, 1, 1] = 300.0
    told = solve(Frame(np.array(nodes), tuple(pieces), (), tuple(supports)), loads)
    bending = np.abs(told.in_bar[0, 0][:2][:, [4, 5, 10, 11]]).reshape(2, 2, 2).max(axis=2)
    if fixed:
        assert bending[:, 0] == pytest.approx([109_565] * 2, rel=5e-3)
        assert bending[:, 1] == pytest.approx([70_435] * 2, rel=5e-3)
        assert abs(told.in_bar[0, 0, 0, 0]) == pytest.approx(70.4, rel=5e-3)
    else:
        assert bending[:, 1] == pytest.approx([180_000] * 2, rel=1e-3)


def test_a_joint_off_its_axis_carries_the_moment_of_its_arm() -> None:
    """A bar on a bar, 60 mm above it: 100 N along the upper one reach the lower with 6 000 N·mm."""
    nodes = np.array([(0.0, 0, 0), (1000.0, 0, 0), (500.0, 0, 0), (500.0, 0, 60.0)])
    lower = (Bar(0, 2, TUBE, "rail"), Bar(2, 1, TUBE, "rail"))
    tie = Tie(2, 3, (1e6, 1e6, 1e6, 1e9, 1e9, 1e9), "corner")
    ground = tuple(
        Support(i, tuple(nodes[i] + [0, y, 0]), (5e5, 5e5, 5e5), f"foot {i} {y}")  # type: ignore[arg-type]
        for i in (0, 1)
        for y in (-50.0, 50.0)
    )
    stub = np.vstack([nodes, [(500.0, 200.0, 60.0)]])
    loads = np.zeros((1, 5, 6))
    loads[0, 3, 0] = 100.0
    told = solve(Frame(stub, (*lower, Bar(3, 4, TUBE, "bar")), (tie,), ground), loads)
    on = told.on_support[0, 0, :, 2].reshape(2, 2).sum(axis=1)
    assert on == pytest.approx([6.0, -6.0], rel=1e-3), "a couple over 1000 mm: the front foot is pulled"
    assert told.in_tie[0, 0, 0, 0] == pytest.approx(-100.0)


def test_what_is_no_frame_says_which_part() -> None:
    frame = laid((-600.0, 600.0), (300.0, 2100.0), (200.0, 2200.0), 450.0)
    loads = clamped(frame, 450.0)

    def refused(changed: Frame, load: FloatArray = loads) -> str:
        with pytest.raises(InputError) as caught:
            solve(changed, load)
        assert caught.value.remedy and caught.value.field
        return str(caught.value)

    short = Bar(0, 0, TUBE, "rail -600")
    assert "rail -600 has a piece without length" in refused(
        Frame(frame.nodes_mm, (*frame.bars, short), (), frame.supports)
    )
    alone = np.vstack([frame.nodes_mm, [(0, 0, 500.0), (100.0, 0, 500.0)]])
    n = len(frame.nodes_mm)
    loose = Frame(alone, (*frame.bars, Bar(n, n + 1, TUBE, "arch")), (), frame.supports)
    assert "arch is joined to nothing" in refused(loose, np.zeros((1, n + 2, 6)))
    many = Frame(frame.nodes_mm, frame.bars * (MOST_BARS // len(frame.bars) + 1), (), frame.supports)
    assert "bars" in refused(many)
    one = [s for s in frame.supports if s.at_mm[1] < 0]
    turning = refused(Frame(frame.nodes_mm, frame.bars, (), tuple(one[:1])))
    assert "can" in turning and "without anything that stops it" in turning
    hinged = Frame(
        np.array([(0.0, 0, 0), (1000.0, 0, 0), (0.0, 0, 0), (0.0, 800.0, 0)]),
        (Bar(0, 1, TUBE, "rail"), Bar(2, 3, TUBE, "bar")),
        (Tie(0, 2, (1e5, 1e5, 1e5, 1e8, 1e8, 0.0), "corner"),),
        tuple(Support(i, (i * 1000.0, y, 0), SPRINGS, "") for i in (0, 1) for y in (-40.0, 40.0)),
    )
    assert "bar can swing sideways" in refused(hinged, np.zeros((1, 4, 6)))


def test_lost_feet_that_hold_nothing_are_told() -> None:
    """Of three feet, two cannot hold a frame that turns about the line through them."""
    nodes = np.array([(0.0, 0, 0), (1000.0, 0, 0), (0.0, 800.0, 0)])
    frame = Frame(
        nodes,
        (Bar(0, 1, TUBE, "rail"), Bar(0, 2, TUBE, "bar")),
        (),
        tuple(Support(i, tuple(nodes[i]), SPRINGS, f"foot {i}") for i in range(3)),
    )
    solved = solve(frame, np.ones((1, 3, 6)))
    assert np.isfinite(solved.on_support[0]).all() and np.isnan(solved.on_support[1:]).all()
    assert np.isfinite(solved.in_bar[0]).all() and np.isnan(solved.in_bar[1:]).all()


@pytest.mark.parametrize("span", [600.0, 1400.0])
def test_ground_that_moves_bends_beams_as_tables_say(span: float) -> None:
    """A beam over three supports whose middle one sinks by d: 6 EI d / L³ there, half of it back at each end
    (a simple beam of twice the span, 48 EI d / (2 L)³). Clamped at both ends, one of which sinks: 12 EI d /
    L³ and 6 EI d / L². Beam tables. A support that is lost takes what it did along.
    """
    ei, sunk = 7e9, 3.0
    stiff = Stiff(1e8, ei, ei, 1e9)
    nodes = np.array([[0.0, 0, 0], [span, 0, 0], [2 * span, 0, 0]])
    firm = (1e6, 1e6, 1e6)
    three = tuple(Support(i, tuple(nodes[i]), firm, f"s{i}", (1e8, 0.0, 0.0)) for i in range(3))
    moved = np.zeros((3, 6))
    moved[1, 2] = -sunk
    beam = Frame(nodes, (Bar(0, 1, stiff, "a"), Bar(1, 2, stiff, "b")), (), three)
    solved = solve(beam, np.zeros((1, 3, 6)), moved)
    middle = 6 * ei * sunk / span**3
    assert solved.on_support[0, 0, :, 2] == pytest.approx([-middle / 2, middle, -middle / 2], rel=1e-3)
    assert np.abs(solved.on_support[2, 0]).max() < 1e-6 * middle, "without the middle one nothing is bent"
    again = solve(beam, np.zeros((1, 3, 6)), np.zeros((3, 6)))
    assert np.abs(again.on_support[0]).max() == 0.0
    turning = (1e12, 1e12, 1e12)
    clamped_ends = tuple(Support(i, tuple(nodes[i]), firm, f"s{i}", turning) for i in (0, 1))
    one = Frame(nodes[:2], (Bar(0, 1, stiff, "a"),), (), clamped_ends)
    (told,) = solve(one, np.zeros((1, 2, 6)), moved[:2]).on_support[0]
    assert told[:, 2] == pytest.approx(np.array([-12, 12]) * ei * sunk / span**3, rel=1e-3)
    assert np.abs(told[:, 4]) == pytest.approx(6 * ei * sunk / span**2, rel=1e-3)


def test_of_what_is_alike_the_first_is_told() -> None:
    """Which foot of a symmetric rack is named must not hang on the last digit of a frame."""
    values = np.array([[1.0, 3.0, 3.0 + 1e-9], [5.0, 5.0 - 1e-9, 4.0]])
    assert first_largest(values) == 3 and first_largest(values, axis=1).tolist() == [1, 0]
    assert first_smallest(values) == 0 and first_smallest(-values) == 3
    pairs = [(2.0, 1.0), (1.0 + 1e-9, 7.0), (1.0, 5.0), (1.0, 5.0 - 1e-9)]
    assert first_least(pairs, lambda p: p[0], lambda p: p[1]) == (1.0, 5.0)
    assert first_least([(-1.0,), (-1.0 - 1e-9,)], lambda p: p[0]) == (-1.0,)
