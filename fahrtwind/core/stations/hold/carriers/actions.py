"""Putting panels on carriers and taking them off, and what follows from changing a carrier."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from math import ceil
from typing import Annotated, Literal, cast

from pydantic import Field

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.carrier import Carrier, Crossbar, Crossbars, FootRow, Post, Posts, Rack, Rail, Rails
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import JobEdit, with_lists
from fahrtwind.core.job.identifiers import identifier, next_number
from fahrtwind.core.job.panel import Attachment, PlacedPanel
from fahrtwind.core.job.part import Identifier
from fahrtwind.core.job.paths import entry_position
from fahrtwind.core.job.sections import RectangularTube, RoundTube
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.hold.carriers.rails import CLAMP_OUT_MM
from fahrtwind.core.stations.hold.schools import SCHOOLS
from fahrtwind.core.stations.hold.schools.lengths import fitted
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect, roof_rect
from fahrtwind.core.stations.layout.placing import spread_feet, usual_feet
from fahrtwind.core.stations.survey.factory_points import RowFit, fit_row

BEYOND_MM = 60.0
"""Rail beyond the outermost panel: room for an end clamp and its cap (common practice)."""
ONE_BAR_MM = 120.0
NEAR_SIDE = 0.1
"""Rails of an arch stand wide: a tenth in from the sides of the panels."""
BESIDE_MM = 5.0
"""Between the roof's edge and a post beside it."""
POST_TO_POST_MM, MOST_POSTS = 1200.0, 6
OUTSIDE_MM, EVERY_OTHER = 100.0, 2
"""Feet of crossbars beside a frame and off the roof's edge; one at every second member: common practice."""
ARCH_MM, FRAME_MM = 1100.0, 150.0
"""Rails over the deck of a boat, where people stand under them, and over a roof."""
IN_FROM_SIDE = 0.2
"""Rails lie a fifth in from the sides of the panels (common practice, and makers' usual clamping zone)."""


class PutOnRails(JobEdit):
    """Lay panels on rails along the roof: a pair of rails for each row of them, feet at every member."""

    op: Literal["put_on_rails"] = "put_on_rails"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]

    def apply(self, job: Job) -> Job:
        wanted = dict.fromkeys(self.panels)
        chosen = [job.panels[entry_position(job.panels, p, f"panels.{p}")] for p in wanted]
        number = next_number("carriers", [c.id for c in job.carriers])
        made = tuple(
            _rails(job, row, identifier("carriers", number + i)) for i, row in enumerate(rows_of(chosen))
        )
        lies_on = {panel.id: rails for rails, row in zip(made, rows_of(chosen), strict=True) for panel in row}
        panels = tuple(_laid_on(p, lies_on[p.id]) if p.id in lies_on else p for p in job.panels)
        kept = tuple(c for c in job.carriers if any(p.carrier == c.id for p in panels))
        return with_lists(job, {"carriers": (*kept, *made), "panels": panels})

    def words(self) -> str:
        return f"Put {len(self.panels)} panels on rails"


class PutOnRack(JobEdit):
    """Lay panels on a rack: two rails along the roof with bars across them, a pair under each panel. On the
    rows of factory points where there are such on both sides, else on feet at the members.
    """

    op: Literal["put_on_rack"] = "put_on_rack"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]
    points: bool = True

    def apply(self, job: Job) -> Job:
        return _put_on(job, self.panels, lambda job, chosen, name: rack_for(job, chosen, name, self.points))

    def words(self) -> str:
        return f"Put {len(self.panels)} panels on a rack"


class PutOnPosts(JobEdit):
    """Lay panels on a rack that stands on posts: an arch over a boat's deck, a frame over anything else; with
    ``outer`` on feet beside the roof, on the gutters or the chassis.
    """

    op: Literal["put_on_posts"] = "put_on_posts"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]
    outer: bool = False

    def apply(self, job: Job) -> Job:
        return _put_on(job, self.panels, self._stand)

    def _stand(self, job: Job, chosen: list[PlacedPanel], name: str) -> Rack:
        rack = arch_for(job, chosen, name)
        return _set_outside(job, rack) if self.outer else rack

    def words(self) -> str:
        return f"Put {len(self.panels)} panels on posts"


class PutInFrame(JobEdit):
    """Set a frame round panels: a rail under either side and a bar under either end of each, in one plane,
    on feet at the members; with ``crossbars`` on bars across the roof that have the feet.
    """

    op: Literal["put_in_frame"] = "put_in_frame"
    panels: Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=24)]
    crossbars: bool = False

    def apply(self, job: Job) -> Job:
        return _put_on(job, self.panels, self._set)

    def _set(self, job: Job, chosen: list[PlacedPanel], name: str) -> Rack:
        frame = frame_for(job, chosen, name)
        return _on_crossbars(job, frame) if self.crossbars else frame

    def words(self) -> str:
        on = " on crossbars" if self.crossbars else ""
        return f"Put a frame{on} round {len(self.panels)} panels"


