"""What wind, road and weight do to a rack: forces on its feet, in its corners and in its bars, straight lines
in the pressure, with all feet and with each lost.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from fahrtwind.core.formulas.air import slipstream_drag
from fahrtwind.core.formulas.bolts import moment_pull
from fahrtwind.core.formulas.declare import given
from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.stations.hold.carriers.rack import (
    ENDS,
    RANGE,
    ClampPlace,
    RackFrame,
    rack_frame,
    rack_parts,
)
from fahrtwind.core.stations.hold.carriers.sharing import Carried
from fahrtwind.core.stations.hold.forces import Forces
from fahrtwind.core.stations.hold.frame.model import FloatArray
from fahrtwind.core.stations.hold.frame.solve import Solved
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.loads import CASES, DRAG_COEFFICIENT, HEADING, case_forces, standing_force
from fahrtwind.core.stations.hold.schools.base_plate.chain import lever_mm
from fahrtwind.core.stations.hold.sharing import variants
from fahrtwind.core.stations.hold.zones import WINDS
from fahrtwind.core.stations.layout.feet import FootPlace

LANDING_G = 2.0
"""After a bump the load comes down: 2 g on paved roads, common practice."""
CRUISING = 0
COUNTED_WEIGHT = 0.6


@dataclass(frozen=True, slots=True, eq=False)
class Linear:
    """Forces as constant and per pascal; both (v, s, parts, components)."""

    constant: FloatArray
    per_pa: FloatArray

    def only(self, start: int, end: int) -> Linear:
        """Of some of the parts."""
        return Linear(self.constant[:, :, start:end], self.per_pa[:, :, start:end])


Rows = tuple[np.ndarray, np.ndarray]
"""Which rows of what was solved are the constant of each situation, and which its part per pascal; -1: none.
"""


@dataclass(frozen=True, eq=False)
class BarForces:
    """At the ends of every piece of a bar: ``solved``, (v, rows, pieces, 12), of the frame at its softest and
    at its stiffest, and which ``rows`` make up the situations. A row serves several of them: what is large
    stays where it was solved.
    """

    solved: tuple[FloatArray, ...]
    rows: Rows

    @cached_property
    def linear(self) -> Linear:
        """All written out: (v, s, pieces, 12)."""
        spans = [[taken(part, at) for part in self.solved] for at in self.rows]
        return Linear(*(np.concatenate(parts, axis=1) for parts in spans))

    def under(self, pressure_pa: float) -> FloatArray:
        """With all feet there, (s, pieces, 12)."""
        whole = [part[:1] for part in self.solved]
        constant, per_pa = ([taken(part, at)[0] for part in whole] for at in self.rows)
        return np.concatenate([c + p * pressure_pa for c, p in zip(constant, per_pa, strict=True)])


def taken(part: FloatArray, at: np.ndarray) -> FloatArray:
    """Rows of a part, (v, rows, …); nothing where there is none."""
    found = part[:, at]
    found[:, at < 0] = 0.0
    return np.asarray(found)


@dataclass(frozen=True, slots=True, eq=False)
class RackForces:
    """Of a rack. ``road`` and ``parked``: on its feet; ``ties_…``: in its corners, what the rail does to the
    bar; ``bars_…``: at the ends of every piece of a bar; the last situations of both on the road are the
    landing after a bump, of corners with all feet. ``frame``: at its softest, for places; ``sag_mm``:
    (nodes,), under its weight alone, skin between members pressed in as a membrane.
    """

    road: Forces
    parked: Forces
    ties_road: Linear
    ties_parked: Linear
    bars_road: BarForces
    bars_parked: BarForces
    frame: RackFrame
    sag_mm: FloatArray
    cases: tuple[str, ...]
    grabbed: Grabbed | None


@dataclass(frozen=True, slots=True, eq=False)
class Grabbed:
    """Somebody hangs on a rack on posts, in every way, at both ends of the range: pull and force along at its
    feet, (ways, feet), forces at the ends of its bars, (ways, bars, 12).
    """

    pull_n: FloatArray
    along_n: FloatArray
    bars: FloatArray


def clamp_places(carried: tuple[Carried, ...]) -> tuple[ClampPlace, ...]:
    """Of all panels, panel by panel. A panel that moves along the roof changes none of them."""
    return tuple((c.line, c.y_mm) for part in carried for c in part.clamps)


def rack_frames(
    rack: Rack, feet: tuple[FootPlace, ...], chains: tuple[Chain, ...], clamps: tuple[ClampPlace, ...]
) -> tuple[RackFrame, RackFrame]:
    """At its softest and at its stiffest. Raises InputError where it is no frame, or moves."""
    parts = rack_parts(rack)
    soft, stiff = (rack_frame(rack, parts, feet, chains, clamps, stiffest) for stiffest in (False, True))
    return soft, stiff


def share_rack(
    rack: Rack, frames: tuple[RackFrame, RackFrame], carried: tuple[Carried, ...], bump_g: float
) -> RackForces:
    """Of a rack with feet and at least one panel on it."""
    loads = _loads(rack, frames[0], carried, bump_g)
    spans = [_Span.of(frame, loads) for frame in frames]
    bars = tuple(s.solved.in_bar for s in spans)
    base = carried[0].shared
    models = tuple(dict.fromkeys(base.road.models))
    names = tuple(f"{model}, {end}" for end in ENDS for model in models)
    softest = spans[0].solved
    return RackForces(
        _feet(rack, base.road, names, [s.road for s in spans], [s.typical for s in spans]),
        _feet(rack, base.parked, names, [s.parked for s in spans], [s.parked for s in spans]),
        _joined([s.ties_road for s in spans]),
        _joined([s.ties_parked for s in spans]),
        BarForces(bars, loads.road_rows()),
        BarForces(bars, loads.parked_rows()),
        frames[0],
        _sag(frames, softest),
        base.road.cases,
        _grabbed(rack, spans, len(loads.grab)),
    )


def _sag(frames: tuple[RackFrame, RackFrame], softest: Solved) -> FloatArray:
    """How far every node moves under the weight, mm. Skin that gives a little at first soon bears as a
    membrane: feet go down by what the stiff end of their range gives, halved, and the frame leans with them.
    """
    soft, stiff = (np.array([s.springs[2] for s in f.frame.supports]) for f in frames)
    pulled = softest.on_support[0, -1, :, 2]
    deeper = pulled / (stiff * RANGE[0] / RANGE[1]) - pulled / soft
    at = np.array([(*s.at_mm[:2], 1.0) for s in frames[0].frame.supports])
    lean = np.linalg.lstsq(at, deeper, rcond=None)[0]
    plan = np.column_stack([frames[0].frame.nodes_mm[:, :2], np.ones(len(frames[0].mass_kg))])
    return np.asarray(softest.moved[-1, :, 2] + plan @ lean)


def _grabs(rack: Rack, frame: RackFrame) -> FloatArray:
    """A person's pull at each end of each rail, to every side and down, one at a time: (ways, nodes, 6)."""
    pull = rack.posts.grab_n if rack.posts else 0.0
    if not pull:
        return np.zeros((0, len(frame.mass_kg), 6))
    corners = [frame.lines[r.id][end] for r in rack.rails for end in (0, -1)]
    rows = np.zeros((len(corners) * len(WAYS), len(frame.mass_kg), 6))
    for i, (corner, way) in enumerate((c, w) for c in corners for w in WAYS):
        rows[i, corner, :3] = np.array(way) * pull
    return rows


