"""Strengths of skins, members and brackets. Low values are taken where makers vary."""

from fahrtwind.core.records import dataclass
from fahrtwind.core.tables.confidence import Confidence


@dataclass(frozen=True, slots=True)
class Metal:
    """Least strengths in N/mm² and the AISI-style safety factor used with them."""

    ultimate_n_mm2: float
    yield_n_mm2: float
    screw_factor: float
    knock_down: float
    source: str
    confidence: Confidence


METALS = {
    "steel": Metal(
        270,
        140,
        3.0,
        1.0,
        "Deep-drawing steel DC01, EN 10130: R_m 270 N/mm² at least; Ω = 3.0 AISI S100 J4",
        "published",
    ),
    "aluminium": Metal(
        160,
        110,
        3.0,
        0.7,
        "EN AW-5754 H111, EN 485-2: R_m at least 190, taken as 160; screw formulas are for steel, "
        "so 0.7 on top: judgement",
        "judgement",
    ),
}
BRACKET_METALS = {
    "aluminium": Metal(215, 170, 1.95, 1.0, "EN AW-6063 T6, EN 755-2, from memory", "published"),
    "stainless": Metal(
        520, 220, 1.95, 1.0, "1.4301, EN 10088-2: R_m 520, R_p0.2 220 N/mm², from memory", "published"
    ),
}
FRAME_METAL = Metal(
    175,
    130,
    3.0,
    1.0,
    "EN AW-6063 T5, EN 1999-1-1:2007 Table 3.2b, where the sheet names no alloy: judgement, low end",
    "judgement",
)


@dataclass(frozen=True, slots=True)
class Laminate:
    """A skin that is not metal: strengths across the thickness, in a hole and in bending, N/mm²; factor."""

    punching_n_mm2: float
    bearing_n_mm2: float
    bending_n_mm2: float
    factor: float
    source: str


LAMINATES = {
    "fibreglass": Laminate(
        20.0,
        60.0,
        152.0,
        3.0,
        "Chopped-strand laminate: bending ISO 12215-5 Annex C at 30 % glass, from memory; punching: "
        "judgement, cautious end",
    ),
    "membrane": Laminate(
        1.3, 7.0, 20.0, 3.0, "Softwood plywood across the thickness and in bending: judgement, cautious end"
    ),
}


@dataclass(frozen=True, slots=True)
class Wood:
    gravity: float
    density_k_kg_m3: float
    source: str


MEMBER_WOOD = Wood(
    0.36, 290, "Lowest common softwood in NDS 2018 Table 12.3.3A (G = 0.36); C14 density in EN 338: 290 kg/m³"
)
PLY_WOOD = Wood(0.36, 290, "Plywood counted as the lightest softwood: judgement")
WOOD_DURATION, WOOD_WET = 1.25, 0.7
WOOD_FACTORS_SOURCE = (
    "NDS 2018: load duration 1.25 (the slipstream acts for hours, not 1.6 as a gust of wind), wet service 0.7"
)
WOOD_LATERAL_FACTOR = 2.0  # γ_M / k_mod = 1.3 / 0.9 = 1.44 in EN 1995; 2.0 is on the safe side
