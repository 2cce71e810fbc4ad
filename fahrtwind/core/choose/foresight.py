"""Which changes together are worth working out: from what each does alone to every part of the chain.

A part's strength in the end is taken as the product of what each change alone makes of it. That is a guess,
on the bold side, and only spares work: what is offered has been worked out, and what comes near has too.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from math import inf, isclose, prod, sqrt

from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.rails import carrier_of
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict, JointVerdict, RailVerdict
from fahrtwind.core.stations.hold.rules import STANDS_IN_WIND
from fahrtwind.core.stations.hold.tethers.caught import Caught
from fahrtwind.core.stations.hold.verdict import FASTEST_M_S, Air, LinkVerdict, PanelVerdict, RatedVerdict

NEAR_BY, BOLD = 1.06, 1.15
"""A guess may be short by this before it is believed: of feet it is good within a few hundredths, in a frame
each part shifts what the others bear.
"""
RATED = "rated"
"""The panel's own rating, a part of every chain."""


@dataclass(frozen=True, slots=True)
class Reach:
    """How far a panel and what it lies on go. ``safe_m_s`` on the road, ``lost_m_s`` with a foot lost,
    ``parked`` the gust it bears over the gust of its site; ``own_m_s``: what no change of feet or carrier
    adds to, the panel's own rating, on a carrier its clamps as well; ``parts``: speed at which each part lets
    go; ``shares``: of the speed of the air then, with the gust, what is safe for it; ``weakest``: the link
    that is used most.
    """

    safe_m_s: float
    lost_m_s: float
    parked: float
    own_m_s: float
    parts: Mapping[str, float]
    shares: Mapping[str, float]
    gust_m_s: float
    weakest: str = ""

    @property
    def let_go_m_s(self) -> float:
        return min(self.parts.values())

    @property
    def first(self) -> str:
        """The part that goes first."""
        return min(self.parts, key=lambda name: self.parts[name])

    def does_as_much_as(self, other: Reach) -> bool:
        """Whether both end at the same, as where what changed is not what goes first."""
        mine = (self.safe_m_s, self.lost_m_s, self.parked)
        return all(
            isclose(a, b, rel_tol=1e-3)
            for a, b in zip(mine, (other.safe_m_s, other.lost_m_s, other.parked), strict=True)
        )


def reach_of(job: Job, panel: PlacedPanel, seen: Visit) -> Reach | None:
    """None where the panel or what it lies on has no verdict."""
    verdict = seen.of("verdict", panel)
    if not isinstance(verdict, PanelVerdict):
        return None
    whole: list[PanelVerdict | CarrierVerdict] = [verdict]
    air: Air = seen["air"]
    parts, shares = {RATED: verdict.rated.let_go_m_s}, {RATED: _share(verdict.rated, air)}
    carrier = carrier_of(panel, job.carriers)
    if carrier is not None:
        under = seen.of("carrier_verdict", carrier)
        if not isinstance(under, CarrierVerdict):
            return None
        whole.append(under)
        for name, part in _rails_and_corners(under):
            parts[name], shares[name] = part.let_go_m_s, _share(part, air)
    for told in whole:
        for foot in told.feet:
            for link in foot.links:
                name = f"{'foot' if told is verdict else 'carrier'} {link.id}"
                parts[name] = min(_goes(link, air), parts.get(name, inf))
                shares[name] = _share_of_link(link, air)
    exposed = job.vehicle.kind in STANDS_IN_WIND
    bears = min(t.parked.safe_m_s if exposed else t.parked.let_go_m_s for t in whole)
    caught = seen.of("caught", panel) if job.wish.one_lost else None
    stopped = min(caught.one_lost_m_s, verdict.let_go_m_s) if isinstance(caught, Caught) else 0.0
    lost = max(verdict.lost_let_go_m_s, stopped)
    return Reach(
        min(t.safe_m_s for t in whole),
        min(lost, *(t.lost_let_go_m_s for t in whole[1:])) if whole[1:] else lost,
        bears / max(verdict.parked.gust_m_s, 1e-6),
        verdict.rated.safe_m_s if carrier is None else verdict.safe_m_s,
        parts,
        shares,
        air.gust_m_s,
        _weakest(whole),
    )


