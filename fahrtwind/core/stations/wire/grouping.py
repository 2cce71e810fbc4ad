"""Which panels plug into what: every grouping of up to eight panels on up to three controllers, over a year.

Every set of panels in series is worked once, every way to join such strings once for each kind of controller;
the best shares of the panels among the controllers then follow exactly. With more panels only even strings of
neighbours are tried, and the answer says so.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cache, cached_property

import numpy as np
import numpy.typing as npt

from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.job.wiring import Controller
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.curves import (
    STEPS,
    LitPanel,
    Window,
    best_of,
    current_grid,
    panel_volts,
    string_amps,
    window_of,
)

FloatArray = npt.NDArray[np.float64]
Single = npt.NDArray[np.float32]
MOST_TRIED, MOST_CONTROLLERS = 8, 3
COARSE, FINE, FINE_STEPS = 1.03, 1.006, 480
"""Steps of voltage while all is tried, and while the best are worked again."""
KEPT = 3
ALL_EIGHT = 21_146
"""Ways to join some of eight panels in strings: the ninth Bell number, less none."""
Strings = tuple[frozenset[int], ...]


@dataclass(frozen=True, slots=True)
class Joined:
    """Strings joined on one controller: energy of a year and by what else they are ranked."""

    controller: int
    strings: Strings
    year_wh: float
    december_wh: float
    worst_w: float
    squared_a2h: float
    """Square of the current over the year, A² h: what a cable's resistance turns into heat."""

    @property
    def panels(self) -> frozenset[int]:
        """Everything on it."""
        return frozenset().union(*self.strings)


@dataclass(frozen=True, slots=True)
class Tried:
    """Ways to plug everything in, best first, how many were worked, and whether those were all there are."""

    ways: tuple[tuple[Joined, ...], ...]
    worked: int
    all: bool


@dataclass(frozen=True, slots=True, eq=False)
class Field:
    """Panels and moments a search is about. ``hours`` each moment stands for; ``december``: which of them;
    ``worst``: the one in which shade takes most. ``cold_v``: of each panel in record cold; ``code_factor``:
    what an input's current counts by.
    """

    panels: tuple[LitPanel, ...]
    kinds: tuple[str, ...]
    hours: FloatArray
    december: npt.NDArray[np.bool_]
    worst: int
    cold_v: tuple[float, ...]
    isc_a: tuple[float, ...]
    code_factor: float = 1.0


class Search:
    """The powers of a field's strings on one grid of voltages, worked when they are first asked for.

    At one voltage the powers of strings joined add up, so a way to join them is a sum and a maximum.
    """

    def __init__(
        self, field: Field, controllers: Sequence[Controller], ratio: float = COARSE, *, rough: bool = False
    ) -> None:
        self.rough = rough
        self.field, self.controllers = field, tuple(controllers)
        self.windows = tuple(window_of(c) for c in controllers)
        self.currents = current_grid(field.panels, STEPS if ratio == COARSE else FINE_STEPS)
        self.grid = _grid(self.windows, sum(field.cold_v), ratio)
        self._slices = [_slice(self.grid, w) for w in self.windows]
        self._volts = [panel_volts(p, self.currents) for p in field.panels]
        self._strings: dict[frozenset[int], Single] = {}
        self._hours = field.hours.astype(np.float32)
        self.worked = 0

    @cached_property
    def finely(self) -> Search:
        """The same in fine steps of voltage; itself where a first look is enough."""
        return self if self.rough else Search(self.field, self.controllers, FINE)

    def alone(self) -> list[FloatArray]:
        """What each panel alone would give at its best, W, by moment."""
        return [best_of(volts, self.currents) for volts in self._volts]

    def fits(self, string: frozenset[int], controller: int) -> bool:
        """Whether a string may be plugged in in record cold."""
        limit = self.controllers[controller].max_voltage
        return limit is None or sum(self.field.cold_v[i] for i in string) <= limit.v

    def bears(self, strings: Sequence[frozenset[int]], controller: int) -> bool:
        """Whether the input bears the strings' currents together."""
        limit = self.controllers[controller].max_current
        together = sum(max(self.field.isc_a[i] for i in s) for s in strings)
        return limit is None or self.field.code_factor * together <= limit.a

    def powers(self, string: frozenset[int]) -> Single:
        """Power of a string at the voltages of the grid, negative where it is driven backwards: shape (grid,
        moments).
        """
        if string not in self._strings:
            volts = np.sum([self._volts[i] for i in string], axis=0)
            amps = string_amps(volts, self.currents, self.grid)
            self._strings[string] = np.ascontiguousarray((amps * self.grid).T, dtype=np.float32)
        return self._strings[string]

    def taken(self, powers: Single, controller: int) -> Single:
        """What a controller takes in every moment, W."""
        window = self.windows[controller]
        found: Single = np.clip(powers[self._slices[controller]].max(axis=0, initial=0.0), 0, window.most_w)
        return found

    def year_wh(self, powers: Single, controller: int) -> float:
        """What a controller takes in a year."""
        self.worked += 1
        return float(self.taken(powers, controller) @ self._hours)

    def joined(self, controller: int, strings: Strings, powers: Single) -> Joined:
        """What one controller takes from strings joined."""
        power = self.taken(powers, controller)
        energy = power * self._hours
        within = self._slices[controller]
        grid = self.grid[within]  # empty where a battery wants more volts than its controller bears
        volts = grid[powers[within].argmax(axis=0)] if len(grid) else np.ones_like(power)
        squared = (power / np.maximum(volts, 1.0)) ** 2
        return Joined(
            controller,
            strings,
            float(energy.sum()),
            float(energy[self.field.december].sum()),
            float(power[self.field.worst]) if len(power) else 0.0,
            float(squared @ self._hours),
        )


