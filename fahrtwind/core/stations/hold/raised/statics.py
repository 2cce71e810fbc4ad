"""A raised unit in the wind: forces in struts, hinges and the feet under them, straight lines in the
pressure, and the gust at which the first part is at its end.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import cos, hypot, radians, sin

import numpy as np

from fahrtwind.core.formulas.air import speed_at_pressure
from fahrtwind.core.formulas.bolts import hole_bearing, thread_stress_area
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.raised import (
    buckling_share,
    pin_shear,
    pressed_coefficient,
    slenderness,
    strut_force,
    strut_strength,
)
from fahrtwind.core.formulas.roof import GRAVITY
from fahrtwind.core.formulas.wind import raised_coefficient
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.stations.hold.carriers.sections import shape_of
from fahrtwind.core.stations.hold.forces import FloatArray
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.parked import WIND_DENSITY_KG_M3
from fahrtwind.core.stations.hold.verdict import FASTEST_M_S
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.tables.alloys import ALLOYS
from fahrtwind.core.tables.fasteners import BOLT_FACTOR, BOLT_STEEL_SOURCE, BOLT_STRENGTH_N_MM2, BOLTS

FACTOR = 1.65
"""On yield and buckling, as for bars."""
IMPERFECTION = {"aluminium": (0.20, 0.10), "steel": (0.49, 0.20)}
CENTRES = (0.25, 0.5, 0.75)
"""Where the air presses, of the chord from the hinge: a quarter from either edge, or in the middle."""
EYE_EDGE_DIAMETERS = 1.5
GUST_FACTOR = 1.6
"""A gust against the wind of ten minutes (EN 1991-1-4 in open country, low heights)."""
MOST_PA = 1e6


@dataclass(frozen=True, slots=True)
class Unit:
    """Panels raised together: hinge to raised edge, area, mass, angle, where the struts grip and stand."""

    chord_mm: float
    area_m2: float
    mass_kg: float
    tilt_deg: float
    share: float
    base_mm: float

    @property
    def pin_mm(self) -> tuple[float, float]:
        """The struts' pins: out from the hinges, and over them."""
        along = self.share * self.chord_mm
        return along * cos(radians(self.tilt_deg)), along * sin(radians(self.tilt_deg))

    @property
    def strut_mm(self) -> float:
        x, z = self.pin_mm
        return hypot(self.base_mm - x, z)

    @property
    def square(self) -> float:
        """Cosine of the angle between strut and panel's normal."""
        x, z = self.pin_mm
        t = radians(self.tilt_deg)
        return ((self.base_mm - x) * sin(t) + z * cos(t)) / max(self.strut_mm, 1e-9)


@dataclass(frozen=True, slots=True)
class RaisedPart:
    """A part at the site's gust: force in N, what it bears with its factor, and the gust at its end."""

    part: str
    force_n: float
    bears_n: float
    gust_m_s: float


@dataclass(frozen=True, slots=True)
class RaisedVerdict:
    """A unit raised while parked. ``stow_m_s``: the gust at which the first part has used its strength with
    factor; ``mean_m_s``: the wind of ten minutes that has such gusts. ``latch_pull_n``: on each latch on the
    road, at the probed speed.
    """

    raising: str
    strut_mm: float
    parts: tuple[RaisedPart, ...]
    first: str
    stow_m_s: float
    mean_m_s: float
    latch_pull_n: float


def unit_of(raising: Raising, panels: tuple[PlacedPanel, ...]) -> Unit:
    """Of one panel or more."""
    rects = [panel_rect(p) for p in panels]
    across = panels[0].tilt_up in ("port", "starboard")
    low = min(r.y_mm if across else r.x_mm for r in rects)
    high = max(r.y_end_mm if across else r.x_end_mm for r in rects)
    chord = high - low
    base = raising.base.mm if raising.base else raising.at * chord
    return Unit(
        chord,
        sum(r.area_m2 for r in rects),
        sum(p.model.mass.kg for p in panels),
        max(p.tilt.deg for p in panels),
        raising.at,
        base,
    )


Line = tuple[FloatArray, FloatArray]
"""Of all cases a constant, and what one pascal adds: (cases,) or, outward and up, (cases, 2)."""


@dataclass(frozen=True, slots=True, eq=False)
class _Lines:
    """Tension of one strut; what one hinge and one strut do to the foot under them. N and N/Pa."""

    strut: Line
    hinge: Line
    strut_foot: Line


def _lines(unit: Unit, raising: Raising) -> _Lines:
    """Up and down, each with the air at every one of ``CENTRES``."""
    tilt = given(unit.tilt_deg, "chosen", "how far it is raised")
    up = float(raised_coefficient(tilt)) * unit.area_m2
    down = -float(pressed_coefficient(tilt)) * unit.area_m2
    weight = float(given(unit.mass_kg * GRAVITY, "chosen", "weight of the unit"))
    t, (x, z) = radians(unit.tilt_deg), unit.pin_mm
    normal = np.array([-sin(t), cos(t)])
    to_foot = np.array([unit.base_mm - x, -z]) / max(unit.strut_mm, 1e-9)
    cases = [(force, centre * unit.chord_mm) for force in (up, down) for centre in CENTRES]

    def strut(air: float, centre_mm: float, heavy: float) -> float:
        return float(strut_force(air, centre_mm, heavy, tilt, unit.chord_mm, unit.share, unit.square))

    still = np.array([strut(0.0, at, weight) for _, at in cases])
    blown = np.array([strut(air, at, 0.0) for air, at in cases])
    force = np.array([air for air, _ in cases])
    on_hinge = (
        still[:, None] * to_foot - weight * np.array([0.0, 1.0]),
        blown[:, None] * to_foot + force[:, None] * normal,
    )
    return _Lines(
        (still / raising.struts, blown / raising.struts),
        (on_hinge[0] / raising.hinges, on_hinge[1] / raising.hinges),
        (-still[:, None] * to_foot / raising.struts, -blown[:, None] * to_foot / raising.struts),
    )


