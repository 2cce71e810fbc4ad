"""A small catalogue of invented panels and charge controllers to start from. No maker's values: measure the
delivered panel, read the controller's sheet.
"""

from __future__ import annotations

from functools import cache
from typing import Any

from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.job.wiring import Controller

SOURCE = "Invented models of usual size; replace them by the data sheet of the panel you have"

Row = tuple[str, float, float, float, float, float, float, float, float, float, int, int]
_COLUMNS = (
    ("name", ""),
    ("length", "mm"),
    ("width", "mm"),
    ("frame_height", "mm"),
    ("mass", "kg"),
    ("power", "w"),
    ("voc", "v"),
    ("vmp", "v"),
    ("isc", "a"),
    ("imp", "a"),
    ("cells", ""),
    ("bypass_diodes", ""),
)
_FRAMED_TYPICAL: dict[str, Any] = {
    "flange": {"mm": 30},
    "voc_per_k": -0.28,
    "isc_per_k": 0.05,
    "power_per_k": -0.36,
    "noct": {"deg_c": 45},
}
_FRAMED: tuple[Row, ...] = (
    ("Halde 410", 1722, 1134, 30, 21.5, 410, 37.2, 31, 13.95, 13.23, 108, 3),
    ("Halde 320", 1640, 992, 35, 18, 320, 40.2, 33.5, 10.1, 9.55, 60, 3),
    ("Kiesel 185", 1480, 670, 35, 11.8, 185, 24.3, 20.2, 9.75, 9.16, 36, 2),
    ("Kiesel 175", 1480, 668, 35, 11.5, 175, 23.9, 19.8, 9.4, 8.84, 36, 2),
    ("Schiefer 110", 1190, 540, 30, 7.6, 110, 24, 20, 5.85, 5.5, 36, 2),
    ("Splitt 50", 670, 540, 25, 3.9, 50, 22.3, 18.4, 2.95, 2.72, 36, 1),
)
_FLEXIBLE: Row = ("Flechte 120", 1205, 545, 3, 2.4, 120, 24.1, 20.1, 6.35, 5.97, 36, 0)


def _model(row: Row, more: dict[str, Any]) -> PanelModel:
    cells = zip(_COLUMNS, row, strict=True)
    return PanelModel.model_validate({name: {unit: v} if unit else v for (name, unit), v in cells} | more)


@cache
def catalogue() -> tuple[PanelModel, ...]:
    """The models; made when somebody asks for them."""
    framed = (_model(row, _FRAMED_TYPICAL) for row in _FRAMED)
    return (*framed, _model(_FLEXIBLE, {"build": "flexible", "power_per_k": -0.38}))


_CONTROLLERS: tuple[tuple[str, float, float, float], ...] = (
    ("Wehr 1", 60, 15, 15),
    ("Wehr 2", 80, 25, 30),
    ("Wehr 3", 110, 35, 45),
    ("Wehr 4", 140, 40, 55),
    ("Wehr 5", 180, 45, 80),
    ("Wehr 6", 240, 35, 65),
)
"""Name; most volts and amps of the input, amps into the battery."""
_SWITCHING = ("Torwart 20", 50, 20, 20)


@cache
def controllers() -> tuple[Controller, ...]:
    """Charge controllers; as entries of no job their ``id`` says nothing."""
    seeking = (_controller(row, "best voltage") for row in _CONTROLLERS)
    return (*seeking, _controller(_SWITCHING, "switching"))


def _controller(row: tuple[str, float, float, float], kind: str) -> Controller:
    name, volts, amps, charge = row
    values = {"max_voltage": {"v": volts}, "max_current": {"a": amps}, "charge_current": {"a": charge}}
    return Controller.model_validate({"id": "c0", "name": name, "kind": kind, **values})


def sheet_of(c: Controller) -> tuple[object, ...]:
    """What a controller's sheet says, however it was typed: alike for two of one model."""
    typed = (c.max_voltage, c.max_current, c.charge_current, c.max_power, c.start_over, c.run_over)
    values = (None if quantity is None else quantity.value for quantity in typed)
    return (c.name, c.kind, c.battery_first, *values)
