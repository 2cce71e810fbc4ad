"""Snags of frames that stand beside the roof."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import OuterFoot
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_force, say_length
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.footprint import Rect

PRACTICE = "common practice, no source"


def _outer(carrier: Carrier) -> OuterFoot | None:
    return carrier.hold if isinstance(carrier.hold, OuterFoot) else None


@rule(
    "outer-foot-unrated", "caution", "hold", "Nobody says what the outer feet bear", PRACTICE, each="carriers"
)
def outer_foot_unrated(
    carrier: Carrier, carrier_verdict: CarrierVerdict, units: UnitSystem
) -> Iterator[Found]:
    hold = _outer(carrier)
    if hold is None or (hold.pull_n is not None and hold.along_n is not None):
        return
    worst = max(carrier_verdict.feet, key=lambda f: f.pull_n)
    yield Found(
        place=f"carriers.{carrier.id}.hold.{'pull_n' if hold.pull_n is None else 'along_n'}",
        where=f"{carrier.name}, foot {worst.foot}",
        why=f"{say_force(worst.pull_n, units)} pull on it at the probed speed; a low value from "
        "judgement counts.",
        remedy="Type what the maker of the clamp or bracket rates it for, in pull and along.",
        quantity="pull",
        value=worst.pull_n,
        unit="N",
    )


@rule("outer-foot-inside", "stop", "hold", "Outer foot inside the roof's edge", "geometry", each="carriers")
def outer_foot_inside(carrier: Carrier, roof: Rect, units: UnitSystem) -> Iterator[Found]:
    hold = _outer(carrier)
    for rail in carrier.rails if hold else ():
        inside = min(rail.y.mm - roof.y_mm, roof.y_end_mm - rail.y.mm)
        if inside > 0:
            yield Found(
                place=f"carriers.{carrier.id}.rails.{rail.id}.y",
                where=f"{carrier.name}, rail {rail.id}",
                why=f"Its posts come down {say_length(inside, units)} inside the edge, on the roof itself.",
                remedy="Rails beyond the roof's edge, or base plates through the roof.",
                quantity="inside the edge",
                value=inside,
                limit=0.0,
                unit="mm",
            )


@rule(
    "posts-too-wide",
    "stop",
    "hold",
    "Vehicle too wide with its outer posts",
    "limit as entered",
    each="carriers",
)
def posts_too_wide(carrier: Carrier, vehicle: Vehicle, units: UnitSystem) -> Iterator[Found]:
    limit = vehicle.width_limit
    if _outer(carrier) is None or not isinstance(carrier, Rack) or carrier.posts is None or limit is None:
        return
    half = carrier.posts.section.width.mm / 2
    ends = [*(abs(r.y.mm) + half for r in carrier.rails), abs(carrier.port.mm), abs(carrier.starboard.mm)]
    whole = 2 * max(ends)
    if whole > limit.mm:
        yield Found(
            place=f"carriers.{carrier.id}.rails",
            where=carrier.name,
            why=f"It is {say_length(whole, units)} wide; {say_length(limit.mm, units)} is allowed.",
            remedy="Posts closer to the body, or none beside it.",
            quantity="width",
            value=whole,
            limit=limit.mm,
            unit="mm",
        )


@rule("gutter-holds-no-upright", "note", "hold", "Gutters hold no post upright", PRACTICE, each="carriers")
def gutter_holds_no_upright(carrier: Carrier) -> Iterator[Found]:
    hold = _outer(carrier)
    if hold is not None and hold.on == "gutter":
        yield Found(
            place=f"carriers.{carrier.id}.joint",
            where=carrier.name,
            why="Its feet count as hinges: only the corners of the frame keep it from folding.",
            remedy="Welded corners, or braces along and across.",
        )
