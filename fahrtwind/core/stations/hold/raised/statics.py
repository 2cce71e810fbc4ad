"""A raised unit in the wind: forces in struts, hinges and the feet under them, straight lines in the
pressure, and the gust at which the first part is at its end.
"""

from __future__ import annotations

from math import cos, hypot, radians, sin

import numpy as np

from fahrtwind.core.formulas.bolts import hole_bearing, thread_stress_area
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.raised import buckling_share, pin_shear, slenderness, strut_force, strut_strength
from fahrtwind.core.formulas.roof import GRAVITY
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.sections import shape_of
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.raised.parts import Line, RaisedPart, blows, linked, part, sizes
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.tables.alloys import ALLOYS
from fahrtwind.core.tables.fasteners import BOLT_FACTOR, BOLT_STEEL_SOURCE, BOLT_STRENGTH_N_MM2, BOLTS

FACTOR = 1.65
"""On yield and buckling, as for bars."""
IMPERFECTION = {"aluminium": (0.20, 0.10), "steel": (0.49, 0.20)}
EYE_EDGE_DIAMETERS = 1.5
GUST_FACTOR = 1.6
"""A gust against the wind of ten minutes (EN 1991-1-4 in open country, low heights)."""


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
class RaisedVerdict:
    """A unit raised while parked. ``frame``: the carrier raised with its panels, None where they stand on
    feet of their own; ``chord_mm``: hinge to raised edge; ``stow_m_s``: the gust at which the first part
    has used its strength with factor; ``mean_m_s``: the wind of ten minutes that has such gusts;
    ``latch_pull_n``: on each latch on the road, at the probed speed.
    """

    raising: str
    frame: str | None
    hinges: int
    chord_mm: float
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


@dataclass(frozen=True, slots=True, eq=False)
class _Lines:
    """Tension of one strut; what one hinge and one strut do to the foot under them. N and N/Pa."""

    strut: Line
    hinge: Line
    strut_foot: Line


def _lines(unit: Unit, raising: Raising) -> _Lines:
    """Up and down, each with the air at every one of ``CENTRES``."""
    tilt = given(unit.tilt_deg, "chosen", "how far it is raised")
    weight = float(given(unit.mass_kg * GRAVITY, "chosen", "weight of the unit"))
    t, (x, z) = radians(unit.tilt_deg), unit.pin_mm
    normal = np.array([-sin(t), cos(t)])
    to_foot = np.array([unit.base_mm - x, -z]) / max(unit.strut_mm, 1e-9)
    cases = [(b.coefficient * unit.area_m2, b.centre * unit.chord_mm) for b in blows(unit.tilt_deg)]

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
    bears = strength(raising, unit.strut_mm)
    found = (
        part("strut pulled", lines.strut, bears.pulled_n, gust_pa),
        part("strut pushed", (-lines.strut[0], -lines.strut[1]), bears.pushed_n, gust_pa),
        part("pin of a hinge", sizes(lines.hinge), bears.pin_n, gust_pa),
        _foot("foot under a hinge", lines.hinge, chains, gust_pa),
        _foot("foot under a strut", lines.strut_foot, chains, gust_pa),
    )
    return verdict_of(raising, found, (unit.chord_mm, unit.strut_mm), road_pull_n, (None, raising.hinges))


def _foot(name: str, line: Line, chains: tuple[Chain, ...], gust_pa: float) -> RaisedPart:
    (out, up), (out_pa, up_pa) = (np.moveaxis(one, 1, 0) for one in line)
    return linked(name, (up, up_pa), (out, out_pa), chains, gust_pa)


def verdict_of(
    raising: Raising,
    parts: tuple[RaisedPart, ...],
    sizes_mm: tuple[float, float],
    road_pull_n: float,
    frame: tuple[str | None, int],
) -> RaisedVerdict:
    """What goes first decides. ``sizes_mm``: chord and strut; ``road_pull_n``: on the raised edge on the
    road; ``frame``: what is raised with the panels, and on how many hinges.
    """
    first = min(parts, key=lambda p: p.gust_m_s)
    return RaisedVerdict(
        raising.id,
        *frame,
        *sizes_mm,
        parts,
        first.part,
        first.gust_m_s,
        first.gust_m_s / GUST_FACTOR,
        road_pull_n / max(raising.latches, 1),
    )


@dataclass(frozen=True, slots=True)
class Strength:
    pulled_n: float
    pushed_n: float
    pin_n: float


def strength(raising: Raising, strut_mm: float) -> Strength:
    """One strut in tension and in compression, one pin, design, N."""
    alloy, bolt = ALLOYS[raising.alloy], BOLTS[raising.pin]
    with scope("strut"):
        shape = shape_of(raising.strut, f"raisings.{raising.id}.strut")
        radius = (min(shape.up_mm4, shape.side_mm4) / shape.area_mm2) ** 0.5
        yielding = given(alloy.yield_n_mm2, "table", alloy.source)
        slender = slenderness(
            given(max(strut_mm, 20.0), "computed", "pin to pin"),
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
    return Strength(min(held, max(net, 0.0) * float(yielding) / FACTOR), min(held, pushed), pin)
