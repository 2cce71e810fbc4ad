"""Every calculation has one definition and three doors: this register, ``/api/calc/<name>`` and ``fahrtwind
calc``.
"""

from fahrtwind.calc import build, calculations, days, hold, layout, log, roof_day, seal, survey, wire
from fahrtwind.calc.register import CALCULATIONS, Calculation, run

__all__ = [
    "CALCULATIONS",
    "Calculation",
    "build",
    "calculations",
    "days",
    "hold",
    "layout",
    "log",
    "roof_day",
    "run",
    "seal",
    "survey",
    "wire",
]
