"""A small catalogue of invented panels to start from. No maker's values: measure the delivered panel."""

from fahrtwind.core.job.panel import PanelModel

SOURCE = "Invented models of usual size; replace them by the data sheet of the panel you have"

CATALOGUE: tuple[PanelModel, ...] = tuple(
    PanelModel.model_validate(
        {"name": name, "length": length, "width": width, "frame_height": frame, "mass": mass, "power": power}
    )
    for name, length, width, frame, mass, power in (
        ("Halde 410", "1722 mm", "1134 mm", "30 mm", "21.5 kg", "410 W"),
        ("Halde 320", "1640 mm", "992 mm", "35 mm", "18 kg", "320 W"),
        ("Kiesel 185", "1480 mm", "670 mm", "35 mm", "11.8 kg", "185 W"),
        ("Kiesel 175", "1480 mm", "668 mm", "35 mm", "11.5 kg", "175 W"),
        ("Schiefer 110", "1190 mm", "540 mm", "30 mm", "7.6 kg", "110 W"),
        ("Splitt 50", "670 mm", "540 mm", "25 mm", "3.9 kg", "50 W"),
    )
)
