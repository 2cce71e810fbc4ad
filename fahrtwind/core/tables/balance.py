"""What the balanced layout weighs against watts. Judgement, no source; each weight is told beside the
proposals.
"""

HOLE_W = 1.5
LOOSE_FOOT_W = 8.0
PRICE_W = 0.1
PANEL_W = 90.0
MIRROR_BONUS = 0.03

WORDS = (
    "Balanced: a watt counts 1; every new hole takes 1.5, every foot that misses a member 8, every "
    "unit of price 0.1; "
    "a mirrored layout counts 3 % more. Judgement."
)
