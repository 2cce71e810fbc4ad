"""A foot on a gutter or the chassis: what its maker rates it for, and the bolts of the post in it.

Where nobody says, a low value from judgement counts. Neither kind is counted on to hold a post upright: the
frame over it has to.
"""

from __future__ import annotations

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.job.panel import OuterFoot
from fahrtwind.core.stations.hold.links import Chain, Link, bolts_link, link
from fahrtwind.core.stations.hold.schools.school import Ground

UNRATED_N = {"gutter": 250.0, "chassis": 1000.0}
"""What a foot may bear where its maker is silent: judgement, low end. A gutter is a folded seam of sheet."""
STIFFNESS_N_MM = {"gutter": 200.0, "chassis": 2000.0}
"""How stiff it stands: judgement; the frame takes it halved and doubled."""
TITLE = {"gutter": "gutter and its clamp", "chassis": "chassis bracket"}
BOLTS_A_POST = 2


def chain(hold: OuterFoot, _ground: Ground) -> Chain:
    stiff = STIFFNESS_N_MM[hold.on]
    return Chain(
        (_rated(hold), bolts_link(hold.bolt, BOLTS_A_POST, f"2 × {hold.bolt} of the post")), stiff, stiff
    )


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
