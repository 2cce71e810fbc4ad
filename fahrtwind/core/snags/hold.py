"""Snags of the hold: will it stay on?"""

from collections.abc import Iterator

from fahrtwind.core.hold.chain import skin_mm
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import FoamTape, PlacedPanel
from fahrtwind.core.layout.feet import SURE_MEMBER, FootPlace, member_margin_mm
from fahrtwind.core.quantities import say_length, say_share, say_speed, say_temperature
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule
from fahrtwind.core.tables.fasteners import SCREWS
from fahrtwind.core.tables.feet import TAPE_LEAST_DEG_C

PRACTICE = "common practice, no source"
TAPE_GUIDANCE = "Adhesive foam tape makers' general guidance"
SPEEDS = "Slipstream at the cautious end of the uplift range against the chain of each foot"
FULL_DWELL_H = 72.0
PLY_DIAMETERS = 2.5
FAST_M_S = 14.0
"""Above about 50 km/h plain screws in bare skin are refused: vibration in thin skin has no published strength."""


def _panels(job: Job) -> dict[str, PlacedPanel]:
    return {p.id: p for p in job.panels}


def _taped(job: Job) -> Iterator[tuple[PlacedPanel, FoamTape]]:
    for panel in job.panels:
        if isinstance(panel.hold, FoamTape):
            yield panel, panel.hold


@rule("let-go-too-low", "stop", "hold", "Lets go below the required speed", SPEEDS)
def let_go_too_low(job: Job, findings: Findings) -> Iterator[Found]:
    plan, panels = findings.plan, _panels(job)
    for v in findings.verdicts:
        if plan is not None and v.let_go_m_s < plan.required_m_s:
            yield Found(
                f"panels.{v.panel}.feet.{v.worst_foot}", f"{panels[v.panel].name}, foot {v.worst_foot}",
                f"It lets go at {say_speed(v.let_go_m_s, job.units)} with no safety at all; {say_speed(plan.required_m_s, job.units)} is driven.",
                "More feet, into members, or a stronger school. Do not drive with it.", "let-go speed", v.let_go_m_s, plan.required_m_s, "m/s",
            )  # fmt: skip


@rule("safe-speed-too-low", "stop", "hold", "Safe speed below the required speed", SPEEDS)
def safe_too_low(job: Job, findings: Findings) -> Iterator[Found]:
    plan, panels = findings.plan, _panels(job)
    for v in findings.verdicts:
        if plan is not None and v.safe_m_s < plan.required_m_s <= v.let_go_m_s:
            yield Found(
                f"panels.{v.panel}.feet.{v.worst_foot}", f"{panels[v.panel].name}, foot {v.worst_foot}",
                f"With its safety factor it holds to {say_speed(v.safe_m_s, job.units)}; {say_speed(plan.required_m_s, job.units)} is driven.",
                "Add feet or fasteners until the safe speed is above the required one.", "safe speed", v.safe_m_s, plan.required_m_s, "m/s",
            )  # fmt: skip


@rule("one-foot-lost", "caution", "hold", "One foot lost: the others let go", SPEEDS)
def one_foot_lost(job: Job, findings: Findings) -> Iterator[Found]:
    plan, panels = findings.plan, _panels(job)
    for v in findings.verdicts:
        if plan is not None and v.lost_let_go_m_s < plan.required_m_s:
            yield Found(
                f"panels.{v.panel}.feet.{v.lost_foot}", f"{panels[v.panel].name}, foot {v.lost_foot}",
                f"If this foot fails, the next one lets go at {say_speed(v.lost_let_go_m_s, job.units)}.",
                "Add a foot beside it, or a tether to the next panel.", "let-go speed, foot lost", v.lost_let_go_m_s, plan.required_m_s, "m/s",
            )  # fmt: skip


@rule("foot-off-member", "caution", "hold", "Foot off the member", "common practice: feet go into structure")
def foot_off_member(job: Job, findings: Findings) -> Iterator[Found]:
    panels = _panels(job)
    for f in findings.feet:
        panel = panels[f.panel]
        if panel.hold.school == "bolts" and f.landing in ("skin", "perhaps") and f.off_mm is not None:
            yield Found(
                f"panels.{f.panel}.feet.{f.foot}", f"{panel.name}, foot {f.foot}",
                f"{say_length(abs(f.off_mm), job.units)} off member {f.member}: it holds in the skin only, which flexes and drums.",
                "Move the panel or the foot along, or bridge two members with a rail.", "off", f.off_mm, 0.0, "mm",
            )  # fmt: skip


