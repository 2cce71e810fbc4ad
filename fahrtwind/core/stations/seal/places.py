"""The seal list: every place of the plan through which water could come, or behind which it could stand."""

from __future__ import annotations

from collections.abc import Iterator
from math import hypot

from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.panel import BasePlate, FoamTape, Holding, OneSided, OuterFoot, Screws
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.sealing import Gland
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.job.wiring import Clip
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.layout.feet import FootPlace, foot_base
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.survey.outline import Vertex
from fahrtwind.core.stations.wire.runs import Harness, laid_ways
from fahrtwind.core.tables.fasteners import BOLTS, SCREWS
from fahrtwind.core.tables.sealants import PlaceKind

LEAST_REACH_MM = 80.0
"""Under a panel that is lower than this nobody gets a nozzle and a cloth in: common practice, no source."""
NEAR_EDGE_MM = 250.0
"""So far in from a panel's edge an arm reaches."""
TAPED_HEAD_MM = 0.0
CLIP_MM, CLIP_SCREW_MM = 20.0, 4.2
"""Foot of a cable clip, and the screw of one that is screwed: common practice, no source."""
PATCH_BEYOND_MM = 50.0
"""A patch reaches so far beyond what it covers: common practice, no source."""


@dataclass(frozen=True, slots=True)
class SealPlace:
    """A place to seal: what it is, where, its plate and holes, which panel covers it later, and whether
    somebody can still reach it then. ``head_mm``: of the fastener; ``path``: of the job.
    """

    id: str
    kind: PlaceKind
    name: str
    path: str
    x_mm: float
    y_mm: float
    plate_long_mm: float
    plate_wide_mm: float
    holes: int
    hole_mm: float
    head_mm: float
    covered_by: str
    reachable: bool
    sealed: bool = True
    """Whether somebody wants a bead there: an edge of tape may be left open."""
    count: int = 1
    """Plates like this one: clips of a cable are one place, with their number."""
    spots: tuple[Vertex, ...] = ()
    """Of each of them, mm, where they are several."""


def places_of(
    plan: RoofPlan,
    holders: tuple[Holder, ...],
    feet: tuple[FootPlace, ...],
    marks: tuple[Mark, ...],
    pieces: tuple[Piece, ...],
    gland: Gland | None,
    clips: tuple[SealPlace, ...] = (),
) -> tuple[SealPlace, ...]:
    """Front to rear, port first, numbered in that order."""
    tops = {c.id: c.top_mm for c in plan.carriers}
    covers = [
        (p.name, panel_rect(p), tops.get(p.carrier or "", p.stand_off.mm))
        for p in plan.panels
        if p.model.build == "framed"
    ]
    of_foot: dict[tuple[str, str], list[Mark]] = {}
    for mark in marks:
        of_foot.setdefault((mark.panel, mark.foot), []).append(mark)
    found = [
        *(_placed(place, covers) for holder in holders for place in _of_holder(holder, of_foot)),
        *(_placed(place, covers) for place in _on_points(plan, feet)),
        *(_placed(place, covers) for place in _scars(plan.survey)),
        *(_placed(place, covers) for place in _gland(gland)),
        *(_placed(one, covers) for place in clips for one in _by_cover(place, covers)),
        *_tubes(plan, pieces),
    ]
    return tuple(sorted(found, key=lambda p: (round(p.x_mm), p.y_mm, p.id)))


def _placed(place: SealPlace, covers: list[tuple[str, Rect, float]]) -> SealPlace:
    """With the panel that comes over it, if one does."""
    for name, rect, clear in covers:
        if rect.x_mm <= place.x_mm <= rect.x_end_mm and rect.y_mm <= place.y_mm <= rect.y_end_mm:
            edge = min(
                place.x_mm - rect.x_mm,
                rect.x_end_mm - place.x_mm,
                place.y_mm - rect.y_mm,
                rect.y_end_mm - place.y_mm,
            )
            return replace(place, covered_by=name, reachable=clear >= LEAST_REACH_MM and edge <= NEAR_EDGE_MM)
    return place


def clips_of(harnesses: tuple[Harness, ...], clip: Clip) -> tuple[SealPlace, ...]:
    """The clips of every cable over open roof, as one place for each cable. ``clip``: stuck, or screwed
    through the skin.
    """
    screwed = clip == "screwed"
    told: list[SealPlace] = []
    for harness in harnesses:
        for name, way in laid_ways(harness).items():
            if way.clips:
                told.append(
                    _clips(f"clips-{harness.controller}-{len(told) + 1}", name, way.clip_spots, screwed)
                )
    return tuple(told)


def _clips(id: str, name: str, spots: tuple[Vertex, ...], screwed: bool) -> SealPlace:
    return SealPlace(
        id,
        "clip screw" if screwed else "cable clip",
        f"{len(spots)} clips, {name}" if len(spots) > 1 else f"clip, {name}",
        "wiring.clip",
        spots[0].x_mm,
        spots[0].y_mm,
        CLIP_MM,
        CLIP_MM,
        len(spots) if screwed else 0,
        CLIP_SCREW_MM if screwed else 0.0,
        2 * CLIP_SCREW_MM if screwed else 0.0,
        "",
        True,
        count=len(spots),
        spots=spots,
    )


