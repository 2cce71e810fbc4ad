"""Sheet gauges. Steel by the uncoated standard gauge table, aluminium by its published formula."""

from fahrtwind.core.errors import UnreadableQuantity

SOURCE = "Manufacturers' standard gauge for uncoated sheet steel; aluminium: American wire gauge, ASTM B258"

STEEL_MM = {
    10: 3.416,
    11: 3.038,
    12: 2.656,
    13: 2.278,
    14: 1.897,
    15: 1.709,
    16: 1.519,
    17: 1.367,
    18: 1.214,
    19: 1.062,
    20: 0.912,
    21: 0.836,
    22: 0.759,
    23: 0.683,
    24: 0.607,
    25: 0.531,
    26: 0.455,
    28: 0.378,
}
ALUMINIUM_WORDS = ("al", "alu", "aluminium", "aluminum")


def steel_gauge_mm(gauge: int) -> float:
    """Thickness of uncoated steel sheet in mm. Raises UnreadableQuantity for one not in the table.

    >>> steel_gauge_mm(16)
    1.519
    """
    if gauge not in STEEL_MM:
        raise UnreadableQuantity(
            f"{gauge} ga is not in the steel gauge table (10 to 28).",
            remedy="Measure the sheet and type it in mm.",
        )
    return STEEL_MM[gauge]


def aluminium_gauge_mm(gauge: int) -> float:
    """Thickness of aluminium sheet in mm: 0.127 · 92^((36 − n)/39).

    Raises UnreadableQuantity outside 0 to 36.

    >>> round(aluminium_gauge_mm(16), 3)
    1.291
    """
    if not 0 <= gauge <= 36:
        raise UnreadableQuantity(
            f"{gauge} ga is not an aluminium gauge (0 to 36).", remedy="Measure the sheet and type it in mm."
        )
    return float(0.127 * 92 ** ((36 - gauge) / 39))
