"""Snags of carriers: will they hold, do panels lie on them, can they be made."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.formulas.sections import thermal_growth
from fahrtwind.core.job.carrier import Carrier, Rack, Rails
from fahrtwind.core.job.document import Obstacle, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.sections import OwnSection
from fahrtwind.core.quantities import Speed, UnitSystem
from fahrtwind.core.saying import say_force, say_length, say_run, say_speed
from fahrtwind.core.stations.hold.carriers.forced import SHIM_MM, Forced
from fahrtwind.core.stations.hold.carriers.rack import rests_at
from fahrtwind.core.stations.hold.carriers.rails import carrier_of, clamps_of
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.rules import PARKED, SPEEDS, STANDS_IN_WIND
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect, obstacle_rect, panel_rect

PRACTICE = "common practice, no source"
OVERHANG_SHARE = 0.4
"""A rail may stick out beyond its last foot by so much of the bay before it."""
CLAMP_ROOM_MM = 10.0
FORCED_SHARE = 0.2
"""What of a foot's pull is more than a trifle: judgement."""
FORCED = "elastic beam on springs whose ground has moved (statics)"
FIXED_MM = 4000.0
ALUMINIUM_PER_K, ROOF_PER_K, SWING_K = 23.1e-6, 12e-6, 60.0


def _worst(carrier: Carrier, verdict: CarrierVerdict) -> tuple[str, str]:
    """What goes first: the rail that bends, or a foot. Job path, and words."""
    bends = min(verdict.rails, key=lambda r: r.let_go_m_s, default=None)
    if bends is not None and bends.let_go_m_s <= verdict.let_go_m_s:
        part, word = ("bar_section", "bar") if bends.runs == "across" else ("section", "rail")
        if isinstance(carrier, Rack) and carrier.crossbars and bends.rail not in carrier.own_lines:
            part, word = "crossbars.section", "crossbar"
        return f"carriers.{carrier.id}.{part}", f"{carrier.name}, {word} {bends.rail} in bending"
    corner = min(verdict.joints, key=lambda j: j.let_go_m_s, default=None)
    if corner is not None and corner.let_go_m_s <= verdict.let_go_m_s:
        part = "joint" if corner.kind == "corner" else "angle_wall"
        return f"carriers.{carrier.id}.{part}", f"{carrier.name}, {corner.kind} {corner.joint}"
    return f"carriers.{carrier.id}", f"{carrier.name}, foot {verdict.worst_foot}"


def _stronger(carrier: Carrier) -> str:
    if isinstance(carrier, Rack) and carrier.points:
        return "More points on that side, thicker brackets or corners, a lower panel"
    if isinstance(carrier, Rack) and carrier.crossbars:
        return "More crossbars, more fasteners, thicker angles or sections"
    if carrier.feet_at:
        return "More feet, more fasteners or larger pads, or a stronger section"
    return "A foot at every member, more fasteners, or a stronger section"


