"""Twelve months of a climate from a CSV: sunshine, temperature and, if known, turbidity, January first."""

from __future__ import annotations

from pydantic import ValidationError

from fahrtwind.core.errors import InputError, TooLarge, WrongHeader
from fahrtwind.core.job.layout import MONTHS, ClimateMonth
from fahrtwind.core.job.load import as_input_error
from fahrtwind.files.table import Row, cells_by_name, number, read_rows

MOST_BYTES = 20_000
NEEDED = ("sunshine", "temperature")


def read_climate(text: str) -> tuple[ClimateMonth, ...]:
    """The months of a table with the columns ``sunshine`` (0 to 1, or per cent), ``temperature`` (°C),
    ``turbidity`` (optional).

    Raises WrongHeader, TooLarge or an InputError that names the line.
    """
    if len(text.encode()) > MOST_BYTES:
        raise TooLarge(
            "This is no table of twelve months.", remedy="Give one line for each month.", field="text"
        )
    rows = read_rows(text, "text", most=50)
    header = Row(1, tuple(c.lower() for c in rows[0].cells)) if rows else Row(1, ())
    missing = [name for name in NEEDED if name not in header.cells]
    if missing:
        raise WrongHeader(
            f"The column {missing[0]} is missing.",
            remedy="The first line has to name month, sunshine and temperature.",
            field="text",
        )
    found = tuple(_month(row.line, cells_by_name(header, row, "text")) for row in rows[1:])
    if len(found) != MONTHS:
        raise InputError(
            f"The table has {len(found)} months.", remedy="Give all twelve, January first.", field="text"
        )
    return found


def _month(line: int, cells: dict[str, str]) -> ClimateMonth:
    values: dict[str, float] = {}
    for name in ("sunshine", "temperature", "turbidity"):
        cell = cells.get(name, "")
        if not cell and name == "turbidity":
            continue
        value = number(cell.rstrip("% "))
        if value is None:
            raise InputError(
                f"Line {line}, column {name}: “{cell[:30]}” is not a number.",
                remedy="Correct it, for example 0.45 or 18.",
                field="text",
            )
        values[name] = value
    if cells["sunshine"].endswith("%") or values["sunshine"] > 1:
        values["sunshine"] /= 100
    try:
        return ClimateMonth.model_validate(values)
    except ValidationError as error:
        problem = as_input_error(error)
        raise InputError(f"Line {line}: {problem.problem}", remedy=problem.remedy, field="text") from error
