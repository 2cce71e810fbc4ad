"""Links of rails: the clamp that grips a panel, the rail at a foot's bolt."""

from __future__ import annotations

from dataclasses import replace

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sections import clamp_slip, clamp_tongue, wall_pull
from fahrtwind.core.formulas.verdict import rated_share
from fahrtwind.core.job.carrier import OwnSection, Rails
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.links import TEST_FACTOR, Above, Bay, Chain, Link, link
from fahrtwind.core.stations.layout.feet import Landing
from fahrtwind.core.tables.alloys import ALLOYS

CLAMP_WIDTH_MM, CLAMP_TONGUE_MM, CLAMP_LEVER_MM = 32.0, 3.0, 8.0
CLAMP_YIELD_N_MM2, CLAMP_SOURCE = (
    130.0,
    "No published value for panel clamps: tongue 3 mm of 6063-T5, judgement",
)
FRICTION, CLAMP_PRELOAD_N = 0.2, 6250.0
"""M8 at 10 N·m with a nut factor of 0.2."""
SLOT_PULL_N = 1500.0
CLAMP_STIFFNESS_N_MM = 2000.0


def clamp_chain(carrier: Rails, above: Above) -> Chain:
    """A panel's clamp: its frame as far as its rating goes, and the clamp itself."""
    with scope("link frame"):
        rated = float(
            rated_share(
                given(above.rated_pa, "chosen" if above.rated_known else "default", "rated uplift, design"),
                given(above.area_m2, "chosen", "panel"),
                given(float(above.points), "chosen" if above.points_known else "default", "mounting points"),
            )
        )
        frame = link(
            "frame",
            "panel frame in the clamp",
            (TEST_FACTOR * rated, TEST_FACTOR),
            (TEST_FACTOR * rated, TEST_FACTOR),
            source="IEC 61215-2:2021, MQT 16: the rated load's share of one mounting point",
        )
    with scope("link clamp"):
        tongue = clamp_tongue(
            given(CLAMP_YIELD_N_MM2, "default", CLAMP_SOURCE),
            given(CLAMP_WIDTH_MM, "default", CLAMP_SOURCE),
            given(CLAMP_TONGUE_MM, "default", CLAMP_SOURCE),
            given(CLAMP_LEVER_MM, "default", CLAMP_SOURCE),
        )
        pull = given(carrier.clamp_n, "chosen", "clamp's maker") if carrier.clamp_n else tongue
        slip = clamp_slip(
            given(FRICTION, "table", "EN 1090-2, class D"), given(CLAMP_PRELOAD_N, "default", "M8 at 10 N·m")
        )
        held = link(
            "clamp",
            "panel clamp",
            (pull, 1.65),
            (slip, 1.25),
            source="the clamp's maker" if carrier.clamp_n else CLAMP_SOURCE,
            confidence="common practice" if carrier.clamp_n else "judgement",
        )
    return Chain((frame, held), CLAMP_STIFFNESS_N_MM, CLAMP_STIFFNESS_N_MM)


def rail_foot_chain(carrier: Rails, skin: Vehicle, ribs: Members, landing: Landing, bay: Bay | None) -> Chain:
    """The chain of a rail's foot: the rail at its bolt in the place of a panel's frame, then as any foot."""
    above = Above(height_mm=carrier.height.mm)
    own = chain_of(skin, ribs, carrier.hold, landing, True, bay, above)
    with scope("link rail"):
        return replace(own, links=(_rail_link(carrier), *own.links[1:]))


def _rail_link(carrier: Rails) -> Link:
    section, alloy = carrier.section, ALLOYS[carrier.alloy]
    if isinstance(section, OwnSection):
        known = section.slot_n is not None
        pull = given(section.slot_n or SLOT_PULL_N, "chosen" if known else "default", "slot of the section")
        source = (
            "the section's maker" if known else "Slot of a profile whose sheet is silent: judgement, low end"
        )
    else:
        wall = given(section.wall.mm, "chosen", "wall of the rail")
        pull, known = wall_pull(given(alloy.yield_n_mm2, "table", alloy.source), wall), True
        source = f"yield-line fan between the webs; {alloy.source}"
    slip = clamp_slip(
        given(FRICTION, "table", "EN 1090-2, class D"), given(CLAMP_PRELOAD_N, "default", "M8 at 10 N·m")
    )
    return link(
        "rail",
        "rail at the bolt of its foot",
        (pull, 1.65),
        (slip, 1.25),
        source=source,
        confidence="published" if known else "judgement",
    )
