"""Remedies that act: for every stop the least changes that clear it, each tried out before it is offered.

A remedy is offered only if the job with it no longer has that stop there, and has no stop it did not have
before.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from math import ceil
from typing import Literal

from fahrtwind.core.choose.hold_changes import so_many_a_foot
from fahrtwind.core.choose.look import more_stops, stops_of, subject
from fahrtwind.core.edits import Edit, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.evaluate import Evaluation, evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import Drilled, FoamTape, PlacedPanel, Screws
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length, say_speed
from fahrtwind.core.stations.hold.schools.drilled import leg_wanted_mm
from fahrtwind.core.stations.hold.schools.lengths import fitting_mm
from fahrtwind.core.stations.layout.feet import place_feet
from fahrtwind.core.stations.layout.footprint import lid_rect, obstacle_rect, panel_rect, roof_rect

MOST_STOPS, MOST_OFFERS = 12, 3
MOST_FEET, MOST_FASTENERS = 12, 4
FURTHEST_MM, LITTLE_MM, MOST_MOVES = 1200.0, (10.0, 20.0, 40.0, 80.0), 16
HIGHER_MM = (5.0, 10.0, 15.0, 20.0, 30.0, 40.0, 60.0)
IN_THE_WAY = (
    "panels-overlap",
    "over-edge",
    "on-obstacle",
    "brackets-meet",
    "foot-on-obstacle",
    "lid-blocked",
    "hole-in-keep-out",
    "feet-crowd",
    "across-a-step",
    "hangs-over",
    "too-wide",
)
WRONG_LENGTHS = ("screw-too-short", "thread-too-short", "bolt-too-short", "through-the-ceiling")
SWITCHES = {
    "nut-in-closed-rib": ("screws", "screws into members"),
    "bolts-need-access": ("screws", "screws into members"),
    "well-nuts-alone": ("screws", "screws into members"),
    "thin-board-under-well-nut": ("screws", "screws into members"),
    "flexible-bolted": ("tape", "foam tape"),
}
PAD_STEPS_MM = ((120.0, 50.0), (150.0, 50.0), (150.0, 75.0), (200.0, 75.0), (200.0, 100.0), (300.0, 100.0))


@dataclass(frozen=True, slots=True)
class Filled:
    """A box of the form a remedy leads to, and what to put into it."""

    field: str
    text: str


@dataclass(frozen=True, slots=True)
class Remedy:
    """What would clear a stop: in words with what it would do; edits to make, or where to go and what to fill
    in there.
    """

    snag: str
    place: str
    words: str
    edits: tuple[Edit, ...]
    go: str = ""
    fill: tuple[Filled, ...] = ()


@dataclass(frozen=True, slots=True)
class _Draft:
    """A change worth trying; ``tell`` says what it does, from the job with it."""

    edits: tuple[Edit, ...]
    tell: Callable[[Evaluation], str]


def remedies(job: Job) -> tuple[Remedy, ...]:
    """The remedies of all stops of a job, at most a few for each, least change first."""
    before = evaluate(job)
    found: list[Remedy] = []
    for snag in [s for s in before.snags if s.severity == "stop"][:MOST_STOPS]:
        offers = [*_to_find_out(job, before, snag)]
        for kind in _ways(job, before, snag):
            if len(offers) >= MOST_OFFERS:
                break
            offers += _first_that_clears(job, before, snag, kind)
        found += offers
    return tuple(found)


def _first_that_clears(job: Job, before: Evaluation, snag: Snag, drafts: Iterator[_Draft]) -> list[Remedy]:
    for draft in drafts:
        go_on()
        try:
            after = evaluate(apply_edits(job, list(draft.edits)))
        except FahrtwindError:
            continue
        if _clears(before, after, snag):
            return [Remedy(snag.id, snag.place, draft.tell(after), draft.edits)]
    return []


def _clears(before: Evaluation, after: Evaluation, snag: Snag) -> bool:
    had, has = (stops_of(told.snags, told.findings.feet) for told in (before, after))
    gone = not any(s.id == snag.id and s.place == snag.place for s in after.snags)
    if snag.id in ("safe-speed-too-low", "let-go-too-low"):  # the worst foot may only have changed places
        gone = not any(
            i in ("safe-speed-too-low", "let-go-too-low") and p == subject(snag.place) for i, p in has
        )
    return gone and not more_stops(had, has)


def _ways(job: Job, before: Evaluation, snag: Snag) -> Iterator[Iterator[_Draft]]:
    """Kinds of change that may clear a stop, the gentlest first."""
    if snag.id in WRONG_LENGTHS:
        yield _other_length(job, snag)
        return
    panel = _panel(job, snag.place)
    if panel is None:
        return
    hold = panel.hold
    if snag.id in IN_THE_WAY:
        yield from _moves(job, panel)
    elif snag.id in SWITCHES:
        yield _otherwise_held(job, panel, *SWITCHES[snag.id])
    elif snag.id in ("safe-speed-too-low", "let-go-too-low"):
        yield from _stronger(job, panel)
    elif snag.id == "touches-the-crown":
        yield _higher(job, panel)
        yield from _moves(job, panel)
    elif snag.id == "screws-in-skin":
        yield _onto_members(job, panel, before)
    elif isinstance(hold, FoamTape):
        yield iter([_bracket_for_pad(job, panel, hold)] if snag.id == "pad-beyond-base" else [])
    else:
        yield from _other_parts(job, snag, panel, hold)


def _other_parts(job: Job, snag: Snag, panel: PlacedPanel, hold: Drilled) -> Iterator[Iterator[_Draft]]:
    if snag.id == "few-feet":
        yield iter([_Draft((SpreadFeet(panel=panel.id, count=4),), lambda _: "4 feet")])
    elif snag.id == "holes-beyond-base":
        yield _larger_base(job, panel, hold)
        yield (
            _set(f"panels.{panel.id}.hold.count", n, f"{n} fasteners a foot")
            for n in range(hold.count - 1, 0, -1)
        )


def _panel(job: Job, place: str) -> PlacedPanel | None:
    """The panel of a stop; None where it is about something else."""
    words = place.split(".")
    return next((p for p in job.panels if len(words) > 1 and words[0] == "panels" and p.id == words[1]), None)


def _set(path: str, value: object, words: str) -> _Draft:
    return _told((SetValue(path=path, value=value),), words)


def _otherwise_held(job: Job, panel: PlacedPanel, school: str, words: str) -> Iterator[_Draft]:
    """In another school, with as many fasteners in a foot as it takes."""
    path = f"panels.{panel.id}.hold"
    switched = SetValue(path=path, value={"school": school})
    yield _told((switched,), words)
    after = apply_edits(job, [switched])
    hold = next(p.hold for p in after.panels if p.id == panel.id)
    if isinstance(hold, Drilled):
        for count in range(hold.count + 1, MOST_FASTENERS + 1):
            more = so_many_a_foot(path, hold, count, job.units)
            yield _told((switched, *more.edits), f"{words}, {more.words}")


def _told(edits: tuple[Edit, ...], words: str) -> _Draft:
    return _Draft(edits, lambda _: words)


def _stronger(job: Job, panel: PlacedPanel) -> Iterator[Iterator[_Draft]]:
    def told(words: str) -> Callable[[Evaluation], str]:
        return lambda after: f"{words}: safe {say_speed(_safe(after, panel.id), job.units)}"

    hold, path = panel.hold, f"panels.{panel.id}.hold"
    if isinstance(hold, FoamTape):
        larger = [pad for pad in PAD_STEPS_MM if pad[0] * pad[1] > hold.pad_length.mm * hold.pad_width.mm]
        yield (
            _Draft(
                _pad(path, *pad),
                told(f"pads {say_length(pad[0], job.units)} × {say_length(pad[1], job.units)}"),
            )
            for pad in larger
        )
    else:
        more = range(hold.count + 1, MOST_FASTENERS + 1)
        yield (
            _Draft((SetValue(path=f"{path}.count", value=n),), told(f"{n} fasteners a foot")) for n in more
        )
    side: Literal["sides", "ends"] = (
        "sides" if all(f.side in ("port", "starboard") for f in panel.feet) else "ends"
    )
    counts = range(2 * (len(panel.feet) // 2) + 2, MOST_FEET + 1, 2)
    yield (_Draft((SpreadFeet(panel=panel.id, count=n, along=side),), told(f"{n} feet")) for n in counts)
    yield _slower(job, panel)


def _pad(path: str, length_mm: float, width_mm: float) -> tuple[Edit, ...]:
    return (
        SetValue(path=f"{path}.pad_length", value={"mm": length_mm}),
        SetValue(path=f"{path}.pad_width", value={"mm": width_mm}),
    )


def _slower(job: Job, panel: PlacedPanel) -> Iterator[_Draft]:
    safe = _safe(evaluate(job), panel.id)
    unit = 1 / 3.6 if job.units == "metric" else 0.44704
    whole = int(safe / unit / 5) * 5
    if whole >= 30:
        shown = f"{whole} {'km/h' if job.units == 'metric' else 'mph'}"
        yield _Draft((SetValue(path="vehicle.top_speed", value=shown),), lambda _: f"drive {shown} at most")


def _safe(evaluation: Evaluation, panel_id: str) -> float:
    return next((v.safe_m_s for v in evaluation.findings.verdicts if v.panel == panel_id), 0.0)


def _other_length(job: Job, snag: Snag) -> Iterator[_Draft]:
    """Fasteners as long as the roof wants them, of whatever stands on it."""
    holder = next(h for h in visit(job)["holders"] if snag.place == f"{h.hold_path}.length")
    hold = holder.hold
    into = isinstance(hold, Screws) or any(f.landing == "member" for f in holder.feet)
    for length in fitting_mm(hold, job.vehicle, job.members, job.units, into):
        yield _set(snag.place, {"mm": length}, f"{say_length(length, job.units)} long")


def _larger_base(job: Job, panel: PlacedPanel, hold: Drilled) -> Iterator[_Draft]:
    need = leg_wanted_mm(hold)
    lever, toe = max(hold.bracket.lever.mm, need), max(hold.bracket.toe.mm, need)
    edits = (
        SetValue(path=f"panels.{panel.id}.hold.bracket.toe", value={"mm": toe}),
        SetValue(path=f"panels.{panel.id}.hold.bracket.lever", value={"mm": lever}),
    )
    yield _Draft(edits, lambda _: f"bracket with lever and toe of {say_length(need, job.units)}")


def _bracket_for_pad(job: Job, panel: PlacedPanel, hold: FoamTape) -> _Draft:
    bracket = hold.bracket
    toe = max(hold.pad_width.mm - bracket.lever.mm, bracket.toe.mm)
    edits = (
        SetValue(
            path=f"panels.{panel.id}.hold.bracket.length",
            value={"mm": max(bracket.length.mm, hold.pad_length.mm)},
        ),
        SetValue(path=f"panels.{panel.id}.hold.bracket.toe", value={"mm": toe}),
    )
    return _Draft(edits, lambda _: "bracket as large as the pad")


def _higher(job: Job, panel: PlacedPanel) -> Iterator[_Draft]:
    for more in HIGHER_MM:
        height = panel.stand_off.mm + more
        yield _set(
            f"panels.{panel.id}.stand_off", {"mm": height}, f"stand-off {say_length(height, job.units)}"
        )


def _moves(job: Job, panel: PlacedPanel) -> Iterator[Iterator[_Draft]]:
    """The least straight move that clears what is in the way: past a lid, an obstacle, another panel, back
    from an edge, or a little.
    """
    if panel.locked:
        return
    rect, gap = panel_rect(panel), job.assumptions.panel_gap.mm
    blocks = [
        b.grown(gap)
        for o in job.obstacles
        if o.stays
        for b in (obstacle_rect(o), lid_rect(o))
        if b is not None
    ]
    blocks += [panel_rect(p).grown(gap) for p in job.panels if p.id != panel.id]
    along = {s for b in blocks if rect.clipped(b) for s in (b.x_end_mm - rect.x_mm, b.x_mm - rect.x_end_mm)}
    across = {s for b in blocks if rect.clipped(b) for s in (b.y_end_mm - rect.y_mm, b.y_mm - rect.y_end_mm)}
    roof = roof_rect(job.vehicle)
    if roof is not None:
        edge = job.assumptions.edge_clearance.mm
        along |= {roof.x_mm + edge - rect.x_mm, roof.x_end_mm - edge - rect.x_end_mm}
        across |= {roof.y_mm + edge - rect.y_mm, roof.y_end_mm - edge - rect.y_end_mm}
    little = {sign * step for step in LITTLE_MM for sign in (1.0, -1.0)}
    ways = [("x", s) for s in along | little] + [("y", s) for s in across | little]
    ways = sorted(
        ((axis, _whole(s)) for axis, s in ways if 0.5 < abs(s) <= FURTHEST_MM), key=lambda w: (abs(w[1]), w)
    )[:MOST_MOVES]
    yield (_moved(job, panel, axis, step) for axis, step in ways)


def _whole(step: float) -> float:
    """Up to the next five millimetres: nobody moves a panel by less on purpose."""
    return ceil(abs(step) / 5) * 5.0 * (1 if step > 0 else -1)


def _moved(job: Job, panel: PlacedPanel, axis: str, step: float) -> _Draft:
    start, (more, less) = (
        (panel.x.mm, ("aft", "forward")) if axis == "x" else (panel.y.mm, ("to starboard", "to port"))
    )
    words = f"move {panel.name} {say_length(abs(step), job.units)} {more if step > 0 else less}"
    return _set(f"panels.{panel.id}.{axis}", {"mm": start + step}, words)


def _onto_members(job: Job, panel: PlacedPanel, before: Evaluation) -> Iterator[_Draft]:
    """Moves along the roof after which more feet are in members, the least first."""
    if panel.locked:
        return
    members = before.findings.members.members
    feet = [f for f in before.findings.feet if f.panel == panel.id]
    ways = sorted(
        {round(m.x_mm - f.x_mm, 1) for m in members for f in feet if abs(m.x_mm - f.x_mm) <= FURTHEST_MM},
        key=abs,
    )
    for way in ways:
        draft = _moved(job, panel, "x", way)
        moved = next(p for p in apply_edits(job, list(draft.edits)).panels if p.id == panel.id)
        if all(f.landing == "member" for f in place_feet(job.members, moved, members)):
            yield draft


def _to_find_out(job: Job, before: Evaluation, snag: Snag) -> Iterator[Remedy]:
    """Where a member is not known closely enough: the one reading that would tell."""
    words = snag.place.split(".")
    if snag.id != "screws-in-skin" or len(words) < 4:
        return
    foot = next((f for f in before.findings.feet if f.panel == words[1] and f.foot == words[3]), None)
    if foot is None or foot.landing != "perhaps" or foot.member is None:
        return
    member = next(m for m in before.findings.members.members if m.number == foot.member)
    at = say_length(member.x_mm, job.units)
    yield Remedy(
        snag.id,
        snag.place,
        f"one pilot hole at {at}: solid tells that member {member.number} is there",
        (),
        "readings",
        (Filled("kind", "pilot_solid"), Filled("x", at)),
    )
