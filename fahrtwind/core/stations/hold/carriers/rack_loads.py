"""What pulls at a rack: wind on its panels and on what sticks out, weight, landing, somebody who hangs on it,
as loads at the nodes of its frame.
"""

from __future__ import annotations

import numpy as np

from fahrtwind.core.formulas.air import slipstream_drag
from fahrtwind.core.formulas.declare import given
from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.panel import OuterFoot
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.rack import RackFrame
from fahrtwind.core.stations.hold.carriers.sharing import Carried
from fahrtwind.core.stations.hold.frame.model import FloatArray
from fahrtwind.core.stations.hold.loads import CASES, DRAG_COEFFICIENT, HEADING, case_forces, standing_force
from fahrtwind.core.stations.hold.zones import WINDS

LANDING_G = 2.0
"""After a bump the load comes down: 2 g on paved roads, common practice."""
CRUISING = 0
COUNTED_WEIGHT = 0.6


NOTHING = -1
"""The row of no force at all."""


@dataclass(frozen=True, slots=True, eq=False)
class Rows:
    """Which rows of what was solved make up situations: of each model every constant, (m, c), with every part
    per pascal, (m, w).
    """

    constant: np.ndarray
    per_pa: np.ndarray

    def situations(self) -> tuple[np.ndarray, np.ndarray]:
        """The constant and the part per pascal of each, (m · c · w,)."""
        constant, per_pa = np.broadcast_arrays(self.constant[:, :, None], self.per_pa[:, None, :])
        return constant.ravel(), per_pa.ravel()


@dataclass(frozen=True, slots=True, eq=False)
class Loads:
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

    def road_rows(self) -> tuple[Rows, Rows]:
        """Every case of every model, then the landing, which no wind adds to."""
        m, c = self.road.shape[:2]
        road_pa, typical, *_, landing, end = self.cuts()
        cases = np.arange(road_pa).reshape(m, c)
        return (
            Rows(cases, np.arange(road_pa, typical)[:, None]),
            Rows(np.arange(landing, end)[:, None], np.full((m, 1), NOTHING)),
        )

    def parked_rows(self) -> tuple[Rows]:
        """Every wind of every model."""
        _, _, parked, parked_pa, landing, _ = self.cuts()
        winds = np.arange(parked_pa, landing).reshape(*self.parked_pa.shape[:2])
        return (Rows(np.arange(parked, parked_pa)[:, None], winds),)


def loads_of(rack: Rack, frame: RackFrame, carried: tuple[Carried, ...], bump_g: float) -> Loads:
    """Of a rack with panels on it; ``bump_g`` in g, loads in N and N·mm."""
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
    drag = drag_of(rack, frame, carried)  # (1 + winds, nodes, 2)
    none = np.zeros((along.shape[1], 2))

    def at_nodes(pull: FloatArray, level: FloatArray) -> FloatArray:
        return _at_nodes(frame, pull, level)

    down = (1 + LANDING_G) / COUNTED_WEIGHT
    weight = at_nodes(road[:, CRUISING], none) + _spread(standing)
    return Loads(
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


def drag_of(rack: Rack, frame: RackFrame, carried: tuple[Carried, ...]) -> FloatArray:
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
