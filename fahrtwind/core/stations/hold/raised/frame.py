"""A frame that is raised with the panels in it, solved lying in its own plane: it hangs on hinges at the feet
of one rail, struts grip its bars and stand at the feet of the other.

What hinges and feet, struts, bars, corners and clamps get are straight lines in the pressure, with feet and
corners at either end of their range.
"""

from __future__ import annotations

from math import cos, radians, sin

import numpy as np

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.declare import scope
from fahrtwind.core.formulas.roof import GRAVITY
from fahrtwind.core.formulas.verdict import bending_limit_pressure
from fahrtwind.core.job.carrier import Carrier, Rack, Rail
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.alike import first_least, first_smallest
from fahrtwind.core.stations.hold.carriers.links import joint_chain
from fahrtwind.core.stations.hold.carriers.rack import (
    IN_PLANE_N_MM,
    RANGE,
    ClampPlace,
    Laid,
    Made,
    RackFrame,
    laid_out,
    rack_parts,
)
from fahrtwind.core.stations.hold.carriers.rack_forces import clamp_places
from fahrtwind.core.stations.hold.carriers.rack_verdict import Stressed, corner_reading
from fahrtwind.core.stations.hold.carriers.seams import Seam, seams_of
from fahrtwind.core.stations.hold.carriers.sections import MEMBER_FACTOR, bar_strength
from fahrtwind.core.stations.hold.carriers.sharing import Carried
from fahrtwind.core.stations.hold.forces import FloatArray
from fahrtwind.core.stations.hold.frame.model import Frame, Stiff, Support
from fahrtwind.core.stations.hold.frame.solve import Solved
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.raised.parts import (
    Blow,
    Line,
    RaisedPart,
    blows,
    ends_pa,
    gust_at,
    linked,
    part,
    sizes,
    weighed,
)
from fahrtwind.core.stations.hold.raised.statics import RaisedVerdict, strength, verdict_of
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect

BARELY_N_MM2, UPRIGHT_N_MM_RAD = 1e3, 1e6
"""A strut turns on its pins: it bends and twists next to nothing, and its foot does not turn about it."""
STRUT = "strut "


def raised_whole(
    raising: Raising, panels: tuple[PlacedPanel, ...], carriers: tuple[Carrier, ...]
) -> Rack | None:
    """The frame that is raised to a side with all that lies in it; None where the panels stand on feet of
    their own, or are raised off what carries them.
    """
    own = [p for p in panels if p.id in raising.panels]
    frame = next((c for c in carriers if own and c.id == own[0].carrier), None)
    if not isinstance(frame, Rack) or not frame.flush or frame.crossbars or frame.posts:
        return None
    lying = {p.id for p in panels if p.carrier == frame.id}
    alike = {(p.tilt.deg, p.tilt_up) for p in own}
    whole = lying == set(raising.panels) and len(alike) == 1 and own[0].tilt_up in ("port", "starboard")
    return frame if whole and len(frame.rails) == 2 else None


