"""Snags of racks: points, bars, corners, and how a rack moves in the wind and on the road."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from math import radians, tan

import numpy as np

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.document import Obstacle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.sections import ChannelSection, OwnSection
from fahrtwind.core.quantities import Speed, UnitSystem
from fahrtwind.core.saying import say_force, say_length, say_size, say_speed
from fahrtwind.core.stations.hold.carriers.rack import crossbars_at
from fahrtwind.core.stations.hold.carriers.rails import clamps_of
from fahrtwind.core.stations.hold.carriers.seams import corners_judged, posts_welded, weldable
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.clear_height import LEAST_AIR_MM
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect, obstacle_rect, panel_rect
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.stations.survey.factory_points import RowFit
from fahrtwind.core.tables.alloys import ALLOYS

PRACTICE = "common practice, no source"
BAR_OVERHANG_SHARE = 0.4
SOFT_HZ = 20.0
LEAST_LEAN_DEG = 0.5
CUTS = 15
SLOT_MM = 2.0
"""What an oversized hole takes up without a slot (common practice)."""


@rule(
    "point-not-rated",
    "stop",
    "hold",
    "Factory points: rating not known",
    "A thread's size says nothing about the sheet behind it",
    each="carriers",
)
def point_not_rated(
    carrier: Carrier,
    carrier_verdict: CarrierVerdict,
    feet_of_carrier: tuple[FootPlace, ...],
    point_ratings_n: dict[str, float],
    units: UnitSystem,
) -> Iterator[Found]:
    unknown = {f.foot: f.row for f in feet_of_carrier if f.row and f.row not in point_ratings_n}
    if not unknown:
        return
    worst = max((f for f in carrier_verdict.feet if f.foot in unknown), key=lambda f: f.pull_n + f.shear_n)
    yield Found(
        place=f"survey.point_rows.{unknown[worst.foot]}.rating",
        where=f"{carrier.name}, {worst.foot}",
        why=f"{say_force(max(worst.pull_n, 0.0), units)} pull and {say_force(worst.shear_n, units)} along "
        "reach it at the probed speed; what it may bear nobody has said.",
        remedy="Type the maker's rating of one point under Survey.",
        quantity="pull",
        value=worst.pull_n,
        unit="N",
    )


@rule("point-off-slot", "caution", "hold", "Foot needs a slot to meet its point", PRACTICE, each="carriers")
def point_off_slot(carrier: Carrier, point_rows: tuple[RowFit, ...], units: UnitSystem) -> Iterator[Found]:
    if not isinstance(carrier, Rack):
        return
    for row in point_rows:
        for point in row.points if row.row in carrier.points else ():
            off = abs(point.off_x_mm or 0.0)
            if point.usable and carrier.start.mm <= point.x_mm <= carrier.end.mm and off > SLOT_MM:
                way = "aft" if (point.off_x_mm or 0.0) > 0 else "forward"
                yield Found(
                    place=f"survey.point_rows.{row.row}",
                    where=f"{row.name}, point {point.count + 1}",
                    why=f"It stands {say_length(off, units)} {way} of its row: pulled onto it, the rail "
                    "stays strained.",
                    remedy=f"File the foot's hole {way} by {say_length(off - SLOT_MM, units)}, or slot it.",
                    quantity="off its row",
                    value=off,
                    limit=SLOT_MM,
                    unit="mm",
                )


@rule("pads-lean", "note", "hold", "Pads lean the rails", "geometry", each="carriers")
def pads_lean(carrier: Carrier, survey_notes: Survey, units: UnitSystem) -> Iterator[Found]:
    if not isinstance(carrier, Rack):
        return
    width = carrier.hold.bracket.base_mm
    for row in survey_notes.point_rows:
        lean = abs(row.lean.deg) if row.lean else 0.0
        if row.id in carrier.points and lean >= LEAST_LEAN_DEG:
            wedge = width * tan(radians(lean))
            yield Found(
                place=f"survey.point_rows.{row.id}.lean",
                where=row.name,
                why=f"{lean:.1f}° out of level: over a base of {say_size(width, units)} that is "
                f"{say_length(wedge, units)}.",
                remedy="A wedge that high under the outer edge, or bend the feet; then measure the bars.",
                quantity="wedge",
                value=wedge,
                unit="mm",
            )


@rule("bar-over-obstacle", "stop", "hold", "Bar runs over something", "geometry", each="carriers")
def bar_over_obstacle(
    carrier: Carrier,
    carrier_verdict: CarrierVerdict,
    feet_of_carrier: tuple[FootPlace, ...],
    obstacles: tuple[Obstacle, ...],
    units: UnitSystem,
) -> Iterator[Found]:
    if not isinstance(carrier, Rack):
        return
    sag = carrier_verdict.sag_mm or 0.0
    for kind, path, own, under_mm in _across(carrier, feet_of_carrier):
        for obstacle in obstacles:
            if obstacle.height.mm > under_mm - sag and own.clipped(obstacle_rect(obstacle)) is not None:
                yield Found(
                    place=f"carriers.{carrier.id}.{path}",
                    where=f"{carrier.name}, {kind}",
                    why=f"{obstacle.name} is {say_length(obstacle.height.mm, units)} high; under the bar are "
                    f"{say_length(under_mm - sag, units)} when it sags.",
                    remedy="Move the bar, or raise the rack.",
                    quantity="height",
                    value=under_mm - sag,
                    limit=obstacle.height.mm,
                    unit="mm",
                )


def _across(rack: Rack, feet: tuple[FootPlace, ...]) -> Iterator[tuple[str, str, Rect, float]]:
    """Bars and crossbars: in words, job path, what they cover on the plan, their underside, mm."""
    for bar in rack.bars:
        at = _bar_rect(bar.x.mm, rack.bar_section.width.mm, rack.port.mm, rack.starboard.mm)
        yield f"bar {bar.id}", f"bars.{bar.id}.x", at, rack.bar_under_mm
    if rack.crossbars is None:
        return
    under = rack.crossbars
    for name, x in crossbars_at(feet).items():
        at = _bar_rect(x, under.section.width.mm, under.port_mm, under.starboard_mm)
        yield f"crossbar {name}", "feet_at" if rack.feet_at else "every", at, rack.foot_mm


def _bar_rect(x_mm: float, wide_mm: float, port_mm: float, starboard_mm: float) -> Rect:
    return Rect(x_mm - wide_mm / 2, port_mm, wide_mm, starboard_mm - port_mm)


@rule("off-the-bars", "stop", "hold", "Panel lies on fewer than two bars", "statics", each="panels")
def off_the_bars(panel: PlacedPanel, carriers: tuple[Carrier, ...]) -> Iterator[Found]:
    rack = next((c for c in carriers if c.id == panel.carrier), None)
    if not isinstance(rack, Rack):
        return
    held = len(clamps_of(rack, panel))
    if held < 4:
        rect = panel_rect(panel)
        under = sum(rect.x_mm < b.x.mm < rect.x_end_mm for b in rack.bars)
        short = under >= 2
        yield Found(
            place=f"panels.{panel.id}.{'y' if short else 'x'}",
            where=f"{panel.name} on {rack.name}",
            why="The bars do not reach both of its sides." if short else f"{under} bars are under it.",
            remedy="Longer bars." if short else "Move the panel over two bars, or a bar under it.",
            quantity="clamps",
            value=float(held),
            limit=4.0,
            unit="",
        )


@rule("bar-overhang", "caution", "hold", "Bars stick out far beyond the rails", PRACTICE, each="carriers")
def bar_overhang(carrier: Carrier, units: UnitSystem) -> Iterator[Found]:
    if not isinstance(carrier, Rack) or len(carrier.rails) < 2:
        return
    at = sorted(r.y.mm for r in carrier.rails)
    span = max(b - a for a, b in pairwise(at))
    for side, out in (("port", at[0] - carrier.port.mm), ("starboard", carrier.starboard.mm - at[-1])):
        if out > BAR_OVERHANG_SHARE * span:
            yield Found(
                place=f"carriers.{carrier.id}.{side}",
                where=f"{carrier.name}, {side} side",
                why=f"{say_length(out, units)} beyond the rail, {say_length(span, units)} between the rails.",
                remedy="Rails further out, or shorter bars.",
                quantity="overhang",
                value=out,
                limit=BAR_OVERHANG_SHARE * span,
                unit="mm",
            )


@rule(
    "bar-hums", "note", "hold", "Front bar may hum", "EN 1991-1-4:2005, E.1: vortex shedding", each="carriers"
)
def bar_hums(
    carrier: Carrier, carrier_verdict: CarrierVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    hum = carrier_verdict.hum
    if hum is not None and hum.wind_m_s < top_speed.m_s:
        yield Found(
            place=f"carriers.{carrier.id}.bars",
            where=carrier.name,
            why=f"Around {say_speed(hum.wind_m_s, units)} the wind sheds eddies in time with it.",
            remedy="Turn a square bar by 45°, set the front bar behind a vent, or fair it.",
            quantity="humming wind",
            value=hum.wind_m_s,
            limit=top_speed.m_s,
            unit="m/s",
        )


@rule(
    "rack-soft",
    "note",
    "hold",
    "Rack swings with the road",
    "Roads shake most below 20 Hz: common practice",
    each="carriers",
)
def rack_soft(carrier: Carrier, carrier_verdict: CarrierVerdict) -> Iterator[Found]:
    hum = carrier_verdict.hum
    if hum is not None and hum.frequency_hz < SOFT_HZ:
        yield Found(
            place=f"carriers.{carrier.id}.bar_section",
            where=carrier.name,
            why=f"It swings at {hum.frequency_hz:.0f} Hz with the panels on it.",
            remedy="Deeper bars or a shorter span; count bumps of 3 g on bad roads.",
            quantity="lowest frequency",
            value=hum.frequency_hz,
            limit=SOFT_HZ,
            unit="Hz",
        )


@rule(
    "corner-swings", "caution", "hold", "One bolt a corner: the rack can lozenge", "statics", each="carriers"
)
def corner_swings(carrier: Carrier) -> Iterator[Found]:
    if isinstance(carrier, Rack) and carrier.joint == "bolt":
        yield Found(
            place=f"carriers.{carrier.id}.joint",
            where=carrier.name,
            why="Bars turn about their bolt: only the feet keep it square.",
            remedy="Angles on both sides, a second bolt, or a diagonal.",
        )


@rule(
    "weak-beside-welds",
    "note",
    "hold",
    "Welded aluminium is soft beside the weld",
    "EN 1999-1-1:2007, Table 3.2b, heat-affected zone",
    each="carriers",
)
def weak_beside_welds(carrier: Carrier) -> Iterator[Found]:
    if not isinstance(carrier, Rack) or carrier.joint != "welded":
        return
    if all(ALLOYS[a].beside_weld_n_mm2 >= ALLOYS[a].yield_n_mm2 for a in (carrier.alloy, carrier.bar_alloy)):
        return
    yield Found(
        place=f"carriers.{carrier.id}.joint",
        where=carrier.name,
        why="Bars count with the strength that the heat has left.",
        remedy="Have it welded by somebody who does this for a living; look at every weld.",
    )


@rule("corner-welds", "note", "hold", "Not judged: the welds of the corners", PRACTICE, each="carriers")
def corner_welds(carrier: Carrier) -> Iterator[Found]:
    if not isinstance(carrier, Rack) or carrier.joint != "welded" or corners_judged(carrier):
        return
    silent = carrier.throat is None
    yield Found(
        place=f"carriers.{carrier.id}.throat",
        where=carrier.name,
        why="Nobody has said how thick they are."
        if silent
        else "Only tubes have a known line of weld: flat on flat, or a bar's end between rails.",
        remedy="Type their throat: the height of the weld from its root, without what bulges."
        if silent
        else "Square tubes, or bars that end between the rails; else somebody certified works it out.",
    )


@rule("cannot-be-welded", "stop", "hold", "Aluminium cannot be welded to steel", PRACTICE, each="carriers")
def cannot_be_welded(carrier: Carrier) -> Iterator[Found]:
    if not isinstance(carrier, Rack):
        return
    corner = carrier.joint == "welded" and not weldable(carrier.alloy, carrier.bar_alloy)
    post = carrier.posts is not None and posts_welded(carrier)
    if corner or (carrier.posts and post and not weldable(carrier.alloy, carrier.posts.alloy)):
        yield Found(
            place=f"carriers.{carrier.id}.joint" if corner else f"carriers.{carrier.id}.posts.alloy",
            where=carrier.name,
            why="Its parts are of metals that no weld joins.",
            remedy="One metal for all that is welded, or bolts and connectors.",
        )


@rule("throat-over-wall", "stop", "hold", "Weld thicker than what it joins", PRACTICE, each="carriers")
def throat_over_wall(carrier: Carrier, units: UnitSystem) -> Iterator[Found]:
    if not isinstance(carrier, Rack) or carrier.throat is None:
        return
    sections = [carrier.section]
    sections += [carrier.bar_section] if carrier.joint == "welded" else []
    sections += [carrier.posts.section] if carrier.posts and carrier.posts.joint_nm is None else []
    walls = [s.wall.mm for s in sections if not isinstance(s, OwnSection)]
    if walls and carrier.throat.mm > min(walls):
        yield Found(
            place=f"carriers.{carrier.id}.throat",
            where=carrier.name,
            why=f"A throat of {say_length(carrier.throat.mm, units)} on a wall of "
            f"{say_length(min(walls), units)}: the wall tears beside it, and burns through.",
            remedy=f"At most {say_length(min(walls), units)}.",
            quantity="throat",
            value=carrier.throat.mm,
            limit=min(walls),
            unit="mm",
        )


@rule("channel-holds-water", "note", "hold", "Channel holds water and dirt", PRACTICE, each="carriers")
def channel_holds_water(carrier: Carrier) -> Iterator[Found]:
    if isinstance(carrier.section, ChannelSection):
        yield Found(
            place=f"carriers.{carrier.id}.section",
            where=carrier.name,
            why="Open upward it fills; open downward it hides what rusts.",
            remedy="Drain holes at its low end, or a trim strip; open side down.",
        )


@rule("bar-on-crown", "stop", "hold", "Bar touches the crown of the roof", "geometry", each="carriers")
def bar_on_crown(
    carrier: Carrier,
    carrier_verdict: CarrierVerdict,
    feet_of_carrier: tuple[FootPlace, ...],
    crown: CrownSurface,
    units: UnitSystem,
) -> Iterator[Found]:
    """A bar is straight, the roof is not: between the rails, or the feet of a crossbar, it comes up to it."""
    if not isinstance(carrier, Rack):
        return
    sag = carrier_verdict.sag_mm or 0.0
    lying = [(f"bar {b.id}", _under_bar(carrier, b.x.mm, crown)) for b in carrier.bars]
    if carrier.crossbars is not None:  # bars then lie higher, on rails that follow the crossbars
        at = crossbars_at(feet_of_carrier)
        lying = [(f"crossbar {name}", _under_crossbar(carrier, x, crown)) for name, x in at.items()]
    narrowest = min(((air - sag, name) for name, air in lying), default=(LEAST_AIR_MM, ""))
    if narrowest[0] < LEAST_AIR_MM:
        rise = LEAST_AIR_MM - narrowest[0]
        between = "foot to foot" if carrier.crossbars else "rail to rail"
        yield Found(
            place=f"carriers.{carrier.id}.height",
            where=f"{carrier.name}, {narrowest[1]}",
            why=f"{say_length(narrowest[0], units)} between it and the roof when it sags."
            if narrowest[0] > 0
            else f"Straight from {between} it runs {say_length(-narrowest[0], units)} into the crown.",
            remedy=f"Raise the rails by {say_length(rise, units)}, or bend the bars to the crown.",
            quantity="air under the bar",
            value=narrowest[0],
            limit=LEAST_AIR_MM,
            unit="mm",
        )


def _under_bar(rack: Rack, x_mm: float, crown: CrownSurface) -> float:
    across = (rack.port.mm, rack.starboard.mm)
    return _air([r.y.mm for r in rack.rails], rack.bar_under_mm, x_mm, across, crown)


def _under_crossbar(rack: Rack, x_mm: float, crown: CrownSurface) -> float:
    under = rack.crossbars
    rows = [row.y.mm for row in under.feet] if under else []
    across = (under.port_mm, under.starboard_mm) if under else (0.0, 0.0)
    return _air(rows, rack.foot_mm, x_mm, across, crown)


def _air(
    rests: list[float], under_mm: float, x_mm: float, across: tuple[float, float], crown: CrownSurface
) -> float:
    """Least air under a bar straight over its outermost rests, twice the crown's doubt taken off, mm. A rack
    beside the middle leans with the roof.
    """
    ends = np.array([min(rests), max(rests)])
    front, back = crown.heights(np.full(2, x_mm), ends)
    lean = (back - front) / max(ends[1] - ends[0], 1.0)
    y = np.linspace(*across, CUTS)
    heights, sigmas = crown.doubted(np.full(CUTS, x_mm), y)
    return float((front + lean * (y - ends[0]) + under_mm - heights - 2 * sigmas).min())
