"""A foot on a gutter or the chassis: what its maker rates it for, and the bolts of the post in it.

Where nobody says, a low value from judgement counts. Neither kind is counted on to hold a post upright: the
frame over it has to.
"""

from __future__ import annotations

from fahrtwind.core.formulas.bolts import bolt_shear, bolt_tension, thread_stress_area
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.metal_screws import several
from fahrtwind.core.job.panel import OuterFoot
from fahrtwind.core.stations.hold.links import Chain, Link, link
from fahrtwind.core.stations.hold.schools.school import Ground
from fahrtwind.core.tables.fasteners import BOLT_FACTOR, BOLT_STEEL_SOURCE, BOLT_STRENGTH_N_MM2, BOLTS

UNRATED_N = {"gutter": 250.0, "chassis": 1000.0}
"""What a foot may bear where its maker is silent: judgement, low end. A gutter is a folded seam of sheet."""
STIFFNESS_N_MM = {"gutter": 200.0, "chassis": 2000.0}
"""How stiff it stands: judgement; the frame takes it halved and doubled."""
TITLE = {"gutter": "gutter and its clamp", "chassis": "chassis bracket"}
BOLTS_A_POST = 2.0


def chain(hold: OuterFoot, _ground: Ground) -> Chain:
    stiff = STIFFNESS_N_MM[hold.on]
    return Chain((_rated(hold), _bolts(hold)), stiff, stiff)


def _rated(hold: OuterFoot) -> Link:
    low = UNRATED_N[hold.on]
    known = hold.pull_n is not None and hold.along_n is not None
    with scope("link base"):
        pull = given(hold.pull_n or low, "chosen" if hold.pull_n else "default", "rating of a foot, pull")
        along = given(hold.along_n or low, "chosen" if hold.along_n else "default", "rating of a foot, along")
        return link(
            "base",
            TITLE[hold.on],
            (pull, 1.0),
            (along, 1.0),
            source="its rating as entered"
            if known
            else "judgement, low end: its maker's rating is not known",
            confidence="published" if known else "judgement",
        )


def _bolts(hold: OuterFoot) -> Link:
    bolt, count = BOLTS[hold.bolt], given(BOLTS_A_POST, "default", "bolts of a post in its foot")
    with scope("link fastener"):
        area = thread_stress_area(
            given(bolt.diameter_mm, "table", "bolt"),
            given(bolt.pitch_mm, "table", "thread pitch"),
            given(bolt.thread_form, "table", "form of the thread"),
        )
        steel = given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE)
        pull = several(count, bolt_tension(steel, area))
        with scope("along"):
            along = several(count, bolt_shear(steel, area))
        return link(
            "fastener",
            f"2 × {hold.bolt} of the post",
            (pull, BOLT_FACTOR),
            (along, BOLT_FACTOR),
            source=BOLT_STEEL_SOURCE,
        )
