"""Every conductor from a panel's lead to the controller: its way, its length, what must be added to the lead.

A string has a plus at its first panel and a minus at its last. Strings joined on the roof meet where the one
nearest to the gland ends; from there one pair goes in.
"""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.cables import cable_end
from fahrtwind.core.stations.layout.footprint import panel_rect
from fahrtwind.core.stations.survey.outline import Vertex
from fahrtwind.core.stations.wire.route import Ground, Spot, Way, way_between, way_past, ways_from
from fahrtwind.core.stations.wire.strings import Array, Plugged

SLACK = 1.05
"""Of every way: common practice, no source."""
DRIP_LOOP_MM = 150.0
"""Before the gland, so that water drops off below it: common practice, no source."""
Polarity = Literal["+", "-"]


@dataclass(frozen=True, slots=True)
class Run:
    """A conductor that has to be there: ``length_mm`` with slack, of which the panel's own lead is
    ``lead_mm``; ``extension_mm``: cable with a connector at both ends to be added, 0 where the lead reaches.
    ``label``: what is written on it; ``trunk``: it carries all strings of its controller.
    """

    id: str
    label: str
    controller: str
    string: str
    polarity: Polarity
    starts: str
    ends: Literal["controller", "branch"]
    trunk: bool
    way: Way
    length_mm: float
    lead_mm: float
    extension_mm: float


@dataclass(frozen=True, slots=True)
class Jumper:
    """From the minus lead of one panel to the plus lead of the next: how far apart, how far both leads
    reach.
    """

    string: str
    first: str
    second: str
    way: Way
    leads_mm: float
    extension_mm: float


@dataclass(frozen=True, slots=True)
class Harness:
    """All conductors of one controller."""

    controller: str
    runs: tuple[Run, ...]
    jumpers: tuple[Jumper, ...]
    branch: Vertex | None


def laid_ways(harness: Harness) -> dict[str, Way]:
    """What is laid, by its name: plus and minus of a string lie side by side, the longer of both counts."""
    ways: dict[str, Way] = {}
    for run in harness.runs:
        name = f"cables of {run.label[:-1]}"
        if name not in ways or run.way.length_mm > ways[name].length_mm:
            ways[name] = run.way
    for jumper in harness.jumpers:
        ways[f"leads from {jumper.first} to {jumper.second}"] = jumper.way
    return ways


def end_of(panel: PlacedPanel) -> Spot:
    """Where a panel's leads come out; its middle while nobody said."""
    return cable_end(panel) or panel_rect(panel).centre


def harnesses_of(
    arrays: tuple[Array, ...], wiring: Wiring, lengths: tuple[float, float], ground: Ground, gland: Spot
) -> tuple[Harness, ...]:
    """The conductors of every controller. ``lengths``: of each lead of a panel, and inside, mm."""
    strings = tuple(s for a in arrays for s in a.strings)
    past = {s.string.id: _past(wiring, s) for s in strings}
    ways = _to_gland(ground, strings, gland, past)
    return tuple(_harness(a, (past, ways), lengths, ground, gland) for a in arrays if a.strings)


def _harness(
    array: Array,
    led: tuple[dict[str, list[Spot]], dict[str, list[Way]]],
    lengths: tuple[float, float],
    ground: Ground,
    gland: Spot,
) -> Harness:
    """The conductors of a controller. ``led``: the spots every string goes past, its ways to the gland."""
    (past, ways), (lead_mm, inside) = led, lengths
    branch = None
    if array.controller.joined == "roof" and len(array.strings) > 1:
        nearest = min(array.strings, key=lambda s: sum(w.length_mm for w in ways[s.string.id]))
        branch = end_of(nearest.panels[0])
        met = _ways(ground, branch, array.strings)
        runs = [r for s in array.strings for r in _to_branch(array, s, met[s.string.id], lead_mm)]
        # without spots to lead it past it is the way that the nearest string's plus would take
        spots = [spot for s in array.strings for spot in past[s.string.id]]
        trunk = way_past(ground, branch, spots, gland) if spots else ways[nearest.string.id][0]
        runs += _trunk(array, nearest, trunk, inside)
    else:
        runs = [
            r for s in array.strings for r in _to_controller(array, s, ways[s.string.id], lead_mm, inside)
        ]
    jumpers = [j for s in array.strings for j in _jumpers(ground, s, lead_mm)]
    return Harness(array.controller.id, tuple(runs), tuple(jumpers), Vertex(*branch) if branch else None)


