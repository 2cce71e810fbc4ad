"""Where the feet of a panel stand, and what is under them."""

from __future__ import annotations

from itertools import combinations, islice, pairwise
from typing import Literal

from fahrtwind.core.job.document import Members
from fahrtwind.core.job.panel import Foot, Holding, PlacedPanel, Side
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.quantities import Length
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.tables.feet import EDGE_DISTANCE_DIAMETERS

ANCHOR, ENDS_OF = "anchor", "-ends"
"""What an anchor is called, and what the holder of a panel's bars adds to its id."""
LEAST_OUT_MM, FURTHEST_OUT_MM = 40, 450
FURTHEST_MOVE_MM, MOST_SPREADS = 150, 3000
SURE_MEMBER = 0.85
"""A member less likely than this, over all spacings the readings allow, carries no foot for certain."""
Landing = Literal["member", "perhaps", "skin", "unknown", "rail", "point", "deck", "bar"]


@dataclass(frozen=True, slots=True)
class FootPlace:
    """A foot on the roof. ``off_mm`` is its distance aft of the nearest member (negative: in front of it).
    ``row``: of factory points, where it stands on one. ``line``: the rail or crossbar that stands on it, or
    the bar that a clamp sits on. ``planned_…``: where it was to stand, of one that was built.
    """

    panel: str
    foot: str
    x_mm: float
    y_mm: float
    along_mm: float
    moved_mm: float
    member: int | None
    off_mm: float | None
    landing: Landing
    side: Side
    row: str | None = None
    planned_x_mm: float | None = None
    planned_y_mm: float | None = None
    line: str = ""

    @property
    def on_side(self) -> bool:
        """At a long side of the vehicle, so that its row of fasteners runs along the bracket's lever."""
        return self.side in ("port", "starboard")


def place_feet(ribs: Members, panel: PlacedPanel, members: tuple[Member, ...]) -> tuple[FootPlace, ...]:
    """Put every foot of a panel on the plan; feet on the sides snap along the frame to a member of their own.

    Feet on the front and rear side cannot move along the roof, so they are only told how far off they are.
    """
    rect = panel_rect(panel)
    along = {f.id: _within_frame(panel, f, rect) for f in panel.feet}
    for side in ("port", "starboard"):
        free = {f.id: along[f.id] for f in panel.feet if f.side == side and not f.pinned}
        along |= _snapped(free, rect, panel.hold.bracket.length.mm / 2, members)
    return tuple(_place(ribs, panel, foot, rect, along[foot.id], members) for foot in panel.feet)


def _within_frame(panel: PlacedPanel, foot: Foot, rect: Rect) -> float:
    run = rect.length_mm if foot.side in ("port", "starboard") else rect.width_mm
    end = min(panel.hold.bracket.length.mm / 2, run / 2)
    return min(max(foot.along.mm, end), run - end)


def _snapped(free: dict[str, float], rect: Rect, end: float, members: tuple[Member, ...]) -> dict[str, float]:
    """Give the feet of a side members of their own that the frame reaches: those that spread them best, in
    the feet's order.

    Best is the least stretch of frame that any one foot has to carry; among equals the least way from where
    the feet were put.
    """
    reach = sorted(m.x_mm - rect.x_mm for m in members if end <= m.x_mm - rect.x_mm <= rect.length_mm - end)
    feet = sorted(free.items(), key=lambda item: item[1])
    if not reach or not feet:
        return {}
    if len(reach) <= len(feet):
        return _nearest(feet, reach)
    options = list(islice(combinations(reach, len(feet)), MOST_SPREADS))
    best = min(
        options,
        key=lambda at: (
            _carried(at, rect.length_mm),
            sum((x - f) ** 2 for x, (_, f) in zip(at, feet, strict=True)),
        ),
    )
    return {foot: x for (foot, _), x in zip(feet, best, strict=True)}


def _nearest(feet: list[tuple[str, float]], reach: list[float]) -> dict[str, float]:
    """Nearest pairs first, one foot to a member: where there are no members to choose from."""
    pairs = sorted((abs(at - along), foot, at) for foot, along in feet for at in reach)
    placed: dict[str, float] = {}
    for _, foot, at in pairs:
        if foot not in placed and at not in placed.values():
            placed[foot] = at
    return placed


