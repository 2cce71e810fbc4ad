"""What is worked out about sealing and about water."""

from __future__ import annotations

from typing import get_args

import shapely

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Members, Obstacle, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.job.views import Plan, Roof
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.seal.amounts import Amount, PlaceAmount, amounts_by_place, amounts_of
from fahrtwind.core.stations.seal.choice import KindChoice, SealChoice, choice_of, kinds_of
from fahrtwind.core.stations.seal.cure import CureTimes, slowest_of
from fahrtwind.core.stations.seal.glands import (
    GlandCheck,
    GlandOffer,
    Surroundings,
    check_of,
    ends_of,
    offers_of,
)
from fahrtwind.core.stations.seal.layers import SealSection, sections_of
from fahrtwind.core.stations.seal.places import SealPlace, clips_of, places_of
from fahrtwind.core.stations.seal.proof import Proof, proof_of
from fahrtwind.core.stations.seal.roof_water import dams_of, roof_terrain, water_on
from fahrtwind.core.stations.seal.side_by_side import SealWay, ways_of
from fahrtwind.core.stations.seal.water import COARSE_MM, FINE_MM, Terrain, WaterFinding
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.stations.survey.outline import outline_polygon
from fahrtwind.core.stations.wire.runs import Harness
from fahrtwind.core.tables.sealants import PlaceKind

FACE_MM = 40.0
"""Of a member whose width nobody typed."""
rules.unanswered("seal")


@stage("seal", "What it is sealed with", "seal", otherwise=None)
def seal_choice(vehicle: Vehicle, sealing: Seal) -> SealChoice:
    return choice_of(vehicle, sealing)


@stage("seal", "Seal list", "seal", otherwise=())
def seal_places(
    plan: Plan,
    holders: tuple[Holder, ...],
    feet: tuple[FootPlace, ...],
    marks: tuple[Mark, ...],
    made: tuple[Piece, ...],
    sealing: Seal,
    harnesses: tuple[Harness, ...] | None,
    wiring: Wiring,
) -> tuple[SealPlace, ...]:
    clips = clips_of(harnesses or (), wiring.clip)
    return places_of(plan, holders, feet, marks, made, sealing.gland, clips)


@stage("seal", "What each kind is sealed with", "seal.kinds", otherwise=())
def every_seal_kind(vehicle: Vehicle, sealing: Seal) -> tuple[KindChoice, ...]:
    """Also of kinds that the plan has not: what is sealed is marked before the list is known."""
    return kinds_of(vehicle, sealing, get_args(PlaceKind))


@stage("seal", "What the kinds there are sealed with", "seal.kinds", otherwise=())
def seal_kinds(
    every_seal_kind: tuple[KindChoice, ...], seal_places: tuple[SealPlace, ...]
) -> tuple[KindChoice, ...]:
    there = {p.kind for p in seal_places}
    return tuple(k for k in every_seal_kind if k.kind in there)


@stage("seal", "Layers", "seal", otherwise=())
def seal_sections(
    seal_places: tuple[SealPlace, ...], vehicle: Vehicle, seal_kinds: tuple[KindChoice, ...]
) -> tuple[SealSection, ...]:
    return sections_of(seal_places, vehicle, seal_kinds)


@stage("seal", "How much each place takes", "seal", otherwise=(), place="seal")
def place_amounts(
    seal_places: tuple[SealPlace, ...], seal_kinds: tuple[KindChoice, ...]
) -> tuple[PlaceAmount, ...]:
    return amounts_by_place(seal_places, seal_kinds)


@stage("seal", "How much", "seal", otherwise=())
def seal_amounts(place_amounts: tuple[PlaceAmount, ...]) -> tuple[Amount, ...]:
    return amounts_of(place_amounts)


@stage("seal", "Cure", "seal", otherwise=None, place="cure")
def cure(
    sealing: Seal,
    seal_choice: SealChoice,
    seal_places: tuple[SealPlace, ...],
    seal_kinds: tuple[KindChoice, ...],
) -> CureTimes:
    """The slowest of all kinds; those that take no sealant count for nothing."""
    widest = {
        k.kind: max(min(p.plate_long_mm, p.plate_wide_mm) for p in seal_places if p.kind == k.kind)
        for k in seal_kinds
        if k.kind not in ("scar", "open tube", "cable clip")
    }
    kinds = tuple((k.seal, k.choice, widest[k.kind]) for k in seal_kinds if k.kind in widest)
    return slowest_of(kinds or ((sealing, seal_choice, 0.0),))


