"""A rack as a frame: rails on their feet, bars across them, joints where they cross, clamps under panels."""

from __future__ import annotations

from dataclasses import field
from itertools import pairwise
from typing import Literal

import numpy as np

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.brackets import in_series
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.joints import cleat_spring, upright_spring
from fahrtwind.core.job.carrier import Carrier, Crossbars, JointKind, Rack, Rail
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.job.sections import Section
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.sections import BarStrength, bar_strength, frame_ready
from fahrtwind.core.stations.hold.frame.model import Bar, FloatArray, Frame, Support, Tie
from fahrtwind.core.stations.hold.frame.solve import ReadyFrame, made_ready
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.schools.base_plate.chain import lever_mm
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.tables.alloys import AlloyName

IN_PLANE_N_MM = 3000.0
"""How stiff a foot stands along the roof: judgement; like its stiffness upward it is taken halved and
doubled.
"""
BOLTED_N_MM, FIRM_N_MM_RAD = 1e5, 1e9
CLAMPED_N_MM_RAD = 1e7
"""A two-piece clamp until it slips: judgement, taken halved and doubled."""
ANGLE_MM, ANGLE_GAUGE_MM, ANGLE_MODULUS = 40.0, 20.0, 70_000.0
"""An angle of a corner: 40 × 40 of aluminium, as long as it is wide, bolted 20 mm from its heel."""
SAME_PLACE_MM = 1.0
DECK_BOLT_N_MM = 5000.0
"""How stiff a deck holds a bolt of a base plate: judgement, taken halved and doubled."""
BRACKET_MODULUS = {"aluminium": 70_000.0, "stainless": 200_000.0}
RANGE = (0.5, 2.0)
Runs = Literal["along", "across", "up"]
ClampPlace = tuple[str, float]
"""The bar that a clamp sits on, and its y, mm."""
ENDS = ("feet and corners at their softest", "feet and corners at their stiffest")


@dataclass(frozen=True, slots=True)
class Made:
    """What a line of a frame is: its section in its metal, and which way it runs."""

    strength: BarStrength
    alloy: AlloyName
    section: Section
    runs: Runs


@dataclass(frozen=True, slots=True)
class RackParts:
    """What the lines of a rack are; ``post`` where it stands on posts, ``crossbar`` where on crossbars."""

    rail: Made
    bar: Made
    post: Made | None = None
    crossbar: Made | None = None


@dataclass(frozen=True, slots=True, eq=False)
class RackFrame:
    """The frame of a rack, ready for loads. ``clamp_nodes``: (clamps,); ``mass_kg``: (nodes,); ``lines``: for
    every rail and bar and post its nodes in order, ``made_of``: what each is; ``top_mm``: from the bars' axis
    to their upper face; ``corners``: so many of its ties join bars to rails, the others rails to crossbars.
    """

    ready: ReadyFrame
    clamp_nodes: np.ndarray
    mass_kg: FloatArray
    lines: dict[str, list[int]]
    made_of: dict[str, Made]
    top_mm: float
    corners: int

    @property
    def frame(self) -> Frame:
        return self.ready.frame


def rack_parts(rack: Rack) -> RackParts:
    """Raises InputError naming the field where a section by its own sheet lacks a value."""
    path = f"carriers.{rack.id}"
    with scope("rail"):
        rail = _made(rack.section, rack.alloy, "along", f"{path}.section")
    with scope("bar"):
        bar = _made(rack.bar_section, rack.bar_alloy, "across", f"{path}.bar_section")
    if rack.crossbars is not None:
        with scope("crossbar"):
            under = rack.crossbars
            crossbar = _made(under.section, under.alloy, "across", f"{path}.crossbars.section")
        return RackParts(rail, bar, None, crossbar)
    if rack.posts is None:
        return RackParts(rail, bar)
    with scope("post"):
        post = _made(rack.posts.section, rack.posts.alloy, "up", f"{path}.posts.section")
    return RackParts(rail, bar, post)


def _made(section: Section, alloy: AlloyName, runs: Runs, path: str) -> Made:
    frame_ready(section, path)
    return Made(bar_strength(section, alloy, path), alloy, section, runs)


