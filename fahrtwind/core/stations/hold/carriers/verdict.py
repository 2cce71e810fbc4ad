"""Will a carrier hold? Its feet against what the clamps of all its panels hand down, its rails in bending;
also with each foot lost.
"""

from __future__ import annotations

from typing import Literal

import numpy as np

from fahrtwind.core.formulas.verdict import limit_pressure
from fahrtwind.core.job.carrier import Rails
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.alike import first_largest
from fahrtwind.core.stations.hold.carriers.rails import Profile
from fahrtwind.core.stations.hold.carriers.sharing import Bent, CarrierForces
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.verdict import (
    MOST_PA,
    Air,
    FootVerdict,
    ParkedVerdict,
    capacities,
    foot_verdicts,
    parked_verdict,
    road_speeds,
)
from fahrtwind.core.stations.layout.feet import FootPlace


@dataclass(frozen=True, slots=True)
class RailVerdict:
    """A rail at the probed speed: bending in N·mm at places along the roof in its worst case, share of its
    strength used, and the speeds at which it yields.
    """

    rail: str
    places_mm: tuple[float, ...]
    moments_n_mm: tuple[float, ...]
    utilisation: float
    let_go_m_s: float
    safe_m_s: float
    runs: Literal["along", "across", "up"] = "along"
    gives_mm: tuple[float, ...] = ()
    """How far down a bar of a rack gives at its places where the load lands after a bump."""


@dataclass(frozen=True, slots=True)
class JointVerdict:
    """A corner of a rack at the probed speed, or a crossing of a rail and a crossbar: pull and force along at
    its worst bolt, N, share of its weakest link, and the speeds at which that goes.
    """

    joint: str
    pull_n: float
    shear_n: float
    utilisation: float
    weakest: str
    let_go_m_s: float
    safe_m_s: float
    kind: Literal["corner", "crossing"] = "corner"


@dataclass(frozen=True, slots=True)
class Hum:
    """Lowest frequency of a rack with its panels, and the wind at which its bars shed eddies at it."""

    frequency_hz: float
    wind_m_s: float


@dataclass(frozen=True, slots=True)
class GrabVerdict:
    """The part of a rack on posts that somebody hanging on it uses most, and how much of it, with factor."""

    part: str
    utilisation: float


@dataclass(frozen=True, slots=True)
class SeamVerdict:
    """A weld or a connector at the probed speed: its share, and the speeds at which it goes; ``bears``: N/mm²
    in the throat, or N·m; ``along_n``: what slides a connector along its tube.
    """

    seam: str
    kind: Literal["weld", "connector"]
    utilisation: float
    bears: float
    let_go_m_s: float
    safe_m_s: float
    along_n: float = 0.0


@dataclass(frozen=True, slots=True)
class CarrierVerdict:
    carrier: str
    mass_kg: float
    let_go_m_s: float
    let_go_typical_m_s: float
    safe_m_s: float
    lost_let_go_m_s: float
    lost_safe_m_s: float
    lost_foot: str | None
    worst_foot: str
    parked: ParkedVerdict
    chains: tuple[Chain, ...]
    feet: tuple[FootVerdict, ...]
    rails: tuple[RailVerdict, ...]
    """Rails, and of a rack the bars across them."""
    joints: tuple[JointVerdict, ...] = ()
    corner: Chain | None = None
    """Links of every corner's worst bolt, where corners are bolted."""
    crossing: Chain | None = None
    """Of every worst bolt between a rail and a crossbar."""
    sag_mm: float | None = None
    """How far a rack gives where the load lands after a bump."""
    hum: Hum | None = None
    grabbed: GrabVerdict | None = None
    seams: tuple[SeamVerdict, ...] = ()
    """Welds and connectors that are judged."""


def judge_carrier(
    carrier: Rails,
    profile: Profile,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    forces: CarrierForces,
    air: Air,
) -> CarrierVerdict:
    """Verdict of a carrier with feet and at least one panel on it."""
    cap = capacities(chains)
    told, worst, lost = foot_verdicts(feet, chains, forces.road, cap, air)
    bent = [_rail_verdict(r, spans, forces, profile, air) for r, spans in forces.rails.items()]
    let_go = min([worst.let_go_m_s, *(verdict.let_go_m_s for verdict, *_ in bent)])
    return CarrierVerdict(
        carrier=carrier.id,
        mass_kg=profile.mass_kg_m * (carrier.end.mm - carrier.start.mm) / 1000 * len(carrier.rails),
        let_go_m_s=let_go,
        let_go_typical_m_s=max(let_go, min(f.let_go_typical_m_s for f in told)),
        safe_m_s=min([*(f.safe_m_s for f in told), *(verdict.safe_m_s for verdict, *_ in bent)]),
        lost_let_go_m_s=min([lost.lost_let_go_m_s, *(when_lost for _, when_lost, _ in bent)]),
        lost_safe_m_s=min([*(f.lost_safe_m_s for f in told), *(safe_lost for *_, safe_lost in bent)]),
        lost_foot=lost.foot,
        worst_foot=worst.foot,
        parked=parked_verdict(feet, forces.parked, cap, air),
        chains=tuple(dict.fromkeys(chains)),
        feet=told,
        rails=tuple(verdict for verdict, *_ in bent),
    )


def _rail_verdict(
    rail: str, spans: list[Bent], forces: CarrierForces, profile: Profile, air: Air
) -> tuple[RailVerdict, float, float]:
    """A rail's bending, and with the worst of its feet lost the speeds at which it yields and is safe."""
    own, cases = spans[0].clamps, forces.road.same_wind
    moments = [np.nan_to_num(span.moments) for span in spans]
    still, windy = forces.down.constant[:, own], forces.down.per_pa[::cases, own]
    constant, per_pa = (
        np.concatenate([part @ m for m in moments], axis=1) for part in (still, windy)
    )  # (v, situations, places), (v, winds, places)
    same_wind = constant.reshape(len(constant), -1, cases, constant.shape[2])
    # of situations that meet the same wind the one that bends most either way is there first
    either_way = np.stack([same_wind.max(axis=2), -same_wind.min(axis=2)])
    either_way_pa = np.stack([per_pa, -per_pa])

    def speeds(strength: float) -> tuple[float, float]:
        """With all feet there, and with the worst one lost."""
        pressure = limit_pressure(either_way, either_way_pa, 0.0, 0.0, strength, np.inf)
        reached = np.minimum(np.min(pressure, axis=(0, 2, 3)), MOST_PA)
        whole, lost = road_speeds(np.array([reached[0], reached[1:].min()]), air).tolist()
        return whole, lost

    let_go, lost_let_go = speeds(profile.moment_nominal_n_mm)
    safe, lost_safe = speeds(profile.moment_design_n_mm)
    now = constant[0] + per_pa[0].repeat(cases, axis=0) * air.pressure_pa
    worst = int(first_largest(np.abs(now).max(axis=1)))
    verdict = RailVerdict(
        rail,
        tuple(spans[0].places_mm.tolist()),
        tuple(now[worst].tolist()),
        float(np.abs(now).max()) / profile.moment_design_n_mm,
        let_go,
        safe,
    )
    return verdict, lost_let_go, lost_safe
