"""A layout in figures: what it gives, what it costs in holes, mass and money, and what is wrong with it."""

from __future__ import annotations

from collections import Counter

from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.layout.street import SeenFrom
from fahrtwind.core.stations.layout.sun.harvest import harvest_of, stand_of

MIRROR_MM = 3.0


@dataclass(frozen=True, slots=True)
class ModelCount:
    model: str
    count: int


@dataclass(frozen=True, slots=True)
class LayoutFigures:
    """``price`` is None where a model has none, ``year_wh`` where place or climate is missing. Speeds are
    None without feet.

    ``feet_perhaps`` may be in a member that is not known well enough to say so.
    ``height_mm``: the highest panel's top over the roof; ``seen``: the nearest spot in the street from where
    a panel shows, None where the vehicle's height is missing.
    ``mirrored`` is the share of panels that lie on the centre line or have a twin on the other side.
    """

    panels: int
    models: tuple[ModelCount, ...]
    watts: float
    year_wh: float | None
    feet: int
    feet_on_members: int
    feet_perhaps: int
    holes: int
    mass_kg: float
    price: float | None
    mirrored: float
    let_go_m_s: float | None
    safe_m_s: float | None
    stops: int
    cautions: int
    stop_titles: tuple[str, ...]
    height_mm: float
    seen: SeenFrom | None


def with_panels(job: Job, panels: tuple[PlacedPanel, ...]) -> Job:
    return job.model_copy(update={"panels": panels})


def figures_of(job: Job, evaluation: Evaluation | None = None, *, year: bool = True) -> LayoutFigures:
    """The figures of a job's present panels; ``year`` asks for the year's energy too, which takes longest."""
    told = evaluation or evaluate(job)
    found, plan = told.findings, told.findings.plan
    # another layout is plugged anew: what its strings lack now is no fault of it
    standing = [s for s in told.snags if s.dismissed is None and s.station != "wire"]
    prices = [p.model.price for p in job.panels]
    return LayoutFigures(
        panels=len(job.panels),
        models=_models(job),
        watts=sum(p.model.power.w for p in job.panels),
        year_wh=_year_wh(job) if year else None,
        feet=len(found.feet),
        feet_on_members=sum(f.landing == "member" for f in found.feet),
        feet_perhaps=sum(f.landing == "perhaps" for f in found.feet),
        holes=_holes(found.marks),
        mass_kg=found.roof_mass_kg,
        price=None if any(p is None for p in prices) else sum(p for p in prices if p is not None),
        mirrored=mirrored_share(job.panels),
        let_go_m_s=plan.let_go_m_s if plan else None,
        safe_m_s=plan.safe_m_s if plan else None,
        stops=sum(s.severity == "stop" for s in standing),
        cautions=sum(s.severity == "caution" for s in standing),
        height_mm=highest_mm(job.panels),
        seen=found.seen,
        stop_titles=tuple(dict.fromkeys(s.title for s in standing if s.severity == "stop")),
    )


def highest_mm(panels: tuple[PlacedPanel, ...]) -> float:
    """Top of the highest panel over the roof, mm."""
    return max((p.stand_off.mm + p.model.frame_height.mm for p in panels), default=0.0)


def _models(job: Job) -> tuple[ModelCount, ...]:
    counts = Counter(p.model.name for p in job.panels)
    return tuple(
        ModelCount(name, n) for name, n in sorted(counts.items(), key=lambda item: (-item[1], item[0]))
    )


def _holes(marks: tuple[Mark, ...]) -> int:
    return sum(mark.kind == "hole" for mark in marks)


def _year_wh(job: Job) -> float | None:
    try:
        return float(harvest_of(SunnyRoof.of(job), stand_of(SunnyRoof.of(job))).wh.sum())
    except InputError:
        return None


def mirrored_share(panels: tuple[PlacedPanel, ...]) -> float:
    """Share of panels on the centre line or with a twin of the same size on the other side."""
    rects = [panel_rect(p) for p in panels]
    alike = [
        any(
            abs(r.x_mm - o.x_mm) < MIRROR_MM
            and abs(r.y_mm + o.y_end_mm) < MIRROR_MM
            and abs(r.length_mm - o.length_mm) < MIRROR_MM
            and abs(r.width_mm - o.width_mm) < MIRROR_MM
            for o in rects
        )
        for r in rects
    ]
    return sum(alike) / len(alike) if alike else 1.0
