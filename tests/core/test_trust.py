"""What is told about a job as a whole: the word of the verdict, what would clear a stop, what is asked, in
whose units.
"""

from __future__ import annotations

import re
from dataclasses import asdict
from itertools import count, pairwise

import pytest

from fahrtwind.core.choose.remedies import remedies
from fahrtwind.core.edits import MirrorPanel, PlacePanel, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.stations.layout.distances import overlaps
from tests.conftest import changed


def test_a_stop_is_never_spoken_of_as_holding(demo: Job, sound: Job) -> None:
    good, bad = evaluate(sound), evaluate(demo)
    assert not [s for s in good.snags if s.severity == "stop"] and good.spoken.word in ("holds", "thin")
    assert bad.spoken.word == "refused" and bad.spoken.because
    stops = {s.title for s in bad.snags if s.severity == "stop"}
    assert set(bad.spoken.because) == stops
    stopped = {s.place.split(".")[1] for s in bad.snags if s.severity == "stop" and "panels." in s.place}
    off = {b.holder for b in bad.findings.as_built if b.state == "off"}
    assert {f.split(".")[0] for f in bad.spoken.refused_feet} <= stopped | off and bad.spoken.refused_feet


@pytest.mark.parametrize(
    ("values", "word"),
    [
        ({"vehicle__top_speed": None}, "not known"),
        ({"vehicle__skin_thickness": None}, "not known"),
        ({"panels": [], "wiring__strings": []}, "not known"),
        ({"panels__p1__feet": []}, "not known"),
    ],
)
def test_what_is_not_known_is_never_read_as_good(sound: Job, values: dict[str, object], word: str) -> None:
    told = evaluate(changed(sound, **values)).spoken
    assert told.word == word and told.because


WHERE = ("Where the feet land",)


@pytest.mark.parametrize(
    ("kind", "school", "because"),
    [
        ("van", "screws", WHERE),
        ("van", "bolts", WHERE),
        ("boat", "screws", WHERE),
        ("boat", "bolts", ()),
        ("truck_bed", "bolts", ()),
        ("van", "tape", None),
    ],
)
def test_where_feet_land_is_asked_where_it_counts(
    sound: Job, kind: str, school: str, because: tuple[str, ...] | None
) -> None:
    """Bolts through a deck need no member, tape neither; a screw always does."""
    job = changed(sound, members__face_width=None, vehicle__kind=kind, assumptions__basic_wind="5 m/s")
    job = apply_edits(
        job, [SetValue(path=f"panels.{p.id}.hold", value={"school": school}) for p in job.panels]
    )
    told = evaluate(job).spoken
    asked = told.because == WHERE
    assert asked == (because == WHERE) and (because is not None or told.word == "refused")


def test_a_verdict_just_above_the_need_is_thin(sound: Job) -> None:
    """Ten per cent of spare is the line between thin and holds: walk the required speed up until the word
    changes twice.
    """
    words = []
    for km_h in range(60, 216, 5):
        told = evaluate(changed(sound, vehicle__top_speed=f"{km_h} km/h"))
        words.append(told.spoken.word)
        plan = told.findings.plan
        assert plan is not None
        if told.spoken.word == "holds":
            assert plan.safe_m_s >= 1.1 * plan.required_m_s and plan.lost_let_go_m_s >= plan.required_m_s
    assert words == sorted(words, key=["holds", "thin", "refused"].index) and "refused" in words


def test_every_offered_remedy_clears_its_stop_and_makes_no_other(demo: Job) -> None:
    before = {(s.id, s.place) for s in evaluate(demo).snags if s.severity == "stop"}
    offers = [r for r in remedies(demo) if r.edits]
    assert {(r.snag, r.place) for r in offers} and before
    for offer in offers:
        after = evaluate(apply_edits(demo, list(offer.edits)))
        left = {(s.id, s.place) for s in after.snags if s.severity == "stop"}
        assert (offer.snag, offer.place) not in left and len(left) < len(before), offer.words


def test_the_twin_of_a_panel_lies_free_beside_it(sound: Job) -> None:
    for y in (-560, 0, 100):
        job = changed(
            load_job({**sound.model_dump(), "panels": [sound.panels[2].model_dump()], "obstacles": []}),
            panels__p3__y=y,
        )
        both = apply_edits(job, [MirrorPanel(panel="p3")])
        assert len(both.panels) == 2 and overlaps(both) == ()
        assert "brackets-meet" not in {s.id for s in evaluate(both).snags}


def test_boats_and_tape_are_not_asked_for_ribs(sound: Job) -> None:
    bare = changed(sound, readings=[], members={})
    asks = {q.path for q in evaluate(bare).findings.questions}
    assert {"readings", "members.kind"} <= asks
    taped = load_job(
        {**bare.model_dump(), "panels": [{**p.model_dump(), "hold": {"school": "tape"}} for p in bare.panels]}
    )
    for job in (taped, changed(bare, vehicle__kind="boat", panels=[])):
        assert not {"readings", "members.kind"} & {q.path for q in evaluate(job).findings.questions}


METRIC = re.compile(r"\b\d[\d.,]*\s?(mm|cm|m|kg|km/h|°C)\b")


def test_an_inch_job_hears_nothing_in_millimetres(demo: Job) -> None:
    told = evaluate(changed(demo, units="imperial"))
    said = [w for s in told.snags for w in (s.title, s.where, s.why, s.remedy)] + [
        q.ask for q in told.findings.questions
    ]
    said += [*told.spoken.because, *(" ".join(map(str, asdict(s).values())) for s in told.findings.steps)]
    assert [t for t in said if METRIC.search(t)] == []


def test_panels_of_an_inch_job_begin_with_inch_hardware(sound: Job) -> None:
    job = apply_edits(changed(sound, units="imperial", panels=[]), [PlacePanel(model="Kiesel 185")])
    assert job.panels[0].hold.bracket.frame_bolt == "1/4-20"
    assert "6.35" not in job.panels[0].model_dump_json()


def test_feet_spread_by_count_keep_apart(sound: Job) -> None:
    for feet in count(2, 2):
        if feet > 10:
            break
        job = apply_edits(
            sound, [SpreadFeet(panel="p1", count=feet), SetValue(path="panels.p1.locked", value=False)]
        )
        sides = {
            side: [f.along.mm for f in job.panels[0].feet if f.side == side] for side in ("port", "starboard")
        }
        assert all(b - a > 50 for run in sides.values() for a, b in pairwise(run))
        assert sum(map(len, sides.values())) == feet
