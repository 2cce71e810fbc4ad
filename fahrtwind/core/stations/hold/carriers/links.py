"""Links of rails: the clamp that grips a panel, the rail at a foot's bolt."""

from __future__ import annotations

from fahrtwind.core.formulas.bolts import bolt_shear, bolt_tension, hole_bearing, thread_stress_area
from fahrtwind.core.formulas.brackets import bracket_bending
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.joints import clamp_grip
from fahrtwind.core.formulas.metal_screws import several
from fahrtwind.core.formulas.sections import clamp_slip, clamp_tongue, wall_pull
from fahrtwind.core.formulas.verdict import rated_share
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import BasePlate, BoltName, OuterFoot
from fahrtwind.core.job.sections import OwnSection, Section
from fahrtwind.core.records import replace
from fahrtwind.core.stations.hold.carriers.rack import ANGLE_GAUGE_MM, ANGLE_MM
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.links import TEST_FACTOR, Above, Bay, Chain, Link, bracket_link, link
from fahrtwind.core.stations.layout.feet import Landing
from fahrtwind.core.tables.alloys import ALLOYS, AlloyName
from fahrtwind.core.tables.fasteners import BOLT_FACTOR, BOLT_STEEL_SOURCE, BOLT_STRENGTH_N_MM2, BOLTS
from fahrtwind.core.tables.feet import STIFFNESS_MEMBER_N_MM

CLAMP_WIDTH_MM, CLAMP_TONGUE_MM, CLAMP_LEVER_MM = 32.0, 3.0, 8.0
CLAMP_YIELD_N_MM2, CLAMP_SOURCE = (
    130.0,
    "No published value for panel clamps: tongue 3 mm of 6063-T5, judgement",
)
FRICTION, CLAMP_PRELOAD_N = 0.2, 6250.0
"""M8 at 10 N·m with a nut factor of 0.2."""
SLOT_PULL_N = 1500.0
CLAMP_STIFFNESS_N_MM = 2000.0


def clamp_chain(carrier: Carrier, above: Above) -> Chain:
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


def rail_foot_chain(
    carrier: Carrier, skin: Vehicle, ribs: Members, landing: Landing, bay: Bay | None, rating_n: float | None
) -> Chain:
    """The chain of a carrier's foot: the rail at its bolt in the place of a panel's frame, then as any foot,
    or its bracket and the factory point. ``rating_n``: of that point; None where it is not known.
    """
    above = Above(height_mm=carrier.foot_mm)
    if landing == "point":
        return _point_chain(carrier, above, rating_n)
    own = chain_of(skin, ribs, carrier.hold, landing, True, bay, above)
    if isinstance(carrier.hold, BasePlate | OuterFoot):
        return own  # a post is joined to its rail by what its makers weld or screw
    with scope("link rail"):
        return replace(own, links=(_at_foot(carrier), *own.links[1:]))


def _at_foot(carrier: Carrier) -> Link:
    link = section_link(*carrier.on_feet)
    crossed = isinstance(carrier, Rack) and carrier.crossbars is not None
    return replace(link, title=link.title.replace("rail", "crossbar", 1)) if crossed else link


def _point_chain(carrier: Carrier, above: Above, rating_n: float | None) -> Chain:
    with scope("link rail"):
        links = [section_link(carrier.section, carrier.alloy)]
    with scope("link bracket"):
        links.append(bracket_link(carrier.hold.bracket, above))
    if rating_n is not None:
        with scope("link point"):
            rated = given(rating_n, "chosen", "rating of one factory point, counted for pull and along alike")
            links.append(
                link("point", "factory point", (rated, 1.0), (rated, 1.0), source="its rating as entered")
            )
    return Chain(tuple(links), STIFFNESS_MEMBER_N_MM, STIFFNESS_MEMBER_N_MM)


def section_link(section: Section, alloy_name: AlloyName) -> Link:
    """A bolt in a rail: through one wall of it, or in its slot, where along the rail only friction holds."""
    if isinstance(section, OwnSection):
        return _slot_link(section)
    alloy, bolt = ALLOYS[alloy_name], BOLTS[JOINT_BOLT]
    wall = given(section.wall.mm, "chosen", "wall of the rail")
    pull = wall_pull(given(alloy.yield_n_mm2, "table", alloy.source), wall)
    along = hole_bearing(
        given(bolt.diameter_mm, "table", "bolt in the rail"),
        wall,
        given(alloy.ultimate_n_mm2, "table", alloy.source),
        given(section.width.mm / 2, "chosen", "half of the rail's width"),
        given(bolt.clearance_mm, "table", "hole for the bolt"),
    )
    source = f"yield-line fan between the webs; {alloy.source}; bearing 1.95 on rupture"
    return link("rail", "rail at the bolt of its foot", (pull, 1.65), (along, 1.95), source=source)


