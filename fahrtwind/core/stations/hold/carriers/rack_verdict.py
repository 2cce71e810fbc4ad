"""Will a rack hold? Its feet, its corners and its bars, on the road and parked, also with each foot lost."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

import numpy as np

from fahrtwind.core.formulas.air import speed_at_pressure
from fahrtwind.core.formulas.joints import humming_wind, rayleigh_frequency, turning_force
from fahrtwind.core.formulas.verdict import bending_limit_pressure, utilisation
from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.sections import RoundTube, Section
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.alike import first_largest
from fahrtwind.core.stations.hold.carriers.limits import Limits, road_speed
from fahrtwind.core.stations.hold.carriers.links import crossing_chain, joint_chain
from fahrtwind.core.stations.hold.carriers.rack import ANGLE_GAUGE_MM, Made, RackFrame
from fahrtwind.core.stations.hold.carriers.rack_forces import Linear, RackForces, taken
from fahrtwind.core.stations.hold.carriers.rack_loads import LANDING_G, Rows
from fahrtwind.core.stations.hold.carriers.seams import Seam, judge_seams, posts_welded, seams_of
from fahrtwind.core.stations.hold.carriers.sections import MEMBER_FACTOR
from fahrtwind.core.stations.hold.carriers.verdict import (
    CarrierVerdict,
    GrabVerdict,
    Hum,
    JointVerdict,
    RailVerdict,
)
from fahrtwind.core.stations.hold.forces import Forces
from fahrtwind.core.stations.hold.frame.model import FloatArray
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.parked import WIND_DENSITY_KG_M3
from fahrtwind.core.stations.hold.verdict import (
    FASTEST_M_S,
    MOST_PA,
    Air,
    Capacities,
    ParkedVerdict,
    capacities,
    foot_verdicts,
    limits,
    parked_verdict,
)
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.tables.alloys import ALLOYS

ROOT_3 = 3**0.5
RUNS = ("along", "across", "up")
STROUHAL_SQUARE, STROUHAL_ROUND = 0.12, 0.18


def judge_rack(
    rack: Rack,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    forces: RackForces,
    panels_kg: float,
    air: Air,
) -> CarrierVerdict:
    """Verdict of a rack with feet and at least one panel on it; ``panels_kg``: of all of them."""
    corner = joint_chain(rack) if rack.joint != "welded" else None
    crossing = crossing_chain(rack) if rack.crossbars else None
    cap = capacities(chains)
    told, worst, lost = foot_verdicts(feet, chains, forces.road, cap, air)
    joints, joints_parked = _joints(rack, (corner, crossing), forces, air)
    bars, bars_road, bars_parked = _bars(rack, forces, air)
    seams = seams_of(rack, forces.frame)
    told_seams, seams_road, seams_parked = judge_seams(seams, forces, air)
    road = [*bars_road, *(j for _, j in joints), *seams_road]
    standing = [*bars_parked, *joints_parked, *seams_parked]
    first = [min(kind) for kind in zip(*((k.let_go, k.safe, k.lost, k.lost_safe) for k in road), strict=True)]
    goes, safe, lost_goes, lost_safe = (road_speed(pressure, air) for pressure in first)
    let_go = min(worst.let_go_m_s, goes)
    hum = _hum(rack, forces, panels_kg)
    return CarrierVerdict(
        carrier=rack.id,
        mass_kg=float(forces.frame.mass_kg.sum()),
        let_go_m_s=let_go,
        let_go_typical_m_s=max(let_go, min(f.let_go_typical_m_s for f in told)),
        safe_m_s=min([*(f.safe_m_s for f in told), safe]),
        lost_let_go_m_s=min(lost.lost_let_go_m_s, lost_goes),
        lost_safe_m_s=min([*(f.lost_safe_m_s for f in told), lost_safe]),
        lost_foot=lost.foot,
        worst_foot=worst.foot,
        parked=_parked(parked_verdict(feet, forces.parked, cap, air), standing),
        chains=tuple(dict.fromkeys(chains)),
        feet=told,
        rails=bars,
        joints=tuple(j for j, _ in joints),
        corner=corner,
        crossing=crossing,
        sag_mm=float(-(1 + LANDING_G) * forces.sag_mm.min()),
        hum=hum,
        grabbed=_grabbed(rack, forces, cap, seams) if forces.grabbed else None,
        seams=told_seams,
    )


def _grabbed(rack: Rack, forces: RackForces, cap: Capacities, seams: list[Seam]) -> GrabVerdict | None:
    """The part that somebody hanging on the rack uses most, with its factor."""
    grabbed = forces.grabbed
    if grabbed is None:
        return None
    used = utilisation(
        grabbed.pull_n[..., None], grabbed.along_n[..., None], cap.pull_design, cap.shear_design
    )
    feet = np.asarray(used).max(axis=(0, 2))
    told = {support.name: float(u) for support, u in zip(forces.frame.frame.supports, feet, strict=True)}
    worst = max(told, key=lambda name: told[name])
    found = GrabVerdict(f"foot {worst}", told[worst])
    stressed = Stressed.of(rack, forces.frame)
    up, rest = stressed.stress(grabbed.bars[None])
    shares = (np.abs(up) + rest).max(axis=(0, 1, 3)) * MEMBER_FACTOR / stressed.yield_n_mm2
    for name, own in stressed.own.items():
        share = float(shares[own].max())
        if share > found.utilisation:
            found = GrabVerdict(name, share)
    for seam in (s for s in seams if s.at[0] == "piece"):
        share = float(seam.of(grabbed.bars, grabbed.bars).max()) * seam.factor / seam.bears
        if share > found.utilisation:
            found = GrabVerdict(f"{seam.kind} at {seam.name}", share)
    return found


def _parked(feet: ParkedVerdict, others: list[Limits]) -> ParkedVerdict:
    def gust(pressure: float) -> float:
        told = float(speed_at_pressure(min(pressure, MOST_PA), WIND_DENSITY_KG_M3, 0.0))
        return min(told, FASTEST_M_S)

    return replace(
        feet,
        let_go_m_s=min(feet.let_go_m_s, gust(min(k.let_go for k in others))),
        safe_m_s=min(feet.safe_m_s, gust(min(k.safe for k in others))),
        lost_let_go_m_s=min(feet.lost_let_go_m_s, gust(min(k.lost for k in others))),
    )


# corners

Kind = Literal["corner", "crossing"]


def _joints(
    rack: Rack, chains: tuple[Chain | None, Chain | None], forces: RackForces, air: Air
) -> tuple[list[tuple[JointVerdict, Limits]], list[Limits]]:
    """Each corner and each crossing on the road with its limits, and the limits of each parked. ``chains``:
    of corners, none where they are welded; of rails on crossbars, none without such.
    """
    ties, first = forces.frame.frame.ties, forces.frame.corners
    corners = corner_reading(rack)
    crossings = _bolted(True, rack.section, rack.on_feet[0])
    groups: tuple[tuple[Kind, Chain | None, int, int, tuple[Reading, Reading]], ...] = (
        ("corner", chains[0], 0, first, corners),
        ("crossing", chains[1], first, len(ties), _turned(crossings)),
    )
    found, standing = [], []
    for kind, chain, start, end, reading in groups:
        if chain is not None:
            names = [t.name for t in ties[start:end]]
            road = _on_joints(forces.ties_road.only(start, end), reading)
            parked = _on_joints(forces.ties_parked.only(start, end), reading)
            own, own_standing = _judged(names, chain, kind, road, parked, air)
            found += own
            standing += own_standing
    return found, standing


def _judged(
    names: list[str], chain: Chain, kind: Kind, road: Forces, parked: Forces, air: Air
) -> tuple[list[tuple[JointVerdict, Limits]], list[Limits]]:
    cap = capacities((chain,) * len(names))
    found = []
    let_go, _, safe = limits(road, cap)
    standing_go, _, standing_safe = limits(parked, cap)
    pull = road.pull_constant[0] + road.pull_per_pa[0] * air.pressure_pa
    shear = road.along_constant[0] + road.along_per_pa[0] * air.pressure_pa
    used = np.asarray(utilisation(pull[..., None], shear[..., None], cap.pull_design, cap.shear_design))
    for i, (name, limit) in enumerate(zip(names, _limits_of(let_go, safe), strict=True)):
        situation, link = np.unravel_index(int(first_largest(used[:, i])), used[:, i].shape)
        verdict = JointVerdict(
            name,
            float(pull[situation, i]),
            float(shear[situation, i]),
            float(used[situation, i, link]),
            chain.links[int(link)].id,
            road_speed(limit.let_go, air),
            road_speed(limit.safe, air),
            kind,
        )
        found.append((verdict, limit))
    return found, _limits_of(standing_go, standing_safe)


def _limits_of(let_go: FloatArray, safe: FloatArray) -> list[Limits]:
    """Of every joint, from the pressures at which its first link goes, (v, s, joints)."""
    whole = (part[0].min(axis=0) for part in (let_go, safe))
    lost = (part[1:].min(axis=(0, 1), initial=MOST_PA) for part in (let_go, safe))
    return [Limits(*each) for each in zip(*(part.tolist() for part in (*whole, *lost)), strict=True)]


def _on_joints(ties: Linear, reading: tuple[Reading, Reading]) -> Forces:
    """Pull and force along at the worst bolt, or the clamp, of every joint. Moments and level forces count by
    their size in the constant part and in the part per pascal, on the safe side.
    """
    pull, along = reading
    stable = np.asarray(np.isfinite(ties.constant).all(axis=(1, 2, 3)), dtype=np.bool_)
    constant, per_pa = np.nan_to_num(ties.constant), np.nan_to_num(ties.per_pa)
    there = np.ones((len(stable), constant.shape[2]))
    pulls = (pull(constant), pull(per_pa), pull(per_pa))
    return Forces((), (), *pulls, along(constant), along(per_pa), stable, there)


Reading = Callable[[FloatArray], FloatArray]
"""What a corner's forces, (…, 6), come to."""


