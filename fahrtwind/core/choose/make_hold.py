"""Make it hold: the least changes that bring a panel over the speed that is driven, and over the gusts at its
site, each worked out before it is offered.

Changes are tried alone first, then two and three together, gentlest first; what needs fewer new holes, less
work and less height stands first. Only the panel's own verdict is worked out while searching; what is offered
has been evaluated whole and brings no new stop.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import combinations

from fahrtwind.core.edits import Edit, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.engine.stage import Visit
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.evaluate import Evaluation, evaluate, visit
from fahrtwind.core.job.carrier import Posts, Rack
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import BasePlate, Drilled, FoamTape, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.stations.hold.carriers.actions import PutOnRails
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.hold.rules import STANDS_IN_WIND
from fahrtwind.core.stations.hold.verdict import FASTEST_M_S, PanelVerdict

FEWEST_FEET, MOST_FEET, MOST_FASTENERS, MOST_OFFERS = 4, 12, 4, 4
HOLE_H, FOOT_H, PAD_H, RAIL_H, FAIRING_H = 0.15, 0.2, 0.3, 0.5, 1.5
"""Person-hours for a hole drilled and sealed, a foot set, a pad prepared and pressed, a rail laid, a fairing
made: common practice, no source.
"""
PLATES_MM, POSTS_MM, MOST_CLAMP_BOLTS = (10.0, 12.0), (48.3, 60.3), 4
FRAME_BOLTS = ("M8", "M10")
PADS_MM = ((120.0, 60.0), (150.0, 75.0), (200.0, 100.0))
SCREWS_UP, BOLTS_UP = ("#12", "#14"), ("M8", "M10")
WASHERS_MM = (40.0, 60.0)
HOLDING = (
    "let-go-too-low",
    "safe-speed-too-low",
    "parked-lets-go",
    "parked-not-safe",
    "panel-over-its-rating",
)


@dataclass(frozen=True, slots=True)
class HoldOffer:
    """A change that makes a panel hold: what it does, its speeds then, and what it takes. ``holes``: more
    than before, negative where fewer; ``hours``: person-hours of the new hold.
    """

    words: str
    edits: tuple[Edit, ...]
    safe_m_s: float
    let_go_m_s: float
    lost_let_go_m_s: float
    parked_safe_m_s: float
    holes: int
    feet: int
    height_mm: float
    hours: float


@dataclass(frozen=True, slots=True)
class PanelOffers:
    """What would make one panel hold, the least first; ``why`` where nothing that is known here does."""

    panel: str
    name: str
    offers: tuple[HoldOffer, ...]
    why: str


@dataclass(frozen=True, slots=True)
class MadeToHold:
    """Panels that do not hold as they are, each with its offers; empty where all hold."""

    panels: tuple[PanelOffers, ...]


@dataclass(frozen=True, slots=True)
class _Change:
    """A change of one kind, so that two of a kind are not combined. ``burden``: the gentler the less."""

    kind: str
    words: str
    edits: tuple[Edit, ...]
    burden: float


def make_hold(job: Job) -> MadeToHold:
    """Offers for every panel that does not hold at the speed that is driven or at its site."""
    before = evaluate(job)
    failing = [p for p in job.panels if _fails(before, p)]
    found: list[PanelOffers] = []
    of_carrier: dict[str, PanelOffers] = {}  # what lies on one carrier is held by the same changes
    for number, panel in enumerate(failing):
        go_on(number / len(failing), f"{panel.name} …")
        known = of_carrier.get(panel.carrier or "")
        offers = _offers(job, before, panel) if known is None else known
        if panel.carrier is not None:
            of_carrier.setdefault(panel.carrier, offers)
        found.append(replace(offers, panel=panel.id, name=panel.name))
    return MadeToHold(tuple(found))


def _fails(evaluation: Evaluation, panel: PlacedPanel) -> bool:
    """Whether the panel, or the carrier that it lies on, has a stop of the hold."""
    mine = {f"panels.{panel.id}", f"carriers.{panel.carrier}"}
    return any(
        s.severity == "stop"
        and s.station == "hold"
        and ".".join(s.place.split(".")[:2]) in mine
        and (s.id in HOLDING or s.id.startswith("carrier"))
        for s in evaluation.snags
    )


def _offers(job: Job, before: Evaluation, panel: PlacedPanel) -> PanelOffers:
    changes = sorted(_changes(job, panel), key=lambda c: c.burden)
    found: list[HoldOffer] = []
    nearest = 0.0
    for together in (1, 2, 3):
        ways = sorted(combinations(changes, together), key=lambda way: sum(c.burden for c in way))
        for way in ways:
            if len({c.kind for c in way}) < together or len(found) >= MOST_OFFERS:
                continue
            go_on()
            reached, offer = _tried(job, before, panel, way)
            nearest = max(nearest, reached)
            if offer is not None:
                found.append(offer)
        if found:
            break
    why = "" if found else _why(nearest, job)
    return PanelOffers(panel.id, panel.name, tuple(sorted(found, key=_rank)), why)


def _why(nearest_m_s: float, job: Job) -> str:
    driven = job.vehicle.top_speed.m_s if job.vehicle.top_speed else 0.0
    if nearest_m_s >= driven:
        return (
            "The road would be held, a storm where it stands would not: another place, or drive away from it."
        )
    return "No fastener, number of feet or rail that is known here is enough: a smaller panel, or slower."


def _rank(offer: HoldOffer) -> tuple[float, ...]:
    return (max(offer.holes, 0), round(offer.hours, 1), offer.height_mm, -offer.safe_m_s)


def _tried(
    job: Job, before: Evaluation, panel: PlacedPanel, way: tuple[_Change, ...]
) -> tuple[float, HoldOffer | None]:
    """The safe speed that is reached on the road, m/s, and the offer where all is held."""
    edits = tuple(e for change in way for e in change.edits)
    try:
        after = apply_edits(job, list(edits))
    except FahrtwindError:
        return 0.0, None
    changed = next(p for p in after.panels if p.id == panel.id)
    seen = visit(after)
    verdict = seen.of("verdict", changed)
    if not isinstance(verdict, PanelVerdict):
        return 0.0, None
    reached = min(verdict.safe_m_s, _under(after, changed, seen))
    needed = job.vehicle.top_speed.m_s if job.vehicle.top_speed else 0.0
    if reached < needed or (changed.carrier is None and not _stands(verdict, job)):
        return reached, None
    whole = evaluate(after)
    if _fails(whole, changed) or not _stops(whole) <= _stops(before):
        return reached, None
    return reached, _offer(way, edits, before, whole, changed)


def _under(job: Job, panel: PlacedPanel, seen: Visit) -> float:
    """Safe speed of what the panel lies on, m/s; no limit where it stands on feet of its own."""
    if panel.carrier is None:
        return FASTEST_M_S
    carrier = next(c for c in job.carriers if c.id == panel.carrier)
    told = seen.of("carrier_verdict", carrier)
    return told.safe_m_s if isinstance(told, CarrierVerdict) else 0.0


def _stands(verdict: PanelVerdict, job: Job) -> bool:
    parked = verdict.parked
    bears = parked.safe_m_s if job.vehicle.kind in STANDS_IN_WIND else parked.let_go_m_s
    return bears >= parked.gust_m_s


def _stops(evaluation: Evaluation) -> set[tuple[str, str]]:
    return {(s.id, ".".join(s.place.split(".")[:2])) for s in evaluation.snags if s.severity == "stop"}


def _offer(
    way: tuple[_Change, ...],
    edits: tuple[Edit, ...],
    before: Evaluation,
    whole: Evaluation,
    panel: PlacedPanel,
) -> HoldOffer:
    verdict = next(v for v in whole.findings.verdicts if v.panel == panel.id)
    under = next((c for c in whole.findings.carriers if c.carrier == panel.carrier), None)
    parts: list[PanelVerdict | CarrierVerdict] = [verdict] if under is None else [verdict, under]
    holder = panel.carrier or panel.id
    feet = [f for f in whole.findings.feet if f.panel == holder]
    marks = [m for m in whole.findings.marks if m.panel == holder]
    holes = sum(m.kind == "hole" for m in marks)
    return HoldOffer(
        words=", ".join(c.words for c in way),
        edits=edits,
        safe_m_s=min(p.safe_m_s for p in parts),
        let_go_m_s=min(p.let_go_m_s for p in parts),
        lost_let_go_m_s=min(p.lost_let_go_m_s for p in parts),
        parked_safe_m_s=min(p.parked.safe_m_s for p in parts),
        holes=_holes(whole) - _holes(before),
        feet=len(feet),
        height_mm=panel.stand_off.mm + panel.model.frame_height.mm,
        hours=holes * HOLE_H
        + len(feet) * FOOT_H
        + sum(m.kind == "pad" for m in marks) * PAD_H
        + (len(under.rails) * RAIL_H if under else 0.0)
        + any(c.kind == "fairing" for c in way) * FAIRING_H,
    )


def _holes(evaluation: Evaluation) -> int:
    return sum(m.kind == "hole" for m in evaluation.findings.marks)


def _changes(job: Job, panel: PlacedPanel) -> Iterator[_Change]:
    """All that may be changed, one kind at a time."""
    if panel.carrier is not None:
        yield from _of_carrier(job, panel.carrier)
        return
    path, hold = f"panels.{panel.id}.hold", panel.hold
    sides = "sides" if all(f.side in ("port", "starboard") for f in panel.feet) else "ends"
    for count in range(FEWEST_FEET, MOST_FEET + 1, 2):
        if count != len(panel.feet):
            spread = SpreadFeet(panel=panel.id, count=count, along=sides)
            yield _Change("feet", f"{count} feet", (spread,), max(2.0 * (count - len(panel.feet)), 1.0))
    for bolt in FRAME_BOLTS:
        if bolt != hold.bracket.frame_bolt:
            edit = SetValue(path=f"{path}.bracket.frame_bolt", value=bolt)
            yield _Change("frame bolt", f"{bolt} at the frame", (edit,), 1.0 + FRAME_BOLTS.index(bolt))
    if isinstance(hold, FoamTape):
        yield from _of_tape(path, hold)
        screws = SetValue(path=path, value={"school": "screws"})
        yield _Change("school", "screws into members", (screws,), 12.0)
    else:
        yield from _of_fasteners(path, hold)
    if panel.span is None:
        ends = {"ends": {"school": "screws", "count": 4}}
        bars = SetValue(path=f"panels.{panel.id}.span", value=ends)
        yield _Change("span", "bars from member to member, four screws an end", (bars,), 15.0)
    row = tuple(p.id for p in job.panels if abs(p.y.mm - panel.y.mm) < 50 and p.carrier is None)
    words = "rails under it" if len(row) == 1 else f"rails under its row of {len(row)}"
    yield _Change("carrier", words, (PutOnRails(panels=row),), 20.0)
    if job.assumptions.front_edge == "open":
        faired = SetValue(path="assumptions.front_edge", value="faired")
        yield _Change("fairing", "a fairing before the front edges", (faired,), 9.0)


def _of_tape(path: str, hold: FoamTape) -> Iterator[_Change]:
    for length, width in PADS_MM:
        if length * width > hold.pad_length.mm * hold.pad_width.mm:
            edits = (
                SetValue(path=f"{path}.pad_length", value={"mm": length}),
                SetValue(path=f"{path}.pad_width", value={"mm": width}),
            )
            yield _Change("pad", f"pads {length:.0f} × {width:.0f} mm", edits, length * width / 4000)


def _of_fasteners(path: str, hold: Drilled) -> Iterator[_Change]:
    for count in range(hold.count + 1, MOST_FASTENERS + 1):
        edit = SetValue(path=f"{path}.count", value=count)
        yield _Change("count", f"{count} a foot", (edit,), 3.0 * (count - hold.count))
    if isinstance(hold, Screws):
        for screw in SCREWS_UP[SCREWS_UP.index(hold.screw) + 1 if hold.screw in SCREWS_UP else 0 :]:
            edit = SetValue(path=f"{path}.screw", value=screw)
            yield _Change("fastener", f"{screw} screws", (edit,), 1.0)
        return
    for bolt in BOLTS_UP[BOLTS_UP.index(hold.bolt) + 1 if hold.bolt in BOLTS_UP else 0 :]:
        yield _Change("fastener", f"{bolt} bolts", (SetValue(path=f"{path}.bolt", value=bolt),), 1.5)
    if not isinstance(hold, ThroughBolts):
        return
    for washer in WASHERS_MM:
        if washer > hold.washer.mm:
            edit = SetValue(path=f"{path}.washer", value={"mm": washer})
            yield _Change("washer", f"washers of {washer:.0f} mm", (edit,), 0.5)


def _of_carrier(job: Job, name: str) -> Iterator[_Change]:
    carrier = next(c for c in job.carriers if c.id == name)
    path, hold = f"carriers.{name}", carrier.hold
    if carrier.every > 1 and not (isinstance(carrier, Rack) and carrier.points):
        yield _Change("every", "a foot at every member", (SetValue(path=f"{path}.every", value=1),), 4.0)
    if isinstance(carrier, Rack):
        yield from _of_rack(path, carrier)
    if isinstance(hold, Drilled) and not (isinstance(carrier, Rack) and carrier.points):
        yield from _of_fasteners(f"{path}.hold", hold)
    for wall in (3.0, 4.0):
        if carrier.section.kind == "tube" and wall > carrier.section.wall.mm:
            edit = SetValue(path=f"{path}.section.wall", value={"mm": wall})
            yield _Change("wall", f"rails with a wall of {wall:.0f} mm", (edit,), 2.0)
    if carrier.section.kind == "tube" and carrier.section.height.mm < 60:
        edit = SetValue(path=f"{path}.section.height", value={"mm": 60})
        yield _Change("section", "rails 60 mm high", (edit,), 3.0)
    if job.assumptions.front_edge == "open":
        faired = SetValue(path="assumptions.front_edge", value="faired")
        yield _Change("fairing", "a fairing before the front edges", (faired,), 9.0)


def _of_rack(path: str, rack: Rack) -> Iterator[_Change]:
    for wall in (5.0, 6.0, 8.0):
        if rack.joint == "angles" and wall > rack.angle_wall.mm:
            edit = SetValue(path=f"{path}.angle_wall", value={"mm": wall})
            yield _Change("corner", f"corner angles of {wall:.0f} mm", (edit,), wall / 4)
        if rack.posts is None and wall > rack.hold.bracket.thickness.mm:
            edit = SetValue(path=f"{path}.hold.bracket.thickness", value={"mm": wall})
            yield _Change("bracket", f"brackets of {wall:.0f} mm", (edit,), wall / 4)
    if rack.joint == "clamps" and rack.clamp.bolts < MOST_CLAMP_BOLTS:
        edit = SetValue(path=f"{path}.clamp.bolts", value=MOST_CLAMP_BOLTS)
        yield _Change("clamp", "four bolts a clamp", (edit,), 2.0)
    if rack.posts is not None:
        yield from _of_posts(path, rack, rack.posts)
    if rack.joint == "bolt":
        edit = SetValue(path=f"{path}.joint", value="angles")
        yield _Change("joint", "angles in the corners", (edit,), 3.0)
    if rack.bar_section.kind == "tube" and rack.bar_section.height.mm < 60:
        edit = SetValue(path=f"{path}.bar_section.height", value={"mm": 60})
        yield _Change("bars", "bars 60 mm high", (edit,), 3.0)


def _of_posts(path: str, rack: Rack, posts: Posts) -> Iterator[_Change]:
    """Thicker plates and posts."""
    if isinstance(rack.hold, BasePlate):
        for thick in PLATES_MM:
            if thick > rack.hold.thickness.mm:
                edit = SetValue(path=f"{path}.hold.thickness", value={"mm": thick})
                yield _Change("plate", f"base plates of {thick:.0f} mm", (edit,), thick / 4)
    if posts.section.kind == "round":
        for diameter in POSTS_MM:
            if diameter > posts.section.diameter.mm:
                edit = SetValue(path=f"{path}.posts.section.diameter", value={"mm": diameter})
                yield _Change("posts", f"posts of {diameter:.1f} mm", (edit,), diameter / 12)