def _carried(at: tuple[float, ...], length_mm: float) -> int:
    """The longest stretch of frame that one foot carries, to whole centimetres, so that hairs do not
    decide.
    """
    middles = [0.0, *((a + b) / 2 for a, b in pairwise(at)), length_mm]
    return round(max(b - a for a, b in pairwise(middles)) / 10)


def _place(
    ribs: Members, panel: PlacedPanel, foot: Foot, rect: Rect, along: float, members: tuple[Member, ...]
) -> FootPlace:
    x, y = _on_plan(foot.side, rect, along, panel.hold.bracket.lever.mm)
    nearest = min(members, key=lambda m: abs(m.x_mm - x), default=None)
    return FootPlace(
        panel=panel.id,
        foot=foot.id,
        x_mm=x,
        y_mm=y,
        along_mm=along,
        moved_mm=along - foot.along.mm,
        member=nearest.number if nearest else None,
        off_mm=x - nearest.x_mm if nearest else None,
        landing=_landing(ribs, panel, x, nearest, members),
        side=foot.side,
    )


def _landing(
    ribs: Members, panel: PlacedPanel, x: float, nearest: Member | None, members: tuple[Member, ...]
) -> Landing:
    """On a bar where the panel has such and members stand on both sides."""
    landing = landing_of(ribs, panel.hold, x, nearest)
    between = min((m.x_mm for m in members), default=x) < x < max((m.x_mm for m in members), default=x)
    return "bar" if panel.span and between and landing in ("skin", "perhaps") else landing


def place_ends(
    ribs: Members, panel: PlacedPanel, feet: tuple[FootPlace, ...], members: tuple[Member, ...]
) -> tuple[FootPlace, ...]:
    """Where the bars under a panel's feet are held: in the member before and in the one behind; bars that
    meet at one member are one bar there.
    """
    if panel.span is None:
        return ()
    found: dict[tuple[int, int], FootPlace] = {}
    for foot in (f for f in feet if f.landing == "bar"):
        before = max((m for m in members if m.x_mm <= foot.x_mm), key=lambda m: m.x_mm)
        behind = min((m for m in members if m.x_mm > foot.x_mm), key=lambda m: m.x_mm)
        for end, member in (("a", before), ("b", behind)):
            landing = landing_of(ribs, panel.span.ends, member.x_mm, member)
            place = replace(
                foot,
                panel=f"{panel.id}{ENDS_OF}",
                foot=f"{foot.foot}{end}",
                x_mm=member.x_mm,
                member=member.number,
                off_mm=0.0,
                landing=landing,
            )
            found.setdefault((member.number, round(foot.y_mm)), place)
    return tuple(found.values())


def _on_plan(side: Side, rect: Rect, along: float, lever: float) -> tuple[float, float]:
    match side:
        case "port":
            return rect.x_mm + along, rect.y_mm - lever
        case "starboard":
            return rect.x_mm + along, rect.y_end_mm + lever
        case "front":
            return rect.x_mm - lever, rect.y_mm + along
        case _:
            return rect.x_end_mm + lever, rect.y_mm + along


def place_anchor(ribs: Members, tether: Tether, panel: PlacedPanel, members: tuple[Member, ...]) -> FootPlace:
    """Where the anchor of a tether stands: it follows its panel. It snaps to a member: at the sides along the
    frame, at the ends out to the next one.
    """
    rect = panel_rect(panel)
    along, out = _snapped_anchor(tether, rect, () if tether.pinned else members)
    x, y = _on_plan(tether.side, rect, along, out)
    nearest = min(members, key=lambda m: abs(m.x_mm - x), default=None)
    return FootPlace(
        panel=tether.id,
        foot=ANCHOR,
        x_mm=x,
        y_mm=y,
        along_mm=along,
        moved_mm=along - tether.along.mm,
        member=nearest.number if nearest else None,
        off_mm=x - nearest.x_mm if nearest else None,
        landing=landing_of(ribs, tether.hold, x, nearest),
        side=tether.side,
    )


