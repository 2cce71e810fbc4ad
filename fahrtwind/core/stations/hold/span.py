"""A foot on a bar from member to member: the bar under its bolts, in bending, and its ends in the members."""

from __future__ import annotations

from fahrtwind.core.formulas.brackets import by_worst_fastener, in_series, prying
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sections import by_bar_end, span_load, span_spring
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Attachment, SpanBars
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT, section_link
from fahrtwind.core.stations.hold.carriers.sections import MEMBER_FACTOR, bar_strength
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.ground import bay_at
from fahrtwind.core.stations.hold.links import Above, Chain, Link, bracket_link, frame_link, link, tipped
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.tables.feet import STIFFNESS_MEMBER_N_MM

PATH = "span.section"
NEAREST_MM = 5.0
"""A foot nearer to a member than this counts as so far from it: bending then says nothing."""


@dataclass(frozen=True, slots=True)
class OnBar:
    """A foot on a bar: to the member in front and behind, mm; how many feet that bay carries; and what comes
    to the end that gets most, in pulls of one foot, with what neighbours on the same bar bring.
    """

    front_mm: float
    rear_mm: float
    feet: int
    at_end: float


def on_bars(feet: tuple[FootPlace, ...], members: tuple[Member, ...]) -> dict[str, OnBar]:
    """Of the feet of a panel that stand on bars; those in one line share bars and ends, alike loaded."""
    bays = {f.foot: bay for f in feet if f.landing == "bar" and (bay := bay_at(members, f.x_mm)) is not None}
    lines = {f.foot: (round(f.y_mm), round(f.x_mm) - bays[f.foot].at_mm) for f in feet if f.foot in bays}
    reach: dict[tuple[int, float], float] = {}
    for foot, (line, front) in lines.items():
        bay = bays[foot]
        at = min(max(bay.at_mm, NEAREST_MM), bay.bay_mm - NEAREST_MM)
        for end, share in ((front, 1 - at / bay.bay_mm), (front + bay.bay_mm, at / bay.bay_mm)):
            key = (line, round(end))
            reach[key] = reach.get(key, 0.0) + share
    found = {}
    for foot, (line, front) in lines.items():
        bay = bays[foot]
        at = min(max(bay.at_mm, NEAREST_MM), bay.bay_mm - NEAREST_MM)
        most = max(reach[line, round(front)], reach[line, round(front + bay.bay_mm)])
        same = sum(other == (line, front) for other in lines.values())
        found[foot] = OnBar(at, bay.bay_mm - at, same, round(most, 4))
    return found


def span_chain(
    span: SpanBars, hold: Attachment, vehicle: Vehicle, ribs: Members, bar: OnBar, above: Above
) -> Chain:
    """``hold``: of the foot, whose bracket stands on the bar. Raises InputError where an own section lacks a
    value. The foot is held to its bar by one bolt through both, whatever its school; a bar over several
    members is taken as simple in each bay, on the safe side.
    """
    front = given(bar.front_mm, "inferred", "member in front")
    rear = given(bar.rear_mm, "inferred", "member behind")
    with scope("link frame"):
        links = [frame_link(hold.bracket, above)]
    with scope("link bracket"):
        links.append(bracket_link(hold.bracket, above))
    with scope("link wall"):
        wall = section_link(span.section, span.alloy)
        pry = prying(
            given(max(hold.bracket.lever.mm, 1.0), "chosen", "lever of the foot's bracket"),
            given(max(hold.bracket.toe.mm, 3.0), "chosen", "its toe"),
        )
        pulls = (float(by_worst_fastener(n, pry)) for n in (wall.pull_nominal_n, wall.pull_design_n))
        nominal, design = pulls
        below = [
            replace(
                wall,
                id="wall",
                title=f"bar under the {JOINT_BOLT} of the foot",
                pull_nominal_n=nominal,
                pull_design_n=design,
            )
        ]
    with scope("link bar"):
        strength = bar_strength(span.section, span.alloy, PATH)
        together = given(float(bar.feet), "computed", "feet in this bay")
        up = span_load(strength.moment_nominal_n_mm / together, front, rear)
        with scope("along"):
            side = span_load(max(strength.shape.side_mm3 * strength.yield_n_mm2, 1.0), front, rear)
        pull, along = (up, MEMBER_FACTOR), (side, MEMBER_FACTOR)
        below.append(link("bar", "bar from member to member", pull, along, source=strength.source))
    stiff = span_spring(strength.stiff.up_n_mm2, front, rear)
    ends = given(STIFFNESS_MEMBER_N_MM, "default", "members under its ends")
    soft = float(in_series(stiff, ends))
    for held in (*below, *_ends(span, hold, vehicle, ribs, bar)):
        with scope(f"link {held.id}", "tipping"):
            links.append(tipped(held, hold.bracket, above.height_mm))
    return Chain(tuple(links), soft, soft)


def _ends(span: SpanBars, hold: Attachment, vehicle: Vehicle, ribs: Members, bar: OnBar) -> list[Link]:
    """What holds the nearer end in its member, as the pull on the foot that uses it up."""
    with scope("ends"):
        own = chain_of(vehicle, ribs, span.ends, "member", True, None, Above())
    share = given(bar.at_end, "computed", "of a foot's pull, at the end that gets most")
    lever = given(hold.bracket.lever.mm, "chosen", "lever of the foot's bracket")
    width = given(max(span.section.width.mm, 3.0), "chosen", "width of the bar")
    found = []
    for held in own.links:
        if held.id in ("frame", "bracket"):
            continue  # a bar's end is screwed down by itself
        with scope(f"link end {held.id}"):
            sizes = (held.pull_nominal_n, held.pull_design_n, held.shear_nominal_n, held.shear_design_n)
            n, d, s, sd = (float(by_bar_end(size, share, lever, width)) for size in sizes)
        found.append(
            replace(
                held,
                id=f"end {held.id}",
                title=f"end of the bar: {held.title}",
                pull_nominal_n=n,
                pull_design_n=d,
                shear_nominal_n=s,
                shear_design_n=sd,
            )
        )
    return found
