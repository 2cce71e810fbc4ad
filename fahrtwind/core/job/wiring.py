"""The wiring's part of the job: controllers, strings of panels, cable and its way, what the meter said."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Identifier, Name, Part
from fahrtwind.core.quantities import Voltage
from fahrtwind.core.tables.cables import CableName

SkyWord = Literal["clear", "haze", "cloud", "shade"]
Clip = Literal["stuck", "screwed"]
MeterStage = Literal["open", "short"]


class Controller(Part):
    """A charge controller as its sheet has it. ``kind``: one that seeks the best voltage, or one that
    switches the panels onto the battery. ``max_current``: short-circuit current its input bears;
    ``charge_current``: what it gives the battery; ``start_over``, ``run_over``: how far above the battery the
    panels have to be to start and to go on. ``joined``: where its strings come together; ``fuse``: put in
    each string.
    """

    id: Identifier
    name: Name
    kind: Literal["best voltage", "switching"] = "best voltage"
    battery: Literal[12, 24, 48] = 12
    max_voltage: q.ControllerVoltage | None = None
    max_current: q.ControllerCurrent | None = None
    charge_current: q.ControllerCurrent | None = None
    max_power: q.ControllerPower | None = None
    start_over: q.Headroom = Voltage(v=5)
    run_over: q.Headroom = Voltage(v=1)
    battery_first: bool = True
    joined: Literal["roof", "inside"] = "roof"
    fuse: q.ControllerCurrent | None = None
    price: Annotated[float, Field(ge=0, le=100_000)] | None = None


class PanelString(Part):
    """Panels in series, in this order from plus to minus, on a controller."""

    id: Identifier
    controller: Identifier
    panels: Annotated[tuple[Identifier, ...], Field(max_length=24)] = ()


class RoutePoint(Part):
    """A spot the cables of a string are led past, on their way to the gland."""

    id: Identifier
    string: Identifier
    x: q.Along
    y: q.Across


class MeterReading(Part):
    """What the meter said at the end of a string (``controller``: of all its strings joined). ``month``,
    ``hour`` by the mean sun; ``warm``: the panels felt warmer or were measured.
    """

    id: Identifier
    at: Identifier
    volts: q.MeterVoltage | None = None
    amps: q.MeterCurrent | None = None
    sky: SkyWord = "clear"
    month: Annotated[int, Field(ge=1, le=12)] = 6
    hour: Annotated[float, Field(ge=0, le=24)] = 12.0
    panel: q.CellReading | None = None


class Wiring(Part):
    """``coldest``: record low of the place; ``warmest``: hot summer air; ``near_roof``: cables lie closer to
    the roof than a finger; ``lead``: each of a panel's two leads, blank: as the reach of the leads;
    ``inside``: from the gland to the controllers; ``connector_a``: what the connectors are rated for;
    ``clip``: what holds cables over open roof.
    """

    controllers: Annotated[tuple[Controller, ...], Field(max_length=6)] = ()
    strings: Annotated[tuple[PanelString, ...], Field(max_length=24)] = ()
    code: Literal["NEC", "IEC"] = "IEC"
    cable: CableName = "6 mm²"
    coldest: q.WorkTemperature | None = None
    warmest: q.WorkTemperature | None = None
    near_roof: bool = True
    lead: q.Lead | None = None
    inside: q.Inside | None = None
    connector_a: Annotated[float, Field(ge=5, le=100)] = 30.0
    clip: Clip = "stuck"
    points: Annotated[tuple[RoutePoint, ...], Field(max_length=60)] = ()
    meter: Annotated[tuple[MeterReading, ...], Field(max_length=100)] = ()
