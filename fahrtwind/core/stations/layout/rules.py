"""Snags of the layout: edges, lids, neighbours, data sheets."""

from collections.abc import Iterator
from typing import cast

import shapely
from shapely.geometry import Point

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Assumptions, Obstacle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.clear_height import LEAST_AIR_MM, ClearHeight
from fahrtwind.core.stations.layout.distances import Distance, Hindrance, Overlap, bridges, outside_mm
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.layout.room import SIDES, Side, least_from_edge
from fahrtwind.core.stations.survey.findings import SurveyFindings
from fahrtwind.core.stations.survey.outline import is_plain, polygon_of

PRACTICE = "common practice, no source"
SHEET_TOLERANCE_MM = 2.0
CABLE_ROOM_MM = 20.0


def _panel(panels: tuple[PlacedPanel, ...], panel_id: str) -> PlacedPanel:
    return next(p for p in panels if p.id == panel_id)


def _other_name(obstacles: tuple[Obstacle, ...], panels: tuple[PlacedPanel, ...], other: str) -> str:
    names = {o.id: o.name for o in obstacles} | {p.id: p.name for p in panels}
    return names.get(other, other)


def _least(assumptions: Assumptions, side: str) -> float:
    return least_from_edge(assumptions, cast(Side, side))


@rule("over-edge", "stop", "layout", "Panel over the roof edge", PRACTICE)
def over_edge(
    distances: tuple[Distance, ...],
    units: UnitSystem,
    assumptions: Assumptions,
    panels: tuple[PlacedPanel, ...],
) -> Iterator[Found]:
    for d in distances:
        allowed = max(-_least(assumptions, d.to), 0.0) if d.kind == "edge" else 0.0
        if d.kind == "edge" and -d.mm > allowed + 0.5:
            more = f"; {say_length(allowed, units)} is allowed" if allowed else ", into the stream"
            yield Found(
                place=f"panels.{d.panel}",
                where=_panel(panels, d.panel).name,
                why=f"It stands {say_length(-d.mm, units)} over the {d.to} edge{more}.",
                remedy="Move it inward or turn it.",
                quantity="overhang",
                value=-d.mm,
                limit=allowed,
                unit="mm",
            )


@rule("hangs-over", "caution", "layout", "Panel hangs over the roof edge as allowed", PRACTICE)
def hangs_over(
    distances: tuple[Distance, ...],
    units: UnitSystem,
    assumptions: Assumptions,
    panels: tuple[PlacedPanel, ...],
) -> Iterator[Found]:
    for d in distances:
        if d.kind == "edge" and -0.5 > d.mm >= _least(assumptions, d.to) - 0.5:
            yield Found(
                place=f"panels.{d.panel}",
                where=_panel(panels, d.panel).name,
                why=f"It hangs {say_length(-d.mm, units)} over the {d.to} edge.",
                remedy="The stream gets under it, branches catch it: check the let-go speed and the "
                "width of the vehicle.",
                quantity="overhang",
                value=-d.mm,
                limit=0.0,
                unit="mm",
            )


@rule("near-edge", "caution", "layout", "Panel close to the roof edge", PRACTICE)
def near_edge(
    distances: tuple[Distance, ...],
    units: UnitSystem,
    assumptions: Assumptions,
    panels: tuple[PlacedPanel, ...],
) -> Iterator[Found]:
    for d in distances:
        least = _least(assumptions, d.to) if d.kind == "edge" else 0.0
        if d.kind == "edge" and -0.5 <= d.mm < least - 0.5:
            yield Found(
                place=f"panels.{d.panel}",
                where=_panel(panels, d.panel).name,
                why=f"Only {say_length(d.mm, units)} to the {d.to} edge; {say_length(least, units)} "
                f"is wanted.",
                remedy="Move it inward; feet need flat roof beside the frame.",
                quantity="distance",
                value=d.mm,
                limit=least,
                unit="mm",
            )


