"""A small catalogue of invented panels to start from. No maker's values: measure the delivered panel."""

from fahrtwind.core.job.panel import PanelModel

SOURCE = "Invented models of usual size; replace them by the data sheet of the panel you have"

_COLUMNS = ("name", "length", "width", "frame_height", "mass", "power", "voc", "vmp", "isc", "imp", "cells", "bypass_diodes")
_FRAMED = {"flange": "30 mm", "voc_per_k": -0.28, "isc_per_k": 0.05, "power_per_k": -0.36, "noct": "45 °C"}

CATALOGUE: tuple[PanelModel, ...] = (
    *(
        PanelModel.model_validate({**_FRAMED, **dict(zip(_COLUMNS, row, strict=True))})
        for row in (
            ("Halde 410", "1722 mm", "1134 mm", "30 mm", "21.5 kg", "410 W", "37.2 V", "31.0 V", "13.95 A", "13.23 A", 108, 3),
            ("Halde 320", "1640 mm", "992 mm", "35 mm", "18 kg", "320 W", "40.2 V", "33.5 V", "10.10 A", "9.55 A", 60, 3),
            ("Kiesel 185", "1480 mm", "670 mm", "35 mm", "11.8 kg", "185 W", "24.3 V", "20.2 V", "9.75 A", "9.16 A", 36, 2),
            ("Kiesel 175", "1480 mm", "668 mm", "35 mm", "11.5 kg", "175 W", "23.9 V", "19.8 V", "9.40 A", "8.84 A", 36, 2),
            ("Schiefer 110", "1190 mm", "540 mm", "30 mm", "7.6 kg", "110 W", "24.0 V", "20.0 V", "5.85 A", "5.50 A", 36, 2),
            ("Splitt 50", "670 mm", "540 mm", "25 mm", "3.9 kg", "50 W", "22.3 V", "18.4 V", "2.95 A", "2.72 A", 36, 1),
        )
    ),
    PanelModel.model_validate(
        {
            "name": "Flechte 120",
            "length": "1205 mm",
            "width": "545 mm",
            "frame_height": "3 mm",
            "mass": "2.4 kg",
            "power": "120 W",
            "build": "flexible",
            "voc": "24.1 V",
            "vmp": "20.1 V",
            "isc": "6.35 A",
            "imp": "5.97 A",
            "power_per_k": -0.38,
            "cells": 36,
            "bypass_diodes": 0,
        }
    ),
)
