"""The survey's part of the job: outline, crown, factory points, old work, access, squareness. Measured or
chosen only.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Identifier, Name, Note, Part, Word
from fahrtwind.core.quantities import Angle, Length

SectionKind = Literal["raised", "lowered", "deck", "arch", "hard_top", "side_rail"]
PointKind = Literal["threaded_hole", "pin", "stud", "track", "gutter"]
ScarKind = Literal["hole", "screw", "cable", "glue_dab", "glued_panel", "bolted_panel"]
LineKind = Literal["wire", "duct", "gas", "water", "unknown"]


class Point(Part):
    x: q.Along
    y: q.Across


class CornerOffset(Part):
    """How far a corner stands from the corner of the rectangle: aft and to starboard."""

    along: q.Shift = Length(mm=0)
    across: q.Shift = Length(mm=0)


class Outline(Part):
    """The roof's edge: a rectangle with rounded or narrower ends and measured corners, or points that
    overrule all that.

    ``front_narrower`` and ``rear_narrower`` are how much each side draws in at that end, over the length of
    ``taper_run``. ``side_fall``, ``front_fall``, ``rear_fall``: how far in from the edge the roof starts to
    fall away.
    """

    front_radius: q.Clearance = Length(mm=0)
    rear_radius: q.Clearance = Length(mm=0)
    front_narrower: q.Clearance = Length(mm=0)
    rear_narrower: q.Clearance = Length(mm=0)
    taper_run: q.Clearance = Length(mm=600)
    front_port: CornerOffset = CornerOffset()
    front_starboard: CornerOffset = CornerOffset()
    rear_port: CornerOffset = CornerOffset()
    rear_starboard: CornerOffset = CornerOffset()
    points: Annotated[tuple[Point, ...], Field(max_length=200)] = ()
    side_fall: q.Clearance = Length(mm=0)
    front_fall: q.Clearance = Length(mm=0)
    rear_fall: q.Clearance = Length(mm=0)


class RoofSection(Part):
    """A raised or lowered stretch, a deck, an arch, a hard top, a side rail. ``step`` is its height over the
    roof around it.
    """

    id: Identifier
    kind: SectionKind
    name: Name
    x: q.Along
    y: q.Across
    length: q.Size
    width: q.Size
    step: q.Shift = Length(mm=0)


class CrownReading(Part):
    """At ``y`` either the gap under a straight-edge or the slope a gauge shows (positive: falls to
    starboard).
    """

    id: Identifier
    y: q.Across
    gap: q.Gap | None = None
    angle: q.Slope | None = None


class CrossSection(Part):
    """Readings across the roof at ``x``. A straight-edge may have been held level or laid on as it would
    lie.
    """

    id: Identifier
    x: q.Along
    edge: Literal["level", "free"] = "free"
    readings: Annotated[tuple[CrownReading, ...], Field(max_length=40)] = ()


class LengthReading(Part):
    """Height of the roof under a line along the centre: the gap at ``x``."""

    id: Identifier
    x: q.Along
    gap: q.Gap


class Crown(Part):
    """``gauge_zero`` is what the gauge shows on something inside that stands for level; ``lean`` how the
    vehicle leans.
    """

    gauge_zero: q.Slope = Angle(deg=0)
    lean: q.Slope = Angle(deg=0)
    sections: Annotated[tuple[CrossSection, ...], Field(max_length=20)] = ()
    lengthwise: Annotated[tuple[LengthReading, ...], Field(max_length=40)] = ()


class FactoryPoint(Part):
    """One hole, pin or stud of a row by its count from the front, as measured; blank where it was not."""

    id: Identifier
    count: Annotated[int, Field(ge=0, le=60)]
    x: q.Along | None = None
    y: q.Across | None = None
    usable: bool = True
    why: Note = ""


class PointRow(Part):
    """A row of factory points: its nominal pattern, and what was measured. ``rating`` is for one point."""

    id: Identifier
    name: Name
    kind: PointKind
    start: q.Along
    y: q.Across
    pitch: q.Pitch
    count: Annotated[int, Field(ge=1, le=60)] = 4
    rating: q.RoofLoad | None = None
    thread: Annotated[Word, Field(max_length=20)] = ""
    lean: q.Slope | None = None
    tolerance: q.Gap = Length(mm=3)
    points: Annotated[tuple[FactoryPoint, ...], Field(max_length=60)] = ()


class Scar(Part):
    """Old work: a hole, screw, cut cable, dab of glue, or a panel to come off. Each becomes an entry of the
    seal list.
    """

    id: Identifier
    kind: ScarKind
    x: q.Along
    y: q.Across
    count: Annotated[int, Field(ge=1, le=200)] = 1
    size: q.Small | None = None
    note: Note = ""


class KeepOut(Part):
    """A line under the skin that no hole may come near."""

    id: Identifier
    kind: LineKind
    name: Name
    from_x: q.Along
    from_y: q.Across
    to_x: q.Along
    to_y: q.Across
    clear: q.Clearance = Length(mm=50)


class OpenBay(Part):
    """A stretch that is open from inside although the rest is finished."""

    id: Identifier
    start: q.Along
    end: q.Along


class Access(Part):
    walkable: Literal["yes", "no", "unknown"] = "unknown"
    standing_limit: q.RoofLoad | None = None
    ladder_port: bool = True
    ladder_starboard: bool = True
    ladder_front: bool = False
    ladder_rear: bool = True
    reach: q.Clearance = Length(mm=800)
    open_bays: Annotated[tuple[OpenBay, ...], Field(max_length=20)] = ()


class EdgeOffset(Part):
    """At ``x`` the distances from a string along the centre to the port and the starboard edge or rail."""

    id: Identifier
    x: q.Along
    port: q.Size
    starboard: q.Size


class Squareness(Part):
    """Four sides, two diagonals (front port to rear starboard first), and offsets along the roof."""

    port_side: q.LongSide | None = None
    starboard_side: q.LongSide | None = None
    front_side: q.LongSide | None = None
    rear_side: q.LongSide | None = None
    diagonal_port: q.LongSide | None = None
    diagonal_starboard: q.LongSide | None = None
    offsets: Annotated[tuple[EdgeOffset, ...], Field(max_length=40)] = ()


class Survey(Part):
    outline: Outline = Outline()
    sections: Annotated[tuple[RoofSection, ...], Field(max_length=20)] = ()
    crown: Crown = Crown()
    point_rows: Annotated[tuple[PointRow, ...], Field(max_length=20)] = ()
    scars: Annotated[tuple[Scar, ...], Field(max_length=100)] = ()
    keep_outs: Annotated[tuple[KeepOut, ...], Field(max_length=40)] = ()
    access: Access = Access()
    squareness: Squareness = Squareness()


LineSchool = Literal["mean", "most_frequent", "median", "robust"]


class LineMark(Part):
    """At ``x`` the distance from the centre at which a foot's upright stands plumb, on one side."""

    id: Identifier
    x: q.Along
    side: Literal["port", "starboard"]
    offset: q.Size


class MountingLines(Part):
    """Where rails run on a curved roof.

    ``base_width`` is a foot's, ``bar_width`` that of the bar laid under one of its edges; ``common`` wants
    the same offset on both sides. ``wanted`` asks for lines from the crown at that distance where nothing is
    marked.
    """

    marks: Annotated[tuple[LineMark, ...], Field(max_length=80)] = ()
    school: LineSchool | None = None
    base_width: q.Pad = Length(mm=50)
    bar_width: q.Pad = Length(mm=20)
    common: bool = False
    wanted: q.Size | None = None