def joint_springs(kind: JointKind, angle_wall_mm: float) -> tuple[float, float, float]:
    """How stiff a joint resists turning about x, y, z, N·mm/rad."""
    if kind == "welded":
        return FIRM_N_MM_RAD, FIRM_N_MM_RAD, FIRM_N_MM_RAD
    one = float(
        cleat_spring(
            given(ANGLE_MODULUS, "default", "aluminium angle"),
            given(ANGLE_MM, "default", "length of the angle"),
            given(angle_wall_mm, "chosen", "thickness of the angle"),
            given(ANGLE_GAUGE_MM, "default", "bolt line to heel"),
        )
    )
    if kind == "clamps":
        return CLAMPED_N_MM_RAD, CLAMPED_N_MM_RAD, CLAMPED_N_MM_RAD
    if kind == "angles":
        return 2 * one, 2 * one, 2 * one
    return one, one, 0.0  # one bolt: the bar swings about it


@dataclass(slots=True)
class Build:
    """A frame as it grows: places of its nodes, its bars, and what each of its lines is and runs through."""

    places: list[tuple[float, float, float]] = field(default_factory=list)
    bars: list[Bar] = field(default_factory=list)
    lines: dict[str, list[int]] = field(default_factory=dict)
    made_of: dict[str, Made] = field(default_factory=dict)

    def line(
        self, name: str, made: Made, cuts: list[float], at: tuple[float | None, float | None], z: float
    ) -> dict[float, int]:
        """A line with a node at each place (mm), those within a millimetre as one; ``at``: the fixed
        coordinate.
        """
        found: dict[float, int] = {}
        last = -np.inf
        for cut in sorted(cuts):
            if cut - last > SAME_PLACE_MM:
                self.places.append((cut if at[0] is None else at[0], cut if at[1] is None else at[1], z))
                last = cut
            found[cut] = len(self.places) - 1
        self._draw(name, made, list(dict.fromkeys(found[x] for x in sorted(found))))
        return found

    def leg(self, name: str, made: Made, top: int, foot: tuple[float, float, float]) -> int:
        """A post or a strut from a node to its foot, mm; the foot's node."""
        self.places.append(foot)
        self._draw(name, made, [len(self.places) - 1, top])
        return len(self.places) - 1

    def _draw(self, name: str, made: Made, nodes: list[int]) -> None:
        self.lines[name], self.made_of[name] = nodes, made
        self.bars += [Bar(a, b, made.strength.stiff, name) for a, b in pairwise(nodes)]


@dataclass(frozen=True, slots=True, eq=False)
class Laid:
    """Rails and bars joined at their corners, not held by anything yet, and their nodes by place, mm."""

    build: Build
    on_rail: dict[str, dict[float, int]]
    on_bar: dict[str, dict[float, int]]
    ties: tuple[Tie, ...]

    def ready(self, rack: Rack, frame: Frame, clamps: tuple[ClampPlace, ...]) -> RackFrame:
        """Held as ``frame`` says, with its own nodes, and ready for loads."""
        nodes = np.array([self.on_bar[bar][y] for bar, y in clamps], dtype=int)
        made_of, top_mm = self.build.made_of, rack.bar_section.height.mm / 2
        mass, ready = _masses(frame, made_of), made_ready(frame)
        return RackFrame(ready, nodes, mass, self.build.lines, made_of, top_mm, len(self.ties))


def laid_out(
    rack: Rack, parts: RackParts, feet: tuple[FootPlace, ...], on_bars: tuple[ClampPlace, ...], stiffest: bool
) -> Laid:
    """Rails and bars with nodes at their ends, where they cross, over feet and where bars bear something.
    Raises InputError where a bar crosses no rail.
    """
    _crossed(rack)
    build = Build()
    rail_z = rack.height.mm + rack.section.height.mm / 2
    on_rail: dict[str, dict[float, int]] = {}
    on_bar: dict[str, dict[float, int]] = {}
    for rail in rack.rails:
        cuts = [rack.start.mm, rack.end.mm, *rests_at(rack, rail, feet), *(b.x.mm for b in rack.bars)]
        on_rail[rail.id] = build.line(rail.id, parts.rail, cuts, (None, rail.y.mm), rail_z)
    for bar in rack.bars:
        own = [y for own, y in on_bars if own == bar.id]
        cuts = [rack.port.mm, rack.starboard.mm, *own, *(r.y.mm for r in _under(rack))]
        on_bar[bar.id] = build.line(bar.id, parts.bar, cuts, (bar.x.mm, None), rack.bar_axis_mm)
    ties = tuple(
        Tie(on_rail[r.id][b.x.mm], on_bar[b.id][r.y.mm], _firm(rack, rack.joint, stiffest), f"{r.id}{b.id}")
        for r in _under(rack)
        for b in rack.bars
    )
    return Laid(build, on_rail, on_bar, ties)