def _slot_link(section: OwnSection) -> Link:
    known = section.slot_n is not None
    pull = given(section.slot_n or SLOT_PULL_N, "chosen" if known else "default", "slot of the section")
    slip = clamp_slip(
        given(FRICTION, "table", "EN 1090-2, class D"), given(CLAMP_PRELOAD_N, "default", "M8 at 10 N·m")
    )
    return link(
        "rail",
        "rail at the bolt of its foot",
        (pull, 1.65),
        (slip, 1.25),
        source="the section's maker"
        if known
        else "Slot of a profile whose sheet is silent: judgement, low end",
        confidence="published" if known else "judgement",
    )


JOINT_BOLT: BoltName = "M8"
ANGLE_YIELD_N_MM2, ANGLE_SOURCE = 130.0, "an angle from the shop, 6063-T5, low end"


SLIP_FACTOR, LEFT_OF_PRELOAD, LINED_LEFT = 1.5, 0.64, 0.5
"""After paint and rubber have settled; rubber bears half of what metal does (judgement)."""
FRICTION_METAL, FRICTION_LINED = 0.15, 0.3
M8_AREA_MM2 = 36.6


def tube_clamp_chain(rack: Rack) -> Chain:
    """Per clamp: its bolts, and what it holds by friction along the tube and about it."""
    clamp, bolt = rack.clamp, BOLTS[rack.clamp.bolt]
    with scope("link bolt"):
        area = thread_stress_area(
            given(bolt.diameter_mm, "table", "bolt"),
            given(bolt.pitch_mm, "table", "thread pitch"),
            given(bolt.thread_form, "table", "form of the thread"),
        )
        steel = given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE)
        count = given(float(clamp.bolts), "chosen", "bolts of a clamp")
        pull, along = several(count, bolt_tension(steel, area)), several(count, bolt_shear(steel, area))
        title = f"{clamp.bolts} × {clamp.bolt} of a clamp"
        held = link("bolt", title, (pull, BOLT_FACTOR), (along, BOLT_FACTOR), source=BOLT_STEEL_SOURCE)
    with scope("link slip"):
        left = LEFT_OF_PRELOAD * (LINED_LEFT if clamp.lined else 1.0)
        preload = given(
            left * CLAMP_PRELOAD_N * float(area) / M8_AREA_MM2,
            "default",
            "M8 at 10 N·m, by its stress area, settled",
        )
        friction = given(
            FRICTION_LINED if clamp.lined else FRICTION_METAL,
            "default",
            "rubber or metal on paint: judgement",
        )
        grip = clamp_grip(1.0, friction, count, preload)
        opens = given(clamp.bolts * float(preload), "computed", "pull that opens it")
        source = "friction of a clamped joint, halves touching along lines, 1.5"
        slip = link(
            "slip",
            "clamp slipping on the tube",
            (opens, SLIP_FACTOR),
            (grip, SLIP_FACTOR),
            source=source,
            confidence="judgement",
        )
    return Chain((held, slip), STIFFNESS_MEMBER_N_MM, STIFFNESS_MEMBER_N_MM)


def joint_chain(rack: Rack) -> Chain:
    """Per worst bolt of a corner, per clamp where it is one: the bolt, the rail's wall under it, the leg of
    the angle. None of a weld: the bars count with their strength beside it instead.
    """
    if rack.joint == "clamps":
        return tube_clamp_chain(rack)
    return _bolted_chain(rack, rack.joint == "angles", (rack.section, rack.alloy), "rail")


def crossing_chain(rack: Rack) -> Chain:
    """Per worst bolt of the angles between which a rail lies on a crossbar."""
    return _bolted_chain(rack, True, rack.on_feet, "crossbar")


def _bolted_chain(rack: Rack, angles: bool, below: tuple[Section, AlloyName], name: str) -> Chain:
    """``below``: what the bolt goes into, with its ``name``."""
    bolt = BOLTS[JOINT_BOLT]
    with scope("link bolt"):
        area = thread_stress_area(
            given(bolt.diameter_mm, "table", "bolt"),
            given(bolt.pitch_mm, "table", "thread pitch"),
            given(bolt.thread_form, "table", "form of the thread"),
        )
        steel = given(BOLT_STRENGTH_N_MM2, "table", BOLT_STEEL_SOURCE)
        links = [
            link(
                "bolt",
                f"{JOINT_BOLT} bolt of the corner",
                (bolt_tension(steel, area), BOLT_FACTOR),
                (bolt_shear(steel, area), BOLT_FACTOR),
                source=BOLT_STEEL_SOURCE,
            )
        ]
    with scope("link rail"):
        links.append(replace(section_link(*below), title=f"{name} at the bolt of the corner"))
    if angles:
        with scope("link angle"):
            bending = bracket_bending(
                given(ANGLE_YIELD_N_MM2, "table", ANGLE_SOURCE),
                given(ANGLE_MM, "default", "length of the angle"),
                given(rack.angle_wall.mm, "chosen", "thickness of the angle"),
                given(ANGLE_GAUGE_MM, "default", "bolt line to heel"),
            )
            links.append(
                link(
                    "angle",
                    "leg of the corner's angle",
                    (bending, 1.65),
                    (bending, 1.65),
                    source=ANGLE_SOURCE,
                    confidence="judgement",
                )
            )
    return Chain(tuple(links), STIFFNESS_MEMBER_N_MM, STIFFNESS_MEMBER_N_MM)
