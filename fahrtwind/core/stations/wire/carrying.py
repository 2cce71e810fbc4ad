"""What a cable carries between panels and controller: on the hot roof, at terminals, what it loses."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import given
from fahrtwind.core.formulas.wiring import ambient_factor, design_current, voltage_drop, warm_resistance
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.saying import say_temperature
from fahrtwind.core.stations.wire.limit import Air, Limit, limit_of, string_imp, string_isc
from fahrtwind.core.stations.wire.runs import Harness
from fahrtwind.core.stations.wire.strings import Array, Plugged
from fahrtwind.core.tables.cables import CABLES, NEAR_ROOF_K, Cable, bundle_factor

NEC_FACTOR, IEC_FACTOR = 1.5625, 1.25
DROP_PERCENT = 3.0
"""More is lost in the cable than most would like: common practice, no source."""


def carried(array: Array, harness: Harness | None, wiring: Wiring, air: Air) -> list[Limit]:
    """Limits of the pair that carries most. The drop only where the way is known."""
    cable = CABLES[wiring.cable]
    joined = array.controller.joined == "roof"
    one = max(string_isc(s.diodes) for s in array.strings)
    together = sum(string_isc(s.diodes) for s in array.strings) if joined else one
    factor = NEC_FACTOR if air.code == "NEC" else IEC_FACTOR
    design = float(
        design_current(given(factor, "table", air.code), 1, given(together, "computed", "strings"))
    )
    conductors = 2 if joined else 2 * len(array.strings)
    around = air.warmest_c + (NEAR_ROOF_K if wiring.near_roof else 0.0)
    bears = _bears(cable, around, conductors)
    source = (
        f"{cable.source}; {say_temperature(around, air.units)} round it, {conductors} conductors together"
    )
    told = [
        limit_of(
            "ampacity",
            f"{wiring.cable} on the hot roof",
            # NEC lets the correction factors count against 1.25 alone: 690.8(B)(2)
            design / 1.25 if air.code == "NEC" else design,
            bears,
            "A",
            False,
            source,
            "wiring.cable",
        ),
        limit_of(
            "terminal",
            f"{wiring.cable} at terminals for 75 °C",
            design,
            cable.terminal_a,
            "A",
            False,
            "NEC 110.14(C) (2023), Table 310.16",
            "wiring.cable",
        ),
        limit_of(
            "connector",
            "through one connector",
            together,
            wiring.connector_a,
            "A",
            False,
            "the connector's maker",
            "wiring.connector_a",
        ),
    ]
    if harness is not None:
        told.append(_drop(array, harness, wiring))
    return told


def _bears(cable: Cable, around_c: float, conductors: int) -> float:
    kept = float(
        ambient_factor(
            given(cable.conductor_c, "table", cable.source),
            given(around_c, "computed", "hot air near the roof"),
            given(cable.air_c, "table", cable.source),
        )
    )
    return cable.ampacity_a * min(kept, 1.0) * bundle_factor(conductors)


def _drop(array: Array, harness: Harness, wiring: Wiring) -> Limit:
    """Of the worst string with the trunk it shares, at running current, as a share of running voltage."""
    worst = max(array.strings, key=lambda s: drop_volts(array, harness, wiring, s))
    volts = drop_volts(array, harness, wiring, worst)
    running = sum(d.vmp_v for d in worst.diodes)
    return limit_of(
        "drop",
        f"{volts:.2f} V lost there and back",
        volts / running * 100,
        DROP_PERCENT,
        "%",
        False,
        f"{CABLES[wiring.cable].source}; 3 %: common practice",
        "wiring.cable",
    )


def resistance(cable: Cable) -> float:
    """Ω/km of a conductor warm from load, 75 °C."""
    return float(
        warm_resistance(
            given(cable.ohm_per_km, "table", cable.source), 75.0, given(cable.ohm_at_c, "table", cable.source)
        )
    )


def drop_volts(array: Array, harness: Harness, wiring: Wiring, plugged: Plugged) -> float:
    """Volts lost between a string's panels and the controller at full power."""
    ohm = resistance(CABLES[wiring.cable])
    own = sum(r.length_mm for r in harness.runs if r.string == plugged.string.id)
    trunk = sum(r.length_mm for r in harness.runs if r.trunk)
    together = sum(string_imp(s.diodes) for s in array.strings)
    alone = voltage_drop(
        ohm, given(own, "computed", "runs"), given(string_imp(plugged.diodes), "chosen", "sheet")
    )
    shared = voltage_drop(ohm, given(trunk, "computed", "runs"), given(together, "computed", "strings"))
    return float(alone) + float(shared)
