"""Snags of screws: what they hold in, and how deep they go."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Screws
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length, say_share
from fahrtwind.core.stations.hold.links import skin_mm
from fahrtwind.core.stations.hold.schools.drilled import reach_below_roof_mm
from fahrtwind.core.stations.hold.schools.lengths import (
    BEYOND_METAL_MM,
    FULL_DIAMETERS,
    LEAST_DIAMETERS,
    thread_mm,
)
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import SURE_MEMBER, FootPlace, member_margin_mm
from fahrtwind.core.stations.layout.holders import Holder, fastened
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.tables.fasteners import SCREWS

PRACTICE = "common practice, no source"
PLY_DIAMETERS = 2.5
PENETRATION = "EN 1995-1-1, 8.7.2(3), from memory: six diameters of thread; below four refused (judgement)"
FAST_M_S = 14.0


@rule("through-the-ceiling", "stop", "roof-day", "Fastener goes deeper than skin and member", "geometry")
def through_the_ceiling(
    ribs: Members, vehicle: Vehicle, holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    if ribs.depth is None:
        return
    room = skin_mm(vehicle) + ribs.depth.mm
    for holder in holders:
        if holder.hold.school == "screws" and holder.feet and (reach_below_roof_mm(holder.hold) > room):
            reach = reach_below_roof_mm(holder.hold)
            yield Found(
                place=f"{holder.hold_path}.length",
                where=holder.name,
                why=f"Its screws end {say_length(reach, units)} below the roof; skin and member are "
                f"{say_length(room, units)} deep. The ceiling is next.",
                remedy="Take shorter screws and set the depth stop.",
                quantity="reach",
                value=reach,
                limit=room,
                unit="mm",
            )


@rule(
    "screw-too-short",
    "stop",
    "hold",
    "Screw too short to reach the member",
    "AISI S100 J4: full thread through the sheet; 3 mm beyond: common practice",
)
def screw_too_short(
    ribs: Members, vehicle: Vehicle, holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    wall = ribs.wall.mm if ribs.wall and ribs.kind != "wood_truss" else 0.0
    need = skin_mm(vehicle) + wall + BEYOND_METAL_MM
    for holder in holders:
        if holder.hold.school == "screws" and holder.feet and (reach_below_roof_mm(holder.hold) < need):
            reach = reach_below_roof_mm(holder.hold)
            yield Found(
                place=f"{holder.hold_path}.length",
                where=holder.name,
                why=f"Its screws reach {say_length(max(reach, 0.0), units)} below the roof, "
                f"{say_length(need, units)} is needed.",
                remedy="Take longer screws.",
                quantity="reach",
                value=reach,
                limit=need,
                unit="mm",
            )


def _shallow(
    ribs: Members, vehicle: Vehicle, holders: tuple[Holder, ...], low: float, high: float
) -> Iterator[tuple[Holder, float, float]]:
    """Panels whose screws have so many diameters of thread in a truss: with thread and diameter, mm."""
    if ribs.kind != "wood_truss":
        return
    for holder in holders:
        if isinstance(holder.hold, Screws) and holder.feet:
            hold, diameter = holder.hold, SCREWS[holder.hold.screw].wood_mm
            above = hold.length.mm - reach_below_roof_mm(hold)
            thread = thread_mm(hold.length.mm, above, vehicle, ribs)
            if low * diameter <= thread < high * diameter:
                yield holder, thread, diameter


def _shallow_found(holder: Holder, thread: float, diameter: float, units: UnitSystem) -> Found:
    return Found(
        place=f"{holder.hold_path}.length",
        where=holder.name,
        why=f"{say_length(thread, units)} of thread sit in the truss, {thread / diameter:.1f} diameters; six "
        f"are wanted, four the least.",
        remedy="Take longer screws; the thread is about two thirds of the screw.",
        quantity="thread in the truss",
        value=thread,
        limit=FULL_DIAMETERS * diameter,
        unit="mm",
    )


@rule("thread-too-short", "stop", "hold", "Screw hardly in the truss", PENETRATION)
def thread_too_short(
    ribs: Members, vehicle: Vehicle, holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    for holder, thread, diameter in _shallow(ribs, vehicle, holders, 0.0, LEAST_DIAMETERS):
        yield _shallow_found(holder, thread, diameter, units)


@rule("thread-short", "caution", "hold", "Screw not deep in the truss", PENETRATION)
def thread_short(
    ribs: Members, vehicle: Vehicle, holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    for holder, thread, diameter in _shallow(ribs, vehicle, holders, LEAST_DIAMETERS, FULL_DIAMETERS):
        yield _shallow_found(holder, thread, diameter, units)


def _missing_words(
    units: UnitSystem, members: MemberFit, ribs: Members, holders: tuple[Holder, ...], foot: FootPlace
) -> str:
    """Why a foot may miss its member: it stands off it, or the member's place is not known closely enough."""
    off = f"{say_length(abs(foot.off_mm or 0.0), units)} off member {foot.member}"
    if foot.landing == "skin":
        return f"{off}: its screws certainly miss it"
    member = next(m for m in members.members if m.number == foot.member)
    if member.confidence < SURE_MEMBER:
        return (
            f"Member {member.number} is only {say_share(member.confidence)} sure to be there: "
            f"its screws perhaps miss it"
        )
    room = member_margin_mm(ribs, next(h for h in holders if h.id == foot.panel).hold)
    known = 1.96 * member.sigma_mm
    if abs(foot.off_mm or 0.0) < room:
        return (
            f"Member {member.number} needs to be known within "
            f"{say_length(room - abs(foot.off_mm or 0.0), units)}, it is known within "
            f"{say_length(known, units)}: its screws perhaps miss it"
        )
    return f"{off}: its screws perhaps miss it"


