"""A job at a glance, for the list of all: its roof, how it stands, what stops it, what is to be done next."""

from __future__ import annotations

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.records import dataclass
from fahrtwind.core.spoken import Word
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.survey.outline import Vertex

MOST_STOPS = 2


@dataclass(frozen=True, slots=True)
class NextStep:
    """What is to be done next, and at which station."""

    station: str
    words: str


@dataclass(frozen=True, slots=True)
class Glance:
    """``stops``: titles of the first stops, ``more_stops`` so many beside them; ``next_step``: None where all
    is done.
    """

    roof: Rect | None
    outline: tuple[Vertex, ...]
    shapes: tuple[Shape, ...]
    word: Word
    stops: tuple[str, ...]
    more_stops: int
    next_step: NextStep | None


def glance(evaluation: Evaluation, done: frozenset[str], *, drives: bool) -> Glance:
    """``done``: titles of the steps that the log says are done; ``drives``: it is built and on the road."""
    stops = tuple(dict.fromkeys(s.title for s in evaluation.snags if s.severity == "stop"))
    findings = evaluation.findings
    return Glance(
        roof=findings.roof,
        outline=findings.survey.outline,
        shapes=findings.shapes,
        word=evaluation.spoken.word,
        stops=stops[:MOST_STOPS],
        more_stops=max(0, len(stops) - MOST_STOPS),
        next_step=next_step(evaluation, done, drives=drives),
    )


def next_step(evaluation: Evaluation, done: frozenset[str], *, drives: bool) -> NextStep | None:
    """What is not known is asked first; then stops are cleared, in the order of the road; then the work."""
    for question in evaluation.findings.questions:
        return NextStep(question.station, question.ask)
    for snag in evaluation.snags:
        if snag.severity == "stop":
            return NextStep(snag.station, f"{snag.title}: {snag.where}")
    for step in () if drives else evaluation.findings.steps:
        if step.title not in done:
            return NextStep("roof-day", step.title)
    return None
