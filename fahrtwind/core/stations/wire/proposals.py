"""Ways to plug the panels together over the year, ranked, beside what the job has; and why."""

from __future__ import annotations

from collections import Counter

import numpy as np
import numpy.typing as npt

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.layout.sun.moments import Moments
from fahrtwind.core.stations.wire.carrying import resistance
from fahrtwind.core.stations.wire.curves import lit_panel
from fahrtwind.core.stations.wire.diode import Diode
from fahrtwind.core.stations.wire.grouping import (
    Field,
    Joined,
    Search,
    Strings,
    best_ways,
    even_ways,
    given_way,
    year_wh,
)
from fahrtwind.core.stations.wire.limits import INPUT_FACTOR, cold_volts
from fahrtwind.core.stations.wire.runs import Harness
from fahrtwind.core.stations.wire.strings import PanelDiode
from fahrtwind.core.tables.cables import CABLES

FloatArray = npt.NDArray[np.float64]
DECEMBER = 11
DAYS_OF_DECEMBER = 31
BRIGHT_W_M2 = 200.0
SAME_PERCENT = 0.2


@dataclass(frozen=True, slots=True)
class ProposedString:
    controller: str
    panels: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Grouping:
    """A way to plug everything in. ``words``: 2s3p on each controller; ``year_kwh``, ``december_wh`` a day,
    ``worst_w`` in the hour in which shade takes most, ``lost_percent`` of what the panels would give each by
    itself; ``spare_v_percent``: to the nearest voltage limit, None where no limit is known; ``carried_a``:
    most that one pair of cables carries, ``pairs``: how many go in; ``cable_kwh``: what they lose in a year,
    None before the way is known.
    """

    words: str
    strings: tuple[ProposedString, ...]
    year_kwh: float
    december_wh: float
    worst_w: float
    lost_percent: float
    spare_v_percent: float | None
    carried_a: float
    pairs: int
    cable_kwh: float | None
    own: bool


@dataclass(frozen=True, slots=True)
class GroupingFinding:
    """Best first. ``own``: what the job has, None while nothing is plugged; ``all_tried``: every grouping was
    worked, so none gives more than the first but for the steps of voltage; ``reason``: why, in one sentence.
    ``worst_words``: which hour is the one of most shade.
    """

    ways: tuple[Grouping, ...]
    own: Grouping | None
    worked: int
    all_tried: bool
    alone_kwh: float
    reason: str
    worst_words: str
    left_out: tuple[str, ...]


def groupings_of(
    wiring: Wiring,
    panels: tuple[PlacedPanel, ...],
    diodes: tuple[PanelDiode, ...],
    moments: Moments,
    harnesses: tuple[Harness, ...] = (),
    *,
    even_only: bool = False,
) -> GroupingFinding:
    """``even_only``: a first look at even strings of neighbours.

    Raises InputError where there is no controller, no record low, or a controller whose volts nobody told.
    """
    if not wiring.controllers:
        raise InputError(
            "There is no controller to plug into.",
            remedy="Add a controller with what its sheet says.",
            field="wiring.controllers",
        )
    if wiring.coldest is None:
        raise InputError(
            "The record low is not known: the cold voltage decides what may be plugged in.",
            remedy="Type the coldest it has been where the vehicle will stand.",
            field="wiring.coldest",
        )
    silent = next((c for c in wiring.controllers if c.max_voltage is None), None)
    if silent is not None:
        raise InputError(
            f"Nobody said how many volts {silent.name} bears: what may be plugged into it is not known.",
            remedy="Type its highest input voltage from its sheet.",
            field=f"wiring.controllers.{silent.id}.max_voltage",
        )
    known = {d.panel: d.diode for d in diodes if d.diode is not None}
    used = [(i, p, known[p.id]) for i, p in enumerate(panels) if p.id in known]
    field = _field(used, moments, wiring.coldest.deg_c, wiring.code)
    search = Search(field, wiring.controllers, rough=even_only)
    even = tuple(moments.even[i] for i, _, _ in used)
    told = _Told(
        wiring, tuple(p for _, p, _ in used), field, moments, even, _pair_mm(harnesses), search.finely
    )
    found = even_ways(search) if even_only else best_ways(search)
    ways = tuple(told.grouping(way, False) for way in found.ways)
    own_way = _own(wiring, told.panels, search.finely)
    own = told.grouping(own_way, True) if own_way else None
    return GroupingFinding(
        ways,
        own,
        found.worked,
        found.all,
        told.alone_wh / 1000,
        told.reason(search, found.ways, found.all),
        told.worst_words(),
        tuple(p.name for p in panels if p.id not in known),
    )