def _by_cover(place: SealPlace, covers: list[tuple[str, Rect, float]]) -> Iterator[SealPlace]:
    """The clips of a cable, apart by the panel that comes over them."""
    groups: dict[str, list[Vertex]] = {}
    for spot in place.spots:
        cover = _placed(replace(place, x_mm=spot.x_mm, y_mm=spot.y_mm), covers).covered_by
        groups.setdefault(cover, []).append(spot)
    name = place.name.split(", ", 1)[1]
    for number, spots in enumerate(groups.values()):
        own = f"{place.id}-{number + 1}" if number else place.id
        yield _clips(own, name, tuple(spots), place.kind == "clip screw")


def _of_holder(holder: Holder, marks: dict[tuple[str, str], list[Mark]]) -> Iterator[SealPlace]:
    if isinstance(holder.hold, OuterFoot):
        return
    kind, head = _kind_of(holder.hold)
    for foot in holder.feet:
        holes = [m for m in marks.get((holder.id, foot.foot), ()) if m.kind == "hole"]
        base = foot_base(holder.hold, foot)
        size = max((m.final_mm or m.pilot_mm or 0.0 for m in holes), default=0.0)
        yield SealPlace(
            f"{holder.id}-{foot.foot}",
            kind,
            f"{holder.name}, foot {foot.foot}",
            holder.place(foot),
            foot.x_mm,
            foot.y_mm,
            base.length_mm,
            base.width_mm,
            len(holes),
            size,
            head,
            "",
            True,
            not isinstance(holder.hold, FoamTape) or holder.hold.sealed_edge,
        )


def _kind_of(hold: Holding) -> tuple[PlaceKind, float]:
    """What a foot is to water, and the head that a cap goes over, mm."""
    match hold:
        case FoamTape():
            return "tape edge", TAPED_HEAD_MM
        case Screws():
            return "screw foot", SCREWS[hold.screw].head_mm
        case BasePlate():
            return "deck bolt", BOLTS[hold.bolt].washer_mm
        case OneSided():
            head = 2 * hold.rivet.mm if hold.insert == "blind_rivet" else BOLTS[hold.bolt].washer_mm
            return "one-sided foot", head
        case _:
            bolt = getattr(hold, "bolt", "M8")
            return "bolt foot", BOLTS[bolt].washer_mm


def _on_points(plan: RoofPlan, feet: tuple[FootPlace, ...]) -> Iterator[SealPlace]:
    names = {c.id: c for c in plan.carriers}
    for foot in (f for f in feet if f.landing == "point" and f.panel in names):
        bracket = names[foot.panel].hold.bracket
        yield SealPlace(
            f"{foot.panel}-{foot.foot}",
            "factory thread",
            f"{names[foot.panel].name}, point {foot.foot}",
            f"carriers.{foot.panel}",
            foot.x_mm,
            foot.y_mm,
            bracket.length.mm,
            bracket.base_mm,
            1,
            BOLTS["M8"].clearance_mm,
            BOLTS["M8"].washer_mm,
            "",
            True,
        )


def _scars(survey: Survey) -> Iterator[SealPlace]:
    for scar in survey.scars:
        size = scar.size.mm if scar.size else 6.0
        yield SealPlace(
            f"scar-{scar.id}",
            "scar",
            f"old {scar.kind.replace('_', ' ')}" + (f", {scar.count} of them" if scar.count > 1 else ""),
            f"survey.scars.{scar.id}",
            scar.x.mm,
            scar.y.mm,
            size + 2 * PATCH_BEYOND_MM,
            size + 2 * PATCH_BEYOND_MM,
            scar.count,
            size,
            0.0,
            "",
            True,
        )


def _gland(gland: Gland | None) -> Iterator[SealPlace]:
    if gland is None:
        return
    bore = hypot(gland.cable.mm, gland.cable.mm) if gland.cables > 1 else gland.cable.mm
    yield SealPlace(
        "gland",
        "gland",
        "gland of the cables",
        "seal.gland",
        gland.x.mm,
        gland.y.mm,
        gland.base.mm,
        gland.base.mm,
        1,
        bore + 4.0,
        0.0,
        "",
        True,
    )


def _tubes(plan: RoofPlan, pieces: tuple[Piece, ...]) -> Iterator[SealPlace]:
    """Both ends of every rail and bar that is a tube: capped, with a drain at the low end."""
    tubes = {
        c.id: {
            "rail": c.section.kind in ("tube", "round"),
            "bar": isinstance(c, Rack) and c.bar_section.kind in ("tube", "round"),
            "crossbar": c.on_feet[0].kind in ("tube", "round"),
        }
        for c in plan.carriers
    }
    for carrier in plan.carriers:
        own = [p for p in pieces if p.part_of == carrier.id and tubes[carrier.id].get(p.kind, False)]
        if own:
            yield SealPlace(
                f"{carrier.id}-ends",
                "open tube",
                f"{carrier.name}, ends of {len(own)} tubes",
                f"carriers.{carrier.id}",
                carrier.start.mm,
                carrier.rails[0].y.mm,
                0.0,
                0.0,
                2 * len(own),
                0.0,
                0.0,
                "",
                True,
            )
