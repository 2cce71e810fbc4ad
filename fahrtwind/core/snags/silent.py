"""Snags of stages that could not answer: what is not known is never read as good."""

from collections.abc import Iterator
from functools import partial

from fahrtwind.core.job.document import Job
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, Station, rule


def _silent(station: Station, _job: Job, findings: Findings) -> Iterator[Found]:
    for silence in findings.silent:
        if silence.station == station:
            yield Found(silence.place, silence.what, silence.why, silence.remedy)


STATIONS: tuple[Station, ...] = ("survey", "structure", "layout", "hold", "roof-day")
for _station in STATIONS:
    rule(f"{_station}-unanswered", "stop", _station, "Cannot be worked out", "validity limits of the formulas")(
        partial(_silent, _station)
    )
