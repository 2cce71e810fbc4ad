"""What the wiring adds to the work: what must be plugged before a panel covers it, and what comes after."""

from __future__ import annotations

from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_size
from fahrtwind.core.stations.hold.schools.school import Task
from fahrtwind.core.stations.wire.route import CLIP_EVERY_MM
from fahrtwind.core.stations.wire.runs import Harness, laid_ways
from fahrtwind.core.stations.wire.strings import Array

LIVE = "Panels covered or before dawn: they are live until dark. Never let two ends touch."


@dataclass(frozen=True, slots=True)
class WireWork:
    """``before`` the panels are lifted on, ``after`` they stand; both empty without strings."""

    before: tuple[Task, ...] = ()
    after: tuple[Task, ...] = ()


def wire_work(
    arrays: tuple[Array, ...], harnesses: tuple[Harness, ...], wiring: Wiring, units: UnitSystem
) -> WireWork:
    """The wiring's tasks, in their order."""
    plugged = [a for a in arrays if a.strings]
    if not plugged:
        return WireWork()
    strings = [s for a in plugged for s in a.strings]
    clips = sum(way.clips for h in harnesses for way in laid_ways(h).values())
    jumpers = sum(len(h.jumpers) for h in harnesses)
    before = [
        Task(
            "bench cables",
            "Make up the cables on the bench",
            f"{sum(r.extension_mm > 0 for h in harnesses for r in h.runs)} extensions in {wiring.cable}: a "
            "plug at one end, a socket at the other, so that red stays red. Label both ends.",
            "Each crimp tugged; each end taped until it is plugged.",
            count=max(1, sum(r.extension_mm > 0 for h in harnesses for r in h.runs)),
        )
    ]
    if jumpers:
        before.append(
            Task(
                "plug",
                "Plug the panels of each string together before they cover the leads",
                f"{jumpers} joints, plus to minus. {LIVE}",
                "Every connector clicks and holds a tug; leads tied off the roof.",
                count=jumpers,
            )
        )
    before.append(
        Task(
            "lay cables",
            "Lay the cables to the gland",
            f"Along frames and rails, a tie every {say_size(CLIP_EVERY_MM, units)}"
            + (f"; {clips} clips {wiring.clip} and sealed over open roof" if clips else "")
            + ", a drip loop before the gland. Free ends taped.",
            "Nothing crosses a lid or an edge that cuts; a hand moves no cable.",
            count=len(strings),
        )
    )
    return WireWork(tuple(before), (*_measured(len(strings)), *_connected(plugged, wiring)))


def _measured(strings: int) -> list[Task]:
    return [
        Task(
            "meter",
            "Read the meter at every string",
            f"{strings} strings, before anything is joined: open volts and which end is plus, on the range "
            "for direct current. Type each reading: the meter card judges it.",
            "Every reading within its band, no minus.",
            count=strings,
        )
    ]


def _connected(arrays: list[Array], wiring: Wiring) -> list[Task]:
    code = "NEC" if wiring.code == "NEC" else "IEC and national rules"
    told = []
    for array in arrays:
        c = array.controller
        first = "battery first, then the panels" if c.battery_first else "in its maker's order"
        fuse = f" A {c.fuse.a:g} A fuse in the plus of each string." if c.fuse else ""
        told.append(
            Task(
                "connect",
                f"Connect {c.name}",
                f"Isolator open. {first.capitalize()}.{fuse} Terminals to the maker's torque. {LIVE} {code}: "
                "licensed practice where the law asks for it.",
                f"It shows panels and battery; {array.words} as planned.",
            )
        )
    return told