@stage("seal", "The roof as ground", "survey.outline", otherwise=None)
def roof_ground(
    roof_notes: Roof, crown: CrownSurface | None, survey_notes: Survey, sealing: Seal
) -> Terrain | None:
    """Coarse, and without what stands on it: it does not change while panels are moved."""
    edge = outline_polygon(roof_notes)
    return None if edge is None else roof_terrain(edge, crown, survey_notes, sealing, COARSE_MM)


@stage("seal", "Where the bare roof holds water", "survey.crown", otherwise=None)
def standing(roof_ground: Terrain | None, crown: CrownSurface | None, sealing: Seal) -> WaterFinding | None:
    if roof_ground is None or crown is None:
        return None
    return water_on(roof_ground, (), (), sealing, True)


@stage("seal", "The roof as fine ground", "survey.outline", slow=True)
def fine_ground(
    roof_notes: Roof, crown: CrownSurface | None, survey_notes: Survey, sealing: Seal, roof: Rect
) -> Terrain:
    edge = outline_polygon(roof_notes)
    if edge is None:
        edge = shapely.box(roof.x_mm, roof.y_mm, roof.x_end_mm, roof.y_end_mm)
    return roof_terrain(edge, crown, survey_notes, sealing, FINE_MM)


@stage("seal", "Water", "seal", slow=True)
def water(
    fine_ground: Terrain,
    crown: CrownSurface | None,
    sealing: Seal,
    holders: tuple[Holder, ...],
    feet: tuple[FootPlace, ...],
    obstacles: tuple[Obstacle, ...],
    obstacle_shapes: tuple[Shape, ...],
    carriers: tuple[Carrier, ...],
    seal_places: tuple[SealPlace, ...],
) -> WaterFinding:
    """Fine, with all that stands on the roof; when somebody looks."""
    dams = dams_of(holders, feet, obstacles, obstacle_shapes, carriers)
    return water_on(fine_ground, dams, seal_places, sealing, crown is not None)


@stage("seal", "Round the gland", "seal.gland", otherwise=None)
def surroundings(
    roof: Rect,
    shapes: tuple[Shape, ...],
    members: MemberFit,
    ribs: Members,
    survey_notes: Survey,
    crown: CrownSurface | None,
    panels: tuple[PlacedPanel, ...],
    standing: WaterFinding | None,
) -> Surroundings:
    pools = standing.pools if standing else ()
    return Surroundings(
        roof,
        shapes,
        members.members,
        ribs.face_width.mm if ribs.face_width else FACE_MM,
        survey_notes.keep_outs,
        crown,
        ends_of(panels),
        tuple((p.x_mm, p.y_mm, (p.area_cm2 * 100 / 3.14) ** 0.5) for p in pools),
    )


@stage("seal", "Gland", "seal.gland", otherwise=None)
def gland_check(sealing: Seal, vehicle: Vehicle, surroundings: Surroundings) -> GlandCheck | None:
    return None if sealing.gland is None else check_of(sealing.gland, vehicle, surroundings)


@stage("seal", "Places for the gland", "seal.gland", otherwise=())
def gland_offers(sealing: Seal, surroundings: Surroundings) -> tuple[GlandOffer, ...]:
    return () if sealing.gland is None else offers_of(sealing.gland, surroundings)


@stage("seal", "Proof of the seal", "seal.moisture", otherwise=None)
def proof(
    seal_places: tuple[SealPlace, ...], crown: CrownSurface | None, seal_choice: SealChoice, sealing: Seal
) -> Proof:
    return proof_of(seal_places, crown, seal_choice, sealing)


@stage("seal", "Ways to seal", "seal", otherwise=())
def seal_ways(seal_places: tuple[SealPlace, ...], vehicle: Vehicle, sealing: Seal) -> tuple[SealWay, ...]:
    return ways_of(seal_places, vehicle, sealing)
