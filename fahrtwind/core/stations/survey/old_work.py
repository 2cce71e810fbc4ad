"""Old work on the roof: what it takes to remove, and every scar on the seal list."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.roof_shape import removal_labour
from fahrtwind.core.job.views import OnRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_size
from fahrtwind.core.tables.old_work import OLD_WORK, SOURCE


@dataclass(frozen=True, slots=True)
class SealEntry:
    """A scar to close: where, what it is, how it is closed on this roof, and the minutes and tools it
    takes to get there.
    """

    scar: str
    x_mm: float
    y_mm: float
    count: int
    what: str
    how: str
    minutes: float
    tools: str


def seal_entries(notes: OnRoof) -> tuple[SealEntry, ...]:
    """Every scar of the roof, front to rear, as an entry of the seal list."""
    found = []
    for scar in sorted(notes.survey.scars, key=lambda s: (s.x.mm, s.y.mm)):
        work = OLD_WORK[scar.kind]
        with scope("old work", scar.id):
            minutes = removal_labour(
                given(float(scar.count), "measured", "counted on the roof"),
                given(work.minutes, "table", SOURCE),
            )
        size = f", {say_size(scar.size.mm, notes.units)}" if scar.size else ""
        how = work.close_membrane if notes.vehicle.skin == "membrane" else work.close
        entry = SealEntry(
            scar.id, scar.x.mm, scar.y.mm, scar.count, f"{work.words}{size}", how, float(minutes), work.tools
        )
        found.append(entry)
    return tuple(found)
