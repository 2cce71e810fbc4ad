"""Voltages, currents and conductors of strings of panels."""

from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

VILLALVA = (
    "Villalva, Gazoli and Filho, Comprehensive approach to modeling and simulation of photovoltaic "
    "arrays, IEEE Transactions on Power Electronics 24 (2009)"
)
BOLTZMANN_BY_CHARGE = 8.617333262e-5
"""Volts per kelvin (CODATA 2018)."""
KELVIN = 273.15


@formula(
    title="open-circuit voltage at another temperature",
    symbol="V_oc,T",
    expression="V_oc,T = n · V_oc · (1 + β/100 · (T − 25))",
    unit="V",
    source=Source("Data sheet's coefficient, as NEC 690.7(A)(1) and IEC 62548-1 (2023) have it"),
)
def open_voltage(
    panels: Annotated[Number, Arg("n", "", "panels in series", 1, 40)],
    voc_v: Annotated[Number, Arg("V_oc", "V", "open-circuit voltage of one", 0)],
    per_k: Annotated[Number, Arg("β", "%/K", "coefficient of the sheet", -2, 1)],
    cell_c: Annotated[Number, Arg("T", "°C", "cells", -60, 120)],
) -> Number:
    return panels * voc_v * (1 + per_k / 100 * (cell_c - 25))


@formula(
    title="current the code counts with",
    symbol="I",
    expression="I = k · n · I_sc",
    unit="A",
    source=Source("NEC 690.8(A) and (B) (2023), 1.25 · 1.25; IEC 62548-1 (2023), 1.25"),
)
def design_current(
    factor: Annotated[Number, Arg("k", "", "factors of the code", 1, 2)],
    strings: Annotated[Number, Arg("n", "", "strings joined", 0, 40)],
    isc_a: Annotated[Number, Arg("I_sc", "A", "short-circuit current of one", 0)],
) -> Number:
    return factor * strings * isc_a


@formula(
    title="ampacity at another temperature",
    symbol="k_T",
    expression="k_T = √((T_c − T) / (T_c − T_0))",
    unit="",
    source=Source("NEC 310.15(B)(2) (2023), equation under the table"),
)
def ambient_factor(
    conductor_c: Annotated[Number, Arg("T_c", "°C", "conductor may reach", 50, 130)],
    around_c: Annotated[Number, Arg("T", "°C", "air round the cable", -40, 130)],
    rated_c: Annotated[Number, Arg("T_0", "°C", "air the table is for", 20, 70)],
) -> Number:
    return np.sqrt(np.maximum(conductor_c - around_c, 0.0) / (conductor_c - rated_c))


@formula(
    title="resistance of a warm conductor",
    symbol="R",
    expression="R = R_0 · (1 + 0.00393 · (T − T_0))",
    unit="Ω/km",
    source=Source("IEC 60228 (2004) annex B, copper"),
)
def warm_resistance(
    ohm_per_km: Annotated[Number, Arg("R_0", "Ω/km", "of the table", 0)],
    conductor_c: Annotated[Number, Arg("T", "°C", "conductor", -40, 130)],
    table_c: Annotated[Number, Arg("T_0", "°C", "of the table", 0, 100)],
) -> Number:
    # the coefficient is that of 20 °C; a table for another temperature is brought back to it first
    return ohm_per_km * (1 + 0.00393 * (conductor_c - 20)) / (1 + 0.00393 * (table_c - 20))


@formula(
    title="voltage drop along a run",
    symbol="ΔU",
    expression="ΔU = R · L / 10⁶ · I",
    unit="V",
    source=Source("Ohm's law, there and back (NEC Chapter 9 Table 8, note)"),
)
def voltage_drop(
    ohm_per_km: Annotated[Number, Arg("R", "Ω/km", "warm conductor", 0)],
    both_ways_mm: Annotated[Number, Arg("L", "mm", "both conductors together", 0)],
    current_a: Annotated[Number, Arg("I", "A", "running current", 0)],
) -> Number:
    return ohm_per_km * both_ways_mm / 1e6 * current_a


@formula(
    title="current the other strings can drive backwards",
    symbol="I_r",
    expression="I_r = 1.25 · (n − 1) · I_sc",
    unit="A",
    source=Source("IEC 62548-1 (2023) 6.3: fuses where it is over the panel's rating; NEC 690.9(A) (2023)"),
)
def reverse_current(
    strings: Annotated[Number, Arg("n", "", "strings joined", 1, 40)],
    isc_a: Annotated[Number, Arg("I_sc", "A", "short-circuit current of one", 0)],
) -> Number:
    return 1.25 * (strings - 1) * isc_a


@formula(
    title="thermal voltage of a panel",
    symbol="a",
    expression="a = m · N · k · (T + 273.15) / q",
    unit="V",
    source=Source(VILLALVA + ", eq. 3"),
)
def thermal_voltage(
    ideality: Annotated[Number, Arg("m", "", "ideality of the diode", 0.5, 2.5)],
    cells: Annotated[Number, Arg("N", "", "cells in series", 1, 400)],
    cell_c: Annotated[Number, Arg("T", "°C", "cells", -60, 120)],
) -> Number:
    return ideality * cells * BOLTZMANN_BY_CHARGE * (cell_c + KELVIN)


@formula(
    title="voltage of a single diode at a current",
    symbol="V",
    expression="V = (I_L + I_0 − I) · R_p − I · R_s − a · ω(ln(I_0 · R_p / a) + (I_L + I_0 − I) · R_p / a)",
    unit="V",
    source=Source(
        "Jain and Kapoor 2004, Solar Energy Materials and Solar Cells 81, eq. 3; Wright's ω(z) = W(e^z) "
        "bears exponents that overflow"
    ),
)
def diode_voltage(
    current_a: Annotated[Number, Arg("I", "A", "current")],
    photo_a: Annotated[Number, Arg("I_L", "A", "photo-current", 0)],
    dark_a: Annotated[Number, Arg("I_0", "A", "saturation current", 1e-300)],
    series_ohm: Annotated[Number, Arg("R_s", "Ω", "series resistance", 0)],
    shunt_ohm: Annotated[Number, Arg("R_p", "Ω", "shunt resistance", 1e-6)],
    thermal_v: Annotated[Number, Arg("a", "V", "thermal voltage", 1e-6)],
) -> Number:
    from scipy.special import wrightomega  # loaded late: a start need not wait for it

    left = (photo_a + dark_a - current_a) * shunt_ohm
    bent = wrightomega(np.log(dark_a * shunt_ohm / thermal_v) + left / thermal_v)
    return left - current_a * series_ohm - thermal_v * bent


@formula(
    title="saturation current that keeps to the sheet's coefficients",
    symbol="I_0",
    expression="I_0 = (I_sc + K_I · ΔT) / (exp((V_oc + K_V · ΔT) / a) − 1)",
    unit="A",
    source=Source(VILLALVA + ", eq. 7"),
)
def saturation_current(
    isc_a: Annotated[Number, Arg("I_sc", "A", "short-circuit current at that temperature", 0)],
    voc_v: Annotated[Number, Arg("V_oc", "V", "open-circuit voltage at that temperature", 0)],
    thermal_v: Annotated[Number, Arg("a", "V", "thermal voltage", 0)],
) -> Number:
    return isc_a / np.expm1(voc_v / thermal_v)
