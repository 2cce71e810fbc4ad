"""Rails on feet with panels under clamps: where the clamps sit, what a rail is, and how its feet share."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.carrier import Carrier, OnRails, Rack
from fahrtwind.core.job.panel import PlacedPanel, Side
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.sections import MEMBER_FACTOR, bar_strength
from fahrtwind.core.stations.hold.side_frame import beam_pulls
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect

FloatArray = npt.NDArray[np.float64]

LEAST_FEET = 2


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


def profile_of(carrier: OnRails) -> Profile:
    """Raises InputError naming the field where an own section has no values."""
    bar = bar_strength(carrier.section, carrier.alloy, f"carriers.{carrier.id}.section")
    nominal = bar.moment_nominal_n_mm
    return Profile(bar.stiff.up_n_mm2, nominal, nominal / MEMBER_FACTOR, bar.mass_kg_m, bar.source)


CLAMP_OUT_MM = 8.0
"""From the panel's edge to the bolt of its clamp: common practice, no source; the clamp's maker decides."""


def bolt_of(clamp: FootPlace) -> float:
    """Where the bolt of a clamp on a bar is, y in mm: outside of the panel's edge."""
    return clamp.y_mm + (CLAMP_OUT_MM if clamp.side == "starboard" else -CLAMP_OUT_MM)


def bar_ends(rack: Rack) -> tuple[float, float]:
    """Where bars begin and end, y in mm: flush ones at the inner faces of the outermost rails."""
    if not rack.flush:
        return rack.port.mm, rack.starboard.mm
    half = rack.section.width.mm / 2
    across = [r.y.mm for r in rack.rails]
    return min(across) + half, max(across) - half


def over_rail(rack: Rack, clamp: FootPlace) -> bool:
    """Whether a clamp sits on a rail of a frame instead of on the bar that ends there."""
    start, end = bar_ends(rack)
    return rack.flush and not start <= bolt_of(clamp) <= end


def clamps_of(carrier: Carrier, panel: PlacedPanel) -> tuple[FootPlace, ...]:
    """Where a panel is clamped: at its front and rear edge on every rail it lies across, or at its sides on
    every bar.
    """
    rect = panel_rect(panel)
    if isinstance(carrier, Rack):
        return tuple(
            _clamp(panel, bar.id, side, (bar.x.mm, y), bar.x.mm - rect.x_mm)
            for bar in carrier.bars
            if rect.x_mm < bar.x.mm < rect.x_end_mm
            for side, y in _sides(rect)
            if carrier.port.mm <= y <= carrier.starboard.mm
        )
    return tuple(
        _clamp(panel, rail.id, side, (x, rail.y.mm), rail.y.mm - rect.y_mm)
        for rail in carrier.rails
        if rect.y_mm < rail.y.mm < rect.y_end_mm
        for side, x in _edges(rect)
    )


def _clamp(panel: PlacedPanel, line: str, side: Side, at: tuple[float, float], along_mm: float) -> FootPlace:
    return FootPlace(
        panel=panel.id,
        foot=f"{line}{side}",
        x_mm=at[0],
        y_mm=at[1],
        along_mm=along_mm,
        moved_mm=0.0,
        member=None,
        off_mm=None,
        landing="rail",
        side=side,
        line=line,
    )


def _sides(rect: Rect) -> tuple[tuple[Literal["port", "starboard"], float], ...]:
    return (("port", rect.y_mm), ("starboard", rect.y_end_mm))


def _edges(rect: Rect) -> tuple[tuple[Literal["front", "rear"], float], ...]:
    return (("front", rect.x_mm), ("rear", rect.x_end_mm))


def carrier_of(panel: PlacedPanel, carriers: tuple[Carrier, ...]) -> Carrier | None:
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
    """A rail as a beam on the springs of its feet: places in mm along the roof, stiffness in N/mm.

    Raises InputError where a single foot carries it: it would turn about that.
    """
    if len(feet_mm) < LEAST_FEET:
        raise InputError(
            "A rail stands on one foot and turns about it.",
            remedy="Let it reach over a second member, or give its panel feet of its own.",
            field="carriers",
        )
    unit = np.eye(len(clamps_mm))
    pulls = beam_pulls(feet_mm, stiffness, clamps_mm, unit, profile.stiffness_n_mm2)
    places = np.unique(np.concatenate([feet_mm, clamps_mm]))
    arms_up = np.maximum(places[:, None] - clamps_mm[None, :], 0.0)
    arms_down = np.maximum(places[:, None] - feet_mm[None, :], 0.0)
    moments = arms_up.T[None] - pulls @ arms_down.T
    return RailSharing(pulls, moments, places)
