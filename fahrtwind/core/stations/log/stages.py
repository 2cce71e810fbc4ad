"""What is worked out about what was built."""

from fahrtwind.core.job.care import Care
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.log.judged import LookVerdict
from fahrtwind.core.stations.log.judged import judged as judged_look

rules.unanswered("log")


@stage("log", "What findings mean", "care.looks", otherwise=())
def judged(care: Care, speeds: PlanVerdict | None, units: UnitSystem) -> tuple[LookVerdict, ...]:
    return tuple(judged_look(look, speeds, units) for look in care.looks)
