"""Whether bolts go in: feet on factory points that are not where the drawing has them, pads that lean."""

from __future__ import annotations

from math import radians, tan
from statistics import NormalDist, median

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.fitting import hole_sigma, slot_length
from fahrtwind.core.formulas.sections import thermal_growth
from fahrtwind.core.job.carrier import Carrier, Rack, Rail
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.job.roof import PointRow
from fahrtwind.core.job.workshop import Fit
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.bends import tool_deg
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.stations.survey.factory_points import PointPlace, RowFit
from fahrtwind.core.tables.fasteners import BOLTS

LIKELY = 0.99
"""All bolts of a carrier go in with this likelihood."""
SWING_K = 60.0
"""Between winter and a hot roof: common practice."""
PER_K = {"1.4301": 16e-6, "S235": 12e-6}
ALUMINIUM_PER_K, STEEL_PER_K = 23.1e-6, 12e-6
SLIGHT_DEG = 0.3


@dataclass(frozen=True, slots=True)
class FootFit:
    """A foot on a factory point: how far the point is off its row, aft and to starboard positive, along it
    only where the drawing is drilled; the slot that takes it up, along and across, mm; whether a round hole
    does.
    ``file_…``: what a file takes off a round hole, that way, to meet the point; ``reach_mm``: how far the
    rail runs beside its points; ``known``: the point was measured.
    """

    carrier: str
    foot: str
    where: str
    known: bool
    off_along_mm: float
    off_across_mm: float
    slot_along_mm: float
    slot_across_mm: float
    round: bool
    file_along_mm: float
    file_across_mm: float
    reach_mm: float


@dataclass(frozen=True, slots=True)
class Lean:
    """How a rail's pads lean with the roof, and what takes it out: a wedge under the lower edge of the base,
    or its foot bent by the lean (the tool a little further), or the rails strapped together at their height.
    """

    carrier: str
    rail: str
    lean_deg: float
    outward: bool
    wedge_mm: float
    tool_deg: float
    strap_mm: float


def fits_of(
    rack: Carrier, feet: tuple[FootPlace, ...], rows: tuple[RowFit, ...], fit: Fit
) -> tuple[FootFit, ...]:
    """Of the feet of a rack on factory points; the foot in the middle of each rail holds its place, the
    others let the rail grow.
    """
    if not isinstance(rack, Rack) or not rack.points or not feet or rack.own_rails:
        return ()
    points = {(p.row, p.count): p for row in rows for p in row.points}
    places = {f.foot: points[f.row or "", int(f.foot.rsplit("n", 1)[-1]) - 1] for f in feet}
    quantile = NormalDist().inv_cdf((1 + LIKELY ** (1 / (2 * len(feet)))) / 2)
    told = []
    for rail in rack.rails:
        own = sorted((f for f in feet if f.line == rail.id), key=lambda f: f.x_mm)
        middle = own[len(own) // 2].x_mm if own else 0.0
        line = median([f.y_mm for f in own]) if own else rail.y.mm
        for number, foot in enumerate(own):
            with scope("fit", rack.id), scope(foot.foot):
                told.append(
                    _fit(
                        rack,
                        rail,
                        foot,
                        places[foot.foot],
                        (quantile, foot.x_mm - middle, line - rail.y.mm),
                        fit,
                        _where(own, number),
                    )
                )
    return tuple(told)


def _where(own: list[FootPlace], number: int) -> str:
    side = own[number].side
    if number in (0, len(own) - 1):
        return f"{'front' if number == 0 else 'rear'} {side}"
    return f"{side}, {number + 1} of {len(own)}"


def _fit(
    rack: Rack,
    rail: Rail,
    foot: FootPlace,
    point: PointPlace,
    spread: tuple[float, float, float],
    fit: Fit,
    where: str,
) -> FootFit:
    """``spread``: the quantile, how far the foot is from the one that holds its place, and how far the line
    of all points lies beside the rail, mm.
    """
    quantile, from_middle, reach = spread
    bolt = BOLTS[JOINT_BOLT]
    sigma = hole_sigma(
        given(fit.measuring.mm, "chosen", "measuring"),
        given(fit.marking.mm, "chosen", "marking"),
        given(fit.drilling.mm, "chosen", "drilling"),
    )
    drawn = (point.off_x_mm or 0.0) if fit.drilled_to == "drawn" else 0.0
    across = foot.y_mm - rail.y.mm - reach
    growth = (
        abs(
            float(
                thermal_growth(
                    given(abs(from_middle), "computed", "from the foot in the middle"),
                    given(PER_K.get(rack.alloy, ALUMINIUM_PER_K), "table", "rail"),
                    given(STEEL_PER_K, "table", "steel roof"),
                    given(SWING_K, "default", "between winter and a hot roof"),
                )
            )
        )
        / 2
    )
    z = given(quantile, "computed", f"all {LIKELY:.0%} of the time")
    diameter = given(bolt.diameter_mm, "table", "bolt")
    with scope("along"):
        off = given(drawn, "measured", "the point off the drawn place")
        along = float(slot_length(diameter, off, z, sigma, given(growth, "computed", "warmth")))
    with scope("across"):
        # drilled as measured, the foot's own hole lies where its point is
        unknown = across if fit.drilled_to == "drawn" else 0.0
        off = given(unknown, "measured", "the point off the line of its row")
        beside = float(slot_length(diameter, off, z, sigma, given(0.0, "chosen", "none across")))
    fits_round = max(along, beside) <= bolt.clearance_mm
    return FootFit(
        rack.id,
        foot.foot,
        where,
        point.measured,
        drawn,
        across,
        along,
        beside,
        fits_round,
        _filed(drawn, bolt.clearance_mm - bolt.diameter_mm),
        _filed(unknown, bolt.clearance_mm - bolt.diameter_mm),
        reach,
    )


def _filed(off_mm: float, play_mm: float) -> float:
    """What a file takes off one side of a round hole, towards where the point is; with its sign, mm."""
    needed = max(abs(off_mm) - play_mm / 2, 0.0)
    return -needed if off_mm < 0 and needed else needed


def leans_of(
    carrier: Carrier, feet: tuple[FootPlace, ...], crown: CrownSurface | None, rows: tuple[PointRow, ...]
) -> tuple[Lean, ...]:
    """By rail, at the foot where it is most; none where it is slight. What somebody measured on the pads of a
    row counts before the crown, and outward, as crowned roofs lean.
    """
    if isinstance(carrier.hold, BasePlate | OuterFoot):
        return ()  # posts stand upright on what is made to lean
    bracket, told = carrier.hold.bracket, []
    under = carrier.crossbars if isinstance(carrier, Rack) else None
    for rail in under.feet if under else carrier.rails:
        own = [f for f in feet if (f.y_mm == rail.y.mm if under else f.line == rail.id)]
        side = 1.0 if rail.y.mm > 0 else -1.0
        measured = [side * abs(row.lean.deg) for f in own for row in rows if row.id == f.row and row.lean]
        slopes = measured or [crown.slopes(f.x_mm, f.y_mm)[0] for f in own if crown]
        lean = max(slopes, key=abs, default=0.0)
        if abs(lean) < SLIGHT_DEG:
            continue
        with scope("lean", carrier.id), scope(rail.id):
            tool = tool_deg(bracket, abs(lean))
        rise = tan(radians(abs(lean)))
        high = carrier.foot_mm + carrier.on_feet[0].height.mm
        outward = lean * rail.y.mm > 0
        told.append(Lean(carrier.id, rail.id, abs(lean), outward, bracket.base_mm * rise, tool, high * rise))
    return tuple(told)
