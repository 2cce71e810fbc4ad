"""The curves of a job's strings in one moment: at an hour of a month under its shadows, or in even light."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.evaluate import visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.sun.moments import moments_of_day
from fahrtwind.core.stations.wire.curves import LitPanel, lit_panel
from fahrtwind.core.stations.wire.diode import Diode
from fahrtwind.core.stations.wire.hour import ArrayCurve, array_curve
from fahrtwind.core.stations.wire.strings import Array

STANDARD_C = 25.0


@dataclass(frozen=True, slots=True)
class EvenLight:
    """The same light on everything, W/m², and cells of one temperature: what a data sheet speaks of."""

    w_m2: float = 1000.0
    cell_c: float = STANDARD_C


@dataclass(frozen=True, slots=True)
class HourLight:
    """A clear sky on the 15th of a month (1 to 12) at an hour of the mean sun; without a heading of its own
    at the job's.
    """

    month: int
    hour: float
    heading_deg: float | None = None


def curves_of(job: Job, light: EvenLight | HourLight) -> tuple[ArrayCurve, ...]:
    """One for every controller with strings. Raises InputError where place, climate or heading is missing, or
    where the sun is down.
    """
    seen = visit(job)
    arrays: tuple[Array, ...] = seen.get("arrays", ())
    diodes = {p.id: d for a in arrays for s in a.strings for p, d in zip(s.panels, s.diodes, strict=True)}
    lit = _even(diodes, light) if isinstance(light, EvenLight) else _at_hour(job, diodes, light)
    told = (array_curve(a, lit) for a in arrays)
    return tuple(curve for curve in told if curve is not None)


def _even(diodes: dict[str, Diode], light: EvenLight) -> dict[str, LitPanel]:
    return {
        panel: LitPanel(d, np.full((d.groups, 1), light.w_m2), np.array([light.cell_c]))
        for panel, d in diodes.items()
    }


def _at_hour(job: Job, diodes: dict[str, Diode], light: HourLight) -> dict[str, LitPanel]:
    moments = moments_of_day(SunnyRoof.of(job), light.month, light.heading_deg, light.hour)
    found = {}
    for panel, groups in zip(job.panels, moments.light, strict=True):
        if panel.id in diodes:
            found[panel.id] = lit_panel(panel, diodes[panel.id], groups, moments.air_c, moments.wind_m_s)
    return found
