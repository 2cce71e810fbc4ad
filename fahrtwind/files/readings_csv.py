"""Readings from a spreadsheet: pasted or loaded as CSV. Shows what was understood before it is taken."""

from __future__ import annotations

from typing import get_args

from fahrtwind.core.errors import InputError, TooLarge, WrongHeader
from fahrtwind.core.quantities import Length, UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.tables.readings import RELIABILITY, ReadingKind
from fahrtwind.files.table import Row, read_rows

MOST_ROWS = 400
LARGEST_TEXT = 200_000
COLUMNS = ("position", "kind", "uncertainty")
DEFAULT_KIND: ReadingKind = "magnet"


@dataclass(frozen=True, slots=True)
class UnderstoodRow:
    """A line that can be taken as it is: the position as typed, what it means in mm, and the kind."""

    line: int
    position: str
    x_mm: float
    kind: ReadingKind
    uncertainty: str | None


@dataclass(frozen=True, slots=True)
class RefusedRow:
    line: int
    text: str
    problem: str
    remedy: str


@dataclass(frozen=True, slots=True)
class ReadingsTable:
    understood: tuple[UnderstoodRow, ...]
    refused: tuple[RefusedRow, ...]


def read_readings(text: str, units: UnitSystem) -> ReadingsTable:
    """Read lines of position, kind and uncertainty, separated by tab, semicolon or comma, with or without a
    header.

    Raises WrongHeader when a header has no position column, TooLarge beyond 400 rows.
    """
    if len(text) > LARGEST_TEXT:
        raise TooLarge(
            "This is too much text for readings.", remedy=f"Paste at most {MOST_ROWS} rows.", field="readings"
        )
    rows = read_rows(text, "readings", most=MOST_ROWS + 1, quotes=False, one_column=True)
    columns, first = _columns(rows[0].cells if rows else ())
    understood, refused = [], []
    for row in rows[first:]:
        try:
            understood.append(_row(row, columns, units))
        except InputError as error:
            refused.append(RefusedRow(row.line, " | ".join(row.cells)[:80], error.problem, error.remedy))
    return ReadingsTable(tuple(understood), tuple(refused))


def _columns(header: tuple[str, ...]) -> tuple[dict[str, int], int]:
    """Where each column is, and the index of the first data row."""
    words = [cell.strip().lower() for cell in header]
    if not words or any(ch.isdigit() for ch in words[0]):
        return {name: i for i, name in enumerate(COLUMNS) if i < max(len(words), 1)}, 0
    columns = {name: words.index(name) for name in COLUMNS if name in words}
    if "position" not in columns:
        raise WrongHeader(
            f"The header says “{', '.join(header)[:80]}”; a column called position is needed.",
            remedy="Name the columns position, kind, uncertainty, or leave the header out.",
            field="header",
        )
    return columns, 1


def _row(row: Row, columns: dict[str, int], units: UnitSystem) -> UnderstoodRow:
    if any(row.cells[len(COLUMNS) :]):
        raise InputError(
            f"This line has {len(row.cells)} cells.",
            remedy="With decimal commas, separate the columns by semicolons.",
            field="readings",
        )
    cells = {name: row.cells[i] for name, i in columns.items() if i < len(row.cells)}
    position = Length.parse(cells.get("position", ""), units, "position")
    uncertainty = cells.get("uncertainty") or None
    if uncertainty is not None:
        Length.parse(uncertainty, units, "uncertainty")
    return UnderstoodRow(row.line, cells["position"], position.mm, _kind(cells.get("kind", "")), uncertainty)


def _kind(word: str) -> ReadingKind:
    clean = word.strip().lower().replace(" ", "_").replace("-", "_")
    if not clean:
        return DEFAULT_KIND
    if clean in RELIABILITY:
        return clean
    raise InputError(
        f"“{word}” is not a kind of reading.",
        remedy=f"Use one of: {', '.join(get_args(ReadingKind))}.",
        field="kind",
    )
