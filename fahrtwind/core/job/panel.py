"""Panels of the job: models as their data sheets have them, and panels on the roof with their feet and what
holds them.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Identifier, Name, Part
from fahrtwind.core.job.sections import RectangularTube, Section
from fahrtwind.core.quantities import Angle, Length, Temperature
from fahrtwind.core.tables.alloys import AlloyName
from fahrtwind.core.tables.fasteners import (
    BOLTS,
    EXPANDING_HOLES_MM,
    RIVET_NUT_HOLES_MM,
    SCREWS,
    WELL_NUT_HOLES_MM,
)

ScrewName = Literal["#8", "#10", "#12", "#14"]
BoltName = Literal["M5", "M6", "M8", "M10", "1/4-20", "5/16-18", "3/8-16"]

Side = Literal["port", "starboard", "front", "rear"]
Coefficient = Annotated[float, Field(ge=-2, le=1)]
"""A temperature coefficient of a data sheet, per cent per kelvin."""


class PanelModel(Part):
    """A panel as its data sheet has it. The job keeps this copy, so a later catalogue change alters nothing.

    ``holes``: places of the frame's mounting holes along each long side, from one end. ``flange``: how far
    the frame's lower edge reaches inward. Voltages, currents and coefficients at standard test conditions;
    ``noct`` as on the sheet; ``uplift``: rated load on the back, design, at so many ``mounting_points``,
    which may lie between ``zone_from`` and ``zone_to`` from either end of the long sides; ``max_fuse``: the
    largest fuse before it, which is also what may be driven through it backwards; blank where the sheet says
    nothing.
    """

    name: Name
    length: q.PanelSide
    width: q.PanelSide
    frame_height: q.Small
    mass: q.PanelMass
    power: q.PanelPower
    build: Literal["framed", "flexible"] = "framed"
    flange: q.Small | None = None
    holes: Annotated[tuple[q.Along, ...], Field(max_length=16)] = ()
    voc: q.PanelVoltage | None = None
    vmp: q.PanelVoltage | None = None
    isc: q.PanelCurrent | None = None
    imp: q.PanelCurrent | None = None
    voc_per_k: Coefficient | None = None
    isc_per_k: Coefficient | None = None
    power_per_k: Coefficient | None = None
    noct: q.CellTemperature | None = None
    uplift: q.Uplift | None = None
    mounting_points: Annotated[int, Field(ge=2, le=16)] | None = None
    zone_from: q.Along | None = None
    zone_to: q.Along | None = None
    cells: Annotated[int, Field(ge=1, le=400)] | None = None
    bypass_diodes: Annotated[int, Field(ge=0, le=12)] | None = None
    max_fuse: q.ControllerCurrent | None = None
    price: Annotated[float, Field(ge=0, le=100_000)] | None = None
    stock: Annotated[int, Field(ge=0, le=10_000)] | None = None

    @model_validator(mode="after")
    def _length_is_the_longer_side(self) -> PanelModel:
        if self.width.mm > self.length.mm:
            raise PydanticCustomError(
                "out_of_range",
                "{problem}",
                {
                    "problem": "The width is larger than the length.",
                    "remedy": "Type the longer side as the length.",
                },
            )
        return self


class Bracket(Part):
    """An angle under the frame. Lever: frame bolt to fastener line; toe: fastener line to the far edge."""

    metal: Literal["aluminium", "stainless"] = "aluminium"
    thickness: q.Small = Length(mm=4)
    length: q.Pad = Length(mm=60)
    lever: q.Small = Length(mm=20)
    toe: q.Small = Length(mm=20)
    frame_bolt: BoltName = "M6"

    @property
    def base_mm(self) -> float:
        """Width of the base, from the upright to the edge of the toe."""
        return self.lever.mm + self.toe.mm


class Screws(Part):
    school: Literal["screws"] = "screws"
    bracket: Bracket = Bracket()
    screw: ScrewName = "#14"
    count: Annotated[int, Field(ge=1, le=8)] = 2
    length: q.Small = Length(mm=25)

    @property
    def fastener_mm(self) -> float:
        """Diameter of what goes into the roof."""
        return SCREWS[self.screw].diameter_mm

    @property
    def pad_mm(self) -> tuple[float, float] | None:
        """Length and width of what is stuck to the roof; None where nothing is."""
        return None


class ThroughBolts(Part):
    school: Literal["bolts"] = "bolts"
    bracket: Bracket = Bracket(lever=Length(mm=25), toe=Length(mm=30))
    bolt: BoltName = "M6"
    count: Annotated[int, Field(ge=1, le=8)] = 2
    length: q.Small = Length(mm=30)
    washer: q.Small = Length(mm=25)

    @property
    def fastener_mm(self) -> float:
        return BOLTS[self.bolt].diameter_mm

    @property
    def pad_mm(self) -> tuple[float, float] | None:
        return None


class FoamTape(Part):
    """A pad of foam tape; or, by ``bond``, beads of elastic adhesive side by side: so many ``beads``, each
    pressed to ``bead`` wide and ``thickness`` high. ``temperature``: of the roof when it is set; ``hottest``:
    in summer sun, about 60 °C light and 85 °C dark; ``shaped``: how the base follows the roof's curve;
    ``bears_kpa``: the maker's design stress.
    """

    school: Literal["tape"] = "tape"
    bond: Literal["foam tape", "adhesive"] = "foam tape"
    beads: Annotated[int, Field(ge=1, le=12)] = 3
    bead: q.Small = Length(mm=10)
    bears_kpa: Annotated[float, Field(ge=1, le=300)] | None = None
    bracket: Bracket = Bracket(length=Length(mm=100), lever=Length(mm=10), toe=Length(mm=40))
    pad_length: q.Pad = Length(mm=100)
    pad_width: q.Pad = Length(mm=50)
    thickness: q.Small = Length(mm=1.6)
    dwell_h: Annotated[float, Field(ge=0, le=2000)] = 72
    temperature: q.WorkTemperature | None = None
    hottest: q.WorkTemperature = Temperature(deg_c=60)
    shaped: Literal["flat", "bent", "wedged", "padded"] = "flat"
    sealed_edge: bool = True

    @property
    def fastener_mm(self) -> float:
        return 0.0

    @property
    def pad_mm(self) -> tuple[float, float] | None:
        return self.pad_length.mm, self.pad_width.mm

    @property
    def filled(self) -> float:
        """Share of the pad that bonds: all of a tape, of beads what they cover."""
        if self.bond == "foam tape":
            return 1.0
        return min(1.0, self.beads * self.bead.mm / self.pad_width.mm)


GLUED: dict[str, Any] = {"bond": "adhesive", "thickness": Length(mm=3), "dwell_h": 168.0}
"""Beads of adhesive as they are usually set; a week until they are cured through."""
HOLES_MM = {"rivet_nut": RIVET_NUT_HOLES_MM, "expanding": EXPANDING_HOLES_MM, "well_nut": WELL_NUT_HOLES_MM}


class OneSided(Part):
    """Fasteners that are set from outside alone: threaded rivet nuts, expanding bolts whose sleeve spreads
    behind, blind rivets, rubber well nuts.

    ``bolt``: in a nut or sleeve; ``rivet``: diameter of a blind rivet; ``pull_n``, ``shear_n``: of
    one fastener by its maker, nominal.
    """

    school: Literal["one_sided"] = "one_sided"
    bracket: Bracket = Bracket()
    insert: Literal["rivet_nut", "expanding", "blind_rivet", "well_nut"] = "rivet_nut"
    bolt: BoltName = "M6"
    rivet: q.Small = Length(mm=4.8)
    count: Annotated[int, Field(ge=1, le=8)] = 2
    length: q.Small = Length(mm=20)
    pull_n: Annotated[float, Field(ge=20, le=50_000)] | None = None
    shear_n: Annotated[float, Field(ge=20, le=50_000)] | None = None

    @property
    def fastener_mm(self) -> float:
        """Diameter of the hole, which is what stands in the roof."""
        if self.insert == "blind_rivet":
            return self.rivet.mm
        return HOLES_MM[self.insert][self.bolt]

    @property
    def pad_mm(self) -> tuple[float, float] | None:
        return None


class BasePlate(Part):
    """A square plate under a post, bolted through the deck to a plate below. ``core``: what is between the
    skins of the deck at the bolts; ``insert``: solid filler let into a soft core.
    """

    school: Literal["base_plate"] = "base_plate"
    plate: q.Pad = Length(mm=120)
    thickness: q.Small = Length(mm=8)
    metal: Literal["aluminium", "stainless"] = "stainless"
    bolt: BoltName = "M8"
    count: Literal[4, 6, 8] = 4
    length: q.Small = Length(mm=50)
    backing: q.Pad = Length(mm=120)
    backing_thickness: q.Small = Length(mm=5)
    core: Literal["solid", "insert", "foam", "balsa"] = "solid"

    @property
    def bracket(self) -> Bracket:
        """The plate as the places that ask for a bracket see it; not validated: it may be larger than one."""
        half = Length(mm=self.plate.mm / 2)
        return Bracket.model_construct(
            metal=self.metal, thickness=self.thickness, length=self.plate, lever=half, toe=half
        )

    @property
    def fastener_mm(self) -> float:
        return BOLTS[self.bolt].diameter_mm

    @property
    def pad_mm(self) -> tuple[float, float] | None:
        """It covers a square about the post."""
        return self.plate.mm, self.plate.mm


class OuterFoot(Part):
    """The foot of a post on the vehicle's gutter or its chassis, beside the roof. ``below``: how far under
    the roof it stands; ``pull_n``, ``along_n``: what its maker rates one for, with his factor.
    """

    school: Literal["outer_foot"] = "outer_foot"
    on: Literal["gutter", "chassis"] = "gutter"
    below: q.Below = Length(mm=60)
    bolt: BoltName = "M8"
    pull_n: Annotated[float, Field(ge=20, le=50_000)] | None = None
    along_n: Annotated[float, Field(ge=20, le=50_000)] | None = None

    @property
    def bracket(self) -> Bracket:
        """As the places that ask for a bracket see it: the foot of a post is a piece of its own."""
        return Bracket()

    @property
    def fastener_mm(self) -> float:
        return 0.0

    @property
    def pad_mm(self) -> tuple[float, float] | None:
        return None


Drilled = Screws | ThroughBolts | OneSided
Attachment = Annotated[Screws | ThroughBolts | OneSided | FoamTape, Field(discriminator="school")]
"""How a panel's foot is held."""
Holding = Annotated[
    Screws | ThroughBolts | OneSided | FoamTape | BasePlate | OuterFoot, Field(discriminator="school")
]
"""How anything that stands on the roof is held."""