def corner_reading(rack: Rack) -> tuple[Reading, Reading]:
    """Pull and force along at the worst bolt, or the clamp, of a corner that is not welded."""
    if rack.joint == "clamps":
        return _clamped(rack)
    return _bolted(rack.joint == "angles", rack.bar_section, rack.section)


def _clamped(rack: Rack) -> tuple[Reading, Reading]:
    """On a clamp about a tube along the roof: what opens it, and what would make it slip along and about."""
    high = (rack.bar_section.height.mm + rack.section.height.mm) / 2  # the bar's axis over the tube's
    half = rack.clamp.width.mm / 2

    def pull(part: FloatArray) -> FloatArray:
        aft, _, up, _, pitch, yaw = (part[..., i] for i in range(6))
        return np.asarray(-up + (np.abs(pitch) + high * np.abs(aft) + np.abs(yaw)) / half)

    def along(part: FloatArray) -> FloatArray:
        aft, across, _, roll = (part[..., i] for i in range(4))
        about = turning_force(np.abs(roll) + high * np.abs(across), rack.section.height.mm)
        return np.asarray(np.abs(aft) + np.abs(across) + about)

    return pull, along


def _bolted(angles: bool, upper: Section, lower: Section) -> tuple[Reading, Reading]:
    """On the worst bolt of the angles on both sides of a bar, or the one bolt, that hold it on a rail along
    the roof.
    """
    bolts = 2.0 if angles else 1.0
    half_bar, half_rail = upper.width.mm / 2, lower.width.mm / 2
    reach = half_bar + ANGLE_GAUGE_MM
    pitch_arm = 2 * reach if angles else half_bar
    roll_arm = bolts * half_rail
    high = upper.height.mm / 2  # the corner sits below the bar's axis

    def pull(part: FloatArray) -> FloatArray:
        aft, across, up, roll, pitch = (part[..., i] for i in range(5))
        tips = (np.abs(pitch) + high * np.abs(aft)) / pitch_arm
        tips = tips + (np.abs(roll) + high * np.abs(across)) / roll_arm
        return np.asarray(-up / bolts + tips)

    def along(part: FloatArray) -> FloatArray:
        level = np.hypot(part[..., 0], part[..., 1]) / bolts
        return np.asarray(level + np.abs(part[..., 5]) / (2 * reach))

    return pull, along


