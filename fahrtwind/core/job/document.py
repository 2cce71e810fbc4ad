"""The job: one vehicle, everything measured and chosen. A plain frozen document; nothing derived is in it."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.built import Built
from fahrtwind.core.job.care import Care
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.days import Days
from fahrtwind.core.job.layout import Decision, FreeArea, Margins, Site, Variant, Wish
from fahrtwind.core.job.panel import Holding, PanelModel, PlacedPanel
from fahrtwind.core.job.part import Identifier, Name, Part, Reason, refuse_twins
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.job.roof import MountingLines, Point, Survey
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import Length, Speed, Temperature, UnitSystem
from fahrtwind.core.tables.readings import ReadingKind, ScanKind

SCHEMA_VERSION = 5

VehicleKind = Literal["van", "bus", "rv", "trailer", "boat", "truck_bed"]
SkinKind = Literal["steel", "aluminium", "fibreglass", "membrane"]
MemberKind = Literal["steel_hat", "aluminium_box", "wood_truss"]


class Vehicle(Part):
    """What is known about the vehicle. None means: not asked or not measured yet; ``no_papers``: nothing says
    what the roof bears.
    """

    kind: VehicleKind = "van"
    roof_length: q.RoofLength | None = None
    roof_width: q.RoofWidth | None = None
    skin: SkinKind | None = None
    skin_thickness: q.Sheet | None = None
    ply_thickness: q.Board | None = None
    membrane: Literal["bonded", "loose", "unknown"] = "unknown"
    surface: Literal["sound", "doubtful", "unknown"] = "unknown"
    top_speed: q.RoadSpeed | None = None
    altitude: q.Altitude | None = None
    roof_load_limit: q.RoofLoad | None = None
    no_papers: bool = False
    inside: Literal["gutted", "partial", "finished", "unknown"] = "unknown"
    height: q.VehicleHeight | None = None
    height_limit: q.VehicleHeight | None = None
    width_limit: q.RoofWidth | None = None


class Members(Part):
    """What the ribs or trusses are made of: decides what a fastener holds in. ``known_…``: as a drawing
    says.
    """

    kind: MemberKind | None = None
    wall: q.Sheet | None = None
    face_width: q.Small | None = None
    depth: q.Depth | None = None
    known_pitch: q.Pitch | None = None
    known_pitch_within: q.Gap | None = None
    known_front_bay: q.Pitch | None = None
    known_rear_bay: q.Pitch | None = None


class Reading(Part):
    id: Identifier
    x: q.Along
    kind: ReadingKind
    sigma: q.Sigma | None = None
    struck: bool = False


class Trust(Part):
    """What this crew's readings of a kind are worth; blank fields stay as in ``tables/readings.py``."""

    id: Identifier
    kind: ReadingKind
    sigma: q.Sigma | None = None
    false_share: Annotated[float, Field(ge=0.001, le=0.9)] | None = None
    miss_share: Annotated[float, Field(ge=0.001, le=0.9)] | None = None


class Scan(Part):
    """A stretch that was searched from end to end by one method: where no reading came of it, that is
    evidence too.
    """

    id: Identifier
    start: q.Along
    end: q.Along
    kind: ScanKind
    struck: bool = False


class Obstacle(Part):
    """Something on the roof. x is its front edge, y the middle of its width.

    A circle has ``length`` as its diameter; a polygon has ``points`` relative to (x, y). A lid of length
    ``lid_length`` (the obstacle's own where blank) swings up to ``lid_angle``; ``lid_reach`` overrules how
    far it then leans beyond its hinge.
    """

    id: Identifier
    kind: Literal["fan", "air_conditioner", "hatch", "aerial", "other"]
    name: Name
    x: q.Along
    y: q.Across
    length: q.Size
    width: q.Size
    height: q.Height = Length(mm=100)
    clearance: q.Clearance = Length(mm=25)
    lid_hinge: Literal["none", "front", "rear", "left", "right"] = "none"
    lid_reach: q.Clearance = Length(mm=0)
    lid_angle: q.LidAngle | None = None
    lid_length: q.Size | None = None
    shape: Literal["rectangle", "circle", "polygon"] = "rectangle"
    points: Annotated[tuple[Point, ...], Field(max_length=40)] = ()
    stays: bool = True


class Assumptions(Part):
    """Judgements the job may change; each has a default that is shown as such. ``basic_wind`` is the code's
    10-minute mean at the site; ``terrain`` blank: water for boats, open land for the others.
    """

    gust: q.Gust = Speed(m_s=30 / 3.6)
    coldest: q.DrivingTemperature = Temperature(deg_c=-10)
    basic_wind: q.BasicWind = Speed(m_s=25)
    terrain: Literal["land", "water"] | None = None
    bump_g: Annotated[float, Field(ge=0, le=4)] = 1.0
    front_edge: Literal["open", "faired"] = "open"
    edge_clearance: q.Clearance = Length(mm=30)
    panel_gap: q.Clearance = Length(mm=20)
    cable_reach: q.Clearance = Length(mm=900)
    margins: Margins = Margins()


