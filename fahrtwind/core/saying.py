"""How quantities are said to people, in the units of a job."""

from __future__ import annotations

import math
from fractions import Fraction

from fahrtwind.core.quantities import KG_PER_LB, M_S_PER_MPH, N_PER_LBF, ROUNDING, UnitSystem

INCH_POUND = 0.1129848
"""An inch pound of torque, N·m."""


def sixteenths(mm: float) -> str:
    """A length as it stands on an inch tape: feet are left out, the fraction is reduced.

    >>> sixteenths(134.9375)
    '5 5/16"'
    """
    parts = round(abs(mm) / 25.4 * 16)
    whole, rest = divmod(parts, 16)
    sign = "-" if mm < 0 and parts else ""
    if not rest:
        return f'{sign}{whole}"'
    fraction = Fraction(rest, 16)
    return f'{sign}{f"{whole} " if whole else ""}{fraction.numerator}/{fraction.denominator}"'


def say_length(mm: float, system: UnitSystem) -> str:
    """A length as a sentence says it: whole millimetres, or inches to the sixteenth.

    >>> say_length(1234.6, "metric"), say_length(134.9375, "imperial")
    ('1235 mm', '5 5/16"')
    """
    return f"{mm:.0f} mm" if system == "metric" else sixteenths(mm)


def say_place(mm: float, system: UnitSystem) -> str:
    """Where to drill: to the half millimetre, or inches to the sixteenth.

    >>> say_place(113.4, "metric"), say_place(60.04, "metric"), say_place(134.9375, "imperial")
    ('113.5 mm', '60 mm', '5 5/16"')
    """
    return f"{round(2 * mm) / 2:g} mm" if system == "metric" else sixteenths(mm)


def say_at_least(mm: float, system: UnitSystem) -> str:
    """A length that is needed, rounded up as a rule is read: never less than what is needed.

    >>> say_at_least(19.02, "metric"), say_at_least(19.2, "imperial")
    ('20 mm', '13/16"')
    """
    step = 1.0 if system == "metric" else 25.4 / 16
    return say_length(math.ceil(mm / step - 1e-9) * step, system)


def say_size(mm: float, system: UnitSystem) -> str:
    """A part's size as a list names it: exact millimetres, or inches to the sixteenth.

    >>> say_size(1.6, "metric"), say_size(25.4, "imperial")
    ('1.6 mm', '1"')
    """
    return f"{mm:g} mm" if system == "metric" else sixteenths(mm)


def say_run(mm: float, system: UnitSystem) -> str:
    """What is bought or laid by the run: metres or feet, rounded up to the tenth or to the whole.

    >>> say_run(6730, "metric"), say_run(6730, "imperial")
    ('6.8 m', '23 ft')
    """
    return f"{math.ceil(mm / 100) / 10:.1f} m" if system == "metric" else f"{math.ceil(mm / 304.8)} ft"


def say_mass(kg: float, system: UnitSystem) -> str:
    """A mass in whole kilograms or pounds.

    >>> say_mass(104.2, "metric"), say_mass(104.2, "imperial")
    ('104 kg', '230 lb')
    """
    return f"{kg:.0f} kg" if system == "metric" else f"{kg / KG_PER_LB:.0f} lb"


def say_force(n: float, system: UnitSystem) -> str:
    """A force in whole newtons or pounds, rounded up: a load is never rounded down.

    >>> say_force(639.2, "metric"), say_force(639.2, "imperial")
    ('640 N', '144 lbf')
    """
    whole = math.ceil((n if system == "metric" else n / N_PER_LBF) - ROUNDING)
    return f"{whole} N" if system == "metric" else f"{whole} lbf"


def say_pressure(pa: float, system: UnitSystem) -> str:
    """Pressure or stress to the tenth of a kilopascal, or to the hundredth of a psi.

    >>> say_pressure(14200.0, "metric")
    '14.2 kPa'
    """
    return f"{pa / 1000:.1f} kPa" if system == "metric" else f"{pa / 6894.757:.2f} psi"


def say_temperature(deg_c: float, system: UnitSystem) -> str:
    """A temperature in whole degrees.

    >>> say_temperature(21, "metric"), say_temperature(21, "imperial")
    ('21 °C', '70 °F')
    """
    return f"{deg_c:.0f} °C" if system == "metric" else f"{deg_c * 1.8 + 32:.0f} °F"


def say_torque(n_m: float, system: UnitSystem) -> str:
    """A torque to the tenth of a newton metre, or in whole inch pounds.

    >>> say_torque(8.2, "metric"), say_torque(8.2, "imperial")
    ('8.2 N·m', '73 in·lb')
    """
    return f"{n_m:.1f} N·m" if system == "metric" else f"{n_m / INCH_POUND:.0f} in·lb"


def say_share(share: float) -> str:
    """A share in whole per cent, kept together by a no-break space.

    >>> say_share(0.934).split()
    ['93', '%']
    """
    return f"{share * 100:.0f}\u00a0%"


def say_speed(m_s: float, system: UnitSystem) -> str:
    """A speed rounded down: a limit is never rounded up.

    >>> say_speed(30.9, "metric"), say_speed(30.9, "imperial"), say_speed(51 * 0.44704, "imperial")
    ('111 km/h', '69 mph', '51 mph')
    """
    return (
        f"{int(m_s * 3.6 + ROUNDING)} km/h"
        if system == "metric"
        else f"{int(m_s / M_S_PER_MPH + ROUNDING)} mph"
    )
