"""Hourly forecasts from CSV or JSON in the open layout that ``docs/forecast.md`` describes."""

from __future__ import annotations

import json
from collections import defaultdict
from datetime import UTC, datetime, timedelta

from pydantic import ValidationError

from fahrtwind.core.errors import InputError, TooLarge, UnreadableFile, WrongHeader
from fahrtwind.core.job.days import COLUMNS, MOST_HOURS, MOST_MEMBERS, Forecast, ForecastMember
from fahrtwind.core.job.load import as_input_error
from fahrtwind.core.records import dataclass
from fahrtwind.files.table import Row, cells_by_name, number, read_rows

MOST_BYTES = 2_000_000
LAYOUT = "hourly-forecast-1"
HOUR = timedelta(hours=1)


@dataclass(frozen=True, slots=True)
class ReadForecast:
    """``notes``: what was found missing; such hours count as not known."""

    forecast: Forecast
    hours: int
    notes: tuple[str, ...]


def read_forecast(text: str) -> ReadForecast:
    """A forecast from its text: JSON where it begins with a brace, else a table.

    Raises WrongHeader, TooLarge, UnreadableFile or an InputError that names line and column.
    """
    if len(text.encode()) > MOST_BYTES:
        raise TooLarge("The forecast is longer than 2 MB.", remedy="Cut it to two weeks.", field="text")
    found = _of_json(text) if text.lstrip("\ufeff \t\r\n").startswith("{") else _of_table(text)
    gaps = sum(
        any(getattr(found.members[0], name)[h] is None for name in COLUMNS)
        for h in range(len(found.members[0].air_c))
    )
    notes = (f"{gaps} hours are not whole: they count as not known.",) if gaps else ()
    return ReadForecast(found, len(found.members[0].air_c), notes)


def write_forecast(forecast: Forecast) -> str:
    """The JSON layout."""
    return json.dumps({"layout": LAYOUT, **forecast.model_dump(mode="json")})


def _of_json(text: str) -> Forecast:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise UnreadableFile("This is no JSON.", remedy="Load the file as it came.", field="text") from error
    if not isinstance(data, dict) or data.pop("layout", None) != LAYOUT:
        raise WrongHeader(
            "The file does not say which layout it has.",
            remedy=f"It needs “layout”: “{LAYOUT}”; docs/forecast.md tells the rest.",
            field="text",
        )
    return _checked(data)


def _checked(data: object) -> Forecast:
    try:
        return Forecast.model_validate(data)
    except ValidationError as error:
        problem = as_input_error(error)
        raise InputError(problem.problem, remedy=problem.remedy, field="text") from error


def _of_table(text: str) -> Forecast:
    rows = read_rows(text, "text", most=MOST_HOURS * MOST_MEMBERS + 1)
    header = Row(1, tuple(c.lower() for c in rows[0].cells)) if rows else Row(1, ())
    missing = [name for name in ("time", *COLUMNS) if name not in header.cells]
    if missing:
        raise WrongHeader(
            f"The column {missing[0]} is missing.",
            remedy=f"The first line has to name time, {', '.join(COLUMNS)}; member where there are several.",
            field="text",
        )
    hours: dict[str, dict[datetime, dict[str, float | None]]] = defaultdict(dict)
    for row in rows[1:]:
        cells = cells_by_name(header, row, "text")
        member, moment = cells.get("member", "") or "1", _moment(row.line, cells.get("time", ""))
        if moment in hours[member]:
            raise InputError(
                f"Line {row.line}: the hour {moment:%Y-%m-%d %H:%M} UTC is there twice.",
                remedy="Keep one of the two. When clocks go back, the distance from UTC tells them apart.",
                field="text",
            )
        hours[member][moment] = {name: _value(row.line, name, cells.get(name, "")) for name in COLUMNS}
    if not hours:
        raise InputError("The table has no hours.", remedy="Give a line for each hour.", field="text")
    return _of_hours(hours)


def _moment(line: int, cell: str) -> datetime:
    try:
        found = datetime.fromisoformat(cell)
    except ValueError as error:
        raise InputError(
            f"Line {line}: “{cell[:30]}” is no time.", remedy="Write 2026-05-04T08:00+02:00.", field="text"
        ) from error
    if found.tzinfo is None:
        raise InputError(
            f"Line {line}: {cell} does not say its time zone.",
            remedy="Write the distance from UTC with it: 2026-05-04T08:00+02:00, or Z for UTC.",
            field="text",
        )
    found = found.astimezone(UTC)
    if (found.minute, found.second, found.microsecond) != (0, 0, 0):
        raise InputError(
            f"Line {line}: {cell} is not on the hour.", remedy="Give values for full hours.", field="text"
        )
    return found


def _value(line: int, name: str, cell: str) -> float | None:
    """None for a blank."""
    if not cell:
        return None
    value = number(cell)
    low, high = COLUMNS[name]
    if value is None or not low <= value <= high:
        raise InputError(
            f"Line {line}, column {name}: “{cell[:30]}” cannot be.",
            remedy=f"A number from {low:g} to {high:g}, or blank where nothing is known.",
            field="text",
        )
    return value


def _of_hours(hours: dict[str, dict[datetime, dict[str, float | None]]]) -> Forecast:
    """Gaps are filled with hours nobody knows about."""
    start = min(min(own) for own in hours.values())
    count = int((max(max(own) for own in hours.values()) - start) / HOUR) + 1
    if count > MOST_HOURS or len(hours) > MOST_MEMBERS:
        raise TooLarge(
            f"The forecast has {count} hours and {len(hours)} members.",
            remedy=f"At most {MOST_HOURS} hours and {MOST_MEMBERS} members are read.",
            field="text",
        )
    moments = [start + i * HOUR for i in range(count)]
    members = [
        ForecastMember.model_validate({name: [own.get(m, {}).get(name) for m in moments] for name in COLUMNS})
        for own in hours.values()
    ]
    return _checked({"source": "table", "issued": start, "start": start, "members": members})
