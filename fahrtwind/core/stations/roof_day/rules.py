"""Snags that arise on the roof: what was built is not what was planned. Three words: for a ladder."""

from __future__ import annotations

from collections.abc import Iterator
from math import floor

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.built import BuiltFoot
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_torque, sixteenths
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.roof_day.built import BuiltFinding
from fahrtwind.core.stations.roof_day.torques import TorqueFinding
from fahrtwind.core.tables.fasteners import PRELOAD_SHARE, PRELOAD_SOURCE

PRACTICE = "common practice, no source"
PROOF = f"preload {PRELOAD_SHARE * 100:.0f} % of proof: {PRELOAD_SOURCE}"
WRENCH = "ISO 6789: wrenches are true to 6 %; within 10 % counts as right, a judgement"


@rule("foot-off-plan", "stop", "roof-day", "Foot off plan", PRACTICE)
def foot_off_plan(as_built: tuple[BuiltFinding, ...], units: UnitSystem) -> Iterator[Found]:
    for foot in (one for one in as_built if one.state == "off"):
        again = "take the pad off" if foot.stuck else "seal the hole"
        if foot.lever_longer:
            remedy = f"Further out it pulls harder than worked out: {again} and move the foot."
        else:
            remedy = f"Drill bracket or frame anew where the foot is, or {again} and move it."
        yield Found(
            place=f"built.feet.{foot.id}",
            where=foot.where,
            why=f"{foot.words.capitalize()}; the bolt's hole takes {_takes(foot.takes_mm, units)}.",
            remedy=remedy,
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
            why="It was recorded as built, and the plan has no such foot to be drilled or stuck.",
            remedy="Put its hole on the list of old work, then remove the record; points are measured there.",
        )


@rule("bolt-too-tight", "stop", "roof-day", "Bolt too tight", PROOF)
def bolt_too_tight(torques: tuple[TorqueFinding, ...], units: UnitSystem) -> Iterator[Found]:
    for one in (t for t in torques if t.state == "too tight"):
        if one.gives == "bolt":
            why, remedy = ("It may have stretched.", "A new bolt, tightened to what is wanted.")
        else:
            why, remedy = "The tube's wall may be dented.", "Take it apart and look; sleeve inside, new bolt."
        yield _off(one, f"{_read(one, units)} {why}", remedy)


@rule("bolt-off-torque", "caution", "roof-day", "Bolt not as tight as wanted", WRENCH)
def bolt_off_torque(torques: tuple[TorqueFinding, ...], units: UnitSystem) -> Iterator[Found]:
    for one in torques:
        if one.state == "loose":
            yield _off(one, f"{_read(one, units)} It works loose.", "Tighten on, mark the nut, read again.")
        elif one.state == "tight":
            yield _off(one, _read(one, units), "Slacken it and tighten anew; do not only turn it back.")


@rule("torque-not-planned", "note", "roof-day", "Torque of a bolt that is not planned", PRACTICE)
def torque_not_planned(torques: tuple[TorqueFinding, ...]) -> Iterator[Found]:
    for one in (t for t in torques if t.state == "not planned"):
        why = "Nothing says how tight it should be; by the bolt's maker."
        remedy = "Take the reading back under Roof day, As built."
        yield Found(f"built.torques.{one.id}", f"{one.where}, {one.bolt}", why, remedy)


def _off(one: TorqueFinding, why: str, remedy: str) -> Found:
    return Found(
        place=f"built.torques.{one.id}",
        where=f"{one.where}, {one.bolt}",
        why=why,
        remedy=remedy,
        quantity="torque",
        value=one.read_n_m,
        limit=one.wanted_n_m,
        unit="N·m",
    )


def _read(one: TorqueFinding, units: UnitSystem) -> str:
    return f"{say_torque(one.read_n_m, units)}, wanted {say_torque(one.wanted_n_m or 0.0, units)}."


def _takes(mm: float, units: UnitSystem) -> str:
    """Rounded down: what is told is never more than it takes."""
    if units == "metric":
        return f"{floor(mm * 10 + 1e-9) / 10:g} mm"
    parts = floor(mm / 25.4 * 16 + 1e-9)
    return sixteenths(parts * 25.4 / 16) if parts else 'less than 1/16"'