@rule("carrier-lets-go", "stop", "hold", "Carrier lets go below the required speed", SPEEDS, each="carriers")
def carrier_lets_go(
    carrier: Carrier, carrier_verdict: CarrierVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    if carrier_verdict.let_go_m_s < top_speed.m_s:
        place, where = _worst(carrier, carrier_verdict)
        yield Found(
            place=place,
            where=where,
            why=f"It lets go at {say_speed(carrier_verdict.let_go_m_s, units)} with no safety at all; "
            f"{say_speed(top_speed.m_s, units)} is driven.",
            remedy=f"{_stronger(carrier)}. Do not drive with it.",
            quantity="let-go speed",
            value=carrier_verdict.let_go_m_s,
            limit=top_speed.m_s,
            unit="m/s",
        )


@rule("carrier-not-safe", "stop", "hold", "Safe speed of a carrier too low", SPEEDS, each="carriers")
def carrier_not_safe(
    carrier: Carrier, carrier_verdict: CarrierVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    if carrier_verdict.safe_m_s < top_speed.m_s <= carrier_verdict.let_go_m_s:
        place, where = _worst(carrier, carrier_verdict)
        yield Found(
            place=place,
            where=where,
            why=f"With its safety factor it holds to {say_speed(carrier_verdict.safe_m_s, units)}; "
            f"{say_speed(top_speed.m_s, units)} is driven.",
            remedy=f"{_stronger(carrier)}.",
            quantity="safe speed",
            value=carrier_verdict.safe_m_s,
            limit=top_speed.m_s,
            unit="m/s",
        )


@rule(
    "carrier-foot-lost", "caution", "hold", "One foot of a carrier lost: it lets go", SPEEDS, each="carriers"
)
def carrier_foot_lost(
    carrier: Carrier, carrier_verdict: CarrierVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    if carrier_verdict.lost_let_go_m_s < top_speed.m_s <= carrier_verdict.let_go_m_s:
        yield Found(
            place=f"carriers.{carrier.id}",
            where=f"{carrier.name}, foot {carrier_verdict.lost_foot}",
            why=f"If this foot fails, the rest lets go at "
            f"{say_speed(carrier_verdict.lost_let_go_m_s, units)}.",
            remedy=f"{_stronger(carrier)}; rail ends nearer to their last foot.",
            quantity="let-go speed, foot lost",
            value=carrier_verdict.lost_let_go_m_s,
            limit=top_speed.m_s,
            unit="m/s",
        )


@rule("carrier-parked", "stop", "hold", "Carrier lets go in a storm while parked", PARKED, each="carriers")
def carrier_parked(
    carrier: Carrier, carrier_verdict: CarrierVerdict, vehicle: Vehicle, units: UnitSystem
) -> Iterator[Found]:
    parked = carrier_verdict.parked
    bears = parked.safe_m_s if vehicle.kind in STANDS_IN_WIND else parked.let_go_m_s
    if bears < parked.gust_m_s:
        yield Found(
            place=f"carriers.{carrier.id}",
            where=f"{carrier.name}, foot {parked.worst_foot}",
            why=f"{parked.worst.capitalize()}: it bears gusts to {say_speed(bears, units)}; "
            f"{say_speed(parked.gust_m_s, units)} is counted with.",
            remedy=f"{_stronger(carrier)}; or the site's own basic wind.",
            quantity="gust, parked",
            value=bears,
            limit=parked.gust_m_s,
            unit="m/s",
        )


@rule("off-the-rails", "stop", "hold", "Panel lies on fewer than two rails", "statics", each="panels")
def off_the_rails(panel: PlacedPanel, carriers: tuple[Carrier, ...]) -> Iterator[Found]:
    under = carrier_of(panel, carriers)
    if isinstance(under, Rails) and len(clamps_of(under, panel)) < 4:
        yield Found(
            place=f"panels.{panel.id}.y",
            where=f"{panel.name} on {under.name}",
            why=f"{len(clamps_of(under, panel)) // 2} of {len(under.rails)} rails are under it: it tips off.",
            remedy="Move the panel over two rails, or the rails under it.",
            quantity="rails",
            value=len(clamps_of(under, panel)) / 2,
            limit=2.0,
            unit="",
        )


@rule("rail-on-few-feet", "stop", "hold", "Rail on fewer than two feet", "statics", each="carriers")
def rail_on_few_feet(carrier: Carrier, feet_of_carrier: tuple[FootPlace, ...]) -> Iterator[Found]:
    per_rail = min(len(rests_at(carrier, rail, feet_of_carrier)) for rail in carrier.rails)
    if per_rail < 2:
        if carrier.feet_at:
            why, remedy = f"It has {per_rail:.0f} place for its feet.", "Give it a second one."
        elif isinstance(carrier, Rack) and carrier.points:
            why = f"{per_rail:.0f} factory points are known between its ends."
            remedy = "Survey the points, or let the rails reach over more of them."
        else:
            why = f"{per_rail:.0f} members are known between its ends."
            remedy = (
                "Find the members, let the rails reach over more of them, or give feet that need none, as on "
                "tape, places of their own."
            )
        yield Found(
            place=f"carriers.{carrier.id}.{'feet_at' if carrier.feet_at else 'start'}",
            where=carrier.name,
            why=why,
            remedy=remedy,
            quantity="feet on a rail",
            value=float(per_rail),
            limit=2.0,
            unit="",
        )


@rule("foot-beside-rail", "stop", "hold", "Foot beyond the end of its rail", "geometry", each="carriers")
def foot_beside_rail(carrier: Carrier, units: UnitSystem) -> Iterator[Found]:
    for at in carrier.feet_at:
        out = max(carrier.start.mm - at.x.mm, at.x.mm - carrier.end.mm)
        if out > 0:
            yield Found(
                place=f"carriers.{carrier.id}.feet_at.{at.id}.x",
                where=f"{carrier.name}, feet {at.id}",
                why=f"They stand {say_length(out, units)} beyond the rails: nothing is there to hold.",
                remedy="Move them under the rails, or let the rails reach them.",
                quantity="beyond the rail",
                value=out,
                limit=0.0,
                unit="mm",
            )


@rule("rail-over-obstacle", "stop", "hold", "Rail runs over something", "geometry", each="carriers")
def rail_over_obstacle(carrier: Carrier, obstacles: tuple[Obstacle, ...]) -> Iterator[Found]:
    section = carrier.section
    half = section.width.mm / 2
    run = carrier.end.mm - carrier.start.mm
    for rail in carrier.rails:
        under = Rect(carrier.start.mm, rail.y.mm - half, run, 2 * half)
        for obstacle in obstacles:
            if obstacle.height.mm > carrier.height.mm and under.clipped(obstacle_rect(obstacle)) is not None:
                yield Found(
                    place=f"carriers.{carrier.id}.rails.{rail.id}.y",
                    where=f"{carrier.name}, rail {rail.id}",
                    why=f"{obstacle.name} stands in its way.",
                    remedy="Move the rail beside it, end it before, or raise both rails.",
                    quantity="height",
                    value=carrier.height.mm,
                    limit=obstacle.height.mm,
                    unit="mm",
                )


@rule(
    "rail-overhang", "caution", "hold", "Rail sticks out far beyond its last foot", PRACTICE, each="carriers"
)
def rail_overhang(
    carrier: Carrier, feet_of_carrier: tuple[FootPlace, ...], units: UnitSystem
) -> Iterator[Found]:
    worst: tuple[float, str, float, float] = (OVERHANG_SHARE, "", 0.0, 0.0)
    for rail in carrier.rails:
        at = rests_at(carrier, rail, feet_of_carrier)
        for end, out, bay in _overhangs(carrier, at):
            worst = max(worst, (out / bay, end, out, bay))
    share, end, out, bay = worst
    if share > OVERHANG_SHARE:
        yield Found(
            place=f"carriers.{carrier.id}.{'start' if end == 'front' else 'end'}",
            where=f"{carrier.name}, {end} end",
            why=f"{say_length(out, units)} beyond its last foot, the bay before it is "
            f"{say_length(bay, units)}.",
            remedy="Cut the rail shorter, or let it reach the next member.",
            quantity="overhang",
            value=out,
            limit=OVERHANG_SHARE * bay,
            unit="mm",
        )


def _overhangs(carrier: Carrier, at: list[float]) -> Iterator[tuple[str, float, float]]:
    """At each end how far a rail sticks out, and the bay before it, mm."""
    if len(at) > 1:
        yield "front", at[0] - carrier.start.mm, at[1] - at[0]
        yield "rear", carrier.end.mm - at[-1], at[-1] - at[-2]


@rule("no-room-for-end-clamp", "stop", "hold", "No rail left for an end clamp", PRACTICE, each="panels")
def no_room_for_end_clamp(
    panel: PlacedPanel, carriers: tuple[Carrier, ...], units: UnitSystem
) -> Iterator[Found]:
    under = carrier_of(panel, carriers)
    if not isinstance(under, Rails):
        return
    rect = panel_rect(panel)
    room = min(rect.x_mm - under.start.mm, under.end.mm - rect.x_end_mm)
    if room < CLAMP_ROOM_MM:
        yield Found(
            place=f"carriers.{under.id}.{'start' if rect.x_mm - under.start.mm == room else 'end'}",
            where=f"{panel.name} on {under.name}",
            why=f"The rail ends {say_length(max(room, 0.0), units)} beyond the panel.",
            remedy="Let the rail reach 10 mm further than the clamp.",
            quantity="rail beyond the panel",
            value=room,
            limit=CLAMP_ROOM_MM,
            unit="mm",
        )


@rule("rail-longer-than-stock", "caution", "hold", "Rail longer than it is sold", PRACTICE, each="carriers")
def rail_longer_than_stock(carrier: Carrier, units: UnitSystem) -> Iterator[Found]:
    run = carrier.end.mm - carrier.start.mm
    if carrier.stock is not None and run > carrier.stock.mm:
        yield Found(
            place=f"carriers.{carrier.id}.stock",
            where=carrier.name,
            why=f"{say_run(run, units)} from pieces of {say_run(carrier.stock.mm, units)}: a splice.",
            remedy="Build joins it by plates a fifth of a bay from a foot, never in an end bay.",
            quantity="rail",
            value=run,
            limit=carrier.stock.mm,
            unit="mm",
        )


@rule(
    "no-thermal-slot",
    "note",
    "hold",
    "Long rail grows in the sun",
    "EN 1999-1-1, 3.2.5; 60 K between winter and a hot roof: common practice",
    each="carriers",
)
def no_thermal_slot(carrier: Carrier) -> Iterator[Found]:
    run = carrier.end.mm - carrier.start.mm
    if run > FIXED_MM and carrier.alloy not in ("1.4301", "S235"):
        growth = float(thermal_growth(run / 2, ALUMINIUM_PER_K, ROOF_PER_K, SWING_K))
        yield Found(
            place=f"carriers.{carrier.id}",
            where=carrier.name,
            why=f"Fixed in its middle it moves ±{growth:.1f} mm at its ends against a steel roof.",
            remedy="One fixed foot, slots in the others; a gap where two rails meet.",
            quantity="growth",
            value=growth,
            unit="mm",
        )


@rule("rail-over-curve", "note", "hold", "Rail straight over a roof that is not", PRACTICE, each="carriers")
def rail_over_curve(carrier: Carrier, forced: tuple[Forced, ...], units: UnitSystem) -> Iterator[Found]:
    worst = max(forced, key=lambda f: f.share, default=None)
    if worst is not None and worst.share <= FORCED_SHARE:
        yield from _over_curve(carrier, worst, units)


@rule("rail-forced", "caution", "hold", "Rail drawn down pulls on its feet for good", FORCED, each="carriers")
def rail_forced(carrier: Carrier, forced: tuple[Forced, ...], units: UnitSystem) -> Iterator[Found]:
    worst = max(forced, key=lambda f: f.share, default=None)
    if worst is not None and worst.share > FORCED_SHARE:
        yield from _over_curve(carrier, worst, units)


def _over_curve(carrier: Carrier, worst: Forced, units: UnitSystem) -> Iterator[Found]:
    unlike = max(worst.shims_mm)
    if unlike <= SHIM_MM:
        return
    shims = ", ".join(say_length(mm, units) for mm in worst.shims_mm)
    yield Found(
        place=f"carriers.{carrier.id}",
        where=f"{carrier.name}, {worst.line}",
        why=f"The roof is up to {say_length(unlike, units)} off a straight line under its feet. Drawn "
        f"down it pulls on foot {worst.foot} with {say_force(worst.pull_n, units)} for good, "
        f"{100 * worst.share:.0f} % of what that may take.",
        remedy=f"Slots or shims under its feet, in their order {shims}; never draw it down by its bolts.",
        quantity="off straight",
        value=unlike,
        limit=SHIM_MM,
        unit="mm",
    )


@rule("clamp-not-rated", "note", "hold", "Strength of the clamps not known", PRACTICE, each="carriers")
def clamp_not_rated(carrier: Carrier) -> Iterator[Found]:
    if carrier.clamp_n is None:
        yield Found(
            place=f"carriers.{carrier.id}.clamp_n",
            where=carrier.name,
            why="No published value exists for panel clamps: a cautious judgement is counted.",
            remedy="Type what the clamp's maker says it pulls.",
        )


@rule("slot-not-rated", "caution", "hold", "Slot of the rail not known", PRACTICE, each="carriers")
def slot_not_rated(carrier: Carrier) -> Iterator[Found]:
    if isinstance(carrier.section, OwnSection) and carrier.section.slot_n is None:
        yield Found(
            place=f"carriers.{carrier.id}.section.slot_n",
            where=carrier.name,
            why="What a bolt in its slot may pull stands in no table: a cautious judgement is counted.",
            remedy="Type the value of the section's sheet.",
        )


@rule("rails-close", "caution", "hold", "Rails lie close together", PRACTICE, each="carriers")
def rails_close(carrier: Carrier, panels: tuple[PlacedPanel, ...], units: UnitSystem) -> Iterator[Found]:
    if not isinstance(carrier, Rails):
        return
    widest = max((panel_rect(p).width_mm for p in panels if p.carrier == carrier.id), default=0.0)
    apart = [b.y.mm - a.y.mm for a, b in pairwise(sorted(carrier.rails, key=lambda r: r.y.mm))]
    if apart and max(apart) < widest / 3:
        yield Found(
            place=f"carriers.{carrier.id}.rails",
            where=carrier.name,
            why=f"{say_length(max(apart), units)} apart under a panel {say_length(widest, units)} wide.",
            remedy="Rails a fifth in from the panel's sides.",
            quantity="between the rails",
            value=max(apart),
            limit=widest / 3,
            unit="mm",
        )
