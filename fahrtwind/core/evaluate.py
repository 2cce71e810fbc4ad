"""The only place that knows the order: job in, evaluation out.

Slow or often repeated stages (the member fit, the chains) are cached on exactly what they read.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache, partial
from itertools import pairwise
from typing import Literal

import fahrtwind.core.formulas  # noqa: F401  declares all formulas
from fahrtwind.core.build.drill_map import drill_map
from fahrtwind.core.build.materials import materials
from fahrtwind.core.days.steps import work_steps
from fahrtwind.core.formulas.air import air_density, air_speed, dynamic_pressure
from fahrtwind.core.formulas.declare import given, is_recording, scope
from fahrtwind.core.formulas.roof import added_roof_mass
from fahrtwind.core.hold.chain import Chain, chain_of, skin_known, skin_of
from fahrtwind.core.hold.explain import explain_panel
from fahrtwind.core.hold.loads import is_exposed, panel_loads
from fahrtwind.core.hold.spoken import Spoken, spoken_verdict
from fahrtwind.core.hold.verdict import FASTEST_M_S, Air, PanelVerdict, forces, judge
from fahrtwind.core.job.document import Job, Members, Vehicle
from fahrtwind.core.job.keyed import Keyed, keyed
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.layout.cables import cable_pairs
from fahrtwind.core.layout.clear_height import ClearHeight, clear_height_of
from fahrtwind.core.layout.distances import distances, overlaps
from fahrtwind.core.layout.dry_fit import dry_fit
from fahrtwind.core.layout.feet import FootPlace, place_feet
from fahrtwind.core.layout.footprint import Rect, lid_rect, obstacle_polygon, obstacle_rect, panel_rect, raised_panel, roof_rect
from fahrtwind.core.results import Findings, PlanVerdict, Shape
from fahrtwind.core.seal.sealant import SealPlan, seal_plan, sealants
from fahrtwind.core.silence import Stages
from fahrtwind.core.snags import find_snags
from fahrtwind.core.snags.model import Snag, Station
from fahrtwind.core.structure.bays import Spot, judge_spot
from fahrtwind.core.structure.members import Member, MemberFit, evidence_key, fit_job_members
from fahrtwind.core.structure.mounting_lines import LinesFinding, mounting_lines
from fahrtwind.core.structure.next_check import NextCheck, next_check
from fahrtwind.core.survey.crown import CrownSurface
from fahrtwind.core.survey.findings import survey_findings
from fahrtwind.core.survey.outline import ring
from fahrtwind.core.survey.questions import Question, open_questions
from fahrtwind.core.tables.feet import FOOT_MASS_KG

NO_ROOF = MemberFit(
    "not known", "The roof has no length yet.", "Measure the roof first.", "", 0.0, None, None, (), (), (), (), ()
)
NOT_FOUND = MemberFit(
    "not known", "The members could not be worked out.", "See the stop.", "", 0.0, None, None, (), (), (), (), ()
)
NO_LINES = LinesFinding((), None, None, None, None)
NO_SEAL = SealPlan("", "", 0.0, 0.0, 0, 0.0, "")
BUILT: tuple[Station, ...] = ("survey", "structure", "layout", "hold", "roof-day")
NOT_BUILT: tuple[Station, ...] = ("build", "seal", "wire", "days", "log")
ROAD: tuple[Station, ...] = ("survey", "structure", "layout", "hold", "build", "seal", "wire", "days", "roof-day", "log")


@dataclass(frozen=True, slots=True)
class StationState:
    station: Station
    state: Literal["open", "in doubt", "answered", "not built"]
    stops: int
    cautions: int
    notes: int
    questions: int


@dataclass(frozen=True, slots=True)
class Evaluation:
    findings: Findings
    snags: tuple[Snag, ...]
    stations: tuple[StationState, ...]
    spoken: Spoken


def evaluate(job: Job, probe_m_s: float | None = None) -> Evaluation:
    """Derive everything from a job. ``probe_m_s`` is a road speed to look at; the highest driving speed by default.

    Answers for every document: a stage that cannot is listed in ``findings.silent`` and becomes a stop of its station.
    """
    stages = Stages()
    ask, each = stages.ask, stages.each
    roof = roof_rect(job.vehicle)
    survey, crown, unsurveyed = survey_findings(job)
    stages.silent += unsurveyed
    fit = ask("structure", "readings", "Members", lambda: fit_job_members(job, roof.length_mm) if roof else NO_ROOF, NOT_FOUND)
    feet = each("layout", "panels", "Feet", lambda: tuple(f for p in job.panels for f in place_feet(job, p, fit.members)))
    air = ask("hold", "vehicle.top_speed", "Slipstream", lambda: _air(job, probe_m_s), None)
    verdicts = _verdicts(job, feet, air, stages)
    with scope("roof mass"):
        mass = ask("hold", "panels", "Roof mass", lambda: _roof_mass(job, feet), 0.0)
    marks = each("roof-day", "panels", "Marks", lambda: drill_map(job, feet, " + ".join(sealants(job))))
    seal = ask("roof-day", "panels", "Sealant", lambda: seal_plan(job), NO_SEAL)
    findings = Findings(
        roof=roof, shapes=each("layout", "obstacles", "Shapes", lambda: _shapes(job)), survey=survey, members=fit,
        next_check=ask("structure", "readings", "Next spot to check", lambda: _next_check(job, feet, roof), None),
        bays=each("structure", "members", "Strength of the bays", lambda: _bays(job, fit)),
        lines=ask("structure", "mounting", "Mounting lines", lambda: mounting_lines(job, fit.members, crown), NO_LINES),
        feet=feet, clear_heights=each("layout", "panels", "Clear height", lambda: _clear_heights(job, feet, crown)),
        dry_fit=each("layout", "panels", "Dry-fit marks", lambda: dry_fit(job)),
        cable_pairs=each("layout", "panels", "Leads of pairs", lambda: cable_pairs(job)),
        distances=each("layout", "panels", "Distances", lambda: distances(job)),
        overlaps=each("layout", "panels", "Overlaps", lambda: overlaps(job)),
        verdicts=verdicts, plan=_plan(job, verdicts, air), roof_mass_kg=mass, marks=marks, seal=seal,
        materials=each("roof-day", "panels", "Materials", lambda: materials(job, marks, seal)),
        steps=each("roof-day", "panels", "Steps", lambda: work_steps(job, marks, seal)),
        questions=open_questions(job), silent=tuple(stages.silent),
    )  # fmt: skip
    snags = find_snags(job, findings)
    return Evaluation(findings, snags, _stations(job, snags, findings.questions), spoken_verdict(job, findings, snags))


def _roof_mass(job: Job, feet: tuple[FootPlace, ...]) -> float:
    return float(added_roof_mass(
        given(sum(p.model.mass.kg for p in job.panels), "chosen", "panel masses"), float(len(feet)),
        given(FOOT_MASS_KG, "default", "common practice"),
    ))  # fmt: skip


def _air(job: Job, probe_m_s: float | None) -> Air | None:
    vehicle = job.vehicle
    if vehicle.top_speed is None or vehicle.altitude is None:
        return None
    speed = vehicle.top_speed.m_s if probe_m_s is None else probe_m_s
    with scope("air"):
        gust = given(job.assumptions.gust.m_s, "chosen", "assumptions: headwind gust")
        density = air_density(given(vehicle.altitude.mm / 1000, "chosen", "altitude"))
        pressure = dynamic_pressure(density, air_speed(given(speed, "chosen", "road speed"), gust))
    return Air(speed, gust, density, pressure)


def _next_check(job: Job, feet: tuple[FootPlace, ...], roof: Rect | None) -> NextCheck | None:
    """Where to check next, for the members that feet will be drilled into."""
    if roof is None:
        return None
    drilled = {p.id for p in job.panels if p.hold.school != "tape"}
    used = frozenset(f.member for f in feet if f.panel in drilled and f.member is not None and f.landing in ("member", "perhaps"))
    return next_check(job, evidence_key(job, roof.length_mm), used)


def _bays(job: Job, fit: MemberFit) -> tuple[Spot, ...]:
    """The middle of every bay: the weakest spot of each."""
    if is_recording():
        return _judge_bays(job, fit.members)
    read = Job(name="bays", vehicle=job.vehicle, members=job.members, survey=Survey(access=job.survey.access))
    return _cached_bays(keyed(read), fit.members)


@lru_cache(maxsize=64)
def _cached_bays(read: Keyed[Job], members: tuple[Member, ...]) -> tuple[Spot, ...]:
    return _judge_bays(read.part, members)


def _judge_bays(job: Job, members: tuple[Member, ...]) -> tuple[Spot, ...]:
    return tuple(judge_spot(job, members, (a.x_mm + b.x_mm) / 2) for a, b in pairwise(members))


def _clear_heights(job: Job, feet: tuple[FootPlace, ...], crown: CrownSurface | None) -> tuple[ClearHeight, ...]:
    if crown is None:
        return ()
    found = []
    for panel in job.panels:
        own = tuple(f for f in feet if f.panel == panel.id)
        height = clear_height_of(panel, own, crown) if is_recording() else _cached_clear_height(keyed(panel), own, crown)
        found.append(height)
    return tuple(h for h in found if h is not None)


@lru_cache(maxsize=256)
def _cached_clear_height(panel: Keyed[PlacedPanel], feet: tuple[FootPlace, ...], crown: CrownSurface) -> ClearHeight | None:
    return clear_height_of(panel.part, feet, crown)


def _shapes(job: Job) -> tuple[Shape, ...]:
    return (
        *(Shape(p.id, "panel", panel_rect(p), None, (), raised_panel(p)) for p in job.panels),
        *(
            Shape(o.id, "obstacle", obstacle_rect(o), lid_rect(o), () if o.shape == "rectangle" else ring(obstacle_polygon(o)))
            for o in job.obstacles
        ),
    )


def _verdicts(job: Job, feet: tuple[FootPlace, ...], air: Air | None, stages: Stages) -> tuple[PanelVerdict, ...]:
    verdicts = []
    for panel in job.panels:
        own = tuple(f for f in feet if f.panel == panel.id)
        if air is None or not own:
            continue
        judged = partial(_verdict, job, panel, own, air)
        verdict = stages.ask("hold", f"panels.{panel.id}", panel.name, judged, None)
        if verdict is not None:
            verdicts.append(verdict)
    return tuple(verdicts)


def _verdict(job: Job, panel: PlacedPanel, feet: tuple[FootPlace, ...], air: Air) -> PanelVerdict | None:
    roof, exposed, bump = roof_rect(job.vehicle), is_exposed(job, panel), job.assumptions.bump_g
    if roof is None or not skin_known(job.vehicle):
        return None
    if is_recording():
        with scope("hold", panel.id):
            return _work_out(panel, job.vehicle, job.members, roof, feet, air, (exposed, bump))
    parts = (keyed(panel), keyed(skin_of(job.vehicle)), keyed(job.members))
    return _cached_verdict(parts, roof, feet, air, (exposed, bump))


@lru_cache(maxsize=256)
def _cached_verdict(
    parts: tuple[Keyed[PlacedPanel], Keyed[Vehicle], Keyed[Members]], roof: Rect, feet: tuple[FootPlace, ...], air: Air,
    exposed_and_bump: tuple[bool, float],
) -> PanelVerdict:  # fmt: skip
    """While one panel is dragged the others stand still: a panel is judged anew only when something it reads changes."""
    panel, vehicle, members = parts
    return _work_out(panel.part, vehicle.part, members.part, roof, feet, air, exposed_and_bump)


def _work_out(
    panel: PlacedPanel, vehicle: Vehicle, members: Members, roof: Rect, feet: tuple[FootPlace, ...], air: Air,
    exposed_and_bump: tuple[bool, float],
) -> PanelVerdict:  # fmt: skip
    exposed, bump = exposed_and_bump
    loads = panel_loads(roof, panel, exposed)
    chains = _chains(panel, vehicle, members, feet)
    shared = forces(loads, panel_rect(panel).centre, feet, chains, given(bump, "chosen", "assumptions: upward bump"))
    verdict = judge(panel.id, loads, feet, chains, shared, air)
    if is_recording():
        explain_panel(loads, feet, chains, shared, verdict, air)
    return verdict


def _chains(panel: PlacedPanel, vehicle: Vehicle, members: Members, feet: tuple[FootPlace, ...]) -> tuple[Chain, ...]:
    """One chain for each foot; feet that land alike share it, unless each one's working is being noted."""
    if is_recording():
        found = []
        for foot in feet:
            with scope(foot.foot):
                found.append(chain_of(vehicle, members, panel.hold, foot.landing, foot.on_side))
        return tuple(found)
    ways = {(f.landing, f.on_side) for f in feet}
    chains = {way: chain_of(vehicle, members, panel.hold, *way) for way in ways}
    return tuple(chains[(f.landing, f.on_side)] for f in feet)