def _put_on(job: Job, wanted: tuple[str, ...], made: Callable[[Job, list[PlacedPanel], str], Rack]) -> Job:
    """Panels laid on a new rack; what carries nothing any more goes."""
    chosen = [job.panels[entry_position(job.panels, p, f"panels.{p}")] for p in dict.fromkeys(wanted)]
    rack = made(job, chosen, identifier("carriers", next_number("carriers", [c.id for c in job.carriers])))
    panels = tuple(_laid_on(p, rack) if p.id in wanted else p for p in job.panels)
    kept = tuple(c for c in job.carriers if any(p.carrier == c.id for p in panels))
    return with_lists(job, {"carriers": (*kept, rack), "panels": panels})


def frame_for(job: Job, panels: list[PlacedPanel], name: str) -> Rack:
    """A frame of one tube round panels, with a bar under both ends of every panel; they lie on the inner edge
    of the rails, their clamps in the middle of these.
    """
    rack = rack_for(job, panels, name, on_points=False)
    rects = [panel_rect(p) for p in panels]
    half = rack.section.width.mm / 2
    sides = (min(r.y_mm for r in rects) - CLAMP_OUT_MM, max(r.y_end_mm for r in rects) + CLAMP_OUT_MM)
    bars: list[float] = []
    for x in sorted(x for r in rects for x in (r.x_mm + half, r.x_end_mm - half)):
        if not bars or x - bars[-1] > half:
            bars.append(x)
    own = {
        "name": f"Frame {name.lstrip('b')}",
        "start": Length(mm=min(r.x_mm for r in rects)),
        "end": Length(mm=max(r.x_end_mm for r in rects)),
        "rails": tuple(Rail(id=f"r{i}", y=Length(mm=y)) for i, y in enumerate(sides, start=1)),
        "bars": tuple(Crossbar(id=f"a{i}", x=Length(mm=x)) for i, x in enumerate(bars, start=1)),
        "port": Length(mm=sides[0] - half),
        "starboard": Length(mm=sides[1] + half),
        "flush": True,
    }
    return rack.model_copy(update=own)


def _on_crossbars(job: Job, frame: Rack) -> Rack:
    """The frame on bars across the roof, whose feet stand outside of it where there is roof."""
    roof, tube = roof_rect(job.vehicle), RectangularTube()
    inner, outer = frame.rails[0].y.mm, frame.rails[-1].y.mm
    low = inner - (0.0 if _beside(job, frame, inner) else OUTSIDE_MM)
    high = outer + (0.0 if _beside(job, frame, outer) else OUTSIDE_MM)
    if roof is not None:
        low = min(max(low, roof.y_mm + OUTSIDE_MM), inner)
        high = max(min(high, roof.y_end_mm - OUTSIDE_MM), outer)
    own = {
        "name": f"{frame.name} on crossbars",
        "height": Length(mm=frame.height.mm + tube.height.mm),
        "every": EVERY_OTHER,
        "crossbars": Crossbars(
            section=tube,
            feet=tuple(
                FootRow(id=identifier("feet", i), y=Length(mm=round(y)))
                for i, y in enumerate((low, high), start=1)
            ),
        ),
    }
    return frame.model_copy(update=own)


def _beside(job: Job, frame: Rack, y_mm: float) -> bool:
    """Whether another panel lies so near beside a rail of a frame that its feet would meet others."""
    strip = Rect(frame.start.mm, y_mm, frame.end.mm - frame.start.mm, 0.0).grown(0.0, 3 * OUTSIDE_MM)
    inside = Rect(frame.start.mm, frame.port.mm, strip.length_mm, frame.starboard.mm - frame.port.mm)
    rects = (panel_rect(p) for p in job.panels)
    return any(strip.clipped(r) and not inside.clipped(r) for r in rects)


def arch_for(job: Job, panels: list[PlacedPanel], name: str) -> Rack:
    """Posts under both ends of two rails, all of one stainless tube, welded."""
    rack = rack_for(job, panels, name, on_points=False)
    tube = RoundTube(diameter=Length(mm=42.4), wall=Length(mm=2.6))
    inward = min(BEYOND_MM, (rack.end.mm - rack.start.mm) / 4)
    boat = job.vehicle.kind == "boat"
    rects = [panel_rect(p) for p in panels]
    low, high = min(r.y_mm for r in rects), max(r.y_end_mm for r in rects)
    near = NEAR_SIDE * (high - low)
    own = {
        "rails": tuple(
            Rail(id=f"r{i}", y=Length(mm=round(y))) for i, y in enumerate((low + near, high - near), start=1)
        ),
        "section": tube,
        "bar_section": tube,
        "alloy": "1.4301",
        "bar_alloy": "1.4301",
        "joint": "welded",
        "name": f"{'Arch' if boat else 'Posts'} {name.lstrip('b')}",
        "height": Length(mm=ARCH_MM if boat else FRAME_MM),
        "posts": Posts(
            places=tuple(
                Post(id=identifier("places", i), x=Length(mm=x))
                for i, x in enumerate((rack.start.mm + inward, rack.end.mm - inward), start=1)
            )
        ),
        "hold": SCHOOLS["base_plate"].usual(job.units),
    }
    return rack.model_copy(update=own)


