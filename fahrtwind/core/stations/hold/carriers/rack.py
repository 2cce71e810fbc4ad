"""A rack as a frame: rails on their feet, bars across them, joints where they cross, clamps under panels."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from itertools import pairwise

import numpy as np

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.brackets import in_series
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.joints import cleat_spring, upright_spring
from fahrtwind.core.job.carrier import JointKind, Rack, Rail
from fahrtwind.core.stations.hold.carriers.sections import BarStrength, bar_strength, frame_ready
from fahrtwind.core.stations.hold.frame.model import Bar, FloatArray, Frame, Support, Tie
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.layout.feet import FootPlace

IN_PLANE_N_MM = 3000.0
"""How stiff a foot stands along the roof: judgement; like its stiffness upward it is taken halved and
doubled.
"""
BOLTED_N_MM, FIRM_N_MM_RAD = 1e5, 1e9
ANGLE_MM, ANGLE_GAUGE_MM, ANGLE_MODULUS = 40.0, 20.0, 70_000.0
"""An angle of a corner: 40 × 40 of aluminium, as long as it is wide, bolted 20 mm from its heel."""
SAME_PLACE_MM = 1.0
BRACKET_MODULUS = {"aluminium": 70_000.0, "stainless": 200_000.0}
RANGE = (0.5, 2.0)
FOOT_NAME = re.compile(r"[mn]\d+$")
"""A foot of a carrier is named by its rail and the member or the point under it."""
ENDS = ("feet and corners at their softest", "feet and corners at their stiffest")


@dataclass(frozen=True, slots=True)
class RackParts:
    """The sections of a rack."""

    rail: BarStrength
    bar: BarStrength


@dataclass(frozen=True, slots=True, eq=False)
class RackFrame:
    """The frame of a rack. ``clamp_nodes``: (clamps,); ``mass_kg``: (nodes,); ``lines``: for every rail and
    bar its nodes in order; ``top_mm``: from the bars' axis to their upper face.
    """

    frame: Frame
    clamp_nodes: np.ndarray
    mass_kg: FloatArray
    lines: dict[str, list[int]]
    top_mm: float


def rack_parts(rack: Rack) -> RackParts:
    """Raises InputError naming the field where a section by its own sheet lacks a value."""
    path = f"carriers.{rack.id}"
    frame_ready(rack.section, f"{path}.section")
    frame_ready(rack.bar_section, f"{path}.bar_section")
    with scope("rail"):
        rail = bar_strength(rack.section, rack.alloy, f"{path}.section")
    with scope("bar"):
        bar = bar_strength(rack.bar_section, rack.bar_alloy, f"{path}.bar_section")
    return RackParts(rail, bar)


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
    if kind == "angles":
        return 2 * one, 2 * one, 2 * one
    return one, one, 0.0  # one bolt: the bar swings about it


@dataclass(slots=True)
class _Nodes:
    """Nodes of a frame as they come."""

    places: list[tuple[float, float, float]] = field(default_factory=list)

    def along(self, cuts: list[float], at: tuple[float | None, float | None], z: float) -> dict[float, int]:
        """A node at each place (mm) of a line, those within a millimetre as one; ``at``: the fixed
        coordinate.
        """
        found: dict[float, int] = {}
        last = -np.inf
        for cut in sorted(cuts):
            if cut - last > SAME_PLACE_MM:
                self.places.append((cut if at[0] is None else at[0], cut if at[1] is None else at[1], z))
                last = cut
            found[cut] = len(self.places) - 1
        return found


def rack_frame(
    rack: Rack,
    parts: RackParts,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    clamps: tuple[FootPlace, ...],
    stiffest: bool,
) -> RackFrame:
    """The frame with feet and corners at one end of their range. Raises InputError where a bar crosses no
    rail.
    """
    _crossed(rack)
    nodes, bars, lines = _Nodes(), [], {}
    rail_z = rack.height.mm + rack.section.height.mm / 2
    bar_z = rack.height.mm + rack.section.height.mm + rack.bar_section.height.mm / 2
    on_rail: dict[str, dict[float, int]] = {}
    on_bar: dict[str, dict[float, int]] = {}
    for rail in rack.rails:
        standing = [f.x_mm for f in feet if rail_of(f) == rail.id]
        cuts = [rack.start.mm, rack.end.mm, *standing, *(b.x.mm for b in rack.bars)]
        on_rail[rail.id] = nodes.along(cuts, (None, rail.y.mm), rail_z)
        lines[rail.id] = _line(on_rail[rail.id])
        bars += [Bar(a, b, parts.rail.stiff, rail.id) for a, b in pairwise(lines[rail.id])]
    for bar in rack.bars:
        own = [c.y_mm for c in clamps if bar_of(c) == bar.id]
        cuts = [rack.port.mm, rack.starboard.mm, *own, *(r.y.mm for r in _under(rack))]
        on_bar[bar.id] = nodes.along(cuts, (bar.x.mm, None), bar_z)
        lines[bar.id] = _line(on_bar[bar.id])
        bars += [Bar(a, b, parts.bar.stiff, bar.id) for a, b in pairwise(lines[bar.id])]
    share, across = RANGE[stiffest], _across_n_mm(rack)
    firm = (BOLTED_N_MM,) * 3 + tuple(share * k for k in joint_springs(rack.joint, rack.angle_wall.mm))
    ties = tuple(
        Tie(on_rail[r.id][b.x.mm], on_bar[b.id][r.y.mm], firm, f"{r.id}{b.id}")  # type: ignore[arg-type]
        for r in _under(rack)
        for b in rack.bars
    )
    supports = tuple(
        Support(
            on_rail[rail_of(f)][f.x_mm],
            (f.x_mm, f.y_mm, rail_z),  # at the bolt of the upright: how the base tips, its chain says
            (share * IN_PLANE_N_MM, share * across, share * _up(chain, stiffest)),
            f.foot,
        )
        for f, chain in zip(feet, chains, strict=True)
    )
    frame = Frame(np.array(nodes.places), tuple(bars), ties, supports)
    clamp_nodes = np.array([on_bar[bar_of(c)][c.y_mm] for c in clamps], dtype=int)
    return RackFrame(frame, clamp_nodes, _masses(frame, rack, parts), lines, rack.bar_section.height.mm / 2)


def _across_n_mm(rack: Rack) -> float:
    """A foot's upright is a plate along the rail: across it bends."""
    bracket = rack.hold.bracket
    upright = upright_spring(
        BRACKET_MODULUS[bracket.metal],
        given(bracket.length.mm, "chosen", "bracket length"),
        given(bracket.thickness.mm, "chosen", "bracket thickness"),
        given(rack.height.mm + rack.section.height.mm / 2, "chosen", "bolt in the rail over the roof"),
    )
    return float(in_series(upright, given(IN_PLANE_N_MM, "default", "foot along the roof: judgement")))