def _plan(job: Job, verdicts: tuple[PanelVerdict, ...], air: Air | None) -> PlanVerdict | None:
    if air is None or job.vehicle.top_speed is None or not verdicts:
        return None
    worst = min(verdicts, key=lambda v: (v.let_go_m_s, v.safe_m_s))
    return PlanVerdict(
        required_m_s=job.vehicle.top_speed.m_s, probe_m_s=air.probe_m_s, let_go_m_s=worst.let_go_m_s,
        let_go_typical_m_s=min(v.let_go_typical_m_s for v in verdicts), safe_m_s=min(v.safe_m_s for v in verdicts),
        lost_let_go_m_s=min(v.lost_let_go_m_s for v in verdicts), lost_safe_m_s=min(v.lost_safe_m_s for v in verdicts),
        worst_panel=worst.panel, worst_foot=worst.worst_foot, pressure_pa=air.pressure_pa, density_kg_m3=air.density_kg_m3,
        gust_m_s=air.gust_m_s, fastest_told_m_s=FASTEST_M_S,
    )  # fmt: skip


def _stations(job: Job, snags: tuple[Snag, ...], questions: tuple[Question, ...]) -> tuple[StationState, ...]:
    if not job.panels:  # nothing to hold yet is no answer
        questions = (*questions, Question("panels", "hold", "Place a panel first."))
    return tuple(_station(name, snags, questions) for name in ROAD)


def _station(name: Station, snags: tuple[Snag, ...], questions: tuple[Question, ...]) -> StationState:
    here = [s for s in snags if s.station == name and s.dismissed is None]
    counts = {level: sum(s.severity == level for s in here) for level in ("stop", "caution", "note")}
    asked = sum(q.station == name for q in questions)
    if name == "roof-day":  # the work sheet is as good as everything before it
        asked = len(questions)
    doubtful = counts["stop"] + counts["caution"] > 0
    if name == "roof-day":
        doubtful = any(s.severity == "stop" for s in snags)
    state = "not built" if name in NOT_BUILT else "open" if asked else "in doubt" if doubtful else "answered"
    return StationState(name, state, counts["stop"], counts["caution"], counts["note"], asked)  # type: ignore[arg-type]
