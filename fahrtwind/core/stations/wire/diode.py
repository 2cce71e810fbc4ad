"""A panel's data sheet as a single diode: what fits the sheet's four figures, and what it gives in any light.

Of five unknowns the sheet fixes four: short circuit, open circuit, current and slope at the maximum. The
ideality of the diode is taken as near to 1.05 as a fit exists (the open module table of the CEC has 0.98 to
1.17). Where the sheet says how power falls with heat, what the other coefficients leave of that is put on the
current, as the CEC model's adjustment does; it is some hundredths of a per cent per kelvin. The open voltage
follows the sheet exactly in heat (Villalva 2009, eq. 7); light drives the photo-current and a shunt that
grows as it fades (De Soto 2006).
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np
import numpy.typing as npt

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.wiring import diode_voltage, saturation_current, thermal_voltage
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.records import dataclass, replace

FloatArray = npt.NDArray[np.float64]
USUAL = (1.05, 1.1, 1.0, 1.15, 0.95, 1.2, 0.9, 0.85, 0.8)
UNUSUAL = (1.25, 1.3, 0.7, 1.4, 0.6, 1.5)
FIT_WITHIN, NEARLY_WITHIN = 2e-4, 1.6e-2
"""Off the sheet at its maximum, as a share of the short circuit. A sharp corner that a usual diode nearly has
is better met so than by a diode that no silicon has: faint light would be told 6 % too bright.
"""
CELL_V, HALF_CELL_V = 0.66, 0.45
"""A silicon cell open; and less than that a cell means two halves side by side."""
VOC_PER_K, ISC_PER_K, POWER_PER_K = -0.35, 0.05, -0.40
"""Per cent per kelvin where the sheet is silent, on the safe side for cold voltage: common practice."""
DIODE_V = 0.5
"""A bypass diode conducting: common practice (Schottky 0.3 to 0.6 V)."""
POWER_WITHIN = 0.05
LEAST_LIGHT, WARM_C = 0.5, 60.0
LEAST_SIEMENS = 1e-9
GRID, FINER = 65, 8
"""Each grid is 32 times finer: in the end a millionth of a millionth of the widest resistance."""
LEAST_FILL, MOST_FILL = 0.5, 0.87


@dataclass(frozen=True, slots=True)
class Diode:
    """At 1000 W/m² and 25 °C; ``groups`` of cells, each with a bypass diode where ``bypassed``; ``assumed``:
    what the sheet left open.
    """

    voc_v: float
    vmp_v: float
    isc_a: float
    imp_a: float
    cells: int
    ideality: float
    series_ohm: float
    shunt_ohm: float
    photo_a: float
    voc_per_k: float
    isc_per_k: float
    groups: int
    bypassed: bool
    assumed: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class SheetGap:
    """What a sheet lacks and what for; or what in it does not add up."""

    field: str
    why: str
    remedy: str


def sheet_gaps(model: PanelModel) -> tuple[SheetGap, ...]:
    """Why no curve can be drawn of a model; empty where one can."""
    needed = {
        "voc": ("Open-circuit voltage", "the controller's limit in the cold"),
        "isc": ("Short-circuit current", "fuses and cable"),
        "vmp": ("Voltage at full power", "what the controller works at"),
        "imp": ("Current at full power", "voltage drop and curves"),
    }
    missing = [
        SheetGap(name, f"{words} is missing; it decides {use}.", "Type it from the data sheet.")
        for name, (words, use) in needed.items()
        if getattr(model, name) is None
    ]
    return tuple(missing) or _does_not_add_up(model)


def _does_not_add_up(model: PanelModel) -> tuple[SheetGap, ...]:
    assert model.voc and model.vmp and model.isc and model.imp
    voc, vmp, isc, imp = model.voc.v, model.vmp.v, model.isc.a, model.imp.a
    told = []
    if vmp >= voc:
        told.append(
            SheetGap("vmp", f"It runs at {vmp:g} V but is open at {voc:g} V.", "They may be swapped.")
        )
    if imp >= isc:
        told.append(
            SheetGap("imp", f"It runs at {imp:g} A but is short at {isc:g} A.", "They may be swapped.")
        )
    power = vmp * imp
    if not told and abs(power / model.power.w - 1) > POWER_WITHIN:
        told.append(
            SheetGap(
                "vmp",
                f"{vmp:g} V · {imp:g} A is {power:.0f} W, the sheet says {model.power.w:g} W.",
                "Look at the sheet again.",
            )
        )
    fill = power / (voc * isc)
    if not told and not LEAST_FILL <= fill <= MOST_FILL:
        told.append(
            SheetGap(
                "voc",
                f"The corner of its curve would fill {fill:.0%}; panels fill 50 to 87 %.",
                "Look at the sheet again.",
            )
        )
    return tuple(told)


def diode_of(model: PanelModel) -> Diode:
    """The diode that fits a sheet. Raises InputError where a value is missing or no diode fits."""
    gaps = sheet_gaps(model)
    if gaps:
        raise InputError(
            f"{model.name}: {gaps[0].why}", remedy=gaps[0].remedy, field=f"model.{gaps[0].field}"
        )
    assert model.voc and model.vmp and model.isc and model.imp
    assumed = [
        words
        for words, value in (
            ("coefficient of voltage", model.voc_per_k),
            ("coefficient of current", model.isc_per_k),
            ("cells", model.cells),
            ("bypass diodes", model.bypass_diodes),
        )
        if value is None
    ]
    voc = model.voc.v
    cells = model.cells or max(round(voc / CELL_V), 1)
    if voc / cells < HALF_CELL_V and cells > 1:
        cells = max(round(cells / 2), 1)
    figures = (voc, model.vmp.v, model.isc.a, model.imp.a)
    heat = (_or(model.voc_per_k, VOC_PER_K), _or(model.isc_per_k, ISC_PER_K))
    fit = _fit(figures, cells)
    if fit is None:
        raise InputError(
            f"{model.name}: no panel has a curve through these four values.",
            remedy="Look at voltages and currents of the sheet again.",
            field="model.voc",
        )
    diode = Diode(
        *figures,
        cells,
        *fit,
        *heat,
        max(model.bypass_diodes or 1, 1),
        bool(model.bypass_diodes),
        tuple(assumed),
    )
    return _adjusted(diode, model.power_per_k)


def _or(value: float | None, usual: float) -> float:
    return usual if value is None else value


Figures = tuple[float, float, float, float]
"""Open volts, running volts, short amps, running amps."""
Fit = tuple[float, float, float, float]
"""Ideality, series and shunt resistance, photo-current."""


@lru_cache(maxsize=256)
def _fit(figures: Figures, cells: int) -> Fit | None:
    """None where no diode has such a curve."""
    for within in (FIT_WITHIN, NEARLY_WITHIN):
        near = (_fit_with(figures, cells, ideality, within) for ideality in USUAL)
        if (fit := next((f for f in near if f is not None), None)) is not None:
            return fit
    far = (_fit_with(figures, cells, ideality, FIT_WITHIN) for ideality in UNUSUAL)
    return next((fit for fit in far if fit is not None), None)


def _fit_with(figures: Figures, cells: int, ideality: float, within: float) -> Fit | None:
    """The series resistance that meets the sheet's slope at its maximum, found on ever finer grids: the shunt
    follows from the current there, as far as there is such a one, else it is the nearest that there is.
    """
    voc, vmp, isc, imp = figures
    a = float(thermal_voltage(ideality, cells, 25.0))
    most = (voc - vmp) / imp
    low, high = 0.0, most
    for _ in range(FINER):
        series = np.linspace(low, high, GRID)
        shunt, off = _off_the_sheet(series, a, figures)
        best = int(off.argmin())
        step = series[1] - series[0]
        low, high = max(series[best] - step, 0.0), min(series[best] + step, most)
    if off[best] >= within:
        return None
    found, conductance = float(series[best]), float(shunt[best])
    return ideality, found, 1 / conductance, _currents(found, conductance, a, voc, isc)[0]


@lru_cache(maxsize=256)
def _adjusted(diode: Diode, power_per_k: float | None) -> Diode:
    """With the coefficient of current that makes power fall with heat as the sheet says."""
    if power_per_k is None:
        return diode
    currents = np.linspace(0.7, 1.0, 240) * diode.isc_a
    hot = np.full(240, WARM_C)
    volts = group_volts(replace(diode, groups=1), currents, np.full(240, 1000.0), hot)
    falls = (float((volts * currents).max()) / (diode.vmp_v * diode.imp_a) - 1) / (WARM_C - 25) * 100
    return replace(diode, isc_per_k=diode.isc_per_k + power_per_k - falls)


def _currents(series: float, shunt: float, a: float, voc: float, isc: float) -> tuple[float, float]:
    """Photo- and saturation current that meet open and short circuit."""
    at_short, at_open = np.expm1(isc * series / a), np.expm1(voc / a)
    dark = (isc * (1 + series * shunt) - voc * shunt) / (at_open - at_short)
    return float(dark * at_open + voc * shunt), float(dark)


def _off_the_sheet(series: FloatArray, a: float, sheet: Figures) -> tuple[FloatArray, FloatArray]:
    """For each series resistance, ohm, the conductance of the shunt, siemens, and how far the diode is off
    the sheet: the larger of its current and the slope of its power at the best voltage, as shares of the
    short circuit.

    With photo- and saturation current from open and short circuit the current at the best voltage is a
    straight line in the conductance, so its share is nothing wherever that conductance exists.
    """
    voc, vmp, isc, imp = sheet
    inner = vmp + imp * series
    at_short, at_open, at_best = np.expm1(isc * series / a), np.expm1(voc / a), np.expm1(inner / a)
    share = (at_open - at_best) / (at_open - at_short)
    line = share * (isc * series - voc) + voc - inner
    wanted = (imp - share * isc) / np.where(line == 0, -1e-12, line)
    shunt = np.clip(wanted, LEAST_SIEMENS, isc / voc)
    dark = (isc + shunt * (isc * series - voc)) / (at_open - at_short)
    current = dark * (at_open - at_best) + shunt * (voc - inner)
    slope = dark / a * (at_best + 1) + shunt
    of_power = imp - vmp * slope / (1 + slope * series)
    return shunt, np.maximum(np.abs(current - imp), np.abs(of_power)) / isc


def group_volts(diode: Diode, current: FloatArray, light: FloatArray, cell_c: FloatArray) -> FloatArray:
    """Volts of one group of cells at a current in A, light in W/m², cells in °C; arrays of one shape. Past
    what light drives, its bypass diode conducts, or without one it is driven far into reverse.
    """
    warm = cell_c - 25.0
    bright = np.maximum(light, LEAST_LIGHT) / 1000.0
    a = np.asarray(thermal_voltage(diode.ideality, diode.cells, cell_c))
    full = diode.photo_a * (1 + diode.isc_per_k / 100 * warm)
    open_v = diode.voc_v * (1 + diode.voc_per_k / 100 * warm)
    dark = np.asarray(saturation_current(full - open_v / diode.shunt_ohm, open_v, a))
    volts = np.asarray(
        diode_voltage(
            current,
            full * bright,
            dark,
            diode.series_ohm / diode.groups,
            diode.shunt_ohm / diode.groups / bright,
            a / diode.groups,
        )
    )
    return np.maximum(volts, -DIODE_V) if diode.bypassed else volts
