"""What the wiring takes, counted from its runs: cable, connectors, branch pieces, fuses, ties, labels."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from math import ceil

from fahrtwind.core.job.wiring import Clip, Wiring
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_run, say_size
from fahrtwind.core.stations.wire.limits import fuse_for, needs_fuse
from fahrtwind.core.stations.wire.route import CLIP_EVERY_MM
from fahrtwind.core.stations.wire.runs import Harness, Run, laid_ways
from fahrtwind.core.stations.wire.strings import Array

EXTENSION_STEP_MM = 100.0
"""Extensions are cut to the next tenth of a metre: common practice."""
CLIP_WORDS: dict[Clip, str] = {
    "stuck": "stick-on clip with dab of sealant",
    "screwed": "cable clip with stainless screw 4.2 × 13",
}


@dataclass(frozen=True, slots=True)
class WirePart:
    """``unit``: piece or m; ``note``: what for."""

    item: str
    amount: float
    unit: str
    note: str


def parts_of(
    arrays: tuple[Array, ...], harnesses: tuple[Harness, ...], wiring: Wiring, units: UnitSystem
) -> tuple[WirePart, ...]:
    """Everything to buy for the wiring but the panels; extensions by length, all else added up."""
    found: list[WirePart] = []
    by_id = {h.controller: h for h in harnesses}
    for array in arrays:
        harness = by_id.get(array.controller.id)
        if array.strings and harness is not None:
            found += _of_controller(array, harness, wiring)
    found += _cables(harnesses, wiring, units)
    found += _fixings(harnesses, wiring.clip, say_size(CLIP_EVERY_MM, units))
    return tuple(_added_up(found))


def _of_controller(array: Array, harness: Harness, wiring: Wiring) -> Iterator[WirePart]:
    c, count = array.controller, len(array.strings)
    yield WirePart(f"charge controller {c.name}", 1, "pc", f"for {array.words} on {c.battery} V")
    yield WirePart("two-pole isolator for direct current", 1, "pc", f"before {c.name}; by its rated volts")
    if harness.branch is not None:
        yield WirePart(f"branch pieces, {count} into 1, plus and minus", 1, "pair", c.name)
    elif count > 1:
        yield WirePart(f"combiner terminal for {count} strings", 1, "pc", f"beside {c.name}")
    if c.fuse or needs_fuse(array):
        fits = fuse_for(array, wiring.code)
        size = c.fuse.a if c.fuse else fits.low if fits else 0.0
        says = f"fuse {size:g} A with holder, for direct current" if size else "fuse that no size serves"
        yield WirePart(says, count, "pc", "one in the plus of each string")


def _cables(harnesses: tuple[Harness, ...], wiring: Wiring, units: UnitSystem) -> Iterator[WirePart]:
    lengths: Counter[tuple[float, str]] = Counter()
    connectors = ferrules = 0
    for run in (r for h in harnesses for r in h.runs):
        plugs, ends = _ends(run)
        connectors, ferrules = connectors + plugs, ferrules + ends
        if run.extension_mm > 0:
            lengths[_cut(run.extension_mm), "red" if run.polarity == "+" else "black"] += 1
    for jumper in (j for h in harnesses for j in h.jumpers if j.extension_mm > 0):
        connectors += 2
        lengths[_cut(jumper.extension_mm), "black"] += 1
    for colour in ("red", "black"):
        total = sum(long * n for (long, own), n in lengths.items() if own == colour)
        pieces = ", ".join(
            f"{n} × {say_run(long, units)}" for (long, own), n in sorted(lengths.items()) if own == colour
        )
        if total:
            yield WirePart(f"PV cable {wiring.cable}, {colour}", round(total / 1000, 1), "m", f"cut {pieces}")
    if connectors:
        note = "half plugs, half sockets; each cable one of each, so red stays red"
        yield WirePart(f"PV connector for {wiring.cable}", connectors, "pc", note)
    if ferrules:
        yield WirePart(f"ferrule for {wiring.cable}", ferrules, "pc", "at terminals; crimp and tug")


def _ends(run: Run) -> tuple[int, int]:
    """Connectors and ferrules a run takes; a lead that reaches by itself takes a ferrule at the end."""
    to_terminal = run.ends == "controller"
    if run.extension_mm <= 0:
        return 0, int(to_terminal)
    return (1, 1) if to_terminal else (2, 0)


def _cut(long_mm: float) -> float:
    return ceil(long_mm / EXTENSION_STEP_MM) * EXTENSION_STEP_MM


def _fixings(harnesses: tuple[Harness, ...], clip: Clip, every: str) -> Iterator[WirePart]:
    ways = [way for harness in harnesses for way in laid_ways(harness).values()]
    ties, clips = sum(w.ties for w in ways), sum(w.clips for w in ways)
    loom = sum(w.open_mm for w in ways)
    if ties:
        yield WirePart("tie, proof against sunlight", ties, "pc", f"every {every} along frames and rails")
    if clips:
        yield WirePart(CLIP_WORDS[clip], clips, "pc", f"every {every} over open roof")
    if loom:
        yield WirePart("loom, proof against sunlight", round(loom / 1000, 1), "m", "over open roof")
    labels = 2 * sum(len(h.runs) for h in harnesses)
    if labels:
        yield WirePart("cable label", labels, "pc", "both ends of each run")
        yield WirePart("tape for live ends", 1, "roll", "every open end, until it is plugged")


def _added_up(parts: list[WirePart]) -> Iterator[WirePart]:
    sums: dict[tuple[str, str], list[WirePart]] = {}
    for part in parts:
        sums.setdefault((part.item, part.unit), []).append(part)
    for (item, unit), alike in sums.items():
        notes = "; ".join(dict.fromkeys(p.note for p in alike))
        yield WirePart(item, round(sum(p.amount for p in alike), 1), unit, notes)
