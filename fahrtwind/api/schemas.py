"""Request and response shapes. Jobs and evaluations are the core's own models."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from fahrtwind.api.changes import New
from fahrtwind.core.edits import Edit
from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job, VehicleKind
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.job.part import Name
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.road import ROAD, Station
from fahrtwind.store.jobs import StoredJob

Client = Annotated[str, Field(min_length=1, max_length=60)]
EditId = Annotated[str, Field(min_length=1, max_length=60)]
Edits = Annotated[list[Edit], Field(min_length=1, max_length=500)]
Probe = Annotated[float, Field(ge=0, le=60)]


class Request(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class NewJob(Request):
    name: Name
    kind: VehicleKind = "van"
    units: UnitSystem = "metric"
    client: Client


class Held(Request):
    """What the window has already: then only what is new against it is sent."""

    revision: int
    probe_m_s: Probe | None = None


class Looking(Request):
    """``probe_m_s``: a road speed to look at instead of the highest. Without ``held`` the whole answer is
    sent.
    """

    probe_m_s: Probe | None = None
    held: Held | None = None


class ChangeRequest(Looking):
    """``base_revision`` is what the change was made on; ``edit_id`` makes sending it twice harmless."""

    base_revision: int
    client: Client
    edit_id: EditId


class EditRequest(ChangeRequest):
    edits: Edits


class WhatIf(Looking):
    """``stations``: those somebody looks at while a panel is dragged. What the others tell stays as it is in
    the stored job; without the field everything is told.
    """

    edits: Annotated[list[Edit], Field(max_length=500)] = []
    stations: Annotated[list[Station], Field(min_length=1, max_length=len(ROAD))] | None = None


class JobHead(BaseModel):
    id: str
    revision: int
    summary: str
    changed_by: str
    changed_at: datetime
    can_undo: bool
    can_redo: bool


class JobNews(JobHead):
    """What is new against the answer that the window has: branches of ``job`` and ``evaluation``."""

    changes: list[New]


class WhatIfNews(BaseModel):
    """What would be new against the answer that the window has."""

    changes: list[New]


class JobAnswer(JobHead):
    job: Job
    evaluation: Evaluation

    @classmethod
    def of(cls, stored: StoredJob, evaluation: Evaluation) -> JobAnswer:
        return cls.model_construct(
            id=stored.id,
            revision=stored.revision,
            job=stored.job,
            evaluation=evaluation,
            summary=stored.summary,
            changed_by=stored.changed_by,
            changed_at=stored.changed_at,
            can_undo=stored.can_undo,
            can_redo=stored.can_redo,
        )


class JobListed(BaseModel):
    id: str
    revision: int
    name: str
    vehicle: str
    panels: int
    changed_at: datetime


class RevisionAnswer(BaseModel):
    revision: int
    changed_by: str


class CalcListed(BaseModel):
    name: str
    answers: str


class Choice(BaseModel):
    value: str
    words: str


class ReadingChoice(Choice):
    """A kind of reading with what it is usually worth."""

    sigma_mm: float
    false_share: float
    miss_share: float


class ClimateChoice(Choice):
    latitude_deg: float
    longitude_deg: float


class ExportChoice(Choice):
    """A file a job can leave as, and the station that offers it."""

    station: Station


class Catalogue(BaseModel):
    """What the front end offers to choose from."""

    panels: list[PanelModel]
    panel_source: str
    climates: list[ClimateChoice]
    reading_kinds: list[ReadingChoice]
    exports: list[ExportChoice]


Direction = Literal["undo", "redo"]
