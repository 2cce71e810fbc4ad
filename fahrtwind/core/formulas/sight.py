"""What is seen of a roof from the street."""

from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula


@formula(
    title="distance from which a panel shows over the roof's edge",
    symbol="d",
    expression="d = i · (H − e) / h; not at all where the panel lies under the edge's level",
    unit="mm",
    source=Source("Similar triangles: the line from the eye over the edge of the roof"),
)
def seen_from(
    inset_mm: Annotated[Number, Arg("i", "mm", "from the edge of the roof to the panel", 0)],
    edge_mm: Annotated[Number, Arg("H", "mm", "height of the roof's edge over the ground", 0)],
    eye_mm: Annotated[Number, Arg("e", "mm", "height of the eye over the ground", 0)],
    rise_mm: Annotated[Number, Arg("h", "mm", "top of the panel over the edge's level")],
) -> Number:
    """Distance from the vehicle's side, mm; infinite where it is never seen, 0 for an eye over the roof."""
    with np.errstate(divide="ignore", invalid="ignore"):
        over = np.maximum(np.asarray(edge_mm, dtype=float) - eye_mm, 0.0)
        found = np.where(np.asarray(rise_mm) > 0, inset_mm * over / np.asarray(rise_mm, dtype=float), np.inf)
    return float(found) if np.ndim(found) == 0 else found
