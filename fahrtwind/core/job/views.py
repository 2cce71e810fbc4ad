"""Narrow looks at a job: what a calculation may read of it. A whole ``Job`` is one of each, and so are the
frozen extracts here.
"""

from __future__ import annotations

from typing import Protocol

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Assumptions, Job, Members, Obstacle, Vehicle
from fahrtwind.core.job.layout import FreeArea, Site
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass


class OnRoof(Protocol):
    """The vehicle and what was found on its roof."""

    @property
    def units(self) -> UnitSystem: ...
    @property
    def vehicle(self) -> Vehicle: ...
    @property
    def survey(self) -> Survey: ...
    @property
    def obstacles(self) -> tuple[Obstacle, ...]: ...


class RoofPlan(OnRoof, Protocol):
    """The roof with what is planned for it."""

    @property
    def members(self) -> Members: ...
    @property
    def panels(self) -> tuple[PlacedPanel, ...]: ...
    @property
    def carriers(self) -> tuple[Carrier, ...]: ...
    @property
    def tethers(self) -> tuple[Tether, ...]: ...
    @property
    def raisings(self) -> tuple[Raising, ...]: ...
    @property
    def assumptions(self) -> Assumptions: ...
    @property
    def keep_free(self) -> tuple[FreeArea, ...]: ...


@dataclass(frozen=True, slots=True)
class Roof:
    """An ``OnRoof`` and nothing else."""

    units: UnitSystem
    vehicle: Vehicle
    survey: Survey
    obstacles: tuple[Obstacle, ...]

    @classmethod
    def of(cls, job: Job) -> Roof:
        return cls(job.units, job.vehicle, job.survey, job.obstacles)


@dataclass(frozen=True, slots=True)
class Plan:
    """A ``RoofPlan`` and nothing else."""

    units: UnitSystem
    vehicle: Vehicle
    survey: Survey
    obstacles: tuple[Obstacle, ...]
    members: Members
    panels: tuple[PlacedPanel, ...]
    carriers: tuple[Carrier, ...]
    tethers: tuple[Tether, ...]
    raisings: tuple[Raising, ...]
    assumptions: Assumptions
    keep_free: tuple[FreeArea, ...]

    @classmethod
    def of(cls, job: Job) -> Plan:
        roof = (job.units, job.vehicle, job.survey, job.obstacles)
        held = (job.panels, job.carriers, job.tethers, job.raisings)
        return cls(*roof, job.members, *held, job.assumptions, job.keep_free)


@dataclass(frozen=True, slots=True)
class SunnyRoof:
    """What decides about light: panels and obstacles, the roof under them, and where and how the vehicle
    stands.
    """

    vehicle: Vehicle
    survey: Survey
    obstacles: tuple[Obstacle, ...]
    panels: tuple[PlacedPanel, ...]
    raisings: tuple[Raising, ...]
    site: Site

    @classmethod
    def of(cls, job: Job) -> SunnyRoof:
        return cls(job.vehicle, job.survey, job.obstacles, job.panels, job.raisings, job.site)
