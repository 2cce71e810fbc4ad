"""Schools side by side: the layout held in each way there is, made to hold where that is possible."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any, Literal

from fahrtwind.core.choose.figures import highest_mm
from fahrtwind.core.choose.hold_all import hold_all
from fahrtwind.core.choose.hold_changes import OTHER_WAYS
from fahrtwind.core.choose.hold_search import FOOT_H, HOLE_H, PAD_H, RAIL_H
from fahrtwind.core.choose.look import Look
from fahrtwind.core.choose.spending import Spending, spending_of
from fahrtwind.core.edits import Edit, RemoveEntry, SetValue, apply_edits
from fahrtwind.core.engine.beside import apart, go_on
from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.errors import InputError
from fahrtwind.core.job.carrier import Rails
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import GLUED, PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.carriers.actions import (
    PutInFrame,
    PutOnRack,
    PutOnRails,
    points_on_both_sides,
    rows_of,
)
from fahrtwind.core.stations.layout.street import SeenFrom

HOLD_STATION = "hold"
NO_CHANGE_HELPS = frozenset(
    {
        "bar-over-obstacle",
        "bolts-need-access",
        "nut-in-closed-rib",
        "rail-over-obstacle",
        "tape-on-membrane",
        "tape-too-cold",
        "thin-skin",
    }
)
"""Stops of the place or of the roof itself: more and stronger parts take none of them away, so a way that has
one is told as it is.
"""


@dataclass(frozen=True, slots=True)
class Way:
    """A way to hold the whole layout. ``left``: what stays when it is taken off again (common practice)."""

    name: str
    title: str
    school: str
    carrier: Literal["", "rails", "rack", "frame", "crossed", "points"]
    left: str
    bond: Literal["foam tape", "adhesive"] = "foam tape"


WAYS = (
    Way("screws", "Screws into members", "screws", "", "holes, each to be closed with a patch"),
    Way("bolts", "Through-bolts", "bolts", "", "holes, and nuts reached from inside"),
    Way("tape", "Adhesive foam tape", "tape", "", "no hole; comes off with wire and heat"),
    Way("glued", "Elastic adhesive", "tape", "", "no hole; cut off with a wire", "adhesive"),
    Way("rails", "Rails on screws", "screws", "rails", "holes; panels can move along the rails"),
    Way("rack", "Rack on screws", "screws", "rack", "holes; panels can move along the bars"),
    Way("frame", "Frame round the panels", "screws", "frame", "holes; comes off as one piece"),
    Way("crossed", "Frame on crossbars", "screws", "crossed", "holes; comes off its crossbars as one piece"),
    Way("points", "Rack on factory points", "screws", "points", "nothing: it unbolts"),
)


@dataclass(frozen=True, slots=True)
class SchoolLine:
    """The layout held in one way. ``edits`` set it up; ``stops``: titles of the hold's stops that are left,
    with which it is refused. Speeds in m/s, hours in person-hours, ``wait_h`` until the road; ``spends``: on
    all that is bought, None while nothing is priced.
    """

    way: str
    title: str
    present: bool
    edits: tuple[Edit, ...]
    changes: tuple[str, ...]
    stops: tuple[str, ...]
    holes: int
    feet: int
    safe_m_s: float | None
    let_go_m_s: float | None
    lost_let_go_m_s: float | None
    parked_safe_m_s: float | None
    mass_kg: float
    height_mm: float
    seen: SeenFrom | None
    hours: float
    wait_h: float
    spends: Spending | None
    left_behind: str


def side_by_side(
    job: Job, show: Callable[[tuple[SchoolLine, ...]], None] = lambda found: None
) -> tuple[SchoolLine, ...]:
    """Every school on this layout; those that hold first, then by holes and work. ``show`` is told what there
    is whenever one more is worked out. Raises InputError where no panel is on the roof.
    """
    if not job.panels:
        raise InputError("No panel is on the roof.", remedy="Place panels first.", field="panels")
    ways = [w for w in WAYS if w.carrier != "points" or points_on_both_sides(job)]
    found: dict[int, SchoolLine] = {}
    lines: tuple[SchoolLine, ...] = ()
    for number, line in apart(partial(held_in, job), ways):
        found[number] = line
        there = (found[n] for n in sorted(found))
        lines = tuple(sorted(there, key=lambda s: (bool(s.stops), s.holes, s.hours)))
        missing = [way.title.lower() for n, way in enumerate(ways) if n not in found]
        go_on(len(found) / len(ways), ", ".join(missing[:1]))
        show(lines)
    return lines


def held_in(job: Job, way: Way) -> SchoolLine:
    """The layout held in one way, made to hold where that is possible."""
    begun = tuple(_set_up(job, way))
    before = Look(apply_edits(job, list(begun)))
    if any(s.severity == "stop" and s.id in NO_CHANGE_HELPS for s in before.near):
        return _told(job, before, way, begun, ())
    held = hold_all(before.job, without=(*OTHER_WAYS, "speed"))
    return _told(job, Look(held.job), way, (*begun, *held.edits), held.words)


def _set_up(job: Job, way: Way) -> list[Edit]:
    edits: list[Edit] = [RemoveEntry(path=f"carriers.{c.id}") for c in job.carriers]
    edits += [
        SetValue(path=f"panels.{p.id}.hold", value={"school": way.school, **_bonded(way)})
        for p in job.panels
        if p.hold.school != way.school or getattr(p.hold, "bond", way.bond) != way.bond
    ]
    everybody = tuple(p.id for p in job.panels)
    if way.carrier == "rails":
        edits.append(PutOnRails(panels=everybody))
    elif way.carrier == "points":
        edits.append(PutOnRack(panels=everybody, points=True))
    elif way.carrier:
        rows = [tuple(p.id for p in row) for row in rows_of(list(job.panels))]
        edits += [
            PutOnRack(panels=row, points=False)
            if way.carrier == "rack"
            else PutInFrame(panels=row, crossbars=way.carrier == "crossed")
            for row in rows
        ]
    return edits


def _bonded(way: Way) -> dict[str, Any]:
    return {**GLUED, "thickness": {"mm": GLUED["thickness"].mm}} if way.bond == "adhesive" else {}


def _told(job: Job, then: Look, way: Way, edits: tuple[Edit, ...], changes: tuple[str, ...]) -> SchoolLine:
    held, seen = then.job, then.seen
    plan, marks = seen.get("speeds"), seen["marks"]
    holes = sum(m.kind == "hole" for m in marks)
    pads = sum(m.kind == "pad" for m in marks)
    feet = len(seen["feet"])
    rails = sum(len(c.rails) for c in held.carriers)
    return SchoolLine(
        way=way.name,
        title=way.title,
        present=all(_way_of(job, p) == (way.carrier or _named(way)) for p in job.panels),
        edits=edits,
        changes=changes,
        stops=_stops(then.near),
        holes=holes,
        feet=feet,
        safe_m_s=plan.safe_m_s if plan else None,
        let_go_m_s=plan.let_go_m_s if plan else None,
        lost_let_go_m_s=plan.lost_let_go_m_s if plan else None,
        parked_safe_m_s=plan.parked_safe_m_s if plan else None,
        mass_kg=seen["roof_mass_kg"],
        height_mm=highest_mm(held.panels),
        seen=seen.get("seen"),
        hours=holes * HOLE_H + feet * FOOT_H + pads * PAD_H + rails * RAIL_H,
        wait_h=max((s.wait_h for s in seen["steps"]), default=0.0),
        spends=spending_of(seen),
        left_behind=way.left,
    )


def _named(way: Way) -> str:
    return "glued" if way.bond == "adhesive" else way.school


def _way_of(job: Job, panel: PlacedPanel) -> str:
    """How a panel is held now: its school, or the kind of what it lies on."""
    under = next((c for c in job.carriers if c.id == panel.carrier), None)
    if under is None:
        glued = getattr(panel.hold, "bond", "") == "adhesive"
        return "glued" if glued else panel.hold.school
    if isinstance(under, Rails):
        return "rails"
    if under.crossbars is not None:
        return "crossed"
    return "frame" if under.flush else "points" if under.points else "posts" if under.posts else "rack"


def _stops(snags: tuple[Snag, ...]) -> tuple[str, ...]:
    found = [s for s in snags if s.severity == "stop" and s.station == HOLD_STATION]
    return tuple(dict.fromkeys(s.title for s in found))
