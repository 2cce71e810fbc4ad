"""Calculations about what holds: a rail on its feet, a framed panel beside its feet, a frame of bars."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from pydantic import Field

from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.errors import InputError
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.rails import Profile, share_rail
from fahrtwind.core.stations.hold.frame.model import MOST_BARS, MOST_NODES, Bar, Frame, Stiff, Support
from fahrtwind.core.stations.hold.frame.solve import solve
from fahrtwind.core.stations.hold.side_frame import APART_MM, FloatArray, Pressed, beam_pulls, side_loads
from fahrtwind.core.stations.layout.footprint import Rect

Place = Annotated[float, Field(ge=-30_000, le=30_000)]
Stiffness = Annotated[float, Field(gt=0, le=1e7)]


class SupportInput(CalcInput):
    at_mm: Place
    stiffness_n_mm: Stiffness = 2000.0


class LoadInput(CalcInput):
    at_mm: Place
    pull_n: Annotated[float, Field(ge=-1e6, le=1e6)]


def _apart(feet: tuple[SupportInput, ...]) -> FloatArray:
    at = np.array([f.at_mm for f in feet])
    if np.ptp(at) <= APART_MM:
        raise InputError(
            "The feet stand in one place.", remedy="Set two of them apart by more than 1 mm.", field="feet"
        )
    return at


class RailInput(CalcInput):
    """Clamps pull up on a rail of bending stiffness EI; its feet are springs."""

    feet: Annotated[tuple[SupportInput, ...], Field(min_length=2, max_length=40)]
    clamps: Annotated[tuple[LoadInput, ...], Field(min_length=1, max_length=80)]
    ei_n_mm2: Annotated[float, Field(ge=1e6, le=1e13)]


@dataclass(frozen=True, slots=True)
class RailLost:
    """Pulls in N with one foot lost; ``stands`` is False where the feet that are left hold no rail."""

    lost: int
    stands: bool
    pull_n: tuple[float, ...]
    moment_n_mm: float


@dataclass(frozen=True, slots=True)
class RailResult:
    """Pull on each foot, N; bending at each place along the rail, N·mm, and the most of it."""

    pull_n: tuple[float, ...]
    places_mm: tuple[float, ...]
    moments_n_mm: tuple[float, ...]
    moment_n_mm: float
    lost: tuple[RailLost, ...]


@calculation("rail.share")
def rail(given: RailInput) -> RailResult:
    """How a rail shares the pulls of its clamps among its feet and bends, also with each foot lost."""
    profile = Profile(given.ei_n_mm2, 1.0, 1.0, 0.0, "")
    feet = _apart(given.feet)
    springs = np.array([f.stiffness_n_mm for f in given.feet])
    shared = share_rail(profile, feet, springs, np.array([c.at_mm for c in given.clamps]))
    load = np.array([c.pull_n for c in given.clamps])
    pulls, moments = load @ shared.pulls, load @ shared.moments
    lost = []
    for i in range(len(feet)):
        stands = bool(np.isfinite(pulls[i + 1]).all())
        own = pulls[i + 1] if stands else np.zeros(len(feet))
        most = float(np.abs(moments[i + 1]).max()) if stands else 0.0
        lost.append(RailLost(i, stands, tuple(own.tolist()), most))
    told = moments[0].tolist()
    most = max(abs(m) for m in told)
    return RailResult(
        tuple(pulls[0].tolist()), tuple(shared.places_mm.tolist()), tuple(told), most, tuple(lost)
    )


class StripInput(CalcInput):
    """A stretch along a panel with its net uplift, Pa."""

    from_mm: Annotated[float, Field(ge=0, le=3000)]
    to_mm: Annotated[float, Field(ge=0, le=3000)]
    pressure_pa: Annotated[float, Field(ge=-20_000, le=20_000)]


class SideInput(CalcInput):
    """A framed panel on feet along its two sides, the same on both, under uplift in strips along it."""

    length_mm: Annotated[float, Field(ge=100, le=3000)]
    width_mm: Annotated[float, Field(ge=100, le=2000)]
    feet: Annotated[tuple[SupportInput, ...], Field(min_length=2, max_length=8)]
    strips: Annotated[tuple[StripInput, ...], Field(min_length=1, max_length=12)]


@dataclass(frozen=True, slots=True)
class SideResult:
    """Pull on each foot of one side, N: by the glass at 45°, evenly, and the larger of both."""

    at_45_n: tuple[float, ...]
    evenly_n: tuple[float, ...]
    most_n: tuple[float, ...]


@calculation("frame.share")
def frame(given: SideInput) -> SideResult:
    """How the side of a panel's frame, a beam on its feet, shares the uplift that the glass hands to it."""
    whole = Rect(0.0, 0.0, given.length_mm, given.width_mm)
    parts = tuple(
        Pressed(Rect(s.from_mm, 0.0, s.to_mm - s.from_mm, given.width_mm), np.array([s.pressure_pa]))
        for s in given.strips
        if s.to_mm > s.from_mm
    )
    if not parts:
        raise InputError(
            "No strip has a length.", remedy="Give one that ends behind where it begins.", field="strips"
        )
    at, slanted, evenly = side_loads(whole, "port", parts, corners=True)
    feet = _apart(given.feet)
    springs = np.array([f.stiffness_n_mm for f in given.feet])
    one, other = (beam_pulls(feet, springs, at, loads)[0, 0].tolist() for loads in (slanted, evenly))
    return SideResult(tuple(one), tuple(other), tuple(max(a, b) for a, b in zip(one, other, strict=True)))


