"""What must not be exceeded from the panels to a controller: value beside limit, with its source."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.formulas.declare import given
from fahrtwind.core.formulas.sun import cell_temperature
from fahrtwind.core.formulas.wiring import open_voltage, reverse_current
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.wiring import Controller, Wiring
from fahrtwind.core.saying import say_temperature
from fahrtwind.core.stations.wire.band import Band
from fahrtwind.core.stations.wire.carrying import carried
from fahrtwind.core.stations.wire.curves import CHARGING
from fahrtwind.core.stations.wire.diode import POWER_PER_K, Diode
from fahrtwind.core.stations.wire.limit import Air, Limit, limit_of, string_isc
from fahrtwind.core.stations.wire.runs import Harness
from fahrtwind.core.stations.wire.strings import Array, Plugged
from fahrtwind.core.tables.cables import FUSES_A, cold_factor
from fahrtwind.core.tables.mounting_gap import NOCT_DEG_C, gap_rise_k

INPUT_FACTOR = {"NEC": 1.25, "IEC": 1.0}
FUSE_FACTOR = {"NEC": 1.5625, "IEC": 1.5}
NEC_690_8 = "NEC 690.8 (2023): 1.25 · 1.25"
IEC_62548 = "IEC 62548-1 (2023), from memory"
UNEQUAL_PERCENT = 10.0
"""Strings whose open voltages differ by more drag one another down: judgement; the curves tell."""
STEADY_WIND_M_S = 1.0
FULL_LIGHT = 1000.0


def cold_volts(diodes: tuple[Diode, ...], coldest_c: float) -> tuple[float, str]:
    """Open volts of panels in series in record cold: the sheet's coefficient or the table,
    whichever is higher; and which it was.
    """
    by_sheet = sum(
        float(
            open_voltage(
                1,
                given(d.voc_v, "chosen", "data sheet"),
                given(d.voc_per_k, "chosen", "data sheet"),
                given(min(coldest_c, 25.0), "chosen", "record low"),
            )
        )
        for d in diodes
    )
    by_table = sum(d.voc_v for d in diodes) * cold_factor(coldest_c)
    if by_table > by_sheet:
        return by_table, "NEC Table 690.7(A) (2023), higher than the sheet's coefficient"
    return by_sheet, "the sheet's coefficient, higher than NEC Table 690.7(A)"


def hot_cell_c(panel: PlacedPanel, warmest_c: float) -> float:
    """Cells in full light and hot air, hardly any wind, °C."""
    model = panel.model
    share = min(model.power.w / (model.length.mm * model.width.mm / 1e6 * FULL_LIGHT), 0.5)
    return float(
        cell_temperature(
            warmest_c,
            FULL_LIGHT,
            model.noct.deg_c if model.noct else NOCT_DEG_C,
            gap_rise_k(panel.stand_off.mm),
            share,
            STEADY_WIND_M_S,
        )
    )


def hot_volts(plugged: Plugged, warmest_c: float) -> float:
    """Volts at full power in hot sun: by the coefficient of power, which is the larger part of voltage."""
    told = 0.0
    for panel, diode in zip(plugged.panels, plugged.diodes, strict=True):
        per_k = POWER_PER_K if panel.model.power_per_k is None else panel.model.power_per_k
        told += float(open_voltage(1, diode.vmp_v, per_k, hot_cell_c(panel, warmest_c)))
    return told


def hot_open_volts(plugged: Plugged, warmest_c: float) -> float:
    """Open-circuit voltage of a string in hot sun."""
    return sum(
        float(open_voltage(1, d.voc_v, d.voc_per_k, hot_cell_c(p, warmest_c)))
        for p, d in zip(plugged.panels, plugged.diodes, strict=True)
    )


def limits_of(array: Array, harness: Harness | None, wiring: Wiring, air: Air) -> tuple[Limit, ...]:
    """All limits of one controller with strings on it."""
    if not array.strings:
        return ()
    told = [*_volts(array, air), *_currents(array, air), *_fuses(array, air.code)]
    told += carried(array, harness, wiring, air)
    return tuple(told)


def _volts(array: Array, air: Air) -> list[Limit]:
    c, place = array.controller, f"wiring.controllers.{array.controller.id}"
    cold = max((cold_volts(s.diodes, air.coldest_c) for s in array.strings), key=lambda told: told[0])
    hot = min(hot_volts(s, air.warmest_c) for s in array.strings)
    full = CHARGING * c.battery
    hot_air = say_temperature(air.warmest_c, air.units)
    need = full if c.kind == "switching" else full + c.run_over.v
    opens = [sum(d.voc_v for d in s.diodes) for s in array.strings]
    told = [
        limit_of(
            "cold voltage",
            f"open circuit at {say_temperature(air.coldest_c, air.units)}",
            cold[0],
            c.max_voltage.v if c.max_voltage else None,
            "V",
            False,
            cold[1],
            f"{place}.max_voltage",
        ),
        limit_of(
            "hot voltage",
            f"at full power in air of {hot_air}",
            hot,
            need,
            "V",
            True,
            f"{full:.1f} V of a full battery and what the controller needs above it",
            f"{place}.run_over",
        ),
    ]
    if c.kind != "switching":
        told.append(
            limit_of(
                "start",
                f"open in air of {hot_air}, to start again at noon",
                min(hot_open_volts(s, air.warmest_c) for s in array.strings),
                full + c.start_over.v,
                "V",
                True,
                f"{full:.1f} V of a full battery and what the controller needs above it",
                f"{place}.start_over",
            )
        )
    if len(opens) > 1:
        apart = (max(opens) / min(opens) - 1) * 100
        told.append(
            limit_of(
                "mismatch",
                "open voltages of its strings apart",
                apart,
                UNEQUAL_PERCENT,
                "%",
                False,
                "judgement; the curves tell what it costs",
                f"{place}.name",
            )
        )
    return told


def _currents(array: Array, air: Air) -> list[Limit]:
    c, place = array.controller, f"wiring.controllers.{array.controller.id}"
    together = sum(string_isc(s.diodes) for s in array.strings)
    power = sum(p.model.power.w for s in array.strings for p in s.panels)
    most = _most_power(c)
    return [
        limit_of(
            "current",
            "short circuit of all strings",
            together * INPUT_FACTOR[air.code],
            c.max_current.a if c.max_current else None,
            "A",
            False,
            "NEC 690.8(A) (2023), 1.25 · I_sc" if air.code == "NEC" else "the controller's sheet",
            f"{place}.max_current",
        ),
        limit_of(
            "power",
            "rated power on it",
            power,
            most,
            "W",
            False,
            "the controller's sheet",
            f"{place}.max_power",
        ),
    ]


def _most_power(controller: Controller) -> float | None:
    known = [controller.max_power.w] if controller.max_power else []
    if controller.charge_current:
        known.append(controller.charge_current.a * CHARGING * controller.battery)
    return min(known, default=None)


def _fuses(array: Array, code: Literal["NEC", "IEC"]) -> list[Limit]:
    """What the other strings could drive through one of them, and whether a fuse that is put in is right."""
    c, count = array.controller, len(array.strings)
    worst = max(string_isc(s.diodes) for s in array.strings)
    ratings = [p.model.max_fuse.a for s in array.strings for p in s.panels if p.model.max_fuse]
    rated = min(ratings) if len(ratings) == sum(len(s.panels) for s in array.strings) else None
    place = f"wiring.controllers.{c.id}.fuse"
    back = float(
        reverse_current(given(float(count), "chosen", "strings"), given(worst, "chosen", "data sheet"))
    )
    if count < 2:
        return []
    told = [
        limit_of(
            "reverse",
            "driven backwards through one string",
            min(back, c.fuse.a) if c.fuse else back,
            rated,
            "A",
            False,
            "IEC 62548-1 (2023) 6.3, from memory; the panel's largest fuse",
            place,
        )
    ]
    if c.fuse:
        least = FUSE_FACTOR[code] * worst
        told.append(
            limit_of(
                "fuse",
                "fuse in each string",
                c.fuse.a,
                least,
                "A",
                True,
                NEC_690_8 if code == "NEC" else f"1.5 · I_sc, {IEC_62548}",
                place,
            )
        )
    return told


def fuse_for(array: Array, code: Literal["NEC", "IEC"]) -> Band | None:
    """Sizes from which to which a fuse in each string serves; None where none does."""
    worst = max(string_isc(s.diodes) for s in array.strings)
    rated = [p.model.max_fuse.a for s in array.strings for p in s.panels if p.model.max_fuse]
    fit = [f for f in FUSES_A if f >= FUSE_FACTOR[code] * worst and (not rated or f <= min(rated))]
    return Band(fit[0], fit[-1] if rated else fit[0]) if fit else None


def needs_fuse(array: Array) -> bool:
    """Three strings or more drive too much through one; where panels say what they bear, that decides."""
    back = next((lim for lim in _fuses(array, "IEC") if lim.key == "reverse"), None)
    if back is None or len(array.strings) < 2:
        return False
    worst = max(string_isc(s.diodes) for s in array.strings)
    loose = 1.25 * (len(array.strings) - 1) * worst
    return loose > back.limit if back.limit is not None else len(array.strings) >= 3
