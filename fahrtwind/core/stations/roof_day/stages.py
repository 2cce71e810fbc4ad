"""What is worked out while it is being built."""

from fahrtwind.core.job.built import BuiltFoot, BuiltTorque
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.days.steps import WorkStep
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import stage
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.roof_day.built import BuiltFinding, built_findings
from fahrtwind.core.stations.roof_day.in_hand import InHand, in_hand_of
from fahrtwind.core.stations.roof_day.torques import (
    TorqueFinding,
    TorqueWanted,
    torques_of,
    torques_wanted_of,
)
from fahrtwind.core.stations.seal.cure import CureTimes


@stage("roof-day", "What was built", "built.feet", otherwise=())
def as_built(
    built_feet: tuple[BuiltFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> tuple[BuiltFinding, ...]:
    return built_findings(built_feet, holders, units)


@stage("roof-day", "How tight", "built.torques", otherwise=())
def torques_wanted(
    holders: tuple[Holder, ...], bolts_by_carrier: tuple[tuple[BoltLine, ...], ...], workshop: Workshop
) -> tuple[TorqueWanted, ...]:
    lines = tuple(line for own in bolts_by_carrier for line in own)
    return torques_wanted_of(holders, lines, workshop.bolting)


@stage("roof-day", "What the wrench showed", "built.torques", otherwise=())
def torques(
    built_torques: tuple[BuiltTorque, ...], torques_wanted: tuple[TorqueWanted, ...]
) -> tuple[TorqueFinding, ...]:
    return torques_of(built_torques, torques_wanted)


@stage("roof-day", "What is in hand", "panels", otherwise=())
def in_hand(
    steps: tuple[WorkStep, ...],
    marks: tuple[Mark, ...],
    cure: CureTimes | None,
    torques_wanted: tuple[TorqueWanted, ...],
) -> tuple[InHand, ...]:
    return in_hand_of(steps, marks, cure, torques_wanted)
