"""Climates to start from: four invented sites. Replace them by figures of the place the vehicle really stands
at.

A row: share of the time the sun shines unclouded, air temperature by day in °C and Linke turbidity, January
to December.
"""

from __future__ import annotations

from fahrtwind.core.records import dataclass

SOURCE = "Invented sites of usual kinds of climate; no weather service's figures"


@dataclass(frozen=True, slots=True)
class Climate:
    name: str
    words: str
    latitude_deg: float
    longitude_deg: float
    altitude_m: float
    sunshine: tuple[float, ...]
    temperature_deg_c: tuple[float, ...]
    turbidity: tuple[float, ...]


CLIMATES: dict[str, Climate] = {
    c.name: c
    for c in (
        Climate(
            "Niederau",
            "inland, temperate",
            49.0,
            10.0,
            300.0,
            (0.22, 0.30, 0.38, 0.45, 0.47, 0.48, 0.51, 0.51, 0.45, 0.34, 0.23, 0.18),
            (2, 4, 8, 13, 18, 21, 24, 23, 18, 13, 7, 3),
            (2.7, 3.0, 3.4, 3.7, 3.9, 4.0, 4.0, 3.9, 3.6, 3.2, 2.9, 2.7),
        ),
        Climate(
            "Windkamm",
            "high, snow in winter",
            46.8,
            9.8,
            1500.0,
            (0.42, 0.46, 0.46, 0.45, 0.45, 0.47, 0.53, 0.53, 0.52, 0.50, 0.42, 0.39),
            (-2, -1, 3, 7, 12, 15, 18, 17, 13, 9, 3, -1),
            (2.0, 2.1, 2.4, 2.7, 2.9, 3.0, 3.0, 2.9, 2.6, 2.3, 2.1, 2.0),
        ),
        Climate(
            "Salzbucht",
            "coast, mild",
            43.5,
            -1.5,
            10.0,
            (0.35, 0.39, 0.45, 0.47, 0.50, 0.53, 0.55, 0.56, 0.54, 0.44, 0.37, 0.34),
            (12, 13, 15, 17, 20, 23, 25, 26, 24, 20, 15, 13),
            (2.9, 3.1, 3.5, 3.7, 3.9, 4.0, 4.0, 3.9, 3.7, 3.3, 3.0, 2.9),
        ),
        Climate(
            "Kargfeld",
            "south, dry and hot",
            37.2,
            -3.6,
            500.0,
            (0.57, 0.61, 0.62, 0.65, 0.70, 0.80, 0.86, 0.84, 0.74, 0.65, 0.58, 0.54),
            (13, 15, 18, 21, 26, 32, 36, 35, 30, 24, 17, 13),
            (2.7, 2.9, 3.3, 3.6, 3.9, 4.3, 4.6, 4.5, 4.0, 3.4, 2.9, 2.7),
        ),
    )
}
