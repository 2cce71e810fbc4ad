"""What feet are assumed to be like where no maker's value is entered."""

STIFFNESS_MEMBER_N_MM = 2000.0
STIFFNESS_SOURCE = "Foot over a member: judgement"
MEMBRANE_FACTOR = 20.0
"""A skin that is pulled stiffens up to about so many times its bending stiffness (judgement)."""

TAPE_DESIGN_N_MM2 = 0.083
TAPE_FACTOR = 3.0
TAPE_FACTOR_SOURCE = "The guidance holds about 5 against failure; 3 is counted, on the safe side"
TAPE_SOURCE = "Makers' general guidance: 83 kPa dynamic, tension or shear"
TAPE_MODULUS_N_MM2 = 0.6
TAPE_RELAXED_N_MM2 = 0.1
"""Foam creeps: what is forced onto it for weeks meets about a sixth of its short stiffness (judgement)."""
TAPE_FOR_EVER_N_MM2 = 0.00172
"""Makers' guidance for permanent tension, 0.25 psi."""
ADHESIVE_DESIGN_N_MM2, ADHESIVE_FACTOR = 0.10, 6.0
ADHESIVE_SOURCE = (
    "Elastic adhesive: a sixth of what it breaks at, 0.14 N/mm² for structural silicone (ETAG 002-1, from "
    "memory); 0.10 is counted, a judgement: the maker's value comes first"
)
ADHESIVE_MODULUS_N_MM2 = 2.0
ADHESIVE_LEAST_DEG_C = 5.0
"""Of the roof when it is set: common practice, no source."""
BEAD_GAP_MM = 4.0
"""Between beads of adhesive, for the air they cure from (judgement)."""
ADHESIVE_DEPTH_MM = 2.0
"""Cured in a day at 23 °C and 50 %, the slow end of polyurethane and hybrid (common practice)."""
BASE_MODULUS_N_MM2 = {"aluminium": 70_000.0, "stainless": 200_000.0}
CRUISE_H = 4.0
"""Hours that are driven without a break."""
TAPE_ECCENTRICITY_MM = 5.0
"""Least distance of the pull from the pad's centre that is counted: marks and feet are never exact."""
TAPE_BEST_DEG_C = (21.0, 38.0)
TAPE_LEAST_DEG_C = 15.0

FRAME_FLANGE_MM = 1.5
FRAME_EDGE_MM = 14.0
FRAME_FLANGE_SOURCE = (
    "Lower flange of a panel frame about 1.5 mm, hole in its middle: common practice; measure it"
)
FOOT_MASS_KG = 0.35

EDGE_DISTANCE_DIAMETERS = 1.5
"""Least distance of a screw from the edge of a member's face, in diameters (AISI S100 J4.2)."""
