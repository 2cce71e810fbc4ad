"""A foot on a bar from member to member: the bar under its bolts, in bending, and its ends in the members."""

from __future__ import annotations

from dataclasses import replace

from fahrtwind.core.formulas.brackets import in_series
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sections import by_bar_end, span_load, span_spring
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Attachment, SpanBars
from fahrtwind.core.stations.hold.carriers.links import section_link
from fahrtwind.core.stations.hold.carriers.sections import MEMBER_FACTOR, bar_strength
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.links import Above, Bay, Chain, Link, bracket_link, frame_link, link
from fahrtwind.core.tables.feet import STIFFNESS_MEMBER_N_MM

PATH = "span.section"
NEAREST_MM = 5.0
"""A foot nearer to a member than this counts as so far from it: bending then says nothing."""


def span_chain(
    span: SpanBars, hold: Attachment, vehicle: Vehicle, ribs: Members, bay: Bay, above: Above
) -> Chain:
    """``hold``: of the foot, whose bracket stands on the bar. Raises InputError where an own section lacks a
    value.
    """
    front = given(min(max(bay.at_mm, NEAREST_MM), bay.bay_mm - NEAREST_MM), "inferred", "member in front")
    rear = given(bay.bay_mm - float(front), "inferred", "member behind")
    with scope("link frame"):
        links = [frame_link(hold.bracket, above)]
    with scope("link bracket"):
        links.append(bracket_link(hold.bracket, above))
    with scope("link wall"):
        wall = section_link(span.section, span.alloy)
        links.append(replace(wall, id="wall", title="bar under the bolts of the foot"))
    with scope("link bar"):
        strength = bar_strength(span.section, span.alloy, PATH)
        up = span_load(strength.moment_nominal_n_mm, front, rear)
        with scope("along"):
            side = span_load(max(strength.shape.side_mm3 * strength.yield_n_mm2, 1.0), front, rear)
        pull, along = (up, MEMBER_FACTOR), (side, MEMBER_FACTOR)
        links.append(link("bar", "bar from member to member", pull, along, source=strength.source))
    stiff = span_spring(strength.stiff.up_n_mm2, front, rear)
    ends = given(STIFFNESS_MEMBER_N_MM, "default", "members under its ends")
    soft = float(in_series(stiff, ends))
    return Chain((*links, *_ends(span, hold, vehicle, ribs, float(front), float(rear))), soft, soft)


def _ends(
    span: SpanBars, hold: Attachment, vehicle: Vehicle, ribs: Members, front: float, rear: float
) -> list[Link]:
    """What holds the nearer end in its member, as the pull on the foot that uses it up."""
    with scope("ends"):
        own = chain_of(vehicle, ribs, span.ends, "member", True, None, Above())
    share = given(max(front, rear) / (front + rear), "computed", "of the pull, at the nearer end")
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
