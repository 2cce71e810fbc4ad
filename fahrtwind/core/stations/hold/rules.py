"""Snags of the hold: will it stay on?"""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import FoamTape, PlacedPanel
from fahrtwind.core.quantities import UnitSystem, say_length, say_share, say_speed, say_temperature
from fahrtwind.core.stations.hold.chain import skin_mm
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict
from fahrtwind.core.stations.hold.verdict import PanelVerdict
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.feet import SURE_MEMBER, FootPlace, member_margin_mm
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.stations.survey.findings import SurveyFindings
from fahrtwind.core.tables.fasteners import SCREWS
from fahrtwind.core.tables.feet import TAPE_LEAST_DEG_C

PRACTICE = "common practice, no source"
TAPE_GUIDANCE = "Adhesive foam tape makers' general guidance"
SPEEDS = "Slipstream at the cautious end of the uplift range against the chain of each foot"
FULL_DWELL_H = 72.0
PLY_DIAMETERS = 2.5
FAST_M_S = 14.0
"Above about 50 km/h plain screws in bare skin are refused: vibration in thin skin has no published strength."


def _panels(panels: tuple[PlacedPanel, ...]) -> dict[str, PlacedPanel]:
    return {p.id: p for p in panels}


def _taped(panels: tuple[PlacedPanel, ...]) -> Iterator[tuple[PlacedPanel, FoamTape]]:
    for panel in panels:
        if isinstance(panel.hold, FoamTape):
            yield (panel, panel.hold)


