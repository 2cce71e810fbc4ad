"""How much hotter cells run over a narrow air gap: a rise of the nominal operating cell temperature."""

GAP_SOURCE = (
    "SAM Photovoltaic Model Technical Reference Update, NREL/TP-6A20-67399 (2018), table of mounting standoff"
)
INCH_MM = 25.4
GAP_RISE: tuple[tuple[float, float], ...] = ((0.5, 18.0), (1.5, 11.0), (2.5, 6.0), (3.5, 2.0))
"""Gap below so many inches: rise in K; none above the last."""

NOCT_DEG_C = 45.0
POWER_PER_K = -0.45
"""Where the sheet is silent: usual for silicon panels, on the pessimistic side; common practice, no
source.
"""


def gap_rise_k(gap_mm: float) -> float:
    """The rise for an air gap, K.

    >>> gap_rise_k(5), gap_rise_k(40), gap_rise_k(120)
    (18.0, 6.0, 0.0)
    """
    return next((rise for below, rise in GAP_RISE if gap_mm < below * INCH_MM), 0.0)
