"""Elasticity and density of roof skins."""

from fahrtwind.core.records import dataclass


@dataclass(frozen=True, slots=True)
class Elasticity:
    modulus_n_mm2: float
    poisson: float
    density_kg_m3: float
    source: str


SKIN_ELASTICITY = {
    "steel": Elasticity(205_000, 0.3, 7850, "E 205–210 GPa, ν 0.3 (EN 1993-1-1, 3.2.6), low end"),
    "aluminium": Elasticity(69_000, 0.33, 2700, "E 69–70 GPa, ν 0.33 (EN 1999-1-1, 3.2.5: 70 GPa), low end"),
    "fibreglass": Elasticity(6_000, 0.3, 1500, "Chopped-strand laminate E 6–9 GPa: judgement, low end"),
    "membrane": Elasticity(
        4_000, 0.2, 500, "Softwood plywood across the face grain E about 4 GPa: judgement, low end"
    ),
}
