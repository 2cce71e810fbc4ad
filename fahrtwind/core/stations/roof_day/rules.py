"""Snags that arise on the roof: what was built is not what was planned. Three words: for a ladder."""

from __future__ import annotations

from collections.abc import Iterator
from math import floor

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.built import BuiltFoot
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import sixteenths
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.roof_day.built import BuiltFinding

PRACTICE = "common practice, no source"


@rule("hole-off-plan", "stop", "roof-day", "Hole off plan", PRACTICE)
def hole_off_plan(as_built: tuple[BuiltFinding, ...], units: UnitSystem) -> Iterator[Found]:
    for foot in (one for one in as_built if one.state == "off"):
        yield Found(
            place=f"built.feet.{foot.id}",
            where=foot.where,
            why=f"{foot.words.capitalize()}; the hole takes {_takes(foot.takes_mm, units)}.",
            remedy="Drill the bracket anew at the hole you have, or seal the hole and move the foot.",
            quantity="off its plan",
            value=max(abs(foot.off_x_mm), abs(foot.off_y_mm)),
            limit=foot.takes_mm,
            unit="mm",
        )


@rule("pilot-through", "stop", "roof-day", "Pilot met nothing", PRACTICE)
def pilot_through(as_built: tuple[BuiltFinding, ...]) -> Iterator[Found]:
    for foot in (one for one in as_built if one.pilot == "through"):
        yield Found(
            place=f"built.feet.{foot.id}",
            where=foot.where,
            why="The pilot hole fell through: no member is under it.",
            remedy="Do not screw here. Seal the hole and move the foot to a member.",
        )


@rule("built-foot-gone", "note", "roof-day", "Recorded foot gone", PRACTICE)
def built_foot_gone(as_built: tuple[BuiltFinding, ...], built_feet: tuple[BuiltFoot, ...]) -> Iterator[Found]:
    told = {foot.id for foot in as_built}
    for record in (one for one in built_feet if one.id not in told):
        yield Found(
            place=f"built.feet.{record.id}",
            where=f"{record.holder} {record.foot}",
            why="It was recorded as built, and the plan no longer has it.",
            remedy="Put its hole on the survey's list of old work, then remove the record.",
        )


def _takes(mm: float, units: UnitSystem) -> str:
    """Rounded down: what is told is never more than it takes."""
    if units == "metric":
        return f"{floor(mm * 10 + 1e-9) / 10:g} mm"
    parts = floor(mm / 25.4 * 16 + 1e-9)
    return sixteenths(parts * 25.4 / 16) if parts else 'less than 1/16"'
