"""Calculations of the roof day: what to do, and what was built beside what was planned."""

from __future__ import annotations

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import calculation
from fahrtwind.core.choose.as_built import Reality, reality
from fahrtwind.core.evaluate import visit
from fahrtwind.core.job.load import load_job
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.kit import KitLine
from fahrtwind.core.stations.days.steps import WorkStep
from fahrtwind.core.stations.roof_day.in_hand import InHand
from fahrtwind.core.stations.roof_day.torques import TorqueFinding, TorqueWanted


@dataclass(frozen=True, slots=True)
class RoofDay:
    """The box, the steps in order, and what is in hand in each."""

    kit: tuple[KitLine, ...]
    steps: tuple[WorkStep, ...]
    in_hand: tuple[InHand, ...]


@calculation("roof_day.steps")
def roof_day_steps(given: JobInput) -> RoofDay:
    """What has to be in the box, and every step with its tools, readings, clocks and caution."""
    seen = visit(load_job(given.job))
    return RoofDay(seen.get("kit", ()), seen.get("steps", ()), seen.get("in_hand", ()))


@dataclass(frozen=True, slots=True)
class Torques:
    """How tight every bolt goes, and what was read, judged."""

    wanted: tuple[TorqueWanted, ...]
    read: tuple[TorqueFinding, ...]


@calculation("roof_day.torques")
def roof_day_torques(given: JobInput) -> Torques:
    """How tight the bolts of every carrier and panel go; what the wrench showed beside it."""
    seen = visit(load_job(given.job))
    return Torques(seen.get("torques_wanted", ()), seen.get("torques", ()))


@calculation("roof_day.as_built")
def roof_day_as_built(given: JobInput) -> Reality:
    """How fast it may drive as planned and as built, and what can be done about feet that are off."""
    return reality(load_job(given.job))
