"""Forecasts from files, the plan as iCalendar and on paper."""

from __future__ import annotations

import io
import json
from datetime import date, timedelta

import icalendar
import pypdf
import pytest

from fahrtwind.core.choose.days import kept_as_plan
from fahrtwind.core.errors import InputError, TooLarge, UnreadableFile, WrongHeader
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.files.days_calendar import write_calendar, write_due
from fahrtwind.files.drawing import Stamp
from fahrtwind.files.forecast_files import read_forecast, write_forecast
from fahrtwind.files.handover import write_handover
from fahrtwind.files.week_sheet import write_week_sheet
from fahrtwind.weather_office.simulated import forecast
from tests.conftest import changed

HEAD = "time,air_c,humidity_percent,wind_m_s,gust_m_s,rain_mm,cloud_percent\n"
HOUR = "2026-10-25T{},10,70,3,5,0,40\n"


def test_an_hour_twice_by_the_clock_is_two_hours_when_clocks_go_back() -> None:
    """25 October 2026, two and two again: the distance from UTC tells them apart."""
    found = read_forecast(HEAD + HOUR.format("02:00+02:00") + HOUR.format("02:00+01:00"))
    assert found.hours == 2 and found.forecast.start.isoformat() == "2026-10-25T00:00:00+00:00"


def test_gaps_and_blanks_are_told_and_count_as_not_known() -> None:
    text = HEAD + HOUR.format("08:00Z") + HOUR.format("11:00Z") + "2026-10-25T12:00Z,,70,3,5,0,40\n"
    found = read_forecast(text.replace(",", ";"))
    assert found.hours == 5 and "3 hours" in found.notes[0]
    assert found.forecast.members[0].air_c == (10.0, None, None, 10.0, None)


def test_members_of_a_table_and_the_json_layout_come_back() -> None:
    rows = [f"{HOUR.format('08:00Z').strip()},{m}" for m in ("calm", "wild")]
    found = read_forecast(HEAD.strip() + ",member\n" + "\n".join(rows)).forecast
    assert len(found.members) == 2
    assert read_forecast(write_forecast(found)).forecast == found
    office = forecast(52, 13, date(2026, 5, 4), date(2026, 5, 4), 7)
    assert read_forecast(json.dumps(office)).hours == 16 * 24


@pytest.mark.parametrize(
    ("text", "error", "words"),
    [
        (HEAD + HOUR.format("08:00"), InputError, "Line 2.*time zone"),
        (HEAD + HOUR.format("08:30Z"), InputError, "Line 2.*on the hour"),
        (HEAD + 2 * HOUR.format("08:00Z"), InputError, "Line 3.*twice"),
        (
            HEAD + HOUR.format("08:00Z").replace(",70,", ",170,"),
            InputError,
            "Line 2, column humidity_percent",
        ),
        (HEAD + "yesterday,1,2,3,4,5,6\n", InputError, "Line 2.*no time"),
        (HEAD, InputError, "no hours"),
        ("time,air\n", WrongHeader, "air_c"),
        ("{", UnreadableFile, "JSON"),
        ('{"start": "2026-05-04T00:00Z"}', WrongHeader, "layout"),
        (HEAD + HOUR.format("08:00Z") + HOUR.format("08:00Z").replace("2026", "2027"), TooLarge, "hours"),
        ("x" * 2_100_000, TooLarge, "2 MB"),
    ],
)
def test_bad_forecasts_are_refused_with_their_line(text: str, error: type[Exception], words: str) -> None:
    with pytest.raises(error, match=words):
        read_forecast(text)


def test_the_simulated_office_knows_near_days_better() -> None:
    """The same day of the same place, forecast on its eve and ten days ahead: members lie closer
    together; the same question has the same answer.
    """
    day = date(2026, 5, 14)

    def spread(issued: date) -> float:
        told = forecast(52, 13, issued + timedelta(days=1), issued, 7)
        into = (day - issued).days * 24 + 12
        noon = [m["air_c"][into] for m in told["members"]]  # type: ignore[attr-defined]
        return max(noon) - min(noon)

    assert spread(date(2026, 5, 13)) < spread(date(2026, 5, 4))
    assert forecast(52, 13, day, day, 7) == forecast(52, 13, day, day, 7) != forecast(52, 13, day, day, 8)


def test_the_plan_as_a_calendar_is_read_by_a_calendar_library(demo: Job) -> None:
    plan = kept_as_plan(demo)
    found = icalendar.Calendar.from_ical(write_calendar(demo, plan, date(2026, 5, 1)))
    events = {str(e["summary"]): e for e in found.walk("VEVENT")}
    work = [s for s in plan.steps if s.kind != "drive"]
    lift = next(s for s in work if s.kind == "lift")
    event = events[f"{demo.name}: {lift.title}"]
    assert event.decoded("dtstart") == lift.starts and event.decoded("dtend") == lift.ends
    assert events[f"{demo.name}: cures, do not drive"].decoded("dtend") == plan.finish
    assert len({e["uid"] for e in events.values()}) == len(events) >= len({s.title for s in work}) + 3
    later = events[f"{demo.name}: Yearly look at bolts and seals"].decoded("dtstart")
    assert later == (plan.finish + timedelta(days=365)).date()  # type: ignore[operator]


def test_what_is_due_as_a_calendar(demo: Job) -> None:
    """Late is put on the day of the sheet, not into the past."""
    job = changed(demo, care__drives_since="2026-01-05")
    found = icalendar.Calendar.from_ical(write_due(job, date(2026, 3, 1)))
    days = {str(e["summary"]).split(": ")[1]: e.decoded("dtstart") for e in found.walk("VEVENT")}
    assert days == {
        "every bolt after the first 100 km": date(2026, 3, 1),
        "bolts and seals after six weeks": date(2026, 3, 1),
        "bolts and sealant, yearly": date(2027, 1, 5),
    }


def test_the_handover_sheet_tells_no_speed_where_a_stop_stands(demo: Job, sound: Job) -> None:
    def words(job: Job) -> list[str]:
        pages = pypdf.PdfReader(io.BytesIO(write_handover(job, evaluate(job), Stamp(date(2026, 5, 1))))).pages
        return [page.extract_text() for page in pages]

    refused, held = words(demo), words(sound)
    assert "refused: a stop stands" in refused[0] and "highest allowed 95" not in refused[0]
    assert "highest allowed 95 km/h" in held[0].replace("\n", " ") and len(held) == 2
    assert "next owner" in held[1] and "no type approval" in held[1]


def test_the_week_sheet_tells_every_step_and_when_not_to_drive(demo: Job) -> None:
    plan = kept_as_plan(demo)
    pages = pypdf.PdfReader(io.BytesIO(write_week_sheet(demo, evaluate(demo), Stamp(date(2026, 5, 1))))).pages
    told = " ".join(page.extract_text() for page in pages)
    for step in plan.steps[:3]:
        assert step.title.split(":")[0] in told
    assert "Do not drive before" in told and "Jo" in told
    none = changed(demo, days__kept=[])
    with pytest.raises(InputError, match="No plan is kept"):
        write_week_sheet(none, evaluate(none), Stamp(date(2026, 5, 1)))
    with pytest.raises(InputError, match="not of this work"):
        kept_as_plan(changed(demo, days__kept=[demo.days.kept[0].model_dump(mode="json")]))
