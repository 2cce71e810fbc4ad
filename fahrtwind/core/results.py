"""What the core finds out about a job: complete, frozen, derived afresh each time and never stored."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fahrtwind.core.build.drill_map import Mark
from fahrtwind.core.build.materials import Material
from fahrtwind.core.days.steps import WorkStep
from fahrtwind.core.hold.verdict import PanelVerdict
from fahrtwind.core.layout.cables import CablePair
from fahrtwind.core.layout.clear_height import ClearHeight
from fahrtwind.core.layout.distances import Distance, Overlap
from fahrtwind.core.layout.dry_fit import DryFit
from fahrtwind.core.layout.feet import FootPlace
from fahrtwind.core.layout.footprint import Raised, Rect
from fahrtwind.core.seal.sealant import SealPlan
from fahrtwind.core.silence import Silence
from fahrtwind.core.structure.bays import Spot
from fahrtwind.core.structure.members import MemberFit
from fahrtwind.core.structure.mounting_lines import LinesFinding
from fahrtwind.core.structure.next_check import NextCheck
from fahrtwind.core.survey.findings import SurveyFindings
from fahrtwind.core.survey.outline import Vertex
from fahrtwind.core.survey.questions import Question


@dataclass(frozen=True, slots=True)
class Shape:
    """A panel or an obstacle with what it occupies on the plan, mm."""

    id: str
    kind: Literal["panel", "obstacle"]
    rect: Rect
    lid: Rect | None
    ring: tuple[Vertex, ...]
    """The true footprint of an obstacle that is no rectangle; empty otherwise."""
    raised: Raised | None = None


@dataclass(frozen=True, slots=True)
class PlanVerdict:
    """The whole roof: the worst of all feet. ``required`` is the highest driving speed."""

    required_m_s: float
    probe_m_s: float
    let_go_m_s: float
    let_go_typical_m_s: float
    safe_m_s: float
    lost_let_go_m_s: float
    lost_safe_m_s: float
    worst_panel: str
    worst_foot: str
    pressure_pa: float
    density_kg_m3: float
    gust_m_s: float
    fastest_told_m_s: float


@dataclass(frozen=True, slots=True)
class Findings:
    """Everything but the snags, which read this."""

    roof: Rect | None
    shapes: tuple[Shape, ...]
    survey: SurveyFindings
    members: MemberFit
    next_check: NextCheck | None
    bays: tuple[Spot, ...]
    lines: LinesFinding
    feet: tuple[FootPlace, ...]
    clear_heights: tuple[ClearHeight, ...]
    dry_fit: tuple[DryFit, ...]
    cable_pairs: tuple[CablePair, ...]
    distances: tuple[Distance, ...]
    overlaps: tuple[Overlap, ...]
    verdicts: tuple[PanelVerdict, ...]
    plan: PlanVerdict | None
    roof_mass_kg: float
    marks: tuple[Mark, ...]
    seal: SealPlan
    materials: tuple[Material, ...]
    steps: tuple[WorkStep, ...]
    questions: tuple[Question, ...]
    silent: tuple[Silence, ...]
    """Stages that could not answer, for example because a link's source does not cover it."""
