"""What stands between panels and the roof: carriers, each with one or several panels on it."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.panel import Attachment, BasePlate, BoltName, Holding, OuterFoot, Screws
from fahrtwind.core.job.part import Identifier, Name, Part
from fahrtwind.core.job.sections import RectangularTube, RoundTube, Section
from fahrtwind.core.quantities import Length
from fahrtwind.core.tables.alloys import AlloyName

MOST_STANDINGS = 16


class Rail(Part):
    """One rail along the roof, y in its middle."""

    id: Identifier
    y: q.Across


class Standing(Part):
    """A place along the roof where every rail has a foot, or a crossbar lies, x of its middle."""

    id: Identifier
    x: q.Along


class OnRails(Part):
    """What every carrier with rails along the roof has. ``height``: underside of the rails over the roof;
    ``every``: a foot at every so many members; ``feet_at``: places of its own instead, where a foot asks for
    no member; ``hold``: how each foot is held; ``stock``: length the section is sold in; ``clamp_n``: pull a
    clamp may take by its maker, nominal, blank where nobody says.
    """

    id: Identifier
    name: Name
    section: Section = RectangularTube()
    alloy: AlloyName = "6060-T66"
    height: q.Clearance = Length(mm=40)
    start: q.Along
    end: q.Along
    rails: Annotated[tuple[Rail, ...], Field(min_length=1, max_length=6)]
    every: Annotated[int, Field(ge=1, le=4)] = 1
    feet_at: Annotated[tuple[Standing, ...], Field(max_length=MOST_STANDINGS)] = ()
    hold: Holding = Screws()
    stock: q.LongSide | None = None
    clamp_n: Annotated[float, Field(ge=50, le=50_000)] | None = None

    @model_validator(mode="after")
    def _places_have_names_of_their_own(self) -> Self:
        names = [at.id for at in self.feet_at]
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is None:
            return self
        problem = f"Two places of its feet are called {twice}."
        raise PydanticCustomError(
            "bad_input", "{problem}", {"problem": problem, "remedy": "Give one of them another id."}
        )

    @property
    def foot_mm(self) -> float:
        """Underside of what stands on the feet over the roof."""
        return self.height.mm

    @property
    def on_feet(self) -> tuple[Section, AlloyName]:
        """What is bolted to the feet."""
        return self.section, self.alloy


class Rails(OnRails):
    """Rails along the roof on feet at the members, with panels under clamps."""

    kind: Literal["rails"] = "rails"
    hold: Attachment = Screws()

    @property
    def top_mm(self) -> float:
        """Upper face of the rails over the roof: where the panels lie."""
        return self.height.mm + self.section.height.mm


class Crossbar(Part):
    """A bar across the rails, x in its middle."""

    id: Identifier
    x: q.Along


JointKind = Literal["welded", "angles", "bolt", "clamps"]


class TubeClamp(Part):
    """A two-piece clamp about a round rail: ``bolts`` on both sides together; ``width`` along the rail."""

    bolt: BoltName = "M8"
    bolts: Literal[2, 4] = 2
    width: q.Pad = Length(mm=40)
    lined: bool = False


class Post(Part):
    """A post under every rail, x in its middle."""

    id: Identifier
    x: q.Along


class Posts(Part):
    """Posts under every rail of a rack, from base plates or outer feet up to the rails: an arch over a boat's
    deck, a frame that stands over a roof. ``grab_n``: somebody hanging on to a corner of it. ``joint_nm``:
    moment that a connector at their ends takes by its maker, nominal, and ``joint_n`` its pull along the
    tube; blank where they are welded or nobody says.
    """

    section: Section = RoundTube(diameter=Length(mm=42.4), wall=Length(mm=2.6))
    alloy: AlloyName = "1.4301"
    places: Annotated[tuple[Post, ...], Field(min_length=2, max_length=6)]
    grab_n: Annotated[float, Field(ge=0, le=5000)] = 1000.0
    joint_nm: Annotated[float, Field(ge=1, le=20_000)] | None = None
    joint_n: Annotated[float, Field(ge=50, le=200_000)] | None = None


LEAST_FOOT_MM = 6.0
"""A bar nearer to the roof than this dams water."""


class FootRow(Part):
    """A foot under every crossbar, y of its middle."""

    id: Identifier
    y: q.Across


class Crossbars(Part):
    """Bars across the roof under the rails of a rack, one at every so many members as ``every`` of the rack
    says, each on a foot in every row; they reach ``beyond`` the outermost. Rails sit on them between two
    angles.
    """

    section: Section = RectangularTube()
    alloy: AlloyName = "6060-T66"
    feet: Annotated[tuple[FootRow, ...], Field(min_length=2, max_length=4)]
    beyond: q.Clearance = Length(mm=60)

    @property
    def port_mm(self) -> float:
        return min(row.y.mm for row in self.feet) - self.beyond.mm

    @property
    def starboard_mm(self) -> float:
        return max(row.y.mm for row in self.feet) + self.beyond.mm


class Rack(OnRails):
    """Two or more rails along the roof with bars across them, on factory points, on feet at the members, or
    on ``posts``; panels lie on the bars.

    ``points``: rows of factory points that it stands on, none where it stands on feet; a rail stands on the
    row that is nearest to it. ``port`` and ``starboard``: ends of the bars. ``joint``: how a bar sits on a
    rail, by welding, by an angle on both sides, or by one bolt through both; ``angle_wall``:
    how thick those angles are; ``clamp``: of a round rail; ``throat``: of the welds, all round its corners
    and posts, blank where nobody says. ``flush``: bars lie between the rails, all in one
    plane, as a frame round the panels. ``own_rails``: the rails are the vehicle's, a
    truck bed's or a boat's, and nobody buys them. ``crossbars``: what the rails lie on instead of feet.
    """

    kind: Literal["rack"] = "rack"
    points: Annotated[tuple[Identifier, ...], Field(max_length=6)] = ()
    bars: Annotated[tuple[Crossbar, ...], Field(min_length=1, max_length=16)]
    port: q.Across
    starboard: q.Across
    bar_section: Section = RectangularTube()
    bar_alloy: AlloyName = "6060-T66"
    joint: JointKind = "angles"
    angle_wall: q.Sheet = Length(mm=6)
    clamp: TubeClamp = TubeClamp()
    throat: q.Sheet | None = None
    own_rails: bool = False
    flush: bool = False
    posts: Posts | None = None
    crossbars: Crossbars | None = None

    @model_validator(mode="after")
    def _crossbars_stand_on_feet_of_their_own(self) -> Rack:
        if self.crossbars is None:
            return self
        if self.points or self.posts or self.own_rails:
            problem = (
                "Crossbars stand on feet at the members, not on points, posts or the vehicle's own rails."
            )
            remedy = "Take the crossbars away, or what else the rack stands on."
        elif self.foot_mm < LEAST_FOOT_MM:
            problem = f"Under the crossbars less than {LEAST_FOOT_MM:.0f} mm are left for their feet."
            remedy = "Raise the rails, or take lower crossbars."
        else:
            return self
        raise PydanticCustomError("bad_input", "{problem}", {"problem": problem, "remedy": remedy})

    @model_validator(mode="after")
    def _only_feet_have_places_of_their_own(self) -> Rack:
        if self.feet_at and (self.points or self.posts):
            problem = "Feet at places of their own are not for a rack on points or posts: these say where."
            remedy = "Take the places of the feet away, or the points or posts."
            raise PydanticCustomError("bad_input", "{problem}", {"problem": problem, "remedy": remedy})
        return self

    @model_validator(mode="after")
    def _posts_stand_on_base_plates(self) -> Rack:
        if (self.posts is not None) != isinstance(self.hold, BasePlate | OuterFoot):
            raise PydanticCustomError(
                "bad_input",
                "{problem}",
                {
                    "problem": "Posts stand on base plates or outer feet, and nothing else does.",
                    "remedy": "Give both, posts and such a foot as the hold, or neither.",
                },
            )
        return self

    @model_validator(mode="after")
    def _flush_bars_end_at_the_rails(self) -> Rack:
        if self.flush and self.joint in ("bolt", "clamps"):
            raise PydanticCustomError(
                "bad_input",
                "{problem}",
                {
                    "problem": "Bars between the rails cannot be bolted or clamped across them.",
                    "remedy": "Join them by angles or by welding, or lay them over the rails.",
                },
            )
        return self

    @property
    def own_lines(self) -> tuple[str, ...]:
        """Its rails and bars by id; crossbars are named by their members."""
        return (*(rail.id for rail in self.rails), *(bar.id for bar in self.bars))

    @property
    def foot_mm(self) -> float:
        """Underside of what stands on the feet over the roof: of the crossbars where there are any."""
        return self.height.mm - (self.crossbars.section.height.mm if self.crossbars else 0.0)

    @property
    def on_feet(self) -> tuple[Section, AlloyName]:
        """What is bolted to the feet."""
        lowest = self.crossbars or self
        return lowest.section, lowest.alloy

    @property
    def top_mm(self) -> float:
        """Upper face of the bars over the roof: where the panels lie."""
        if self.flush:
            return self.height.mm + max(self.section.height.mm, self.bar_section.height.mm)
        return self.height.mm + self.section.height.mm + self.bar_section.height.mm

    @property
    def bar_under_mm(self) -> float:
        """Underside of the bars over the roof."""
        return self.top_mm - self.bar_section.height.mm

    @property
    def bar_axis_mm(self) -> float:
        """Middle of the bars over the roof."""
        return self.top_mm - self.bar_section.height.mm / 2


Carrier = Annotated[Rails | Rack, Field(discriminator="kind")]
