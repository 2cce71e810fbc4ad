"""What wind, road and weight do to a rack: forces on its feet, in its corners and in its bars, straight lines
in the pressure, with all feet and with each lost.
"""

from __future__ import annotations

from functools import cached_property

import numpy as np

from fahrtwind.core.formulas.bolts import moment_pull
from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.panel import BasePlate
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.rack import (
    ENDS,
    RANGE,
    ClampPlace,
    RackFrame,
    rack_frame,
    rack_parts,
)
from fahrtwind.core.stations.hold.carriers.rack_loads import NOTHING, Loads, Rows, loads_of
from fahrtwind.core.stations.hold.carriers.sharing import Carried
from fahrtwind.core.stations.hold.forces import Forces
from fahrtwind.core.stations.hold.frame.model import FloatArray
from fahrtwind.core.stations.hold.frame.solve import Solved
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.schools.base_plate.chain import lever_mm
from fahrtwind.core.stations.hold.sharing import variants
from fahrtwind.core.stations.layout.feet import FootPlace


@dataclass(frozen=True, slots=True, eq=False)
class Linear:
    """Forces as constant and per pascal; both (v, s, parts, components)."""

    constant: FloatArray
    per_pa: FloatArray

    def only(self, start: int, end: int) -> Linear:
        """Of some of the parts."""
        return Linear(self.constant[:, :, start:end], self.per_pa[:, :, start:end])


@dataclass(frozen=True, eq=False)
class BarForces:
    """At the ends of every piece of a bar: ``solved``, (v, rows, pieces, 12), of the frame at its softest and
    at its stiffest, and which ``rows`` make up the situations. A row serves several of them: what is large
    stays where it was solved.
    """

    solved: tuple[FloatArray, ...]
    rows: tuple[Rows, ...]

    @cached_property
    def linear(self) -> Linear:
        """All written out: (v, s, pieces, 12)."""
        spans = [[taken(part, at) for part in self.solved] for at in self._situations]
        return Linear(*(np.concatenate(parts, axis=1) for parts in spans))

    def under(self, pressure_pa: float) -> FloatArray:
        """With all feet there, N and N·mm: (s, pieces, 12)."""
        whole = [part[:1] for part in self.solved]
        constant, per_pa = ([taken(part, at)[0] for part in whole] for at in self._situations)
        return np.concatenate([c + p * pressure_pa for c, p in zip(constant, per_pa, strict=True)])

    @property
    def _situations(self) -> tuple[np.ndarray, np.ndarray]:
        constant, per_pa = zip(*(rows.situations() for rows in self.rows), strict=True)
        return np.concatenate(constant), np.concatenate(per_pa)


def taken(part: FloatArray, at: np.ndarray) -> FloatArray:
    """Rows of a part, (v, rows, …), as ``at`` arranges them; no force where there is none."""
    found = part[:, at]
    found[:, at == NOTHING] = 0.0
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
    loads = loads_of(rack, frames[0], carried, bump_g)
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


def _grabbed(rack: Rack, spans: list[_Span], count: int) -> Grabbed | None:
    if not count:
        return None
    on = np.concatenate([s.solved.on_support[0, -count - 1 : -1] for s in spans])
    bars = np.concatenate([s.solved.in_bar[0, -count - 1 : -1] for s in spans])
    return Grabbed(*_on_feet(rack, on), bars)


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
    def of(cls, frame: RackFrame, loads: Loads) -> _Span:
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
        base.same_wind,
    )
