"""What stages may see of a job, piece by piece, and what the outside hands in with it."""

from __future__ import annotations

from datetime import date
from typing import NamedTuple

from fahrtwind.core.job.built import BuiltFoot, BuiltTorque
from fahrtwind.core.job.care import Care
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.days import Days
from fahrtwind.core.job.document import Assumptions, Job, Members, Obstacle, Vehicle
from fahrtwind.core.job.layout import Decision, FreeArea, Variant, Wish
from fahrtwind.core.job.panel import Attachment, PanelModel, PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.job.roof import MountingLines, Survey
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.job.views import Plan, Roof
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.house import view


@dataclass(frozen=True, slots=True)
class Asked:
    """A job, and a road speed to look at instead of the highest driving speed."""

    job: Job
    probe_m_s: float | None = None


@view()
def probe(asked: Asked) -> float | None:
    return asked.probe_m_s


@view()
def units(asked: Asked) -> UnitSystem:
    return asked.job.units


@view()
def vehicle(asked: Asked) -> Vehicle:
    return asked.job.vehicle


@view()
def survey_notes(asked: Asked) -> Survey:
    return asked.job.survey


@view()
def obstacles(asked: Asked) -> tuple[Obstacle, ...]:
    return asked.job.obstacles


@view()
def panels(asked: Asked) -> tuple[PlacedPanel, ...]:
    return asked.job.panels


@view()
def raisings(asked: Asked) -> tuple[Raising, ...]:
    return asked.job.raisings


@view()
def carriers(asked: Asked) -> tuple[Carrier, ...]:
    return asked.job.carriers


@view()
def tethers(asked: Asked) -> tuple[Tether, ...]:
    return asked.job.tethers


class Sheet(NamedTuple):
    """The id of a panel, and the model it is of: neither changes where it is moved."""

    panel: str
    model: PanelModel


@view(each="panels", all="sheets")
def sheet(panel: PlacedPanel) -> Sheet:
    return Sheet(panel.id, panel.model)


@view(each="panels")
def hold(panel: PlacedPanel) -> Attachment:
    return panel.hold


@view()
def ribs(asked: Asked) -> Members:
    """What the ribs or trusses are made of."""
    return asked.job.members


@view()
def assumptions(asked: Asked) -> Assumptions:
    return asked.job.assumptions


@view()
def keep_free(asked: Asked) -> tuple[FreeArea, ...]:
    return asked.job.keep_free


@view()
def mounting(asked: Asked) -> MountingLines:
    return asked.job.mounting


@view()
def decisions(asked: Asked) -> tuple[Decision, ...]:
    return asked.job.decisions


@view()
def variants(asked: Asked) -> tuple[Variant, ...]:
    return asked.job.variants


@view()
def wish(asked: Asked) -> Wish:
    return asked.job.wish


@view()
def workshop(asked: Asked) -> Workshop:
    return asked.job.workshop


@view()
def sealing(asked: Asked) -> Seal:
    return asked.job.seal


@view()
def wiring(asked: Asked) -> Wiring:
    return asked.job.wiring


@view()
def calendar(asked: Asked) -> Days:
    return asked.job.days


@view()
def built_feet(asked: Asked) -> tuple[BuiltFoot, ...]:
    return asked.job.built.feet


@view()
def built_torques(asked: Asked) -> tuple[BuiltTorque, ...]:
    return asked.job.built.torques


@view()
def care(asked: Asked) -> Care:
    return asked.job.care


@view()
def planned_start(asked: Asked) -> date | None:
    """The first day of the plan that was kept."""
    kept = asked.job.days.kept
    return min(step.starts for step in kept).date() if kept else None


@view()
def roof_notes(asked: Asked) -> Roof:
    """The vehicle and what was found on its roof."""
    return Roof.of(asked.job)


@view()
def plan(asked: Asked) -> Plan:
    """The roof with all that is planned for it."""
    return Plan.of(asked.job)
