"""Wire rope of stainless steel, 7 × 7."""

ROPE_STRENGTH_N_MM2 = 1570.0
MIN_FORCE_FACTOR = 0.359
METAL_SHARE = 0.467
"""Metal in the circle about the rope, of its diameter squared: 4.2 mm² at 3 mm."""
ROPE_MODULUS_N_MM2 = 70_000.0
ENDS_KEEP = {"swaged": 0.9, "grips": 0.8}
SOURCE = "EN 12385-4, 7 × 7, grade 1570; ends EN 13411-3 (swaged), EN 13411-5 (grips); from memory"
STRAP_N = 3000.0
"""A woven strap of 25 mm that nobody rates: judgement, low end."""