def _grabbed(rack: Rack, spans: list[_Span], count: int) -> Grabbed | None:
    if not count:
        return None
    on = np.concatenate([s.solved.on_support[0, -count - 1 : -1] for s in spans])
    bars = np.concatenate([s.solved.in_bar[0, -count - 1 : -1] for s in spans])
    return Grabbed(*_on_feet(rack, on), bars)


@dataclass(frozen=True, slots=True, eq=False)
class _Loads:
    """Loads at the nodes, each (…, nodes, 6): constants of the road by model and case, of one pascal by model
    (cautious, then at the typical end), parked by model, and by model and wind; landing; somebody who hangs
    on it; weight alone, one row.
    """

    road: FloatArray
    road_pa: FloatArray
    typical_pa: FloatArray
    parked: FloatArray
    parked_pa: FloatArray
    landing: FloatArray
    grab: FloatArray
    own_weight: FloatArray

    def rows(self) -> FloatArray:
        """All of them one after the other, N and N·mm: (loads, nodes, 6)."""
        flat = (
            part.reshape(-1, *part.shape[-2:])
            for part in (
                self.road,
                self.road_pa,
                self.typical_pa,
                self.parked,
                self.parked_pa,
                self.landing,
                self.grab,
                self.own_weight,
            )
        )
        return np.concatenate(list(flat))

    def cuts(self) -> np.ndarray:
        """The first row of each kind but the first: of one pascal, typical, parked, of one pascal parked,
        landing, what follows.
        """
        m, c, w = self.road.shape[0], self.road.shape[1], self.parked_pa.shape[1]
        return np.cumsum([m * c, m, m, m, m * w, m])

    def road_rows(self) -> Rows:
        """Every case of every model, then the landing, which no wind adds to."""
        m, c = self.road.shape[:2]
        road_pa, *_, landing, end = self.cuts()
        per_pa = np.concatenate([np.repeat(road_pa + np.arange(m), c), np.full(end - landing, -1)])
        return np.concatenate([np.arange(m * c), np.arange(landing, end)]), per_pa

    def parked_rows(self) -> Rows:
        """Every wind of every model."""
        w = self.parked_pa.shape[1]
        _, _, parked, parked_pa, landing, _ = self.cuts()
        return np.repeat(np.arange(parked, parked_pa), w), np.arange(parked_pa, landing)