def _pair_mm(harnesses: tuple[Harness, ...]) -> float | None:
    """Both conductors of a pair that goes in, in the mean; None where no way is known."""
    going_in = [r.length_mm for h in harnesses for r in h.runs if r.ends == "controller"]
    return 2 * sum(going_in) / len(going_in) if going_in else None


def _field(
    used: list[tuple[int, PlacedPanel, Diode]], moments: Moments, coldest_c: float, code: str
) -> Field:
    lit = [lit_panel(p, d, moments.light[i], moments.air_c, moments.wind_m_s) for i, p, d in used]
    even = np.sum([moments.even[i] for i, _, _ in used], axis=0) if used else np.zeros(len(moments.month))
    left = np.sum([moments.light[i].mean(axis=0) for i, _, _ in used], axis=0) if used else even
    bright = moments.clear & (even > BRIGHT_W_M2 * max(len(used), 1))
    shade = np.where(bright, 1 - left / np.maximum(even, 1.0), -1.0)
    cold = [cold_volts((d,), coldest_c)[0] for _, _, d in used]
    return Field(
        tuple(lit),
        tuple(p.model.name for _, p, _ in used),
        moments.hours,
        moments.month == DECEMBER,
        int(np.argmax(shade)) if len(shade) else 0,
        tuple(cold),
        tuple(d.isc_a for _, _, d in used),
        INPUT_FACTOR[code],
    )


def _own(wiring: Wiring, panels: tuple[PlacedPanel, ...], search: Search) -> tuple[Joined, ...]:
    """What the job has plugged, as far as its panels are there."""
    at = {p.id: i for i, p in enumerate(panels)}
    plugged: list[tuple[int, Strings]] = []
    for c, controller in enumerate(wiring.controllers):
        strings = tuple(
            frozenset(at[i] for i in s.panels)
            for s in wiring.strings
            if s.controller == controller.id and s.panels and all(i in at for i in s.panels)
        )
        if strings:
            plugged.append((c, strings))
    return given_way(search, plugged) if plugged else ()


