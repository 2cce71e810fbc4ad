"""Snags of what was built: what was found and is not mended."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.care import Care
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.log.due import open_findings
from fahrtwind.core.stations.log.judged import LookVerdict

PRACTICE = "common practice, no source"


@rule("found-not-mended", "stop", "log", "Found, and not mended", PRACTICE)
def found_not_mended(care: Care, judged: tuple[LookVerdict, ...]) -> Iterator[Found]:
    verdicts = {v.look: v for v in judged}
    for look in (one for one in open_findings(care.looks) if one.found != "leak"):
        verdict = verdicts[look.id]
        yield Found(
            place=f"care.looks.{look.id}",
            where=look.where or "roof",
            why=f"{look.found.capitalize()}, {look.day:%-d %B %Y}: {verdict.verdict}.",
            remedy=verdict.words,
        )


@rule("leak-not-mended", "caution", "log", "A leak that is not mended", PRACTICE)
def leak_not_mended(care: Care) -> Iterator[Found]:
    for look in (one for one in open_findings(care.looks) if one.found == "leak"):
        yield Found(
            place=f"care.looks.{look.id}",
            where=look.where or "roof",
            why=f"Seen on {look.day:%-d %B %Y}; wet wood rots for years unseen.",
            remedy="Open the seal, dry it, seal it anew; then write down a look that found it sound.",
        )


@rule("looked-before-it-drove", "caution", "log", "Looked at before it drove", PRACTICE)
def looked_before_it_drove(care: Care) -> Iterator[Found]:
    start = care.drives_since
    for look in (one for one in care.looks if start is not None and one.day < start):
        yield Found(
            place=f"care.looks.{look.id}",
            where=look.where or "roof",
            why=f"{look.day:%-d %B %Y} lies before its first day on the road; it counts for nothing.",
            remedy="Correct one of the two days.",
        )
