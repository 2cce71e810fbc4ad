"""Who stands on the roof: panels on feet of their own, carriers on theirs, and the anchors of tethers."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from fahrtwind.core.job.carrier import Carrier, FootRow, Rack, Rail
from fahrtwind.core.job.document import Members
from fahrtwind.core.job.panel import Holding, PlacedPanel, SpanBars
from fahrtwind.core.job.tether import Tether
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.feet import ENDS_OF, FootPlace, landing_of
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.stations.survey.factory_points import RowFit


@dataclass(frozen=True, slots=True)
class BarRun:
    """A bar along the roof from its first to its last member, mm, and the feet that it carries."""

    first_mm: float
    last_mm: float
    y_mm: float
    feet_mm: tuple[float, ...]
    ends_mm: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Holder:
    """Something with feet on the roof, and how they hold. ``path`` is its job path."""

    id: str
    name: str
    path: str
    hold: Holding
    feet: tuple[FootPlace, ...]
    bars: tuple[BarRun, ...] = ()
    """Bars from member to member, whose ends are its feet."""

    @property
    def hold_path(self) -> str:
        """The job path of how it holds: bars are held by their ends."""
        return f"{self.path}.ends" if self.path.endswith(".span") else f"{self.path}.hold"

    def place(self, foot: FootPlace) -> str:
        """The job path at which a foot is changed: only a panel's own feet are set one by one."""
        own = self.path == f"panels.{self.id}"
        return f"{self.path}.feet.{foot.foot}" if own else self.path


def holders_of(
    panels: tuple[PlacedPanel, ...],
    carriers: tuple[Carrier, ...],
    tethers: tuple[Tether, ...],
    feet: tuple[FootPlace, ...],
) -> tuple[Holder, ...]:
    """Panels that lie on no carrier, all carriers and all tethers, each with the feet that it holds to the
    roof: none on factory points or on bars, where nothing is drilled or stuck; and the ends of such bars.
    """
    standing = [p for p in panels if p.carrier is None]
    return (
        *(Holder(p.id, p.name, f"panels.{p.id}", p.hold, _own(feet, p.id)) for p in standing),
        *(_bars_of(p, p.span, feet) for p in standing if p.span is not None),
        *(Holder(c.id, c.name, f"carriers.{c.id}", c.hold, _own(feet, c.id)) for c in carriers),
        *(Holder(t.id, t.name, f"tethers.{t.id}", t.hold, _own(feet, t.id)) for t in tethers),
    )


def _bars_of(panel: PlacedPanel, span: SpanBars, feet: tuple[FootPlace, ...]) -> Holder:
    name = f"{panel.id}{ENDS_OF}"
    ends = _own(feet, name)
    bars = []
    for side in dict.fromkeys(round(e.y_mm) for e in ends):
        at, carried = [e.x_mm for e in ends if round(e.y_mm) == side], _on_bars(feet, panel.id, side)
        for first, last in _runs(at, carried):
            on = tuple(x for x in carried if first <= x <= last)
            held = tuple(sorted({x for x in at if first <= x <= last}))
            bars.append(BarRun(first, last, float(side), on, held))
    return Holder(name, f"{panel.name}, bars", f"panels.{panel.id}.span", span.ends, ends, tuple(bars))


def _on_bars(feet: tuple[FootPlace, ...], panel: str, side: int) -> list[float]:
    return [f.x_mm for f in feet if f.panel == panel and f.landing == "bar" and round(f.y_mm) == side]


def _runs(ends: list[float], feet: list[float]) -> Iterator[tuple[float, float]]:
    """Bars that meet at a member are one: from the first to the last end of every row without a gap."""
    first: float | None = None
    for front, rear in pairwise(sorted(ends)):
        carries = any(front <= x < rear for x in feet)
        if carries and first is None:
            first = front
        if first is not None and not carries:
            yield first, front
            first = None
    if first is not None:
        yield first, max(ends)


def fastened(holders: tuple[Holder, ...]) -> Iterator[FootPlace]:
    """Feet that something is drilled or stuck for."""
    return (foot for holder in holders for foot in holder.feet)


def _own(feet: tuple[FootPlace, ...], holder: str) -> tuple[FootPlace, ...]:
    return tuple(f for f in feet if f.panel == holder and f.landing not in ("point", "bar"))


