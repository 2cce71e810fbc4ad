"""Snags of the hold: will it stay on?"""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.quantities import Speed, UnitSystem
from fahrtwind.core.saying import say_speed
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict
from fahrtwind.core.stations.hold.verdict import PanelVerdict
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import FootPlace

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
            "More feet, into members, or a stronger school. Do not drive with it.",
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
            "Add feet or fasteners until the safe speed is above the required one.",
            ("safe speed", verdict.safe_m_s, top_speed.m_s),
        )


@rule("one-foot-lost", "caution", "hold", "One foot lost: the others let go", SPEEDS, each="panels")
def one_foot_lost(
    panel: PlacedPanel, verdict: PanelVerdict, top_speed: Speed, units: UnitSystem
) -> Iterator[Found]:
    if verdict.lost_let_go_m_s < top_speed.m_s:
        yield _slow(
            panel,
            verdict.lost_foot,
            f"If this foot fails, the next one lets go at {say_speed(verdict.lost_let_go_m_s, units)}.",
            "Add a foot beside it, or a tether to the next panel.",
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
    feet: tuple[FootPlace, ...], panels: tuple[PlacedPanel, ...], vehicle: Vehicle, ribs: Members
) -> Iterator[Found]:
    lost = {f.panel for f in feet if f.landing == "unknown"}
    for panel in panels:
        through_a_deck = vehicle.kind in ("boat", "truck_bed") and panel.hold.school == "bolts"
        if panel.id in lost and panel.hold.school != "tape" and (not through_a_deck):
            blank = ribs.face_width is None
            yield Found(
                place="members.face_width" if blank else f"panels.{panel.id}",
                where=panel.name,
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