def _up(chain: Chain, stiffest: bool) -> float:
    return chain.stiffest_n_mm if stiffest else chain.stiffness_n_mm


def rail_of(foot: FootPlace) -> str:
    """The rail that a foot of a carrier stands under."""
    return FOOT_NAME.sub("", foot.foot)


def bar_of(clamp: FootPlace) -> str:
    """The bar that a clamp sits on."""
    return clamp.foot.removesuffix("port").removesuffix("starboard")


def _under(rack: Rack) -> list[Rail]:
    """Rails that the bars reach."""
    return [r for r in rack.rails if rack.port.mm <= r.y.mm <= rack.starboard.mm]


def _crossed(rack: Rack) -> None:
    for bar in rack.bars:
        if not rack.start.mm <= bar.x.mm <= rack.end.mm:
            raise InputError(
                f"Bar {bar.id} lies beyond the rails of {rack.name}.",
                remedy="Move it over them, or let the rails reach it.",
                field=f"carriers.{rack.id}.bars.{bar.id}.x",
            )
    if len(_under(rack)) < 2:
        raise InputError(
            f"The bars of {rack.name} reach fewer than two rails.",
            remedy="Let them reach from rail to rail.",
            field=f"carriers.{rack.id}.port",
        )


def _line(at: dict[float, int]) -> list[int]:
    return list(dict.fromkeys(at[x] for x in sorted(at)))


def _masses(frame: Frame, rack: Rack, parts: RackParts) -> FloatArray:
    """Half of every bar's mass at each of its ends, kg."""
    mass = np.zeros(len(frame.nodes_mm))
    rails = {r.id for r in rack.rails}
    for bar in frame.bars:
        length = float(np.linalg.norm(frame.nodes_mm[bar.end] - frame.nodes_mm[bar.start]))
        per_m = parts.rail.mass_kg_m if bar.part in rails else parts.bar.mass_kg_m
        mass[[bar.start, bar.end]] += per_m * length / 2000
    return mass
