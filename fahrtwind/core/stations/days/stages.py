"""What is worked out about the order of the work."""

from fahrtwind.core.job.views import Plan
from fahrtwind.core.stations.build.assembly import AssemblyStep
from fahrtwind.core.stations.days.steps import Sealing, WorkStep, work_steps
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import stage
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.amounts import Amount
from fahrtwind.core.stations.seal.choice import KindChoice, SealChoice
from fahrtwind.core.stations.seal.cure import CureTimes
from fahrtwind.core.stations.wire.work import WireWork


@stage("roof-day", "Steps", "panels", otherwise=())
def steps(
    plan: Plan,
    holders: tuple[Holder, ...],
    marks: tuple[Mark, ...],
    seal_choice: SealChoice | None,
    seal_amounts: tuple[Amount, ...],
    cure: CureTimes | None,
    seal_kinds: tuple[KindChoice, ...] | None,
    assembly_by_carrier: tuple[tuple[AssemblyStep, ...], ...],
    wire_work: WireWork | None,
) -> tuple[WorkStep, ...]:
    frames = tuple(step for own in assembly_by_carrier for step in own)
    seal = Sealing(seal_choice, seal_amounts, cure, marks, seal_kinds or ())
    return work_steps(plan, holders, marks, seal, frames, wire_work or WireWork())
