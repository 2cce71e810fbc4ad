"""What every taped foot asks of its tape: at full tilt, for hours, and for good."""

from __future__ import annotations

from fahrtwind.core.formulas.adhesive import hot_share, lasting_stress, touching_share, widest_foot
from fahrtwind.core.formulas.air import dynamic_pressure
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.job.panel import FoamTape, Holding
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.forces import Forces
from fahrtwind.core.stations.hold.schools.tape.chain import bonded_pad_mm, permanent_peel_n_mm2
from fahrtwind.core.stations.hold.verdict import Air
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.tables import feet as ft

CRUISING = "cruising"
COOL_DEG_C = 25.0
"""Of a roof in the stream the air keeps off about half of what the sun adds to a parked one (judgement)."""
LEAST_RADIUS_MM = 100.0


@dataclass(frozen=True, slots=True)
class TapedFoot:
    """A foot on tape. Stresses in N/mm²: ``average`` and ``edge`` in the worst gust at the probed speed,
    ``lasting`` for hours of cruising without gust against what it bears so long, hot, ``permanent`` where the
    base was forced onto the roof's curve; ``touching``: share of its face that meets the roof by itself;
    ``widest_mm``: a stiff base that this curve leaves in peace. None where the crown is not known.
    """

    panel: str
    foot: str
    average_n_mm2: float
    edge_n_mm2: float
    lasting_n_mm2: float
    lasting_bears_n_mm2: float
    radius_mm: float | None
    permanent_n_mm2: float | None
    touching: float | None
    widest_mm: float | None


def taped_feet(
    hold: Holding, feet: tuple[FootPlace, ...], road: Forces, air: Air, crown: CrownSurface | None
) -> tuple[TapedFoot, ...]:
    """Every foot on tape, in the order of the forces on them; none where something else holds."""
    if not isinstance(hold, FoamTape) or not feet:
        return ()
    worst = (road.pull_constant[0] + road.pull_per_pa[0] * air.pressure_pa).max(axis=0)
    with scope("tape", feet[0].panel):
        cruise = dynamic_pressure(air.density_kg_m3, given(air.probe_m_s, "chosen", "road speed"))
        driven = (hold.hottest.deg_c + COOL_DEG_C) / 2
        hot = hot_share(given(driven, "computed", "driven in summer, halfway to a parked roof"))
        bears = lasting_stress(given(ft.CRUISE_H, "default", "hours without a break")) * hot
    rows = [i for i, case in enumerate(road.cases) if case == CRUISING]
    steady = (road.pull_typical[0, rows] * float(cruise)).max(axis=0)
    return tuple(
        _told(hold, foot, (float(worst[i]), float(steady[i]), float(bears)), crown)
        for i, foot in enumerate(feet)
    )


def _told(
    hold: FoamTape, foot: FootPlace, loads: tuple[float, float, float], crown: CrownSurface | None
) -> TapedFoot:
    """``loads``: worst pull and steady pull in N, and what the tape bears for hours in N/mm²."""
    worst, steady, bears = loads
    length, width = bonded_pad_mm(hold)
    off = max(hold.bracket.lever.mm, ft.TAPE_ECCENTRICITY_MM)
    tilted = 1 + 6 * off / width
    shape = crown.at(foot.x_mm, foot.y_mm) if crown is not None else None
    radius = None if shape is None or shape.radius_mm is None else max(shape.radius_mm, LEAST_RADIUS_MM)
    flat = shape is not None and radius is None
    permanent = touching = widest = None
    with scope("tape", foot.panel, foot.foot):
        if flat or (shape is not None and (hold.shaped != "flat" or hold.bond == "adhesive")):
            permanent, touching = 0.0, 1.0
        elif radius is not None:
            thick = given(hold.thickness.mm, "chosen", "tape thickness")
            bend = given(radius, "inferred", "crown at the foot")
            permanent = permanent_peel_n_mm2(hold, radius)
            touching = float(touching_share(bend, thick, given(width, "chosen", "pad width")))
            widest = float(widest_foot(bend, ft.TAPE_FOR_EVER_N_MM2, thick, ft.TAPE_RELAXED_N_MM2))
    area = length * width * hold.filled
    return TapedFoot(
        foot.panel,
        foot.foot,
        worst / area,
        worst / area * tilted,
        max(steady, 0.0) / area * tilted,
        bears,
        radius,
        permanent,
        touching,
        widest,
    )