TURNED = [1, 0, 2, 4, 3, 5]
"""The two ways along the roof change places where the upper part runs along it; sizes alone are read."""


def _turned(reading: tuple[Reading, Reading]) -> tuple[Reading, Reading]:
    """For rails along the roof that lie on crossbars."""
    pull, along = reading
    return lambda part: pull(part[..., TURNED]), lambda part: along(part[..., TURNED])


# bars


def _bars(
    rack: Rack, forces: RackForces, air: Air
) -> tuple[tuple[RailVerdict, ...], list[Limits], list[Limits]]:
    """Every rail, bar and post on the road, the limits of each, and of each parked."""
    stressed = Stressed.of(rack, forces.frame)
    road, parked = stressed.limits(forces.bars_road.solved, forces.bars_road.rows, forces.bars_parked.rows)
    now = forces.bars_road.under(air.pressure_pa)
    up, rest = stressed.stress(now[None])
    used = (np.abs(up) + rest)[0]
    verdicts = []
    for name, line in forces.frame.lines.items():
        own, made, limit = stressed.own[name], forces.frame.made_of[name], road[name]
        most = used[:, own].max(axis=(1, 2))
        worst = int(first_largest(most))
        bent = now[worst, own]
        verdicts.append(
            RailVerdict(
                name,
                tuple(forces.frame.frame.nodes_mm[line, RUNS.index(made.runs)].tolist()),
                (*bent[:, 4].tolist(), -float(bent[-1, 10])),
                float(most[worst]) * MEMBER_FACTOR / _yield(rack, made),
                road_speed(limit.let_go, air),
                road_speed(limit.safe, air),
                made.runs,
                tuple((-(1 + LANDING_G) * forces.sag_mm[line]).tolist()) if made.runs != "up" else (),
            )
        )
    return tuple(verdicts), list(road.values()), list(parked.values())


