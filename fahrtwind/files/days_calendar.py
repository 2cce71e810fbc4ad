"""The plan as iCalendar: work, deliveries, cure with its “do not drive”, the looks afterwards."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from hashlib import sha256

from icalendar import Calendar, Event

from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.days.plan import DayPlan
from fahrtwind.core.stations.log.due import due_of

LOOKS = ((42, "Look at bolts and seals after six weeks"), (365, "Yearly look at bolts and seals"))
"""Days after the first drive: common practice, no source."""


def write_calendar(job: Job, plan: DayPlan, stamp: date) -> bytes:
    """One event for each step with its hands, each delivery, each thing that cures, each look afterwards."""
    sheet = _Sheet(job.name, stamp)
    for step in (s for s in plan.steps if s.kind != "drive"):
        times = (step.starts.astimezone(UTC), step.ends.astimezone(UTC))
        sheet.add(step.id, step.title, *times, ", ".join(step.persons))
    resting = [s for s in plan.steps if s.rests is not None and s.kind in ("lay", "stick", "seal", "scars")]
    if resting and plan.finish is not None:
        begins = min(s.ends for s in resting)
        words = "; ".join(dict.fromkeys(s.rests_words for s in resting))
        sheet.add("cure", "cures, do not drive", begins.astimezone(UTC), plan.finish.astimezone(UTC), words)
    for delivery in job.days.deliveries:
        sheet.add_day(f"delivery {delivery.id}", f"{delivery.name} comes", delivery.day)
    if plan.finish is not None:
        for days, words in LOOKS:
            sheet.add_day(words, words, (plan.finish + timedelta(days=days)).date())
    return sheet.bytes()


def write_due(job: Job, stamp: date) -> bytes:
    """What is due, each on its day; what is late on the day of the sheet."""
    sheet = _Sheet(job.name, stamp)
    for due in due_of(job.care, stamp):
        sheet.add_day(f"due {due.what}", due.what, max(due.by, stamp), due.why)
    return sheet.bytes()


class _Sheet:
    """Events of one job, each with a name of its own that stays the same when it is written again."""

    def __init__(self, name: str, stamp: date) -> None:
        self._name, self._calendar = name, Calendar()
        self._made = datetime.combine(stamp, datetime.min.time(), UTC)
        self._calendar.add("prodid", "-//fahrtwind//days//EN")
        self._calendar.add("version", "2.0")
        self._calendar.add("x-wr-calname", name)

    def add(
        self, key: str, summary: str, starts: date | datetime, ends: date | datetime, words: str = ""
    ) -> None:
        event = Event()
        event.add("uid", sha256(f"{self._name}/{key}".encode()).hexdigest()[:24] + "@fahrtwind")
        event.add("dtstamp", self._made)
        event.add("summary", f"{self._name}: {summary}")
        event.add("dtstart", starts)
        event.add("dtend", ends)
        if words:
            event.add("description", words)
        self._calendar.add_component(event)

    def add_day(self, key: str, summary: str, day: date, words: str = "") -> None:
        self.add(key, summary, day, day + timedelta(days=1), words)

    def bytes(self) -> bytes:
        found: bytes = self._calendar.to_ical()
        return found