def rack_frame(
    rack: Rack,
    parts: RackParts,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    clamps: tuple[ClampPlace, ...],
    stiffest: bool,
) -> RackFrame:
    """The frame with feet and corners at one end of their range. Raises InputError where a bar crosses no
    rail, or the frame moves.
    """
    laid = laid_out(rack, parts, feet, clamps, stiffest)
    build, on_rail, ties = laid.build, laid.on_rail, list(laid.ties)
    if parts.crossbar is None or rack.crossbars is None:
        tops = [on_rail[f.line][f.x_mm] for f in feet]
    else:
        on_crossbar = _crossbars(rack, rack.crossbars, parts.crossbar, build, feet)
        tops = [on_crossbar[f.line][1][f.y_mm] for f in feet]
        ties += [
            Tie(nodes[r.y.mm], on_rail[r.id][x], _firm(rack, "angles", stiffest), f"{r.id}{name}")
            for name, (x, nodes) in on_crossbar.items()
            for r in rack.rails
        ]
    stand = _on_posts if parts.post else _on_feet
    supports = stand(rack, parts, build, list(zip(feet, chains, tops, strict=True)), stiffest)
    frame = Frame(np.array(build.places), tuple(build.bars), tuple(ties), supports)
    return laid.ready(rack, frame, clamps)


Springs = tuple[float, float, float, float, float, float]


def _firm(rack: Rack, joint: JointKind, stiffest: bool) -> Springs:
    x, y, z = (RANGE[stiffest] * k for k in joint_springs(joint, rack.angle_wall.mm))
    return BOLTED_N_MM, BOLTED_N_MM, BOLTED_N_MM, x, y, z


def _crossbars(
    rack: Rack, under: Crossbars, made: Made, build: Build, feet: tuple[FootPlace, ...]
) -> dict[str, tuple[float, dict[float, int]]]:
    """Of each crossbar its x, mm, and its nodes by y, mm: at its ends, its feet and the rails on it."""
    axis = rack.height.mm - under.section.height.mm / 2
    told = {}
    for name, x in crossbars_at(feet).items():
        own = [f.y_mm for f in feet if f.line == name]
        cuts = [under.port_mm, under.starboard_mm, *own, *(r.y.mm for r in rack.rails)]
        told[name] = (x, build.line(name, made, cuts, (x, None), axis))
    return told


Standing = list[tuple[FootPlace, Chain, int]]
"""Feet with their chains and the node of the rail over each."""


def _on_feet(
    rack: Rack, _parts: RackParts, build: Build, standing: Standing, stiffest: bool
) -> tuple[Support, ...]:
    share, weak = RANGE[stiffest], _weak_way_n_mm(rack)
    level = (
        (share * IN_PLANE_N_MM, share * weak)
        if rack.crossbars is None
        else (share * weak, share * IN_PLANE_N_MM)
    )
    return tuple(
        Support(
            top,
            (f.x_mm, f.y_mm, build.places[top][2]),  # at the bolt of the upright: its chain says how it tips
            (*level, share * _up(chain, stiffest)),
            f.foot,
        )
        for f, chain, top in standing
    )


