"""Snags of the calendar: a plan that no longer goes, weather nobody knows, things nobody asked about."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.days import Days
from fahrtwind.core.stations.build.purchase import PurchaseLine
from fahrtwind.core.stations.days.activities import Network
from fahrtwind.core.stations.days.grid import Grid
from fahrtwind.core.stations.days.kept import KeptPlan
from fahrtwind.core.stations.days.releases import unasked, unbought
from fahrtwind.core.stations.house import rule

PRACTICE = "common practice, no source"
THE_PLAN = "the plan's own rules"


@rule("kept-plan-breaks", "caution", "days", "The kept plan no longer goes", THE_PLAN)
def kept_plan_breaks(kept_plan: KeptPlan | None, network: Network) -> Iterator[Found]:
    if kept_plan is None or not kept_plan.breaks:
        return
    titles = {a.id: a.title for a in network.activities}
    first = kept_plan.breaks[0]
    more = len(kept_plan.breaks) - 1
    yield Found(
        place="days.kept",
        where=titles.get(first.step, first.step),
        why=first.words + (f"; and {more} more." if more else "."),
        remedy="Plan again under Days, or pin what has to stay and plan round it.",
        quantity="broken rules",
        value=float(len(kept_plan.breaks)),
        unit="rules",
    )


@rule("kept-plan-old", "caution", "days", "The kept plan is not of this work", THE_PLAN)
def kept_plan_old(kept_plan: KeptPlan | None, network: Network) -> Iterator[Found]:
    if kept_plan is None or not (kept_plan.missing or kept_plan.gone):
        return
    titles = {a.id: a.title for a in network.activities}
    new = [titles[i] for i in kept_plan.missing]
    told = [f"new: {', '.join(new)}"] if new else []
    told += [f"no longer there: {', '.join(kept_plan.gone)}"] if kept_plan.gone else []
    yield Found("days.kept", "plan", "; ".join(told) + ".", "Plan again and keep the new plan.")


@rule("weather-ignored", "caution", "days", "Planned without any weather", PRACTICE)
def weather_ignored(dated: Days) -> Iterator[Found]:
    if dated.weather == "ignored" and dated.shelter == "none":
        yield Found(
            "days.weather",
            "plan",
            "Rain, cold and wind do not count: the days are only as good as a guess.",
            "Load a forecast, fetch one, or tell how long it stays dry.",
        )


@rule("lead-time-not-asked", "caution", "days", "Nobody asked when it comes", PRACTICE)
def lead_time_not_asked(purchase: tuple[PurchaseLine, ...], dated: Days) -> Iterator[Found]:
    names = unasked(purchase)
    if names:
        yield Found(
            "workshop.items",
            names[0] + (f" and {len(names) - 1} more" if len(names) > 1 else ""),
            "It is bought, but nobody typed how many working days it takes; counted as if it lay here.",
            "Ask, and type it under Build, Buy; or type the day it comes under Days.",
        )


@rule("not-told-whether-there", "note", "days", "Nobody said that it lies there", PRACTICE)
def not_told_whether_there(purchase: tuple[PurchaseLine, ...], dated: Days) -> Iterator[Found]:
    names = unbought(purchase)
    if names:
        yield Found(
            "workshop.items",
            names[0] + (f" and {len(names) - 1} more" if len(names) > 1 else ""),
            "The plan reckons that it lies there on the first day.",
            "Pick it under Build, Buy, with its stock or lead time; or type the day it comes under Days.",
        )


@rule("pin-without-step", "caution", "days", "Something is pinned that is not to be done", THE_PLAN)
def pin_without_step(dated: Days, network: Network) -> Iterator[Found]:
    known = {a.id for a in network.activities}
    for kind, entries in (("pins", dated.pins), ("done", dated.done)):
        for entry in (e for e in entries if e.step not in known):
            yield Found(f"days.{kind}", entry.step, "The work has no such step now.", "Remove it.")


@rule("done-out-of-order", "caution", "days", "Done before what comes before it", PRACTICE)
def done_out_of_order(dated: Days, network: Network) -> Iterator[Found]:
    done = {d.step: d for d in dated.done}
    titles = {a.id: a.title for a in network.activities}
    for link in network.links:
        if link.after in done and (
            link.before not in done or done[link.before].ended > done[link.after].started
        ):
            yield Found(
                "days.done",
                titles[link.after],
                f"“{titles[link.before]}” comes first: {link.why}.",
                "Look whether it did harm; correct the times if they are wrong.",
            )


@rule("alone-on-the-roof", "caution", "days", "Somebody is alone on the roof", PRACTICE)
def alone_on_the_roof(dated: Days, network: Network) -> Iterator[Found]:
    if len(dated.crew) == 1 and any(a.place == "roof" for a in network.activities):
        yield Found(
            "days.crew",
            dated.crew[0].name,
            "Nobody holds the ladder or calls for help.",
            "Have a second person below whenever somebody is on the roof.",
        )


@rule("clocks-change", "note", "days", "The clocks change within the plan", "the time zone's own rules")
def clocks_change(day_grid: Grid, dated: Days) -> Iterator[Found]:
    for day in range(dated.horizon):
        longer = day_grid.first_slot(day + 1) - day_grid.first_slot(day) - 48
        if longer:
            yield Found(
                "days.zone",
                f"{day_grid.date_of(day):%A %-d %B}",
                f"The night is {'longer' if longer > 0 else 'shorter'} by {abs(longer) // 2} h; hours are "
                "counted, not what the clock shows.",
                "Nothing to do.",
            )
