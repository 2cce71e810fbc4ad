"""Rails on feet with panels under clamps: where the clamps sit, what a rail is, and how its feet share."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sections import round_inertia, section_modulus, tube_inertia, yield_moment
from fahrtwind.core.job.carrier import OwnSection, Rails, RectangularTube
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.stations.hold.side_frame import beam_pulls
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.tables.alloys import ALLOYS

FloatArray = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Profile:
    """What a rail's section resists with: EI in N·mm², moment at yield in N·mm, nominal and design, mass in
    kg/m.
    """

    stiffness_n_mm2: float
    moment_nominal_n_mm: float
    moment_design_n_mm: float
    mass_kg_m: float
    source: str


def profile_of(carrier: Rails) -> Profile:
    """Raises InputError naming the field where an own section has no values."""
    section, alloy = carrier.section, ALLOYS[carrier.alloy]
    with scope("section"):
        if isinstance(section, OwnSection):
            inertia, modulus, mass = _own(section, f"carriers.{carrier.id}.section")
        else:
            inertia, height, area = _tube(section)
            modulus = float(section_modulus(inertia, height))
            mass = area * alloy.density_kg_m3 * 1e-6
        nominal = float(yield_moment(modulus, given(alloy.yield_n_mm2, "table", alloy.source)))
    return Profile(alloy.modulus_n_mm2 * float(inertia), nominal, nominal / MEMBER_FACTOR, mass, alloy.source)


MEMBER_FACTOR = 1.65
"""On yield: Aluminum Design Manual 2015, B.3; the partial factor of EN 1999 with its load factor comes to the
same.
"""


def _own(section: OwnSection, path: str) -> tuple[float, float, float]:
    for field in ("inertia_cm4", "modulus_cm3"):
        if getattr(section, field) is None:
            raise InputError(
                "The rail's own section has no values.",
                remedy="Type second moment and section modulus from its sheet.",
                field=f"{path}.{field}",
            )
    inertia = given((section.inertia_cm4 or 0.0) * 1e4, "chosen", "section's sheet")
    modulus = given((section.modulus_cm3 or 0.0) * 1e3, "chosen", "section's sheet")
    return inertia, modulus, section.mass_kg_m or USUAL_RAIL_KG_M


USUAL_RAIL_KG_M = 1.2


def _tube(section: RectangularTube | object) -> tuple[float, float, float]:
    """Second moment, height and area of a tube: mm⁴, mm, mm²."""
    if isinstance(section, RectangularTube):
        h, b, t = section.height.mm, section.width.mm, section.wall.mm
        inertia = tube_inertia(
            given(h, "chosen", "height"), given(b, "chosen", "width"), given(t, "chosen", "wall")
        )
        return float(inertia), h, b * h - max(b - 2 * t, 0.0) * max(h - 2 * t, 0.0)
    d, t = section.diameter.mm, section.wall.mm  # type: ignore[attr-defined]
    inertia = round_inertia(given(d, "chosen", "diameter"), given(t, "chosen", "wall"))
    return float(inertia), d, np.pi / 4 * (d**2 - max(d - 2 * t, 0.0) ** 2)


def clamps_of(carrier: Rails, panel: PlacedPanel) -> tuple[FootPlace, ...]:
    """Where a panel is clamped: at its front and its rear edge on every rail it lies across."""
    rect = panel_rect(panel)
    return tuple(
        FootPlace(
            panel=panel.id,
            foot=f"{rail.id}{side}",
            x_mm=x,
            y_mm=rail.y.mm,
            along_mm=rail.y.mm - rect.y_mm,
            moved_mm=0.0,
            member=None,
            off_mm=None,
            landing="rail",
            side=side,
        )
        for rail in carrier.rails
        if rect.y_mm < rail.y.mm < rect.y_end_mm
        for side, x in _edges(rect)
    )


def _edges(rect: Rect) -> tuple[tuple[Literal["front", "rear"], float], ...]:
    return (("front", rect.x_mm), ("rear", rect.x_end_mm))


def carrier_of(panel: PlacedPanel, carriers: tuple[Rails, ...]) -> Rails | None:
    """What a panel lies on; None on feet of its own, or where its carrier is gone."""
    return next((c for c in carriers if c.id == panel.carrier), None)


@dataclass(frozen=True, slots=True, eq=False)
class RailSharing:
    """How one rail hands pulls at its clamps to its feet and bends under them, for one newton at each clamp.

    ``pulls``: (v, clamps, feet), v with all feet and with each lost, nan where those left hold no rail;
    ``moments``: (v, clamps, places) N·mm at ``places_mm``, positive where the rail bends upward.
    """

    pulls: FloatArray
    moments: FloatArray
    places_mm: FloatArray


def share_rail(
    profile: Profile, feet_mm: FloatArray, stiffness: FloatArray, clamps_mm: FloatArray
) -> RailSharing:
    """A rail as a beam on the springs of its feet: places in mm along the roof, stiffness in N/mm."""
    unit = np.eye(len(clamps_mm))
    pulls = beam_pulls(feet_mm, stiffness, clamps_mm, unit, profile.stiffness_n_mm2)
    places = np.unique(np.concatenate([feet_mm, clamps_mm]))
    arms_up = np.maximum(places[:, None] - clamps_mm[None, :], 0.0)
    arms_down = np.maximum(places[:, None] - feet_mm[None, :], 0.0)
    moments = arms_up.T[None] - pulls @ arms_down.T
    return RailSharing(pulls, moments, places)
