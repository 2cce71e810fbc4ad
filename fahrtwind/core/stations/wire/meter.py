"""What the meter must say, and what it means when it says something else.

Light and heat are known as ranges, so every explanation foretells a spread of readings. What was read is as
likely under an explanation as that spread is dense there; with how often each thing happens that gives its
share. An explanation that foretells the same readings as a sound string cannot be told from it, and is said.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.job.wiring import MeterReading, SkyWord
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.band import Band
from fahrtwind.core.stations.wire.curves import LitPanel, current_grid, panel_volts, string_amps
from fahrtwind.core.stations.wire.diode import Diode
from fahrtwind.core.stations.wire.strings import Array, Plugged

FloatArray = npt.NDArray[np.float64]
SKIES: dict[SkyWord, tuple[float, float]] = {
    "clear": (0.85, 1.10),
    "haze": (0.50, 0.90),
    "cloud": (0.08, 0.45),
    "shade": (0.04, 0.20),
}
"""Share of a clear sky's light: judgement, wide on purpose."""
ANY_LIGHT = (150.0, 1000.0)
"""Where nobody said where the vehicle stands: a day's clear light."""
LIGHTS, HEATS, METER_STEPS = 12, 7, 120
FELT_K, ABOVE_AIR_K, BELOW_AIR_K = 6.0, 38.0, 5.0
"""How well a panel's warmth is known when it was measured; else up to so far above the air in full light."""
VOLTS_SHARE, VOLTS_OFF, AMPS_SHARE, AMPS_OFF = 0.015, 0.25, 0.03, 0.05
"""A hand meter and the sheet's own tolerance: common practice."""
UNEXPLAINED = 1e-4
"""Less dense than a spread over all that a meter shows: nothing here explains it."""
ALIKE, SURE = 0.05, 0.8
TELLS_APART = " The short current would tell them apart."
Meaning = Literal[
    "right", "reversed", "one panel missing", "one group dead", "joined wrongly", "no contact", "wrong range"
]
OFTEN: dict[Meaning, float] = {
    "right": 0.80,
    "reversed": 0.05,
    "one panel missing": 0.03,
    "one group dead": 0.02,
    "joined wrongly": 0.04,
    "no contact": 0.04,
    "wrong range": 0.02,
}
"""How often each is the case: judgement."""
NEXT: dict[Meaning, str] = {
    "right": "Note it and go on.",
    "reversed": "Swap the leads of the meter. Still minus: the connectors are swapped; do not plug in.",
    "one panel missing": "Measure each panel of the string by itself at its own leads.",
    "one group dead": "Look for shade on one third of a panel; then measure each panel by itself.",
    "joined wrongly": "Follow the leads: series goes plus to minus, parallel like to like.",
    "no contact": "Open and close each connector until it clicks; measure panel by panel.",
    "wrong range": "Set the meter to direct volts, the range above the cold voltage; measure again.",
}


@dataclass(frozen=True, slots=True)
class Meant:
    """One explanation and its share."""

    meaning: Meaning
    share: float
    words: str
    check: str


@dataclass(frozen=True, slots=True)
class MeterVerdict:
    """Bands a sound string stays in, V and A, W/m² and °C they rest on; what a reading means, likeliest
    first, empty while nothing was typed. ``explained``: whether anything here explains it. ``cannot``: what
    the meter does not tell.
    """

    reading: str
    name: str
    volts: Band
    amps: Band
    light: Band
    cell_c: Band
    meant: tuple[Meant, ...]
    explained: bool
    cannot: str


@dataclass(frozen=True, slots=True)
class Weather:
    """Between which light and heat of the cells the reading was taken, W/m² and °C."""

    light: tuple[float, float]
    cell_c: tuple[float, float]


def weather_of(reading: MeterReading, clear_w_m2: float | None, air_c: float | None) -> Weather:
    """``clear_w_m2``: clear light at that hour, ``air_c``: air of the month; None where the place is not
    known.
    """
    low, high = SKIES[reading.sky]
    if clear_w_m2 is None:
        light = (ANY_LIGHT[0] * low, ANY_LIGHT[1] * high)
    else:
        light = (max(clear_w_m2 * low, 1.0), max(clear_w_m2 * high, 2.0))
    if reading.panel is not None:
        return Weather(light, (reading.panel.deg_c - FELT_K, reading.panel.deg_c + FELT_K))
    mean = 15.0 if air_c is None else air_c
    spread = 15.0 if air_c is None else 6.0
    warm = mean + spread + ABOVE_AIR_K * min(light[1] / 1000, 1.0)
    return Weather(light, (mean - spread - BELOW_AIR_K, warm))


