"""What a way to hold a panel has to say: its parts, its chain, its marks, its materials, its work."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any, Literal

from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Holding
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.links import Above, Bay, Chain
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.work import StepKind


@dataclass(frozen=True, slots=True)
class Ground:
    """What a foot stands on and carries. ``on_side``: at a long side of the frame, so that its row of
    fasteners, along the member, runs along the bracket's lever. ``bay``: where it stands between members,
    None over one.
    """

    vehicle: Vehicle
    members: Members
    bay: Bay | None
    on_side: bool
    above: Above

    @property
    def into_member(self) -> bool:
        return self.bay is None


@dataclass(frozen=True, slots=True)
class Mark:
    """A hole to drill or the centre of a pad to stick, numbered from the front, port side first."""

    number: int
    kind: Literal["hole", "pad"]
    panel: str
    foot: str
    x_mm: float
    y_mm: float
    into: str
    pilot_mm: float | None
    final_mm: float | None
    depth_stop_mm: float | None
    fastener: str
    sealant: str
    pad_length_mm: float | None
    pad_width_mm: float | None


@dataclass(frozen=True, slots=True)
class Needed:
    """So much of an item. Like items of all panels are added up; of a ``set`` one serves all."""

    item: str
    amount: float
    unit: str = "pc"
    note: str = ""


MarksInHand = Literal["none", "all", "holes", "pads"]


@dataclass(frozen=True, slots=True)
class Task:
    """A step of the work before it has a number. ``wait_h``: to wait after it; ``marks``: in hand; ``count``:
    of what its kind of work is counted in.
    """

    kind: StepKind
    title: str
    detail: str
    check: str
    wait_h: float = 0.0
    marks: MarksInHand = "none"
    count: int = 1


@dataclass(frozen=True, slots=True)
class School:
    """One way to hold. Its functions take the attachment first; ``hold`` is of the school's own part.

    ``drilled``: holes go into the roof; ``marked``: it has places to mark on it. ``usual``: the parts that a
    shop working in these units has on its shelf. ``tasks``: given once for all panels held by schools that
    share the function; ``count``: marks, or feet where nothing is marked.
    """

    name: str
    drilled: bool
    usual: Callable[[UnitSystem], Holding]
    chain: Callable[[Any, Ground], Chain]
    marks: Callable[[int, RoofPlan, Holder, FootPlace, str], list[Mark]]
    needs: Callable[[Any, int, UnitSystem], Iterator[Needed]]
    tasks: Callable[[RoofPlan, int, str], list[Task]]
    marked: bool = True
