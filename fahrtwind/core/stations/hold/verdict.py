"""Will it stay on? Forces against links for every foot, situation and lost foot, and the speeds that follow:
on the road, and parked in wind from any side.
"""

from __future__ import annotations

from functools import cached_property
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.air import speed_at_pressure
from fahrtwind.core.formulas.verdict import limit_pressure, utilisation
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.alike import first_largest, first_least, first_smallest
from fahrtwind.core.stations.hold.forces import Forces, Shared
from fahrtwind.core.stations.hold.links import TEST_FACTOR, Above, Chain
from fahrtwind.core.stations.hold.loads import PanelLoads
from fahrtwind.core.stations.hold.parked import WIND_DENSITY_KG_M3
from fahrtwind.core.stations.layout.feet import FootPlace

FloatArray = npt.NDArray[np.float64]
State = Literal["holds", "thin", "lets go"]
FASTEST_M_S = 90.0
"""Speeds are not told beyond this: the coefficients mean nothing there."""
MOST_PA = 1e6


@dataclass(frozen=True, slots=True)
class LinkVerdict:
    """How much of a link is used at the probed speed (cautious end of the uplift), and the speed at which it
    goes.
    """

    id: str
    utilisation: float
    utilisation_nominal: float
    let_go_m_s: float


@dataclass(frozen=True, slots=True)
class FootVerdict:
    """A foot at the probed speed: forces of its worst case, its links, its speeds and what happens if it is
    lost. ``model``: the view of the panel that gives most there.
    """

    panel: str
    foot: str
    state: State
    case: str
    model: str
    pull_n: float
    shear_n: float
    utilisation: float
    weakest: str
    let_go_m_s: float
    let_go_typical_m_s: float
    safe_m_s: float
    lost_let_go_m_s: float
    lost_safe_m_s: float
    lost_next: str | None
    chain: int
    """Which of the panel's ``chains`` is this foot's; ``links`` are in its order."""
    links: tuple[LinkVerdict, ...]


@dataclass(frozen=True, slots=True)
class ParkedVerdict:
    """A panel on a vehicle that stands in wind: the gust of the site, and gusts from the worst side at which
    it lets go, may safely be, and lets go with a foot lost. ``worst``: where from.
    """

    gust_m_s: float
    let_go_m_s: float
    safe_m_s: float
    lost_let_go_m_s: float
    worst: str
    worst_foot: str


@dataclass(frozen=True, slots=True)
class RatedVerdict:
    """The panel itself as a link: mean pressure on it at the probed speed against its rated uplift, Pa, and
    the speeds at which the test load and the rated load are reached.
    """

    pressure_pa: float
    rated_pa: float
    known: bool
    let_go_m_s: float
    safe_m_s: float


@dataclass(frozen=True, slots=True)
class PanelVerdict:
    panel: str
    uplift_n: float
    uplift_typical_n: float
    drag_n: float
    zone: str
    let_go_m_s: float
    let_go_typical_m_s: float
    safe_m_s: float
    lost_let_go_m_s: float
    lost_safe_m_s: float
    lost_foot: str | None
    worst_foot: str
    parked: ParkedVerdict
    rated: RatedVerdict
    chains: tuple[Chain, ...]
    """Each chain once, however many feet have it."""
    feet: tuple[FootVerdict, ...]


@dataclass(frozen=True, slots=True)
class Air:
    """The air that is asked about: probed road speed, gust, density, the pressure they make; and the gust at
    the site while parked, with its pressure.
    """

    probe_m_s: float
    gust_m_s: float
    density_kg_m3: float
    pressure_pa: float
    parked_gust_m_s: float
    parked_pa: float