def string_verdict(reading: MeterReading, plugged: Plugged, weather: Weather) -> MeterVerdict:
    """What a string should show, and what a reading at its ends means."""
    spread = _Spread(weather, plugged.diodes)
    volts, amps = spread.series(plugged.diodes)
    told: dict[Meaning, tuple[FloatArray, FloatArray]] = {"right": (volts, amps), "reversed": (-volts, -amps)}
    if len(plugged.diodes) > 1:
        fewer = [_without(plugged.diodes, i) for i in range(len(plugged.diodes))]
        told["one panel missing"] = _together([spread.series(d) for d in fewer])
        told["joined wrongly"] = spread.parallel(plugged.diodes)
    told["one group dead"] = _together(
        [spread.dead_group(plugged.diodes, i) for i in range(len(plugged.diodes))]
    )
    return _judged(reading, plugged.name, told, weather)


def array_verdict(reading: MeterReading, array: Array, weather: Weather) -> MeterVerdict:
    """What a controller's strings show where they are joined."""
    spread = _Spread(weather, [d for s in array.strings for d in s.diodes])
    told: dict[Meaning, tuple[FloatArray, FloatArray]] = {}
    right = spread.joined([s.diodes for s in array.strings])
    told["right"], told["reversed"] = right, (-right[0], -right[1])
    if len(array.strings) > 1:
        fewer = [[s.diodes for s in array.strings if s is not one] for one in array.strings]
        told["one panel missing"] = _together([spread.joined(d) for d in fewer])
        told["joined wrongly"] = spread.series(tuple(d for s in array.strings for d in s.diodes))
    return _judged(reading, f"{array.controller.name}, joined", told, weather)


def _without(diodes: tuple[Diode, ...], i: int) -> tuple[Diode, ...]:
    return diodes[:i] + diodes[i + 1 :]


def _together(spreads: Sequence[tuple[FloatArray, FloatArray]]) -> tuple[FloatArray, FloatArray]:
    return np.concatenate([s[0] for s in spreads]), np.concatenate([s[1] for s in spreads])


class _Spread:
    """Readings at every light and heat of a weather, evenly over both; panels alike are worked once."""

    def __init__(self, weather: Weather, diodes: Sequence[Diode]) -> None:
        light = np.geomspace(*weather.light, LIGHTS)
        heat = np.linspace(*weather.cell_c, HEATS)
        self.light, self.heat = (a.ravel() for a in np.meshgrid(light, heat, indexing="ij"))
        lit = [LitPanel(d, np.tile(self.light, (d.groups, 1)), self.heat) for d in diodes]
        self.currents = current_grid(lit, METER_STEPS)
        self._volts = {p.diode: panel_volts(p, self.currents) for p in {p.diode: p for p in lit}.values()}

    def _in_series(self, diodes: tuple[Diode, ...]) -> FloatArray:
        found: FloatArray = np.sum([self._volts[d] for d in diodes], axis=0)
        return found

    def series(self, diodes: tuple[Diode, ...]) -> tuple[FloatArray, FloatArray]:
        """Open volts and short amperes of panels in series."""
        volts = self._in_series(diodes)
        at_zero = int(np.searchsorted(self.currents, 0.0))
        return volts[:, at_zero], string_amps(volts, self.currents, np.array([0.0]))[:, 0]

    def dead_group(self, diodes: tuple[Diode, ...], which: int) -> tuple[FloatArray, FloatArray]:
        """Volts and amperes while one group of one panel gives nothing."""
        volts, amps = self.series(diodes)
        own, _ = self.series((diodes[which],))
        return volts - own / diodes[which].groups, amps

    def joined(self, strings: Sequence[tuple[Diode, ...]]) -> tuple[FloatArray, FloatArray]:
        """Volts of strings joined where their currents add up to nothing, and amperes of all short."""
        if len(strings) == 1:
            return self.series(strings[0])
        volts = [self._in_series(own) for own in strings]
        at_zero = int(np.searchsorted(self.currents, 0.0))
        grid = np.linspace(0.0, float(max(v[:, at_zero].max() for v in volts)) * 1.02, 160)
        amps = np.sum([string_amps(v, self.currents, grid) for v in volts], axis=0)
        opens = np.array([np.interp(0.0, row[::-1], grid[::-1]) for row in amps])
        return opens, amps[:, 0]

    def parallel(self, diodes: tuple[Diode, ...]) -> tuple[FloatArray, FloatArray]:
        """Volts and amperes of panels meant to be in series, joined like to like instead."""
        return self.joined([(d,) for d in diodes])