class _Told:
    """Groupings in words and figures."""

    def __init__(
        self,
        wiring: Wiring,
        panels: tuple[PlacedPanel, ...],
        field: Field,
        moments: Moments,
        even: tuple[FloatArray, ...],
        pair_mm: float | None,
        fine: Search,
    ) -> None:
        self.wiring, self.panels, self.even = wiring, panels, even
        self.field, self.moments, self.pair_mm = field, moments, pair_mm
        self.alone = fine.alone()
        self.alone_wh = float(sum((a * field.hours).sum() for a in self.alone))

    def grouping(self, way: tuple[Joined, ...], own: bool) -> Grouping:
        """One way in figures."""
        used = [i for j in way for s in j.strings for i in s]
        alone = float(sum((self.alone[i] * self.field.hours).sum() for i in used))
        year = year_wh(way)
        return Grouping(
            self._words(way),
            tuple(
                ProposedString(
                    self.wiring.controllers[j.controller].id, tuple(self.panels[i].id for i in order)
                )
                for j in way
                for order in (self._in_order(s) for s in j.strings)
            ),
            year / 1000,
            sum(j.december_wh for j in way) / DAYS_OF_DECEMBER,
            sum(j.worst_w for j in way),
            max((1 - year / alone) * 100, 0.0) if alone else 0.0,
            self._spare(way),
            max((self._carried(j) for j in way), default=0.0),
            sum(1 if self._on_roof(j) else len(j.strings) for j in way),
            self._cable_kwh(way),
            own,
        )

    def _cable_kwh(self, way: tuple[Joined, ...]) -> float | None:
        """Lost there and back in the pairs that go in, each as long as those of the job are now."""
        if self.pair_mm is None:
            return None
        ohm = resistance(CABLES[self.wiring.cable]) * self.pair_mm / 1e6
        pairs = (1 if self._on_roof(j) else len(j.strings) for j in way)
        return sum(ohm * j.squared_a2h / n for j, n in zip(way, pairs, strict=True)) / 1000

    def _in_order(self, string: frozenset[int]) -> list[int]:
        """From front to rear, so that leads meet."""
        return sorted(string, key=lambda i: (self.panels[i].x.mm, self.panels[i].y.mm))

    def _words(self, way: tuple[Joined, ...]) -> str:
        told = []
        for joined in way:
            lengths = Counter(len(s) for s in joined.strings)
            plugged = " + ".join(f"{n}s{c}p" for n, c in sorted(lengths.items(), reverse=True))
            name = self.wiring.controllers[joined.controller].name
            told.append(f"{name}: {plugged}" if len(self.wiring.controllers) > 1 else plugged)
        return "; ".join(told)

    def _on_roof(self, joined: Joined) -> bool:
        return self.wiring.controllers[joined.controller].joined == "roof"

    def _carried(self, joined: Joined) -> float:
        each = [max(self.field.isc_a[i] for i in s) for s in joined.strings]
        return sum(each) if self._on_roof(joined) else max(each)

    def _spare(self, way: tuple[Joined, ...]) -> float | None:
        spare = []
        for joined in way:
            limit = self.wiring.controllers[joined.controller].max_voltage
            if limit is not None:
                cold = max(sum(self.field.cold_v[i] for i in s) for s in joined.strings)
                spare.append((1 - cold / limit.v) * 100)
        return min(spare, default=None)

    def worst_words(self) -> str:
        """The hour in which shade takes most."""
        if not len(self.moments.month) or not self.panels:
            return ""
        at = self.field.worst
        names = ("January", "February", "March", "April", "May", "June", "July", "August", "September")
        month = (*names, "October", "November", "December")[int(self.moments.month[at])]
        return f"{month}, about {float(self.moments.hour[at]):.0f} h"

    def reason(self, search: Search, ways: tuple[tuple[Joined, ...], ...], tried: bool) -> str:
        """Series against parallel over the year, on this roof with these controllers. What was not ``tried``
        is not spoken of.
        """
        if not ways:
            return self._nothing_fits()
        if not year_wh(ways[0]):
            return "No way charges the battery: the panels never have the volts for it."
        if len(self.panels) < 2:
            return ""
        series = next((w for w in ways if any(len(s) > 1 for j in w for s in j.strings)), None)
        parallel = next((w for w in ways if all(len(s) == 1 for j in w for s in j.strings)), None)
        if series is None or parallel is None:
            return "" if not tried else self._only(search, "parallel" if series is None else "series")
        better, other, most, least = "series", "all in parallel", year_wh(series), year_wh(parallel)
        if least > most:
            better, other, most, least = "parallel", "in series", least, most
        if not least:
            return f"Only in {better}: {other} the panels never have the volts to charge the battery."
        more = (most / least - 1) * 100
        if more < SAME_PERCENT:
            return f"In series or in parallel this roof gives the same ({self._because()}): choose by cable."
        return f"Best in {better}: {more:.1f} % more a year than {other}. {self._because().capitalize()}."

    def _nothing_fits(self) -> str:
        """By how much the panel with the fewest volts misses the controller that bears most."""
        if not self.panels:
            return "No panel's sheet gives a curve."
        least = min(self.field.cold_v)
        bears = [c.max_voltage.v for c in self.wiring.controllers if c.max_voltage]
        if bears and least > max(bears):
            return (
                f"Nothing fits: one panel alone shows {least:.0f} V in record cold, "
                f"{least - max(bears):.0f} V more than the controllers bear."
            )
        return "Nothing fits: every way passes the volts or the current that the controllers bear."

    def _only(self, search: Search, way: str) -> str:
        """Where one of the two does not come in question."""
        pairs = [frozenset((i, j)) for i in range(len(self.panels)) for j in range(i)]
        if way == "parallel" and not any(
            search.fits(p, c) for p in pairs for c in range(len(self.wiring.controllers))
        ):
            return "Only in parallel: any two in series pass what the controllers bear in the cold."
        if way == "parallel":
            return f"Every way in series gives less ({self._because()})."
        return f"Every way all in parallel gives less, or passes the input's current ({self._because()})."

    def _because(self) -> str:
        lit = sum((p.light.mean(axis=0) * self.field.hours).sum() for p in self.field.panels)
        shade = 1 - float(lit / sum((e * self.field.hours).sum() for e in self.even))
        alike = "unequal panels" if len(set(self.field.kinds)) > 1 else "panels alike"
        return (
            f"{alike}, shade takes {shade:.0%} of the light"
            if shade > 0.005
            else f"{alike}, hardly any shade"
        )