def _set_outside(job: Job, rack: Rack) -> Rack:
    """Its rails beyond the roof's edges, its posts on outer feet. Raises InputError without a roof."""
    roof = roof_rect(job.vehicle)
    if roof is None:
        raise InputError(
            "The roof has no size.", remedy="Type its length and width.", field="vehicle.roof_width"
        )
    tube = RectangularTube(height=Length(mm=60), width=Length(mm=40), wall=Length(mm=3))
    out = roof.width_mm / 2 + tube.width.mm / 2 + BESIDE_MM
    end = out + tube.width.mm / 2
    first, reach = rack.start.mm + BEYOND_MM, rack.end.mm - rack.start.mm - 2 * BEYOND_MM
    spans = min(max(ceil(reach / POST_TO_POST_MM), 1), MOST_POSTS - 1)
    posts = Posts(
        section=RectangularTube(),
        alloy="6082-T6",
        places=tuple(
            Post(id=identifier("places", i + 1), x=Length(mm=round(first + reach * i / spans)))
            for i in range(spans + 1)
        ),
        grab_n=0.0,
    )
    own = {
        "name": f"Outer frame {rack.id.lstrip('b')}",
        "rails": tuple(Rail(id=f"r{i}", y=Length(mm=y)) for i, y in enumerate((-out, out), start=1)),
        "port": Length(mm=-end),
        "starboard": Length(mm=end),
        "section": tube,
        "bar_section": tube,
        "alloy": "6082-T6",
        "bar_alloy": "6082-T6",
        "posts": posts,
        "hold": SCHOOLS["outer_foot"].usual(job.units),
    }
    return rack.model_copy(update=own)


def rack_for(job: Job, panels: list[PlacedPanel], name: str, on_points: bool) -> Rack:
    """A rack that fits under panels. Raises InputError where points are wanted and a side has none."""
    rects = [panel_rect(p) for p in panels]
    bars = _bars_under(rects)
    sides = _rows_of_points(job) if on_points else ()
    if on_points and len(sides) < 2:
        raise InputError(
            "There is no row of usable factory points on both sides.",
            remedy="Enter them under Survey, or let the rack stand on the members.",
            field="survey.point_rows",
        )
    outer = [min(r.y_mm for r in rects), max(r.y_end_mm for r in rects)]
    inward = IN_FROM_SIDE * (outer[1] - outer[0])
    across = [_mean(p.y_mm for p in row.points) for row in sides] or [outer[0] + inward, outer[1] - inward]
    start, end = _reach(job, panels, [p.x_mm for row in sides for p in row.points if p.usable])
    return Rack(
        id=name,
        name=f"Rack {name.lstrip('b')}",
        start=start,
        end=end,
        rails=tuple(Rail(id=f"r{i}", y=Length(mm=round(y))) for i, y in enumerate(across, start=1)),
        bars=tuple(Crossbar(id=f"a{i}", x=Length(mm=round(x))) for i, x in enumerate(bars, start=1)),
        port=Length(mm=round(min(*across, outer[0]) - BEYOND_MM)),
        starboard=Length(mm=round(max(*across, outer[1]) + BEYOND_MM)),
        points=tuple(row.row for row in sides),
        hold=_drilled_as(panels[0], job),
    )


def _reach(job: Job, panels: list[PlacedPanel], points: Sequence[float] = ()) -> tuple[Length, Length]:
    """From before the first panel or point to behind the last, as far as there is roof. Raises InputError
    where a panel lies off it altogether.
    """
    roof = roof_rect(job.vehicle) or Rect(0.0, -1500.0, 20_000.0, 3000.0)
    for panel in panels:
        rect = panel_rect(panel)
        if rect.x_end_mm <= roof.x_mm or rect.x_mm >= roof.x_end_mm:
            where = "before" if rect.x_mm < roof.x_mm else "behind"
            raise InputError(
                f"{panel.name} lies {where} the roof.",
                remedy="Move it onto the roof first.",
                field=f"panels.{panel.id}.x",
            )
    ends = [*points, *(x for r in map(panel_rect, panels) for x in (r.x_mm, r.x_end_mm))]
    first, last = max(min(ends) - BEYOND_MM, roof.x_mm), min(max(ends) + BEYOND_MM, roof.x_end_mm)
    return Length(mm=round(first)), Length(mm=round(last))


