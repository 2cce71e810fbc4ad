"""Metals that carriers are made of. Thin walls."""

from typing import Literal

from fahrtwind.core.records import dataclass

AlloyName = Literal["6060-T66", "6063-T5", "6063-T6", "6082-T6", "1.4301", "S235"]


@dataclass(frozen=True, slots=True)
class Alloy:
    """Yield (0.2 %) and tensile strength, modulus in N/mm², density in kg/m³; partial factors of members;
    yield within 25 mm of a weld, tensile strength of a weld between two of it with the weaker of the usual
    fillers, and how the two go together.
    """

    yield_n_mm2: float
    ultimate_n_mm2: float
    modulus_n_mm2: float
    density_kg_m3: float
    member_factor: float
    beside_weld_n_mm2: float
    weld_n_mm2: float
    correlation: float
    source: str


EN_1999 = "EN 1999-1-1:2007, Tables 3.2b, t ≤ 3 mm, and 8.8, filler 4043A; γ_M1 1.10 (6.1.3), from memory"
ALLOYS: dict[AlloyName, Alloy] = {
    "6060-T66": Alloy(160, 215, 70_000, 2700, 1.1, 65, 150, 1.0, EN_1999),
    "6063-T5": Alloy(130, 175, 70_000, 2700, 1.1, 60, 150, 1.0, EN_1999),
    "6063-T6": Alloy(160, 195, 70_000, 2700, 1.1, 65, 150, 1.0, EN_1999),
    "6082-T6": Alloy(250, 290, 70_000, 2700, 1.1, 125, 190, 1.0, EN_1999),
    "1.4301": Alloy(
        210, 520, 200_000, 7900, 1.1, 210, 520, 1.0, "EN 10088-2; γ_M1 1.1 (EN 1993-1-4), from memory"
    ),
    "S235": Alloy(
        235,
        360,
        210_000,
        7850,
        1.0,
        235,
        360,
        0.8,
        "EN 10025-2; γ_M1 1.0 (EN 1993-1-1); β_w EN 1993-1-8, Table 4.1",
    ),
}