def _on_posts(
    rack: Rack, parts: RackParts, build: Build, standing: Standing, stiffest: bool
) -> tuple[Support, ...]:
    """Posts from their feet up to the rails, and what the deck holds base plates with; an outer foot is a
    hinge.
    """
    hold, share = rack.hold, RANGE[stiffest]
    turning = share * DECK_BOLT_N_MM * lever_mm(hold) ** 2 if isinstance(hold, BasePlate) else 0.0
    found = []
    for foot, chain, top in standing:
        below = hold.below.mm if isinstance(hold, OuterFoot) else 0.0
        x, y, _ = build.places[top]
        base = build.leg(foot.foot, parts.post or parts.rail, top, (x, y, -below))
        springs = (share * IN_PLANE_N_MM, share * IN_PLANE_N_MM, share * _up(chain, stiffest))
        found.append(Support(base, build.places[base], springs, foot.foot, (turning, turning, turning)))
    return tuple(found)


def _weak_way_n_mm(rack: Rack) -> float:
    """A foot's upright is a plate along the rail or the crossbar that it holds: across that it bends."""
    bracket, section = rack.hold.bracket, rack.on_feet[0]
    upright = upright_spring(
        BRACKET_MODULUS[bracket.metal],
        given(bracket.length.mm, "chosen", "bracket length"),
        given(bracket.thickness.mm, "chosen", "bracket thickness"),
        given(rack.foot_mm + section.height.mm / 2, "chosen", "bolt in the rail over the roof"),
    )
    return float(in_series(upright, given(IN_PLANE_N_MM, "default", "foot along the roof: judgement")))


def _up(chain: Chain, stiffest: bool) -> float:
    return chain.stiffest_n_mm if stiffest else chain.stiffness_n_mm


def crossbars_at(feet: tuple[FootPlace, ...]) -> dict[str, float]:
    """Of every crossbar under a rack where it lies, mm along the roof: in the middle of its feet, which as
    built may stand apart.
    """
    lines: dict[str, list[float]] = {}
    for foot in feet:
        lines.setdefault(foot.line, []).append(foot.x_mm)
    return {line: sum(x) / len(x) for line, x in lines.items()}


def rests_at(carrier: Carrier, rail: Rail, feet: tuple[FootPlace, ...]) -> list[float]:
    """Where a rail is held from below, mm along the roof, each place once: at its feet, or on every
    crossbar.
    """
    if isinstance(carrier, Rack) and carrier.crossbars is not None:
        return sorted(set(crossbars_at(feet).values()))
    return sorted({f.x_mm for f in feet if f.line == rail.id})


def _under(rack: Rack) -> list[Rail]:
    """Rails that the bars reach."""
    return [r for r in rack.rails if rack.port.mm <= r.y.mm <= rack.starboard.mm]


def _crossed(rack: Rack) -> None:
    for name in rack.own_lines:
        if rack.own_lines.count(name) > 1 or (rack.crossbars and name.startswith("k")):
            raise InputError(
                f"{name} of {rack.name} is named like another of its rails and bars.",
                remedy="Give it another id.",
                field=f"carriers.{rack.id}.bars",
            )
    for bar in rack.bars:
        if not rack.start.mm <= bar.x.mm <= rack.end.mm:
            raise InputError(
                f"Bar {bar.id} lies beyond the rails of {rack.name}.",
                remedy="Move it over them, or let the rails reach it.",
                field=f"carriers.{rack.id}.bars.{bar.id}.x",
            )
    under = rack.crossbars
    for rail in rack.rails if under else ():
        if under and not under.port_mm <= rail.y.mm <= under.starboard_mm:
            raise InputError(
                f"Rail {rail.id} lies beside the crossbars of {rack.name}.",
                remedy="Move it over them, or their feet further out.",
                field=f"carriers.{rack.id}.rails.{rail.id}.y",
            )
    if len(_under(rack)) < 2:
        raise InputError(
            f"The bars of {rack.name} reach fewer than two rails.",
            remedy="Let them reach from rail to rail.",
            field=f"carriers.{rack.id}.port",
        )


def _masses(frame: Frame, made_of: dict[str, Made]) -> FloatArray:
    """Half of every bar's mass at each of its ends, kg."""
    mass = np.zeros(len(frame.nodes_mm))
    for bar in frame.bars:
        length = float(np.linalg.norm(frame.nodes_mm[bar.end] - frame.nodes_mm[bar.start]))
        mass[[bar.start, bar.end]] += made_of[bar.part].strength.mass_kg_m * length / 2000
    return mass
