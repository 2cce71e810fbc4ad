"""What is worked out about panels on the plan: outlines, feet, distances, room above the crown."""

from __future__ import annotations

from shapely.geometry import Polygon

from fahrtwind.core.job.built import BuiltFoot
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Members, Obstacle, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.job.views import Plan, Roof, SunnyRoof
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.house import rules, stage, view, working
from fahrtwind.core.stations.layout.built import as_built
from fahrtwind.core.stations.layout.cables import CablePair
from fahrtwind.core.stations.layout.cables import cable_pairs as pairs_of
from fahrtwind.core.stations.layout.clear_height import ClearHeight, clear_height_of
from fahrtwind.core.stations.layout.distances import (
    Distance,
    Hindrance,
    Overlap,
    Standing,
    hindrances,
    on_hindrances,
    own_distances,
    shaped_edge,
    standing,
    with_neighbours,
    with_panels,
)
from fahrtwind.core.stations.layout.dry_fit import DryFit
from fahrtwind.core.stations.layout.dry_fit import dry_fit as dry_fit_of
from fahrtwind.core.stations.layout.feet import FootPlace, place_anchor, place_ends, place_feet
from fahrtwind.core.stations.layout.footprint import (
    Rect,
    lid_rect,
    obstacle_polygon,
    obstacle_rect,
    panel_rect,
    roof_rect,
)
from fahrtwind.core.stations.layout.holders import Holder, carrier_feet, holders_of
from fahrtwind.core.stations.layout.raised import Body, bodies_of, raised_panel
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.layout.street import SeenFrom, nearest, seen_of
from fahrtwind.core.stations.layout.sun.findings import YieldFinding, explain_yield, yield_of
from fahrtwind.core.stations.layout.sun.moments import Moments, moments_of_year
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.stations.survey.factory_points import RowFit
from fahrtwind.core.stations.survey.outline import ring
from fahrtwind.core.stations.views import Asked

rules.unanswered("layout")


@stage("layout", "Roof", "vehicle")
def roof(vehicle: Vehicle, roof_length: Length, roof_width: Length) -> Rect | None:
    return roof_rect(vehicle)


@stage("layout", "Raised units", "panels")
def raised_bodies(panels: tuple[PlacedPanel, ...], raisings: tuple[Raising, ...]) -> dict[str, Body]:
    return bodies_of(panels, raisings)


@stage("layout", "Shapes", "panels.{id}", each="panels", all="panel_shapes")
def panel_shape(panel: PlacedPanel, raised_bodies: dict[str, Body]) -> Shape:
    body = raised_bodies.get(panel.id)
    raised = None if body is None else raised_panel(panel, body)
    return Shape(panel.id, "panel", panel_rect(panel), None, (), raised)


@stage("layout", "Shapes", "obstacles.{id}", each="obstacles", all="obstacle_shapes")
def obstacle_shape(obstacle: Obstacle) -> Shape:
    outline = () if obstacle.shape == "rectangle" else ring(obstacle_polygon(obstacle))
    return Shape(obstacle.id, "obstacle", obstacle_rect(obstacle), lid_rect(obstacle), outline)


@stage("layout", "Shapes", "obstacles", otherwise=())
def shapes(panel_shapes: tuple[Shape, ...], obstacle_shapes: tuple[Shape, ...]) -> tuple[Shape, ...]:
    return (*panel_shapes, *obstacle_shapes)


@stage("layout", "Feet", "panels.{id}", each="panels", all="feet_by_panel", otherwise=())
def own_feet(
    panel: PlacedPanel, ribs: Members, members: MemberFit, built_feet: tuple[BuiltFoot, ...]
) -> tuple[FootPlace, ...]:
    """Where they are planned, or where they were really put."""
    if panel.carrier:
        return ()
    planned = place_feet(ribs, panel, members.members)
    return as_built(planned, built_feet, panel.hold, ribs, members.members)


@stage("layout", "Ends of bars", "panels.{id}.span", each="panels", all="ends_by_panel", otherwise=())
def bar_ends(
    panel: PlacedPanel,
    own_feet: tuple[FootPlace, ...],
    ribs: Members,
    members: MemberFit,
    built_feet: tuple[BuiltFoot, ...],
) -> tuple[FootPlace, ...]:
    planned = place_ends(ribs, panel, own_feet, members.members)
    hold = panel.span.ends if panel.span else panel.hold
    return as_built(planned, built_feet, hold, ribs, members.members)


@stage("layout", "Feet", "carriers.{id}", each="carriers", all="feet_by_carrier", otherwise=())
def feet_of_carrier(
    carrier: Carrier,
    ribs: Members,
    members: MemberFit,
    point_rows: tuple[RowFit, ...],
    built_feet: tuple[BuiltFoot, ...],
) -> tuple[FootPlace, ...]:
    planned = carrier_feet(carrier, ribs, members.members, point_rows)
    return as_built(planned, built_feet, carrier.hold, ribs, members.members)


