"""What is worked out while it is being built."""

from fahrtwind.core.job.built import BuiltFoot
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.days.steps import WorkStep
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import stage
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.roof_day.built import BuiltFinding, built_findings
from fahrtwind.core.stations.roof_day.in_hand import InHand, in_hand_of
from fahrtwind.core.stations.seal.cure import CureTimes


@stage("roof-day", "What was built", "built.feet", otherwise=())
def as_built(
    built_feet: tuple[BuiltFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> tuple[BuiltFinding, ...]:
    return built_findings(built_feet, holders, units)


@stage("roof-day", "What is in hand", "panels", otherwise=())
def in_hand(
    steps: tuple[WorkStep, ...], marks: tuple[Mark, ...], cure: CureTimes | None
) -> tuple[InHand, ...]:
    return in_hand_of(steps, marks, cure)