def _snapped_anchor(tether: Tether, rect: Rect, members: tuple[Member, ...]) -> tuple[float, float]:
    """Along the frame, and out from it, mm."""
    out, xs = tether.out.mm, [m.x_mm for m in members]
    if tether.side in ("port", "starboard"):
        along = min(max(tether.along.mm, 0.0), rect.length_mm)
        beside = [x - rect.x_mm for x in xs if rect.x_mm <= x <= rect.x_end_mm]
        return min(beside, key=lambda at: abs(at - along), default=along), out
    beyond = [rect.x_mm - x if tether.side == "front" else x - rect.x_end_mm for x in xs]
    near = (b for b in beyond if LEAST_OUT_MM <= b <= FURTHEST_OUT_MM)
    return min(max(tether.along.mm, 0.0), rect.width_mm), min(near, key=lambda b: abs(b - out), default=out)


def frame_holes_mm(panel: PlacedPanel) -> tuple[float, ...]:
    """Where a frame's mounting holes may lie along its sides: nobody knows from which end the sheet
    counts.
    """
    run = panel_rect(panel).length_mm
    return () if panel.turned else tuple(at for h in panel.model.holes for at in (h.mm, run - h.mm))


def off_holes(panel: PlacedPanel, feet: tuple[FootPlace, ...]) -> list[str]:
    """Feet along the sides whose bracket covers none of the frame's mounting holes; none where the sheet
    tells no holes.
    """
    holes, reach = frame_holes_mm(panel), panel.hold.bracket.length.mm / 2
    return [
        f.foot
        for f in feet
        if holes and f.panel == panel.id and f.on_side and min(abs(f.along_mm - h) for h in holes) > reach
    ]


def move_onto_holes_mm(ribs: Members, panel: PlacedPanel, members: tuple[Member, ...]) -> float | None:
    """The least way along the roof after which feet snap to members under holes of the frame; None where
    there is none.
    """
    ways = {round(m.x_mm - panel.x.mm - hole) for m in members for hole in frame_holes_mm(panel)}
    for way in sorted((w for w in ways if abs(w) <= FURTHEST_MOVE_MM), key=abs):
        moved = panel.model_copy(update={"x": Length(mm=panel.x.mm + way)})
        feet = place_feet(ribs, moved, members)
        if not off_holes(moved, feet) and all(
            f.off_mm is not None and abs(f.off_mm) < 1 for f in feet if f.on_side
        ):
            return float(way)
    return None


def foot_base(hold: Holding, place: FootPlace) -> Rect:
    """What a foot covers of the roof: its bracket's base, from the frame to the edge of its toe, or its pad
    where that is larger.
    """
    bracket, side = hold.bracket, place.side
    out, along = bracket.lever.mm + bracket.toe.mm, bracket.length.mm
    before = bracket.toe.mm if side in ("port", "front") else bracket.lever.mm
    if hold.pad_mm is not None:
        length, width = hold.pad_mm
        out, along, before = max(out, width), max(along, length), max(before, width / 2)
    if side in ("port", "starboard"):
        return Rect(place.x_mm - along / 2, place.y_mm - before, along, out)
    return Rect(place.x_mm - before, place.y_mm - along / 2, out, along)


def member_margin_mm(ribs: Members, hold: Holding) -> float:
    """How far from a member's middle a fastener may stand and still have its edge distance in the face; 0
    where no face is known.
    """
    face = ribs.face_width
    return 0.0 if face is None else face.mm / 2 - EDGE_DISTANCE_DIAMETERS * hold.fastener_mm


def landing_of(ribs: Members, hold: Holding, x_mm: float, nearest: Member | None) -> Landing:
    """A foot counts as in the member only if the fastener's edge distance holds with the 95 % band taken off,
    and the member is sure.
    """
    if nearest is None or ribs.face_width is None:
        return "unknown"
    margin = member_margin_mm(ribs, hold)
    off = abs(x_mm - nearest.x_mm)
    if off + 1.96 * nearest.sigma_mm <= margin and nearest.confidence >= SURE_MEMBER:
        return "member"
    return "perhaps" if off - 1.96 * nearest.sigma_mm <= margin else "skin"