@rule("let-go-too-low", "stop", "hold", "Lets go below the required speed", SPEEDS)
def let_go_too_low(
    speeds: PlanVerdict,
    verdicts: tuple[PanelVerdict, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
) -> Iterator[Found]:
    named = _panels(panels)
    for v in verdicts:
        if v.let_go_m_s < speeds.required_m_s:
            yield Found(
                place=f"panels.{v.panel}.feet.{v.worst_foot}",
                where=f"{named[v.panel].name}, foot {v.worst_foot}",
                why=f"It lets go at {say_speed(v.let_go_m_s, units)} with no safety at all; "
                f"{say_speed(speeds.required_m_s, units)} is driven.",
                remedy="More feet, into members, or a stronger school. Do not drive with it.",
                quantity="let-go speed",
                value=v.let_go_m_s,
                limit=speeds.required_m_s,
                unit="m/s",
            )


@rule("safe-speed-too-low", "stop", "hold", "Safe speed below the required speed", SPEEDS)
def safe_too_low(
    speeds: PlanVerdict,
    verdicts: tuple[PanelVerdict, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
) -> Iterator[Found]:
    named = _panels(panels)
    for v in verdicts:
        if v.safe_m_s < speeds.required_m_s <= v.let_go_m_s:
            yield Found(
                place=f"panels.{v.panel}.feet.{v.worst_foot}",
                where=f"{named[v.panel].name}, foot {v.worst_foot}",
                why=f"With its safety factor it holds to {say_speed(v.safe_m_s, units)}; "
                f"{say_speed(speeds.required_m_s, units)} is driven.",
                remedy="Add feet or fasteners until the safe speed is above the required one.",
                quantity="safe speed",
                value=v.safe_m_s,
                limit=speeds.required_m_s,
                unit="m/s",
            )


@rule("one-foot-lost", "caution", "hold", "One foot lost: the others let go", SPEEDS)
def one_foot_lost(
    speeds: PlanVerdict,
    verdicts: tuple[PanelVerdict, ...],
    units: UnitSystem,
    panels: tuple[PlacedPanel, ...],
) -> Iterator[Found]:
    named = _panels(panels)
    for v in verdicts:
        if v.lost_let_go_m_s < speeds.required_m_s:
            yield Found(
                place=f"panels.{v.panel}.feet.{v.lost_foot}",
                where=f"{named[v.panel].name}, foot {v.lost_foot}",
                why=f"If this foot fails, the next one lets go at {say_speed(v.lost_let_go_m_s, units)}.",
                remedy="Add a foot beside it, or a tether to the next panel.",
                quantity="let-go speed, foot lost",
                value=v.lost_let_go_m_s,
                limit=speeds.required_m_s,
                unit="m/s",
            )


@rule("foot-off-member", "caution", "hold", "Foot off the member", "common practice: feet go into structure")
def foot_off_member(
    feet: tuple[FootPlace, ...], units: UnitSystem, panels: tuple[PlacedPanel, ...]
) -> Iterator[Found]:
    named = _panels(panels)
    for f in feet:
        panel = named[f.panel]
        if panel.hold.school == "bolts" and f.landing in ("skin", "perhaps") and (f.off_mm is not None):
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{panel.name}, foot {f.foot}",
                why=f"{say_length(abs(f.off_mm), units)} off member {f.member}: it holds in the "
                f"skin only, which flexes and drums.",
                remedy="Move the panel or the foot along, or bridge two members with a rail.",
                quantity="off",
                value=f.off_mm,
                limit=0.0,
                unit="mm",
            )


def _missing_words(
    units: UnitSystem, members: MemberFit, ribs: Members, panels: tuple[PlacedPanel, ...], foot: FootPlace
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
    room = member_margin_mm(ribs, _panels(panels)[foot.panel].hold)
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
    vehicle: Vehicle,
    feet: tuple[FootPlace, ...],
    panels: tuple[PlacedPanel, ...],
    units: UnitSystem,
    members: MemberFit,
    ribs: Members,
) -> Iterator[Found]:
    named = _panels(panels)
    fast = vehicle.top_speed is None or vehicle.top_speed.m_s > FAST_M_S
    for f in feet:
        panel = named[f.panel]
        if (
            panel.hold.school == "screws"
            and f.landing in ("skin", "perhaps")
            and fast
            and (f.off_mm is not None)
        ):
            yield Found(
                place=f"panels.{f.panel}.feet.{f.foot}",
                where=f"{panel.name}, foot {f.foot}",
                why=f"{_missing_words(units, members, ribs, panels, f)}, and plain screws in bare "
                f"skin work loose on the road.",
                remedy="Move the panel or foot to the member, confirm the member, or use "
                "through-bolts with large washers.",
                quantity="off",
                value=f.off_mm,
                limit=0.0,
                unit="mm",
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
    "ply-too-thin",
    "stop",
    "hold",
    "Ply too thin for its screw",
    "NDS 2018, 12.1.5: screws need thread in sound wood; 2.5 diameters: common practice",
)
def ply_too_thin(
    vehicle: Vehicle, feet: tuple[FootPlace, ...], units: UnitSystem, panels: tuple[PlacedPanel, ...]
) -> Iterator[Found]:
    named = _panels(panels)
    if vehicle.skin != "membrane" or vehicle.ply_thickness is None:
        return
    for f in feet:
        hold = named[f.panel].hold
        if hold.school == "screws" and f.landing != "member":
            need = PLY_DIAMETERS * SCREWS[hold.screw].diameter_mm
            if skin_mm(vehicle) < need:
                yield Found(
                    place=f"panels.{f.panel}.feet.{f.foot}",
                    where=f"{named[f.panel].name}, foot {f.foot}",
                    why=f"{say_length(skin_mm(vehicle), units)} of ply hardly holds a {hold.screw} screw.",
                    remedy="Screw into the truss, or through-bolt with a backing plate.",
                    quantity="ply",
                    value=skin_mm(vehicle),
                    limit=need,
                    unit="mm",
                )


@rule("tape-on-membrane", "stop", "hold", "Tape on a membrane", TAPE_GUIDANCE)
def tape_on_membrane(vehicle: Vehicle, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, _ in _taped(panels):
        if vehicle.skin == "membrane":
            why = (
                "The membrane is loose: the tape holds on the membrane, the membrane on nothing."
                if vehicle.membrane == "loose"
                else "Foam tape does not hold on roof membranes, and the membrane's own bond is not known."
            )
            yield Found(
                place=f"panels.{panel.id}.hold",
                where=panel.name,
                why=why,
                remedy="Screw into the trusses and seal every hole.",
            )


@rule("tape-surface", "caution", "hold", "Surface for tape not known to be sound", TAPE_GUIDANCE)
def tape_surface(vehicle: Vehicle, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, _ in _taped(panels):
        if vehicle.skin != "membrane" and vehicle.surface != "sound":
            yield Found(
                place=f"panels.{panel.id}.hold",
                where=panel.name,
                why="Tape holds no better than the paint or gelcoat under it.",
                remedy="Cross-cut a hidden spot and pull tape from it; then set the surface to "
                "sound or go down to metal.",
            )


@rule("tape-crown-unknown", "caution", "hold", "Tape on a roof whose crown is not known", TAPE_GUIDANCE)
def tape_crown_unknown(surveyed: SurveyFindings, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    if surveyed.crown is None:
        for panel, _ in _taped(panels):
            yield Found(
                place=f"panels.{panel.id}.hold",
                where=panel.name,
                why="A flat foot pulled down onto a curve keeps a peel load for ever; nobody has "
                "measured the curve.",
                remedy="Lay a straight-edge across at the feet and type the gaps in Survey.",
            )


@rule("tape-too-cold", "stop", "hold", "Too cold for tape", TAPE_GUIDANCE)
def tape_too_cold(units: UnitSystem, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, hold in _taped(panels):
        if hold.temperature is not None and hold.temperature.deg_c < TAPE_LEAST_DEG_C:
            yield Found(
                place=f"panels.{panel.id}.hold.temperature",
                where=panel.name,
                why=f"At {say_temperature(hold.temperature.deg_c, units)} the tape does not flow "
                f"into the surface.",
                remedy=f"Wait for {say_temperature(21, units)} or warm the roof and the panel.",
                quantity="temperature",
                value=hold.temperature.deg_c,
                limit=TAPE_LEAST_DEG_C,
                unit="°C",
            )


@rule("tape-dwell", "caution", "hold", "Tape loaded before full bond", TAPE_GUIDANCE)
def tape_dwell(units: UnitSystem, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, hold in _taped(panels):
        if hold.dwell_h < FULL_DWELL_H:
            yield Found(
                place=f"panels.{panel.id}.hold.dwell_h",
                where=panel.name,
                why=f"After {hold.dwell_h:g} h the bond is not complete; 72 h near "
                f"{say_temperature(21, units)} are.",
                remedy="Do not drive before.",
                quantity="dwell",
                value=hold.dwell_h,
                limit=FULL_DWELL_H,
                unit="h",
            )


@rule("tape-edge-open", "caution", "hold", "Tape edge not shielded", TAPE_GUIDANCE)
def tape_edge_open(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel, hold in _taped(panels):
        if not hold.sealed_edge:
            yield Found(
                place=f"panels.{panel.id}.hold.sealed_edge",
                where=panel.name,
                why="Sun and water creep in at an open edge.",
                remedy="Run a bead of sealant round each pad.",
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