class NodeInput(CalcInput):
    x_mm: Place
    y_mm: Place
    z_mm: Place = 0.0


Number = Annotated[float, Field(ge=0, le=1e15)]
Moved = Annotated[float, Field(ge=-1000, le=1000)]
Force = Annotated[float, Field(ge=-1e9, le=1e9)]
NodeNumber = Annotated[int, Field(ge=0, lt=MOST_NODES)]


class BarInput(CalcInput):
    """A straight bar from node to node: EA in N; EI up and sideways and GJ in N·mm²."""

    start: NodeNumber
    end: NodeNumber
    ea_n: Annotated[float, Field(gt=0, le=1e12)]
    ei_up_n_mm2: Annotated[float, Field(gt=0, le=1e15)]
    ei_side_n_mm2: Annotated[float, Field(gt=0, le=1e15)]
    gj_n_mm2: Annotated[float, Field(gt=0, le=1e15)]
    name: Annotated[str, Field(min_length=1, max_length=40)] = "bar"


class GroundInput(CalcInput):
    """Springs under a node, N/mm along x, y and z, N·mm/rad about them; how far the ground under it has
    moved.
    """

    node: NodeNumber
    x_n_mm: Number = 0.0
    y_n_mm: Number = 0.0
    z_n_mm: Number = 0.0
    about_x_n_mm: Number = 0.0
    about_y_n_mm: Number = 0.0
    about_z_n_mm: Number = 0.0
    moved_x_mm: Moved = 0.0
    moved_y_mm: Moved = 0.0
    moved_z_mm: Moved = 0.0


class NodeLoadInput(CalcInput):
    """Forces on a node in N, moments in N·mm."""

    node: NodeNumber
    x_n: Force = 0.0
    y_n: Force = 0.0
    z_n: Force = 0.0
    about_x_n_mm: Force = 0.0
    about_y_n_mm: Force = 0.0
    about_z_n_mm: Force = 0.0


class BarsInput(CalcInput):
    """A frame of bars in space, rigid where bars share a node."""

    nodes: Annotated[tuple[NodeInput, ...], Field(min_length=2, max_length=MOST_NODES)]
    bars: Annotated[tuple[BarInput, ...], Field(min_length=1, max_length=MOST_BARS)]
    supports: Annotated[tuple[GroundInput, ...], Field(min_length=1, max_length=60)]
    loads: Annotated[tuple[NodeLoadInput, ...], Field(min_length=1, max_length=400)]


@dataclass(frozen=True, slots=True)
class BarEnds:
    """Forces on both ends of a bar in its own axes: along, sideways, up in N, then moments about them in
    N·mm.
    """

    start: tuple[float, ...]
    end: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class GroundLost:
    """Forces on the supports with one lost; ``stands`` is False where the others hold no frame."""

    lost: int
    stands: bool
    on_support_n: tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True)
class BarsResult:
    """What the frame does to each support, N along x, y, z and N·mm about them; its bars; how far its nodes
    move, mm and rad.
    """

    on_support_n: tuple[tuple[float, ...], ...]
    bars: tuple[BarEnds, ...]
    moved: tuple[tuple[float, ...], ...]
    lost: tuple[GroundLost, ...]


@calculation("bars.solve")
def bars(given: BarsInput) -> BarsResult:
    """A frame of bars in space: forces on its supports, in its bars, how it moves; also with each support
    lost.
    """
    count = len(given.nodes)
    named = (("bars", b.start) for b in given.bars), (("bars", b.end) for b in given.bars)
    others = (("supports", s.node) for s in given.supports), (("loads", f.node) for f in given.loads)
    for field, node in (pair for part in (*named, *others) for pair in part):
        if node >= count:
            raise InputError(
                f"There is no node {node}.", remedy=f"Name one from 0 to {count - 1}.", field=field
            )
    places = np.array([(n.x_mm, n.y_mm, n.z_mm) for n in given.nodes])
    frame = Frame(
        places,
        tuple(
            Bar(b.start, b.end, Stiff(b.ea_n, b.ei_up_n_mm2, b.ei_side_n_mm2, b.gj_n_mm2), f"{b.name} {i}")
            for i, b in enumerate(given.bars)
        ),
        (),
        tuple(
            Support(
                s.node,
                tuple(places[s.node].tolist()),
                (s.x_n_mm, s.y_n_mm, s.z_n_mm),
                f"support {i}",
                (s.about_x_n_mm, s.about_y_n_mm, s.about_z_n_mm),
            )
            for i, s in enumerate(given.supports)
        ),
    )
    loads = np.zeros((1, count, 6))
    for f in given.loads:
        loads[0, f.node] += (f.x_n, f.y_n, f.z_n, f.about_x_n_mm, f.about_y_n_mm, f.about_z_n_mm)
    settled = np.array([(s.moved_x_mm, s.moved_y_mm, s.moved_z_mm, 0.0, 0.0, 0.0) for s in given.supports])
    solved = solve(frame, loads, settled)
    on = solved.on_support[:, 0]
    lost = tuple(
        GroundLost(i, stands := bool(np.isfinite(on[i + 1]).all()), _rows(on[i + 1]) if stands else ())
        for i in range(len(given.supports))
    )
    ends = tuple(BarEnds(tuple(e[:6]), tuple(e[6:])) for e in solved.in_bar[0, 0].tolist())
    return BarsResult(_rows(on[0]), ends, _rows(solved.moved[0]), lost)


def _rows(array: FloatArray) -> tuple[tuple[float, ...], ...]:
    return tuple(tuple(row) for row in array.tolist())