def _judged(
    reading: MeterReading, name: str, told: dict[Meaning, tuple[FloatArray, FloatArray]], weather: Weather
) -> MeterVerdict:
    volts, amps = told["right"]
    meant, explained = _meant(reading, told)
    return MeterVerdict(
        reading.id,
        name,
        _band(volts),
        _band(amps),
        Band(*weather.light),
        Band(*weather.cell_c),
        meant,
        explained,
        _cannot(told) + (TELLS_APART if meant and meant[0].share < SURE and reading.amps is None else ""),
    )


def _band(values: FloatArray) -> Band:
    low, high = np.quantile(values, [0.03, 0.97])
    return Band(float(low), float(high))


def _meant(
    reading: MeterReading, told: dict[Meaning, tuple[FloatArray, FloatArray]]
) -> tuple[tuple[Meant, ...], bool]:
    if reading.volts is None and reading.amps is None:
        return (), True
    dense: dict[Meaning, float] = {m: _density(reading, *spread) for m, spread in told.items()}
    full = float(np.median(told["right"][0]))
    dense |= _without_a_spread(reading, full)
    weights = {m: OFTEN[m] * d for m, d in dense.items()}
    total = sum(weights.values())
    explained = max(dense.values()) > UNEXPLAINED
    if not total:  # so far off that no spread reaches it at all
        return (Meant("wrong range", 1.0, _words("wrong range", reading), NEXT["wrong range"]),), False
    ranked = sorted(weights.items(), key=lambda w: -w[1])
    shares = [(m, w / total if total else 0.0) for m, w in ranked]
    return tuple(Meant(m, s, _words(m, reading), NEXT[m]) for m, s in shares if s >= 0.01), explained


def _density(reading: MeterReading, volts: FloatArray, amps: FloatArray) -> float:
    """Mean over the spread of how likely the meter shows this, per volt and ampere."""
    likely = np.ones(len(volts))
    if reading.volts is not None:
        likely = likely * _bell(reading.volts.v, volts, VOLTS_SHARE * np.abs(volts) + VOLTS_OFF)
    if reading.amps is not None:
        likely = likely * _bell(reading.amps.a, amps, AMPS_SHARE * np.abs(amps) + AMPS_OFF)
    return float(likely.mean())


def _bell(read: float, mean: FloatArray, sigma: FloatArray) -> FloatArray:
    found: FloatArray = np.exp(-0.5 * ((read - mean) / sigma) ** 2) / (sigma * np.sqrt(2 * np.pi))
    return found


def _without_a_spread(reading: MeterReading, full_v: float) -> dict[Meaning, float]:
    """Nothing at all, and what an alternating or too small range makes of it."""
    told: dict[Meaning, float] = {}
    volts = reading.volts.v if reading.volts is not None else None
    amps = reading.amps.a if reading.amps is not None else None
    nothing = np.array([0.0])
    if volts is not None:
        still = float(_bell(volts, nothing, np.array([0.5]))[0])
        told["no contact"] = still if amps is None or abs(amps) < AMPS_OFF * 2 else 0.0
        doubled = float(_bell(volts, np.array([2.2 * full_v]), np.array([0.05 * full_v + 0.25]))[0])
        thousandth = float(_bell(volts, np.array([full_v / 1000]), np.array([0.01 * full_v / 10 + 0.01]))[0])
        told["wrong range"] = max(doubled, thousandth * 0.1, 0.0)
    elif amps is not None:
        told["no contact"] = float(_bell(amps, nothing, np.array([AMPS_OFF]))[0])
    return told


def _words(meaning: Meaning, reading: MeterReading) -> str:
    volts = "" if reading.volts is None else f"{reading.volts.v:.1f} V "
    return {
        "right": f"{volts}is what it should say",
        "reversed": "plus and minus are swapped",
        "one panel missing": "one panel or string is not in the circuit",
        "one group dead": "a third or half of one panel gives nothing",
        "joined wrongly": "series and parallel are mixed up",
        "no contact": "an open connector, or a fuse of the meter",
        "wrong range": "the meter stands on alternating or another range",
    }[meaning]


def _cannot(told: dict[Meaning, tuple[FloatArray, FloatArray]]) -> str:
    """What readings of a sound string cover as well."""
    sound = _band(told["right"][0])
    hidden = []
    for meaning, (volts, _) in told.items():
        inside = float(((volts >= sound.low) & (volts <= sound.high)).mean())
        if meaning != "right" and inside > ALIKE:
            hidden.append(meaning)
    said = "Volts alone do not tell a half-shaded panel from a sound one: open, it looks healthy."
    if hidden:
        said += f" In this light they do not rule out: {', '.join(hidden)}."
    return said