def judge_raised(
    raising: Raising,
    panels: tuple[PlacedPanel, ...],
    chains: tuple[Chain, ...],
    gust_pa: float,
    road_pull_n: float,
) -> RaisedVerdict:
    """``chains``: of the feet that hinges and struts stand on; ``gust_pa``: of the site; ``road_pull_n``: on
    the raised edge on the road.
    """
    unit = unit_of(raising, panels)
    lines = _lines(unit, raising)
    bears = _strength(raising, unit)
    weakest = _weakest(chains)
    found = [
        _part("strut pulled", *lines.strut, bears.pulled_n, gust_pa),
        _part("strut pushed", -lines.strut[0], -lines.strut[1], bears.pushed_n, gust_pa),
        _part("pin of a hinge", *_sizes(lines.hinge), bears.pin_n, gust_pa),
        _part("foot under a hinge", *_on_foot(lines.hinge, weakest), weakest[0], gust_pa),
        _part("foot under a strut", *_on_foot(lines.strut_foot, weakest), weakest[0], gust_pa),
    ]
    first = min(found, key=lambda p: p.gust_m_s)
    return RaisedVerdict(
        raising.id,
        unit.strut_mm,
        tuple(found),
        first.part,
        first.gust_m_s,
        first.gust_m_s / GUST_FACTOR,
        road_pull_n / max(raising.latches, 1),
    )


def _part(name: str, constant: FloatArray, per_pa: FloatArray, bears_n: float, gust_pa: float) -> RaisedPart:
    """Of all cases the force that uses most now, and the least pressure at which one is at its end."""
    now = constant + per_pa * gust_pa
    with np.errstate(divide="ignore", invalid="ignore"):
        reached = np.where(per_pa > 0, (bears_n - constant) / per_pa, MOST_PA)
    limit = float(np.clip(np.where(constant > bears_n, 0.0, reached), 0.0, MOST_PA).min())
    gust = float(speed_at_pressure(limit, WIND_DENSITY_KG_M3, 0.0))
    return RaisedPart(name, float(now.max()), bears_n, min(gust, FASTEST_M_S))


def _sizes(lines: Line) -> Line:
    """Sizes of vectors; constant and per pascal added up, on the safe side."""
    return np.linalg.norm(lines[0], axis=1), np.linalg.norm(lines[1], axis=1)


def _weakest(chains: tuple[Chain, ...]) -> tuple[float, float]:
    """What the weakest foot bears in pull and along, design, N."""
    links = [link for chain in chains for link in chain.links]
    return min(k.pull_design_n for k in links), min(k.shear_design_n for k in links)


def _on_foot(
    lines: tuple[FloatArray, FloatArray], weakest: tuple[float, float]
) -> tuple[FloatArray, FloatArray]:
    """Pull on a foot with the force along counted at the ratio of its strengths; pushing counts by its size
    along alone.
    """
    ratio = weakest[0] / weakest[1]
    constant, per_pa = lines
    return constant[:, 1] + ratio * np.abs(constant[:, 0]), per_pa[:, 1] + ratio * np.abs(per_pa[:, 0])


@dataclass(frozen=True, slots=True)
class _Strength:
    pulled_n: float
    pushed_n: float
    pin_n: float


def _strength(raising: Raising, unit: Unit) -> _Strength:
    """One strut in tension and in compression, one pin, design, N."""
    alloy, bolt = ALLOYS[raising.alloy], BOLTS[raising.pin]
    with scope("strut"):
        shape = shape_of(raising.strut, f"raisings.{raising.id}.strut")
        radius = (min(shape.up_mm4, shape.side_mm4) / shape.area_mm2) ** 0.5
        yielding = given(alloy.yield_n_mm2, "table", alloy.source)
        slender = slenderness(
            given(max(unit.strut_mm, 20.0), "computed", "pin to pin"),
            radius,
            yielding,
            given(alloy.modulus_n_mm2, "table", alloy.source),
        )
        metal = "aluminium" if raising.alloy.startswith("6") else "steel"
        alpha, plateau = IMPERFECTION[metal]
        share = buckling_share(
            slender,
            given(alpha, "table", f"imperfection of {metal} tubes"),
            given(plateau, "table", f"plateau of {metal} tubes"),
        )
        pushed = float(strut_strength(share, given(shape.area_mm2, "computed", "metal"), yielding)) / FACTOR
        eye = hole_bearing(
            given(bolt.diameter_mm, "table", "pin"),
            given(2 * raising.strut.wall.mm, "chosen", "both walls of the strut"),
            given(alloy.ultimate_n_mm2, "table", alloy.source),
            given(EYE_EDGE_DIAMETERS * bolt.diameter_mm, "default", "pin to the strut's end"),
            given(bolt.clearance_mm, "table", "hole for the pin"),
        )
    with scope("pin"):
        area = thread_stress_area(
            given(bolt.diameter_mm, "table", "pin"),
            given(bolt.pitch_mm, "table", "thread pitch"),
            given(bolt.thread_form, "table", "form of the thread"),
        )
        pin = float(pin_shear(given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE), area)) / BOLT_FACTOR
    held = min(float(eye) / 1.95, pin)
    net = shape.area_mm2 - 2 * bolt.clearance_mm * raising.strut.wall.mm
    return _Strength(min(held, max(net, 0.0) * float(yielding) / FACTOR), min(held, pushed), pin)
