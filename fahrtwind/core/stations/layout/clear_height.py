"""How much air is under a flat panel over a crowned roof: the plane through its feet against the roof
below.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof_shape import clear_height, panel_sag
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.survey.crown import CrownSurface

FloatArray = npt.NDArray[np.float64]
STEPS = 9
LEAST_FEET = 3
LEAST_AIR_MM = 8.0
"""Air to be left between panel and crown: common practice, no source."""


@dataclass(frozen=True, slots=True)
class ClearHeight:
    """The narrowest spot under a panel, and how far its feet stand off one plane: shims of that height are
    needed.
    """

    panel: str
    least_mm: float
    at_x_mm: float
    at_y_mm: float
    feet_off_plane_mm: float


def clear_height_of(
    panel: PlacedPanel, feet: tuple[FootPlace, ...], crown: CrownSurface
) -> ClearHeight | None:
    """The clear height of a panel; None with fewer than three feet or with all of them in one line."""
    if len(feet) < LEAST_FEET:
        return None
    design = np.array([[1.0, f.x_mm, f.y_mm] for f in feet])
    if np.linalg.matrix_rank(design - design.mean(axis=0)) < 2:
        return None
    under_feet = crown.rows(design[:, 1], design[:, 2])
    share = np.linalg.pinv(design)  # how the plane through the feet follows each of them
    rect = panel_rect(panel)
    x, y = (
        g.ravel()
        for g in np.meshgrid(
            np.linspace(rect.x_mm, rect.x_end_mm, STEPS),
            np.linspace(rect.y_mm, rect.y_end_mm, STEPS),
            indexing="ij",
        )
    )
    # plane less roof without the stand-off: what feet and spot share does not count for the uncertainty
    rows = np.stack([np.ones(len(x)), x, y], axis=1) @ share @ under_feet - crown.rows(x, y)
    gaps, sigmas = rows @ crown.mean, np.sqrt(np.maximum(((rows @ crown.covariance) * rows).sum(axis=1), 0.0))
    narrow = int(np.argmin(gaps - 1.96 * sigmas))
    at_x, at_y, gap, sigma = (float(values[narrow]) for values in (x, y, gaps, sigmas))
    roof = crown.height(at_x, at_y)[0]
    span = min(np.ptp([f.x_mm for f in feet]), np.ptp([f.y_mm for f in feet]))
    with scope("clear height", panel.id):
        sag = panel_sag(given(float(span), "computed", "between the feet"))
        least = clear_height(
            given(roof + gap + panel.stand_off.mm, "computed", "plane through the feet"),
            given(roof, "inferred", "crown"),
            given(sigma, "inferred", "crown, between the feet and there"),
            sag,
        )
    tops = under_feet @ crown.mean
    return ClearHeight(panel.id, float(least), at_x, at_y, float(np.abs(design @ share @ tops - tops).max()))