def carrier_feet(
    carrier: Carrier, ribs: Members, members: tuple[Member, ...], rows: tuple[RowFit, ...]
) -> tuple[FootPlace, ...]:
    """A foot under each rail at every so many members between its ends, the first and the last always, or at
    the places it has of its own; or there in each row under a crossbar; or at every point that can be used of
    the row nearest to the rail; or under each post.
    """
    if isinstance(carrier, Rack) and carrier.points:
        return tuple(f for rail in carrier.rails for f in _on_points(carrier, rail, rows))
    if isinstance(carrier, Rack) and carrier.posts:
        return tuple(_on_posts(carrier))
    crossbars = carrier.crossbars if isinstance(carrier, Rack) else None
    standing = _standing(carrier, members)
    named = (
        [(f"{rail.id}{at.name}", rail.id, rail, at) for rail in carrier.rails for at in standing]
        if crossbars is None
        else [(f"k{at.tag}{row.id}", f"k{at.tag}", row, at) for at in standing for row in crossbars.feet]
    )
    return tuple(_foot(carrier, names, across, at, ribs) for *names, across, at in named)


@dataclass(frozen=True, slots=True)
class _Standing:
    """Where feet stand along the roof, mm, and the member that is nearest. ``tag``: its number or its id."""

    name: str
    tag: str
    x_mm: float
    member: Member | None


def _standing(carrier: Carrier, members: tuple[Member, ...]) -> list[_Standing]:
    if carrier.feet_at:
        own = sorted(carrier.feet_at, key=lambda at: at.x.mm)
        return [_Standing(at.id, at.id, at.x.mm, _nearest(members, at.x.mm)) for at in own]
    under = [m for m in members if carrier.start.mm <= m.x_mm <= carrier.end.mm]
    kept = [m for i, m in enumerate(under) if i % carrier.every == 0 or i == len(under) - 1]
    return [_Standing(f"m{m.number}", str(m.number), m.x_mm, m) for m in kept]


def _nearest(members: tuple[Member, ...], x_mm: float) -> Member | None:
    return min(members, key=lambda m: abs(m.x_mm - x_mm), default=None)


def _foot(
    carrier: Carrier, names: list[str], across: Rail | FootRow, at: _Standing, ribs: Members
) -> FootPlace:
    """``names``: of the foot, and of what stands on it."""
    return FootPlace(
        panel=carrier.id,
        foot=names[0],
        x_mm=at.x_mm,
        y_mm=across.y.mm,
        along_mm=at.x_mm - carrier.start.mm,
        moved_mm=0.0,
        member=at.member.number if at.member else None,
        off_mm=at.x_mm - at.member.x_mm if at.member else None,
        landing=landing_of(ribs, carrier.hold, at.x_mm, at.member),
        side="port" if across.y.mm < 0 else "starboard",
        line=names[1],
    )


def _on_posts(rack: Rack) -> Iterator[FootPlace]:
    for rail in rack.rails:
        for post in rack.posts.places if rack.posts else ():
            yield FootPlace(
                panel=rack.id,
                foot=f"{rail.id}{post.id}",
                x_mm=post.x.mm,
                y_mm=rail.y.mm,
                along_mm=post.x.mm - rack.start.mm,
                moved_mm=0.0,
                member=None,
                off_mm=None,
                landing="deck",
                side="port" if rail.y.mm < 0 else "starboard",
                line=rail.id,
            )


def row_of(rack: Rack, rail: Rail, rows: tuple[RowFit, ...]) -> RowFit | None:
    """The row of points that a rail stands on: of those the rack uses, the nearest to the rail."""
    used = [r for r in rows if r.row in rack.points and r.points]
    return min(used, key=lambda r: abs(_middle(r) - rail.y.mm), default=None)


def _middle(row: RowFit) -> float:
    return sum(p.y_mm for p in row.points) / len(row.points)


def _on_points(rack: Rack, rail: Rail, rows: tuple[RowFit, ...]) -> Iterator[FootPlace]:
    row = row_of(rack, rail, rows)
    for point in row.points if row else ():
        if point.usable and rack.start.mm <= point.x_mm <= rack.end.mm:
            yield FootPlace(
                panel=rack.id,
                foot=f"{rail.id}n{point.count + 1}",
                x_mm=point.x_mm,
                y_mm=point.y_mm,
                along_mm=point.x_mm - rack.start.mm,
                moved_mm=0.0,
                member=None,
                off_mm=None,
                landing="point",
                side="port" if rail.y.mm < 0 else "starboard",
                row=point.row,
                line=rail.id,
            )
