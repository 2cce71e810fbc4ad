"""Units as people type them, as the unit library names them, as they are shown; factors of the usual ones."""

from __future__ import annotations

SHOWN = {"inch*lbf": "in·lb", "lbf/ft**2": "psf", "inch": "in", "degC": "°C", "degF": "°F", "degree": "°"}
PINT_UNIT = {"°C": "degC", "°": "degree", "N·m": "N*m"} | {
    u: u for u in ("mm", "m/s", "kg", "W", "V", "A", "Pa")
}
ALIAS = {
    "kph": "km/h",
    "kmh": "km/h",
    "km/h": "km/h",
    "mph": "mph",
    "m/s": "m/s",
    "ft/s": "ft/s",
    "kn": "knot",
    "kt": "knot",
    "'": "foot",
    '"': "inch",
    "in": "inch",
    "inches": "inch",
    "ft": "foot",
    "lbs": "lb",
    "lbm": "lb",
    "°c": "degC",
    "c": "degC",
    "°f": "degF",
    "f": "degF",
    "°": "degree",
    "deg": "degree",
    "rad": "radian",
    "w": "W",
    "v": "V",
    "a": "A",
    "pa": "Pa",
    "kpa": "kPa",
    "psf": "lbf/ft**2",
    "mv": "mV",
    "ma": "mA",
    **dict.fromkeys(("nm", "n·m", "n*m"), "N*m"),
    **dict.fromkeys(("in·lb", "in-lb", "lb·in", "lb-in", "lbf·in", "inlb"), "inch*lbf"),
    **dict.fromkeys(("ft·lb", "ft-lb", "lb·ft", "lb-ft", "lbf·ft", "ftlb"), "ft*lbf"),
}
USUAL_UNITS: dict[str, dict[str, float]] = {
    "mm": {"mm": 1.0, "cm": 10.0, "m": 1000.0, "inch": 25.4, "foot": 304.8},
    "m/s": {"m/s": 1.0, "km/h": 1 / 3.6, "mph": 0.44704},
    "kg": {"kg": 1.0, "lb": 0.45359237},
    "W": {"W": 1.0, "kw": 1000.0},
    "°C": {"degC": 1.0},
    "°": {"degree": 1.0},
    "V": {"V": 1.0},
    "A": {"A": 1.0},
    "N·m": {"N*m": 1.0, "inch*lbf": 0.1129848290276167, "ft*lbf": 1.3558179483314004},
    "Pa": {"Pa": 1.0, "kPa": 1000.0, "lbf/ft**2": 47.88025898033584},
}
"""What one of the units that nearly everybody types is in the unit it is kept in: the unit library takes half
a second to load, and most jobs never need it. The tests hold these against it.
"""