def _missing_words(job: Job, findings: Findings, foot: FootPlace) -> str:
    """Why a foot may miss its member: it stands off it, or the member's place is not known closely enough."""
    off = f"{say_length(abs(foot.off_mm or 0.0), job.units)} off member {foot.member}"
    if foot.landing == "skin":
        return f"{off}: its screws certainly miss it"
    member = next(m for m in findings.members.members if m.number == foot.member)
    if member.confidence < SURE_MEMBER:
        return f"Member {member.number} is only {say_share(member.confidence)} sure to be there: its screws perhaps miss it"
    room = member_margin_mm(job, _panels(job)[foot.panel].hold)
    known = 1.96 * member.sigma_mm
    if abs(foot.off_mm or 0.0) < room:
        return (
            f"Member {member.number} needs to be known within {say_length(room - abs(foot.off_mm or 0.0), job.units)}, "
            f"it is known within {say_length(known, job.units)}: its screws perhaps miss it"
        )
    return f"{off}: its screws perhaps miss it"


@rule(
    "screws-in-skin",
    "stop",
    "hold",
    "Screws into skin only",
    "common practice: refused at road speed; no source for vibration in thin skin",
)
def screws_in_skin(job: Job, findings: Findings) -> Iterator[Found]:
    panels = _panels(job)
    fast = job.vehicle.top_speed is None or job.vehicle.top_speed.m_s > FAST_M_S
    for f in findings.feet:
        panel = panels[f.panel]
        if panel.hold.school == "screws" and f.landing in ("skin", "perhaps") and fast and f.off_mm is not None:
            yield Found(
                f"panels.{f.panel}.feet.{f.foot}", f"{panel.name}, foot {f.foot}",
                f"{_missing_words(job, findings, f)}, and plain screws in bare skin work loose on the road.",
                "Move the panel or foot to the member, confirm the member, or use through-bolts with large washers.", "off", f.off_mm, 0.0, "mm",
            )  # fmt: skip


@rule("landing-unknown", "caution", "hold", "Not known what the feet stand on", "common practice: feet go into structure")
def landing_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    lost = {f.panel for f in findings.feet if f.landing == "unknown"}
    for panel in job.panels:
        through_a_deck = job.vehicle.kind in ("boat", "truck_bed") and panel.hold.school == "bolts"
        if panel.id in lost and panel.hold.school != "tape" and not through_a_deck:
            blank = job.members.face_width is None
            yield Found(
                "members.face_width" if blank else f"panels.{panel.id}", panel.name,
                "The width of the member's face is blank: nobody can say whether its fasteners are in it."
                if blank else "No member is known under it: its fasteners are taken to hold in the skin only.",
                "Measure the face of a rib or truss under the skin." if blank else "Find the members first: take readings along the roof.",
            )  # fmt: skip


@rule(
    "ply-too-thin",
    "stop",
    "hold",
    "Ply too thin for its screw",
    "NDS 2018, 12.1.5: screws need thread in sound wood; 2.5 diameters: common practice",
)
def ply_too_thin(job: Job, findings: Findings) -> Iterator[Found]:
    panels = _panels(job)
    if job.vehicle.skin != "membrane" or job.vehicle.ply_thickness is None:
        return
    for f in findings.feet:
        hold = panels[f.panel].hold
        if hold.school == "screws" and f.landing != "member":
            need = PLY_DIAMETERS * SCREWS[hold.screw].diameter_mm
            if skin_mm(job.vehicle) < need:
                yield Found(
                    f"panels.{f.panel}.feet.{f.foot}", f"{panels[f.panel].name}, foot {f.foot}",
                    f"{say_length(skin_mm(job.vehicle), job.units)} of ply hardly holds a {hold.screw} screw.",
                    "Screw into the truss, or through-bolt with a backing plate.", "ply", skin_mm(job.vehicle), need, "mm",
                )  # fmt: skip


