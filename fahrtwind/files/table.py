"""Reading tables as people's programs write them: any line end, tab, semicolon or comma, decimal point or
comma.

What cannot be understood is refused with its line and column; nothing in a table can make the reading fail.
"""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Sequence

from fahrtwind.core.errors import InputError, TooLarge
from fahrtwind.core.records import dataclass

LONGEST_CELL = 500
MOST_CELLS = 200
ONLY_NUMBERS = re.compile(r"\s*[+-]?\d+,\d+\s*")
FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r")


@dataclass(frozen=True, slots=True)
class Row:
    """One line of a table that is not blank: its number in the file, counted from 1, and its cells without
    outer blanks.
    """

    line: int
    cells: tuple[str, ...]


def read_rows(
    text: str, field: str, *, most: int, quotes: bool = True, one_column: bool = False
) -> list[Row]:
    """The lines of a table.

    Args:
        most: how many lines are taken at most, TooLarge beyond.
        one_column: whether lines such as ``1220,5`` may be one number with a decimal comma.
        quotes: whether ``"`` encloses cells; not where it stands for inches.
    """
    lines = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").replace("\0", "\ufffd")
    sample = [line for line in lines[:4000].split("\n") if line.strip()][:5]
    reader = csv.reader(
        io.StringIO(lines, newline="\n"),
        delimiter=_delimiter(sample, one_column),
        quoting=csv.QUOTE_MINIMAL if quotes else csv.QUOTE_NONE,
    )
    rows: list[Row] = []
    try:
        for cells in reader:
            if not any(c.strip() for c in cells):
                continue
            rows.append(Row(reader.line_num, tuple(c.strip() for c in cells)))
            _refuse_monsters(rows, field, most)
    except csv.Error as error:
        raise InputError(
            f"Line {reader.line_num} cannot be read ({error}).",
            remedy="Look for a quotation mark without its partner.",
            field=field,
        ) from error
    return rows


def _refuse_monsters(rows: Sequence[Row], field: str, most: int) -> None:
    row = rows[-1]
    if len(rows) > most:
        raise TooLarge(
            f"The table has more than {most} lines.", remedy="Cut it down to what is needed.", field=field
        )
    if len(row.cells) > MOST_CELLS:
        raise TooLarge(
            f"Line {row.line} has {len(row.cells)} columns.",
            remedy=f"At most {MOST_CELLS} are read.",
            field=field,
        )
    for number, cell in enumerate(row.cells, start=1):
        if len(cell) > LONGEST_CELL:
            raise TooLarge(
                f"Line {row.line}, column {number} is too long.",
                remedy=f"At most {LONGEST_CELL} letters.",
                field=field,
            )


def _delimiter(sample: Sequence[str], one_column: bool) -> str:
    """By the first line that has one: a header names its own."""
    if one_column and sample and all(ONLY_NUMBERS.fullmatch(line) for line in sample):
        return "\t"  # a single column of numbers with decimal commas has no separator at all
    for line in sample:
        for mark in ("\t", ";", ","):
            if mark in line:
                return mark
    return ","


def cells_by_name(header: Row, row: Row, field: str) -> dict[str, str]:
    """The cells of a line under the names of the header. Raises InputError where the line has more cells than
    names.
    """
    surplus = [c for c in row.cells[len(header.cells) :] if c]
    if surplus:
        raise InputError(
            f"Line {row.line} has {len(row.cells)} cells, the header {len(header.cells)}.",
            remedy="With decimal commas, separate the columns by semicolons.",
            field=field,
        )
    return dict(zip(header.cells, row.cells, strict=False))


def number(cell: str) -> float | None:
    """A finite number with a decimal point or comma; None where the cell is something else.

    >>> number("1,5"), number("2.5e3"), number("nan"), number("1.234,5")
    (1.5, 2500.0, None, None)
    """
    text = cell.replace(",", ".") if cell.count(",") == 1 and "." not in cell else cell
    if not re.fullmatch(r"[+-]?([0-9]+\.?[0-9]*|\.[0-9]+)([eE][+-]?[0-9]+)?", text):
        return None
    value = float(text)
    return value if math.isfinite(value) else None


def neutral(cell: object) -> object:
    """A text that a spreadsheet would run as a formula gets an apostrophe in front; ``as_text`` takes it off
    again.
    """
    return (
        f"'{cell}"
        if isinstance(cell, str) and (cell.startswith(FORMULA_STARTS) or cell.startswith("'"))
        else cell
    )


def as_text(cell: str) -> str:
    """The text of a cell that ``neutral`` wrote."""
    return cell[1:] if cell.startswith("'") and (cell[1:].startswith((*FORMULA_STARTS, "'"))) else cell
