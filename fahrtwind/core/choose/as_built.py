"""What was built, worked at once: how fast it may drive now, and what can be done about a foot that is off.

Each way out is worked through the whole job before it is offered.
"""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.edits import AddEntry, Edit, RemoveEntry, SetValue, apply_edits
from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.job.built import Built
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.identifiers import identifier, next_number
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_speed
from fahrtwind.core.stations.build.kit import KitLine, bit
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.roof_day.built import BuiltFinding
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.tables.fasteners import BOLTS

MOST_MEMBERS = 2
APART_MM = 60.0
"""Nearer to another foot of its side than this, a foot finds no room (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Speeds:
    """Of the whole roof, m/s; None where nothing is known."""

    safe_m_s: float | None
    let_go_m_s: float | None


@dataclass(frozen=True, slots=True)
class WayOut:
    """What can be done about a foot, with what it comes to: speeds of the whole roof after it, and the stops
    that then stand and do not stand now. ``lacks``: what it takes and is not in the box.
    """

    words: str
    edits: tuple[Edit, ...]
    speeds: Speeds
    new_stops: tuple[str, ...]
    lacks: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class FootReality:
    """A foot that does not go together as it is."""

    id: str
    where: str
    words: str
    ways: tuple[WayOut, ...]


@dataclass(frozen=True, slots=True)
class Reality:
    """``planned``: as if everything stood where it was planned; ``now``: as it stands."""

    planned: Speeds
    now: Speeds
    feet: tuple[FootReality, ...]


def reality(job: Job) -> Reality:
    """Speeds as planned and as built, and ways out for every foot that is off or met nothing."""
    now = evaluate(job)
    planned = evaluate(job.model_copy(update={"built": Built()})) if job.built.feet else now
    troubled = [f for f in now.findings.as_built if f.state == "off" or f.pilot == "through"]
    feet = tuple(FootReality(f.id, f.where, _words(f), tuple(_ways(job, now, f))) for f in troubled)
    return Reality(_speeds(planned), _speeds(now), feet)


def _words(foot: BuiltFinding) -> str:
    return "pilot met nothing" if foot.pilot == "through" else foot.words


def _speeds(told: Evaluation) -> Speeds:
    plan = told.findings.plan
    return Speeds(None, None) if plan is None else Speeds(plan.safe_m_s, plan.let_go_m_s)


def _ways(job: Job, now: Evaluation, foot: BuiltFinding) -> Iterator[WayOut]:
    """Those for which everything is in the box first."""
    drafts: list[tuple[str, tuple[Edit, ...]]] = []
    if foot.pilot != "through" and not foot.lever_longer:
        edit = SetValue(path=f"built.feet.{foot.id}.solved", value="bracket")
        drafts.append(("Drill the bracket anew", (edit,)))
    drafts += _moves(job, now, foot)
    told = []
    for words, edits in drafts:
        go_on()
        try:
            after = evaluate(apply_edits(job, list(edits)))
        except FahrtwindError:
            continue
        speeds, stops = _speeds(after), _new_stops(now, after)
        lacks = _lacks(now.findings.kit, _takes(job, now, foot, edits))
        told.append(WayOut(f"{words}{_then(job, speeds, stops)}", edits, speeds, stops, lacks))
    yield from sorted(told, key=lambda way: (len(way.new_stops) > 0, len(way.lacks) > 0))


def _takes(job: Job, now: Evaluation, foot: BuiltFinding, edits: tuple[Edit, ...]) -> list[str]:
    """What of the kit list a way out takes: bits, and what closes the hole that is left."""
    if len(edits) == 1:
        panel = next((p for p in job.panels if p.id == foot.holder), None)
        return [bit(BOLTS[panel.hold.bracket.frame_bolt].clearance_mm)] if panel else []
    own = [m for m in now.findings.marks if (m.panel, m.foot) == (foot.holder, foot.foot)]
    bits = {size for m in own for size in (m.pilot_mm, m.final_mm) if size}
    seal = now.findings.seal
    sealant = [f"{seal.round.words} sealant", seal.round.words] if seal else []
    kept = {line.item for line in now.findings.kit}
    return [*(bit(size) for size in sorted(bits)), *[name for name in sealant if name in kept][:1]]


def _lacks(kit: tuple[KitLine, ...], takes: list[str]) -> tuple[str, ...]:
    """What is not ticked off; while nobody has ticked anything, what is not on the list at all."""
    ticked = any(line.packed for line in kit)
    there = {line.item for line in kit if line.packed or not ticked}
    return tuple(item for item in takes if item not in there)


def _then(job: Job, speeds: Speeds, stops: tuple[str, ...]) -> str:
    """What it comes to; where a new stop stands no speed is told."""
    if stops:
        return f"; then stops: {stops[0]}"
    if speeds.let_go_m_s is None:
        return ""
    return f"; the roof then lets go at {say_speed(speeds.let_go_m_s, job.units)}"


def _new_stops(before: Evaluation, after: Evaluation) -> tuple[str, ...]:
    had = {(s.id, s.place) for s in before.snags if s.severity == "stop"}
    new = [s for s in after.snags if s.severity == "stop" and (s.id, s.place) not in had]
    return tuple(dict.fromkeys(f"{s.title}: {s.where}" for s in new))


def _moves(job: Job, now: Evaluation, foot: BuiltFinding) -> Iterator[tuple[str, tuple[Edit, ...]]]:
    """To the nearest members under the frame that no other foot of its side has; the hole that is left goes
    on the list of old work, so that it is sealed.
    """
    panel = next((p for p in job.panels if p.id == foot.holder and p.carrier is None), None)
    own = next((f for f in panel.feet if f.id == foot.foot), None) if panel else None
    if panel is None or own is None or own.side not in ("port", "starboard"):
        return
    taken = [
        f.x_mm
        for f in now.findings.feet
        if f.panel == panel.id and f.side == own.side and f.foot != foot.foot
    ]
    free = [m for m in now.findings.members.members if _fits(panel, m, taken) and abs(m.x_mm - foot.x_mm) > 1]
    number = next_number("scars", [s.id for s in job.survey.scars])
    scar = {
        "id": identifier("scars", number),
        "kind": "glue_dab" if foot.stuck else "hole",
        "x": {"mm": foot.x_mm},
        "y": {"mm": foot.y_mm},
        "note": f"{foot.where}, {_words(foot)}",
    }
    path = f"panels.{panel.id}.feet.{foot.foot}"
    for member in sorted(free, key=lambda m: abs(m.x_mm - foot.x_mm))[:MOST_MEMBERS]:
        along = {"mm": round(member.x_mm - panel_rect(panel).x_mm, 1)}
        edits: tuple[Edit, ...] = (
            RemoveEntry(path=f"built.feet.{foot.id}"),
            AddEntry(path="survey.scars", value=scar),
            SetValue(path=f"{path}.along", value=along),
            SetValue(path=f"{path}.pinned", value=True),
        )
        first = "Take the pad off" if foot.stuck else "Seal the hole"
        yield f"{first}, move the foot to member {member.number}", edits


def _fits(panel: PlacedPanel, member: Member, taken: list[float]) -> bool:
    rect, half = panel_rect(panel), panel.hold.bracket.length.mm / 2
    inside = rect.x_mm + half <= member.x_mm <= rect.x_end_mm - half
    return inside and all(abs(member.x_mm - x) >= APART_MM for x in taken)
