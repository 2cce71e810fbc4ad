"""What is worked out about what was built."""

from fahrtwind.core.job.care import Care
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.log.inspection import LookPlace, inspection
from fahrtwind.core.stations.log.judged import LookVerdict
from fahrtwind.core.stations.log.judged import judged as judged_look

rules.unanswered("log")


@stage("log", "What findings mean", "care.looks", otherwise=())
def judged(care: Care, speeds: PlanVerdict | None, units: UnitSystem) -> tuple[LookVerdict, ...]:
    return tuple(judged_look(look, speeds, units) for look in care.looks)


@stage("log", "What to look at", "care.looks", otherwise=())
def to_look_at(
    holders: tuple[Holder, ...],
    bolts_by_carrier: tuple[tuple[BoltLine, ...], ...],
    care: Care,
    wiring: Wiring,
) -> tuple[LookPlace, ...]:
    lines = [line for own in bolts_by_carrier for line in own]
    bolts = {holder.id: tuple(x for x in lines if x.carrier == holder.id) for holder in holders}
    return inspection(holders, bolts, care, cables=bool(wiring.strings))
