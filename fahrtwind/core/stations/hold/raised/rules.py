"""Snags of panels that are raised while parked."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.raising import Raising
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_force, say_length, say_speed
from fahrtwind.core.stations.hold.raised.frame import Standing
from fahrtwind.core.stations.hold.raised.statics import RaisedVerdict
from fahrtwind.core.stations.hold.verdict import Air
from fahrtwind.core.stations.house import rule

PRACTICE = "common practice, no source"
WIND = "EN 1991-1-4, canopies and boards, up and down; moments about the hinge"
BREEZE_M_S = 11.0
"""A fresh breeze: gusts to here come up unseen on any day (Beaufort 5)."""


@rule("raised-in-a-breeze", "stop", "hold", "Raised, it does not stand a fresh breeze", WIND, each="raisings")
def in_a_breeze(raising: Raising, raised_unit: RaisedVerdict, units: UnitSystem) -> Iterator[Found]:
    if raised_unit.stow_m_s < BREEZE_M_S:
        yield _first(raising, raised_unit, units, BREEZE_M_S)


@rule("raised-stow", "caution", "hold", "Lay it flat before wind", WIND, each="raisings")
def raised_stow(raising: Raising, raised_unit: RaisedVerdict, air: Air, units: UnitSystem) -> Iterator[Found]:
    if BREEZE_M_S <= raised_unit.stow_m_s < air.parked_gust_m_s:
        yield _first(raising, raised_unit, units, air.parked_gust_m_s)


def _first(raising: Raising, told: RaisedVerdict, units: UnitSystem, limit: float) -> Found:
    stow = say_speed(told.stow_m_s, units)
    return Found(
        place=f"raisings.{raising.id}",
        where=f"{raising.name}, {told.first}",
        why=f"In gusts of {stow} it has used what it may bear; a wind of "
        f"{say_speed(told.mean_m_s, units)} has such gusts.",
        remedy=f"Lay it flat before gusts of {stow}; more or thicker struts, further out, a lower angle.",
        quantity="gust",
        value=told.stow_m_s,
        limit=limit,
        unit="m/s",
    )


@rule("latch-not-rated", "stop", "hold", "Not known what locks it for the road", PRACTICE, each="raisings")
def latch_not_rated(raising: Raising, raised_unit: RaisedVerdict, units: UnitSystem) -> Iterator[Found]:
    if raising.latches and raising.latch_n is None:
        yield Found(
            place=f"raisings.{raising.id}.latch_n",
            where=raising.name,
            why=f"{say_force(raised_unit.latch_pull_n, units)} pull at each latch at the probed speed; what "
            "it bears nobody has said.",
            remedy="Type its rating, or bolt the edge down for the road.",
            quantity="pull",
            value=raised_unit.latch_pull_n,
            unit="N",
        )


LATCH_FACTOR = 2.0


@rule("latch-too-weak", "stop", "hold", "Latches too weak for the road", PRACTICE, each="raisings")
def latch_too_weak(raising: Raising, raised_unit: RaisedVerdict, units: UnitSystem) -> Iterator[Found]:
    """With twice its load on each, and once with one of them open."""
    if raising.latch_n is None or not raising.latches:
        return
    left = max(raising.latches - 1, 1)
    asked = max(LATCH_FACTOR * raised_unit.latch_pull_n, raised_unit.latch_pull_n * raising.latches / left)
    if raising.latch_n < asked:
        yield Found(
            place=f"raisings.{raising.id}.latch_n",
            where=raising.name,
            why=f"Twice its load, or one of them open, asks for {say_force(asked, units)}.",
            remedy="More latches, stronger ones, or bolts through the edge for the road.",
            quantity="rating",
            value=raising.latch_n,
            limit=asked,
            unit="N",
        )


@rule("latch-alone", "stop", "hold", "One latch alone, or none", PRACTICE, each="raisings")
def latch_alone(raising: Raising, raised_unit: RaisedVerdict) -> Iterator[Found]:
    if raising.latches < 2:
        yield Found(
            place=f"raisings.{raising.id}.latches",
            where=raising.name,
            why="If it opens on the road the unit stands up in the wind and leaves the roof.",
            remedy="Two latches at least, and a pin that is seen from the driver's door.",
            quantity="latches",
            value=float(raising.latches),
            limit=2.0,
        )


@rule(
    "raised-not-judged", "stop", "hold", "Raised off what carries it: not judged", PRACTICE, each="raisings"
)
def raised_not_judged(
    raising: Raising, panels: tuple[PlacedPanel, ...], raised_frame: Standing | None
) -> Iterator[Found]:
    own = [p for p in panels if p.id in raising.panels and p.tilt.deg > 0]
    carried = next((p for p in own if p.carrier), None)
    if carried is not None and raised_frame is None:
        yield Found(
            place=f"panels.{carried.id}.carrier",
            where=raising.name,
            why="What hinges and struts do to a carrier that stays down, or to one of its ends, nobody works "
            "out.",
            remedy="A frame of two rails that is raised to port or starboard with all its panels, on feet at "
            "both rails; or feet of their own.",
        )


@rule("latch-at-each-foot", "stop", "hold", "Raised side not held at each foot", PRACTICE, each="raisings")
def latch_at_each_foot(raising: Raising, raised_frame: Standing | None) -> Iterator[Found]:
    """On the road the frame is worked out as held at all its feet: those it lies on loose hold nothing."""
    if raised_frame is None:
        return
    feet = len(raised_frame.under(raised_frame.freed))
    if raising.latches < feet:
        yield Found(
            place=f"raisings.{raising.id}.latches",
            where=f"{raising.name}, rail {raised_frame.freed.id}",
            why=f"{feet} feet under that rail, {raising.latches} latches: it lies loose where none is.",
            remedy="A latch at each foot, or fewer feet.",
            quantity="latches",
            value=float(raising.latches),
            limit=float(feet),
        )


STRUT_BESIDE_MM = 100.0
"""A strut leans that far to its foot without turning it: judgement."""


@rule("strut-beside-foot", "stop", "hold", "No foot where a strut stands", "geometry", each="raisings")
def strut_beside_foot(
    raising: Raising, raised_frame: Standing | None, raised_unit: RaisedVerdict, units: UnitSystem
) -> Iterator[Found]:
    """Struts of a frame are worked out as standing at the feet of its raised rail."""
    if raised_frame is None:
        return
    aside = abs(raised_frame.base_mm - raised_frame.chord_mm)
    beside = max(raised_frame.beside_mm(), key=lambda told: told[1])
    if max(aside, beside[1]) > STRUT_BESIDE_MM:
        off, field = (aside, "base") if aside >= beside[1] else (beside[1], "struts")
        yield Found(
            place=f"raisings.{raising.id}.{field}",
            where=raising.name if field == "base" else f"{raising.name}, strut at bar {beside[0]}",
            why=f"The nearest foot of rail {raised_frame.freed.id} is {say_length(off, units)} away.",
            remedy="Let the struts stand under the raised rail."
            if field == "base"
            else "Feet at places of their own, under the bars that struts grip, or another number of struts.",
            quantity="strut to foot",
            value=off,
            limit=STRUT_BESIDE_MM,
            unit="mm",
        )


@rule(
    "raised-unevenly", "caution", "hold", "Panels of one unit raised differently", "geometry", each="raisings"
)
def raised_unevenly(raising: Raising, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    own = [p for p in panels if p.id in raising.panels]
    if len({(p.tilt.deg, p.tilt_up) for p in own}) > 1:
        yield Found(
            place=f"panels.{own[-1].id}.tilt",
            where=", ".join(p.name for p in own),
            why="One stiff unit has one angle and one raised edge; the steepest is counted.",
            remedy="Type the same for all of them.",
        )


@rule("raising-not-told", "caution", "hold", "Hinges and struts not known", PRACTICE, each="panels")
def raising_not_told(panel: PlacedPanel, raisings: tuple[Raising, ...]) -> Iterator[Found]:
    if panel.tilt.deg > 0 and not any(panel.id in r.panels for r in raisings):
        yield Found(
            place=f"panels.{panel.id}.tilt",
            where=panel.name,
            why="Its feet are taken to hold it raised as they hold it flat; its struts nobody judges.",
            remedy="Tell its hinges and struts under Hold.",
        )