def _loads(rack: Rack, frame: RackFrame, carried: tuple[Carried, ...], bump_g: float) -> _Loads:
    cases, winds = len(CASES), len(WINDS)
    models = len(carried[0].shared.road.models) // cases
    # pulls of all clamps, panel by panel: (models, cases, clamps) and so on
    road = _pulls([c.shared.road.pull_constant[0] for c in carried], (models, cases))
    road_pa = _pulls([c.shared.road.pull_per_pa[0] for c in carried], (models, cases))[:, 0]
    typical = _pulls([c.shared.road.pull_typical[0] for c in carried], (models, cases))[:, 0]
    parked = _pulls([c.shared.parked.pull_constant[0] for c in carried], (models, winds))[:, 0]
    parked_pa = _pulls([c.shared.parked.pull_per_pa[0] for c in carried], (models, winds))
    along = np.concatenate([_along(c) for c in carried], axis=1)  # (cases + 1 + winds, clamps, 2)
    mass = frame.mass_kg
    inertia = mass[None, :, None] * case_forces(1.0, bump_g)[:, None, :]  # (cases, nodes, 3)
    standing = mass[:, None] * standing_force(1.0)[0]
    drag = _drag(rack, frame, carried)  # (1 + winds, nodes, 2)
    none = np.zeros((along.shape[1], 2))

    def at_nodes(pull: FloatArray, level: FloatArray) -> FloatArray:
        return _at_nodes(frame, pull, level)

    down = (1 + LANDING_G) / COUNTED_WEIGHT
    weight = at_nodes(road[:, CRUISING], none) + _spread(standing)
    return _Loads(
        np.stack([at_nodes(road[:, c], along[c]) + _spread(inertia[c]) for c in range(cases)], axis=1),
        at_nodes(road_pa, along[cases]) + _spread(drag[0]),
        at_nodes(typical, along[cases]) + _spread(drag[0]),
        at_nodes(parked, none) + _spread(standing),
        np.stack(
            [at_nodes(parked_pa[:, w], along[cases + 1 + w]) + _spread(drag[1 + w]) for w in range(winds)],
            axis=1,
        ),
        down * weight,
        _grabs(rack, frame),
        weight[:1] / COUNTED_WEIGHT,
    )


