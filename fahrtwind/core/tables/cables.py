"""Cables for solar panels: conductors by gauge and by mm², what they carry, what fuses there are.

American gauges: NEC (2023) Chapter 9 Table 8 (stranded copper, 75 °C) and Table 310.16 (75 and 90 °C columns
at 30 °C), 690.7(A), 310.15(C)(1), 310.15(B)(2), 240.4(D). Metric cables: IEC 60228 class 5 tinned (20 °C) and
EN 50618 (2014) Tables A.3 and A.4, two cables touching on a surface at 60 °C; group factors IEC 60364-5-52
Table B.52.17. The metric figures, the 75 °C column and 240.4(D) are written from memory.
"""

from __future__ import annotations

from typing import Literal, get_args

from fahrtwind.core.records import dataclass

CableName = Literal[
    "2.5 mm²", "4 mm²", "6 mm²", "10 mm²", "16 mm²", "14 AWG", "12 AWG", "10 AWG", "8 AWG", "6 AWG", "4 AWG"
]
OHM_PER_KFT = 3.280839895
"""Ω/km in one Ω per 1,000 ft."""


@dataclass(frozen=True, slots=True)
class Cable:
    """``ohm_per_km`` at ``ohm_at_c``; ``ampacity_a`` in air of ``air_c`` while the conductor reaches
    ``conductor_c``; ``terminal_a``: what terminals rated 75 °C let it carry; ``outer_mm``: usual diameter.
    """

    name: CableName
    area_mm2: float
    ohm_per_km: float
    ohm_at_c: float
    ampacity_a: float
    air_c: float
    conductor_c: float
    terminal_a: float
    outer_mm: float
    source: str


NEC = "NEC 2023, Chapter 9 Table 8 and Table 310.16"
EN = "EN 50618 (2014) Table A.3, from memory"


def _awg(name: CableName, area: float, ohm: float, carries: tuple[float, float], outer: float) -> Cable:
    return Cable(name, area, ohm * OHM_PER_KFT, 75.0, carries[0], 30.0, 90.0, carries[1], outer, NEC)


def _metric(name: CableName, area: float, ohm: float, carries: tuple[float, float], outer: float) -> Cable:
    return Cable(name, area, ohm, 20.0, carries[0], 60.0, 120.0, carries[1], outer, EN)


CABLES: dict[CableName, Cable] = {
    cable.name: cable
    for cable in (
        _metric("2.5 mm²", 2.5, 8.21, (33, 24), 5.0),
        _metric("4 mm²", 4.0, 5.09, (44, 32), 5.6),
        _metric("6 mm²", 6.0, 3.39, (57, 41), 6.2),
        _metric("10 mm²", 10.0, 1.95, (79, 57), 7.3),
        _metric("16 mm²", 16.0, 1.24, (107, 76), 8.6),
        _awg("14 AWG", 2.08, 3.14, (25, 20), 5.0),
        _awg("12 AWG", 3.31, 1.98, (30, 25), 5.6),
        _awg("10 AWG", 5.26, 1.24, (40, 35), 6.5),
        _awg("8 AWG", 8.37, 0.778, (55, 50), 7.8),
        _awg("6 AWG", 13.3, 0.491, (75, 65), 8.8),
        _awg("4 AWG", 21.15, 0.308, (95, 85), 10.0),
    )
}
CABLE_NAMES: tuple[CableName, ...] = get_args(CableName)
METRIC_NAMES = tuple(name for name in CABLE_NAMES if name.endswith("mm²"))

COLD_FACTORS: tuple[tuple[float, float], ...] = (
    (20, 1.02),
    (15, 1.04),
    (10, 1.06),
    (5, 1.08),
    (0, 1.10),
    (-5, 1.12),
    (-10, 1.14),
    (-15, 1.16),
    (-20, 1.18),
    (-25, 1.20),
    (-30, 1.21),
    (-35, 1.23),
    (-40, 1.25),
)
"""Least temperature of a row, °C, and by how much cold raises the voltage of silicon: NEC (2023) Table
690.7(A)."""
FUSES_A = (5.0, 8.0, 10.0, 12.0, 15.0, 20.0, 25.0, 30.0, 40.0, 50.0, 60.0)
"""Sizes fuses for panels are made in: IEC 60269-6, common practice."""
CONNECTOR_A = 30.0
"""A PV connector on 4 mm² or 6 mm²: common practice, no source; the maker's rating decides."""
NEAR_ROOF_MM, NEAR_ROOF_K = 23.0, 33.0
"""Nearer than 7/8 in to a sunlit roof the air round a cable counts as so much hotter: NEC 310.15(B)(2)."""


def cold_factor(coldest_c: float) -> float:
    """Factor of the table for silicon panels; the last row holds below it too, where the code asks for the
    sheet's coefficient.
    """
    return next((f for least, f in COLD_FACTORS if coldest_c >= least), 1.25) if coldest_c < 25 else 1.0


def bundle_factor(cables: int) -> float:
    """Share of its ampacity a cable keeps among so many that carry current: NEC 310.15(C)(1), which is the
    stricter table from four on.
    """
    for most, factor in ((3, 1.0), (6, 0.8), (9, 0.7), (20, 0.5), (30, 0.45), (40, 0.40)):
        if cables <= most:
            return factor
    return 0.35