class Dismissal(Part):
    snag: Name
    place: Name
    reason: Reason


_LISTS = {
    "survey": ("sections", "point_rows", "scars", "keep_outs"),
    "workshop": ("stock", "changes", "items", "packed"),
    "seal": ("sheets", "moisture", "kinds"),
    "wiring": ("controllers", "strings", "points", "meter"),
    "days": ("crew", "deliveries", "pins", "done", "orders", "rates", "spells"),
    "built": ("feet", "torques"),
    "care": ("looks", "happenings"),
}
"""Lists of the stations' parts whose entries have ids."""


class Job(Part):
    schema_version: Literal[5] = 5
    name: Name
    units: UnitSystem = "metric"
    vehicle: Vehicle = Vehicle()
    survey: Survey = Survey()
    members: Members = Members()
    mounting: MountingLines = MountingLines()
    scans: Annotated[tuple[Scan, ...], Field(max_length=60)] = ()
    trust: Annotated[tuple[Trust, ...], Field(max_length=7)] = ()
    readings: Annotated[tuple[Reading, ...], Field(max_length=400)] = ()
    obstacles: Annotated[tuple[Obstacle, ...], Field(max_length=40)] = ()
    panels: Annotated[tuple[PlacedPanel, ...], Field(max_length=24)] = ()
    carriers: Annotated[tuple[Carrier, ...], Field(max_length=6)] = ()
    raisings: Annotated[tuple[Raising, ...], Field(max_length=12)] = ()
    tethers: Annotated[tuple[Tether, ...], Field(max_length=48)] = ()
    assumptions: Assumptions = Assumptions()
    keep_free: Annotated[tuple[FreeArea, ...], Field(max_length=20)] = ()
    wish: Wish = Wish()
    site: Site = Site()
    variants: Annotated[tuple[Variant, ...], Field(max_length=12)] = ()
    decisions: Annotated[tuple[Decision, ...], Field(max_length=60)] = ()
    own_models: Annotated[tuple[PanelModel, ...], Field(max_length=40)] = ()
    workshop: Workshop = Workshop()
    seal: Seal = Seal()
    wiring: Wiring = Wiring()
    days: Days = Days()
    built: Built = Built()
    care: Care = Care()
    dismissals: Annotated[tuple[Dismissal, ...], Field(max_length=200)] = ()

    @model_validator(mode="before")
    @classmethod
    def _units_first(cls, data: Any, info: Any) -> Any:
        """Bare numbers typed inside the document are read in the document's own unit system."""
        if isinstance(data, dict) and isinstance(info.context, dict) and "units" in data:
            info.context["units"] = data["units"]
        return data

    @model_validator(mode="after")
    def _ids_are_unique(self) -> Job:
        for list_name in (
            "readings",
            "scans",
            "trust",
            "obstacles",
            "panels",
            "carriers",
            "tethers",
            "raisings",
            "keep_free",
            "variants",
            "decisions",
        ):
            refuse_twins(list_name, [part.id for part in getattr(self, list_name)])
        standing = [*(p.id for p in self.panels), *(c.id for c in self.carriers)]
        others = [*(t.id for t in self.tethers), *(f"{p.id}-ends" for p in self.panels if p.span)]
        if others:  # whatever stands on the roof has an id of its own, or its feet would be another's
            refuse_twins("panels, carriers and tethers", [*dict.fromkeys(standing), *others])
        for part_name, list_names in _LISTS.items():
            for list_name in list_names:
                entries = getattr(getattr(self, part_name), list_name)
                refuse_twins(f"{part_name}.{list_name}", [e.id for e in entries])
        refuse_twins("wish.offers", [offer.id for offer in self.wish.offers])
        for panel in self.panels:
            refuse_twins(f"panels.{panel.id}.feet", [foot.id for foot in panel.feet])
        for carrier in self.carriers:
            refuse_twins(f"carriers.{carrier.id}.rails", [rail.id for rail in carrier.rails])
            posts = getattr(carrier, "posts", None)
            refuse_twins(f"carriers.{carrier.id}.posts.places", [p.id for p in posts.places] if posts else [])
            under = getattr(carrier, "crossbars", None)
            refuse_twins(f"carriers.{carrier.id}.crossbars.feet", [f.id for f in under.feet] if under else [])
            refuse_twins(f"carriers.{carrier.id}.bars", [bar.id for bar in getattr(carrier, "bars", ())])
        return self


def holds_of(job: Job) -> tuple[Holding, ...]:
    """How everything that stands on the roof is held: panels on no carrier, carriers that stand on no factory
    points, tethers.
    """
    standing = (p.hold for p in job.panels if p.carrier is None)
    spans = (p.span.ends for p in job.panels if p.carrier is None and p.span)
    carriers = (c.hold for c in job.carriers if not getattr(c, "points", ()))
    return (*standing, *spans, *carriers, *(t.hold for t in job.tethers))