@rule("panels-overlap", "stop", "layout", "Panels overlap", "geometry")
def panels_overlap(
    overlaps: tuple[Overlap, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
    obstacles: tuple[Obstacle, ...],
) -> Iterator[Found]:
    for o in overlaps:
        if o.kind == "panel":
            yield Found(
                place=f"panels.{o.panel}",
                where=f"{_panel(panels, o.panel).name} and {_other_name(obstacles, panels, o.other)}",
                why=f"They overlap by {say_length(o.depth_mm, units)}.",
                remedy="Move one of them.",
                quantity="overlap",
                value=o.depth_mm,
                limit=0.0,
                unit="mm",
            )


@rule("on-obstacle", "stop", "layout", "Panel on an obstacle", "geometry; service clearance as entered")
def on_obstacle(
    overlaps: tuple[Overlap, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
    obstacles: tuple[Obstacle, ...],
) -> Iterator[Found]:
    for o in overlaps:
        if o.kind == "obstacle":
            yield Found(
                place=f"panels.{o.panel}",
                where=f"{_panel(panels, o.panel).name} and {_other_name(obstacles, panels, o.other)}",
                why=f"It reaches {say_length(o.depth_mm, units)} into the obstacle or its clearance.",
                remedy="Move the panel.",
                quantity="overlap",
                value=o.depth_mm,
                limit=0.0,
                unit="mm",
            )


@rule(
    "bridges-obstacle", "caution", "layout", "Panel carried over an obstacle", "geometry; height as entered"
)
def bridges_obstacle(
    in_the_way: tuple[Hindrance, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
    obstacles: tuple[Obstacle, ...],
) -> Iterator[Found]:
    heights = {o.id: o.height.mm for o in obstacles}
    for panel in panels:
        for one in in_the_way:
            if bridges(panel, one) and panel_rect(panel).clipped(one.rect) is not None:
                yield Found(
                    place=f"obstacles.{one.id}.height",
                    where=f"{panel.name} over {_other_name(obstacles, panels, one.id)}",
                    why=f"It is counted {say_length(heights[one.id], units)} high, "
                    f"{say_length(panel.stand_off.mm - heights[one.id], units)} under the panel.",
                    remedy="Measure it at its highest spot; what breathes or receives wants more air.",
                    quantity="air",
                    value=panel.stand_off.mm - heights[one.id],
                    unit="mm",
                )


@rule("lid-blocked", "stop", "layout", "Lid cannot open", "geometry; lid angle, or lean as entered")
def lid_blocked(
    overlaps: tuple[Overlap, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
    obstacles: tuple[Obstacle, ...],
) -> Iterator[Found]:
    for o in overlaps:
        if o.kind == "lid":
            yield Found(
                place=f"panels.{o.panel}",
                where=f"{_panel(panels, o.panel).name} under {_other_name(obstacles, panels, o.other)}",
                why=f"The open lid would lean {say_length(o.depth_mm, units)} over the panel.",
                remedy="Move the panel out of the lid's swing.",
                quantity="overlap",
                value=o.depth_mm,
                limit=0.0,
                unit="mm",
            )


@rule("panels-too-close", "caution", "layout", "Panels too close together", PRACTICE)
def too_close(
    assumptions: Assumptions,
    distances: tuple[Distance, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
    obstacles: tuple[Obstacle, ...],
) -> Iterator[Found]:
    least = assumptions.panel_gap.mm
    for d in distances:
        if d.kind == "panel" and 0 <= d.mm < least - 0.5 and (d.panel < d.to):
            yield Found(
                place=f"panels.{d.panel}",
                where=f"{_panel(panels, d.panel).name} and {_other_name(obstacles, panels, d.to)}",
                why=f"Only {say_length(d.mm, units)} apart: no room for clamps, cables or a spanner.",
                remedy=f"Leave {say_length(least, units)} or more.",
                quantity="gap",
                value=d.mm,
                limit=least,
                unit="mm",
            )


@rule(
    "measured-differs",
    "caution",
    "layout",
    "Delivered panel differs from the data sheet",
    "common practice: measure before cutting metal",
)
def measured_differs(panels: tuple[PlacedPanel, ...], units: UnitSystem) -> Iterator[Found]:
    for panel in panels:
        for word, measured, sheet in (
            ("long", panel.measured_length, panel.model.length),
            ("wide", panel.measured_width, panel.model.width),
        ):
            if measured is not None and abs(measured.mm - sheet.mm) > SHEET_TOLERANCE_MM:
                yield Found(
                    place=f"panels.{panel.id}",
                    where=panel.name,
                    why=f"It is {say_length(measured.mm, units)} {word}, the sheet says "
                    f"{say_length(sheet.mm, units)}.",
                    remedy="The plan uses the measured size; check the other panels of the lot.",
                    quantity="difference",
                    value=measured.mm - sheet.mm,
                    limit=SHEET_TOLERANCE_MM,
                    unit="mm",
                )


@rule(
    "not-measured",
    "note",
    "layout",
    "Panel not measured yet",
    "common practice: measure before cutting metal",
)
def not_measured(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    waiting = [p.name for p in panels if p.measured_length is None or p.measured_width is None]
    if waiting:
        yield Found(
            place="panels",
            where=", ".join(waiting),
            why="Sizes are from the data sheet.",
            remedy="Measure the delivered panels and type length and width in.",
        )


@rule("no-air-gap", "caution", "layout", "No room under the panel", PRACTICE)
def no_air_gap(panels: tuple[PlacedPanel, ...], units: UnitSystem) -> Iterator[Found]:
    for panel in panels:
        if panel.stand_off.mm < CABLE_ROOM_MM:
            yield Found(
                place=f"panels.{panel.id}.stand_off",
                where=panel.name,
                why=f"Only {say_length(panel.stand_off.mm, units)} under the frame: cables chafe, "
                f"the panel runs hot, a crowned roof touches.",
                remedy=f"Raise it to {say_length(CABLE_ROOM_MM, units)} or more.",
                quantity="stand-off",
                value=panel.stand_off.mm,
                limit=CABLE_ROOM_MM,
                unit="mm",
            )


def _overhang(assumptions: Assumptions) -> float:
    """The most that may hang over any edge, mm: a corner of a shaped roof belongs to no one side."""
    return max(0.0, *(-least_from_edge(assumptions, side) for side in SIDES))


@rule("off-outline", "stop", "layout", "Panel reaches over the roof's edge", PRACTICE)
def off_outline(
    survey_notes: Survey,
    surveyed: SurveyFindings,
    panels: tuple[PlacedPanel, ...],
    units: UnitSystem,
    assumptions: Assumptions,
) -> Iterator[Found]:
    if is_plain(survey_notes.outline) or len(surveyed.outline) < 3 or surveyed.outline_trouble:
        return
    roof = polygon_of(surveyed.outline)
    whole = shapely.covers(roof, [panel_rect(p).polygon() for p in panels])
    for panel in (p for p, inside in zip(panels, whole, strict=True) if not inside):
        out = outside_mm(panel_rect(panel), roof)
        if out > 0.5 + _overhang(assumptions):
            yield Found(
                place=f"panels.{panel.id}",
                where=panel.name,
                why=f"A corner stands {say_length(out, units)} outside the roof's edge.",
                remedy="Move it inward or turn it.",
                quantity="outside",
                value=out,
                limit=0.0,
                unit="mm",
            )


@rule(
    "on-falling-edge", "caution", "layout", "Panel over the falling edge of the roof", PRACTICE, each="panels"
)
def on_falling_edge(
    panel: PlacedPanel,
    own_feet: tuple[FootPlace, ...],
    survey_notes: Survey,
    surveyed: SurveyFindings,
    units: UnitSystem,
) -> Iterator[Found]:
    outline = survey_notes.outline
    if len(surveyed.flat) < 3 or not (outline.side_fall.mm or outline.front_fall.mm or outline.rear_fall.mm):
        return
    flat = polygon_of(surveyed.flat)
    for f in own_feet:
        away = float(flat.distance(Point(f.x_mm, f.y_mm)))
        if away > 0.5:
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{panel.name}, foot {f.foot}",
                why=f"It stands {say_length(away, units)} beyond where the roof is flat.",
                remedy="Move the foot or the panel inward, or shape the foot to the fall.",
                quantity="beyond",
                value=away,
                limit=0.0,
                unit="mm",
            )


@rule("out-of-reach", "caution", "layout", "Foot out of reach from the ladder", PRACTICE)
def out_of_reach(
    surveyed: SurveyFindings,
    survey_notes: Survey,
    feet: tuple[FootPlace, ...],
    units: UnitSystem,
    holders: tuple[Holder, ...],
) -> Iterator[Found]:
    reach = surveyed.reach
    if reach is None or survey_notes.access.walkable == "yes":
        return
    areas = [polygon_of(area) for area in reach.areas]
    lost: dict[str, list[str]] = {}
    for f in feet:
        if not any(area.distance(Point(f.x_mm, f.y_mm)) < 1.0 for area in areas):
            lost.setdefault(f.panel, []).append(f.foot)
    named = {h.id: h for h in holders}
    for holder, beyond in lost.items():
        yield Found(
            place=named[holder].path,
            where=named[holder].name,
            why=f"Feet {', '.join(beyond)} are beyond arm's length "
            f"({say_length(survey_notes.access.reach.mm, units)}) from any ladder.",
            remedy="Move them outward, set the ladder at another side, or work from a plank on trestles.",
            quantity="reach",
            value=None,
            limit=survey_notes.access.reach.mm,
            unit="mm",
        )


@rule(
    "touches-the-crown",
    "stop",
    "layout",
    "Panel touches the crowned roof",
    "geometry: plane through the feet over the fitted crown",
)
def touches_the_crown(
    clear_heights: tuple[ClearHeight, ...], units: UnitSystem, panels: tuple[PlacedPanel, ...]
) -> Iterator[Found]:
    for height in clear_heights:
        if height.least_mm < 0:
            yield Found(
                place=f"panels.{height.panel}.stand_off",
                where=_panel(panels, height.panel).name,
                why=f"At {say_length(height.at_x_mm, units)} aft the roof may come "
                f"{say_length(-height.least_mm, units)} into the panel, its sag and the crown's "
                f"uncertainty counted.",
                remedy="Raise the feet, set them further out where the roof is lower, or turn the "
                "panel lengthwise.",
                quantity="clear height",
                value=height.least_mm,
                limit=0.0,
                unit="mm",
            )


@rule("little-air", "caution", "layout", "Little air between panel and roof", PRACTICE)
def little_air(
    clear_heights: tuple[ClearHeight, ...], units: UnitSystem, panels: tuple[PlacedPanel, ...]
) -> Iterator[Found]:
    for height in clear_heights:
        if 0 <= height.least_mm < LEAST_AIR_MM:
            yield Found(
                place=f"panels.{height.panel}.stand_off",
                where=_panel(panels, height.panel).name,
                why=f"Only {say_length(height.least_mm, units)} at "
                f"{say_length(height.at_x_mm, units)} aft: it chafes when it flexes.",
                remedy=f"Leave {say_length(LEAST_AIR_MM, units)} or more.",
                quantity="clear height",
                value=height.least_mm,
                limit=LEAST_AIR_MM,
                unit="mm",
            )
