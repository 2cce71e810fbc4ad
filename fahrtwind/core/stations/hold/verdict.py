"""Will it stay on? Forces against links for every foot, load case and lost foot, and the speeds that
follow.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.air import speed_at_pressure
from fahrtwind.core.formulas.verdict import limit_pressure, utilisation
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.loads import CASES, PanelLoads, case_forces
from fahrtwind.core.stations.hold.sharing import Sharing, ShearShare, share_pull, share_shear
from fahrtwind.core.stations.layout.feet import FootPlace

FloatArray = npt.NDArray[np.float64]
State = Literal["holds", "thin", "lets go"]
FASTEST_M_S = 90.0
"""Speeds are not told beyond this: the coefficients mean nothing there."""


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
    lost.
    """

    panel: str
    foot: str
    state: State
    case: str
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
    chains: tuple[Chain, ...]
    """Each chain once, however many feet have it."""
    feet: tuple[FootVerdict, ...]


@dataclass(frozen=True, slots=True)
class Air:
    """The slipstream that is asked about: probed road speed, gust, density, and the pressure they make."""

    probe_m_s: float
    gust_m_s: float
    density_kg_m3: float
    pressure_pa: float


@dataclass(frozen=True, slots=True)
class Forces:
    """Linear forces F = constant + per_pa · q. Pull has shape (v, c, n), v = variants, c = cases, n = feet.

    ``shear_sharing`` has one more column than there are cases: the drag of one pascal.
    """

    pull_sharing: Sharing
    shear_sharing: ShearShare
    pull_constant: FloatArray
    pull_cautious: FloatArray
    pull_typical: FloatArray
    along_constant: FloatArray
    along_per_pa: FloatArray


def forces(
    loads: PanelLoads,
    centre: tuple[float, float],
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    bump_g: float,
) -> Forces:
    """Share all loads of a panel among its feet, for all feet and for each foot lost. ``centre`` in mm from
    the front edge and the centre line.
    """
    x = np.array([f.x_mm - centre[0] for f in feet])
    y = np.array([f.y_mm - centre[1] for f in feet])
    stiffness = np.array([c.stiffness_n_mm for c in chains])
    constant = case_forces(loads, bump_g)
    height = loads.centre_height_mm
    rows = [(up, -aft * height, -across * height) for aft, across, up in constant]
    for total, (at_x, at_y) in (
        (loads.cautious_m2, loads.cautious_at_mm),
        (loads.typical_m2, loads.typical_at_mm),
    ):
        rows.append((total, total * (at_x - centre[0]) - loads.drag_m2 * height, total * (at_y - centre[1])))
    sharing = share_pull(x, y, stiffness, np.array(rows))
    shear = share_shear(x, y, np.vstack([constant[:, :2], [loads.drag_m2, 0.0]]))
    along, n = shear.magnitude(), len(CASES)
    return Forces(
        sharing,
        shear,
        sharing.pull_n[:, :n],
        sharing.pull_n[:, n : n + 1],
        sharing.pull_n[:, n + 1 :],
        along[:, :n],
        along[:, n:],
    )


@dataclass(frozen=True, slots=True)
class _Capacities:
    """Arrays of shape (feet, links): nominal and design strength in pull and along the roof."""

    pull_nominal: FloatArray
    pull_design: FloatArray
    shear_nominal: FloatArray
    shear_design: FloatArray


def _capacities(chains: tuple[Chain, ...]) -> _Capacities:
    def of(name: str) -> FloatArray:
        return np.array([[getattr(link, name) for link in c.links] for c in chains])

    return _Capacities(of("pull_nominal_n"), of("pull_design_n"), of("shear_nominal_n"), of("shear_design_n"))


