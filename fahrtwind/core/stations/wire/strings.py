"""Strings as they are plugged together: their panels, whether they add up, what they are called."""

from __future__ import annotations

from collections import Counter

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.wiring import Controller, PanelString, Wiring
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.diode import Diode, diode_of


@dataclass(frozen=True, slots=True)
class Plugged:
    """A string whose panels are all on the roof, from plus to minus, and their diodes; ``number`` in the
    job.
    """

    number: int
    string: PanelString
    panels: tuple[PlacedPanel, ...]
    diodes: tuple[Diode, ...]

    @property
    def name(self) -> str:
        """By its panels, as a person would say it."""
        return " + ".join(p.name for p in self.panels)


@dataclass(frozen=True, slots=True)
class Array:
    """A controller with the strings on it; ``number`` in the job."""

    number: int
    controller: Controller
    strings: tuple[Plugged, ...]

    @property
    def words(self) -> str:
        """How it is plugged, for example 2s3p: two in series, three such strings in parallel."""
        lengths = Counter(len(s.panels) for s in self.strings)
        return " + ".join(f"{long}s{count}p" for long, count in sorted(lengths.items(), reverse=True))


@dataclass(frozen=True, slots=True)
class PanelDiode:
    """A panel's diode, or why it has none."""

    panel: str
    diode: Diode | None
    field: str
    why: str
    remedy: str


def panel_diode(panel: PlacedPanel) -> PanelDiode:
    """The diode of a panel's sheet; why not, where the sheet does not give one."""
    try:
        return PanelDiode(panel.id, diode_of(panel.model), "", "", "")
    except InputError as problem:
        return PanelDiode(
            panel.id, None, f"panels.{panel.id}.{problem.field}", problem.problem, problem.remedy
        )


def arrays_of(
    wiring: Wiring, panels: tuple[PlacedPanel, ...], diodes: tuple[PanelDiode, ...]
) -> tuple[Array, ...]:
    """Every controller with its strings; strings with a panel that is gone or has no curve are left out, and
    told by their snags.
    """
    placed = {p.id: p for p in panels}
    curves = {d.panel: d.diode for d in diodes if d.diode is not None}
    found = []
    for number, controller in enumerate(wiring.controllers, start=1):
        own = [
            Plugged(i, s, tuple(placed[i] for i in s.panels), tuple(curves[i] for i in s.panels))
            for i, s in enumerate(wiring.strings, start=1)
            if s.controller == controller.id
            and s.panels
            and all(i in placed and i in curves for i in s.panels)
        ]
        found.append(Array(number, controller, tuple(own)))
    return tuple(found)