def _grid(windows: Sequence[Window], cold_v: float, ratio: float) -> FloatArray:
    """Voltages from the lowest that is taken to the highest that can be, a constant share apart; those of
    switching controllers exactly.
    """
    low = min((w.low_v for w in windows), default=1.0)
    high = max(min(cold_v, max((w.high_v for w in windows), default=cold_v)), low)
    even = np.geomspace(low, high, max(int(np.log(high / low) / np.log(ratio)) + 2, 2))
    return np.unique(np.concatenate([even, [w.low_v for w in windows]]))


def _slice(grid: FloatArray, window: Window) -> slice:
    if window.switching:
        at = int(np.searchsorted(grid, window.low_v))
        return slice(at, at + 1)
    return slice(
        int(np.searchsorted(grid, window.low_v)), int(np.searchsorted(grid, window.high_v, side="right"))
    )


def given_way(search: Search, plugged: Sequence[tuple[int, Strings]]) -> tuple[Joined, ...]:
    """A grouping somebody chose, worked like the proposals."""
    told = []
    for controller, strings in plugged:
        powers = np.sum([search.powers(s) for s in strings], axis=0)
        told.append(search.joined(controller, strings, powers))
    return tuple(told)


def best_ways(search: Search, most: int = 12) -> Tried:
    """The best ways to plug in all panels, each shape once. Told progress; stops when asked to."""
    count = len(search.field.panels)
    if not count or not search.controllers:
        return Tried((), 0, True)
    if count > MOST_TRIED or len(search.controllers) > MOST_CONTROLLERS:
        return even_ways(search, most)
    ranked = _ranked(search, _best_by_set(search), most)
    return Tried(_finely(search, ranked), search.worked, True)


def _finely(search: Search, ways: Sequence[Sequence[tuple[int, Strings]]]) -> tuple[tuple[Joined, ...], ...]:
    """Worked again in fine steps of voltage, best first."""
    fine = search.finely
    return tuple(sorted((given_way(fine, way) for way in ways), key=lambda w: -year_wh(w)))


def year_wh(way: tuple[Joined, ...]) -> float:
    """What a way gives in a year, Wh."""
    return sum(j.year_wh for j in way)


def _allowed(search: Search, strings: Strings, controller: int) -> bool:
    return all(search.fits(s, controller) for s in strings) and search.bears(strings, controller)


@dataclass(frozen=True, slots=True)
class _Set:
    """Panels, as bits, joined in strings: energy of a year, and the shape that equal panels share."""

    bits: int
    strings: tuple[int, ...]
    year_wh: float
    shape: tuple[tuple[str, ...], ...]


def _best_by_set(search: Search) -> list[dict[int, list[_Set]]]:
    """For each controller and each set of panels the best ways to join them on it."""
    found: list[dict[int, list[_Set]]] = [{} for _ in search.controllers]
    twins = _twins(search.controllers)
    kinds = search.field.kinds
    shapes = {s: tuple(sorted(kinds[i] for i in _members(s))) for s in range(1, 2 ** len(kinds))}
    fit = [{s for s in shapes if search.fits(_members(s), c)} for c in range(len(search.controllers))]
    for done, (bits, strings, powers) in enumerate(_partitions(search, set().union(*fit))):
        if done % 50 == 0:
            go_on(min(done / ALL_EIGHT, 0.98), f"{search.worked} groupings worked")
        for c, same_as in enumerate(twins):
            if same_as < c or not all(s in fit[c] for s in strings):
                continue
            if not search.bears([_members(s) for s in strings], c):
                continue
            kept = found[c].setdefault(bits, [])
            year = search.year_wh(powers, c)
            if len(kept) < KEPT or year > kept[-1].year_wh:
                _keep(kept, _Set(bits, strings, year, tuple(sorted(shapes[s] for s in strings))))
    return [found[same_as] for same_as in twins]


@cache
def _members(bits: int) -> frozenset[int]:
    return frozenset(i for i in range(bits.bit_length()) if bits >> i & 1)