@dataclass(frozen=True, eq=False)
class Capacities:
    """Arrays of shape (feet, links): nominal and design strength in pull and along the roof, N. Which links
    can be the first to go is looked up once, for road and parked.
    """

    pull_nominal: FloatArray
    pull_design: FloatArray
    shear_nominal: FloatArray
    shear_design: FloatArray

    @property
    def nominal(self) -> Strength:
        return self.pull_nominal, self.shear_nominal

    @property
    def design(self) -> Strength:
        return self.pull_design, self.shear_design

    @cached_property
    def first_nominal(self) -> Strength:
        return first_to_go(self.nominal)

    @cached_property
    def first_design(self) -> Strength:
        return first_to_go(self.design)


Strength = tuple[FloatArray, FloatArray]
"""In pull and along the roof, N: (feet, links)."""
EVERY, WHOLE = slice(None), slice(0, 1)
"""Of all variants of feet, or with all of them there."""


def capacities(chains: tuple[Chain, ...]) -> Capacities:
    """Chains may differ in length: a foot on skin has one link more. What a foot has not cannot fail."""
    most = max(len(c.links) for c in chains)

    def of(name: str) -> FloatArray:
        rows = [[getattr(link, name) for link in c.links] for c in chains]
        return np.array([row + [np.inf] * (most - len(row)) for row in rows])

    return Capacities(of("pull_nominal_n"), of("pull_design_n"), of("shear_nominal_n"), of("shear_design_n"))


def judge(
    panel: str,
    winds: tuple[PanelLoads, ...],
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    above: Above,
    shared: Shared,
    air: Air,
) -> PanelVerdict:
    """Verdict of one panel on its feet, or on the clamps that hold it."""
    cap, loads, q = capacities(chains), winds[0], air.pressure_pa
    verdicts, worst, worst_lost = foot_verdicts(feet, chains, shared.road, cap, air)
    rated = _rated(loads, above, air)
    let_go = min(worst.let_go_m_s, rated.let_go_m_s)
    return PanelVerdict(
        panel=panel,
        uplift_n=loads.cautious_m2 * q,
        uplift_typical_n=loads.typical_m2 * q,
        drag_n=loads.drag_m2 * q,
        zone=loads.worst_zone,
        let_go_m_s=let_go,
        let_go_typical_m_s=max(min(f.let_go_typical_m_s for f in verdicts), let_go),
        safe_m_s=min(rated.safe_m_s, *(f.safe_m_s for f in verdicts)),
        lost_let_go_m_s=min(worst_lost.lost_let_go_m_s, rated.let_go_m_s),
        lost_safe_m_s=min(rated.safe_m_s, *(f.lost_safe_m_s for f in verdicts)),
        lost_foot=worst_lost.foot,
        worst_foot=worst.foot,
        parked=parked_verdict(feet, shared.parked, cap, air),
        rated=rated,
        chains=tuple(dict.fromkeys(chains)),
        feet=verdicts,
    )


def foot_verdicts(
    feet: tuple[FootPlace, ...], chains: tuple[Chain, ...], road: Forces, cap: Capacities, air: Air
) -> tuple[tuple[FootVerdict, ...], FootVerdict, FootVerdict]:
    """Every foot, the one that goes first, and the one whose loss is worst. Arrays below have the axes
    (variant, situation, foot, link).
    """
    let_go, typical, safe = (road_speeds(part, air) for part in limits(road, cap))
    of_links = road_speeds(_limit(road, road.pull_per_pa, cap.nominal, WHOLE)[0], air)
    pull = road.pull_constant[0] + road.pull_per_pa[0] * air.pressure_pa
    shear = road.along_constant[0] + road.along_per_pa[0] * air.pressure_pa
    used = utilisation(pull[..., None], shear[..., None], cap.pull_design, cap.shear_design)
    used_nominal = utilisation(pull[..., None], shear[..., None], cap.pull_nominal, cap.shear_nominal)
    lost = _when_lost(let_go, safe, road)
    told = _Told(
        road,
        pull.tolist(),
        shear.tolist(),
        used.max(axis=0).tolist(),
        used_nominal.max(axis=0).tolist(),
        first_largest(used.max(axis=2), axis=0).tolist(),
        of_links.min(axis=0).tolist(),
        typical[0].min(axis=0).tolist(),
        safe[0].min(axis=0).tolist(),
    )
    different = tuple(dict.fromkeys(chains))
    verdicts = tuple(
        _foot(feet, different, different.index(chains[i]), i, told, lost[i]) for i in range(len(feet))
    )
    worst = first_least(verdicts, lambda f: f.let_go_m_s, lambda f: -f.utilisation)
    return verdicts, worst, first_least(verdicts, lambda f: f.lost_let_go_m_s)


