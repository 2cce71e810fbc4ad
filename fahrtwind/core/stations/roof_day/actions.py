"""What is recorded on the roof: where a foot really is, what its pilot hole met, how warm and damp it is."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from fahrtwind.core.errors import InputError
from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.built import BuiltFoot, Pilot
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import AddEntry, JobEdit, RemoveEntry, SetValue
from fahrtwind.core.job.identifiers import next_id
from fahrtwind.core.job.panel import FoamTape
from fahrtwind.core.job.part import Identifier, Word
from fahrtwind.core.tables.roof_work import ReadAt
from fahrtwind.core.tables.work import StepKind

Typed = str | dict[str, Any] | None
"""A quantity as it is typed or stored."""
UNDER_TAPE: tuple[StepKind, ...] = ("stick", "prime")
UNDER_SEALANT: tuple[StepKind, ...] = ("seal", "lay")


class RecordFoot(JobEdit):
    """How one foot of the plan turned out, by one of its marks. ``foot_x``, ``foot_y``, ``mark_x``,
    ``mark_y``: where its middle and that mark were planned when it was measured; ``anew``: nobody had
    recorded this foot as far as the caller knew. ``x``: of the mark from the front edge; ``from_centre``: as
    a tape reads it, on the side of the mark unless it has a sign. ``pilot`` alone says nothing of the place.
    """

    op: Literal["record_foot"] = "record_foot"
    holder: Identifier
    foot: Identifier
    foot_x: q.Along
    foot_y: q.Across
    mark_x: q.Along
    mark_y: q.Across
    anew: bool
    x: Typed = None
    from_centre: str | None = Field(default=None, max_length=40)
    pilot: Pilot | None = None

    def apply(self, job: Job) -> Job:
        """The job with the record. Raises InputError where somebody recorded the foot meanwhile, or took the
        record back that is to be changed.
        """
        known = record_of(job, self.holder, self.foot)
        if known is not None and self.anew:
            raise InputError(
                f"Foot {self.foot} of {self.holder} was recorded meanwhile.",
                remedy="Look at that record, then correct it.",
                field="built.feet",
            )
        planned = self.model_dump(include={"foot_x", "foot_y", "mark_x", "mark_y"})
        if self.anew:
            fresh = {"id": next_id("built_feet", [f.id for f in job.built.feet])}
            names = {"holder": self.holder, "foot": self.foot}
            job = AddEntry(path="built.feet", value={**fresh, **names, **planned}).apply(job)
        before = _record(job, self)
        if self.measured:
            job = self._put(job, before.id, {**planned, "x": self.x, "y": self._signed()})
            job = _reading_follows(job, before, _record(job, self))
        return job if self.pilot is None else self._with_pilot(job)

    @property
    def measured(self) -> bool:
        """Whether it says where the mark is."""
        return self.x is not None or bool(self.from_centre)

    def _put(self, job: Job, record: str, fields: dict[str, Typed]) -> Job:
        for name, value in fields.items():
            job = SetValue(path=f"built.feet.{record}.{name}", value=value).apply(job)
        return job

    def _signed(self) -> str | None:
        text = (self.from_centre or "").strip()
        if not text:
            return None
        return f"-{text}" if self.mark_y.mm < 0 and text[0] not in "-−+" else text

    def _with_pilot(self, job: Job) -> Job:
        """A pilot hole is a reading of the roof like any other: the finder learns of it."""
        record = _record(job, self)
        job = SetValue(path=f"built.feet.{record.id}.pilot", value=self.pilot).apply(job)
        name, kind = reading_id(record), f"pilot_{self.pilot}"
        if any(r.id == name for r in job.readings):
            return SetValue(path=f"readings.{name}.kind", value=kind).apply(job)
        at = {"mm": self.mark_x.mm + record.off_x_mm}
        return AddEntry(path="readings", value={"id": name, "x": at, "kind": kind}).apply(job)

    def words(self) -> str:
        return f"Recorded foot {self.foot} of {self.holder}"


class ForgetFoot(JobEdit):
    """Take a record back, with what its pilot hole told the finder."""

    op: Literal["forget_foot"] = "forget_foot"
    holder: Identifier
    foot: Identifier

    def apply(self, job: Job) -> Job:
        record = _record(job, self)
        if any(r.id == reading_id(record) for r in job.readings):
            job = RemoveEntry(path=f"readings.{reading_id(record)}").apply(job)
        return RemoveEntry(path=f"built.feet.{record.id}").apply(job)

    def words(self) -> str:
        return f"Took back the record of foot {self.foot} of {self.holder}"


class NoteReading(JobEdit):
    """What was read in a step goes where the job asks for it: how warm the roof is under tape, how warm and
    damp it is when sealant goes on, what the wrench showed at which bolts. What the job does not ask for
    stays in the log alone. ``holder``, ``bolt``: of a torque, as the wanted ones are named.
    """

    op: Literal["note_reading"] = "note_reading"
    step: StepKind
    what: ReadAt
    value: str = Field(min_length=1, max_length=60)
    holder: Identifier | None = None
    bolt: Word | None = None

    def apply(self, job: Job) -> Job:
        if self.what == "torque":
            return (
                job
                if self.holder is None or not self.bolt
                else self._with_torque(job, self.holder, self.bolt)
            )
        for path in _asked_for(job, self.step, self.what):
            value = self.value.strip().removesuffix("%").strip() if self.what == "humidity" else self.value
            job = SetValue(path=path, value=value).apply(job)
        return job

    def _with_torque(self, job: Job, holder: str, bolt: str) -> Job:
        known = (t for t in job.built.torques if (t.holder, t.bolt) == (holder, bolt))
        if (before := next(known, None)) is not None:
            return SetValue(path=f"built.torques.{before.id}.torque", value=self.value).apply(job)
        fresh = {"id": next_id("built_torques", [t.id for t in job.built.torques])}
        value = {**fresh, "holder": holder, "bolt": bolt, "torque": self.value}
        return AddEntry(path="built.torques", value=value).apply(job)

    def words(self) -> str:
        return f"Read the {self.what}"


def _asked_for(job: Job, step: StepKind, what: ReadAt) -> list[str]:
    if step in UNDER_SEALANT:
        return {"skin temperature": ["seal.temperature"], "humidity": ["seal.humidity"]}.get(what, [])
    if step in UNDER_TAPE and what == "skin temperature":
        taped = (p for p in job.panels if not p.carrier and isinstance(p.hold, FoamTape))
        return [f"panels.{p.id}.hold.temperature" for p in taped]
    return []


def record_of(job: Job, holder: str, foot: str) -> BuiltFoot | None:
    """What was recorded of a foot; None where nothing was."""
    return next((f for f in job.built.feet if (f.holder, f.foot) == (holder, foot)), None)


def reading_id(record: BuiltFoot) -> str:
    """Of what the pilot hole of a record told the finder."""
    return f"{record.id}p"


def _record(job: Job, of: RecordFoot | ForgetFoot) -> BuiltFoot:
    found = record_of(job, of.holder, of.foot)
    if found is None:
        raise InputError(
            f"Foot {of.foot} of {of.holder} has no record.", remedy="Record it anew.", field="built.feet"
        )
    return found


def _reading_follows(job: Job, before: BuiltFoot, now: BuiltFoot) -> Job:
    """The pilot hole is where the foot is: what was measured later moves it too."""
    moved = now.off_x_mm - before.off_x_mm
    for reading in (r for r in job.readings if r.id == reading_id(now) and moved):
        path = f"readings.{reading.id}.x"
        job = SetValue(path=path, value={"mm": reading.x.mm + moved}).apply(job)
    return job
