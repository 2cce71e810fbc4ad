"""The plan as iCalendar: work, deliveries, cure with its “do not drive”, the looks afterwards."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from hashlib import sha256

from icalendar import Calendar, Event

from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.days.plan import DayPlan

LOOKS = ((42, "Look at bolts and seals after six weeks"), (365, "Yearly look at bolts and seals"))
"""Days after the first drive: common practice, no source."""


def write_calendar(job: Job, plan: DayPlan, stamp: date) -> bytes:
    """One event for each step with its hands, each delivery, each thing that cures, each look afterwards."""
    calendar = Calendar()
    calendar.add("prodid", "-//fahrtwind//days//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", job.name)
    made = datetime.combine(stamp, datetime.min.time(), UTC)

    def add(key: str, summary: str, starts: date | datetime, ends: date | datetime, words: str = "") -> None:
        event = Event()
        event.add("uid", sha256(f"{job.name}/{key}".encode()).hexdigest()[:24] + "@fahrtwind")
        event.add("dtstamp", made)
        event.add("summary", f"{job.name}: {summary}")
        event.add("dtstart", starts)
        event.add("dtend", ends)
        if words:
            event.add("description", words)
        calendar.add_component(event)

    for step in (s for s in plan.steps if s.kind != "drive"):
        times = (step.starts.astimezone(UTC), step.ends.astimezone(UTC))
        add(step.id, step.title, *times, ", ".join(step.persons))
    resting = [s for s in plan.steps if s.rests is not None and s.kind in ("lay", "stick", "seal", "scars")]
    if resting and plan.finish is not None:
        begins = min(s.ends for s in resting)
        words = "; ".join(dict.fromkeys(s.rests_words for s in resting))
        add("cure", "cures, do not drive", begins.astimezone(UTC), plan.finish.astimezone(UTC), words)
    for delivery in job.days.deliveries:
        morrow = delivery.day + timedelta(days=1)
        add(f"delivery {delivery.id}", f"{delivery.name} comes", delivery.day, morrow)
    if plan.finish is not None:
        for days, words in LOOKS:
            day = (plan.finish + timedelta(days=days)).date()
            add(words, words, day, day + timedelta(days=1))
    found: bytes = calendar.to_ical()
    return found
