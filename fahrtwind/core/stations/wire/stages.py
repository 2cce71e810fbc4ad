"""What is worked out about wiring."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Assumptions
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.job.wiring import Controller, MeterReading, Wiring
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.house import rules, stage, working
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.layout.sun.moments import Moments
from fahrtwind.core.stations.layout.sun.sky import site_of, sky_of_day
from fahrtwind.core.stations.seal.water import WaterFinding
from fahrtwind.core.stations.wire.limit import Air, Limit
from fahrtwind.core.stations.wire.limits import limits_of
from fahrtwind.core.stations.wire.meter import MeterVerdict, array_verdict, string_verdict, weather_of
from fahrtwind.core.stations.wire.parts import WirePart, parts_of
from fahrtwind.core.stations.wire.proposals import GroupingFinding, groupings_of
from fahrtwind.core.stations.wire.results import ControllerFinding
from fahrtwind.core.stations.wire.route import Ground, ground_of
from fahrtwind.core.stations.wire.runs import Harness, harnesses_of
from fahrtwind.core.stations.wire.strings import Array, PanelDiode, arrays_of
from fahrtwind.core.stations.wire.strings import panel_diode as diode_of_panel
from fahrtwind.core.stations.wire.work import WireWork
from fahrtwind.core.stations.wire.work import wire_work as work_of

rules.unanswered("wire")


@stage("wire", "Diode of a panel", "panels.{id}.model", each="panels", all="panel_diodes", otherwise=None)
def panel_diode(panel: PlacedPanel) -> PanelDiode:
    return diode_of_panel(panel)


@stage("wire", "Strings", "wiring.strings", otherwise=())
def arrays(
    wiring: Wiring,
    panels: tuple[PlacedPanel, ...],
    panel_diodes: tuple[PanelDiode, ...],
    controllers_wanted: tuple[Controller, ...],
) -> tuple[Array, ...]:
    return arrays_of(wiring, panels, panel_diodes)


@stage("wire", "The roof as ground for cables", "wiring.points")
def cable_ground(
    roof: Rect,
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    obstacle_shapes: tuple[Shape, ...],
    standing: WaterFinding | None,
) -> Ground:
    pools = standing.pools if standing else ()
    spots = tuple((p.x_mm, p.y_mm, (p.area_cm2 * 100 / np.pi) ** 0.5) for p in pools)
    return ground_of(roof, panels, carriers, obstacle_shapes, spots)


@stage("wire", "Where cables run", "wiring.points", otherwise=())
def harnesses(
    arrays: tuple[Array, ...],
    strings_wanted: tuple[str, ...],
    wiring: Wiring,
    cable_ground: Ground,
    gland_spot: tuple[float, float],
    length_inside: float,
    assumptions: Assumptions,
) -> tuple[Harness, ...]:
    lengths = (wiring.lead.mm if wiring.lead else assumptions.cable_reach.mm, length_inside)
    return harnesses_of(arrays, wiring, lengths, cable_ground, gland_spot)


@stage("wire", "Limits", "wiring.controllers", otherwise=(), place="limits")
def controller_findings(
    arrays: tuple[Array, ...],
    strings_wanted: tuple[str, ...],
    harnesses: tuple[Harness, ...] | None,
    wiring: Wiring,
    electric_air: Air,
) -> tuple[ControllerFinding, ...]:
    by_id = {h.controller: h for h in harnesses or ()}
    return tuple(_found(a, by_id.get(a.controller.id), wiring, electric_air) for a in arrays)


def _found(array: Array, harness: Harness | None, wiring: Wiring, air: Air) -> ControllerFinding:
    limits: tuple[Limit, ...] = limits_of(array, harness, wiring, air)
    return ControllerFinding.of(array, limits, wiring.code)


@working("limits")
def limits_working(
    arrays: tuple[Array, ...], harnesses: tuple[Harness, ...] | None, wiring: Wiring, electric_air: Air
) -> None:
    by_id = {h.controller: h for h in harnesses or ()}
    for array in arrays:
        limits_of(array, by_id.get(array.controller.id), wiring, electric_air)


@stage("wire", "Parts of the wiring", "wiring", otherwise=())
def wire_parts(
    arrays: tuple[Array, ...], harnesses: tuple[Harness, ...], wiring: Wiring, units: UnitSystem
) -> tuple[WirePart, ...]:
    return parts_of(arrays, harnesses, wiring, units)


@stage("wire", "What the meter says", "wiring.meter", otherwise=())
def meter(arrays: tuple[Array, ...], wiring: Wiring, sunny_roof: SunnyRoof) -> tuple[MeterVerdict, ...]:
    told = (_meter(reading, arrays, sunny_roof) for reading in wiring.meter)
    return tuple(verdict for verdict in told if verdict is not None)


def _meter(reading: MeterReading, arrays: tuple[Array, ...], roof: SunnyRoof) -> MeterVerdict | None:
    weather = weather_of(reading, *_clear(reading, roof))
    for array in arrays:
        if array.controller.id == reading.at and array.strings:
            return array_verdict(reading, array, weather)
        for plugged in array.strings:
            if plugged.string.id == reading.at:
                return string_verdict(reading, plugged, weather)
    return None


def _clear(reading: MeterReading, roof: SunnyRoof) -> tuple[float | None, float | None]:
    """Clear light on the level at that hour, W/m², and air, °C; None where the place is unknown."""
    try:
        site = site_of(roof)
    except InputError:
        return None, None
    sky = sky_of_day(site, reading.month)
    level = sky.beam * np.sin(np.radians(sky.elevation_deg)) + sky.diffuse
    if not len(level):  # the sun stays down all day
        return 0.0, site.temperature_deg_c[reading.month - 1]
    now = float(np.interp(reading.hour, sky.hour / 2, level, left=0.0, right=0.0))
    return now, site.temperature_deg_c[reading.month - 1]


@stage("wire", "Work of the wiring", "wiring", otherwise=WireWork())
def wire_work(
    arrays: tuple[Array, ...], harnesses: tuple[Harness, ...] | None, wiring: Wiring, units: UnitSystem
) -> WireWork:
    return work_of(arrays, harnesses or (), wiring, units)


@stage("wire", "Even strings of neighbours", "wiring", slow=True)
def even_groupings(
    wiring: Wiring,
    panels: tuple[PlacedPanel, ...],
    panel_diodes: tuple[PanelDiode, ...],
    moments: Moments,
    harnesses: tuple[Harness, ...] | None,
) -> GroupingFinding:
    """Tried first: what most would plug."""
    return groupings_of(wiring, panels, panel_diodes, moments, harnesses or (), even_only=True)


@stage("wire", "Ways to plug the panels together", "wiring", slow=True)
def groupings(
    wiring: Wiring,
    panels: tuple[PlacedPanel, ...],
    panel_diodes: tuple[PanelDiode, ...],
    moments: Moments,
    harnesses: tuple[Harness, ...] | None,
) -> GroupingFinding:
    return groupings_of(wiring, panels, panel_diodes, moments, harnesses or ())
