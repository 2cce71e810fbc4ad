"""What has to be looked at, and by when: common practice, no source; makers' intervals come first."""

from __future__ import annotations

from datetime import date, timedelta
from math import ceil

from fahrtwind.core.job.care import Care, Look
from fahrtwind.core.records import dataclass

FIRST_KM, FIRST_WEEKS, YEAR_DAYS = 100.0, 6, 365
MOST_HALVINGS = 2
AGES = "sealant ages, threads creep"
SLOW_DAYS = 14
"""Until the first hundred kilometres are taken as driven, where nobody said how far it goes."""


@dataclass(frozen=True, slots=True)
class Due:
    """``by``: the day until which it is looked at; ``late``: that day is past."""

    what: str
    why: str
    by: date
    late: bool


def due_of(care: Care, today: date) -> tuple[Due, ...]:
    """What is still to be looked at, the most pressing first; nothing before it drives."""
    start = care.drives_since
    if start is None:
        return ()
    looks = sorted(care.looks, key=lambda look: look.day)
    found = [*_first(care, start, looks), *_yearly(start, looks), *_after(care, looks), *_mended(looks)]
    told = [Due(what, why, by, by < today) for what, why, by in found]
    return tuple(sorted(told, key=lambda d: d.by))


def _first(care: Care, start: date, looks: list[Look]) -> list[tuple[str, str, date]]:
    found = []
    days = SLOW_DAYS if care.km_a_month is None else ceil(FIRST_KM / care.km_a_month * 30)
    if not any(look.day >= start and _far_enough(look, start, days) for look in looks):
        found.append(
            (
                "every bolt after the first 100 km",
                "bolts settle, tape and sealant give",
                start + timedelta(days),
            )
        )
    weeks = timedelta(weeks=FIRST_WEEKS)
    if not any(look.day >= start + weeks / 2 for look in looks):
        found.append(("bolts and seals after six weeks", "what was built wrong shows by then", start + weeks))
    return found


def _far_enough(look: Look, start: date, days: int) -> bool:
    return look.km >= FIRST_KM if look.km is not None else look.day >= start + timedelta(days=days)


def _yearly(start: date, looks: list[Look]) -> list[tuple[str, str, date]]:
    """What was found in the last year halves the interval, and again where it was found more than once: a
    judgement.
    """
    whole = [look.day for look in looks if not look.where]
    last = max(whole, default=start)
    found = [x for x in looks if x.found != "sound" and last - x.day < timedelta(days=YEAR_DAYS)]
    days = YEAR_DAYS // 2 ** min(len(found), MOST_HALVINGS)
    why = f"sooner than in a year: {found[-1].found}, {found[-1].day:%-d %B %Y}" if found else AGES
    by = last + timedelta(days=days)
    return [("bolts and sealant, yearly", why, max([by, *(x.day for x in found)]))]


def _after(care: Care, looks: list[Look]) -> list[tuple[str, str, date]]:
    words = {"storm": "after the storm", "scrape": "after the scrape"}
    return [
        (f"feet and edges {words[h.what]}", f"{h.what} of {h.day:%-d %B %Y}", h.day)
        for h in care.happenings
        if not any(look.day >= h.day for look in looks)
    ]


def _mended(looks: list[Look]) -> list[tuple[str, str, date]]:
    return [
        (f"{look.where or 'what was found'}: mend and look again", _seen(look), look.day)
        for look in open_findings(tuple(looks))
    ]


def _seen(look: Look) -> str:
    return f"{look.found}, {look.day:%-d %B %Y}"


def open_findings(looks: tuple[Look, ...]) -> tuple[Look, ...]:
    """What was found not sound and has not been seen sound at the same place since."""
    return tuple(
        look
        for i, look in enumerate(looks)
        if look.found != "sound"
        and not any(
            later.found == "sound" and later.day >= look.day and later.where in (look.where, "")
            for j, later in enumerate(looks)
            if j != i
        )
    )