@rule("tape-on-membrane", "stop", "hold", "Tape on a membrane", TAPE_GUIDANCE)
def tape_on_membrane(job: Job, findings: Findings) -> Iterator[Found]:
    for panel, _ in _taped(job):
        if job.vehicle.skin == "membrane":
            why = "The membrane is loose: the tape holds on the membrane, the membrane on nothing." if job.vehicle.membrane == "loose" else \
                "Foam tape does not hold on roof membranes, and the membrane's own bond is not known."  # fmt: skip
            yield Found(f"panels.{panel.id}.hold", panel.name, why, "Screw into the trusses and seal every hole.")


@rule("tape-surface", "caution", "hold", "Surface for tape not known to be sound", TAPE_GUIDANCE)
def tape_surface(job: Job, findings: Findings) -> Iterator[Found]:
    for panel, _ in _taped(job):
        if job.vehicle.skin != "membrane" and job.vehicle.surface != "sound":
            yield Found(
                f"panels.{panel.id}.hold", panel.name, "Tape holds no better than the paint or gelcoat under it.",
                "Cross-cut a hidden spot and pull tape from it; then set the surface to sound or go down to metal.",
            )  # fmt: skip


@rule("tape-crown-unknown", "caution", "hold", "Tape on a roof whose crown is not known", TAPE_GUIDANCE)
def tape_crown_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    if findings.survey.crown is None:
        for panel, _ in _taped(job):
            yield Found(
                f"panels.{panel.id}.hold", panel.name,
                "A flat foot pulled down onto a curve keeps a peel load for ever; nobody has measured the curve.",
                "Lay a straight-edge across at the feet and type the gaps in Survey.",
            )  # fmt: skip


@rule("tape-too-cold", "stop", "hold", "Too cold for tape", TAPE_GUIDANCE)
def tape_too_cold(job: Job, findings: Findings) -> Iterator[Found]:
    for panel, hold in _taped(job):
        if hold.temperature is not None and hold.temperature.deg_c < TAPE_LEAST_DEG_C:
            yield Found(
                f"panels.{panel.id}.hold.temperature", panel.name, f"At {say_temperature(hold.temperature.deg_c, job.units)} the tape does not flow into the surface.",
                f"Wait for {say_temperature(21, job.units)} or warm the roof and the panel.", "temperature", hold.temperature.deg_c, TAPE_LEAST_DEG_C, "°C",
            )  # fmt: skip


@rule("tape-dwell", "caution", "hold", "Tape loaded before full bond", TAPE_GUIDANCE)
def tape_dwell(job: Job, findings: Findings) -> Iterator[Found]:
    for panel, hold in _taped(job):
        if hold.dwell_h < FULL_DWELL_H:
            yield Found(
                f"panels.{panel.id}.hold.dwell_h", panel.name, f"After {hold.dwell_h:g} h the bond is not complete; 72 h near {say_temperature(21, job.units)} are.",
                "Do not drive before.", "dwell", hold.dwell_h, FULL_DWELL_H, "h",
            )  # fmt: skip


@rule("tape-edge-open", "caution", "hold", "Tape edge not shielded", TAPE_GUIDANCE)
def tape_edge_open(job: Job, findings: Findings) -> Iterator[Found]:
    for panel, hold in _taped(job):
        if not hold.sealed_edge:
            yield Found(
                f"panels.{panel.id}.hold.sealed_edge",
                panel.name,
                "Sun and water creep in at an open edge.",
                "Run a bead of sealant round each pad.",
            )


@rule("few-feet", "stop", "hold", "Too few feet", "statics: three feet not in a line hold a panel, four survive the loss of one")
def few_feet(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        if 0 < len(panel.feet) < 4:
            yield Found(
                f"panels.{panel.id}.feet", panel.name, f"{len(panel.feet)} feet: if one is lost the rest stand in a line and the panel flips.",
                "Give it four feet or more.", "feet", float(len(panel.feet)), 4.0, "",
            )  # fmt: skip


@rule(
    "uplift-judged",
    "note",
    "hold",
    "Uplift is a judgement",
    "EN 1991-1-4 building values used as a bracket; no published map for vehicle roofs",
)
def uplift_judged(job: Job, findings: Findings) -> Iterator[Found]:
    plan = findings.plan
    if plan is not None:
        yield Found(
            "assumptions", "all panels", f"Let-go lies between {say_speed(plan.let_go_m_s, job.units)} and {say_speed(plan.let_go_typical_m_s, job.units)}: nobody has published the pressures on a vehicle roof.",
            "Drive by the safe speed, stage the risk, re-check the bolts after the first 100 km.",
        )  # fmt: skip
