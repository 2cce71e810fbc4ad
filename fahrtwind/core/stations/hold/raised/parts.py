"""Parts of a raised unit in the wind: the air on it, how much of each part is used, the gust at its end."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

import numpy as np

from fahrtwind.core.formulas.air import speed_at_pressure
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.raised import pressed_coefficient
from fahrtwind.core.formulas.verdict import utilisation
from fahrtwind.core.formulas.wind import raised_coefficient
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.forces import FloatArray
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.parked import WIND_DENSITY_KG_M3
from fahrtwind.core.stations.hold.verdict import FASTEST_M_S

CENTRES = (0.25, 0.5, 0.75)
"""Where the air presses, of the chord from the hinge: a quarter from either edge, or in the middle."""
MOST_PA = 1e6
Line = tuple[FloatArray, FloatArray]
"""Of all cases a constant, and what one pascal adds: (cases,), or with the parts that are alike behind."""


@dataclass(frozen=True, slots=True)
class RaisedPart:
    """A part at the site's gust: force in N, or stress in N/mm², what it bears with its factor, and the gust
    at its end.
    """

    part: str
    force_n: float
    bears_n: float
    gust_m_s: float
    unit: Literal["N", "N/mm²"] = "N"


@dataclass(frozen=True, slots=True)
class Blow:
    """Air on a raised unit: force coefficient, away from the roof positive, and its centre, of the chord from
    the hinge.
    """

    coefficient: float
    centre: float


def blows(tilt_deg: float) -> tuple[Blow, ...]:
    """Up and down, each with the air at every one of ``CENTRES``."""
    tilt = given(tilt_deg, "chosen", "how far it is raised")
    up, down = float(raised_coefficient(tilt)), -float(pressed_coefficient(tilt))
    return tuple(Blow(c, centre) for c in (up, down) for centre in CENTRES)


def part(
    name: str, line: Line, bears: float, gust_pa: float, unit: Literal["N", "N/mm²"] = "N"
) -> RaisedPart:
    """Of all cases the force that uses most now, in ``unit``, and the least pressure, Pa, at which one is at
    its end.
    """
    now = line[0] + line[1] * gust_pa
    with scope(name):
        gust = gust_at(float(ends_pa(line, bears).min()))
    return RaisedPart(name, float(now.max()), bears, gust, unit)


def ends_pa(line: Line, bears: float) -> FloatArray:
    """The least pressure at which what bears so much is at its end, Pa: of parts that are alike, each."""
    constant, per_pa = line
    with np.errstate(divide="ignore", invalid="ignore"):
        reached = np.where(per_pa > 0, (bears - constant) / per_pa, MOST_PA)
    found = np.clip(np.where(constant > bears, 0.0, reached), 0.0, MOST_PA)
    return np.asarray(found.min(axis=0))


def gust_at(pressure_pa: float) -> float:
    """The gust that makes this pressure, m/s."""
    told = float(speed_at_pressure(min(pressure_pa, MOST_PA), WIND_DENSITY_KG_M3, 0.0))
    return min(told, FASTEST_M_S)


def sizes(line: Line) -> Line:
    """Sizes of vectors; constant and per pascal added up, on the safe side."""
    return np.linalg.norm(line[0], axis=-1), np.linalg.norm(line[1], axis=-1)


def weighed(pull: Line, along: Line, chains: Iterable[Chain]) -> tuple[Line, float]:
    """Pull on a chain of links with the force along it counted by its size at the ratio of the weakest
    strengths, and what the weakest bears, N; pushing counts by its size along alone.
    """
    links = [link for chain in chains for link in chain.links]
    bears = min(k.pull_design_n for k in links)
    ratio = bears / min(k.shear_design_n for k in links)
    return (pull[0] + ratio * np.abs(along[0]), pull[1] + ratio * np.abs(along[1])), bears


def linked(name: str, pull: Line, along: Line, chains: Iterable[Chain], gust_pa: float) -> RaisedPart:
    """A chain of links under pull and a force along it."""
    return part(name, *weighed(pull, along, chains), gust_pa)


def explain_parts(parts: tuple[RaisedPart, ...], by: str) -> None:
    """Note what of each is used at the site's gust; ``by``: what its force comes from."""
    for told in parts:
        with scope(told.part):
            utilisation(
                given(max(told.force_n, 0.0), "computed", f"{by}, worst case, {told.unit}"),
                0.0,
                given(told.bears_n, "computed", f"with its factor, {told.unit}"),
                1.0,
            )