@dataclass(frozen=True, slots=True, eq=False)
class Stressed:
    """Pieces of all bars at once: ``own`` says which are whose; moduli (bars,), mm² and mm³; yield, N/mm²."""

    own: dict[str, list[int]]
    area: FloatArray
    up: FloatArray
    side: FloatArray
    torsion: FloatArray
    yield_n_mm2: FloatArray

    @classmethod
    def of(cls, rack: Rack, frame: RackFrame) -> Stressed:
        """Of all bars of a rack, in the order of its frame; mm², mm³, N/mm²."""
        bars, made_of = frame.frame.bars, frame.made_of
        own: dict[str, list[int]] = {name: [] for name in frame.lines}
        for i, bar in enumerate(bars):
            own[bar.part].append(i)
        shapes = [made_of[b.part].strength.shape for b in bars]
        return cls(
            own,
            np.array([s.area_mm2 for s in shapes]),
            np.array([s.up_mm3 for s in shapes]),
            np.array([s.side_mm3 for s in shapes]),
            np.array([s.torsion_mm3 for s in shapes]),
            np.array([_yield(rack, made_of[b.part]) for b in bars]),
        )

    def stress(self, part: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Stress by bending up, with its sign, and by all else, by size, N/mm² at both ends of every piece:
        (v, s, bars, 2).
        """
        ends = part.reshape(*part.shape[:-1], 2, 6)
        up = ends[..., 4] / self.up[:, None]
        rest = (
            np.abs(ends[..., 0]) / self.area[:, None]
            + np.abs(ends[..., 5]) / self.side[:, None]
            + ROOT_3 * np.abs(ends[..., 3]) / self.torsion[:, None]
        )
        return np.asarray(up), np.asarray(rest)

    def limits(
        self, solved: tuple[FloatArray, ...], *situations: tuple[Rows, ...]
    ) -> list[dict[str, Limits]]:
        """Of each bar in each of the ``situations``: 0 where the feet that are left hold no frame. What a row
        does to the bars is worked out once, however many it serves.
        """
        each = [self._least(part, situations) for part in solved]
        least = np.minimum.reduce(each)  # (situations, 4, bars)
        return [
            {name: Limits(*kinds[:, own].min(axis=1).tolist()) for name, own in self.own.items()}
            for kinds in least
        ]

    def _least(self, part: FloatArray, situations: tuple[tuple[Rows, ...], ...]) -> FloatArray:
        """Least pressures, Pa, of what one frame does: (situations, let go, safe and both with a foot lost,
        bars).
        """
        up, rest = self.stress(part)
        held = np.asarray(np.isfinite(up).all(axis=(1, 2, 3)))
        if not held.all():
            up, rest = np.nan_to_num(up), np.nan_to_num(rest)
        either_way = (rest + up, rest - up)
        bears = (self.yield_n_mm2, self.yield_n_mm2 / MEMBER_FACTOR)
        found = np.full((len(situations), 4, len(self.area)), MOST_PA)
        for number, rows in ((n, rows) for n, parts in enumerate(situations) for rows in parts):
            (u, r), (u_pa, r_pa) = (_widest(either_way, at) for at in (rows.constant, rows.per_pa))
            for i, of in enumerate((slice(0, 1), slice(1, None))):
                for j, limit in enumerate(bears):
                    pressure = bending_limit_pressure(u[of], u_pa[of], r[of], r_pa[of], limit[:, None])
                    least = np.asarray(pressure).min(axis=(0, 1, 3), initial=MOST_PA)
                    kept = found[number, 2 * i + j]
                    found[number, 2 * i + j] = np.minimum(kept, least) if held[of].all() else 0.0
        return found


def _widest(either_way: tuple[FloatArray, FloatArray], at: np.ndarray) -> tuple[FloatArray, FloatArray]:
    """Of several rows of one model one bending with its sign and one rest by its size, which together reach
    as far either way as the worst of them: of constants that meet the same wind, or winds that meet the same
    constant, the worst is what counts. (v, m, bars, 2).
    """
    one, other = (taken(way, at).max(axis=2) for way in either_way)
    return (one - other) / 2, (one + other) / 2


def _yield(rack: Rack, made: Made) -> float:
    """Beside a weld, where these bars bend most, welded metal counts with what the heat has left of it."""
    known = ALLOYS[made.alloy]
    welded = rack.joint == "welded" or (made.runs != "across" and posts_welded(rack))
    return known.beside_weld_n_mm2 if welded else known.yield_n_mm2


def _hum(rack: Rack, forces: RackForces, panels_kg: float) -> Hum:
    """Lowest frequency with the panels on it, and the wind at which a bar of the front sheds eddies at it."""
    frame: RackFrame = forces.frame
    mass = frame.mass_kg.copy()
    np.add.at(mass, frame.clamp_nodes, panels_kg / len(frame.clamp_nodes))
    sag = np.abs(forces.sag_mm)
    frequency = float(rayleigh_frequency(float(mass @ sag), float(mass @ sag**2)))
    stream = [rack.bar_section, *([rack.crossbars.section] if rack.crossbars else [])]
    return Hum(frequency, min(_humming(section, frequency) for section in stream))


def _humming(section: Section, frequency_hz: float) -> float:
    strouhal = STROUHAL_ROUND if isinstance(section, RoundTube) else STROUHAL_SQUARE
    return float(humming_wind(section.height.mm, frequency_hz, strouhal))
