"""Snags of the hold: will it stay on?"""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.quantities import Speed, UnitSystem
from fahrtwind.core.saying import say_force, say_speed
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict
from fahrtwind.core.stations.hold.tethers.caught import Caught
from fahrtwind.core.stations.hold.unjudged import MemberEnd
from fahrtwind.core.stations.hold.verdict import PanelVerdict
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.holders import Holder

PARKED = "EN 1991-1-4:2005, gusts at the roof from any side; flat roof, or canopy where it is clear of it"
THIN_SKIN_MM = 1.0
PRACTICE = "common practice, no source"
TAPE_GUIDANCE = "Adhesive foam tape makers' general guidance"
SPEEDS = "Slipstream at the cautious end of the uplift range against the chain of each foot"
FULL_DWELL_H = 72.0
PLY_DIAMETERS = 2.5
FAST_M_S = 14.0
"Above about 50 km/h plain screws in bare skin are refused: vibration in thin skin has no published strength."


def _panels(panels: tuple[PlacedPanel, ...]) -> dict[str, PlacedPanel]:
    return {p.id: p for p in panels}


def _slow(
    panel: PlacedPanel, foot: str | None, why: str, remedy: str, told: tuple[str, float, float]
) -> Found:
    """A speed of one panel under the one that is driven. ``told``: its name, value and limit, m/s."""
    return Found(
        place=f"panels.{panel.id}.feet.{foot}",
        where=f"{panel.name}, foot {foot}",
        why=why,
        remedy=remedy,
        quantity=told[0],
        value=told[1],
        limit=told[2],
        unit="m/s",
    )


