"""What can be written into the log of a job. Entries are added and never changed: the last word counts."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from fahrtwind.core.job.part import Name, Note, Part, Word
from fahrtwind.core.quantities import printable
from fahrtwind.core.records import dataclass


class Told(Part):
    """Whatever is written into the log. ``ago_s``: how long before it came in it happened, by the clock of
    whoever wrote it: a phone without the network, or one whose clock is wrong, tells the time right even so.
    """

    ago_s: Annotated[float, Field(ge=0, le=60 * 86_400)] = 0.0


class StepTicked(Told):
    """A step of the work, by its title: steps may be numbered anew when the plan changes."""

    kind: Literal["step"] = "step"
    step: Name
    done: bool = True


class Remark(Told):
    """Something worth remembering, about a place of the job where there is one."""

    kind: Literal["remark"] = "remark"
    text: Annotated[Note, Field(min_length=1)]
    place: Annotated[str, Field(max_length=160)] = ""


class Correction(Told):
    """What an earlier entry says wrongly: that one stays, this one names it."""

    kind: Literal["correction"] = "correction"
    corrects: Annotated[int, Field(ge=1)]
    text: Annotated[Note, Field(min_length=1)]


MeasuredWhat = Literal[
    "torque", "skin temperature", "humidity", "position", "pilot hole", "batch", "volts", "other"
]


class Measured(Told):
    """Something read on the roof: with what it was made, how it was tightened, what the weather was.
    The value is kept as the instrument shows it, with its unit.
    """

    kind: Literal["measured"] = "measured"
    what: MeasuredWhat
    value: Annotated[str, Field(min_length=1, max_length=60), AfterValidator(printable)]
    place: Annotated[str, Field(max_length=160)] = ""
    by: Word = ""


class Ticked(Told):
    """One of the things counted off in a step: a mark of the roof, by its foot and its place in it."""

    kind: Literal["tick"] = "tick"
    step: Name
    item: Annotated[str, Field(min_length=1, max_length=80), AfterValidator(printable)]
    done: bool = True


class TimerStarted(Told):
    """A clock that runs from when this happened."""

    kind: Literal["timer"] = "timer"
    step: Name
    name: Name
    minutes: Annotated[float, Field(gt=0, le=60 * 24 * 60)]


class TimerEnded(Told):
    """A clock is not looked at any more."""

    kind: Literal["timer off"] = "timer off"
    step: Name
    name: Name


class Photographed(Told):
    """A photograph that was kept with the job, by the hash of its content."""

    kind: Literal["photograph"] = "photograph"
    digest: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    text: Note = ""
    place: Annotated[str, Field(max_length=160)] = ""


Entry = Annotated[
    StepTicked | Ticked | TimerStarted | TimerEnded | Remark | Correction | Measured | Photographed,
    Field(discriminator="kind"),
]


def steps_done(entries: tuple[Entry, ...]) -> frozenset[str]:
    """Titles of the steps that the last word on them says are done.

    >>> ticked = (StepTicked(step="Dry-fit"), StepTicked(step="Mark"), StepTicked(step="Mark", done=False))
    >>> sorted(steps_done(ticked))
    ['Dry-fit']
    """
    last = {e.step: e.done for e in entries if isinstance(e, StepTicked)}
    return frozenset(step for step, done in last.items() if done)


@dataclass(frozen=True, slots=True, order=True)
class Tick:
    """An item that is ticked off in a step."""

    step: str
    item: str


def ticked(entries: tuple[Entry, ...]) -> frozenset[Tick]:
    """What the last word says is ticked off."""
    last = {Tick(e.step, e.item): e.done for e in entries if isinstance(e, Ticked)}
    return frozenset(tick for tick, done in last.items() if done)


@dataclass(frozen=True, slots=True)
class Clock:
    """A clock that runs or has run out and is not put off: ``ends`` as it was started."""

    step: str
    name: str
    ends: datetime


def clocks(entries: tuple[tuple[datetime, Entry], ...]) -> tuple[Clock, ...]:
    """Of entries with the moments they came in; the same clock started again runs from then."""
    running: dict[tuple[str, str], Clock] = {}
    for at, entry in entries:
        if isinstance(entry, TimerStarted):
            started = at - timedelta(seconds=entry.ago_s)
            ends = started + timedelta(minutes=entry.minutes)
            running[entry.step, entry.name] = Clock(entry.step, entry.name, ends)
        elif isinstance(entry, TimerEnded):
            running.pop((entry.step, entry.name), None)
    return tuple(sorted(running.values(), key=lambda clock: clock.ends))


def step_of(entry: Entry) -> str:
    """The title of the step that an entry is about; blank where it is about none."""
    if isinstance(entry, StepTicked | Ticked | TimerStarted):
        return entry.step
    return entry.place if isinstance(entry, Measured | Photographed) else ""


def entry_words(entry: Entry) -> str:
    """An entry as a sentence.

    >>> entry_words(Measured(what="torque", value="8.2 N·m", place="Front port f2"))
    'Front port f2: torque 8.2 N·m'
    """
    place = getattr(entry, "place", "")
    at = f"{place}: " if place else ""
    match entry:
        case StepTicked():
            return f"{'Done' if entry.done else 'Not done after all'}: {entry.step}"
        case Ticked():
            return f"{'Ticked' if entry.done else 'Not done after all'}: {entry.step}, {entry.item}"
        case TimerStarted():
            return f"Clock started: {entry.step}, {entry.name}, {entry.minutes:g} min"
        case TimerEnded():
            return f"Clock ended: {entry.step}, {entry.name}"
        case Correction():
            return f"Corrects {entry.corrects}: {entry.text}"
        case Measured():
            return f"{at}{entry.what} {entry.value}" + (f", by {entry.by}" if entry.by else "")
        case Photographed():
            return f"{at}photograph {entry.digest[:8]}" + (f", {entry.text}" if entry.text else "")
        case _:
            return f"{at}{entry.text}"
