"""What is worked out for the bench and the roof: marks, and the list of what to bring."""

from __future__ import annotations

from fahrtwind.core.job.views import Plan
from fahrtwind.core.stations.build.drill_map import drill_map
from fahrtwind.core.stations.build.materials import Material
from fahrtwind.core.stations.build.materials import materials as materials_of
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.sealant import SealPlan

rules.unanswered("roof-day")


@stage("roof-day", "Marks", "panels", otherwise=())
def marks(plan: Plan, holders: tuple[Holder, ...], seal: SealPlan) -> tuple[Mark, ...]:
    return drill_map(plan, holders, f"{seal.under} + {seal.round}")


@stage("roof-day", "Materials", "panels", otherwise=())
def materials(
    plan: Plan, holders: tuple[Holder, ...], marks: tuple[Mark, ...], seal: SealPlan
) -> tuple[Material, ...]:
    return materials_of(plan, holders, marks, seal)