def limits(forces: Forces, cap: Capacities) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Pressures in Pa at which the first link of each foot reaches its limit in the worst of the situations
    that meet the same wind: cautious without factor (v, winds, n), typical without factor with all feet there
    (1, winds, n), cautious with factor (v, winds, n).
    """
    return (
        _limit(forces, forces.pull_per_pa, cap.first_nominal, EVERY).min(axis=3),
        _limit(forces, forces.pull_typical, cap.first_nominal, WHOLE).min(axis=3),
        _limit(forces, forces.pull_per_pa, cap.first_design, EVERY).min(axis=3),
    )


def first_to_go(strength: Strength) -> Strength:
    """The links of each foot that can be the first to go: one that is as strong as another both ways or
    stronger never is. (feet, as few links as any foot needs).
    """
    pull, along = strength
    earlier = np.tri(pull.shape[1], k=-1, dtype=bool)  # of two alike the first stays
    weaker = (pull[:, None] < pull[..., None]) | (along[:, None] < along[..., None])
    no_stronger = (pull[:, None] <= pull[..., None]) & (along[:, None] <= along[..., None])
    spared = (no_stronger & (weaker | earlier)).any(axis=2)
    most = int((~spared).sum(axis=1).max())
    kept = np.argsort(spared, axis=1, kind="stable")[:, :most]
    rest = np.take_along_axis(spared, kept, axis=1)
    left = (np.where(rest, np.inf, np.take_along_axis(part, kept, axis=1)) for part in (pull, along))
    return next(left), next(left)


def _limit(forces: Forces, pull_per_pa: FloatArray, strength: Strength, of: slice) -> FloatArray:
    """By link, (v, winds, n, links): 0 where the feet that are left hold nothing, a great deal for a foot
    that is lost.
    """
    winds = slice(None, None, forces.same_wind)
    pull, along = _worst(forces, strength, of)
    pressure = limit_pressure(
        pull, pull_per_pa[of, winds, :, None], along, forces.along_per_pa[of, winds, :, None], *strength
    )
    pressure = np.where(forces.present[of, None, :, None] > 0, np.minimum(pressure, MOST_PA), MOST_PA)
    held: FloatArray = np.where(forces.stable[of, None, None, None], pressure, 0.0)
    return held


def _worst(forces: Forces, strength: Strength, of: slice) -> tuple[FloatArray, FloatArray]:
    """Constant pull and force along, N, that stand for all situations with the same wind, (v, winds, n,
    links): alone and together they use as much of a link as the worst of them, which is the first to reach
    the limit.
    """
    (pull, along), (pull_cap, along_cap) = (forces.pull_constant[of], forces.along_constant[of]), strength
    if forces.same_wind == 1:
        return pull[..., None], along[..., None]
    shape = (len(pull), -1, forces.same_wind, pull.shape[2])
    pull, along = pull.reshape(shape), along.reshape(shape)
    used = np.asarray((pull[..., None] / pull_cap + along[..., None] / along_cap).max(axis=2))
    level = along.max(axis=2)[..., None]
    there = np.isfinite(pull_cap)  # what a foot has not nothing uses
    return (used - level / along_cap) * np.where(there, pull_cap, 0.0), level


def road_speeds(pressure: FloatArray, air: Air) -> FloatArray:
    """Road speeds in m/s at these pressures in Pa; 0 where the limit is reached standing still."""
    speed: FloatArray = np.asarray(speed_at_pressure(pressure, air.density_kg_m3, air.gust_m_s))
    return np.clip(speed, 0.0, FASTEST_M_S)


def _rated(loads: PanelLoads, above: Above, air: Air) -> RatedVerdict:
    per_pa = loads.cautious_m2 / loads.rect.area_m2
    let_go, safe = (
        float(road_speeds(np.array(pressure / per_pa), air))
        for pressure in (TEST_FACTOR * above.rated_pa, above.rated_pa)
    )
    return RatedVerdict(per_pa * air.pressure_pa, above.rated_pa, above.rated_known, let_go, safe)


def parked_verdict(feet: tuple[FootPlace, ...], parked: Forces, cap: Capacities, air: Air) -> ParkedVerdict:
    """Gusts from the worst side that feet bear while the vehicle stands."""

    def gust(pressure: float) -> float:
        told = float(speed_at_pressure(pressure, WIND_DENSITY_KG_M3, 0.0))
        return min(told, FASTEST_M_S)

    let_go = _limit(parked, parked.pull_per_pa, cap.first_nominal, EVERY).min(axis=3)
    safe = _limit(parked, parked.pull_per_pa, cap.first_design, WHOLE)
    situation, foot = np.unravel_index(first_smallest(let_go[0]), let_go[0].shape)
    return ParkedVerdict(
        air.parked_gust_m_s,
        gust(float(let_go[0].min())),
        gust(float(safe[0].min())),
        gust(float(let_go[1:].min(initial=MOST_PA))),
        parked.cases[int(situation)],
        feet[int(foot)].foot,
    )


def _when_lost(let_go: FloatArray, safe: FloatArray, forces: Forces) -> list[tuple[float, float, int | None]]:
    """Let-go and safe speed with each foot lost, and the foot that would go next."""
    n = let_go.shape[2]
    goes, still_safe = (part[1:].reshape(n, -1) for part in (let_go, safe))
    following = (first_largest(-goes, axis=1) % n).tolist()
    told = zip(goes.min(axis=1).tolist(), still_safe.min(axis=1).tolist(), following, strict=True)
    stable = forces.stable[1:].tolist()
    return [one if held else (0.0, 0.0, None) for one, held in zip(told, stable, strict=True)]


@dataclass(frozen=True, slots=True)
class _Told:
    """Plain lists taken from the arrays once; picking numbers out of arrays one by one is slow."""

    forces: Forces
    pull: list[list[float]]  # [situation][foot]
    shear: list[list[float]]  # [situation][foot]
    used: list[list[float]]  # [foot][link]
    used_nominal: list[list[float]]  # [foot][link]
    situation: list[int]  # [foot]
    let_go: list[list[float]]  # [foot][link]
    typical: list[float]  # [foot]
    safe: list[float]  # [foot]


def _foot(
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    which: int,
    i: int,
    told: _Told,
    lost: tuple[float, float, int | None],
) -> FootVerdict:
    chain, situation = chains[which], told.situation[i]
    count = len(chain.links)
    used, nominal, let_go = told.used[i][:count], told.used_nominal[i][:count], told.let_go[i][:count]
    links = tuple(LinkVerdict(link.id, used[j], nominal[j], let_go[j]) for j, link in enumerate(chain.links))
    return FootVerdict(
        panel=feet[i].panel,
        foot=feet[i].foot,
        state="lets go" if max(nominal) > 1 else "thin" if max(used) > 1 else "holds",
        case=told.forces.cases[situation],
        model=told.forces.models[situation],
        pull_n=told.pull[situation][i],
        shear_n=told.shear[situation][i],
        utilisation=max(used),
        weakest=chain.links[used.index(max(used))].id,
        let_go_m_s=min(let_go),
        let_go_typical_m_s=told.typical[i],
        safe_m_s=told.safe[i],
        lost_let_go_m_s=lost[0],
        lost_safe_m_s=lost[1],
        lost_next=None if lost[2] is None else feet[lost[2]].foot,
        chain=which,
        links=links,
    )