def _twins(controllers: Sequence[Controller]) -> list[int]:
    """For every controller the first that is the same but for its name."""
    bare = [c.model_copy(update={"id": "", "name": "", "price": None}) for c in controllers]
    return [bare.index(b) for b in bare]


def _partitions(search: Search, usable: set[int]) -> Iterator[tuple[int, tuple[int, ...], Single]]:
    """Every set of strings with no panel twice, with its powers. A next string starts past the last one's
    first panel, so none comes twice.
    """
    count = len(search.field.panels)
    by_first = [[s for s in sorted(usable) if (s & -s).bit_length() - 1 == i] for i in range(count)]

    def further(
        chosen: tuple[int, ...], used: int, first: int, powers: Single | None
    ) -> Iterator[tuple[int, tuple[int, ...], Single]]:
        for start in range(first, count):
            for string in by_first[start]:
                if string & used:
                    continue
                own = search.powers(_members(string))
                total = own if powers is None else powers + own
                more = (*chosen, string)
                yield used | string, more, total
                yield from further(more, used | string, start + 1, total)

    return further((), 0, 0, None)


def _keep(kept: list[_Set], new: _Set) -> None:
    """The best few, each shape once: equal panels in other places are no other way."""
    same = next((i for i, j in enumerate(kept) if j.shape == new.shape), None)
    if same is None:
        kept.append(new)
    elif new.year_wh > kept[same].year_wh:
        kept[same] = new
    kept.sort(key=lambda j: -j.year_wh)
    del kept[KEPT:]


def _shared(best: list[dict[int, list[_Set]]], panels: int) -> Iterator[tuple[tuple[int, _Set], ...]]:
    """Every way to share the panels among the controllers, each with its best few joinings."""
    last = len(best) - 1

    def further(c: int, left: int) -> Iterator[tuple[tuple[int, _Set], ...]]:
        if not left:
            yield ()
            return
        if c == last:
            yield from (((c, joined),) for joined in best[c].get(left, ()))
            return
        yield from further(c + 1, left)
        for own, kept in best[c].items():
            if own & ~left:
                continue
            rests = tuple(further(c + 1, left & ~own))
            for joined in kept:
                yield from (((c, joined), *rest) for rest in rests)

    return further(0, panels)


def _ranked(search: Search, best: list[dict[int, list[_Set]]], most: int) -> list[list[tuple[int, Strings]]]:
    """Best first, each shape once."""
    twins = _twins(search.controllers)
    seen: dict[object, tuple[float, tuple[tuple[int, _Set], ...]]] = {}
    for way in _shared(best, 2 ** len(search.field.panels) - 1):
        key = tuple(sorted((twins[c], j.shape) for c, j in way))
        year = sum(j.year_wh for _, j in way)
        if key not in seen or year > seen[key][0]:
            seen[key] = (year, way)
    ranked = sorted(seen.values(), key=lambda w: -w[0])[:most]
    return [[(c, tuple(_members(s) for s in j.strings)) for c, j in way] for _, way in ranked]


def even_ways(search: Search, most: int = 12) -> Tried:
    """Even strings of neighbours: all on one controller, or a share on each, by kind or by place."""
    count, kinds = len(search.field.panels), list(dict.fromkeys(search.field.kinds))
    shares = [[tuple(range(count))]]
    if 1 < len(kinds) <= len(search.controllers):
        shares.append([tuple(i for i in range(count) if search.field.kinds[i] == k) for k in kinds])
    for parts in range(2, min(len(search.controllers), count) + 1):
        shares.append([tuple(int(i) for i in a) for a in np.array_split(np.arange(count), parts)])
    ways: dict[object, tuple[float, list[tuple[int, Strings]]]] = {}
    for share in shares:
        for way in _each_even(search, share):
            ways[tuple(way)] = (sum(_coarse(search, way)), way)
    ranked = [way for _, way in sorted(ways.values(), key=lambda w: -w[0])[:most]]
    return Tried(_finely(search, ranked), search.worked, False)


def _coarse(search: Search, way: Sequence[tuple[int, Strings]]) -> Iterator[float]:
    for controller, strings in way:
        yield search.year_wh(np.sum([search.powers(s) for s in strings], axis=0), controller)


def _each_even(search: Search, share: list[tuple[int, ...]]) -> Iterator[list[tuple[int, Strings]]]:
    """One way for every length of string on every controller that takes it; with several controllers the
    best length on each.
    """
    told = []
    for controller, own in enumerate(share):
        options = []
        for length in (n for n in range(1, len(own) + 1) if len(own) % n == 0):
            go_on(0.5, f"{search.worked} groupings worked")
            strings = tuple(frozenset(own[i : i + length]) for i in range(0, len(own), length))
            if _allowed(search, strings, controller):
                options.append((controller, strings))
        if not options:
            return
        told.append(sorted(options, key=lambda way: -sum(_coarse(search, [way]))))
    yield [options[0] for options in told]
    if len(told) == 1:
        yield from ([option] for option in told[0][1:])