def _past(wiring: Wiring, plugged: Plugged) -> list[Spot]:
    return [(p.x.mm, p.y.mm) for p in wiring.points if p.string == plugged.string.id]


def _to_gland(
    ground: Ground, strings: tuple[Plugged, ...], gland: Spot, past: dict[str, list[Spot]]
) -> dict[str, list[Way]]:
    """Of plus and minus of every string, past its spots where it has some."""
    free = tuple(s for s in strings if not past[s.string.id])
    led = (s for s in strings if past[s.string.id])
    return _ways(ground, gland, free) | {
        s.string.id: [way_past(ground, end, past[s.string.id], gland) for end in _ends(s)] for s in led
    }


def _ends(plugged: Plugged) -> list[Spot]:
    return [end_of(plugged.panels[0]), end_of(plugged.panels[-1])]


def _ways(ground: Ground, to: Spot, strings: tuple[Plugged, ...]) -> dict[str, list[Way]]:
    """From the ends of all strings to one spot, in one search."""
    if not strings:
        return {}
    found = ways_from(ground, to, [end for s in strings for end in _ends(s)])
    return {s.string.id: found[2 * i : 2 * i + 2] for i, s in enumerate(strings)}


def _to_controller(
    array: Array, plugged: Plugged, ways: list[Way], lead_mm: float, inside_mm: float
) -> list[Run]:
    more = DRIP_LOOP_MM + inside_mm
    return _pair(array, plugged, [(way, way.length_mm * SLACK + more) for way in ways], "controller", lead_mm)


def _to_branch(array: Array, plugged: Plugged, ways: list[Way], lead_mm: float) -> list[Run]:
    return _pair(array, plugged, [(way, way.length_mm * SLACK) for way in ways], "branch", lead_mm)


def _pair(
    array: Array,
    plugged: Plugged,
    ways: list[tuple[Way, float]],
    ends: Literal["controller", "branch"],
    lead_mm: float,
) -> list[Run]:
    """Plus from the first panel, minus from the last; each way with how long its conductor has to be, mm."""
    polarities: tuple[Polarity, Polarity] = ("+", "-")
    return [
        Run(
            f"{plugged.string.id}{polarity}",
            f"S{plugged.number}{polarity}",
            array.controller.id,
            plugged.string.id,
            polarity,
            panel.name,
            ends,
            False,
            way,
            long,
            lead_mm,
            max(long - lead_mm, 0.0),
        )
        for polarity, panel, (way, long) in zip(
            polarities, (plugged.panels[0], plugged.panels[-1]), ways, strict=True
        )
    ]


def _trunk(array: Array, nearest: Plugged, way: Way, inside_mm: float) -> list[Run]:
    """The pair from the branch pieces to the controller, past the spots of any of its strings."""
    long = way.length_mm * SLACK + DRIP_LOOP_MM + inside_mm
    return [
        Run(
            f"{array.controller.id}{polarity}",
            f"C{array.number}{polarity}",
            array.controller.id,
            "",
            polarity,
            nearest.name,
            "controller",
            True,
            way,
            long,
            0.0,
            long,
        )
        for polarity in ("+", "-")
    ]


def _jumpers(ground: Ground, plugged: Plugged, lead_mm: float) -> list[Jumper]:
    found = []
    for one, other in zip(plugged.panels, plugged.panels[1:], strict=False):
        way = way_between(ground, end_of(one), end_of(other))
        both = 2 * lead_mm
        more = max(way.length_mm * SLACK - both, 0.0)
        found.append(Jumper(plugged.string.id, one.name, other.name, way, both, more))
    return found