def _drilled_as(panel: PlacedPanel, job: Job) -> Attachment:
    """The panel's own hold for what it is to lie on, with fasteners as long as the roof wants them; screws
    instead of tape.
    """
    hold: Attachment = panel.hold
    if hold.school == "tape":
        hold = cast("Attachment", SCHOOLS["screws"].usual(job.units))
    return fitted(hold, job.vehicle, job.members, job.units)


def _mean(values: Iterable[float]) -> float:
    found = list(values)
    return sum(found) / len(found)


def _bars_under(rects: list[Rect]) -> list[float]:
    """Places of bars, a fifth in from either end of every panel; those that all but meet are one."""
    wanted = sorted(
        x
        for r in rects
        for x in (r.x_mm + IN_FROM_SIDE * r.length_mm, r.x_end_mm - IN_FROM_SIDE * r.length_mm)
    )
    bars: list[list[float]] = []
    for x in wanted:
        if bars and x - bars[-1][0] < ONE_BAR_MM:
            bars[-1].append(x)
        else:
            bars.append([x])
    return [_mean(together) for together in bars]


def points_on_both_sides(job: Job) -> bool:
    """Whether a rack can stand on factory points."""
    return len(_rows_of_points(job)) == 2


def _rows_of_points(job: Job) -> tuple[RowFit, ...]:
    """The outermost row of usable factory points on either side."""
    rows = [fit_row(r) for r in job.survey.point_rows]
    usable = sorted(
        (r for r in rows if sum(p.usable for p in r.points) >= 2),
        key=lambda r: _mean(p.y_mm for p in r.points),
    )
    across = [_mean(p.y_mm for p in row.points) for row in usable]
    return (usable[0], usable[-1]) if usable and across[0] < 0 < across[-1] else ()


def rows_of(panels: list[PlacedPanel]) -> list[list[PlacedPanel]]:
    """Panels that one pair of rails can carry: those that share the middle of their width."""
    rows: list[list[PlacedPanel]] = []
    for panel in sorted(panels, key=lambda p: p.y.mm):
        fitting = next((row for row in rows if _common([*row, panel]) is not None), None)
        if fitting is None:
            rows.append([panel])
        else:
            fitting.append(panel)
    return rows


def _common(row: list[PlacedPanel]) -> tuple[float, float] | None:
    """Where two rails may lie under all panels of a row, mm; None where they have too little in common."""
    rects = [panel_rect(p) for p in row]
    low = max(r.y_mm + IN_FROM_SIDE * r.width_mm for r in rects)
    high = min(r.y_end_mm - IN_FROM_SIDE * r.width_mm for r in rects)
    return (low, high) if high - low >= min(r.width_mm for r in rects) / 3 else None


def _rails(job: Job, row: list[PlacedPanel], name: str) -> Rails:
    low_high = _common(row)
    if low_high is None:  # one panel always has room for its own rails
        raise InputError("These panels share no rails.", remedy="Choose panels of one row.", field="panels")
    start, end = _reach(job, row)
    return Rails(
        id=name,
        name=f"Rails {name.lstrip('b')}",
        start=start,
        end=end,
        rails=tuple(Rail(id=f"r{i}", y=Length(mm=round(y))) for i, y in enumerate(low_high, start=1)),
        hold=_drilled_as(row[0], job),
    )


def _laid_on(panel: PlacedPanel, carrier: Carrier) -> PlacedPanel:
    lying = {"carrier": carrier.id, "feet": (), "stand_off": Length(mm=carrier.top_mm)}
    return panel.model_copy(update=lying)


def carriers_follow(job: Job, path: str) -> Job:
    """After an edit at ``path``: panels lie as high as their carrier, and stand on feet again where it is
    gone.
    """
    if not path.startswith(("carriers", "panels")):
        return job
    named = {c.id: c for c in job.carriers}
    panels = tuple(_follows(job, panel, named) for panel in job.panels)
    if all(a is b for a, b in zip(panels, job.panels, strict=True)):
        return job
    return with_lists(job, {"panels": panels})


def _follows(job: Job, panel: PlacedPanel, named: dict[str, Carrier]) -> PlacedPanel:
    if panel.carrier is None:
        return panel
    carrier = named.get(panel.carrier)
    if carrier is None:
        feet = spread_feet(job, panel.id, usual_feet(panel.model), "sides")
        return panel.model_copy(update={"carrier": None, "feet": feet})
    if panel.stand_off.mm == carrier.top_mm and not panel.feet:
        return panel
    return _laid_on(panel, carrier)
