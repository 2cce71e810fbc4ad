"""Plausible ranges for the quantities of a job: outside them something was mistyped."""

from typing import Annotated

from pydantic import AfterValidator, ValidationInfo
from pydantic_core import PydanticCustomError

from fahrtwind.core.quantities import (
    Angle,
    Current,
    Length,
    Mass,
    Power,
    Pressure,
    Quantity,
    Speed,
    Temperature,
    Torque,
    Voltage,
)
from fahrtwind.core.records import dataclass


@dataclass(frozen=True, slots=True)
class _within:  # noqa: N801  reads as a word in the list below
    """A validator that keeps a quantity between two values of its own unit."""

    low: float
    high: float

    def __call__(self, quantity: Quantity, info: ValidationInfo) -> Quantity:
        if not self.low <= quantity.value <= self.high:
            shown = quantity.text or f"{quantity.value:g} {quantity.unit}"
            low, high = (
                quantity.shown(end, (info.context or {}).get("units", "metric"))
                for end in (self.low, self.high)
            )
            raise PydanticCustomError(
                "out_of_range",
                "{problem}",
                {
                    "problem": f"{shown} is outside {low} … {high}.",
                    "remedy": f"Check the number and its unit, for example {quantity.example}.",
                },
            )
        return quantity


RoofLength = Annotated[Length, AfterValidator(_within(500, 20_000))]
RoofWidth = Annotated[Length, AfterValidator(_within(300, 4_000))]
Along = Annotated[Length, AfterValidator(_within(-2_000, 22_000))]
Across = Annotated[Length, AfterValidator(_within(-3_000, 3_000))]
Size = Annotated[Length, AfterValidator(_within(5, 6_000))]
Height = Annotated[Length, AfterValidator(_within(0, 2_000))]
Shift = Annotated[Length, AfterValidator(_within(-1_000, 1_000))]
Gap = Annotated[Length, AfterValidator(_within(0, 500))]
Pitch = Annotated[Length, AfterValidator(_within(20, 3_000))]
LongSide = Annotated[Length, AfterValidator(_within(100, 25_000))]
Slope = Annotated[Angle, AfterValidator(_within(-89, 89))]
LidAngle = Annotated[Angle, AfterValidator(_within(1, 180))]
Clearance = Annotated[Length, AfterValidator(_within(0, 2_000))]
Sheet = Annotated[Length, AfterValidator(_within(0.3, 12))]
Board = Annotated[Length, AfterValidator(_within(2, 50))]
StockLength = Annotated[Length, AfterValidator(_within(100, 15_000))]
Kerf = Annotated[Length, AfterValidator(_within(0, 10))]
Trim = Annotated[Length, AfterValidator(_within(0, 200))]
Tolerance = Annotated[Length, AfterValidator(_within(0, 20))]
PieceLength = Annotated[Length, AfterValidator(_within(10, 15_000))]
CutAngle = Annotated[Angle, AfterValidator(_within(-60, 60))]
CoatThickness = Annotated[Length, AfterValidator(_within(0, 0.5))]
CureDepth = Annotated[Length, AfterValidator(_within(0.2, 20))]
Parked = Annotated[Angle, AfterValidator(_within(-15, 15))]
Hands = Annotated[Length, AfterValidator(_within(250, 630))]
Below = Annotated[Length, AfterValidator(_within(0, 4_000))]
Depth = Annotated[Length, AfterValidator(_within(3, 300))]
Small = Annotated[Length, AfterValidator(_within(0.3, 150))]
Pad = Annotated[Length, AfterValidator(_within(10, 500))]
Sigma = Annotated[Length, AfterValidator(_within(0.5, 200))]
PanelSide = Annotated[Length, AfterValidator(_within(100, 3_000))]
RoadSpeed = Annotated[Speed, AfterValidator(_within(1, 60))]
Gust = Annotated[Speed, AfterValidator(_within(0, 40))]
Altitude = Annotated[Length, AfterValidator(_within(-450_000, 5_500_000))]
PanelMass = Annotated[Mass, AfterValidator(_within(0.2, 100))]
RoofLoad = Annotated[Mass, AfterValidator(_within(5, 2_000))]
PanelPower = Annotated[Power, AfterValidator(_within(1, 1_500))]
WorkTemperature = Annotated[Temperature, AfterValidator(_within(-40, 80))]
VehicleHeight = Annotated[Length, AfterValidator(_within(500, 6_000))]
PanelVoltage = Annotated[Voltage, AfterValidator(_within(1, 200))]
PanelCurrent = Annotated[Current, AfterValidator(_within(0.1, 40))]
CellTemperature = Annotated[Temperature, AfterValidator(_within(20, 90))]
Uplift = Annotated[Pressure, AfterValidator(_within(200, 10_000))]
BasicWind = Annotated[Speed, AfterValidator(_within(5, 60))]
DrivingTemperature = Annotated[Temperature, AfterValidator(_within(-40, 40))]
Tilt = Annotated[Angle, AfterValidator(_within(0, 75))]
Heading = Annotated[Angle, AfterValidator(_within(0, 360))]
Latitude = Annotated[Angle, AfterValidator(_within(-89, 89))]
Longitude = Annotated[Angle, AfterValidator(_within(-180, 180))]
ControllerVoltage = Annotated[Voltage, AfterValidator(_within(10, 1_000))]
ControllerCurrent = Annotated[Current, AfterValidator(_within(0.5, 300))]
ControllerPower = Annotated[Power, AfterValidator(_within(10, 20_000))]
Headroom = Annotated[Voltage, AfterValidator(_within(0, 50))]
MeterVoltage = Annotated[Voltage, AfterValidator(_within(-1_000, 1_000))]
MeterCurrent = Annotated[Current, AfterValidator(_within(-300, 300))]
CellReading = Annotated[Temperature, AfterValidator(_within(-40, 100))]
Tightened = Annotated[Torque, AfterValidator(_within(0, 300))]
Lead = Annotated[Length, AfterValidator(_within(50, 5_000))]
Inside = Annotated[Length, AfterValidator(_within(0, 15_000))]
