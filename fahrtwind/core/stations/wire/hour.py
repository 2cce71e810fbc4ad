"""Curves of one moment: every string, all of them joined, where the controller works, what is bypassed."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.band import Band
from fahrtwind.core.stations.wire.curves import (
    LitPanel,
    current_grid,
    local_maxima,
    own_best,
    panel_volts,
    string_amps,
    window_of,
)
from fahrtwind.core.stations.wire.diode import DIODE_V
from fahrtwind.core.stations.wire.strings import Array, Plugged

FloatArray = npt.NDArray[np.float64]
POINTS = 140
BACKWARDS_A = 0.05


@dataclass(frozen=True, slots=True)
class Curve:
    """Current over voltage; ``bypassed``: groups that are passed by at the working point; ``backwards_a``:
    what is driven through it there, ``open_backwards_a``: while the controller takes nothing.
    """

    string: str
    name: str
    volts: tuple[float, ...]
    amps: tuple[float, ...]
    at_a: float
    bypassed: tuple[str, ...]
    backwards_a: float
    open_backwards_a: float


@dataclass(frozen=True, slots=True)
class Hill:
    """A local maximum."""

    volts: float
    watts: float


@dataclass(frozen=True, slots=True)
class ArrayCurve:
    """All strings of a controller together: ``at_v``, ``at_w`` where it works, ``maxima`` all hills, V and W;
    ``alone_w``: what its panels would give each by itself; ``low_v`` to ``high_v``: where the controller
    takes power, None without a limit above.
    """

    controller: str
    name: str
    words: str
    strings: tuple[Curve, ...]
    volts: tuple[float, ...]
    amps: tuple[float, ...]
    watts: tuple[float, ...]
    at_v: float
    at_w: float
    maxima: tuple[Hill, ...]
    alone_w: float
    lost_percent: float
    low_v: float
    high_v: float | None
    light: Band
    cell_c: Band


def array_curve(array: Array, lit: dict[str, LitPanel]) -> ArrayCurve | None:
    """The curves of a controller in one moment; ``lit``: its panels by id, each with one moment. None without
    strings.
    """
    if not array.strings:
        return None
    panels = [lit[p.id] for s in array.strings for p in s.panels]
    currents = current_grid(panels)
    volts = {s.string.id: _volts(s, lit, currents) for s in array.strings}
    highest = max(float(v[int(np.searchsorted(currents, 0.0))]) for v in volts.values())
    window = window_of(array.controller)
    grid = np.unique(np.append(np.linspace(0.0, max(highest, window.low_v) * 1.02, POINTS), window.low_v))
    amps = {key: string_amps(v[None, :], currents, grid)[0] for key, v in volts.items()}
    joined = np.sum(list(amps.values()), axis=0)
    at = _works_at(joined, grid, array)
    opened = float(np.interp(0.0, joined[::-1], grid[::-1]))
    power = np.maximum(joined * grid, 0.0)
    alone = sum(float(own_best(p, currents)[0]) for p in panels)
    taken = min(float(power[at]), window.most_w)
    lights = [float(x) for p in panels for x in p.light[:, 0]]
    heats = [float(p.cell_c[0]) for p in panels]
    return ArrayCurve(
        array.controller.id,
        array.controller.name,
        array.words,
        tuple(_curve(s, lit, currents, grid, (amps[s.string.id], at, opened)) for s in array.strings),
        _shown(grid),
        _shown(np.maximum(joined, 0.0)),
        _shown(power),
        float(grid[at]),
        taken,
        tuple(Hill(float(grid[i]), float(power[i])) for i in local_maxima(power)),
        alone,
        max((1 - taken / alone) * 100, 0.0) if alone > 0 else 0.0,
        window.low_v,
        None if np.isinf(window.high_v) else window.high_v,
        Band(min(lights), max(lights)),
        Band(min(heats), max(heats)),
    )


def _volts(plugged: Plugged, lit: dict[str, LitPanel], currents: FloatArray) -> FloatArray:
    found: FloatArray = np.sum([panel_volts(lit[p.id], currents)[0] for p in plugged.panels], axis=0)
    return found


def _works_at(joined: FloatArray, grid: FloatArray, array: Array) -> int:
    window = window_of(array.controller)
    if window.switching:
        return int(np.searchsorted(grid, window.low_v))
    allowed = (grid >= window.low_v) & (grid <= window.high_v)
    return int(np.argmax(np.where(allowed, joined * grid, -1.0)))


def _curve(
    plugged: Plugged,
    lit: dict[str, LitPanel],
    currents: FloatArray,
    grid: FloatArray,
    at: tuple[FloatArray, int, float],
) -> Curve:
    amps, place, opened = at
    works, still = float(amps[place]), float(np.interp(opened, grid, amps))
    bypassed = []
    for panel in plugged.panels:
        one = lit[panel.id]
        for group in range(len(one.light) if one.diode.bypassed else 0):
            alone = LitPanel(one.diode, one.light[group : group + 1], one.cell_c)
            own = float(np.interp(works, currents, panel_volts(alone, currents)[0])) / one.diode.groups
            if own <= -DIODE_V * 0.99:
                bypassed.append(f"{panel.name}, group {group + 1}")
    return Curve(
        plugged.string.id,
        plugged.name,
        _shown(grid),
        _shown(np.maximum(amps, -1.0)),
        works,
        tuple(bypassed),
        max(-works, 0.0) if works < -BACKWARDS_A else 0.0,
        max(-still, 0.0) if still < -BACKWARDS_A else 0.0,
    )


def _shown(values: FloatArray) -> tuple[float, ...]:
    return tuple(round(float(v), 3) for v in values)