def _rails_and_corners(under: CarrierVerdict) -> Iterator[tuple[str, RailVerdict | JointVerdict]]:
    yield from ((f"{r.runs} {r.rail}", r) for r in under.rails)
    yield from ((f"corner {j.weakest}", j) for j in under.joints)


def _share(part: RatedVerdict | RailVerdict | JointVerdict, air: Air) -> float:
    return (part.safe_m_s + air.gust_m_s) / max(part.let_go_m_s + air.gust_m_s, 1e-6)


def _goes(link: LinkVerdict, air: Air) -> float:
    """When a link goes, also where nobody is told because it is faster than the coefficients reach."""
    if link.let_go_m_s < FASTEST_M_S:
        return link.let_go_m_s
    of_air = (air.probe_m_s + air.gust_m_s) / sqrt(max(link.utilisation_nominal, 1e-6))
    return max(of_air - air.gust_m_s, FASTEST_M_S)


def _share_of_link(link: LinkVerdict, air: Air) -> float:
    """What is used of a link is a straight line in the square of the air's speed, told by two of its points:
    where it is probed and where the link goes.
    """
    if not link.utilisation:
        return 1.0
    bears = link.utilisation_nominal / link.utilisation
    goes, probed = (link.let_go_m_s + air.gust_m_s) ** 2, (air.probe_m_s + air.gust_m_s) ** 2
    known = abs(goes - probed) > 0.02 * goes and link.let_go_m_s < FASTEST_M_S
    slope = (1 - link.utilisation_nominal) / (goes - probed) if known else 1 / max(goes, 1e-6)
    return sqrt(max(1 - (1 - bears) / max(slope * goes, 1e-9), 0.0))


def _weakest(whole: Sequence[PanelVerdict | CarrierVerdict]) -> str:
    """Title of the link that is used most."""
    _, told, foot = max(((f.utilisation, t, f) for t in whole for f in t.feet), key=lambda found: found[0])
    return next(link.title for link in told.chains[foot.chain].links if link.id == foot.weakest)


def foreseen(now: Reach, alone: Sequence[Reach]) -> Reach:
    """What changes that reach ``alone`` singly might reach together. A change that puts other parts into the
    chain brings its own, and what it takes out is gone.
    """
    gone = {name for name in now.parts if any(name not in r.parts for r in alone)}
    names = set.union(*(set(r.parts) for r in alone)) - gone
    parts = {name: _part(name, now, alone) for name in names}
    shares = {name: max(r.shares.get(name, 0.0) for r in (now, *alone)) for name in names}
    safe = min((speed + now.gust_m_s) * shares[name] - now.gust_m_s for name, speed in parts.items())
    lost = max(r.lost_m_s / max(r.let_go_m_s, 1e-6) for r in (now, *alone))
    least = min(parts.values())
    own = max(r.own_m_s for r in (now, *alone))
    return Reach(safe, least * lost, _parked(now, alone, least), own, parts, shares, now.gust_m_s)


def _parked(now: Reach, alone: Sequence[Reach], let_go_m_s: float) -> float:
    """Where the same part goes first before and after each, what each makes of it; else as on the road."""
    if now.parked > 0 and {r.first for r in alone} == {now.first}:
        return now.parked * prod(r.parked / now.parked for r in alone)
    return max(now.parked * let_go_m_s / max(now.let_go_m_s, 1.0), *(r.parked for r in alone))


def _part(name: str, now: Reach, alone: Sequence[Reach]) -> float:
    had = [r for r in alone if name in r.parts]
    if name not in now.parts:  # of it the others change what the wind does, which the panel's rating tells
        rated = max(now.parts[RATED], 1.0)
        others = (r.parts[RATED] / rated for r in alone if name not in r.parts)
        return min(r.parts[name] for r in had) * prod(max(grown, 1.0) for grown in others)
    before = max(now.parts[name], 1.0)
    return before * prod(r.parts[name] / before for r in had)