@rule("let-go-too-low", "stop", "hold", "Lets go below the required speed", SPEEDS, each="panels")
def let_go_too_low(
    panel: PlacedPanel, verdict: PanelVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    if verdict.let_go_m_s < top_speed.m_s:
        let_go, driven = say_speed(verdict.let_go_m_s, units), say_speed(top_speed.m_s, units)
        yield _slow(
            panel,
            verdict.worst_foot,
            f"It lets go at {let_go} with no safety at all; {driven} is driven.",
            "Feet into members, larger washers, or a stronger school. Do not drive with it.",
            ("let-go speed", verdict.let_go_m_s, top_speed.m_s),
        )


@rule("safe-speed-too-low", "stop", "hold", "Safe speed below the required speed", SPEEDS, each="panels")
def safe_too_low(
    panel: PlacedPanel, verdict: PanelVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    if verdict.safe_m_s < top_speed.m_s <= verdict.let_go_m_s:
        safe, driven = say_speed(verdict.safe_m_s, units), say_speed(top_speed.m_s, units)
        yield _slow(
            panel,
            verdict.worst_foot,
            f"With its safety factor it holds to {safe}; {driven} is driven.",
            "See what would clear it: more fasteners, feet elsewhere, or a lower speed.",
            ("safe speed", verdict.safe_m_s, top_speed.m_s),
        )


STANDS_IN_WIND = ("boat", "trailer")
"""They stand where the wind finds them for most of their life; others drive away from a storm."""


@rule("parked-lets-go", "stop", "hold", "Lets go in a storm while parked", PARKED, each="panels")
def parked_lets_go(panel: PlacedPanel, verdict: PanelVerdict, units: UnitSystem) -> Iterator[Found]:
    parked = verdict.parked
    if parked.let_go_m_s < parked.gust_m_s:
        yield Found(
            place=f"panels.{panel.id}.feet.{parked.worst_foot}",
            where=f"{panel.name}, foot {parked.worst_foot}",
            why=f"{parked.worst.capitalize()}: it lets go in a gust of "
            f"{say_speed(parked.let_go_m_s, units)}; {say_speed(parked.gust_m_s, units)} is counted with.",
            remedy="A stronger hold, a panel further from the edge, or the site's own basic wind.",
            quantity="let-go gust, parked",
            value=parked.let_go_m_s,
            limit=parked.gust_m_s,
            unit="m/s",
        )


def _thin_while_parked(panel: PlacedPanel, verdict: PanelVerdict, units: UnitSystem) -> Iterator[Found]:
    parked = verdict.parked
    if parked.safe_m_s < parked.gust_m_s <= parked.let_go_m_s:
        safe, gust = say_speed(parked.safe_m_s, units), say_speed(parked.gust_m_s, units)
        yield Found(
            place=f"panels.{panel.id}.feet.{parked.worst_foot}",
            where=f"{panel.name}, foot {parked.worst_foot}",
            why=f"With its safety factor it stands gusts to {safe}; {gust} is counted with at the site.",
            remedy=f"Lay it flat before gusts reach {safe}."
            if panel.tilt.deg > 0
            else f"Strengthen it, or seek shelter before gusts reach {safe}.",
            quantity="safe gust, parked",
            value=parked.safe_m_s,
            limit=parked.gust_m_s,
            unit="m/s",
        )


@rule("parked-not-safe", "stop", "hold", "Not safe in a storm where it stands", PARKED, each="panels")
def parked_not_safe(
    panel: PlacedPanel, verdict: PanelVerdict, vehicle: Vehicle, units: UnitSystem
) -> Iterator[Found]:
    if vehicle.kind in STANDS_IN_WIND:
        yield from _thin_while_parked(panel, verdict, units)


@rule("seek-shelter", "caution", "hold", "Seek shelter before a storm", PARKED, each="panels")
def seek_shelter(
    panel: PlacedPanel, verdict: PanelVerdict, vehicle: Vehicle, units: UnitSystem
) -> Iterator[Found]:
    if vehicle.kind not in STANDS_IN_WIND:
        yield from _thin_while_parked(panel, verdict, units)


@rule(
    "panel-over-its-rating",
    "stop",
    "hold",
    "More than the panel itself is rated for",
    "IEC 61215-2:2021, MQT 16: 1600 Pa design where the sheet is silent",
    each="panels",
)
def panel_over_its_rating(
    panel: PlacedPanel, verdict: PanelVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    rated = verdict.rated
    if rated.safe_m_s < top_speed.m_s:
        sheet = "its sheet" if rated.known else "a tested panel whose sheet is silent"
        yield Found(
            place=f"panels.{panel.id}.model.uplift",
            where=panel.name,
            why=f"{sheet.capitalize()} bears {rated.rated_pa:.0f} Pa, reached at "
            f"{say_speed(rated.safe_m_s, units)}; {say_speed(top_speed.m_s, units)} is driven.",
            remedy="Type its sheet's rated uplift, close the front edge with a fairing, or drive slower.",
            quantity="speed at the rated uplift",
            value=rated.safe_m_s,
            limit=top_speed.m_s,
            unit="m/s",
        )


@rule("rating-not-known", "note", "hold", "Rated uplift of the panel not known", "IEC 61215-2:2021, MQT 16")
def rating_not_known(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for name, panel in {p.model.name: p for p in panels if p.model.uplift is None}.items():
        yield Found(
            place=f"panels.{panel.id}.model.uplift",
            where=name,
            why="Its sheet says no rated uplift: 1600 Pa is counted, and four mounting points.",
            remedy="Look for the load on the back in the manual, with its mounting points.",
        )


@rule(
    "foot-outside-zone",
    "caution",
    "hold",
    "Foot outside the panel's mounting zone",
    "Panel makers' manuals: holes or clamping zones; other places are not covered by the rating",
)
def foot_outside_zone(panels: tuple[PlacedPanel, ...], feet: tuple[FootPlace, ...]) -> Iterator[Found]:
    for panel in panels:
        zone = panel.model.zone_from, panel.model.zone_to
        if zone[0] is None or zone[1] is None or panel.turned:
            continue
        run = panel_rect(panel).length_mm
        for foot in feet:
            at = min(foot.along_mm, run - foot.along_mm)
            if foot.panel == panel.id and foot.on_side and not zone[0].mm <= at <= zone[1].mm:
                yield Found(
                    place=f"panels.{panel.id}.feet.{foot.foot}",
                    where=f"{panel.name}, foot {foot.foot}",
                    why="It holds the frame where the maker's manual allows none: the rating does not count.",
                    remedy="Move the foot along the frame, or let a rail bridge to the zone.",
                    quantity="from the frame's nearer end",
                    value=at,
                    limit=zone[0].mm if at < zone[0].mm else zone[1].mm,
                    unit="mm",
                )


@rule(
    "member-ends",
    "note",
    "hold",
    "Not judged: what holds the members",
    "statics: simple beam from wall to wall; welds, rivets and staples at its ends are not known",
)
def member_ends_not_judged(unjudged: tuple[MemberEnd, ...], units: UnitSystem) -> Iterator[Found]:
    if unjudged:
        worst = max(unjudged, key=lambda end: end.force_n)
        yield Found(
            place="members",
            where=f"member {worst.member}, {worst.side} end",
            why=f"{say_force(worst.force_n, units)} pull there at the probed speed, the most of all members: "
            f"nobody has said what the welds, rivets or staples bear.",
            remedy="Look at the ends from inside; compare with what holds them there.",
            quantity="pull",
            value=worst.force_n,
            unit="N",
        )


@rule(
    "thin-skin",
    "stop",
    "hold",
    "Fastened in skin under 1 mm",
    "Yield-line strength before a dish (Johansen 1943); fasteners in thin skin: common practice",
)
def thin_skin(holders: tuple[Holder, ...], feet: tuple[FootPlace, ...], vehicle: Vehicle) -> Iterator[Found]:
    thickness = vehicle.skin_thickness
    if vehicle.skin not in ("steel", "aluminium") or thickness is None or thickness.mm >= THIN_SKIN_MM:
        return
    bare = {f.panel for f in feet if f.landing in ("skin", "deck")}
    for holder in holders:
        if holder.id in bare and holder.hold.school not in ("tape", "outer_foot"):
            yield Found(
                place=holder.path,
                where=holder.name,
                why="Some feet are drilled into skin between the members, which dishes before it holds.",
                remedy="Feet to the next member, or bars, angles or rails that span from member to member.",
                quantity="skin",
                value=thickness.mm,
                limit=THIN_SKIN_MM,
                unit="mm",
            )


@rule("one-foot-lost", "caution", "hold", "One foot lost: the others let go", SPEEDS, each="panels")
def one_foot_lost(
    panel: PlacedPanel, verdict: PanelVerdict, caught: Caught | None, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    """With tethers it is what they stop that counts."""
    stopped = min(caught.one_lost_m_s, verdict.let_go_m_s) if caught else 0.0
    if max(verdict.lost_let_go_m_s, stopped) < top_speed.m_s:
        yield _slow(
            panel,
            verdict.lost_foot,
            f"If this foot fails, the next one lets go at {say_speed(verdict.lost_let_go_m_s, units)}.",
            "Add a foot beside it, or tethers.",
            ("let-go speed, foot lost", verdict.lost_let_go_m_s, top_speed.m_s),
        )


@rule(
    "landing-unknown",
    "caution",
    "hold",
    "Not known what the feet stand on",
    "common practice: feet go into structure",
)
def landing_unknown(
    feet: tuple[FootPlace, ...], holders: tuple[Holder, ...], vehicle: Vehicle, ribs: Members
) -> Iterator[Found]:
    lost = {f.panel for f in feet if f.landing == "unknown"}
    for holder in holders:
        through_a_deck = vehicle.kind in ("boat", "truck_bed") and holder.hold.school == "bolts"
        if holder.id in lost and holder.hold.school != "tape" and (not through_a_deck):
            blank = ribs.face_width is None
            yield Found(
                place="members.face_width" if blank else holder.path,
                where=holder.name,
                why="The width of the member's face is blank: nobody can say whether its fasteners are in it."
                if blank
                else "No member is known under it: its fasteners are taken to hold in the skin only.",
                remedy="Measure the face of a rib or truss under the skin."
                if blank
                else "Find the members first: take readings along the roof.",
            )


@rule(
    "few-feet",
    "stop",
    "hold",
    "Too few feet",
    "statics: three feet not in a line hold a panel, four survive the loss of one",
)
def few_feet(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel in panels:
        if 0 < len(panel.feet) < 4:
            yield Found(
                place=f"panels.{panel.id}.feet",
                where=panel.name,
                why=f"{len(panel.feet)} feet: if one is lost the rest stand in a line and the panel flips.",
                remedy="Give it four feet or more.",
                quantity="feet",
                value=float(len(panel.feet)),
                limit=4.0,
                unit="",
            )


@rule(
    "uplift-judged",
    "note",
    "hold",
    "Uplift is a judgement",
    "EN 1991-1-4 building values used as a bracket; no published map for vehicle roofs",
)
def uplift_judged(speeds: PlanVerdict, units: UnitSystem) -> Iterator[Found]:
    yield Found(
        place="assumptions",
        where="all panels",
        why=f"Let-go lies between {say_speed(speeds.let_go_m_s, units)} and "
        f"{say_speed(speeds.let_go_typical_m_s, units)}: nobody has published the pressures on a "
        f"vehicle roof.",
        remedy="Drive by the safe speed, stage the risk, re-check the bolts after the first 100 km.",
    )