def _pulls(parts: list[FloatArray], shape: tuple[int, int]) -> FloatArray:
    return np.concatenate([p.reshape(*shape, -1) for p in parts], axis=2)


def _along(carried: Carried) -> FloatArray:
    """Forces along the roof at every clamp, aft and to starboard: (rows, clamps, 2)."""
    shear = carried.shared.shear
    aft = shear.along_n[0][:, None] - shear.twist_n_mm[0][:, None] * shear.y_mm[0][None, :]
    across = shear.across_n[0][:, None] + shear.twist_n_mm[0][:, None] * shear.x_mm[0][None, :]
    return np.stack([aft, across], axis=2)


def _at_nodes(frame: RackFrame, pull: FloatArray, level: FloatArray) -> FloatArray:
    """Clamps pull up (models, clamps) and along (clamps, 2) at the bars' upper face: (models, nodes, 6)."""
    found = np.zeros((len(pull), len(frame.mass_kg), 6))
    on_node = np.zeros((len(frame.clamp_nodes), len(frame.mass_kg)))
    on_node[np.arange(len(frame.clamp_nodes)), frame.clamp_nodes] = 1.0
    found[:, :, 2] = pull @ on_node
    aft, across = level.T @ on_node
    top = frame.top_mm
    for which, part in ((0, aft), (1, across), (3, -top * across), (4, top * aft)):
        found[:, :, which] = part
    return found


def _spread(force: FloatArray) -> FloatArray:
    """Forces at the nodes, (nodes, 2 or 3), as loads (nodes, 6)."""
    return np.hstack([force, np.zeros((len(force), 6 - force.shape[1]))])


LEAST_OUT_MM = 10.0
"""What sticks out by less is not in the stream."""
WAYS = ((1.0, 0.0, 0.0), (-1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, -1.0, 0.0), (0.0, 0.0, -1.0))


def _drag(rack: Rack, frame: RackFrame, carried: tuple[Carried, ...]) -> FloatArray:
    """Of one pascal from the front, and from each wind while parked, on what sticks out from under panels:
    bars in wind along the roof, rails in wind across it, posts in any; (1 + winds, nodes, 2). The bars of a
    frame round panels stand in it with their whole length, and so do crossbars below them.
    """
    rects = [] if rack.flush else [c.rect for c in carried]
    over_y = _covered([(r.y_mm, r.y_end_mm) for r in rects], rack.port.mm, rack.starboard.mm)
    over_x = _covered([(r.x_mm, r.x_end_mm) for r in rects], rack.start.mm, rack.end.mm)
    out_y = rack.starboard.mm - rack.port.mm - over_y
    out_x = rack.end.mm - rack.start.mm - over_x
    coefficient = given(DRAG_COEFFICIENT, "default", "bars and rails in the stream: judgement, cautious end")
    below = rack.hold.below.mm if isinstance(rack.hold, OuterFoot) else 0.0
    under = frame.lines.keys() - set(rack.own_lines) if rack.crossbars else set()
    reach = rack.crossbars.starboard_mm - rack.crossbars.port_mm if rack.crossbars else 0.0
    found = np.zeros((1 + len(WINDS), len(frame.mass_kg), 2))
    for row, wind in enumerate(("front", *WINDS)):
        heading = HEADING[wind]
        hit = "along" if wind in ("port", "starboard") else "across"
        out = {"along": out_x, "across": out_y, "up": rack.height.mm + below}
        for name, nodes in frame.lines.items():
            made = frame.made_of[name]
            if made.runs not in (hit, "up"):
                continue
            size, height = reach if name in under else out[made.runs], made.section.height.mm
            if size < LEAST_OUT_MM:
                continue
            push = float(slipstream_drag(1.0, coefficient, size, max(height, 1.0)))
            ends = [nodes[0], nodes[-1]]
            found[row, ends] += np.array(heading) * push / 2
    return found


