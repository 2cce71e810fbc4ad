"""A piece of the workshop: what it is cut from, how long, which end is marked, its holes and bends.

Places on a piece are measured from its marked end, the front end of what runs along the roof, the port end of
what runs across, the lower end of a post; never from hole to hole.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from fahrtwind.core.job.sections import OwnSection, RectangularTube, RoundTube, Section
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.section_words import say_section
from fahrtwind.core.stations.hold.carriers.sections import USUAL_RAIL_KG_M, bar_strength
from fahrtwind.core.tables.alloys import AlloyName

Face = Literal["upper", "lower", "front", "rear", "port", "starboard"]
MarkedEnd = Literal["front", "port", "lower"]
PieceKind = Literal["rail", "bar", "crossbar", "post", "strut", "corner", "splice plate", "bracket", "bridge"]
PILOT_FROM_MM, PILOT_SHARE = 6.0, 0.5
"""Holes from 6 mm get a pilot of half their size first: common practice, no source."""


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole: ``at_mm`` from the marked end, ``off_mm`` from the middle of the face, to starboard, aft or up.
    ``through``: on through the opposite wall, because nobody reaches a nut inside a closed tube; ``slot_mm``:
    how long it is where it is a slot, along the piece or across it.
    """

    at_mm: float
    off_mm: float
    face: Face
    diameter_mm: float
    what: str
    through: bool = False
    slot_mm: float = 0.0
    slot_across: bool = False
    pilot_mm: float = 0.0
    thread: str = ""
    """What is cut into it; its diameter is then that of the drill before the tap."""


@dataclass(frozen=True, slots=True)
class Bend:
    """A bend: its middle ``at_mm`` on the flat strip, how far the leg turns, and how far the tool has to go
    so that it springs back to that.
    """

    at_mm: float
    angle_deg: float
    tool_deg: float
    inside_mm: float
    up: bool


@dataclass(frozen=True, slots=True)
class Piece:
    """A piece to cut. ``part_of``: the carrier, panel or unit it belongs to, ``path`` its job path;
    ``material`` is what bar it comes from, ``says`` the same in the job's units; ``marked`` which end carries
    its mark; ``wide_mm``, ``high_mm``: of its upper face and of its sides; ``cut_…_deg``: how far an end is
    from square; ``splice_n_mm``: bending at the probed speed where its rear end is spliced, None where nobody
    knows; ``planned_mm``: what the plan says where it was changed by hand.
    """

    id: str
    kind: PieceKind
    part_of: str
    path: str
    name: str
    material: str
    says: str
    length_mm: float
    marked: MarkedEnd
    mass_kg: float
    wide_mm: float
    high_mm: float
    holes: tuple[Hole, ...]
    sold_mm: float | None = None
    """What its carrier says that the bar is sold in."""
    spliced: bool = False
    splice_n_mm: float | None = None
    bends: tuple[Bend, ...] = ()
    cut_marked_deg: float = 0.0
    cut_far_deg: float = 0.0
    planned_mm: float | None = None


def drilled(
    at_mm: float, face: Face, diameter_mm: float, what: str, through: bool = False, off_mm: float = 0.0
) -> Hole:
    """A round hole with its pilot, all mm."""
    pilot = round(PILOT_SHARE * diameter_mm) if diameter_mm >= PILOT_FROM_MM else 0
    return Hole(at_mm, off_mm, face, diameter_mm, what, through, pilot_mm=float(pilot))


def closed(section: Section) -> bool:
    """Whether bolts have to go through both walls."""
    return isinstance(section, RectangularTube | RoundTube)


def material_of(alloy: str, section: Section) -> str:
    """The same whatever units the job is shown in: bars of the shop are found by it."""
    return f"{alloy} {say_section(section, 'metric')}"


def says(alloy: str, section: Section, units: UnitSystem) -> str:
    return f"{alloy}, {say_section(section, units)}"


def kg_m_of(section: Section, alloy: AlloyName, path: str) -> float:
    """Mass of a metre, kg; of an own section what its sheet says, whatever else it lacks."""
    if isinstance(section, OwnSection):
        return section.mass_kg_m or USUAL_RAIL_KG_M
    return bar_strength(section, alloy, path).mass_kg_m


def in_order(holes: Iterable[Hole]) -> tuple[Hole, ...]:
    return tuple(sorted(holes, key=lambda h: (h.at_mm, h.face, h.off_mm)))
