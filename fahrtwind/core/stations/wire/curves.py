"""Curves of strings and of strings joined, with every bypass diode and every local maximum.

A string in series has a voltage for every current, strings joined have a current for every voltage; both are
held on common grids, for many moments of light at once.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.sun import cell_temperature
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.wiring import Controller
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.diode import Diode, group_volts
from fahrtwind.core.tables.mounting_gap import NOCT_DEG_C, gap_rise_k

FloatArray = npt.NDArray[np.float64]
STEPS, BACKWARDS, MANY = 240, 9, 100
CHARGING = 1.2
"""A full lead battery takes 14.4 V by each nominal 12 V: common practice."""
HUNDREDTH_BELOW = 0.999
"""A local maximum stands at least so little above the saddle beside it."""


@dataclass(frozen=True, slots=True, eq=False)
class LitPanel:
    """A panel in some moments: W/m² on its groups, shape (groups, n), and °C of its cells, shape (n,)."""

    diode: Diode
    light: FloatArray
    cell_c: FloatArray


@dataclass(frozen=True, slots=True)
class Window:
    """Between which voltages a controller takes power, V, and how much at most, W."""

    low_v: float
    high_v: float
    most_w: float
    switching: bool


def lit_panel(
    panel: PlacedPanel, diode: Diode, light: FloatArray, air_c: FloatArray, wind_m_s: float
) -> LitPanel:
    """A panel with the heat its light makes. A diode for fewer groups than the light has gets their mean; for
    one that has no bypass diodes all its groups count by the darkest.
    """
    mean = light.mean(axis=0)
    area_m2 = panel.model.length.mm * panel.model.width.mm / 1e6
    hot = cell_temperature(
        air_c,
        mean,
        panel.model.noct.deg_c if panel.model.noct else NOCT_DEG_C,
        gap_rise_k(panel.stand_off.mm),
        min(panel.model.power.w / (area_m2 * 1000), 0.5),
        wind_m_s,
    )
    return LitPanel(diode, light, np.asarray(hot))


def window_of(controller: Controller) -> Window:
    """Where a controller works; what its sheet does not limit is not limited here, and is asked for."""
    full = CHARGING * controller.battery
    power = controller.max_power.w if controller.max_power else np.inf
    if controller.charge_current and controller.kind == "best voltage":
        power = min(power, controller.charge_current.a * full)
    high = controller.max_voltage.v if controller.max_voltage else np.inf
    if controller.kind == "switching":
        return Window(full, full, power, True)
    return Window(full + controller.run_over.v, high, power, False)


def current_grid(panels: Sequence[LitPanel], steps: int = STEPS) -> FloatArray:
    """Currents from far backwards to past the brightest panel's short circuit, in the unit A."""
    brightest = max(
        (p.diode.photo_a * 1.1 * max(float(p.light.max(initial=0.0)), 50.0) / 1000 for p in panels),
        default=1.0,
    )
    together = sum(p.diode.photo_a for p in panels) * 1.6
    back = -together * np.geomspace(1.0, 0.002, BACKWARDS)
    return np.concatenate([back, np.linspace(0.0, brightest, steps)])


def panel_volts(panel: LitPanel, currents: FloatArray) -> FloatArray:
    """Volts of a panel, shape (n, currents in A). Groups lit alike are worked once: of many moments those
    count as alike whose light differs by less than a hundredth and whose cells by less than 2 K.
    """
    moments = panel.light.shape[1]
    worst = panel.light if panel.diode.bypassed else panel.light.min(axis=0, keepdims=True)
    heat = np.broadcast_to(panel.cell_c, worst.shape)
    if moments > MANY:
        worst, heat = np.exp(np.round(np.log(np.maximum(worst, 1.0)) * 100) / 100), np.round(heat / 2) * 2
    each = np.stack([worst, heat], axis=-1)
    kinds, which = np.unique(each.reshape(-1, 2), axis=0, return_inverse=True)
    shape = (len(kinds), len(currents))
    volts = group_volts(
        panel.diode,
        np.broadcast_to(currents, shape),
        np.broadcast_to(kinds[:, :1], shape),
        np.broadcast_to(kinds[:, 1:], shape),
    )
    found: FloatArray = volts[which.ravel()].reshape(len(worst), moments, -1).sum(axis=0)
    share = panel.diode.groups / len(worst)
    return found * share


def string_amps(volts: FloatArray, currents: FloatArray, grid: FloatArray) -> FloatArray:
    """Amperes of a string at the volts of a grid, (n, grid), from its volts, (n, currents): SI units."""
    turned, amps = volts[:, ::-1], currents[::-1]
    return np.stack([np.interp(grid, own, amps) for own in turned])


def own_best(panel: LitPanel, currents: FloatArray) -> FloatArray:
    """What a panel alone would give at its best, W, shape (n,)."""
    return best_of(panel_volts(panel, currents), currents)


def best_of(volts: FloatArray, currents: FloatArray) -> FloatArray:
    """The most that curves give, W, shape (n,), from their volts, (n, currents), and amperes."""
    best: FloatArray = (volts * currents).max(axis=1)
    return np.maximum(best, 0.0)


def local_maxima(power: FloatArray) -> tuple[int, ...]:
    """Indices of the hills of one curve, higher than what lies beside them."""
    found = []
    for i in range(1, len(power) - 1):
        if power[i] <= 0 or power[i] < power[i - 1] or power[i] <= power[i + 1]:
            continue
        found.append(i)
    hills = []
    for i in found:
        saddle = min((power[min(i, j) : max(i, j) + 1].min() for j in found if j != i), default=0.0)
        if saddle < power[i] * HUNDREDTH_BELOW:
            hills.append(i)
    return tuple(hills)
