"""What an edit would change beyond what it says: everything derived, before and after, in the order of the
road.
"""

from __future__ import annotations

from collections import Counter
from math import hypot

from fahrtwind.core.choose.figures import LayoutFigures, figures_of
from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.evaluate import Evaluation, evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.results import Findings
from fahrtwind.core.saying import say_length, say_speed
from fahrtwind.core.stations.layout.dry_fit import DryFit
from fahrtwind.core.stations.layout.feet import ENDS_OF

MOVED_MM = 0.5


@dataclass(frozen=True, slots=True)
class Change:
    """One thing that would be otherwise: its station, what it is, before and after. ``worse`` marks new
    trouble.
    """

    station: str
    what: str
    before: str
    after: str
    worse: bool


def changes(before: Job, after: Job) -> tuple[Change, ...]:
    """Compare two jobs by their evaluations."""
    old, new = evaluate(before), evaluate(after)
    units = after.units
    return (
        *_figures(figures_of(before, old), figures_of(after, new), units),
        *_feet(before, after, old.findings, new.findings, units),
        *_marks(old.findings, new.findings),
        *_materials(old.findings, new.findings),
        *_snags(old, new),
    )


def _line(station: str, what: str, before: str, after: str, *, worse: bool = False) -> list[Change]:
    return [Change(station, what, before, after, worse)] if before != after else []


def _figures(old: LayoutFigures, new: LayoutFigures, units: UnitSystem) -> list[Change]:
    def speed(value: float | None) -> str:
        return "not known" if value is None else say_speed(value, units)

    def energy(value: float | None) -> str:
        return "not known" if value is None else f"{value / 1000:.0f} kWh"

    return [
        *_line("layout", "power", f"{old.watts:.0f} W", f"{new.watts:.0f} W"),
        *_line("layout", "energy in a year", energy(old.year_wh), energy(new.year_wh)),
        *_line("layout", "mass on the roof", f"{old.mass_kg:.1f} kg", f"{new.mass_kg:.1f} kg"),
        *_line("layout", "feet in members", _feet_words(old), _feet_words(new)),
        *_line(
            "hold",
            "let-go speed",
            speed(old.let_go_m_s),
            speed(new.let_go_m_s),
            worse=_less(new.let_go_m_s, old.let_go_m_s),
        ),
        *_line(
            "hold",
            "safe speed",
            speed(old.safe_m_s),
            speed(new.safe_m_s),
            worse=_less(new.safe_m_s, old.safe_m_s),
        ),
    ]


def _less(new: float | None, old: float | None) -> bool:
    return new is not None and old is not None and new < old


def _feet_words(figures: LayoutFigures) -> str:
    perhaps = f", {figures.feet_perhaps} perhaps" if figures.feet_perhaps else ""
    return f"{figures.feet_on_members} of {figures.feet}{perhaps}"


def _feet(before: Job, after: Job, old: Findings, new: Findings, units: UnitSystem) -> list[Change]:
    """Feet that would stand elsewhere, panel by panel, with how far the farthest moves and what it then lands
    on.
    """
    names = _names_of(before) | _names_of(after)
    was = {(f.panel, f.foot): f for f in old.feet}
    found = []
    for panel in dict.fromkeys(f.panel for f in new.feet):
        moved = [
            (hypot(f.x_mm - w.x_mm, f.y_mm - w.y_mm), f.foot)
            for f in new.feet
            if f.panel == panel and (w := was.get((f.panel, f.foot))) is not None
        ]
        far = [(by, foot) for by, foot in moved if by > MOVED_MM]
        if far:
            by, foot = max(far)
            found += _line(
                "hold",
                f"feet of {names[panel]}",
                f"{len(moved)} where they were",
                f"{len(far)} stand elsewhere, {foot} by {say_length(by, units)}",
                worse=True,
            )
        before_off, after_off = (
            sum(f.panel == panel and f.landing == "skin" for f in fs) for fs in (old.feet, new.feet)
        )
        found += _line(
            "structure",
            f"{names[panel]}: feet on bare skin",
            str(before_off),
            str(after_off),
            worse=after_off > before_off,
        )
    later = {d.panel: d for d in new.dry_fit}
    for mark in old.dry_fit:
        if mark.panel in later:
            what = f"marks to set {names[mark.panel]} by"
            found += _line("layout", what, _marks_words(mark, units), _marks_words(later[mark.panel], units))
    return found


def _names_of(job: Job) -> dict[str, str]:
    """Of everything that may have feet: panels, bars under them, carriers, tethers."""
    bars = {f"{p.id}{ENDS_OF}": f"{p.name}, bars" for p in job.panels}
    return bars | {holder.id: holder.name for holder in (*job.panels, *job.carriers, *job.tethers)}


def _marks_words(mark: DryFit, units: UnitSystem) -> str:
    return (
        f"x {say_length(mark.front_x_mm, units)} to {say_length(mark.rear_x_mm, units)}, "
        f"diagonal {say_length(mark.diagonal_mm, units)}"
    )


def _marks(old: Findings, new: Findings) -> list[Change]:
    before = Counter((round(m.x_mm), round(m.y_mm)) for m in old.marks)
    after = Counter((round(m.x_mm), round(m.y_mm)) for m in new.marks)
    gone, fresh = sum((before - after).values()), sum((after - before).values())
    if not gone and not fresh:
        return []
    return [
        Change(
            "roof-day",
            "drill map",
            f"{len(old.marks)} marks",
            f"{len(new.marks)} marks: {fresh} at new places, {gone} no longer",
            bool(fresh),
        )
    ]


def _materials(old: Findings, new: Findings) -> list[Change]:
    was, now = ({m.item: f"{m.needed:g} {m.unit}".strip() for m in f.materials} for f in (old, new))
    found = []
    for name in dict.fromkeys((*was, *now)):
        found += _line("build", name, was.get(name, "none"), now.get(name, "none"))
    return found


def _snags(old: Evaluation, new: Evaluation) -> list[Change]:
    def key(snag: Snag) -> tuple[str, str]:
        return snag.id, snag.place

    was, now = {key(s): s for s in old.snags}, {key(s): s for s in new.snags}
    fresh = [s for k, s in now.items() if k not in was and s.severity != "note"]
    gone = [s for k, s in was.items() if k not in now and s.severity != "note"]
    return [*_by_title(fresh, new=True), *_by_title(gone, new=False)]


def _by_title(snags: list[Snag], *, new: bool) -> list[Change]:
    """One line for a rule, however many places it speaks of."""
    found = []
    for title in dict.fromkeys(s.title for s in snags):
        alike = [s for s in snags if s.title == title]
        more = f" and {len(alike) - 1} more" if len(alike) > 1 else ""
        what, level = f"{title}: {alike[0].where}{more}", alike[0].severity
        found.append(Change(alike[0].station, what, "" if new else level, level if new else "gone", new))
    return found
