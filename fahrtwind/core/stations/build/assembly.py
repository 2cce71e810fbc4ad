"""The order in which a carrier is put together: what has to be done before what, from its joints.

Each piece of work names what it needs to be done first; the order is any that keeps to that, the one given
here where several do. What closes the way to something comes after it.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from graphlib import TopologicalSorter
from math import hypot

from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.job.sections import OwnSection
from fahrtwind.core.job.workshop import Coat, Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length, say_size, say_torque
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.build.fit import FootFit, Lean
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.tables.work import StepKind

COATS = {"paint": "Paint", "powder": "Powder-coat", "anodised": "Anodise"}
LOCKED = {
    "nylon_nut": "a new nylon-insert nut each time",
    "threadlocker": "threadlocker on clean, dry threads",
    "serrated_flange": "serrated flanges on bare metal",
    "spring_washer": "a spring washer under each nut",
}
GREASED = {"dry": "dry", "oil": "with a drop of oil", "anti_seize": "with anti-seize"}
HOURS_A_DAY = 24.0
FINISHED: tuple[StepKind, ...] = ("drill pieces", "bend", "slots", "coat", "edges")
"""What makes a piece ready to be joined."""


@dataclass(frozen=True, slots=True)
class AssemblyStep:
    """A step at the bench or on the roof; ``wait_h``: until the next."""

    carrier: str
    number: int
    on_roof: bool
    title: str
    detail: str
    check: str
    wait_h: float
    kind: StepKind
    count: int


@dataclass(frozen=True, slots=True)
class _Work:
    key: StepKind
    needs: tuple[StepKind, ...]
    title: str
    detail: str
    check: str
    wait_h: float = 0.0
    on_roof: bool = False
    count: int = 1


@dataclass(frozen=True, slots=True)
class Parts:
    """What a carrier consists of, for the order of its assembly."""

    carrier: Carrier
    pieces: tuple[Piece, ...]
    bolts: tuple[BoltLine, ...]
    fits: tuple[FootFit, ...]
    leans: tuple[Lean, ...]
    workshop: Workshop
    units: UnitSystem


def assembly_of(parts: Parts) -> tuple[AssemblyStep, ...]:
    """The steps of one carrier; none where nothing is made for it."""
    if not parts.pieces:
        return ()
    works = {work.key: work for work in (*_made(parts), *_coated(parts), *_joined(parts), *_on_roof(parts))}
    order = TopologicalSorter({k: [n for n in w.needs if n in works] for k, w in works.items()})
    order.prepare()
    given = list(works)
    done: list[_Work] = []
    while order.is_active():
        ready = sorted(order.get_ready(), key=given.index)
        done += [works[key] for key in ready]
        order.done(*ready)
    return tuple(
        AssemblyStep(parts.carrier.id, i, w.on_roof, w.title, w.detail, w.check, w.wait_h, w.key, w.count)
        for i, w in enumerate(done, start=1)
    )


def _made(parts: Parts) -> Iterator[_Work]:
    pieces, name = parts.pieces, parts.carrier.name
    yield _Work(
        "cut",
        (),
        f"{name}: cut the pieces",
        f"{len(pieces)} pieces by the cut list. Stamp or label each with its number, its marked end and its "
        "underside as it comes off the saw; deburr.",
        "Every piece measured once more and ticked.",
        count=len(pieces),
    )
    sizes = Counter(h.diameter_mm for p in pieces for h in p.holes)
    if sizes:
        told = ", ".join(f"{n} of {say_size(d, parts.units)}" for d, n in sorted(sizes.items()))
        yield _Work(
            "drill pieces",
            ("cut", "coat first"),
            f"{name}: drill",
            f"{told}. Mark from the marked end, punch, pilot, then full size; slow and with oil."
            + _marked_through(pieces),
            "A bolt falls through each hole.",
            count=sum(sizes.values()),
        )
    if any(p.bends for p in pieces):
        yield _Work(
            "bend",
            ("drill pieces",),
            f"{name}: bend the brackets",
            "Each by its sheet, the tool as far as told there: it springs back.",
            "A set square shows no light.",
            count=sum(bool(p.bends) for p in pieces),
        )
    slots = [f for f in parts.fits if not f.round]
    if slots:
        worst = max(slots, key=lambda f: max(f.slot_along_mm, f.slot_across_mm))
        long = say_length(max(worst.slot_along_mm, worst.slot_across_mm), parts.units)
        yield _Work(
            "slots",
            ("drill pieces",),
            f"{name}: cut the slots of the feet",
            f"{len(slots)} feet, the longest {long} at {worst.where}. File, then paint the bare edge.",
            "The bolt slides from end to end.",
            count=len(slots),
        )


GUIDES = (("corner", "corner angles"), ("foot", "feet"), ("splice", "splice plates"))
"""What is drilled first and marked through, by the start of what a hole of rail or bar is for."""
FROM = {"upper": "above", "lower": "below", "front": "the front", "rear": "the rear"}


def _marked_through(pieces: tuple[Piece, ...]) -> str:
    """Through which part the holes of rails and bars are marked, and from which side: common practice."""
    told, through = [], False
    for start, guide in GUIDES:
        own = {
            (p.kind, FROM.get(h.face, h.face), h.through)
            for p in pieces
            if p.kind in ("rail", "bar")
            for h in p.holes
            if h.what.startswith(start)
        }
        for kind in sorted({k for k, _, _ in own}):
            sides = " and ".join(sorted({side for k, side, _ in own if k == kind}))
            told.append(f"{guide} onto {kind}s from {sides}")
        through |= any(deep for _, _, deep in own)
    if not told:
        return ""
    last = " Behind a wall drill on with a guide, or from both sides." if through else ""
    return f" Marked through what is drilled first: {'; '.join(told)}.{last}"


def _coated(parts: Parts) -> Iterator[_Work]:
    coat, name = parts.workshop.coat, parts.carrier.name
    if coat.kind == "none":
        return
    first = coat.when == "before drilling"
    before = "Degrease, etch primer on zinc" if coat.etched else "Degrease"
    yield _Work(
        "coat first" if first else "coat",
        ("cut",) if first else ("cut", "drill pieces", "bend", "slots"),
        f"{name}: {COATS[coat.kind].lower()}",
        f"{before}; mask threads and faces that have to conduct. {_waiting(coat)}",
        "No bare edge, threads clean.",
        (coat.days or 0) * HOURS_A_DAY,
        count=len(parts.pieces),
    )
    if first:
        yield _Work(
            "edges",
            ("drill pieces", "slots", "bend"),
            f"{name}: paint the edges of every hole",
            "Drilled after coating, each edge is bare.",
            "No bright metal in any hole.",
            count=max(1, sum(len(p.holes) for p in parts.pieces)),
        )


def _waiting(coat: Coat) -> str:
    return f"Back after {coat.days} working days." if coat.days else "Ask when it is back."


def _joined(parts: Parts) -> Iterator[_Work]:
    carrier, name = parts.carrier, parts.carrier.name
    slotted = isinstance(carrier.section, OwnSection) or (
        isinstance(carrier, Rack) and isinstance(carrier.bar_section, OwnSection)
    )
    if slotted:
        yield _Work(
            "slot nuts",
            ("cut", *FINISHED),
            f"{name}: slide in slot nuts and trim strips",
            "Nuts, hammer heads and lead clips into every slot before a corner closes its end, one spare in "
            "each.",
            "Counted against the list of bolts.",
        )
    if parts.workshop.bolting.spacers and any(line.hollow_mm for line in parts.bolts):
        yield _Work(
            "spacers",
            ("cut", *FINISHED),
            f"{name}: put the spacer sleeves in",
            "A sleeve inside the tube at every bolt, before ends are capped.",
            "It can be seen through each hole.",
            count=sum(line.count for line in parts.bolts if line.hollow_mm),
        )
    if any(p.kind == "splice plate" for p in parts.pieces):
        yield _Work(
            "splices",
            ("cut", *FINISHED, "spacers"),
            f"{name}: join the rails",
            "Plates on both sides, the gap of warmth between the ends. Lay the rail on a straight edge.",
            "A string along it touches everywhere.",
            count=max(1, sum(p.kind == "splice plate" for p in parts.pieces) // 2),
        )
    if isinstance(carrier, Rack) and carrier.joint != "clamps":
        yield _Work(
            "corners",
            ("cut", *FINISHED, "slot nuts", "spacers", "splices"),
            f"{name}: join rails and bars, all bolts loose",
            "Marked ends the same way, undersides down. "
            + ("Tack, square, then weld." if carrier.joint == "welded" else "Every nut started by hand."),
            "Nothing is forced.",
            count=max(1, 2 * len(carrier.rails)),
        )


def _on_roof(parts: Parts) -> Iterator[_Work]:
    carrier, name, units = parts.carrier, parts.carrier.name, parts.units
    under = carrier.crossbars if isinstance(carrier, Rack) else None
    if not isinstance(carrier.hold, BasePlate | OuterFoot):  # how posts are stood up, their feet tell
        yield _Work(
            "set",
            ("cut", *FINISHED, "corners", "splices", "slot nuts", "spacers"),
            f"{name}: set {'the crossbars on their' if under else 'it on its'} feet, bolts loose",
            f"On blocks of {say_length(carrier.foot_mm, units)} until the bolts are in; foam or rubber "
            "between foot and roof.",
            "Every bolt started by hand.",
            on_roof=True,
            count=max(1, len(carrier.rails)),
        )
    if under:
        yield _Work(
            "lay",
            ("set", "corners"),
            f"{name}: lay the rails on the crossbars",
            "Between their two angles, all bolts loose; the crossbars level with one another by a string.",
            "Every rail touches every crossbar.",
            on_roof=True,
            count=max(1, len(carrier.rails)),
        )
    leaning = [lean for lean in parts.leans if lean.outward]
    if leaning:
        worst = max(leaning, key=lambda lean: lean.strap_mm)
        yield _Work(
            "strap",
            ("set",),
            f"{name}: pull the rails together",
            f"A strap takes out {say_length(worst.strap_mm, units)} a side, or wedges of "
            f"{say_length(worst.wedge_mm, units)}. Measure the bars only after that.",
            "Rails stand upright by the level.",
            on_roof=True,
        )
    if len(carrier.rails) > 1:
        yield _square(carrier, units)
    if parts.bolts:
        yield _torque(parts)
    yield _Work(
        "leads",
        ("torque", "square", "corners"),
        f"{name}: clips for the leads",
        "Under the rails, where panels will cover them.",
        "No lead hangs, none is pinched.",
        on_roof=True,
    )


def _square(carrier: Carrier, units: UnitSystem) -> _Work:
    across = max(r.y.mm for r in carrier.rails) - min(r.y.mm for r in carrier.rails)
    diagonal = hypot(across, carrier.end.mm - carrier.start.mm)
    return _Work(
        "square",
        ("set", "lay", "strap"),
        f"{carrier.name}: square it",
        f"Both diagonals {say_length(diagonal, units)}, middle of rail to middle of rail at their ends; "
        f"{say_length(across, units)} apart all along.",
        "Diagonals agree within 2 mm." if units == "metric" else 'Diagonals agree within 1/16".',
        on_roof=True,
    )


def _torque(parts: Parts) -> _Work:
    bolting = parts.workshop.bolting
    torques = sorted({(line.tight.torque_n_m, line.size) for line in parts.bolts})
    told = (
        ", ".join(f"{size} {say_torque(t, parts.units)}" for t, size in torques)
        or "as the clamp's maker says"
    )
    return _Work(
        "torque",
        ("set", "strap", "square"),
        f"{parts.carrier.name}: tighten in order",
        f"Feet first, from the middle outward, then corners the same way; half, then full: {told}, "
        f"{GREASED[bolting.lubrication]}, {LOCKED[bolting.locking]}. Bolts outside before those under them.",
        "Paint mark across each nut; diagonals still agree.",
        on_roof=True,
        count=sum(line.count for line in parts.bolts),
    )
