"""What was built: the chain of the log, what is due, what a finding means for the road."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from hashlib import sha256
from typing import Any

import pytest

from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.care import Care, Look
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.log.chain import FIRST, ChainLink, digest_of, first_broken
from fahrtwind.core.stations.log.due import due_of, open_findings
from fahrtwind.core.stations.log.entries import TimerEnded, TimerStarted, clocks
from fahrtwind.core.stations.log.judged import judged
from fahrtwind.demo import FOLDER
from fahrtwind.files.job_file import read_job
from tests.conftest import changed

START = date(2026, 5, 20)


def chain(count: int) -> list[ChainLink]:
    links, before = [], FIRST
    for number in range(1, count + 1):
        at, document = datetime(2026, 5, 1, 8, number, tzinfo=UTC), f'{{"text": "entry {number}"}}'
        before = digest_of(before, number, at, "desk", document)
        links.append(ChainLink(number, at, "desk", document, before))
    return links


def test_the_digest_is_sha256_over_what_stands_there() -> None:
    """Written out by hand for the first entry."""
    at = datetime(2026, 5, 1, 8, 0, tzinfo=UTC)
    told = f'["{FIRST}", 1, "2026-05-01T08:00:00+00:00", "desk", "{{}}"]'
    assert digest_of(FIRST, 1, at, "desk", "{}") == sha256(told.encode()).hexdigest()


def test_every_way_to_tamper_shows_at_its_entry() -> None:
    whole = chain(5)
    assert first_broken(whole) is None and first_broken([]) is None
    third = whole[2]
    for wrong in (
        replace(third, document='{"text": "entry three"}'),
        replace(third, at=third.at + timedelta(days=1)),
        replace(third, client="phone"),
        replace(third, digest=whole[3].digest),
    ):
        assert first_broken([*whole[:2], wrong, *whole[3:]]) == 3
    assert first_broken([*whole[:2], *whole[3:]]) == 3, "one is missing"
    assert first_broken([whole[1], whole[0], *whole[2:]]) == 1, "out of turn"
    forged = replace(third, document="{}", digest=digest_of(whole[1].digest, 3, third.at, "desk", "{}"))
    assert first_broken([*whole[:2], forged, *whole[3:]]) == 4, "the next stands on the old one"


def due(today: date, **care: Any) -> dict[str, tuple[date, bool]]:
    found = due_of(Care.model_validate({"drives_since": START, **care}), today)
    return {d.what: (d.by, d.late) for d in found}


def look(day: date, found: str = "sound", **more: Any) -> dict[str, Any]:
    return {"id": f"l{day:%m%d}{found[:2]}", "day": day, "found": found, **more}


def test_first_100_km_six_weeks_and_a_year() -> None:
    assert due_of(Care(), START) == ()
    new = due(START, km_a_month=300)
    assert new["every bolt after the first 100 km"] == (START + timedelta(days=10), False)
    assert new["bolts and seals after six weeks"] == (date(2026, 7, 1), False)
    assert new["bolts and sealant, yearly"] == (date(2027, 5, 20), False)
    assert due(date(2026, 6, 15))["every bolt after the first 100 km"] == (date(2026, 6, 3), True)
    too_soon = due(date(2026, 5, 25), looks=[look(date(2026, 5, 24), km=60)])
    assert "every bolt after the first 100 km" in too_soon
    seen = due(date(2026, 7, 2), looks=[look(date(2026, 5, 30), km=130), look(date(2026, 7, 1))])
    assert set(seen) == {"bolts and sealant, yearly"}
    assert seen["bolts and sealant, yearly"] == (date(2027, 7, 1), False)
    one_place = due(date(2026, 7, 2), looks=[look(date(2026, 7, 1), where="f2")])
    assert one_place["bolts and sealant, yearly"][0] == date(2027, 5, 20), "a look at one foot is none at all"


def test_after_a_storm_and_until_it_is_mended() -> None:
    day = date(2026, 8, 10)
    storm = {"id": "h", "day": day, "what": "storm"}
    assert due(day, happenings=[storm])["feet and edges after the storm"] == (day, False)
    after = due(day, happenings=[storm], looks=[look(day, "loose foot", where="Front f2")])
    assert "feet and edges after the storm" not in after
    assert after["Front f2: mend and look again"] == (day, False)
    mended = [look(day, "loose foot", where="Front f2"), look(date(2026, 8, 12), where="Front f2")]
    assert not any("mend" in what for what in due(date(2026, 8, 13), looks=mended))
    elsewhere = [look(day, "loose foot", where="Front f2"), look(date(2026, 8, 12), where="Rear f1")]
    assert [x.where for x in open_findings(Care.model_validate({"looks": elsewhere}).looks)] == ["Front f2"]


def test_what_a_finding_means_for_the_road(sound: Job) -> None:
    """By the lower of the two speeds with a foot lost; nothing known is no leave to drive."""
    speeds = evaluate(sound).findings.plan
    assert speeds is not None

    def told(found: str, safe_km_h: float, let_go_km_h: float) -> tuple[str, float | None]:
        given = replace(
            speeds, lost_safe_m_s=safe_km_h / 3.6, lost_let_go_m_s=let_go_km_h / 3.6, required_m_s=95 / 3.6
        )
        verdict = judged(Look.model_validate(look(START, found)), given, "metric")
        return verdict.verdict, verdict.most_m_s and round(verdict.most_m_s * 3.6, 6)

    assert told("sound", 10, 10) == ("drive on", None)
    assert told("loose foot", 60, 57) == ("slowly home", 57)
    assert told("lifted edge", 29, 80) == ("take the panel off", None)
    assert told("torque fell", 96, 120) == ("drive on", None)
    assert told("torque fell", 80, 120) == ("slowly home", 80)
    boat = replace(speeds, lost_safe_m_s=31.0, lost_let_go_m_s=40.0, required_m_s=28 / 3.6)
    slow = judged(Look.model_validate(look(START, "loose foot")), boat, "metric")
    assert (slow.verdict, slow.most_m_s) == ("slowly home", 28 / 3.6), "never driven faster than that"
    assert told("leak", 10, 10) == ("not on the road's account", None)
    assert (
        judged(Look.model_validate(look(START, "loose foot")), None, "metric").verdict == "take the panel off"
    )


def test_a_loose_foot_is_a_stop_until_it_was_seen_sound(sound: Job) -> None:
    loose = changed(sound, care__looks=[look(START, "loose foot", where="f2")])
    found = evaluate(loose)
    assert found.spoken.word == "refused" and "found-not-mended" in {s.id for s in found.snags}
    mended = changed(
        sound, care__looks=[look(START, "loose foot", where="f2"), look(START, "sound", where="f2")]
    )
    assert "found-not-mended" not in {s.id for s in evaluate(mended).snags}


@pytest.mark.parametrize("value", [{"day": "2026-02-30"}, {"day": "2026-05-20", "km": -1}, {"found": "fine"}])
def test_bad_looks_are_refused(sound: Job, value: dict[str, Any]) -> None:
    with pytest.raises(Exception) as caught:
        changed(sound, care__looks=[{"id": "l", **value}])
    assert getattr(caught.value, "remedy", "")


def test_what_was_found_brings_the_next_look_nearer() -> None:
    """A year is 365 days; one finding makes 182 of it, two make 91, and no more than that."""
    day = date(2026, 7, 1)
    what = "bolts and sealant, yearly"
    whole = look(day)
    one = due(day, looks=[whole, look(day - timedelta(days=9), "torque fell", where="f2")])
    assert one[what][0] == day + timedelta(days=182)
    two = [look(day - timedelta(days=d), "loose foot", where=f"f{d}") for d in (3, 4, 5)]
    assert due(day, looks=[whole, *two[:2]])[what][0] == day + timedelta(days=91)
    assert due(day, looks=[whole, *two])[what][0] == day + timedelta(days=91)
    after = look(day + timedelta(days=200), "leak", where="f1")
    assert due(day, looks=[whole, after])[what][0] == day + timedelta(days=200), "no sooner than it was found"
    old = look(day - timedelta(days=366), "leak")
    assert due(day, looks=[whole, old])[what][0] == day + timedelta(days=365)


def test_the_look_goes_from_place_to_place_and_tells_what_was_seen_there(sound: Job) -> None:
    places = evaluate(sound).findings.to_look_at
    names = [p.where for p in places]
    assert names[0] == sound.panels[0].name and f"{names[0]}, seal" in names and names[-1] == "cables"
    assert len(names) == len(set(names)) == 2 * len(sound.panels) + 1 and all(len(n) <= 40 for n in names)
    assert {p.seen for p in places} == {()}
    seen = changed(
        sound,
        care__looks=[
            look(date(2026, 6, 1)),
            look(date(2026, 7, 1), "lifted edge", where=names[1], note="port rear"),
        ],
    )
    told = {p.where: p for p in evaluate(seen).findings.to_look_at}
    there = [(one.found, one.day, one.note) for one in told[names[1]].seen]
    assert there == [("lifted edge", date(2026, 7, 1), "port rear"), ("sound", date(2026, 6, 1), "")]
    assert [(one.found, one.day) for one in told[names[0]].seen] == [("sound", date(2026, 6, 1))]


def test_bolts_of_a_rack_are_looked_at_with_their_torque() -> None:
    job = read_job((FOLDER / "speiche.json").read_bytes())
    told = evaluate(job).findings
    torques = {round(line.tight.torque_n_m, 1) for line in told.bolts if line.carrier == job.carriers[0].id}
    (rack,) = [p for p in told.to_look_at if p.where == job.carriers[0].name]
    assert torques and all(f"{t:g} N·m" in rack.look for t in torques)


def test_a_clock_runs_from_when_it_was_started_however_late_that_came_in() -> None:
    """Started 8:00, told 8:10 (600 s ago), 30 minutes: it ends 8:30. Put off it is gone, anew it runs."""
    at = datetime(2026, 5, 4, 8, 10, tzinfo=UTC)
    start = TimerStarted(step="Seal", name="bead", minutes=30, ago_s=600)
    (clock,) = clocks(((at, start),))
    assert (clock.step, clock.name, clock.ends) == ("Seal", "bead", datetime(2026, 5, 4, 8, 30, tzinfo=UTC))
    off = (at, TimerEnded(step="Seal", name="bead"))
    assert clocks(((at, start), off)) == ()
    (again,) = clocks(((at, start), off, (at, TimerStarted(step="Seal", name="bead", minutes=5))))
    assert again.ends == at + timedelta(minutes=5)
