"""Snags of tethers: whether they catch what they are there to catch."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.tether import Strap, Tether, WireRope
from fahrtwind.core.quantities import Speed, UnitSystem
from fahrtwind.core.saying import say_force, say_length, say_speed
from fahrtwind.core.stations.hold.tethers.caught import Caught
from fahrtwind.core.stations.house import rule

PRACTICE = "common practice, no source"
CATCH = "Energy of a constant force over slack and stretch (mechanics)"
SLACK_MM = 5.0


def _of(panel: PlacedPanel, tethers: tuple[Tether, ...]) -> list[Tether]:
    return [t for t in tethers if t.panel == panel.id]


@rule("tether-breaks", "caution", "hold", "Tether would not stop the panel", CATCH, each="panels")
def tether_breaks(
    panel: PlacedPanel, caught: Caught | None, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    if caught is None or not caught.two_sides or caught.all_lost_m_s >= top_speed.m_s:
        return
    worst = max(caught.tethers, key=lambda t: t.all_lost_n / t.bears_n)
    yield Found(
        place=f"tethers.{worst.tether}",
        where=f"{panel.name}, {worst.weakest.title}",
        why=f"When all feet let go it may be pulled with {say_force(worst.all_lost_n, units)} at the probed "
        f"speed; it bears {say_force(worst.bears_n, units)}, enough up to "
        f"{say_speed(caught.all_lost_m_s, units)}.",
        remedy="Anchor in a member with more or larger fasteners, a thicker line, less slack, or a strap "
        "that gives.",
        quantity="speed to which tethers stop it",
        value=caught.all_lost_m_s,
        limit=top_speed.m_s,
        unit="m/s",
    )


@rule("tethers-on-one-side", "caution", "hold", "Panel would flip about its tether", PRACTICE, each="panels")
def tethers_on_one_side(panel: PlacedPanel, caught: Caught | None) -> Iterator[Found]:
    if caught is not None and not caught.two_sides:
        yield Found(
            place=f"tethers.{caught.tethers[0].tether}.side",
            where=panel.name,
            why="All of its tethers stand on one side: once loose it turns over about them.",
            remedy="One tether on another side.",
            quantity="sides",
            value=1.0,
            limit=2.0,
        )


@rule("tether-slack", "caution", "hold", "Slack tether catches with a jerk", CATCH, each="panels")
def tether_slack(
    panel: PlacedPanel, tethers: tuple[Tether, ...], caught: Caught | None, units: UnitSystem
) -> Iterator[Found]:
    told = {v.tether: v for v in caught.tethers} if caught else {}
    for tether in _of(panel, tethers):
        if tether.slack.mm > SLACK_MM and not isinstance(tether.line, Strap) and tether.id in told:
            yield Found(
                place=f"tethers.{tether.id}.slack",
                where=f"{panel.name}, {tether.name}",
                why=f"Over {say_length(tether.slack.mm, units)} of slack the catch asks for "
                f"{say_force(told[tether.id].all_lost_n, units)}.",
                remedy=f"Under {say_length(SLACK_MM, units)} of slack, or a strap that gives.",
                quantity="slack",
                value=tether.slack.mm,
                limit=SLACK_MM,
                unit="mm",
            )


@rule("tether-does-not-reach", "stop", "hold", "Tether is too short", "geometry", each="panels")
def does_not_reach(
    panel: PlacedPanel, tethers: tuple[Tether, ...], caught: Caught | None, units: UnitSystem
) -> Iterator[Found]:
    told = {v.tether: v for v in caught.tethers} if caught else {}
    for tether in _of(panel, tethers):
        reach = told[tether.id].reach_mm if tether.id in told else 0.0
        if tether.length is not None and reach > tether.length.mm:
            yield Found(
                place=f"tethers.{tether.id}.length",
                where=f"{panel.name}, {tether.name}",
                why=f"From frame to anchor it is {say_length(reach, units)}; the line has "
                f"{say_length(tether.length.mm, units)}.",
                remedy="A longer line, or the anchor nearer to the frame.",
                quantity="length",
                value=tether.length.mm,
                limit=reach,
                unit="mm",
            )


@rule("tether-taped-too", "caution", "hold", "Tether hangs on the same tape", PRACTICE, each="panels")
def taped_too(panel: PlacedPanel, tethers: tuple[Tether, ...]) -> Iterator[Found]:
    for tether in _of(panel, tethers):
        if tether.hold.school == "tape" and panel.hold.school == "tape" and panel.carrier is None:
            yield Found(
                place=f"tethers.{tether.id}.hold",
                where=f"{panel.name}, {tether.name}",
                why="What loosens the tape of the panel, heat or a bad surface, loosens its anchor as well.",
                remedy="Anchor it with screws into a member, or with bolts.",
            )


@rule("tether-chafes", "note", "hold", "Rope over a sharp edge", PRACTICE, each="panels")
def tether_chafes(panel: PlacedPanel, tethers: tuple[Tether, ...]) -> Iterator[Found]:
    ropes = [t for t in _of(panel, tethers) if isinstance(t.line, WireRope)]
    if ropes:
        yield Found(
            place=f"tethers.{ropes[0].id}",
            where=panel.name,
            why="A hole in a frame has edges that saw through rope as it hums.",
            remedy="Deburr the hole; a thimble or a shackle through it, never the bare rope.",
        )


@rule("strap-not-rated", "note", "hold", "Strength of the strap not known", PRACTICE, each="panels")
def strap_not_rated(panel: PlacedPanel, tethers: tuple[Tether, ...]) -> Iterator[Found]:
    for tether in _of(panel, tethers):
        if isinstance(tether.line, Strap) and tether.line.breaks_n is None:
            yield Found(
                place=f"tethers.{tether.id}.line.breaks_n",
                where=f"{panel.name}, {tether.name}",
                why="Nobody has said at what it breaks: 3000 N (674 lbf) is counted.",
                remedy="Type what its label says; sun takes half of it in some years.",
            )


@rule("tether-of-nothing", "caution", "hold", "Tether without its panel", "the plan itself")
def tether_of_nothing(tethers: tuple[Tether, ...], panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    there = {p.id for p in panels}
    for tether in tethers:
        if tether.panel not in there:
            yield Found(
                place=f"tethers.{tether.id}",
                where=tether.name,
                why="The panel that it was to catch is not on the roof.",
                remedy="Take it away, or choose its panel.",
            )
