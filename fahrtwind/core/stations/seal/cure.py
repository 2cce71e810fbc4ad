"""When rain may fall on a seal, when it is trimmed, when the vehicle may drive: ranges, for the day."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sealing import cure_time, vapour_pressure
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.seal.choice import SealChoice
from fahrtwind.core.tables.sealants import SOURCE, Family, Span

USUAL_C, USUAL_SHARE = 23.0, 0.5
COOL_C, DRY_SHARE = 10.0, 0.5
"""Where nobody said what day it will be: a cool one."""
FILLET_MM, LAYER_MM = 6.0, 1.5
"""Leg of the fillet round a plate, and the layer under it: common practice, no source."""
SETTLES_H = 48.0
"""Until tape has squeezed out what it will: trim after two days (common practice)."""
ROOT_TWO = 2**0.5


@dataclass(frozen=True, slots=True)
class CureTimes:
    """Hours, quick to slow. ``rain``: until it does no harm; ``fillet``: until the bead round a plate has
    cured through, and the vehicle may drive; ``under``: until the layer under the widest plate has, None for
    tape; ``trim``: until squeeze-out is trimmed. ``assumed``: nobody said what day it will be.
    """

    temperature_c: float
    humidity: float
    assumed: bool
    rain_h: Span
    fillet_h: Span
    under_h: Span | None
    trim_h: float | None


def cure_of(seal: Seal, choice: SealChoice, widest_mm: float) -> CureTimes:
    """``widest_mm``: the shorter side of the widest plate; moisture comes in from its edges."""
    assumed = seal.temperature is None or seal.humidity is None
    warm = COOL_C if seal.temperature is None else seal.temperature.deg_c
    damp = DRY_SHARE if seal.humidity is None else seal.humidity / 100
    with scope("cure"):
        fillet = _through(choice.round, FILLET_MM / ROOT_TWO, warm, damp)
        under = None
        if choice.under.cures != "stays soft":
            with scope("under"):
                under = _through(choice.under, widest_mm / 2, warm, damp)
    speed = max(_vapour(USUAL_C, USUAL_SHARE) / _vapour(warm, damp), 0.2)
    skin = choice.round.skin_h
    trim = SETTLES_H if choice.under.cures == "stays soft" and seal.edge == "trim" else None
    return CureTimes(warm, damp, assumed, Span(skin.least * speed, skin.most * speed), fillet, under, trim)


def slowest_of(kinds: tuple[tuple[Seal, SealChoice, float], ...]) -> CureTimes:
    """Over at least one kind of places, each with its widest plate, mm: the slowest of each time."""
    each = [cure_of(seal, choice, widest) for seal, choice, widest in kinds]
    first = each[0]
    unders = [c.under_h for c in each if c.under_h is not None]
    trims = [c.trim_h for c in each if c.trim_h is not None]
    return replace(
        first,
        rain_h=max((c.rain_h for c in each), key=lambda span: span.most),
        fillet_h=max((c.fillet_h for c in each), key=lambda span: span.most),
        under_h=max(unders, key=lambda span: span.most, default=None),
        trim_h=max(trims, default=None),
    )


def _vapour(warm_c: float, damp: float) -> float:
    return float(vapour_pressure(given(warm_c, "chosen", "air"), given(damp, "chosen", "moisture")))


def _through(family: Family, depth_mm: float, warm_c: float, damp: float) -> Span:
    """Hours until it has cured to a depth, quick to slow; at once for what does not cure."""
    depths = family.depth_24h_mm
    if not depths.most:
        return Span(0.0, 0.0)
    usual = vapour_pressure(given(USUAL_C, "table", "usual"), given(USUAL_SHARE, "table", "usual"))
    today = vapour_pressure(given(warm_c, "chosen", "air"), given(damp, "chosen", "moisture"))
    depth = given(depth_mm, "computed", "to the nearest air")
    times = []
    for rate, how in ((depths.most, "quick"), (depths.least, "slow")):
        with scope(how):
            times.append(float(cure_time(depth, given(rate, "table", SOURCE), usual, today)))
    return Span(*times)
