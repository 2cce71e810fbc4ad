"""The shop's items from a CSV and back: what was written comes back the same.

Columns are found by name; ``name`` is needed, the others may be missing. Nothing is taken before the person
has seen what it means.
"""

from __future__ import annotations

import csv
import io

from pydantic import ValidationError

from fahrtwind.core.errors import TooLarge, WrongHeader
from fahrtwind.core.job.load import as_input_error
from fahrtwind.core.job.workshop import ShopItem
from fahrtwind.core.records import dataclass
from fahrtwind.files.table import as_text, cells_by_name, neutral, number, read_rows

MOST_BYTES, MOST_ROWS, MOST_LINES = 1_000_000, 2000, 20_000
TEXTS = ("name", "kind", "unit", "supplier", "sheet")
NUMBERS = ("pack", "price", "stock", "lead_days", "length")
COLUMNS = ("name", "kind", "unit", "pack", "price", "stock", "supplier", "lead_days", "length", "sheet")


@dataclass(frozen=True, slots=True)
class ItemRow:
    """One line of the file: the item it means, or what is wrong with it."""

    line: int
    name: str
    item: ShopItem | None
    problem: str


@dataclass(frozen=True, slots=True)
class ItemTable:
    rows: tuple[ItemRow, ...]
    usable: int
    left_out: int


def read_items(text: str) -> ItemTable:
    """What the lines of a table mean. Raises WrongHeader where the name is missing, TooLarge beyond the
    limits.
    """
    if len(text) > MOST_BYTES:
        raise TooLarge(
            "The table is larger than 1 MB.", remedy="Cut it down to what the shop deals with.", field="text"
        )
    lines = read_rows(text, "text", most=MOST_LINES)
    if not lines or "name" not in lines[0].cells:
        raise WrongHeader(
            "The table is empty." if not lines else "The column name is missing.",
            remedy=f"Its first line names the columns: {', '.join(COLUMNS)}.",
            field="text",
        )
    unknown = [c for c in lines[0].cells if c and c not in COLUMNS]
    if unknown:
        raise WrongHeader(
            f"The column {unknown[0][:40]} is not known.",
            remedy=f"Columns are {', '.join(COLUMNS)}; take the others out.",
            field="text",
        )
    if len(lines) - 1 > MOST_ROWS:
        raise TooLarge(
            f"The table has {len(lines) - 1} items; at most {MOST_ROWS} are taken.",
            remedy="Cut it down to what the shop deals with.",
            field="text",
        )
    rows = tuple(_row(row.line, cells_by_name(lines[0], row, "text")) for row in lines[1:])
    usable = sum(r.item is not None for r in rows)
    return ItemTable(rows, usable, len(rows) - usable)


def _row(line: int, cells: dict[str, str]) -> ItemRow:
    name = as_text(cells.get("name", ""))[:80]
    wrong = next((c for c in NUMBERS if cells.get(c) and number(cells[c]) is None), None)
    if wrong:
        return ItemRow(line, name, None, f"{wrong}: “{cells[wrong][:30]}” is not a number.")
    fields: dict[str, object] = {c: as_text(cells[c]) for c in TEXTS if cells.get(c)}
    fields |= {c: number(cells[c]) for c in NUMBERS if cells.get(c)}
    if "length" in fields:
        fields["length"] = {"mm": fields["length"]}
    try:
        return ItemRow(line, name, ShopItem.model_validate(fields), "")
    except ValidationError as error:
        problem = as_input_error(error)
        return ItemRow(line, name, None, f"{problem.field}: {problem.problem}")


def write_items(items: list[ShopItem]) -> str:
    """The items as such a table; lengths in millimetres."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for item in items:
        cells = (
            item.name,
            item.kind,
            item.unit,
            f"{item.pack:g}",
            "" if item.price is None else f"{item.price:g}",
            f"{item.stock:g}",
            item.supplier,
            "" if item.lead_days is None else item.lead_days,
            "" if item.length is None else f"{item.length.mm:g}",
            item.sheet,
        )
        writer.writerow([neutral(cell) for cell in cells])
    return out.getvalue()
