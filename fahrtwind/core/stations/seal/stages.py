"""What is worked out about sealing."""

from fahrtwind.core.job.views import Plan
from fahrtwind.core.stations.house import stage
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.sealant import SealPlan, seal_plan

NO_SEAL = SealPlan("", "", 0.0, 0.0, 0, 0.0, "")


@stage("roof-day", "Sealant", "panels", place="seal", otherwise=NO_SEAL)
def seal(plan: Plan, holders: tuple[Holder, ...]) -> SealPlan:
    return seal_plan(plan, holders)
