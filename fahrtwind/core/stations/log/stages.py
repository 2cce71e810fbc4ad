"""What is worked out about what was built."""

from fahrtwind.core.job.care import Care
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_torque
from fahrtwind.core.stations.hold.plan_verdict import PlanVerdict
from fahrtwind.core.stations.house import rules, stage
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.log.inspection import LookPlace, inspection
from fahrtwind.core.stations.log.judged import LookVerdict
from fahrtwind.core.stations.log.judged import judged as judged_look
from fahrtwind.core.stations.roof_day.torques import TorqueWanted

rules.unanswered("log")


@stage("log", "What findings mean", "care.looks", otherwise=())
def judged(care: Care, speeds: PlanVerdict | None, units: UnitSystem) -> tuple[LookVerdict, ...]:
    return tuple(judged_look(look, speeds, units) for look in care.looks)


@stage("log", "What to look at", "care.looks", otherwise=())
def to_look_at(
    holders: tuple[Holder, ...],
    torques_wanted: tuple[TorqueWanted, ...],
    care: Care,
    wiring: Wiring,
    units: UnitSystem,
) -> tuple[LookPlace, ...]:
    said = [(t.holder, say_torque(t.torque_n_m, units)) for t in torques_wanted]
    torques = {h.id: tuple(dict.fromkeys(words for own, words in said if own == h.id)) for h in holders}
    return inspection(holders, torques, care, cables=bool(wiring.strings))