def judge(
    panel: str,
    loads: PanelLoads,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    shared: Forces,
    air: Air,
) -> PanelVerdict:
    """Verdict of one panel. Arrays below have the axes (variant, case, foot, link)."""
    cap = _capacities(chains)
    let_go, typical, safe = _speeds(shared, cap, air)
    q = air.pressure_pa
    pull = shared.pull_constant[0] + shared.pull_cautious[0] * q
    shear = shared.along_constant[0] + shared.along_per_pa[0] * q
    used = utilisation(pull[..., None], shear[..., None], cap.pull_design, cap.shear_design)
    used_nominal = utilisation(pull[..., None], shear[..., None], cap.pull_nominal, cap.shear_nominal)
    lost = [_when_lost(i, let_go, safe, shared) for i in range(len(feet))]
    told = _Told(
        pull.tolist(),
        shear.tolist(),
        used.max(axis=0).tolist(),
        used_nominal.max(axis=0).tolist(),
        used.max(axis=2).argmax(axis=0).tolist(),
        let_go[0].min(axis=0).tolist(),
        typical[0].min(axis=(0, 2)).tolist(),
        safe[0].min(axis=(0, 2)).tolist(),
    )
    different = tuple(dict.fromkeys(chains))
    verdicts = tuple(
        _foot(feet, different, different.index(chains[i]), i, told, lost[i]) for i in range(len(feet))
    )
    worst = min(verdicts, key=lambda f: (f.let_go_m_s, -f.utilisation))
    worst_lost = min(verdicts, key=lambda f: f.lost_let_go_m_s)
    return PanelVerdict(
        panel=panel,
        uplift_n=loads.cautious_m2 * q,
        uplift_typical_n=loads.typical_m2 * q,
        drag_n=loads.drag_m2 * q,
        zone=loads.worst_zone,
        let_go_m_s=worst.let_go_m_s,
        let_go_typical_m_s=min(f.let_go_typical_m_s for f in verdicts),
        safe_m_s=min(f.safe_m_s for f in verdicts),
        lost_let_go_m_s=worst_lost.lost_let_go_m_s,
        lost_safe_m_s=min(f.lost_safe_m_s for f in verdicts),
        lost_foot=worst_lost.foot,
        worst_foot=worst.foot,
        chains=different,
        feet=verdicts,
    )


def _speeds(shared: Forces, cap: _Capacities, air: Air) -> FloatArray:
    """Road speeds at which each link reaches its limit, shape (3, v, c, n, links); 0 where it does so
    standing still.

    First axis: cautious uplift without factor, typical uplift without factor, cautious uplift with factor.
    """
    slipstream = np.stack([shared.pull_cautious, shared.pull_typical, shared.pull_cautious])
    pull_cap = np.stack([cap.pull_nominal, cap.pull_nominal, cap.pull_design])[:, None, None]
    shear_cap = np.stack([cap.shear_nominal, cap.shear_nominal, cap.shear_design])[:, None, None]
    pressure = limit_pressure(
        shared.pull_constant[..., None],
        slipstream[..., None],
        shared.along_constant[..., None],
        shared.along_per_pa[..., None],
        pull_cap,
        shear_cap,
    )
    speed: FloatArray = speed_at_pressure(np.minimum(pressure, 1e6), air.density_kg_m3, air.gust_m_s)
    speed = np.clip(speed, 0.0, FASTEST_M_S)
    present = shared.shear_sharing.present[:, None, :, None] > 0
    speed = np.where(present, speed, FASTEST_M_S)
    return np.where(shared.pull_sharing.stable[:, None, None, None], speed, 0.0)


def _when_lost(
    index: int, let_go: FloatArray, safe: FloatArray, shared: Forces
) -> tuple[float, float, int | None]:
    """Let-go and safe speed with foot ``index`` lost, and the foot that would go next."""
    rest = let_go[index + 1]
    if not shared.pull_sharing.stable[index + 1]:
        return 0.0, 0.0, None
    next_foot = int(np.unravel_index(int(rest.argmin()), rest.shape)[1])
    return float(rest.min()), float(safe[index + 1].min()), next_foot


@dataclass(frozen=True, slots=True)
class _Told:
    """Plain lists taken from the arrays once; picking numbers out of arrays one by one is slow."""

    pull: list[list[float]]  # [case][foot]
    shear: list[list[float]]  # [case][foot]
    used: list[list[float]]  # [foot][link]
    used_nominal: list[list[float]]  # [foot][link]
    case: list[int]  # [foot]
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
    chain = chains[which]
    used, nominal, let_go, case = told.used[i], told.used_nominal[i], told.let_go[i], told.case[i]
    links = tuple(LinkVerdict(link.id, used[j], nominal[j], let_go[j]) for j, link in enumerate(chain.links))
    return FootVerdict(
        panel=feet[i].panel,
        foot=feet[i].foot,
        state="lets go" if max(nominal) > 1 else "thin" if max(used) > 1 else "holds",
        case=CASES[case][0],
        pull_n=told.pull[case][i],
        shear_n=told.shear[case][i],
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