class SpanBars(Part):
    """Bars along the roof from member to member, each under a foot that stands between two. ``ends``: how
    they are held in the members.
    """

    section: Section = RectangularTube(height=Length(mm=20), width=Length(mm=40), wall=Length(mm=2))
    alloy: AlloyName = "6060-T66"
    ends: Attachment = Screws()


class Foot(Part):
    """A foot on one side of the frame; ``along`` runs from the frame's front end (or from its port end)."""

    id: Identifier
    side: Side
    along: q.Along
    pinned: bool = False


class PlacedPanel(Part):
    """A panel on the roof. x is its front edge, y the middle of its extent across.

    Panels of one ``array`` move together; the leads of a ``pair`` have to meet. ``cable_end`` is the edge at
    which the leads come out. ``carrier``: what it lies on; its own feet and hold then count for nothing.
    ``span``: bars under feet that stand between members.
    ``tilt`` is how far it is raised while parked, at its ``tilt_up`` edge; it is
    driven lying flat.
    """

    id: Identifier
    name: Name
    model: PanelModel
    measured_length: q.PanelSide | None = None
    measured_width: q.PanelSide | None = None
    x: q.Along
    y: q.Across
    turned: bool = False
    stand_off: q.Clearance = Length(mm=40)
    feet: Annotated[tuple[Foot, ...], Field(max_length=16)] = ()
    hold: Attachment = Screws()
    carrier: Identifier | None = None
    span: SpanBars | None = None
    locked: bool = False
    array: Identifier | None = None
    pair: Identifier | None = None
    cable_end: Side | None = None
    tilt: q.Tilt = Angle(deg=0)
    tilt_up: Side = "starboard"
