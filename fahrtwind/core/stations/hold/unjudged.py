"""Links that nobody can judge from here: told with the force that reaches them, so that whoever can may."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.formulas.declare import given
from fahrtwind.core.formulas.members import end_share
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.verdict import PanelVerdict
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.footprint import Rect


@dataclass(frozen=True, slots=True)
class MemberEnd:
    """The pull at one end of a member, where it is fixed to the wall or the ply to it, N."""

    member: int
    side: Literal["port", "starboard"]
    force_n: float


def member_ends(
    verdicts: tuple[PanelVerdict, ...], feet: tuple[FootPlace, ...], roof: Rect
) -> tuple[MemberEnd, ...]:
    """At the probed speed, by the worst case of every foot in a member, as on a beam from wall to wall."""
    pulls = {(f.panel, f.foot): max(f.pull_n, 0.0) for v in verdicts for f in v.feet}
    found: dict[int, list[float]] = {}
    for foot in feet:
        if foot.landing == "member" and foot.member is not None and (foot.panel, foot.foot) in pulls:
            pull = given(pulls[foot.panel, foot.foot], "computed", f"foot {foot.foot}")
            from_port = min(max(foot.y_mm - roof.y_mm, 0.0), roof.width_mm)
            port = float(end_share(pull, given(from_port, "computed", "foot from port"), roof.width_mm))
            ends = found.setdefault(foot.member, [0.0, 0.0])
            ends[0] += port
            ends[1] += float(pull) - port
    return tuple(
        end
        for member, (port, starboard) in sorted(found.items())
        for end in (MemberEnd(member, "port", port), MemberEnd(member, "starboard", starboard))
    )