@stage("layout", "Anchors", "tethers", otherwise=())
def anchors(
    tethers: tuple[Tether, ...],
    panels: tuple[PlacedPanel, ...],
    ribs: Members,
    members: MemberFit,
    built_feet: tuple[BuiltFoot, ...],
) -> tuple[FootPlace, ...]:
    """Of tethers whose panel is there."""
    named = {p.id: p for p in panels}
    there = (t for t in tethers if t.panel in named)
    return tuple(
        foot
        for t in there
        for foot in as_built(
            (place_anchor(ribs, t, named[t.panel], members.members),),
            built_feet,
            t.hold,
            ribs,
            members.members,
        )
    )


@stage("layout", "Feet", "panels", otherwise=())
def feet(
    feet_by_panel: tuple[tuple[FootPlace, ...], ...],
    feet_by_carrier: tuple[tuple[FootPlace, ...], ...],
    ends_by_panel: tuple[tuple[FootPlace, ...], ...],
    anchors: tuple[FootPlace, ...],
) -> tuple[FootPlace, ...]:
    each = (*feet_by_panel, *feet_by_carrier, *ends_by_panel)
    return (*(foot for own in each for foot in own), *anchors)


@stage("layout", "Who stands on the roof", "panels", otherwise=())
def holders(
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    tethers: tuple[Tether, ...],
    feet: tuple[FootPlace, ...],
) -> tuple[Holder, ...]:
    return holders_of(panels, carriers, tethers, feet)


@stage("layout", "Clear height", "panels.{id}", each="panels", all="clear_heights", place="clear height/{id}")
def clear_height(
    panel: PlacedPanel, own_feet: tuple[FootPlace, ...], crown: CrownSurface
) -> ClearHeight | None:
    return clear_height_of(panel, own_feet, crown)


@stage("layout", "A panel from the street", "panels.{id}", each="panels", all="each_seen", place="seen/{id}")
def seen_panel(
    panel: PlacedPanel, vehicle: Vehicle, roof: Rect, crown: CrownSurface | None
) -> SeenFrom | None:
    """None where the vehicle's height is not given."""
    return seen_of(panel, roof, vehicle.height.mm, crown) if vehicle.height is not None else None


@stage("layout", "Seen from the street", "panels")
def seen(each_seen: tuple[SeenFrom, ...]) -> SeenFrom | None:
    """None where nothing is on the roof, or the vehicle's height is not given."""
    return nearest(each_seen) if each_seen else None


@stage("layout", "Dry-fit marks", "panels", otherwise=())
def dry_fit(plan: Plan) -> tuple[DryFit, ...]:
    return dry_fit_of(plan)


@stage("layout", "Leads of pairs", "panels", otherwise=())
def cable_pairs(plan: Plan) -> tuple[CablePair, ...]:
    return pairs_of(plan)


@stage("layout", "Edge of the roof", "survey.outline")
def edge(roof_notes: Roof) -> Polygon | None:
    return shaped_edge(roof_notes)


@stage("layout", "Obstacles that stay", "obstacles", otherwise=())
def standing_obstacles(obstacles: tuple[Obstacle, ...]) -> Standing:
    return standing(obstacles)


@stage("layout", "Distances", "panels.{id}", each="panels", all="distances_by_panel", otherwise=())
def distances_of_panel(
    panel: PlacedPanel, roof: Rect | None, edge: Polygon | None, standing_obstacles: Standing
) -> tuple[Distance, ...]:
    return own_distances(panel, roof, edge, standing_obstacles)


@stage("layout", "Distances", "panels", otherwise=())
def distances(
    panels: tuple[PlacedPanel, ...], distances_by_panel: tuple[tuple[Distance, ...], ...]
) -> tuple[Distance, ...]:
    return with_neighbours(panels, distances_by_panel)


@stage("layout", "Room that obstacles need", "obstacles", otherwise=())
def in_the_way(obstacles: tuple[Obstacle, ...]) -> tuple[Hindrance, ...]:
    return hindrances(obstacles)


@stage("layout", "Overlaps", "panels.{id}", each="panels", all="overlaps_by_panel", otherwise=())
def overlaps_of_panel(panel: PlacedPanel, in_the_way: tuple[Hindrance, ...]) -> tuple[Overlap, ...]:
    return on_hindrances(panel, in_the_way)


@stage("layout", "Overlaps", "panels", otherwise=())
def overlaps(
    panels: tuple[PlacedPanel, ...], overlaps_by_panel: tuple[tuple[Overlap, ...], ...]
) -> tuple[Overlap, ...]:
    return with_panels(panels, overlaps_by_panel)


@view()
def sunny_roof(asked: Asked) -> SunnyRoof:
    return SunnyRoof.of(asked.job)


@stage("layout", "Year", "site", slow=True)
def year(sunny_roof: SunnyRoof) -> YieldFinding:
    return yield_of(sunny_roof)


@stage("layout", "Moments that stand for the year", "site", slow=True)
def moments(sunny_roof: SunnyRoof) -> Moments:
    return moments_of_year(sunny_roof)


@working("yield")
def year_working(sunny_roof: SunnyRoof) -> None:
    explain_yield(sunny_roof)
