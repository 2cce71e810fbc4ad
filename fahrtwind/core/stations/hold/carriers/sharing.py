"""How a carrier's feet share what the clamps of all its panels hand down, and how its rails bend for it."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.job.carrier import Rails
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.rails import Profile, RailSharing, share_rail
from fahrtwind.core.stations.hold.forces import Forces, Shared
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.loads import CASES
from fahrtwind.core.stations.hold.sharing import share_shear, variants
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect

FloatArray = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True, eq=False)
class Carried:
    """A panel on a carrier: its clamps, how they share its loads, where it lies, its mass, and forces
    along the roof by ``along_rows``.
    """

    carrier: str
    panel: str
    clamps: tuple[FootPlace, ...]
    shared: Shared
    rect: Rect
    mass_kg: float
    along: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class Lines:
    """Pulls that are straight lines in the pressure: constant, per pascal, per pascal at the typical end."""

    constant: FloatArray
    per_pa: FloatArray
    typical: FloatArray

    def times(self, matrix: FloatArray) -> Lines:
        """At clamps (s, clamps) handed on by shares (…, clamps, feet): N or N/Pa, (…, s, feet)."""
        return Lines(self.constant @ matrix, self.per_pa @ matrix, self.typical @ matrix)


@dataclass(frozen=True, slots=True, eq=False)
class Bent:
    """A rail for one stiffness of its feet: which clamps lie on it, and its moments for each (v, c, p)."""

    clamps: list[int]
    moments: FloatArray
    places_mm: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class CarrierForces:
    """Forces on the feet of a carrier; what the clamps hand down on the road; and each rail that carries, for
    the softest and the stiffest its feet may stand.
    """

    road: Forces
    parked: Forces
    down: Lines
    rails: dict[str, list[Bent]]


def share_carrier(
    carrier: Rails,
    profile: Profile,
    feet: tuple[FootPlace, ...],
    chains: tuple[Chain, ...],
    carried: tuple[Carried, ...],
) -> CarrierForces:
    """Of a carrier with feet and at least one panel on it."""
    clamps = tuple(c for part in carried for c in part.clamps)
    road, parked = (_down([getattr(part.shared, where) for part in carried]) for where in ("road", "parked"))
    spans = [_rails(carrier, profile, feet, stiffness, clamps) for stiffness in _stiffness_ends(chains)]
    along, first = _along(feet, carried), carried[0].shared
    return CarrierForces(
        _forces(first.road, [road.times(pulls) for pulls, _ in spans], along[0], len(feet)),
        _forces(first.parked, [parked.times(pulls) for pulls, _ in spans], along[1], len(feet)),
        road,
        {r.id: [bent[r.id] for _, bent in spans] for r in carrier.rails if r.id in spans[0][1]},
    )


def _down(parts: list[Forces]) -> Lines:
    """What all clamps hand down, panel by panel, with every clamp there."""
    return Lines(
        *(
            np.concatenate([getattr(part, name)[0] for part in parts], axis=1)
            for name in ("pull_constant", "pull_per_pa", "pull_typical")
        )
    )


def _stiffness_ends(chains: tuple[Chain, ...]) -> list[FloatArray]:
    soft = np.array([c.stiffness_n_mm for c in chains])
    stiff = np.array([c.stiffest_n_mm for c in chains])
    return [soft] if np.array_equal(soft, stiff) else [soft, stiff]


def _rails(
    carrier: Rails,
    profile: Profile,
    feet: tuple[FootPlace, ...],
    stiffness: FloatArray,
    clamps: tuple[FootPlace, ...],
) -> tuple[FloatArray, dict[str, Bent]]:
    """What a newton at each clamp pulls at each foot, (v, clamps, feet), nan where the feet left hold no
    rail; and how each rail bends.
    """
    n = len(feet)
    pulls, bent = np.zeros((n + 1, len(clamps), n)), {}
    alike: dict[tuple[bytes, ...], RailSharing] = {}  # most rails are: then one is worked out
    for rail in carrier.rails:
        own = [i for i, f in enumerate(feet) if f.foot.startswith(f"{rail.id}m")]
        on = [i for i, c in enumerate(clamps) if c.foot in (f"{rail.id}front", f"{rail.id}rear")]
        if not own or not on:
            continue
        rests = np.array([feet[i].x_mm for i in own]), stiffness[own], np.array([clamps[i].x_mm for i in on])
        key = tuple(part.tobytes() for part in rests)
        span = alike[key] = alike[key] if key in alike else share_rail(profile, *rests)
        pulls[:, np.array(on)[:, None], own] = span.pulls[0]
        lost = np.array(own) + 1
        pulls[lost[:, None, None], np.array(on)[:, None], own] = span.pulls[1:]
        bent[rail.id] = Bent(on, span.moments, span.places_mm)
    return pulls, bent


def _along(
    feet: tuple[FootPlace, ...], carried: tuple[Carried, ...]
) -> tuple[tuple[FloatArray, FloatArray], ...]:
    """Forces along the roof on every foot, all panels together: constant and per pascal, (v, c, n), of the
    road and of the parked vehicle.
    """
    x, y = np.array([f.x_mm for f in feet]), np.array([f.y_mm for f in feet])
    along = np.array([part.along for part in carried])
    centre_x, centre_y = np.array([part.rect.centre for part in carried]).T
    turning = centre_x @ along[..., 1] - centre_y @ along[..., 0]
    whole = share_shear(x, y, along.sum(axis=0), turning).magnitude()
    n = len(CASES)
    return (whole[:, :n], whole[:, n : n + 1]), (np.zeros_like(whole[:, :1]), whole[:, n + 1 :])


def _forces(base: Forces, spans: list[Lines], along: tuple[FloatArray, FloatArray], count: int) -> Forces:
    """The situations of the panels, at the carrier's feet; twice where these stand on skin."""
    cases, models = len(set(base.cases)), len(base.cases) // len(set(base.cases))
    held = np.asarray(np.isfinite(spans[0].constant + spans[0].per_pa).all(axis=(1, 2)), dtype=np.bool_)

    def together(name: str) -> FloatArray:
        joined = np.concatenate([getattr(span, name) for span in spans], axis=1)
        joined[~held] = 0.0
        return joined

    def everywhere(part: FloatArray) -> FloatArray:
        each = np.broadcast_to(part[:, None], (count + 1, models, cases, count))
        tiled: FloatArray = np.tile(each.reshape(count + 1, models * cases, count), (1, len(spans), 1))
        return tiled

    skin = ("",) if len(spans) == 1 else (", skin at its softest", ", skin at its stiffest")
    return Forces(
        base.cases * len(spans),
        tuple(f"{model}{end}" for end in skin for model in base.models),
        together("constant"),
        together("per_pa"),
        together("typical"),
        everywhere(along[0]),
        everywhere(along[1]),
        held,
        variants(count),
        base.same_wind,
    )