@rule(
    "screws-in-skin",
    "stop",
    "hold",
    "Screws into skin only",
    "common practice: refused at road speed; no source for vibration in thin skin",
)
def screws_in_skin(
    vehicle: Vehicle, holders: tuple[Holder, ...], units: UnitSystem, members: MemberFit, ribs: Members
) -> Iterator[Found]:
    named = {h.id: h for h in holders}
    fast = vehicle.top_speed is None or vehicle.top_speed.m_s > FAST_M_S
    for f in fastened(holders):
        holder = named[f.panel]
        if (
            holder.hold.school == "screws"
            and f.landing in ("skin", "perhaps")
            and fast
            and (f.off_mm is not None)
        ):
            yield Found(
                place=named[f.panel].place(f),
                where=f"{holder.name}, foot {f.foot}",
                why=f"{_missing_words(units, members, ribs, holders, f)}, and plain screws in bare "
                f"skin work loose on the road.",
                remedy="Move the panel or foot to the member, confirm the member, or use "
                "through-bolts with large washers.",
                quantity="off",
                value=f.off_mm,
                limit=0.0,
                unit="mm",
            )


@rule(
    "ply-too-thin",
    "stop",
    "hold",
    "Ply too thin for its screw",
    "NDS 2018, 12.1.5: screws need thread in sound wood; 2.5 diameters: common practice",
)
def ply_too_thin(vehicle: Vehicle, units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    named = {h.id: h for h in holders}
    if vehicle.skin != "membrane" or vehicle.ply_thickness is None:
        return
    for f in fastened(holders):
        hold = named[f.panel].hold
        if hold.school == "screws" and f.landing != "member":
            need = PLY_DIAMETERS * SCREWS[hold.screw].diameter_mm
            if skin_mm(vehicle) < need:
                yield Found(
                    place=named[f.panel].place(f),
                    where=f"{named[f.panel].name}, foot {f.foot}",
                    why=f"{say_length(skin_mm(vehicle), units)} of ply hardly holds a {hold.screw} screw.",
                    remedy="Screw into the truss, or through-bolt with a backing plate.",
                    quantity="ply",
                    value=skin_mm(vehicle),
                    limit=need,
                    unit="mm",
                )
