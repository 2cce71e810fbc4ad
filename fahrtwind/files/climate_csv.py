"""Twelve months of a climate from a CSV: sunshine, temperature and, if known, turbidity, January first."""

from __future__ import annotations

import csv
import io

from pydantic import ValidationError

from fahrtwind.core.errors import InputError, TooLarge, WrongHeader
from fahrtwind.core.job.layout import MONTHS, ClimateMonth
from fahrtwind.core.job.load import as_input_error

MOST_BYTES = 20_000
NEEDED = ("sunshine", "temperature")


def read_climate(text: str) -> tuple[ClimateMonth, ...]:
    """The months of a table with the columns ``sunshine`` (0 to 1, or per cent), ``temperature`` (°C), ``turbidity`` (optional).

    Raises WrongHeader, TooLarge or an InputError that names the line.
    """
    if len(text.encode()) > MOST_BYTES:
        raise TooLarge("This is no table of twelve months.", remedy="Give one line for each month.", field="text")
    first = text.partition("\n")[0]
    rows = list(csv.DictReader(io.StringIO(text.lstrip("\ufeff")), delimiter=";" if first.count(";") > first.count(",") else ","))
    header = {h.strip().lower() for h in (rows[0] if rows else {}) if h}
    missing = [name for name in NEEDED if name not in header]
    if missing:
        raise WrongHeader(
            f"The column {missing[0]} is missing.",
            remedy="The first line has to name month, sunshine and temperature.",
            field="text",
        )
    found = tuple(
        _month(i, {(k or "").strip().lower(): (v or "").strip() for k, v in row.items()}) for i, row in enumerate(rows, 2)
    )
    if len(found) != MONTHS:
        raise InputError(f"The table has {len(found)} months.", remedy="Give all twelve, January first.", field="text")
    return found


def _month(line: int, cells: dict[str, str]) -> ClimateMonth:
    try:
        share = cells["sunshine"].replace(",", ".")
        sunshine = float(share.rstrip("%")) / (100 if share.endswith("%") or float(share.rstrip("%")) > 1 else 1)
        values = {"sunshine": sunshine, "temperature": float(cells["temperature"].replace(",", "."))}
        if cells.get("turbidity"):
            values["turbidity"] = float(cells["turbidity"].replace(",", "."))
    except ValueError as error:
        raise InputError(
            f"Line {line} has no readable number.", remedy="Correct it, for example 0.45, 18.", field="text"
        ) from error
    try:
        return ClimateMonth.model_validate(values)
    except ValidationError as error:
        problem = as_input_error(error)
        raise InputError(f"Line {line}: {problem.problem}", remedy=problem.remedy, field="text") from error