@dataclass(frozen=True, slots=True)
class Standing:
    """A frame that stands raised: on which rail its hinges are, which way it goes up from there, feet and
    chains under either rail.
    """

    rack: Rack
    raising: Raising
    tilt_deg: float
    out: float
    hinged: Rail
    freed: Rail
    feet: tuple[FootPlace, ...]
    chains: tuple[Chain, ...]

    @classmethod
    def of(
        cls,
        raising: Raising,
        rack: Rack,
        panel: PlacedPanel,
        feet: tuple[FootPlace, ...],
        chains: tuple[Chain, ...],
    ) -> Standing:
        """``panel``: any one in it."""
        port, starboard = sorted(rack.rails, key=lambda r: r.y.mm)
        to_port = panel.tilt_up == "port"
        hinged, freed = (starboard, port) if to_port else (port, starboard)
        return cls(rack, raising, panel.tilt.deg, -1.0 if to_port else 1.0, hinged, freed, feet, chains)

    @property
    def chord_mm(self) -> float:
        """Rail to rail."""
        return abs(self.freed.y.mm - self.hinged.y.mm)

    @property
    def base_mm(self) -> float:
        """The struts' feet from the hinges: under the raised rail where nothing else is said."""
        return self.raising.base.mm if self.raising.base else self.chord_mm

    @property
    def down(self) -> FloatArray:
        """What a kilogram weighs, in the frame's axes, N."""
        t = radians(self.tilt_deg)
        return np.array((0.0, -self.out * sin(t), -cos(t))) * GRAVITY

    @property
    def strut_mm(self) -> float:
        """Pin to pin."""
        u, n = self._strut()
        return float(np.hypot(u, n))

    def _strut(self) -> tuple[float, float]:
        """From its pin to its foot, in the frame's plane outward and across it, mm."""
        t = radians(self.tilt_deg)
        return self.base_mm * cos(t) - self.raising.at * self.chord_mm, -self.base_mm * sin(t)

    def under(self, rail: Rail) -> list[tuple[FootPlace, Chain]]:
        return [(f, c) for f, c in zip(self.feet, self.chains, strict=True) if f.line == rail.id]

    def grips(self) -> tuple[ClampPlace, ...]:
        """Where struts grip: alike far apart, each at a bar. Raises InputError where there are too few."""
        bars, count = sorted(self.rack.bars, key=lambda b: b.x.mm), self.raising.struts
        if count > len(bars):
            raise InputError(
                f"{self.raising.name} has {count} struts, its frame {len(bars)} bars that they could grip.",
                remedy="Fewer struts, or a bar for each.",
                field=f"raisings.{self.raising.id}.struts",
            )
        steps = [len(bars) // 2] if count == 1 else np.linspace(0, len(bars) - 1, count).round().astype(int)
        y = self.hinged.y.mm + self.out * self.raising.at * self.chord_mm
        return tuple((bars[int(i)].id, y) for i in steps)

    def beside_mm(self) -> list[tuple[str, float]]:
        """Of every bar that a strut grips how far the nearest foot under the raised rail is along it, mm."""
        at = {b.id: b.x.mm for b in self.rack.bars}
        feet = [f.x_mm for f, _ in self.under(self.freed)]
        return [(bar, min(abs(at[bar] - x) for x in feet)) for bar, _ in self.grips()]

    def level(self, force: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Forces in the frame's axes, (…, 3) in N, as what they are up and, by size, along the roof."""
        t, outward, normal = radians(self.tilt_deg), self.out * force[..., 1], force[..., 2]
        aside = np.abs(outward * cos(t) - normal * sin(t)) + np.abs(force[..., 0])
        return outward * sin(t) + normal * cos(t), aside

    def frame(self, clamps: tuple[ClampPlace, ...], stiffest: bool) -> tuple[RackFrame, FloatArray]:
        """Ready for loads, hinges before struts; and of every strut the way from its foot to its pin,
        (struts, 3), of length 1. Stiffnesses in N/mm. Raises InputError where it is no frame, has fewer bars
        than struts, or a section of its own has no values.
        """
        hinges = self.under(self.hinged)
        grips = self.grips()
        parts = rack_parts(self.rack)
        laid = laid_out(self.rack, parts, tuple(f for f, _ in hinges), (*clamps, *grips), stiffest)
        share = RANGE[stiffest]
        held = []
        for foot, chain in hinges:
            node = laid.on_rail[foot.line][foot.x_mm]
            up = share * (chain.stiffest_n_mm if stiffest else chain.stiffness_n_mm)
            springs = (share * IN_PLANE_N_MM, up, up)
            held.append(Support(node, laid.build.places[node], springs, foot.foot))
        ways = []
        softest = share * min(c.stiffness_n_mm for _, c in self.under(self.freed))
        made = self._made()
        for i, grip in enumerate(grips, start=1):
            way = self._add_strut(laid, made, f"{STRUT}{i}", grip)
            base = len(laid.build.places) - 1
            turning = (UPRIGHT_N_MM_RAD,) * 3
            held.append(Support(base, laid.build.places[base], (softest,) * 3, f"{STRUT}{i}", turning))
            ways.append(way)
        build = laid.build
        frame = Frame(np.array(build.places), tuple(build.bars), laid.ties, tuple(held))
        return laid.ready(self.rack, frame, clamps), np.array(ways)

    def _made(self) -> Made:
        with scope("strut of the frame"):
            bar = bar_strength(self.raising.strut, self.raising.alloy, f"raisings.{self.raising.id}.strut")
        stiff = Stiff(bar.stiff.axial_n, BARELY_N_MM2, BARELY_N_MM2, BARELY_N_MM2)
        return Made(replace(bar, stiff=stiff), self.raising.alloy, self.raising.strut, "up")

    def _add_strut(self, laid: Laid, made: Made, name: str, grip: ClampPlace) -> FloatArray:
        """Its way from foot to pin, of length 1."""
        node = laid.on_bar[grip[0]][grip[1]]
        x, y, z = laid.build.places[node]
        outward, across = self._strut()
        laid.build.leg(name, made, node, (x, y + self.out * outward, z + across))
        return np.array((0.0, -self.out * outward, -across)) / self.strut_mm


@dataclass(frozen=True, slots=True, eq=False)
class _OnClamps:
    """What the panels hand to their clamps, in the frame's axes: weight (clamps, 3) in N, air (blows, clamps)
    in N/Pa, away from the roof.
    """

    weight: FloatArray
    air: FloatArray


def _on_clamps(standing: Standing, carried: tuple[Carried, ...], air: tuple[Blow, ...]) -> _OnClamps:
    """The air's pressure is a plane over all panels whose middle is where the blow says; each panel hands it
    to its two sides as a board on two edges, a side to its clamps alike.
    """
    low = min(c.rect.y_mm for c in carried)
    high = max(c.rect.y_end_mm for c in carried)
    weight, blown = [], []
    for panel in carried:
        out = panel.rect.y_mm - low if standing.out > 0 else high - panel.rect.y_end_mm
        near, far = _on_sides(panel.rect, out, high - low, air)
        inner = "port" if standing.out > 0 else "starboard"
        alike = {side: sum(c.side == side for c in panel.clamps) for side in ("port", "starboard")}
        for clamp in panel.clamps:
            weight.append(standing.down * panel.mass_kg / len(panel.clamps))
            blown.append((near if clamp.side == inner else far) / alike[clamp.side])
    return _OnClamps(np.array(weight), np.array(blown).T)


def _on_sides(
    rect: Rect, out_mm: float, chord_mm: float, air: tuple[Blow, ...]
) -> tuple[FloatArray, FloatArray]:
    """On the side towards the hinge and the other, N/Pa, (blows,) each; the panel begins at ``out_mm``."""
    coefficient = np.array([b.coefficient for b in air])
    lean = 6 * (np.array([b.centre for b in air]) - 0.5)  # p = c · (1 + lean · (2 s / chord − 1))
    width = rect.width_mm
    end = out_mm + width
    whole = (1 - lean) * width + lean / chord_mm * (end**2 - out_mm**2)
    squares, cubes = (end**2 - out_mm**2) / 2, (end**3 - out_mm**3) / 3
    turning = (1 - lean) * width**2 / 2 + 2 * lean / chord_mm * (cubes - out_mm * squares)
    area = rect.length_mm * 1e-6
    far = coefficient * area * turning / width
    return coefficient * area * whole - far, far


def _loads(frame: RackFrame, on: _OnClamps, down: FloatArray) -> FloatArray:
    """Weight, then one pascal of every blow: (1 + blows, nodes, 6). Clamps bear at the bars' upper face."""
    rows = np.zeros((1 + len(on.air), len(frame.mass_kg), 6))
    rows[0, :, :3] = frame.mass_kg[:, None] * down
    np.add.at(rows[0, :, :3], frame.clamp_nodes, on.weight)
    np.add.at(rows[0, :, 3], frame.clamp_nodes, -frame.top_mm * on.weight[:, 1])
    for row, air in zip(rows[1:], on.air, strict=True):
        np.add.at(row[:, 2], frame.clamp_nodes, air)
    return rows


@dataclass(frozen=True, slots=True, eq=False)
class _Span:
    """A frame at one end of its range under all loads."""

    frame: RackFrame
    ways: FloatArray
    solved: Solved


def judge_frame(
    standing: Standing,
    carried: tuple[Carried, ...],
    clamp_chains: tuple[Chain, ...],
    gust_pa: float,
    road_pull_n: float,
) -> RaisedVerdict:
    """``clamp_chains``: of the panels' clamps; ``gust_pa``: of the site; ``road_pull_n``: on the raised side
    on the road. Raises InputError where it is no frame, or has too few bars for its struts.
    """
    clamps, air = clamp_places(carried), blows(standing.tilt_deg)
    on = _on_clamps(standing, carried, air)
    spans = []
    for stiffest in (False, True):
        frame, ways = standing.frame(clamps, stiffest)
        spans.append(_Span(frame, ways, frame.ready.under(_loads(frame, on, standing.down))))
    found = (
        *_on_the_roof(standing, spans, gust_pa),
        _bent(standing.rack, spans, gust_pa),
        *_corners(standing.rack, spans, gust_pa),
        _clamped(on, clamp_chains, gust_pa),
    )
    lengths = standing.chord_mm, standing.strut_mm
    hung = standing.rack.id, len(standing.under(standing.hinged))
    return verdict_of(standing.raising, found, lengths, road_pull_n, hung)


def _line(parts: list[FloatArray]) -> Line:
    """Of both ends of the range, (1 + blows, …) each: constants beside what one pascal adds, case by case."""
    constant = [np.repeat(p[:1], len(p) - 1, axis=0) for p in parts]
    return np.concatenate(constant), np.concatenate([p[1:] for p in parts])


def _on_the_roof(standing: Standing, spans: list[_Span], gust_pa: float) -> tuple[RaisedPart, ...]:
    """Struts, hinges and the feet under both."""
    first = len(standing.under(standing.hinged))
    hinges = _line([s.solved.on_support[0, :, :first, :3] for s in spans])
    stood = [s.solved.on_support[0, :, first:, :3] for s in spans]
    pulled = _line([(f * s.ways).sum(axis=-1) for f, s in zip(stood, spans, strict=True)])
    bears = strength(standing.raising, standing.strut_mm)
    return (
        part("strut pulled", pulled, bears.pulled_n, gust_pa),
        part("strut pushed", (-pulled[0], -pulled[1]), bears.pushed_n, gust_pa),
        part("pin of a hinge", sizes(hinges), bears.pin_n, gust_pa),
        _foot("foot under a hinge", standing, hinges, standing.hinged, gust_pa),
        _foot("foot under a strut", standing, _line(stood), standing.freed, gust_pa),
    )


def _foot(name: str, standing: Standing, forces: Line, rail: Rail, gust_pa: float) -> RaisedPart:
    (up, aside), (up_pa, aside_pa) = (standing.level(f) for f in forces)
    return linked(name, (up, up_pa), (aside, aside_pa), [c for _, c in standing.under(rail)], gust_pa)


def _bent(rack: Rack, spans: list[_Span], gust_pa: float) -> RaisedPart:
    """The rail or bar that bends most for what it is."""
    stressed = Stressed.of(rack, spans[0].frame)
    (up, rest), (up_pa, rest_pa) = (stressed.stress(f) for f in _line([s.solved.in_bar[0] for s in spans]))
    bears = stressed.yield_n_mm2 / MEMBER_FACTOR
    limit = np.asarray(bending_limit_pressure(up, up_pa, rest, rest_pa, bears[:, None])).min(axis=(0, 2))
    now = (np.abs(up + gust_pa * up_pa) + rest + gust_pa * rest_pa).max(axis=(0, 2))
    lines = {name: own for name, own in stressed.own.items() if not name.startswith(STRUT)}
    name = list(lines)[first_smallest(np.array([limit[own].min() for own in lines.values()]))]
    own = lines[name]
    called = f"{'rail' if any(name == r.id for r in rack.rails) else 'bar'} {name} of the frame"
    worst = own[int(limit[own].argmin())]
    with scope(called):
        gust = gust_at(float(limit[worst]))
    return RaisedPart(called, float(now[own].max()), float(bears[worst]), gust, "N/mm²")


def _corners(rack: Rack, spans: list[_Span], gust_pa: float) -> list[RaisedPart]:
    """The corner that goes first: its bolts, or its weld where somebody told the throat."""
    ties = _line([s.solved.in_tie[0] for s in spans])
    if rack.joint == "welded":
        bars = _line([s.solved.in_bar[0] for s in spans])
        welds = [_weld(seam, ties, bars, gust_pa) for seam in seams_of(rack, spans[0].frame)]
        return [first_least(welds, lambda p: p.gust_m_s)] if welds else []
    pull, along = corner_reading(rack)
    pulled, aside = (pull(ties[0]), pull(ties[1])), (along(ties[0]), along(ties[1]))
    with scope("corner"):
        chain = joint_chain(rack)
    line, bears = weighed(pulled, aside, [chain])
    first = first_smallest(ends_pa(line, bears))
    name = f"corner {spans[0].frame.frame.ties[first].name} of the frame"
    return [part(name, (line[0][:, first], line[1][:, first]), bears, gust_pa)]


def _weld(seam: Seam, ties: Line, bars: Line, gust_pa: float) -> RaisedPart:
    line = seam.of(ties[0], bars[0]), seam.of(ties[1], bars[1])
    return part(f"weld {seam.name} of the frame", line, seam.bears / seam.factor, gust_pa, "N/mm²")


def _clamped(on: _OnClamps, chains: tuple[Chain, ...], gust_pa: float) -> RaisedPart:
    constant = np.broadcast_to(on.weight[None, :, 2], on.air.shape)
    aside = np.broadcast_to(np.abs(on.weight[None, :, 1]), on.air.shape)
    none = np.zeros_like(on.air)
    return linked("clamp of a panel", (constant, on.air), (aside, none), chains, gust_pa)