def _covered(spans: list[tuple[float, float]], low: float, high: float) -> float:
    """How much of a stretch lies under any of the spans."""
    total, reached = 0.0, low
    for start, end in sorted(spans):
        a, b = max(start, reached), min(end, high)
        if b > a:
            total += b - a
            reached = b
    return total


@dataclass(frozen=True, slots=True, eq=False)
class _Span:
    """One frame solved for all loads, taken apart again: (v, s, parts, components)."""

    solved: Solved
    road: Linear
    typical: Linear
    parked: Linear
    ties_road: Linear
    ties_parked: Linear

    @classmethod
    def of(cls, frame: RackFrame, loads: _Loads) -> _Span:
        """Of a frame under these loads, N and N·mm."""
        solved = frame.ready.under(loads.rows())
        c, w = loads.road.shape[1], loads.parked_pa.shape[1]
        cuts = loads.cuts()

        def parts(whole: FloatArray) -> tuple[Linear, Linear, Linear, FloatArray]:
            road, road_pa, typical, parked, parked_pa, landing, _ = np.split(whole, cuts, axis=1)
            return (
                Linear(road, np.repeat(road_pa, c, axis=1)),
                Linear(road, np.repeat(typical, c, axis=1)),
                Linear(np.repeat(parked, w, axis=1), parked_pa),
                landing,
            )

        on_feet, ties = parts(solved.on_support), parts(solved.in_tie)
        return cls(solved, *on_feet[:3], _landing(ties[0], _all_there(ties[3])), ties[2])


def _all_there(landing: FloatArray) -> FloatArray:
    """With all feet only: who drives home slowly on a rack that has lost one keeps out of potholes."""
    found = np.zeros_like(landing)
    found[0] = landing[0]
    return found


def _landing(road: Linear, landing: FloatArray) -> Linear:
    return Linear(
        np.concatenate([road.constant, landing], axis=1),
        np.concatenate([road.per_pa, np.zeros_like(landing)], axis=1),
    )


def _joined(spans: list[Linear]) -> Linear:
    return Linear(
        np.concatenate([s.constant for s in spans], axis=1), np.concatenate([s.per_pa for s in spans], axis=1)
    )


def _on_feet(rack: Rack, part: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Pull on feet and the size of the force along them, (…, feet) each. Where posts turn their base plates
    the moment counts as the pull that loads a bolt as much, by its size.
    """
    pull = part[..., 2]
    if isinstance(rack.hold, BasePlate):
        moment = np.abs(part[..., 3]) + np.abs(part[..., 4])
        pull = np.asarray(moment_pull(pull, moment, lever_mm(rack.hold)))
    return pull, np.hypot(part[..., 0], part[..., 1])


def _feet(
    rack: Rack, base: Forces, models: tuple[str, ...], spans: list[Linear], typical: list[Linear]
) -> Forces:
    """What the frame does to its feet: pull, and the size of the force along the roof (sizes of the constant
    part and of the part per pascal added up, on the safe side).
    """
    whole = _joined(spans)
    count = whole.constant.shape[2]
    stable = np.asarray(np.isfinite(whole.constant).all(axis=(1, 2, 3)), dtype=np.bool_)
    constant, per_pa = np.nan_to_num(whole.constant), np.nan_to_num(whole.per_pa)
    at_typical, _ = _on_feet(rack, np.nan_to_num(_joined(typical).per_pa))
    (pull, along), (pull_pa, along_pa) = _on_feet(rack, constant), _on_feet(rack, per_pa)
    return Forces(
        base.cases * len(spans),
        tuple(model for model in models for _ in range(len(set(base.cases)))),
        pull,
        pull_pa,
        at_typical,
        along,
        along_pa,
        stable,
        variants(count),
    )
