"""The drill map: every hole and every tape pad with number, place, drill sizes and depth stop."""

from __future__ import annotations

from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.stations.hold.schools import school_of
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.layout.feet import FootPlace


def drill_map(plan: RoofPlan, feet: tuple[FootPlace, ...], sealant: str) -> tuple[Mark, ...]:
    """The marks of all feet, numbered from the front, port side first."""
    panels = {p.id: p for p in plan.panels}
    marks: list[Mark] = []
    for place in sorted(feet, key=lambda f: (round(f.x_mm), f.y_mm)):
        panel = panels[place.panel]
        marks += school_of(panel.hold).marks(len(marks) + 1, plan, panel, place, sealant)
    return tuple(marks)
