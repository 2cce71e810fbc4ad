"""What is in hand in a step: bits of its own holes, clocks from the cure, the caution where it hurts."""

from __future__ import annotations

from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.glance import glance
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.roof_day.in_hand import InHand
from fahrtwind.core.tables.roof_work import CAUTIONS, READINGS, TOOLS
from fahrtwind.core.tables.work import KINDS
from tests.conftest import changed


def by_kind(job: Job) -> dict[str, InHand]:
    found = evaluate(job).findings
    assert [h.number for h in found.in_hand] == [s.number for s in found.steps]
    return {s.kind: h for s, h in zip(found.steps, found.in_hand, strict=True)}


def test_bits_are_those_of_the_holes_and_the_pilot_has_only_its_own(sound: Job) -> None:
    """M6 through bolts: a pilot, then 6.6 mm clearance (ISO 273 medium)."""
    bolted = changed(sound, panels__p1__hold={"school": "bolts"})
    holes = [m for m in evaluate(bolted).findings.marks if m.kind == "hole"]
    pilots = sorted({m.pilot_mm for m in holes if m.pilot_mm})
    hand = by_kind(bolted)
    assert [t for t in hand["pilot"].tools if t.startswith("bit")] == [f"bit {p:g} mm" for p in pilots]
    assert "bit 6.6 mm" in hand["drill"].tools and hand["drill"].tools[-1] == "bit 6.6 mm"
    assert "pilot hole" in hand["pilot"].read and "Goggles" in hand["drill"].caution


def test_clocks_are_those_of_the_cure(sound: Job) -> None:
    cure = evaluate(sound).findings.cure
    assert cure is not None
    timers = {t.name: t for t in by_kind(sound)["seal"].timers}
    assert timers["tool the bead"].minutes == round(cure.rain_h.least * 60) and timers["tool the bead"].most
    assert timers["rain does no harm"].minutes == round(cure.rain_h.most * 60)
    assert timers["before the next step"].minutes == 24 * 60
    cold = {
        t.name: t for t in by_kind(changed(sound, seal__temperature="8 °C", seal__humidity=40))["seal"].timers
    }
    warm = {
        t.name: t
        for t in by_kind(changed(sound, seal__temperature="28 °C", seal__humidity=60))["seal"].timers
    }
    assert cold["rain does no harm"].minutes > warm["rain does no harm"].minutes


def test_every_kind_named_in_the_tables_is_a_kind_of_work() -> None:
    assert set(TOOLS) | set(READINGS) | set(CAUTIONS) <= set(KINDS)


def test_at_a_glance_what_is_asked_comes_before_stops_and_stops_before_work(demo: Job, sound: Job) -> None:
    told = glance(evaluate(sound), frozenset(), drives=False)
    steps = evaluate(sound).findings.steps
    assert told.next_step and (told.next_step.words, told.stops) == (steps[0].title, ())
    done = frozenset(s.title for s in steps[:2])
    later = glance(evaluate(sound), done, drives=False).next_step
    assert later and later.words == steps[2].title
    assert glance(evaluate(sound), frozenset(), drives=True).next_step is None
    refused = glance(evaluate(demo), frozenset(), drives=False)
    assert refused.word == "refused" and len(refused.stops) == 2 and refused.more_stops > 0
    assert refused.next_step and refused.next_step.words == "Foot off plan: Front starboard f4"
    unknown = glance(evaluate(changed(sound, vehicle__top_speed=None)), done, drives=False)
    assert unknown.next_step and unknown.next_step.station == "survey" and "fast" in unknown.next_step.words
